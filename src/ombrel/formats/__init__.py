"""Readers and writers of open formats: bytes in, values out, or every fault with its place."""

"""Ombrel: prepare and run a digital console show, and know who hears what, and why."""

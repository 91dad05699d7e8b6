"""Sheets for the stage, the desk and the drawer."""

from .papers import input_list_columns, sheet_keys, sheet_of, sheet_title

__all__ = ["input_list_columns", "sheet_keys", "sheet_of", "sheet_title"]

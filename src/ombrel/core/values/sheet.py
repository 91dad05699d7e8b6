"""What a sheet for paper is: a table of typed cells, with numbers as numbers."""

import math
from dataclasses import dataclass

from .said import said

__all__ = ["Column", "Datum", "Sheet", "datum_text"]

Datum = str | int | float  # "" for nothing; -inf dB is "off"


@dataclass(frozen=True, slots=True, kw_only=True)
class Column:
    """One column. `unit`: of its numbers. `signed`: shown with their sign. `places`: behind the

    point. `paper`: printed; else only in files for spreadsheets.
    """

    title: str
    unit: str = ""
    signed: bool = False
    places: int = 0
    paper: bool = True

    @property
    def heading(self) -> str:
        """The title in a file, where a number stands without its unit."""
        return f"{self.title}, {self.unit}" if self.unit else self.title


@dataclass(frozen=True, slots=True, kw_only=True)
class Sheet:
    """One table. `key` names it in addresses; every row has as many data as there are columns.

    `about`: what to know of it, in words.
    """

    key: str
    title: str
    columns: tuple[Column, ...]
    rows: tuple[tuple[Datum, ...], ...]
    about: str = ""


def datum_text(column: Column, datum: Datum) -> str:
    """What stands in a cell, as it stands on paper: numbers with their unit, and a true minus."""
    if isinstance(datum, str):
        return datum
    if datum == -math.inf:
        return "off"
    text = str(datum)
    if isinstance(datum, float):
        text = said(datum, column.places, signed=column.signed)
    return f"{text} {column.unit}".rstrip()

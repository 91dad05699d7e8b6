"""What keeps a spreadsheet from running a text of a CSV as a formula, and takes that off again.

A formula begins a cell; and a cell may begin behind a semicolon, a bar or a tab: which of them
parts the cells is a matter of the country that a spreadsheet is set to. Full-width signs count,
too, since some programs fold them.
"""

import re
from typing import Final

__all__ = ["guarded", "unguarded"]

_STARTS: Final = r"[=+\-@'\uff1d\uff0b\uff0d\uff20]"
_BEFORE: Final = r"(^\s*|[;|\t]\s*)"
_AT_RISK: Final = re.compile(f"{_BEFORE}(?={_STARTS})")
_GUARDED: Final = re.compile(f"{_BEFORE}'(?={_STARTS})")


def guarded(text: str) -> str:
    """A text that no spreadsheet runs.

    >>> guarded("=1+1"), guarded("x;\\uff1d1"), guarded("Kick - in")
    ("'=1+1", "x;'\\uff1d1", 'Kick - in')
    """
    return _AT_RISK.sub(r"\1'", text)


def unguarded(text: str) -> str:
    """The text again: `unguarded(guarded(text)) == text`.

    >>> unguarded("'=1+1"), unguarded("'Kick'")
    ('=1+1', "'Kick'")
    """
    return _GUARDED.sub(r"\1", text)

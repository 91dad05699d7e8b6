"""Names as people list them: by commas, and in quotes where a name has one itself."""

import csv
import unicodedata

from .errors import UnreadableText

__all__ = ["read_names", "within", "written_names"]


def read_names(text: str, *, most: int) -> list[str]:
    """Names from a list such as 'Ada, "Bo, junior"', each once however it is written in capitals.

    Raises UnreadableText for more than `most`, or quotes that do not end.

    >>> read_names('Ada, "Bo, junior", ada', most=3)
    ['Ada', 'Bo, junior']
    """
    plain = text.replace("\u201c", '"').replace("\u201d", '"')
    try:
        rows = list(csv.reader(plain.splitlines(), skipinitialspace=True, strict=True))
    except csv.Error as error:
        raise UnreadableText(text[:60], 'names such as Ada, "Bo, junior"') from error
    names = [" ".join(name.split()) for row in rows for name in row]
    found = {name.casefold(): name for name in reversed(names) if name}
    kept = [name for name in dict.fromkeys(map(str.casefold, names)) if name]
    if len(kept) > most:
        raise UnreadableText(text[:60], f"at most {most} names")
    return [found[name] for name in kept]


def written_names(names: list[str]) -> str:
    """Names as `read_names` reads them again."""
    return ", ".join(f'"{name}"' if "," in name else name for name in names)


def within(name: str, ending: str = "", *, longest: int = 60) -> str:
    """A name with its ending in so many characters; one too long is cut between letters, and says

    so by an ellipsis.

    >>> within("Violins behind the rood screen", " L", longest=17)
    'Violins behind… L'
    """
    room = longest - len(ending)
    if len(name) <= room:
        return name + ending
    cut = max(room - 1, 0)
    while cut and unicodedata.combining(name[cut]):  # a mark goes with its letter
        cut -= 1
    return f"{name[:cut].rstrip()}\u2026{ending}"

"""Desk profiles by key: those that ship with Ombrel, and those that a user put beside them."""

from functools import cache
from importlib.resources import files

from django.conf import settings

from ombrel.core import BadFile, Desk
from ombrel.formats.desk_profile import read_desk

__all__ = ["desk_keys", "desk_of"]


def _folders() -> list:
    return [settings.DATA / "desks", files("ombrel") / "desks"]


def desk_keys() -> list[str]:
    """Keys of all profiles, a user's own included, in order."""
    found = set()
    for folder in _folders():
        if folder.is_dir():
            found |= {entry.name[:-5] for entry in folder.iterdir() if entry.name.endswith(".json")}
    return sorted(found)


@cache
def desk_of(key: str) -> Desk:
    """The profile of a key; a user's own wins over one that ships. Raises BadFile."""
    if key in desk_keys():
        for folder in _folders():
            path = folder / f"{key}.json"
            if path.is_file():
                return read_desk(key, path.read_bytes())
    raise BadFile(f"There is no desk profile {key!r}.", f"Known are {', '.join(desk_keys())}.")

"""Cues on paper: the list, and a sheet that a machine can play."""

from typing import Final

from ..scenes import number_text
from ..show import Show
from ..values import Column, Sheet, said
from .deeds import deed_text
from .listed import cues

__all__ = ["cues_sheet", "machine_sheet"]

_LIST: Final = (Column(title="What comes"), Column(title="What it does"))
_STEP_S: Final = 2.0


def cues_sheet(show: Show, title: str) -> Sheet:
    """One row a cue, by what comes."""
    rows = tuple((one.comes, deed_text(show, one.deed)) for one in cues(show))
    return Sheet(key="outside", title=title, columns=_LIST, rows=rows)


def machine_sheet(show: Show, step_s: float = _STEP_S) -> tuple[tuple[str, str, str], ...]:
    """Rows for a cue machine, one a scene in its order: time in s, the message, and what it is for.

    A scene that has a cue is called by that, another by Ombrel's own address.
    """
    by_scene = {
        one.deed.what: one.comes for one in reversed(cues(show)) if one.deed.does == "scene"
    }
    rows = []
    for place, scene in enumerate(show.scenes):
        number = number_text(show.number(f"{scene}/number"))
        message = by_scene.get(scene, f"/ombrel/scene {number}")
        words = f"Scene {number} {show.text(f'{scene}/name')}".rstrip()
        rows.append((said(place * step_s, 1), message, words))
    return tuple(rows)

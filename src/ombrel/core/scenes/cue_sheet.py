"""The scenes on paper, for whoever calls the show and whoever runs it."""

from typing import Final

from ..show import Show
from ..values import Column, Datum, Sheet
from .order import number_text
from .running import run_of
from .storing import holder_name

__all__ = ["cue_sheet"]

_COLUMNS: Final = (
    Column(title="Scene"),
    Column(title="Name"),
    Column(title="Takes", unit="s", places=1),
    Column(title="Opens"),
    Column(title="Silences"),
    Column(title="Values"),
    Column(title="Notes"),
)


def cue_sheet(show: Show, title: str) -> Sheet:
    """Every scene in its order: whom it opens and silences after the one before, and its notes."""
    rows: list[tuple[Datum, ...]] = []
    for scene, moved in run_of(show):
        number = number_text(show.number(f"{scene}/number"))
        if show.on(f"{scene}/skipped"):
            number += " (by its number only)"
        mutes = {holder: value for (holder, leaf), value in moved.items() if leaf == "mute"}
        names = [
            ", ".join(holder_name(show, holder) for holder, muted in mutes.items() if muted is on)
            for on in (False, True)
        ]
        seconds = show.number(f"{scene}/seconds")
        rows.append(
            (number, show.text(f"{scene}/name"), seconds or "", *names, len(moved),
             show.text(f"{scene}/notes"))
        )  # fmt: skip
    return Sheet(key="cues", title=title, columns=_COLUMNS, rows=tuple(rows))

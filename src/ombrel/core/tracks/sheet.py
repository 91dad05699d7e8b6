"""The track sheet: what the recorder's tracks are called, carry, and play back into."""

from typing import Final

from ..flow import strip_name
from ..show import Show
from ..values import Column, Sheet
from .planning import carried_name
from .recorded import recorded

__all__ = ["track_sheet"]

_COLUMNS: Final = tuple(
    Column(title=title)
    for title in ("Track", "Name", "Carries", "Taken", "Spare mix", "Plays back into", "Stays")
)


def track_sheet(show: Show, title: str) -> Sheet:
    """One row a track that carries something or stays; as CSV the first two columns name them.

    Raises NotRecordable without a recorder.
    """
    rows = tuple(
        (
            one.track,
            one.name,
            carried_name(show, one.carried) if one.carried else "",
            one.taken,
            strip_name(show, one.mix) if one.mix else "",
            ", ".join(strip_name(show, channel) for channel in one.plays_into),
            "stays" if one.held else "",
        )
        for one in recorded(show)
        if one.carried or one.held
    )
    return Sheet(key="tracks", title=title, columns=_COLUMNS, rows=rows)

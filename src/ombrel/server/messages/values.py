"""The values of a show, whole and moved: their messages, and what fills them."""

from typing import Literal

from pydantic import BaseModel

from ..keeping.states import State, for_pages, to_wire

__all__ = ["Moved", "Snapshot", "WireValue", "snapshot_message"]


WireValue = float | bool | str | None


class Snapshot(BaseModel):
    """All values that differ from their defaults."""

    type: Literal["snapshot"]
    revision: int
    values: dict[str, WireValue]


class Moved(BaseModel):
    """Values that changed between two revisions; after a gap the screen says hello again."""

    type: Literal["moved"]
    before: int
    revision: int
    values: dict[str, WireValue]


def snapshot_message(state: State) -> dict:
    """All values of a show."""
    values = for_pages(to_wire(state.show.values))
    return {"type": "snapshot", "revision": state.revision, "values": values}

"""What a screen can ask of routing: a group put in between, promises made and mended."""

from typing import Annotated, Literal

from pydantic import Field

from ombrel import core

from .asking import Address, Strict, Typing
from .plans import Planned, Turn, saying

__all__ = ["RoutingAsk"]


class PutBetween(Strict):
    """Put a group between channels and returns, as typed, and the house. `exceptions`: these not.

    `group`: one that there is; None makes one by `name`. `limit`: its compressor holds peaks at
    this level, as typed in dBFS; "": it does not.
    """

    action: Literal["put_between"]
    strips: Typing
    exceptions: Typing = ""
    name: Annotated[str, Field(max_length=60)] = ""
    group: Address | None = None
    mono: bool = False
    promise: bool = True
    limit: Typing = ""

    def plan(self, turn: Turn) -> Planned:
        show = turn.show
        without = core.read_strips(show, self.exceptions, dcas=False) if self.exceptions else []
        typed = core.typed_strips(show, self.strips, dcas=False)
        found = core.put_between(
            show,
            typed.strips,
            name=self.name,
            group=self.group,
            exceptions=without,
            mono=self.mono,
            promise=self.promise,
            limit_dbfs=core.typed_level_db(self.limit) if self.limit.strip() else None,
        )
        name = core.strip_name(show, self.group) if self.group else self.name
        says = f"{core.strips_text(found.through)} to the house through {name}"
        if found.left_out:
            says += f"; not in the house, left out: {core.strips_text(found.left_out)}"
        return Planned(found.moves, saying(says, typed))


class MakePromise(Strict):
    """Promise that strips, as typed, never reach some listeners, or only `through` a group."""

    action: Literal["make_promise"]
    sources: Typing
    listeners: Typing
    through: Address | None = None
    name: Annotated[str, Field(max_length=60)] = ""

    def plan(self, turn: Turn) -> Planned:
        moves = core.make_promise(
            turn.show,
            sources=core.read_strips(turn.show, self.sources, dcas=False),
            listeners=core.read_strips(turn.show, self.listeners, dcas=False),
            through=self.through,
            name=self.name,
        )
        return Planned(moves, f"Promised: {self.name or self.sources}"[:120])


class MendPromise(Strict):
    """Close every way by which a promise is broken."""

    action: Literal["mend_promise"]
    promise: Address

    def plan(self, turn: Turn) -> Planned:
        moves = core.mended(turn.show, turn.flow, self.promise)
        return Planned(moves, f"Mended: {core.strip_name(turn.show, self.promise)}"[:120])


class PanStrips(Strict):
    """Place channels, returns and groups, as typed, at one place ("C", "L30")."""

    action: Literal["pan_strips"]
    strips: Typing
    place: Typing

    def plan(self, turn: Turn) -> Planned:
        typed = core.typed_strips(turn.show, self.strips, dcas=False)
        moves = {f"{strip}/pan": core.Typed(self.place) for strip in typed.strips}
        says = f"{core.strips_text(typed.strips)} panned to {self.place}"
        return Planned(moves, saying(says, typed), carry=core.Carry())


RoutingAsk = PutBetween | MakePromise | MendPromise | PanStrips

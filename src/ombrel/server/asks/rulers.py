"""What a screen can ask of DCAs, mute groups, gangs and linked pairs."""

from typing import Annotated, Literal

from pydantic import Field

from ombrel import core

from .asking import MOST_STRIPS, Address, AskedMove, Strict, Typing, moves_from_wire
from .plans import Planned, Turn, saying

__all__ = ["RulerAsk"]


class MakeRulers(Strict):
    """Name the next free DCAs, mute groups or gangs."""

    action: Literal["make_rulers"]
    kind: Literal["dca", "mute_group", "gang"]
    names: Annotated[list[Typing], Field(min_length=1, max_length=64)]

    def plan(self, turn: Turn) -> Planned:
        moves = core.make_rulers(turn.show, self.kind, self.names)
        return Planned(moves, ", ".join(self.names[:4]))


class Members(Strict):
    """Let strips join a DCA, mute group or gang, or leave it: as typed, or a family of lines.

    `exactly`: who is not among them leaves. `also`: faders that keep every true level as it is, as
    a preview offered them.
    """

    action: Literal["members"]
    ruler: Address
    strips: Typing = ""
    family: Typing = ""
    on: bool = True
    exactly: bool = False
    also: Annotated[list[AskedMove], Field(max_length=MOST_STRIPS)] = []

    def plan(self, turn: Turn) -> Planned:
        show = turn.show
        found = core.strips_of_family(show, self.family) if self.family else []
        typed = core.TypedStrips(())
        if self.strips or not (self.family or self.exactly):
            dcas, unused = (
                core.of_kind(self.ruler) == "dca",
                not self.on,
            )  # who leaves may be unused
            typed = core.typed_strips(show, self.strips, dcas=dcas, unused=unused)
            found += typed.strips
        moves = core.membership(show, self.ruler, found, on=self.on)
        if self.exactly:
            others = [m for m in core.members_of(show, self.ruler) if m not in found]
            moves |= core.membership(show, self.ruler, others, on=not self.on)
        name, way = core.strip_name(show, self.ruler), "into" if self.on else "out of"
        says = f"{core.strips_text(found)} {way} {name}"
        return Planned({**moves, **moves_from_wire(self.also)}, saying(says, typed))


class ClearRuler(Strict):
    """Clear a DCA, mute group or gang: its name, members and all that it is.

    `also`: as in `members`.
    """

    action: Literal["clear_ruler"]
    ruler: Address
    also: Annotated[list[AskedMove], Field(max_length=MOST_STRIPS)] = []

    def plan(self, turn: Turn) -> Planned:
        says = f"{core.strip_name(turn.show, self.ruler)} cleared"
        moves = core.clear_ruler(turn.show, self.ruler)
        return Planned({**moves, **moves_from_wire(self.also)}, says)


class MuteAll(Strict):
    """Make a hard mute group of all inputs, or of all ears, safe until it is armed; or turn it

    (`on`), safe or not, made where there is none yet.
    """

    action: Literal["mute_all"]
    what: Literal["inputs", "ears"]
    on: bool | None = None

    def plan(self, turn: Turn) -> Planned:
        moves = core.mute_all(turn.show, self.what, on=self.on)
        done = {None: f"Mute group of all {self.what}", True: f"All {self.what} muted"}
        return Planned(moves, done.get(self.on, f"All {self.what} open"))


class LinkPairs(Strict):
    """Link channels or mixes in pairs, or part them, typed by either side ("13-16"; "": the

    channels of all stereo lines). `spread`: what stands in the centre of both goes fully left and
    right.
    """

    action: Literal["link_pairs"]
    kind: Literal["channel", "mix"]
    strips: Typing = ""
    on: bool = True
    spread: bool = False

    def plan(self, turn: Turn) -> Planned:
        moves = core.linking(turn.show, self.strips, kind=self.kind, on=self.on, spread=self.spread)
        word = "linked" if self.on else "parted"
        what = self.strips or "pairs of stereo lines"
        return Planned(moves, f"{self.kind.capitalize()} {what} {word}")


class ClearSolos(Strict):
    """Let go of every solo key."""

    action: Literal["clear_solos"]

    def plan(self, turn: Turn) -> Planned:
        return Planned(core.clear_solos(turn.show), "Solos cleared")


RulerAsk = MakeRulers | Members | ClearRuler | MuteAll | LinkPairs | ClearSolos

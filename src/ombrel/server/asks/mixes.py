"""What a screen can ask of mixes, groups, matrices, effects and returns."""

from typing import Annotated, Literal, cast

from pydantic import Field

from ombrel import core

from .asking import MOST_BUSES, STORABLE, Address, Strict, Typing
from .plans import Planned, Turn, saying

__all__ = ["BusAsk", "MoveBus"]


class MakeMixes(Strict):
    """Make a mix for each name, sends and outputs included; no `level`: that of a new mix."""

    action: Literal["make_mixes"]
    names: Annotated[list[Typing], Field(min_length=1, max_length=128)]
    stereo: bool
    serves: Typing = ""  # as their names tell: a wedge by its word, else ears
    channels: Typing = ""
    level: Typing = ""
    patch: bool = True
    tap: Typing = core.NEW_MIX.tap

    def plan(self, turn: Turn) -> Planned:
        desk = turn.show.desk
        channels = (
            core.read_numbers(self.channels, highest=desk.channels) if self.channels.strip() else []
        )
        moves = core.make_mixes(
            turn.show,
            self.names,
            stereo=self.stereo,
            serves=self.serves,
            channels=channels,
            level_db=core.typed_level_db(self.level) if self.level else core.NEW_MIX.level_db,
            patch=self.patch,
            tap=self.tap,
        )
        return Planned(moves, f"Made {', '.join(self.names)}")


class MakeBuses(Strict):
    """Make a group or matrix for each name."""

    action: Literal["make_buses"]
    kind: Literal["group", "matrix"]
    names: Annotated[list[Typing], Field(min_length=1, max_length=128)]
    stereo: bool
    patch: bool = False

    def plan(self, turn: Turn) -> Planned:
        moves = core.make_buses(
            turn.show, self.kind, self.names, stereo=self.stereo, patch=self.patch
        )
        return Planned(moves, f"Made {', '.join(self.names)}")


class MakeEffect(Strict):
    """Make a shared effect: its mix, its engine (0: the next free), its return.

    `strips`: sent to it at `level`, both as typed.
    """

    action: Literal["make_effect"]
    name: Typing
    engine: int = 0
    stereo: bool = True
    kind: Typing = "hall"
    strips: Typing = ""
    level: Typing = "-12"

    def plan(self, turn: Turn) -> Planned:
        show = turn.show
        moves = core.make_effect(show, self.name, engine=self.engine, stereo=self.stereo)
        engine = next(core.thing_of(one) for one in moves if core.of_kind(one) == "engine")
        moves[f"{engine}/kind"] = self.kind
        if self.strips.strip():
            mix = core.thing_of(next(iter(moves)))
            strips = core.read_strips(show, self.strips, dcas=False)
            moves |= core.send_strips(core.looked_at(show, moves), strips, [mix], self.level)
        return Planned(moves, f"Made {self.name}")


class SendStrips(Strict):
    """Send strips to mixes, both as typed ("1-8", "mix 1-6"), at a level as typed."""

    action: Literal["send_strips"]
    strips: Typing
    mixes: Typing
    level: Typing

    def plan(self, turn: Turn) -> Planned:
        show = turn.show
        typed = core.typed_strips(show, self.strips, dcas=False)
        mixes = core.typed_strips(show, self.mixes, dcas=False)
        moves = core.send_strips(show, typed.strips, mixes.strips, self.level)
        names = ", ".join(core.strip_name(show, mix) for mix in mixes.strips)
        says = f"{core.strips_text(typed.strips)} to {names} at {self.level}"
        return Planned(moves, saying(says, typed, mixes))


class RenameEffect(Strict):
    """Call a shared effect anew: its engine, its mix and its returns."""

    action: Literal["rename_effect"]
    engine: Address
    name: Annotated[str, Field(max_length=60, pattern=STORABLE)]

    def plan(self, turn: Turn) -> Planned:
        moves = core.rename_effect(turn.show, self.engine, self.name)
        return Planned(moves, f"{core.strip_name(turn.show, self.engine)} is {self.name}"[:120])


class SetNote(Strict):
    """Hold a delay to a note of the tempo, or ("free") to none."""

    action: Literal["set_note"]
    engine: Address
    note: Typing

    def plan(self, turn: Turn) -> Planned:
        return Planned(core.set_note(turn.show, self.engine, self.note))


class SetTempo(Strict):
    """Set the tempo as typed, or by `taps`, in milliseconds; delays that are held to it follow."""

    action: Literal["set_tempo"]
    typed: Typing = ""
    taps: Annotated[list[float], Field(max_length=64)] = []

    def plan(self, turn: Turn) -> Planned:
        if self.taps:
            bpm = core.tapped_bpm(self.taps)
        else:
            kind = core.parameter_at("show/tempo").kind
            now = turn.show["show/tempo"]
            bpm = cast(float, kind.typed(self.typed, now, "show/tempo"))
        return Planned(core.set_tempo(turn.show, bpm), f"Tempo {bpm:g}")


class RemoveBus(Strict):
    """Remove a mix, group or matrix."""

    action: Literal["remove_bus"]
    bus: Address

    def plan(self, turn: Turn) -> Planned:
        name = core.listener_name(turn.show, self.bus)
        return Planned(core.remove_bus(turn.show, self.bus), f"{name} removed", own=True)


class DuplicateBus(Strict):
    """Copy a mix, group or matrix into the next free one."""

    action: Literal["duplicate_bus"]
    bus: Address

    def plan(self, turn: Turn) -> Planned:
        name = core.listener_name(turn.show, self.bus)
        return Planned(core.duplicate_bus(turn.show, self.bus), f"{name} duplicated", own=True)


class MoveBus(Strict):
    """Put a mix, group or matrix ahead of another of its kind, or last."""

    action: Literal["move_bus"]
    bus: Address
    before: Address | None

    def plan(self, turn: Turn) -> Planned:
        name = core.listener_name(turn.show, self.bus)
        to = core.order_of_buses(turn.show, self.bus, self.before)
        moves = core.move_bus(turn.show, self.bus, self.before)
        return Planned(moves, f"{name} moved", own=True, renumbered=dict(to))


class FillMix(Strict):
    """Fill a mix from the house's true levels or another mix, with an offset as typed; strips as

    typed are left as they are.
    """

    action: Literal["fill_mix"]
    mix: Address
    source: Address
    offset: Typing = "0"
    exceptions: Typing = ""

    def plan(self, turn: Turn) -> Planned:
        show, left = turn.show, self.exceptions.strip()
        moves = core.fill_mix(
            show, turn.flow, self.mix, self.source,
            offset_db=core.typed_level_db(self.offset or "0"),
            but=core.read_strips(show, left, dcas=False, unused=True) if left else (),
        )  # fmt: skip
        names = [core.listener_name(turn.show, one) for one in (self.mix, self.source)]
        return Planned(moves, f"{names[0]} filled from {names[1]}")


class FeedReturn(Strict):
    """Give a return its source as typed ("engine 2", "Quay 1"); empty text takes it away."""

    action: Literal["feed_return"]
    number: int
    source: Typing

    def plan(self, turn: Turn) -> Planned:
        source = core.one_socket(turn.show.desk, self.source)
        return Planned({f"return/{self.number}/source": source})


class PatchBus(Strict):
    """Patch a bus to outputs as typed, or with no text to the next free ones."""

    action: Literal["patch_bus"]
    bus: Address
    sockets: Typing = ""

    def plan(self, turn: Turn) -> Planned:
        moves = core.patch_bus_to(turn.show, self.bus, self.sockets)
        return Planned(moves, f"{core.listener_name(turn.show, self.bus)} to outputs")


class PatchBuses(Strict):
    """Patch mixes (all that no output carries, if none are named) to the next free outputs."""

    action: Literal["patch_buses"]
    buses: Annotated[list[Address], Field(max_length=MOST_BUSES)] = []

    def plan(self, turn: Turn) -> Planned:
        buses = self.buses or [f"mix/{number}" for number in turn.show.mixes()]
        return Planned(core.patch_buses(turn.show, buses), "Mixes patched to outputs")


BusAsk = (
    MakeMixes
    | MakeBuses
    | MakeEffect
    | SendStrips
    | RenameEffect
    | SetNote
    | SetTempo
    | RemoveBus
    | DuplicateBus
    | MoveBus
    | FillMix
    | FeedReturn
    | PatchBus
    | PatchBuses
)

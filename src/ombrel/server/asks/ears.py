"""What a screen can ask of ears and wedges: mixes started, shaped whole, brought back, locked."""

from typing import Annotated, Literal

from pydantic import Field

from ombrel import core

from .asking import STORABLE, Address, Strict, Typing
from .plans import Planned, Turn, saying

__all__ = ["EarAsk"]


def _mixes(turn: Turn, typed: str) -> core.TypedStrips:
    """Mixes as typed; no text: all for ears and wedges."""
    if not typed.strip():
        return core.TypedStrips(tuple(core.ear_mixes(turn.show)))
    return core.typed_strips(turn.show, typed, dcas=False)


def _named(turn: Turn, typed: core.TypedStrips) -> str:
    return ", ".join(core.strip_name(turn.show, one) for one in typed.strips)


class StartMixes(Strict):
    """Start mixes, typed ("mix 1-6"), each from a base ("house", "mix/5" or a level) by a recipe

    (null: each by its own). `dcas`: counted in the house's levels; `pans`: taken along.
    """

    action: Literal["start_mixes"]
    mixes: Typing
    base: Typing = "house"
    recipe: Annotated[str, Field(max_length=2_000, pattern=STORABLE)] | None = ""
    dcas: bool = True
    pans: bool = True

    def plan(self, turn: Turn) -> Planned:
        show = turn.show
        typed = core.typed_strips(show, self.mixes, dcas=False)
        found = core.start_mixes(
            show, typed.strips, self.base, self.recipe, dcas=self.dcas, pans=self.pans
        )
        names = ", ".join(core.strip_name(show, one) for one in typed.strips)
        by = " each by its own recipe" if self.recipe is None else ""
        by = f" by {self.recipe}" if self.recipe and self.recipe.strip() else by
        return Planned(found.moves, saying(f"{names} started{by}", typed), told=found.told)


class BoostSelves(Strict):
    """Make beside each of some mixes, typed, a mono one of its performer's own channels."""

    action: Literal["boost_selves"]
    mixes: Typing

    def plan(self, turn: Turn) -> Planned:
        typed = core.typed_strips(turn.show, self.mixes, dcas=False)
        found = core.boost_selves(turn.show, typed.strips)
        names = ", ".join(core.strip_name(turn.show, one) for one in typed.strips)
        return Planned(found.moves, saying(f"Boosts of {names}", typed), told=found.told)


class SetSelf(Strict):
    """Name the channels by which whoever hears a mix is heard, as typed; no text: by names."""

    action: Literal["set_self"]
    mix: Address
    channels: Typing = ""

    def plan(self, turn: Turn) -> Planned:
        moves = core.set_self(turn.show, self.mix, self.channels)
        whose = core.strip_name(turn.show, self.mix)
        return Planned(moves, f"Self of {whose}: {self.channels.strip() or 'by names'}"[:200])


class TrimMixes(Strict):
    """Move all that is sent to mixes, typed, by a step ("+2", "down 1"), distances kept; or what

    `strips`, typed, send to them.
    """

    action: Literal["trim_mixes"]
    mixes: Typing
    step: Typing
    strips: Typing = ""

    def plan(self, turn: Turn) -> Planned:
        typed, by_db = _mixes(turn, self.mixes), core.read_step(self.step)
        of = core.TypedStrips(())
        if self.strips.strip():
            of = core.typed_strips(turn.show, self.strips, dcas=False)
        moves = core.trim_mixes(turn.show, typed.strips, by_db, of.strips)
        what = f"{_named(turn, of)} in {_named(turn, typed)}" if of.strips else _named(turn, typed)
        says = f"{what} trimmed by {core.said(by_db, signed=True)} dB"
        return Planned(moves, saying(says, typed, of), seconds=turn.still(moves))


class TrimEars(Strict):
    """Move the faders of all mixes for ears by a step, distances kept."""

    action: Literal["trim_ears"]
    step: Typing

    def plan(self, turn: Turn) -> Planned:
        by_db = core.read_step(self.step)
        moves = core.trim_ears(turn.show, by_db)
        says = f"All ears by {core.said(by_db, signed=True)} dB"
        return Planned(moves, says, seconds=turn.still(moves))


class CopyMix(Strict):
    """Give mixes, typed, the sends, level and start of another."""

    action: Literal["copy_mix"]
    source: Address
    mixes: Typing

    def plan(self, turn: Turn) -> Planned:
        typed = core.typed_strips(turn.show, self.mixes, dcas=False)
        moves = core.copy_mix(turn.show, self.source, typed.strips)
        name = core.strip_name(turn.show, self.source)
        return Planned(moves, saying(f"{name} copied to {_named(turn, typed)}", typed))


class SwapMixes(Strict):
    """Give each of two mixes the sends, level and start of the other."""

    action: Literal["swap_mixes"]
    one: Address
    other: Address

    def plan(self, turn: Turn) -> Planned:
        moves = core.swap_mixes(turn.show, self.one, self.other)
        names = [core.strip_name(turn.show, one) for one in (self.one, self.other)]
        return Planned(moves, f"{names[0]} and {names[1]} swapped")


class JoinMixes(Strict):
    """Open strips, typed, in mixes (typed; none: all for ears and wedges) where they are closed."""

    action: Literal["join_mixes"]
    strips: Typing
    mixes: Typing = ""
    level: Typing = ""

    def plan(self, turn: Turn) -> Planned:
        strips = core.typed_strips(turn.show, self.strips, dcas=False)
        mixes = _mixes(turn, self.mixes)
        level = self.level.strip() or core.said(core.NEW_MIX.level_db, signed=True)
        found = core.join_mixes(turn.show, strips.strips, mixes.strips, level)
        names = ", ".join(core.strip_name(turn.show, one) for one in strips.strips)
        says = saying(f"{names} joined {_named(turn, mixes)}", strips, mixes)
        return Planned(found.moves, says, told=found.told)


class TakeStarts(Strict):
    """What mixes, typed (none: all for ears and wedges), are now is their start."""

    action: Literal["take_starts"]
    mixes: Typing = ""

    def plan(self, turn: Turn) -> Planned:
        typed = _mixes(turn, self.mixes)
        moves = core.take_starts(turn.show, typed.strips)
        return Planned(moves, saying(f"As it is now is the start: {_named(turn, typed)}", typed))


class StartOver(Strict):
    """Bring mixes, typed, back to their starts."""

    action: Literal["start_over"]
    mixes: Typing

    def plan(self, turn: Turn) -> Planned:
        typed = core.typed_strips(turn.show, self.mixes, dcas=False)
        moves = core.start_over(turn.show, typed.strips)
        return Planned(moves, saying(f"{_named(turn, typed)} started over", typed))


class ListenAs(Strict):
    """Let the engineer hear a mix and nothing else, or end it; nobody's ears change."""

    action: Literal["listen_as"]
    mix: Address
    on: bool = True

    def plan(self, turn: Turn) -> Planned:
        moves = core.listen_as(turn.show, self.mix, on=self.on)
        name = core.strip_name(turn.show, self.mix)
        return Planned(moves, f"Listening as {name}" if self.on else f"No more listening as {name}")


class LockMixes(Strict):
    """Lock mixes, typed, for phones with a reason, or open them; no text: all at once."""

    action: Literal["lock_mixes"]
    mixes: Typing = ""
    locked: bool
    reason: Annotated[str, Field(max_length=120, pattern=STORABLE)] = ""

    def plan(self, turn: Turn) -> Planned:
        whole = not self.mixes.strip()
        typed = core.TypedStrips(()) if whole else _mixes(turn, self.mixes)
        moves = core.lock_mixes(turn.show, typed.strips, locked=self.locked, reason=self.reason)
        names = "All ears and wedges" if whole else _named(turn, typed)
        why = f": {self.reason}" if self.locked and self.reason else ""
        return Planned(
            moves, saying(f"{names} {'locked' if self.locked else 'unlocked'}{why}", typed)
        )


EarAsk = (
    StartMixes
    | BoostSelves
    | SetSelf
    | TrimMixes
    | TrimEars
    | CopyMix
    | SwapMixes
    | JoinMixes
    | TakeStarts
    | StartOver
    | ListenAs
    | LockMixes
)

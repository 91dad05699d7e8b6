"""What a screen can ask of strips: settings copied, kept as presets, put back to neutral."""

from typing import Annotated, Literal

from pydantic import Field

from ombrel import core

from .asking import MOST_STRIPS, Address, Strict, Typing
from .plans import Planned, Turn

__all__ = ["StripAsk"]

Aspects = Annotated[list[Typing], Field(min_length=1, max_length=20)]


class CopyStrip(Strict):
    """Copy aspects of a strip to others, as typed ("1-8, mix 2")."""

    action: Literal["copy_strip"]
    strip: Address
    to: Typing
    aspects: Aspects

    def plan(self, turn: Turn) -> Planned:
        to = core.read_strips(turn.show, self.to, dcas=False, unused=True)
        moves = core.copied(turn.show, self.strip, to, self.aspects)
        words = ", ".join(aspect.replace("_", " ") for aspect in self.aspects)
        name = core.strip_name(turn.show, self.strip)
        return Planned(moves, f"{words} of {name} to {core.strips_text(to)}"[:120])


class Neutral(Strict):
    """Put aspects of strips back to neutral."""

    action: Literal["neutral"]
    strips: Annotated[list[Address], Field(min_length=1, max_length=MOST_STRIPS)]
    aspects: Aspects

    def plan(self, turn: Turn) -> Planned:
        moves = core.neutral(turn.show, self.strips, self.aspects)
        words = ", ".join(aspect.replace("_", " ") for aspect in self.aspects)
        name = core.strip_name(turn.show, self.strips[0])
        return Planned(moves, f"{name}: {words} neutral")


class ApplyPreset(Strict):
    """Give strips, as typed, a preset's aspects; none named: all that it holds."""

    action: Literal["apply_preset"]
    preset: Address
    to: Typing
    aspects: Annotated[list[Typing], Field(max_length=12)] = []

    def plan(self, turn: Turn) -> Planned:
        show = turn.show
        to = core.read_strips(show, self.to, dcas=False, unused=True)
        moves = core.apply_preset(show, self.preset, to, self.aspects)
        cards = {card.preset: card.name for card in core.presets(show, to[0])}
        says = f"{cards[self.preset]} on {core.strips_text(to)}"
        return Planned(moves, says[:120])


class KeepPreset(Strict):
    """Keep aspects of a strip's processing under a name."""

    action: Literal["keep_preset"]
    strip: Address
    name: Annotated[str, Field(max_length=60)]
    aspects: Aspects

    def plan(self, turn: Turn) -> Planned:
        moves = core.keep_preset(turn.show, self.strip, self.name, self.aspects)
        return Planned(moves, f"Preset {self.name} kept")


class ForgetPreset(Strict):
    """Forget a preset of the show's own."""

    action: Literal["forget_preset"]
    preset: Address

    def plan(self, turn: Turn) -> Planned:
        says = f"Preset {core.strip_name(turn.show, self.preset)} forgotten"
        return Planned(core.forget_preset(turn.show, self.preset), says)


class DuplicateChannel(Strict):
    """Copy a channel into the next free one, but for its source."""

    action: Literal["duplicate_channel"]
    channel: int

    def plan(self, turn: Turn) -> Planned:
        name = core.strip_name(turn.show, f"channel/{self.channel}")
        moves = core.duplicate_channel(turn.show, self.channel)
        to = core.strips_text([core.Address.at(next(iter(moves))).thing])
        return Planned(moves, f"{name} duplicated to channel {to}, muted")


class MoveChannels(Strict):
    """Put channels, as typed, at a number and those above it, or let them change places with those

    there; all that says their names goes with them.
    """

    action: Literal["move_channels"]
    channels: Typing
    to: Annotated[int, Field(ge=1, le=100_000)]
    swap: bool = False

    def plan(self, turn: Turn) -> Planned:
        show = turn.show
        strips = core.read_strips(show, self.channels, dcas=False, unused=True)
        numbers = [core.Thing.at(one).number for one in strips if core.of_kind(one) == "channel"]
        if len(numbers) < len(strips):
            raise core.UnreadableText(self.channels, "channels alone, such as 9-12")
        found = core.renumber_channels(show, numbers, self.to, swap=self.swap)
        what = core.strip_name(show, strips[0]) if len(strips) == 1 else f"{len(strips)} channels"
        says = f"{what} {'change places with' if self.swap else 'moved to'} channel {self.to}"
        if found.apart:
            names = ", ".join(core.strip_name(show, one) for one in found.apart)
            says += f"; no pairs any more: {names}"
        return Planned(found.moves, says[:120], own=True, renumbered=dict(found.to))


class Reinforce(Strict):
    """Reinforce a channel by a tone that it opens, at a frequency as typed ("50"), on the highest

    free channel or the one named.
    """

    action: Literal["reinforce"]
    strip: Address
    frequency: Typing
    on: int | None = None

    def plan(self, turn: Turn) -> Planned:
        moves = core.reinforced(turn.show, turn.flow, self.strip, self.frequency, on=self.on)
        name = core.strip_name(turn.show, self.strip)
        return Planned(moves, f"{name} reinforced by a tone of {self.frequency}"[:120])


StripAsk = (
    CopyStrip
    | Neutral
    | ApplyPreset
    | KeepPreset
    | ForgetPreset
    | DuplicateChannel
    | MoveChannels
    | Reinforce
)

"""Presets: processing kept by a name, applied to strips whole or aspect by aspect.

Some ship; a show keeps its own as `preset/<preset>`, which has the leaves of a channel's own
processors, so that undo, the show file and a copy of a show have them too. What keys a processor is
a matter of the strip: no preset moves that.
"""

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from typing import Final

from ..catalogue import SHIPPED_PRESETS, Address, Thing, below, default_of, is_on_desk, of_kind
from ..show import Show, check_made, lines_on
from ..values import Asked, NothingLeft, Typed, UnknownAddress, UnreadableText
from .copying import copied, of_aspects

__all__ = ["HELD", "PresetCard", "apply_preset", "forget_preset", "keep_preset", "presets"]

HELD: Final = ("low_cut", "gate", "eq", "compressor")


@dataclass(frozen=True, slots=True, kw_only=True)
class PresetCard:
    """A preset to choose. `preset`: its key, or its address where it is the show's own. `aspects`:

    what it holds; `suits`: it is of the strip's own kind.
    """

    preset: str
    name: str
    own: bool
    aspects: tuple[str, ...]
    suits: bool


def presets(show: Show, strip: str) -> tuple[PresetCard, ...]:
    """All presets, those that suit a strip first, of these the show's own."""
    family = _family(show, strip)
    cards = [
        PresetCard(
            preset=preset,
            name=show.text(f"{preset}/name"),
            own=True,
            aspects=tuple(one for one in HELD if show.on(f"{preset}/has_{one}")),
            suits=show[f"{preset}/family"] == family,
        )
        for preset in _kept(show)
    ]
    cards += [
        PresetCard(
            preset=one.key,
            name=one.name,
            own=False,
            aspects=HELD,
            suits=family in one.families,
        )
        for one in SHIPPED_PRESETS
    ]
    return tuple(sorted(cards, key=lambda card: not card.suits))


def _family(show: Show, strip: str) -> str:
    """The family of the line on a channel; "unsorted" where there is none."""
    source = show.source_of(Thing.at(strip).number) if of_kind(strip) == "channel" else None
    lines = lines_on(show, source) if source is not None else []
    return show.text(f"line/{lines[0]}/family") if lines else "unsorted"


def _kept(show: Show) -> list[str]:
    every = (f"preset/{n}" for n in range(1, show.desk.count("preset") + 1))
    return [one for one in every if f"{one}/name" in show.values]


def apply_preset(
    show: Show, preset: str, targets: Sequence[str], aspects: Collection[str] = ()
) -> dict[str, Asked]:
    """Moves that give strips a preset's aspects (none named: all that it holds), as far as they

    have such. Raises UnknownAddress for no such preset, UnreadableText for an aspect of none.
    """
    if of_kind(preset) == "preset":
        if preset not in _kept(show):
            raise UnknownAddress(preset, "this show keeps no such preset")
        held = [one for one in HELD if show.on(f"{preset}/has_{one}")]
        return copied(show, preset, targets, [one for one in held if not aspects or one in aspects])
    shipped = next((one for one in SHIPPED_PRESETS if one.key == preset), None)
    if shipped is None:
        raise UnknownAddress(preset, "there is no such preset")
    leaves = of_aspects(show, "channel/1", aspects or HELD)
    moves: dict[str, Asked] = {}
    for leaf in [
        one for one in leaves if Address.at(f"channel/1/{one}").last not in ("key", "key_tap")
    ]:
        for target in targets:
            address = f"{target}/{leaf}"
            if is_on_desk(show.desk, address):
                moves[address] = shipped.values.get(leaf, default_of(address))
    return moves


def keep_preset(show: Show, strip: str, name: str, aspects: Collection[str]) -> dict[str, Asked]:
    """Moves that keep aspects of a strip's processing under a name, in the next free place, or in

    the one of that name. Raises NothingLeft, UnreadableText.
    """
    wanted = [one for one in HELD if one in aspects]
    if not name.strip() or not wanted:
        raise UnreadableText(name, f"a name, and some of {', '.join(HELD)}")
    kept = _kept(show)
    plain = " ".join(name.split())
    same = [one for one in kept if show.text(f"{one}/name").lower() == plain.lower()]
    every = (f"preset/{n}" for n in range(1, show.desk.count("preset") + 1))
    free = same or [one for one in every if one not in kept]
    if not free:
        raise NothingLeft("presets", 1, 0)
    preset = free[0]
    moves = _emptied(show, preset) | copied(show, strip, [preset], wanted)
    moves[f"{preset}/name"] = Typed(name)
    moves[f"{preset}/family"] = _family(show, strip)
    return moves | {f"{preset}/has_{one}": one in wanted for one in HELD}


def forget_preset(show: Show, preset: str) -> dict[str, Asked]:
    """Moves that forget a preset of the show's own. Raises NotThere."""
    check_made(show, preset)
    return _emptied(show, preset)


def _emptied(show: Show, preset: str) -> dict[str, Asked]:
    return {a: default_of(a) for a in below(preset, show.values)}

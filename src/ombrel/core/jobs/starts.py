"""Mixes started from a base by a recipe: every send of them, and what the recipe cannot have."""

import math
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from ..answers import typed_level_db
from ..catalogue import SENDERS, Address, Thing, of_kind, parameter_at, strips_of
from ..ears import Item, deciding, opened, read_recipe, selves_of
from ..flow import strip_name
from ..show import Show, is_of_bus
from ..values import Asked, Number, UnknownAddress, UnreadableText, said, within
from .mixes import make_mixes

__all__ = ["Started", "boost_selves", "start_mixes"]

_LEVEL: Final = parameter_at("channel/1/send/mix/1/level").kind
assert isinstance(_LEVEL, Number)  # a send's level is one, by the catalogue
_HIGHEST: Final = _LEVEL.highest
_LOWEST: Final = _LEVEL.lowest_finite
_MOST_NAMES: Final = 6
_MOST_TOLD: Final = 24


@dataclass(frozen=True, slots=True, kw_only=True)
class Started:
    """`moves`: every send of the mixes. `told`: what its recipe cannot have, in words."""

    moves: Mapping[str, Asked]
    told: tuple[str, ...]


def start_mixes(
    show: Show,
    mixes: Sequence[str],
    base: str,
    recipe: str | None = "",
    *,
    dcas: bool = True,
    pans: bool = True,
) -> Started:
    """Start mixes from a base: "house" (its levels with every mute open, `dcas` counted or not),

    another mix ("mix/5"), or one level as typed ("-12"), changed by a recipe (None: each by its
    own, which is kept with it). What neither opens is off; taps stay. `pans`: taken along. Raises
    UnknownAddress for no mix in use, UnreadableText for a base or recipe that cannot be read.
    """
    bases = _Bases(show, dcas=dcas)
    moves: dict[str, Asked] = {}
    told: list[str] = []
    for mix in mixes:
        if of_kind(mix) != "mix" or mix not in strips_of(show.desk, "mix") or not show.uses(mix):
            raise UnknownAddress(mix, "no such mix is in use")
        text = show.text(f"{mix}/recipe") if recipe is None else _one_line(recipe)
        items = read_recipe(show, text, mix) if text else []
        bases.named = frozenset(strip for one in items if one.rank == 3 for strip in one.strips)
        found, cannot = _started(show, mix, base, items, bases, pans=pans)
        moves |= found | {f"{mix}/recipe": text}
        whose = f"{strip_name(show, mix)}: " if len(mixes) > 1 else ""
        told += [f"{whose}{one}" for one in cannot]
    return Started(moves=moves, told=tuple(told[:_MOST_TOLD]))


def _one_line(recipe: str) -> str:
    """A recipe as it is kept: lines are items like any."""
    return ", ".join(line.strip().rstrip(",;") for line in recipe.splitlines() if line.strip())


def _started(
    show: Show, mix: str, base: str, items: list[Item], bases: "_Bases", *, pans: bool
) -> tuple[dict[str, Asked], list[str]]:
    """The sends of one mix, and what its recipe cannot have."""
    moves: dict[str, Asked] = {}
    over: list[tuple[str, float]] = []
    shut: list[str] = []
    for strip in strips_of(show.desk, *SENDERS):
        item = deciding(items, strip)
        level_db = _level(bases, bases.level(base, strip), item, strip)
        if item and item.how == "step" and level_db == -math.inf and item.rank:
            shut.append(strip)
        if level_db > _HIGHEST:
            over.append((strip, level_db - _HIGHEST))
        if level_db > -math.inf:
            level_db = -math.inf if level_db < _LOWEST else round(min(level_db, _HIGHEST), 6)
        send = f"{strip}/send/{mix}"
        moves |= {f"{send}/level": level_db, f"{send}/on": True}
        if pans and level_db > -math.inf:
            moves[f"{send}/pan"] = bases.pan(base, strip)
    return moves, _told(show, items, over, shut)


def boost_selves(show: Show, mixes: Sequence[str]) -> Started:
    """Make beside each mix a mono one of its performer's own channels, at 0 dB, all else off, on

    the next free output. Mixes without a performer's channels are told and left out. Raises
    NothingLeft for mixes or outputs, UnreadableText where no mix has any.
    """
    own = {mix: selves_of(show, mix) for mix in mixes}
    having = [mix for mix in mixes if own[mix]]
    lacking = [strip_name(show, mix) for mix in mixes if not own[mix]]
    if not having:
        raise UnreadableText(
            ", ".join(lacking),
            "mixes whose performer has channels: by a part, or a line's performer",
        )
    names = [within(strip_name(show, mix), " boost") for mix in having]
    moves: dict[str, Asked] = make_mixes(show, names, stereo=False, serves="ears")
    made = dict.fromkeys(Address.at(a).thing for a in moves if Address.at(a).leaf == "format")
    for mix, boost in zip(having, made, strict=True):
        for strip in strips_of(show.desk, *SENDERS):
            send = f"{strip}/send/{boost}"
            moves |= {f"{send}/level": 0.0 if strip in own[mix] else -math.inf, f"{send}/on": True}
    told = (f"Without channels of their own: {', '.join(lacking)}.",) if lacking else ()
    return Started(moves=moves, told=told)


def _level(bases: "_Bases", base_db: float, item: Item | None, strip: str) -> float:
    if item is None:
        return base_db
    if item.how == "off":
        return -math.inf
    if item.how == "exact":
        return item.db
    if item.how == "base":
        base_db = bases.level(item.base, strip)
    return base_db + item.db


def _told(
    show: Show, items: Collection[Item], over: list[tuple[str, float]], shut: list[str]
) -> list[str]:
    told = []
    if over:
        most = max(by for _, by in over)
        told.append(f"Cut at +6: {_names(show, [one for one, _ in over])};"
                    f" {said(most)} dB lower all would fit.")  # fmt: skip
    if shut:
        told.append(f"Off in the base, so a step opens nothing: {_names(show, shut)}.")
    told += [f"{one.text!r} covers nothing here." for one in items if not one.strips]
    return told


def _names(show: Show, strips: list[str]) -> str:
    more = f" and {len(strips) - _MOST_NAMES} more" if len(strips) > _MOST_NAMES else ""
    return ", ".join(strip_name(show, one) for one in strips[:_MOST_NAMES]) + more


class _Bases:
    """The bases of one show, each worked out once. `named`: strips that a recipe names itself."""

    def __init__(self, show: Show, *, dcas: bool) -> None:
        self.show, self.dcas = show, dcas
        self.named: frozenset[str] = frozenset()
        self._known: dict[str, Mapping[str, float]] = {}

    def level(self, base: str, strip: str) -> float:
        """The level of a strip in a base; what it has not is off. Channels that a bus feeds are in

        none but a mix, unless the recipe names them.
        """
        if base not in self._known:
            self._known[base] = self._found(base)
        fed = of_kind(strip) == "channel" and of_kind(base) != "mix" and strip not in self.named
        if fed and is_of_bus(self.show.source_of(Thing.at(strip).number) or ""):
            return -math.inf
        return self._known[base].get(strip, -math.inf)

    def pan(self, base: str, strip: str) -> Asked:
        """Where a strip stands in a base."""
        if of_kind(base) == "mix":
            return self.show[f"{strip}/send/{base}/pan"]
        return self.show[f"{strip}/pan"]

    def _found(self, base: str) -> Mapping[str, float]:
        show = self.show
        if base == "house":
            _, flow = opened(show, dcas=self.dcas)
            house = flow.layout.column("house")
            rows = range(flow.layout.rows)
            return {flow.layout.source(row): flow.at_input_db(row, house) for row in rows}
        if of_kind(base) == "mix":
            if base not in strips_of(show.desk, "mix") or not show.uses(base):
                raise UnreadableText(base.replace("/", " "), "a mix that is in use")
            sends = {one: f"{one}/send/{base}" for one in strips_of(show.desk, *SENDERS)}
            return {
                one: show.number(f"{at}/level") for one, at in sends.items() if show.on(f"{at}/on")
            }
        level_db = typed_level_db(base)
        return {f"channel/{n}": level_db for n in show.channels() if show.source_of(n)}

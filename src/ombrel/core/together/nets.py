"""What comes later: groups and promises that hold all of something, and what starts in the house.

A mute group, DCA or promise may *take* all inputs, all ears, all sources or a family: what comes to
be one of these joins it by the same edit. Who is taken out by hand stays out ("all but").
"""

from collections.abc import Mapping
from typing import Final

from ..catalogue import (
    FAMILIES,
    HOUSE_STARTS,
    Address,
    Thing,
    bearing,
    bears,
    memberships_in,
    of_kind,
)
from ..show import Show, lines_on, strips_of_family
from ..values import Value

__all__ = ["TAKING", "netted", "starts_in_house", "taken_by_rule"]

TAKING: Final = ("mute_group", "dca", "promise")


def taken_by_rule(show: Show, takes: str) -> list[str]:
    """The strips that a rule takes now, in the order of the desk: "inputs" (channels on sockets,

    but talkback), "ears" (mixes for ears), "all" (sources in use), or a family.
    """
    if takes == "ears":
        return [mix for mix in show.in_use("mix") if show[f"{mix}/serves"] == "ears"]
    if takes == "inputs":
        fed = [(f"channel/{n}", str(show.source_of(n) or "")) for n in show.channels()]
        on_sockets = [(one, socket) for one, socket in fed if of_kind(socket) == "input"]
        return [one for one, socket in on_sockets if not _is_talkback(show, socket)]
    if takes == "all":
        returns = [f"return/{n}" for n in range(1, show.desk.returns + 1)]
        named = [one for one in returns if show[f"{one}/source"] or show[f"{one}/name"]]
        return [*(f"channel/{n}" for n in show.channels()), *named]
    return strips_of_family(show, takes) if takes in FAMILIES else []


def _is_talkback(show: Show, socket: str) -> bool:
    return any(show[f"line/{line}/kind"] == "talkback" for line in lines_on(show, socket))


def starts_in_house(show: Show, source: str) -> bool:
    """Whether a channel that a source feeds newly goes to the house, by the show's table: talkback,

    cues, what a recorder plays back, playback; all else does.
    """
    return all(show.on(f"show/house_{what}") for what in HOUSE_STARTS if _is(show, source, what))


def _is(show: Show, source: str, what: str) -> bool:
    if source == "talkback":
        return what == "talkback"
    if of_kind(source) != "input":
        return False
    lines = lines_on(show, source)
    if what == "tracks":
        box = show.desk.box(Thing.at(source).box)
        return box is not None and not box.preamps
    if what == "cues":
        return any(show[f"line/{line}/family"] == "cues" for line in lines)
    return any(show[f"line/{line}/kind"] == what for line in lines)


def netted(show: Show, whole: Mapping[str, Value]) -> dict[str, Value]:
    """What an edit brings with it for what comes by it: memberships by rule, and out of the house

    what does not start there. What the edit names itself goes before.
    """
    if not bears("nets", whole):
        return {}
    found: dict[str, Value] = {}
    fed = [at for at in bearing("fills", whole) if _feeds_anew(show, at, whole)]
    rulers = _rulers(show, whole)
    if not fed and not rulers:
        return {}
    after = show.with_values(whole)
    for at in fed:
        if not starts_in_house(after, str(whole[at.text])):
            found[f"{at.thing}/house/on"] = False
    for ruler in rulers:
        takes, was = after.text(f"{ruler}/takes"), show.text(f"{ruler}/takes")
        named = bool(memberships_in(ruler, whole))
        before = set(taken_by_rule(show, takes)) if takes == was or named else set()
        for strip in taken_by_rule(after, takes):
            address = f"{strip}/{ruler}/on"
            if strip not in before and address not in whole and not after.on(address):
                found[address] = True
    return found


def _feeds_anew(show: Show, at: Address, whole: Mapping[str, Value]) -> bool:
    """Whether an address gives a source to a channel that had none, and that nobody routed yet."""
    channel, value = at.thing, whole[at.text]
    fresh = not any(f"{channel}/{leaf}" in show.own for leaf in ("source", "spare", "house/on"))
    return isinstance(value, str) and fresh and f"{channel}/house/on" not in whole


def _rulers(show: Show, whole: Mapping[str, Value]) -> list[str]:
    """The rulers that take something after an edit."""
    found = []
    for kind in TAKING:
        for number in range(1, show.desk.count(kind) + 1):
            address = f"{kind}/{number}/takes"
            if whole.get(address, show.values.get(address, "chosen")) != "chosen":
                found.append(f"{kind}/{number}")
    return found

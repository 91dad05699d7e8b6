"""Silence by what rules strips together: muted DCAs, DCAs that are off, mute groups."""

import math
from dataclasses import replace
from typing import Final

from ..catalogue import Address, kind_on, of_kind, thing_of
from ..edit import check_edit, looked_at
from ..flow import Network, strip_name
from ..show import Show
from ..together import RULING, dcas_of, soloed, taken_out
from ..values import Asked, ConsoleError, Number, said
from ..wires import START_LEVEL_DB
from .reason import Reason, Remedy, setting

__all__ = ["by_name", "ruled_out", "with_taking_out"]

# what of a mute group keeps remedies off its key, in words
_HELD: Final = {"hard": "a seal", "safe": "locked"}


def by_name(show: Show, address: str) -> str:
    """What closes, as people call it, by the address of its mute, fader or key."""
    ruler = thing_of(address)
    if address == "show/solo":
        return "solo in place"
    word = "the DCA" if of_kind(ruler) == "dca" else "the mute group"
    return f"{word} {strip_name(show, ruler)}"


def ruled_out(show: Show, address: str) -> Reason:
    """The reason that a DCA, mute group or solo in place silences, by the address of what closes.

    No remedy touches a mute group that is hard or safe, or a solo: somebody is listening.
    """
    if address == "show/solo":
        names = [strip_name(show, strip) for strip in soloed(show)]
        more = f" and {len(names) - 3} more" if len(names) > 3 else ""
        heard = f"{', '.join(names[:3])}{more} and what stays open in solo"
        says = f"Solo in place: only {heard} is heard."
        return Reason(code="muted", address=address, says=f"{says} Clearing the solos opens it.")
    ruler, leaf = Address.at(address).thing, Address.at(address).leaf
    name = strip_name(show, ruler)
    if leaf == "fader":
        says = f"Bring the DCA {name} up to {said(START_LEVEL_DB, 0)} dB"
        return Reason(code="down", address=address, says=f"The DCA {name} is off.",
                      remedy=setting(says, address, START_LEVEL_DB))  # fmt: skip
    if leaf == "mute":
        return Reason(code="muted", address=address, says=f"The DCA {name} is muted.",
                      remedy=setting(f"Unmute the DCA {name}", address, False))  # fmt: skip
    says = f"The mute group {name} is on."
    held = [words for leaf, words in _HELD.items() if show.on(f"{ruler}/{leaf}")]
    if held:
        says += f" It is {' and '.join(held)}: only its own key in Mutes opens it."
        return Reason(code="muted", address=address, says=says)
    return Reason(code="muted", address=address, says=says,
                  remedy=setting(f"Switch {name} off", address, False))  # fmt: skip


def with_taking_out(show: Show, network: Network, reason: Reason) -> Reason:
    """The reason with the other way: what it silences on the way there taken out of it."""
    if reason.remedy is None or of_kind(reason.address) not in RULING:
        return reason
    ruler = thing_of(reason.address)
    strips = dict.fromkeys(
        network.layout.strips[edge.start[0]]
        for edge in network.edges_of_paths()
        if any(address == reason.address for _, address in network.closed_at(edge))
    )
    moves: dict[str, Asked] = {}
    leaving: dict[str, None] = {}  # what they are taken out of: the DCAs that hold them
    for strip in strips:
        out = taken_out(show, ruler, strip)
        leaving |= dict.fromkeys(Address.at(address).target for address in out)
        moves.update(out)
        at_its_level = _at_its_level(show, strip, out)
        if at_its_level is None:
            return reason  # they would come back at another level, and no fader makes up for it
        moves.update(at_its_level)
    names = [strip_name(show, strip) for strip in strips]
    who = " and ".join(names) if len(names) <= 2 else f"{len(names)} strips"
    says = f"Take {who} out of {', '.join(strip_name(show, one) for one in leaving)}"
    if any(Address.at(address).last == "fader" for address in moves):
        says += ", at the level they have" if len(names) > 1 else ", at the level it has"
    if not moves or not _is_taken(show, network, moves):
        return reason
    return replace(reason, instead=Remedy(says=says, moves=moves))


def _at_its_level(show: Show, strip: str, out: dict[str, Asked]) -> dict[str, Asked] | None:
    """Moves by which a strip that leaves DCAs stands at the level that it had with them, mutes

    apart; None where its fader cannot. What an off DCA held has no level to keep.
    """
    after = looked_at(show, out)
    was, will = (sum(_level_db(one, dca) for dca in dcas_of(one, strip)) for one in (show, after))
    fader_db = show.number(f"{strip}/fader")
    if was == will or math.isinf(was) or math.isinf(will) or math.isinf(fader_db):
        return {}
    wanted_db = round(fader_db + was - will, 6)
    kind = kind_on(show.desk, f"{strip}/fader")
    assert isinstance(kind, Number)  # every strip's fader is
    if not kind.lowest_finite <= wanted_db <= kind.highest:
        return None
    return {f"{strip}/fader": wanted_db}


def _level_db(show: Show, dca: str) -> float:
    return show.number(f"{dca}/fader")


def _is_taken(show: Show, network: Network, moves: dict[str, Asked]) -> bool:
    """Whether the desk would make these moves; where nothing feeds itself, nothing is refused."""
    if not network.flow.fed.node.size:
        return True
    try:
        check_edit(show, network.flow, moves)
    except ConsoleError:
        return False
    return True

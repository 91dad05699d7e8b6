"""Silence by what rules strips together: muted DCAs, DCAs that are off, mute groups."""

from dataclasses import replace

from ..asked import Asked
from ..edits import check_edit
from ..errors import ConsoleError
from ..flow import START_LEVEL_DB, Network, strip_name
from ..rulers import soloed, taken_out
from ..show import Show
from .reason import Reason, Remedy, setting

__all__ = ["by_name", "ruled_out", "with_taking_out"]


def by_name(show: Show, address: str) -> str:
    """What closes, as people call it, by the address of its mute, fader or key."""
    ruler = address.rpartition("/")[0]
    if address == "show/solo":
        return "solo in place"
    word = "the DCA" if ruler.startswith("dca/") else "the mute group"
    return f"{word} {strip_name(show, ruler)}"


def ruled_out(show: Show, address: str) -> Reason:
    """The reason that a DCA, mute group or solo in place silences, by the address of what closes.

    No remedy touches a mute group that is hard or safe, or a solo: somebody is listening.
    """
    if address == "show/solo":
        names = [strip_name(show, strip) for strip in soloed(show)]
        more = f" and {len(names) - 3} more" if len(names) > 3 else ""
        says = f"Solo in place: only {', '.join(names[:3])}{more} and what is solo-proof is heard."
        return Reason(code="muted", address=address, says=f"{says} Clearing the solos opens it.")
    ruler, _, leaf = address.rpartition("/")
    name = strip_name(show, ruler)
    if leaf == "fader":
        says = f"Bring the DCA {name} up to {START_LEVEL_DB:.0f} dB"
        return Reason(code="down", address=address, says=f"The DCA {name} is off.",
                      remedy=setting(says, address, START_LEVEL_DB))  # fmt: skip
    if leaf == "mute":
        return Reason(code="muted", address=address, says=f"The DCA {name} is muted.",
                      remedy=setting(f"Unmute the DCA {name}", address, False))  # fmt: skip
    says = f"The mute group {name} is on."
    held = [word for word in ("hard", "safe") if show.on(f"{ruler}/{word}")]
    if held:
        says += f" It is {' and '.join(held)}: only its own key in Mute groups opens it."
        return Reason(code="muted", address=address, says=says)
    return Reason(code="muted", address=address, says=says,
                  remedy=setting(f"Switch {name} off", address, False))  # fmt: skip


def with_taking_out(show: Show, network: Network, reason: Reason) -> Reason:
    """The reason with the other way: what it silences on the way there taken out of it."""
    if reason.remedy is None or not reason.address.startswith(("dca/", "mute_group/")):
        return reason
    ruler = reason.address.rpartition("/")[0]
    strips = dict.fromkeys(
        network.layout.strips[edge.start[0]]
        for edge in network.edges_of_paths()
        if any(address == reason.address for _, address in network.closed_at(edge))
    )
    moves: dict[str, Asked] = {}
    for strip in strips:
        moves.update(taken_out(show, ruler, strip))
    names = [strip_name(show, strip) for strip in strips]
    who = " and ".join(names) if len(names) <= 2 else f"{len(names)} strips"
    says = f"Take {who} out of {strip_name(show, ruler)}"
    if not moves or not _is_taken(show, network, moves):
        return reason
    return replace(reason, instead=Remedy(says=says, moves=moves))


def _is_taken(show: Show, network: Network, moves: dict[str, Asked]) -> bool:
    """Whether the desk would make these moves; where nothing feeds itself, nothing is refused."""
    if not network.flow.fed.node.size:
        return True
    try:
        check_edit(show, network.flow, moves)
    except ConsoleError:
        return False
    return True

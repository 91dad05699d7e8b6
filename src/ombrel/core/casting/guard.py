"""What keeps a hand's moves with whom they were meant for: no other road leads into a fitting."""

from collections.abc import Callable, Iterable, Mapping, Sequence

from ..asked import Asked
from ..errors import SomebodyElseOn, WrongValue
from ..fitting_parameters import CARRIED
from ..flow.strips import strip_name
from ..layers import fitted_leaves
from ..show import Show
from ..sockets import channels_on, socket_name
from .tonight import on_in_words

__all__ = ["check_same_person", "unguarded"]

_OPEN = tuple(f"/carries_{aspect}" for aspect in CARRIED)


def unguarded(moves: Mapping[str, Asked]) -> Mapping[str, Asked]:
    """The moves, if none names what only a fitting's own actions move: its values, its versions,

    whose it is, who is on, how far its check is. Raises WrongValue.
    """
    for address in moves:
        fitting = address.startswith("fitting/") and not address.endswith(_OPEN)
        on = address.startswith("channel/") and address.endswith(
            ("/fitting", "/part", "/attached", "/held_back", "/fitted_s")
        )
        if fitting or on or address.startswith("tonight/"):
            raise WrongValue(address, "an action that says whose it is", "a plain value")
    return moves


def check_same_person(
    show: Show, moved: Iterable[str], changed: Callable[[Sequence[str]], bool]
) -> None:
    """Refuse an edit of what somebody else has come onto since the hand that makes it began.

    `moved`: what it names and what gangs move with it; `changed`: whether any of some addresses,
    which say who is on, moved since then. Raises SomebodyElseOn.
    """
    leaves = fitted_leaves(show.desk)
    where: dict[str, str] = {}  # what is named to the hand, by channel
    watched: dict[str, list[str]] = {}
    for address in moved:
        if address.startswith("channel/"):
            _, number, leaf = address.split("/", 2)
            channel = f"channel/{number}"
            if leaf in leaves and channel not in where:
                where[channel] = strip_name(show, channel)
                watched[channel] = _on_a_channel(channel)
        elif address.startswith("input/") and address.endswith(("/gain", "/pad")):
            socket = address.rpartition("/")[0]
            on_it = [channel for channel, on in show.laid.on.items() if on.attached == socket]
            fed = (f"channel/{n}" for n in channels_on(show, socket))
            for channel in dict.fromkeys((*fed, *on_it)):
                where[channel] = socket_name(show.desk, socket)
                watched[channel] = _on_a_channel(channel)
            if len(on_it) > 1:  # whoever sets it now, another may have when the hand began
                channel = show.laid.holder.get(socket, on_it[0])
                for other in on_it:
                    watched[channel] += _in_charge(show.laid.on[other].fitting)
    if not where or not changed([address for found in watched.values() for address in found]):
        return
    for channel, found in watched.items():
        if changed(found):
            raise SomebodyElseOn(where[channel], on_in_words(show, channel))


def _on_a_channel(channel: str) -> list[str]:
    """What says who is on a channel, and whether they set its preamp."""
    return [f"{channel}/fitting", f"{channel}/attached"]


def _in_charge(fitting: str) -> list[str]:
    """What may put another in charge of a preamp that several share, beside who is on."""
    return [f"{fitting}/{leaf}" for leaf in ("check", "carries_preamp", "newest", "dropped_s")]

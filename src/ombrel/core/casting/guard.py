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
    channels: dict[str, str] = {}
    for address in moved:
        if address.startswith("channel/"):
            _, number, leaf = address.split("/", 2)
            if leaf in leaves:
                channels.setdefault(f"channel/{number}", address)
        elif address.startswith("input/") and address.endswith(("/gain", "/pad")):
            socket = address.rpartition("/")[0]
            for fed in channels_on(show, socket):
                channels.setdefault(f"channel/{fed}", address)
            for channel in show.laid.attached_to(socket):
                channels.setdefault(channel, address)
    if not channels:
        return
    watched = [f"{channel}/{leaf}" for channel in channels for leaf in ("fitting", "attached")]
    if not changed(watched):
        return
    for channel, address in channels.items():
        if changed([f"{channel}/fitting", f"{channel}/attached"]):
            at_socket = address.startswith("input/")
            where = (
                socket_name(show.desk, address.rpartition("/")[0])
                if at_socket
                else strip_name(show, channel)
            )
            raise SomebodyElseOn(where, on_in_words(show, channel))

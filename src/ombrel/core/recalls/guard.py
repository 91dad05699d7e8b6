"""What keeps a hand's moves with whom they were meant for: no other road leads into a fitting."""

from collections.abc import Callable, Iterable, Mapping, Sequence

from ..casting import on_in_words
from ..catalogue import Address, aspect_of, bearing
from ..flow import strip_name
from ..show import Show, carried_by_fitting, channels_on, fitted_leaves, socket_name
from ..values import Asked, SomebodyElseOn, Value, WrongValue

__all__ = ["check_same_person", "unguarded"]


def unguarded(moves: Mapping[str, Asked]) -> Mapping[str, Asked]:
    """The moves, if none names what only a fitting's own actions move: its values, its versions,

    whose it is, who is on, how far its check is. Raises WrongValue.
    """
    for at in bearing("named_only", moves):
        raise WrongValue(at.text, "an action that says whose it is", "a plain value")
    return moves


def check_same_person(
    show: Show, moved: Iterable[str], changed: Callable[[Sequence[str]], Mapping[str, set[Value]]]
) -> None:
    """Refuse an edit of what somebody else has come onto since the hand that makes it began.

    `moved`: what it names and what gangs move with it; `changed`: which of some addresses, that say
    who is on, moved since then, each with the values that it had. Only what a fitting carries that
    was on since, or is, is guarded: a fader's ride goes on. Raises SomebodyElseOn.
    """
    leaves = fitted_leaves(show.desk)
    where: dict[str, str] = {}  # what is named to the hand, by channel
    watched: dict[str, list[str]] = {}
    aspects: dict[str, set[str]] = {}
    for address in moved:
        at = Address.at(address)
        if at.kind == "channel":
            channel, leaf = at.thing, at.leaf
            if leaf in leaves:
                where[channel] = strip_name(show, channel)
                watched.setdefault(channel, _on_a_channel(channel))
                aspects.setdefault(channel, set()).add(aspect_of(leaves[leaf]))
        elif at.is_at("input", "gain", "pad"):
            socket = at.thing
            on_it = [channel for channel, on in show.layers.on.items() if on.attached == socket]
            fed = (f"channel/{n}" for n in channels_on(show, socket))
            for channel in dict.fromkeys((*fed, *on_it)):
                where[channel] = socket_name(show.desk, socket)
                watched[channel] = _on_a_channel(channel)
                aspects.setdefault(channel, set()).add("preamp")
            if len(on_it) > 1:  # whoever sets it now, another may have when the hand began
                channel = show.layers.holder.get(socket, on_it[0])
                for other in on_it:
                    watched[channel] += _in_charge(show.layers.on[other].fitting)
    if not where:
        return
    was = changed([address for found in watched.values() for address in found])
    for channel, found in watched.items():
        if was.keys().isdisjoint(found):
            continue
        concerned = {*was.get(f"{channel}/fitting", set()), show.own.get(f"{channel}/fitting")}
        guarded = {
            aspect
            for one in concerned
            if isinstance(one, str)
            for aspect in carried_by_fitting(show.own, one)
        }
        # whoever sets a preamp that several share may be on another channel
        if aspects[channel] & {*guarded, "preamp"}:
            raise SomebodyElseOn(where[channel], on_in_words(show, channel))


def _on_a_channel(channel: str) -> list[str]:
    """What says who is on a channel, and whether they set its preamp."""
    return [f"{channel}/fitting", f"{channel}/attached"]


def _in_charge(fitting: str) -> list[str]:
    """What may put another in charge of a preamp that several share, beside who is on."""
    return [f"{fitting}/{leaf}" for leaf in ("check", "carries_preamp", "newest", "dropped_s")]

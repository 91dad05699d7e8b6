"""A show as it would be heard with nothing muted: what bases and expected levels are taken from."""

from ..catalogue import Address
from ..edit import edited, looked_at
from ..flow import Flow, flow_of
from ..show import Show, is_of_bus
from ..together import rulers_in_use
from ..values import Asked, ConsoleError, FeedbackLoop

__all__ = ["opened"]


def opened(show: Show, flow: Flow | None = None, *, dcas: bool = True) -> tuple[Show, Flow]:
    """The show with every mute open and no solo in place, and what is heard then; without `dcas`

    these at 0 dB. Where that would feed back, channels that a bus feeds stay as they are: no base
    has them. `flow`: the show's own, where it is at hand.
    """
    moves: dict[str, Asked] = {
        a: False for a in show.own if Address.at(a).leaf == "mute" and show.on(a)
    }
    moves |= {f"{channel}/mute": False for channel in show.layers.on if show.on(f"{channel}/mute")}
    for group in rulers_in_use(show, "mute_group"):
        if show.on(f"{group}/on"):
            moves |= {f"{group}/on": False, f"{group}/safe": False}
    if show["show/solo"] == "in_place":
        moves["show/solo"] = "before_fader"
    if not dcas:
        moves |= {f"{one}/fader": 0.0 for one in rulers_in_use(show, "dca")}
    if flow is not None and not moves:
        return show, flow
    try:
        return _after(show, flow, moves)
    except FeedbackLoop:
        fed = {f"channel/{n}/mute" for n in show.channels() if is_of_bus(show.source_of(n) or "")}
        try:
            return _after(show, flow, {a: v for a, v in moves.items() if a not in fed})
        except ConsoleError:
            return show, flow or flow_of(show)


def _after(show: Show, flow: Flow | None, moves: dict[str, Asked]) -> tuple[Show, Flow]:
    if flow is not None:
        after = edited(show, flow, moves)
        return after.show, after.flow
    then = looked_at(show, moves)
    return then, flow_of(then)

"""What a person means beside what they typed."""

from collections.abc import Mapping

from ..catalogue import bearing
from ..show import Show
from ..values import Asked, Typed

__all__ = ["meant"]


def meant(show: Show, moves: Mapping[str, Asked]) -> Mapping[str, Asked]:
    """Moves with what goes with them: whoever types where a low cut begins wants it to be on.

    What is dragged or recalled is meant as it is.
    """
    beside: dict[str, Asked] = {}
    for at in bearing("switches_on", moves):
        switch = at.beside("on")
        if isinstance(moves[at.text], Typed) and switch not in moves and not show.on(switch):
            beside[switch] = True
    return {**moves, **beside} if beside else moves

"""Mix-minus in one edit: a mix of all that the house has but some strips, promised to stay so."""

import math
from collections.abc import Sequence

from ..answers import promise_moves
from ..catalogue import SENDERS, SOURCES, Address, of_kind, strips_of
from ..flow import strip_name
from ..show import Show
from ..together import groups_behind, programme, sent
from ..values import Asked, UnreadableText
from .mixes import make_mixes

__all__ = ["make_minus"]


def make_minus(
    show: Show, exceptions: Sequence[str], *, name: str = "", mix: str | None = None
) -> dict[str, Asked]:
    """Moves that give a mix all that the house has but `exceptions`, and promise that it stays so.

    Channels are sent as the house has them, behind the fader at 0 dB, and so are returns in the
    house whose effect has nothing of the exceptions. `mix`: one that there is, whose other sends
    are closed; None makes one of two sides by `name`, on the next free outputs. Raises NothingLeft;
    UnreadableText for exceptions that are no sources, or for no mix.
    """
    for one in exceptions:
        if of_kind(one) not in SOURCES:
            raise UnreadableText(one, "channels or returns as what it must not have")
    if not exceptions:
        raise UnreadableText("", "whom it must not have, such as 7")
    if mix is not None and (of_kind(mix) != "mix" or show[f"{mix}/format"] == "unused"):
        raise UnreadableText(mix.replace("/", " "), "a mix that is in use")
    moves: dict[str, Asked] = {}
    if mix is None:
        moves = make_mixes(show, [name], stereo=True, serves="feed", tap="after_fader")
        mix = Address.at(next(iter(moves))).thing
    for strip in _sending(show):
        if show.number(f"{strip}/send/{mix}/level") > -math.inf:
            moves[f"{strip}/send/{mix}/on"] = False
    has = [one for one in [*programme(show), *_dry_returns(show, exceptions)]
           if one not in exceptions]  # fmt: skip
    moves |= sent(show, has, mix)
    names = ", ".join(strip_name(show, one) for one in exceptions)
    title = f"{name or strip_name(show, mix)} without {names}"
    return moves | promise_moves(show, [*exceptions, mix], kind="all_but", name=title[:60])


def _sending(show: Show) -> list[str]:
    """Every strip that a mix can have by a send."""
    return strips_of(show.desk, *SENDERS)


def _dry_returns(show: Show, exceptions: Sequence[str]) -> list[str]:
    """Returns in the house whose effect no exception is sent to, by itself or through groups."""
    found = []
    carrying = [*exceptions, *(g for one in exceptions for g in groups_behind(show, one))]
    for number in range(1, show.desk.returns + 1):
        back = f"return/{number}"
        engine = show.text(f"{back}/source")
        if of_kind(engine) != "engine" or not show.on(f"{back}/house/on"):
            continue
        mix = show.text(f"{engine}/source")
        if mix and not any(_is_sent(show, one, mix) for one in carrying):
            found.append(back)
    return found


def _is_sent(show: Show, strip: str, mix: str) -> bool:
    send = f"{strip}/send/{mix}"
    return show.on(f"{send}/on") and show.number(f"{send}/level") > -math.inf

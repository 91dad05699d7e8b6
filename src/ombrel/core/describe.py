"""A change in a few words, for the log, undo and the screens of others."""

from collections.abc import Collection, Sequence

from .addresses import parameter_at
from .casting.names import fitting_name, part_name
from .changes import Change
from .flow import strip_name
from .said import in_sentence
from .show import Show
from .sockets import socket_name, strip_of
from .strip_kinds import ALONE, FORMATTED

__all__ = ["described", "whose"]

_TARGETS = (*FORMATTED, *ALONE, "dca", "mute_group", "gang", "promise")


def whose(show: Show, address: str) -> str:
    """What people call the strip, send or socket that an address is of."""
    words = address.split("/")
    if words[0] in ("input", "output"):
        return socket_name(show.desk, "/".join(words[:3]))
    if words[0] in ("show", "run"):
        return words[0].capitalize()
    if words[0] in ("tonight", "fitting", "performer", "part", "cast"):
        return _of_the_company(show, words)
    strip = strip_of(address)
    name, rest = strip_name(show, strip), address.removeprefix(f"{strip}/").removeprefix("send/")
    to = strip_of(rest)
    if to != rest and to.split("/")[0] in _TARGETS:
        return f"{name} to {strip_name(show, to)}"
    return name


def described(show: Show, change: Change, led: Collection[str] = ()) -> str:
    """What a change moved, in a few words; `show` is the show after it.

    `led`: addresses that were asked for; where gangs and pairs carried more along, they name it.
    """
    addresses = sorted(address for address in change.new if not address.endswith("/kept"))
    if not addresses:
        return "Nothing changed"
    asked = [address for address in addresses if address in led] or addresses
    first = asked[0]
    words = f"{whose(show, first)}, {in_sentence(parameter_at(first).label)}"
    if len(asked) == 1 and len(addresses) > 1:
        return f"{words}, {len(addresses) - 1} with it"
    if len(addresses) == 1:
        return words
    names = {whose(show, address) for address in addresses}
    if len(names) == 1:
        return f"{names.pop()}, {len(addresses)} values"
    return f"{words} and {len(addresses) - 1} more"


def _of_the_company(show: Show, words: Sequence[str]) -> str:
    """Whose fitting, which part, who."""
    thing = "/".join(words[:2])
    if words[0] == "tonight":
        return f"Tonight, {part_name(show, '/'.join(words[1:3]))}" if len(words) > 2 else "Tonight"
    if words[0] == "fitting":
        known = f"{thing}/performer" in show.own
        return f"{fitting_name(show, thing)}, fitting" if known else thing.replace("/", " ")
    return show.text(f"{thing}/name") or thing.replace("/", " ").capitalize()

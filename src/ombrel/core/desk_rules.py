"""What values must keep to together: checked on the show that an edit would leave, in one place."""

from collections.abc import Callable, Collection, Iterable, Sequence
from functools import lru_cache
from typing import Final

from .casting.fittings import fittings
from .casting.mic_check import check_alone
from .casting.names import fitting_name, is_bound
from .casting.versions import check_version
from .errors import (
    CircleOfDcas,
    EngineTaken,
    FittingTwice,
    InsertsSpent,
    MuteGroupSafe,
    NotAnEffectMix,
    OnlyInBlocks,
    OnOnePair,
    SocketTaken,
    WrongValue,
)
from .flow.strips import strip_name
from .scenes.held import check_packed
from .scenes.order import check_number
from .show import Show

__all__ = ["BUS_TAPS", "check_desk_rules", "is_held"]

BUS_TAPS = ("before_fader", "before_fader_after_mute", "after_fader")


def check_desk_rules(show: Show, addresses: Collection[str]) -> None:
    """Refuse a show that cannot be, looking only at what `addresses` bear on.

    Raises OnlyInBlocks, SocketTaken, EngineTaken, InsertsSpent, NotAnEffectMix, CircleOfDcas,
    MuteGroupSafe, FittingTwice, OnOnePair, EntryTaken, WrongValue.
    """
    borne: dict[int, set[str]] = {}
    for address in addresses:
        for place in _ruled_by(address):
            borne.setdefault(place, set()).add(address)
    for place in sorted(borne):
        _RULES[place][1](show, borne[place])


@lru_cache(maxsize=200_000)
def _ruled_by(address: str) -> tuple[int, ...]:
    """Which rules look at an address: of a thousand that a recall moves, few are looked at."""
    return tuple(place for place, (looks, _) in enumerate(_RULES) if looks(address))


def _outputs_in_blocks(show: Show, addresses: Iterable[str]) -> None:
    blocks = set()
    for address in addresses:
        _, key, number, _ = address.split("/")
        box = show.desk.box(key)
        if box is not None and box.output_block > 1:
            blocks.add((key, (int(number) - 1) // box.output_block))
    for key, block in sorted(blocks):
        box = show.desk.box(key)
        assert box is not None  # it was found above
        first = block * box.output_block + 1
        numbers = range(first, first + box.output_block)
        sources = [show[f"output/{key}/{number}/source"] for number in numbers]
        if any(sources) and not _in_a_row(sources):
            raise OnlyInBlocks(box.name, first, numbers[-1])


def _in_a_row(sources: Sequence[object]) -> bool:
    """Whether the sources are neighbours in order, starting where a block of them starts."""
    parts = [str(source).split("/") for source in sources]
    if any(len(part) < 2 or not part[1].isdigit() for part in parts):
        return False
    kinds = {(part[0], tuple(part[2:])) for part in parts}
    first = int(parts[0][1])
    aligned = (first - 1) % len(sources) == 0
    numbers = [int(part[1]) for part in parts]
    return len(kinds) == 1 and aligned and numbers == list(range(first, first + len(parts)))


def _taps_of_buses(show: Show, addresses: Iterable[str]) -> None:
    """A bus has no input, low cut or gate of its own to be tapped before."""
    for address in addresses:
        socket = address.rpartition("/")[0]
        source, tap = show[f"{socket}/source"], show.text(f"{socket}/tap")
        if isinstance(source, str) and not source.startswith("channel/") and tap not in BUS_TAPS:
            expected = f"one of {', '.join(BUS_TAPS)}, since {source} is a bus"
            raise WrongValue(f"{socket}/tap", expected, tap)


def _one_plug_a_socket(show: Show, addresses: Iterable[str]) -> None:
    # a line that comes into the list brings its plugs
    brought = [a.removesuffix("place") for a in addresses if a.endswith("/place") and show[a]]
    addresses = [*addresses, *(f"{line}{side}" for line in brought for side in _PLUGS)]
    plugged = {
        show[address]: address for address in addresses if address.rpartition("/")[2] in _PLUGS
    }
    plugged.pop(None, None)
    if not plugged:
        return
    for line in show.lines():
        for side in _PLUGS:
            own = f"line/{line}/{side}"
            socket = show[own]
            if plugged.get(socket, own) != own:
                names = [_line_name(show, one) for one in (own, plugged[socket])]
                raise SocketTaken(str(socket), plugged[socket], own, names[1], names[0])


_PLUGS = ("socket", "socket_right")


def _line_name(show: Show, address: str) -> str:
    line = address.rpartition("/")[0]
    return show.text(f"{line}/name") or line.replace("/", " ").capitalize()


def _engines(show: Show, addresses: Collection[str]) -> None:
    """An engine is fed by a mix that serves an effect, and feeds one return."""
    for number in range(1, show.desk.effect_engines + 1):
        mix = show[f"engine/{number}/source"]
        if isinstance(mix, str) and show[f"{mix}/serves"] != "effect":
            raise NotAnEffectMix(f"engine/{number}", mix)
    taken: dict[str, str] = {}
    for number in range(1, show.desk.returns + 1):
        source = show[f"return/{number}/source"]
        if isinstance(source, str) and source.startswith("engine/"):
            if source in taken:
                raise EngineTaken(source, f"return/{number}", taken[source])
            taken[source] = f"return/{number}"


def _pairs_into_returns(show: Show, addresses: Iterable[str]) -> None:
    for address in addresses:
        source = show[address]
        if isinstance(source, str) and source.startswith("input/"):
            _, key, number = source.split("/")
            box = show.desk.box(key)
            if int(number) % 2 == 0 or box is None or int(number) + 1 > box.inputs:
                raise WrongValue(address, "the odd socket of a pair, such as input/a/7", source)


def _circles_of_dcas(show: Show, addresses: Iterable[str]) -> None:
    """No DCA rules itself, by way of others either."""
    joined = {a.split("/dca/")[0] for a in addresses if show[a] is True}
    for start in sorted(joined):
        ways: list[tuple[str, ...]] = [(start,)]
        seen = {start}
        for way in ways:  # grows as it is walked
            for number in range(1, show.desk.dcas + 1):
                dca = f"dca/{number}"
                if not show.on(f"{way[-1]}/{dca}/on"):
                    continue
                if dca == start:
                    raise CircleOfDcas([_dca_name(show, one) for one in (*way, dca)])
                if dca not in seen:
                    seen.add(dca)
                    ways.append((*way, dca))


def _dca_name(show: Show, dca: str) -> str:
    return show.text(f"{dca}/name") or f"DCA {dca.split('/')[1]}"


def is_held(show: Show, address: str) -> bool:
    """Whether it is the key of a mute group that is safe: no undo, recall or remedy moves it."""
    group, _, leaf = address.rpartition("/")
    return group.startswith("mute_group/") and leaf == "on" and show.on(f"{group}/safe")


def _safe_mute_groups(show: Show, addresses: Collection[str]) -> None:
    """The key of a safe mute group stays; arming it is an edit of its own, or part of this one."""
    for address in addresses:
        group = address.rpartition("/")[0]
        if is_held(show, address) and f"{group}/safe" not in addresses:
            raise MuteGroupSafe(show.text(f"{group}/name") or group.replace("_", " "))


def _pairs(show: Show, addresses: Iterable[str]) -> None:
    """The odd one is linked to the even above it, if the desk has that."""
    for address in addresses:
        if show.on(address):
            kind, number, _ = address.split("/")
            if int(number) % 2 == 0 or int(number) >= show.desk.count(kind):
                raise WrongValue(address, "the odd one of a pair", f"{kind} {number}")


def _inserts(show: Show, addresses: Iterable[str]) -> None:
    """No more insert points than the desk has."""
    if not any(show.text(address) for address in addresses):
        return
    held = [address for address in show.values if _is_insert(address)]
    if len(held) > show.desk.inserts:
        names = (strip_name(show, a.rpartition("/insert_")[0]) for a in sorted(held))
        others = dict.fromkeys(name for name in names)
        raise InsertsSpent(show.desk.name, show.desk.inserts, list(others))


def _scenes(show: Show, addresses: Iterable[str]) -> None:
    """What a scene holds can stand on the desk, and its number is its own."""
    for address in addresses:
        scene = "/".join(address.split("/")[:2])
        if "/holds/" in address:
            check_packed(show.desk, address, show.text(address))
        elif address.endswith(("/number", "/removed")) and scene in show.scenes:
            check_number(show, show.number(f"{scene}/number"), scene)


def _fittings(show: Show, addresses: Collection[str]) -> None:
    """A performer has one fitting for a part and microphone; what is on is there, on one channel

    that is no side of a pair; and the mic check has one entry an operator, a channel, a preamp.
    """
    bears = [a for a in addresses if a.startswith("fitting/")]
    for address in bears:
        if "/version/" in address:
            check_version(show.desk, address, show.text(address))
    if any(a.endswith(("/performer", "/part", "/microphone", "/removed")) for a in bears):
        named: dict[tuple[object, ...], str] = {}
        for fitting in fittings(show):
            key = tuple(show[f"{fitting}/{leaf}"] for leaf in ("performer", "part", "microphone"))
            if named.setdefault(key, fitting) != fitting:
                raise FittingTwice(fitting_name(show, fitting))
    for address in addresses:
        nameless = address.startswith("performer/") and not show[address]
        if nameless and is_bound(show, address):
            raise WrongValue(address, "a name, since settings go by it", "nothing")
    goes_on = [a for a in addresses if a.endswith("/fitting")]
    for address in goes_on:
        named_there = show[address]
        if named_there is not None and named_there not in fittings(show):
            raise WrongValue(address, "a fitting of the show", str(named_there))
    if goes_on or any(a.endswith("/linked") for a in addresses):
        for channel in show.laid.on:
            number = int(channel.partition("/")[2])
            if show.on(f"channel/{number - (number + 1) % 2}/linked"):
                raise OnOnePair(strip_name(show, channel))
    checked = {a.rpartition("/")[0] for a in bears if a.endswith(("/check", "/checker"))}
    if checked:
        check_alone(show, checked)


def _is_insert(address: str) -> bool:
    return address.endswith("/device") and "/insert_" in address


def _bears_on_fittings(address: str) -> bool:
    if address.startswith("fitting/"):
        return "/value/" not in address
    if address.startswith("performer/"):
        return address.endswith("/name")
    return address.startswith(("channel/", "mix/")) and address.endswith(("/fitting", "/linked"))


_SOURCES_OF_EFFECTS: Final = ("engine/", "return/", "mix/")
# In this order: which addresses a rule looks at, and gets; the rule.
_RULES: Final[tuple[tuple[Callable[[str], bool], Callable[[Show, Collection[str]], None]], ...]] = (
    (lambda a: a.startswith("output/") and a.endswith("/source"), _outputs_in_blocks),
    (lambda a: a.startswith("output/") and a.endswith(("/tap", "/source")), _taps_of_buses),
    (
        lambda a: a.startswith("line/") and a.rpartition("/")[2] in (*_PLUGS, "place"),
        _one_plug_a_socket,
    ),
    (
        lambda a: a.startswith(_SOURCES_OF_EFFECTS) and a.endswith(("/source", "/serves")),
        _engines,
    ),
    (lambda a: a.startswith("return/") and a.endswith("/source"), _pairs_into_returns),
    (lambda a: a.startswith("dca/") and "/dca/" in a, _circles_of_dcas),
    (lambda a: a.startswith("mute_group/") and a.endswith(("/on", "/safe")), _safe_mute_groups),
    (lambda a: a.endswith("/linked"), _pairs),
    (_is_insert, _inserts),
    (lambda a: a.startswith("scene/"), _scenes),
    (_bears_on_fittings, _fittings),
)

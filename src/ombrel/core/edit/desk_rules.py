"""What values must keep to together: checked on the show that an edit would leave, in one place."""

from collections.abc import Callable, Collection, Iterable, Sequence
from typing import Final

from ..casting import check_alone, check_version, fitting_name, fittings, is_bound
from ..catalogue import FORMATTED, SOURCES, Address, Bearing, Thing, bearing, direct_taps, of_kind
from ..flow import strip_name
from ..scenes import check_number, check_packed
from ..show import Show
from ..values import (
    Circle,
    EngineTaken,
    FittingTwice,
    InsertsSpent,
    MuteGroupSafe,
    NotAnEffectMix,
    OneSideOnly,
    OnlyInBlocks,
    OnOnePair,
    SharingSpent,
    SocketTaken,
    WrongValue,
)

__all__ = ["check_desk_rules", "is_safe_key"]


def check_desk_rules(show: Show, addresses: Collection[str]) -> None:
    """Refuse a show that cannot be, looking only at what `addresses` bear on.

    Raises OnlyInBlocks, SocketTaken, EngineTaken, InsertsSpent, SharingSpent, OneSideOnly,
    NotAnEffectMix, Circle, MuteGroupSafe, FittingTwice, OnOnePair, EntryTaken, WrongValue.
    """
    borne: dict[Bearing, set[str]] = {}
    for address in addresses:
        for what in Address.at(address).borne & _RULED:
            borne.setdefault(what, set()).add(address)
    for what, rule in _RULES.items():  # in its order: which refusal comes first
        if what in borne:
            rule(show, borne[what])


def _outputs_in_blocks(show: Show, addresses: Iterable[str]) -> None:
    blocks = set()
    for address in addresses:
        at = Address.at(address)
        box = show.desk.box(at.box)
        if box is not None and box.output_block > 1:
            blocks.add((at.box, (at.number - 1) // box.output_block))
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
    things = [Thing.at(source) for source in sources if isinstance(source, str)]
    if len(things) < len(sources) or not all(thing.number for thing in things):
        return False
    kinds = {(thing.kind, thing.side) for thing in things}
    numbers = [thing.number for thing in things]
    first = numbers[0]
    aligned = (first - 1) % len(sources) == 0
    return len(kinds) == 1 and aligned and numbers == list(range(first, first + len(things)))


def _taps_of_outputs(show: Show, addresses: Iterable[str]) -> None:
    """Where an output can take what it carries: a bus has no input, low cut or gate of its own to

    be tapped before; channels and returns have direct outs where the desk has them.
    """
    for address in addresses:
        socket = Address.at(address).stem
        source, tap = show[f"{socket}/source"], show.text(f"{socket}/tap")
        if not isinstance(source, str):
            continue
        kind = of_kind(source)
        allowed = direct_taps(show.desk, kind)
        if tap in allowed:
            continue
        if kind in SOURCES and not allowed:
            says = f"a bus ({show.desk.name} has no direct outs of {kind}s)"
            raise WrongValue(f"{socket}/source", says, source)
        why = f"{source} is no channel or return"
        if kind in SOURCES:
            why = f"{show.desk.name} has direct outs of {kind}s only there"
        raise WrongValue(f"{socket}/tap", f"one of {', '.join(allowed)}, since {why}", tap)


def _one_plug_a_socket(show: Show, addresses: Iterable[str]) -> None:
    # a line that comes into the list brings its plugs
    brought = [Address.at(a).thing for a in addresses if Address.at(a).last == "place" and show[a]]
    addresses = [*addresses, *(f"{line}/{side}" for line in brought for side in _PLUGS)]
    plugged = {
        show[address]: address for address in addresses if Address.at(address).last in _PLUGS
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
    line = Address.at(address).stem
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
        if isinstance(source, str) and of_kind(source) == "engine":
            if source in taken:
                raise EngineTaken(source, f"return/{number}", taken[source])
            taken[source] = f"return/{number}"


def _pairs_into_returns(show: Show, addresses: Iterable[str]) -> None:
    for address in addresses:
        source = show[address]
        if isinstance(source, str) and of_kind(source) == "input":
            at = Thing.at(source)
            box = show.desk.box(at.box)
            if at.number % 2 == 0 or box is None or at.number + 1 > box.inputs:
                raise WrongValue(address, "the odd socket of a pair, such as input/a/7", source)


def _circles(show: Show, addresses: Iterable[str]) -> None:
    """No DCA rules itself and no group feeds itself, by way of others either, at any level."""
    joined = {Address.at(a).thing for a in addresses if show[a] is True}
    for start in sorted(joined):
        kind = of_kind(start)
        ways: list[tuple[str, ...]] = [(start,)]
        seen = {start}
        for way in ways:  # grows as it is walked
            for number in range(1, show.desk.count(kind) + 1):
                further = f"{kind}/{number}"
                if not show.on(f"{way[-1]}/{further}/on"):
                    continue
                if further == start:
                    names = [strip_name(show, one) for one in (*way, further)]
                    raise Circle(names, groups=kind == "group")
                if further not in seen:
                    seen.add(further)
                    ways.append((*way, further))


def is_safe_key(show: Show, address: str) -> bool:
    """Whether it is the key of a mute group that is safe: no undo, recall or remedy moves it."""
    at = Address.at(address)
    return at.is_at("mute_group", "on") and show.on(at.beside("safe"))


def _safe_mute_groups(show: Show, addresses: Collection[str]) -> None:
    """The key of a safe mute group stays; arming it is an edit of its own, or part of this one."""
    for address in addresses:
        group = Address.at(address).stem
        if is_safe_key(show, address) and f"{group}/safe" not in addresses:
            raise MuteGroupSafe(show.text(f"{group}/name") or group.replace("_", " "))


def _pairs(show: Show, addresses: Iterable[str]) -> None:
    """The odd one is linked to the even above it, if the desk has that."""
    for address in addresses:
        if show.on(address):
            at = Address.at(address)
            if at.number % 2 == 0 or at.number >= show.desk.count(at.kind):
                raise WrongValue(address, "the odd one of a pair", f"{at.kind} {at.number}")


def _inserts(show: Show, addresses: Iterable[str]) -> None:
    """No more insert points than the desk has; what shares gain may take some too."""
    if not any(show[address] for address in addresses):
        return
    held = bearing("inserts", show.values)
    each = show.desk.sharing_inserts
    sharing = _sharing(show) if each else []
    if len(held) + each * len(sharing) > show.desk.inserts:
        names = (strip_name(show, at.thing) for at in sorted(held, key=lambda at: at.text))
        others = dict.fromkeys((*names, *(strip_name(show, one) for one in sharing)))
        raise InsertsSpent(show.desk.name, show.desk.inserts, list(others))


def _sharing(show: Show) -> list[str]:
    """The strips that share gain, each side of a pair, by their addresses in order."""
    shares = (at for at in bearing("shares", show.values) if at.leaf == "sharing/group")
    return [at.thing for at in sorted(shares, key=lambda at: (at.kind, at.number))]


def _shares(show: Show, addresses: Collection[str]) -> None:
    """What shares gain has one side, and a place on the desk."""
    for address in addresses:
        strip = Address.at(address).thing
        group = show[f"{strip}/sharing/group"]
        two = of_kind(strip) in FORMATTED and show[f"{strip}/format"] == "stereo"
        if isinstance(group, str) and two:
            raise OneSideOnly(strip_name(show, strip), strip_name(show, group))
    coming = [a for a in addresses if Address.at(a).leaf == "sharing/group" and show[a]]
    held = _sharing(show)
    if coming and len(held) > show.desk.sharing_places:
        others = [one for one in held if f"{one}/sharing/group" not in coming] or held
        names = dict.fromkeys(strip_name(show, one) for one in others)
        raise SharingSpent(show.desk.name, show.desk.sharing_places, list(names))
    _inserts(show, coming)


def _scenes(show: Show, addresses: Iterable[str]) -> None:
    """What a scene holds can stand on the desk, and its number is its own."""
    for address in addresses:
        at = Address.at(address)
        scene = at.thing
        if at.in_scene:
            check_packed(show.desk, address, show.text(address))
        elif at.leaf in ("number", "removed") and scene in show.scenes:
            check_number(show, show.number(f"{scene}/number"), scene)


def _fittings(show: Show, addresses: Collection[str]) -> None:
    """A performer has one fitting for a part and microphone; what is on is there, on one channel

    that is no side of a pair; and the mic check has one entry an operator, a channel, a preamp.
    """
    moved = [Address.at(address) for address in addresses]
    bears = [at for at in moved if at.kind == "fitting"]
    for at in bears:
        if at.is_packed:
            check_version(show.desk, at.text, show.text(at.text))
    if any(at.leaf in ("performer", "part", "microphone", "removed") for at in bears):
        named: dict[tuple[object, ...], str] = {}
        for fitting in fittings(show):
            key = tuple(show[f"{fitting}/{leaf}"] for leaf in ("performer", "part", "microphone"))
            if named.setdefault(key, fitting) != fitting:
                raise FittingTwice(fitting_name(show, fitting))
    for at in moved:
        nameless = at.kind == "performer" and not show[at.text]
        if nameless and is_bound(show, at.text):
            raise WrongValue(at.text, "a name for settings to go by", "nothing")
    goes_on = [at.text for at in moved if at.leaf == "fitting"]
    for address in goes_on:
        named_there = show[address]
        if named_there is not None and named_there not in fittings(show):
            raise WrongValue(address, "a fitting of the show", str(named_there))
    if goes_on or any(at.leaf == "linked" for at in moved):
        for channel in show.layers.on:
            number = Thing.at(channel).number
            if show.on(f"channel/{number - (number + 1) % 2}/linked"):
                raise OnOnePair(strip_name(show, channel))
    checked = {at.thing for at in bears if at.leaf in ("check", "checker")}
    if checked:
        check_alone(show, checked)


# In this order; each gets the addresses that bear on it.
_RULES: Final[dict[Bearing, Callable[[Show, Collection[str]], None]]] = {
    "blocks": _outputs_in_blocks,
    "taps": _taps_of_outputs,
    "plugs": _one_plug_a_socket,
    "effects": _engines,
    "return_pairs": _pairs_into_returns,
    "circles": _circles,
    "safe": _safe_mute_groups,
    "pairs": _pairs,
    "inserts": _inserts,
    "shares": _shares,
    "scenes": _scenes,
    "fittings": _fittings,
}
_RULED: Final = frozenset(_RULES)

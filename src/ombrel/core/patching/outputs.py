"""The edits that patch outputs: which socket carries which bus."""

from collections.abc import Collection, Sequence

from ..catalogue import ALONE, TAPS, Thing, check_on_desk, direct_taps, of_kind, thing_of
from ..show import Show, above, read_sockets
from ..values import Asked, NothingLeft, UnreadableText

__all__ = [
    "fitting_tap",
    "free_outputs",
    "goes_somewhere",
    "is_stereo",
    "outputs_of",
    "patch_bus",
    "patch_bus_to",
    "patch_buses",
    "patch_missing",
    "patch_output",
]


def is_stereo(show: Show, bus: str) -> bool:
    """Whether a bus has two sides: the house, and groups, mixes and matrices made so."""
    return bus == "house" or ("/" in bus and show[f"{bus}/format"] == "stereo")


def free_outputs(
    show: Show, count: int, *, pairs: bool = False, but: Collection[str] = ()
) -> list[str]:
    """The next `count` free outputs, boxes in the desk's order; `pairs`: odd and the even above.

    Sockets of boxes without preamps (a recorder), and those of `but`, are not handed out. Raises
    NothingLeft.
    """
    free = [
        socket
        for socket in show.outputs()
        if show[f"{socket}/source"] is None
        and socket not in but
        and (box := show.desk.box(Thing.at(socket).box)) is not None
        and box.preamps
    ]
    if pairs:
        free_set = set(free)
        found: list[str] = []
        for socket in free:
            if Thing.at(socket).number % 2 == 1 and above(socket) in free_set:
                found += [socket, above(socket)]
        free = found
    if len(free) < count:
        raise NothingLeft("free outputs", count, len(free))
    return free[:count]


def patch_bus(show: Show, bus: str, *, stereo: bool) -> dict[str, Asked]:
    """Moves that patch a bus to the next free outputs: a pair when stereo. Raises NothingLeft."""
    sockets = free_outputs(show, 2 if stereo else 1, pairs=stereo)
    if not stereo:
        return {f"{sockets[0]}/source": bus}
    return {
        f"{socket}/source": f"{bus}/{side}"
        for socket, side in zip(sockets, ("left", "right"), strict=True)
    }


def patch_missing(show: Show, bus: str) -> dict[str, Asked]:
    """Moves that patch what no socket carries of a bus: all of it, or the one side that lacks one.

    Raises NothingLeft.
    """
    carried = set(outputs_of(show, bus).values())
    if not is_stereo(show, bus) or not carried:
        return patch_bus(show, bus, stereo=is_stereo(show, bus))
    lacking = [side for side in ("left", "right") if side not in carried]
    sockets = free_outputs(show, len(lacking))
    return {f"{socket}/source": f"{bus}/{s}" for socket, s in zip(sockets, lacking, strict=True)}


def outputs_of(show: Show, bus: str) -> dict[str, str]:
    """Output sockets that carry a bus, each with its side: "left", "right" or "whole"."""
    found = {}
    for socket in show.outputs():
        source = show[f"{socket}/source"]
        if isinstance(source, str) and thing_of(source) == bus:
            found[socket] = Thing.at(source).side or "whole"
    return found


def goes_somewhere(show: Show, bus: str) -> bool:
    """Whether a bus is carried by a socket, an effect engine, or a matrix that a socket carries."""
    if outputs_of(show, bus):
        return True
    engines = range(1, show.desk.effect_engines + 1)
    if any(show[f"engine/{number}/source"] == bus for number in engines):
        return True
    if of_kind(bus) == "matrix":
        return False
    return any(
        show.number(f"{bus}/send/{matrix}/level") > float("-inf")
        and show.on(f"{bus}/send/{matrix}/on")
        and bool(outputs_of(show, matrix))
        for matrix in show.in_use("matrix")
    )


def patch_bus_to(show: Show, bus: str, text: str) -> dict[str, Asked]:
    """Moves that let exactly the typed outputs carry a bus; empty text: the next free ones.

    A stereo bus takes sockets in turn for left and right, so their number must be even; "none"
    takes it off all. Raises UnreadableText, NothingLeft.
    """
    stereo = is_stereo(show, bus)
    moves: dict[str, Asked] = {f"{socket}/source": None for socket in outputs_of(show, bus)}
    if not text.strip():
        return patch_bus(show, bus, stereo=stereo)
    if text.strip().lower() in ("none", "off", "-"):
        return moves
    sockets = read_sockets(show.desk, text, side="output")
    if stereo and len(sockets) % 2:
        raise UnreadableText(
            text, f"outputs in pairs, left and right, such as {show.desk.boxes[0].short} 9-10"
        )
    for turn, socket in enumerate(sockets):
        side = ("/left", "/right")[turn % 2] if stereo else ""
        moves[f"{socket}/source"] = f"{bus}{side}"
    return moves


def patch_buses(show: Show, buses: Sequence[str]) -> dict[str, Asked]:
    """Moves that patch several buses, one after another, to the next free outputs (pairs for

    stereo ones), leaving alone those that an output carries already. Raises NothingLeft.
    """
    moves: dict[str, Asked] = {}
    for bus in buses:
        if not outputs_of(show, bus):
            found = patch_bus(show, bus, stereo=is_stereo(show, bus))
            show = show.with_values({a: str(source) for a, source in found.items()})
            moves.update(found)
    return moves


def fitting_tap(show: Show, socket: str, source: str | None) -> str:
    """The tap that a socket keeps when it carries a source: its own, unless that has no such."""
    tap = show.text(f"{socket}/tap")
    taps = TAPS if source is None else direct_taps(show.desk, of_kind(source))
    if tap in taps or not taps:  # where there are none the edit is refused by name
        return tap
    return "after_fader" if "after_fader" in taps else taps[-1]


def patch_output(show: Show, socket: str, source: str | None) -> dict[str, Asked]:
    """Moves that let an output carry a source, or nothing.

    Where outputs go only in blocks, the whole block follows: the source's neighbours in their
    order, starting where a block of them starts (channel 10 in a block of eight brings 9 to 16).
    Raises NothingLeft when the desk has not so many of them, UnreadableText for a source that has
    no neighbours (the house), UnknownAddress and WrongValue for what is not on the desk.
    """
    check_on_desk(show.desk, f"{socket}/source", source)
    box = show.desk.box(Thing.at(socket).box)
    size = box.output_block if box else 1
    tap = fitting_tap(show, socket, source)
    taps = {f"{socket}/tap": tap} if tap != show[f"{socket}/tap"] else {}
    if box is None or size == 1:
        return {f"{socket}/source": source, **taps}
    first = (Thing.at(socket).number - 1) // size * size + 1
    sockets = [f"output/{box.key}/{number}" for number in range(first, first + size)]
    if source is None:
        return {f"{one}/source": None for one in sockets}
    of = Thing.at(source)
    kind, number, side = of.kind, of.number, of.side
    if kind in ALONE or side in ("left", "right"):
        says = f"channels or whole buses of one kind, which go in blocks of {size}"
        raise UnreadableText(source, says)
    start = (int(number) - 1) // size * size + 1
    most = show.desk.count(kind)
    if start + size - 1 > most:
        raise NothingLeft(f"{kind}s from {start}", size, most - start + 1)
    ending = f"/{side}" if side else ""
    return {f"{one}/source": f"{kind}/{start + turn}{ending}" for turn, one in enumerate(sockets)}

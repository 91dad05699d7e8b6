"""Names of strips, and which rows and columns of the table are worth drawing."""

from dataclasses import dataclass
from typing import TYPE_CHECKING, Final

from ..catalogue import KINDS, SOURCES, Thing, of_kind, strips_of, thing_of
from ..show import Show, socket_name
from ..wires import layout_of

if TYPE_CHECKING:
    from .table import Flow

__all__ = [
    "KIND_WORDS",
    "Head",
    "between",
    "listener_name",
    "listeners",
    "source_name",
    "sources",
    "strip_name",
    "table_heads",
]


# What things without a name are called where that is not the capitalised word of the address.
KIND_WORDS: Final = {"dca": "DCA", "mute_group": "Mute group", "sharing": "Shared gain"}


def strip_name(show: Show, strip: str) -> str:
    """What people call a strip, engine, ruler, bank, bay, wish or cue: its name, or its number."""
    at = Thing.at(thing_of(strip))
    kind, number = at.kind, at.number
    if not number:
        return kind.capitalize()
    if kind == "bay":
        return show.desk.bays[number - 1].name
    if kind == "cue":
        return f"Cue {show.text(f'cue/{number}/comes')}".rstrip()
    if kind == "wish":
        source = show[f"wish/{number}/source"]
        return f"Recording of {strip_name(show, source)}" if isinstance(source, str) else "A wish"
    return (
        show.text(f"{kind}/{number}/name") or f"{KIND_WORDS.get(kind, kind.capitalize())} {number}"
    )


def source_name(show: Show, source: str) -> str:
    """Name of a source: a channel or a return. Raises UnknownAddress for none of the desk."""
    layout_of(show.desk).row(source)
    return strip_name(show, source)


def listener_name(show: Show, listener: str) -> str:
    """Name of a listener: a bus, or a socket that carries a direct out. Raises UnknownAddress."""
    layout_of(show.desk).column(listener)
    if of_kind(listener) == "output":
        at = Thing.at(listener)
        box = show.desk.box(at.box)
        where = f"{box.short if box else at.box} {at.number}"
        return show.text(f"{listener}/label") or where
    return strip_name(show, listener)


def sources(show: Show) -> list[str]:
    """The rows worth drawing: channels and returns with a source, a spare or a name, in order."""
    return [strip for kind in SOURCES for strip in show.in_use(kind)]


def listeners(show: Show) -> list[str]:
    """The columns worth drawing: the house, mono when anything feeds it, mixes and matrices in

    use, groups that a socket carries, and sockets that carry a direct out.
    """
    carried = {
        socket: source
        for socket in layout_of(show.desk).outputs
        if isinstance(source := show.values.get(f"{socket}/source"), str)
    }
    buses = {thing_of(source) for source in carried.values()}
    feeding = (key for key, kind in KINDS.items() if "mono" in kind.feeds)
    fed_mono = any(show.values.get(f"{s}/mono/on") for s in strips_of(show.desk, *feeding))
    found = ["house", *(["mono"] if fed_mono or "mono" in buses else [])]
    found += show.in_use("mix") + show.in_use("matrix")
    found += [group for group in show.in_use("group") if group in buses]
    return found + [socket for socket, source in carried.items() if of_kind(source) in SOURCES]


def between(show: Show) -> list[str]:
    """Stages in between worth drawing: groups in use, and mixes that feed an effect engine."""
    engines = range(1, show.desk.effect_engines + 1)
    taken = {show.values.get(f"engine/{number}/source") for number in engines}
    return show.in_use("group") + [mix for mix in show.in_use("mix") if mix in taken]


@dataclass(frozen=True, slots=True, kw_only=True)
class Head:
    """Head of a column of the table. `about`: where it stands; `patched`: whether it goes anywhere.

    `serves`: what a mix serves, else "house", "mono", "group", "matrix" or "direct". `listens`:
    sound arrives there; a stage in between (a group, an effect) is drawn apart.
    """

    listener: str
    about: str
    patched: bool
    serves: str
    listens: bool


def table_heads(show: Show, flow: "Flow") -> tuple[tuple[str, ...], tuple[Head, ...]]:
    """The rows worth drawing, by source, and the columns: listeners, then stages in between."""
    heard, inner = listeners(show), set(between(show))
    columns = [*heard, *(bus for bus in between(show) if bus not in heard)]
    heads = tuple(
        _head(show, flow, one, listens=one not in inner or (one in heard and "group" in one))
        for one in columns
    )
    return tuple(sources(show)), heads


def _head(show: Show, flow: "Flow", listener: str, *, listens: bool) -> Head:
    column = flow.layout.column(listener)
    kind, number = of_kind(listener), Thing.at(listener).number
    serves = show.text(f"{listener}/serves") if kind == "mix" else kind
    about, patched = (f"{kind.capitalize()} {number}" if number else "Main"), True
    if kind == "output":
        serves, about = "direct", socket_name(show.desk, listener)
    elif flow.ears.by_matrix[column]:
        about = "by matrix"
    elif not flow.ears.patched[column].any():
        about, patched = "no output", False
    return Head(listener=listener, about=about, patched=patched, serves=serves, listens=listens)

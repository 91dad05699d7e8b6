"""An address and a thing as values: parsed once, in one place. Nobody else takes a text apart.

Maps, files, the log and the wire hold the text; whoever asks what an address is of gets it here.
"""

import re
from collections.abc import Collection, Iterable
from sys import intern
from typing import Final, NamedTuple

from ..values import Packed, UnknownAddress
from .bearing import BEARINGS, Bearing
from .parameters import CATALOGUE
from .strip_parameters import Parameter

__all__ = [
    "KNOWN",
    "LONE",
    "Address",
    "Thing",
    "bearing",
    "bears",
    "below",
    "entries_of",
    "in_scene",
    "is_in_dca",
    "keys_below",
    "matched",
    "memberships_in",
    "name_below",
    "named_kind",
    "of_kind",
    "pattern_text",
    "thing_of",
]

KNOWN: Final = 1 << 18  # more than a full desk has; an address that fell out is parsed again
_AT_SOCKETS: Final = ("input", "output")
_SIDES: Final = ("left", "right", "direct")
# of which a desk has one: their addresses have no number
LONE: Final = frozenset(
    {key.split("/")[0] for key in CATALOGUE if not key.split("/")[1].startswith("<")}
    | {"solo", "talkback"}
)
_NUMBERED: Final = frozenset({key.split("/")[0] for key in CATALOGUE} - LONE)


class Thing(NamedTuple):
    """What addresses are of and values name: a strip, socket, line, scene, or a bus's side.

    `text`: as it is written ("mix/5/left"); `thing`: without the side ("mix/5"); `kind`: "mix";
    `number`: from 1, 0 where a desk has one; `box`: of a socket, else ""; `side`: "left", "right",
    "direct" or "".
    """

    text: str
    thing: str
    kind: str
    number: int
    box: str
    side: str

    @staticmethod
    def at(text: str) -> "Thing":
        """The thing of a text. Raises UnknownAddress.

        >>> Thing.at("mix/5/left").number, Thing.at("input/a/7").box, Thing.at("house").kind
        (5, 'a', 'house')
        """
        return _THINGS[text]


class Address(NamedTuple):
    """The name of one value, with its parts. `text`: as it is written everywhere.

    `entry`: what the catalogue says of it; `thing`: what it is of ("channel/7", "input/a/3"), by
    `kind`, `number` (0 where a desk has one) and `box`; `leaf`: what is left below it
    ("send/mix/5/level"), `last`: the leaf's last word; `target`: the other thing that it names
    ("mix/5"; what a scene holds), "" for none; `inner`: of a fitting's value the leaf of the
    channel, else ""; `things`: all that it names by kind and number, in its order; `indices`: all
    numbers and boxes in it; `borne`: what hangs on it.
    """

    text: str
    entry: Parameter
    thing: str
    kind: str
    number: int
    box: str
    leaf: str
    last: str
    target: str
    inner: str
    things: tuple[str, ...]
    indices: tuple[str | int, ...]
    borne: frozenset[Bearing]

    @staticmethod
    def at(text: str) -> "Address":
        """The address of a text. Raises UnknownAddress.

        >>> one = Address.at("channel/7/send/mix/5/level")
        >>> one.thing, one.leaf, one.target, one.beside("on")
        ('channel/7', 'send/mix/5/level', 'mix/5', 'channel/7/send/mix/5/on')
        """
        return _ADDRESSES[text]

    @property
    def stem(self) -> str:
        """The address without its last word: the feed of "channel/7/send/mix/5/level"."""
        return self.text[: -len(self.last) - 1]

    def beside(self, leaf: str) -> str:
        """Another address of the same stem: the switch of a level."""
        return f"{self.stem}/{leaf}"

    @property
    def plain(self) -> str:
        """The address whose place this one keeps for a gang; itself for others."""
        return self.stem if self.last == "kept" else self.text

    @property
    def words(self) -> tuple[str, ...]:
        """The words of its leaf, of a fitting's value those of the channel's: eq, 2, frequency."""
        return tuple((self.inner or self.leaf).split("/"))

    @property
    def in_scene(self) -> bool:
        """Whether it is what a scene holds of a strip."""
        return self.kind == "scene" and self.leaf.startswith("holds/")

    @property
    def in_fitting(self) -> bool:
        """Whether it is a value in a fitting, which stands only where the fitting is on."""
        return self.inner != ""

    @property
    def is_packed(self) -> bool:
        """Whether it holds many values in one text: of a scene's strip, of a fitting's version."""
        return isinstance(self.entry.kind, Packed)

    @property
    def of_send(self) -> bool:
        """Whether it is of a send: a strip's into a mix or matrix."""
        return self.leaf.startswith("send/")

    def is_at(self, kind: str, *leaves: str) -> bool:
        """Whether it is one of some leaves of a kind of thing.

        >>> Address.at("channel/7/source").is_at("channel", "source", "spare")
        True
        """
        return self.kind == kind and self.leaf in leaves

    def bears_on(self, what: Bearing) -> bool:
        """Whether something hangs on it, as the catalogue says."""
        return what in self.borne


def bearing(what: Bearing, addresses: Collection[str]) -> list[Address]:
    """Those of some addresses on which something hangs. On what is no address nothing does: who

    edits it is told so at the door.
    """
    if not bears(what, addresses):
        return []
    return [one for one in filter(None, map(_known, addresses)) if what in one.borne]


def bears(what: Bearing, addresses: Iterable[str]) -> bool:
    """Whether something hangs on any of some addresses; as `bearing`."""
    return not _BEARERS[what].isdisjoint(map(_KEYS.__getitem__, addresses))


def _known(text: str) -> Address | None:
    try:
        return _ADDRESSES[text]
    except UnknownAddress:
        return None


def thing_of(text: str) -> str:
    """The thing that an address is of, or of which a name names a side.

    >>> thing_of("channel/7/fader"), thing_of("mix/5/left"), thing_of("house/right")
    ('channel/7', 'mix/5', 'house')
    """
    words = text.split("/")
    return "/".join(words[: _length(words[0])])


def of_kind(text: str) -> str:
    """Of what kind the thing is that an address is of, or a name names; any text has a first word.

    >>> of_kind("channel/7/fader"), of_kind("mix/5"), of_kind("house")
    ('channel', 'mix', 'house')
    """
    return text.split("/", 1)[0]


def name_below(text: str) -> str:
    """A name without its kind, as people typed it: "7" of "scene/7"; any text has one."""
    return text.partition("/")[2]


def in_scene(text: str) -> bool:
    """Whether a text is an address of what a scene holds; any text may be asked for."""
    words = text.split("/", 3)
    return len(words) == 4 and words[0] == "scene" and words[2] == "holds"


def pattern_text(key: str) -> str:
    """A regular expression that fits the addresses of a key whole, for schemas.

    >>> pattern_text("channel/<channel>/fader"), pattern_text("house")
    ('^channel/[1-9][0-9]{0,4}/fader$', '^house$')
    """
    forms = {"<box>": "[^/]+"}
    words = (
        forms.get(word, "[1-9][0-9]{0,4}") if word.startswith("<") else re.escape(word)
        for word in key.split("/")
    )
    return f"^{'/'.join(words)}$"


def keys_below(kind: str) -> list[str]:
    """The last words of all keys of a kind of thing, in the catalogue's order: fields of lines."""
    return [key.split("/")[-1] for key in CATALOGUE if of_kind(key) == kind]


def below(thing: str, addresses: Iterable[str]) -> list[str]:
    """Those of some addresses that are of a thing."""
    return [one for one in addresses if Address.at(one).thing == thing]


def memberships_in(ruler: str, addresses: Collection[str]) -> list[Address]:
    """Those of some addresses that say who is a member of a ruler ("dca/3", "lift/1")."""
    return [one for one in bearing("member", addresses) if one.target == ruler]


def is_in_dca(address: str) -> bool:
    """Whether an address says that a strip or DCA is a member of a DCA."""
    at = Address.at(address)
    return "member" in at.borne and of_kind(at.target) == "dca"


def entries_of(kind: str) -> list[tuple[str, Parameter]]:
    """The leaves of a kind of strip, as the catalogue's keys have them, with their entries."""
    length = _length(kind)
    keys = [(key.split("/"), entry) for key, entry in CATALOGUE.items()]
    return [("/".join(words[length:]), entry) for words, entry in keys if words[0] == kind]


def named_kind(value: object) -> str:
    """Of what kind the thing is that a value names; "" for a value that names none."""
    return of_kind(value) if isinstance(value, str) else ""


def matched(pattern: list[str], words: list[str]) -> tuple[str | int, ...] | None:
    """The numbers (from 1) and box keys of words that fit a pattern of as many words; else None."""
    indices: list[str | int] = []
    for wanted, word in zip(pattern, words, strict=True):
        if not wanted.startswith("<"):
            if wanted != word:
                return None
        elif wanted == "<box>":
            indices.append(word)
        elif number := _number(word):
            indices.append(number)
        else:
            return None
    return tuple(indices)


def _number(word: str) -> int:
    """A number as addresses write it, from 1; 0 for any other word."""
    plain = word.isascii() and word.isdigit() and word[0] != "0" and len(word) < 6
    return int(word) if plain else 0


def _length(kind: str) -> int:
    """How many words the name of a thing has."""
    return 3 if kind in _AT_SOCKETS else 1 if kind in LONE else 2


class _Shape(NamedTuple):
    """How the addresses of a key are taken apart: which words make what."""

    pattern: list[str]
    entry: Parameter
    length: int  # of the thing, in words
    pairs: tuple[int, ...]  # where a number stands behind its kind
    target: tuple[int, int]  # from which word to which; nothing where they are one


def _shape(entry: Parameter) -> _Shape:
    pattern = entry.key.split("/")
    length = _length(pattern[0])
    pairs = [n for n in range(1, len(pattern)) if pattern[n] == f"<{pattern[n - 1]}>"]
    beyond = [n for n in pairs if n >= length]
    target = (beyond[-1] - 1, beyond[-1] + 1) if beyond else (0, 0)
    alone = length + (pattern[length] == "holds")
    if not beyond and pattern[alone : alone + 1] and pattern[alone] in LONE:
        target = (alone, alone + 1)
    return _Shape(pattern, entry, length, tuple(pairs), target)


class _Addresses(dict[str, Address]):
    """Each address that was asked for, parsed once: one value for one text."""

    def __missing__(self, text: str) -> Address:
        words = text.split("/")
        for last in (words[-1], ""):
            for shape in _SHAPES.get((words[0], len(words), last), ()):
                indices = matched(shape.pattern, words)
                if indices is not None:
                    if len(self) >= KNOWN:
                        self.clear()
                    return self.setdefault(text, _parsed(text, words, shape, indices))
        raise UnknownAddress(text)


def _parsed(text: str, words: list[str], shape: _Shape, indices: tuple[str | int, ...]) -> Address:
    length = shape.length
    below = words[length:]
    return Address(
        text,
        shape.entry,
        "/".join(words[:length]),
        words[0],
        int(words[length - 1]) if length > 1 else 0,
        words[1] if length == 3 else "",
        intern("/".join(below)),
        intern(words[-1]),
        "/".join(words[shape.target[0] : shape.target[1]]),
        "/".join(below[1:]) if words[0] == "fitting" and below[0] == "value" else "",
        tuple([f"{words[n - 1]}/{words[n]}" for n in shape.pairs]),
        indices,
        shape.entry.bears_on,
    )


class _Keys(dict[str, str]):
    """The key of each address, "" for what is none: an edit of a thousand asks many times."""

    def __missing__(self, text: str) -> str:
        one = _known(text)
        if len(self) >= KNOWN:
            self.clear()
        return self.setdefault(text, one.entry.key if one else "")


class _Things(dict[str, Thing]):
    """Each thing that was asked for."""

    def __missing__(self, text: str) -> Thing:
        words = text.split("/")
        length = _length(words[0])
        thing, beyond = words[:length], words[length:]
        number = 0 if length == 1 else _number(thing[-1]) if len(thing) == length else 0
        if (length > 1 and not number) or len(beyond) > 1 or not {*beyond} <= {*_SIDES}:
            raise UnknownAddress(text, "nothing is called that")
        if len(self) >= KNOWN:
            self.clear()
        box, side = thing[1] if length == 3 else "", "".join(beyond)
        return self.setdefault(text, Thing(text, "/".join(thing), words[0], number, box, side))


_ADDRESSES: Final = _Addresses()
_THINGS: Final = _Things()
_KEYS: Final = _Keys()
_BEARERS: Final[dict[Bearing, frozenset[str]]] = {
    what: frozenset(key for key, entry in CATALOGUE.items() if what in entry.bears_on)
    for what in BEARINGS
}
# first word, number of words and last word ("" for any number) -> the keys that an address of that
# shape can have, of which there are few: a show's first reading asks for each of its addresses
_SHAPES: Final[dict[tuple[str, int, str], list[_Shape]]] = {}
for _parameter in CATALOGUE.values():
    _words = _parameter.key.split("/")
    _last = "" if _words[-1].startswith("<") else _words[-1]
    _SHAPES.setdefault((_words[0], len(_words), _last), []).append(_shape(_parameter))
# Asked a million times while a show opens: without a call of Python between.
Thing.at = _THINGS.__getitem__  # type: ignore[method-assign, assignment]
Address.at = _ADDRESSES.__getitem__  # type: ignore[method-assign, assignment]

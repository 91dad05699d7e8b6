"""Strips typed as a person says them: "1-8, 11, mix 1-4, house, drums, Fiddle, all except 3"."""

import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Final, NamedTuple

from ..catalogue import ALONE, FAMILIES, SOURCES, STRIP_KINDS, Thing, of_kind, strips_of
from ..values import UnreadableText, is_near, plain
from .show import Show
from .sockets import numbers_text, read_numbers

__all__ = [
    "STRIP_KINDS",
    "TypedStrips",
    "read_strips",
    "strips_of_family",
    "strips_of_performer",
    "strips_text",
    "typed_strips",
]

_WORDS: Final = {
    "": "channel", "ch": "channel", "channel": "channel", "channels": "channel",
    "return": "return", "returns": "return", "group": "group", "groups": "group",
    "mix": "mix", "mixes": "mix", "matrix": "matrix", "matrices": "matrix",
    "dca": "dca", "dcas": "dca", "house": "house", "mono": "mono",
}  # fmt: skip
_SHORT: Final = {"channel": "", "dca": "DCA "}
# in the order in which a name is looked for
_NAMED: Final = tuple(dict.fromkeys(k for k in (*SOURCES, *STRIP_KINDS) if k not in ALONE))
_MOST: Final = 2_000  # letters of a list that are read
_HELP: Final = 'strips such as "1-8, return 1, mix 1-4, house", names, families, "all except 3"'
_PIECES: Final = re.compile(r'"[^"]*"|[,;\n]|[^",;\n]+')
_EXCEPT: Final = re.compile(r"(?:^|\s)(?:all\s+)?(?:except|but not|without)(?:\s|$)", re.IGNORECASE)
_NUMBERED: Final = re.compile(r"([a-z]*)\s*([\d\u2013 -]*)")


class _Part(NamedTuple):
    """A part between commas, and whether it is a name in quotes."""

    text: str
    quoted: bool


@dataclass(frozen=True, slots=True)
class TypedStrips:
    """Strips in the order typed, and what a range or a word had that is not in use: left out."""

    strips: tuple[str, ...]
    unused: tuple[str, ...] = ()


def read_strips(
    show: Show, text: str, *, dcas: bool = True, once: bool = True, unused: bool = False
) -> list[str]:
    """The strips of `typed_strips`."""
    return list(typed_strips(show, text, dcas=dcas, once=once, unused=unused).strips)


def typed_strips(
    show: Show, text: str, *, dcas: bool = True, once: bool = True, unused: bool = False
) -> TypedStrips:
    """Strips (and DCAs, with `dcas`) from a typed list, in the order typed, each once (`once`).

    A number alone is a channel's; a word stands for its kind until the next word; "all", or a kind
    without a number, is all of it that is in use. Else a part is a name (of a channel before that
    of a return, bus or DCA; in quotes where it has a comma), a family of lines, or who plays them.
    Behind "except" stands what is taken away again. Of a range only what is in use is taken,
    unless `unused`; a number that stands alone is meant as it is. Raises UnreadableText for
    anything else, for what the desk has not, and where nothing is left.
    """
    if len(text) > _MOST:
        raise UnreadableText(f"{text[:40]}…", _HELP)
    plus, minus = _parts_of(text)
    reading = _Reading(show, dcas=dcas, unused=unused)
    found = [strip for part in plus for strip in reading.of(*part)]
    if minus and not plus:
        found = show.in_use("channel")
    left_out = reading.left_out
    away = {strip for part in minus for strip in _Reading(show, dcas=True, unused=True).of(*part)}
    strips = [strip for strip in found if strip not in away]
    if not strips and left_out:
        there = strips_text(left_out)
        raise UnreadableText(text.strip(), f"strips that are in use; {there} are not")
    if not strips:
        raise UnreadableText(text.strip(), _HELP)
    return TypedStrips(
        tuple(dict.fromkeys(strips) if once else strips),
        tuple(dict.fromkeys(one for one in left_out if one not in away)),
    )


def _parts_of(text: str) -> tuple[list[_Part], list[_Part]]:
    """What is meant, and what is excepted: each part, and whether it stood in quotes."""
    plus: list[_Part] = []
    minus: list[_Part] = []
    into, part = plus, _Part("", False)
    for piece in _PIECES.findall(_even(text)):
        if piece in ",;\n":
            into += [part] if part.text else []
            part = _Part("", False)
        elif piece[0] == '"':
            name = " ".join(piece.strip('"').split())
            part = _Part(f"{part.text} {name}".strip(), not part.text)
        elif into is plus and (but := _EXCEPT.search(piece)):
            before = f"{part.text} {piece[: but.start()]}".strip()
            if not before and "all" in but[0].lower().split():
                before = "all"
            plus += [_Part(" ".join(before.split()), part.quoted)] if before else []
            into, part = minus, _Part(" ".join(piece[but.end() :].split()), False)
        else:
            part = _Part(" ".join(f"{part.text} {piece}".split()), part.quoted)
    into += [part] if part.text else []
    return plus, minus


def _even(text: str) -> str:
    """A text with plain quotes, each of which ends. Raises UnreadableText."""
    plain_text = text.replace("\u201c", '"').replace("\u201d", '"')
    if plain_text.count('"') % 2:
        raise UnreadableText(text.strip(), "a quote at the end of a name too")
    return plain_text


class _Reading:
    """Reads one part behind another: a word for a kind holds until the next. `left_out`: what a

    range had that is not in use.
    """

    def __init__(self, show: Show, *, dcas: bool, unused: bool) -> None:
        self.show, self.dcas, self.unused = show, dcas, unused
        self.kind = "channel"
        self.left_out: list[str] = []

    def of(self, part: str, quoted: bool) -> list[str]:
        """The strips of a part; none for an empty one."""
        match = None if quoted else _NUMBERED.fullmatch(part.lower())
        if match and match[1] in _WORDS:
            return self._numbered(part, _WORDS[match[1]] if match[1] else self.kind, match[2])
        self.kind = "channel"
        if not quoted and part.lower() in ("all", "all channels", "everything"):
            return self.show.in_use("channel")
        return self._named(part)

    def _numbered(self, part: str, kind: str, numbers_text: str) -> list[str]:
        numbers_text = numbers_text.strip()
        self.kind = "channel" if kind in ALONE else kind
        if kind == "dca" and not self.dcas:
            raise UnreadableText(part, f"{_HELP}; a DCA is no member here")
        if kind in ALONE:
            if numbers_text:
                raise UnreadableText(part, _HELP)
            return [kind]
        if not numbers_text:
            return self._all_of(kind)
        numbers = read_numbers(numbers_text, highest=self.show.desk.count(kind))
        strips = [f"{kind}/{number}" for number in numbers]
        if self.unused or len(strips) == 1 or kind == "dca":
            return strips
        self.left_out += [one for one in strips if not self.show.uses(one)]
        return [one for one in strips if self.show.uses(one)]

    def _all_of(self, kind: str) -> list[str]:
        """All of a kind that are in use: of DCAs, those with a name."""
        if kind == "dca":
            dcas = strips_of(self.show.desk, kind)
            return [one for one in dcas if f"{one}/name" in self.show.values]
        return self.show.in_use(kind)

    def _named(self, part: str) -> list[str]:
        word, _, rest = part.partition(" ")
        of_word = _WORDS.get(word.lower())
        show = self.show
        if of_word and rest and of_word not in ALONE and (self.dcas or of_word != "dca"):
            of_kind_named = _called(show, rest, (of_word,))
            if of_kind_named:
                return of_kind_named
        found = (
            _called(show, part, ("channel",))
            or (strips_of_family(show, plain(part)) if plain(part) in FAMILIES else [])
            or strips_of_performer(show, part)
            or _called(show, part, (*_NAMED, *(["dca"] if self.dcas else [])))
        )
        if found:
            return found
        near = _near(show, part)
        raise UnreadableText(part, f"{_HELP}{f'; near is {near}' if near else ''}")


def _called(show: Show, name: str, kinds: Sequence[str]) -> list[str]:
    """The strips of a name: those of the first of some kinds that has any."""
    wanted = plain(name)
    for kind in kinds:
        strips = strips_of(show.desk, kind)
        found = [one for one in strips if wanted and plain(show.text(f"{one}/name")) == wanted]
        if found:
            return found
    return []


def _near(show: Show, part: str) -> str:
    """Names that are one slip from what was typed, or begin with it; "" for none."""
    wanted = plain(part)
    names = dict.fromkeys(show.text(f"{one}/name") for kind in _NAMED for one in show.in_use(kind))
    found = [
        name
        for name in names
        if wanted and (is_near(wanted, plain(name)) or plain(name).startswith(wanted))
    ]
    return ", ".join(found[:3])


def strips_of_family(show: Show, family: str) -> list[str]:
    """Channels fed by lines of a family, ascending."""
    return _fed_by_lines(show, lambda line: show[f"line/{line}/family"] == family)


def strips_of_performer(show: Show, name: str) -> list[str]:
    """Channels fed by the lines of who is called so, ascending; "" is nobody."""
    wanted = plain(name)
    if not wanted:
        return []
    return _fed_by_lines(show, lambda line: plain(show.text(f"line/{line}/performer")) == wanted)


def _fed_by_lines(show: Show, wanted: Callable[[int], bool]) -> list[str]:
    sockets = {
        str(show[f"line/{line}/{side}"])
        for line in show.lines()
        if wanted(line)
        for side in ("socket", "socket_right")
    }
    fed = {n for socket in sockets for n in show.fed_by.get(socket, ())}
    return [f"channel/{n}" for n in sorted(fed)]


def strips_text(strips: Sequence[str]) -> str:
    """A list of strips as it could be typed, runs drawn together."""
    parts: list[str] = []
    for kind in (*STRIP_KINDS, "dca"):
        if kind in strips:
            parts.append(kind)
        numbers = sorted(Thing.at(s).number for s in strips if of_kind(s) == kind and s != kind)
        spans = numbers_text(numbers).split(", ") if numbers else []
        parts += [f"{_SHORT.get(kind, f'{kind} ')}{span}" for span in spans]
    return ", ".join(parts)

"""Recipes: what a performer wants to hear, in a line of plain text, read against a show.

    self +6, bass +3, click = -5, playback off, drums = house -2

A sign is a step from the base, `=` is exact, or taken from a base. One item decides a send.
"""

import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import Final, Literal

from ..casting import part_name, parts
from ..catalogue import FAMILIES, of_kind, strips_of
from ..show import Show, channels_of_line, read_strips, strips_of_family
from ..together import dcas_of, rulers_in_use
from ..values import UnreadableText, is_near, plain
from ..wires import layout_of
from .selves import channels_of_part, selves_of

__all__ = ["Item", "deciding", "read_recipe"]

How = Literal["step", "exact", "off", "base"]

_NUMBER: Final = r"\d+(?:\.\d+)?"
_EXACT: Final = re.compile(rf"(?P<word>.+?)\s*=\s*(?P<db>[+-]?\s*{_NUMBER})(?:\s*db)?", re.I)
_FROM: Final = re.compile(
    rf"(?P<word>.+?)\s*=\s*(?P<base>house|mix\s*\d+)\s*(?P<db>[+-]\s*{_NUMBER})?(?:\s*db)?", re.I
)
_OFF: Final = re.compile(r"(?P<word>.+?)\s*(?:=\s*|\s)off", re.I)
_STEP: Final = re.compile(rf"(?P<word>.+?)\s+(?P<db>[+-]\s*{_NUMBER})(?:\s*db)?", re.I)
_BARE: Final = re.compile(rf"(?P<word>.+?)\s+(?P<db>{_NUMBER})(?:\s*db)?", re.I)
_PIECES: Final = re.compile(r'(?:"[^"]*"|[^",;\n])+')
_HELP: Final = 'items such as "self +6, bass +3, click = -5, playback off"'
_CHOOSING: Final = ("family", "part", "dca", "line", "strip")
_MOST: Final = 2_000  # letters that are read
# a line or strip goes before self, that before families, parts and DCAs; the rest is what is left
_RANKS: Final = {"line": 3, "strip": 3, "self": 2, "family": 1, "part": 1, "dca": 1, "rest": 0}


@dataclass(frozen=True, slots=True, kw_only=True)
class Item:
    """One item of a recipe: of which strips, and what becomes of their sends.

    `how`: a step of `db` from the base, exactly `db`, off, or from another `base` by `db`.
    """

    text: str
    strips: frozenset[str]
    rank: int
    how: How
    db: float = 0.0
    base: str = ""

    @property
    def opens(self) -> bool:
        """Whether it asks for something to be heard, rather than away or lower."""
        return self.how in ("exact", "base") or (self.how == "step" and self.db > 0.0)


def read_recipe(show: Show, text: str, mix: str) -> list[Item]:
    """The items of a recipe for a mix, in order; `self` is of it, `rest` what no other covers.

    Raises UnreadableText for what is no item, and for a word that means nothing in this show, with
    what is near.
    """
    if len(text) > _MOST:
        raise UnreadableText(f"{text[:40]}\u2026", f"at most {_MOST} letters")
    even = text.replace("\u201c", '"').replace("\u201d", '"').replace("\u2212", "-")
    if even.count('"') % 2:
        raise UnreadableText(text.strip()[:60], "a quote at the end of a name too")
    pieces = [" ".join(piece.split()) for piece in _PIECES.findall(even)]
    items = [_item(show, piece, mix) for piece in pieces if piece]
    covered = frozenset(strip for one in items if one.rank for strip in one.strips)
    every = frozenset(layout_of(show.desk).strips)
    return [
        one if one.rank else Item(
            text=one.text, strips=every - covered, rank=0, how=one.how, db=one.db, base=one.base
        )
        for one in items
    ]  # fmt: skip


def deciding(items: Sequence[Item], strip: str) -> Item | None:
    """The item that decides a strip's send: the highest rank, in one rank the later."""
    return max(
        (one for one in items if strip in one.strips),
        key=lambda one: (one.rank, items.index(one)),
        default=None,
    )


def _item(show: Show, piece: str, mix: str) -> Item:
    for pattern, how in (
        (_FROM, "base"), (_EXACT, "exact"), (_OFF, "off"), (_STEP, "step"),
    ):  # fmt: skip
        if match := pattern.fullmatch(piece):
            found = match.groupdict()
            kind, strips = _covered(show, found["word"].strip(), mix, piece)
            base = " ".join((found.get("base") or "").lower().split()).replace("mix", "mix ")
            return Item(
                text=piece,
                strips=strips,
                rank=_RANKS[kind],
                how=how,  # type: ignore[arg-type]  # of the four above
                db=_db(found.get("db")),
                base="house" if base == "house" else _mix_of(show, base, piece),
            )
    if _BARE.fullmatch(piece):
        raise UnreadableText(piece, 'a sign for a step ("+3"), or "= 3" for exactly that')
    raise UnreadableText(piece, _HELP)


def _db(text: str | None) -> float:
    return float(text.replace(" ", "")) if text else 0.0


def _mix_of(show: Show, base: str, piece: str) -> str:
    if not base:
        return ""
    number = int(base.split()[-1])
    if number > show.desk.mixes or not show.uses(f"mix/{number}"):
        raise UnreadableText(piece, "a mix that is in use")
    return f"mix/{number}"


def _covered(show: Show, word: str, mix: str, piece: str) -> tuple[str, frozenset[str]]:
    """What a word means, the first of the order in which words are looked for, and its strips."""
    quoted = word.startswith('"') and word.endswith('"')
    name = word.strip('"')
    first, _, behind = name.partition(" ")
    kinds: tuple[str, ...] = ("self", "rest", *_CHOOSING)
    if not quoted and behind and first.lower() in _CHOOSING:
        kinds, name = (first.lower(),), behind.strip('"')
    for kind in kinds:
        found = _READ[kind](show, name, mix)
        if found is not None:
            return kind, frozenset(found)
    near = [one for one in _words(show) if is_near(plain(name), plain(one))][:3]
    known = f"; near is {', '.join(near)}" if near else ""
    raise UnreadableText(piece, f"self, rest, a family, part, DCA, line or strip{known}")


def _self(show: Show, name: str, mix: str) -> list[str] | None:
    return selves_of(show, mix) if plain(name) == "self" else None


def _rest(show: Show, name: str, mix: str) -> list[str] | None:
    return [] if plain(name) == "rest" else None


def _family(show: Show, name: str, mix: str) -> list[str] | None:
    family = next((one for one in FAMILIES if plain(one) == plain(name)), None)
    if family is None:
        return None
    returns = [
        one
        for one in strips_of(show.desk, "return")
        if family == "effects" and of_kind(str(show[f"{one}/source"] or "")) == "engine"
    ]
    return [*strips_of_family(show, family), *returns]


def _part(show: Show, name: str, mix: str) -> list[str] | None:
    called = [one for one in parts(show) if plain(part_name(show, one)) == plain(name)]
    return [one for part in called for one in channels_of_part(show, part)] if called else None


def _dca(show: Show, name: str, mix: str) -> list[str] | None:
    dcas = {
        one for one in rulers_in_use(show, "dca") if plain(show.text(f"{one}/name")) == plain(name)
    }
    if not dcas:
        return None
    return [one for one in layout_of(show.desk).strips if dcas & dcas_of(show, one).keys()]


def _line(show: Show, name: str, mix: str) -> list[str] | None:
    lines = [n for n in show.lines() if plain(show.text(f"line/{n}/name")) == plain(name)]
    if not lines:
        return None
    return [f"channel/{channel}" for n in lines for channel in channels_of_line(show, n)]


def _strip(show: Show, name: str, mix: str) -> list[str] | None:
    try:
        return read_strips(show, name, dcas=False, unused=True)
    except UnreadableText:
        return None


_READ: Final[dict[str, Callable[[Show, str, str], list[str] | None]]] = {
    "self": _self, "rest": _rest, "family": _family, "part": _part, "dca": _dca,
    "line": _line, "strip": _strip,
}  # fmt: skip


def _words(show: Show) -> Iterator[str]:
    yield from ("self", "rest", *FAMILIES)
    for one in [*parts(show), *rulers_in_use(show, "dca")]:
        yield show.text(f"{one}/name")
    yield from (show.text(f"line/{n}/name") for n in show.lines())
    yield from (show.text(f"{one}/name") for one in show.in_use("channel"))

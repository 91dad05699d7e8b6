"""Everything of a show that has a name or a number, as it is looked for."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache
from typing import NamedTuple

from ..casting import part_name, parts, performer_name, performers
from ..catalogue import ALONE, Thing, of_kind
from ..flow import strip_name
from ..scenes import scene_named
from ..show import Show, socket_name, socket_spellings
from ..together import rulers_in_use
from ..values import plain
from .words import KIND_NAMES, USE_NAMES, begins

__all__ = ["Named", "Things", "things_of"]

# Of things that answer as well, the earlier kind comes first.
_ORDER = (
    "channel", "dca", "mix", "group", "house", "mono", "matrix", "return", "mute_group", "scene",
    "gang", "sharing", "part", "bank", "line", "engine", "lift", "promise", "output", "performer",
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Named:
    """A thing of the show. `at`: its address; `name`: what it is called; `number`: as people say it

    ("20.5" of a scene); `about`: where it stands or who uses it; `kinds`, `words`: plain words that
    name its kind, and that stand in its name; `beside`: further words that lead to it.
    """

    at: str
    kind: str
    number: str
    name: str
    about: str
    words: tuple[str, ...]
    kinds: frozenset[str]
    beside: frozenset[str]

    def word(self, typed: str) -> "_Fit | None":
        """How it answers to one plain word; None: not at all."""
        best = max(((begins(typed, one), one) for one in self.words), default=(0.0, ""))
        number = typed == plain(self.number) != ""
        kind = typed in self.kinds
        by_name = 4.0 * best[0]
        named = by_name > 0.0 or number
        score = max(by_name, (3.8 if self.kind in ALONE else 2.5) if kind else 0.0)
        if not score and not number:
            score = 2.0 * max((begins(typed, one) for one in self.beside), default=0.0)
            named = score > 0.0
        if not score and not number and len(typed) > 3 and any(typed in one for one in self.words):
            score, named = 1.0, True
        if not score and not number:
            return None
        return _Fit(score, best[1] if by_name else "", number, kind, named)


class _Fit(NamedTuple):
    """How a thing answers to a word: by how much, by which word of its name, as its number, as its

    kind; and whether that names it, not just what it is.
    """

    score: float
    used: str
    number: bool
    kind: bool
    named: bool


class Things:
    """All named things of a show, asked by plain words."""

    def __init__(self, show: Show) -> None:
        self.every = tuple(_every(show))
        self._asked: dict[tuple[str, ...], tuple[tuple[float, Named], ...]] = {}
        self._by_word: dict[str, Mapping[int, _Fit]] = {}

    def called(self, typed: Sequence[str]) -> tuple[tuple[float, Named], ...]:
        """What answers to all of some plain words and how well, the best first; none for none."""
        key = tuple(typed)
        if key not in self._asked:
            found = [(self._rank(at, key), self.every[at]) for at in self._all(key)]
            self._asked[key] = tuple(sorted(found, key=lambda pair: -pair[0]))
        return self._asked[key]

    def _fits(self, word: str) -> Mapping[int, _Fit]:
        """What answers to one word, by its place; looked for once."""
        if word not in self._by_word:
            fits = ((at, one.word(word)) for at, one in enumerate(self.every))
            self._by_word[word] = {at: fit for at, fit in fits if fit}
        return self._by_word[word]

    def _all(self, words: Sequence[str]) -> list[int]:
        """The places of what answers to every word."""
        if not words:
            return []
        first, *others = sorted((self._fits(word) for word in set(words)), key=len)
        return [at for at in first if all(at in other for other in others)]

    def _rank(self, at: int, words: Sequence[str]) -> float:
        """How well a thing answers to all of some words that each lead to it."""
        one, fits = self.every[at], [self._fits(word)[at] for word in words]
        numbered = 5.0 if any(fit.kind for fit in fits) else 4.5 if len(words) == 1 else 2.2
        scores = [max(fit.score, numbered if fit.number else 0.0) for fit in fits]
        total = sum(scores) / len(words)
        if one.kind not in ALONE and not any(fit.named for fit in fits):
            total *= 0.2  # "channel": any is one
        whole = 2.0 if " ".join(words) == " ".join(one.words) else 0.0
        used = {fit.used for fit in fits} - {""}
        rank = 0.4 * (1.0 - _ORDER.index(one.kind) / len(_ORDER))
        return total + whole + len(used) / max(len(one.words), 1) + rank

    @cached_property
    def people(self) -> frozenset[str]:
        """Who uses lines, as plain text."""
        return frozenset(plain(one.about) for one in self.every if one.kind == "line")

    def words(self) -> set[str]:
        """Every plain word of a name."""
        return {word for one in self.every for word in (*one.words, *one.beside)}


@lru_cache(maxsize=4)  # somebody who types asks of one show again and again
def things_of(show: Show) -> Things:
    """All named things of a show."""
    return Things(show)


def _named(at: str, name: str, *, number: str = "", about: str = "", more: str = "") -> Named:
    kind = of_kind(at)
    kinds = {word for one in KIND_NAMES[kind] for word in plain(one).split()}
    told = " ".join((name, about, more))
    beside = frozenset(word for word in plain(told).split()) | {plain(about).replace(" ", "")}
    return Named(
        at, kind, number, name, about, tuple(plain(name).split()), frozenset(kinds), beside - {""}
    )


def _every(show: Show) -> Iterator[Named]:
    desk = show.desk
    performer_at = {
        show[f"line/{line}/{side}"]: show.text(f"line/{line}/performer")
        for line in show.lines()
        for side in ("socket", "socket_right")
    }
    for strip in (*show.in_use("channel"), *show.in_use("return")):
        source = show[f"{strip}/source"]
        about = socket_name(desk, source) if isinstance(source, str) else ""
        who = performer_at.get(source, "") if source else ""
        spelt = socket_spellings(desk, source) if isinstance(source, str) else ()
        yield _strip(show, strip, about=about, more=" ".join((who, *spelt)))
    for bus in (*show.in_use("mix"), *show.in_use("group"), *show.in_use("matrix")):
        uses = USE_NAMES.get(show.text(f"{bus}/serves"), ()) if of_kind(bus) == "mix" else ()
        yield _strip(show, bus, more=" ".join(uses))
    yield _strip(show, "house")
    yield _strip(show, "mono")
    for kind in ("dca", "mute_group", "gang", "promise"):
        for ruler in rulers_in_use(show, kind):
            yield _strip(show, ruler, more="panic" if show.values.get(f"{ruler}/hard") else "")
    for kind in ("bank", "engine", "lift", "sharing"):
        for number in range(1, desk.count(kind) + 1):
            if name := show.text(f"{kind}/{number}/name"):
                yield _named(f"{kind}/{number}", name, number=str(number))
    for scene in show.scenes:
        shown, _, name = scene_named(show, scene).partition(" ")
        yield _named(scene, name, number=shown)
    for line in show.lines():
        who = show.text(f"line/{line}/performer")
        name = show.text(f"line/{line}/name") or f"Line {line}"
        yield _named(f"line/{line}", name, number=str(line), about=who)
    for part in parts(show):
        yield _named(part, part_name(show, part))
    for performer in performers(show):
        yield _named(performer, performer_name(show, performer))
    for box in desk.boxes:
        for number in range(1, box.outputs + 1):
            socket = f"output/{box.key}/{number}"
            if label := show.values.get(f"{socket}/label"):
                name = socket_name(desk, socket)
                more = " ".join(socket_spellings(desk, socket))
                yield _named(socket, str(label), about=name, more=more)


def _strip(show: Show, strip: str, *, about: str = "", more: str = "") -> Named:
    number = Thing.at(strip).number
    text = str(number) if number else ""
    return _named(strip, strip_name(show, strip), number=text, about=about, more=more)

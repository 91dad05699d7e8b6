"""A wish in plain words, answered: what it would change, where it leads, who hears what."""

from collections.abc import Iterator, Sequence
from dataclasses import replace

from ..catalogue import SOURCES, Address, Thing, of_kind
from ..flow import Flow
from ..show import Show
from ..values import plain
from ..values import said as said_db
from .answer import GROUPS, Answer, Found, Read
from .changes import change_answers
from .places import place_answers, place_words, solo_answers
from .things import Named, things_of
from .verbs import verb_answers
from .wish import Wish
from .words import meant, split_words

__all__ = ["find"]

_MOST_WORDS = 10  # a longer wish is none
_MOST_ANSWERS = 6  # of each group
_BESIDE = 6.5  # the place of what is set, behind its setting
_SIGNS = ("+", "-", "\u2212")
_WORSE = 4.5  # what answers by so much worse than the best is a wild guess
_LISTENERS = ("mix", "matrix", "group", "house", "mono")
_HEARS = frozenset(("hear", "hears", "why", "reaches", "arrives", "who"))


def find(show: Show, flow: Flow, text: str, *, view: str = "") -> Found:
    """What answers a wish typed by a person who looks at a view ("banks"), in whatever order its

    words stand. The best group comes first; what would change something is first only where the
    wish says what to change. A slip of the hand is put right where nothing is called as typed, and
    said. Nothing for an empty wish, and for one of more than ten words.
    """
    words = split_words(text)
    if not words or len(words) > _MOST_WORDS:
        return Found((), {})
    answers = _answers(show, flow, words, view)
    instead = ""
    if not answers:
        known = things_of(show).words() | place_words()
        mended = [_mended(word, known) for word in words]
        if mended != words:
            instead, words = " ".join(mended), mended
            answers = _answers(show, flow, mended, view)
    if not answers and len(words) > 1:
        instead, answers = _without_one(show, flow, words, view)
    read = tuple(_read(show, words, answers[0])) if answers else ()
    return _told(answers, read, instead if answers else "")


def _without_one(
    show: Show, flow: Flow, words: Sequence[str], view: str
) -> tuple[str, list[Answer]]:
    """What answers when one word is left out, the best of all such; nothing that changes."""
    best: tuple[str, list[Answer]] = ("", [])
    for at in range(len(words)):
        fewer = [*words[:at], *words[at + 1 :]]
        found = [one for one in _answers(show, flow, fewer, view) if one.group != "change"]
        if found and (not best[1] or found[0].rank > best[1][0].rank):
            best = (" ".join(fewer), found)
    return best


def _mended(word: str, known: set[str]) -> str:
    return word if word.lower() in known or word[:1].isdigit() else meant(word, known) or word


def _answers(show: Show, flow: Flow, words: Sequence[str], view: str) -> list[Answer]:
    wish = Wish(show, flow, things_of(show), words)
    found = [*verb_answers(wish), *change_answers(wish)]
    found += _going(wish, view)
    found += _hearing(wish)
    said = [word for word in wish.plain if word]
    found += [*place_answers(show, said), *solo_answers(said)]
    best: dict[tuple[str, str], Answer] = {}
    for one in found:
        key = (one.group, one.title)
        if key not in best or best[key].rank < one.rank:
            best[key] = one
    ranked = sorted(best.values(), key=lambda one: -one.rank)
    return [one for one in ranked if one.rank > max(1.0, ranked[0].rank - _WORSE)]


def _told(answers: Sequence[Answer], read: tuple[Read, ...], instead: str) -> Found:
    by_group = {group: [one for one in answers if one.group == group] for group in GROUPS}
    order = sorted((g for g in GROUPS if by_group[g]), key=lambda g: -by_group[g][0].rank)
    kept = [one for group in order for one in by_group[group][:_MOST_ANSWERS]]
    return Found(tuple(kept), {g: len(by_group[g]) for g in order}, read, instead)


# ---- going there


def _going(wish: Wish, view: str) -> Iterator[Answer]:
    for rank, one in wish.named(range(len(wish.words)))[:40]:
        yield from _ways_there(wish.show, one, rank, view)
    for start, end, text in wish.values:  # "fiddle -6": and what it is set of
        if text[:1] in _SIGNS and end - start < len(wish.words):
            for _, one in wish.named(wish.without(start, end))[:1]:
                yield from _ways_there(wish.show, one, _BESIDE, view)


def _ways_there(show: Show, one: Named, rank: float, view: str) -> Iterator[Answer]:
    where, words = _page_of(one), _kind_words(one)
    about = ", ".join(part for part in (words, one.about) if part)
    under = _bank_of(show, one.at)
    if under:
        where_there = "always in sight"
        if of_kind(under) == "bank":
            where_there = show.text(f"{under}/name") or f"bank {Thing.at(under).number}"
        yield Answer(group="go", title=f"{one.name} under the hand", about=f"Banks, {where_there}",
                     view="banks", at=under, beside=one.at,
                     rank=rank + (0.5 if view == "banks" else -0.9))  # fmt: skip
    yield Answer(group="go", title=one.name, about=about, view=where, at=one.at, rank=rank)
    if one.kind in ("channel", "return", "mix", "group", "matrix", "house", "mono"):
        yield Answer(group="go", title=f"Open strip {one.name}", about=about, view="strip",
                     at=one.at, rank=rank - 1.2)  # fmt: skip


def _page_of(one: Named) -> str:
    return {
        "channel": "hears", "return": "mixes", "mix": "mixes", "group": "mixes",
        "matrix": "mixes", "house": "mixes", "mono": "mixes", "dca": "dcas",
        "mute_group": "mutes", "gang": "gangs", "bank": "banks", "scene": "scenes",
        "line": "lines", "part": "cast", "performer": "cast", "promise": "wrong",
        "engine": "effects", "lift": "lifts", "sharing": "sharing", "output": "outputs",
    }[one.kind]  # fmt: skip


def _kind_words(one: Named) -> str:
    word = {
        "dca": "DCA", "mute_group": "mute group", "engine": "effect", "sharing": "shared gain",
    }.get(one.kind, one.kind)  # fmt: skip
    return f"{word} {one.number}".rstrip() if one.number else "" if word == one.at else word


def _bank_of(show: Show, strip: str) -> str:
    """The first bank that has a strip on one of its faders, or the side that always has it; ""."""
    if of_kind(strip) not in (*SOURCES, "mix", "group", "matrix", "house", "mono", "dca"):
        return ""
    desk = show.desk
    for bay, one in enumerate(desk.bays, start=1):
        for place in range(1, one.faders + 1):
            if show.values.get(f"bay/{bay}/fixed/{place}") == strip:
                return f"bay/{bay}"
    holding = (a for a, held in show.values.items() if held == strip and of_kind(a) == "bank")
    number = min((Address.at(a).number for a in holding), default=0)
    return f"bank/{number}" if number else ""


# ---- who hears what


def _hearing(wish: Wish) -> Iterator[Answer]:
    asked = any(word in _HEARS for word in wish.plain)
    at = [n for n, word in enumerate(wish.plain) if word and word not in _HEARS | {"what", "does"}]
    asking = {n for n in range(len(wish.words)) if n not in at}
    for fits, source, bus in wish.pairs(asking):
        if source.kind in SOURCES and bus.kind in _LISTENERS:
            yield _heard(wish, source, bus, fits + 3.0 * asked)
    for fits, one in wish.named(at)[:2]:
        if one.kind in SOURCES:
            buses = [b for b in ("house", *wish.show.in_use("mix")[:12]) if b != one.at]
            for order, listener in enumerate(buses):
                rank = fits + (3.0 if asked else -3.0) - 0.01 * order
                answer = _heard_by_name(wish, one, listener, rank)
                if answer:
                    yield answer


def _heard(wish: Wish, source: Named, bus: Named, rank: float) -> Answer:
    level = wish.flow.level(source.at, bus.at)
    about = f"{said_db(level)} dB" if level != -float("inf") else "nothing arrives"
    return Answer(group="hears", title=f"{source.name} \u2192 {bus.name}", about=about,
                  view="hears", at=source.at, beside=bus.at, rank=rank)  # fmt: skip


def _heard_by_name(wish: Wish, source: Named, bus: str, rank: float) -> Answer | None:
    named = next((one for one in wish.things.every if one.at == bus), None)
    if named is None or wish.flow.level(source.at, bus) == -float("inf"):
        return None
    return replace(_heard(wish, source, named, rank))


# ---- how it was read


def _read(show: Show, words: Sequence[str], first: Answer) -> Iterator[Read]:
    """What single words name, for the eye: what the first answer is about, ahead of others."""
    things = things_of(show)
    meant_by = {first.at, first.beside, *map(str, first.fields.values())}
    meant_by |= {Address.at(address).thing for address in first.moves}
    for word in words:
        named = things.called([plain(word)] if plain(word) else [])
        if word[:1] in _SIGNS and word[1:2].isdigit():
            yield Read(word, "a level in dB")
        elif named:
            told = next((one for _, one in named if one.at in meant_by), named[0][1])
            yield Read(word, _kind_words(told) or told.name)

"""Changes that a wish may mean: a setting of what is named, a send, a membership, a key."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace
from typing import Final

from ..catalogue import KINDS, SENDERS, STRIP_KINDS, of_kind
from ..values import Asked, Number, Switch, Text, Typed, is_step, plain
from ..words import value_text
from .answer import Answer
from .settings import (
    Setting,
    address_of,
    by_value,
    is_address,
    phrases,
    reads,
    settings_said,
)
from .things import Named
from .wish import Wish
from .words import BETWEEN, SETTING

__all__ = ["ALREADY", "change_answers"]

_MOST_THINGS: Final = 3  # that one reading is tried with
_INTO: Final = frozenset(("in", "into", "to", "join", "joins", "add"))
_OUT: Final = frozenset(("out", "from", "leave", "leaves", "remove"))
ALREADY: Final = "as it is already"
_JOIN: Final = frozenset(("into", "join", "joins", "add"))
_MEMBERS: Final = ("dca", "mute_group", "gang")


def change_answers(wish: Wish) -> Iterator[Answer]:
    """Every change that a wish may mean."""
    yield from _settings(wish)
    yield from _levels(wish)
    yield from _into_ears(wish)
    yield from _sends(wish)
    yield from _memberships(wish)


# ---- a setting of what is named


def _settings(wish: Wish) -> Iterator[Answer]:
    """ "fiddle gain 30", "30 hpf kick 120", "gate on snare": a phrase names the setting."""
    if _joins(wish):
        return
    for start, end in phrases(wish.plain):
        phrase = wish.plain[start:end]
        if any(not word or word in BETWEEN for word in phrase):
            continue
        rest = wish.without(start, end)
        for value in [None, *wish.values]:
            if value and not (value[1] <= start or value[0] >= end):
                continue
            left = [n for n in rest if value is None or not value[0] <= n < value[1]]
            left = [n for n in left if wish.words[n].lower() not in SETTING]
            if left:
                yield from _set_by_phrase(wish, phrase, left, value[2] if value else "")


def _set_by_phrase(
    wish: Wish, phrase: Sequence[str], left: Sequence[int], text: str
) -> Iterator[Answer]:
    done = set()
    for fits, thing in wish.named(left)[:_MOST_THINGS]:
        for rank, setting in settings_said(thing.kind, phrase)[:4]:
            sure = 6.5 + 1.2 * rank + 0.25 * fits + 0.5 * len(phrase)
            if not text:
                less = 0.0 if setting.switches else 1.5 if rank > 1.6 else 4.0
                yield _looking(thing, setting, sure - less)
            answer = _set_one(wish, [thing.at], thing.name, setting, text)
            if answer and answer.title not in done:
                done.add(answer.title)
                yield _ranked(answer, sure + (-0.4 if setting.switches and not text else 1.0))
    several = wish.strips(left)
    if several:
        kind = of_kind(several.strips[0])
        for rank, setting in settings_said(kind, phrase)[:2]:
            answer = _set_one(wish, several.strips, wish.listed(several.strips), setting, text)
            if answer:
                sure = 7.0 + 1.2 * rank + 0.5 * len(phrase)
                yield _ranked(answer, sure + (1.0 if text else 0.0))


def _looking(thing: Named, setting: Setting, rank: float) -> Answer:
    """A setting without a value is gone to."""
    return Answer(group="go", title=f"{thing.name}, {setting.label}", about="Strip", view="strip",
                  at=thing.at, beside=setting.stage, rank=rank)  # fmt: skip


def _set_one(
    wish: Wish, strips: Sequence[str], name: str, setting: Setting, text: str
) -> Answer | None:
    """One setting of some strips: to what was typed, or a switch to what it is not."""
    show = wish.show
    moves: dict[str, Asked] = {}
    was: set[str] = set()
    then = ""
    for strip in strips:
        address = address_of(show, strip, setting)
        if address is None:
            continue
        value = reads(show, address, text) if text else None
        if not text and isinstance(setting.entry.kind, Switch):
            value = not show.on(address)
        if value is None or isinstance(setting.entry.kind, Text):
            return None
        moves[address] = Typed(text) if _typed_is_step(setting, text) else value
        was.add(value_text(show, address, show[address], places=1))
        then = value_text(show, address, value, places=1)
    if not moves:
        return None
    about = f"from {was.pop()}" if len(was) == 1 else "from several values"
    title = f"{name} {setting.label} {text if _typed_is_step(setting, text) else f'to {then}'}"
    if isinstance(setting.entry.kind, Switch):
        title = f"{name} {setting.label} {then}"
    return Answer(group="change", title=title, about=about, moves=moves)


def _typed_is_step(setting: Setting, text: str) -> bool:
    return isinstance(setting.entry.kind, Number) and bool(text) and is_step(text)


# ---- a level without its word


def _levels(wish: Wish) -> Iterator[Answer]:
    """ "fiddle -6", "drums up 2", "kick R30": what a value alone means."""
    for start, end, text in wish.values:
        left = [n for n in wish.without(start, end) if wish.words[n].lower() not in SETTING]
        if not left or (text.isdigit() and text != "0"):
            continue
        targets = [([one.at], one.name, one.kind, 0.25 * fits)
                   for fits, one in wish.named(left)[:_MOST_THINGS]
                   if one.kind in STRIP_KINDS or one.kind == "dca"]  # fmt: skip
        several = wish.strips(left)
        if several:
            strips = [*several.strips]
            targets.append((strips, wish.listed(strips), of_kind(strips[0]), 1.2))
        for strips, name, kind, fits in targets:
            for setting in by_value(kind, text):
                answer = _set_one(wish, strips, name, setting, text)
                if answer:
                    sure = 7.6 + fits + 0.5 * (end - start)
                    yield _ranked(answer, sure)
                    yield from _as_step(wish, strips, name, setting, text, sure - 0.6)


def _into_ears(wish: Wish) -> Iterator[Answer]:
    """A level of a source may be meant for ears: of the mix that is called after it, or all."""
    show = wish.show
    ears = [mix for mix in show.in_use("mix") if show.text(f"{mix}/serves") == "ears"]
    for start, end, text in wish.values:
        left = wish.without(start, end)
        for _, one in wish.named(left)[:1] if text[:1] in ("+", "-", "\u2212") else ():
            if one.kind not in SENDERS or one.kind == "group":
                continue
            words = set(one.words)
            own = [m for m in ears if words <= set(plain(show.text(f"{m}/name")).split())]
            for mix in own[:1]:
                for answer in _send(wish, one, _as_bus(wish, mix), text, 8.0):
                    yield replace(answer, about=f"their own sound, {answer.about}")
            if len(ears) > 1:
                level = reads(show, f"{one.at}/send/{ears[0]}/level", text)
                if level is not None:
                    then = value_text(show, f"{one.at}/send/{ears[0]}/level", level, places=1)
                    moves: dict[str, Asked] = {}
                    for mix in ears:
                        moves[f"{one.at}/send/{mix}/level"] = level
                        moves[f"{one.at}/send/{mix}/on"] = True
                    yield Answer(group="change", title=f"{one.name} into all ears to {then}",
                                 about=f"{len(ears)} mixes", moves=moves, rank=7.5)  # fmt: skip


def _as_bus(wish: Wish, mix: str) -> Named:
    return next(one for one in wish.things.every if one.at == mix)


def _as_step(
    wish: Wish, strips: Sequence[str], name: str, setting: Setting, text: str, rank: float
) -> Iterator[Answer]:
    """A signed level may be meant as a step too."""
    sign = {"+": "up", "-": "down", "\u2212": "down"}.get(text[:1])
    if sign and setting.leaf == "fader":
        answer = _set_one(wish, strips, name, setting, f"{sign} {text[1:]}")
        if answer:
            yield _ranked(answer, rank)


# ---- two things: a strip into a bus, a DCA, a mute group, a gang


def _sends(wish: Wish) -> Iterator[Answer]:
    show = wish.show
    for start, end, text in [(0, 0, ""), *wish.values]:
        skipped = {*range(start, end)}
        skipped |= {n for n, word in enumerate(wish.words) if word.lower() in SETTING}
        if text.isdigit() and text != "0":
            continue
        for fits, source, bus in wish.pairs(skipped):
            way = KINDS[source.kind].feeds.get(bus.kind) if source.kind in KINDS else None
            sure = 7.9 + 0.25 * fits if text else _joining(wish, fits)
            if way == "send":
                yield from _send(wish, source, bus, text, sure)
            elif way == "assign" and source.at != bus.at and text.lower() in ("", "on", "off"):
                address = f"{source.at}/{bus.at}/on"
                now = show.on(address)
                on = text.lower() == "on" if text else _joins(wish) or not now
                title = f"{source.name} {'into' if on else 'out of'} {bus.name}"
                about = ALREADY if on == now else bus.kind
                yield Answer(group="change", title=title, about=about, moves={address: on},
                             rank=sure)  # fmt: skip


def _send(wish: Wish, source: Named, bus: Named, text: str, rank: float) -> Iterator[Answer]:
    show, stem = wish.show, f"{source.at}/send/{bus.at}"
    if text.lower() in ("", "on", "off"):
        on = text.lower() == "on" if text else _joins(wish) or not show.on(f"{stem}/on")
        title = f"{source.name} into {bus.name} {'on' if on else 'off'}"
        moves: Mapping[str, Asked] = {f"{stem}/on": on}
        about = f"now {'on' if show.on(f'{stem}/on') else 'off'}"
    else:
        level = reads(show, f"{stem}/level", text)
        if level is None:
            return
        step = is_step(text)
        moves = {f"{stem}/level": Typed(text) if step else level}
        if not show.on(f"{stem}/on") and level != -float("inf"):
            moves = {**moves, f"{stem}/on": True}
        then = value_text(show, f"{stem}/level", level, places=1)
        title = f"{source.name} into {bus.name} {text if step else f'to {then}'}"
        now = value_text(show, f"{stem}/level", show[f"{stem}/level"], places=1)
        about = f"from {now}" if show.on(f"{stem}/on") else "off now"
    yield Answer(group="change", title=title, about=about, moves=moves, rank=rank)


def _joining(wish: Wish, fits: float) -> float:
    """A word such as "into" makes it a wish to join; else two names are rather looked at."""
    return 7.9 + 0.25 * fits if _joins(wish) else fits - 1.0


def _joins(wish: Wish) -> bool:
    return any(word.lower() in _JOIN for word in wish.words)


def _memberships(wish: Wish) -> Iterator[Answer]:
    words = [word.lower() for word in wish.words]
    out = any(word in _OUT for word in words)
    said = {n for n, word in enumerate(words) if word in _INTO | _OUT}
    for fits, strip, ruler in wish.pairs(said):
        can = strip.kind in STRIP_KINDS or (strip.kind == ruler.kind == "dca")
        address = f"{strip.at}/{ruler.at}/on"
        if ruler.kind not in _MEMBERS or not can or not is_address(address):
            continue
        now = wish.show.on(address)
        on = not out if said else not now
        title = f"{strip.name} {'into' if on else 'out of'} {ruler.name}"
        about = {"dca": "DCA", "mute_group": "mute group"}.get(ruler.kind, ruler.kind)
        about = ALREADY if on == now else f"{about} {ruler.number}"
        yield Answer(group="change", title=title, about=about,
                     moves={address: on},
                     rank=7.8 + 0.25 * fits if said else fits - 1.2)  # fmt: skip


def _ranked(answer: Answer, rank: float) -> Answer:
    return replace(answer, rank=rank)

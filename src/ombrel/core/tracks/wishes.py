"""What is to be recorded: the list of wishes, as it stands and as it is typed."""

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final, NamedTuple

from ..catalogue import FAMILIES, WISHES, Thing, default_of, of_kind
from ..flow import strip_name
from ..patching import is_stereo
from ..show import Show, read_strips, sockets_of_line
from ..together import member_for, partner_of
from ..values import (
    Asked,
    NothingLeft,
    NotRecordable,
    NotThere,
    UnreadableText,
    plain,
)

__all__ = [
    "TAP_WORDS",
    "Wish",
    "add_wishes",
    "carrier",
    "channels_carrying",
    "check_recordable",
    "has_two_sides",
    "move_wish",
    "name_of_source",
    "remove_wishes",
    "wished",
    "wishes",
]

TAP_WORDS: Final = {"input": "raw", "before_fader": "processed", "after_fader": "as heard"}
_INNER: Final = ("talkback", "oscillator")
_LEAVES: Final = ("place", "source", "tap", "stereo", "track", "rank", "on_track")
_HELP: Final = (
    'what is to be recorded, such as "all lines raw", "1-20 processed to 1", "voices",'
    ' "return 1 as heard stereo", "house", "Ambience if there is room"'
)
# what stands behind who, from the end: a word for each
_TAIL: Final = tuple(
    (re.compile(rf"(?P<rest>.*?)[\s,]*\b(?:{words})\s*", re.IGNORECASE | re.DOTALL), field)
    for words, field in (
        (r"(?:on |to |from )(?:tracks? )?(?P<value>\d+)(?:\s*(?:-|\u2013)\s*\d+)?", "track"),
        (r"(?:if there is room|optional|if room)(?:\s+(?P<value>\d+))?", "room"),
        (r"must", "must"),
        (r"stereo|two sides", "stereo"),
        (r"mono|one side", "mono"),
        (r"raw|input", "input"),
        (r"processed|before (?:the )?fader", "before_fader"),
        (r"as heard|heard|(?:after|behind) (?:the )?fader", "after_fader"),
    )
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Wish:
    """A wish of the list. `wish`: its own name ("wish/3"); `source`: a line, strip or "talkback".

    `tap`: "input", "before_fader" or "after_fader"; `track`: 0 for anywhere; `rank`: 0 for a must;
    `given`: the track that a plan gave it, 0 for none.
    """

    wish: str
    source: str
    tap: str
    stereo: bool
    track: int = 0
    rank: int = 0
    given: int = 0


class _Said(NamedTuple):
    """What is typed behind who: None where it is not."""

    tap: str | None = None
    stereo: bool | None = None
    track: int = 0
    rank: int = 0


def wishes(show: Show) -> tuple[Wish, ...]:
    """All wishes in the list's order."""
    placed = sorted(
        (show.number(f"wish/{number}/place"), number)
        for number in range(1, WISHES + 1)
        if f"wish/{number}/place" in show.values
    )
    return tuple(_wish(show, f"wish/{number}") for _, number in placed)


def wished(show: Show, wish: str) -> Wish:
    """One wish. Raises NotThere for one that is not in the list."""
    if f"{wish}/place" not in show.values:
        raise NotThere(wish.replace("/", " "))
    return _wish(show, wish)


def _wish(show: Show, wish: str) -> Wish:
    return Wish(
        wish=wish,
        source=show.text(f"{wish}/source"),
        tap=show.text(f"{wish}/tap"),
        stereo=show.on(f"{wish}/stereo"),
        track=round(show.number(f"{wish}/track")),
        rank=round(show.number(f"{wish}/rank")),
        given=round(show.number(f"{wish}/on_track")),
    )


def name_of_source(show: Show, source: str) -> str:
    """What people call what a wish names."""
    if not source:
        return "Nothing"
    if source in _INNER:
        return source.capitalize()
    if of_kind(source) == "line":
        return show.text(f"{source}/name") or source.replace("/", " ").capitalize()
    strip = _pair_or(show, source)
    name = strip_name(show, strip)
    return name.removesuffix(" L") if partner_of(show, strip) else name


def _pair_or(show: Show, strip: str) -> str:
    """The odd side of a linked pair of channels, for either."""
    return member_for(show, strip) if of_kind(strip) == "channel" else strip


def carrier(show: Show, source: str) -> str:
    """The strip that stands for a source: of a line the lowest channel that carries it, of a pair

    its odd side; a line with one plug is no more than its own channel. Raises NotRecordable where
    there is none.
    """
    if source in _INNER:
        return source
    name = name_of_source(show, source)
    if not source:
        raise NotRecordable(name, "what was wished for is gone: take the wish out")
    if of_kind(source) == "line":
        channels = channels_carrying(show, source)
        if not channels:
            raise NotRecordable(name, "no channel carries it: give it one, or take the wish out")
        return channels[0] if _has_one_plug(show, source) else _pair_or(show, channels[0])
    if not show.uses(source):
        raise NotRecordable(name, "it is not in use")
    if show.on(f"{source}/for_tracks/made") if of_kind(source) == "mix" else False:
        raise NotRecordable(name, "a track plan set it up, and may set it up anew")
    return _pair_or(show, source)


def channels_carrying(show: Show, line: str) -> list[str]:
    """Channels that a line feeds by source A, or just now, ascending."""
    number = Thing.at(line).number
    if number not in show.lines():
        return []
    sockets = set(sockets_of_line(show, number))
    return [
        f"channel/{n}"
        for n in show.channels()
        if show[f"channel/{n}/source"] in sockets or show.source_of(n) in sockets
    ]


def _has_one_plug(show: Show, line: str) -> bool:
    return len(sockets_of_line(show, Thing.at(line).number)) < 2


def has_two_sides(show: Show, source: str) -> bool:
    """Whether a source stands on a linked pair, or is a return, or a bus of two sides.

    Raises NotRecordable.
    """
    if of_kind(source) == "line" and _has_one_plug(show, source):
        return False
    strip = carrier(show, source)
    kind = of_kind(strip)
    if kind == "channel":
        return partner_of(show, strip) is not None
    return kind == "return" or (kind not in _INNER and is_stereo(show, strip))


# ---- as typed


def add_wishes(show: Show, text: str) -> dict[str, Asked]:
    """Moves that put what is typed at the end of the list, one line or ";" behind another.

    Who: lines ("all lines", a name, a family), strips, "talkback"; then, in any order, raw,
    processed or as heard; mono or stereo; "to 5" (the first track, the others behind it); "if there
    is room" with a rank. Unless said, lines and channels are taken raw, others as heard, in as many
    sides as they have. What is wished so already is not wished twice. Raises UnreadableText,
    NotRecordable, NothingLeft.
    """
    orders = [one.strip() for one in re.split(r"[;\n]", text) if one.strip()]
    if not orders:
        raise UnreadableText(text, _HELP)
    there = {(one.source, one.tap, one.stereo) for one in wishes(show)}
    new: list[Wish] = []
    for order in orders:
        for wish in _ordered(show, order):
            if (wish.source, wish.tap, wish.stereo) not in there:
                there.add((wish.source, wish.tap, wish.stereo))
                new.append(wish)
    return _put(show, new)


def _put(show: Show, new: Sequence[Wish]) -> dict[str, Asked]:
    free = [n for n in range(1, WISHES + 1) if f"wish/{n}/place" not in show.own]
    if len(free) < len(new):
        raise NothingLeft("wishes", len(new), len(free))
    last = max((show.number(f"{one.wish}/place") for one in wishes(show)), default=0.0)
    moves: dict[str, Asked] = {}
    for turn, (number, wish) in enumerate(zip(free, new, strict=False), start=1):
        at = f"wish/{number}"
        moves |= {
            f"{at}/place": last + turn,
            f"{at}/source": wish.source,
            f"{at}/tap": wish.tap,
            f"{at}/stereo": wish.stereo,
            f"{at}/track": float(wish.track),
            f"{at}/rank": float(wish.rank),
        }
    return moves


def _ordered(show: Show, order: str) -> list[Wish]:
    who, said = _without_tail(order)
    sources = _sources(show, who)
    track = said.track
    found = []
    for source in sources:
        strip = carrier(show, source)
        two = has_two_sides(show, source)
        stereo = two if said.stereo is None else said.stereo
        if track and stereo and track % 2 == 0:
            track += 1
        wish = Wish(
            wish="",
            source=source if of_kind(source) in ("line", *_INNER) else strip,
            tap=said.tap or ("input" if of_kind(strip) == "channel" else "after_fader"),
            stereo=stereo,
            track=track,
            rank=said.rank,
        )
        check_recordable(show, wish, strip)
        found.append(wish)
        track += (2 if stereo else 1) if track else 0
    return found


def check_recordable(show: Show, wish: Wish, strip: str) -> None:
    """Refuse what no track can carry. Raises NotRecordable."""
    name = name_of_source(show, wish.source)
    if wish.stereo and not has_two_sides(show, wish.source):
        raise NotRecordable(name, "it has one side: a pair, a return or a stereo bus has two")
    if wish.tap == "input" and of_kind(strip) != "channel" and strip not in _INNER:
        raise NotRecordable(name, "only channels have a preamp to be taken raw behind")


def _without_tail(order: str) -> tuple[str, _Said]:
    """Who is typed, and what stands behind."""
    said = _Said()
    rest = order
    while True:
        for pattern, field in _TAIL:
            match = pattern.fullmatch(rest)
            if match and match["rest"].strip(" ,"):
                rest = match["rest"].strip(" ,")
                value = match.groupdict().get("value")
                said = _and(said, field, int(value) if value else 0, order)
                break
        else:
            return rest, said


def _and(said: _Said, field: str, value: int, order: str) -> _Said:
    twice = UnreadableText(order, "each word once: one place, one kind of sides, one track")
    if field in TAP_WORDS:
        if said.tap:
            raise twice
        return said._replace(tap=field)
    if field in ("stereo", "mono"):
        if said.stereo is not None:
            raise twice
        return said._replace(stereo=field == "stereo")
    if field == "track":
        if said.track:
            raise twice
        return said._replace(track=value)
    return said._replace(rank=0 if field == "must" else min(max(value, 1), 99))


def _sources(show: Show, who: str) -> list[str]:
    """What is meant by who, each once: lines before strips of the same name."""
    found: dict[str, None] = {}
    strips: list[str] = []  # pieces that only strips can be, read together

    def read() -> None:
        if strips:
            found.update(dict.fromkeys(read_strips(show, ", ".join(strips), dcas=False)))
            strips.clear()

    if re.search(r"\b(?:except|but not|without)\b", who, re.IGNORECASE):
        return list(dict.fromkeys(_pair_or(show, s) for s in read_strips(show, who, dcas=False)))
    for piece in (one.strip() for one in who.split(",")):
        lines = _lines(show, piece)
        if lines or plain(piece) in _INNER:
            read()
            found |= dict.fromkeys(lines or [plain(piece)])
        elif piece:
            strips.append(piece)
    read()
    return list(dict.fromkeys(
        one if of_kind(one) in ("line", *_INNER) else _pair_or(show, one) for one in found
    ))  # fmt: skip


def _lines(show: Show, piece: str) -> list[str]:
    """Lines of a name or a family, or all that a channel carries."""
    word = plain(piece.strip('"'))
    every = [f"line/{n}" for n in show.lines()]
    if word in ("all lines", "lines"):
        return [one for one in every if channels_carrying(show, one)]
    if word in FAMILIES:
        family = [one for one in every if show[f"{one}/family"] == word]
        if carried := [one for one in family if channels_carrying(show, one)]:
            return carried
    return [one for one in every if word and plain(show.text(f"{one}/name")) == word]


# ---- the list


def remove_wishes(show: Show, some: Iterable[str]) -> dict[str, Asked]:
    """Moves that take wishes out of the list. Raises NotThere."""
    moves: dict[str, Asked] = {}
    for wish in some:
        wished(show, wish)
        moves |= {f"{wish}/{leaf}": default_of(f"{wish}/{leaf}") for leaf in _LEAVES}
    return moves


def move_wish(show: Show, wish: str, before: str | None) -> dict[str, Asked]:
    """Moves that put a wish ahead of another (None: at the end). Raises NotThere."""
    wished(show, wish)
    rest = [one.wish for one in wishes(show) if one.wish != wish]
    if before is not None:
        wished(show, before)
    at = rest.index(before) if before in rest else len(rest)
    order = [*rest[:at], wish, *rest[at:]]
    return {f"{one}/place": float(place) for place, one in enumerate(order, start=1)}

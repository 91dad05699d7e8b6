"""Outputs typed as a person says them: "1-20 direct to Tape 1, before fader; house to Deck 1"."""

import re
from typing import Final

from ..catalogue import TAPS, Thing, of_kind, thing_of
from ..show import Show, read_sockets, read_strips
from ..values import Asked, ConsoleError, NothingLeft, UnreadableText
from .outputs import fitting_tap, free_outputs, is_stereo

__all__ = ["patch_outputs"]

_INNER: Final = ("solo", "talkback", "oscillator")
_HELP: Final = 'what goes where, such as "1-20 direct to {box} 1, before the fader"'
_SIDES: Final = {"l": "left", "left": "left", "r": "right", "right": "right"}
_SUM: Final = ("mono", "sum", "mono sum")
# how a tap is said
_TAPS: Final = {
    "input": r"input|raw",
    "before_eq": r"before (?:the )?eq",
    "before_fader": r"before (?:the )?fader|processed",
    "before_fader_after_mute": r"before (?:the )?fader,? (?:but )?(?:after|behind) (?:the )?mutes?",
    "after_fader": r"(?:after|behind) (?:the )?fader|as heard",
}
_TAP: Final = "|".join(f"(?P<{tap}>{words})" for tap, words in _TAPS.items())
# a tap ends what is typed, or stands behind "direct" or a comma: names may be called like one
_ENDS: Final = re.compile(rf"(?P<rest>.*\d)\s*,?\s*(?:from |at )?(?:{_TAP})\s*", re.IGNORECASE)
_AMID: Final = re.compile(
    rf"(?P<rest>.*(?:\bdirect(?: outs?)?|,))\s*(?:from |at )?(?:{_TAP})\s*", re.IGNORECASE
)


def patch_outputs(show: Show, text: str) -> dict[str, Asked]:
    """Moves that let outputs carry what is typed, one order behind another after ";" or a line's

    end: sources (channels by their direct outs, returns and buses of two sides by both, "mix 5 L"
    by one, "mix 5 mono" as their sum; solo, talkback, oscillator), "to" a socket and those above
    it, or as many as are named; without "to" the next free ones. A tap said with it is taken;
    where none is, a socket keeps its own, unless what it carries now has no such tap.

    Raises UnreadableText; NothingLeft where the box, or the desk, has not so many outputs.
    """
    moves: dict[str, Asked] = {}
    orders = [one for one in re.split(r"[;\n]", text) if one.strip()]
    if not orders:
        raise UnreadableText(text, _HELP.format(box=show.desk.boxes[0].short))
    for order in orders:
        found = _order(show, order.strip(), {thing_of(address) for address in moves})
        if not found.keys().isdisjoint(moves):
            raise UnreadableText(order.strip(), "each output once in what is typed")
        moves |= found
    return moves


def _order(show: Show, text: str, taken: set[str]) -> dict[str, Asked]:
    parts = re.split(r"\s+(?:to|on|onto|into)\s+(?=\S+\s*\d)", text, flags=re.IGNORECASE)
    if len(parts) > 2:
        raise UnreadableText(text, _HELP.format(box=show.desk.boxes[0].short))
    what, tap = _without_tap(parts[0], _AMID)
    carried = _carried(show, what)
    if len(parts) == 1:
        sockets = free_outputs(show, len(carried), but=taken)
    else:
        where, said = _without_tap(parts[1], _ENDS)
        if tap and said and tap != said:
            raise UnreadableText(text, "one tap")
        tap = tap or said
        sockets = _sockets(show, where.strip(" ,"), len(carried))
    moves: dict[str, Asked] = {}
    for socket, source in zip(sockets, carried, strict=True):
        moves[f"{socket}/source"] = source
        wanted = tap or fitting_tap(show, socket, source)
        if wanted != show[f"{socket}/tap"]:
            moves[f"{socket}/tap"] = wanted
    return moves


def _without_tap(text: str, pattern: re.Pattern[str]) -> tuple[str, str]:
    """What is typed without the words for a tap, and that tap, or ""."""
    said = pattern.fullmatch(text)
    if said is None:
        return text.strip(), ""
    return said["rest"].strip(" ,"), next(tap for tap in TAPS if said[tap])


def _carried(show: Show, text: str) -> list[str]:
    """The references that outputs take, in order, of sources as typed."""
    words = re.sub(r"\s*,?\s*\bdirect(?: outs?)?$", "", text, flags=re.IGNORECASE).strip()
    if words.lower() in _INNER:
        inner = words.lower()
        return [f"{inner}/left", f"{inner}/right"] if inner == "solo" else [inner]
    try:
        strips = read_strips(show, words, dcas=False, unused=True)
    except ConsoleError:
        return _one_side(show, words)
    return [reference for strip in strips for reference in _whole(show, strip)]


def _one_side(show: Show, text: str) -> list[str]:
    """Of typed strips one side each, or the sum of both: "mix 5 L", "house mono"."""
    said = re.fullmatch(r"(.+?)\s+(mono sum|mono|sum|left|right|l|r)", text, re.IGNORECASE)
    if said is None:
        read_strips(show, text, dcas=False)  # it says what is wrong
        raise UnreadableText(text, _HELP.format(box=show.desk.boxes[0].short))
    strips = ["solo"] if said[1].lower() == "solo" else read_strips(show, said[1], dcas=False)
    word = said[2].lower()
    found = []
    for strip in strips:
        if of_kind(strip) == "channel" or not _two_sided(show, strip):
            raise UnreadableText(text, "a side of what has two: returns, and stereo buses")
        found.append(strip if word in _SUM else f"{strip}/{_SIDES[word]}")
    return found


def _whole(show: Show, strip: str) -> tuple[str, ...]:
    """What carries a strip whole: one reference, or one for each side."""
    kind = of_kind(strip)
    if kind == "channel":
        return (f"{strip}/direct",)
    if strip != "solo" and not show.uses(strip):
        raise UnreadableText(strip.replace("/", " "), "strips that are in use")
    if _two_sided(show, strip):
        return f"{strip}/left", f"{strip}/right"
    return (strip,)


def _two_sided(show: Show, strip: str) -> bool:
    return of_kind(strip) in ("solo", "return") or is_stereo(show, strip)


def _sockets(show: Show, text: str, count: int) -> list[str]:
    """So many outputs: those named, or from the one named upwards."""
    sockets = read_sockets(show.desk, text, side="output")
    if len(sockets) == 1 and count > 1:
        first = Thing.at(sockets[0])
        box = show.desk.box(first.box)
        most = box.outputs if box else 0
        if first.number + count - 1 > most:
            name = f"{box.short if box else first.box} {first.number}"
            raise NothingLeft(f"outputs from {name}", count, most - first.number + 1)
        sockets = [f"output/{first.box}/{first.number + turn}" for turn in range(count)]
    if len(sockets) != count:
        many = "one output" if count == 1 else f"{count} outputs"
        raise UnreadableText(text, f"{many}, one for each that they are to carry")
    return sockets

"""Shared effects: strips sent to them, returns given to performers, delays held to a tempo."""

from collections.abc import Sequence
from typing import Final

from ..catalogue import CATALOGUE, of_kind
from ..show import Show
from ..values import NOTES, Asked, Number, Typed, UnreadableText, note_ms
from ..wires import feed_kind

__all__ = ["beyond_its_end", "off_tempo", "send_strips", "set_note", "set_tempo"]

_found = CATALOGUE["engine/<engine>/time"].kind
assert isinstance(_found, Number)  # by the catalogue
_TIME: Final = _found


def send_strips(
    show: Show, strips: Sequence[str], mixes: Sequence[str], level: str
) -> dict[str, Asked]:
    """Moves that send strips to mixes at a level as typed: open, as wide as they stand, and to an

    effect behind the fader. Raises UnreadableText for what cannot be sent, or to what is no mix
    in use.
    """
    moves: dict[str, Asked] = {}
    for strip in strips:
        for mix in mixes:
            if feed_kind(of_kind(strip), of_kind(mix)) != "send" or strip == mix:
                raise UnreadableText(f"{strip} to {mix}", "channels, returns or groups, to mixes")
            if show[f"{mix}/format"] == "unused":
                raise UnreadableText(mix.replace("/", " "), "mixes that are in use")
            send = f"{strip}/send/{mix}"
            moves |= {f"{send}/level": Typed(level), f"{send}/on": True}
            moves[f"{send}/pan"] = show[f"{strip}/pan"]
            if show[f"{mix}/serves"] == "effect":
                moves[f"{send}/tap"] = "after_fader"
    return moves


def rename_effect(show: Show, engine: str, name: str) -> dict[str, Asked]:
    """Moves that call an effect anew wherever its name stands: its engine, the mix that feeds it,

    and the returns on which it comes back. Raises UnreadableText for no name.
    """
    if not name.strip():
        raise UnreadableText(name, "a name for the effect")
    mix = show[f"{engine}/source"]
    returns = (f"return/{n}" for n in range(1, show.desk.returns + 1))
    back = [one for one in returns if show[f"{one}/source"] == engine]
    things = (engine, *([mix] if isinstance(mix, str) else []), *back)
    return {f"{one}/name": Typed(name) for one in things}


def set_note(show: Show, engine: str, note: str) -> dict[str, Asked]:
    """Moves that hold a delay to a note of the tempo, or to none ("free").

    Raises UnreadableText for what is neither.
    """
    if note != "free" and note not in NOTES:
        raise UnreadableText(note, f"free, {', '.join(NOTES)}")
    moves: dict[str, Asked] = {f"{engine}/note": note}
    if note != "free":
        moves[f"{engine}/time"] = _time_ms(note, show.number("show/tempo"))
    return moves


def set_tempo(show: Show, bpm: float) -> dict[str, Asked]:
    """Moves that set the tempo, and every delay that is held to it."""
    moves: dict[str, Asked] = {"show/tempo": bpm}
    for engine in _delays(show):
        moves[f"{engine}/time"] = _time_ms(show.text(f"{engine}/note"), bpm)
    return moves


def off_tempo(show: Show) -> list[tuple[str, float]]:
    """Delays that stand elsewhere than the note they are held to, with where they should, in ms."""
    bpm = show.number("show/tempo")
    wanted = ((one, _time_ms(show.text(f"{one}/note"), bpm)) for one in _delays(show))
    return [(one, time) for one, time in wanted if abs(show.number(f"{one}/time") - time) > 0.05]


def beyond_its_end(show: Show) -> list[tuple[str, float]]:
    """Delays held to a note that lasts longer than any delay, with how long it lasts, in ms."""
    bpm = show.number("show/tempo")
    lasts = ((one, note_ms(show.text(f"{one}/note"), bpm)) for one in _delays(show))
    return [(one, time_ms) for one, time_ms in lasts if time_ms > _TIME.highest]


def _delays(show: Show) -> list[str]:
    """Delays in use that are held to a note."""
    return [
        f"engine/{n}"
        for n in range(1, show.desk.effect_engines + 1)
        if show[f"engine/{n}/kind"] == "delay"
        and show[f"engine/{n}/note"] != "free"
        and show[f"engine/{n}/source"] is not None
    ]


def _time_ms(note: str, bpm: float) -> float:
    return _TIME.suggested(note_ms(note, bpm))

"""Effects that are half wired, not wholly wet, fed at the wrong side of the fader, or off tempo."""

import math
from collections.abc import Iterator

from ..catalogue import SENDERS, named_kind, of_kind, strips_of, thing_of
from ..flow import strip_name
from ..strips import beyond_its_end, off_tempo
from ..values import bare, said, said_ms
from .rule import Finding, Look

__all__ = [
    "delay_off_tempo",
    "effect_half_wired",
    "effect_not_wet",
    "effect_send_before_fader",
    "monitor_send_after_fader",
    "return_feeds_its_own_effect",
]


def effect_half_wired(look: Look) -> Iterator[Finding]:
    """One finding an engine or return."""
    show = look.show
    returned = set()
    for number in range(1, show.desk.returns + 1):
        back = f"return/{number}"
        source = show[f"{back}/source"]
        if isinstance(source, str):
            returned.add(source)
            if of_kind(source) == "engine" and show[f"{source}/source"] is None:
                says = f"{strip_name(show, back)} takes {strip_name(show, source)}, fed by no mix."
                yield _finding(says, back)
        elif show.text(f"{back}/name"):
            yield _finding(f"{strip_name(show, back)} has no source.", back)
    for number in range(1, show.desk.effect_engines + 1):
        engine = f"engine/{number}"
        mix = show[f"{engine}/source"]
        if isinstance(mix, str) and engine not in returned:
            says = f"{strip_name(show, mix)} feeds {strip_name(show, engine)}, which comes back"
            yield _finding(f"{says} on no return.", mix)


def _finding(says: str, about: str) -> Finding:
    return Finding(rule="effect_half_wired", tone="settle", says=says, about=about)


def effect_not_wet(look: Look) -> Iterator[Finding]:
    """A shared effect that lets the dry sound through: it doubles what arrives by itself."""
    show = look.show
    for number in range(1, show.desk.effect_engines + 1):
        engine = f"engine/{number}"
        wet = show.number(f"{engine}/wet")
        if wet < 100.0 and show[f"{engine}/source"] is not None:
            name = strip_name(show, engine)
            yield Finding(
                rule="effect_not_wet",
                tone="settle",
                says=f"{name} is {bare(said(wet))} % wet: its return brings the dry sound a second"
                " time.",
                about="effects",
                remedy=f"Set {name} fully wet",
                moves={f"{engine}/wet": 100.0},
            )


def effect_send_before_fader(look: Look) -> Iterator[Finding]:
    """Sends into an effect that do not follow the fader: it rings on when the fader is off."""
    yield from _wrong_taps(look, serves=("effect",), wrong=_BEFORE, right="after_fader")


def monitor_send_after_fader(look: Look) -> Iterator[Finding]:
    """Sends to performers that follow the fader: each move for the house is heard in their ears."""
    right = "before_fader_after_mute"
    yield from _wrong_taps(look, serves=("ears", "wedge"), wrong=("after_fader",), right=right)


_BEFORE = ("input", "before_eq", "before_fader", "before_fader_after_mute")


def _wrong_taps(
    look: Look, *, serves: tuple[str, ...], wrong: tuple[str, ...], right: str
) -> Iterator[Finding]:
    """One finding a mix, about all of its open sends that tap on the wrong side of the fader."""
    show = look.show
    effect = "effect" in serves
    for mix in show.in_use("mix"):
        if show[f"{mix}/serves"] not in serves:
            continue
        sends = [
            f"{strip}/send/{mix}"
            for strip in strips_of(show.desk, *SENDERS)
            if f"{strip}/send/{mix}/level" in show.values
        ]  # fmt: skip
        wrongly = [s for s in sends if show[f"{s}/tap"] in wrong and show.on(f"{s}/on")]
        if not wrongly:
            continue
        names = [strip_name(show, thing_of(send)) for send in wrongly]
        first = ", ".join(names[:3]) + (f" and {len(names) - 3} more" if len(names) > 3 else "")
        name, few = strip_name(show, mix), len(names) == 1
        why = "rings on when the fader is off" if effect else "hears every move for the house"
        side = "before" if effect else "after"
        yield Finding(
            rule="effect_send_before_fader" if effect else "monitor_send_after_fader",
            tone="note",
            says=f"{first} {'goes' if few else 'go'} to {name} {side} the fader: {name} {why}.",
            about=mix,
            remedy=f"Tap {'it' if few else 'them'} {'after' if effect else 'before'} the fader",
            moves={f"{send}/tap": right for send in wrongly},
        )


def return_feeds_its_own_effect(look: Look) -> Iterator[Finding]:
    """A return that is sent into the effect it comes from: it goes round and builds up."""
    show = look.show
    for number in range(1, show.desk.returns + 1):
        back = f"return/{number}"
        source = show[f"{back}/source"]
        mix = show[f"{source}/source"] if named_kind(source) == "engine" else None
        if not isinstance(mix, str) or not show.on(f"{back}/send/{mix}/on"):
            continue
        if show.number(f"{back}/send/{mix}/level") > -math.inf:
            name = strip_name(show, back)
            yield Finding(
                rule="return_feeds_its_own_effect",
                tone="note",
                says=f"{name} is sent back into its own effect: it builds up.",
                about=mix,
                remedy=f"Take {name} out of it",
                moves={f"{back}/send/{mix}/on": False},
            )


def delay_off_tempo(look: Look) -> Iterator[Finding]:
    """A delay that is held to a note of the tempo and stands elsewhere."""
    show = look.show
    tempo = f"{bare(said(show.number('show/tempo')))} bpm"
    too_long = dict(beyond_its_end(show))
    for engine, time_ms in off_tempo(show):
        name, note = strip_name(show, engine), show.text(f"{engine}/note").replace("_", " ")
        stands, there = (bare(said(ms)) for ms in (show.number(f"{engine}/time"), time_ms))
        if engine in too_long:
            continue
        yield Finding(
            rule="delay_off_tempo",
            tone="note",
            says=f"{name} is {stands} ms; the {note} at {tempo} is {there} ms.",
            about="effects",
            remedy=f"Set {name} to {there} ms",
            moves={f"{engine}/time": time_ms},
        )
    for engine, lasts_ms in too_long.items():
        name, note = strip_name(show, engine), show.text(f"{engine}/note").replace("_", " ")
        yield Finding(
            rule="delay_off_tempo",
            tone="note",
            says=f"The {note} at {tempo} lasts {said_ms(lasts_ms)}; {name} ends at 8 s: choose a"
            " shorter note.",
            about="effects",
        )

"""The company of the demo: parts, three of them double-cast, and two performers on one radio.

Each performer's settings are made as in a mic check: the fitting on, moved by a hand, kept.
"""

from collections.abc import Callable, Iterator, Mapping
from typing import Final, NamedTuple

from ombrel.core import (
    Asked,
    Show,
    add_cast,
    add_part,
    choose_cast,
    fitting_for,
    keep,
    part_on,
    performer_named,
    set_players,
)

__all__ = ["company", "parts_of_scenes"]


class _Part(NamedTuple):
    name: str
    channel: str  # by its name
    mix: str
    players: str  # understudies last


_PARTS: Final = (
    _Part("Ring host", "Ring host", "Ears host", "Maro Quill"),
    _Part("Teller A", "Teller, part A", "Ears tellers", "Ilka Dunmoor, Corin Vashti"),
    _Part("Teller B", "Teller, part B", "Ears tellers", "Oswin Tarn, Mirelle Aske"),
    _Part("Aerialist", "Aerialist", "", "Pell Haverby"),
    _Part("Lighthouse keeper", "Lighthouse keeper", "", "Sunniva Roe, Tarquil Wend"),
    _Part("Harbour master", "Harbour master", "", "Benno Askew"),
    _Part("Market crier", "Harbour master", "", "Odalys Finch"),
    _Part("Choir of gulls", "Choir of gulls", "", ""),
)
_CASTS: Final = {
    "Lantern cast": {"Teller A": "Ilka Dunmoor", "Teller B": "Oswin Tarn",
                     "Lighthouse keeper": "Sunniva Roe"},
    "Anchor cast": {"Teller A": "Corin Vashti", "Teller B": "Mirelle Aske",
                    "Lighthouse keeper": "Tarquil Wend"},
}  # fmt: skip
# what each hand moved at the mic check: gain in dB beside the line's own, low cut, EQ, compressor
_VOICES: Final[Mapping[str, tuple[float, float, Mapping[str, float]]]] = {
    "Maro Quill": (0.0, 90.0, {"eq/2/frequency": 320.0, "eq/2/gain": -2.5}),
    "Ilka Dunmoor": (3.0, 120.0, {"eq/2/frequency": 450.0, "eq/2/gain": -3.0, "eq/4/gain": 1.5}),
    "Corin Vashti": (-4.0, 80.0, {"eq/2/frequency": 260.0, "eq/2/gain": -4.5}),
    "Oswin Tarn": (-2.0, 75.0, {"eq/1/gain": -2.0, "eq/3/gain": 1.0}),
    "Mirelle Aske": (5.0, 140.0, {"eq/3/frequency": 3_200.0, "eq/3/gain": -2.0}),
    "Pell Haverby": (4.0, 130.0, {"eq/2/gain": -2.0, "eq/4/gain": 2.0}),
    "Sunniva Roe": (6.0, 110.0, {"eq/2/frequency": 500.0, "eq/2/gain": -2.0}),
    "Benno Askew": (-5.0, 80.0, {"eq/1/gain": -3.0}),
    "Odalys Finch": (2.0, 120.0, {"eq/3/frequency": 2_800.0, "eq/3/gain": -3.5}),
}
_KEPT_S: Final = 1_781_000_000.0  # a rehearsal of the summer
_CRIER_IN: Final = ("19", "20")  # scenes in which the market crier has the harbour master's radio


def _channel(show: Show, name: str) -> str:
    return next(f"channel/{n}" for n in show.channels() if show.text(f"channel/{n}/name") == name)


def _mix(show: Show, name: str) -> str | None:
    return next((m for m in show.in_use("mix") if show.text(f"{m}/name") == name), None)


def company() -> Iterator[Callable[[Show], Mapping[str, Asked]]]:
    """The steps that bring the company into the show."""
    for part in _PARTS:
        yield lambda now, part=part: add_part(now, part.name, [_channel(now, part.channel)])[1]  # type: ignore[misc]
    for part in _PARTS:
        yield lambda now, part=part: set_players(now, _part(part.name), part.players)  # type: ignore[misc]
    yield _strips_of_parts
    for name in _CASTS:
        yield lambda now, name=name: add_cast(now, name)[1]  # type: ignore[misc]
    yield _cast
    for number in (2, 1):  # the other cast's check first, then tonight's
        yield (
            lambda now, number=number: (
                choose_cast(  # type: ignore[misc]
                    now, f"cast/{number}", since_s=_KEPT_S
                ).moves
            )
        )
        yield _moved_by_hand
        yield _kept
    yield lambda now: _other_on(now, "Market crier")
    yield _moved_by_hand
    yield _kept
    yield lambda now: _other_on(now, "Harbour master")
    yield _left_loose


def _part(name: str) -> str:
    return f"part/{[part.name for part in _PARTS].index(name) + 1}"


def _strips_of_parts(show: Show) -> Mapping[str, Asked]:
    """What each part hears. Strips and ears keep the names that the engineer gave them: parts'."""
    moves: dict[str, Asked] = {}
    for part in _PARTS:
        mix = _mix(show, part.mix)
        moves[f"{_part(part.name)}/mix"] = mix
        named = [_channel(show, part.channel), *([mix] if mix else [])]
        moves |= {f"{strip}/name_typed": True for strip in named}
    return moves


def _cast(show: Show) -> Mapping[str, Asked]:
    return {
        f"cast/{number}/{_part(part)}": performer_named(show, who)
        for number, plays in enumerate(_CASTS.values(), start=1)
        for part, who in plays.items()
    }


def _on(show: Show) -> Iterator[tuple[str, str, str]]:
    """Channels with who is on, by name, and their fitting, where nothing was kept yet."""
    for channel, one in show.layers.on.items():
        performer = show.text(f"{show[f'{one.fitting}/performer']}/name")
        if performer in _VOICES and not show.number(f"{one.fitting}/newest"):
            yield channel, performer, one.fitting


def _moved_by_hand(show: Show) -> Mapping[str, Asked]:
    moves: dict[str, Asked] = {}
    for channel, performer, _ in _on(show):
        gain_db, low_cut, rest = _VOICES[performer]
        socket = show.text(f"{channel}/source")
        moves[f"{socket}/gain"] = show.own_value(f"{socket}/gain") + gain_db  # type: ignore[operator]
        moves[f"{channel}/low_cut/on"] = True
        moves[f"{channel}/low_cut/frequency"] = low_cut
        moves |= {f"{channel}/{leaf}": value for leaf, value in rest.items()}
    return moves


def _kept(show: Show) -> Mapping[str, Asked]:
    moves: dict[str, Asked] = {}
    for _, _, fitting in _on(show):
        moves |= keep(show, fitting, by="engineer", at_s=_KEPT_S)
    return moves


def _other_on(show: Show, part: str) -> Mapping[str, Asked]:
    """Another part on its channel, as a scene would put it there."""
    channel = show.text(f"{_part(part)}/microphone/1/channel")
    return part_on(show, channel, _part(part), since_s=_KEPT_S)


def _left_loose(show: Show) -> Mapping[str, Asked]:
    """The aerialist was ridden up last night, and nobody has kept or dropped it."""
    performer = performer_named(show, "Pell Haverby")
    fitting = fitting_for(show, str(performer), _part("Aerialist"))
    channel = show.layers.at[str(fitting)]
    socket = show.text(f"{channel}/source")
    return {f"{socket}/gain": show.number(f"{socket}/gain") + 2.0}


def parts_of_scenes(show: Show, number: str) -> Mapping[str, str]:
    """Which part is on the shared radio in a scene of the evening, by channel."""
    channel = _channel(show, "Harbour master")
    part = "Market crier" if number in _CRIER_IN else "Harbour master"
    return {channel: _part(part)}

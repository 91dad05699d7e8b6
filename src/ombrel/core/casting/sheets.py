"""The company on paper: who plays what, and who wears which radio."""

from typing import Final

from ..catalogue import Thing
from ..flow import strip_name
from ..scenes import held_of, number_text
from ..show import Show, lines_on, socket_name
from ..values import Column, Datum, Sheet
from .fittings import fitting_for, preamp_socket
from .names import part_name, performer_name
from .parts import casts, microphones, parts, players, tonight
from .tonight import on_in_words

__all__ = ["cast_sheet", "radio_sheet"]

_RADIO: Final = (
    Column(title="Ch"),
    Column(title="Channel"),
    Column(title="Socket"),
    Column(title="Microphone"),
    Column(title="Part"),
    Column(title="Tonight"),
    Column(title="Gain", unit="dB", signed=True, places=0),
    Column(title="Fitting"),
    Column(title="Scenes"),
)


def cast_sheet(show: Show, title: str) -> Sheet:
    """Every part with its channels and mix, who plays it tonight, in each cast, and at all."""
    chosen = casts(show)
    columns = (
        Column(title="Part"),
        Column(title="Channels"),
        Column(title="Mix"),
        Column(title="Tonight"),
        *(Column(title=show.text(f"{cast}/name")) for cast in chosen),
        Column(title="Can play it"),
    )
    rows: list[tuple[Datum, ...]] = []
    for part in parts(show):
        mix = show[f"{part}/mix"]
        plays = [performer_name(show, _who(show, f"{cast}/{part}")) or "vacant" for cast in chosen]
        rows.append(
            (
                part_name(show, part),
                ", ".join(one.channel.partition("/")[2] for one in microphones(show, part)),
                strip_name(show, mix) if isinstance(mix, str) else "",
                performer_name(show, tonight(show, part)) or "vacant",
                *plays,
                ", ".join(performer_name(show, one) for one in players(show, part)),
            )
        )
    cast = show["tonight/cast"]
    about = f"Tonight: {show.text(f'{cast}/name')}." if isinstance(cast, str) else ""
    return Sheet(key="cast", title=title, columns=columns, rows=tuple(rows), about=about)


def _who(show: Show, address: str) -> str | None:
    found = show[address]
    return found if isinstance(found, str) else None


def radio_sheet(show: Show, title: str) -> Sheet:
    """Every channel of a part: its socket, who is on tonight, their gain, and in which scenes."""
    rows: list[tuple[Datum, ...]] = []
    found = [(Thing.at(one.channel).number, part, one)
             for part in parts(show) for one in microphones(show, part)]  # fmt: skip
    for number, part, one in sorted(found, key=lambda each: each[0]):
        channel, performer = one.channel, tonight(show, part)
        socket = preamp_socket(show, channel)
        lines = lines_on(show, socket) if socket else []
        fitting = fitting_for(show, performer, part, one.number) if performer else None
        gain = show[f"{fitting}/value/preamp/gain"] if fitting else None
        rows.append(
            (
                number,
                strip_name(show, channel),
                socket_name(show.desk, socket) if socket else "",
                show.text(f"line/{lines[0]}/microphone") if lines else "",
                part_name(show, part),
                performer_name(show, performer) or "vacant",
                gain if isinstance(gain, float) else "",
                _fitting_words(show, fitting, channel),
                _scenes(show, channel, part),
            )
        )
    return Sheet(key="radios", title=title, columns=_RADIO, rows=tuple(rows))


def _fitting_words(show: Show, fitting: str | None, channel: str) -> str:
    if fitting is None or not show.number(f"{fitting}/newest"):
        return "none kept"
    return "on" if show.layers.at.get(fitting) == channel else f"off ({on_in_words(show, channel)})"


def _scenes(show: Show, channel: str, part: str) -> str:
    """The numbers of the scenes that put the part on the channel."""
    numbers = []
    for scene in show.scenes:
        held = held_of(show, scene, channel)
        if "part" in held.cells and held.value(show.desk, "channel", "part") == part:
            numbers.append(number_text(show.number(f"{scene}/number")))
    return ", ".join(numbers)

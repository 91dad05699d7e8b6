"""Two fittings laid beside one another: values side by side, curves over one another."""

from dataclasses import dataclass

from ..casting import fitting_in, fitting_name, microphones, values_of
from ..catalogue import preamp_leaf
from ..show import Show, blank_show, fitted_leaves
from ..strips import Static, curves
from ..words import leaf_label, value_said

__all__ = ["Overlay", "Side", "laid_together", "side_by_side"]

Side = tuple[str, str, str]  # what it is, and how two have it


@dataclass(frozen=True, slots=True, kw_only=True)
class Overlay:
    """What a fitting makes of a channel: `total_db` of low cut and EQ at `frequencies_hz`; points

    (in, out) of gate and compressor, in dB, the same where they are off.
    """

    name: str
    frequencies_hz: tuple[float, ...]
    total_db: tuple[float, ...]
    gate: tuple[tuple[float, float], ...]
    compressor: tuple[tuple[float, float], ...]


def side_by_side(show: Show, one: str, other: str) -> list[Side]:
    """What two fittings have otherwise, in words. Raises NoSuchFitting."""
    here = values_of(show, fitting_in(show, one))
    there = values_of(show, fitting_in(show, other))
    return [
        (
            leaf_label(show, "channel/1", leaf),
            value_said(show, leaf, here.get(leaf)),
            value_said(show, leaf, there.get(leaf)),
        )
        for leaf in fitted_leaves(show.desk)
        if here.get(leaf) != there.get(leaf)
    ]


def laid_together(show: Show, one: str, other: str) -> tuple[Overlay, Overlay]:
    """Two fittings over the same channel: where one of them is on, else where their part comes in.

    Raises NoSuchFitting.
    """
    part = show.own.get(f"{fitting_in(show, one)}/part")
    comes_in = [mic.channel for mic in microphones(show, part)] if isinstance(part, str) else []
    at = show.layers.at
    channel = at.get(one) or at.get(other) or next(iter(comes_in), "channel/1")
    return _overlay(show, one, channel), _overlay(show, other, channel)


def _overlay(show: Show, fitting: str, channel: str) -> Overlay:
    worn = _worn(show, fitting, channel)
    drawn = curves(worn, channel)

    def points(stage: str, static: Static | None) -> tuple[tuple[float, float], ...]:
        if static is None or not worn.on(f"{channel}/{stage}/on"):
            return (-80.0, -80.0), (0.0, 0.0)
        return tuple(zip(static.in_db, static.out_db, strict=True))

    return Overlay(
        name=fitting_name(show, fitting),
        frequencies_hz=drawn.frequencies_hz,
        total_db=drawn.total_db,
        gate=points("gate", drawn.gate),
        compressor=points("compressor", drawn.compressor),
    )


def _worn(show: Show, fitting: str, channel: str) -> Show:
    """A show of nothing but a channel with a fitting's values over its own."""
    values = values_of(show, fitting_in(show, fitting))
    layers = {
        f"{channel}/{leaf}": values.get(leaf, show.own_value(f"{channel}/{leaf}"))
        for leaf in fitted_leaves(show.desk)
        if not preamp_leaf(leaf)
    }
    return blank_show(show.desk).with_values(layers)

"""Fittings as people look at them: what is loose, what stands otherwise and why."""

from dataclasses import dataclass
from typing import Literal

from ..casting import (
    Version,
    fitting_in,
    fitting_name,
    loose,
    microphone_on,
    newest_version,
    preamp_socket,
    versions,
    whose_fitting,
)
from ..catalogue import CARRIED, CATALOGUE, Address, Leaf, aspect_of, preamp_leaf
from ..scenes import address_of
from ..show import Show, carried_by_fitting, fitted_leaves, layer_at
from ..values import Number, Value, said
from .scene_reading import held_text, leaf_label

__all__ = [
    "FittingSeen",
    "FittingValue",
    "altered",
    "beneath",
    "fitting_in_one_line",
    "fitting_said",
    "fitting_seen",
    "processor_said",
    "value_said",
]

Why = Literal["by hand", "by a pin", "the preamp is shared", "patched since"]


@dataclass(frozen=True, slots=True, kw_only=True)
class FittingValue:
    """A value of a fitting where something differs, in words. `why`: of what stands otherwise."""

    leaf: Leaf
    label: str
    kept: str
    now: str
    why: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class FittingSeen:
    """A fitting. `channel`: where it is on, or ""; `since_s`: since when; `loose`: moved by hands

    and not kept; `altered`: what stands otherwise than kept; `beneath`: own values under it that
    differ from what stands (`kept`: the own value). `versions`: the newest first.
    `microphones`: by which it was kept and which stands there now, where they differ.
    """

    fitting: str
    name: str
    performer: str
    channel: str
    since_s: float
    carries: tuple[str, ...]
    versions: tuple[Version, ...]
    microphones: tuple[str, str]
    loose: tuple[FittingValue, ...]
    altered: tuple[FittingValue, ...]
    beneath: tuple[FittingValue, ...]


def fitting_seen(show: Show, fitting: str) -> FittingSeen:
    """What there is to see of a fitting. Raises NoSuchFitting."""
    channel = show.layers.at.get(fitting_in(show, fitting), "")
    kept = newest_version(show, fitting).values
    moved = tuple(
        _value(show, leaf, kept.get(leaf), now) for leaf, now in loose(show, fitting).items()
    )
    carries = carried_by_fitting(show.own, fitting)
    return FittingSeen(
        fitting=fitting,
        name=fitting_name(show, fitting),
        performer=whose_fitting(show, fitting),
        channel=channel,
        since_s=show.number(f"{channel}/fitted_s") if channel else 0.0,
        carries=tuple(one for one in CARRIED if one in carries),
        versions=tuple(versions(show, fitting)),
        microphones=_microphones(show, fitting, channel),
        loose=moved,
        altered=tuple(altered(show, fitting)),
        beneath=tuple(beneath(show, channel)) if channel else (),
    )


def _microphones(show: Show, fitting: str, channel: str) -> tuple[str, str]:
    kept = newest_version(show, fitting).microphone
    now = microphone_on(show, channel) if channel else ""
    return (kept, now) if kept and now and kept != now else ("", "")


def _value(show: Show, leaf: Leaf, kept: Value, now: Value, why: str = "") -> FittingValue:
    return FittingValue(
        leaf=leaf,
        label=leaf_label(show, "channel/1", leaf),
        kept=value_said(show, leaf, kept),
        now=value_said(show, leaf, now),
        why=why,
    )


def value_said(show: Show, leaf: Leaf, value: Value) -> str:
    """A value of a fitting in words; none is what the channel has."""
    return "as the channel" if value is None else held_text(show, "channel/1", leaf, value)


def altered(show: Show, fitting: str) -> list[FittingValue]:
    """What stands on a fitting's channel otherwise than it was kept, and by what."""
    channel = show.layers.at.get(fitting)
    if channel is None:
        return []
    one, kept = show.layers.on[channel], newest_version(show, fitting).values
    found = []
    for leaf, cell in fitted_leaves(show.desk).items():
        address = address_of(show, channel, leaf)
        if aspect_of(cell) not in one.carries or leaf not in kept or address is None:
            continue
        stands = show[address]
        if stands == kept[leaf]:
            continue
        why: Why = "by hand"
        if cell in one.back:
            why = "by a pin"
        elif preamp_leaf(leaf):
            socket = preamp_socket(show, channel)
            if one.attached != socket:
                why = "patched since"
            elif show.layers.holder.get(str(socket)) != channel:
                why = "the preamp is shared"
        found.append(_value(show, leaf, kept[leaf], stands, why))
    return found


def beneath(show: Show, channel: str) -> list[FittingValue]:
    """Own values of a channel that a fitting lies over and that differ from what stands."""
    found = []
    for leaf in fitted_leaves(show.desk):
        address = address_of(show, channel, leaf)
        if address is None or layer_at(show.desk, show.layers, address) is None:
            continue
        own = show.own_value(address)
        if own != show[address]:
            found.append(_value(show, leaf, own, show[address]))
    return found


def fitting_said(show: Show, address: str) -> str:
    """Whose fitting a value comes from, and how far a hand has moved it since it was kept: "Ada's

    fitting, +2 dB not kept"; "" where no fitting has it.
    """
    at = layer_at(show.desk, show.layers, address)
    if at is None or show[at] is None:
        return ""
    fitting, leaf = Address.at(at).thing, Address.at(at).inner
    name = f"{whose_fitting(show, fitting)}'s fitting"
    kept = newest_version(show, fitting).values.get(leaf)
    if kept == show[at]:
        return name
    kind = CATALOGUE["input/<box>/<input>/gain"].kind if leaf == "preamp/gain" else None
    stands = show[at]
    if isinstance(kept, float) and isinstance(stands, float):
        unit = kind.unit if isinstance(kind, Number) else _unit(leaf)
        if unit == "dB" and abs(stands - kept) < 1_000.0:
            return f"{name}, {said(stands - kept, signed=True)} dB not kept"
    return f"{name}, changed and not kept"


def processor_said(show: Show, strip: str, cell: str) -> str:
    """Whose fitting sets some of a channel's processor ("eq"), and whether that is loose; or ""."""
    if strip not in show.layers.on:
        return ""
    said = {
        fitting_said(show, f"{strip}/{leaf}")
        for leaf, of in fitted_leaves(show.desk).items()
        if of == cell
    } - {""}
    return max(said, key=len, default="")


def _unit(leaf: Leaf) -> str:
    parameter = CATALOGUE.get(f"channel/<channel>/{leaf}")
    return parameter.kind.unit if parameter and isinstance(parameter.kind, Number) else ""


def fitting_in_one_line(seen: FittingSeen) -> str:
    """What an engineer wants to know of who is on: whose settings, and what of them is not kept."""
    if not seen.versions and not seen.loose:
        return f"Nothing is kept for {seen.performer} yet: the channel's own settings show."
    parts_of = []
    if seen.loose:
        values = "value" if len(seen.loose) == 1 else "values"
        parts_of.append(f"{len(seen.loose)} {values} moved and not kept")
    others = [one for one in seen.altered if one.why != "by hand"]
    if others:
        parts_of.append(f"{len(others)} otherwise than kept, {others[0].why}")
    if seen.microphones[0]:
        parts_of.append("kept with {}, {} here".format(*seen.microphones))
    words = ", ".join(parts_of)
    return f"{words[0].upper()}{words[1:]}." if words else "As kept."

"""Desk profiles as JSON: what a desk has, as data. A user can add one."""

import json
import re
from dataclasses import fields
from typing import Any, Final

from ombrel.core import COUNTED, TAPS, BadFile, Bay, Box, Delays, Desk

__all__ = ["read_desk"]

# Bounds of our own: several times the largest desk that ships.
_MOST: Final = 512
_MOST_OF_ANYTHING: Final = 1e6
_MOST_BOXES: Final = 64
_MOST_BAYS: Final = 8
_MOST_FADERS: Final = 32
_LOWEST_GAIN: Final = -20.0  # the catalogue's widest
_HIGHEST_GAIN: Final = 90.0
# of a profile that does not say
_UNSAID: Final = {"inserts": 24, "sharing_groups": 0, "sharing_places": 0, "sharing_inserts": 0}
_DIRECT: Final = ("direct_channels", "direct_returns")  # all taps, where a profile does not say
_COUNTS: Final = tuple(dict.fromkeys((*COUNTED.values(), *_UNSAID)))
# a profile names all that a desk has but its key, which is the file's name, and the sample rate
_KNOWN: Final = {field.name for field in fields(Desk)} - {"key", "sample_rate_hz"}
_LATENCIES: Final = ("converter_in", "converter_out", "strip", "insert")
_MOST_SAMPLES: Final = 4_800  # a tenth of a second
_WAY_OUT = "Compare it with touring-48.json, which ships with Ombrel."


def read_desk(key: str, content: bytes) -> Desk:
    """The desk of a profile file. `key`: the file's name without ending.

    Raises BadFile with every fault and its place.
    """
    try:
        data: Any = json.loads(content)
    except (ValueError, RecursionError) as error:
        raise BadFile(f"Desk profile {key} is not JSON: {error}.", _WAY_OUT) from error
    if not isinstance(data, dict):
        raise BadFile(f"Desk profile {key} is not a JSON object.", _WAY_OUT)
    data = _UNSAID | data
    faults = [
        f"$.{name}: expected a whole number from 0 to {_MOST}, found {data.get(name)!r}"
        for name in _COUNTS
        if not _is_whole(data.get(name), 0, _MOST)
    ]
    faults += _text_faults(data.get("name"), "$.name", 60)
    for name in ("full_scale_dbu", "pad_db"):
        if not _is_number(data.get(name)) or not 0.0 <= data[name] <= 40.0:
            faults.append(f"$.{name}: expected 0 to 40, found {data.get(name)!r}")
    faults += _latency_faults(data.setdefault("latency", {}))
    faults += _gain_faults(data.get("gain_db"))
    faults += _box_faults(data.get("boxes"))
    faults += _bay_faults(data.get("bays"))
    for name in _DIRECT:
        faults += _tap_faults(data.setdefault(name, list(TAPS)), f"$.{name}")
    unknown = set(data) - _KNOWN
    faults += [f"$.{name}: not a part of a desk profile" for name in sorted(unknown)]
    if faults:
        raise BadFile(f"Desk profile {key}: {'; '.join(faults)}.", _WAY_OUT)
    return Desk(
        key=key,
        name=data["name"],
        **{name: data[name] for name in _COUNTS},
        latency=Delays(**data["latency"]),
        full_scale_dbu=float(data["full_scale_dbu"]),
        gain_db=(float(data["gain_db"][0]), float(data["gain_db"][1])),
        pad_db=float(data["pad_db"]),
        boxes=tuple(Box(**box) for box in data["boxes"]),
        bays=tuple(Bay(**bay) for bay in data["bays"]),
        direct_channels=tuple(tap for tap in TAPS if tap in data["direct_channels"]),
        direct_returns=tuple(tap for tap in TAPS if tap in data["direct_returns"]),
    )


def _is_number(value: object) -> bool:
    plain = isinstance(value, int | float) and not isinstance(value, bool)
    return plain and -_MOST_OF_ANYTHING < value < _MOST_OF_ANYTHING  # type: ignore[operator]


def _is_whole(value: object, lowest: int, highest: int) -> bool:
    return type(value) is int and lowest <= value <= highest


def _text_faults(value: object, at: str, longest: int) -> list[str]:
    if isinstance(value, str) and value.strip() and len(value) <= longest and value.isprintable():
        return []
    return [f"{at}: expected a text of 1 to {longest} characters, found {value!r}"]


def _tap_faults(value: object, at: str) -> list[str]:
    if isinstance(value, list) and all(isinstance(tap, str) and tap in TAPS for tap in value):
        return []
    return [f"{at}: expected a list of taps ({', '.join(TAPS)}), found {value!r:.60}"]


def _latency_faults(value: object) -> list[str]:
    """`value`: samples by name; what is not named is as usual."""
    if not isinstance(value, dict):
        return [f"$.latency: expected an object of samples, found {value!r}"]
    return [
        f"$.latency.{name}: expected one of {', '.join(_LATENCIES)}, 0 to {_MOST_SAMPLES} samples"
        for name, samples in value.items()
        if name not in _LATENCIES or not _is_whole(samples, 0, _MOST_SAMPLES)
    ]


def _gain_faults(value: object) -> list[str]:
    found = value if isinstance(value, list) and len(value) == 2 else []
    if len(found) == 2 and all(map(_is_number, found)):
        lowest, highest = found
        # 0 dB is where a preamp stands that nobody has set
        if _LOWEST_GAIN <= lowest <= 0.0 <= highest <= _HIGHEST_GAIN and lowest < highest:
            return []
    expected = f"the lowest and highest gain, from {_LOWEST_GAIN:g} to {_HIGHEST_GAIN:g}, around 0"
    return [f"$.gain_db: expected {expected}, found {value!r}"]


def _bay_faults(bays: object) -> list[str]:
    if not isinstance(bays, list) or not bays or len(bays) > _MOST_BAYS:
        return [f"$.bays: expected a list of 1 to {_MOST_BAYS} sides, found {bays!r:.60}"]
    faults: list[str] = []
    for number, bay in enumerate(bays):
        at = f"$.bays[{number}]"
        if not isinstance(bay, dict) or set(bay) != {"name", "faders"}:
            faults.append(f"{at}: expected an object of name and faders, found {bay!r:.60}")
            continue
        faults += _text_faults(bay["name"], f"{at}.name", 20)
        if not _is_whole(bay["faders"], 1, _MOST_FADERS):
            says = f"a whole number from 1 to {_MOST_FADERS}"
            faults.append(f"{at}.faders: expected {says}, found {bay['faders']!r:.60}")
    return faults


def _box_faults(boxes: object) -> list[str]:
    if not isinstance(boxes, list) or not boxes or len(boxes) > _MOST_BOXES:
        return [f"$.boxes: expected a list of 1 to {_MOST_BOXES} boxes, found {boxes!r:.60}"]
    faults: list[str] = []
    keys: set[str] = set()
    for number, box in enumerate(boxes):
        at = f"$.boxes[{number}]"
        if not isinstance(box, dict):
            faults.append(f"{at}: expected an object, found {box!r:.60}")
            continue
        unknown = set(box) - {
            "key",
            "name",
            "short",
            "inputs",
            "outputs",
            "preamps",
            "output_block",
        }
        faults += [f"{at}.{name}: not a part of a box" for name in sorted(unknown)]
        key = box.get("key")
        if not isinstance(key, str) or not re.fullmatch(r"[a-z][a-z0-9_-]{0,19}", key):
            says = "a key of lower-case letters, digits, - and _, such as local"
            faults.append(f"{at}.key: expected {says}, found {key!r:.60}")
        elif key in keys:
            faults.append(f"{at}.key: {key!r} stands there twice")
        else:
            keys.add(key)
        faults += _text_faults(box.get("name"), f"{at}.name", 40)
        faults += _text_faults(box.get("short"), f"{at}.short", 12)
        for side in ("inputs", "outputs"):
            if not _is_whole(box.get(side), 0, _MOST):
                says = f"a whole number from 0 to {_MOST}"
                faults.append(f"{at}.{side}: expected {says}, found {box.get(side)!r:.60}")
        if not isinstance(box.get("preamps"), bool):
            faults.append(f"{at}.preamps: expected true or false, found {box.get('preamps')!r:.60}")
        block = box.get("output_block", 1)
        if not _is_whole(block, 1, _MOST):
            faults.append(f"{at}.output_block: expected 1 or more, found {block!r:.60}")
        elif _is_whole(box.get("outputs"), 0, _MOST) and box["outputs"] % block:
            faults.append(f"{at}.output_block: {box['outputs']} outputs are no blocks of {block}")
    return faults

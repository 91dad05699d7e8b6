"""Desk profiles as JSON: what a desk has, as data. A user can add one."""

import json
from typing import Any

from ombrel.core import BadFile, Box, Desk

__all__ = ["read_desk"]

_COUNTS = (
    "channels",
    "returns",
    "mixes",
    "matrices",
    "dcas",
    "mute_groups",
    "effect_engines",
)
_WAY_OUT = "Compare it with touring-48.json, which ships with Ombrel."


def read_desk(key: str, content: bytes) -> Desk:
    """The desk of a profile file. `key`: the file's name without ending.

    Raises BadFile with every fault and its place.
    """
    try:
        data: Any = json.loads(content)
    except ValueError as error:
        raise BadFile(f"Desk profile {key} is not JSON: {error}.", _WAY_OUT) from error
    if not isinstance(data, dict):
        raise BadFile(f"Desk profile {key} is not a JSON object.", _WAY_OUT)
    faults = [
        f"$.{name}: expected a whole number of 0 or more, found {data.get(name)!r}"
        for name in _COUNTS
        if not _is_count(data.get(name))
    ]
    for name in ("name", "full_scale_dbu", "gain_db", "pad_db", "boxes"):
        if name not in data:
            faults.append(f"$.{name}: missing")
    boxes = data.get("boxes", [])
    for number, box in enumerate(boxes if isinstance(boxes, list) else []):
        for name in ("key", "name", "short", "inputs", "outputs", "preamps"):
            if not isinstance(box, dict) or name not in box:
                faults.append(f"$.boxes[{number}].{name}: missing")
    unknown = set(data) - {*_COUNTS, "name", "full_scale_dbu", "gain_db", "pad_db", "boxes"}
    faults += [f"$.{name}: not a part of a desk profile" for name in sorted(unknown)]
    if faults:
        raise BadFile(f"Desk profile {key}: {'; '.join(faults)}.", _WAY_OUT)
    try:
        return Desk(
            key=key,
            name=str(data["name"]),
            **{name: data[name] for name in _COUNTS},
            full_scale_dbu=float(data["full_scale_dbu"]),
            gain_db=(float(data["gain_db"][0]), float(data["gain_db"][1])),
            pad_db=float(data["pad_db"]),
            boxes=tuple(Box(**box) for box in boxes),
        )
    except (TypeError, ValueError, IndexError) as error:
        raise BadFile(f"Desk profile {key}: {error}.", _WAY_OUT) from error


def _is_count(value: object) -> bool:
    return isinstance(value, int) and not isinstance(value, bool) and value >= 0

"""Cells: what of a strip a scene can carry. A send, an assignment and a membership are cells of

their own, for each destination; what else a strip has goes by aspects.
"""

from collections.abc import Mapping
from functools import lru_cache
from types import MappingProxyType
from typing import Final

from ..values import Value
from .addresses import default_of, parameter_at
from .desk import Desk
from .leaves import leaves_of
from .scene_parameters import PINNED
from .strip_kinds import ALONE, ASSIGNED_TO, SOURCES

__all__ = [
    "CHOSEN",
    "Leaf",
    "aspect_of",
    "band_of",
    "cell_name",
    "cells_of",
    "leaf_defaults",
    "preamp_leaf",
    "target_of_cell",
]

# Carried only where somebody asks for it: a preamp is shared, and a source is what one listens to.
CHOSEN: Final = ("preamp", "source")

Leaf = str  # an address without its strip; "preamp/gain" and "preamp/pad" are the source's preamp's

_BY_ASPECT: Final = {
    "name": "name",
    "low_cut": "low_cut",
    "gate": "gate",
    "eq": "eq",
    "compressor": "compressor",
    "inserts": "inserts",
    "delay": "delay",
    "fader": "fader",
    "mute": "mute",
    "pan": "pan",
    "effects": "effects",
    "part": "part",
    "sharing": "sharing",
}
_OF_PREAMP: Final = ("preamp/gain", "preamp/pad")


def preamp_leaf(leaf: Leaf) -> str:
    """The leaf of the preamp that a channel's leaf stands for: "gain", "pad"; "" for any other."""
    return leaf.split("/")[1] if leaf in _OF_PREAMP else ""


def band_of(leaf: Leaf) -> int:
    """The number of the equaliser's band that a leaf is of; 0 for any other."""
    words = leaf.split("/")
    return int(words[1]) if words[0] == "eq" and len(words) == 3 else 0


def target_of_cell(cell: str) -> str:
    """The strip that a cell of sends, assignments or memberships names; "" for any other.

    >>> target_of_cell("send/mix/5"), target_of_cell("group/2"), target_of_cell("eq")
    ('mix/5', 'group/2', '')
    """
    return cell.removeprefix("send/") if "/" in cell else ""


def _cell(kind: str, leaf: Leaf) -> str | None:
    """The cell that a leaf is of; None: no scene carries it."""
    words = leaf.split("/")
    aspect = parameter_at(f"{kind}/{leaf}" if kind in LONE else f"{kind}/1/{leaf}").aspect
    if words[-1] in ("tap", "key_tap", "kept"):
        return None
    if aspect == "sends":
        return "/".join(words[:3])
    if aspect in ("dcas", "mute_groups"):
        return "/".join(words[:2]) if len(words) == 3 else None
    if aspect == "routing":
        return "/".join(words[:-1]) or None
    if aspect == "preamp":
        return "trim" if kind != "show" else None
    if aspect == "patch":
        return "source" if kind in SOURCES and leaf in ("source", "spare") else None
    if kind == "engine" and aspect == "name":
        return "name"
    return _BY_ASPECT.get(aspect) if (kind, aspect) != ("show", "name") else None


LONE: Final = (*ALONE, "show")  # kinds of which a desk has one


@lru_cache(maxsize=128)
def cells_of(desk: Desk, kind: str) -> Mapping[str, tuple[Leaf, ...]]:
    """Every cell that a kind of strip has on a desk, with its leaves."""
    found: dict[str, list[Leaf]] = {}
    if kind == "channel":
        found["preamp"] = list(_OF_PREAMP)
    for leaf in leaves_of(desk, kind):
        cell = _cell(kind, leaf)
        if cell is not None:
            found.setdefault(cell, []).append(leaf)
    return MappingProxyType({cell: tuple(leaves) for cell, leaves in found.items()})


@lru_cache(maxsize=128)
def leaf_defaults(desk: Desk, kind: str) -> Mapping[Leaf, Value]:
    """What each leaf that a kind of strip can have in a scene holds when nobody has set it."""
    stem = kind if kind in LONE else f"{kind}/1"
    leaves = (leaf for leaves in cells_of(desk, kind).values() for leaf in leaves)
    found = {leaf: default_of(f"{stem}/{leaf}") for leaf in leaves if leaf not in _OF_PREAMP}
    return MappingProxyType(
        found | ({"preamp/gain": 0.0, "preamp/pad": False} if kind == "channel" else {})
    )


def aspect_of(cell: str) -> str:
    """The aspect of a cell, by which pins hold it.

    >>> aspect_of("send/mix/5"), aspect_of("group/2"), aspect_of("dca/1"), aspect_of("eq")
    ('sends', 'routing', 'members', 'eq')
    """
    first = cell.split("/")[0]
    if first == "send":
        return "sends"
    if first in ASSIGNED_TO:
        return "routing"
    return "members" if first in ("dca", "mute_group") else cell


def cell_name(cell: str) -> str:
    """What people call an aspect of cells: "EQ", "Sends"."""
    return PINNED[aspect_of(cell)]

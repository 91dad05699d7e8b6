"""A referee for recalls, by the rule book alone: which addresses a cell is of, what a pin holds.

It reads what a scene holds as JSON and shares no code with `ombrel.core.scenes`.
"""

import json
import re
from functools import lru_cache

from ombrel.core import CATALOGUE
from ombrel.core.catalogue import addresses_of

# what each aspect of a strip is made of, as the rule book's table has it
_LEAVES = {
    "name": r"(name|colour)",
    "source": r"(source|spare)",
    "trim": r"(trim|polarity)",
    "low_cut": r"low_cut/.+",
    "gate": r"gate/(?!key_tap).+",
    "eq": r"eq/.+",
    "compressor": r"compressor/(?!key_tap).+",
    "inserts": r"insert_[12]/.+",
    "delay": r"delay/.+",
    "fader": r"fader",
    "mute": r"(mute|on)",
    "pan": r"pan",
    "sharing": r"sharing/(group|weight|held|out)",
    "effects": r"(kind|decay|pre_delay|size|damping|time|note|feedback|low_cut|high_cut|wet|tempo)",
}
_ASPECT = {"send": "sends", "house": "routing", "mono": "routing", "group": "routing",
           "dca": "members", "mute_group": "members"}  # fmt: skip
_DEFAULTS = {re.sub(r"<\w+>", "N", p.key): p.default for p in CATALOGUE.values()}


def default(address):
    return _DEFAULTS[re.sub(r"(?<!eq)/\d+", "/N", address)]  # bands are numbered in the catalogue


@lru_cache(maxsize=64)
def _own(desk, holder):
    return [a for a in addresses_of(desk, holder.split("/")[0]) if a.startswith(f"{holder}/")]


@lru_cache(maxsize=2_000)
def addresses_in(desk, holder, cell):
    """All addresses of a cell of a strip."""
    of = _LEAVES.get(cell)
    if cell == "sharing" and holder.startswith("sharing/"):  # the group itself
        of = r"(time|limit|place)"
    if of is None:  # a feed or a membership, by its destination
        of = re.escape(cell) + "/(level|on|pan)"
    pattern = re.compile(re.escape(holder) + "/" + of)
    return [a for a in _own(desk, holder) if pattern.fullmatch(a)]


def pinned(show, holder, cell):
    """Whether a pin holds a cell: of its strip, of its aspect, of the mix that it leads into."""
    aspect = _ASPECT.get(cell.split("/")[0], cell)
    if f"{holder}/pinned" in show.values or f"{holder}/pinned_{aspect}" in show.values:
        return True
    if aspect == "sends" and f"{cell.removeprefix('send/')}/pinned_whole" in show.values:
        return True
    whole = f"{holder}/pinned_whole"
    return aspect in ("fader", "mute") and whole in show.values


def expected(show, scene):
    """Every value after a recall, by address, of those that the scene carries and no pin holds."""
    values = {}
    for address, text in show.values.items():
        if not address.startswith(f"{scene}/holds/") or not text:
            continue
        holder, held = address.split("/holds/")[1], json.loads(text)
        for cell in held["cells"]:
            if pinned(show, holder, cell):
                continue
            for one in addresses_in(show.desk, holder, cell):
                leaf = one.removeprefix(f"{holder}/")
                wire = held["values"].get(leaf, default(one))
                number = isinstance(default(one), float)
                values[one] = float("-inf") if wire is None and number else wire
    return values

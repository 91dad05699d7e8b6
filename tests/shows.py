"""Random shows and edits for property tests: any address of a desk, with values that it accepts.

Everything is drawn from one seed, so that a failing show is told by a number. Most of it leans
towards what a show looks like: else nearly every cell would be silent and prove little. Some shows
have a twist: parallel paths that cancel, buses that feed channels, a side without a socket.
"""

import math
import os
import random
import re
from functools import lru_cache
from itertools import pairwise

from hypothesis import strategies as st

from ombrel.core import (
    Choice,
    ConsoleError,
    Desk,
    Number,
    Reference,
    Show,
    Switch,
    blank_show,
    made,
    parameter_at,
)
from ombrel.core.catalogue import TAPS, addresses_of, kind_on
from ombrel.core.catalogue.strip_kinds import BUS_TAPS
from ombrel.core.edit import renamed
from tests.desks import TINY

_POOL = 200
_ONCE = ("preset/", "lift/")  # how one differs from another bears on nothing else
_OF_RECALLS = re.compile(
    r"^(scene|run|fitting|part|cast|performer|tonight)/|/pinned"
    r"|/(part|fitting|fitted_s|attached|held_back|name_typed)$"
)
SIDED = ("group", "mix", "matrix")


@lru_cache(maxsize=8)
def strip_addresses(desk: Desk) -> tuple[str, ...]:
    """Addresses that tests move: all; of lines, banks, gangs, promises, wishes and cues three, of

    presets and lifts one. The places that gangs keep are left out: nobody asks for them; and
    scenes and pins, which bear on recalls alone. Of starts, self and what else ears have, those of
    one mix.
    """
    found = [a for a in addresses_of(desk) if "mix/1/" in a or parameter_at(a).aspect != "ears"]
    many = re.compile(r"(?:^|/)(?:line|bank|gang|promise|preset|lift|wish|cue)/(\d+)/")
    return tuple(
        a
        for a in found
        if not a.endswith("/kept")
        and not _OF_RECALLS.search(a)
        and (not (at := many.search(a)) or int(at[1]) <= (1 if a.startswith(_ONCE) else 3))
    )


def buses(desk: Desk) -> list[str]:
    """Buses and their sides, as references name them."""
    found = [
        f"{kind}/{n}{side}"
        for kind in SIDED
        for n in range(1, desk.count(kind) + 1)
        for side in ("", "/left", "/right")
    ]
    return [*found, "house", "house/left", "house/right", "mono"]


def value_for(address: str, desk: Desk, draw: random.Random) -> object:
    """Any value that an address accepts, silence and the ends of its range included."""
    kind = kind_on(desk, address)
    if isinstance(kind, Number):
        if kind.whole:
            return float(draw.randint(int(kind.lowest), int(kind.highest)))
        low, high = max(kind.lowest, -90.0), kind.highest
        usual = [low, high, 0.0, draw.uniform(low, high), draw.uniform(low, high)]
        if kind.lowest == -math.inf:
            usual = [-math.inf, 0.0, draw.uniform(-30.0, 6.0), draw.uniform(-12.0, 0.0)]
        return min(max(round(draw.choice(usual), 1) + 0.0, kind.lowest), kind.highest)
    if isinstance(kind, Switch):
        return draw.random() < 0.5
    if isinstance(kind, Choice):
        return draw.choice(kind.options)
    if isinstance(kind, Reference):
        return draw.choice([None, *targets(kind, desk)])
    return "".join(draw.choice("aBç–9 \U0001f3bb") for _ in range(draw.randint(0, 12)))


def targets(kind: Reference, desk: Desk) -> list[str]:
    inputs = [f"input/{box.key}/{n}" for box in desk.boxes for n in range(1, box.inputs + 1)]
    found = [one for one in kind.to if one in ("oscillator", "talkback")]
    if "input/<box>/<input>" in kind.to:
        found += inputs
    if "engine/<engine>" in kind.to:
        return [f"engine/{n}" for n in range(1, desk.effect_engines + 1)] + inputs[::2]
    if "channel/<channel>/direct" in kind.to:
        return [*found, *buses(desk), *direct_outs(desk), "solo", "solo/left", "solo/right"]
    if "return/<return>" in kind.to and "dca/<dca>" not in kind.to:  # keys: whole strips
        return ["house", "mono", "channel/1", "return/1", "group/1", "mix/1"]
    if "dca/<dca>" in kind.to:  # what lies under a fader: whole strips
        dcas = [f"dca/{n}" for n in range(1, desk.dcas + 1)]
        return ["house", "mono", "channel/1", "mix/1", *dcas]
    if kind.to == ("sharing/<sharing>",):
        return [f"sharing/{n}" for n in range(1, desk.sharing_groups + 1)]
    if kind.to == ("mix/<mix>",):
        return [f"mix/{n}" for n in range(1, desk.mixes + 1)]
    if kind.to == ("group/<group>",):
        return [f"group/{n}" for n in range(1, desk.groups + 1)]
    if "mono" in kind.to:
        found += buses(desk)
    return found


def direct_outs(desk: Desk) -> list[str]:
    """Of channels, and of returns either side or both."""
    sides = ("", "/left", "/right")
    returns = [f"return/{n}{side}" for n in range(1, desk.returns + 1) for side in sides]
    return [*(f"channel/{n}/direct" for n in range(1, desk.channels + 1)), *returns]


_SELDOM = ("/eq/", "/gate/", "/insert_", "/compressor/", "/low_cut/", "/delay/")


def _usual(address: str, desk: Desk, draw: random.Random, seed: int) -> object:
    """A value that leans towards what shows look like; None: leave it at its default."""
    leaf = address.rsplit("/", 1)[-1]
    kind = address.split("/")[0]
    if leaf == "format":
        return draw.choice(
            ["mono", "stereo", "stereo", "unused"] if seed % 2 else ["mono", "stereo"]
        )
    if kind == "output" and leaf == "source":
        return draw.choice([None, *buses(desk), *direct_outs(desk)])
    if kind == "channel" and leaf in ("source", "spare"):
        lines = ["input/local/1"] * 5 + [None]
        return draw.choice(lines + ([draw.choice(buses(desk))] * 3 if seed % 3 else []))
    if kind == "return" and leaf == "source":
        return draw.choice([None, "input/a/1", f"engine/{address.split('/')[1]}"])
    if kind == "engine" and leaf == "source":
        return draw.choice([None, *(f"mix/{n}" for n in range(1, desk.mixes + 1))])
    if leaf == "serves":
        return "effect"  # so that any mix may feed an engine
    if leaf == "linked":
        number = int(address.split("/")[1])  # one that has an even above it
        return number % 2 == 1 and draw.random() < 0.15 and number < desk.count(kind)
    if address == "show/solo":
        return "in_place" if seed % 4 == 0 else None
    chances = {
        "solo": 0.08,
        "solo_proof": 0.15,
        "mute": 0.15,
        "on_spare": 0.2,
        "polarity": 0.3 * (seed % 2),
    }
    if "/sharing/" in address:
        return _shares(address, draw)
    if leaf in chances:
        return draw.random() < chances[leaf]
    if leaf == "on" and address.startswith("dca/"):
        inner, outer = address.split("/")[1::2][:2]
        return int(inner) < int(outer) and draw.random() < 0.4  # no circles: they are refused
    if leaf == "on" and address.startswith("group/") and "/group/" in address:
        inner, outer = address.split("/")[1:4:2]  # one way round in some shows, the other in others
        onward = inner < outer if seed % 2 else inner > outer
        return onward and draw.random() < 0.4
    if leaf == "on" and ("/dca/" in address or "mute_group/" in address):
        return draw.random() < 0.12
    if leaf == "on" and "/promise/" in address:
        return draw.random() < 0.3
    if leaf == "on" and "/send/" in address:
        return draw.random() < 0.7
    if leaf == "level" and "/group/" in address:  # as a rule nobody trims what goes into a group
        return value_for(address, desk, draw) if draw.random() < 0.2 else None
    if leaf == "make_up":
        return draw.choice([0.0, 0.0, 1.5, 6.0])
    if leaf == "fader":
        return draw.choice([0.0] * 6 + [value_for(address, desk, draw)] * 3)
    if leaf == "tap":
        return draw.choice(TAPS)
    # what bears on no level stays as it is more often: shows are then quicker made
    seldom = any(part in address for part in _SELDOM) or kind in ("preset", "oscillator")
    often = 0.1 if seldom or (kind == "engine" and leaf != "source") else 0.8
    return value_for(address, desk, draw) if draw.random() < often else None


def _shares(address: str, draw: random.Random) -> object:
    """Who shares gain, and how; few are out, so that there is something to hear."""
    leaf = address.rsplit("/", 1)[-1]
    if leaf == "group":
        return draw.choice([None, "sharing/1", "sharing/2"]) if draw.random() < 0.6 else None
    if leaf == "weight":
        return draw.choice([0.0, 0.0, 6.0, -3.0])
    return draw.random() < 0.25


# Two ways of channel 1 into mix 1, one against the other: they cancel, wholly or in part.
_CANCELLING = {
    "channel/1/source": "input/local/1", "channel/1/on_spare": False, "channel/1/polarity": True,
    "channel/1/trim": 0.0, "channel/1/mute": False, "channel/1/fader": 0.0, "channel/1/pan": 0.0,
    "channel/1/send/mix/1/level": 0.0, "channel/1/send/mix/1/on": True,
    "channel/1/send/mix/1/tap": "input", "channel/1/send/mix/1/pan": 0.0,
    "channel/1/group/1/on": True, "channel/1/group/1/level": 0.0, "channel/1/group/2/on": False,
    "channel/1/sharing/out": False, "group/1/sharing/out": False, "mix/1/sharing/out": False,
    "group/1/format": "mono",
    "group/1/fader": 0.0, "group/1/mute": False, "group/1/send/mix/1/level": 0.0,
    "group/1/send/mix/1/on": True, "group/1/send/mix/1/tap": "after_fader",
    "group/1/send/mix/1/pan": 0.0, "mix/1/fader": 0.0, "mix/1/mute": False,
    "output/local/1/source": "mix/1", "output/local/1/tap": "after_fader",
}  # fmt: skip


@lru_cache(maxsize=_POOL)
def show_of_seed(seed: int, desk: Desk = TINY) -> Show:
    """A random show; equal seeds give equal shows."""
    draw = random.Random(seed)
    values = {}
    for address in strip_addresses(desk):
        if address.split("/")[0] in ("line", "input") or address.startswith("show/n"):
            if draw.random() < 0.1:
                values[address] = value_for(address, desk, draw)
            continue
        value = _usual(address, desk, draw, seed)
        if value is not None:
            values[address] = value
    for address in [a for a in values if a.startswith("output/") and a.endswith("/tap")]:
        source = str(values.get(address.replace("/tap", "/source"), ""))
        values[address] = draw.choice(TAPS if source in direct_outs(desk) else BUS_TAPS)
    if seed % 3 == 0:
        values.update(_CANCELLING)
        for address in list(values):  # nothing else rules its strips
            if address.startswith(("channel/1/", "group/1/", "mix/1/")) and (
                "/dca/" in address or "/mute_group/" in address
            ):
                del values[address]
        if draw.random() < 0.3:
            values["group/1/pan"] = 1.0
        if draw.random() < 0.3:
            values["mix/1/format"] = "stereo"
            values["channel/1/send/mix/1/pan"] = draw.choice([-1.0, 0.0])
    if desk is TINY and seed % 6 == 5:
        values.update(_tangled(draw))
    return permitted(blank_show(desk), values)


def tangled_of_seed(seed: int) -> Show:
    """A show in which everything leads everywhere, and nothing else is set."""
    return permitted(blank_show(TINY), _tangled(random.Random(seed)))


def _tangled(draw: random.Random) -> dict:
    """Values of the tiny desk by which everything leads everywhere: buses feed channels and one

    another, one thing closes many strips, much is closed, turned over, soloed in place.
    """
    strips = [f"{kind}/{n}" for kind, most in
              (("channel", 4), ("return", 2), ("group", 2), ("mix", 3), ("matrix", 2))
              for n in range(1, most + 1)] + ["house", "mono"]  # fmt: skip
    rulers = [f"dca/{n}" for n in (1, 2, 3)] + [f"mute_group/{n}" for n in (1, 2)]
    fed = draw.sample([1, 2, 3, 4], draw.choice([1, 1, 2]))
    values: dict = {}
    for strip in strips:
        kind = strip.split("/")[0]
        if kind in ("group", "mix", "matrix"):
            values[f"{strip}/format"] = draw.choice(["stereo", "stereo", "mono"])
        values[f"{strip}/fader"] = draw.choice([0.0, -6.0, -9.0, -3.0, -6.0, -math.inf])
        values[f"{strip}/mute"] = draw.random() < 0.05
        if kind not in ("return", "house") and draw.random() < 0.4:
            values[f"{strip}/sharing/group"] = draw.choice(["sharing/1", "sharing/2"])
            values[f"{strip}/sharing/out"] = draw.random() < 0.15
        if kind == "channel":
            number = int(strip.split("/")[1])
            bus = draw.choice(["group/1", "group/2", "mix/1", "mix/2", "mix/3", "house"])
            side = draw.choice(["", "/left", "/right"])
            values[f"{strip}/source"] = bus + side if number in fed else f"input/local/{number}"
            values[f"{strip}/polarity"] = draw.random() < 0.2
            values[f"{strip}/solo"] = draw.random() < 0.2
        if kind in ("channel", "return", "group"):
            values[f"{strip}/pan"] = draw.choice([0.0, 0.0, -1.0, 1.0, 0.5])
            for bus in ("house", "mono", *(("group/1", "group/2") if kind != "group" else ())):
                values[f"{strip}/{bus}/on"] = draw.random() < 0.45
        for bus in [one for one in strips if one.startswith(("mix/", "matrix/"))]:
            into_mix = kind in ("channel", "return", "group") and bus.startswith("mix")
            if into_mix or (kind in ("group", "mix", "house", "mono") and bus.startswith("matrix")):
                send = f"{strip}/send/{bus}"
                values[f"{send}/level"] = draw.choice([-math.inf, -math.inf, -8.0, -14.0, -20.0])
                values[f"{send}/tap"] = draw.choice(TAPS)
        for ruler in rulers:
            if draw.random() < 0.4:
                values[f"{strip}/{ruler}/on"] = True
    values |= {"return/1/source": "input/a/1", "return/2/source": "input/a/3"}
    values["sharing/1/place"] = draw.choice(["behind_fader", "before_fader"])
    for dca in rulers[:3]:
        values[f"{dca}/fader"] = draw.choice([0.0, -3.0, -6.0, -9.0, 0.0, -math.inf])
        values[f"{dca}/mute"] = draw.random() < 0.15
    for group in rulers[3:]:
        values[f"{group}/on"] = draw.random() < 0.2
        values[f"{group}/hard"] = draw.random() < 0.3
    values["show/solo"] = draw.choice(["before_fader"] * 4 + ["in_place"])
    outputs = draw.sample([f"output/local/{n}" for n in range(1, 9)], 8)
    for bus in [
        "house/left",
        "house/right",
        "mono",
        "mix/1/left",
        "mix/1/right",
        "mix/2",
        "matrix/1",
    ]:
        if draw.random() < 0.8:
            values[f"{outputs.pop()}/source"] = bus
    values[f"{outputs.pop()}/source"] = f"channel/{fed[0]}/direct"
    chain = draw.sample(["group/1", "group/2", "group/3"], 3)
    values["group/3/format"] = draw.choice(["stereo", "mono", "unused"])
    for first, then in pairwise(chain):
        values[f"{first}/{then}/on"] = draw.random() < 0.6
        values[f"{first}/{then}/level"] = draw.choice([0.0, -6.0, -math.inf])
    values[f"{chain[0]}/{chain[2]}/on"] = draw.random() < 0.3
    values[f"{draw.choice(('channel/1', 'return/1'))}/group/3/on"] = draw.random() < 0.7
    return values


def permitted(show: Show, asked: dict) -> Show:
    """The show after as much of an edit as it takes: what would be refused is left out."""
    try:
        return made(show, asked)[0]
    except ConsoleError:
        addresses = list(asked)
        if len(addresses) == 1:
            return show
        half = len(addresses) // 2
        for part in (addresses[:half], addresses[half:]):
            show = permitted(show, {address: asked[address] for address in part})
        return show


def channels_renamed(show: Show, to: dict) -> dict:
    """Own values that put channels at other numbers, new by old."""
    return renamed(show, {f"channel/{old}": f"channel/{new}" for old, new in to.items()})


def edit_of_seed(show: Show, seed: int, *, most: int = 20) -> dict:
    """A random edit of up to `most` values that this show takes; it may be empty."""
    asked = raw_edit_of_seed(show, seed, most=most)
    after = permitted(show, asked)
    return {address: after[address] for address in asked if after[address] != show[address]}


def raw_edit_of_seed(show: Show, seed: int, *, most: int = 20) -> dict:
    """A random edit of values that their addresses accept; together they may be refused."""
    draw = random.Random(seed)
    addresses = draw.sample(strip_addresses(show.desk), draw.choice([1, 1, 1, 2, 5, most]))
    return {address: value_for(address, show.desk, draw) for address in addresses}


SEEDS = st.integers(0, 2**32)
ANEW = bool(os.environ.get("OMBREL_NEW_SEEDS"))
# From fixed seeds properties share a pool of shows, since one costs more to make than most of what
# is asked of it; from new seeds each example has its own.
SHOW_SEEDS = SEEDS if ANEW else st.integers(0, _POOL - 1)


def often(count: int) -> int:
    """How often a costly property is tried: so often from new seeds, half as often before a commit,

    where each run has the same examples as the last.
    """
    return count if ANEW else (count + 1) // 2


def shows(desk: Desk = TINY) -> st.SearchStrategy[Show]:
    """Any random show."""
    return SHOW_SEEDS.map(lambda seed: show_of_seed(seed, desk))

"""Shows for measuring: a desk with everything set: sends, groups, matrices, effects, outputs."""

import random

from ombrel.core import Desk, Show, Value, show_of

__all__ = ["full_show", "scene_values"]

_TAPS = ("before_fader", "after_fader", "before_fader_after_mute")


def full_show(desk: Desk, *, bus_fed: int = 0) -> Show:
    """Every send set, all taps and pans, every group, mix, matrix, engine and processor in use.

    Each channel goes through two groups; outputs carry buses until they end, the rest goes to no
    output, as the table then says. `bus_fed`: how many of the last channels a bus feeds, each a
    mix of its own; they send to all mixes at -60 dB, so that everything is one loop, which is
    solved. Values follow from the numbers alone: each run measures the same show.
    """
    values: dict[str, Value] = {}
    inputs = [f"input/{box.key}/{n}" for box in desk.boxes for n in range(1, box.inputs + 1)]
    effects = range(desk.mixes - desk.effect_engines + 1, desk.mixes + 1)
    first_fed = desk.channels - bus_fed + 1
    for channel in range(1, desk.channels + 1):
        strip, fed = f"channel/{channel}", channel >= first_fed
        mix = (channel - first_fed) % (desk.mixes - len(effects)) + 1
        values[f"{strip}/source"] = f"mix/{mix}" if fed else inputs[channel % len(inputs)]
        values[f"{strip}/name"] = f"Source {channel}"
        values[f"{strip}/fader"] = -float(channel % 30)
        values[f"{strip}/pan"] = (channel % 21 - 10) / 10.0
        values[f"{strip}/trim"] = 0.0 if fed else float(channel % 7 - 3)
        values[f"{strip}/mute"] = channel % 9 == 0
        values[f"{strip}/mono/on"] = channel % 4 == 0
        if not fed:
            for group in {channel % desk.groups + 1, (channel * 5) % desk.groups + 1}:
                values[f"{strip}/group/{group}/on"] = True
        values.update(_sends(desk, strip, channel, -60.0 if fed else None))
    for number in range(1, desk.returns + 1):
        strip = f"return/{number}"
        engine = number <= desk.effect_engines
        values[f"{strip}/source"] = f"engine/{number}" if engine else "input/local/1"
        values[f"{strip}/fader"] = -3.0
        values.update(_sends(desk, strip, number, -60.0 if engine else None))
    for number, mix in enumerate(effects, start=1):
        values[f"mix/{mix}/serves"] = "effect"
        values[f"engine/{number}/source"] = f"mix/{mix}"
    for kind in ("group", "mix", "matrix"):
        for number in range(1, desk.count(kind) + 1):
            values[f"{kind}/{number}/format"] = "stereo"
            values[f"{kind}/{number}/fader"] = -float(number % 5)
    for group in range(1, desk.groups + 1):
        values.update(_sends(desk, f"group/{group}", group, None))
    feeders = [f"group/{n}" for n in range(1, desk.groups + 1)]
    feeders += [f"mix/{n}" for n in range(1, desk.mixes + 1)]
    for matrix in range(1, desk.matrices + 1):
        for turn, bus in enumerate([*feeders, "house", "mono"]):
            values[f"{bus}/send/matrix/{matrix}/level"] = -float((turn * 3 + matrix) % 40) - 0.5
    for strip in (*(f"channel/{n}" for n in range(1, first_fed)), *feeders, "house", "mono"):
        values.update(_processing(strip))
    values.update(_outputs(desk))
    return show_of(desk, values)


def _processing(strip: str) -> dict[str, Value]:
    """Every processor of a strip in use, levels as they were."""
    found: dict[str, Value] = {f"{strip}/eq/{band}/gain": 3.0 - band for band in range(1, 5)}
    found |= {f"{strip}/{one}/on": True for one in ("low_cut", "compressor", "delay")}
    if strip.startswith("channel/"):
        found[f"{strip}/gate/on"] = True
    return found | {f"{strip}/delay/ms": 1.5, f"{strip}/compressor/threshold": -20.0}


def _sends(desk: Desk, strip: str, turn: int, level_db: float | None) -> dict[str, Value]:
    found: dict[str, Value] = {}
    for mix in range(1, desk.mixes + 1):
        send = f"{strip}/send/mix/{mix}"
        varied = -float((turn * 3 + mix * 5) % 40) - 0.5
        found[f"{send}/level"] = varied if level_db is None else level_db
        found[f"{send}/tap"] = _TAPS[(turn + mix) % 3]
        found[f"{send}/pan"] = ((turn + mix * 7) % 19 - 9) / 10.0
    return found


def _outputs(desk: Desk) -> dict:
    outputs = [f"output/{box.key}/{n}" for box in desk.boxes for n in range(1, box.outputs + 1)
               if box.output_block == 1]  # fmt: skip
    buses = ["house", *(f"mix/{n}" for n in range(1, desk.mixes + 1))]
    buses += [f"matrix/{n}" for n in range(1, desk.matrices + 1)]
    sides = ["mono", *(f"{bus}/{side}" for bus in buses for side in ("left", "right"))]
    return {f"{socket}/source": side for socket, side in zip(outputs, sides, strict=False)}


def scene_values(show: Show, seed: int, count: int) -> dict:
    """`count` values that a scene would bring: faders, mutes, sends and pans of channels.

    On a desk with few of them, as many as half of what there is.
    """
    draw = random.Random(seed)
    desk, found = show.desk, {}
    count = min(count, desk.channels * (1 + desk.mixes))
    while len(found) < count:
        channel = draw.randint(1, desk.channels)
        mix = draw.randint(1, desk.mixes)
        address, value = draw.choice(
            [
                (f"channel/{channel}/fader", -float(draw.randint(1, 300)) / 10),
                (f"channel/{channel}/mute", draw.random() < 0.3),
                (f"channel/{channel}/send/mix/{mix}/level", -float(draw.randint(10, 400)) / 10),
                (f"channel/{channel}/send/mix/{mix}/pan", draw.randint(-9, 9) / 10),
            ]
        )
        if show[address] != value:
            found[address] = value
    return found

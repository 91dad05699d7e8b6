"""Shows for measuring: a desk with every channel fed and every send of every mix set."""

from ombrel.core import Desk, Show, blank_show, made

__all__ = ["full_show"]


def full_show(desk: Desk) -> Show:
    """Every send set, with all taps and pans in use; all mixes stereo; every bus patched somewhere.

    The desk has not outputs enough for all of its mixes; those that do not fit carry no output,
    as the table then says. Values follow from the numbers alone: each run measures the same show.
    """
    values = {}
    inputs = [f"input/{box.key}/{n}" for box in desk.boxes for n in range(1, box.inputs + 1)]
    outputs = [f"output/{box.key}/{n}" for box in desk.boxes for n in range(1, box.outputs + 1)]
    taps = ("before_fader", "after_fader", "before_fader_after_mute")
    for channel in range(1, desk.channels + 1):
        strip = f"channel/{channel}"
        values[f"{strip}/source"] = inputs[channel % len(inputs)]
        values[f"{strip}/name"] = f"Source {channel}"
        values[f"{strip}/fader"] = -float(channel % 30)
        values[f"{strip}/pan"] = (channel % 21 - 10) / 10.0
        values[f"{strip}/trim"] = float(channel % 7 - 3)
        values[f"{strip}/mute"] = channel % 9 == 0
        values[f"{strip}/mono/on"] = channel % 4 == 0
        for mix in range(1, desk.mixes + 1):
            send = f"{strip}/send/mix/{mix}"
            values[f"{send}/level"] = -float((channel * 3 + mix * 5) % 40) - 0.5
            values[f"{send}/tap"] = taps[(channel + mix) % 3]
            values[f"{send}/pan"] = ((channel + mix * 7) % 19 - 9) / 10.0
    sides = [f"mix/{n}/{side}" for n in range(1, desk.mixes + 1) for side in ("left", "right")]
    for mix in range(1, desk.mixes + 1):
        values[f"mix/{mix}/format"] = "stereo"
        values[f"mix/{mix}/fader"] = -float(mix % 5)
    for socket, side in zip(outputs, ["house/left", "house/right", "mono", *sides], strict=False):
        values[f"{socket}/source"] = side
    return made(blank_show(desk), values)[0]

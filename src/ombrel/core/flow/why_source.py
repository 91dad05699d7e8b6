"""Why, first half: from the line through its channel into a bus."""

import math

from ..laws import constant_power_pan, db_to_gain, predicted_dbfs
from ..parameters import TAPS
from ..show import Show
from ..sockets import lines_on, socket_name
from .steps import START_LEVEL_DB, TAP_WORDS, Remedy, Step, Walk, setting
from .strips import listener_name, source_name

__all__ = ["head", "into_bus", "mute_and_fader", "processing"]


def head(walk: Walk, show: Show, channel: str) -> None:
    """The line, its socket and the preamp: absolute levels, which the table leaves out."""
    number = int(channel.split("/")[1])
    socket, on_spare = show.source_of(number), show.on(f"{channel}/on_spare")
    name = source_name(show, channel)
    if socket is None and on_spare:
        title = "No spare"
        step = Step(kind="line", title=title, detail="the channel is switched to its spare",
                    open=False, address=f"{channel}/spare")  # fmt: skip
        walk.steps.append(step)
        remedy = setting("Switch to its own source", f"{channel}/on_spare", False)
        told = remedy if isinstance(show[f"{channel}/source"], str) else None
        walk.stop("no_source", f"{name} is switched to a spare that it has not.", told)
        return
    if socket is None:
        walk.steps.append(
            Step(kind="line", title="No source", detail="the channel takes no input", open=False,
                 address=f"{channel}/source")
        )  # fmt: skip
        walk.stop("no_source", f"{name} has no source. Give it one in Patch.", None)
        return
    where = socket_name(show.desk, socket)
    detail = f"spare, socket {where}" if on_spare else f"socket {where}"
    if not socket.startswith("input/"):
        walk.steps.append(
            Step(kind="line", title=where, detail="inside the desk", address=f"{channel}/source")
        )
        return
    lines = lines_on(show, socket)
    title = show.text(f"line/{lines[0]}/name") if lines else "Nothing plugged in"
    line_dbu = show.number(f"line/{lines[0]}/level_dbu") if lines else None
    walk.steps.append(
        Step(kind="line", title=title, detail=detail, dbu=line_dbu,
             address=f"{channel}/source")
    )  # fmt: skip
    box = show.desk.box(socket.split("/")[1])
    if box is None or not box.preamps:
        return
    pad_db = show.desk.pad_db if show.on(f"{socket}/pad") else 0.0
    gain_db = show.number(f"{socket}/gain")
    dbfs = None
    if line_dbu is not None:
        dbfs = predicted_dbfs(
            line_dbu=line_dbu,
            gain_db=gain_db,
            pad_db=pad_db,
            full_scale_dbu=show.desk.full_scale_dbu,
        )
    details = [f"{gain_db:+.1f} dB"]
    if pad_db:
        details.append(f"pad {-pad_db:.0f} dB")
    details.append("48 V on" if show.on(f"{socket}/phantom") else "48 V off")
    walk.steps.append(
        Step(
            kind="preamp",
            title="Preamp",
            detail=", ".join(details),
            dbfs=dbfs,
            address=f"{socket}/gain",
        )
    )


def processing(walk: Walk, show: Show, channel: str, tap: int) -> None:
    """Polarity and trim, which every tap but the input lies behind."""
    trim_db, turned = show.number(f"{channel}/trim"), show.on(f"{channel}/polarity")
    if not trim_db and not turned:
        return
    if tap == TAPS.index("input"):
        walk.passed_by("trim", "Trim", "not in this path: tap at the input", f"{channel}/trim")
        return
    detail = "polarity turned over" if turned else "digital gain"
    walk.scale("trim", "Trim", detail, trim_db, f"{channel}/trim")
    if turned:
        walk.left, walk.right = -walk.left, -walk.right


def mute_and_fader(walk: Walk, show: Show, channel: str, tap: int) -> None:
    name = source_name(show, channel)
    said = f"not in this path: tap {TAP_WORDS[TAPS[tap]]}"
    if show.on(f"{channel}/mute"):
        if tap >= TAPS.index("before_fader_after_mute"):
            walk.steps.append(
                Step(kind="mute", title="Mute", detail=f"{name} is muted", open=False,
                     address=f"{channel}/mute")
            )  # fmt: skip
            remedy = setting(f"Unmute {name}", f"{channel}/mute", False)
            walk.stop("muted", f"{name} is muted by its own key.", remedy)
        else:
            walk.passed_by("mute", "Mute", said, f"{channel}/mute")
    level_db = show.number(f"{channel}/fader")
    if tap < TAPS.index("after_fader"):
        walk.passed_by("fader", "Fader", said, f"{channel}/fader")
        return
    walk.scale("fader", "Fader", name, level_db, f"{channel}/fader")
    if level_db == -math.inf:
        remedy = setting(
            f"Bring the fader up to {START_LEVEL_DB:.0f} dB", f"{channel}/fader", START_LEVEL_DB
        )
        walk.stop("down", f"The fader of {name} is off.", remedy)


def _pan_words(pan: float) -> str:
    if pan == 0.0:
        return "centre"
    return f"{'L' if pan < 0 else 'R'}{abs(pan) * 100:.0f}"


def into_bus(walk: Walk, show: Show, channel: str, bus: str, stereo: bool) -> None:
    """The send, or the assignment to the house or mono, with its pan."""
    names = f"{source_name(show, channel)} to {listener_name(show, bus)}"
    if bus in ("house", "mono"):
        address, level_db, how = f"{channel}/{bus}/on", 0.0, "after fader"
        is_open, pan_address, title = show.on(address), f"{channel}/pan", f"To {bus}"
        closed = f"{source_name(show, channel)} is not assigned to {bus}."
        remedy = setting(f"Assign it to {bus}", address, True)
    else:
        address = f"{channel}/send/{bus}/level"
        on_address = f"{channel}/send/{bus}/on"
        level_db, how = show.number(address), TAP_WORDS[show.text(f"{channel}/send/{bus}/tap")]
        pan_address, title, is_open = f"{channel}/send/{bus}/pan", "Send", True
        if level_db == -math.inf:
            is_open, closed = False, f"The send from {names} is off."
            remedy = Remedy(
                says=f"Open the send at {START_LEVEL_DB:.0f} dB",
                moves={address: START_LEVEL_DB, on_address: True},
            )
        elif not show.on(on_address):
            is_open, closed = False, f"The send from {names} is switched off."
            remedy = setting("Switch the send on", on_address, True)
    pan = show.number(pan_address) if stereo else 0.0
    detail = f"{how}, {_pan_words(pan)}" if stereo else how
    if not is_open:
        walk.steps.append(
            Step(kind="send", title=title, detail=detail, gain_db=-math.inf, open=False,
                 address=address)
        )  # fmt: skip
        walk.stop("unrouted", closed, remedy)
        return
    signal, gain = walk.left, float(db_to_gain(level_db))
    if stereo:
        left, right = (float(side) for side in constant_power_pan(pan))
        walk.stage("send", title, detail, (signal * gain * left, signal * gain * right), address)
    else:
        walk.stage("send", title, detail, (signal * gain, 0.0), address)
    if walk.steps[-1].gain_db is None:  # silent before: tell the send's own level all the same
        walk.steps[-1] = Step(
            kind="send", title=title, detail=detail, gain_db=level_db, address=address
        )

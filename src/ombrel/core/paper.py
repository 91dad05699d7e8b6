"""What goes on paper: tables of text for the people who plug, patch and listen."""

from dataclasses import dataclass

from .flow import strip_name
from .show import Show
from .sockets import channels_on, lines_on, returns_on, socket_name, sockets_of_line, strip_of

__all__ = ["SHEETS", "Sheet", "input_list_sheet", "output_list_sheet", "patch_sheet", "sheet_of"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Sheet:
    """One table. `key` names it in addresses; every row has as many cells as `columns`."""

    key: str
    title: str
    columns: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]


def _level(level_db: float, unit: str) -> str:
    return f"{level_db:+.0f} {unit}".replace("-", "\u2212")


def input_list_sheet(show: Show) -> Sheet:
    """Every line in the list's order, with its channel and socket."""
    rows = []
    for place, line in enumerate(show.lines(), start=1):
        sockets = sockets_of_line(show, line)
        channels = [str(n) for socket in sockets for n in channels_on(show, socket)]
        text = {
            leaf: show.text(f"line/{line}/{leaf}")
            for leaf in ("name", "kind", "microphone", "performer", "where", "stand", "notes")
        }
        rows.append(
            (
                str(place),
                ", ".join(channels),
                text["name"] + (" (stereo)" if show.on(f"line/{line}/stereo") else ""),
                text["microphone"] or text["kind"].replace("_", " "),
                "48 V" if show.on(f"line/{line}/phantom") else "",
                text["stand"],
                text["performer"],
                text["where"],
                ", ".join(socket_name(show.desk, socket) for socket in sockets),
                text["notes"],
            )
        )
    return Sheet(
        key="input-list",
        title="Input list",
        columns=("No.", "Channel", "Name", "Mic or DI", "48 V", "Stand", "Performer", "Where",
                 "Socket", "Notes"),
        rows=tuple(rows),
    )  # fmt: skip


def patch_sheet(show: Show) -> Sheet:
    """Every input socket that is used, box by box: for the person with the multicore."""
    rows, back = [], returns_on(show)
    for socket in show.inputs():
        lines, channels = lines_on(show, socket), channels_on(show, socket)
        strips = [f"{n} {strip_name(show, f'channel/{n}')}" for n in channels]
        strips += [f"R{n} {strip_name(show, f'return/{n}')}" for n in back.get(socket, ())]
        if not lines and not strips:
            continue
        box = show.desk.box(socket.split("/")[1])
        preamp = box is not None and box.preamps
        stands = {show.text(f"line/{line}/where") for line in lines} - {""}
        rows.append(
            (
                box.name if box else "",
                socket.split("/")[2],
                " + ".join(_side_name(show, line, socket) for line in lines) or "\u2014",
                ", ".join(sorted(stands)),
                _level(show.number(f"{socket}/gain"), "dB") if preamp else "",
                "48 V" if preamp and show.on(f"{socket}/phantom") else "",
                "pad" if preamp and show.on(f"{socket}/pad") else "",
                ", ".join(strips),
            )
        )
    return Sheet(
        key="patch-sheet",
        title="Patch sheet",
        columns=("Box", "Socket", "Line", "Where", "Gain", "48 V", "Pad", "Channel"),
        rows=tuple(rows),
    )


def _side_name(show: Show, line: int, socket: str) -> str:
    name = show.text(f"line/{line}/name")
    if not show.on(f"line/{line}/stereo"):
        return name
    return f"{name} {'L' if show[f'line/{line}/socket'] == socket else 'R'}"


def output_list_sheet(show: Show) -> Sheet:
    """Every output socket that carries something or has something connected."""
    rows = []
    for socket in show.outputs():
        source, label = show[f"{socket}/source"], show.text(f"{socket}/label")
        device = show.text(f"{socket}/device")
        if source is None and not label and device == "none":
            continue
        box = show.desk.box(socket.split("/")[1])
        carries = "\u2014"
        if isinstance(source, str):
            side = source.rsplit("/", 1)[-1]
            carries = strip_name(show, strip_of(source))
            carries += {"left": " L", "right": " R", "direct": ", direct"}.get(side, "")
        trim_db, delay_ms = show.number(f"{socket}/trim"), show.number(f"{socket}/delay_ms")
        rows.append(
            (
                box.name if box else "",
                socket.split("/")[2],
                carries,
                show.text(f"{socket}/tap").replace("_", " ") if source else "",
                _level(trim_db, "dB") if trim_db else "",
                f"{delay_ms:g} ms" if delay_ms else "",
                "turned over" if show.on(f"{socket}/polarity") else "",
                "" if device == "none" else device.replace("_", " "),
                label,
            )
        )
    return Sheet(
        key="output-list",
        title="Output list",
        columns=("Box", "Socket", "Carries", "Tap", "Trim", "Delay", "Polarity", "Device",
                 "Connected"),
        rows=tuple(rows),
    )  # fmt: skip


SHEETS = {
    "input-list": input_list_sheet,
    "patch-sheet": patch_sheet,
    "output-list": output_list_sheet,
}


def sheet_of(show: Show, key: str) -> Sheet | None:
    """The sheet of a key, or None for a key that there is not."""
    made = SHEETS.get(key)
    return made(show) if made else None

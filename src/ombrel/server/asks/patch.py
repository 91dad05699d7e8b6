"""What a screen can ask of sockets: runs of them, one plugged, fed or taken out."""

from typing import Literal

from ombrel import core

from .asking import Address, Strict, Typing
from .plans import Planned, Turn

__all__ = ["PatchAsk"]


class Fill(Strict):
    """Give a run of sockets to channels, or move all that uses them to other sockets, as typed."""

    action: Literal["fill"]
    sockets: Typing
    to: Typing

    def plan(self, turn: Turn) -> Planned:
        return Planned(core.fill(turn.show, self.sockets, self.to), f"{self.sockets} to {self.to}")


class Plug(Strict):
    """Plug a line into a socket as typed; empty text unplugs it."""

    action: Literal["plug"]
    line: int
    socket: Typing
    right: bool = False

    def plan(self, turn: Turn) -> Planned:
        socket = core.one_socket(turn.show.desk, self.socket)
        return Planned(core.plug_line(turn.show, self.line, socket, right=self.right))


class Feed(Strict):
    """Give a channel a source, or its spare, as typed; empty text takes it away."""

    action: Literal["feed"]
    channel: int
    socket: Typing
    spare: bool = False

    def plan(self, turn: Turn) -> Planned:
        socket = core.one_socket(turn.show.desk, self.socket)
        if self.spare:
            return Planned({f"channel/{self.channel}/spare": socket})
        if socket is None:
            return Planned({f"channel/{self.channel}/source": None})
        return Planned(core.fill_channels(turn.show, [socket], [self.channel]))


class PatchOutput(Strict):
    """Let an output carry a source, or nothing; where a desk patches in blocks, the whole block."""

    action: Literal["patch_output"]
    socket: Address
    source: Address | None

    def plan(self, turn: Turn) -> Planned:
        return Planned(core.patch_output(turn.show, self.socket, self.source))


class PatchOutputs(Strict):
    """Let outputs carry what is typed: "1-20 direct to Tape 1, before the fader"."""

    action: Literal["patch_outputs"]
    text: Typing

    def plan(self, turn: Turn) -> Planned:
        return Planned(core.patch_outputs(turn.show, self.text), self.text)


PatchAsk = Fill | Plug | Feed | PatchOutput | PatchOutputs

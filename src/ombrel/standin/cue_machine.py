"""A stand-in cue machine: it plays a sheet of times and messages, or sends one by hand.

    python -m ombrel.standin.cue_machine [PORT]

It is told what to do by OSC over UDP on loopback, and answers each time with how it stands:

    /machine/target   s:osc_udp|osc_tcp|midi_tcp s:host i:port    where it sends
    /machine/clear    /machine/line f:seconds s:message           its sheet
    /machine/play     /machine/stop     /machine/fire s:message
    /machine/faults   f:drop f:double f:swap    how often it errs, each 0 to 1
    /machine/state
    from it           /machine/told i:playing f:seconds i:sent i:lines s:last
"""

import random
import socket
import sys
import time
from contextlib import suppress
from typing import Final

from ombrel.core import BadFile, ConsoleError, is_osc
from ombrel.formats.cue_bytes import MOST_LINES, cue_bytes
from ombrel.formats.osc import OscMessage, read_packet, slipped, write_message

__all__ = ["CueMachine", "main"]

_TICK_S: Final = 0.01
_CONNECT_S: Final = 1.0
_WAYS: Final = ("osc_udp", "osc_tcp", "midi_tcp")


class CueMachine:
    """Its sheet, where it sends, and how it errs: the same each time for the same seed."""

    def __init__(self, seed: int = 1) -> None:
        self.lines: list[tuple[float, str]] = []
        self.sent = 0
        self.last = ""
        self.begun_s: float | None = None
        self._next = 0
        self._target = ("osc_udp", "127.0.0.1", 0)
        self._faults = (0.0, 0.0, 0.0)
        self._kept: str | None = None  # that goes behind the one after it
        self._chance = random.Random(seed)
        self._udp = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        self._stream: socket.socket | None = None

    def obey(self, message: OscMessage, now_s: float) -> None:
        """Do what it is told."""
        match message.address, message.arguments:
            case "/machine/target", (str(way), str(host), float(port)) if way in _WAYS:
                self._close()
                self._target = (way, host, int(port))
            case "/machine/clear", ():
                self.lines, self.begun_s, self.sent = [], None, 0
            case "/machine/line", (float(at_s), str(text)) if len(self.lines) < MOST_LINES:
                self.lines.append((at_s, text))
            case "/machine/play", ():
                self.lines.sort(key=lambda one: one[0])
                self.begun_s, self._next, self.sent = now_s, 0, 0
            case "/machine/stop", ():
                self.begun_s = None
            case "/machine/fire", (str(text),):
                self._err(text)
            case "/machine/faults", (float(drop), float(double), float(swap)):
                self._faults = (drop, double, swap)

    def step(self, now_s: float) -> None:
        """Send what is due."""
        if self.begun_s is None:
            return
        while self._next < len(self.lines) and self.lines[self._next][0] <= now_s - self.begun_s:
            self._err(self.lines[self._next][1])
            self._next += 1
        if self._next >= len(self.lines):
            if self._kept is not None:
                kept, self._kept = self._kept, None
                self._send(kept)
            self.begun_s = None

    def told(self, now_s: float) -> bytes:
        """How it stands."""
        at_s = 0.0 if self.begun_s is None else now_s - self.begun_s
        playing = int(self.begun_s is not None)
        return write_message("/machine/told", playing, at_s, self.sent, len(self.lines), self.last)

    def _err(self, text: str) -> None:
        """Send a message, or err with it: lose it, say it twice, let the next go first."""
        drop, double, swap = self._faults
        kept, self._kept = self._kept, None
        if self._chance.random() >= drop:
            if kept is None and self._chance.random() < swap and self.begun_s is not None:
                self._kept = text
            else:
                self._send(text)
                if self._chance.random() < double:
                    self._send(text)
        if kept is not None:
            self._send(kept)

    def _send(self, text: str) -> None:
        way, host, port = self._target
        self.sent += 1
        self.last = text
        try:
            content = cue_bytes(text)
        except ConsoleError as error:
            self.last = f"{text}: {error}"
            return
        if is_osc(text) == (way == "midi_tcp"):
            self.last = f"{text}: cannot go this way"
            return
        if way == "osc_udp":
            with suppress(OSError):
                self._udp.sendto(content, (host, port))
            return
        content = slipped(content) if way == "osc_tcp" else content
        for _ in range(2):  # a stream that was closed is opened again, once
            try:
                if self._stream is None:
                    self._stream = socket.create_connection((host, port), _CONNECT_S)
                self._stream.sendall(content)
                return
            except OSError:
                self._close()
        self.last = f"{text}: nobody is at {host}:{port}"

    def _close(self) -> None:
        if self._stream is not None:
            self._stream.close()
            self._stream = None


def main(port: int) -> None:
    """Serve until ended."""
    machine = CueMachine()
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as link:
        link.bind(("127.0.0.1", port))
        link.settimeout(_TICK_S)
        while True:
            with suppress(TimeoutError, BadFile, ConnectionError):
                content, sender = link.recvfrom(8_192)
                for one in read_packet(content):
                    machine.obey(one, time.monotonic())
                link.sendto(machine.told(time.monotonic()), sender)
            machine.step(time.monotonic())


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 9124)

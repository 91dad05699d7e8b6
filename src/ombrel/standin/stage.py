"""A stand-in stage: it feeds tone, noise or talk into lines, and cables can be swapped on it.

    python -m ombrel.standin.stage [PORT [FOLDER]]

A recorder stands beside it: it writes its tracks into the folder, and plays them back.

It speaks the messages of `formats.stage_osc` over UDP on loopback, and tells levels ten times a
second to whoever asked within the last three seconds.
"""

import random
import socket
import sys
import tempfile
import time
from pathlib import Path

from ombrel.core import BadFile
from ombrel.formats.stage_osc import Command, levels, read_command

from .recorder import Recorder, Take
from .talkers import Talkers

__all__ = ["Stage", "main"]

TICK_S, KEPT_S = 0.1, 3.0
_WOBBLE_DB = {"tone": 0.0, "noise": 1.5}


class Stage:
    """Which plug is fed what, and where it really is. All that are fed speech talk together."""

    def __init__(self, seed: int = 1, folder: Path | None = None) -> None:
        self.recorder = Recorder(folder or Path(tempfile.gettempdir()) / "ombrel-recordings")
        self.fed: dict[str, tuple[str, float]] = {}
        self.cables: dict[str, str] = {}
        self._chance = random.Random(seed)
        self._talkers = Talkers(seed)

    def obey(self, command: Command) -> None:
        """Carry out a command, save `listen`, which is the network's matter."""
        if command.verb == "feed":
            self.fed.pop(command.sockets[0], None)
            if command.signal != "nothing":
                self.fed[command.sockets[0]] = (command.signal, command.dbu)
        elif command.verb == "swap":
            one, other = command.sockets
            here, there = self.cables.get(one, one), self.cables.get(other, other)
            self.cables[one], self.cables[other] = there, here
        elif command.verb == "straight":
            self.cables.clear()
        elif command.verb == "track":
            take = Take(
                socket=command.sockets[0],
                name=command.name,
                dbfs=command.dbfs,
                full_scale_dbu=command.dbu,
            )
            self.recorder.arm(take)
        elif command.verb == "record":
            self.recorder.record(command.seconds)
        elif command.verb == "play":
            self.recorder.play()
        elif command.verb == "stop":
            self.recorder.stop()

    def levels_dbu(self, elapsed_s: float = TICK_S) -> dict[str, float]:
        """Level at each socket where a signal is, in dBu, so many seconds after the last."""
        talking = [plug for plug, (signal, _) in self.fed.items() if signal == "speech"]
        said = dict(zip(talking, self._talkers.after(len(talking), elapsed_s), strict=True))
        spoken = {self.cables.get(plug, plug): self.fed[plug][1] + db for plug, db in said.items()}
        played = self.recorder.levels_dbu(elapsed_s)
        return (
            played
            | spoken
            | {
                self.cables.get(plug, plug): dbu + self._chance.uniform(-1, 1) * _WOBBLE_DB[signal]
                for plug, (signal, dbu) in self.fed.items()
                if signal != "speech"
            }
        )


def main(port: int, folder: Path | None = None) -> None:
    """Serve until ended. `folder`: where the recorder writes."""
    stage, listeners = Stage(folder=folder), dict[tuple[str, int], float]()
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as link:
        link.bind(("127.0.0.1", port))
        link.settimeout(TICK_S / 2)
        due = time.monotonic()
        while True:
            try:
                content, sender = link.recvfrom(8192)
                command = read_command(content)
                if command.verb == "listen":
                    listeners[sender] = time.monotonic() + KEPT_S
                else:
                    stage.obey(command)
            except (TimeoutError, BadFile, ConnectionError):
                pass  # nothing came, nothing that is understood, or a listener has gone
            now = time.monotonic()
            if now >= due:
                due = now + TICK_S
                stage.recorder.step()
                told = levels(stage.levels_dbu())
                for listener in [who for who, until in listeners.items() if until > now]:
                    link.sendto(told, listener)


if __name__ == "__main__":
    main(
        int(sys.argv[1]) if len(sys.argv) > 1 else 9123,
        Path(sys.argv[2]) if len(sys.argv) > 2 else None,
    )

"""What a screen does about cues from outside: arms them, switches ways, undoes one, plays some."""

import logging
from collections.abc import Callable
from functools import partial
from uuid import UUID

from ombrel import core
from ombrel.formats.cue_bytes import read_sheet

from ..keeping.cues import arm, port_of, set_once, set_way, undo_request
from ..keeping.request import Outcome, Refused
from ..keeping.work import in_database, in_thread
from ..links.machine import machine_link
from ..messages import from_screen
from .cueing import cueing
from .rooms import Room
from .ticker import Ticker

__all__ = ["CUE_MESSAGES", "CueKeys"]

_LOG = logging.getLogger(__name__)
CUE_MESSAGES = (
    from_screen.ArmCues,
    from_screen.SetCueWay,
    from_screen.SetCueOnce,
    from_screen.RunMachine,
)
Message = (
    from_screen.ArmCues | from_screen.SetCueWay | from_screen.SetCueOnce | from_screen.RunMachine
)


class CueKeys:
    """One screen's. `name`: of its person; `answer`: tells it what became of an undo."""

    def __init__(
        self,
        room: Room,
        ticker: Ticker,
        name: str,
        answer: Callable[[UUID, Outcome | Exception], None],
    ) -> None:
        self._room, self._ticker, self._name, self._answer = room, ticker, name, answer

    async def pressed(self, message: Message) -> None:
        """Do what a message asks. Raises what it is refused for."""
        show_id = self._room.show_id
        match message:
            case from_screen.ArmCues():
                await in_database(arm, show_id, message.mode, self._name)
            case from_screen.SetCueWay():
                change = partial(
                    set_way, show_id, message.kind, on=message.on, host=message.host,
                    port=message.port, senders=message.senders, answers=message.answers,
                )  # fmt: skip
                await in_database(change)
                cueing().look()
            case from_screen.SetCueOnce():
                await in_database(set_once, show_id, message.typed)
                cueing().look()
            case from_screen.RunMachine():
                await self._machine(show_id, message)
                return
        self._room.cues_moved()

    async def undo(self, message: from_screen.UndoCue) -> None:
        """Undo what a cue did: that waits for its tick, and holds up nothing of this screen."""
        show_id = self._room.show_id
        try:
            request = await in_database(undo_request, show_id, message.told, message.id, self._name)
            outcome: Outcome | Exception = await self._ticker.submit(request)
        except core.ConsoleError as error:
            outcome = Refused(error)
        except Exception as error:  # told as a fault of Ombrel's own
            _LOG.exception("a cue could not be undone")
            outcome = error
        self._answer(message.id, outcome)
        self._room.cues_moved()

    async def _machine(self, show_id: UUID, message: from_screen.RunMachine) -> None:
        link = machine_link()
        if message.do == "stop":
            await link.stop()
        elif message.do == "err":
            await link.err(message.lose / 100, message.double / 100, message.swap / 100)
        else:
            port = await in_database(port_of, show_id, message.way, again=True)
            if message.do == "fire":
                await link.fire(core.read_comes(message.sheet), message.way, port)
            else:
                await link.play(await in_thread(read_sheet, message.sheet), message.way, port)

"""What processes that serve the same shows tell one another, over Redis; one alone needs none.

Nothing rests on it: what is kept stands in the database, and whoever hears nothing looks there.
"""

import asyncio
import contextlib
import json
import logging
from collections.abc import Callable
from typing import Any, Final
from uuid import UUID, uuid4

from django.conf import settings
from redis.asyncio import Redis
from redis.exceptions import RedisError

__all__ = ["PROCESS", "Exchange", "exchange"]

PROCESS: Final = uuid4().hex  # the name of this process among the others
_AGAIN_S = 1.0  # after so long a lost Redis is asked again
_CHANNEL = "ombrel.shows"
_LOG = logging.getLogger(__name__)

Hear = Callable[[dict[str, Any]], None]


class Exchange:
    """This process's link to the others. `shared`: there may be others at all."""

    def __init__(self, address: str) -> None:
        self.shared = bool(address)
        self._address = address
        self._hearing: dict[str, Hear] = {}
        self._saying: Redis | None = None
        self._task: asyncio.Task[None] | None = None
        self._said: set[asyncio.Task[None]] = set()
        self.connected = False

    def hear(self, show_id: UUID, told: Hear) -> None:
        """From now on `told` gets what others say of a show; and `{}` when something may have been

        missed.
        """
        self._hearing[str(show_id)] = told
        if self.shared and (self._task is None or self._task.done()):
            self._task = asyncio.create_task(self._listen())

    def enough(self, show_id: UUID) -> None:
        """Nobody here has a show open any more; the last one ends the link."""
        self._hearing.pop(str(show_id), None)
        if not self._hearing and self._task is not None:
            self._task.cancel()

    def say(self, show_id: UUID, message: dict[str, Any]) -> None:
        """Tell the others, if they can be reached."""
        if self.shared:
            text = json.dumps({"show": str(show_id), "from": PROCESS, **message})
            task = asyncio.create_task(self._say(text))
            self._said.add(task)
            task.add_done_callback(self._said.discard)

    async def _say(self, text: str) -> None:
        if self._saying is None:
            self._saying = Redis.from_url(self._address, socket_timeout=2.0)
        with contextlib.suppress(RedisError, OSError):  # they look into the database by themselves
            await self._saying.publish(_CHANNEL, text)

    async def _listen(self) -> None:
        complained = False
        while True:
            # no timeout of reading: a show that nobody moves is silent for hours
            link = Redis.from_url(self._address, socket_timeout=None, health_check_interval=15)
            try:
                async with link.pubsub() as ear:
                    await ear.subscribe(_CHANNEL)
                    self.connected, complained = True, False
                    for told in list(self._hearing.values()):
                        told({})  # what was said meanwhile nobody heard
                    async for message in ear.listen():
                        self._heard(message)
            except (RedisError, OSError) as error:
                if not complained:
                    _LOG.warning("Redis does not answer; moves elsewhere come later: %s", error)
                    complained = True
            finally:
                self.connected = False
                with contextlib.suppress(RedisError, OSError):
                    await link.aclose()
            await asyncio.sleep(_AGAIN_S)

    def _heard(self, message: dict[str, Any]) -> None:
        if message["type"] != "message":
            return
        said = json.loads(message["data"])
        told = self._hearing.get(said["show"])
        if told is not None and said["from"] != PROCESS:
            told(said)


_EXCHANGES: dict[int, Exchange] = {}


def exchange() -> Exchange:
    """The one exchange of this process (for each event loop, since tests have several)."""
    here = id(asyncio.get_running_loop())
    if here not in _EXCHANGES:
        _EXCHANGES[here] = Exchange(settings.REDIS)
    return _EXCHANGES[here]

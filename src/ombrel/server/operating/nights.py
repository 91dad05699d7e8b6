"""What a server does by itself while it runs: a backup each night, a look at its own lateness."""

import asyncio
import logging
import os
import sys
import time
from datetime import datetime, timedelta
from datetime import time as clock_time
from pathlib import Path
from typing import Final

from django.db import connection

from .backups import backups_in
from .given import Given
from .metrics import FIGURES, Lateness

__all__ = ["backup_begun", "backup_running", "by_night", "last_due", "next_due"]

_LOG = logging.getLogger(__name__)
_LOOK_S: Final = 60.0
# a machine that is off at night makes one some time after it is on: not while all begins
_AFTER_START: Final = timedelta(minutes=10)
_AGAIN: Final = timedelta(hours=1)  # after one that failed
_running: asyncio.subprocess.Process | None = None


def last_due(now: datetime, at: clock_time) -> datetime:
    """When a backup was due last, by a local clock."""
    today = now.replace(hour=at.hour, minute=at.minute, second=0, microsecond=0)
    return today if today <= now else today - timedelta(days=1)


def next_due(now: datetime, at: clock_time) -> datetime:
    """When the next is due."""
    return last_due(now, at) + timedelta(days=1)


async def by_night(given: Given) -> None:
    """Runs as long as the server does."""
    started, late, looked = datetime.now().astimezone(), Lateness(), -_LOOK_S
    tried: datetime | None = None
    while True:
        await asyncio.sleep(Lateness.PERIOD_S)
        late.now()
        if given.backup_at is None or time.monotonic() - looked < _LOOK_S:
            continue
        looked = time.monotonic()
        now = datetime.now().astimezone()
        last = await asyncio.to_thread(_last_good, given.backup_folder)
        if last is not None:
            FIGURES.backup_at.set(last.timestamp())
        due = last_due(now, given.backup_at)
        if (last is not None and last >= due) or (due < started and now - started < _AFTER_START):
            continue
        if tried is None or now - tried > _AGAIN:
            tried = now
            await backup_begun("night")


def _last_good(folder: Path) -> datetime | None:
    found = backups_in(folder)
    return found[0].made_at if found else None


def backup_running() -> bool:
    """Whether this process has one made just now."""
    return _running is not None and _running.returncode is None


async def backup_begun(reason: str) -> bool:
    """Have one made, in a process of its own; False: one is being made. Its files tell the rest."""
    global _running
    if backup_running():
        return False
    name = str(connection.settings_dict["NAME"])  # of a test, its own
    _running = await asyncio.create_subprocess_exec(
        *(sys.executable, "-m", "django", "backup", "--reason", reason),
        env={**os.environ, "PYTHONPATH": os.pathsep.join(sys.path), "OMBREL_DB_NAME": name},
        stdout=asyncio.subprocess.DEVNULL,
    )
    return True

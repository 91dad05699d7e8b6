"""The HTTP side of backups, for administrators: when the last good one was, and one made now."""

from datetime import datetime, timedelta
from typing import Any, Final, Literal

from django.conf import settings
from django.http import HttpRequest
from ninja import Router, Schema

from ..keeping.work import in_database
from ..operating.backups import Backup, backups_in, failure_in
from ..operating.given import Given
from ..operating.kept import Reason
from ..operating.nights import backup_begun, backup_running, next_due
from ..operating.unsafe import same_disk

__all__ = ["router"]

router = Router(tags=["backups"])
_LATE: Final = timedelta(hours=36)  # a night was missed


class BackupRow(Schema):
    """A good backup: read back, and it held what the database held. `size` in bytes."""

    name: str
    made_at: datetime
    reason: Reason
    size: int
    shows: int
    changes: int
    accounts: int
    seconds: float


class BackupsReply(Schema):
    """All good backups, the newest first. `at`: when each night one is made, by the server's clock

    ("": never), `next` the next time; `standing`: "good", "late" (a night was missed), "none";
    `failed`: why the last try failed, if none succeeded since; `running`: one is being made.
    """

    folder: str
    same_disk: bool
    at: str
    next: datetime | None
    standing: Literal["good", "late", "none"]
    running: bool
    failed: str
    failed_at: datetime | None
    backups: list[BackupRow]


def _row(one: Backup) -> dict[str, Any]:
    names = ("name", "made_at", "reason", "size", "shows", "changes", "accounts", "seconds")
    return {name: getattr(one, name) for name in names}


def _standing() -> dict[str, Any]:
    given: Given = settings.GIVEN
    there = backups_in(given.backup_folder)
    failed = failure_in(given.backup_folder)
    now = datetime.now().astimezone()
    late = bool(there) and now - there[0].made_at > _LATE
    return {
        "folder": str(given.backup_folder),
        "same_disk": same_disk(given),
        "at": given.backup_at.isoformat("minutes") if given.backup_at else "",
        "next": next_due(now, given.backup_at) if given.backup_at else None,
        "standing": "none" if not there else "late" if late else "good",
        "running": backup_running(),
        "failed": failed[1] if failed else "",
        "failed_at": failed[0] if failed else None,
        "backups": [_row(one) for one in there],
    }


@router.get("/backups", response=BackupsReply)
async def list_backups(request: HttpRequest) -> dict[str, Any]:
    """When the last good one was, and all that are kept."""
    return await in_database(_standing)


@router.post("/backups", response=BackupsReply)
async def begin_backup(request: HttpRequest) -> dict[str, Any]:
    """Have one made; while one is being made, that one does."""
    await backup_begun("hand")
    return await in_database(_standing)

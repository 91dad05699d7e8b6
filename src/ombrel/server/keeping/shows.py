"""Shows as wholes: made from values, and copied."""

import uuid

from ombrel.core import Show

from .. import models
from ..asks.plans import Planned
from .door import Refused, Request, commit
from .live import live_of

__all__ = ["copy_of", "made_from"]


def made_from(name: str, show: Show, author_id: int | None, says: str) -> models.Show:
    """A new show that holds the values of `show`. What the door refuses is raised; none is made."""
    row = models.Show.objects.create(name=name[:60], desk=show.desk.key)
    try:
        planned = Planned({}, says, own=True, begins=show)
        edit_id = uuid.uuid4()
        request = Request(
            edit_id=edit_id, author_id=author_id, gesture=str(edit_id), plan=lambda turn: planned
        )
        (outcome,), _, _ = commit(row.pk, [request])
        if isinstance(outcome, Refused):
            raise outcome.error
    except Exception:
        row.delete()  # no half-made show stays behind
        raise
    return row


def copy_of(row: models.Show, author_id: int | None) -> models.Show:
    """A new show with all that stands in `row`, under its name and "copy"."""
    show = live_of(row.pk).now().show
    name = f"{row.name[:55]} copy"
    values = show.with_values({"show/name": name})
    return made_from(name, values, author_id, f"Copied from {row.name}"[:200])

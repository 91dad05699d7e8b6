"""Shows as wholes: made from values, copied, taken to another desk, and what is kept aside."""

import uuid
from collections.abc import Mapping, Sequence

from ombrel import core
from ombrel.core import Show

from .. import models
from ..asks.plans import Planned
from .desks import desk_of
from .door import commit
from .live import live_of
from .request import Refused, Request

__all__ = ["asides_of", "copy_of", "elsewhere", "made_from", "whole_of"]


def made_from(
    name: str, show: Show, author_id: int | None, says: str, asides: Sequence[core.Aside] = ()
) -> models.Show:
    """A new show that holds the values of `show`. What the door refuses is raised; none is made.

    `asides`: what is kept aside with it.
    """
    row = models.Show.objects.create(name=name[:60], desk=show.desk.key, owner_id=author_id)
    try:
        planned = Planned({}, says, own=True, begins=show)
        edit_id = uuid.uuid4()
        request = Request(
            edit_id=edit_id, author_id=author_id, gesture=str(edit_id), plan=lambda turn: planned
        )
        (outcome,), _, _ = commit(row.pk, [request])
        if isinstance(outcome, Refused):
            raise outcome.error
        if asides:
            kept = [core.aside_to_wire(one) for one in asides]
            models.Aside.objects.create(show=row, revision=1, kept=kept)
    except Exception:
        row.delete()  # no half-made show stays behind
        raise
    return row


def copy_of(row: models.Show, author_id: int | None) -> models.Show:
    """A new show with all that stands in `row`, under its name and "copy"."""
    show = live_of(row.pk).now().show
    name = f"{row.name[:55]} copy"
    values = show.with_values({"show/name": name})
    return made_from(name, values, author_id, f"Copied from {row.name}"[:200], asides_of(row.pk))


def asides_of(show_id: uuid.UUID) -> tuple[core.Aside, ...]:
    """What is kept aside with a show, by the numbers that its strips have now."""
    row = models.Aside.objects.filter(show_id=show_id).first()
    if row is None:
        return ()
    asides = tuple(core.aside_from_wire(one) for one in row.kept)
    log = models.Change.objects.filter(show_id=show_id, revision__gt=row.revision)
    for change in log.exclude(renumbered={}).only("renumbered").order_by("revision"):
        asides = core.renumbered_asides(asides, change.renumbered)
    return asides


def whole_of(show_id: uuid.UUID) -> tuple[Show, tuple[core.Aside, ...]]:
    """A show as it stands, and what is kept aside with it."""
    return live_of(show_id).now().show, asides_of(show_id)


def elsewhere(
    show: Show,
    asides: Sequence[core.Aside],
    desk: core.Desk,
    boxes: Mapping[str, str] | None,
) -> core.Moved:
    """What a show would be on another desk: seconds of work for the largest. Raises

    UnreadableText.
    """
    return core.moved(show, asides, desk, boxes, known=_known)


def _known(key: str) -> core.Desk | None:
    try:
        return desk_of(key)
    except core.BadFile:
        return None  # its profile was taken away

"""Which backups are kept: the rule, by their times and reasons alone."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import datetime
from typing import Final, Literal

__all__ = ["KEPT_DAYS", "KEPT_MONTHS", "KEPT_WEEKS", "Named", "Reason", "kept"]

Reason = Literal["night", "hand", "migration", "restore"]
KEPT_DAYS: Final = 7  # of nights: the newest of so many days,
KEPT_WEEKS: Final = 5  # of so many weeks,
KEPT_MONTHS: Final = 12  # and of so many months that have one;
_KEPT_OTHERS: Final = 10  # and so many of each other reason


@dataclass(frozen=True, slots=True, order=True)
class Named:
    """A backup by its name: when it was made (UTC), and why."""

    made_at: datetime
    reason: Reason

    @property
    def name(self) -> str:
        """The name of its file, without what follows the dot."""
        return f"ombrel-{self.made_at:%Y%m%dT%H%M%SZ}-{self.reason}"


def kept(all_there_are: Iterable[Named]) -> set[Named]:
    """Those that stay. The newest of all always does, and what is kept now would be kept again."""
    newest_first = sorted(all_there_are, reverse=True)
    nights = [one for one in newest_first if one.reason == "night"]
    staying = set(newest_first[:1])
    staying |= _newest_of_each(nights, KEPT_DAYS, lambda at: at.date())
    staying |= _newest_of_each(nights, KEPT_WEEKS, lambda at: at.isocalendar()[:2])
    staying |= _newest_of_each(nights, KEPT_MONTHS, lambda at: (at.year, at.month))
    for reason in ("hand", "migration", "restore"):
        staying |= set([one for one in newest_first if one.reason == reason][:_KEPT_OTHERS])
    return staying


def _newest_of_each(
    newest_first: list[Named], most: int, part: Callable[[datetime], object]
) -> set[Named]:
    found: dict[object, Named] = {}
    for one in newest_first:
        found.setdefault(part(one.made_at), one)
    return set(list(found.values())[:most])

"""What waits for a show's next tick: each person in their own row, and so much of each at a time.

Places of one hand that a later one overtook while they waited count as one with it, as the hand
means them: where it stands. Which of two persons came first is kept where there is room for both.
"""

from collections import deque
from collections.abc import Callable, Hashable
from dataclasses import dataclass, field, replace
from typing import Final

from ..keeping.passing import Ended, Renewed
from ..keeping.request import Outcome, Request

__all__ = ["AT_ONCE", "Answer", "Item", "Queue"]

Answer = Callable[[Outcome | Exception], None]
AT_ONCE: Final = 64  # edits of one tick: so long nobody waits for others


@dataclass(slots=True)
class Item:
    """What one of those who wait asked for, and who is answered; `overtaken`: earlier places of

    the same hand, for which this one does.
    """

    place: int
    asked: Request | Ended | Renewed
    answer: Answer | None = None
    overtaken: list["Item"] = field(default_factory=list)

    def request(self) -> Request | Ended | Renewed:
        """What is to be done, with the ids of all for which it does."""
        if isinstance(self.asked, Request) and self.overtaken:
            ids = (one.asked for one in self.overtaken)
            overtook = tuple(one.edit_id for one in ids if isinstance(one, Request))
            return replace(self.asked, overtook=overtook)
        return self.asked

    def answered(self, outcome: Outcome | Exception) -> None:
        """Tell those who wait for it; an exception is a bug that it met."""
        for one in (*self.overtaken, self):
            if one.answer is not None:
                one.answer(outcome)

    def apart(self) -> list["Item"]:
        """It and those that it overtook, each by itself."""
        return [Item(one.place, _alone(one.asked), one.answer) for one in (*self.overtaken, self)]


def _alone(asked: Request | Ended | Renewed) -> Request | Ended | Renewed:
    return replace(asked, joins=None) if isinstance(asked, Request) else asked


class Queue:
    """Items by whose they are; `None` is Ombrel's own row."""

    def __init__(self) -> None:
        self._rows: dict[Hashable, deque[Item]] = {}
        self._places = 0

    def __bool__(self) -> bool:
        return bool(self._rows)

    def add(
        self,
        whose: Hashable,
        asked: Request | Ended | Renewed,
        answer: Answer | None = None,
    ) -> None:
        """Somebody waits at the end of their row."""
        self._places += 1
        self._rows.setdefault(whose, deque()).append(Item(self._places, asked, answer))

    def again(self, whose: Hashable, items: list[Item]) -> None:
        """Items that could not be made together, put before all else in their row."""
        self._rows.setdefault(whose, deque()).extendleft(reversed(items))

    def take(self) -> list[tuple[Hashable, Item]]:
        """The next batch, in the order in which it came: of each person a fair share.

        Those of whom few wait take less; what they leave goes to the others in the next batch.
        """
        share = max(1, AT_ONCE // max(1, len(self._rows)))
        found = [(whose, item) for whose in list(self._rows) for item in self._of(whose, share)]
        found.sort(key=lambda one: one[1].place)
        return found

    def _of(self, whose: Hashable, most: int) -> list[Item]:
        """Up to so many items from the head of a row; places of a hand are one, as long as nothing

        but hands of this person stands between them.
        """
        row, taken, left = self._rows[whose], list[Item](), deque[Item]()
        places: dict[Hashable, int] = {}  # by what joins them: where the hand's item is
        while row:
            asked = row[0].asked
            joins = asked.joins if isinstance(asked, Request) else None
            at = None if joins is None else places.get(joins)
            if at is not None:
                item, before = row.popleft(), taken[at]
                item.overtaken, before.overtaken = [*before.overtaken, before], []
                taken[at] = item
            elif len(taken) < most:
                if joins is None:
                    places.clear()
                else:
                    places[joins] = len(taken)
                taken.append(row.popleft())
            elif joins is None:
                break
            else:  # another hand, which waits: what is behind it may still join those that go
                left.append(row.popleft())
        left.extend(row)
        if left:
            self._rows[whose] = left
        else:
            del self._rows[whose]
        return taken

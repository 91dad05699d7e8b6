"""Which hands each page has on a show, by its person and page: whichever connection brings them.

A page that lost its network comes back by another connection, while nobody has noticed yet that the
first is dead. Its hands are its own all the same: it lets go of them, and when it says hello anew,
what it held before is let go. Like hands themselves this is of one process.
"""

from uuid import UUID

__all__ = ["Page", "anew", "hold", "let_go", "lost"]

Page = tuple[UUID, object, str]  # show, person, page

_MOST_HANDS = 24  # on one page at once: more than it has fingers
_HELD: dict[Page, dict[str, str]] = {}  # by page: gesture -> the connection that brought it last


def hold(page: Page, gesture: str, connection: str) -> list[str]:
    """A hand of a page is on something. Gives hands that end by that: of too many the oldest."""
    held = _HELD.setdefault(page, {})
    held[gesture] = connection
    if len(held) <= _MOST_HANDS:
        return []
    oldest = next(iter(held))
    del held[oldest]
    return [oldest]


def let_go(page: Page, gesture: str) -> list[str]:
    """A page lets go of a hand; gives it, if it was that page's."""
    return [gesture] if _forget(page, [gesture]) else []


def anew(page: Page) -> list[str]:
    """A page says hello anew: gives the hands that it had, which end."""
    return _forget(page, [*_HELD.get(page, ())])


def lost(page: Page, connection: str) -> list[str]:
    """A connection has ended: gives the hands that none of its page has brought since."""
    held = _HELD.get(page, {})
    return _forget(page, [one for one, brought_by in held.items() if brought_by == connection])


def _forget(page: Page, gestures: list[str]) -> list[str]:
    held = _HELD.get(page, {})
    found = [one for one in gestures if held.pop(one, None) is not None]
    if not held:
        _HELD.pop(page, None)
    return found

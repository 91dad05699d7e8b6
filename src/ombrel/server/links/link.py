"""What every link to something beside the screens is: open while somebody listens."""

from collections.abc import Callable
from typing import Protocol, TypeVar

__all__ = ["Link"]

Said = TypeVar("Said", covariant=True)


class Link(Protocol[Said]):
    """A link that hands on what it hears: levels of a stage, values of a desk, cues.

    It is open while anybody wants it. What arrives damaged is passed by; that nobody is at the
    other end is no fault: it asks on.
    """

    async def want(self, told: Callable[[Said], None]) -> None:
        """From now on `told` is called with what is heard; the first to want it opens the link."""
        ...

    def enough(self, told: Callable[[Said], None]) -> None:
        """`told` is called no more; the last one to go ends the link."""
        ...

"""What a wish is answered by: a change, a place to go, what arrives, or a deed of the screen."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final, Literal

from ..catalogue import Address
from ..values import Asked

__all__ = ["GROUPS", "Answer", "Found", "Group", "Read"]

Group = Literal["change", "go", "hears", "do"]
_SOURCES: Final = ("phantom", "source", "spare", "on_spare")
_CAREFUL: Final = frozenset(
    (
        "recall_scene",
        "go",
        "store_again",
        "feed",
        "plug",
        "patch_output",
        "patch_lines",
        "check_again",
    )
)
GROUPS: tuple[Group, ...] = ("change", "go", "hears", "do")


@dataclass(frozen=True, slots=True, kw_only=True)
class Answer:
    """One answer. `title`: what it is or does; `about`: from what, or where it stands.

    One of: `moves` (asked of the door as a hand's), `action` with its `fields` (asked of it by
    name), `view` with `at` and `beside` (where the screen goes; `beside` without `at` is what a
    control is called there, to which the hand is led), `here` (what the screen does by
    itself). `rank`: how well it answers.
    """

    group: Group
    title: str
    about: str = ""
    moves: Mapping[str, Asked] = field(default_factory=dict)
    action: str = ""
    fields: Mapping[str, object] = field(default_factory=dict)
    view: str = ""
    at: str = ""
    beside: str = ""
    here: str = ""
    rank: float = 0.0

    @property
    def careful(self) -> bool:
        """Whether what it would do must have been seen before: a scene, a patch, phantom power."""
        at_sources = (Address.at(address).last in _SOURCES for address in self.moves)
        return self.action in _CAREFUL or any(at_sources)


@dataclass(frozen=True, slots=True)
class Read:
    """How a part of what was typed was read: "fiddle" as "channel 19"."""

    text: str
    says: str


@dataclass(frozen=True, slots=True)
class Found:
    """The answers to a wish, by group, the best group and in each the best first; `many`: how many

    each had before only the first were kept. `instead`: what was looked for in place of what was
    typed, where nothing is called that ("" if it was not).
    """

    answers: tuple[Answer, ...]
    many: Mapping[str, int]
    read: tuple[Read, ...] = ()
    instead: str = ""

"""Which line of a show each draft of a list is."""

from collections.abc import Mapping, Sequence

from ..catalogue import LINES
from ..patching import LineDraft
from ..show import Show
from ..values import NothingLeft
from .work import Work

__all__ = ["lines_of_drafts", "matched"]


def _key(name: str) -> str:
    return " ".join(name.casefold().split())


def matched(show: Show, drafts: Sequence[LineDraft]) -> tuple[dict[int, int], bool]:
    """The line of each draft that the show knows, by the draft's turn; whether the list is a newer

    one of what the show holds: it names at least half of the show's lines.
    """
    by_name: dict[str, list[int]] = {}
    for line in show.lines():
        by_name.setdefault(_key(show.text(f"line/{line}/name")), []).append(line)
    found: dict[int, int] = {}
    for turn, draft in enumerate(drafts):
        same = by_name.get(_key(draft.name), [])
        if same:
            # of several lines of one name, the one on the draft's socket, else the first
            line = next(
                (n for n in same if draft.socket and show[f"line/{n}/socket"] == draft.socket),
                same[0],
            )
            found[turn] = line
            same.remove(line)
    newer = bool(found) and 2 * len(found) >= len(show.lines())
    if newer:
        _match_renamed(show, drafts, found)
    return found, newer


def _match_renamed(show: Show, drafts: Sequence[LineDraft], found: dict[int, int]) -> None:
    """In a newer list a name that nobody knows, on the channel of a line that it does not name."""
    left = {}
    work = Work(show, drafts, [], [])
    work.read_channels()
    for line in set(show.lines()) - set(found.values()):
        left[work.channels_of(line)[0], show.on(f"line/{line}/stereo")] = line
    for turn, draft in enumerate(drafts):
        if turn not in found and draft.channel and (draft.channel, draft.stereo) in left:
            found[turn] = left.pop((draft.channel, draft.stereo))


def lines_of_drafts(show: Show, count: int, matched: Mapping[int, int]) -> list[int]:
    """The line of each draft: the one that it is, or a free one. Raises NothingLeft.

    Lines that leave in the same step are not given to others: an undo brings them back whole.
    """
    used = set(show.lines())
    free = [number for number in range(1, LINES + 1) if number not in used]
    new = count - len(matched)
    if len(free) < new:
        raise NothingLeft("lines", new, len(free))
    numbers = iter(free)
    return [matched[turn] if turn in matched else next(numbers) for turn in range(count)]

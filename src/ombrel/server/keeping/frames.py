"""What screens are told after the show moved on, by whichever way that became known."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field

from ombrel.core import Address, Fade, bears, bears_on_findings, table_heads

from .states import State, for_pages, to_wire

__all__ = ["Frame", "frame_between", "one_frame"]


@dataclass(frozen=True, slots=True, eq=False)
class Frame:
    """What moved a show from one revision to another, for every open screen.

    `values`: new values on the wire; `cells`: (row, column) that differ in the table; `layout`:
    whether rows or columns worth drawing changed; `noticed`: whether findings may have;
    `fades`: what sets out for where it stands now; `held`: whether scenes hold something else.
    """

    before: int
    revision: int
    values: Mapping[str, object] = field(default_factory=dict)
    cells: tuple[tuple[int, int], ...] = ()
    layout: bool = False
    noticed: bool = False
    fades: tuple[Fade, ...] = ()
    held: bool = False


def frame_between(
    start: State,
    end: State,
    own: Iterable[str],
    stood: Iterable[str],
    cells: Iterable[tuple[int, int]],
    fades: Iterable[Fade],
) -> Frame:
    """The frame of a move from one state to another. `own`: addresses whose own values moved;

    `stood`: those at which something else stands.
    """
    own = set(own)
    moved = own.union(stood)
    layout = bears("heads", moved) and (
        table_heads(start.show, start.flow) != table_heads(end.show, end.flow)
    )
    return Frame(
        start.revision,
        end.revision,
        for_pages(to_wire({a: end.show[a] for a in moved})),
        tuple(sorted(cells)),
        layout,
        bears_on_findings(moved, start.flow, end.flow),
        tuple(fades),
        held=any(Address.at(address).in_scene for address in own),
    )


def one_frame(frames: Sequence[Frame]) -> Frame:
    """Frames that follow one another as one. At least one."""
    if len(frames) == 1:
        return frames[0]
    values: dict[str, object] = {}
    fades: dict[str, Fade] = {}
    for frame in frames:
        values.update(frame.values)
        for address in frame.values:  # what was moved is on its way no more, unless anew
            fades.pop(address, None)
        fades.update({fade.address: fade for fade in frame.fades})
    return Frame(
        frames[0].before,
        frames[-1].revision,
        values,
        tuple(sorted(set().union(*(frame.cells for frame in frames)))),
        any(frame.layout for frame in frames),
        any(frame.noticed for frame in frames),
        tuple(fades.values()),
        any(frame.held for frame in frames),
    )

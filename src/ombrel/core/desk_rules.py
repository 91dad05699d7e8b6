"""What a desk can do only in certain ways, checked on the show that an edit would leave."""

from collections.abc import Iterable, Sequence

from .errors import OnlyInBlocks
from .show import Show

__all__ = ["check_desk_rules"]


def check_desk_rules(show: Show, addresses: Iterable[str]) -> None:
    """Refuse a show that the desk cannot hold, looking only at what `addresses` bear on.

    Raises OnlyInBlocks.
    """
    blocks = set()
    for address in addresses:
        words = address.split("/")
        if words[0] == "output" and words[-1] == "source":
            box = show.desk.box(words[1])
            if box is not None and box.output_block > 1:
                blocks.add((words[1], (int(words[2]) - 1) // box.output_block))
    for key, block in sorted(blocks):
        box = show.desk.box(key)
        assert box is not None  # it was found above
        first = block * box.output_block + 1
        numbers = range(first, first + box.output_block)
        sources = [show[f"output/{key}/{number}/source"] for number in numbers]
        if any(sources) and not _in_a_row(sources):
            raise OnlyInBlocks(box.name, first, numbers[-1])


def _in_a_row(sources: Sequence[object]) -> bool:
    """Whether the sources are neighbours in order, starting where a block of them starts."""
    parts = [str(source).split("/") for source in sources]
    if any(len(part) < 2 or not part[1].isdigit() for part in parts):
        return False
    kinds = {(part[0], tuple(part[2:])) for part in parts}
    first = int(parts[0][1])
    aligned = (first - 1) % len(sources) == 0
    numbers = [int(part[1]) for part in parts]
    return len(kinds) == 1 and aligned and numbers == list(range(first, first + len(parts)))

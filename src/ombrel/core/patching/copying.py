"""Settings copied from one strip to others, or put back to neutral, aspect by aspect."""

from collections.abc import Collection, Iterator, Sequence
from typing import Final

from ..catalogue import default_of, is_on_desk, leaves_with_aspects, of_kind
from ..show import Show, check_strip
from ..values import Asked, UnreadableText

__all__ = ["COPIED", "copied", "neutral", "of_aspects"]

# what can be copied or cleared, by the aspects of the catalogue
COPIED: Final = (
    "low_cut",
    "gate",
    "eq",
    "compressor",
    "inserts",
    "delay",
    "sends",
    "pan",
    "routing",
)


def of_aspects(show: Show, strip: str, aspects: Collection[str]) -> Iterator[str]:
    """The leaves of some aspects that a kind of strip has. Raises UnreadableText."""
    unknown = set(aspects) - set(COPIED)
    if unknown or not aspects:
        raise UnreadableText(", ".join(sorted(unknown)), f"some of {', '.join(COPIED)}")
    kind = of_kind(strip)
    return (leaf for leaf, aspect in leaves_with_aspects(show.desk, kind) if aspect in aspects)


def copied(
    show: Show, source: str, targets: Sequence[str], aspects: Collection[str]
) -> dict[str, Asked]:
    """Moves that give targets the values of a source, as far as they have such. A strip's format

    is its own. Raises UnreadableText for no or another aspect than those of COPIED.
    """
    leaves = [leaf for leaf in of_aspects(show, source, aspects) if leaf != "format"]
    return {
        f"{target}/{leaf}": show[f"{source}/{leaf}"]
        for target in targets
        if target != source
        for leaf in leaves
        if is_on_desk(show.desk, f"{target}/{leaf}")
    }


def neutral(show: Show, strips: Sequence[str], aspects: Collection[str]) -> dict[str, Asked]:
    """Moves that put aspects of strips back to what nobody has set. Raises UnreadableText,

    NotThere.
    """
    for strip in strips:
        check_strip(show, strip)
    return {
        address: default_of(address)
        for strip in strips
        for leaf in of_aspects(show, strip, aspects)
        if leaf != "format" and (address := f"{strip}/{leaf}") in show.values
    }

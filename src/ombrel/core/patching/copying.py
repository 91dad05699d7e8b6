"""Settings copied from one strip to others, or put back to neutral, aspect by aspect."""

from collections.abc import Collection, Iterator, Mapping, Sequence
from typing import Final

from ..catalogue import default_of, is_on_desk, leaves_with_aspects, of_kind
from ..show import Show, check_strip
from ..values import Asked, UnreadableText

__all__ = ["CLEARED", "COPIED", "copied", "neutral", "of_aspects"]

# what can be put back to neutral, by the aspects of the catalogue
CLEARED: Final = (
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
# what can be copied, in words: a strip whole, but for where its signal comes from and who is on it
COPIED: Final[Mapping[str, str]] = {
    "preamp": "Trim",
    "low_cut": "Low cut",
    "gate": "Gate",
    "eq": "EQ",
    "compressor": "Compressor",
    "inserts": "Inserts",
    "delay": "Delay",
    "fader": "Fader",
    "mute": "Mute",
    "pan": "Pan",
    "routing": "Assignments",
    "sends": "Sends",
    "members": "DCAs, mutes, gangs",
    "name": "Name, colour",
}
_MEMBERS: Final = ("dcas", "mute_groups", "gangs", "promises")
# a strip's own: its format; that it is half of a pair
_OWN: Final = ("format", "linked")


def of_aspects(
    show: Show, strip: str, aspects: Collection[str], *, known: Collection[str] = CLEARED
) -> Iterator[str]:
    """The leaves of some aspects that a kind of strip has; "members": of DCAs, mute groups, gangs

    and promises. Raises UnreadableText for others than the `known` ones.
    """
    unknown = set(aspects) - set(known)
    if unknown or not aspects:
        raise UnreadableText(", ".join(sorted(unknown)), f"some of {', '.join(known)}")
    wanted = {*aspects, *(_MEMBERS if "members" in aspects else ())}
    return (
        leaf
        for leaf, aspect in leaves_with_aspects(show.desk, of_kind(strip))
        if aspect in wanted and leaf not in _OWN
    )


def copied(
    show: Show, source: str, targets: Sequence[str], aspects: Collection[str]
) -> dict[str, Asked]:
    """Moves that give targets the values of a source, as far as they have such and it feeds not

    them. Raises UnreadableText for no or another aspect than those of COPIED.
    """
    leaves = list(of_aspects(show, source, aspects, known=COPIED))
    return {
        address: show[f"{source}/{leaf}"]
        for target in targets
        if target != source
        for leaf in leaves
        if (address := f"{target}/{leaf}")
        not in (f"{target}/{target}/on", f"{target}/{target}/level")
        and is_on_desk(show.desk, address)
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
        if (address := f"{strip}/{leaf}") in show.values
    }

"""Hands on controls at the same time: who leads a gang, and what nobody else moves."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace

from ..show import Show
from .carrying import Carried, Carry, led_by
from .gangs import mates_of

__all__ = ["Hand", "carried_with", "hand_after"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Hand:
    """A hand that holds something: the addresses that it leads, whether it moves them alone, and

    the places of what was selected with them and the sends that it opened (see `Carry`). `holds`:
    all that it is on, so that no recall takes it away.
    """

    leads: frozenset[str]
    alone: bool
    holds: frozenset[str] = frozenset()
    places: Mapping[str, float] = field(default_factory=dict)
    opened: frozenset[str] = frozenset()


def carried_with(
    show: Show, hands: Mapping[str, Hand], gesture: str, addresses: Iterable[str], carry: Carry
) -> Carry:
    """How a gesture's edit of these addresses carries gangs beside the other hands on the show.

    It moves alone for as long as it lasts if, when it begins, its key is held or another hand leads
    one of its gangs by another member; who moves alone leads nobody. Nothing moves what another
    hand holds.
    """
    others = [hand for other, hand in hands.items() if other != gesture]
    held = frozenset[str]().union(*(hand.leads for hand in others))
    known = hands.get(gesture)
    if known is not None:
        return replace(
            carry, alone=known.alone, places=known.places, held=held, opened=known.opened
        )
    alone = carry.alone
    if held and not alone:
        leads = led_by(show, addresses)
        leading = frozenset[str]().union(*(hand.leads for hand in others if not hand.alone))
        alone = any(not leading.isdisjoint(mates_of(show, one, carry.passing)) for one in leads)
    return replace(carry, alone=alone, held=held)


def hand_after(show: Show, addresses: Iterable[str], carry: Carry, follows: Carried) -> Hand:
    """The hand that made an edit and stays where it is."""
    return Hand(
        leads=led_by(show, addresses),
        alone=carry.alone or follows.lone,
        places=dict(follows.places),
        opened=follows.opened,
        holds=frozenset(addresses),
    )

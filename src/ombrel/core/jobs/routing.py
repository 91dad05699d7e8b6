"""What goes where: a group put between strips and the house, in one edit."""

from collections.abc import Sequence
from dataclasses import dataclass

from ..answers import make_promise
from ..catalogue import SENDERS, Address, of_kind
from ..flow import strip_name
from ..show import Show
from ..together import groups_behind, in_house
from ..values import Asked, UnreadableText
from .lifts import lead_groups
from .mixes import make_buses

__all__ = ["Between", "put_between"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Between:
    """What a plan does. `group`: the one that it makes or takes; `through`: strips that then feed

    it; `left_out`: chosen strips that the house does not have now, which stay out of the group.
    """

    group: str
    moves: dict[str, Asked]
    through: tuple[str, ...]
    left_out: tuple[str, ...]


def put_between(
    show: Show,
    strips: Sequence[str],
    *,
    name: str = "",
    group: str | None = None,
    exceptions: Sequence[str] = (),
    mono: bool = False,
    promise: bool = True,
    limit_dbfs: float | None = None,
) -> Between:
    """Channels, returns and groups go to the house through a group: a new one of two sides, or one

    that there is. `name`: of a new one. `mono`: to mono through it too, those that go there.
    `promise`: that it stays so is kept as one. `limit_dbfs`: its compressor holds peaks at this
    level.

    Who comes into the house by other groups goes on doing so, and these through the group. What the
    house does not have now (click, talkback) is left out. The group stands at 0 dB and its pan in
    the centre, so nothing in the house changes. Raises NothingLeft, UnknownAddress; UnreadableText
    for no strip that the house has, for others than these, and for exceptions that come into the
    house by the same group as who is chosen.
    """
    chosen = [one for one in strips if one not in set(exceptions) and show.uses(one)]
    for one in chosen:
        if of_kind(one) not in SENDERS:
            raise UnreadableText(one.replace("/", " "), "channels, returns and groups")
    through = _last_into_house(show, chosen, group)
    for one in exceptions:
        shared = [last for last in _last_into_house(show, [one], group) if last in through]
        if shared:
            raise UnreadableText(
                strip_name(show, one),
                f"exceptions that do not come into the house by {strip_name(show, shared[0])}, as"
                " others here do; take it out of there first",
            )
    if not through:
        raise UnreadableText(", ".join(strips)[:60], "strips that go to the house now")
    moves: dict[str, Asked] = {}
    if group is None:
        moves |= make_buses(show, "group", [name], stereo=True)
        group = Address.at(next(iter(moves))).thing
    fresh = bool(moves)
    for one in through:
        moves |= {f"{one}/house/on": False, f"{one}/{group}/on": True}
        moves[f"{one}/{group}/level"] = 0.0
    moves[f"{group}/house/on"] = True
    low = [one for one in through if mono and show.on(f"{one}/mono/on")]
    for one in low:
        moves[f"{one}/mono/on"] = False
    if low:
        moves[f"{group}/mono/on"] = True
    if limit_dbfs is not None:
        moves |= limiter(group, limit_dbfs)
    if promise:
        title = name if fresh else strip_name(show, group)
        listeners = ["house", *(["mono"] if low else [])]
        moves |= make_promise(
            show, sources=[one for one in chosen if in_house(show, one)], listeners=listeners,
            through=group,
            name=f"What {title} has"[:60], takes="all",
        )  # fmt: skip
    left = tuple(one for one in chosen if not in_house(show, one))
    return Between(group=group, moves=moves, through=tuple(through), left_out=left)


def limiter(strip: str, at_dbfs: float) -> dict[str, Asked]:
    """Moves that let a strip's compressor hold peaks: the steepest ratio, quick, no make-up."""
    stem = f"{strip}/compressor"
    return {
        f"{stem}/on": True,
        f"{stem}/threshold": at_dbfs,
        f"{stem}/ratio": 20.0,
        f"{stem}/knee": 0.0,
        f"{stem}/attack": 0.5,
        f"{stem}/release": 100.0,
        f"{stem}/make_up": 0.0,
        f"{stem}/blend": 100.0,
    }


def _last_into_house(show: Show, strips: Sequence[str], around: str | None) -> list[str]:
    """The strips by which these come into the house at last: themselves, or groups that they go

    through or may be lifted into; not by a group `around`, which stays where it is.
    """
    found: dict[str, None] = {}
    # a key may lead a singer by these at any moment
    for one in (*strips, *lead_groups(show, strips)):
        for last in (one, *groups_behind(show, one, around=around)):
            if show.on(f"{last}/house/on") and last != around:
                found[last] = None
    return list(found)

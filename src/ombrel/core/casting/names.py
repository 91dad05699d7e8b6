"""What people call performers, parts, casts and fittings."""

from ..catalogue import Address, below
from ..show import Show
from ..values import NoSuchCast, NoSuchFitting

__all__ = [
    "cast_name",
    "fitting_in",
    "fitting_name",
    "is_bound",
    "part_name",
    "performer_name",
    "whose_fitting",
]


def part_name(show: Show, part: str) -> str:
    return show.text(f"{part}/name") or part.replace("/", " ").capitalize()


def performer_name(show: Show, performer: str | None) -> str:
    """What a performer is called; "" for nobody."""
    return show.text(f"{performer}/name") if performer else ""


def cast_name(show: Show, cast: str) -> str:
    """What a cast is called. Raises NoSuchCast."""
    if f"{cast}/name" not in show.own:
        raise NoSuchCast(cast.replace("/", " "))
    return show.text(f"{cast}/name")


def fitting_in(show: Show, fitting: str) -> str:
    """The fitting, if the show has it. Raises NoSuchFitting."""
    if f"{fitting}/performer" not in show.own or f"{fitting}/removed" in show.own:
        raise NoSuchFitting(fitting.replace("/", " "))
    return fitting


def fitting_name(show: Show, fitting: str) -> str:
    """ "Ada as Gull" (with its microphone where the part has several). Raises NoSuchFitting."""
    performer = show.own.get(f"{fitting_in(show, fitting)}/performer")
    name, part = performer_name(show, str(performer)), show.own.get(f"{fitting}/part")
    if not isinstance(part, str):
        return name
    number = int(show.number(f"{fitting}/microphone"))
    mic = show.text(f"{part}/microphone/{number}/name")
    several = f"{part}/microphone/2/channel" in show.own
    which = f", {mic or f'microphone {number}'}" if several else ""
    return f"{name} as {part_name(show, part)}{which}"


def whose_fitting(show: Show, fitting: str) -> str:
    """The name of the performer whose it is."""
    return performer_name(show, str(show.own.get(f"{fitting_in(show, fitting)}/performer")))


def is_bound(show: Show, address: str) -> bool:
    """Whether an address says whose something is that is in use: it stays, or what was one's would

    become another's. A performer's name may be mended, never emptied.
    """
    at = Address.at(address)
    thing = at.thing
    if at.is_at("fitting", "performer", "part", "microphone"):
        return thing in show.layers.at or any(
            one.in_fitting or one.is_packed or one.leaf == "newest"
            for one in map(Address.at, below(thing, show.own))
        )
    if at.is_at("performer", "name"):
        return any(value == thing for value in show.own.values())
    return False

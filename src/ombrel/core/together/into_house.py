"""Through which groups strips go, and by what each comes into the house."""

from ..show import Show

__all__ = ["first_into_house", "groups_behind", "in_house"]


def groups_behind(show: Show, strip: str, *, around: str | None = None) -> list[str]:
    """The groups in use that a strip goes into, by itself or through others, the nearest first;

    not by a group that is to be passed `around`.
    """
    in_use = [group for group in show.in_use("group") if group != around]
    found: dict[str, None] = {}
    waiting = [strip]
    for one in waiting:  # grows as it is walked
        for group in in_use:
            if group not in found and show.on(f"{one}/{group}/on"):
                found[group] = None
                waiting.append(group)
    return list(found)


def in_house(show: Show, strip: str) -> bool:
    """Whether the house has a strip: by itself or through groups."""
    return show.on(f"{strip}/house/on") or any(
        show.on(f"{group}/house/on") for group in groups_behind(show, strip)
    )


def first_into_house(show: Show, strip: str) -> tuple[str, ...]:
    """What a strip feeds itself on its way to the house: the house, and groups that lead there."""
    groups = [g for g in show.in_use("group") if show.on(f"{strip}/{g}/on") and in_house(show, g)]
    return (*(["house"] if show.on(f"{strip}/house/on") else []), *groups)

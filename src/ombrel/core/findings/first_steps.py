"""The first steps of a show: what is done of the work that every show begins with."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final, Literal

from ..catalogue import of_kind
from ..show import Show

__all__ = ["FirstStep", "StepKey", "first_steps"]

StepKey = Literal["list", "patched", "mixes", "outputs", "check"]

_HOUSE: Final = frozenset(("house", "mono"))


@dataclass(frozen=True)
class FirstStep:
    """A step of the first work on a show. `done`: whether the show has it; `says`: what it is."""

    key: StepKey
    done: bool
    says: str


def first_steps(show: Show) -> tuple[FirstStep, ...]:
    """What is done of each first step, in the order of the work."""
    lines = show.lines()
    loose = [line for line in lines if show[f"line/{line}/socket"] is None]
    return (
        FirstStep("list", bool(lines),
                  "What the band brings, a line each: paste it, import it, or type it."),
        FirstStep("patched", bool(lines) and not loose,
                  "Each line on a socket, and a channel for it: "
                  f"{len(loose)} of {len(lines)} have none yet."),
        FirstStep("mixes", bool(show.in_use("mix")),
                  "Ears and wedges, one for each performer, by their names."),
        FirstStep("outputs", any(of_kind(bus) in _HOUSE for bus in _taken(show)),
                  "The house on its sockets, and what is plugged into them."),
        FirstStep("check", any(show[f"line/{line}/check"] != "unchecked" for line in lines),
                  "Line by line with somebody on stage. All faders are off after an import: "
                  "that is where one begins, and no fault."),
    )  # fmt: skip


def _taken(show: Show) -> Iterator[str]:
    """What the output sockets carry."""
    for socket in show.outputs():
        source = show[f"{socket}/source"]
        if isinstance(source, str):
            yield source

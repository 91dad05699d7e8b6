"""What all asks are made of: bounded texts and lists, and moves as they go over the wire."""

from collections.abc import Mapping
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from ombrel import core
from ombrel.core import Asked, Travel, Typed

__all__ = [
    "MOST_BUSES",
    "MOST_STRIPS",
    "STORABLE",
    "Address",
    "AskedMove",
    "Finite",
    "Lines",
    "SomeLines",
    "Strict",
    "Typing",
    "moves_from_wire",
    "moves_to_wire",
]

# PostgreSQL keeps no U+0000, in text or in JSON: it is refused here, where one request is alone
STORABLE = r"^[^\x00]*$"
Address = Annotated[str, Field(max_length=120, pattern=STORABLE)]
Typing = Annotated[str, Field(max_length=400, pattern=STORABLE)]
Finite = Annotated[float, Field(allow_inf_nan=False)]
Lines = Annotated[list[int], Field(max_length=core.LINES)]
SomeLines = Annotated[list[int], Field(min_length=1, max_length=core.LINES)]
MOST_BUSES = 200  # more than any desk has
MOST_STRIPS = 400


class Strict(BaseModel):
    """A part of the wire: what it does not know it refuses."""

    model_config = ConfigDict(extra="forbid")


class AskedMove(Strict):
    """One address and what it is to hold: a value, a typed text, or a place of its travel."""

    address: Address
    value: Finite | bool | Annotated[str, Field(pattern=STORABLE)] | None = None
    typed: Typing | None = None
    travel: Finite | None = None


def moves_from_wire(moves: list[AskedMove]) -> dict[str, Asked]:
    """Moves as the core takes them. Raises UnknownAddress or WrongValue."""
    found: dict[str, Asked] = {}
    for move in moves:
        if move.typed is not None:
            found[move.address] = Typed(move.typed)
        elif move.travel is not None:
            found[move.address] = Travel(move.travel)
        else:
            kind = core.parameter_at(move.address).kind
            found[move.address] = kind.from_wire(move.value, move.address)
    return found


def moves_to_wire(moves: Mapping[str, Asked]) -> list[AskedMove]:
    """Moves of a remedy, for the button that makes them."""
    found = []
    for address, asked in moves.items():
        if isinstance(asked, Typed):
            found.append(AskedMove(address=address, typed=asked.text))
        elif isinstance(asked, Travel):
            found.append(AskedMove(address=address, travel=asked.fraction))
        else:
            value = core.parameter_at(address).kind.to_wire(asked)
            found.append(AskedMove(address=address, value=value))
    return found

"""What answers a wish: its message, and what fills it."""

from typing import Literal, get_args
from uuid import UUID

from pydantic import BaseModel, TypeAdapter

from ombrel import core

from ..asks.asking import moves_to_wire
from ..asks.every import Ask
from ..asks.moves import ByHand, Moves

__all__ = ["FoundAnswer", "FoundMessage", "FoundRead", "found_message"]

_ASK: TypeAdapter[Ask] = TypeAdapter(Ask)
_HERE = get_args(core.HereDone)


class FoundAnswer(BaseModel):
    """One answer: one of `ask` (of the door), `view` with `at` and `beside` (where the screen

    goes), `here` (what the screen does by itself). `about`: from what, or where it stands.
    `careful`: it is made only after it was seen what it would do.
    """

    group: Literal["change", "go", "hears", "do"]
    title: str
    about: str
    ask: Ask | None
    view: str
    at: str
    beside: str
    here: core.HereDone | None
    careful: bool


class FoundRead(BaseModel):
    """How a part of what was typed was read."""

    text: str
    says: str


class FoundMessage(BaseModel):
    """The answers to a wish, the best group and in it the best first; `many`: how many each group

    had. `instead`: what was looked for in place of what was typed, or "".
    """

    type: Literal["found"]
    id: UUID
    text: str
    instead: str
    read: list[FoundRead]
    many: dict[str, int]
    answers: list[FoundAnswer]


def found_message(wish: UUID, text: str, found: core.Found) -> FoundMessage:
    """The message of what was found."""
    return FoundMessage(
        type="found",
        id=wish,
        text=text,
        instead=found.instead,
        read=[FoundRead(text=one.text, says=one.says) for one in found.read],
        many=dict(found.many),
        answers=[_answer(one) for one in found.answers],
    )


def _answer(one: core.Answer) -> FoundAnswer:
    ask: Ask | None = None
    if one.action:
        ask = _ASK.validate_python({"action": one.action, **one.fields})
    elif one.moves:
        moves = moves_to_wire(one.moves)
        ask = Moves(action="moves", moves=moves, says=one.title[:120], by_hand=ByHand())
    return FoundAnswer(
        group=one.group,
        title=one.title,
        about=one.about,
        ask=ask,
        view=one.view,
        at=one.at,
        beside=one.beside,
        here=next((here for here in _HERE if here == one.here), None),
        careful=one.careful,
    )

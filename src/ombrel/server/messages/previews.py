"""What an edit would do, for the screen that asks beforehand."""

from typing import Any

from ombrel import core

from ..asks.casting import ChooseCast, LateChange
from ..asks.plans import Turn
from ..asks.scenes import SetInScenes
from . import from_screen
from .casting import company_previewed
from .edits import preview_message
from .scenes import many_told

__all__ = ["tried"]


def tried(turn: Turn, message: from_screen.Try) -> tuple[dict[str, Any], core.Many | None]:
    """What an edit would do; and of one of many scenes what it comes to."""
    planned = message.ask.plan(turn)
    shown = core.preview(
        turn.show, turn.flow, planned.moves, planned.carry, own=planned.own, most=message.most
    )
    scenes, many = [], None
    if isinstance(message.ask, SetInScenes):
        many = message.ask.many(turn.show)
        scenes = many_told(turn.show, message.ask, many)
    company = None
    if isinstance(message.ask, ChooseCast | LateChange):
        company = company_previewed(turn.show, message.ask)
    renumbered = [
        (core.strip_name(turn.show, old), core.strips_text([old]), core.strips_text([new]))
        for old, new in planned.renumbered.items()
        if new and turn.show.uses(old)
    ]
    told = preview_message(
        message.id, shown, planned.says, scenes, company, renumbered, planned.told
    )
    return told, many

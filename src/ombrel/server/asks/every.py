"""What a screen can ask for: each a named type, and the plan that carries it out by the core.

An ask holds no rule of the job; its `plan` hands what was typed or dragged to the core.
"""

from typing import Annotated

from pydantic import Field

from .banks import BankAsk
from .casting import CompanyAsk
from .cues import CueAsk
from .ears import EarAsk
from .lifts import LiftAsk
from .lines import LineAsk
from .mixes import BusAsk
from .moves import Moves
from .patch import PatchAsk
from .routing import RoutingAsk
from .rulers import RulerAsk
from .scenes import SceneAsk
from .sharing import SharingAsk
from .strips import StripAsk
from .tracks import TrackAsk
from .whole import WholeAsk

__all__ = ["Ask"]

Ask = Annotated[
    BankAsk
    | CompanyAsk
    | CueAsk
    | EarAsk
    | LiftAsk
    | LineAsk
    | BusAsk
    | Moves
    | PatchAsk
    | RoutingAsk
    | RulerAsk
    | SceneAsk
    | SharingAsk
    | StripAsk
    | TrackAsk
    | WholeAsk,
    Field(discriminator="action"),
]

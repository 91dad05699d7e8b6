"""Every message of the websocket that a screen is sent, each a named type; with `from_screen` the

TypeScript types are made from these.
"""

from .casting import CompanyMessage, FittingMessage, MicCheckMessage
from .cues import CueList, CuesHere, MachineHere
from .ears import BesideMessage, EarsMessage
from .edits import DoneMessage, KeptMessage, PreviewMessage, RefusedMessage
from .finding import FoundMessage
from .hears import (
    Cells,
    ClosingMessage,
    Loudest,
    ReachMessage,
    SetBy,
    SilentMessage,
    Table,
    WhyAnswer,
)
from .here import Calls, Levels, Meters, Pong, Present, Trouble, You
from .noticed import Noticed
from .rulers import RuledMessage, Unfolded
from .scenes import HearingMessage, HeldMessage, SceneMessage, ScenesMessage
from .sharing import SharesMessage, SharesPast, SharingMessage
from .strips import CurvesMessage, FadingMessage, LiftsMessage, StripMessage
from .tracks import PlanFound, PlanningMessage, TracksMessage
from .values import Moved, Snapshot

__all__ = ["ToScreen"]

ToScreen = (
    Snapshot
    | Moved
    | Table
    | Cells
    | WhyAnswer
    | SetBy
    | DoneMessage
    | RefusedMessage
    | KeptMessage
    | PreviewMessage
    | FoundMessage
    | Loudest
    | RuledMessage
    | ReachMessage
    | ClosingMessage
    | SilentMessage
    | EarsMessage
    | BesideMessage
    | Unfolded
    | SharingMessage
    | SharesMessage
    | SharesPast
    | TracksMessage
    | PlanningMessage
    | PlanFound
    | CueList
    | CuesHere
    | MachineHere
    | StripMessage
    | CurvesMessage
    | FadingMessage
    | LiftsMessage
    | ScenesMessage
    | HearingMessage
    | SceneMessage
    | CompanyMessage
    | MicCheckMessage
    | FittingMessage
    | HeldMessage
    | Levels
    | Noticed
    | Pong
    | Present
    | Calls
    | Meters
    | Trouble
    | You
)

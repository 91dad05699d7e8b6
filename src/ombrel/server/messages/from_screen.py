"""Every message of the websocket that a screen sends, each a named type (see `to_screen`)."""

from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field, TypeAdapter

from ombrel import core

from ..asks.asking import STORABLE, Address, AskedMove, Strict, Typing
from ..asks.every import Ask

__all__ = ["FROM_SCREEN", "FromScreen"]

MOST_KEPT = 1024  # ids that are asked about at once


class WatchedCell(Strict):
    """The cell whose explanation a screen draws."""

    source: Address
    listener: Address


class Hello(Strict):
    """First message: the revision that the screen has (null: none). `page`: which page of its

    person it is, the same by whatever connection; what it held before is let go by this.
    """

    type: Literal["hello"]
    since: int | None = None
    page: Annotated[str, Field(max_length=60, pattern=STORABLE)] = ""


class Watch(Strict):
    """What the screen draws from now on, besides values."""

    type: Literal["watch"]
    table: bool = False
    why: WatchedCell | None = None
    check: int | None = None
    ruler: Address | None = None  # the DCA or mute group whose reach is drawn
    strip: Address | None = None  # the strip whose path and curves are drawn
    closing: bool = False  # how many cells each mute group's key closes
    silent: bool = False  # who is silent in the house, and why
    ears: bool = False  # how every mix for ears and wedges stands
    beside: tuple[Address, Address] | None = None  # two mixes laid side by side
    sharing: bool = False  # groups that share gain, and their shares as they are measured
    tried: Annotated[dict[Address, Typing], Field(max_length=64)] = {}  # levels typed, by group
    tracks: bool = False  # what is recorded, and the way back
    cue_list: bool = False  # cues from outside
    lifts: bool = False  # every singer's step for every listener
    scenes: bool = False  # the list of scenes, and the pins
    scene: Address | None = None  # the scene whose recall is looked at beforehand
    company: bool = False  # parts, casts and performers
    mic_check: core.CheckOrder | None = None  # its entries, in this order
    fitting: Address | None = None  # the channel whose fitting is looked at
    held: Address | None = None  # the strip whose values in that scene are drawn
    unfold: Annotated[list[Address], Field(max_length=8)] = []  # what is unfolded on its bays
    levels: bool = False  # meters of the stage, for all channels
    view: Annotated[str, Field(max_length=40, pattern=STORABLE)] = (
        ""  # where its person is, for others
    )


class Ping(Strict):
    """Is anybody there? The answer is `pong`: a network can die without a word."""

    type: Literal["ping"]


class Do(Strict):
    """Make an edit. `id` counts once however often it is sent. `seen`: the revision that the

    screen had when the hand began: who came on since is not moved by it.
    """

    type: Literal["do"]
    id: UUID
    gesture: Annotated[str, Field(min_length=1, max_length=60, pattern=STORABLE)]
    ask: Ask
    seen: int | None = None


class LetGo(Strict):
    """A hand lets go of what it held by this gesture."""

    type: Literal["let_go"]
    gesture: Annotated[str, Field(min_length=1, max_length=60, pattern=STORABLE)]


class Kept(Strict):
    """Which of these edits are kept? A page asks that finds what a closed one had no answer to."""

    type: Literal["kept"]
    ids: Annotated[list[UUID], Field(max_length=MOST_KEPT)]


class FeedLine(Strict):
    """Ask the stage to feed a line tone, noise or nothing, at its expected level."""

    type: Literal["feed"]
    line: int
    signal: Literal["tone", "noise", "speech", "nothing"]


class Talk(Strict):
    """Let the members of a group that shares gain talk on the stand-in stage, or be silent."""

    type: Literal["talk"]
    group: Address
    on: bool


class RunRecorder(Strict):
    """Have the stand-in recorder write the tracks as they stand, play them back, or stop."""

    type: Literal["recorder"]
    do: Literal["record", "play", "stop"]


class SwapCables(Strict):
    """Exchange the cables of two lines on the stand-in stage, to see what a line check finds."""

    type: Literal["swap_cables"]
    lines: tuple[int, int]


class StraightCables(Strict):
    """Have every cable of the stand-in stage plugged as the show has it."""

    type: Literal["straight_cables"]


class ArmCues(Strict):
    """Let cues from outside do something, or only be told with what they would do."""

    type: Literal["arm_cues"]
    mode: Literal["rehearse", "armed"]


class SetCueWay(Strict):
    """Switch a way of cues on or off: where it listens, who may send, whether they are answered."""

    type: Literal["set_cue_way"]
    id: UUID
    kind: Literal["osc_udp", "osc_tcp", "midi_tcp"]
    on: bool
    host: Annotated[str, Field(max_length=45, pattern=STORABLE)]
    port: Typing
    senders: Typing = ""
    answers: bool = False


class SetCueOnce(Strict):
    """Within how many ms the same message counts once, as typed."""

    type: Literal["set_cue_once"]
    id: UUID
    typed: Typing


class RunMachine(Strict):
    """Have the stand-in cue machine play a sheet (CSV: seconds, message), send one message, stop,

    or err: lose, double, swap so many of a hundred.
    """

    type: Literal["machine"]
    id: UUID
    do: Literal["play", "fire", "stop", "err"]
    way: Literal["osc_udp", "osc_tcp", "midi_tcp"] = "osc_udp"
    sheet: Annotated[str, Field(max_length=200_000, pattern=STORABLE)] = ""
    lose: Annotated[int, Field(ge=0, le=100)] = 0
    double: Annotated[int, Field(ge=0, le=100)] = 0
    swap: Annotated[int, Field(ge=0, le=100)] = 0


class UndoCue(Strict):
    """Undo what a cue did, by the row that tells of it."""

    type: Literal["undo_cue"]
    id: UUID
    told: int


class SeenCall(Strict):
    """A performer's call was seen: it stands on no screen any more."""

    type: Literal["seen_call"]
    call: UUID


class Draw(Strict):
    """Draw the curves of a strip with some moves made, without making them: a hand is dragging."""

    type: Literal["draw"]
    strip: Address
    moves: Annotated[list[AskedMove], Field(max_length=16)]


class Turn(Strict):
    """Undo or redo this person's last gesture."""

    type: Literal["undo", "redo"]
    id: UUID


class Try(Strict):
    """Tell what an edit would do, without doing it, and so many of the values that it moves."""

    type: Literal["try"]
    id: UUID
    ask: Ask
    most: Annotated[int, Field(ge=0, le=400)] = 12


class PlanTracks(Strict):
    """Look for the best track plan. `planning` tells how far it is, `plan_found` what was found;

    of several asked one behind another the newest is answered.
    """

    type: Literal["plan_tracks"]
    id: UUID


class Find(Strict):
    """What answers these words, typed by a person who looks at a view? While one wish is answered

    only the newest of the others is kept: each may be without an answer.
    """

    type: Literal["find"]
    id: UUID
    text: Annotated[str, Field(max_length=120, pattern=STORABLE)]
    view: Annotated[str, Field(max_length=40, pattern=STORABLE)] = ""


FromScreen = Annotated[
    Hello
    | Watch
    | Ping
    | Do
    | LetGo
    | Kept
    | FeedLine
    | Talk
    | Draw
    | SeenCall
    | ArmCues
    | SetCueWay
    | SetCueOnce
    | UndoCue
    | RunMachine
    | RunRecorder
    | SwapCables
    | StraightCables
    | Turn
    | Try
    | PlanTracks
    | Find,
    Field(discriminator="type"),
]
FROM_SCREEN: TypeAdapter = TypeAdapter(FromScreen)

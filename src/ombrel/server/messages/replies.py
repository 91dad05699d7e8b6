"""Errors of the core as replies, in one table. Anything not in it is a bug, and told as such."""

from typing import Final
from uuid import UUID

from ninja import Schema

from ombrel import core
from ombrel.core import ConsoleError

__all__ = ["STATUS", "ErrorReply", "ShowRow", "status_of"]


class ErrorReply(Schema):
    """A refusal: what is wrong, where, and the way out."""

    code: str
    message: str


class ShowRow(Schema):
    """A show in the list."""

    id: UUID
    name: str
    desk: str


STATUS: Final[dict[type[ConsoleError], int]] = {
    core.BadFile: 422,
    core.Broken: 500,
    core.Circle: 409,
    core.EditRefused: 422,
    core.EngineTaken: 409,
    core.EntryTaken: 409,
    core.LinkEnded: 403,
    core.TooManyTries: 429,
    core.WrongCode: 403,
    core.MovedMeanwhile: 409,
    core.NotYours: 403,
    core.NotAllowed: 403,
    core.RoleTooSmall: 403,
    core.WrongPassword: 403,
    core.LastAdministrator: 409,
    core.PhonesLocked: 409,
    core.FittingTwice: 409,
    core.FeedbackLoop: 409,
    core.InsertsSpent: 409,
    core.SharingSpent: 409,
    core.OneSideOnly: 409,
    core.PlanTooHard: 503,
    core.PlanMovedOn: 409,
    core.NotRecordable: 422,
    core.ListMovedOn: 409,
    core.GangInTheWay: 409,
    core.MuteGroupSafe: 409,
    core.NotAnEffectMix: 409,
    core.NoSuchCast: 404,
    core.NoSuchCell: 422,
    core.NoSuchFitting: 404,
    core.NotTheirName: 409,
    core.GangJumps: 409,
    core.ShowOpen: 409,
    core.RemedyMoves: 409,
    core.NotNext: 409,
    core.CueRefused: 409,
    core.HandsOnly: 409,
    core.NoCueWaits: 404,
    core.EntryLeft: 409,
    core.NoSuchScene: 404,
    core.NotThere: 404,
    core.NumberTaken: 409,
    core.SomebodyElseOn: 409,
    core.SourcesUnasked: 409,
    core.NoSuchPoint: 404,
    core.NothingLeft: 409,
    core.NothingToRedo: 409,
    core.NothingToUndo: 409,
    core.OscillatorTaken: 409,
    core.OnOnePair: 409,
    core.OneFaderTwoPlaces: 409,
    core.OnlyInBlocks: 409,
    core.OutOfRange: 422,
    core.OutOfReach: 409,
    core.StepOutOfReach: 409,
    core.SeveralPaths: 409,
    core.Renumbered: 409,
    core.SocketTaken: 409,
    core.UnknownAddress: 404,
    core.UnreadableText: 422,
    core.WrongValue: 422,
}


def status_of(error: ConsoleError) -> int:
    """The HTTP status of a refusal. KeyError for a class without a row: a test finds those."""
    return STATUS[type(error)]

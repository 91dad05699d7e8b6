"""Findings, promises and the first steps: their message, and what fills it."""

from typing import Literal

from pydantic import BaseModel

from ombrel import core

from ..asks.asking import moves_to_wire
from ..keeping.states import State
from .hears import (
    WhyRemedy,
)

__all__ = [
    "BreachMessage",
    "FindingMessage",
    "Noticed",
    "PreampMessage",
    "PromiseMessage",
    "StepMessage",
    "noticed_message",
]


_MOST_BREACHES = 40  # of a promise that are told one by one


class FindingMessage(BaseModel):
    """Something that Ombrel noticed. `careful`: its remedy asks for a second press."""

    rule: str
    tone: Literal["settle", "note"]
    says: str
    about: str
    remedy: WhyRemedy | None
    careful: bool


class AlikeMessage(BaseModel):
    """Many findings of one rule, told together; with a remedy of all of them where there is one."""

    rule: str
    tone: Literal["settle", "note"]
    says: str
    remedy: WhyRemedy | None
    careful: bool


class BreachMessage(BaseModel):
    """One way by which a promise is broken. `open`: nothing on the way is shut now."""

    source: str
    listener: str
    says: str
    open: bool
    feeds: list[str]
    remedies: list[WhyRemedy]


class PromiseMessage(BaseModel):
    """A promise in words. `vain`: why it watches nothing. `passing`: sources that arrive as it has

    them. `breaking`: in how many ways it is broken; `breaches`: the first of them.
    """

    promise: str
    says: str
    vain: str
    passing: int
    breaking: int
    breaches: list[BreachMessage]


class PreampMessage(BaseModel):
    """What is expected behind a socket's preamp, in dBFS, and the gain that would suit, in dB."""

    socket: str
    dbfs: float
    over: bool
    suggested_db: float


class StepMessage(BaseModel):
    """A first step of a show, and whether it is done."""

    key: core.StepKey
    done: bool
    says: str


class Noticed(BaseModel):
    """Findings, promises, what the preamps make of the lines on them, and the first steps."""

    type: Literal["noticed"]
    revision: int
    promises: list[PromiseMessage]
    findings: list[FindingMessage]
    alike: list[AlikeMessage]
    preamps: list[PreampMessage]
    steps: list[StepMessage]


def noticed_message(state: State) -> dict:
    """Findings, promises, preamps and first steps of a show."""
    found = core.findings(state.show, state.flow)
    return Noticed(
        type="noticed",
        revision=state.revision,
        promises=[_promise(one) for one in core.promises(state.show, state.flow)],
        findings=[
            FindingMessage(
                rule=finding.rule,
                tone=finding.tone,
                says=finding.says,
                about=finding.about,
                remedy=WhyRemedy(says=finding.remedy, moves=moves_to_wire(finding.moves))
                if finding.remedy
                else None,
                careful=finding.careful,
            )
            for finding in found
        ],
        alike=[
            AlikeMessage(
                rule=one.rule,
                tone=one.tone,
                says=one.says,
                remedy=WhyRemedy(says=one.remedy, moves=moves_to_wire(one.moves))
                if one.remedy
                else None,
                careful=one.careful,
            )
            for one in core.alike(found)
        ],
        preamps=[
            PreampMessage(
                socket=p.socket, dbfs=round(p.dbfs, 1), over=p.over, suggested_db=p.suggested_db
            )
            for p in core.preamps(state.show)
        ],
        steps=[
            StepMessage(key=step.key, done=step.done, says=step.says)
            for step in core.first_steps(state.show)
        ],
    ).model_dump(mode="json")


def _promise(judged: core.Judged) -> PromiseMessage:
    return PromiseMessage(
        promise=judged.promise,
        says=judged.says,
        vain=judged.vain,
        passing=judged.passing,
        breaking=len(judged.breaches),
        breaches=[
            BreachMessage(
                source=one.source,
                listener=one.listener,
                says=one.says,
                open=one.open,
                feeds=list(one.feeds),
                remedies=[
                    WhyRemedy(says=r.says, moves=moves_to_wire(r.moves)) for r in one.remedies
                ],
            )
            for one in judged.breaches[:_MOST_BREACHES]
        ],
    )

"""Cues from outside: whether they are armed, by which ways they come, what of them is told."""

import ipaddress
import time
from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid4

from django.contrib.auth import get_user_model
from django.db import transaction
from django.utils import timezone

from ombrel.core import (
    Argument,
    ConsoleError,
    CueRefused,
    Deed,
    Followed,
    NoCueWaits,
    Show,
    UnreadableText,
    check_hands_only,
    deed_for,
    edited,
    refusal,
)

from .. import models
from ..asks.cues import cue_plan
from ..asks.plans import Plan, Planned, Turn
from .door import commit
from .exchange import PROCESS
from .live import live_of
from .request import Done, Outcome, Refused, Request

__all__ = [
    "BEAT_S",
    "Came",
    "Way",
    "arm",
    "cue_person",
    "do_cue",
    "in_trouble",
    "port_of",
    "set_once",
    "set_way",
    "still_heard",
    "tell_dropped",
    "told_of",
    "undo_request",
    "ways_on",
]

BEAT_S = 5.0  # so often a process says that it listens
_GONE_S = 15.0  # another that said nothing for so long listens no more
_KEPT = 400  # rows of a show that are kept,
_DROPPED = 100  # and of what was dropped: a flood takes no line of what was done
_TIDY = 50  # looked at after so many
_MOST_SENDERS = 32
_LONGEST_ONCE_MS = 5_000
_LOWEST_PORT, _HIGHEST_PORT = 1_024, 65_535
Network = ipaddress.IPv4Network | ipaddress.IPv6Network
_PERSON = "Cues from outside"


@dataclass(frozen=True, slots=True)
class Way:
    """A way that is on. `senders`: networks that may send."""

    show_id: UUID
    kind: str
    host: str
    port: int
    senders: tuple[Network, ...]
    answers: bool
    once_s: float

    def takes(self, sender: str) -> bool:
        """Whether a sender's address may send: this machine always may."""
        at = ipaddress.ip_address(sender.partition("%")[0])
        at = getattr(at, "ipv4_mapped", None) or at
        return at.is_loopback or any(at in one for one in self.senders)


@dataclass(frozen=True, slots=True)
class Came:
    """A message that came. `heard`: as cues wait for it; `edit_id`: of what it does; `clock_s`: by

    the monotonic clock.
    """

    way: str
    sender: str
    heard: str
    arguments: tuple[Argument, ...] = ()
    edit_id: UUID = field(default_factory=uuid4)
    at_s: float = field(default_factory=time.time)
    clock_s: float = field(default_factory=time.monotonic)


# ---- settings


def arm(show_id: UUID, mode: str, by: str) -> None:
    """Let cues do something, or only be told: what is just being done is done first."""
    with transaction.atomic():
        models.Show.objects.select_for_update().get(pk=show_id)
        models.CueDesk.objects.update_or_create(
            show_id=show_id, defaults={"mode": mode, "by": by, "at": timezone.now()}
        )


def set_once(show_id: UUID, typed: str) -> None:
    """Set within how many ms the same counts once. Raises UnreadableText."""
    once_ms = _whole(typed, 0, _LONGEST_ONCE_MS, "milliseconds", unit="ms")
    models.CueDesk.objects.update_or_create(show_id=show_id, defaults={"once_ms": once_ms})


def _whole(typed: str, lowest: int, highest: int, what: str, unit: str = "") -> int:
    plain = typed.strip().removesuffix(unit).strip()
    if not (plain.isascii() and plain.isdigit() and len(plain) < 9):
        raise UnreadableText(typed, f"{what} from {lowest} to {highest}")
    if not lowest <= int(plain) <= highest:
        raise UnreadableText(typed, f"{what} from {lowest} to {highest}")
    return int(plain)


def set_way(
    show_id: UUID, kind: str, *, on: bool, host: str, port: str, senders: str, answers: bool
) -> None:
    """Switch a way on or off, with where it listens and who may send. Raises UnreadableText for

    what is no address or port, and for a port that another show's way has.
    """
    number = _whole(port, _LOWEST_PORT, _HIGHEST_PORT, "a port")
    try:
        at = ipaddress.ip_address(host.strip())
    except ValueError:
        raise UnreadableText(host, "an address of this machine, such as 0.0.0.0 for all") from None
    allowed = read_senders(senders)
    taken = models.CueWay.objects.filter(on=True, port=number, show__removed_at=None)
    udp = kind == models.CueWay.Kind.OSC_UDP
    for other in taken.exclude(show_id=show_id, kind=kind).select_related("show"):
        if on and udp == (other.kind == models.CueWay.Kind.OSC_UDP):
            whose = "this show" if other.show_id == show_id else other.show.name
            raise UnreadableText(port, f"another port: {whose} listens there")
    models.CueWay.objects.update_or_create(
        show_id=show_id,
        kind=kind,
        defaults={"on": on, "host": str(at), "port": number, "senders": list(allowed),
                  "answers": answers, "trouble": "", "heard_by": ""},
    )  # fmt: skip


def read_senders(text: str) -> tuple[str, ...]:
    """Addresses and networks as typed, between commas or blanks. Raises UnreadableText."""
    found = []
    for one in text.replace(",", " ").split():
        try:
            network = ipaddress.ip_network(one, strict=False)
        except ValueError:
            raise UnreadableText(one, "addresses such as 10.0.0.5 or 10.0.0.0/24") from None
        alone = network.num_addresses == 1
        found.append(str(network.network_address if alone else network))
    if len(found) > _MOST_SENDERS:
        raise UnreadableText(text, f"at most {_MOST_SENDERS} addresses, or a network")
    return tuple(dict.fromkeys(found))


def ways_on() -> list[Way]:
    """The ways that are on, of all shows that are there."""
    rows = models.CueWay.objects.filter(on=True, show__removed_at=None)
    once = dict(models.CueDesk.objects.values_list("show_id", "once_ms"))
    return [
        Way(row.show_id, row.kind, row.host, row.port,
            tuple(map(ipaddress.ip_network, row.senders)), row.answers,
            once.get(row.show_id, 200) / 1000.0)
        for row in rows
    ]  # fmt: skip


def port_of(show_id: UUID, kind: str) -> int:
    """The port of a show's way that is on. Raises CueRefused where it is off."""
    rows = models.CueWay.objects.filter(show_id=show_id, kind=kind, on=True)
    port = rows.values_list("port", flat=True).first()
    if port is None:
        raise CueRefused("That way in is off. Switch it on first.")
    return port


def still_heard(ways: Sequence[Way]) -> None:
    """Say that this process listens by these ways."""
    for way in ways:
        models.CueWay.objects.filter(show_id=way.show_id, kind=way.kind).update(
            heard_by=PROCESS, heard_at=timezone.now(), trouble=""
        )


def in_trouble(way: Way, why: str) -> None:
    """Say why a way does not listen, unless another process does for this one."""
    row = models.CueWay.objects.filter(show_id=way.show_id, kind=way.kind).first()
    if row is None or row.trouble == why:
        return
    lately = timezone.now() - timedelta(seconds=_GONE_S)
    if row.heard_by not in ("", PROCESS) and row.heard_at and row.heard_at > lately:
        return
    models.CueWay.objects.filter(pk=row.pk).update(trouble=why)


# ---- what comes


def cue_person() -> int:
    """Whom the log names for what cues did; nobody signs in by it."""
    person = get_user_model().objects.filter(username=_PERSON).values_list("pk", flat=True).first()
    if person is not None:
        return person
    made, _ = get_user_model().objects.get_or_create(
        username=_PERSON, defaults={"is_active": False, "password": "!"}
    )
    return made.pk


def do_cue(show_id: UUID, came: Came) -> models.CueTold:
    """Do what a message asks for if cues are armed, else tell what it would do; gives what is told,

    which is kept with what was done or not at all.
    """
    desk = models.CueDesk.objects.filter(show_id=show_id).first() or models.CueDesk()
    once_s = desk.once_ms / 1000.0
    told = models.CueTold(
        show_id=show_id,
        at=datetime.fromtimestamp(came.at_s, UTC),
        way=came.way,
        sender=came.sender[:60],
        came=came.heard[:200],
    )
    shown: list[str] = []
    said: list[str] = []

    def decide(show: Show) -> Deed:
        deed = deed_for(show, came.heard, came.arguments)
        if deed.does == "note":
            shown.append(deed.note)
        return deed

    plan = cue_plan(decide, came.at_s, once_s)
    if desk.mode != models.CueDesk.Mode.ARMED:
        _rehearsed(show_id, plan, told)
        _kept(told, came)
        return told

    def armed(turn: Turn) -> Planned:
        # under the lock of the show's row: who disarms waits for this, or this sees it
        now = models.CueDesk.objects.filter(show_id=show_id).values_list("mode", flat=True)
        if now.first() != models.CueDesk.Mode.ARMED:
            raise CueRefused("Cues were disarmed meanwhile.")
        planned = plan(turn)
        said.append(planned.says)
        return planned

    told.edit_id = edit_id = came.edit_id

    def beside(outcome: Outcome) -> None:
        if isinstance(outcome, Done):
            told.what, told.says = "done", outcome.says
            changed = models.Change.objects.filter(show_id=show_id, edit_id=edit_id)
            told.revision = changed.values_list("revision", flat=True).first()
            if told.revision is None:  # a note, or what was done just before
                told.says = said[-1][:300]
            told.note = bool(shown)
            if shown:
                told.says = shown[-1]
        else:
            _refused(told, outcome)
        _kept(told, came)

    request = Request(
        edit_id=edit_id,
        author_id=cue_person(),
        gesture=str(edit_id),
        plan=armed,
        author=_PERSON,
        trusted=True,
        beside=beside,
    )
    commit(show_id, [request])
    return told


def _refused(told: models.CueTold, refused: Refused) -> None:
    unknown = isinstance(refused.error, NoCueWaits)
    told.what, told.says = "unknown" if unknown else "refused", str(refused.error)[:300]


def _rehearsed(show_id: UUID, plan: Plan, told: models.CueTold) -> None:
    """What it would do as things stand, in words."""
    state = live_of(show_id).now()
    turn = Turn(show_id, None, state.show, Followed(state.flow))
    try:
        planned = plan(turn)
        if planned.moves:
            after = edited(state.show, state.flow, planned.moves, own=planned.own)
            check_hands_only(after.change.new)
    except ConsoleError as error:
        _refused(told, Refused(error))
        told.says = refusal(error, state.show)[:300]
        return
    told.what, told.says = "rehearsed", planned.says[:300]


def _kept(told: models.CueTold, came: Came) -> None:
    told.ms = round((time.monotonic() - came.clock_s) * 1000.0, 1)
    told.save()
    _tidied(told)


def _tidied(told: models.CueTold) -> None:
    """Of a show's rows the newest stay; looked at now and then."""
    if told.pk % _TIDY:
        return
    rows = models.CueTold.objects.filter(show_id=told.show_id)
    dropped = rows.filter(what="dropped")
    for some, most in ((rows.exclude(what="dropped"), _KEPT), (dropped, _DROPPED)):
        oldest = some.order_by("-pk").values_list("pk", flat=True)[most : most + 1].first()
        if oldest is not None:
            some.filter(pk__lte=oldest).delete()


def told_of(show_id: UUID, edit_id: UUID) -> models.CueTold | None:
    """What is told of a message, if that was kept: an answer of the database can be lost."""
    return models.CueTold.objects.filter(show_id=show_id, edit_id=edit_id).first()


def tell_dropped(show_id: UUID, way: str, sender: str, why: str, times: int) -> None:
    """Keep one line of what was dropped before it was read."""
    told = models.CueTold.objects.create(
        show_id=show_id, at=timezone.now(), way=way, sender=sender[:60], came="",
        what="dropped", says=why[:300], times=times,
    )  # fmt: skip
    _tidied(told)


def undo_request(show_id: UUID, told_id: int, edit_id: UUID, by: str) -> Request:
    """The undo of what a told message did, by somebody at the desk. Raises CueRefused."""
    told = models.CueTold.objects.filter(show_id=show_id, pk=told_id).first()
    if told is None or told.revision is None:
        raise CueRefused("That cue changed nothing, or is told no more.")
    return Request(
        edit_id=edit_id,
        author_id=cue_person(),
        gesture=str(edit_id),
        kind=models.Change.Kind.UNDO,
        author=_PERSON,
        trusted=True,
        turned_by=by,
        turns=str(told.edit_id),
    )

"""What a recall will do, told beforehand: by strip in plain words, and listener by listener."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache, partial
from typing import Final

import numpy as np

from ..answers import newly_broken
from ..casting import part_name, tonight, who_changes
from ..catalogue import KINDS, Address, Leaf, Thing, is_on_desk, of_kind
from ..edit import Edited, edited
from ..flow import Flow, listeners, strip_name
from ..scenes import address_of
from ..show import Show, layer_at, lines_on, socket_name
from ..values import ConsoleError, UnknownAddress, Value, said
from ..words import Difference, HeardOtherwise, differences, heard_otherwise, refusal
from .felt import NOTHING_FELT, Felt, felt, felt_in_words
from .recall import Recall, recall

__all__ = ["Looked", "hearing_there", "in_one_line", "look_ahead"]


# what goes with who is on, which is told by name
_UNTOLD: Final = ("kept", "part", "fitting", "attached", "held_back", "fitted_s")
_FAINTEST_DB: Final = -90.0
_LOUD_DB: Final = 6.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Looked:
    """A recall, beforehand. `refused`: why it cannot be made (it would feed back), or "".

    `values`: what changes, in words; `heard`: what listeners hear otherwise, by listener; `warns`:
    what an engineer would want to be stopped for; `beneath`: how many own values change beneath
    fittings, where nobody hears it; `felt`: what no level tells; `going`: who goes off.
    """

    recall: Recall
    refused: str
    values: tuple[Difference, ...]
    heard: tuple[HeardOtherwise, ...]
    warns: tuple[str, ...]
    beneath: int = 0
    felt: Felt = NOTHING_FELT
    going: tuple[str, ...] = ()


def look_ahead(show: Show, flow: Flow, scene: str) -> Looked:
    """What recalling a scene now would change, and who will hear it. Raises NoSuchScene."""
    found = recall(show, scene)
    try:
        after = edited(show, flow, found.moves, own=True)
    except ConsoleError as refused:
        return Looked(recall=found, refused=refusal(refused, show), values=(), heard=(), warns=())
    told = [a for a in after.stood.new if of_kind(a) != "run" and Address.at(a).last not in _UNTOLD]
    beneath = [
        a
        for a in after.change.new
        if (at := layer_at(show.desk, after.show.layers, a)) and after.show[at] is not None
    ]
    heard = _heard(show, flow, after)
    changes = who_changes(show, found.moves)
    coming = {now for _, _, now in changes}
    return Looked(
        recall=found,
        refused="",
        values=tuple(differences(show, after.show, told)),
        heard=heard,
        beneath=len(beneath),
        felt=felt(show, after.show, [a for a in told if Address.at(a).last != "kept"]),
        going=tuple(was for _, was, _ in changes if was and was not in coming),
        warns=(
            *_vacant(after.show, found),
            *_warnings(show, after.show, heard),
            *_phantom(after.show, found),
            *newly_broken(show, flow, after.show, after.flow),
        ),
    )


def _heard(show: Show, flow: Flow, after: Edited) -> tuple[HeardOtherwise, ...]:
    """The cells that listeners in use hear otherwise, listener by listener, largest step first."""
    layout = flow.layout
    drawn = {layout.column(one) for one in (*listeners(show), *listeners(after.show))}
    cells = after.cells[np.isin(after.cells[:, 1], list(drawn))]
    found = heard_otherwise(show, after.show, flow, after.flow, cells)
    return tuple(sorted(found, key=lambda one: (layout.column(one.listener), -_step_db(one))))


def _step_db(one: HeardOtherwise) -> float:
    """How far a level moves; from and to silence as from and to the faintest that counts."""
    return abs(max(one.was_db, _FAINTEST_DB) - max(one.now_db, _FAINTEST_DB))


def _warnings(show: Show, after: Show, heard: Sequence[HeardOtherwise]) -> list[str]:
    """What would hurt: a performer without themselves, a cue for the audience, ears far louder."""
    found = []
    is_cue = cache(partial(_is_cue, after))  # many cells are of few sources
    for one in heard:
        if one.how == "falls_silent" and _is_self(show, one):
            found.append(f"{one.listener_name} loses {one.source_name}, themselves")
        if one.how != "falls_silent" and is_cue(one.source) and _is_public(after, one):
            found.append(f"{one.source_name} is heard in {one.listener_name}")
        step_db = one.now_db - one.was_db
        if one.how == "moves" and step_db >= _LOUD_DB and _serves(after, one.listener) == "ears":
            found.append(f"{one.source_name} is {said(step_db)} dB louder for {one.listener_name}")
    return found


def _phantom(after: Show, found: Recall) -> list[str]:
    """Lines that a recalled source brings to a channel, and whose 48 V is not as they need it."""
    told = []
    for address in found.sources:
        socket = after[address]
        if Address.at(address).last != "source" or not isinstance(socket, str):
            continue
        if not is_on_desk(after.desk, f"{socket}/phantom"):
            continue
        for line in lines_on(after, socket):
            wants, has = after.on(f"line/{line}/phantom"), after.on(f"{socket}/phantom")
            if wants != has:
                name, where = strip_name(after, f"line/{line}"), socket_name(after.desk, socket)
                told.append(f"{name} {'needs' if wants else 'wants no'} 48 V on {where}")
    return told


def _vacant(after: Show, found: Recall) -> list[str]:
    """Parts that the scene puts on, and that nobody plays tonight."""
    parts = {str(after[f"{channel}/part"]) for channel, _ in found.on} - {"None"}
    return [
        f"Nobody plays {part_name(after, part)} tonight"
        for part in sorted(parts)
        if tonight(after, part) is None
    ]


def _is_self(show: Show, one: HeardOtherwise) -> bool:
    """Whether a mix is named after who stands at a source, or what: "Ears fiddle" after Fiddle."""
    words = set(one.listener_name.lower().split())
    named = (
        set(show.text(f"line/{line}/{leaf}").lower().split())
        for line in _lines(show, one.source)
        for leaf in ("performer", "name")
    )
    return of_kind(one.listener) == "mix" and any(own and own <= words for own in named)


def _is_cue(show: Show, source: str) -> bool:
    return any(show[f"line/{line}/family"] == "cues" for line in _lines(show, source))


def _lines(show: Show, source: str) -> list[int]:
    at = Thing.at(source)
    fed_by = show.source_of(at.number) if at.kind == "channel" else None
    return lines_on(show, fed_by) if fed_by else []


def _is_public(show: Show, one: HeardOtherwise) -> bool:
    kind = KINDS.get(of_kind(one.listener))
    return (kind is not None and kind.public) or _serves(show, one.listener) in ("feed", "room")


def _serves(show: Show, listener: str) -> str:
    try:
        return show.text(f"{listener}/serves") if of_kind(listener) == "mix" else ""
    except UnknownAddress:
        return ""


def hearing_there(
    show: Show, flow: Flow, scene: str, holder: str, leaf: Leaf, value: Value
) -> tuple[str, ...] | None:
    """Names of the listeners who would hear it if a value stood in a scene otherwise than it does,

    with the scene recalled from the show as it stands. None: it cannot be recalled from there.
    """
    address = address_of(show, holder, leaf)
    if address is None:
        return ()
    try:
        there = edited(show, flow, recall(show, scene).moves, own=True)
        after = edited(there.show, there.flow, {address: value})
    except ConsoleError:
        return None
    heard = _heard(there.show, there.flow, after)
    return tuple(dict.fromkeys(one.listener_name for one in heard))


def in_one_line(looked: Looked) -> str:
    """What a recall does to whom, to be read at a glance: "Opens Fiddle; closes Host; 9 moves"."""
    if looked.refused:
        return f"Cannot be recalled: {looked.refused}"
    parts = []
    for how, verb in (("opens", "Opens"), ("falls_silent", "Silences")):
        names = list(dict.fromkeys(one.source_name for one in looked.heard if one.how == how))
        if names:
            more = f" and {len(names) - 3} more" if len(names) > 3 else ""
            parts.append(f"{verb} {', '.join(names[:3])}{more}")
    coming = [who for _, who in looked.recall.on if who]
    coming_on = going_off = ""  # they begin with a name
    if coming:
        more = f" and {len(coming) - 2} more" if len(coming) > 2 else ""
        verb = "comes" if len(coming) == 1 else "come"
        coming_on = f"{', '.join(coming[:2])}{more} {verb} on"
        parts.append(coming_on)
    if looked.going:
        more = f" and {len(looked.going) - 2} more" if len(looked.going) > 2 else ""
        verb = "goes" if len(looked.going) == 1 else "go"
        going_off = f"{', '.join(looked.going[:2])}{more} {verb} off"
        parts.append(going_off)
    moves = [one for one in looked.heard if one.how == "moves"]
    if moves:
        listeners_moved = len({one.listener for one in moves})
        hearers = "listener" if listeners_moved == 1 else "listeners"
        levels = "level moves" if len(moves) == 1 else "levels move"
        parts.append(f"{len(moves)} {levels} for {listeners_moved} {hearers}")
    noticed = felt_in_words(looked.felt)
    if not parts and not noticed:
        unheard = len(looked.values)
        words = "1 value changes" if unheard == 1 else f"{unheard} values change"
        return f"{words}, nobody hears it" if unheard else "Changes nothing"
    people = (coming_on, going_off)
    later = (one if one in people else one[0].lower() + one[1:] for one in parts[1:])
    said = [*parts[:1], *later, *noticed]
    return "; ".join([said[0][0].upper() + said[0][1:], *said[1:]])

"""Everything that the core refuses, one class for each thing that a person can put right.

Each error names what is wrong, where, and the way out; the facts are fields, so that nobody reads
them out of the text.
"""

import math
from collections.abc import Collection, Mapping, Sequence
from typing import TYPE_CHECKING, Final

from .said import said

if TYPE_CHECKING:
    from .asked import Asked

__all__ = [
    "BadFile",
    "Broken",
    "Circle",
    "ConsoleError",
    "EditRefused",
    "EngineTaken",
    "EntryTaken",
    "FeedbackLoop",
    "FittingTwice",
    "GangInTheWay",
    "LinkEnded",
    "TooManyTries",
    "WrongCode",
    "ListMovedOn",
    "MovedMeanwhile",
    "MuteGroupSafe",
    "NoSuchCast",
    "NoSuchCell",
    "NoSuchFitting",
    "CueRefused",
    "HandsOnly",
    "NoCueWaits",
    "NoSuchPoint",
    "NoSuchScene",
    "NotAnEffectMix",
    "NotTheirName",
    "NotYours",
    "NotRecordable",
    "NothingLeft",
    "NothingToRedo",
    "NothingToUndo",
    "NumberTaken",
    "OnOnePair",
    "OneFaderTwoPlaces",
    "OnlyInBlocks",
    "OutOfRange",
    "OutOfReach",
    "PhonesLocked",
    "PlanMovedOn",
    "PlanTooHard",
    "SeveralPaths",
    "SocketTaken",
    "SomebodyElseOn",
    "SourcesUnasked",
    "StepOutOfReach",
    "UnknownAddress",
    "UnreadableText",
    "WrongValue",
]


class ConsoleError(Exception):
    """The root of everything that the core refuses. `code` is stable; the message is for people."""

    code = "refused"


class Broken(ConsoleError):
    """A fault of Ombrel itself: it is logged in full, and told without what it gives away."""

    code = "internal"

    def __init__(self) -> None:
        super().__init__("Ombrel failed at this; it is logged. Nothing was changed by it.")


class UnknownAddress(ConsoleError):
    """No parameter of the catalogue, or not on this desk, has this address."""

    code = "unknown_address"

    def __init__(self, address: str, why: str = "the catalogue has no such address") -> None:
        super().__init__(f"{address}: {why}.")
        self.address = address


class NoSuchPoint(ConsoleError):
    """A point of a show's history that it has not reached, or never had."""

    code = "no_such_point"

    def __init__(self, revision: int, newest: int) -> None:
        super().__init__(
            f"The show has no change {revision}: its changes are 0 (blank) to {newest}."
        )
        self.revision, self.newest = revision, newest


class WrongValue(ConsoleError):
    """A value of the wrong kind for its address."""

    code = "wrong_value"

    def __init__(self, address: str, expected: str, found: object) -> None:
        super().__init__(f"{address}: {expected} is needed, not {found!r}.")
        self.address, self.expected, self.found = address, expected, found


class OutOfRange(ConsoleError):
    """A number outside the range of its address."""

    code = "out_of_range"

    def __init__(
        self, address: str, found: float, lowest: float, highest: float, unit: str
    ) -> None:
        low = "off" if lowest == float("-inf") else f"{lowest:g}"
        super().__init__(f"{address}: {found:g} {unit} is outside {low} to {highest:g} {unit}.")
        self.address, self.found, self.lowest, self.highest = address, found, lowest, highest


class UnreadableText(ConsoleError):
    """Typed text that is no value, range or name of the kind that was asked for."""

    code = "unreadable_text"

    def __init__(self, text: str, expected: str) -> None:
        super().__init__(f"Cannot read {text!r}: type {expected}.")
        self.text, self.expected = text, expected


class OutOfReach(ConsoleError):
    """The asked-for level cannot be reached by the one control that would have to move."""

    code = "out_of_reach"

    def __init__(self, what: str, needed_db: float, highest_db: float) -> None:
        super().__init__(
            f"{what} would have to stand at {said(needed_db, signed=True)} dB; it ends at"
            f" {said(highest_db, signed=True)} dB."
            " Raise the level elsewhere on the path (Why shows it)."
        )
        self.needed_db, self.highest_db = needed_db, highest_db


class StepOutOfReach(ConsoleError):
    """A lift cannot be so large by the one control that would trim it."""

    code = "out_of_reach"

    def __init__(self, who: str, where: str, step_db: float, most_db: float) -> None:
        super().__init__(
            f"{who} cannot step up by {said(step_db)} dB at {where}: at most by {said(most_db)} dB."
            " Bring the backing group down, or trim the lift at the lead group."
        )
        self.step_db, self.most_db = step_db, most_db


_MOST_BESIDE: Final = 4  # strips that are named beside a loop


class FeedbackLoop(ConsoleError):
    """Strips feed one another at 0 dB or more: it would howl.

    `nodes` walk from a strip by the loudest way back to it and end where they began; `beside`: the

    other strips by which something comes back there. `gain_db`: once around, all ways together.
    """

    code = "feedback_loop"

    def __init__(self, nodes: tuple[str, ...], beside: tuple[str, ...], gain_db: float) -> None:
        walked = " to ".join(node.replace("/", " ") for node in nodes)
        together = ""
        if beside:
            named = [node.replace("/", " ") for node in beside[:_MOST_BESIDE]]
            more = len(beside) - len(named)
            others = ", ".join([*named, *([f"{more} more"] if more else [])])
            together = f", together with what comes back by {others}"
        super().__init__(
            f"That would feed back: {walked}{together}: {said(gain_db, signed=True)} dB once"
            " around. Keep loops below 0 dB, or open this one at one of these."
        )
        self.nodes, self.beside, self.gain_db = nodes, beside, gain_db


class SeveralPaths(ConsoleError):
    """A level was typed for a source that arrives by several paths, or by strips in between.

    `ways`: what could be moved so that it arrives as typed: words, and moves by address.
    """

    code = "several_paths"

    def __init__(
        self, source: str, listener: str, ways: "Sequence[tuple[str, Mapping[str, Asked]]]"
    ) -> None:
        out = "Choose what is to move." if ways else "No one control brings it there."
        super().__init__(f"{source} does not reach {listener} by its own feed alone. {out}")
        self.ways = tuple(ways)


class GangJumps(ConsoleError):
    """What was typed for one would move others of its gangs far: a person says first whether.

    `moves`: the values that were typed; `others`: (who, dB; inf: to or from off), the farthest
    first; `of`: for whom it was typed.
    """

    code = "gang_jumps"

    def __init__(
        self, moves: "Mapping[str, Asked]", others: Sequence[tuple[str, float]], of: str, gangs: str
    ) -> None:
        far = "; ".join(
            f"{who} {'to or from off' if math.isinf(db) else f'by {said(db, signed=True)} dB'}"
            for who, db in others[:4]
        )
        more = f" and {len(others) - 4} more" if len(others) > 4 else ""
        super().__init__(f"With {of} the gang {gangs} moves {far}{more}.")
        self.moves, self.others, self.of = moves, tuple(others), of


class RemedyMoves(ConsoleError):
    """A remedy moves what is heard elsewhere far: a person says first whether.

    `moves`: of the remedy; `heard`: (source, listener, dB), the farthest first.
    """

    code = "remedy_moves"

    def __init__(
        self, moves: "Mapping[str, Asked]", heard: Sequence[tuple[str, str, float]]
    ) -> None:
        far = "; ".join(
            f"{who} for {whom} by {said(db, signed=True)} dB" for who, whom, db in heard[:4]
        )
        more = f" and {len(heard) - 4} more" if len(heard) > 4 else ""
        super().__init__(f"That also moves {far}{more}.")
        self.moves, self.heard = moves, tuple(heard)


class OneFaderTwoPlaces(ConsoleError):
    """Levels typed together want one control at two places. `cells`: both, by name."""

    code = "one_fader_two_places"

    def __init__(self, what: str, one: tuple[str, str], other: tuple[str, str]) -> None:
        super().__init__(
            f"{what} cannot stand at two places: {one[0]} at {one[1]} and {other[0]} at {other[1]}"
            " want different ones. Type them one after the other."
        )
        self.what, self.cells = what, (one, other)


class SocketTaken(ConsoleError):
    """A socket holds one plug, and two lines would be in it."""

    code = "socket_taken"

    def __init__(self, socket: str, address: str, held_at: str, line: str, holder: str) -> None:
        super().__init__(
            f"{socket} holds one plug: {line} cannot be plugged in where {holder} is. Unplug"
            f" {holder} first, or take another socket."
        )
        self.socket, self.address, self.held_at = socket, address, held_at


class EngineTaken(ConsoleError):
    """An effect engine feeds one return, and two would take it."""

    code = "engine_taken"

    def __init__(self, engine: str, strip: str, held_by: str) -> None:
        super().__init__(
            f"{engine} feeds {held_by.replace('/', ' ')} already, and {strip.replace('/', ' ')}"
            " cannot take it too. Free it there first."
        )
        self.engine, self.strip, self.held_by = engine, strip, held_by


class InsertsSpent(ConsoleError):
    """More insert points would be in use than the desk has. `holders`: who uses them, by name."""

    code = "inserts_spent"

    def __init__(self, desk: str, most: int, holders: "Sequence[str]") -> None:
        shown = ", ".join(holders[:8]) + (" and others" if len(holders) > 8 else "")
        super().__init__(
            f"{desk} has {most} insert points, and all are in use: {shown}. Free one of them first."
        )
        self.most, self.holders = most, tuple(holders)


class SharingSpent(ConsoleError):
    """More strips would share gain than the desk has places for. `holders`: who has them."""

    code = "sharing_spent"

    def __init__(self, desk: str, most: int, holders: "Sequence[str]") -> None:
        shown = ", ".join(holders[:8]) + (" and others" if len(holders) > 8 else "")
        super().__init__(
            f"{desk} has {most} places for strips that share gain, and more would take them:"
            f" {shown}. Take somebody out first."
        )
        self.most, self.holders = most, tuple(holders)


class OneSideOnly(ConsoleError):
    """A strip of two sides would share gain. `strip`: its name; `group`: that of who shares."""

    code = "one_side_only"

    def __init__(self, strip: str, group: str) -> None:
        super().__init__(
            f"{strip} would share gain in {group}, and what does has one side: keep it mono, or"
            f" take it out of {group} first."
        )
        self.strip, self.group = strip, group


class NotRecordable(ConsoleError):
    """What no track can carry as it is wished. `name`: what is wished for; `why`: in words."""

    code = "not_recordable"

    def __init__(self, name: str, why: str) -> None:
        super().__init__(f"{name} cannot be recorded so: {why}.")
        self.name, self.why = name, why


class PlanMovedOn(ConsoleError):
    """A plan that was found for a show that is otherwise now. `why`: in words."""

    code = "plan_moved_on"

    def __init__(self, why: str) -> None:
        super().__init__(f"The plan was found before something changed: {why}. Plan again.")
        self.why = why


class PlanTooHard(ConsoleError):
    """A track plan that could not be proven the best in the time that is given to it."""

    code = "plan_too_hard"

    def __init__(self, seconds: float) -> None:
        super().__init__(
            f"No plan could be proven the best within {seconds:g} s: type on which tracks the most"
            " important wishes stand, or leave out some that have no must."
        )
        self.seconds = seconds


class OscillatorTaken(ConsoleError):
    """The desk has one oscillator, and somebody has it at another frequency."""

    code = "oscillator_taken"

    def __init__(self, holder: str, frequency_hz: float) -> None:
        super().__init__(
            f"{holder} has the oscillator at {frequency_hz:g} Hz, and the desk has one. Take that"
            " frequency, or free the oscillator first."
        )
        self.holder, self.frequency_hz = holder, frequency_hz


class NotAnEffectMix(ConsoleError):
    """A mix that serves something else than an effect would feed an engine."""

    code = "not_an_effect_mix"

    def __init__(self, engine: str, mix: str) -> None:
        super().__init__(
            f"{engine} is fed by {mix.replace('/', ' ')}, which is not used for an effect. Use"
            " the mix for an effect, or take the engine off it first."
        )
        self.engine, self.mix = engine, mix


class OnlyInBlocks(ConsoleError):
    """Outputs that can be patched only in runs were left half patched or out of order."""

    code = "only_in_blocks"

    def __init__(self, box: str, first: int, last: int) -> None:
        size = last - first + 1
        super().__init__(
            f"{box} is patched only in blocks of {size}: outputs {first} to {last} carry {size}"
            " channels or mixes in a row, or nothing. Patch the block as a whole."
        )
        self.box, self.first, self.last = box, first, last


class Circle(ConsoleError):
    """A DCA would rule itself, or a group feed itself. `names` walk the circle and end where they

    began.
    """

    code = "circle"

    def __init__(self, names: Sequence[str], *, groups: bool = False) -> None:
        what = "group cannot feed" if groups else "DCA cannot rule"
        walk = (" into " if groups else " in ").join(names)
        super().__init__(f"A {what} itself: {walk}. Take one of them out of the next.")
        self.names = tuple(names)


class GangInTheWay(ConsoleError):
    """What a gang would carry along bears on the level that was typed for a cell."""

    code = "gang_in_the_way"

    def __init__(self, source: str, listener: str, gangs: Sequence[str]) -> None:
        super().__init__(
            f"{source} would not arrive at {listener} as typed: {' and '.join(gangs)} would move"
            " more on its way. Let the gang rest, or move the fader."
        )
        self.gangs = tuple(gangs)


class MuteGroupSafe(ConsoleError):
    """The key of a mute group that is safe would be moved."""

    code = "mute_group_safe"

    def __init__(self, name: str) -> None:
        super().__init__(f"{name} is locked: nothing moves its key. Unlock it first, in Mutes.")
        self.name = name


class NothingLeft(ConsoleError):
    """The desk has not enough of something (mixes, channels, sockets, lines)."""

    code = "nothing_left"

    def __init__(self, what: str, wanted: int, left: int) -> None:
        super().__init__(
            f"{wanted} {what} wanted, {left} left on this desk. Free some, or ask for fewer."
        )
        self.what, self.wanted, self.left = what, wanted, left


class NothingToUndo(ConsoleError):
    """This person has nothing to undo."""

    code = "nothing_to_undo"

    def __init__(self) -> None:
        super().__init__("You have nothing to undo in this show.")


class NothingToRedo(ConsoleError):
    """This person has nothing to redo."""

    code = "nothing_to_redo"

    def __init__(self) -> None:
        super().__init__("You have nothing to redo in this show.")


class ListMovedOn(ConsoleError):
    """What was shown of a list before it was taken is no longer what would be taken."""

    code = "list_moved_on"

    def __init__(self) -> None:
        super().__init__(
            "Nothing was taken: the show has changed since this was shown. Look at what the list"
            " becomes now, and take it again."
        )


class EditRefused(ConsoleError):
    """An edit of several moves, refused whole. `faults`: every fault, not only the first."""

    code = "edit_refused"

    def __init__(self, faults: Sequence[ConsoleError]) -> None:
        shown = " ".join(str(fault) for fault in faults[:5])
        more = f" And {len(faults) - 5} more." if len(faults) > 5 else ""
        super().__init__(f"Nothing was changed. {shown}{more}")
        self.faults = tuple(faults)


class BadFile(ConsoleError):
    """A file that cannot be read as what it should be. Nothing was changed."""

    code = "bad_file"

    def __init__(self, what: str, way_out: str) -> None:
        super().__init__(f"{what} {way_out} Nothing was changed.")
        self.what, self.way_out = what, way_out


class NotThere(ConsoleError):
    """What an ask names is not in the show, or not on its desk."""

    code = "not_there"

    def __init__(self, what: str) -> None:
        super().__init__(
            f"There is no {what} in this show; it may have been removed meanwhile."
            " Nothing was changed."
        )
        self.what = what


class NoSuchScene(ConsoleError):
    """No scene of the show has this number."""

    code = "no_such_scene"

    def __init__(self, number: str) -> None:
        super().__init__(f"There is no scene {number}. The list of scenes shows which there are.")
        self.number = number


class NumberTaken(ConsoleError):
    """Two scenes cannot have one number: it is their place in the order."""

    code = "number_taken"

    def __init__(self, number: str, name: str) -> None:
        super().__init__(f"{number} is the number of {name or 'another scene'}. Take another.")
        self.number, self.name = number, name


class NoSuchCell(ConsoleError):
    """A scene cannot carry this of this strip, or does not."""

    code = "no_such_cell"

    def __init__(self, holder: str, cell: str) -> None:
        super().__init__(f"{holder} has no {cell[:60]} in this scene. Put it in first.")
        self.holder, self.cell = holder, cell


class SourcesUnasked(ConsoleError):
    """A recall changes what channels are fed by, and nobody has said yes to that."""

    code = "sources_unasked"

    def __init__(self, count: int) -> None:
        super().__init__(f"This scene changes {count} sources. Look at the preview and say yes.")
        self.count = count


class CueRefused(ConsoleError):
    """A cue from outside that cannot do what it is for, as things stand."""

    code = "cue_refused"


class NoCueWaits(ConsoleError):
    """A message from outside for which no cue waits."""

    code = "no_cue_waits"

    def __init__(self, heard: str) -> None:
        super().__init__(f"No cue waits for {heard}.")
        self.heard = heard


class HandsOnly(ConsoleError):
    """A cue from outside would change what takes two presses of a hand."""

    code = "hands_only"

    def __init__(self, what: str) -> None:
        super().__init__(
            f"Nothing was changed: it would change {what}, which takes two presses of a hand."
        )


class NoSuchFitting(ConsoleError):
    """There is no such fitting, part or performer."""

    code = "no_such_fitting"

    def __init__(self, what: str) -> None:
        super().__init__(f"There is no {what[:60]} in this show. Cast shows what there is.")
        self.what = what


class NoSuchCast(ConsoleError):
    """There is no such cast."""

    code = "no_such_cast"

    def __init__(self, what: str) -> None:
        super().__init__(f"There is no {what[:60]} in this show. Cast shows which casts there are.")
        self.what = what


class FittingTwice(ConsoleError):
    """A performer has one fitting for a part and microphone."""

    code = "fitting_twice"

    def __init__(self, whose: str) -> None:
        super().__init__(f"{whose} is there already. A performer has one for a part's microphone.")
        self.whose = whose


class NotTheirName(ConsoleError):
    """Settings are kept only under a name that is said, and this is another's."""

    code = "not_their_name"

    def __init__(self, said: str, name: str) -> None:
        super().__init__(
            f"Nothing was kept: {said[:60] or 'no name'!r} was said, and this is {name}'s."
            f" Say {name} to keep it under that name."
        )
        self.said, self.name = said, name


class SomebodyElseOn(ConsoleError):
    """Somebody else came on, or went off, while a hand was moving what it saw of another."""

    code = "somebody_else_on"

    def __init__(self, where: str, name: str) -> None:
        now = f"{name} is on now" if name else "nobody is on now"
        super().__init__(
            f"Not moved: who is on {where} has changed since your hand began, and {now}."
            " Look, and move it again."
        )
        self.where, self.name = where, name


class Renumbered(ConsoleError):
    """Strips were given other numbers while a hand was moving what it saw by the old ones."""

    code = "renumbered"

    def __init__(self, names: Collection[str]) -> None:
        said = ", ".join(sorted(names)[:3])
        super().__init__(
            f"Not moved: another strip has the number {said} since your hand began."
            " Look, and move it again."
        )
        self.names = tuple(sorted(names))


class ShowOpen(ConsoleError):
    """A show is to be removed that others have open: they are named first."""

    code = "show_open"

    def __init__(self, names: Sequence[str]) -> None:
        who = ", ".join(names[:4]) + (f" and {len(names) - 4} more" if len(names) > 4 else "")
        verb = "has" if len(names) == 1 else "have"
        super().__init__(f"{who} {verb} it open. Remove it all the same, or leave it.")
        self.names = tuple(names)


class NotNext(ConsoleError):
    """A go came that means another scene than the one that is next."""

    code = "not_next"

    def __init__(self, meant: str, there: str) -> None:
        now = f"{there} is next" if there else "nothing is next"
        super().__init__(f"Not recalled: the go was meant for {meant}, and {now} by now.")
        self.meant, self.there = meant, there


class EntryLeft(ConsoleError):
    """A step of the mic check came from an entry that its operator is no longer at."""

    code = "entry_left"

    def __init__(self, meant: str, there: str) -> None:
        now = f"you are at {there} by now" if there else "you are at no entry by now"
        super().__init__(f"Nobody was marked: that step was meant for {meant}, and {now}.")
        self.meant, self.there = meant, there


class OnOnePair(ConsoleError):
    """A fitting is one voice's: no side of a linked pair takes one."""

    code = "on_one_pair"

    def __init__(self, channel: str) -> None:
        super().__init__(
            f"{channel} is one side of a linked pair, and a fitting is for one channel."
            " Part the pair, or take the fitting off."
        )
        self.channel = channel


class EntryTaken(ConsoleError):
    """Somebody else checks it, or what shares its channel or preamp, or one has another on."""

    code = "entry_taken"

    def __init__(self, what: str, by: str, way_out: str) -> None:
        super().__init__(f"{what} is being checked by {by}. {way_out}")
        self.what, self.by = what, by


class NotYours(ConsoleError):
    """A performer's link does not move this."""

    code = "not_yours"

    def __init__(self, address: str) -> None:
        super().__init__(
            f"{address} is not moved from this phone. Nothing was changed; ask the desk."
        )
        self.address = address


_BEYOND: Final = {
    "assistant": "{} is for an engineer to change. You assist here: line check, arrivals, notes and"
    " paper. Nothing was changed.",
    "volunteer": "{} is not given to you. Nothing was changed; ask the engineer.",
    "ends": "{} stays between its ends for you. Nothing was changed; ask the engineer.",
    "onlooker": "You look on in this show, and change nothing: {} stays as it is.",
}


class NotAllowed(ConsoleError):
    """A person's role in a show does not reach so far. `address`: at which; `how`: the role, or

    "ends" for a volunteer's fader that would leave them; "" for who has no role.
    """

    code = "not_allowed"

    def __init__(self, address: str, how: str = "") -> None:
        words = _BEYOND.get(how, "This show is not shared with you: {} stays as it is.")
        super().__init__(words.format(address))
        self.address, self.how = address, how


class RoleTooSmall(ConsoleError):
    """Something was asked for that a role in a show does not do, whatever the address."""

    code = "not_allowed"

    def __init__(self, role: str) -> None:
        a = "an" if role[:1] in "aeo" else "a"
        super().__init__(
            f"That is not for {a} {role} of this show. Nothing was changed; ask who owns it."
        )
        self.role = role


class PhonesLocked(ConsoleError):
    """The desk locked a mix, or all of them, for phones."""

    code = "locked"

    def __init__(self, reason: str) -> None:
        why = f": {reason}" if reason else ""
        super().__init__(f"Locked by the desk{why}. Nothing was changed, and nothing waits.")
        self.reason = reason


class LinkEnded(ConsoleError):
    """A link was revoked, or its time has come."""

    code = "link_ended"

    def __init__(self) -> None:
        super().__init__("This link has ended. Ask the desk for another.")


class WrongPassword(ConsoleError):
    """A password that is to be changed is not the one that was typed."""

    code = "wrong_password"

    def __init__(self) -> None:
        super().__init__("That is not your password. Nothing was changed.")


class LastAdministrator(ConsoleError):
    """Nobody would be left who can make accounts."""

    code = "last_administrator"

    def __init__(self) -> None:
        super().__init__("This is the last open administrator. Let somebody else be one first.")


class WrongCode(ConsoleError):
    """A short code that does not stand for whoever's it was said to be."""

    code = "wrong_code"

    def __init__(self) -> None:
        super().__init__("That is not the code for this name. The desk has it.")


class TooManyTries(ConsoleError):
    """Codes or passwords were tried too often for a name, or from one address. `way_out`: what else

    to do than to wait.
    """

    code = "too_many_tries"

    def __init__(self, what: str = "codes", way_out: str = "open the desk's link") -> None:
        super().__init__(f"Too many {what} were tried. Wait ten minutes, or {way_out}.")


class MovedMeanwhile(ConsoleError):
    """Somebody else moved what a phone moves since its page saw it."""

    code = "moved_meanwhile"

    def __init__(self, who: str, what: str) -> None:
        super().__init__(f"Not moved: {who} moved {what} meanwhile. Take hold of it again.")
        self.who, self.what = who, what

"""Views and deeds by their words and by what else people call them."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final, Literal

from ..catalogue import of_kind
from ..show import Show
from ..together import soloed
from ..values import plain
from .answer import Answer, Group
from .words import BETWEEN, begins

__all__ = ["CONTROLS", "HereDone", "place_answers", "place_words", "solo_answers"]

# What the screen does by itself: it keeps no rule of the job.
HereDone = Literal[
    "notices",
    "undo", "redo", "keys", "new_show", "open_file", "save_file", "copy_show", "sign_out",
    "theme_dark", "theme_light", "theme_system", "why", "first_steps",
]  # fmt: skip


@dataclass(frozen=True, slots=True)
class _Place:
    """What is offered: its title, what leads to it beside its title, and what it does."""

    title: str
    words: str
    view: str = ""
    at: str = ""
    beside: str = ""
    here: str = ""
    action: str = ""
    fields: tuple[tuple[str, object], ...] = ()


_VIEWS: Final = (
    _Place("Lines", "input list; inputs; channel list; stage plot; add a line; import list; rider",
           view="lines"),
    _Place("Patch", "patchbay; soft patch; stage box; sockets; inputs; preamps; 48 V; phantom;"
           " head amps", view="patch"),
    _Place("Outputs", "outs; direct outs; speakers; amps; system delay; crossover",
           view="outputs"),
    _Place("Tracks", "recording; record; recorder; multitrack; track plan; track sheet; stems",
           view="tracks"),
    _Place("Play tracks back", "virtual sound check; playback; play back; yesterday's tracks",
           view="tracks", at="back"),
    _Place("Cues from outside", "cues; osc; midi; show control; msc; program change; triggers;"
           " trigger; remote; arm cues; rehearse cues; cue machine", view="cues"),
    _Place("Line check", "check lines; oscillator; scratch test; test tone; tone", view="check"),
    _Place("Routing", "groups; subgroups; assign; buses; sends; promise; matrix; matrices;"
           " put a group in between", view="routing"),
    _Place("Assignments", "at a glance; overview of assignments; what is assigned; all assignments",
           view="assignments"),
    _Place("Mixes", "aux; auxes; monitor; monitors; monitor mixes; iem; iems; in ears; headphones;"
           " wedges; foldback; sends; buses; n minus one", view="mixes"),
    _Place("Effects", "fx; reverb; reverbs; delay; echo; verb; plate; hall; room; tap tempo; tempo",
           view="effects"),
    _Place("Strip", "open strip; channel strip; eq; equaliser; equalizer; compressor; comp; gate;"
           " dynamics; processing; low cut; hpf; selected channel; presets; insert", view="strip"),
    _Place("Banks", "layers; fader layers; surface; faders; pages; unfold",
           view="banks"),
    _Place("DCAs", "vca; vcas; control groups", view="dcas"),
    _Place("Mutes", "mute groups; seals; seal; panic; panic mute", view="mutes"),
    _Place("Gangs and pairs", "link; links; linking; stereo link; ganging; pair", view="gangs"),
    _Place("Shared gain", "gain sharing; automatic mixing; automatic mixer; automixer; auto mix;"
           " automix; panel; speech; talkers; who has the floor", view="sharing"),
    _Place("Lifts", "lift; backing vocals; lead vocals; singers; soloist", view="lifts"),
    _Place("Cast", "company; parts; performers; understudies; understudy; actors; roles; fittings;"
           " double cast", view="cast"),
    _Place("Mic check", "sound check; radio check; microphone check", view="miccheck"),
    _Place("Crew", "share the show; share; permissions; access; volunteers; volunteer; onlookers;"
           " assistants; who may", view="crew"),
    _Place("Your account", "password; change password; account; signed in; sessions",
           view="account"),
    _Place("Accounts", "administrator; users; new account; add a user", view="accounts"),
    _Place("Backups", "backup; restore; copy of everything; archive", view="backups"),
    _Place("Scenes", "snapshots; snapshot; cues; cue; memories; scene list; recall safe; pins;"
           " store scene; scope", view="scenes"),
    _Place("Run", "run the show; cue list; show mode; go button", view="run"),
    _Place("Who hears what", "overview; table; listeners; who hears; start; home", view="hears"),
    _Place("What is wrong", "findings; problems; errors; warnings; faults; troubleshoot; phase;"
           " feedback; gain structure", view="wrong"),
    _Place("Promises", "promise; never reaches; rules", view="wrong", at="promises"),
    _Place("History", "log; undo list; who did what; versions; points; changes; compare",
           view="history"),
    _Place("Print or export", "print; export; pdf; paper; paperwork; sheets; spreadsheet; csv",
           view="paper"),
    _Place("Settings", "preferences; options; text size; font size; clock; date; single letters;"
           " accessibility", view="settings"),
    _Place("Guide", "help; manual; how to; documentation; first hour; glossary", view="guide"),
    _Place("Shows", "open a show; all shows; other show; show library; files", view="shows"),
)  # fmt: skip
# Controls of views, by what they are called there: the hand is led to them.
CONTROLS: Final = (
    _Place("Import a list", "import lines; import inputs; paste a list; open a list; input list",
           view="lines", beside="Import a list\u2026"),
    _Place("New line", "add a line; another line", view="lines", beside="Name of a new line"),
    _Place("Patch as a grid", "grid; matrix patch; crosspoints", view="patch", beside="As a grid"),
    _Place("Target of the gains", "target level; headroom; target", view="patch",
           beside="Target level"),
    _Place("Put a group in between", "group in between; insert a group; through a group",
           view="routing", beside="Put a group in between"),
    _Place("New mixes", "new mix; add a mix; another mix; new aux; new monitor; new wedge;"
           " new ears; new group; new matrix", view="mixes", beside="New mix"),
    _Place("Fill this mix", "fill; fill from; copy a mix; balance of the house", view="mixes",
           beside="Fill"),
    _Place("Duplicate this mix", "duplicate; duplicate mix", view="mixes", beside="Duplicate"),
    _Place("New effect", "add an effect; new reverb; new delay", view="effects",
           beside="Name of a new effect"),
    _Place("Tap the tempo", "tap tempo; bpm; beats per minute", view="effects",
           beside="Tap the tempo"),
    _Place("Presets", "library; keep settings; load a preset", view="strip", beside="Presets"),
    _Place("Fitting of this strip", "capture; capture settings; new fitting; versions",
           view="strip", beside="Fitting"),
    _Place("Copy to strips", "copy eq; copy settings; paste settings; copy", view="strip",
           beside="Copy the"),
    _Place("Edit banks", "edit layers; new bank; name banks; arrange faders", view="banks",
           beside="Edit banks"),
    _Place("Where solo leads", "solo mode; pfl afl", view="banks", beside="Where solo leads"),
    _Place("Faders as sends", "fader sends; sends into a mix; faders as", view="banks",
           beside="Faders as"),
    _Place("New DCAs", "new dca; new vca; add a dca", view="dcas", beside="Names of new DCAs"),
    _Place("New mute groups", "new mute group; add a mute group; new seal", view="mutes",
           beside="Names of new"),
    _Place("New gangs", "new gang; add a gang", view="gangs", beside="Names of new"),
    _Place("Link all stereo lines", "link stereo; link all; stereo pairs", view="gangs/pairs",
           beside="Link all stereo lines"),
    _Place("New group that shares gain", "share gain; share one gain; new panel", view="sharing",
           beside="Who shares gain"),
    _Place("New lift", "add a lift", view="lifts", beside="Name of a new lift"),
    _Place("Tonight's cast", "tonight; choose cast; change cast; who plays", view="cast",
           beside="Tonight's cast"),
    _Place("All fittings on", "put fittings on; everybody on", view="cast",
           beside="All fittings on"),
    _Place("New part", "add a part; new role", view="cast", beside="Name of the new part"),
    _Place("New cast", "add a cast; another cast", view="cast", beside="Name of the new cast"),
    _Place("Store a new scene", "new scene; new snapshot; store snapshot", view="scenes",
           beside="Name of the new scene"),
    _Place("Number scenes anew", "renumber; number anew; renumber scenes", view="scenes",
           beside="Number anew"),
    _Place("Duplicate this scene", "duplicate scene; copy scene", view="scenes",
           beside="Duplicate"),
    _Place("Remove this scene", "remove scene; delete scene", view="scenes", beside="Remove"),
    _Place("Notes of this scene", "scene notes; cue notes", view="scenes",
           beside="Notes of the scene"),
    _Place("Pin a family", "pin all; recall safe a family; hold a family", view="scenes",
           beside="Pin all of a family"),
    _Place("Rehearse", "rehearsal; rehearse; dry run", view="run", beside="rehearse"),
    _Place("New promise", "promise that; must never reach", view="wrong/promises",
           beside="What is promised of"),
    _Place("Mix-minus", "mix minus; n minus one; all but one", view="wrong/promises",
           beside="The mix that has all but"),
    _Place("Keep a point", "keep point; new point; bookmark; version; go back to a point",
           view="history", beside="Name of a point"),
)  # fmt: skip
_DEEDS: Final = (
    _Place("Undo", "take back; revert; oops", here="undo"),
    _Place("Redo", "again", here="redo"),
    _Place("Every key", "keyboard; shortcuts; short keys; hotkeys; keys", here="keys"),
    _Place("Notices", "messages; refusals; alerts; what was said; errors", here="notices"),
    _Place("A new show", "new show; create show; start over", here="new_show"),
    _Place("Open a file", "load file; import show; load show; open file", here="open_file"),
    _Place("Save to a file", "save; save as; backup; back up; download; export show",
           here="save_file"),
    _Place("Copy the show", "duplicate show; copy show", here="copy_show"),
    _Place("Sign out", "log out; logout; leave; quit", here="sign_out"),
    _Place("Dark theme", "dark mode; night", here="theme_dark"),
    _Place("Light theme", "light mode; day; bright", here="theme_light"),
    _Place("Theme of the system", "auto theme; system theme", here="theme_system"),
    _Place("Open or fold Why", "why; explain; explanation", here="why"),
    _Place("First steps", "getting started; begin; start here; tutorial", here="first_steps"),
    _Place("Let everybody wait again", "begin again; mic check again; restart check",
           action="check_again"),
    _Place("Patch all lines", "auto patch; patch inputs; patch everything", action="patch_lines",
           fields=(("lines", []),)),
    _Place("Set all gains as suggested", "auto gain; suggest gains; gain structure",
           action="suggest_gains", fields=(("lines", []),)),
    _Place("Patch mixes to free outputs", "patch outputs; patch monitors",
           action="patch_buses", fields=(("buses", []),)),
    _Place("Make a seal of all inputs", "mute all inputs; mute all; panic; mute everything",
           action="mute_all", fields=(("what", "inputs"),)),
    _Place("Make a seal of all ears", "mute all ears; mute all monitors; mute iems",
           action="mute_all", fields=(("what", "ears"),)),
)  # fmt: skip
_SOLO_MODES: Final = {
    "before_fader": "Solo before the fader",
    "after_fader": "Solo after the fader",
    "in_place": "Solo in place",
}
_SOLO_WORDS: Final = {
    "before_fader": "solo mode before; pfl; pre fader listen",
    "after_fader": "solo mode after; afl; after fader listen",
    "in_place": "solo mode in place; sip",
}
_GROUP_OF: Final[dict[bool, Group]] = {True: "go", False: "do"}


def place_answers(show: Show, typed: list[str]) -> Iterator[Answer]:
    """Views and deeds that answer to all of some plain words."""
    said = [word for word in typed if word not in BETWEEN] or typed
    for one in (*_VIEWS, *CONTROLS, *_DEEDS, *_solos(show)):
        rank = _answers(one, said) if said else 0.0
        if rank:
            yield Answer(
                group=_GROUP_OF[bool(one.view)],
                title=one.title,
                about=_about(one),
                view=one.view,
                at=one.at,
                beside=one.beside,
                here=one.here,
                action=one.action,
                fields=dict(one.fields),
                rank=rank,
            )


def _about(one: _Place) -> str:
    """ "view", or of a control the view that it is on."""
    if not one.beside:
        return "view" if one.view else ""
    return next(view.title for view in _VIEWS if view.view == of_kind(one.view))


def solo_answers(typed: list[str]) -> Iterator[Answer]:
    """Where solo keys lead, by its words."""
    for mode, title in _SOLO_MODES.items():
        said = [word for word in typed if word != "in"]
        rank = _answers(_Place(title, _SOLO_WORDS[mode]), said) if said else 0.0
        if rank:
            yield Answer(group="change", title=title, moves={"show/solo": mode}, rank=rank + 2.0)


def _solos(show: Show) -> Iterator[_Place]:
    if soloed(show):
        yield _Place("Clear solos", "solo off; unsolo; no solo", action="clear_solos")


def _answers(one: _Place, typed: list[str]) -> float:
    """How well a place answers: by its title, or by one of what else it is called, as a whole."""
    phrases = [(one.title, 1.0), *((phrase, 0.85) for phrase in one.words.split(";"))]
    best = 0.0
    for phrase, worth in phrases:
        words = [word for word in plain(phrase).split() if word not in BETWEEN]
        fits = [max((_begins(word, there) for there in words), default=0.0) for word in typed]
        if all(fits):
            covered = min(1.0, len(typed) / max(len(words), 1))
            best = max(best, worth * (3.2 + 3.2 * covered) * sum(fits) / len(fits))
    return best


def _begins(typed: str, word: str) -> float:
    """Two letters are the beginning of too much."""
    return begins(typed, word) if len(typed) > 2 or typed == word else 0.0


def place_words() -> set[str]:
    """Every plain word that leads to a view or a deed."""
    return {
        word
        for one in (*_VIEWS, *CONTROLS, *_DEEDS)
        for word in plain(f"{one.title} {one.words}").split()
    }

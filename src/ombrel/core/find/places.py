"""Views and deeds by their words and by what else people call them."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final, Literal

from ..show import Show
from ..together import soloed
from ..values import plain
from .answer import Answer, Group
from .words import BETWEEN, begins

__all__ = ["HereDone", "place_answers", "place_words", "solo_answers"]

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
    here: str = ""
    action: str = ""
    fields: tuple[tuple[str, object], ...] = ()


_VIEWS: Final = (
    _Place("Lines", "input list; inputs; channel list; stage plot; add a line; import list; rider",
           view="lines"),
    _Place("Patch", "patchbay; soft patch; stage box; sockets; inputs; preamps; 48 V; phantom;"
           " head amps", view="patch"),
    _Place("Outputs", "outs; direct outs; speakers; amps; system delay; crossover; recorder;"
           " multitrack; tracks", view="outputs"),
    _Place("Line check", "check lines; oscillator; scratch test; test tone; tone", view="check"),
    _Place("Routing", "groups; subgroups; assign; buses; sends; promise; matrix; matrices;"
           " put a group in between", view="routing"),
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
    _Place("Lifts", "lift; backing vocals; lead vocals; singers; soloist", view="lifts"),
    _Place("Cast", "company; parts; performers; understudies; understudy; actors; roles; fittings;"
           " double cast", view="cast"),
    _Place("Mic check", "sound check; radio check; microphone check", view="miccheck"),
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
    for one in (*_VIEWS, *_DEEDS, *_solos(show)):
        rank = _answers(one, said) if said else 0.0
        if rank:
            yield Answer(
                group=_GROUP_OF[bool(one.view)],
                title=one.title,
                about="view" if one.view else "",
                view=one.view,
                at=one.at,
                here=one.here,
                action=one.action,
                fields=dict(one.fields),
                rank=rank,
            )


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
        word for one in (*_VIEWS, *_DEEDS) for word in plain(f"{one.title} {one.words}").split()
    }

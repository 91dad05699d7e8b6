"""What a cue does: as it stands in the show, as it is typed, and as it is said."""

import re
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Final

from ..casting import (
    cast_name,
    casts,
    fitting_name,
    fittings,
    part_name,
    parts,
    performer_name,
)
from ..catalogue import SOURCES, name_below, of_kind, strips_of
from ..flow import strip_name
from ..jobs import lifts_in_use
from ..scenes import scene_at_number, scene_named
from ..show import Show, read_strips
from ..values import ConsoleError, UnreadableText, plain

__all__ = ["Deed", "deed_text", "fits", "is_gone", "read_deed"]

_HELP: Final = (
    'what it does, such as "go", "back", "scene 4.5", "mute group 2 on", "DCA 3 mute off",'
    ' "Host on 5", "cast Thursday", "lift Ada", "return Ada", "note: stand by"'
)
_ON: Final = {"on": True, "mute": True, "off": False, "open": False, "unmute": False}
# what each deed is about
_ABOUT: Final = {
    "scene": ("scene",),
    "person": ("part", "fitting"),
    "cast": ("cast",),
    "mute": ("mute_group", "dca"),
    "lift": ("lift",),
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Deed:
    """What is done. `does`: "go", "back", "scene", "person", "cast", "mute", "lift" or "note";

    `what`: the scene, part, fitting, cast, mute group, DCA or lift ("": none; for go the scene that
    it names); `on`: muted, lifted; `strip`: the channel that somebody goes on, or who is lifted
    ("": all); `note`: what is shown.
    """

    does: str
    what: str = ""
    on: bool = True
    strip: str = ""
    note: str = ""


def fits(deed: Deed) -> bool:
    """Whether a deed names what it is about, and of the right kind."""
    if deed.does == "note":
        return bool(deed.note)
    if deed.does == "go":
        return not deed.what or of_kind(deed.what) == "scene"
    if deed.does == "back":
        return True
    needs_strip = deed.does == "person"
    return bool(deed.what) and of_kind(deed.what) in _ABOUT[deed.does] and (
        not needs_strip or of_kind(deed.strip) == "channel"
    )  # fmt: skip


def is_gone(show: Show, deed: Deed) -> bool:
    """Whether what a deed is about is no more in the show."""
    if not deed.what:
        return False
    match of_kind(deed.what):
        case "scene":
            return deed.what not in show.scenes
        case "cast":
            return deed.what not in casts(show)
        case "part":
            return deed.what not in parts(show)
        case "fitting":
            return deed.what not in fittings(show)
        case "lift":
            return deed.what not in lifts_in_use(show)
    return False


def deed_text(show: Show, deed: Deed) -> str:
    """A deed in words, as it could be typed, but for a scene's name behind its number."""
    if not fits(deed):
        return "nothing yet"
    if is_gone(show, deed):
        return f"a {of_kind(deed.what)} that is gone"
    match deed.does:
        case "scene":
            return f"scene {scene_named(show, deed.what)}"
        case "go" if deed.what:
            return f"go to scene {scene_named(show, deed.what)}"
        case "person":
            return f"{_who(show, deed.what)} on {_quoted(strip_name(show, deed.strip))}"
        case "cast":
            return f"cast {cast_name(show, deed.what)}"
        case "mute" if of_kind(deed.what) == "dca":
            number = name_below(deed.what)
            called = _also(show, deed.what)
            return f"DCA {number}{called} mute {'on' if deed.on else 'off'}"
        case "mute":
            number, called = name_below(deed.what), _also(show, deed.what)
            return f"mute group {number}{called} {'on' if deed.on else 'off'}"
        case "lift":
            who = (
                _quoted(strip_name(show, deed.strip)) if deed.strip else _lift_name(show, deed.what)
            )
            return f"{'lift' if deed.on else 'return'} {who}"
        case "note":
            return f"note: {deed.note}"
    return deed.does


def _who(show: Show, what: str) -> str:
    of_part = of_kind(what) == "part"
    return _quoted(part_name(show, what) if of_part else fitting_name(show, what))


def _also(show: Show, ruler: str) -> str:
    name = show.text(f"{ruler}/name")
    return f" ({name})" if name else ""


def _lift_name(show: Show, lift: str) -> str:
    return show.text(f"{lift}/name") or lift.replace("/", " ")


def read_deed(show: Show, text: str) -> Deed:
    """What is done, as typed. Raises UnreadableText, NoSuchScene."""
    said = " ".join(text.split())
    low = said.lower()
    if found := re.fullmatch(r"(?:note|show)\s*:\s*(.+)", said, re.IGNORECASE):
        return Deed(does="note", note=_unquoted(found[1])[:200])
    if low in ("go", "next"):
        return Deed(does="go")
    if low in ("back", "previous"):
        return Deed(does="back")
    if found := re.fullmatch(r"(?:recall )?scene ([\d.,]+)\b.*", low):
        return Deed(does="scene", what=scene_at_number(show, found[1].rstrip(",.")))
    if found := re.fullmatch(r"(?:tonight's )?cast (.+)", said, re.IGNORECASE):
        return Deed(does="cast", what=_named(found[1], casts(show), lambda c: cast_name(show, c)))
    if found := re.fullmatch(r"(lift|return) (.+)", said, re.IGNORECASE):
        return _lifting(show, found[2], on=found[1].lower() == "lift")
    if deed := _muting(show, said):
        return deed
    if found := re.fullmatch(r'(?:put )?("[^"]+"|.+) on ("[^"]+"|.+)', said, re.IGNORECASE):
        return _person(show, found[1], found[2])
    raise UnreadableText(said, _HELP)


def _quoted(name: str) -> str:
    """A name as it is typed: in quotes where a list would be cut at it."""
    return f'"{name}"' if "," in name or " on " in name else name


def _unquoted(text: str) -> str:
    return text[1:-1] if len(text) > 1 and text[0] == text[-1] == '"' else text


def _named(text: str, some: Iterable[str], name: Callable[[str], str]) -> str:
    """The one of some that is called so. Raises UnreadableText with their names."""
    wanted = plain(_unquoted(text))
    there = {one: name(one) for one in some}
    for one, called in there.items():
        if plain(called) == wanted:
            return one
    names = ", ".join(list(there.values())[:8]) or "none yet"
    raise UnreadableText(text, f"one of: {names}")


def _muting(show: Show, said: str) -> Deed | None:
    """ "mute group 2 on", "DCA 3 mute off", "unmute DCA 3", "mute Band"."""
    low = said.lower()
    first, _, rest = low.partition(" ")
    on = True
    if first in ("unmute", "open"):
        on, low = False, rest
    low = re.sub(r"\s*\([^)]*\)", "", low)
    if found := re.fullmatch(r"(?:mute )?(mute group|dca) (\d{1,3})(?: mute)?(?: (on|off))?", low):
        kind = "dca" if found[1] == "dca" else "mute_group"
        what = f"{kind}/{int(found[2])}"
        if what not in strips_of(show.desk, kind):
            raise UnreadableText(said, f"a {found[1]} of this desk")
        return Deed(does="mute", what=what, on=_ON[found[3]] if found[3] else on)
    if first not in ("mute", "unmute", "open"):
        return None
    name = re.sub(r" (?:on|off)$", "", said.partition(" ")[2], flags=re.IGNORECASE)
    on = on and not low.endswith(" off")
    rulers = [*strips_of(show.desk, "mute_group"), *strips_of(show.desk, "dca")]
    called = [one for one in rulers if show.text(f"{one}/name")]
    what = _named(name, called, lambda one: show.text(f"{one}/name"))
    return Deed(does="mute", what=what, on=on)


def _lifting(show: Show, who: str, *, on: bool) -> Deed:
    """A lift by its name, for all of it; or one of its singers."""
    used = lifts_in_use(show)
    for lift in used:
        if plain(_unquoted(who)) == plain(_lift_name(show, lift)):
            return Deed(does="lift", what=lift, on=on)
    if not used:
        raise UnreadableText(who, "a lift of the show; it has none yet")
    strips = [one for one in read_strips(show, who, dcas=False) if of_kind(one) in SOURCES]
    if len(strips) != 1:
        raise UnreadableText(who, "one singer, or a lift by its name")
    backing = [one for one in used if show.on(f"{strips[0]}/{show[f'{one}/backing']}/on")]
    return Deed(does="lift", what=(backing or used)[0], strip=strips[0], on=on)


def _person(show: Show, who: str, where: str) -> Deed:
    channels = read_strips(show, where, dcas=False, unused=True)
    if len(channels) != 1 or of_kind(channels[0]) != "channel":
        raise UnreadableText(where, "one channel")
    of_part = {one: part_name(show, one) for one in parts(show)}
    # a performer's fitting by both names ("Ada as Gull"), or by theirs where they have but one
    kept = fittings(show)
    named = {one: fitting_name(show, one) for one in kept}
    alone = {
        one: performer_name(show, str(show[f"{one}/performer"]))
        for one in kept
        if sum(show[f"{other}/performer"] == show[f"{one}/performer"] for other in kept) == 1
    }
    for names in (of_part, named, alone):
        try:
            what = _named(who, names, names.__getitem__)
        except ConsoleError:
            continue
        return Deed(does="person", what=what, strip=channels[0])
    there = ", ".join([*of_part.values(), *named.values()][:8]) or "none yet"
    raise UnreadableText(who, f"a part, or a performer with a fitting: {there}")

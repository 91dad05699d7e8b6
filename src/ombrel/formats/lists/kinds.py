"""What kind of line a row is of, and which family, by the words of its cells."""

from .words import first_meaning, is_among, knows, plain, whole_meaning, words_of

__all__ = ["comes_in_pairs", "family_of", "is_family", "kind_said", "knows_source", "row_is"]

# Of several kinds that a text names the first of these counts: "radio, condenser" is a radio.
_ORDER = (
    "talkback",
    "radio",
    "playback",
    "di_active",
    "di_passive",
    "line",
    "condenser",
    "dynamic",
)


def _kind_in(text: str) -> str | None:
    return next((kind for kind in _ORDER if text and knows(text, "kinds", kind)), None)


def kind_said(kind: str, microphone: str, name: str, *, phantom: bool) -> tuple[str, bool]:
    """The kind of a line, and whether its cells say it themselves (else it is a guess).

    What the column of kinds says goes before the microphone, and that before the name.
    """
    said = _kind_in(kind) or _kind_in(microphone)
    if said == "di_passive" and phantom and not _says_passive(f"{kind} {microphone}"):
        said = "di_active"  # only such a one asks for 48 V
    by_name = _kind_in(name)
    # "Talkback" on a dynamic microphone is a talkback, "Laptop" on a DI is playback
    if by_name in ("talkback", "radio") and said in (None, "dynamic", "condenser"):
        return by_name, said is not None
    if by_name == "playback" and said in ("line", "di_passive", "di_active", None):
        return by_name, said is not None
    if said:
        return said, True
    if by_name:
        return by_name, False
    return ("condenser" if phantom else "dynamic"), False


def _says_passive(text: str) -> bool:
    """Whether a text names a passive DI, and not a DI of whatever kind."""
    return any(word.startswith(("passiv", "pasiv")) for word in plain(text).split())


def family_of(*texts: str) -> str:
    """The family that the first of some texts names, "unsorted" for none."""
    for text in texts:
        found = first_meaning(text, "families") if text else None
        if found:
            return found
    return "unsorted"


def is_family(text: str) -> bool:
    """Whether a text is a word for a family of sources, and nothing more."""
    return whole_meaning(text, "families") is not None


def knows_source(name: str) -> bool:
    """Whether a text names an instrument or a voice."""
    return first_meaning(name, "families") is not None


def comes_in_pairs(name: str) -> bool:
    """Whether a source of this name on two numbers is one stereo line, if nothing else is said."""
    return knows(name, "words", "pairs")


def row_is(name: str) -> str | None:
    """What a row that is no line of the stage is: "free", "total", "dca" or "effect", else None."""
    words = "".join(" " if c.isdigit() else c for c in name).strip(" .:-\u2013\u2014_#()/")
    if not any(c.isalnum() for c in words):
        return None if any(c.isalnum() for c in name) else "free"
    for meaning in ("free", "total"):
        if is_among(words, "rows", meaning):
            return meaning
    parts = words.replace("/", " ").replace("-", " ").replace("(", " ").replace(")", " ").split()
    if is_among(parts[0], "rows", "total"):
        return "total"
    if is_among(parts[0], "rows", "dca"):
        return "dca"
    sides = words_of("sides", "left") | words_of("sides", "right") | words_of("sides", "both")
    effect = words_of("rows", "effect") | words_of("rows", "back")
    lowered = [part.lower().strip(".") for part in parts]
    rest = [word for word in lowered if word not in sides]
    named = bool(rest) and all(is_among(w, "rows", "effect") or w in effect for w in rest)
    return "effect" if named else None

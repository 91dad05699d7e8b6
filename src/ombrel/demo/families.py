"""What the channels of the demo belong to, by the starts of their names."""

__all__ = ["FAMILIES", "family_of"]

# family: words that its lines' names start with, colour, fader in the house (None: never there)
FAMILIES: dict[str, tuple[tuple[str, ...], str, float | None]] = {
    "voices": (
        ("Ring", "Teller", "Aerialist", "Lighthouse", "Harbour", "Choir", "Spare"),
        "amber",
        -3.0,
    ),
    "drums": (("Kick", "Snare", "Caj", "Frame", "Tin", "Overheads"), "rose", -8.0),
    "bass": (("Double",), "sky", -7.0),
    "strings": (("Fiddle", "Kora", "Accordion"), "sea", -6.0),
    "brass": (("Trumpet", "Trombone"), "moss", -9.0),
    "foley": (("Foley", "Ship", "Rope"), "iris", -10.0),
    "playback": (("Playback",), "slate", -5.0),
    "cues": (("Click", "Guide"), "coral", None),
    "talkback": (("Desk talkback", "Band talkback"), "coral", None),
    "room": (("Ambience",), "slate", None),
    "band voices": (("Fiddle voice", "Bass voice", "Drum voice"), "amber", -6.5),
}


def family_of(name: str) -> str:
    """The family of a channel by the longest start of its name that a family lists."""
    best, length = "foley", 0
    for family, (starts, _, _) in FAMILIES.items():
        for start in starts:
            if name.startswith(start) and len(start) > length:
                best, length = family, len(start)
    return best

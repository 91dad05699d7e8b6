"""What an entry of the catalogue is, and the runs of entries that several kinds of strip share."""

import math
from dataclasses import dataclass
from typing import Final, Literal

from ..values import Choice, Kind, Number, Reference, Switch, Text, Value
from .bearing import Bearing
from .choices import COLOURS, GANG_ASPECTS, TAKES, TAPS

__all__ = [
    "FADER",
    "FORMAT",
    "KEPT_PLACE",
    "PAN",
    "TO_MATRIX",
    "TO_MIX",
    "Parameter",
    "Tie",
    "assigned",
    "entry",
    "followed",
    "format_of",
    "gang_carries",
    "input_of",
    "into_group",
    "level_of",
    "named",
    "pan_of",
    "sends_of",
    "sharing_of",
    "sings_of",
    "takes_of",
]

# How the two sides of a linked pair hold a value: the same, mirrored, by the same distance, apart.
Tie = Literal["equal", "mirrored", "ganged", "own"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Parameter:
    """All that is known of one kind of address. `aspect`: what scenes will carry it as. `gang`: the

    aspect by which gangs carry it ("": never). `tie`: what linked pairs make of it. `bears_on`:
    what hangs on it, by the table of `bearing`.
    """

    key: str
    kind: Kind
    default: Value
    aspect: str
    label: str
    says: str
    gang: str = ""
    tie: Tie = "own"
    bears_on: frozenset[Bearing] = frozenset()


# -120 dB is below the quietest step of a 20-bit converter: nothing between it and off is of use.
FADER: Final = Number(
    unit="dB", lowest=-math.inf, highest=6.0, step=0.1, law="fader", lowest_finite=-120.0
)
PAN: Final = Number(unit="pan", lowest=-1.0, highest=1.0, step=0.01)
FORMAT: Final = Choice(options=("unused", "mono", "stereo"))
# Where a member of a gang would stand if its range had no end; "off" is no such place.
KEPT_PLACE: Final = Number(unit="", lowest=-math.inf, highest=1e300, step=0.1, lowest_finite=-1e300)
_TRIM = Number(unit="dB", lowest=-20.0, highest=20.0, step=0.1)
_SHARING: Final = Reference(to=("sharing/<sharing>",))
_WEIGHT: Final = Number(unit="dB", lowest=-20.0, highest=20.0, step=0.1)


def entry(
    key: str,
    kind: Kind,
    default: Value,
    aspect: str,
    label: str,
    says: str,
    *,
    gang: str = "",
    tie: Tie = "own",
) -> Parameter:
    return Parameter(
        key=key, kind=kind, default=default, aspect=aspect, label=label, says=says, gang=gang,
        tie=tie,
    )  # fmt: skip


def followed(parameter: Parameter) -> tuple[Parameter, ...]:
    """A number that gangs carry, and the place that it keeps when it meets the end of its range."""
    says = f"Where its gang would have it, beyond the end of its range. {parameter.says}"
    kept = entry(
        f"{parameter.key}/kept", KEPT_PLACE, -math.inf, "", "Kept place", says, tie=parameter.tie
    )
    return parameter, kept


def named(strip: str, of: str) -> tuple[Parameter, ...]:
    return (
        entry(f"{strip}/name", Text(), "", "name", "Name", f"Name of the {of}."),
        entry(f"{strip}/colour", Choice(options=COLOURS), "sand", "name", "Colour", "Its colour."),
    )


def level_of(strip: str, of: str, *, fader_db: float) -> tuple[Parameter, ...]:
    says, muted = f"Level of the {of}.", f"The {of} is muted by its own key."
    return (
        *followed(
            entry(
                f"{strip}/fader", FADER, fader_db, "fader", "Fader", says, gang="fader", tie="equal"
            )
        ),
        entry(f"{strip}/mute", Switch(), False, "mute", "Mute", muted, gang="mute", tie="equal"),
        entry(
            f"{strip}/solo", Switch(), False, "solo", "Solo", f"The {of} is soloed.", tie="equal"
        ),
        *_memberships(strip, of),
    )


def _memberships(strip: str, of: str) -> tuple[Parameter, ...]:
    """Which DCAs, mute groups, gangs and promises hold a strip."""
    return tuple(
        entry(
            f"{strip}/{kind}/<{kind}>/on", Switch(), False, f"{kind}s", "Member", says, tie="equal"
        )
        for kind, says in (
            ("dca", f"The DCA rules the {of}."),
            ("mute_group", f"It mutes the {of} too."),
            ("gang", f"The {of} moves with the others of the gang."),
            ("promise", f"The promise is about the {of}."),
        )
    )


def sings_of(strip: str) -> Parameter:
    """Who can be lifted; a lift that names nobody takes all that go into its backing group."""
    says = "It can be lifted from the backing group."
    return entry(f"{strip}/lift/<lift>/on", Switch(), False, "lifts", "Singer", says, tie="equal")


def takes_of(ruler: str) -> Parameter:
    """What joins by itself, now and later."""
    says = "What joins it by itself when it comes; who is taken out by hand stays out."
    return entry(f"{ruler}/takes", Choice(options=TAKES), "chosen", "routing", "Takes", says)


def format_of(strip: str, of: str) -> Parameter:
    says = f"The {of} is not in use, has one side, or two."
    return entry(f"{strip}/format", FORMAT, "unused", "routing", "Format", says, tie="equal")


def input_of(strip: str, of: str) -> tuple[Parameter, ...]:
    says = f"Digital gain behind the {of}'s input."
    return (
        *followed(
            entry(f"{strip}/trim", _TRIM, 0.0, "preamp", "Trim", says, gang="trim", tie="ganged")
        ),
        entry(f"{strip}/polarity", Switch(), False, "preamp", "Polarity", "Inverted."),
        entry(
            f"{strip}/solo_proof",
            Switch(),
            False,
            "solo",
            "Stays open in solo",
            "Solo in place does not silence it.",
            tie="equal",
        ),
    )


def pan_of(strip: str) -> tuple[Parameter, ...]:
    says = "Place between left and right."
    return (
        *followed(entry(f"{strip}/pan", PAN, 0.0, "pan", "Pan", says, gang="pan", tie="mirrored")),
        entry(
            f"{strip}/pan_mirrored",
            Switch(),
            False,
            "gangs",
            "Pan mirrored",
            "In gangs its pan moves the other way.",
            tie="equal",
        ),
    )


def assigned(strip: str, bus: str, label: str, *, on: bool) -> Parameter:
    says = f"Feeds the {label.lower()}, behind the fader."
    return entry(f"{strip}/{bus}/on", Switch(), on, "routing", label, says, tie="equal")


def into_group(strip: str) -> tuple[Parameter, ...]:
    """A feed to a group: on or off, and at a level, by which a lift is trimmed for one singer."""
    at, says = f"{strip}/group/<group>", "Level at which it feeds the group, behind the fader."
    return (
        assigned(strip, "group/<group>", "Group", on=False),
        entry(f"{at}/level", FADER, 0.0, "routing", "Level into group", says, tie="equal"),
    )


def sharing_of(strip: str, of: str) -> tuple[Parameter, ...]:
    """How a strip shares gain with others: in which group, with what weight."""
    at = f"{strip}/sharing"
    group, weight = f"The group in which the {of} shares gain.", "How far it counts before others."
    held, out = "It stays at 0 dB, whoever speaks.", "It is silent, and in no sum."
    return (
        entry(f"{at}/group", _SHARING, None, "sharing", "Shares gain in", group, tie="equal"),
        *followed(
            entry(f"{at}/weight", _WEIGHT, 0.0, "sharing", "Weight", weight, gang="sharing",
                  tie="equal")
        ),
        entry(f"{at}/held", Switch(), False, "sharing", "Held open", held, tie="equal"),
        entry(f"{at}/out", Switch(), False, "sharing", "Out", out, tie="equal"),
    )  # fmt: skip


def sends_of(strip: str, bus: str, *, tap: str) -> tuple[Parameter, ...]:
    send, to = f"{strip}/send/{bus}", bus.split("/")[0]
    level, place = f"Level of the send to a {to}.", f"Place in the {to}."
    opened, taps = "The send is open.", Choice(options=TAPS)
    return (
        *followed(
            entry(
                f"{send}/level", FADER, -math.inf, "sends", "Send", level, gang="sends", tie="equal"
            )
        ),
        entry(f"{send}/on", Switch(), True, "sends", "Send on", opened, gang="sends", tie="equal"),
        entry(f"{send}/tap", taps, tap, "sends", "Tap", "Where it takes the signal.", tie="equal"),
        *followed(
            entry(f"{send}/pan", PAN, 0.0, "sends", "Send pan", place, gang="sends", tie="mirrored")
        ),
    )


def gang_carries() -> tuple[Parameter, ...]:
    """A gang's switches, one for each aspect; a new gang carries faders and mutes."""
    return tuple(
        entry(
            f"gang/<gang>/carries_{aspect}",
            Switch(),
            aspect in ("fader", "mute"),
            "gangs",
            label,
            f"Its members move together in this: {label.lower()}.",
        )
        for aspect, label in GANG_ASPECTS.items()
    )


# Who mutes a microphone expects silence in the ears too: sends to mixes leave behind the mute.
TO_MIX: Final = "before_fader_after_mute"
TO_MATRIX: Final = "after_fader"

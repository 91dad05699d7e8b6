"""Many findings of one kind as one, that opens: 120 condensers are one thing to look at."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Final

from ..values import Asked
from .rule import Finding, Tone

__all__ = ["Alike", "alike"]

_MANY: Final = 6  # so many of a rule are told as one
# what is said of many, and what mends them all, by rule; with no words for it each is mended alone
_SAYS: Final[Mapping[str, tuple[str, str]]] = {
    "phantom_missing": ("lines need 48 V, and it is off at their preamps.", "48 V on at all"),
    "phantom_not_said": (
        "lines are condensers, and do not say that they need 48 V.", "All need 48 V",
    ),
    "phantom_not_wanted": ("lines have 48 V, and need none.", "48 V off at all"),
    "line_without_socket": ("lines lack a socket.", ""),  # each would take the same next free one
    "line_without_channel": ("lines feed no channel.", ""),
    "channel_without_source": ("channels have no source.", ""),
    "mix_that_goes_nowhere": ("mixes and matrices go to no output.", ""),
    "monitor_send_after_fader": ("sends of performers' mixes hang on the house's faders.", ""),
    "output_taken_by_nothing": ("outputs have something connected, and carry nothing.", ""),
    "shared_preamp": ("preamps are shared by several channels.", ""),
    "silenced_thrice": ("strips are muted by three things at once, or more.", ""),
    "wish_moved_on": ("tracks no longer carry what they were planned for.", "All as planned"),
    "wish_on_no_track": ("musts are on no track: plan again.", ""),
    "track_twice": ("sources are on two tracks.", ""),
    "stereo_split": ("stereo sources are split.", ""),
    "track_past_full_scale": ("tracks are expected past full scale.", ""),
    "scene_lacks": ("scenes lack something.", ""),
    "scene_breaks_promise": ("scenes break a promise.", ""),
    "scene_passed_by": ("scenes are never reached by go, or cannot be recalled now.", ""),
    "scene_changes_nothing": ("scenes change nothing after the one before them.", ""),
    "performer_without_fitting": ("performers have no settings kept for a part of theirs.", ""),
    "fitting_unused": ("kept settings go on nowhere.", ""),
}  # fmt: skip


@dataclass(frozen=True, slots=True, kw_only=True)
class Alike:
    """Findings of one rule and tone, so many that they are told together. `moves` mend all of them

    at once, "" as `remedy`: each is mended by its own. `careful`: that asks for a second press.
    """

    rule: str
    tone: Tone
    says: str
    remedy: str = ""
    moves: Mapping[str, Asked] = field(default_factory=dict, hash=False)
    careful: bool = False


def alike(found: Iterable[Finding]) -> tuple[Alike, ...]:
    """What is told together of some findings, in their order."""
    by_kind: dict[tuple[str, Tone], list[Finding]] = {}
    for one in found:
        by_kind.setdefault((one.rule, one.tone), []).append(one)
    return tuple(
        _told(rule, tone, some)
        for (rule, tone), some in by_kind.items()
        if len(some) >= _MANY and rule in _SAYS
    )


def _told(rule: str, tone: Tone, some: list[Finding]) -> Alike:
    says, remedy = _SAYS[rule]
    moves = {address: asked for one in some for address, asked in one.moves.items()}
    # two that want one value each its own way are not mended together
    together = all(one.moves and one.moves.items() <= moves.items() for one in some)
    if not remedy or not together:
        return Alike(rule=rule, tone=tone, says=f"{len(some)} {says}")
    return Alike(
        rule=rule,
        tone=tone,
        says=f"{len(some)} {says}",
        remedy=remedy,
        moves=moves,
        careful=any(one.careful for one in some),
    )

"""The step to a scene, whoever asks for it: what it moves, how long that takes, and its words."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass

from ..scenes import fade_seconds, scene_named
from ..show import Show
from .recall import Recall, recall

__all__ = ["Step", "recalled"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Step:
    """A recall ready to be made. `seconds`: how long each address takes, 0 s where not named."""

    found: Recall
    says: str
    seconds: Mapping[str, float]


def recalled(show: Show, scene: str, *, since_s: float, hands: Collection[str] = ()) -> Step:
    """The recall of a scene at `since_s` (seconds since 1970), less what hands hold.

    Raises NoSuchScene.
    """
    found = recall(show, scene, since_s=since_s, hands=hands)
    says = f"Scene {scene_named(show, scene)} recalled"
    if beside := [one for one in found.left_out if one.what in hands]:
        says += f", but for {len(beside)} under a hand"
    return Step(found=found, says=says, seconds=fade_seconds(show, scene, found.values))

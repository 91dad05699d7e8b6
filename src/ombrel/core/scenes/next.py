"""Which scene go leads to: found from now by number, conditions and tonight's cast at every change,

unless somebody chose one. A chosen one that goes, or stops fitting, falls back to the one found.
"""

from collections.abc import Mapping

from ..catalogue import bearing
from ..show import Show
from ..values import NotNext, Value
from .order import following_scene, passed_by, scene_named

__all__ = ["check_next_scene", "is_gone_to", "next_after", "next_told"]


def next_after(show: Show, whole: Mapping[str, Value]) -> dict[str, Value]:
    """What an edit of own values makes of next. A hand that names `run/next` chooses it; None, or

    the one that would be found, chooses none.
    """
    moved = {at.text: whole[at.text] for at in bearing("run", whole)}
    if not moved:
        return {}
    after = show.with_values(moved)
    now, wanted = _scene(after["run/now"]), _scene(after["run/next"])
    found = following_scene(after, now)
    if "run/next" in moved and "run/chosen" not in moved:
        chosen = wanted not in (None, found)
    else:
        chosen = after.on("run/chosen")
    if wanted not in after.scenes or (
        passed_by(after)(wanted) and wanted in show.scenes and not passed_by(show)(wanted)
    ):
        chosen = False
    return {"run/next": wanted if chosen else found, "run/chosen": chosen}


def _scene(value: Value) -> str | None:
    return value if isinstance(value, str) else None


def next_told(before: Show, after: Show) -> str:
    """What to say where an edit let go of a next that somebody had chosen; "" where it did not."""
    if not before.on("run/chosen") or after.on("run/chosen"):
        return ""
    if before["run/now"] != after["run/now"] or before["run/next"] == after["run/next"]:
        return ""
    there = _scene(after["run/next"])
    return f"next is {scene_named(after, there) if there else 'nothing'} again, in order"


def is_gone_to(show: Show, scene: str) -> bool:
    """Whether a go to a scene has happened already: pressed by two, it happens once. Raises NotNext

    for a scene that is no longer next.
    """
    if show["run/now"] == scene and show["run/next"] != scene:
        return True
    check_next_scene(show, scene)
    return False


def check_next_scene(show: Show, scene: str) -> None:
    """Raise NotNext for a go that means a scene which is no longer next."""
    there = _scene(show["run/next"])
    if there is None and show["run/now"] is None:
        there = following_scene(show, None)  # a show of before next was kept
    if there != scene:
        meant = scene_named(show, scene) if scene in show.scenes else "a scene that was removed"
        raise NotNext(meant, scene_named(show, there) if there else "")

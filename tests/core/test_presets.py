"""Presets, duplicates and the budget of insert points."""

import pytest
from hypothesis import given, settings

from ombrel.core import (
    CATALOGUE,
    InsertsSpent,
    NothingLeft,
    UnknownAddress,
    UnreadableText,
    apply_preset,
    blank_show,
    duplicate_channel,
    flow_of,
    forget_preset,
    keep_preset,
    made,
    members_of,
    presets,
    show_of,
    strip_path,
)
from ombrel.core.catalogue import SHIPPED_PRESETS
from ombrel.core.patching.presets import HELD
from ombrel.demo import demo_show
from tests.desks import SMALL, TINY, TOURING
from tests.shows import SHOW_SEEDS, show_of_seed

DEMO = demo_show(TOURING)


def processing(show, strip):
    """All of a strip's own processors but their keys."""
    stem = "channel/<channel>/"
    keys = [p.key.removeprefix(stem) for p in CATALOGUE.values() if p.key.startswith(stem)]
    held = ("low_cut/", "gate/", "eq/", "compressor/")
    leaves = [k for k in keys if k.startswith(held) and not k.endswith(("/kept", "/key", "_tap"))]
    return {leaf: show[f"{strip}/{leaf}"] for leaf in leaves}


@settings(max_examples=30)
@given(seed=SHOW_SEEDS)
def test_a_strip_kept_and_applied_elsewhere_is_that_strip_and_its_key_stays(seed):
    show = show_of_seed(seed)
    moves = keep_preset(show, "channel/2", "  My  fiddle ", HELD)
    show, _ = made(show, moves)
    name = next(a.split("/name")[0] for a in moves if a.endswith("/name"))
    (card,) = [one for one in presets(show, "channel/1") if one.preset == name]
    assert (card.name, card.own, card.aspects) == ("My fiddle", True, HELD)
    after, _ = made(show, apply_preset(show, name, ["channel/1"]))
    assert processing(after, "channel/1") == processing(show, "channel/2")
    assert after["channel/1/gate/key"] == show["channel/1/gate/key"]
    partly, _ = made(show, apply_preset(show, name, ["channel/1"], ["eq"]))
    moved = {k for k, v in processing(show, "channel/1").items()
             if processing(partly, "channel/1")[k] != v}  # fmt: skip
    assert all(leaf.startswith("eq/") for leaf in moved)
    gone, _ = made(show, forget_preset(show, name))
    assert not [a for a in gone.values if a.startswith(f"{name}/")]


def test_shipped_presets_are_a_dozen_or_more_and_each_is_taken_by_a_channel_and_a_bus():
    assert len(SHIPPED_PRESETS) >= 12
    assert len({one.name for one in SHIPPED_PRESETS}) == len(SHIPPED_PRESETS)
    for one in SHIPPED_PRESETS:
        after, change = made(blank_show(TINY), apply_preset(blank_show(TINY), one.key,
                                                             ["channel/1", "house"]))  # fmt: skip
        for leaf, value in one.values.items():
            assert after[f"channel/1/{leaf}"] == value
        assert not [a for a in change.new if a.startswith("house/gate/")]  # it has none


def test_presets_of_a_lines_family_come_first_and_keeping_again_replaces():
    first = presets(DEMO, "channel/9")
    assert next(one.name for one in first if one.suits) == "Bass drum"
    assert not first[-1].suits
    show, _ = made(DEMO, keep_preset(DEMO, "channel/9", "Big kick", ["eq"]))
    show, _ = made(show, keep_preset(show, "channel/10", "big kick", ["gate"]))
    own = [one for one in presets(show, "channel/9") if one.own]
    assert [(one.name, one.aspects) for one in own] == [("big kick", ("gate",))]
    with pytest.raises(UnreadableText):
        keep_preset(show, "channel/9", " ", ["eq"])
    with pytest.raises(UnknownAddress):
        apply_preset(show, "preset/9", ["channel/1"])


def test_a_copy_of_a_channel_has_its_processing_sends_and_memberships_and_is_heard_by_nobody():
    soloed, _ = made(DEMO, {"channel/19/solo": True, "channel/41/send/mix/1/level": 3.0})
    show, _ = made(soloed, duplicate_channel(soloed, 19))
    assert not show["channel/41/solo"]
    new = "channel/41"
    assert show.text(f"{new}/name") == "Fiddle copy"
    assert show[f"{new}/source"] is None
    assert processing(show, new) == processing(DEMO, "channel/19")
    for mix in DEMO.in_use("mix"):
        for leaf in ("level", "on", "tap", "pan"):
            assert show[f"{new}/send/{mix}/{leaf}"] == DEMO[f"channel/19/send/{mix}/{leaf}"]
    for ruler in ("group/1", "dca/2", "mute_group/1", "promise/2"):
        assert show[f"{new}/{ruler}/on"] == DEMO[f"channel/19/{ruler}/on"], ruler
    assert new in members_of(show, "promise/2")
    assert not strip_path(show, flow_of(show), new).reaches
    full = show_of(TINY, {f"channel/{n}/name": "x" for n in range(1, 5)})
    with pytest.raises(NothingLeft):
        duplicate_channel(full, 1)


def test_insert_points_are_a_budget_and_who_holds_them_is_named():
    show = show_of(SMALL, {f"channel/{n}/insert_1/device": "Tube" for n in range(1, 9)})
    with pytest.raises(InsertsSpent, match="8 insert points, and all are in use: Channel 1, "):
        made(show, {"house/insert_2/device": "Warmth"})
    show, _ = made(show, {"channel/1/insert_1/device": "", "house/insert_2/device": "Warmth"})
    beads = {
        bead.key: (bead.look, bead.says) for bead in strip_path(show, flow_of(show), "house").beads
    }
    assert (beads["insert_1"], beads["insert_2"]) == (("off", "free"), ("on", "Warmth"))

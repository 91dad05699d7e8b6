"""Effects that ring on behind a muted DCA or mute group: told, and muted with it in one action."""

import math

from ombrel.core import Asked, blank_show, flow_of, made, members_of, reach
from tests.desks import TINY

ROOM: dict[str, Asked] = {
    "channel/1/name": "Anna", "channel/1/source": "input/a/1", "channel/1/fader": -3.0,
    "channel/2/name": "Drum", "channel/2/source": "input/a/2", "channel/2/fader": -3.0,
    "line/1/place": 1.0, "line/1/name": "Anna", "line/1/socket": "input/a/1",
    "line/2/place": 2.0, "line/2/name": "Drum", "line/2/socket": "input/a/2",
    "mix/1/format": "stereo", "mix/1/serves": "effect", "mix/1/fader": 0.0,
    "channel/1/send/mix/1/level": -6.0, "channel/1/send/mix/1/tap": "after_fader",
    "engine/1/source": "mix/1", "engine/1/kind": "hall", "return/1/source": "engine/1",
    "return/1/name": "Hall", "return/1/fader": -6.0, "return/1/house/on": True,
    "channel/1/house/on": True, "channel/2/house/on": True, "house/fader": 0.0,
    "output/local/1/source": "house/left", "output/local/2/source": "house/right",
    "channel/1/dca/1/on": True, "dca/1/name": "Voices",
}  # fmt: skip


def told(show, ruler):
    return reach(show, flow_of(show), ruler)


def test_a_return_that_only_members_feed_joins_them_in_a_mute_group_and_its_level_is_not_doubled():
    show, _ = made(blank_show(TINY), ROOM)
    at = told(show, "dca/1")
    assert [(one.strip, one.others) for one in at.tails] == [("return/1", ())]
    assert at.along is not None
    assert at.along.says == "Mute group of its members and Hall"
    joined, _ = made(show, at.along.moves)
    assert members_of(joined, "mute_group/1") == ["channel/1", "return/1"]
    assert joined.text("mute_group/1/name") == "Voices and effects"
    assert told(joined, "dca/1").tails == ()  # it is muted together now
    muted, _ = made(joined, {"mute_group/1/on": True})
    level = flow_of(muted).level
    assert level("return/1", "house") == level("channel/1", "house") == -math.inf
    assert level("channel/2", "house") > -math.inf
    # by the DCA's level the return's own row stands: what it is sent moves once
    lower, _ = made(joined, {"dca/1/fader": -10.0})
    assert flow_of(lower).level("return/1", "house") == flow_of(show).level("return/1", "house")


def test_a_second_effect_joins_the_same_group_and_so_does_what_the_dca_takes_later():
    show, _ = made(blank_show(TINY), ROOM | {"line/1/family": "voices", "dca/1/takes": "voices"})
    along = told(show, "dca/1").along
    assert along is not None
    show, _ = made(show, along.moves)
    assert show["mute_group/1/takes"] == "voices"
    more: dict[str, Asked] = {
        "mix/2/format": "mono", "mix/2/serves": "effect", "mix/2/fader": 0.0,
        "channel/1/send/mix/2/level": -6.0, "channel/1/send/mix/2/tap": "after_fader",
        "engine/2/source": "mix/2", "engine/2/kind": "plate", "return/2/source": "engine/2",
        "return/2/name": "Plate",
    }  # fmt: skip
    show, _ = made(show, more)
    along = told(show, "dca/1").along
    assert along is not None
    assert along.says == "Plate into the mute group Voices and effects"
    show, _ = made(show, along.moves)
    assert members_of(show, "mute_group/1") == ["channel/1", "return/1", "return/2"]
    line: dict[str, Asked] = {
        "line/3/place": 3.0, "line/3/name": "Bo", "line/3/family": "voices",
        "line/3/socket": "input/a/3", "channel/3/source": "input/a/3",
    }  # fmt: skip
    show, _ = made(show, line)
    assert "channel/3" in members_of(show, "mute_group/1")


def test_an_effect_that_others_feed_is_told_and_left_and_one_that_is_off_is_none():
    both, _ = made(
        blank_show(TINY),
        ROOM | {"channel/2/send/mix/1/level": 0.0, "channel/2/send/mix/1/on": True},
    )
    at = told(both, "dca/1")
    assert [one.others for one in at.tails] == [("Drum",)]
    assert at.along is None
    off, _ = made(both, {"channel/1/send/mix/1/level": -math.inf})
    assert told(off, "dca/1").tails == ()


def test_a_mute_group_takes_the_return_in_itself():
    show, _ = made(blank_show(TINY), ROOM | {"channel/1/mute_group/2/on": True})
    at = told(show, "mute_group/2")
    assert at.along is not None
    assert at.along.says == "Hall into it"
    joined, _ = made(show, at.along.moves)
    assert members_of(joined, "mute_group/2") == ["channel/1", "return/1"]
    assert told(joined, "mute_group/2").tails == ()

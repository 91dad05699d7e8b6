"""Where the server's words end: all of a gang, more strips than are named, a point before any."""

import uuid

import pytest

from ombrel.core import Followed, GangJumps, NoSuchPoint, flow_of
from ombrel.demo import demo_show
from ombrel.server.asks.plans import Turn
from ombrel.server.asks.whole import BackTo
from ombrel.server.links.stage import StageLink
from ombrel.server.messages.edits import refused_message
from tests.desks import TOURING

DEMO = demo_show(TOURING)


def turn(**how):
    return Turn(uuid.uuid4(), None, DEMO, Followed(flow_of(DEMO)), **how)


def test_all_of_a_gang_are_as_many_as_move_with_who_leads():
    error = GangJumps(
        {"channel/1/fader": -3.0}, [("A", 9.0), ("B", 9.0), ("C", 9.0)], "Kick", "Toms"
    )
    alone, every = refused_message(None, error)["ways"]
    assert (alone["says"], every["says"]) == ("Kick alone", "All of them, 4")
    assert (alone["by_hand"], every["by_hand"]) == (False, True)


@pytest.mark.parametrize("many", [1, 4, 5, 9])
def test_strips_that_go_back_are_named_or_counted_and_none_twice(many):
    strips = [f"channel/{n}" for n in range(1, many + 1)]
    ask = BackTo(action="back_to", revision=3, strips=strips)
    says = ask.plan(turn(at=lambda _: DEMO)).says
    names = sum(DEMO.text(f"{strip}/name") in says for strip in strips)
    _, _, rest = says.partition(" and ")
    more = int(rest.split()[0]) if rest else 0
    assert names + more == many


def test_where_no_log_can_be_read_there_is_no_point_but_the_first():
    with pytest.raises(NoSuchPoint) as caught:
        turn().at(5)
    assert (caught.value.revision, caught.value.newest) == (5, 0)


def test_the_stage_knows_which_lines_are_fed():
    link = StageLink("127.0.0.1", 9)
    link.feed(3, ["input/a/1"], "tone", -20.0)
    link.feed(4, ["input/a/2"], "noise", -20.0)
    assert link.fed == {3, 4}
    link.feed(3, ["input/a/1"], "nothing", -20.0)
    assert link.fed == {4}

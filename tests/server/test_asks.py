"""Each ask once as it should be, and once as it should not: what it does, and that it is refused.

The show is the demo. `asks.json` has by ask what is asked, what stands where in the show that it
leaves, what is refused, and (where the demo has nothing to do it to) what stands before.
"""

import json
import uuid
from pathlib import Path
from typing import get_args

import pytest
from pydantic import TypeAdapter, ValidationError

from ombrel.core import (
    ConsoleError,
    Followed,
    NoSuchPoint,
    UnreadableText,
    edited,
    flow_of,
    made,
    refusal,
)
from ombrel.demo import demo_show
from ombrel.server.asks.every import Ask
from ombrel.server.asks.plans import Turn
from tests.desks import TOURING
from tests.test_words import CODE

ASKS = TypeAdapter(Ask)
NAMES = [get_args(one.model_fields["action"].annotation)[0] for one in get_args(get_args(Ask)[0])]
TABLE = json.loads((Path(__file__).parent / "asks.json").read_text("utf-8"))


@pytest.fixture(scope="module")
def demo():
    return demo_show(TOURING)


def asked(show, name, fields):
    """The show after an ask, made as the door makes it."""
    flow = flow_of(show)

    def as_it_stood(revision):
        if revision < 0:
            raise NoSuchPoint(revision, 9)
        return made(show, {"channel/9/fader": -33.0})[0]

    turn = Turn(uuid.uuid4(), None, show, Followed(flow), as_it_stood, "ann")
    plan = ASKS.validate_python({"action": name, **fields}).plan(turn)
    return edited(show, flow, plan.moves, plan.carry, own=plan.own).show


def test_the_table_names_every_ask_and_nothing_else():
    assert sorted(row["ask"] for row in TABLE) == sorted(NAMES)


@pytest.mark.parametrize("row", TABLE, ids=lambda row: row["ask"])
def test_an_ask_does_what_it_says_and_a_bad_one_is_refused(demo, row):
    show = made(demo, row.get("before", {}))[0]
    after = asked(show, row["ask"], row["well"])
    assert after != show
    assert {address: after[address] for address in row["stands"]} == row["stands"]
    with pytest.raises((ConsoleError, ValidationError)) as refused:
        asked(show, row["ask"], row["badly"])
    if isinstance(refused.value, ConsoleError):  # else no screen sent it
        assert not CODE.search(refusal(refused.value, show)), refusal(refused.value, show)


@pytest.mark.parametrize(
    ("ask", "fields"),
    [
        ("make_effect", {"name": "Plate", "strips": "dca 1"}),
        ("send_strips", {"strips": "dca 1", "mixes": "mix 3", "level": "-5"}),
        ("copy_strip", {"strip": "channel/9", "to": "dca 1", "aspects": ["eq"]}),
        ("pan_strips", {"strips": "dca 1", "place": "L50"}),
        ("patch_outputs", {"text": "dca 1 to Deck 1"}),
    ],
)
def test_what_dcas_cannot_be_is_refused_where_strips_are_typed(demo, ask, fields):
    with pytest.raises(UnreadableText, match="a DCA is no member here"):
        asked(demo, ask, fields)

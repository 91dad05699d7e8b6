"""Wishes over the wire: each answer can be asked of the door as it is; the newest is answered."""

import uuid

import pytest
from pydantic import TypeAdapter

from ombrel.core import ConsoleError, Followed, find, flow_of
from ombrel.demo import demo_show
from ombrel.server.asks.every import Ask
from ombrel.server.asks.plans import Turn
from ombrel.server.messages.finding import found_message
from tests.core.test_find import WISHES
from tests.desks import TOURING

from .conftest import make
from .test_socket import Screen

DEMO = demo_show(TOURING)
FLOW = flow_of(DEMO)
_ASK = TypeAdapter(Ask)


def asks_of(text):
    """By title, what each answer that changes something asks of the door, off the wire."""
    message = found_message(uuid.uuid4(), text, find(DEMO, FLOW, text))
    answers = message.model_dump(mode="json")["answers"]
    changes = [one for one in answers if one["group"] == "change"]
    return [(one["title"], _ASK.validate_python(one["ask"])) for one in changes]


def test_every_answer_that_changes_can_be_asked_of_the_door():
    turn = Turn(uuid.uuid4(), None, DEMO, Followed(FLOW))
    asked = {title: ask for text in WISHES for title, ask in asks_of(text)}
    refused = {}
    for title, ask in asked.items():
        try:
            assert ask.plan(turn).moves, title
        except ConsoleError as error:  # in words, as where somebody typed it
            refused[title] = str(error)
    assert len(asked) > 100
    assert len(refused) < 5, refused


@pytest.fixture
def named(show):
    make(show, {"channel/1/source": "input/a/1", "channel/1/name": "Fiddle",
                "output/local/1/source": "house/left"})  # fmt: skip
    return show


async def test_a_wish_is_answered_shown_first_and_made(named, ann):
    screen = Screen(named, ann)
    await screen.open()
    ids = [str(uuid.uuid4()) for _ in range(3)]
    for wish, text in zip(ids, ["f", "fidd", "fiddle -7"], strict=True):
        await screen.say(type="find", id=wish, text=text, view="banks")
    while (found := await screen.next("found"))["id"] != ids[-1]:
        pass
    first = found["answers"][0]
    assert (first["group"], first["title"]) == ("change", "Fiddle fader to −7 dB")
    await screen.say(type="try", id=str(uuid.uuid4()), ask=first["ask"])
    shown = await screen.next("preview")
    assert [
        (one["listener"], one["was_db"], round(one["now_db"], 1)) for one in shown["heard"]
    ] == [("House", None, -10.0)]
    await screen.say(type="do", id=str(uuid.uuid4()), gesture="find", ask=first["ask"])
    assert (await screen.next("done"))["says"] == "Fiddle fader to −7 dB"
    await screen.say(type="find", id=ids[0], text="x" * 121)
    assert (await screen.next("refused"))["code"] == "bad_message"

"""An explanation is told again after every move that would have it read otherwise."""

import functools
import json

import pytest

from ombrel.core import ConsoleError, Fade, bears_on_findings, edited, flow_of, table_heads
from ombrel.server.keeping.frames import Frame
from ombrel.server.keeping.states import State
from ombrel.server.messages.from_screen import WatchedCell
from ombrel.server.messages.news import Update, bears_on_why, fading_text, why_told
from tests.shows import edit_of_seed, show_of_seed


def test_what_is_on_its_way_is_told_from_its_begin_to_its_end_by_how_long_ago_and_until_when():
    fade = Fade(
        address="channel/1/fader", start=-20.0, target=0.0, begun_s=100.0, seconds=4.0, law="fader"
    )
    points = json.loads(fading_text([fade], now_s=101.0))["fades"][0]["points"]
    assert (points[0], points[-1]) == ([-1000, -20.0], [3000, 0.0])


def read(state, source, listener):
    """What an explanation says, its rank among others apart: that has a message of its own."""
    message = json.loads(why_told(state, source, listener)[0])
    message.pop("revision")
    message["says"] = message["says"].split(",")[0]
    return message


@pytest.mark.parametrize("seed", range(14))
def test_what_is_not_told_again_reads_as_it_did(seed):
    show = show_of_seed(seed)
    flow = flow_of(show)
    sources, heads = table_heads(show, flow)
    before, told_again, kept = State(1, show, flow), 0, 0
    stood = functools.cache(lambda source, listener: read(before, source, listener))
    for turn in range(12):
        try:
            after = edited(show, flow, edit_of_seed(show, seed * 100 + turn, most=2))
        except ConsoleError:
            continue
        state = State(2, after.show, after.flow)
        told = Update(
            Frame(
                before=1,
                revision=2,
                values=dict(after.change.new),
                cells=tuple(map(tuple, after.cells.tolist())),
                layout=table_heads(after.show, after.flow) != (sources, heads),
                noticed=bears_on_findings(after.change.new, flow, after.flow),
            )
        )
        for source in sources[:4]:
            for head in heads[:5]:
                cell = WatchedCell(source=source, listener=head.listener)
                if bears_on_why(told, state, cell):
                    told_again += 1
                    continue
                kept += 1
                now = read(state, source, head.listener)
                assert now == stood(source, head.listener), (cell, dict(after.change.new))
    if sources and heads:
        assert told_again + kept > 0

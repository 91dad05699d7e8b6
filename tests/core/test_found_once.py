"""What a show finds once goes on to the next one only as long as it holds there."""

from hypothesis import given, settings
from hypothesis import strategies as st

from ombrel.core import Show, blank_show
from tests.desks import TOURING

FACTS = ("_lines", "plugged", "scenes", "has_parts", "_channels", "fed_by")
NUMBER = st.integers(1, 4)
SOCKET = st.sampled_from([None, "input/a/1", "input/a/2", "input/a/3", "house/left"])


def at(pattern, values):
    return st.tuples(NUMBER.map(pattern.format), values)


MOVES = st.one_of(
    at("line/{}/place", st.sampled_from([0.0, 1.0, 2.0, 3.0])),
    at("line/{}/socket", SOCKET),
    at("line/{}/socket_right", SOCKET),
    at("channel/{}/source", SOCKET),
    at("channel/{}/spare", SOCKET),
    at("channel/{}/on_spare", st.booleans()),
    at("channel/{}/name", st.sampled_from(["", "Fiddle"])),
    at("channel/{}/fader", st.sampled_from([-6.0, 0.0])),
    at("channel/{}/send/mix/1/level", st.sampled_from([-6.0, 0.0])),
    at("scene/{}/number", st.sampled_from([0.0, 1.0, 2.5])),
    at("scene/{}/removed", st.booleans()),
    at("part/{}/place", st.sampled_from([0.0, 1.0])),
    at("mix/{}/format", st.sampled_from(["unused", "stereo"])),
)


def facts(show):
    return [getattr(show, name) for name in FACTS]


@given(edits=st.lists(st.dictionaries(NUMBER, MOVES, min_size=1, max_size=3), max_size=12))
@settings(max_examples=150, deadline=None)
def test_what_is_found_once_is_what_would_be_found_anew(edits):
    show = blank_show(TOURING)
    facts(show)
    for moves in edits:
        values = dict(moves.values())
        show = show.with_values(values)
        anew = Show(show.desk, show.own, show.values, show.layers)
        assert facts(show) == facts(anew)
        sounding = show.sounding({"channel/1/fader": -3.0})
        assert facts(sounding) == facts(anew)


def test_it_is_found_no_second_time_while_nothing_moves_of_it():
    """The point of it: a fader's move looks through no list of lines again."""
    show = blank_show(TOURING).with_values({"line/1/place": 1.0, "line/1/socket": "input/a/1"})
    plugged = show.plugged
    assert show.with_values({"channel/1/fader": -3.0}).plugged is plugged
    assert show.with_values({"line/1/socket": None}).plugged == {}

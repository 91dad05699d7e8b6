"""Mix-minus: all that the house has but some strips, and it stays so when more comes."""

import networkx as nx
import pytest
from hypothesis import assume, given, reject, settings
from hypothesis import strategies as st

from ombrel.core import (
    FeedbackLoop,
    UnreadableText,
    Value,
    edited,
    flow_of,
    made,
    make_effect,
    make_minus,
    patch_lines,
    promises,
    send_strips,
    show_of,
    undoing,
)
from ombrel.core.catalogue import default_of
from tests.desks import TINY, TOURING
from tests.shows import SEEDS, SHOW_SEEDS, edit_of_seed, permitted, show_of_seed

from .walk import graph_of

PIECES: dict[str, Value] = {
    f"channel/{n}/{leaf}": value
    for n in range(1, 6)
    for leaf, value in (("source", f"input/b/{n}"), ("name", f"Piece {n}"), ("fader", -3.0))
}  # fmt: skip
HOUSE: dict[str, Value] = {f"output/local/{n}/source": f"house/{side}"
                           for n, side in ((1, "left"), (2, "right"))}  # fmt: skip


def caller():
    """Five channels, the fifth not in the house; a mix of all but the second."""
    show = show_of(TOURING, PIECES | HOUSE | {"channel/5/house/on": False})
    return made(show, make_minus(show, ["channel/2"], name="Caller"))[0]


def kept(show):
    [promise] = promises(show, flow_of(show))
    return promise


def test_it_has_all_that_the_house_has_as_the_house_has_it_and_not_the_performer():
    show = caller()
    flow = flow_of(show)
    levels = [flow.cell(n, flow.layout.column("mix/1")).level_db for n in range(5)]
    house = [flow.cell(n, flow.layout.column("house")).level_db for n in range(5)]
    nothing = float("-inf")
    assert levels == pytest.approx([house[0], nothing, house[2], house[3], nothing])
    assert kept(show).kept
    assert kept(show).says == "Caller: all that the house has but Piece 2"
    assert show["promise/1/name"] == "Caller without Piece 2"
    named, _ = made(
        show_of(TOURING, PIECES | HOUSE | {"mix/2/format": "mono"}), {"mix/2/name": "M"}
    )
    taken, _ = made(named, make_minus(named, ["channel/2"], mix="mix/2"))
    assert taken["promise/1/name"] == "M without Piece 2"  # of one that there is, by its own name


@pytest.mark.parametrize(
    "moves",
    [
        {"channel/9/source": "input/a/9"},
        {"channel/9/on_spare": True, "channel/9/spare": "input/a/9"},
        {"channel/5/house/on": True},
        {"group/1/format": "mono", "channel/5/group/1/on": True},
    ],
    ids=["patched", "spare", "assigned", "grouped"],
)
def test_what_comes_into_the_house_joins_it_in_the_same_edit_and_leaves_with_its_undo(moves):
    show = caller()
    after = edited(show, flow_of(show), moves)
    assert kept(after.show).kept
    came = next(a for a in moves if a.startswith("channel/")).rpartition("/")[0].split("/")[1]
    assert after.show[f"channel/{came}/send/mix/1/level"] == 0.0
    assert made(after.show, undoing(after.show, after.change)[0])[0] == show


@pytest.mark.parametrize(
    ("feeding", "why"), [("mix/1/left", "feed back"), ("mix/2", "bring Piece 2")]
)
def test_what_a_bus_feeds_comes_into_the_house_alone_and_the_promise_says_why(feeding, why):
    """It would howl, or bring along whom the mix must not have."""
    show = made(caller(), {"mix/2/format": "mono", "channel/2/send/mix/2/level": 0.0})[0]
    after = made(
        show, {"channel/9/source": feeding, "channel/9/fader": 0.0, "channel/9/trim": 6.0}
    )[0]
    assert after["channel/9/send/mix/1/level"] == float("-inf")
    breach = next(one for one in kept(after).breaches if one.source == "channel/9")
    assert why in breach.says
    assert breach.remedies == ()


def test_a_list_of_new_lines_joins_it():
    lines: dict[str, Value] = {f"line/{n}/place": float(n) for n in range(1, 4)}
    lines |= {f"line/{n}/name": f"New {n}" for n in range(1, 4)}
    show = made(caller(), lines)[0]
    after = made(show, patch_lines(show, [1, 2, 3]))[0]
    assert len(after.channels()) > len(show.channels())
    assert kept(after).kept
    assert kept(after).passing == kept(show).passing + 3


def test_who_takes_one_out_breaks_it_and_one_action_mends_it():
    show = made(caller(), {"channel/3/send/mix/1/on": False})[0]
    [breach] = kept(show).breaches
    assert breach.says == "Caller does not have Piece 3."
    assert "channel/3/send/mix/1/on" in breach.feeds
    assert kept(made(show, breach.remedies[0].moves)[0]).kept
    leak = made(caller(), {"channel/2/send/mix/1/on": True, "channel/2/send/mix/1/level": 0.0})[0]
    [breach] = kept(leak).breaches
    assert "Piece 2 reaches Caller" in breach.says
    assert kept(made(leak, breach.remedies[0].moves)[0]).kept


def test_a_reverb_that_has_the_performer_stays_out_and_one_that_has_not_comes_in():
    show = show_of(TOURING, PIECES)
    for name, strip in (("Hall", "channel/2"), ("Plate", "channel/3")):
        show = made(show, make_effect(show, name))[0]
        show = made(show, send_strips(show, [strip], [f"mix/{len(show.mixes())}"], "-12"))[0]
    after = made(show, make_minus(show, ["channel/2"], name="Caller"))[0]
    levels = [after[f"return/{n}/send/mix/3/level"] for n in (1, 2)]
    assert levels == [float("-inf"), 0.0]
    assert kept(after).kept
    with pytest.raises(UnreadableText):
        make_minus(show, ["house"], name="Caller")


@settings(max_examples=20)
@given(seed=SHOW_SEEDS, without=st.integers(1, 4), more=SEEDS)
def test_it_is_judged_as_ways_on_a_graph_are(seed, without, more):
    """On any show: kept when, by networkx, all sourced channels of the house lead there dry and the

    one left out does not, even wet. Broken ones name exactly those that do not.
    """
    show = show_of_seed(seed, TINY)
    nothing = {a: default_of(a) for a in show.values if "promise/" in a}
    try:
        apart = {f"{odd}/linked": False for odd in ("mix/1", "channel/1", "channel/3")}
        own = {"mix/1/sharing/group": None, "mix/1/format": "stereo"}
        show = made(show, {**nothing, **apart, **own})[0]
        show = made(show, make_minus(show, [f"channel/{without}"], mix="mix/1"))[0]
    except FeedbackLoop:  # refused: the mix feeds what feeds it
        reject()
    edit = edit_of_seed(show, more)
    edit = {a: v for a, v in edit.items() if "promise/" not in a and not a.endswith("/linked")}
    show = permitted(show, edit)
    assume(show["mix/1/format"] != "unused")  # nobody is promised anything then
    wet, dry = nx.DiGraph(), nx.DiGraph()
    for a, b, data in graph_of(show).edges(data=True):
        if not data["edge"].off:
            wet.add_edge(a, b)
            if not data["edge"].wet:
                dry.add_edge(a, b)
    broken_by = {breach.source for breach in kept(show).breaches}
    for n in range(1, 5):
        strip = f"channel/{n}"
        if n == without:
            assert (strip in broken_by) == leads(wet, strip, "mix/1")
            continue
        sourced = show[f"{strip}/spare" if show[f"{strip}/on_spare"] else f"{strip}/source"]
        groups = [g for g in ("group/1", "group/2") if show[f"{g}/format"] != "unused"]
        housed = show[f"{strip}/house/on"] or any(
            show[f"{strip}/{g}/on"] and show[f"{g}/house/on"] for g in groups
        )
        lacks = bool(sourced) and housed and not leads(dry, strip, "mix/1")
        assert (strip in broken_by) == lacks


def leads(graph, source, listener):
    return any(
        (source, "L") in graph
        and (listener, side) in graph
        and nx.has_path(graph, (source, "L"), (listener, side))
        for side in ("L", "R")
    )

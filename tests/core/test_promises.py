"""Promises and the group in between: each way past it is found, named, closed by its remedy."""

import math

import networkx as nx
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from ombrel.core import (
    NothingLeft,
    UnreadableText,
    Value,
    bears_on_findings,
    blank_show,
    edited,
    findings,
    first_steps,
    flow_of,
    made,
    make_promise,
    mended,
    preview,
    promises,
    put_between,
    remove_bus,
    show_of,
)
from ombrel.core.answers.promises import judged
from ombrel.core.flow import same_ways
from tests.desks import TINY
from tests.shows import SEEDS, SHOW_SEEDS, edit_of_seed, show_of_seed

from .walk import Referee, graph_of, sides

BAND: dict[str, Value] = {
        "channel/1/name": "Kick", "channel/2/name": "Voice", "channel/3/name": "Click",
        "channel/1/source": "input/local/1", "channel/2/source": "input/local/2",
        "channel/3/source": "input/a/1", "channel/3/house/on": False}  # fmt: skip


def ways_past(show, source, listener, group):
    """All simple ways by feeds that are on, past a group: strips, and whether nothing is closed."""
    graph = graph_of(show)
    lit = nx.MultiDiGraph((a, b, d) for a, b, d in graph.edges(data=True) if not d["edge"].off)
    lit.add_nodes_from(graph)
    lit.remove_nodes_from([node for node in graph if node[0] == group and source != group])
    for start in sides(show, source):
        for end in sides(show, listener):
            if (source, start) not in lit or (listener, end) not in lit or source == listener:
                continue
            for way in nx.all_simple_edge_paths(lit, (source, start), (listener, end)):
                edges = [lit.edges[step]["edge"] for step in way]
                strips = (source, *(step[1][0] for step in way))
                yield strips, not any(edge.causes for edge in edges)


@settings(max_examples=40)
@given(seed=SHOW_SEEDS, only=st.booleans())
def test_a_promise_is_broken_exactly_where_a_simple_way_leads_past_the_group(seed, only):
    show = show_of_seed(seed)
    sources = ["channel/1", "channel/2", "return/1", *([] if only else ["group/2"])]
    listeners = ["house", "matrix/1", "mix/1"]
    moves = make_promise(
        show, sources=sources, listeners=listeners, through="group/1" if only else None
    )
    promise = next(a for a in moves if a.endswith("/kind")).split("/")[1]
    show, _ = made(show, moves)
    found = judged(show, flow_of(show), f"promise/{promise}")
    told = {(one.source, one.listener): one for one in found.breaches}
    alive = Referee(show).alive
    for source in sources:
        for listener in listeners:
            ways = list(ways_past(show, source, listener, "group/1" if only else ""))
            assert ((source, listener) in told) == bool(ways)
            if ways:
                one = told[source, listener]
                there = source.startswith("group/") or source in alive
                assert one.strips in {strips for strips, _ in ways}
                assert one.open == (there and any(clear for _, clear in ways))


@settings(max_examples=12)
@given(seed=SHOW_SEEDS, only=st.booleans())
@example(seed=6307736, only=False)  # a channel that carries what the mix must not have
@example(seed=3153868, only=False)  # a channel that is fed by the mix that lacks it
def test_a_remedy_closes_its_way_and_all_of_them_mend_the_promise(seed, only):
    show = show_of_seed(seed)
    asked = make_promise(
        show, sources=["channel/1", "channel/2", "channel/3"], listeners=["house", "matrix/1"],
        through="group/1" if only else None,
    )  # fmt: skip
    show, _ = made(show, asked)
    flow = flow_of(show)
    for one in promises(show, flow):
        for breach in one.breaches[:2]:
            for remedy in breach.remedies:
                if remedy.moves == {f"{one.promise}/wet": False}:
                    continue
                after, _ = made(show, remedy.moves)
                around = str(show[f"{one.promise}/through"]) if only else ""
                still = {strips for strips, _ in ways_past(after, breach.source, breach.listener,
                                                           around)}  # fmt: skip
                # of a mix that lacks something the remedy is a way, of all else one less
                assert (breach.strips in still) == ("does not have" in breach.says)
        moves = mended(show, flow, one.promise)
        whole = edited(show, flow, moves)
        left = judged(whole.show, whole.flow, one.promise)
        # what cannot be mended offers nothing, and says why
        assert all("Sent there it would" in b.says and not b.remedies for b in left.breaches)
        assert not set(moves) & {a for a in moves if a.startswith("promise/")}


def test_a_band_goes_through_a_group_and_the_house_stays_as_it_is():
    show = show_of(TINY, BAND)
    flow = flow_of(show)
    plan = put_between(show, ["channel/1", "channel/2", "channel/3", "channel/4"], name="Band")
    assert (plan.through, plan.left_out) == (("channel/1", "channel/2"), ("channel/3",))
    told = preview(show, flow, plan.moves)
    assert not told.silenced
    assert not told.breaks
    after = edited(show, flow, plan.moves)
    for channel in ("channel/1", "channel/2"):
        was, now = (f.at_input_db(f.layout.row(channel), f.layout.column("house"))
                    for f in (flow, after.flow))  # fmt: skip
        assert now == pytest.approx(was, abs=1e-9)
    (kept,) = promises(after.show, after.flow)
    assert kept.says == "What Band has: in House only through Band"
    assert (kept.kept, kept.passing, kept.vain) == (True, 2, "")
    # somebody puts the voice straight into the house: told beforehand, and found the moment it is
    breaking = {"channel/2/house/on": True}
    assert preview(after.show, after.flow, breaking).breaks == (
        "What Band has: in House only through Band: Voice reaches House directly, past Band."
        " Something on the way is shut now.",
    )  # a fader at off: the patch is what was promised
    broken = edited(after.show, after.flow, {**breaking, "channel/2/fader": 0.0})
    assert bears_on_findings(broken.change.new, after.flow, broken.flow)
    (finding,) = [f for f in findings(broken.show, broken.flow) if f.rule == "promise_broken"]
    assert finding.remedy == "Take Voice out of House: it goes by Band"
    assert finding.moves == {"channel/2/house/on": False, "channel/2/group/1/on": True,
                             "group/1/house/on": True}  # fmt: skip
    mended_show, _ = made(broken.show, finding.moves)
    assert promises(mended_show, flow_of(mended_show))[0].kept


def test_a_shared_effect_passes_the_group_until_its_return_goes_through_it_too():
    show = show_of(TINY, {**BAND, "mix/1/format": "stereo", "mix/1/serves": "effect",
                          "mix/1/name": "Hall", "engine/1/source": "mix/1",
                          "return/1/source": "engine/1", "return/1/name": "Hall",
                          "channel/2/send/mix/1/level": -12.0})  # fmt: skip
    show, _ = made(show, put_between(show, ["channel/1", "channel/2"], name="Band").moves)
    (one,) = promises(show, flow_of(show))
    assert [breach.says for breach in one.breaches] == [
        "Voice reaches House by Hall, past Band. Something on the way is shut now."
    ]
    remedy, cut, let = one.breaches[0].remedies
    assert [r.says for r in (cut, let)] == ["Take Hall out of House", "Let effects pass it"]
    assert promises(*_after(show, let.moves))[0].kept
    assert remedy.says == "Put Hall into Band instead of House"
    assert promises(*_after(show, remedy.moves))[0].kept


def _after(show, moves):
    show, _ = made(show, moves)
    return show, flow_of(show)


def test_the_click_never_reaches_the_stream_and_stays_in_the_ears():
    show = show_of(TINY, {**BAND, "mix/1/format": "stereo", "mix/1/name": "Ears", "matrix/1/name":
                          "Stream", "matrix/1/format": "stereo", "channel/3/fader": 0.0,
                          "channel/3/send/mix/1/level": 0.0})  # fmt: skip
    asked = make_promise(show, sources=["channel/3"], listeners=["house", "matrix/1"])
    show, _ = made(show, asked)
    flow = flow_of(show)
    (kept,) = promises(show, flow)
    assert (kept.says, kept.kept) == ("Click: never in House or Stream", True)
    show, flow = _after(show, {"mix/1/send/matrix/1/level": -6.0})
    (broken,) = promises(show, flow)
    (breach,) = broken.breaches
    assert breach.says == "Click reaches Stream by Ears."
    assert [r.says for r in breach.remedies] == [
        "Take Ears out of Stream", "Take Click out of Ears",
    ]  # fmt: skip
    assert mended(show, flow, "promise/1") == {"mix/1/send/matrix/1/on": False}


@settings(max_examples=40)
@given(seed=SHOW_SEEDS, move=SEEDS)
def test_only_moves_that_can_break_a_promise_or_do_a_first_step_have_it_looked_at(seed, move):
    show = show_of_seed(seed)
    flow = flow_of(show)
    after = edited(show, flow, edit_of_seed(show, move))
    if after.change and not bears_on_findings(after.change.new, flow, after.flow):
        one, other = promises(show, flow), promises(after.show, after.flow)
        assert [(p.promise, p.kept) for p in one] == [(p.promise, p.kept) for p in other]
        assert first_steps(show) == first_steps(after.show)


@settings(max_examples=60)
@given(seed=SHOW_SEEDS, move=SEEDS)
def test_ways_are_the_same_only_where_the_same_feeds_are_on(seed, move):
    show = show_of_seed(seed)
    flow = flow_of(show)
    after = edited(show, flow, edit_of_seed(show, move, most=120))
    if same_ways(flow, after.flow):
        assert feeds_on(show) == feeds_on(after.show)
    assert same_ways(flow, flow_of(show))


def feeds_on(show):
    """Every feed of a show that is on, as the referee's graph has it."""
    graph = graph_of(show)
    return {(a, b) for a, b, data in graph.edges(data=True) if not data["edge"].off}


def test_what_cannot_be_promised_is_refused_in_words():
    show = blank_show(TINY)
    with pytest.raises(UnreadableText, match="the house, mono, mixes or matrices"):
        make_promise(show, sources=["channel/1"], listeners=["channel/2"])
    with pytest.raises(UnreadableText, match="channels, returns or groups"):
        make_promise(show, sources=["mix/1"], listeners=["house"])
    with pytest.raises(UnreadableText, match="strips that go to the house now"):
        put_between(show, ["channel/1"], name="Band")
    full = show_of(TINY, {f"promise/{n}/name": "p" for n in range(1, 41)})
    with pytest.raises(NothingLeft, match="promises"):
        make_promise(full, sources=["channel/1"], listeners=["house"])


def test_a_group_that_goes_takes_its_promise_with_it_and_says_so():
    show = show_of(TINY, BAND)
    show, _ = made(show, put_between(show, ["channel/1"], name="Band").moves)
    show, _ = made(show, remove_bus(show, "group/1"))
    (one,) = promises(show, flow_of(show))
    assert one.vain == "Choose the group that it goes through."


def test_a_remedy_that_leads_through_a_group_opens_the_feed_into_it():
    """The voice goes straight to the house, its feed into the group is off and at the bottom."""
    show = show_of(
        TINY,
        {**BAND, "group/1/format": "mono", "channel/2/fader": 0.0, "channel/2/house/on": True,
         "channel/2/group/1/level": -math.inf, "output/local/1/source": "house/left"},
    )  # fmt: skip
    show, _ = made(
        show, make_promise(show, sources=["channel/2"], listeners=["house"], through="group/1")
    )
    [promise] = [one for one in promises(show, flow_of(show)) if one.breaches]
    moves = mended(show, flow_of(show), promise.promise)
    assert moves == {
        "channel/2/house/on": False,
        "channel/2/group/1/on": True,
        "channel/2/group/1/level": 0.0,
        "group/1/house/on": True,
    }
    after, _ = made(show, moves)
    assert not judged(after, flow_of(after), promise.promise).breaches
    assert flow_of(after).level("channel/2", "group/1") > -10.0

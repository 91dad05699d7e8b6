"""DCAs and mute groups: what strips come to, who is silenced, and what joining and leaving does."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ombrel.core import (
    Circle,
    EditRefused,
    MuteGroupSafe,
    NothingLeft,
    State,
    UnknownAddress,
    UnreadableText,
    Value,
    blank_show,
    clear_ruler,
    clear_solos,
    closing,
    edited,
    findings,
    flow_of,
    made,
    make_effect,
    make_rulers,
    members_of,
    membership,
    mute_all,
    preview,
    reach,
    read_strips,
    ruled,
    show_of,
    silenced_by_solo,
    strips_of_family,
    strips_text,
    typed_strips,
    undoing,
    why,
)
from ombrel.core.flow import listeners, sources
from ombrel.core.together import compensation, rulers_in_use
from ombrel.core.wires import layout_of
from ombrel.demo import demo_show
from tests.core.walk import dcas_of as walked_dcas
from tests.desks import TINY, TOURING
from tests.shows import SHOW_SEEDS, permitted, show_of_seed

from .walk import HEARD, Referee

DEMO = demo_show(TOURING)
HOUSE: dict[str, Value] = {
    "output/local/1/source": "house/left",
    "output/local/2/source": "house/right",
}


def band(**more: Value) -> dict[str, Value]:
    """Three channels in the house: 1 and 2 in Brass, which is in Band, and 3 in Band alone."""
    values: dict[str, Value] = {**HOUSE, "dca/1/name": "Brass", "dca/2/name": "Band"}
    for number in (1, 2, 3):
        values |= {f"channel/{number}/source": "input/local/1", f"channel/{number}/fader": -5.0}
    values |= {
        "channel/1/dca/1/on": True,
        "channel/2/dca/1/on": True,
        "channel/3/dca/2/on": True,
        "dca/1/dca/2/on": True,
    }
    return values | {address.replace("__", "/"): value for address, value in more.items()}


@pytest.mark.parametrize("seed", range(12))
def test_a_true_level_is_the_fader_and_every_dca_reached_once_and_nesting_is_only_a_set(seed):
    """The referee walks memberships by itself; flattened, every level and state stays."""
    show = show_of_seed(seed)
    flat: dict[str, Value] = {}
    for strip in layout_of(TINY).strips:
        reached = walked_dcas(show, strip)
        faders = [show.number(f"{dca}/fader") for dca in reached]
        assert set(ruled(show, strip).by) == set(reached)
        assert ruled(show, strip).level_db == pytest.approx(
            show.number(f"{strip}/fader") + sum(faders)
        )
        flat |= {f"{strip}/{dca}/on": True for dca in reached}
    for outer in range(1, TINY.dcas + 1):
        flat |= {f"dca/{inner}/dca/{outer}/on": False for inner in range(1, TINY.dcas + 1)}
    one, other = flow_of(show), flow_of(show.with_values(flat))
    assert (one.state == other.state).all()
    assert one.level_db == pytest.approx(other.level_db, abs=1e-9)


def test_a_dca_moves_what_goes_after_the_fader_once_for_each_member_on_the_way():
    """Channel and group both in the DCA: twice; a send before the fader: not at all."""
    values = band(
        channel__1__house__on=False, channel__1__group__1__on=True, group__1__format="stereo",
        group__1__dca__2__on=True, channel__1__send__mix__1__level=-8.0, mix__1__format="mono",
        output__local__3__source="mix/1", dca__2__fader=-3.0,
    )  # fmt: skip
    flow = flow_of(show_of(TOURING, values))
    assert flow.level("channel/1", "house") == pytest.approx(-5.0 - 3.0 - 3.0)
    assert flow.level("channel/3", "house") == pytest.approx(-8.0)
    assert flow.level("channel/1", "mix/1") == pytest.approx(-8.0)


@pytest.mark.parametrize(
    ("value", "state", "in_ears"),
    [("dca__2__mute", State.MUTED, State.MUTED), ("dca__2__fader", State.DOWN, State.HEARD)],
)
def test_off_or_muted_anywhere_silences_and_is_the_reason(value, state, in_ears):
    ears: dict[str, Value] = {
        "channel__1__send__mix__1__level": 0.0,
        "mix__1__format": "mono",
        "output__local__3__source": "mix/1",
    }
    closed: Value = True if value.endswith("mute") else -math.inf
    show = show_of(TOURING, band(**ears, **{value: closed}))
    flow = flow_of(show)
    assert flow.state_of("channel/1", "house") is state
    assert flow.state_of("channel/1", "mix/1") is in_ears
    reason = why(show, "channel/1", "house").reasons[0]
    assert reason.address == value.replace("__", "/")
    assert "Band" in reason.says
    for remedy in (reason.remedy, reason.instead):
        assert edited(show, flow, remedy.moves).flow.state_of("channel/1", "house") is State.HEARD
    out = edited(show, flow, reason.instead.moves)
    assert out.flow.state_of("channel/2", "house") is state  # only channel 1 was taken out


def test_one_cause_on_two_strips_of_a_path_counts_once():
    """By the group: the muted DCA alone. Straight: the muted DCA and the send that is down."""
    values = band(
        channel__1__group__1__on=True, group__1__format="mono", group__1__dca__2__on=True,
        dca__2__mute=True,
    )  # fmt: skip
    show = show_of(TOURING, values)
    answer = why(show, "channel/1", "house")
    assert answer.state is State.MUTED
    assert [reason.address for reason in answer.reasons] == ["dca/2/mute"]
    assert answer.opening is not None
    assert dict(answer.opening.moves) == {"dca/2/mute": False}


def test_a_hard_mute_group_lets_nothing_out_at_any_tap_and_only_its_key_opens_it():
    ears: dict[str, Value] = {
        "channel__1__send__mix__1__level": 0.0,
        "channel__1__send__mix__1__tap": "input",
        "mix__1__format": "mono",
        "output__local__3__source": "mix/1",
    }
    values = band(**ears, channel__1__mute_group__1__on=True, mute_group__1__on=True)
    soft = show_of(TOURING, values)
    assert flow_of(soft).state_of("channel/1", "mix/1") is State.HEARD
    assert flow_of(soft).state_of("channel/1", "house") is State.MUTED
    assert why(soft, "channel/1", "house").reasons[0].remedy is not None
    hard = show_of(TOURING, values | {"mute_group/1/hard": True})
    answer = why(hard, "channel/1", "mix/1")
    assert answer.state is State.MUTED
    assert answer.reasons[0].remedy is None
    assert answer.opening is None
    assert "seal" in answer.reasons[0].says


def test_circles_of_dcas_are_refused_with_their_names():
    show = show_of(TOURING, band())
    with pytest.raises(Circle, match="Band in Brass in Band"):
        made(show, membership(show, "dca/1", ["dca/2"], on=True))
    with pytest.raises(Circle):
        made(show, {"dca/1/dca/1/on": True})


def test_a_safe_mute_group_keeps_its_key_and_undo_does_not_move_it():
    show, _ = made(blank_show(TOURING), make_rulers(blank_show(TOURING), "mute_group", ["Plug in"]))
    pressed, press = made(show, {"mute_group/1/on": True})
    safe, _ = made(pressed, {"mute_group/1/safe": True})
    with pytest.raises(MuteGroupSafe, match="Plug in"):
        made(safe, {"mute_group/1/on": False})
    assert undoing(safe, press) == ({}, ("mute_group/1/on",))
    armed, _ = made(safe, {"mute_group/1/safe": False, "mute_group/1/on": False})
    assert not armed["mute_group/1/on"]


def test_all_inputs_and_all_ears_are_each_made_at_once_hard_and_safe():
    groups = {DEMO[f"{g}/name"]: g for g in rulers_in_use(DEMO, "mute_group")}
    inputs, ears = groups["All inputs"], groups["All ears"]
    assert DEMO[f"{inputs}/hard"] is True
    assert DEMO[f"{inputs}/safe"] is True
    assert strips_text(members_of(DEMO, ears)) == "mix 1-6"
    talk = [n for n in DEMO.channels() if "talkback" in DEMO.text(f"channel/{n}/name").lower()]
    assert len(talk) == 2
    assert {f"channel/{n}" for n in talk}.isdisjoint(members_of(DEMO, inputs))
    armed = {f"{inputs}/on": True, f"{inputs}/safe": False}
    shut = edited(DEMO, flow_of(DEMO), armed)
    states = shut.flow.state[[int(s.split("/")[1]) - 1 for s in members_of(DEMO, inputs)]]
    assert not (states == State.HEARD).any()
    with pytest.raises(NothingLeft):
        mute_all(blank_show(TOURING), "ears")
    with pytest.raises(UnreadableText):
        mute_all(DEMO, "everything")


def test_reach_tells_each_listener_what_it_loses_and_who_still_hears():
    """Channel 1 goes to the ears before its mute: they hear it still; one action changes that."""
    show = show_of(
        TOURING,
        band(
            channel__1__send__mix__1__level=0.0, channel__2__send__mix__1__level=0.0,
            channel__1__send__mix__1__tap="before_fader", mix__1__format="mono",
            mix__1__name="Ears", output__local__3__source="mix/1",
            channel__3__mute_group__2__on=True,
            **{f"channel__{n}__mute_group__1__on": True for n in (1, 2, 3)},
        ),
    )  # fmt: skip
    found = reach(show, flow_of(show), "mute_group/1")
    at = {one.listener: one for one in found.listeners}
    assert (at["house"].closes, at["house"].still) == (3, ())
    assert (at["mix/1"].closes, at["mix/1"].still) == (1, ("Channel 1",))
    assert found.closed == 4
    assert found.alone == ("channel/1", "channel/2")
    assert dict(found.behind) == {"channel/1/send/mix/1/tap": "before_fader_after_mute"}
    behind, _ = made(show, found.behind)
    assert {one.still for one in reach(behind, flow_of(behind), "mute_group/1").listeners} == {()}
    level = {o.listener: o.follows for o in reach(show, flow_of(show), "dca/2").listeners}
    assert level == {"house": 3, "mix/1": 0}


@pytest.mark.parametrize("seed", range(30))
def test_keeping_changes_no_true_level_or_names_who_cannot_be_kept(seed):
    before = show_of_seed(seed)
    dca = f"dca/{seed % 3 + 1}"
    member = list(layout_of(TINY).strips)[seed % 15]
    if seed % 4 == 0:
        member = f"dca/{(seed + 1) % 3 + 1}"
    joins = not before.on(f"{member}/{dca}/on")
    try:
        after, _ = made(before, membership(before, dca, [member], on=joins))
    except Circle:
        return
    kept = compensation(before, after)
    strips = layout_of(TINY).strips
    jumps = {s for s in strips if ruled(before, s).level_db != ruled(after, s).level_db}
    assert {strip for strip, _, _ in kept.jumps} == jumps
    for address, value in kept.moves.items():  # what stands so already is nothing to make up for
        assert after[address] != value, address
    if kept.lacking:
        assert len(kept.lacking) <= len(jumps)
        return
    settled, _ = made(after, kept.moves)
    for strip in strips:
        was, now = ruled(before, strip), ruled(settled, strip)
        assert now.level_db == pytest.approx(was.level_db, abs=1e-9), strip
        assert not was.muted or now.muted


def test_keeping_uses_a_joining_dcas_own_fader_and_names_what_is_out_of_reach():
    show = show_of(TOURING, band(dca__1__fader=2.0, dca__3__fader=-4.0, channel__2__fader=6.0))
    after, _ = made(show, membership(show, "dca/3", ["dca/1"], on=True))
    assert dict(compensation(show, after).moves) == {"dca/1/fader": 6.0}
    level, _ = made(after, {"dca/3/fader": 0.0})
    assert dict(compensation(level, made(level, {"dca/1/dca/3/on": False})[0]).moves) == {}
    after, _ = made(show, membership(show, "dca/3", ["channel/1", "channel/2"], on=True))
    kept = compensation(show, after)
    assert kept.lacking == (("Channel 2", 10.0),)
    assert kept.jumps == (("channel/1", -3.0, -7.0), ("channel/2", 8.0, 4.0))
    shown = preview(show, flow_of(show), membership(show, "dca/3", ["channel/1"], on=True))
    assert shown.compensation is not None
    assert dict(shown.compensation.moves) == {"channel/1/fader": -1.0}


def test_leaving_a_muted_dca_keeps_the_silence_by_the_strips_own_mute_and_joining_one_is_told():
    show = show_of(TOURING, band(dca__1__mute=True))
    left, _ = made(show, membership(show, "dca/1", ["channel/1"], on=False))
    assert dict(compensation(show, left).moves) == {"channel/1/mute": True}
    joined, _ = made(show, membership(show, "dca/1", ["channel/3"], on=True))
    assert compensation(show, joined).silenced == ("Channel 3",)


def test_strips_are_typed_as_people_say_them():
    for text, strips in [
        ("1-3, 7", ["channel/1", "channel/2", "channel/3", "channel/7"]),
        ("return 1-2, mix 4, house", ["return/1", "return/2", "mix/4", "house"]),
        ("DCA 2; ch 1", ["dca/2", "channel/1"]),
        ("mix 1, 3, 2", ["mix/1", "mix/3", "mix/2"]),
    ]:
        assert read_strips(DEMO, text) == strips
        assert set(read_strips(DEMO, strips_text(strips))) == set(strips)
    for text in ("", "theremin", "house 2", "mix 99", "1-"):
        with pytest.raises(UnreadableText):
            read_strips(DEMO, text)
    with pytest.raises(UnreadableText):
        read_strips(DEMO, "dca 1", dcas=False)
    assert strips_text(strips_of_family(DEMO, "strings")) == "19-22"


@settings(max_examples=80)
@given(data=st.data())
def test_names_families_and_except_are_typed_beside_numbers(data):
    """Against sets worked out of the demo's values, whatever stands beside whatever."""
    used = [f"channel/{n}" for n in range(1, DEMO.desk.channels + 1) if DEMO[f"channel/{n}/source"]]
    family_of = {
        DEMO[f"line/{line}/{side}"]: DEMO[f"line/{line}/family"]
        for line in DEMO.lines() for side in ("socket", "socket_right")
    }  # fmt: skip
    by_family = {
        family: [one for one in used if family_of.get(DEMO[f"{one}/source"]) == family]
        for family in map(str, set(family_of.values()))
    }
    names = {DEMO[f"{one}/name"].upper(): [one] for one in used}
    spans = st.tuples(st.integers(1, 48), st.integers(1, 48)).map(sorted)
    parts = st.one_of(
        st.sampled_from(sorted(names)).map(lambda name: (f'"{name}"', names[name])),
        st.sampled_from(sorted(by_family, key=str)).map(lambda family: (family, by_family[family])),
        spans.map(lambda span: (f"ch {span[0]}-{span[1]}", numbered(*span))),
        st.just(("all", used)),
    )

    def numbered(first, last):
        strips = [f"channel/{n}" for n in range(first, last + 1)]
        return strips if first == last else [one for one in strips if one in used]

    plus = data.draw(st.lists(parts, min_size=1, max_size=4))
    minus = data.draw(st.lists(parts, max_size=3))
    text = ", ".join(one for one, _ in plus)
    if minus:
        text += " except " + ", ".join(one for one, _ in minus)
    away = {strip for _, strips in minus for strip in strips}
    expected = [one for _, strips in plus for one in strips if one not in away]
    if not expected:
        with pytest.raises(UnreadableText):
            read_strips(DEMO, text)
    else:
        assert read_strips(DEMO, text) == list(dict.fromkeys(expected))


def test_what_of_a_range_is_not_in_use_is_left_out_and_told():
    read = typed_strips(DEMO, "39-44")
    assert read.strips == ("channel/39", "channel/40")
    assert read.unused == tuple(f"channel/{n}" for n in range(41, 45))
    assert read_strips(DEMO, "44") == ["channel/44"]
    with pytest.raises(UnreadableText, match="42-44 are not"):
        read_strips(DEMO, "42-44")
    with pytest.raises(UnreadableText, match="near is Fiddle"):
        read_strips(DEMO, "fidlde")


def test_names_come_from_one_list_and_what_does_not_fit_is_refused():
    show = blank_show(TOURING)
    moves = make_rulers(show, "dca", ["Band", "Bass"])
    named, _ = made(show, moves)
    assert [named[f"{dca}/name"] for dca in rulers_in_use(named, "dca")] == ["Band", "Bass"]
    assert named["dca/1/colour"] != named["dca/2/colour"]
    nine = make_rulers(show, "dca", [f"D{n}" for n in range(9)])
    assert len({colour for at, colour in nine.items() if at.endswith("/colour")}) == 9
    with pytest.raises(NothingLeft):
        make_rulers(show, "dca", [f"DCA {n}" for n in range(TOURING.dcas + 1)])
    every = make_rulers(blank_show(TOURING), "dca", [f"DCA {n}" for n in range(TOURING.dcas)])
    assert f"dca/{TOURING.dcas}/name" in every  # the last one too
    with pytest.raises(UnreadableText):
        make_rulers(show, "dca", ["Band", " "])
    with pytest.raises(UnknownAddress):
        membership(show, "mute_group/1", ["dca/1"], on=True)
    with pytest.raises(EditRefused):
        made(show, {"channel/1/dca/99/on": True})


def test_clearing_leaves_nothing_of_a_dca_or_mute_group():
    for ruler in ("dca/4", "mute_group/1"):
        cleared, _ = made(DEMO, clear_ruler(DEMO, ruler))
        assert not [address for address in cleared.values if f"{ruler}/" in f"{address}/"]
        assert members_of(cleared, ruler) == []


def test_findings_tell_of_rulers_that_are_likely_not_meant():
    show = show_of(
        TOURING,
        band(
            channel__1__dca__2__on=True, dca__3__name="Nobody", line__1__place=1.0,
            line__1__name="Talk", line__1__kind="talkback", line__1__socket="input/local/1",
            channel__3__mute_group__1__on=True, mute_group__1__hard=True, channel__2__mute=True,
            dca__1__mute=True, dca__2__mute=True, channel__4__source="input/local/2",
            channel__4__mute_group__1__on=True, channel__5__source="talkback",
            channel__5__mute_group__1__on=True,
        ),
    )  # fmt: skip
    shut = [finding.about for finding in findings(show) if finding.rule == "talkback_shut"]
    assert shut == ["channel/3", "channel/5"]  # and nobody else of the group
    told = {finding.rule: finding.says for finding in findings(show)}
    assert "Nobody" in told["empty_dca"]
    assert "Band" in told["ruled_twice"]
    assert "talkback" in told["talkback_shut"]
    assert "Channel 2" in told["silenced_thrice"]
    beside = {"channel/1/dca/3/on": True}  # a DCA that holds none of its others
    two = show_of(TOURING, band(**{a.replace("/", "__"): v for a, v in beside.items()}))
    assert "ruled_twice" not in {finding.rule for finding in findings(two)}
    twice = next(f for f in findings(show) if f.rule == "ruled_twice")
    after, _ = made(show, twice.moves)
    strip = twice.about
    assert ruled(after, strip).level_db == ruled(show, strip).level_db


@pytest.mark.parametrize("what", ["All inputs", "All ears"])
def test_a_key_that_closes_many_looks_at_no_cell_path_by_path(what, monkeypatch):
    """On a full desk that took 14 s, in which nobody else could move anything."""
    group = next(g for g in rulers_in_use(DEMO, "mute_group") if DEMO[f"{g}/name"] == what)
    armed, _ = made(DEMO, {f"{group}/safe": False})
    flow = flow_of(armed)

    def looked(*_: object) -> None:
        raise AssertionError("a cell was looked at path by path")

    monkeypatch.setattr("ombrel.core.flow.filling.Network", looked)
    assert len(edited(armed, flow, {f"{group}/on": True}).cells) > 100


# ---- solo


def heard_in_house(show, flow=None):
    flow = flow or flow_of(show)
    return [n for n in (1, 2, 3) if flow.state_of(f"channel/{n}", "house") is State.HEARD]


def test_solo_in_place_leaves_what_is_soloed_and_all_that_it_passes_through():
    through = {"channel__1__house__on": False, "channel__1__group__1__on": True}
    values = band(**through, group__1__format="stereo", channel__3__solo_proof=True)
    show = show_of(TOURING, values | {"channel/1/solo": True})
    assert heard_in_house(show) == [1, 2, 3]  # to the engineer's own bus: nobody else hears of it
    placed, _ = made(show, {"show/solo": "in_place"})
    assert heard_in_house(placed) == [1, 3]
    answer = why(placed, "channel/2", "house")
    assert (answer.state, answer.opening) == (State.MUTED, None)
    assert answer.reasons[0].remedy is None  # somebody is listening: it is nobody's to take
    assert answer.reasons[0].says.startswith("Solo in place: only Channel 1")
    assert any(step.title == "Solo in place" for step in answer.ways[0].steps)
    cleared, _ = made(placed, clear_solos(placed))
    assert heard_in_house(cleared) == [1, 2, 3]
    assert cleared["show/solo"] == "before_fader"  # the next key silences nobody unasked


@pytest.mark.parametrize("soloed_by", ["dca/1", "group/1"])
def test_soloing_a_dca_or_a_bus_leaves_all_that_it_rules_or_that_feeds_it(soloed_by):
    values = band(show__solo="in_place", group__1__format="stereo")
    values |= {f"channel/{n}/group/1/on": True for n in (1, 2)}
    show = show_of(TOURING, values)
    after = edited(show, flow_of(show), {f"{soloed_by}/solo": True})
    assert heard_in_house(after.show, after.flow) == [1, 2]
    assert silenced_by_solo(after.show, after.flow)[0] == "channel/3"
    assert not any(after.show[f"channel/{n}/solo"] for n in (1, 2, 3))
    if soloed_by == "group/1":  # followed move by move: what no longer feeds it falls silent
        out = edited(after.show, after.flow, {"channel/2/group/1/on": False})
        assert heard_in_house(out.show, out.flow) == [1] == heard_in_house(out.show)


def test_the_return_of_a_new_effect_is_solo_proof_so_that_what_is_soloed_keeps_its_effect():
    show, _ = made(blank_show(TOURING), make_effect(blank_show(TOURING), "Hall"))
    assert show["return/1/solo_proof"] is True


def test_what_passes_two_members_of_one_dca_on_one_way_is_a_finding():
    """A singer through a group, and through the return of a reverb: 1 dB of it is 2 dB there."""
    values: dict[str, Value] = {
        "channel/1/source": "input/local/1", "channel/1/name": "Singer",
        "channel/1/house/on": False, "channel/1/group/1/on": True,
        "group/1/format": "mono", "group/1/name": "Voices",
        "mix/1/format": "mono", "mix/1/serves": "effect", "engine/1/source": "mix/1",
        "return/1/source": "engine/1", "return/1/name": "Hall",
        "channel/1/send/mix/1/tap": "after_fader", "channel/1/send/mix/1/level": -6.0,
        "dca/1/name": "All voices", "channel/1/dca/1/on": True, "group/1/dca/1/on": True,
        "output/local/1/source": "house/left",
    }  # fmt: skip

    def told(**more):
        show = show_of(TINY, values | {a.replace("__", "/"): v for a, v in more.items()})
        return [f.says for f in findings(show) if f.rule == "twice_on_a_way"]

    assert told() == [
        "Singer goes through Voices, and All voices holds both: 1 dB of it is 2 dB there."
    ]
    assert any("Hall" in one for one in told(return__1__dca__1__on=True))
    # a send before the fader does not hear the singer's own: then there is one way less
    before = {"channel__1__send__mix__1__tap": "before_fader", "return__1__dca__1__on": True}
    assert not any("Hall" in one for one in told(**before))
    assert told(group__1__dca__1__on=False) == []
    # and it is true: by networkx' walk, 1 dB of the DCA moves the house by 2 dB
    show = show_of(TINY, values | {"channel/1/fader": -10.0})
    there = [
        Referee(made(show, {"dca/1/fader": level_db})[0]).level("channel/1", "house")[0]
        for level_db in (0.0, -1.0)
    ]
    assert there[0] - there[1] == pytest.approx(2.0)


@settings(max_examples=15)
@given(SHOW_SEEDS)
def test_the_count_beside_a_mute_key_is_what_pressing_it_changes(seed):
    show = show_of_seed(seed)
    show = permitted(show, {f"mute_group/{n}/safe": False for n in range(1, TINY.mute_groups + 1)})
    show = permitted(show, {"mute_group/1/name": "One", "mute_group/2/name": "Two"})
    columns, rows = listeners(show), sources(show)
    for group, cells in closing(show, flow_of(show)).items():
        heard = []
        for on in (False, True):
            walk = Referee(made(show, {f"{group}/on": on})[0])
            heard.append({(s, x) for s in rows for x in columns if walk.answer(s, x)[0] == HEARD})
        assert cells == len(heard[0] - heard[1])


@pytest.mark.parametrize("what", ["ears", "inputs"])
def test_all_of_something_is_muted_and_opened_in_one_edit_made_locked_or_neither(what):
    group = next((g for g in rulers_in_use(DEMO, "mute_group") if DEMO[f"{g}/takes"] == what), None)
    bare = DEMO if group is None else made(DEMO, clear_ruler(DEMO, group))[0]
    shut, _ = made(bare, mute_all(bare, what, on=True))
    made_group = next(g for g in rulers_in_use(shut, "mute_group") if shut[f"{g}/takes"] == what)
    assert shut.on(f"{made_group}/on")
    assert shut.on(f"{made_group}/hard")
    again, change = made(shut, mute_all(shut, what, on=True))
    assert not change.new  # a second press, or a second person's, opens nothing
    opened, _ = made(again, mute_all(again, what, on=False))
    assert not opened.on(f"{made_group}/on")
    locked, _ = made(opened, {f"{made_group}/safe": True})
    closed, _ = made(locked, mute_all(locked, what, on=True))
    assert closed.on(f"{made_group}/on")
    assert rulers_in_use(closed, "mute_group") == rulers_in_use(shut, "mute_group")

"""Gangs and linked pairs: what follows a hand, what stays, and that nothing is lost at the ends."""

import math
import random

import networkx
import pytest

from ombrel.core import (
    CATALOGUE,
    Asked,
    Carry,
    Change,
    GangInTheWay,
    Hand,
    Show,
    Travel,
    Typed,
    Value,
    WrongValue,
    blank_show,
    carried_with,
    clear_ruler,
    duplicate_bus,
    edited,
    expanded,
    fading,
    findings,
    flow_of,
    hand_after,
    hear,
    joined,
    linking,
    made,
    make_rulers,
    meant,
    membership,
    move_bus,
    preview,
    remove_bus,
    restored,
    sheet_of,
    show_of,
    standing_at,
    undoing,
    unfolded,
)
from ombrel.core.together import has_place, pairs_in_use, place_of
from ombrel.core.together.carrying import led_by
from ombrel.core.together.gangs import mates_of
from tests.desks import TINY, TOURING
from tests.shows import channels_renamed

HAND = Carry()
OFF = -math.inf
NONE = -math.inf  # no kept place


def ganged(*members: str, gang: int = 1, **values: Value) -> dict[str, Value]:
    """Strips in a gang ("1", "mix/2"), and more values ("channel__1__fader")."""
    strips = [m if "/" in m or not m.isdigit() else f"channel/{m}" for m in members]
    found: dict[str, Value] = {f"{strip}/gang/{gang}/on": True for strip in strips}
    return found | {address.replace("__", "/"): value for address, value in values.items()}


def faders(show: Show, *channels: int) -> list[float]:
    return [show.number(f"channel/{n}/fader") for n in channels]


def moved(show: Show, address: str, value: Asked, carry: Carry | None = HAND) -> Show:
    return made(show, {address: value}, carry)[0]


# ---- the referee: places on paper


class Referee:
    """Faders of gangs on paper: where each stands, and where it would stand beyond its end."""

    def __init__(self, levels: dict[str, float], gangs: list[list[str]]) -> None:
        self.level = dict(levels)
        self.place: dict[str, float | None] = dict.fromkeys(levels)
        self.graph = networkx.Graph()
        self.graph.add_nodes_from(levels)
        for members in gangs:
            networkx.add_path(self.graph, members)

    def _to(self, strip: str, place: float) -> None:
        self.level[strip] = 6.0 if place > 6.0 else OFF if place < -120.0 else place
        self.place[strip] = None if self.level[strip] == place else place

    def lead(self, strip: str, new: float) -> None:
        old, kept = self.level[strip], self.place[strip]
        mates = networkx.node_connected_component(self.graph, strip) - {strip}
        if new == old == OFF:
            return  # a finger at the bottom says so again
        self.level[strip], self.place[strip] = new, None
        if new == old:
            return
        if new == OFF and mates:
            self.place[strip] = old
        open_mates = {mate for mate in mates if self.level[mate] != OFF}
        if old == OFF and open_mates:
            return
        for mate in mates:
            stood = self.place[mate] if self.place[mate] is not None else self.level[mate]
            if new == OFF:
                if mate in open_mates:
                    self.level[mate], self.place[mate] = OFF, stood
            elif old == OFF:
                if self.place[mate] is None and kept is None:
                    self._to(mate, new)
                elif self.place[mate] is not None and kept is not None:
                    self._to(mate, round(stood + new - kept, 6))
            elif mate in open_mates or OFF < stood < -120.0:
                self._to(mate, round(stood + new - old, 6))


@pytest.mark.parametrize("seed", range(40))
def test_faders_of_gangs_stand_where_the_referee_has_them_and_undo_is_the_identity(seed):
    draw = random.Random(seed)
    strips = [f"channel/{n}" for n in range(1, 7)] + ["group/1", "mix/1", "house"]
    gangs = [draw.sample(strips, draw.randint(2, 4)) for _ in range(3)]
    values: dict[str, Value] = {
        f"{strip}/fader": draw.choice([OFF, 5.5, -119.0, round(draw.uniform(-40, 6), 1)])
        for strip in strips
    }
    for number, members in enumerate(gangs, start=1):
        values |= {f"{strip}/gang/{number}/on": True for strip in members}
    start = show = show_of(TOURING, values)
    paper = Referee({s: show.number(f"{s}/fader") for s in strips}, gangs)
    made_so_far: list[Change] = []
    for _ in range(25):
        strip = draw.choice(strips)
        level = draw.choice([OFF, 6.0, -120.0, show.number(f"{strip}/fader")])
        if draw.random() < 0.7:
            level = round(draw.uniform(-120.0, 6.0), 1)
        paper.lead(strip, level)
        show, change = made(show, {f"{strip}/fader": level}, HAND)
        made_so_far.append(change)
        for one in strips:
            assert show.number(f"{one}/fader") == pytest.approx(paper.level[one], abs=1e-5), one
            kept = show.number(f"{one}/fader/kept")
            on_paper = paper.place[one]
            assert kept == pytest.approx(NONE if on_paper is None else on_paper, abs=1e-5), one
    together = undoing(show, joined(made_so_far))
    assert together[1] == ()
    assert made(show, together[0])[0].values == start.values
    for change in reversed(made_so_far):
        moves, left = undoing(show, change)
        assert left == ()
        show = made(show, moves)[0]
    assert show.values == start.values


@pytest.mark.parametrize("seed", range(20))
@pytest.mark.parametrize(
    ("aspect", "leaf", "low", "high"),
    [
        ("fader", "fader", -120.0, 6.0),
        ("trim", "trim", -20.0, 20.0),
        ("pan", "pan", -1.0, 1.0),
        ("sends", "send/mix/2/level", -120.0, 6.0),
        ("sends", "send/mix/2/pan", -1.0, 1.0),
        ("gain", "gain", -6.0, 66.0),
    ],
)
def test_offsets_return_once_the_leader_is_back_however_far_it_went(aspect, leaf, low, high, seed):
    draw = random.Random(seed)
    values = ganged("1", "2", "3", "4") | {f"gang/1/carries_{aspect}": True}
    if leaf == "gain":
        low, high = TOURING.gain_db
    addresses = []
    for n in range(1, 5):
        values[f"channel/{n}/source"] = f"input/a/{n}"
        if draw.random() < 0.3 and "pan" in leaf:
            values[f"channel/{n}/pan_mirrored"] = True
        address = f"input/a/{n}/gain" if leaf == "gain" else f"channel/{n}/{leaf}"
        values[address] = round(draw.uniform(low, high), 2)
        addresses.append(address)
    start = show = show_of(TOURING, values)
    for _ in range(12):
        show = moved(show, addresses[0], round(draw.uniform(low, high), 2))
    show = moved(show, addresses[0], start[addresses[0]])
    for address in addresses:
        assert show.number(address) == pytest.approx(start.number(address), abs=1e-4)
        assert show.number(place_of(address)) == NONE


# ---- what carries, and what does not


def test_a_chain_of_gangs_carries_each_once_and_only_its_aspects():
    values = ganged("1", "2", "mix/3") | ganged("2", "house", gang=2) | ganged("1", "4", gang=3)
    values |= {"gang/3/carries_fader": False, "channel/1/fader": -10.0, "channel/2/fader": -3.0}
    show = show_of(TOURING, values)
    assert mates_of(show, "channel/1/fader") == dict.fromkeys(
        ["channel/2/fader", "mix/3/fader", "house/fader"], True
    )
    after = moved(show, "channel/1/fader", -12.0)
    assert [after.number(f"{s}/fader") for s in ("channel/2", "mix/3", "house")] == [-5, -2, -2]
    assert after["channel/4/fader"] == show["channel/4/fader"]
    muted = moved(show, "channel/1/mute", True)
    assert [muted[f"{s}/mute"] for s in ("channel/2", "mix/3", "house", "channel/4")] == [True] * 4
    assert mates_of(show, "channel/1/polarity") == mates_of(show, "channel/1/send/mix/1/tap") == {}
    held = moved(show, "gang/1/suspended", True)
    assert faders(moved(held, "channel/1/fader", -20.0), 1, 2) == [-20.0, -3.0]


def test_switches_are_copied_so_that_no_key_opens_what_another_hand_shut():
    show = show_of(TOURING, ganged("1", "2", channel__2__mute=True))
    assert moved(show, "channel/1/mute", True)["channel/2/mute"] is True
    assert moved(show, "channel/2/mute", False)["channel/1/mute"] is False


@pytest.mark.parametrize(
    ("moves", "carry", "after"),
    [
        ({"channel/1/fader": -12.0}, None, [-12, -3, -8]),  # paint, import, remedy, recall
        ({"channel/1/fader": -12.0}, HAND, [-12, -5, -10]),
        ({"channel/1/fader": -12.0}, Carry(alone=True), [-12, -3, -8]),
        ({"channel/1/fader": -12.0}, Carry(held=frozenset({"channel/2/fader"})), [-12, -3, -10]),
        ({"channel/1/fader": -12.0, "channel/2/fader": -5.0}, HAND, [-12, -5, -10]),
        ({"channel/1/fader": -12.0, "channel/2/fader": -4.0}, HAND, [-12, -4, -8]),
        ({"channel/1/fader": -12.0, "channel/2/fader": -3.0}, HAND, [-12, -3, -8]),
    ],
)
def test_which_ways_of_editing_carry_a_gang(moves, carry, after):
    values = ganged("1", "2", "3") | {
        "channel/1/fader": -10.0, "channel/2/fader": -3.0, "channel/3/fader": -8.0
    }  # fmt: skip
    show = made(show_of(TOURING, values), moves, carry)[0]
    assert faders(show, 1, 2, 3) == after


def test_a_selection_is_one_more_gang_for_the_gesture_and_keeps_its_places_with_it():
    show = show_of(TOURING, {"channel/1/fader": -10.0, "channel/2/fader": 2.0})
    carry = Carry(passing=("channel/1", "channel/2"))
    up = edited(show, flow_of(show), {"channel/1/fader": 0.0}, carry)
    assert faders(up.show, 1, 2) == [0.0, 6.0]
    assert up.carried.places == {"channel/2/fader": 12.0}
    assert up.show["channel/2/fader/kept"] == NONE
    down = Carry(passing=carry.passing, places=up.carried.places)
    assert faders(moved(up.show, "channel/1/fader", -7.0, down), 1, 2) == [-7.0, 5.0]
    assert faders(moved(up.show, "channel/1/fader", -7.0, carry), 1, 2) == [-7.0, -1.0]


@pytest.mark.parametrize("seed", range(30))
def test_a_drag_down_and_up_again_brings_every_mate_back_however_often_it_says_off(seed):
    """Fingers at the bottom of the travel send "off" many times."""
    draw = random.Random(seed)
    levels = [round(draw.uniform(-60.0, 6.0), 1) for _ in range(4)]
    alone = draw.choice([None, 2])  # one that was off by itself before stays off
    values = ganged("1", "2", "3", "4") | {
        f"channel/{n}/fader": OFF if n == alone else level for n, level in enumerate(levels, 1)
    }
    start = show = show_of(TOURING, values)
    for level in [levels[0] - 5.0, -90.0, OFF, OFF, OFF, -80.0, levels[0] - 1.0, levels[0]]:
        show = moved(show, "channel/1/fader", max(level, -120.0) if level > OFF else OFF)
    assert faders(show, 1, 2, 3, 4) == pytest.approx(faders(start, 1, 2, 3, 4))


@pytest.mark.parametrize("seed", range(20))
@pytest.mark.parametrize(
    ("aspect", "leaf", "ends"),
    [
        ("eq", "eq/2/frequency", (20.0, 20_000.0)),
        ("eq", "eq/2/q", (0.1, 16.0)),
        ("compressor", "compressor/release", (0.1, 5_000.0)),
        ("compressor", "compressor/ratio", (1.0, 100.0)),
    ],
)
def test_ratios_come_back_from_both_ends_of_their_range(aspect, leaf, ends, seed):
    draw = random.Random(seed)
    values = ganged("1", "2", "3") | {f"gang/1/carries_{aspect}": True}
    for n in range(1, 4):
        low, high = (math.log(end) for end in ends)
        values[f"channel/{n}/{leaf}"] = round(math.exp(draw.uniform(low, high)), 2)
    start = show = show_of(TOURING, values)
    first = f"channel/1/{leaf}"
    for value in [*draw.sample([*ends, *ends], 3), start[first]]:
        show = moved(show, first, value)
    for n in range(1, 4):
        address = f"channel/{n}/{leaf}"
        assert show.number(address) == pytest.approx(start.number(address), rel=1e-9)


def test_what_a_hand_moves_stands_on_its_step_and_is_never_minus_nothing():
    show = show_of(TOURING, ganged("1", "2", channel__1__fader=-54.8, channel__2__fader=-44.8))
    show = moved(show, "channel/1/fader", Typed("down 0.1"))
    assert [str(level) for level in faders(show, 1, 2)] == ["-54.9", "-44.9"]
    for fraction in (0.11, 0.37, 0.62, 0.9):
        level = moved(show, "channel/1/fader", Travel(fraction)).number("channel/1/fader")
        assert float(f"{level:.1f}") == level
    nothing = moved(show, "channel/1/fader", Typed("-0"))
    assert math.copysign(1.0, nothing.number("channel/1/fader")) == 1.0


def test_a_dca_in_a_selection_goes_by_the_same_db_and_is_no_open_mate():
    show = show_of(TOURING, {"channel/1/fader": -10.0, "dca/1/fader": -2.0})
    both = Carry(passing=("channel/1", "dca/1"))
    down = edited(show, flow_of(show), {"channel/1/fader": -12.0}, both)
    assert (down.show["channel/1/fader"], down.show["dca/1/fader"]) == (-12.0, -4.0)
    led = edited(show, flow_of(show), {"dca/1/fader": 0.0}, both)
    assert (led.show["channel/1/fader"], led.show["dca/1/fader"]) == (-8.0, 0.0)
    off = moved(show, "channel/1/fader", OFF, both)
    assert off["dca/1/fader"] == -2.0
    back = edited(off, flow_of(off), {"channel/1/fader": -5.0}, both)
    assert (back.carried.lone, back.show["dca/1/fader"]) == (False, -2.0)
    end = edited(show, flow_of(show), {"channel/1/fader": 6.0}, both)
    assert end.show["dca/1/fader"] == 6.0
    again = Carry(passing=both.passing, places=end.carried.places)
    assert moved(end.show, "channel/1/fader", -10.0, again)["dca/1/fader"] == -2.0
    assert moved(show, "channel/1/mute", True, both)["dca/1/mute"] is True


def test_the_pan_of_a_send_to_a_matrix_goes_with_a_gang_of_mixes_and_pan_mirrors_turn_send_pans():
    values = ganged("mix/1", "mix/2", gang__1__carries_sends=True)
    values |= {f"mix/{n}/format": "stereo" for n in (1, 2)} | {"matrix/1/format": "stereo"}
    show = show_of(TOURING, values)
    after = moved(show, "mix/1/send/matrix/1/pan", -0.4)
    assert after["mix/2/send/matrix/1/pan"] == -0.4
    pair = ganged("1", "2", gang__1__carries_sends=True, channel__2__pan_mirrored=True)
    turned = moved(show_of(TOURING, pair), "channel/1/send/mix/1/pan", -0.4)
    assert turned["channel/2/send/mix/1/pan"] == 0.4


@pytest.mark.parametrize("seed", range(60))
def test_a_hand_amid_a_fade_moves_nobody_further_than_itself(seed):
    """Wherever in the fade: each goes on from where it sounds, by the hand's way, and stays."""
    draw = random.Random(seed)
    kind = draw.choice(["gang", "pair", "selection"])
    values: dict[str, Value] = {f"channel/{n}/fader": round(draw.uniform(-40, 0), 1)
                                for n in (1, 2, 3)}  # fmt: skip
    values |= {"channel/1/linked": True} if kind == "pair" else {}
    values |= ganged("1", "2", "3") if kind == "gang" else {}
    show = show_of(TOURING, values)
    targets = {f"channel/{n}/fader": round(draw.uniform(-40, 0), 1) for n in (1, 2, 3)}
    recalled = edited(show, flow_of(show), targets)
    under_way = fading(show, recalled.stood, {}, seconds=8.0, at_s=100.0, after=recalled.show)
    at_s = 100.0 + draw.uniform(0.1, 7.9)
    sounding = standing_at(recalled.show, under_way, at_s)
    start = {a: sounding.number(a) for a in targets}
    leader = draw.choice(sorted(targets)[:2])
    by = draw.choice([-1.5, 0.5, round(recalled.show.number(leader) - start[leader], 6)])
    passing = tuple(f"channel/{n}" for n in (1, 2, 3)) if kind == "selection" else ()
    held = edited(
        recalled.show, recalled.flow, {leader: start[leader] + by}, Carry(passing=passing),
        sounding=sounding,
    )  # fmt: skip
    going = fading(
        recalled.show, held.stood, under_way, seconds=0.0, at_s=at_s, after=held.show,
        taken=held.written,
    )  # fmt: skip
    with_it = sorted(targets)[:2] if kind == "pair" else sorted(targets)
    for address in targets:
        if address not in with_it:
            assert address in going or address not in under_way
            continue
        assert address not in going
        assert held.show.number(address) == pytest.approx(
            held.show.number(leader) if kind == "pair" else start[address] + by, abs=1e-5
        )


DRAGGED = {
    "fader": (-100.0, 6.0),
    "send/mix/1/level": (-100.0, 6.0),
    "pan": (-1.0, 1.0),
    "eq/2/frequency": (20.0, 20_000.0),
    "eq/2/gain": (-15.0, 15.0),
}


def dragged(show: Show, hands: dict[str, Hand], address: str, path: list[float]) -> Show:
    """The show after a hand that stays on a control went through some places; `hands` with it."""
    for place in path:
        carry = carried_with(show, hands, "hand", [address], Carry())
        after = expanded(show, {address: place}, carry)
        hands["hand"] = hand_after(show, [address], carry, after.carried)
        show = after.show
    return show


@pytest.mark.parametrize("seed", range(60))
def test_a_drag_ends_where_its_last_place_leads_whatever_it_passed(seed):
    """So that places which wait can be joined: through both ends and off, beside another's hand.

    Only what ends at off is otherwise: it keeps the place from which it went.
    """
    draw = random.Random(seed)
    leaf, (low, high) = draw.choice(list(DRAGGED.items()))

    def place(*, off: bool) -> float:
        ends = [low, high] + [OFF] * (off and leaf in ("fader", "send/mix/1/level"))
        return draw.choice(ends) if draw.random() < 0.4 else round(draw.uniform(low, high), 1)

    values: dict[str, Value] = {"mix/1/format": "mono", "channel/1/linked": draw.random() < 0.3}
    for gang in (1, 2, 3):
        values |= ganged(*map(str, draw.sample(range(1, 7), draw.randint(2, 4))), gang=gang)
    values |= {f"channel/{n}/{leaf}": place(off=True) for n in range(1, 7)}
    show = show_of(TOURING, values)
    hands: dict[str, Hand] = {}
    if draw.random() < 0.4:
        beside = f"channel/{draw.randint(1, 6)}/{leaf}"
        carry = carried_with(show, {}, "other", [beside], Carry())
        after = expanded(show, {beside: place(off=True)}, carry)
        hands["other"], show = hand_after(show, [beside], carry, after.carried), after.show
    address = f"channel/{draw.randint(1, 6)}/{leaf}"
    path = [place(off=True) for _ in range(draw.randint(1, 4))] + [place(off=False)]
    through, straight = dict(hands), dict(hands)
    one, other = dragged(show, through, address, path), dragged(show, straight, address, path[-1:])
    assert one.own == other.own
    assert through["hand"].leads == straight["hand"].leads


def test_a_kept_place_ends_when_its_address_is_named_or_no_gang_carries_it():
    values = ganged("1", "2", "3", channel__1__fader=-10.0, channel__2__fader=4.0)
    show = moved(show_of(TOURING, values), "channel/1/fader", 0.0)
    kept = "channel/2/fader/kept"
    assert (show["channel/2/fader"], show[kept]) == (6.0, 14.0)
    assert moved(show, "channel/2/fader", 6.0, None)[kept] == NONE
    assert moved(show, "channel/3/name", "x", None)[kept] == 14.0
    for address in ("gang/1/suspended", "channel/2/gang/1/on", "gang/1/carries_fader"):
        ended = moved(show, address, address.endswith("suspended"), None)
        assert ended[kept] == NONE
        assert faders(ended, 1, 2) == [0.0, 6.0]  # nothing is moved by it
    cleared = made(show, clear_ruler(show, "gang/1"))[0]
    assert not [a for a in cleared.values if "gang" in a or a.endswith("/kept")]
    assert faders(cleared, 1, 2) == [0.0, 6.0]


def test_undo_leaves_a_value_whose_kept_place_somebody_moved_since():
    show = show_of(TOURING, ganged("1", "2", channel__1__fader=-10.0, channel__2__fader=4.0))
    first, change = made(show, {"channel/1/fader": -5.0}, HAND)
    second = moved(first, "channel/1/fader", -4.0)  # at its end all the same, farther beyond
    assert first["channel/2/fader"] == second["channel/2/fader"] == 6.0
    moves, left = undoing(second, change)
    assert moves == {}
    assert "channel/2/fader" in left
    back = made(second, restored(second, first))[0]
    assert back.values == first.values


def test_joining_leaving_and_naming_move_nothing():
    show = show_of(TOURING, {"channel/1/fader": -10.0})
    named, _ = made(show, make_rulers(show, "gang", ["Toms", "Keys"]))
    assert (named["gang/1/name"], named["gang/2/name"]) == ("Toms", "Keys")
    joins, change = made(named, membership(named, "gang/1", ["channel/1", "mix/1"], on=True))
    assert set(change.new) == {"channel/1/gang/1/on", "mix/1/gang/1/on"}
    assert joins["channel/1/fader"] == -10.0


def test_every_number_that_a_gang_carries_has_a_kept_place_and_nothing_else_has():
    kept = {key.removesuffix("/kept") for key in CATALOGUE if key.endswith("/kept")}
    concrete = {key: key for key in CATALOGUE}
    for key in concrete:
        address = key
        for word in ("channel", "return", "group", "mix", "matrix", "input", "dca", "engine"):
            address = address.replace(f"<{word}>", "1")
        if "<" not in address.replace("<box>", "a"):
            assert has_place(address.replace("<box>", "a")) == (key in kept), key
    assert not any("polarity" in key or "phantom" in key for key in kept)


# ---- linked pairs

EQUAL = ("fader", "mute", "house/on", "mono/on", "group/1/on", "send/mix/1/level",
         "send/mix/1/on", "send/mix/1/tap", "dca/1/on", "mute_group/1/on", "gang/1/on")  # fmt: skip
MIRRORED = ("pan", "send/mix/1/pan")
OWN = ("name", "colour", "polarity", "trim", "source")


def test_linking_gives_the_odd_sides_values_and_leaves_what_is_each_ones_own():
    values: dict[str, Value] = {
        "channel/1/fader": -7.0, "channel/2/fader": -3.0, "channel/1/pan": -0.5,
        "channel/2/trim": 4.0, "channel/2/name": "Right", "channel/1/send/mix/1/level": -9.0,
        "channel/2/polarity": True, "channel/1/dca/1/on": True,
    }  # fmt: skip
    show, _ = made(show_of(TINY, values), linking(blank_show(TINY), "2", kind="channel", on=True,
                                                  spread=False))  # fmt: skip
    assert pairs_in_use(show) == ["channel/1"]
    for leaf in EQUAL:
        assert show[f"channel/2/{leaf}"] == show[f"channel/1/{leaf}"], leaf
    assert show["channel/2/pan"] == 0.5
    assert [show[f"channel/2/{leaf}"] for leaf in ("trim", "name", "polarity")] == [4.0, "Right", 1]
    parted, change = made(show, {"channel/1/linked": False})
    assert set(change.new) == {"channel/1/linked"}
    with pytest.raises(WrongValue, match="odd one"):
        made(parted, {"channel/2/linked": True})
    spread = linking(parted, "3-4", kind="channel", on=True, spread=True)
    wide, _ = made(parted, spread)
    assert (wide["channel/3/pan"], wide["channel/4/pan"]) == (-1.0, 1.0)


@pytest.mark.parametrize("seed", range(30))
def test_a_pair_is_equal_after_every_edit_and_undo_by_whatever_way(seed):
    draw = random.Random(seed)
    values: dict[str, Value] = {"channel/1/linked": True, "channel/3/linked": True}
    show = show_of(TINY, values | ganged("1", "3", gang__1__carries_pan=True,
                                         gang__1__carries_sends=True))  # fmt: skip
    changes: list[Change] = []
    for _ in range(25):
        asked: dict[str, Value] = {}
        for _ in range(draw.choice([1, 1, 2, 4])):
            leaf = draw.choice(EQUAL[:7] + MIRRORED)
            level = draw.choice([OFF, 6.0, round(draw.uniform(-60, 6), 1)])
            known = CATALOGUE_VALUES.get(leaf)
            asked[f"channel/{draw.randint(1, 4)}/{leaf}"] = (
                draw.choice(known) if known else round(draw.uniform(-1, 1), 2)
                if "pan" in leaf else level
            )  # fmt: skip
        if changes and draw.random() < 0.3:
            asked = dict(undoing(show, changes.pop())[0])  # type: ignore[arg-type]
            show, _ = made(show, asked)
        else:
            show, change = made(show, asked, draw.choice([None, HAND]))
            changes.append(change)
        for odd in (1, 3):
            for leaf in EQUAL:
                assert show[f"channel/{odd}/{leaf}"] == show[f"channel/{odd + 1}/{leaf}"], leaf
            for leaf in MIRRORED:
                assert show[f"channel/{odd}/{leaf}"] == -show.number(f"channel/{odd + 1}/{leaf}")


CATALOGUE_VALUES: dict[str, list[Value]] = {
    "mute": [True, False], "house/on": [True, False], "mono/on": [True, False],
    "group/1/on": [True, False], "send/mix/1/on": [True, False],
    "send/mix/1/tap": ["input", "after_fader"],
}  # fmt: skip


def test_a_pair_is_one_member_and_its_trims_and_gains_keep_their_difference():
    values = ganged("1", "2", "5", channel__1__linked=True, gang__1__carries_pan=True)
    values |= {"channel/1/pan": -0.5, "channel/2/trim": 3.0, "channel/5/pan": 0.2}
    values |= {f"channel/{n}/source": f"input/a/{n}" for n in (1, 2)} | {"input/a/2/gain": 20.0}
    show = show_of(TOURING, values)
    wider = moved(show, "channel/2/pan", 0.6)
    assert [wider[f"channel/{n}/pan"] for n in (1, 2, 5)] == [-0.6, 0.6, pytest.approx(0.1)]
    assert moved(show, "channel/1/trim", 2.0)["channel/2/trim"] == 5.0
    assert moved(show, "channel/2/trim", 2.0, None)["channel/1/trim"] == 0.0  # named alone
    assert moved(show, "input/a/1/gain", 10.0)["input/a/2/gain"] == 30.0
    assert led_by(show, ["channel/2/fader"]) == {"channel/1/fader"}


# ---- where the rest of the desk meets them


def test_a_level_typed_for_a_cell_carries_its_gang_unless_the_cell_would_then_miss():
    """Channel 1 and its group in one gang: the group's fader would move what channel 1 comes to."""
    values = ganged("1", "2", channel__1__fader=-10.0, channel__2__fader=-3.0)
    values |= {"channel/1/source": "input/a/1"}
    values |= {f"output/local/{n}/source": f"house/{s}" for n, s in ((1, "left"), (2, "right"))}
    show = show_of(TOURING, values)
    moves = hear(show, flow_of(show), [("channel/1", "house")], "-6")
    after = edited(show, flow_of(show), moves, HAND)
    assert after.flow.level("channel/1", "house") == pytest.approx(-6.0)
    assert faders(after.show, 1, 2) == [-6.0, 1.0]
    through, _ = made(show, ganged("house", gang__1__name="Both"))
    with pytest.raises(GangInTheWay, match="Both"):
        hear(through, flow_of(through), [("channel/1", "house")], "-6")


def test_a_gang_unfolds_to_its_members_and_a_pair_to_its_odd_side():
    show = show_of(TOURING, ganged("1", "2", "mix/1", channel__1__linked=True))
    assert unfolded(show, "gang/1") == ["channel/1", "mix/1"]


def test_findings_tell_of_gangs_by_which_nothing_follows():
    named: dict[str, Value] = {f"gang/{n}/name": f"Gang {n}" for n in range(1, 6)}
    values = ganged("1", "2", gang=1) | ganged("1", gang=2) | ganged("3", "4", gang=3)
    values |= ganged("5", "house", gang=4, gang__4__carries_trim=True)
    values |= {f"gang/{n}/carries_{a}": False for n in (3, 4) for a in ("fader", "mute")}
    told = {f.about: f.says for f in findings(show_of(TOURING, values | named))}
    assert set(told) == {f"gang/{n}" for n in (2, 3, 4, 5)}
    assert "one member" in told["gang/2"]
    assert "carries nothing" in told["gang/3"]
    assert "trims" in told["gang/4"]
    assert "no members" in told["gang/5"]
    sheet = sheet_of(show_of(TOURING, values | named), "rulers")
    assert sheet is not None
    assert ("Gang", 1, "Gang 1", "", "faders, mutes", "1-2") in [row[:6] for row in sheet.rows]


def test_pairs_go_with_their_numbers_or_are_parted_and_never_drag_the_other_side_along():
    mixes: dict[str, Value] = {f"mix/{n}/format": "stereo" for n in (1, 2, 3)}
    mixes |= {f"mix/{n}/name": f"Mix {n}" for n in (1, 2, 3)} | {"mix/1/linked": True}
    show = show_of(TINY, mixes | {"channel/1/linked": True, "channel/1/fader": -7.0})
    removed, _ = made(show, remove_bus(show, "mix/2"))
    assert (removed["mix/1/format"], removed["mix/2/format"]) == ("stereo", "unused")
    again, _ = made(removed, duplicate_bus(removed, "mix/1"))
    assert again["mix/2/format"] == "stereo"
    moved_on, _ = made(show, move_bus(show, "mix/1", None))
    assert [moved_on[f"mix/{n}/name"] for n in (1, 2, 3)] == ["Mix 2", "Mix 3", "Mix 1"]
    assert pairs_in_use(moved_on) == ["channel/1"]
    together, _ = made(show, channels_renamed(show, {1: 3, 2: 4}))
    assert pairs_in_use(together) == ["channel/3", "mix/1"]
    assert faders(together, 3, 4) == [-7.0, -7.0]
    apart, _ = made(show, channels_renamed(show, {1: 4}))
    assert pairs_in_use(apart) == ["mix/1"]
    assert faders(apart, 2, 4) == [-7.0, -7.0]


def test_who_types_where_a_low_cut_begins_switches_it_on_in_the_gang_too():
    """And who drags it, or types while it is on or with its switch, gets just that."""
    values = {f"channel/{n}/gang/1/on": True for n in (1, 2)} | {"gang/1/carries_low_cut": True}
    show = show_of(TINY, values | {"channel/2/low_cut/frequency": 160.0})
    moves = meant(show, {"channel/1/low_cut/frequency": Typed("120")})
    assert moves["channel/1/low_cut/on"] is True
    after = edited(show, flow_of(show), moves, Carry()).show
    assert [after[f"channel/{n}/low_cut/on"] for n in (1, 2)] == [True, True]
    octaves = math.log2(120.0 / show.number("channel/1/low_cut/frequency"))
    assert after["channel/2/low_cut/frequency"] == pytest.approx(160.0 * 2**octaves, abs=0.06)
    plain: list[dict[str, Asked]] = [
        {"channel/1/low_cut/frequency": 120.0},
        {"channel/1/low_cut/frequency": Typed("120"), "channel/1/low_cut/on": False},
        {"channel/1/fader": Typed("-3"), "nobody/1/fader": Typed("3")},
    ]
    for asked in plain:
        assert meant(show, asked) == asked
    assert meant(after, {"channel/1/low_cut/frequency": Typed("80")}).keys() == {
        "channel/1/low_cut/frequency"
    }


def test_pairs_are_previewed_as_pairs_feeds_that_change_alike_told_once():
    """Both sides with their pans, what goes to mixes nobody uses untold, and nothing told twice."""
    show = show_of(TINY, {
        "channel/1/name": "Harp", "channel/1/fader": -3.0, "channel/1/send/mix/1/level": -6.0,
        "channel/2/name": "Harp R", "mix/1/format": "stereo", "mix/2/format": "stereo",
    })  # fmt: skip
    told = preview(show, flow_of(show), linking(show, "1", kind="channel", on=True, spread=True))
    (pair,) = told.pairs
    assert (pair.odd, pair.name) == ("channel/1", "Harp and Harp R")
    assert set(pair.says) == {
        "fader: Harp R off \u2192 \u22123 dB",
        "pan: Harp C \u2192 L100, Harp R C \u2192 R100",
        "send to Mix 1: Harp R off \u2192 \u22126 dB",
        "send pan to 2 mixes: Harp C \u2192 L100, Harp R C \u2192 R100",
    }
    assert told.following == 0
    joined, _ = made(show, linking(show, "1", kind="channel", on=True, spread=True))
    assert not preview(joined, flow_of(joined), {"channel/1/fader": -9.0}).pairs

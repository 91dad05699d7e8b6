"""Who hears what, measured: reading, evaluating, following, and what they are compared with."""

import itertools

import numpy as np
import pytest
from immutables import Map
from tests.desks import FESTIVAL, SMALL, TOURING

from bench.shows import full_show, scene_values
from bench.walk import walked_levels
from ombrel.core import (
    AT_REST,
    Carry,
    Change,
    Value,
    after_step,
    cells_by_preset,
    compare_scenes,
    edited,
    findings,
    flow_of,
    look_ahead,
    made,
    no_plan,
    plan_tracks,
    scene_cards,
    store_scene,
)
from ombrel.core.flow.following import evaluated
from ombrel.core.scenes import held_of
from ombrel.core.scenes.held import packed
from ombrel.core.wires import layout_of
from ombrel.core.wires.arrays import read_arrays

DESKS = {"Small 24": SMALL, "Touring 48": TOURING, "Festival 128": FESTIVAL}


@pytest.fixture(scope="module", params=list(DESKS))
def show(request):
    return full_show(DESKS[request.param])


@pytest.fixture(scope="module")
def flow(show):
    return flow_of(show)


@pytest.fixture
def measured(benchmark, show):
    benchmark.extra_info["desk"] = show.desk.name
    return benchmark


def test_floor(measured, show, flow):
    """The bare products of the same blocks, levels and ways: feeds times what their strips pass,

    groups into what they feed, all of these into matrices, buses into ears, and the decibels.
    """
    layout, wiring = flow.layout, flow.wiring
    rng = np.random.default_rng(1)
    passed = rng.random((layout.feeding, layout.buses))
    nodes, groups = layout.nodes, layout.groups.stop
    middle, last = layout.middle.stop, 2 * layout.desk.matrices
    into_middle = rng.random((2 * groups, 2 * (middle - groups)))
    into_last = rng.random((2 * middle, last))
    ears = flow.ears.gain

    def products():
        for kind in (np.float64, np.float32):
            gain = (wiring.share * passed[:, None, :, None]).astype(kind, copy=False)
            direct = gain[: layout.rows].reshape(-1, layout.buses, 2)[:nodes]
            direct[:, groups:middle] += (
                direct[:, :groups].reshape(nodes, -1) @ into_middle.astype(kind, copy=False)
            ).reshape(nodes, -1, 2)
            direct[:, middle:] += (
                direct[:, :middle].reshape(nodes, -1) @ into_last.astype(kind, copy=False)
            ).reshape(nodes, -1, 2)
        left = direct[:, :, 0] * ears[:, 0, 0] + direct[:, :, 1] * ears[:, 1, 0]
        right = direct[:, :, 0] * ears[:, 0, 1] + direct[:, :, 1] * ears[:, 1, 1]
        with np.errstate(divide="ignore"):
            return 10.0 * np.log10(left * left + right * right)

    measured(products)


def test_reading(measured, show):
    measured(read_arrays, show)


def test_evaluating(measured, show):
    measured(evaluated, read_arrays(show), layout_of(show.desk))


def test_whole(measured, show):
    """Reading and evaluating: what one move is compared with."""
    measured(flow_of, show)


def test_move(measured, show, flow):
    """One fader move: the edit checked and made, and every cell that it changes evaluated."""
    levels_db = itertools.cycle([-3.0, -7.0])

    def move():
        return edited(show, flow, {"channel/5/fader": next(levels_db)})

    assert len(move().cells)
    measured(move)


@pytest.fixture(scope="module")
def nested(show):
    """The same with every group but one in the next, by twos, and all of them in the last."""
    count = show.desk.groups
    into = {f"group/{n}/group/{n + 1}/on": True for n in range(1, count - 1, 2)}
    return made(show, into | {f"group/{n}/group/{count}/on": True for n in range(1, count)})[0]


def test_nested(measured, nested):
    """Groups that feed groups, evaluated."""
    measured(evaluated, read_arrays(nested), layout_of(nested.desk))


def test_nested_move(measured, nested):
    """One fader move where groups feed groups."""
    flow, levels_db = flow_of(nested), itertools.cycle([-3.0, -7.0])

    def move():
        return edited(nested, flow, {"channel/5/fader": next(levels_db)})

    assert len(move().cells)
    measured(move)


def test_dca(measured, show, flow):
    """One move of a DCA that rules up to 45 channels: all its members' cells follow."""
    members = range(1, min(45, show.desk.channels) + 1)
    ruling = edited(show, flow, {f"channel/{n}/dca/1/on": True for n in members})
    levels_db = itertools.cycle([-3.0, -7.0])

    def move():
        return edited(ruling.show, ruling.flow, {"dca/1/fader": next(levels_db)})

    assert len(move().cells)
    measured(move)


STEP_S = 0.1  # so far apart the stage tells levels


@pytest.mark.parametrize("of", ["channels", "buses"])
def test_shares(measured, show, of):
    """A step of 32 microphones that share one gain (24 on the smallest desk), all speaking; and of

    as many of which one is a group: then what comes to it is worked out with everybody's share.
    """
    channels = range(1, min(32, show.desk.channels) + 1)
    values = {f"channel/{n}/sharing/group": "sharing/1" for n in channels}
    values |= {f"channel/{n}/source": f"input/local/{n % 8 + 1}" for n in channels}
    if of == "buses":
        values |= {"group/1/format": "mono", "group/1/sharing/group": "sharing/1"}
    sharing = show.with_values(values)
    flow = flow_of(sharing)
    dbu = {f"input/local/{n}": -30.0 - n for n in range(1, 9)}
    means, groups = after_step(sharing, flow, AT_REST, dbu, STEP_S)
    assert groups[0].floor

    def step():
        return after_step(sharing, flow, means, dbu, STEP_S)

    measured(step)


@pytest.mark.parametrize("found", ["plan", "none"])
def test_tracks(benchmark, show, found):
    """The best track plan for as many wishes as the recorder has tracks, by turns raw and processed

    channels, returns, wishes of two ranks; or with one must too many: why none, and what would do.
    """
    benchmark.extra_info["desk"] = show.desk.name
    box = next(one for one in show.desk.boxes if not one.preamps)
    values: dict[str, Value] = {}
    for number in range(1, box.outputs + 1 + (found == "none")):
        channel = (number - 1) % show.desk.channels + 1
        values |= {
            f"wish/{number}/place": float(number),
            f"wish/{number}/source": f"channel/{channel}",
            f"wish/{number}/tap": "before_fader" if number % 3 == 0 else "input",
            f"wish/{number}/rank": float(number % 8 == 7) if found == "plan" else 0.0,
        }
    values |= {f"channel/{n}/linked": False for n in range(1, show.desk.channels + 1, 2)}
    wished = show.with_values(values)
    if found == "plan":
        assert plan_tracks(wished) is not None
        benchmark.pedantic(plan_tracks, args=(wished,), rounds=3)
    else:
        assert no_plan(wished).would_do
        benchmark.pedantic(no_plan, args=(wished,), rounds=3)


def test_mute_group(measured, show, flow):
    """One press of a mute group of as many channels: their cells close, and open again."""
    members = range(1, min(45, show.desk.channels) + 1)
    grouped = edited(show, flow, {f"channel/{n}/mute_group/1/on": True for n in members})
    turns = itertools.cycle([True, False])
    now = grouped

    def press():
        nonlocal now
        now = edited(now.show, now.flow, {"mute_group/1/on": next(turns)})
        return now

    assert len(press().cells)
    press()
    measured(press)


def test_gang(measured, show, flow):
    """One fader moved by hand in a gang of as many channels: all their faders follow."""
    members = range(1, min(45, show.desk.channels) + 1)
    ganged = edited(show, flow, {f"channel/{n}/gang/1/on": True for n in members})
    levels_db = itertools.cycle([-3.0, -3.5])

    def move():
        leader = {"channel/5/fader": next(levels_db)}
        return edited(ganged.show, ganged.flow, leader, Carry())

    assert len(move().change.new) > len(members) // 2
    measured(move)


def test_thousand(measured, show, flow):
    """A thousand values at once, as a recall brings them."""
    values = scene_values(show, 1, 1_000)
    assert len(edited(show, flow, values).cells)
    measured(edited, show, flow, values)


def test_thousand_anew(measured, show, flow):
    """The show that they leave evaluated: some of them mute, so there is more silence to name."""
    arrays = edited(show, flow, scene_values(show, 1, 1_000)).flow.arrays
    measured(evaluated, arrays, layout_of(show.desk))


def test_turned_move(measured, show):
    """A fader in a show where a polarity is turned over against a tap at the input."""
    turned, _ = made(show, {"channel/1/polarity": True, "channel/1/send/mix/1/tap": "input"})
    flow, levels_db = flow_of(turned), itertools.cycle([-3.0, -7.0])
    assert flow.mixed
    measured(lambda: edited(turned, flow, {"channel/5/fader": next(levels_db)}))


def test_findings(measured, show, flow):
    """All that is wrong with it, with every remedy tried."""
    assert any(finding.moves for finding in findings(show, flow))
    measured.pedantic(findings, args=(show, flow), rounds=3, iterations=1)


@pytest.fixture(scope="module")
def scenes(show):
    """Five hundred scenes of 60 values that differ: their changes, and the show that is left."""
    changes, now = [], show
    for seed in range(500):
        new = scene_values(now, seed, 60)
        changes.append(Change(Map({address: now[address] for address in new}), Map(new)))
        now = now.with_values(new)
    return changes, now


def test_scenes(measured, flow, scenes):
    """The scenes, followed one from another."""
    changes, now = scenes

    def run():
        following = flow
        for change in changes:
            following, _ = following.after(change)
        return following

    found, anew = run(), flow_of(now)
    np.testing.assert_allclose(np.exp(found.level_db / 20), np.exp(anew.level_db / 20), atol=1e-9)
    measured.pedantic(run, rounds=1, iterations=1)


def test_scenes_anew(measured, show, scenes):
    """The show that the last of them leaves evaluated, as each would be if none were followed."""
    measured(evaluated, read_arrays(scenes[1]), layout_of(show.desk))


def test_walk(measured, show, flow):
    """The levels alone by a networkx graph, source by source (the graph is the referee's)."""
    walked = measured.pedantic(walked_levels, args=(show,), rounds=1, iterations=1)
    for (source, bus), level_db in walked.items():
        assert flow.level(source, bus) == pytest.approx(level_db, abs=1e-6)


# ---- 64 channels that buses feed, all in one loop, on the largest desk


@pytest.fixture(scope="module")
def fed():
    return full_show(FESTIVAL, bus_fed=64)


def test_fed_whole(benchmark, fed):
    benchmark.extra_info["desk"] = "64 bus-fed channels"
    benchmark(flow_of, fed)


@pytest.mark.parametrize("address", ["channel/5/fader", "channel/100/fader"], ids=["free", "fed"])
def test_fed_move(benchmark, fed, address):
    benchmark.extra_info["desk"] = "64 bus-fed channels"
    flow, levels_db = flow_of(fed), itertools.cycle([-3.0, -7.0])
    benchmark(lambda: edited(fed, flow, {address: next(levels_db)}))


@pytest.fixture(scope="module", params=[0, 1, 64], ids=["none", "one", "64"])
def mastered(request):
    """The largest desk with so many channels that buses feed, the last by a side of mix 1."""
    show = full_show(FESTIVAL, bus_fed=request.param)
    if request.param:
        show, _ = made(show, {"channel/128/source": "mix/1/left"})
    return show, flow_of(show)


def test_fed_mute(benchmark, mastered):
    """A stereo master muted and opened again: every name of silence behind it is found anew."""
    benchmark.extra_info["desk"] = "64 bus-fed channels"
    now, flow = mastered
    turns = itertools.cycle([True, False])

    def press():
        nonlocal now, flow
        after = edited(now, flow, {"mix/1/mute": next(turns)})
        now, flow = after.show, after.flow

    benchmark.pedantic(press, rounds=12, iterations=2)


# ---- scenes: the whole of a desk in each


def with_scenes(show, count):
    """A show with scenes of everything in use, each with one strip of its own values."""
    stored = made(show, store_scene(show, "Whole", cells_by_preset(show, "everything")))[0]
    held = {a.partition("/holds/")[2]: t for a, t in stored.values.items() if "/holds/" in a}
    values: dict[str, Value] = {}
    for number in range(2, count + 1):
        scene, own = f"scene/{number}", f"channel/{number % show.desk.channels + 1}"
        values |= {f"{scene}/holds/{holder}": text for holder, text in held.items()}
        values |= {f"{scene}/number": float(number), f"{scene}/name": f"Scene {number}"}
        strip = held_of(stored, "scene/1", own)
        values[f"{scene}/holds/{own}"] = packed(
            strip.with_values(show.desk, "channel", {"fader": -0.1 * number}), "channel"
        )
    return stored.with_values(values)


def test_scene_looked_at(measured, show):
    """What a recall of the whole desk would do, 200 values of it: by value and by listener."""
    stored = with_scenes(show, 1)
    now = made(stored, scene_values(stored, 7, 200))[0]
    flow = flow_of(now)
    assert look_ahead(now, flow, "scene/1").heard
    measured(look_ahead, now, flow, "scene/1")


@pytest.mark.parametrize("count", [10, 500], ids=["10", "500"])
def test_scene_list(measured, show, count):
    """Every scene with how much it carries, as when the list is opened and searched."""
    stored = with_scenes(show, count)
    scene_cards(stored)  # texts that were read once stay read
    measured(scene_cards, stored)


def test_scene_compared(measured, show):
    stored = with_scenes(show, 20)
    assert len(list(compare_scenes(stored, "scene/2", "scene/20"))) == 2
    measured(lambda: list(compare_scenes(stored, "scene/2", "scene/20")))

"""Who hears what, measured: reading, evaluating, one move, and what they are compared with."""

import itertools

import numpy as np
import pytest
from tests.core.walk import walked_table
from tests.desks import FESTIVAL, TOURING

from bench.shows import full_show
from ombrel.core import flow_of, made
from ombrel.core.flow.arrays import read_arrays
from ombrel.core.flow.table import evaluated

DESKS = {"Touring 48": TOURING, "Festival 128": FESTIVAL}


@pytest.fixture(scope="module", params=list(DESKS))
def show(request):
    return full_show(DESKS[request.param])


@pytest.fixture
def measured(benchmark, show):
    benchmark.extra_info["desk"] = show.desk.name
    return benchmark


def test_floor(measured, show):
    """The bare products of the same size: sources x channels x bus sides x listener sides."""
    channels, sides = show.desk.channels, 2 * (show.desk.mixes + 2)
    rng = np.random.default_rng(1)
    sources, sends = rng.random((channels, channels)), rng.random((channels, sides))
    buses = rng.random((sides, sides))
    measured(lambda: sources @ sends @ buses)


def test_reading(measured, show):
    measured(read_arrays, show)


def test_evaluating(measured, show):
    measured(evaluated, read_arrays(show))


def test_whole(measured, show):
    """Reading and evaluating: what one move is compared with."""
    measured(flow_of, show)


def test_move(measured, show):
    """One fader move: the edit checked and made, and every cell that it changes evaluated."""
    flow = flow_of(show)
    levels_db = itertools.cycle([-3.0, -7.0])

    def move():
        _, change = made(show, {"channel/5/fader": next(levels_db)})
        return flow.after(change)

    _, cells = move()
    assert cells
    measured(move)


def test_walk(measured, show):
    """The same table by a networkx graph, walked source by source (also the tests' referee)."""
    table = walked_table(show)
    flow = flow_of(show)
    for (source, bus), level_db in table.items():
        row = int(source.split("/")[1]) - 1
        column = {"house": show.desk.mixes, "mono": show.desk.mixes + 1}.get(bus)
        column = int(bus.split("/")[1]) - 1 if column is None else column
        assert flow.level_db[row, column] == pytest.approx(level_db, abs=1e-9)
    measured.pedantic(walked_table, args=(show,), rounds=3, iterations=1)

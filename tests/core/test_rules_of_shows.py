"""What every show keeps to, whoever edits it: by an edit, a file, a list."""

import pytest

from ombrel.core import (
    EditRefused,
    LineDraft,
    SocketTaken,
    Value,
    WrongValue,
    add_lines,
    blank_show,
    made,
    show_of,
)
from tests.desks import TINY, TOURING

FIDDLE: dict[str, Value] = {
    "line/1/place": 1.0,
    "line/1/name": "Fiddle",
    "line/1/socket": "input/a/1",
}
KORA: dict[str, Value] = {"line/2/place": 2.0, "line/2/name": "Kora"}


def test_a_socket_holds_one_plug_whoever_plugs_it():
    show = show_of(TINY, {**FIDDLE, **KORA})
    with pytest.raises(SocketTaken, match="Kora cannot be plugged in where Fiddle is") as caught:
        made(show, {"line/2/socket": "input/a/1"})
    assert (caught.value.address, caught.value.held_at) == ("line/2/socket", "line/1/socket")
    two = [LineDraft(name=name, socket="input/a/2") for name in ("Kick", "Snare")]
    with pytest.raises(SocketTaken):
        made(show, add_lines(show, two))
    swapped = {"line/1/socket": None, "line/2/socket": "input/a/1"}
    assert made(show, swapped)[0]["line/2/socket"] == "input/a/1"
    with pytest.raises(SocketTaken):
        made(show, {"line/1/socket_right": "input/a/1"})


@pytest.mark.parametrize(
    "source", ["input/a/2", "engine/3", "mix/1", "input/a/33"], ids=lambda source: source
)
def test_a_return_takes_an_engine_or_a_pair_by_its_odd_socket(source):
    with pytest.raises((EditRefused, WrongValue)):
        made(blank_show(TINY), {"return/1/source": source})
    made(blank_show(TINY), {"return/1/source": "input/a/3"})


def test_a_preamp_keeps_to_its_desks_own_range_also_by_travel_and_typing():
    show = blank_show(TOURING)
    with pytest.raises(EditRefused):
        made(show, {"input/a/1/gain": 62.5})
    assert made(show, {"input/a/1/gain": 62.0})[0]["input/a/1/gain"] == 62.0

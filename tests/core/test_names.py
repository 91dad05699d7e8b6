"""Names that follow who is on, pins of names and preamps, parts changed in place, name lists."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ombrel.core import (
    UnreadableText,
    blank_show,
    choose_cast,
    felt,
    felt_in_words,
    fitting_for,
    flow_of,
    in_one_line,
    keep,
    late_change,
    look_ahead,
    made,
    move_part,
    moved_between,
    part_on,
    parts,
    players,
    recall,
    set_channels,
    set_players,
    store_scene,
    whole_on,
)
from ombrel.core.casting import newest_version
from ombrel.core.values.typed_names import read_names, written_names
from tests.desks import TINY

from .test_casting_machine import company_show


def after(show, moves):
    return made(show, moves, own=True)[0]


def tonight(cast="cast/2"):
    show = made(company_show(), {"channel/1/name": "Radio 1", "mix/1/format": "mono",
                                 "mix/1/name": "Ears 1", "part/4/mix": "mix/1"})[0]  # fmt: skip
    return after(show, choose_cast(show, cast, since_s=1.0).moves)


def test_a_name_follows_the_fitting_that_is_on_not_tonights_list():
    show = tonight()  # Bo, Ada, Cy, Di
    assert show["channel/1/name"] == "Bo"
    ada = fitting_for(show, "performer/1", "part/1")
    if ada is None:
        other = after(show, choose_cast(show, "cast/1", since_s=2.0).moves)
        ada = fitting_for(other, "performer/1", "part/1")
        show = after(other, choose_cast(other, "cast/2", since_s=3.0).moves)
    on = after(show, whole_on(show, "channel/1", str(ada), since_s=4.0))
    assert on["channel/1/name"] == "Ada"  # though the list says Bo
    assert on["mix/1/name"] == "Di"
    off = after(on, part_on(on, "channel/1", None, since_s=5.0))
    assert off["channel/1/name"] == "Radio 1"
    # the list alone renames nobody
    late = made(on, {"tonight/part/1": "performer/3"}, own=True)[0]
    assert late["channel/1/name"] == "Ada"
    gone = after(on, part_on(on, "channel/3", None, since_s=6.0))
    assert gone["mix/1/name"] == "Ears 1"


@pytest.mark.parametrize("pin", ["channel/1/pinned_name", "channel/1/pinned", "mix/1/pinned_name"])
def test_a_pinned_name_stays_as_it_stood_whoever_comes(pin):
    show = tonight()
    strip = pin.rpartition("/")[0]
    stood = show.text(f"{strip}/name")
    pinned = made(show, {pin: True})[0]
    assert pinned[f"{strip}/name"] == pinned.own_value(f"{strip}/name") == stood
    other = after(pinned, choose_cast(pinned, "cast/1", since_s=2.0).moves)
    assert other[f"{strip}/name"] == stood
    assert other["channel/3/name"] != "Di"  # what is not pinned goes on following


def test_who_is_on_pinned_holds_the_name_against_a_late_change():
    show = made(tonight(), {"channel/1/pinned_part": True})[0]
    late = after(show, late_change(show, "part/1", "performer/3", since_s=2.0).moves)
    assert late["channel/1/name"] == "Bo"
    assert late["tonight/part/1"] == "performer/3"


def test_a_pinned_preamp_holds_its_socket_by_whatever_channel_it_is_reached():
    """Channels 1 and 2 share a socket: a scene and a fitting reach it by the other one."""
    show = made(company_show(), {"input/local/1/gain": 20.0})[0]
    cells = {"channel/2": ["preamp"]}
    louder = made(show, {"input/local/1/gain": 35.0})[0]
    stored = after(louder, store_scene(louder, "Loud", cells))
    scene = stored.scenes[-1]
    quiet = made(stored, {"input/local/1/gain": 20.0, "channel/1/pinned_preamp": True})[0]
    found = recall(quiet, scene)
    assert ("channel/2", "preamp", "channel/1/pinned_preamp") in found.pinned
    assert after(quiet, found.moves)["input/local/1/gain"] == 20.0
    # Cy's fitting on channel 2 has a gain of its own
    free = after(stored, choose_cast(stored, "cast/1", since_s=1.0).moves)
    free = made(free, {"input/local/1/gain": 30.0})[0]
    held = made(free, {"channel/1/pinned_preamp": True})[0]
    assert held.own_value("input/local/1/gain") == held["input/local/1/gain"] == 30.0
    again = after(held, choose_cast(held, "cast/2", since_s=2.0).moves)
    assert again["input/local/1/gain"] == 30.0


def test_parts_are_changed_in_place_and_what_is_kept_goes_along():
    show = tonight()
    show = made(show, {"channel/3/eq/1/gain": 5.0})[0]
    fitting = show.text("channel/3/fitting")
    show = after(show, keep(show, fitting, by="ann", at_s=2.0))
    moved = after(show, set_channels(show, "part/4", ["channel/4"], since_s=3.0))
    assert moved.text("channel/4/fitting") == fitting
    assert moved["channel/4/eq/1/gain"] == 5.0
    assert (moved["channel/3/fitting"], moved["channel/3/eq/1/gain"]) == (None, 0.0)
    assert newest_version(moved, fitting).values["eq/1/gain"] == 5.0
    # a second microphone, and back to one
    both = after(moved, set_channels(moved, "part/4", ["channel/4", "channel/3"], since_s=4.0))
    assert both["channel/4/eq/1/gain"] == 5.0
    assert both.text("channel/3/fitting") not in ("", fitting)
    none = after(both, set_channels(both, "part/4", [], since_s=5.0))
    assert none["channel/4/fitting"] is None
    for wrong in (["mix/1"], ["channel/1"] * 2, [f"channel/{n}" for n in range(1, 6)]):
        with pytest.raises(UnreadableText):
            set_channels(show, "part/4", wrong, since_s=1.0)
    order = after(show, move_part(show, "part/4", "part/1"))
    assert parts(order)[:2] == ["part/4", "part/1"]
    assert parts(after(order, move_part(order, "part/4", None)))[-1] == "part/4"


def test_a_name_with_a_comma_is_quoted_and_who_is_named_twice_is_one():
    show = company_show()
    show = after(
        show, set_players(show, "part/1", 'Ada, "Bo, junior", ada, \u201cDi, the elder\u201d')
    )
    names = [show.text(f"{one}/name") for one in players(show, "part/1")]
    assert names == ["Ada", "Bo, junior", "Di, the elder"]
    with pytest.raises(UnreadableText):
        read_names('Ada, "Bo', most=3)
    with pytest.raises(UnreadableText, match="at most 2"):
        read_names("a, b, c", most=2)
    assert blank_show(TINY).desk.channels == 4


@given(st.lists(st.text("abC, ", min_size=1).map(lambda n: " ".join(n.split())).filter(
    lambda n: n.strip(", ") == n != ""), max_size=5, unique_by=str.casefold))  # fmt: skip
def test_names_that_are_written_are_read_again(names):
    assert read_names(written_names(names), most=5) == names


def test_a_cast_tells_gains_settings_and_for_whom_nothing_is_kept():
    """31 dB to 0: no send moves, and everybody would hear it."""
    show = made(tonight("cast/1"), {"input/local/1/gain": 31.0, "channel/1/eq/1/gain": 4.0})[0]
    moves = choose_cast(show, "cast/2", since_s=2.0).moves
    then = after(show, moves)
    told = felt_in_words(felt(show, then, moved_between(show, then)))
    assert any("gain" in one and "31 dB \u2192 0 dB" in one for one in told), told
    assert any("setting moves on" in one for one in told), told
    assert any("nothing is kept yet for" in one and "Bo" in one for one in told), told
    cells = {"channel/1": ["part", "eq"], "channel/3": ["part"]}
    stored = after(then, store_scene(then, "Two", cells))
    back = after(stored, choose_cast(stored, "cast/1", since_s=3.0).moves)
    gone = after(back, part_on(back, "channel/1", None, since_s=4.0))
    line = in_one_line(look_ahead(gone, flow_of(gone), stored.scenes[-1]))
    assert "Ada" in line
    assert "comes on" in line
    assert "nobody hears it" not in line

import json
import math
import re
from pathlib import Path

import pytest
from immutables import Map

from ombrel.core import (
    CATALOGUE,
    Address,
    Change,
    Maybe,
    Number,
    OutOfRange,
    Packed,
    UnknownAddress,
    UnreadableText,
    WrongValue,
    blank_show,
    check_on_desk,
    described,
    parameter_at,
)
from ombrel.core.catalogue import KINDS, addresses_of, default_of, kind_on
from tests.desks import FESTIVAL, TINY, TOURING


def test_every_address_of_a_desk_is_its_own_parameters_and_accepts_its_default():
    found = addresses_of(TOURING)
    assert len(found) == len(set(found))
    held = {key for key, one in CATALOGUE.items() if isinstance(one.kind, Packed | Maybe)}
    assert {parameter_at(address).key for address in found} == set(CATALOGUE) - held
    for address in found:
        assert check_on_desk(TOURING, address, default_of(address)) == default_of(address)


def test_the_largest_desk_has_an_address_for_every_send():
    sends = [a for a in addresses_of(FESTIVAL) if "/send/" in a and a.endswith("/level")]
    into_mixes = (128 + 20 + 24) * 60
    into_matrices = (24 + 60 + 2) * 20
    assert len(sends) == into_mixes + into_matrices


@pytest.mark.parametrize(
    "address",
    [
        "channel/0/fader",
        "channel/49/fader",
        "channel/07/fader",
        "channel/-1/fader",
        "channel/٣/fader",
        "channel/1/fader/",
        "channel/1/send/mix/23/level",
        "channel/1/send/matrix/1/level",
        "return/11/fader",
        "group/13/fader",
        "engine/6/source",
        "input/c/1/gain",
        "input/a/33/gain",
        "input/recorder/1/gain",
        "output/local/17/source",
        "line/257/name",
        "",
        "volume",
    ],
)
def test_an_address_that_the_desk_has_not_is_refused_by_name(address):
    with pytest.raises(UnknownAddress) as caught:
        check_on_desk(TOURING, address, 0.0)
    assert caught.value.address == address


@pytest.mark.parametrize("level_db", [math.inf, 6.1, -120.1], ids=str)
def test_a_fader_refuses_a_level_outside_its_range(level_db):
    with pytest.raises(OutOfRange, match="channel/7/fader") as caught:
        check_on_desk(TOURING, "channel/7/fader", level_db)
    assert caught.value.highest == 6.0


@pytest.mark.parametrize(
    ("address", "value"),
    [
        ("channel/7/fader", math.nan),
        ("channel/7/fader", "-6"),
        ("channel/7/fader", True),
        ("channel/7/mute", 1),
        ("channel/7/name", "two\nlines"),
        ("channel/7/name", "x" * 61),
        ("channel/7/name", "\ud800"),
        ("channel/7/colour", "beige"),
        ("channel/7/source", "input/c/1"),
        ("channel/7/source", "mix/23"),
        ("channel/7/source", "mix/1/middle"),
        ("line/1/socket", "mix/1"),
        ("channel/7/source", "channel/7"),
        ("output/a/1/source", "input/a/1"),
        ("line/1/place", 1.5),
    ],
)
def test_a_value_of_the_wrong_kind_is_refused(address, value):
    with pytest.raises(WrongValue, match=address):
        check_on_desk(TOURING, address, value)


@pytest.mark.parametrize(
    ("text", "now_db", "then_db"),
    [
        ("-6", 0.0, -6.0),
        ("−6", 0.0, -6.0),
        ("up 2", -10.0, -8.0),
        ("down 2", -10.0, -12.0),
        ("Down2,5 dB", -10.0, -12.5),
        ("+=2", -10.0, -8.0),
        ("\u2212= 2", -10.0, -12.0),
        ("+2", -10.0, 2.0),
        ("+2.0 dB", -10.0, 2.0),
        ("=+2", -10.0, 2.0),
        ("3", -10.0, 3.0),
        ("-4,5 dB", 0.0, -4.5),
        ("off", 0.0, -math.inf),
        ("up 9", 0.0, 6.0),
        ("down 999999", 0.0, -120.0),
        ("up 3", -math.inf, -math.inf),
    ],
)
def test_typed_levels(text, now_db, then_db):
    kind = parameter_at("channel/7/fader").kind
    assert kind.typed(text, now_db, "channel/7/fader") == pytest.approx(then_db)


@pytest.mark.parametrize(
    "text",
    [
        "",
        "loud",
        "1e3",
        "1e999",
        "--2",
        "6 7",
        "nan",
        "+off",
        "+-2",
        "up",
        "up -2",
        "up 1 oct",
        "+1 oct",
        "9" * 400,
        "up " + "9" * 400,
    ],
)
def test_typed_text_that_is_no_level_is_refused_with_what_would_be(text):
    with pytest.raises(UnreadableText, match=r"off|up 2|a step in dB"):
        parameter_at("channel/7/fader").kind.typed(text, 0.0, "channel/7/fader")


SHOWN = json.loads((Path(__file__).parents[1] / "shown.json").read_text())


@pytest.mark.parametrize(("address", "value", "text"), SHOWN, ids=[row[2] for row in SHOWN])
def test_what_a_field_shows_reads_as_that_value_there(address, value, text):
    """The same rows hold the browser to what it writes (web/src/data/words.test.ts)."""
    kind = kind_on(TOURING, address)
    stands = kind.from_wire(value, address)
    assert isinstance(kind, Number)
    elsewhere = kind.lowest if kind.lowest > -math.inf else -33.0
    for now in (stands, elsewhere):
        assert kind.typed(text, now, address) == pytest.approx(stands, abs=1e-9)


def test_every_unit_is_among_what_fields_show():
    kinds = [kind_on(TOURING, address) for address, _, _ in SHOWN]
    shown = {kind.unit for kind in kinds if isinstance(kind, Number)}
    every = {p.kind.unit for p in CATALOGUE.values() if isinstance(p.kind, Number)}
    assert shown == every


@pytest.mark.parametrize("wire", [math.inf, 1e999, -1e999, 10**400], ids=str)
def test_numbers_without_end_are_refused(wire):
    for key in ("channel/7/eq/1/q", "scene/3/number", "line/1/place", "input/a/1/gain"):
        kind = parameter_at(key).kind
        with pytest.raises((WrongValue, OutOfRange)):
            kind.from_wire(wire, key)


@pytest.mark.parametrize(("text", "pan"), [("L30", -0.3), ("c", 0.0), ("R100", 1.0), ("r", 1.0)])
def test_typed_pans(text, pan):
    assert parameter_at("channel/7/pan").kind.typed(text, 0.0, "x") == pytest.approx(pan)


def test_silence_has_one_spelling_on_the_wire():
    kind = parameter_at("channel/7/fader").kind
    assert kind.to_wire(-math.inf) is None
    assert kind.from_wire(None, "channel/7/fader") == -math.inf


def test_numbers_and_boxes_are_read_from_an_address():
    assert Address.at("channel/3/send/mix/2/level").indices == (3, 2)
    assert Address.at("output/local/8/source").indices == ("local", 8)
    assert (Address.at("channel/3/fader").number, Address.at("house/fader").number) == (3, 0)
    assert len(addresses_of(TINY)) > 100


def test_whatever_a_change_moves_can_be_said():
    """What is read in the log, in history and in previews: of every entry of the catalogue."""
    show = blank_show(TOURING)
    for key in CATALOGUE:
        address = re.sub(r"<\w+>", "1", key.replace("<box>", "local"))
        move = {address: CATALOGUE[key].default}
        assert described(show, Change(Map(move), Map(move)))


@pytest.mark.parametrize(
    ("lowest", "highest", "wanted", "suggested"),
    [
        (0.0, 62.5, 70.0, 62.0),
        (-2.5, 60.0, -9.0, -2.0),
        (0.0, 60.0, 30.5, 31.0),
        (0.0, 60.0, 12.2, 12.0),
    ],
)
def test_what_is_suggested_lies_on_a_step_inside_the_range(lowest, highest, wanted, suggested):
    assert (
        Number(unit="dB", lowest=lowest, highest=highest, step=1.0).suggested(wanted) == suggested
    )


def test_values_keep_nothing_that_arithmetic_leaves():
    kind = parameter_at("channel/7/pan").kind
    assert kind.checked(-0.30000000000000004, "x") == -0.3
    assert str(kind.checked(-0.0, "x")) == "0.0"
    fader = parameter_at("channel/7/fader").kind
    assert str(fader.typed("-0.04", 0.0, "x")) == "0.0"


@pytest.mark.parametrize(
    ("key", "text", "option"),
    [("mono/crossover/kind", "Linkwitz-Riley, 24 dB", "linkwitz_riley_24"),
     ("show/solo", "before the fader", "before_fader"), ("show/solo", "In place", "in_place"),
     ("show/solo", "in placebo", None), ("line/1/kind", "line level", "line"),
     ("line/1/kind", "lines", None), ("line/1/kind", "d", None), ("line/1/kind", "", None)],
)  # fmt: skip
def test_an_option_is_typed_as_people_see_it_and_by_nothing_else(key, text, option):
    kind = parameter_at(key).kind
    if option is None:
        with pytest.raises(WrongValue):
            kind.typed(text, None, key)
    else:
        assert kind.typed(text, None, key) == option


def test_the_table_of_strips_and_the_catalogue_say_the_same():
    """What a kind of strip can is told by one record; the catalogue has just the leaves for it."""
    for key, kind in KINDS.items():
        stem = key if kind.alone else f"{key}/<{key}>"
        leaves = {at.removeprefix(f"{stem}/") for at in CATALOGUE if at.startswith(f"{stem}/")}
        assert {"fader", "mute", "eq/on"} <= leaves
        assert ("source" in leaves) == kind.source
        assert ("gate/on" in leaves) == kind.gate
        assert ("linked" in leaves) == kind.pairs
        assert ("format" in leaves) == (kind.sides is None)
        assert any(one.startswith("crossover/") for one in leaves) <= kind.crossed
        for bus, target in KINDS.items():
            into = bus if target.alone else f"{bus}/<{bus}>"
            assert (f"{into}/on" in leaves) == (kind.feeds.get(bus) == "assign")
            assert (f"send/{into}/level" in leaves) == (kind.feeds.get(bus) == "send")

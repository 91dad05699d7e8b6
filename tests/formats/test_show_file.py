import json
import random

import jsonschema
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ombrel.core import (
    BadFile,
    blank_show,
    cells_by_preset,
    made,
    made_of,
    made_otherwise,
    store_scene,
)
from ombrel.formats.show_file import LONGEST_SHOW, read_show, show_schema, write_show
from ombrel.server.management.commands.write_show_schema import PATH, description
from tests.desks import FESTIVAL, SMALL, TINY, TOURING
from tests.many_scenes import many_scenes
from tests.shows import SEEDS, edit_of_seed, shows

DESKS = {desk.key: desk for desk in (TINY, SMALL, TOURING)}


def desk_of(key):
    if key not in DESKS:
        raise BadFile(f"There is no desk profile {key!r}.", "Known are three.")
    return DESKS[key]


def document(**changes):
    whole = {"format": "ombrel-show", "version": 5, "desk": "tiny", "values": {}}
    return json.dumps({**whole, **changes}).encode()


@given(shows())
def test_a_show_written_and_read_back_is_the_same_show(show):
    content = write_show(show)
    assert read_show(content, desk_of) == show
    assert write_show(read_show(content, desk_of)) == content


@settings(max_examples=12)  # each value is held against each pattern of an address
@given(shows())
def test_a_show_written_fits_the_schema(show):
    content = write_show(show)
    jsonschema.Draft202012Validator(show_schema()).validate(json.loads(content))


def test_the_schema_is_a_2020_12_schema_and_the_published_one():
    jsonschema.Draft202012Validator.check_schema(show_schema())
    assert PATH.read_text() == description(), "run manage write_show_schema"


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"", "no JSON"),
        (b"[]", "no show of Ombrel"),
        (b'{"format": "other"}', "no show of Ombrel"),
        (b'{"a": 1, "a": 2}', "twice"),
        (b"[" * 100_000, "no JSON"),
        (document(version=6), "of version 6, which is not known"),
        (document(texts=["{}", {"like": 1}]), "text 2: expected .* like an earlier one"),
        (document(texts=["x", {"like": 0}]), "text 2: expected a text, or "),
        (document(texts=['{"values":{}}', {"like": 0, "values": []}]), "values by their leaves"),
        (document(texts=['{"values":{}}', {"like": 0, "more": 1}]), "like an earlier one"),
        (document(version=3, texts={}), "is no list"),
        (document(version=3, texts=["{}"], values={"scene/1/holds/channel/1": {"text": 1}}),
         "Scene 1.*is needed"),
        (document(version=3, texts=["x"], values={"channel/1/name": {"text": 0}}),
         "Channel 1, name.*is needed"),
        (document(version=True), "version True"),
        (document(desk="nowhere"), "There is no desk profile 'nowhere'"),
        (document(values=[]), "has no values"),
        (document(extra=1), "'extra' is no part"),
        (document(values={"channel/9/fader": 0}), "Channel 9, fader: Tiny has 4 channels"),
        (document(values={"channel/1/fader": 99}), r"99 dB is outside off to 6 dB"),
        (document(values={"channel/1/volume": 1}), "the catalogue has no such address"),
        (document(values={"channel/1/name": "Kick", "channel/1/fader": 99}),
         r"Channel 1 \(Kick\), fader: 99 dB"),
        (document(values={f"channel/{n}/fader": 0 for n in range(5, 15)}),
         "10 faults: Channel 5, fader; Channel 6, fader; .* and 4 more: Tiny has 4 channels"),
        (document(aside=[{"desk": "touring-48"}]), "keeps aside cannot be read"),
        (document(aside=[{"desk": "x", "boxes": {}, "entries": [["channel/1/fader", "up"]]}]),
         "keeps aside cannot be read"),
        (document(aside=[1] * 21), "at most 20 desks"),
        *(
            (document(aside=[{"desk": "x", "boxes": {}, "texts": [text], "entries": [
                ["scene/1/holds/channel/1", {"text": 0}]]}]), "keeps aside cannot be read")
            for text in ("no json", "[]", '{"cells":["fader"],"values":{"fader":"up"}}',
                         '{"values":{}}', '{"cells":1,"values":{}}')
        ),
        (document(values={"channel/1/mute": "yes"}), "on or off .* is needed"),
        (document(values={"channel/1/fader": 9, "mix/7/mute": 1}), "2 faults"),
        (b'{"format": "ombrel-show", "version": 2, "desk": "tiny", "values": '
         b'{"channel/1/fader": NaN}}', "a number is needed"),
        (document(desk="small-24", values={"output/recorder/1/source": "channel/1/direct"}),
         "only in blocks of 4"),
        (b" " * (LONGEST_SHOW + 1), "MB"),
    ],
)  # fmt: skip
def test_a_file_with_any_fault_is_refused_with_the_place_of_each(content, says):
    with pytest.raises(BadFile, match=says):
        read_show(content, desk_of)


ANY_VALUES = st.recursive(
    st.none() | st.booleans() | st.floats() | st.text("aµ/\x001", max_size=5),
    lambda inner: (
        st.lists(inner, max_size=3)
        | st.dictionaries(st.sampled_from(["channel/1/fader", "line/1/name", "x"]), inner)
    ),
)


@given(ANY_VALUES)
def test_any_values_are_read_or_refused_and_nothing_else(values):
    def outcome():
        try:
            return read_show(document(values=values), desk_of).desk is TINY
        except BadFile as refusal:
            return "Nothing was changed" in str(refusal)

    assert outcome()


def test_scenes_of_the_largest_desk_are_written_as_they_differ_and_open_again():
    """500 of them fit: what one more of them takes is measured between 20 and 60."""
    few, many = many_scenes(20), many_scenes(60)
    content = write_show(many)
    each = (len(content) - len(write_show(few))) / 40
    assert each * 500 < LONGEST_SHOW / 2
    assert read_show(content, lambda key: FESTIVAL).own == many.own


@given(shows(), SEEDS)
@settings(max_examples=20)
def test_a_holding_made_of_another_is_that_holding(show, seed):
    """Whatever two scenes hold of a strip; told where the cells are the same and much is."""
    cells = cells_by_preset(show, "everything")
    moved = made(show, edit_of_seed(show, seed, most=60))[0]
    texts = [
        {
            a: str(t)
            for a, t in made(one, store_scene(one, "A", cells))[0].own.items()
            if "/holds/" in a
        }
        for one in (show, moved)
    ]
    for address in texts[0].keys() & texts[1].keys():
        one, other = (of[address] for of in texts)
        made_up = made_of(other, one)
        assert made_up is None or made_otherwise(one, made_up) == other
        assert (made_up == {"values": {}}) == (one == other)


@pytest.mark.parametrize("seed", range(12))
def test_what_scenes_hold_is_judged_by_what_differs_as_it_is_judged_whole(seed, monkeypatch):
    draw, written = random.Random(seed), json.loads(write_show(many_scenes(2)))
    alike = [one for one in written["texts"] if isinstance(one, dict)]
    one = draw.choice(alike)
    leaf = draw.choice([*one["values"], "fader", "name", "no/leaf", "eq/2/gain", "send/mix/1/on"])
    wrong = [3, 3.0, -0.0, True, "x", None, [], {}, 99.0, "bell", float("nan")]
    one["values"] = {**one["values"], leaf: draw.choice(wrong)}
    content = json.dumps(written).encode()

    def read():
        monkeypatch.setattr("ombrel.core.scenes.held._SOUND", {})
        try:
            return read_show(content, lambda key: FESTIVAL).own
        except BadFile as fault:
            return str(fault)

    quick = read()
    monkeypatch.setattr("ombrel.formats.show_file.find_sound", lambda *about: None)
    assert quick == read()


def test_a_small_file_cannot_unfold_to_any_size(monkeypatch):
    monkeypatch.setattr("ombrel.formats.show_texts.LONGEST_TEXTS", 1_000)
    long = json.dumps({"cells": [], "values": {"x": "y" * 300}}, separators=(",", ":"))
    with pytest.raises(BadFile, match="text 4: the texts are too long all together"):
        read_show(document(texts=[long, *({"like": 0} for _ in range(9))]), desk_of)


def test_files_of_version_3_had_their_texts_whole():
    show = made(blank_show(TINY), {"channel/1/source": "input/local/1"})[0]
    scenes = made(show, store_scene(show, "One", cells_by_preset(show, "everything")))[0]
    text = scenes.own["scene/1/holds/channel/1"]
    values = {
        "scene/1/number": 1,
        "scene/1/holds/channel/1": {"text": 0},
        "scene/1/holds/channel/2": text,
    }
    opened = read_show(document(version=3, texts=[text], values=values), desk_of)
    assert opened.own["scene/1/holds/channel/1"] == opened.own["scene/1/holds/channel/2"] == text


def test_the_schema_refuses_what_the_reader_refuses():
    validator = jsonschema.Draft202012Validator(show_schema())
    for bad in ({"channel/1/fader": 99}, {"channel/0/fader": 0}, {"channel/1/mute": "yes"},
                {"channel/1/source": "mix/0"}, {"line/1/name": "x" * 121},
                {"line/1/name": "two\nlines"}, {"channel/1/fader": -120.5},
                {"line/1/place": 1.5}, {"channel/1/pan": 2},
                {"channel/1/fader": True}):  # fmt: skip
        assert not validator.is_valid(json.loads(document(values=bad))), bad
        with pytest.raises(BadFile):
            read_show(document(values=bad), desk_of)
    assert validator.is_valid(json.loads(document(values={"channel/1/fader": None})))


@pytest.mark.parametrize("number", ["NaN", "Infinity", "-Infinity", "1e999", "-1e999"])
def test_what_is_no_number_is_no_level(number):
    """Silence has one spelling, null: -Infinity is refused too."""
    content = document(values={"channel/1/fader": 1.25}).replace(b"1.25", number.encode())
    with pytest.raises(BadFile):
        read_show(content, desk_of)


def test_a_show_with_a_name_in_many_letters_survives():
    show, _ = made(blank_show(TINY), {"show/name": "Łódź – 海の道 “é”"})
    assert read_show(write_show(show), desk_of) == show


def test_a_file_of_version_1_keeps_its_taps_where_they_were():
    """Then a send that named no tap was tapped before the fader; now it is after the mute too."""
    values = {"channel/1/send/mix/1/level": -3, "channel/2/send/mix/1/level": -3,
              "channel/2/send/mix/1/tap": "after_fader"}  # fmt: skip
    show = read_show(document(version=1, values=values), desk_of)
    assert show["channel/1/send/mix/1/tap"] == "before_fader"
    assert show["channel/2/send/mix/1/tap"] == "after_fader"

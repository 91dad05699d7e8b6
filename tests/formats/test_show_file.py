import json

import jsonschema
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ombrel.core import BadFile, Value, blank_show, cells_by_preset, made, store_scene
from ombrel.formats.show_file import LONGEST_SHOW, read_show, show_schema, write_show
from ombrel.server.management.commands.write_show_schema import PATH, description
from tests.desks import FESTIVAL, SMALL, TINY, TOURING
from tests.shows import shows

DESKS = {desk.key: desk for desk in (TINY, SMALL, TOURING)}


def desk_of(key):
    if key not in DESKS:
        raise BadFile(f"There is no desk profile {key!r}.", "Known are three.")
    return DESKS[key]


def document(**changes):
    whole = {"format": "ombrel-show", "version": 3, "desk": "tiny", "values": {}}
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
        (document(version=4), r"\$.version: 4 is not known"),
        (document(version=3, texts={}), r"\$.texts: expected a list"),
        (document(version=3, texts=["{}"], values={"scene/1/holds/channel/1": {"text": 1}}),
         r"holds/channel/1'\].*expected"),
        (document(version=3, texts=["x"], values={"channel/1/name": {"text": 0}}),
         r"channel/1/name'\].*expected"),
        (document(version=True), r"\$.version: True"),
        (document(desk="nowhere"), r"\$.desk: There is no desk profile 'nowhere'"),
        (document(values=[]), r"\$.values: expected an object"),
        (document(extra=1), r"\$.extra: not a part"),
        (document(values={"channel/9/fader": 0}), r"\['channel/9/fader'\].*Tiny has 4 channels"),
        (document(values={"channel/1/fader": 99}), r"99 dB is outside off to 6 dB"),
        (document(values={"channel/1/volume": 1}), "the catalogue has no such address"),
        (document(values={"channel/1/mute": "yes"}), "expected on or off"),
        (document(values={"channel/1/fader": 9, "mix/7/mute": 1}), "2 faults"),
        (b'{"format": "ombrel-show", "version": 2, "desk": "tiny", "values": '
         b'{"channel/1/fader": NaN}}', "expected a number"),
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


def test_five_hundred_whole_scenes_of_the_largest_desk_are_a_file_that_opens_again():
    """Each scene as large as a scene gets, and other than its neighbour in one strip."""
    channels, mixes = range(1, FESTIVAL.channels + 1), range(1, FESTIVAL.mixes + 1)
    values: dict[str, Value] = {f"channel/{n}/name": f"Source {n}" for n in channels}
    values |= {f"mix/{m}/format": "stereo" for m in mixes}
    for n in channels:
        values |= {f"channel/{n}/send/mix/{m}/level": -float(n % 20) - m / 10 for m in mixes}
    show = made(blank_show(FESTIVAL), values)[0]
    stored = made(show, store_scene(show, "Scene", cells_by_preset(show, "everything")))[0]
    held = {a.split("/", 2)[2]: text for a, text in stored.own.items() if "/holds/" in a}
    for number in range(1, 501):
        values |= {f"scene/{number}/{leaf}": text for leaf, text in held.items()}
        values[f"scene/{number}/number"] = float(number)
        values[f"scene/{number}/holds/channel/1"] = held[f"holds/channel/{number % 128 + 1}"]
    whole = blank_show(FESTIVAL).with_values(values)
    content = write_show(whole)
    assert len(content) < LONGEST_SHOW / 2
    assert read_show(content, lambda key: FESTIVAL).own == whole.own


def test_the_schema_refuses_what_the_reader_refuses():
    validator = jsonschema.Draft202012Validator(show_schema())
    for bad in ({"channel/1/fader": 99}, {"channel/0/fader": 0}, {"channel/1/mute": "yes"},
                {"channel/1/source": "mix/0"}, {"line/1/name": "x" * 61}):  # fmt: skip
        assert not validator.is_valid(json.loads(document(values=bad)))
    assert validator.is_valid(json.loads(document(values={"channel/1/fader": None})))


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

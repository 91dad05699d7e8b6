"""Desk profiles: every fault of a file with its place."""

import json
from importlib.resources import files

import pytest

from ombrel.core import BadFile
from ombrel.formats.desk_profile import read_desk

GOOD = json.loads((files("ombrel") / "desks" / "touring-48.json").read_text())


def read(**changes):
    return read_desk("mine", json.dumps({**GOOD, **changes}).encode())


def box(**changes):
    return [{**GOOD["boxes"][0], **changes}]


@pytest.mark.parametrize("key", ["small-24", "touring-48", "festival-128"])
def test_the_profiles_that_ship_are_read_whole(key):
    desk = read_desk(key, (files("ombrel") / "desks" / f"{key}.json").read_bytes())
    assert desk.channels == int(key.rsplit("-", 1)[1])
    assert desk.groups > 0


def test_what_a_profile_does_not_say_of_inserts_and_latency_is_as_usual():
    desk = read(latency={"strip": 6})
    assert (desk.latency.strip, desk.latency.insert, desk.inserts) == (6, 60, 24)


@pytest.mark.parametrize(
    ("changes", "place"),
    [
        ({"channels": -4}, "$.channels"),
        ({"channels": "many"}, "$.channels"),
        ({"channels": True}, "$.channels"),
        ({"channels": 100_000}, "$.channels"),
        ({"groups": None}, "$.groups"),
        ({"name": " "}, "$.name"),
        ({"full_scale_dbu": "loud"}, "$.full_scale_dbu"),
        ({"gain_db": [60, 0]}, "$.gain_db"),
        ({"gain_db": [10, 60]}, "$.gain_db"),
        ({"gain_db": [0]}, "$.gain_db"),
        ({"boxes": []}, "$.boxes"),
        ({"boxes": [7]}, "$.boxes[0]"),
        ({"boxes": box(inputs="many")}, "$.boxes[0].inputs"),
        ({"boxes": box(outputs=-4)}, "$.boxes[0].outputs"),
        ({"boxes": box() + box()}, "$.boxes[1].key"),
        ({"boxes": box(key="a/b")}, "$.boxes[0].key"),
        ({"boxes": box(output_block=0)}, "$.boxes[0].output_block"),
        ({"boxes": box(output_block=5)}, "$.boxes[0].output_block"),
        ({"boxes": box(preamps=1)}, "$.boxes[0].preamps"),
        ({"boxes": box(lamps=3)}, "$.boxes[0].lamps"),
        ({"lamps": 3}, "$.lamps"),
        ({"inserts": -1}, "$.inserts"),
        ({"latency": 3}, "$.latency"),
        ({"latency": {"strip": 1.5}}, "$.latency.strip"),
        ({"latency": {"lamp": 3}}, "$.latency.lamp"),
    ],
    ids=lambda value: value if isinstance(value, str) else "",
)
def test_each_fault_is_told_with_its_place(changes, place):
    with pytest.raises(BadFile) as caught:
        read(**changes)
    assert f"{place}:" in str(caught.value)


def test_all_faults_are_told_at_once_and_what_is_no_object_is_refused():
    with pytest.raises(BadFile) as caught:
        read(channels=-1, boxes=box(inputs="many", key="A"))
    for place in ("$.channels", "$.boxes[0].inputs", "$.boxes[0].key"):
        assert place in str(caught.value)
    for content in (b"[]", b"{", b"\xff"):
        with pytest.raises(BadFile):
            read_desk("mine", content)


@pytest.mark.parametrize(
    "content",
    [b"[" * 200_000, b'{"a":' * 100_000, json.dumps(GOOD).replace("22", "NaN").encode(),
     json.dumps({**GOOD, "full_scale_dbu": 10**400}).encode(),
     json.dumps({**GOOD, "pad_db": float("inf")}).encode()],
    ids=["lists", "objects", "nan", "huge", "infinity"],
)  # fmt: skip
def test_what_is_nested_too_deep_or_no_number_is_told_as_a_fault_of_the_file(content):
    with pytest.raises(BadFile):
        read_desk("mine", content)

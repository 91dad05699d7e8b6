"""The company at the door: nobody's settings under another's name by any road, two operators of a

mic check, undo by revision, a hand that comes late, a server killed in between.
"""

import random
import time
import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from ombrel.core import (
    EntryTaken,
    NotTheirName,
    SomebodyElseOn,
    WrongValue,
    add_cast,
    entries,
    fitting_for,
)
from ombrel.core.casting import newest_version, values_of
from ombrel.server import models
from ombrel.server.asks.casting import (
    AddPart,
    CaptureFitting,
    CheckGoTo,
    CheckStep,
    CheckTakeOver,
    ChooseCast,
    CopyFitting,
    KeepFitting,
    LateChange,
    PutOn,
)
from ombrel.server.asks.moves import Moves
from ombrel.server.asks.scenes import RecallScene, StoreScene
from ombrel.server.asks.whole import BackTo
from ombrel.server.keeping import live
from ombrel.server.keeping.door import commit
from ombrel.server.keeping.request import Refused

from .conftest import make, request, stored
from .test_socket import Screen

VOICES = ("Ada", "Bo", "Cy")
PLAYS = {"performer/1": "Ada", "performer/2": "Bo", "performer/3": "Cy"}


@pytest.fixture
def company(show):
    return staffed(show)


def staffed(show):
    """Three voices on three channels, two casts; the first is on."""
    for number, name in enumerate(VOICES, start=1):
        make(show, {f"channel/{number}/source": f"input/local/{number}"})
        players = ", ".join([name, *(v for v in VOICES if v != name)])
        make(show, AddPart(action="add_part", name=f"Part {number}", channels=str(number),
                           players=players).plan)  # fmt: skip
    make(show, dict(add_cast(stored(show), "First")[1]))
    make(show, dict(add_cast(stored(show), "Second")[1]))
    second = {"cast/2/part/1": "performer/2", "cast/2/part/2": "performer/1"}
    make(show, second)
    make(show, choosing(1))
    return show


def choosing(cast):
    return ChooseCast(action="choose_cast", cast=f"cast/{cast}").plan


def step(which):
    return CheckStep(action="check_step", step=which).plan


def gain(number, db):
    """A hand on a preamp, as a screen asks for it."""
    return Moves.model_validate(
        {"action": "moves", "by_hand": {}, "moves": [
            {"address": f"input/local/{number}/gain", "value": db}]}
    ).plan  # fmt: skip


def gains(show):
    """What is kept of each performer's gain, by name, over all their fittings."""
    found = {}
    for fitting in [f"fitting/{n}" for n in range(1, 30) if f"fitting/{n}/performer" in show.own]:
        name = PLAYS[show.own[f"{fitting}/performer"]]
        kept = newest_version(show, fitting).values.get("preamp/gain")
        if kept is not None:
            found.setdefault(name, set()).add(kept)
    return found


def test_a_mic_check_keeps_each_for_whom_it_was_and_undo_takes_one_back(company, ann):
    for number, _ in enumerate(VOICES, start=1):
        make(company, step("next"), ann, author_name="ann")
        make(company, gain(number, 20.0 + number), ann)
    before = stored(company)
    make(company, step("finish"), ann, author_name="ann")
    assert gains(stored(company)) == {"Ada": {21.0}, "Bo": {22.0}, "Cy": {23.0}}
    make(company, None, ann, kind="undo")
    assert stored(company) == before
    assert gains(before) == {"Ada": {21.0}, "Bo": {22.0}}


def test_two_operators_never_have_one_entry_and_take_over_by_name(company, ann, ben):
    make(company, step("next"), ann, author_name="ann")
    make(company, step("next"), ben, author_name="ben")
    now = stored(company)
    assert [(one.phase, one.by) for one in entries(now)] == [
        ("on", "ann"), ("on", "ben"), ("waiting", ""),
    ]  # fmt: skip
    entry = "part/1/microphone/1"
    refused = make(company, CheckGoTo(action="check_go_to", entry=entry).plan, ben,
                   author_name="ben")  # fmt: skip
    assert isinstance(refused.error, EntryTaken)
    assert "ann" in str(refused.error)
    wrong = CheckTakeOver(action="check_take_over", entry=entry, said="Cy").plan
    assert isinstance(make(company, wrong, ben, author_name="ben"), Refused)
    right = CheckTakeOver(action="check_take_over", entry=entry, said="Ann").plan
    make(company, right, ben, author_name="ben")
    assert [one.by for one in entries(stored(company))] == ["ben", "", ""]


def test_a_name_that_was_not_said_gets_nothing(company, ann):
    make(company, gain(1, 30.0), ann)
    now = stored(company)
    ada = now["channel/1/fitting"]
    bo = str(fitting_for(now, "performer/2", "part/2"))
    wrong = CopyFitting(action="copy_fitting", fitting=ada, to=bo, said="Ada").plan
    assert isinstance(make(company, wrong).error, NotTheirName)
    assert isinstance(make(company, CaptureFitting(action="capture_fitting", channel="channel/1",
                                                   said="  ").plan), Refused)  # fmt: skip
    for address in (f"{bo}/value/preamp/gain", f"{bo}/newest", "channel/2/fitting",
                    "tonight/part/1", f"{ada}/performer"):  # fmt: skip
        raw = Moves.model_validate(
            {"action": "moves", "moves": [{"address": address, "typed": "30"}]}
        ).plan
        assert isinstance(make(company, raw).error, WrongValue)
    assert gains(stored(company)) == {}
    make(company, CaptureFitting(action="capture_fitting", channel="channel/1", said="bo").plan)
    assert gains(stored(company)) == {"Bo": {30.0}}  # said, and of Bo in that part
    make(company, KeepFitting(action="keep_fitting", fitting=ada).plan)
    assert gains(stored(company)) == {"Bo": {30.0}, "Ada": {30.0}}


def test_a_hand_that_began_before_somebody_came_on_moves_nobody(company, ann):
    seen = models.Show.objects.get(pk=company.pk).revision
    assert not isinstance(make(company, gain(1, 25.0), ann, seen=seen), Refused)
    make(company, choosing(2))
    late = make(company, gain(1, 40.0), ann, seen=seen)
    assert isinstance(late.error, SomebodyElseOn)
    assert "Bo as Part 1 is on now" in str(late.error)
    live._LIVE.clear()  # a server that starts anew knows it too
    assert isinstance(make(company, gain(1, 40.0), ann, seen=seen), Refused)
    assert not isinstance(make(company, gain(3, 33.0), ann, seen=seen), Refused)  # Cy stayed on
    now = models.Show.objects.get(pk=company.pk).revision
    make(company, gain(1, 41.0), ann, seen=now)
    show = stored(company)
    bo, ada = (str(fitting_for(show, f"performer/{n}", "part/1")) for n in (2, 1))
    assert values_of(show, bo) == {"preamp/gain": 41.0}
    assert values_of(show, ada) == {"preamp/gain": 25.0}
    # in one batch with the change itself, too
    both = [request(choosing(1), ann), request(gain(1, 50.0), ann, seen=now + 1)]
    outcomes, _, _ = commit(company.pk, both)
    assert isinstance(outcomes[1], Refused)


def test_a_gang_moves_nobody_who_came_on_since(company, ann):
    make(company, {"gang/1/carries_eq": True, "channel/1/gang/1/on": True,
                   "channel/3/gang/1/on": True})  # fmt: skip
    seen = models.Show.objects.get(pk=company.pk).revision
    make(company, LateChange(action="late_change", part="part/3", performer="performer/1").plan)
    hand = Moves.model_validate(
        {"action": "moves", "by_hand": {},
         "moves": [{"address": "channel/1/eq/1/gain", "value": 3.0}]}
    ).plan  # fmt: skip
    assert isinstance(make(company, hand, ann, seen=seen).error, SomebodyElseOn)


def test_undo_leaves_what_another_changed_and_changed_back(show, ann, ben):
    make(show, {"channel/1/source": "input/a/1"})
    make(show, {"channel/1/fader": -10.0}, ann)
    make(show, {"channel/1/fader": -5.0}, ben)
    make(show, {"channel/1/fader": -10.0}, ben)
    make(show, None, ann, kind="undo")
    assert stored(show)["channel/1/fader"] == -10.0  # equal, yet another's
    make(show, {"channel/1/fader": -20.0}, ann)
    make(show, {"channel/1/fader": -6.0}, ben)
    make(show, None, ben, kind="undo")
    make(show, None, ann, kind="undo")
    assert stored(show)["channel/1/fader"] == -10.0  # the other took theirs back


def test_own_settings_come_back_and_a_hand_under_a_fitting_stays_with_it(company, ann, ben):
    own = dict(stored(company).values)
    make(company, gain(1, 28.0), ann)
    make(company, PutOn(action="put_on", channel="channel/1").plan, ben)
    assert stored(company)["input/local/1/gain"] == 0.0
    undone = make(company, None, ann, kind="undo")
    assert "left" in undone.says
    make(company, PutOn(action="put_on", channel="channel/1", what="part/1").plan, ben)
    assert stored(company)["input/local/1/gain"] == 28.0
    make(company, BackTo(action="back_to", revision=models.Show.objects.get(
        pk=company.pk).revision - 4).plan)  # fmt: skip
    back = dict(stored(company).values)
    assert back == own


def test_files_and_copies_hold_both_layers(company, client, ann):
    make(company, gain(1, 28.0), ann)
    client.force_login(ann)
    before = stored(company)
    content = client.get(f"/api/shows/{company.pk}/file").content
    upload = SimpleUploadedFile("a.json", content)
    reply = client.post("/api/shows/file", {"file": upload})
    again = models.Show.objects.get(pk=reply.json()["id"])
    name = {"show/name"}
    assert {a: v for a, v in stored(again).own.items() if a not in name} == {
        a: v for a, v in before.own.items() if a not in name
    }
    assert stored(again)["input/local/1/gain"] == 28.0


@pytest.mark.parametrize("seed", range(3))
def test_whatever_is_killed_nobody_has_what_is_not_theirs(company, ann, ben, seed):
    """Two operators check and move at random; memory is lost at random, as when a server dies."""
    draw = random.Random(seed)
    given = {name: set() for name in VOICES}
    acknowledged = []
    for turn in range(60):
        if draw.random() < 0.2:
            live._LIVE.clear()
        who, name = draw.choice([(ann, "ann"), (ben, "ben")])
        act = draw.choice(["next", "skip", "move", "move", "move", "cast", "undo"])
        if act in ("next", "skip"):
            make(company, step(act), who, author_name=name)
        elif act == "cast":
            make(company, choosing(draw.choice([1, 2])), who)
        elif act == "undo":
            make(company, None, who, kind="undo")
        else:
            number, db = draw.randint(1, 3), float(10 + turn % 40)
            show = stored(company)
            fitting = show[f"channel/{number}/fitting"]
            outcome = make(company, gain(number, db), who)
            if fitting is not None and not isinstance(outcome, Refused):
                given[PLAYS[show[f"{fitting}/performer"]]].add(db)
                acknowledged.append((outcome.revision, fitting, db))
    show = stored(company)
    for name, kept in gains(show).items():
        assert kept <= given[name]
    log = models.Change.objects.filter(show=company)
    for revision, fitting, db in acknowledged:
        new = log.get(revision=revision).new
        assert new.get(f"{fitting}/value/preamp/gain", db) == db


async def test_a_page_is_told_who_is_on_what_is_loose_and_what_a_cast_will_do(company, ann):
    screen = Screen(company, ann)
    snapshot = await screen.open()
    assert not any("/value/" in address for address in snapshot["values"])
    await screen.say(type="watch", company=True, mic_check="list", fitting="channel/1")
    told = await screen.next("company")
    assert [one["name"] for one in told["parts"]] == ["Part 1", "Part 2", "Part 3"]
    assert (await screen.next("fitting"))["on"] == "Ada as Part 1"
    assert (await screen.next("mic_check"))["entries"][0]["loose"] == 0
    await screen.do([{"address": "input/local/1/gain", "value": 26.0}])
    moved = await screen.next("moved")
    assert moved["values"] == {"input/local/1/gain": 26.0}  # what stands, not where it is kept
    assert (await screen.next("fitting"))["loose"][0]["now"] == "26 dB"
    ask = {"action": "choose_cast", "cast": "cast/2"}
    await screen.say(type="try", id=str(uuid.uuid4()), ask=ask)
    shown = await screen.next("preview")
    on = [(one["channel"], one["was"], one["now"]) for one in shown["company"]["on"]]
    assert on == [("channel/1", "Ada as Part 1", "Bo as Part 1"),
                  ("channel/2", "Bo as Part 2", "Ada as Part 2")]  # fmt: skip
    # a page that was away is told anew what stands
    again = Screen(company, ann)
    await again.socket.connect()
    await again.say(type="hello", since=moved["before"])
    caught_up = (await again.next("moved"))["values"]
    assert caught_up == {"input/local/1/gain": 26.0} | {
        f"input/local/{n}/{leaf}": plain
        for n in (1, 2, 3)
        for leaf, plain in (("gain", 0.0), ("pad", False))
        if (n, leaf) != (1, "gain")
    }
    await screen.say(type="do", id=str(uuid.uuid4()), gesture="cast", ask=ask)
    assert (await screen.next("moved"))["values"]["input/local/1/gain"] == 0.0
    await again.say(type="hello", since=moved["before"])
    assert (await again.next("snapshot"))["values"]["channel/1/fitting"]
    for one in (screen, again):
        await one.socket.disconnect()


def test_choosing_a_cast_of_forty_is_quick_enough_to_be_looked_at_first(show):
    """Nothing in it grows with the square of a company."""
    for number in range(1, 41):
        make(show, {f"channel/{number}/source": f"input/{'a' if number < 33 else 'b'}/"
                    f"{(number - 1) % 32 + 1}"})  # fmt: skip
        make(show, AddPart(action="add_part", name=f"Part {number}", channels=str(number),
                           players=f"One {number}, Two {number}").plan)  # fmt: skip
    make(show, dict(add_cast(stored(show), "All")[1]))
    began = time.monotonic()
    outcome = make(show, choosing(1))
    assert not isinstance(outcome, Refused)
    assert len(stored(show).layers.on) == 40
    assert time.monotonic() - began < 20.0  # a bound against hanging, no measurement


def test_undo_beneath_a_fitting_turns_back_what_lies_beneath_and_nothing_of_who_is_on(company, ann):
    make(company, {"channel/1/fader": -12.0}, ann)
    make(company, PutOn(action="put_on", channel="channel/1", what=None).plan)
    make(company, {"channel/1/eq/2/gain": -4.0, "channel/1/fader": -9.0}, ann)
    beneath = stored(company)
    make(company, PutOn(action="put_on", channel="channel/1", what="part/1").plan)
    make(company, step("next"), ann, author_name="ann")
    make(company, {"channel/1/eq/2/gain": 3.0})
    on = stored(company)
    assert (on["channel/1/eq/2/gain"], on.own_value("channel/1/eq/2/gain")) == (3.0, -4.0)
    make(company, None, ann, kind="undo")  # the step
    make(company, None, ann, kind="undo")  # what lies beneath
    after = stored(company)
    assert beneath.own_value("channel/1/eq/2/gain") == -4.0
    assert after.own_value("channel/1/eq/2/gain") == 0.0
    assert after["channel/1/eq/2/gain"] == 3.0
    assert after["channel/1/fader"] == -12.0


def test_a_scene_is_recalled_beneath_whoever_is_on(company, ann):
    """What a scene holds of a channel is the channel's own; a name's settings stay the name's."""
    make(company, {"channel/1/fader": -12.0}, ann)
    make(company, PutOn(action="put_on", channel="channel/1", what=None).plan)
    make(company, {"channel/1/eq/2/gain": -4.0}, ann)
    make(company, StoreScene(action="store_scene", name="Alone").plan)
    make(company, {"channel/1/eq/2/gain": -2.0}, ann)
    make(company, PutOn(action="put_on", channel="channel/1", what="part/1").plan)
    make(company, {"channel/1/eq/2/gain": 3.0})
    make(company, RecallScene(action="recall_scene", scene="scene/1", sources=True).plan)
    after = stored(company)
    assert after.own_value("channel/1/eq/2/gain") == -4.0
    make(company, PutOn(action="put_on", channel="channel/1", what="part/1").plan)
    assert stored(company)["channel/1/eq/2/gain"] == 3.0


def test_one_door_checks_one_entry_at_a_time_by_any_road(company, ann):
    """Two entries of a mic check by one name are refused, typed as values too."""
    make(company, step("next"), ann, author_name="ann")
    now = stored(company)
    first, other = (now[f"channel/{n}/fitting"] for n in (1, 2))
    assert now[f"{first}/checker"] == "ann"
    refused = make(company, {f"{other}/check": "on", f"{other}/checker": "ann"}, ann)
    assert isinstance(refused.error, EntryTaken)
    assert stored(company) == now

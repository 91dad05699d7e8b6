import math
import threading
import uuid

import pytest
from django.db import OperationalError, connections

from ombrel.core import Carry, NothingToUndo, OutOfRange, Renumbered
from ombrel.server import models
from ombrel.server.asks.mixes import MoveBus
from ombrel.server.asks.plans import Planned
from ombrel.server.keeping import live
from ombrel.server.keeping.door import commit
from ombrel.server.keeping.request import Done, Refused

from .conftest import make, request, stored

UNDO, REDO = models.Change.Kind.UNDO, models.Change.Kind.REDO


def test_an_edit_is_kept_with_its_inverse_under_the_next_revision(show, ann):
    outcome = make(show, {"channel/1/fader": -6.0}, ann)
    assert outcome == Done(1, "Channel 1, fader")
    entry = models.Change.objects.get()
    assert (entry.revision, entry.author, entry.new) == (1, ann, {"channel/1/fader": -6.0})
    assert entry.old == {"channel/1/fader": None}  # it was off
    assert stored(show) == live.live_of(show.pk).now().show
    show.refresh_from_db()
    assert show.revision == 1


def test_an_edit_sent_twice_counts_once(show):
    edit_id = uuid.uuid4()
    first = make(show, {"channel/1/fader": -6.0}, edit_id=edit_id)
    make(show, {"channel/1/fader": -9.0})
    again = make(show, {"channel/1/fader": -6.0}, edit_id=edit_id)
    assert (first.revision, again.revision) == (1, 1)
    assert stored(show)["channel/1/fader"] == -9.0
    twice_in_one = [request({"channel/2/fader": 0.0}, edit_id=edit_id) for edit_id in [edit_id] * 2]
    commit(show.pk, twice_in_one)
    assert models.Change.objects.count() == 2


def test_a_refused_edit_changes_nothing_and_does_not_stop_the_others(show):
    batch = [
        request({"channel/1/fader": -6.0}),
        request({"channel/2/fader": -6.0, "channel/3/fader": 99.0}),
        request({"channel/4/fader": -6.0}),
    ]
    outcomes, frame, _ = commit(show.pk, batch)
    assert [type(outcome) for outcome in outcomes] == [Done, Refused, Done]
    assert isinstance(outcomes[1].error.faults[0], OutOfRange)
    assert set(frame.values) == {"channel/1/fader", "channel/4/fader"}
    assert stored(show)["channel/2/fader"] == float("-inf")


def test_a_bug_in_one_edit_is_told_and_loses_nothing_of_the_others(show, caplog):
    def broken(turn):
        raise ZeroDivisionError("secret")

    batch = [request({"channel/1/fader": -6.0}), request(broken), request({"channel/2/mute": True})]
    outcomes, _, _ = commit(show.pk, batch)
    assert [type(outcome) for outcome in outcomes] == [Done, Refused, Done]
    assert outcomes[1].error.code == "internal"
    assert "secret" not in str(outcomes[1].error)
    assert "secret" in caplog.text
    assert stored(show)["channel/2/mute"] is True


def test_undo_is_each_persons_own_and_a_drag_is_one_step(show, ann, ben):
    make(show, {"channel/1/name": "Fiddle"}, ann)
    for level_db in (-20.0, -15.0, -10.0):
        make(show, {"channel/1/fader": level_db}, ann, gesture="drag")
    make(show, {"channel/2/fader": -3.0}, ben)
    undone = make(show, None, ann, kind=UNDO)
    assert undone.says == "Undone: Fiddle, fader"
    assert stored(show)["channel/1/fader"] == float("-inf")
    assert stored(show)["channel/2/fader"] == -3.0
    make(show, None, ann, kind=REDO)
    assert stored(show)["channel/1/fader"] == -10.0
    make(show, None, ann, kind=UNDO)
    make(show, None, ann, kind=UNDO)
    assert stored(show)["channel/1/name"] == ""
    nothing = make(show, None, ann, kind=UNDO)
    assert isinstance(nothing.error, NothingToUndo)


def test_undo_leaves_what_somebody_else_moved_since_and_says_so(show, ann, ben):
    make(show, {"channel/1/fader": -6.0, "channel/2/fader": -6.0}, ann)
    make(show, {"channel/1/fader": -1.0}, ben)
    undone = make(show, None, ann, kind=UNDO)
    assert "1 left as somebody set them since" in undone.says
    assert stored(show)["channel/1/fader"] == -1.0
    assert stored(show)["channel/2/fader"] == float("-inf")


def test_what_somebody_turned_back_themselves_is_no_bar_and_what_they_did_again_is(show, ann, ben):
    make(show, {"channel/1/fader": -6.0}, ann)
    make(show, {"channel/1/fader": -1.0}, ben)
    make(show, None, ben, kind=UNDO)
    make(show, None, ann, kind=UNDO)
    assert stored(show)["channel/1/fader"] == float("-inf")
    make(show, {"channel/2/fader": -6.0}, ann)
    make(show, {"channel/2/fader": -1.0}, ben)
    make(show, None, ben, kind=UNDO)
    make(show, None, ben, kind=REDO)
    make(show, None, ann, kind=UNDO)
    assert stored(show)["channel/2/fader"] == -1.0


def test_a_process_follows_what_another_process_moved_on(show):
    here = live.live_of(show.pk)
    here.now()
    before = here.state
    live._LIVE.clear()  # another process has its own memory
    make(show, {"channel/1/source": "input/a/1", "channel/1/fader": 0.0})
    make(show, {"output/local/1/source": "house/left"})
    live._LIVE[show.pk] = here
    now = here.now()
    assert before.revision == 0
    assert now.revision == 2
    assert now.show == stored(show)
    assert now.flow.level("channel/1", "house") == pytest.approx(-3.0103, abs=1e-4)


def test_people_who_move_different_things_at_once_never_collide(show):
    def move(channel):
        try:
            for level_db in range(-10, 0):
                make(show, {f"channel/{channel}/fader": float(level_db)})
        finally:
            connections.close_all()

    threads = [threading.Thread(target=move, args=(channel,)) for channel in range(1, 5)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    show.refresh_from_db()
    assert show.revision == 40
    assert [stored(show)[f"channel/{n}/fader"] for n in range(1, 5)] == [-1.0] * 4
    revisions = list(models.Change.objects.values_list("revision", flat=True))
    assert sorted(revisions) == list(range(1, 41))


def test_what_the_database_does_not_keep_does_not_stay_in_memory(show, monkeypatch):
    make(show, {"channel/1/fader": -6.0})

    def away(*args, **kwargs):
        raise OperationalError("gone")

    with monkeypatch.context() as patched:
        patched.setattr(models.Show, "save", away)
        with pytest.raises(OperationalError):
            make(show, {"channel/1/fader": 0.0})
    assert live.live_of(show.pk).now().show["channel/1/fader"] == -6.0
    assert stored(show)["channel/1/fader"] == -6.0
    assert models.Change.objects.count() == 1


def test_a_shows_name_follows_its_value(show):
    make(show, {"show/name": "The Salt Road"})
    show.refresh_from_db()
    assert show.name == "The Salt Road"


def test_undo_reaches_back_over_a_drag_of_many_moves(show, ann):
    """A drag longer than any look-back once was, then what came before it."""
    make(show, {"channel/1/fader": -3.0}, ann)
    moves = [-3.1 - 0.1 * step for step in range(600)]
    for start in range(0, 600, 50):
        batch = [
            request({"channel/1/fader": round(level_db, 1)}, ann, gesture="drag")
            for level_db in moves[start : start + 50]
        ]
        commit(show.pk, batch)
    assert stored(show)["channel/1/fader"] == pytest.approx(-63.0)
    undone = make(show, None, ann, kind=UNDO)
    assert stored(show)["channel/1/fader"] == -3.0
    assert "Undone" in undone.says
    assert models.Change.objects.get(kind="undo").turns == "drag"
    make(show, None, ann, kind=UNDO)
    assert stored(show)["channel/1/fader"] == float("-inf")


def test_an_undo_into_a_socket_that_somebody_took_leaves_it_to_them(show, ann, ben):
    lines = {"line/1/place": 1.0, "line/2/place": 2.0, "line/1/socket": "input/a/1"}
    make(show, lines, ben)
    make(show, {"line/1/socket": "input/a/2", "line/1/where": "left"}, ann)
    make(show, {"line/2/socket": "input/a/1"}, ben)
    undone = make(show, None, ann, kind=UNDO)
    assert "1 left" in undone.says
    now = stored(show)
    assert (now["line/1/socket"], now["line/1/where"]) == ("input/a/2", "")
    assert now["line/2/socket"] == "input/a/1"


def test_values_that_the_desk_no_longer_has_are_left_out_and_told(show, caplog):
    make(show, {"mix/1/format": "mono"})
    models.Setting.objects.create(show=show, address="mix/23/format", value="mono")
    live._LIVE.clear()
    assert live.live_of(show.pk).now().show.in_use("mix") == ["mix/1"]
    assert "mix/23" in caplog.text


def test_an_undo_that_the_show_now_refuses_is_left_out_and_bars_nothing(show, ann, ben):
    """Ann took a send off; Ben closed the rest of a circle since: her undo would let it howl."""
    make(
        show,
        {"mix/1/format": "mono", "mix/1/fader": 0.0, "channel/1/source": "mix/1",
         "channel/1/name": "Round", "channel/1/send/mix/1/level": -math.inf, "channel/1/trim": 6.0},
    )  # fmt: skip
    make(show, {"channel/5/fader": -3.0}, ann)
    make(show, {"channel/1/source": "input/a/1"}, ben)
    make(show, {"channel/1/send/mix/1/level": 0.0}, ben)
    make(show, {"channel/1/send/mix/1/level": -math.inf}, ann)
    make(show, {"channel/1/source": "mix/1"}, ben)
    passed = make(show, None, ann, kind="undo")
    assert "Left out" in passed.says
    assert "channel/1/send/mix/1/level" not in stored(show).values
    make(show, None, ann, kind="undo")
    assert stored(show)["channel/5/fader"] == -math.inf


def hand(moves):
    return lambda turn: Planned(moves, carry=Carry())


def moved_mixes(show, author):
    """The first mix put behind the second, as the view of mixes asks for it."""
    ask = MoveBus.model_validate({"action": "move_bus", "bus": "mix/1", "before": None})
    return make(show, ask.plan, author)


def test_a_hand_that_began_before_strips_were_renumbered_moves_nobody(show, ann, ben):
    make(show, {"mix/1/format": "mono", "mix/2/format": "mono", "mix/1/fader": -5.0}, ann)
    seen = models.Show.objects.get(pk=show.pk).revision
    moved_mixes(show, ann)
    late = make(show, hand({"channel/1/send/mix/1/level": 0.0}), ben, seen=seen)
    assert isinstance(late.error, Renumbered)
    assert "mix/1" not in str(late.error)
    assert stored(show)["channel/1/send/mix/1/level"] == float("-inf")
    assert not isinstance(make(show, hand({"channel/1/fader": 0.0}), ben, seen=seen), Refused)
    anew = models.Show.objects.get(pk=show.pk).revision
    assert not isinstance(
        make(show, hand({"channel/1/send/mix/1/level": 0.0}), ben, seen=anew), Refused
    )


def test_undo_of_other_numbers_takes_along_what_another_moved_since(show, ann, ben):
    make(show, {"mix/1/format": "mono", "mix/2/format": "mono", "mix/1/fader": -5.0}, ann)
    moved_mixes(show, ann)
    make(show, {"mix/2/fader": -7.0, "channel/1/send/mix/2/level": 2.0}, ben)
    undone = make(show, None, ann, kind=UNDO)
    assert "as somebody set them" not in undone.says
    after = stored(show)
    assert (after["mix/1/fader"], after["mix/2/fader"]) == (-7.0, 0.0)
    assert after["channel/1/send/mix/1/level"] == 2.0
    make(show, None, ann, kind=REDO)
    assert stored(show)["mix/2/fader"] == -7.0


def test_what_was_on_its_way_stands_where_it_led_when_its_strip_gets_another_number(show, ann):
    make(show, {"mix/1/format": "mono", "mix/2/format": "mono"}, ann)
    make(show, lambda turn: Planned({"mix/1/fader": -20.0}, seconds=60.0), ann)
    assert live.live_of(show.pk).fading
    moved_mixes(show, ann)
    assert not live.live_of(show.pk).fading
    assert stored(show)["mix/2/fader"] == -20.0


def test_undo_knows_what_another_moved_however_much_came_after(show, ann, ben):
    """Moved and moved back, 20 000 entries ago: equal values prove nothing."""
    make(show, {"channel/1/fader": -3.0}, ann)
    make(show, {"channel/1/fader": -9.0}, ben)
    make(show, {"channel/1/fader": -3.0}, ben)
    row = models.Show.objects.get(pk=show.pk)
    rows = [
        models.Change(
            show=row, revision=row.revision + turn, edit_id=uuid.uuid4(), author=ben, kind="edit",
            gesture=f"g{turn}", old={"channel/2/fader": None}, new={"channel/2/fader": -1.0},
        )
        for turn in range(1, 20_051)
    ]  # fmt: skip
    models.Change.objects.bulk_create(rows, batch_size=5_000)
    models.Show.objects.filter(pk=show.pk).update(revision=row.revision + len(rows))
    undone = make(show, None, ann, kind=UNDO)
    assert "left as somebody set them since" in undone.says
    assert stored(show)["channel/1/fader"] == -3.0

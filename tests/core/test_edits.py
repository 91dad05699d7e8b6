import math

import pytest
from hypothesis import given

from ombrel.core import (
    EditRefused,
    Entry,
    NothingToRedo,
    NothingToUndo,
    OutOfRange,
    Travel,
    Typed,
    UnknownAddress,
    blank_show,
    joined,
    made,
    next_redo,
    next_undo,
    undoing,
)
from tests.desks import TINY
from tests.shows import moves, shows


@given(shows(), moves())
def test_an_edit_then_its_inverse_is_the_identity(show, asked):
    after, change = made(show, asked)
    back, inverse = made(after, change.inverse().new)
    assert back == show
    assert inverse == change.inverse()


@given(shows(), moves(), moves())
def test_two_changes_joined_do_what_they_did_one_by_one(show, first, second):
    middle, one = made(show, first)
    after, two = made(middle, second)
    whole = joined([one, two])
    assert made(show, whole.new)[0] == after
    assert made(after, whole.old)[0] == show
    assert all(whole.old[address] != whole.new[address] for address in whole.new)


@given(shows(), moves(most=10), moves(most=10))
def test_undo_leaves_alone_what_somebody_moved_since(show, mine, theirs):
    after_mine, my_change = made(show, mine)
    after_theirs, their_change = made(after_mine, theirs)
    asked, left = undoing(after_theirs, my_change)
    undone, _ = made(after_theirs, asked)
    for address in my_change.new:
        moved_on = address in their_change.new
        assert undone[address] == (their_change.new[address] if moved_on else show[address])
        assert (address in left) == moved_on


def test_an_edit_with_any_fault_changes_nothing_and_tells_every_fault():
    show = blank_show(TINY)
    with pytest.raises(EditRefused) as caught:
        made(show, {"channel/1/fader": -6.0, "channel/2/fader": 99.0, "channel/9/fader": 0.0})
    assert [type(fault) for fault in caught.value.faults] == [OutOfRange, UnknownAddress]
    assert show == blank_show(TINY)


def test_a_fader_moves_by_typed_text_and_by_travel():
    show, _ = made(blank_show(TINY), {"channel/1/fader": Travel(0.5), "channel/2/fader": -10.0})
    assert show["channel/1/fader"] == pytest.approx(-15.0)
    show, _ = made(show, {"channel/2/fader": Typed("+2"), "channel/1/fader": Travel(0.0)})
    assert show["channel/2/fader"] == pytest.approx(-8.0)
    assert show["channel/1/fader"] == -math.inf


def test_undo_goes_back_by_gestures_and_a_new_move_ends_redo():
    drag = [Entry(kind="edit", gesture="drag")] * 3
    key = Entry(kind="edit", gesture="key")
    undo = Entry(kind="undo", gesture="u", turns="key")
    assert next_undo([*drag, key]) == "key"
    assert next_undo([*drag, key, undo]) == "drag"
    assert next_redo([*drag, key, undo]) == "key"
    with pytest.raises(NothingToRedo):
        next_redo([*drag, key, undo, Entry(kind="edit", gesture="other")])
    with pytest.raises(NothingToUndo):
        next_undo([])
    redo = Entry(kind="redo", gesture="r", turns="key")
    assert next_undo([*drag, key, undo, redo]) == "key"

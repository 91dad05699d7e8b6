import math
from typing import Literal, cast

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from immutables import Map

from ombrel.core import (
    EditRefused,
    Entry,
    NothingToRedo,
    NothingToUndo,
    OutOfRange,
    Travel,
    Typed,
    UnknownAddress,
    Value,
    blank_show,
    joined,
    made,
    next_redo,
    next_undo,
    undoing,
)
from ombrel.core.show import Change
from ombrel.core.together.programme import leaving_as_it_is
from tests.desks import TINY
from tests.shows import SEEDS, edit_of_seed, shows


@given(shows(), SEEDS)
def test_an_edit_then_its_inverse_is_the_identity(show, seed):
    after, change = made(show, edit_of_seed(show, seed))
    back, inverse = made(after, undoing(after, change)[0])
    assert back == show
    assert inverse == change.inverse()


@settings(max_examples=50)
@given(shows(), SEEDS)
def test_two_changes_joined_do_what_they_did_one_by_one(show, seed):
    middle, one = made(show, edit_of_seed(show, seed))
    after, two = made(middle, edit_of_seed(middle, seed + 1))
    whole = joined([one, two])
    assert made(show, leaving_as_it_is(show, whole.new))[0] == after
    assert made(after, undoing(after, whole)[0])[0] == show
    assert all(whole.old[address] != whole.new[address] for address in whole.new)


def test_a_value_that_came_back_is_told_with_the_place_that_its_gang_keeps():
    fader, kept = "channel/1/fader", "channel/1/fader/kept"
    out = Change(Map({fader: 0.0, kept: 0.0}), Map({fader: 6.0, kept: 9.0}))
    back = Change(Map({fader: 6.0, kept: 9.0}), Map({fader: 0.0, kept: 2.0}))
    assert dict(joined([out, back]).new) == {fader: 0.0, kept: 2.0}
    home = Change(back.old, Map({fader: 0.0, kept: 0.0}))
    assert not joined([out, home])


@settings(max_examples=50)
@given(shows(), SEEDS)
def test_undo_leaves_alone_what_somebody_moved_since(show, seed):
    after_mine, my_change = made(show, edit_of_seed(show, seed))
    after_theirs, their_change = made(after_mine, edit_of_seed(after_mine, seed + 1))
    asked, left = undoing(after_theirs, my_change)
    undone = after_theirs.with_values(
        cast("dict[str, Value]", asked)
    )  # rules may refuse it: two people's moves together
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
    show, _ = made(show, {"channel/2/fader": Typed("up 2"), "channel/1/fader": Travel(0.0)})
    assert show["channel/2/fader"] == pytest.approx(-8.0)
    assert show["channel/1/fader"] == -math.inf


def test_undo_goes_back_by_gestures_and_a_new_move_ends_redo():
    """The log newest first, as it is read."""
    drag, key = [Entry(kind="edit", gesture="drag")] * 3, Entry(kind="edit", gesture="key")
    undo = Entry(kind="undo", gesture="u", turns="key")
    assert next_undo([key, *drag]) == "key"
    assert next_undo([undo, key, *drag]) == "drag"
    assert next_redo([undo, key, *drag]) == "key"
    with pytest.raises(NothingToRedo):
        next_redo([Entry(kind="edit", gesture="other"), undo, key, *drag])
    with pytest.raises(NothingToUndo):
        next_undo([])
    redo = Entry(kind="redo", gesture="r", turns="key")
    assert next_undo([redo, undo, key, *drag]) == "key"
    with pytest.raises(NothingToRedo):
        next_redo([redo, undo, key, *drag])


@given(st.lists(st.sampled_from("eur"), max_size=40))
def test_undo_and_redo_are_two_stacks(keys):
    """Against the two stacks that everybody knows: a move clears what could be redone."""
    done, undone, log = [], [], []
    for turn, key in enumerate(keys):
        if key == "e":
            done.append(f"g{turn}")
            undone.clear()
            log.append(Entry(kind="edit", gesture=f"g{turn}"))
            continue
        stack, other = (done, undone) if key == "u" else (undone, done)
        find = next_undo if key == "u" else next_redo
        if not stack:
            with pytest.raises((NothingToUndo, NothingToRedo)):
                find(reversed(log))
            continue
        assert find(reversed(log)) == stack[-1]
        other.append(stack.pop())
        kind: Literal["undo", "redo"] = "undo" if key == "u" else "redo"
        log.append(Entry(kind=kind, gesture=f"t{turn}", turns=other[-1]))

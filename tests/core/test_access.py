"""Roles against a table of addresses written out here again, and what volunteers ride.

The referee works on the texts of addresses alone; it knows pairs, lifts and fittings from the
values of the show, and nothing of the room that it judges.
"""

import math
import random
import re

import pytest

from ombrel.core import (
    Carry,
    ConsoleError,
    Given,
    NotAllowed,
    OutOfRange,
    Role,
    UnreadableText,
    check_access,
    edited,
    expanded,
    flow_of,
    given_name,
    may,
    read_given,
    renumbered_given,
    ridden,
    ride_fader,
    ride_key,
    ride_lift,
    show_of,
)
from ombrel.core.catalogue import addresses_of
from tests.desks import TINY, TOURING
from tests.shows import edit_of_seed, show_of_seed

OFF = -math.inf
ASSISTING = re.compile(r"line/\d+/(check|check_note|notes)|scene/\d+/notes|performer/\d+/arrived_s")
MAY: dict[Role | None, set[str]] = {
    "owner": {"look", "assist", "engineer", "own"},
    "engineer": {"look", "assist", "engineer"},
    "assistant": {"look", "assist"},
    "volunteer": {"ride"},
    "onlooker": {"look"},
    None: set(),
}


def test_what_each_role_may_ask_for():
    for role, acts in MAY.items():
        for act in ("look", "assist", "engineer", "own", "ride"):
            assert may(role, act) == (act in acts), (role, act)


def one_of_each():
    """An address of every key of the catalogue."""
    return list({re.sub(r"\d+", "#", one): one for one in addresses_of(TINY)}.values())


@pytest.mark.parametrize("role", ["owner", "engineer", "assistant", "onlooker", None])
def test_every_address_of_the_catalogue_is_judged_by_its_own(role):
    show, let, every = show_of(TINY, {}), 0, one_of_each()
    for address in every:
        free = role in ("owner", "engineer") or (
            role == "assistant" and ASSISTING.fullmatch(address) is not None
        )
        let += free
        for named, changed in (([address], []), ([], [address])):
            if free:
                check_access(role, (), show, show, named, changed)
            else:
                with pytest.raises(NotAllowed, match=re.escape(address)):
                    check_access(role, (), show, show, named, changed)
    assert (let > 0) == (role in ("owner", "engineer", "assistant"))
    assert len(every) > 700


# ---- volunteers


def partner(values, thing):
    """The other side of a linked pair, by the odd side's switch."""
    kind, _, number = thing.partition("/")
    if not number.isdigit():
        return None
    odd = int(number) - (int(number) + 1) % 2
    if values.get(f"{kind}/{odd}/linked") is not True:
        return None
    return f"{kind}/{odd + 1 if int(number) == odd else odd}"


def allowed(show, given):
    """What may change, by its text, with the ends of faders."""
    values, ends = show.values, {}
    for one in given:
        if one.what.startswith("lift/"):
            lead = values.get(f"{one.what}/lead", "")
            backing = values.get(f"{one.what}/backing", "")
            if not lead or not backing:
                continue
            strips = [s for s in show.in_use("channel") + show.in_use("return")
                      if values.get(f"{s}/{backing}/on")]  # fmt: skip
            named = [s for s in strips if values.get(f"{s}/{one.what}/on")]
            any_named = any(a.endswith(f"/{one.what}/on") and v for a, v in values.items())
            for strip in named if any_named else strips:
                for s in filter(None, (strip, partner(values, strip))):
                    for group in filter(None, (lead, partner(values, lead))):
                        ends |= {f"{s}/{group}/on": None, f"{s}/{group}/level": None}
            continue
        thing, _, leaf = one.what.rpartition("/")
        for s in filter(None, (thing, partner(values, thing))):
            if s == thing or f"{s}/{leaf}" not in {other.what for other in given}:
                ends[f"{s}/{leaf}"] = (one.lowest_db, one.highest_db) if leaf == "fader" else None
    return ends


def in_words(show, address):
    """A fitting's value as the channel's that it is on; a kept place as what it is kept of."""
    found = re.fullmatch(r"(fitting/\d+)/value/(.*)", address)
    if found:
        on = [a.rpartition("/")[0] for a, v in show.own.items()
              if re.fullmatch(r"channel/\d+/fitting", a) and v == found[1]]  # fmt: skip
        return f"{on[0]}/{found[2]}" if on else address
    return address.removesuffix("/kept")


def judged(show, given, named, after, changed):
    ends = allowed(show, given)
    if any(in_words(show, one) not in ends for one in (*named, *changed)):
        return False
    for one in changed:
        if ends.get(one) is None or not one.endswith("/fader"):
            continue
        low, high = ends[one]
        old, new = show.number(one), after.number(one)
        if new > max(high, old) + 1e-6 or new < min(low, old) - 1e-6:
            return False
    return True


FADERS = ("channel/1", "channel/2", "channel/3", "group/1", "mix/1", "house", "dca/1")


def drawn(draw, show):
    """What somebody may be given of a show."""
    given = [
        Given(f"{one}/fader", draw.choice([OFF, -20.0, -6.0]), draw.choice([-3.0, 0.0, 10.0]))
        for one in FADERS
        if draw.random() < 0.5
    ]
    given += [Given(f"{one}/mute") for one in FADERS if draw.random() < 0.4]
    given += [Given("mute_group/1/on")] if draw.random() < 0.5 else []
    given += [Given(f"lift/{n}") for n in (1, 2) if draw.random() < 0.5]
    return tuple(given)


def made_of(show, moves, **how):
    try:
        found = expanded(show, moves, **how)
    except ConsoleError:
        return None
    return found.show, {*found.change.new, *found.stood.new}


def test_an_edit_passes_a_volunteer_as_the_table_has_it():
    """Random edits, of what is given and beside it, with gangs, pairs and fittings in the show."""
    passed = refused = 0
    for seed in range(30):
        show, draw = show_of_seed(seed), random.Random(seed)
        for _ in range(8):
            given = drawn(draw, show)
            far = draw.random() < 0.2
            moves = edit_of_seed(show, draw.randrange(10**6), most=2) if far else {}
            near = list(allowed(show, drawn(draw, show)))
            for address in draw.sample(near, min(len(near), draw.randint(1, 2))):
                level = address.endswith(("fader", "level"))
                moves[address] = draw.choice([OFF, -30.0, -6.0, 3.0] if level else [True, False])
            carry = Carry() if draw.random() < 0.5 else None
            found = made_of(show, moves, carry=carry)
            if found is None:
                continue
            after, changed = found
            try:
                check_access("volunteer", given, show, after, moves, changed)
                let = True
            except NotAllowed:
                let = False
            assert let == judged(show, given, moves, after, changed), (seed, moves, given)
            passed, refused = passed + let, refused + (not let)
    assert passed > 20, passed
    assert refused > 60, refused


def test_what_a_volunteer_rides_passes_and_keeps_its_ends():
    """Whatever is pressed on their page: nothing else moves, and no fader leaves its ends."""
    moved = 0
    for seed in range(25):
        draw = random.Random(seed)
        show = show_of_seed(seed)
        given = drawn(draw, show)
        faders, keys = ridden(show, flow_of(show), given)
        for _ in range(12):
            try:
                if faders and draw.random() < 0.6:
                    one = draw.choice(faders)
                    moves = ride_fader(show, given, one.what, draw.choice([OFF, -40.0, -5.0, 20.0]))
                elif keys:
                    key = draw.choice(keys)
                    on = draw.random() < 0.5
                    if key.strip:
                        moves = ride_lift(show, given, key.what, key.strip, on=on)
                    else:
                        moves = ride_key(given, key.what, on=on)
                else:
                    break
            except UnreadableText:
                continue
            found = made_of(show, moves)
            if found is None:
                continue
            after, changed = found
            if judged(show, given, moves, after, changed):
                check_access("volunteer", given, show, after, moves, changed)
            for what, value in moves.items():
                if what.endswith("/fader"):
                    low, high = allowed(show, given)[what]
                    assert min(low, show.number(what)) <= value <= max(high, show.number(what))
            show, moved = after, moved + len(changed)
    assert moved > 60


def test_a_gang_carries_no_volunteer_past_what_is_given():
    show = show_of(TOURING, {
        "channel/1/name": "A", "channel/2/name": "B", "gang/1/name": "Both",
        "channel/1/gang/1/on": True, "channel/2/gang/1/on": True,
        "channel/1/fader": -10.0, "channel/2/fader": -10.0,
    })  # fmt: skip
    one = (Given("channel/1/fader"),)
    both = (*one, Given("channel/2/fader", -20.0, -8.0))

    def asks(given, to_db):
        moves = ride_fader(show, given, "channel/1/fader", to_db)
        found = expanded(show, moves, Carry())
        check_access("volunteer", given, show, found.show, moves,
                     {*found.change.new, *found.stood.new})  # fmt: skip
        return found.show.number("channel/2/fader")

    with pytest.raises(NotAllowed, match="channel/2/fader is not given"):
        asks(one, -5.0)
    assert asks(both, -9.0) == -9.0
    with pytest.raises(NotAllowed, match="between its ends"):
        asks(both, -5.0)  # the other one would leave its own


def test_what_stands_past_an_end_may_come_back_and_go_no_further():
    show = show_of(TOURING, {"dca/1/fader": 5.0})
    given = (Given("dca/1/fader", -12.0, 0.0),)
    for asked, comes in ((8.0, 5.0), (3.0, 3.0), (-20.0, -12.0), (OFF, -12.0)):
        assert ride_fader(show, given, "dca/1/fader", asked) == {"dca/1/fader": comes}
    for other in ("dca/2/fader", "channel/1/fader", "dca/1/mute"):
        with pytest.raises(NotAllowed):
            ride_fader(show, given, other, 0.0)
        with pytest.raises(NotAllowed):
            ride_key(given, other, on=True)


def test_given_as_typed():
    show = show_of(TOURING, {
        "channel/3/name": "Reader", "dca/2/name": "Choir", "mute_group/4/name": "Band",
        "lift/1/name": "Voices", "lift/1/lead": "group/2", "lift/1/backing": "group/1",
        "group/1/format": "mono", "group/2/format": "mono",
    })  # fmt: skip
    assert read_given(show, "fader", "Reader, dca 2", "-12", "+3") == (
        Given("channel/3/fader", -12.0, 3.0), Given("dca/2/fader", -12.0, 3.0),
    )  # fmt: skip
    assert read_given(show, "fader", "dca 2")[0] == Given("dca/2/fader", OFF, 6.0)
    assert read_given(show, "mute", "Choir") == (Given("dca/2/mute"),)
    assert read_given(show, "mute_group", " band ") == (Given("mute_group/4/on"),)
    assert read_given(show, "mute_group", "4") == (Given("mute_group/4/on"),)
    assert read_given(show, "lift", "Voices") == (Given("lift/1"),)
    names = ["Reader", "Choir", "Band", "Voices"]
    whats = ["channel/3/fader", "dca/2/mute", "mute_group/4/on", "lift/1"]
    assert [given_name(show, Given(one)) for one in whats] == names
    for wrong in (("fader", "Nobody"), ("lift", "Band"), ("mute_group", "99"), ("solo", "3"),
                  ("fader", "3", "loud"), ("mute_group", "")):  # fmt: skip
        with pytest.raises(UnreadableText):
            read_given(show, *wrong)
    with pytest.raises(OutOfRange):
        read_given(show, "fader", "3", "0", "-6")
    with pytest.raises(OutOfRange):
        read_given(show, "fader", "3", "-6", "40")


def test_what_is_given_goes_with_its_strip():
    given = (Given("channel/1/fader", -6.0, 0.0), Given("channel/2/mute"), Given("channel/3/fader"),
             Given("dca/1/fader"), Given("lift/1"))  # fmt: skip
    to = {"channel/1": "channel/3", "channel/2": None}
    assert renumbered_given(given, to) == (
        Given("channel/3/fader", -6.0, 0.0), Given("dca/1/fader"), Given("lift/1"),
    )  # fmt: skip
    there_and_back = renumbered_given(
        renumbered_given(given[:1], {"channel/1": "channel/2", "channel/2": "channel/1"}),
        {"channel/2": "channel/1", "channel/1": "channel/2"},
    )
    assert there_and_back == given[:1]


def test_a_page_tells_where_things_stand_and_what_is_silent():
    show = show_of(TOURING, {
        "line/1/place": 1.0, "line/1/name": "Reader", "line/1/socket": "input/local/1",
        "channel/1/source": "input/local/1", "channel/1/name": "Reader", "channel/1/fader": -3.0,
        "channel/1/house/on": True, "dca/1/name": "Speech", "channel/1/dca/1/on": True,
    })  # fmt: skip
    given = (Given("channel/1/fader", -10.0, 0.0), Given("dca/1/mute"), Given("return/3/fader"))
    faders, keys = ridden(show, flow_of(show), given)  # a return that is not in use is not there
    assert [(f.name, f.level_db, f.lowest_db, f.highest_db, f.silent) for f in faders] == [
        ("Reader", -3.0, -10.0, 0.0, False)
    ]
    assert [(k.name, k.of, k.on) for k in keys] == [("Speech", "mute", False)]
    muted = edited(show, flow_of(show), {"dca/1/mute": True})
    faders, keys = ridden(muted.show, muted.flow, given)
    assert (faders[0].muted, faders[0].silent, keys[0].on) == (False, True, True)

"""Wishes in plain words: a table of what must come first, and what holds of any wish."""

import itertools

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ombrel.core import ConsoleError, edited, find, flow_of
from ombrel.demo import demo_show
from tests.desks import TOURING
from tests.shows import SEEDS, SHOW_SEEDS, show_of_seed

DEMO = demo_show(TOURING)
FLOW = flow_of(DEMO)

# What is typed: the group and the title that must come first. Places and levels are the demo's.
WISHES = {
    # names, numbers and sockets, by whatever people call their kinds
    "fiddle": "go Fiddle", "FIDDLE": "go Fiddle", "19": "go Fiddle", "ch 19": "go Fiddle",
    "channel 7": "go Choir of gulls", "7 channel": "go Choir of gulls", "mix 3": "go Ears fiddle",
    "ears fiddle": "go Ears fiddle", "fiddle ears": "go Ears fiddle",
    "iem fiddle": "go Ears fiddle",
    "monitor quay": "go Wedge quay", "aux 7": "go Wedge ring", "dca 6": "go Band",
    "vca drums": "go Drums", "drums": "go Drums", "house": "go House", "main": "go House",
    "pa": "go House", "hall": "go Hall", "reverb hall": "go Hall", "scene 12": "go Storm glass",
    "12 storm": "go Storm glass", "20.5": "go Bargain, spare ending",
    "snapshot 5": "go The harbour wakes", "cue 9": "go Interval", "aoife": "go Fiddle",
    "deck 7": "go Choir of gulls", "h11": "go Fiddle", "harbour 11": "go Fiddle",
    "foley near": "go Foley table near", "gulls": "go Gulls", "lighthouse": "go Lighthouse keeper",
    "cajon": "go Cajón", "mute group 4": "go Band", "click": "go Click", "matrix 2": "go Stream",
    "line 18": "go Fiddle", "gang 3": "go Brass", "bank 2": "go Band", "fidlde": "go Fiddle",
    "part gulls": "go Choir of gulls", "promise band": "go The band",
    # a level, in any order
    "fiddle -6": "change Fiddle fader to −6 dB", "fiddle fader -6": "change Fiddle fader to −6 dB",
    "-6 fiddle": "change Fiddle fader to −6 dB", "fader fiddle -6": "change Fiddle fader to −6 dB",
    "fiddle to -6": "change Fiddle fader to −6 dB", "fiddle volume -6 dB":
    "change Fiddle fader to −6 dB", "fiddle up 2": "change Fiddle fader up 2",
    "fiddle down 3 dB": "change Fiddle fader down 3 dB", "fiddle off": "change Fiddle fader to off",
    "drums -3": "change Drums fader to −3 dB", "dca band -6": "change Band fader to −6 dB",
    "house -3": "change House fader to −3 dB", "ears fiddle -6":
    "change Ears fiddle fader to −6 dB", "1-8 -10": "change 8 strips (1-8) fader to −10 dB",
    "all except click -3": "change 39 strips (1-30, 32-40) fader to −3 dB",
    # other settings
    "fiddle gain 30": "change Fiddle gain to 30 dB", "gain 30 fiddle":
    "change Fiddle gain to 30 dB", "kick trim -2": "change Kick trim to −2 dB",
    "kick pan L30": "change Kick pan to L30", "pan kick left": "change Kick pan to L100",
    "kick hpf 120": "change Kick low cut to 120 Hz", "fiddle 120 hz":
    "change Fiddle low cut to 120 Hz", "snare gate on": "change Snare gate on",
    "gate snare -30": "change Snare gate threshold to −30 dB",
    "fiddle comp threshold -20": "change Fiddle compressor threshold to −20 dB",
    "fiddle phase": "change Fiddle polarity on", "48 kick": "change Kick 48 V on",
    "phantom kora": "change Kora 48 V on", "fiddle delay 5 ms":
    "change Fiddle delay time to 5 ms", "kick eq off": "change Kick EQ off",
    "fiddle eq": "go Fiddle, EQ", "low cut kick": "go Kick, low cut",
    # one into another
    "fiddle to ears bass -10": "change Fiddle into Ears bass to −10 dB",
    "ears bass fiddle -10": "change Fiddle into Ears bass to −10 dB",
    "fiddle hall -12": "change Fiddle into Hall to −12 dB",
    "click house off": "change Click out of House", "kick into foley": "change Kick into Foley",
    "fiddle out of strings": "change Fiddle out of Strings",
    # deeds
    "mute fiddle": "change Mute Fiddle", "mute drums": "change Mute Drums",
    "drums mute": "change Mute Drums", "unmute band": "change Unmute Band",
    "mute off fiddle": "change Unmute Fiddle", "mute 1-8": "change Mute 8 strips (1-8)",
    "mute 1-8 except 3": "change Mute 7 strips (1-2, 4-8)", "mute all": "change Mute All inputs",
    "solo kick": "change Solo Kick", "solo in place": "change Solo in place",
    "pin fiddle": "change Pin Fiddle", "lift bass": "change Lift Bass voice",
    "share gain 37-39": "change Share one gain: Fiddle voice, Bass voice, Drum voice",
    "record guide to 32": "change Record guide to 32", "multitrack": "go Tracks",
    "virtual sound check": "go Play tracks back",
    "council of gulls": "go Council of gulls", "automixer": "go Shared gain",
    "rest brass": "change Rest Brass", "recall 12": "change Recall 12 Storm glass",
    "fire storm": "change Recall 12 Storm glass", "go": "change Go: 1 Doors",
    "next": "change Go: 1 Doors", "patch h14 to 3": "change Harbour 14 feeds 3 Teller, part B",
    "patch 3 h 14": "change Harbour 14 feeds 3 Teller, part B", "plug harbour 20 fiddle":
    "change Harbour 20 feeds 19 Fiddle",
    "patch mix 3 to deck 9": "change Deck 9 carries Ears fiddle",
    "link 9 10": "change Link channels 9 and 10", "rename 7 to Gull choir":
    "change Call Choir of gulls Gull choir", "store Encore": "change Store scene Encore",
    "store 12": "change Store 12 Storm glass again", "make dca Horns": "change Make DCA Horns",
    "new mix Ears dancer": "change Make mix Ears dancer",
    # who hears what
    "fiddle house": "hears Fiddle → House", "house fiddle": "hears Fiddle → House",
    "fiddle ears fiddle": "hears Fiddle → Ears fiddle", "who hears fiddle":
    "hears Fiddle → House", "why fiddle stream": "hears Fiddle → Stream",
    # views, by whatever the trade calls what they do
    "aux": "go Mixes", "monitors": "go Mixes", "iem": "go Mixes", "reverb": "go Effects",
    "48": "go Patch", "phantom": "go Patch", "snapshots": "go Scenes", "cue list": "go Run",
    "link": "go Gangs and pairs", "vcas": "go DCAs", "eq": "go Strip", "oscillator":
    "go Line check", "tap tempo": "go Tap the tempo", "pdf": "go Print or export",
    "help": "go Guide",
    "text size": "go Settings", "log": "go History", "findings": "go What is wrong",
    "unfold": "go Banks", "layers": "go Banks", "foldback": "go Mixes",
    "input list": "go Lines", "direct outs": "go Outputs", "sound check": "go Mic check",
    "understudy": "go Cast", "panic": "go Mutes",
    # what the screen does, and what does it all at once
    "undo": "do Undo", "shortcuts": "do Every key", "save": "do Save to a file",
    "new show": "do A new show", "dark": "do Dark theme", "sign out": "do Sign out",
    "put a group in between": "go Put a group in between", "new mix": "go New mixes",
    "presets": "go Presets", "faders as sends": "go Faders as sends", "keep point":
    "go Keep a point", "tonight": "go Tonight's cast", "mix minus": "go Mix-minus",
    "import a list": "go Import a list", "rehearse": "go Rehearse", "grid": "go Patch as a grid",
    "link all stereo": "go Link all stereo lines", "remove scene": "go Remove this scene",
    "patch all": "do Patch all lines", "auto gain": "do Set all gains as suggested",
}  # fmt: skip


def found(text, show=DEMO, flow=FLOW, view=""):
    return find(show, flow, text, view=view)


@pytest.mark.parametrize(("text", "first"), WISHES.items(), ids=list(WISHES))
def test_what_must_come_first(text, first):
    answers = found(text).answers
    assert answers
    assert f"{answers[0].group} {answers[0].title}" == first


def test_there_are_as_many_wishes_as_were_promised():
    assert len(WISHES) >= 120


def test_nothing_is_called_that_and_a_slip_is_said():
    assert not found("theremin").answers
    assert not found("xyzzy").answers
    assert not found("").answers
    assert not found("a " * 40).answers
    assert found("fidlde").instead == "fiddle"
    assert found("fiddle qwxz").instead == "fiddle"
    assert all(one.group != "change" for one in found("fiddle 300").answers)


def test_on_banks_a_strip_comes_under_the_hand_first():
    first = found("fiddle", view="banks").answers[0]
    assert (first.view, first.at, first.beside) == ("banks", "bank/2", "channel/19")
    assert found("fiddle", view="mixes").answers[0].view == "hears"


def test_what_arrives_is_told_beside_who_hears_it():
    (first, *_) = found("fiddle house").answers
    assert (first.at, first.beside) == ("channel/19", "house")
    assert first.about == f"−{abs(FLOW.level('channel/19', 'house')):.1f} dB"


@settings(max_examples=60)
@given(seed=SHOW_SEEDS, pick=SEEDS)
def test_the_order_of_words_does_not_matter(seed, pick):
    """A strip of any show by its kind and number, a setting, a value: all six orders are one."""
    show = show_of_seed(seed)
    flow = flow_of(show)
    strips = [*show.in_use("channel"), *show.in_use("group")]
    if not strips:
        return
    strip = strips[pick % len(strips)]
    level = -(pick % 50) - 0.5
    words = [strip.replace("/", " "), "fader", f"{level:g}"]
    told = set()
    for order in itertools.permutations(words):
        first = find(show, flow, " ".join(order)).answers[0]
        told.add((first.title, *first.moves.items()))
    ((_, move),) = told
    assert move == (f"{strip}/fader", level)


@settings(max_examples=60)
@given(seed=SHOW_SEEDS, pick=SEEDS)
def test_a_name_alone_changes_nothing_first_and_what_would_change_can_be_made(seed, pick):
    show = show_of_seed(seed)
    flow = flow_of(show)
    named = [one for kind in ("channel", "mix") for one in show.in_use(kind)]
    if not named:
        return
    strip = named[pick % len(named)]
    name = show.text(f"{strip}/name") or strip.replace("/", " ")
    answers = find(show, flow, name).answers
    assert not answers or answers[0].group != "change" or not name.isalnum()
    first = find(show, flow, f"mute {strip.replace('/', ' ')}").answers[0]
    try:
        after = edited(show, flow, dict(first.moves)).show
    except ConsoleError:
        return  # refused in words, as any hand's would be
    assert after.on(f"{strip}/mute")


@settings(max_examples=150)
@given(st.text(max_size=80))
def test_whatever_is_typed_is_read_or_left_unread(text):
    told = found(text)
    assert all(one.title for one in told.answers)
    assert len(told.answers) <= 20

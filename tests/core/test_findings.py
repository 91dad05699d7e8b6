import pytest
from hypothesis import example, given, settings

from ombrel.core import (
    LineDraft,
    Value,
    add_lines,
    alike,
    blank_show,
    duplicate_lines,
    findings,
    first_steps,
    made,
    patch_lines,
    set_kind,
    show_of,
    suggested_gains,
)
from ombrel.core.findings.found import RULES
from ombrel.core.patching import preamp_of
from tests.desks import TINY, TOURING
from tests.shows import often, show_of_seed, shows

BLANK = blank_show(TINY)


def stage(*drafts, **extra):
    """Lines on a show, patched, with further values; addresses spelt with __ for /."""
    show, _ = made(BLANK, add_lines(BLANK, drafts))
    show, _ = made(show, patch_lines(show, show.lines()))
    return made(show, {key.replace("__", "/"): value for key, value in extra.items()})[0]


MIC = LineDraft(name="Fiddle", kind="condenser", phantom=True, level_dbu=-35.0)
RADIO = LineDraft(name="Radio", kind="radio", level_dbu=-20.0)
CLEAN = {"input__a__1__phantom": True}


def found(show):
    return {finding.rule: finding for finding in findings(show)}


@pytest.mark.parametrize(
    ("show", "rule", "tone", "says"),
    [
        (stage(MIC, **CLEAN, line__1__socket=None), "line_without_socket", "settle", "Fiddle has"),
        (
            stage(LineDraft(name="Keys", stereo=True), line__1__socket_right=None),
            "line_without_socket",
            "settle",
            "its right side",
        ),
        (stage(MIC, **CLEAN, channel__1__source=None), "line_without_channel", "settle", "reaches"),
        (stage(channel__1__name="Kora"), "channel_without_source", "note", "Kora has no source"),
        (
            stage(MIC, **CLEAN, channel__1__on_spare=True),
            "channel_without_source",
            "settle",
            "Fiddle has no source",
        ),
        (
            stage(
                MIC,
                **CLEAN,
                mix__1__format="mono",
                output__local__1__source="mix/1",
                channel__2__source="mix/1",
                channel__2__send__mix__1__level=-5.5,
            ),
            "loop_near_howling",
            "settle",
            "Channel 2, Mix 1, Channel 2: a loop of \N{MINUS SIGN}5.5 dB",
        ),
        (
            stage(mix__1__format="mono", mix__1__serves="effect", engine__1__source="mix/1"),
            "effect_half_wired",
            "settle",
            "Mix 1 feeds Engine 1, which comes back on no return",
        ),
        (
            stage(return__1__source="engine/2"),
            "effect_half_wired",
            "settle",
            "Return 1 takes Engine 2, fed by no mix",
        ),
        (
            stage(MIC, **CLEAN, channel__2__spare="input/a/4"),
            "channel_without_source",
            "settle",
            "Channel 2 has no source",
        ),
        (stage(MIC), "phantom_missing", "settle", "needs 48 V, and it is off at A 1"),
        (
            stage(LineDraft(name="Choir", kind="condenser"), **CLEAN),
            "phantom_not_said",
            "note",
            "Choir is a condenser",
        ),
        (stage(RADIO, **CLEAN), "phantom_not_wanted", "settle", "Radio (radio) needs none"),
        (
            stage(LineDraft(name="Kick"), **CLEAN),
            "phantom_not_wanted",
            "note",
            "Kick (dynamic) needs none",
        ),
        (stage(RADIO, input__a__1__gain=43.0), "past_full_scale", "settle", "+1.0 dBFS at A 1"),
        (
            stage(MIC, **CLEAN, channel__3__source="input/a/1", channel__3__name="Fiddle wet"),
            "shared_preamp",
            "note",
            "Fiddle, Fiddle wet share",
        ),
        (stage(mix__1__format="stereo"), "mix_that_goes_nowhere", "settle", "Mix 1 goes to no"),
        (stage(output__a__1__label="Wedge"), "output_taken_by_nothing", "note", "Wedge is conn"),
        (stage(MIC, **CLEAN, channel__1__spare="input/a/4"), "spare_dead", "note", "nothing is"),
        (stage(MIC, **CLEAN, channel__1__spare="input/a/1"), "spare_dead", "note", "own source"),
    ],
    ids=lambda value: value if isinstance(value, str) else "",
)
def test_each_rule_finds_its_fault_and_its_remedy_settles_it(show, rule, tone, says):
    finding = found(show)[rule]
    assert finding.tone == tone
    assert says in finding.says
    if finding.remedy:
        assert rule not in found(made(show, finding.moves)[0])


def test_a_clean_stage_has_no_findings_and_an_empty_one_neither():
    assert findings(BLANK) == ()
    assert findings(stage(MIC, **CLEAN)) == ()


@given(shows())
@settings(max_examples=often(40))
@example(show_of_seed(880))  # a way so late that no delay makes up for it
def test_no_show_is_too_odd_for_the_rules_and_every_remedy_can_be_made(show):
    found = findings(show)
    for finding in found:
        assert finding.says.endswith(".")
        assert "is refused" not in finding.says
        made(show, finding.moves)
        assert bool(finding.remedy) == bool(finding.moves)
    tones = [finding.tone for finding in found]
    assert tones == sorted(tones, reverse=True)  # what is to settle comes first
    assert len(RULES) == 57


def test_the_first_steps_are_done_one_after_another_by_the_work_itself():
    """What a new show lacks, by the values that the jobs leave behind."""

    def done(show):
        return [step.key for step in first_steps(show) if step.done]

    show, _ = made(BLANK, add_lines(BLANK, [LineDraft(name="Kick"), LineDraft(name="Snare")]))
    assert (done(BLANK), done(show)) == ([], ["list"])
    assert "2 of 2 have none" in first_steps(show)[1].says
    half, _ = made(show, patch_lines(show, [1]))
    assert done(half) == ["list"]
    assert "1 of 2 have none" in first_steps(half)[1].says
    for moves, key in (
        (patch_lines(show, [1, 2]), "patched"),
        ({"mix/1/format": "mono", "output/a/1/source": "mix/1/left"}, "mixes"),
        ({"output/a/2/source": "mono"}, "outputs"),
        ({"line/2/check": "bad"}, "check"),  # a fault that was found is a check that was made
    ):
        before, (show, _) = done(show), made(show, moves)
        assert sorted([*before, key]) == sorted(done(show))
    again, _ = made(show, {"line/2/check": "unchecked", "output/a/2/source": None})
    assert done(again) == ["list", "patched", "mixes"]


def test_phantom_power_asks_for_care_and_nothing_else_does():
    show = stage(MIC, mix__1__format="mono")
    assert {finding.rule: finding.careful for finding in findings(show)} == {
        "phantom_missing": True,
        "mix_that_goes_nowhere": False,
    }


def test_a_suggested_gain_brings_the_line_to_the_target_within_the_preamps_range():
    """Sums shown: -18 + 22 + 35 = 39 dB; with the 20 dB pad 59; at -40 dBFS 17; 70 is beyond 60."""
    show = stage(MIC, **CLEAN)
    assert preamp_of(show, "input/a/1").suggested_db == 39.0
    assert preamp_of(show, "input/a/1").dbfs == pytest.approx(-57.0)
    padded, _ = made(show, {"input/a/1/pad": True})
    assert preamp_of(padded, "input/a/1").suggested_db == 59.0
    quiet, _ = made(show, {"show/target_dbfs": -40.0})
    assert preamp_of(quiet, "input/a/1").suggested_db == 17.0
    faint, _ = made(show, {"line/1/level_dbu": -66.0})
    assert preamp_of(faint, "input/a/1").suggested_db == 60.0
    set_, _ = made(show, suggested_gains(show, [1]))
    assert preamp_of(set_, "input/a/1").dbfs == pytest.approx(-18.0)
    assert preamp_of(show, "input/a/2") is None


def test_a_level_that_nobody_set_follows_the_kind_and_one_that_somebody_set_stays():
    show = stage(LineDraft(name="Kick"), LineDraft(name="Snare", level_dbu=-28.0))
    show, _ = made(show, set_kind(show, [1, 2], "radio"))
    assert [show[f"line/{n}/level_dbu"] for n in (1, 2)] == [-20.0, -28.0]
    assert [show[f"line/{n}/kind"] for n in (1, 2)] == ["radio", "radio"]


def test_a_duplicated_line_has_all_but_the_sockets():
    show = stage(MIC, **CLEAN)
    show, _ = made(show, duplicate_lines(show, [1]))
    assert show.lines() == [1, 2]
    assert (show["line/2/name"], show["line/2/phantom"]) == ("Fiddle", True)
    assert show["line/2/socket"] is None


def test_many_of_one_kind_are_one_that_opens_and_one_action_mends_them_all():
    """In the order in which people count sockets: A 2 before A 10."""
    values: dict[str, Value] = {}
    for n in range(1, 13):
        values |= {f"line/{n}/place": float(n), f"line/{n}/name": f"Over {n}",
                   f"line/{n}/kind": "condenser", f"line/{n}/phantom": True,
                   f"line/{n}/socket": f"input/a/{n}",
                   f"channel/{n}/source": f"input/a/{n}"}  # fmt: skip
    show = show_of(TOURING, values)
    found = findings(show)
    missing = [one for one in found if one.rule == "phantom_missing"]
    assert [one.about for one in missing] == [f"line/{n}" for n in range(1, 13)]
    (head,) = [one for one in alike(found) if one.rule == "phantom_missing"]
    assert head.says == "12 lines need 48 V, and it is off at their preamps."
    assert (head.remedy, head.careful, len(head.moves)) == ("48 V on at all", True, 12)
    after, _ = made(show, head.moves)
    assert not [one for one in findings(after) if one.rule == "phantom_missing"]
    # each of these would take the same next free socket: together they have no remedy
    loose = {a: v for a, v in values.items() if a.endswith(("/place", "/kind"))}
    (head,) = [
        one for one in alike(findings(show_of(TOURING, loose))) if one.rule == "line_without_socket"
    ]
    assert (head.says, head.remedy, head.moves) == ("12 lines lack a socket.", "", {})
    few = show_of(TOURING, {a: v for a, v in values.items() if int(a.split("/")[1]) < 6})
    assert not [one for one in alike(findings(few)) if one.rule == "phantom_missing"]


@given(shows())
@settings(max_examples=often(25))
def test_what_is_told_together_is_what_was_found_and_can_be_made(show):
    found = findings(show)
    for head in alike(found):
        some = [one for one in found if (one.rule, one.tone) == (head.rule, head.tone)]
        assert head.says.startswith(f"{len(some)} ")
        assert bool(head.remedy) == bool(head.moves)
        made(show, head.moves)

"""Findings: what Ombrel noticed without being asked. RULES is all of them."""

from collections.abc import Iterable
from dataclasses import replace
from typing import Final

from ..catalogue import Address, bears, parameter_at
from ..edit import check_edit
from ..flow import Flow, feeds_back, has_loop, same_ways
from ..show import Show
from ..together import joining
from ..values import ConsoleError, FeedbackLoop
from ..words import refusal
from .effects import (
    delay_off_tempo,
    effect_half_wired,
    effect_not_wet,
    effect_send_before_fader,
    monitor_send_after_fader,
    return_feeds_its_own_effect,
)
from .fittings import fitting_unused, part_vacant, performer_without_fitting, pulled_both_ways
from .full_scale import bus_past_full_scale, past_full_scale
from .lines import (
    channel_without_source,
    line_without_channel,
    line_without_socket,
    phantom_missing,
    phantom_not_said,
    phantom_not_wanted,
    playback_on,
    shared_preamp,
    spare_dead,
)
from .outputs import (
    cue_missing,
    mix_that_goes_nowhere,
    output_taken_by_nothing,
    self_missing,
)
from .promise_broken import lift_breaks_promise, promise_broken
from .rule import Finding, Look, Rule
from .rulers import (
    empty_dca,
    gang_in_vain,
    ruled_twice,
    silenced_thrice,
    talkback_shut,
    twice_on_a_way,
)
from .scenes import (
    cue_for_hands,
    cue_in_vain,
    cue_twice,
    cues_alike,
    scene_breaks_promise,
    scene_changes_nothing,
    scene_lacks,
    scene_passed_by,
)
from .sharing import (
    chair_never_wins,
    gate_where_gain_is_shared,
    group_of_one,
    held_open_and_silent,
    limit_in_vain,
    music_shares_gain,
    shared_apart,
    taken_before_it_is_shared,
)
from .tracks import (
    scene_moves_a_track,
    stereo_split,
    track_past_full_scale,
    track_twice,
    wish_moved_on,
    wish_on_no_track,
)
from .ways import loop_near_howling, ways_apart

__all__ = ["RULES", "Finding", "bears_on_findings", "findings"]

RULES: Final[tuple[Rule, ...]] = (
    promise_broken,
    lift_breaks_promise,
    past_full_scale,
    bus_past_full_scale,
    loop_near_howling,
    phantom_missing,
    phantom_not_said,
    phantom_not_wanted,
    playback_on,
    line_without_socket,
    line_without_channel,
    channel_without_source,
    mix_that_goes_nowhere,
    cue_missing,
    self_missing,
    effect_half_wired,
    effect_not_wet,
    effect_send_before_fader,
    monitor_send_after_fader,
    return_feeds_its_own_effect,
    delay_off_tempo,
    ways_apart,
    spare_dead,
    output_taken_by_nothing,
    shared_preamp,
    talkback_shut,
    ruled_twice,
    twice_on_a_way,
    silenced_thrice,
    empty_dca,
    gang_in_vain,
    shared_apart,
    taken_before_it_is_shared,
    music_shares_gain,
    gate_where_gain_is_shared,
    held_open_and_silent,
    group_of_one,
    limit_in_vain,
    chair_never_wins,
    wish_moved_on,
    wish_on_no_track,
    track_past_full_scale,
    track_twice,
    stereo_split,
    scene_moves_a_track,
    scene_breaks_promise,
    scene_passed_by,
    scene_lacks,
    scene_changes_nothing,
    cue_twice,
    cue_in_vain,
    cue_for_hands,
    cues_alike,
    performer_without_fitting,
    part_vacant,
    pulled_both_ways,
    fitting_unused,
)


def findings(show: Show, flow: Flow | None = None) -> tuple[Finding, ...]:
    """All findings of a show, what is to settle first, in the order of the rules.

    `flow`: the show's flow if it is at hand.
    """
    look = Look(show, flow)
    found = [_with_what_joins(show, finding) for rule in RULES for finding in rule(look)]
    if feeds_back(show):
        found = [_without_what_howls(look, finding) for finding in found]
    return tuple(sorted(found, key=lambda finding: finding.tone != "settle"))


def _with_what_joins(show: Show, finding: Finding) -> Finding:
    """The finding, with the mixes told that a channel joins by its remedy."""
    joins = joining(show, finding.moves) if finding.moves else ""
    return (
        replace(finding, remedy=f"{finding.remedy}; it joins {joins} by that") if joins else finding
    )


def _without_what_howls(look: Look, finding: Finding) -> Finding:
    """The finding, without a remedy that would be refused."""
    if not finding.moves:
        return finding
    try:
        check_edit(look.show, look.flow, finding.moves)
    except FeedbackLoop:
        says = f"{finding.says} What would mend it would close a loop."
        return replace(finding, says=says, remedy="", moves={})
    except ConsoleError as error:  # a fault of its rule, which takes no other finding with it
        says = f"{finding.says} What would mend it is refused: {refusal(error, look.show)}"
        return replace(finding, says=says, remedy="", moves={})
    return finding


# Levels, mutes, pans and sends change in every second of a show, and no rule looks at them, save
# that of loops, where there can be any, and that of strips which several things mute.
_ASPECTS: Final = frozenset(
    {
        "cast",
        "cues",
        "dcas",
        "delay",
        "ears",
        "effects",
        "fittings",
        "gangs",
        "inserts",
        "lifts",
        "lines",
        "mute_groups",
        "name",
        "outputs",
        "part",
        "patch",
        "phantom",
        "preamp",
        "promises",
        "routing",
        "scenes",
        "sharing",
        "tracks",
    }
)
_OF_FEEDS: Final = frozenset({"pan", "sends"})
_OF_LOOPS: Final = frozenset({"fader", "mute", "pan", "sends"})


def bears_on_findings(addresses: Iterable[str], *flows: Flow) -> bool:
    """Whether a change at some addresses can change what is found. Raises UnknownAddress.

    `flows`: of the show before and after it; levels count only where there is a loop, or where a
    feed goes on or off, on which promises hang.
    """
    addresses = list(addresses)
    aspects = {parameter_at(address).aspect for address in addresses}
    if "mute" in aspects and any(_ruled(flow, addresses) for flow in flows):
        return True
    if aspects & _ASPECTS or bears("findings", addresses):
        return True
    if aspects & _OF_FEEDS and not all(same_ways(flows[0], flow) for flow in flows[1:]):
        return True
    return bool(aspects & _OF_LOOPS) and any(map(has_loop, flows))


def _ruled(flow: Flow, addresses: Iterable[str]) -> bool:
    """Whether some of these mute a strip that DCAs or mute groups rule too."""
    arrays, index = flow.arrays, flow.layout.index
    for address in addresses:
        if parameter_at(address).aspect != "mute":
            continue
        place = index.get(Address.at(address).stem)
        if place is None or arrays.dca_of[place].any() or arrays.group_of[place].any():
            return True
    return False

"""What each member's share is now, from levels as they are measured, step by step; no clock."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType
from typing import Final

import numpy as np

from ..flow import Flow, with_stages
from ..patching import channel_meters
from ..processing import FLOOR_DB, shared_gains, smoothed_power, sum_db
from ..show import Show
from ..values import said
from .groups import Sharer, Sharing, Standing, sharings, stages_of, standing_of
from .levels import Floats, level_db, powers_behind

__all__ = ["AT_REST", "GroupNow", "Mean", "SharerNow", "after_step"]

_WORDS: Final[Mapping[Standing, str]] = {
    "out": "out", "muted": "silent", "held": "held open", "shares": "shares",
}  # fmt: skip
_SPEAKS_DBFS: Final = -60.0  # what is quieter has no floor: the hum of a room


@dataclass(frozen=True, slots=True)
class Mean:
    """Of a member: its mean power behind the fader, full scale 1, and its gain, in power."""

    power: float
    gain: float


AT_REST: Final[Mapping[str, Mean]] = MappingProxyType({})


@dataclass(frozen=True, slots=True, kw_only=True)
class SharerNow:
    """A member now. `level_dbfs`: its mean behind the fader, as with its share at 0 dB; `gain_db`:

    its gain (-inf where it has none), `share` in power, 0 to 1, 0 for who is in no sum; `says`: the
    gain in words.
    """

    strip: str
    standing: Standing
    level_dbfs: float
    gain_db: float
    share: float
    says: str


@dataclass(frozen=True, slots=True, kw_only=True)
class GroupNow:
    """A group now. `floor`: the strip that speaks loudest, weights counted, "" for nobody.

    `over_db`: by how much a limit lets all shares together exceed one open microphone.
    """

    group: str
    floor: str
    over_db: float
    members: tuple[SharerNow, ...]


def after_step(
    show: Show,
    flow: Flow,
    before: Mapping[str, Mean],
    levels_dbu: Mapping[str, float],
    elapsed_s: float,
) -> tuple[Mapping[str, Mean], tuple[GroupNow, ...]]:
    """Means and shares after levels (dBu by socket; others silent) stood for some seconds.

    `before`: what the last step gave, `AT_REST` at first; who has no share is at the floor. What
    is a bus takes what comes with the shares that these have: of groups without such members
    now, of others at the last step. `elapsed_s`: 0 or more.
    """
    own = np.zeros(flow.layout.rows)
    for channel, dbfs in channel_meters(show, levels_dbu).items():
        own[channel - 1] = 10.0 ** (dbfs / 20.0) if flow.sourced[channel - 1] else 0.0
    groups = sharings(show)
    means: dict[str, Mean] = {}
    found: dict[str, GroupNow] = {}
    late = [group for group in groups if group.is_fed(flow)]
    for group in groups:
        if group not in late:
            found[group.group] = _stepped(flow, flow, group, own, before, elapsed_s, means)
    if late:
        ways = _as_shared(flow, groups, {**before, **means})
        for group in late:
            found[group.group] = _stepped(flow, ways, group, own, before, elapsed_s, means)
    return means, tuple(found[group.group] for group in groups)


def _as_shared(flow: Flow, groups: Sequence[Sharing], means: Mapping[str, Mean]) -> Flow:
    """What arrives where with the shares that members have."""
    stage = flow.arrays.stage.copy()
    for group in groups:
        members = [one for one in group.in_sum(flow) if one.strip in means]
        strips, places = stages_of(flow, members)
        gains = [means[one.strip].gain for one in members for _ in one.sides]
        stage[strips, places] = np.sqrt(gains)
    return with_stages(flow, stage)


def _stepped(
    flow: Flow,
    ways: Flow,
    group: Sharing,
    own: Floats,
    before: Mapping[str, Mean],
    elapsed_s: float,
    means: dict[str, Mean],
) -> GroupNow:
    """A group after a step; its means go into `means`."""
    sharing = group.in_sum(flow)
    floor = 10.0 ** (FLOOR_DB / 10.0)
    was = np.array([before[m.strip].power if m.strip in before else floor for m in sharing])
    power = smoothed_power(
        was, powers_behind(flow, own, sharing, ways), elapsed_s=elapsed_s, time_s=group.time_s
    )
    weights = np.array([one.weight_db for one in sharing])
    gains = shared_gains(power, weights, limit_db=group.limit_db)
    for one, mean, gain in zip(sharing, power.tolist(), gains.tolist(), strict=True):
        means[one.strip] = Mean(mean, gain)
    return GroupNow(
        group=group.group,
        floor=_floor(means, sharing),
        over_db=sum_db(gains),
        members=tuple(_told(flow, one, means.get(one.strip)) for one in group.members),
    )


def _floor(means: Mapping[str, Mean], sharing: Sequence[Sharer]) -> str:
    speaking = [one for one in sharing if level_db(means[one.strip].power) > _SPEAKS_DBFS]
    return max(speaking, key=lambda one: means[one.strip].gain).strip if speaking else ""


def _told(flow: Flow, one: Sharer, mean: Mean | None) -> SharerNow:
    if mean is not None:
        gain_db = level_db(mean.gain)
        return SharerNow(
            strip=one.strip,
            standing="shares",
            level_dbfs=level_db(mean.power),
            gain_db=gain_db,
            share=mean.gain,
            says=f"{said(gain_db)} dB",
        )
    standing = standing_of(flow, one)
    says = _WORDS[standing]
    gain_db = 0.0 if standing == "held" else -math.inf
    return SharerNow(
        strip=one.strip,
        standing=standing,
        level_dbfs=-math.inf,
        gain_db=gain_db,
        share=0.0,
        says=says,
    )

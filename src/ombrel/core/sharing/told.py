"""What sharing gain is to one strip, in words."""

from collections.abc import Mapping

import numpy as np

from ..flow import Flow
from ..show import Show
from ..together import member_for
from ..values import said
from ..wires import sharing_stages
from .groups import group_of, sharing_in, standing_of
from .tried import expected_shares

__all__ = ["share_told", "shares_at"]

_COUNTS = ("no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten",
           "eleven", "twelve")  # fmt: skip


def shares_at(flow: Flow, strip: int, stage: int) -> bool:
    """Whether a strip, a member of a group, shares its gain in a stage (both by number)."""
    return int(sharing_stages(flow.arrays, np.array([strip]))[0]) == stage


def share_told(show: Show, flow: Flow, strip: str, now: Mapping[str, float]) -> str:
    """How a strip shares gain: "shares gain in Panel: -9.1 dB now, 0 alone, -9.0 when all eight

    speak". `now`: the share of members at this moment in dB, by strip, of those that are measured.
    """
    group = sharing_in(show, group_of(show, strip) or "")
    member = member_for(show, strip)
    own = next((one for one in group.members if one.strip == member), None) if group else None
    if group is None or own is None:
        return "shares gain with nobody"
    standing = standing_of(flow, own)
    if standing == "out":
        return f"out of {group.name}"
    if standing == "muted":
        return f"shares gain in {group.name}: no share while it is silent"
    if standing == "held":
        return f"held open in {group.name}"
    sharing = group.in_sum(flow)
    if len(sharing) == 1:
        return f"shares gain in {group.name}: 0 dB, nobody else speaks there"
    shares = expected_shares(show, flow, group)
    parts = [f"{said(now[member])} dB now"] if member in now else []
    parts.append("0 dB alone" if not parts else "0 alone")
    many = len(sharing)
    all_of_them = _COUNTS[many] if many < len(_COUNTS) else str(many)
    both = "both" if many == 2 else f"all {all_of_them}"
    parts.append(f"{said(shares[member])} when {both} speak")
    return f"shares gain in {group.name}: {', '.join(parts)}"

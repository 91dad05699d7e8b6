"""Findings: what Ombrel noticed without being asked. One rule a module; RULES is all of them."""

from typing import Final

from ..addresses import parameter_at
from ..show import Show
from .channel_without_source import channel_without_source
from .line_without_channel import line_without_channel
from .line_without_socket import line_without_socket
from .outputs import mix_that_goes_nowhere, output_taken_by_nothing
from .past_full_scale import past_full_scale
from .phantom import phantom_missing, phantom_not_wanted
from .rule import Finding, Look, Rule
from .shared_preamp import shared_preamp
from .spare_dead import spare_dead
from .two_lines_on_a_socket import two_lines_on_a_socket

__all__ = ["Finding", "RULES", "bears_on_findings", "findings"]

RULES: Final[tuple[Rule, ...]] = (
    past_full_scale,
    two_lines_on_a_socket,
    phantom_missing,
    phantom_not_wanted,
    line_without_socket,
    line_without_channel,
    channel_without_source,
    mix_that_goes_nowhere,
    spare_dead,
    output_taken_by_nothing,
    shared_preamp,
)


def findings(show: Show) -> tuple[Finding, ...]:
    """All findings of a show, what is to settle first, in the order of the rules."""
    look = Look(show)
    found = [finding for rule in RULES for finding in rule(look)]
    return tuple(sorted(found, key=lambda finding: finding.tone != "settle"))


# Levels, mutes, pans and sends change in every second of a show, and no rule looks at them.
_ASPECTS: Final = frozenset({"lines", "name", "outputs", "patch", "phantom", "preamp", "routing"})


def bears_on_findings(address: str) -> bool:
    """Whether a change at an address can change what is found. Raises UnknownAddress."""
    return parameter_at(address).aspect in _ASPECTS

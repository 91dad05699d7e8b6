"""Who may do what in a show: roles, judged by what an edit changes, and what volunteers ride."""

from .given import (
    Given,
    RiddenFader,
    RiddenKey,
    given_name,
    given_there,
    read_given,
    renumbered_given,
    ridden,
    ride_fader,
    ride_key,
    ride_lift,
    to_give,
)
from .roles import Act, Role, check_access, may

__all__ = [
    "Act",
    "Given",
    "RiddenFader",
    "RiddenKey",
    "Role",
    "check_access",
    "given_name",
    "given_there",
    "may",
    "read_given",
    "renumbered_given",
    "ridden",
    "ride_fader",
    "ride_key",
    "ride_lift",
    "to_give",
]

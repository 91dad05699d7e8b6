"""What an edit can ask for at an address: a value, a typed text, or a place of a fader's travel."""

from dataclasses import dataclass

from .kinds import Value

__all__ = ["Asked", "Travel", "Typed"]


@dataclass(frozen=True, slots=True)
class Typed:
    """A value as a person typed it, read by the kind of its address; may be relative."""

    text: str


@dataclass(frozen=True, slots=True)
class Travel:
    """A place of a control's travel, 0.0 to 1.0."""

    fraction: float


Asked = Value | Typed | Travel

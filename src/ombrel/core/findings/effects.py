"""Effects that are half wired: an engine without a return, a return without what feeds it."""

from collections.abc import Iterator

from ..flow import strip_name
from .rule import Finding, Look

__all__ = ["effect_half_wired"]


def effect_half_wired(look: Look) -> Iterator[Finding]:
    """One finding an engine or return."""
    show = look.show
    returned = set()
    for number in range(1, show.desk.returns + 1):
        back = f"return/{number}"
        source = show[f"{back}/source"]
        if isinstance(source, str):
            returned.add(source)
            if source.startswith("engine/") and show[f"{source}/source"] is None:
                says = f"{strip_name(show, back)} takes {strip_name(show, source)}, fed by no mix."
                yield _finding(says, back)
        elif show.text(f"{back}/name"):
            yield _finding(f"{strip_name(show, back)} has no source.", back)
    for number in range(1, show.desk.effect_engines + 1):
        engine = f"engine/{number}"
        mix = show[f"{engine}/source"]
        if isinstance(mix, str) and engine not in returned:
            says = f"{strip_name(show, mix)} feeds {strip_name(show, engine)}, which comes back"
            yield _finding(f"{says} on no return.", mix)


def _finding(says: str, about: str) -> Finding:
    return Finding(rule="effect_half_wired", tone="settle", says=says, about=about)

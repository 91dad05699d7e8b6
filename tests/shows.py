"""Random shows for property tests: any address of a desk, with any value that it accepts."""

import math

from hypothesis import strategies as st

from ombrel.core import (
    Choice,
    Desk,
    Number,
    Reference,
    Show,
    Switch,
    addresses_of,
    blank_show,
    made,
    parameter_at,
)
from tests.desks import TINY


def value_for(address: str, desk: Desk) -> st.SearchStrategy:
    """Any value that an address accepts, silence and the ends of its range included."""
    kind = parameter_at(address).kind
    if isinstance(kind, Number):
        if kind.whole:
            return st.integers(int(kind.lowest), int(kind.highest)).map(float)
        finite = st.floats(max(kind.lowest, -90.0), kind.highest).map(lambda x: round(x, 1) + 0.0)
        if kind.lowest == -math.inf:
            return st.one_of(st.just(-math.inf), st.just(0.0), finite)
        return finite
    if isinstance(kind, Switch):
        return st.booleans()
    if isinstance(kind, Choice):
        return st.sampled_from(kind.options)
    if isinstance(kind, Reference):
        return st.one_of(st.none(), st.sampled_from(targets(kind, desk)))
    return st.text("aBç–9 \U0001f3bb", max_size=12)


def targets(kind: Reference, desk: Desk) -> list[str]:
    if kind.to[0].startswith("input"):
        inputs = [f"input/{box.key}/{n}" for box in desk.boxes for n in range(1, box.inputs + 1)]
        return [*inputs, *kind.to[1:]]
    mixes = range(1, desk.mixes + 1)
    sides = [f"mix/{n}{side}" for n in mixes for side in ("", "/left", "/right")]
    direct = [f"channel/{n}/direct" for n in range(1, desk.channels + 1)]
    return [*sides, "house", "house/left", "house/right", "mono", *direct]


def moves(desk: Desk = TINY, *, most: int = 40) -> st.SearchStrategy:
    """An edit: some addresses of the desk with values."""
    strip_addresses = [
        a for a in addresses_of(desk) if not a.startswith("line/") or int(a.split("/")[1]) <= 3
    ]

    @st.composite
    def drawn(draw: st.DrawFn) -> dict:
        chosen = draw(st.lists(st.sampled_from(strip_addresses), max_size=most, unique=True))
        return {address: draw(value_for(address, desk)) for address in chosen}

    return drawn()


@st.composite
def shows(draw: st.DrawFn, desk: Desk = TINY) -> Show:
    """A show in which channels tend to have sources, mixes to be in use and buses to be patched:

    otherwise most random shows would be silent and prove little.
    """
    usual: dict = {}
    for channel in range(1, desk.channels + 1):
        usual[f"channel/{channel}/source"] = f"input/local/{channel}"
        usual[f"channel/{channel}/fader"] = draw(value_for("channel/1/fader", desk))
        for mix in range(1, desk.mixes + 1):
            send = f"channel/{channel}/send/mix/{mix}"
            usual[f"{send}/level"] = draw(value_for(f"{send}/level", desk))
            usual[f"{send}/tap"] = draw(value_for(f"{send}/tap", desk))
    for mix in range(1, desk.mixes + 1):
        usual[f"mix/{mix}/format"] = draw(st.sampled_from(["mono", "stereo"]))
        usual[f"output/local/{mix}/source"] = f"mix/{mix}/left"
        usual[f"output/a/{mix}/source"] = f"mix/{mix}/right"
    for output in ("local/1", "a/1", "local/7", "a/4"):
        for leaf in draw(st.sampled_from([(), ("tap",), ("trim",), ("tap", "trim")])):
            address = f"output/{output}/{leaf}"
            usual[address] = draw(value_for(address, desk))
    usual["channel/2/spare"] = draw(value_for("channel/2/spare", desk))
    usual["channel/2/on_spare"] = draw(st.booleans())
    usual["output/local/7/source"], usual["output/local/8/source"] = "house/left", "house/right"
    usual["output/a/4/source"] = "mono"
    show, _ = made(blank_show(desk), usual)
    return made(show, draw(moves(desk)))[0]

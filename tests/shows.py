"""Random shows for property tests: any address of a desk, with any value that it accepts."""

import math

from hypothesis import assume
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
        inner = [one for one in kind.to[1:] if one in ("oscillator", "talkback")]
        return [*inputs, *inner]  # buses that feed channels come in by `shows`, without loops
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


# Channel 4 fed by a bus that it does not feed itself, or the usual way.
FED_BY_A_BUS = (
    {},
    {"channel/4/source": "mix/1/left", "channel/4/send/mix/1/on": False},
    {"channel/4/source": "mix/2/right", "channel/4/send/mix/2/on": False},
    {"channel/4/source": "mix/3", "channel/4/send/mix/3/on": False},
    {"channel/4/source": "house", "channel/4/house/on": False},
)


def fed_by_itself(show: Show) -> bool:
    """Whether channel 4 feeds the bus that feeds it: what a walk without loops cannot follow."""
    words = (show.source_of(4) or "").split("/")
    if words[0] in ("house", "mono"):
        return show.on(f"channel/4/{words[0]}/on")
    if words[0] == "mix":
        send = f"channel/4/send/mix/{words[1]}"
        return show.on(f"{send}/on") and show.number(f"{send}/level") > -math.inf
    return False


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
    usual.update(draw(st.sampled_from(FED_BY_A_BUS)))
    usual["output/local/7/source"], usual["output/local/8/source"] = "house/left", "house/right"
    usual["output/a/4/source"] = "mono"
    show, _ = made(blank_show(desk), usual)
    show = made(show, draw(moves(desk)))[0]
    assume(not fed_by_itself(show))
    return show

"""The desk profiles that ship with Ombrel, read from their files, and a tiny one for properties."""

from importlib.resources import files

from ombrel.core import Bay, Box, Desk
from ombrel.formats.desk_profile import read_desk


def shipped(key: str) -> Desk:
    return read_desk(key, (files("ombrel") / "desks" / f"{key}.json").read_bytes())


TOURING = shipped("touring-48")
FESTIVAL = shipped("festival-128")
SMALL = shipped("small-24")

TINY = Desk(
    key="tiny",
    name="Tiny",
    channels=4,
    returns=2,
    groups=3,
    mixes=3,
    matrices=2,
    dcas=3,
    mute_groups=2,
    effect_engines=2,
    sharing_groups=2,
    sharing_places=7,
    sharing_inserts=1,
    full_scale_dbu=22.0,
    gain_db=(0.0, 60.0),
    pad_db=20.0,
    boxes=(
        Box(key="local", name="Local", short="Local", inputs=4, outputs=8, preamps=True),
        Box(key="a", name="Stage box A", short="A", inputs=4, outputs=4, preamps=True),
    ),
    bays=(Bay(name="Left", faders=3), Bay(name="Right", faders=2)),
)

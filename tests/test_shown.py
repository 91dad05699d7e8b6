"""What a field of the browser shows, typed again, is that value, over every parameter; and things

are called there as the core calls them.
"""

import json
import math
import random
import subprocess
from pathlib import Path

from ombrel.core import Show, parameter_at, strip_name
from ombrel.core.catalogue import BUSES, KINDS, LONE, Thing, addresses_of, is_on_desk, kind_on
from ombrel.core.show.sockets import INNER_SOURCES, socket_name
from ombrel.core.values.kinds import Choice, Number, Switch
from tests.desks import SMALL, TOURING

NAMES = ("Kick", "  Vox ", "Ümläut", "0", "a/b", "x" * 40)
WEB = Path(__file__).parents[1] / "web"


def values_of(kind, draw):
    """Values that a person may leave in a field: both ends, what lies at zero, any step."""
    match kind:
        case Switch():
            return [True, False]
        case Choice():
            return list(kind.options)
        case Number():
            low = max(kind.lowest, kind.lowest_finite)
            steps = round((kind.highest - low) / kind.step)
            if not 0 < steps < 1e15:
                return []  # a kept place, or a time: no field has it
            any_step = [draw.randint(0, steps) * kind.step for _ in range(12)]
            near = {low + one for one in any_step} | {low, kind.highest, low + kind.step}
            near |= {one for one in (0.0, 1.0, -1.0, 1_000.0, 999.0) if low <= one <= kind.highest}
            if kind.unit == "pan":
                return [round(one, 2) + 0.0 for one in near]
            found = [kind.typed(f"{one:.6f}", 0.0, "") for one in near]
            return found + ([-math.inf] if kind.lowest == -math.inf else [])
    return []


def browser_says(script, asked):
    """What the browser's own code says to a file of questions."""
    return json.loads(
        subprocess.run(
            ["node_modules/.bin/vite-node", f"../tests/{script}", str(asked)],
            cwd=WEB, text=True, check=True, stdout=subprocess.PIPE, timeout=120,
        ).stdout
    )  # fmt: skip


def test_what_is_shown_is_read_as_the_value_that_it_shows(tmp_path):
    draw = random.Random(29)
    first = {}
    for address in addresses_of(TOURING):
        first.setdefault(parameter_at(address).key, (address, kind_on(TOURING, address)))
    rows = [
        (address, kind, value)
        for address, kind in first.values()
        for value in values_of(kind, draw)
    ]
    asked = tmp_path / "asked.json"
    asked.write_text(json.dumps([(at, kind.to_wire(value)) for at, kind, value in rows]))
    said = browser_says("shown.ts", asked)
    for (address, kind, value), text in zip(rows, said, strict=True):
        for now in (value, kind.highest if isinstance(kind, Number) else value):
            assert kind.typed(text, now, address) == value, (address, value, text)
    assert len(rows) > 3_000


def test_everything_is_called_in_the_browser_as_in_the_core(tmp_path):
    draw = random.Random(30)
    strips = [
        strip
        for kind in (*KINDS, "dca", "mute_group", "engine", "bank")
        for strip in ([kind] if kind in LONE else [f"{kind}/{n}" for n in range(1, 9)])
        if strip in LONE or is_on_desk(SMALL, f"{strip}/name")
    ]
    inputs, outputs = list(Show(SMALL).inputs()), list(Show(SMALL).outputs())
    values = {
        f"{strip}/{'label' if strip in outputs else 'name'}": draw.choice(NAMES)
        for strip in (*strips, *outputs)
        if strip not in LONE and draw.random() < 0.6
    }
    show = Show(SMALL).with_values(values)
    buses = [strip for strip in strips if Thing.at(strip).kind in BUSES]
    sides = [f"{bus}/{side}" for bus in buses for side in ("left", "right")]
    sockets = [*inputs, *outputs, *INNER_SOURCES, *buses, *sides]
    asked = tmp_path / "asked.json"
    asked.write_text(json.dumps({"values": values, "strips": strips, "sockets": sockets}))
    names, places = browser_says("shown_names.ts", asked)
    assert names == [strip_name(show, strip) for strip in strips]
    assert places == [socket_name(SMALL, socket) for socket in sockets]

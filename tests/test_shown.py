"""What a field of the browser shows, typed again, is that value: over every parameter."""

import json
import math
import random
import subprocess
from pathlib import Path

from ombrel.core import parameter_at
from ombrel.core.catalogue import addresses_of, kind_on
from ombrel.core.values.kinds import Choice, Number, Switch
from tests.desks import TOURING

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
    said = subprocess.run(
        ["node_modules/.bin/vite-node", "../tests/shown.ts", str(asked)],
        cwd=WEB, text=True, check=True, stdout=subprocess.PIPE, timeout=120,
    ).stdout  # fmt: skip
    for (address, kind, value), text in zip(rows, json.loads(said), strict=True):
        for now in (value, kind.highest if isinstance(kind, Number) else value):
            assert kind.typed(text, now, address) == value, (address, value, text)
    assert len(rows) > 3_000

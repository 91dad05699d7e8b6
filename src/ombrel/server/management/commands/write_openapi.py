"""Writes the API's description, websocket messages included; the TypeScript types come from it.

And a desk as pages are told of it, on which the tests of the front end draw views; and the kinds of
strip, by which pages take addresses apart.
"""

import json
from dataclasses import asdict
from pathlib import Path
from typing import Any
from uuid import UUID

from django.core.management.base import BaseCommand
from pydantic import TypeAdapter

from ombrel import core

from ...api.routes import api
from ...api.shows import DeskReply, told_of
from ...keeping.desks import desk_of
from ...messages import from_screen, phone, rides, to_screen

PATH = Path(__file__).resolve().parents[2] / "openapi.json"
KINDS = Path(__file__).resolve().parents[5] / "web/src/data/generated/kinds.json"
DESK = Path(__file__).resolve().parents[5] / "web/src/data/generated/desk.json"


def description() -> str:
    """The OpenAPI description as JSON text."""
    schema: dict[str, Any] = json.loads(json.dumps(api.get_openapi_schema(path_prefix="/api/")))
    kinds: tuple[tuple[str, Any], ...] = (
        ("FromScreen", from_screen.FromScreen),
        ("ToScreen", to_screen.ToScreen),
        ("FromPhone", phone.FromPhone),
        ("PhoneMixes", phone.PhoneMixes),
        ("FromRider", rides.FromRider),
        ("Rides", rides.Rides),
    )
    for name, kind in kinds:
        adapter: TypeAdapter[Any] = TypeAdapter(kind)
        found = adapter.json_schema(
            ref_template="#/components/schemas/{model}",
            mode="validation" if name.startswith("From") else "serialization",
        )
        schema["components"]["schemas"].update(found.pop("$defs", {}))
        schema["components"]["schemas"][name] = found
    return json.dumps(schema, indent=1, sort_keys=True) + "\n"


def desk() -> str:
    """The smallest desk as `DeskReply` has it, an entry of the catalogue a line."""
    show = {"id": str(UUID(int=1)), "name": "A show to draw views on", "desk": "small-24"}
    told = DeskReply.model_validate(
        {"show": show, **told_of(desk_of("small-24"))}, from_attributes=True
    )
    rest = json.loads(told.model_dump_json())
    rows = ",\n".join(f"  {json.dumps(one)}" for one in rest.pop("parameters"))
    return json.dumps(rest, indent=1)[:-2] + f',\n "parameters": [\n{rows}\n ]\n}}\n'


def kinds() -> str:
    """What each kind of strip is and can, and the kinds of thing of which a desk has one."""
    told = {
        "lone": sorted(core.LONE),
        "words": core.OPTION_WORDS,
        "choices": {
            "devices": core.DEVICES,
            "line_kinds": core.LINE_KINDS,
            "serves": core.SERVES,
            "solo": core.SOLO_MODES,
            "taps": core.TAPS,
        },
        "kind_words": core.KIND_WORDS,
        "side_words": core.SIDE_WORDS,
        "bands": core.BANDS,
        "copied": core.COPIED,
        "stages": [asdict(stage) for stage in core.PATH_STAGES.values()],
        "strips": [{**asdict(kind), "feeds": dict(kind.feeds)} for kind in core.KINDS.values()],
    }
    return json.dumps(told, indent=1) + "\n"


class Command(BaseCommand):
    help = "Writes openapi.json, and web/src/data/generated/desk.json and kinds.json."

    def handle(self, *args: Any, **options: Any) -> None:
        PATH.write_text(description())
        DESK.write_text(desk())
        KINDS.write_text(kinds())
        self.stdout.write(f"wrote {PATH.name}, {DESK.name} and {KINDS.name}")

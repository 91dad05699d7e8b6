"""Writes the API's description, websocket messages included; the TypeScript types come from it."""

import json
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand
from pydantic import TypeAdapter

from ombrel.server import from_screen, to_screen
from ombrel.server.api import api

PATH = Path(__file__).resolve().parents[2] / "openapi.json"


def description() -> str:
    """The OpenAPI description as JSON text."""
    schema: dict[str, Any] = json.loads(json.dumps(api.get_openapi_schema(path_prefix="/api/")))
    kinds: tuple[tuple[str, Any], ...] = (
        ("FromScreen", from_screen.FromScreen),
        ("ToScreen", to_screen.ToScreen),
    )
    for name, kind in kinds:
        adapter: TypeAdapter[Any] = TypeAdapter(kind)
        found = adapter.json_schema(
            ref_template="#/components/schemas/{model}",
            mode="validation" if name == "FromScreen" else "serialization",
        )
        schema["components"]["schemas"].update(found.pop("$defs", {}))
        schema["components"]["schemas"][name] = found
    return json.dumps(schema, indent=1, sort_keys=True) + "\n"


class Command(BaseCommand):
    help = "Writes src/ombrel/server/openapi.json."

    def handle(self, *args: Any, **options: Any) -> None:
        PATH.write_text(description())
        self.stdout.write(f"wrote {PATH.name}")

"""Writes the published schema of the show file."""

import json
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand

from ombrel.formats.show_file import show_schema

PATH = Path(__file__).resolve().parents[5] / "docs" / "formats" / "show.schema.json"


def description() -> str:
    """The schema as JSON text."""
    return json.dumps(show_schema(), indent=1) + "\n"


class Command(BaseCommand):
    help = "Writes docs/formats/show.schema.json."

    def handle(self, *args: Any, **options: Any) -> None:
        PATH.parent.mkdir(parents=True, exist_ok=True)
        PATH.write_text(description())
        self.stdout.write(f"wrote {PATH.name}")

"""Opens a show file as a new show, and prints the show's id."""

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from ombrel.formats.show_file import read_whole

from ...keeping.desks import desk_of
from ...keeping.shows import made_from


class Command(BaseCommand):
    help = "Opens a show file as a new show, and prints the show's id."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        show, asides = read_whole(options["file"].read_bytes(), desk_of)
        name = show.text("show/name") or options["file"].stem[:60]
        self.stdout.write(str(made_from(name, show, None, "Opened from a file", asides).pk))

"""Opens a show file as a new show, and prints the show's id."""

from pathlib import Path
from typing import Any

from django.contrib.auth import get_user_model
from django.core.management.base import BaseCommand, CommandError, CommandParser

from ombrel.formats.show_file import read_whole

from ... import models
from ...keeping.desks import desk_of
from ...keeping.shows import made_from


class Command(BaseCommand):
    help = "Opens a show file as a new show, and prints the show's id."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", type=Path)
        parser.add_argument("--owner", help="whose it is; else the first administrator's")
        parser.add_argument("--engineer", action="append", default=[], help="with whom to share it")

    def handle(self, *args: Any, **options: Any) -> None:
        show, asides = read_whole(options["file"].read_bytes(), desk_of)
        name = show.text("show/name") or options["file"].stem[:60]
        people = get_user_model().objects.filter(is_active=True)
        owner = people.filter(is_staff=True).order_by("pk").first()
        if options["owner"]:
            owner = people.filter(username=options["owner"]).first()
        if owner is None:
            raise CommandError("Nobody has such an account. Make one: bin/account NAME")
        made = made_from(name, show, owner.pk, "Opened from a file", asides)
        for person in people.filter(username__in=options["engineer"]):
            models.Share.objects.create(show=made, person=person, role="engineer")
        self.stdout.write(str(made.pk))

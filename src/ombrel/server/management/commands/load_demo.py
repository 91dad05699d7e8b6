"""Loads the demo show and its two people; what is there already stays as it is."""

from typing import Any

from django.contrib.auth import get_user_model
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser

from ombrel.core import who_hears
from ombrel.demo import DEMO_DESK, DEMO_NAME, demo_show

from ... import models
from ...keeping.desks import desk_of
from ...keeping.ear_links import make_link
from ...keeping.shows import made_from


class Command(BaseCommand):
    help = "Loads the demo show and its sign-ins, unless they are there."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--blank", metavar="NAME", help="also make a blank show of this name")
        parser.add_argument("--desk", default=DEMO_DESK, help="desk profile of the blank show")
        parser.add_argument("--migrate", action="store_true", help="make its tables first")

    def handle(self, *args: Any, **options: Any) -> None:
        if options["migrate"]:
            call_command("migrate", verbosity=0)
        for name in ("engineer", "assistant"):
            user, new = get_user_model().objects.get_or_create(username=name)
            if new:
                user.set_password("demo")
                user.save()
        if not models.Show.objects.filter(name=DEMO_NAME).exists():
            show = demo_show(desk_of(DEMO_DESK))
            made = made_from(DEMO_NAME, show, None, "The demo show")
            self.stdout.write(f"{DEMO_NAME}: {len(show.values)} values")
            for mix in show.in_use("mix"):
                if (
                    show[f"{mix}/serves"] == "ears"
                ):  # each performer's phone has a link from the start
                    link, token = make_link(made.pk, who_hears(show, mix), [mix])
                    self.stdout.write(f"/mine#{token} {link.who}")
        if options["blank"]:
            blank = models.Show.objects.create(name=options["blank"], desk=options["desk"])
            self.stdout.write(str(blank.pk))

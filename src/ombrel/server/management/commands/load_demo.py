"""Loads the demo show and its people; what is there already stays as it is."""

import secrets
from collections.abc import Mapping
from typing import Any

from django.contrib.auth import get_user_model
from django.contrib.auth.models import User
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser

from ombrel.core import read_given, who_hears
from ombrel.demo import DEMO_DESK, DEMO_NAME, demo_show

from ... import models
from ...access.accounts import give_password, set_account
from ...keeping.desks import desk_of
from ...keeping.ear_links import make_link
from ...keeping.people import given_to_wire
from ...keeping.shows import made_from

# who can try the demo, and as what in its show
_PEOPLE = {
    "engineer": None,
    "monitors": "engineer",
    "assistant": "assistant",
    "volunteer": "volunteer",
    "onlooker": "onlooker",
}
_RIDES = (
    ("fader", "dca 1", "-12", "3"),
    ("fader", "dca 8", "", "0"),
    ("mute_group", "Foley"),
    ("lift", "Voices"),
)


class Command(BaseCommand):
    help = "Loads the demo show and its sign-ins, unless they are there."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--blank", metavar="NAME", help="also make a blank show of this name")
        parser.add_argument("--desk", default=DEMO_DESK, help="desk profile of the blank show")
        parser.add_argument(
            "--public",
            action="store_true",
            help="others reach it: the engineer gets a password, told once, the others are closed",
        )
        parser.add_argument("--migrate", action="store_true", help="make its tables first")

    def handle(self, *args: Any, **options: Any) -> None:
        if options["migrate"]:
            call_command("migrate", verbosity=0)
        people = {}
        for name in _PEOPLE:
            user, new = get_user_model().objects.get_or_create(username=name)
            people[name] = user
            if new:
                user.set_password("demo")
                user.is_staff = name == "engineer"
                user.save()
        if not models.Show.objects.filter(name=DEMO_NAME).exists():
            show = demo_show(desk_of(DEMO_DESK))
            made = made_from(DEMO_NAME, show, people["engineer"].pk, "The demo show")
            for name, role in _PEOPLE.items():
                if role is not None:
                    given = [one for words in _RIDES for one in read_given(show, *words)]
                    models.Share.objects.create(
                        show=made, person=people[name], role=role,
                        given=given_to_wire(given) if role == "volunteer" else [],
                    )  # fmt: skip
            self.stdout.write(f"{DEMO_NAME}: {len(show.values)} values")
            for mix in show.in_use("mix"):
                if (
                    show[f"{mix}/serves"] == "ears"
                ):  # each performer's phone has a link from the start
                    link, token = make_link(made.pk, who_hears(show, mix), [mix])
                    self.stdout.write(f"/mine#{token} {link.who}")
        if options["public"]:
            self._closed_to_strangers(people)
        if options["blank"]:
            blank = models.Show.objects.create(
                name=options["blank"], desk=options["desk"], owner=people["engineer"]
            )
            models.Share.objects.create(show=blank, person=people["monitors"], role="engineer")
            self.stdout.write(str(blank.pk))

    def _closed_to_strangers(self, people: Mapping[str, User]) -> None:
        """Nobody on the network signs in by a password that everybody knows."""
        for name, person in people.items():
            if not person.check_password("demo"):
                continue
            if name == "engineer":
                password = secrets.token_urlsafe(12)
                give_password(person, password)
                self.stdout.write(f"sign-in: engineer {password}")
            else:
                set_account(person, is_open=False)

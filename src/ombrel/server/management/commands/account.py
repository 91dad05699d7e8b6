"""Makes accounts, and lets people in again, from the machine itself: `bin/account NAME`."""

import getpass
import secrets
import sys
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from ombrel.core import ConsoleError

from ...access.accounts import accounts, give_password, make_account, set_account


class Command(BaseCommand):
    help = "Makes an account, or gives one that there is another password; opens it."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("name")
        parser.add_argument("--administrator", action="store_true", help="may make accounts")
        parser.add_argument(
            "--generate", action="store_true", help="make a password, and tell it this once"
        )
        parser.add_argument("--close", action="store_true", help="close the account instead")

    def handle(self, *args: Any, **options: Any) -> None:
        name = " ".join(options["name"].split())
        person = accounts().filter(username__iexact=name).first()
        try:
            if options["close"]:
                if person is None:
                    raise CommandError(f"Nobody is called {name}.")
                set_account(person, is_open=False)
                self.stdout.write(f"{person} is closed.")
                return
            password = secrets.token_urlsafe(12) if options["generate"] else self._typed()
            if person is None:
                make_account(name, password, administrator=options["administrator"])
            else:
                give_password(person, password)
                set_account(person, is_open=True, administrator=options["administrator"] or None)
        except ConsoleError as refused:
            raise CommandError(str(refused)) from None
        told = f", with the password {password}" if options["generate"] else ""
        self.stdout.write(f"{name} can sign in{told}.")

    def _typed(self) -> str:
        """A password from whoever sits there, or from what is led in."""
        if not sys.stdin.isatty():
            return sys.stdin.readline().rstrip("\n")
        password = getpass.getpass("Password: ")
        if getpass.getpass("Once more: ") != password:
            raise CommandError("These are two passwords. Nothing was changed.")
        return password

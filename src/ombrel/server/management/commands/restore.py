"""Puts a backup in the place of the database: `bin/restore FILE`."""

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db.migrations.loader import MigrationLoader

from ombrel.server.operating.backups import backups_in
from ombrel.server.operating.dumps import BackupFailed, Store
from ombrel.server.operating.restoring import restore


class Command(BaseCommand):
    """Restores one, or lists those that there are."""

    help = __doc__
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument(
            "file", nargs="?", help="its .dump; none: all that there are are listed"
        )

    def handle(self, *args: Any, **options: Any) -> None:
        folder: Path = settings.GIVEN.backup_folder
        if not options["file"]:
            there = backups_in(folder)
            for one in there:
                told = f"{one.shows} shows, {one.changes} changes, {one.accounts} accounts"
                self.stdout.write(f"{folder / one.name}.dump   {told}")
            if not there:
                self.stdout.write(f"There is no backup in {folder}.")
            return
        known = {f"{app}.{name}" for app, name in MigrationLoader(None).disk_migrations}
        try:
            done = restore(Store.given(), Path(options["file"]), known)
        except BackupFailed as error:
            raise CommandError(f"Nothing was restored, and nothing changed: {error}") from None
        one = done.backup
        self.stdout.write(
            f"Restored as of {one.made_at:%Y-%m-%d %H:%M} UTC: {one.shows} shows,"
            f" {one.changes} changes, {one.accounts} accounts. Everybody signs in again."
        )
        if done.aside:
            self.stdout.write(
                f"What was there before is kept in the database {done.aside}:"
                " drop it when nobody misses anything."
            )

"""Makes a backup of the whole database and reads it back: `bin/backup`."""

from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser

from ombrel.server.operating.backups import make_backup
from ombrel.server.operating.dumps import BackupFailed, Store


class Command(BaseCommand):
    """Makes one; ends with 1 and words where it could not."""

    help = __doc__
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--reason", choices=["night", "hand", "migration"], default="hand")

    def handle(self, *args: Any, **options: Any) -> None:
        folder = settings.GIVEN.backup_folder
        try:
            made = make_backup(Store.given(), folder, options["reason"])
        except BackupFailed as error:
            raise CommandError(f"No backup was made: {error}") from None
        self.stdout.write(
            f"{folder / made.name}.dump\n{made.shows} shows, {made.changes} changes,"
            f" {made.accounts} accounts; read back, and alike; {made.size} bytes, {made.seconds} s"
        )

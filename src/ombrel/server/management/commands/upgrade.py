"""Brings the database to where the code is, with a backup before: before anything is served."""

from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import connection
from django.db.migrations.executor import MigrationExecutor

from ombrel.server.operating.backups import make_backup
from ombrel.server.operating.dumps import BackupFailed, Store
from ombrel.server.operating.health import newer_than_code


class Command(BaseCommand):
    """Migrates, unless the data is newer than the code; ends with 1 and words then."""

    help = __doc__
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument(
            "--without-backup", action="store_true", help="for data that nobody would miss"
        )

    def handle(self, *args: Any, **options: Any) -> None:
        executor = MigrationExecutor(connection)
        if newer := newer_than_code(executor):
            raise CommandError(
                f"The data is newer than this code: it has had {', '.join(newer)}."
                " Nothing was changed. Update the code, or restore a backup that is older"
                " (bin/restore)."
            )
        plan = executor.migration_plan(executor.loader.graph.leaf_nodes())
        if not plan:
            return
        had_any = bool(executor.loader.applied_migrations)
        connection.close()
        if had_any and not options["without_backup"]:
            try:
                made = make_backup(Store.given(), settings.GIVEN.backup_folder, "migration")
            except BackupFailed as error:
                raise CommandError(
                    f"Nothing was changed: before a migration a backup is made, and none could be:"
                    f" {error}"
                ) from None
            self.stdout.write(f"kept before the migration: {made.name}")
        call_command("migrate", verbosity=0)
        self.stdout.write(f"migrated: {len(plan)} steps, to {plan[-1][0]}")

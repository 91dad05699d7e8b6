"""A backup put in the place of the database: all of it or nothing; what was there stays beside."""

from collections.abc import Collection
from datetime import UTC, datetime
from pathlib import Path

import psycopg
from psycopg import sql

from .backups import Backup, alone, digest_of, filled
from .dumps import BackupFailed, Connection, Store

__all__ = ["Restored", "restore"]


class Restored:
    """What was done. `aside`: the name of the database that was there before, "" for none."""

    def __init__(self, backup: Backup, aside: str) -> None:
        self.backup, self.aside = backup, aside


def restore(store: Store, path: Path, known: Collection[str]) -> Restored:
    """Put a backup in the place of a database. `known`: the migrations that this code has.

    It is filled into a database beside it, compared with its manifest, and then takes its name in
    one transaction; the one that was there keeps all that it holds under another name. Raises
    BackupFailed, and then nothing has changed: for a file that is damaged or no backup, one by a
    newer Ombrel, and while anybody still uses the database.
    """
    path = path.with_suffix(".dump")
    manifest = path.with_suffix(".json")
    for one in (path, manifest):
        if not one.exists():
            raise BackupFailed(f"there is no file {one}: a backup is a .dump and its .json")
    backup = Backup.from_json(manifest.read_text("utf-8"))
    ours = {name.partition(".")[0] for name in known}
    newer = sorted(
        name for name in backup.migrations if name.partition(".")[0] in ours and name not in known
    )
    if newer:
        raise BackupFailed(f"it was made by a newer Ombrel ({newer[0]}): update this one first")
    if digest_of(path) != backup.sha256:
        raise BackupFailed("the file is damaged: it is not what was written")
    with alone(store) as link:
        _check_unused(link, store.name)
        with filled(store, path, backup.tables) as beside:
            aside = _in_its_place(link, store, beside.name)
    return Restored(backup, aside)


def _check_unused(link: Connection, name: str) -> None:
    row = link.execute(
        "select count(*) from pg_stat_activity where datname = %s", [name]
    ).fetchone()
    if row is not None and row[0]:
        raise BackupFailed(f"{name} is in use: stop the server first (systemctl stop ombrel)")


def _in_its_place(link: Connection, store: Store, beside: str) -> str:
    there = link.execute("select 1 from pg_database where datname = %s", [store.name]).fetchone()
    aside = f"{store.name}_before_{datetime.now(UTC):%Y%m%dT%H%M%S}" if there else ""
    rename = sql.SQL("alter database {} rename to {}")
    try:
        with link.transaction():
            if aside:
                names = sql.Identifier(store.name), sql.Identifier(aside)
                link.execute(rename.format(*names))
            link.execute(rename.format(sql.Identifier(beside), sql.Identifier(store.name)))
    except psycopg.errors.ObjectInUse:
        raise BackupFailed(f"{store.name} came into use meanwhile: stop the server first") from None
    return aside

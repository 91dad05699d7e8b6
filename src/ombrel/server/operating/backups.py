"""Backups of the whole database: made, read back before they count, listed, and let go by a rule.

A backup is two files of one name: `.dump`, by PostgreSQL's own tool, and `.json`, its manifest. It
gets its name when it has been read back whole and holds what the database held; so what has one is
good, and what a killed run leaves is swept by the next.
"""

import contextlib
import hashlib
import json
import logging
import os
import time
from collections.abc import Iterator
from dataclasses import asdict, dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any, Final

import psycopg
from psycopg import sql

from .dumps import BackupFailed, Connection, Store, Table, asked, dump, held, refill
from .kept import Named, Reason, kept

__all__ = ["Backup", "alone", "backups_in", "digest_of", "failure_in", "filled", "make_backup"]

_LOG = logging.getLogger(__name__)
FORMAT: Final = 1
_FAILURE: Final = "last-failure.json"
_LOCK: Final = 0x6F6D6272  # of PostgreSQL's advisory locks: one backup or restore at a time


@dataclass(frozen=True, slots=True)
class Backup:
    """A good one. `shows`, `changes`, `accounts`: how many it holds; `size`: bytes; `seconds`: that

    it took, reading back included; `migrations`: those that its database had had.
    """

    made_at: datetime
    reason: Reason
    size: int
    sha256: str
    seconds: float
    shows: int
    changes: int
    accounts: int
    server: str
    migrations: tuple[str, ...]
    tables: dict[str, Table]

    @property
    def name(self) -> str:
        """The name of its files, without what follows the dot."""
        return Named(self.made_at, self.reason).name

    def to_json(self) -> str:
        """Its manifest."""
        told = asdict(self)
        told["made_at"] = self.made_at.isoformat()
        return json.dumps({"format": FORMAT, **told}, indent=1)

    @classmethod
    def from_json(cls, text: str) -> "Backup":
        """From a manifest. Raises BackupFailed for what is none, or a newer form's."""
        try:
            told: dict[str, Any] = json.loads(text)
            form = told.pop("format")
            if form > FORMAT:
                raise BackupFailed("its manifest was written by a newer Ombrel: update first")
            told["made_at"] = datetime.fromisoformat(told["made_at"])
            told["tables"] = {name: Table(**table) for name, table in told["tables"].items()}
            told["migrations"] = tuple(told["migrations"])
            return cls(**told)
        except (ValueError, KeyError, TypeError, AttributeError):
            raise BackupFailed("its manifest cannot be read") from None


def backups_in(folder: Path) -> list[Backup]:
    """All good backups in a folder, the newest first; what cannot be read is none."""
    found = []
    for manifest in folder.glob("ombrel-*.json"):
        with contextlib.suppress(BackupFailed, OSError):
            one = Backup.from_json(manifest.read_text("utf-8"))
            if (folder / f"{one.name}.dump").exists() and manifest.stem == one.name:
                found.append(one)
    return sorted(found, key=lambda one: one.made_at, reverse=True)


def failure_in(folder: Path) -> tuple[datetime, str] | None:
    """When the last try failed and why, if none succeeded since."""
    try:
        told = json.loads((folder / _FAILURE).read_text("utf-8"))
        return datetime.fromisoformat(told["at"]), str(told["says"])
    except (OSError, ValueError, KeyError, TypeError):
        return None


def make_backup(store: Store, folder: Path, reason: Reason) -> Backup:
    """Make one, read it back, and let go of those that the rule lets go.

    Raises BackupFailed, and keeps why beside the backups, so that it can be told.
    """
    try:
        folder.mkdir(parents=True, exist_ok=True, mode=0o700)
        with alone(store):
            made = _made(store, folder, reason)
    except (BackupFailed, OSError, psycopg.Error) as error:
        said = str(error).strip() or type(error).__name__
        with contextlib.suppress(OSError):  # a full disk, of all things
            told = {"at": datetime.now(UTC).isoformat(), "says": said}
            (folder / _FAILURE).write_text(json.dumps(told), "utf-8")
        raise BackupFailed(said) from error
    (folder / _FAILURE).unlink(missing_ok=True)
    _let_go(folder)
    return made


@contextlib.contextmanager
def alone(store: Store) -> Iterator[Connection]:
    """Nobody else backs this database up or restores it meanwhile. Raises BackupFailed."""
    with store.named("postgres").connect() as link:
        key = _LOCK ^ int.from_bytes(hashlib.sha256(store.name.encode()).digest()[:4], "big")
        row = link.execute("select pg_try_advisory_lock(%s)", [key]).fetchone()
        if row is None or not row[0]:
            raise BackupFailed("another backup or restore is under way")
        yield link


def _made(store: Store, folder: Path, reason: Reason) -> Backup:
    began = time.monotonic()
    now = datetime.now(UTC).replace(microsecond=0)
    while any(one.made_at == now for one in backups_in(folder)):
        now += timedelta(seconds=1)
    for left in folder.glob(".making-*"):
        left.unlink()
    path = folder / f".making-{os.getpid()}"
    path.touch(mode=0o600)
    try:
        with asked(store) as (link, snapshot):
            dump(store, snapshot, path)
            tables = held(link)
            migrations = _migrations(link)
            accounts = _accounts(link)
            server = str(link.info.server_version)
        with filled(store, path, tables):
            pass
        size, digest = path.stat().st_size, digest_of(path)
        _onto_disk(path)
        rows = {name: table.rows for name, table in tables.items()}
        made = Backup(
            now, reason, size, digest, round(time.monotonic() - began, 2),
            rows.get("server_show", 0), rows.get("server_change", 0), accounts,
            server, migrations, tables,
        )  # fmt: skip
        told = folder / f".making-{os.getpid()}.json"
        told.write_text(made.to_json(), "utf-8")
        _onto_disk(told)
        path.rename(folder / f"{made.name}.dump")
        told.rename(folder / f"{made.name}.json")  # last: it is what makes it one
        _onto_disk(folder)
        return made
    finally:
        path.unlink(missing_ok=True)


@contextlib.contextmanager
def filled(store: Store, path: Path, tables: dict[str, Table]) -> Iterator[Store]:
    """A database of its own, filled with a backup and found to hold what it should; gone behind it,

    unless it has been given another name. Raises BackupFailed.
    """
    name = f"{store.name}_readback"
    try:
        with store.named("postgres").connect() as link:
            _dropped(link, name)  # of a run that was killed
            link.execute(
                sql.SQL("create database {} template template0").format(sql.Identifier(name))
            )
    except psycopg.errors.InsufficientPrivilege:
        raise BackupFailed(
            f"{store.user} may not make a database to read it back into:"
            f" alter role {store.user} createdb"
        ) from None
    try:
        refill(store.named(name), path)
        with store.named(name).connect() as link:
            found = held(link)
        differ = sorted(one for one in tables | found if tables.get(one) != found.get(one))
        if differ:
            raise BackupFailed(f"read back it differs in {', '.join(differ)}")
        yield store.named(name)
    finally:
        with store.named("postgres").connect() as link:
            _dropped(link, name)


def _dropped(link: Connection, name: str) -> None:
    link.execute(sql.SQL("drop database if exists {} with (force)").format(sql.Identifier(name)))


def _migrations(link: Connection) -> tuple[str, ...]:
    rows = link.execute("select app || '.' || name from django_migrations order by 1").fetchall()
    return tuple(str(name) for (name,) in rows)


def _accounts(link: Connection) -> int:
    """How many can sign in: phones and cues have names in the log, and no password."""
    row = link.execute(
        "select count(*) from auth_user where password <> '' and password not like '!%'"
    ).fetchone()
    return int(row[0]) if row else 0


def digest_of(path: Path) -> str:
    """The SHA-256 of a file, in hexadecimal."""
    with path.open("rb") as file:
        return hashlib.file_digest(file, "sha256").hexdigest()


def _onto_disk(path: Path) -> None:
    handle = os.open(path, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)


def _let_go(folder: Path) -> None:
    there = {Named(one.made_at, one.reason): one for one in backups_in(folder)}
    for named in there.keys() - kept(there):
        # the manifest first: half a backup must not look like one
        for suffix in (".json", ".dump"):
            (folder / f"{named.name}{suffix}").unlink(missing_ok=True)
        _LOG.info("let go of %s", named.name)

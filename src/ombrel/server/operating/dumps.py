"""PostgreSQL's own tools, and what a database holds, told so that two can be compared."""

import os
import shutil
import subprocess
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import Any, Final

import psycopg
from django.conf import settings
from psycopg import sql
from psycopg.conninfo import make_conninfo

__all__ = ["NOT_KEPT", "BackupFailed", "Store", "Table", "asked", "dump", "held", "refill"]

# who is signed in just now, and who guessed: after a restore everybody signs in again
NOT_KEPT: Final = ("django_session", "server_visit", "axes_accessattempt",
                   "axes_accessfailurelog", "axes_accesslog")  # fmt: skip
_LONGEST_S: Final = 3 * 3600.0

Connection = psycopg.Connection[tuple[Any, ...]]


class BackupFailed(Exception):
    """A backup or a restore that did not come to its end, and why; nothing is half done."""


@dataclass(frozen=True, slots=True)
class Store:
    """How PostgreSQL is reached, and which database of it."""

    host: str
    port: int
    user: str
    password: str
    name: str
    tls: str = ""

    @classmethod
    def given(cls) -> "Store":
        """That of this installation; of a test, its own."""
        there = settings.DATABASES["default"]
        tls = str(there["OPTIONS"].get("sslmode", ""))
        return cls(there["HOST"], int(there["PORT"]), there["USER"], there["PASSWORD"],
                   there["NAME"], tls)  # fmt: skip

    def named(self, name: str) -> "Store":
        """Another database of the same server."""
        return Store(self.host, self.port, self.user, self.password, name, self.tls)

    def connect(self) -> Connection:
        """A connection of one's own. Raises BackupFailed where nobody answers."""
        try:
            return psycopg.connect(
                make_conninfo(
                    host=self.host, port=self.port, user=self.user, password=self.password,
                    dbname=self.name, connect_timeout=5, sslmode=self.tls or None,
                ),
                autocommit=True,
            )  # fmt: skip
        except psycopg.OperationalError as error:
            raise BackupFailed(f"PostgreSQL does not answer for {self.name}: {error}") from None

    @property
    def environment(self) -> dict[str, str]:
        """For the tools: a password in a command's words could be read by all of the machine."""
        told = {
            "PGHOST": self.host, "PGPORT": str(self.port), "PGUSER": self.user,
            "PGPASSWORD": self.password, "PGCONNECT_TIMEOUT": "5",
        }  # fmt: skip
        return {**os.environ, **told, **({"PGSSLMODE": self.tls} if self.tls else {})}


@dataclass(frozen=True, slots=True)
class Table:
    """What a table holds: so many rows, and a digest of all of them that no order changes."""

    rows: int
    digest: str


def held(link: Connection) -> dict[str, Table]:
    """What each table that is kept holds, as this connection sees it.

    A row's digest is the first 60 bits of the MD5 of its text; a table's their sum: it finds what
    was lost or damaged, and is no proof against who means to forge.
    """
    link.execute("set timezone = 'UTC'")
    link.execute("set datestyle = 'ISO'")
    link.execute("set extra_float_digits = 1")
    link.execute("set bytea_output = 'hex'")
    names = [
        name
        for (name,) in link.execute(
            "select tablename from pg_tables where schemaname = 'public' order by tablename"
        )
        if name not in NOT_KEPT
    ]
    found = {}
    for name in names:
        row = link.execute(
            sql.SQL(
                "select count(*), coalesce(sum(('x' || substr(md5(t::text), 1, 15))::bit(60)"
                "::bigint::numeric), 0)::text from {} t"
            ).format(sql.Identifier(name))
        ).fetchone()
        assert row is not None  # an aggregate always has one
        found[name] = Table(int(row[0]), str(row[1]))
    return found


@contextmanager
def asked(store: Store) -> Iterator[tuple[Connection, str]]:
    """A look at a database that stands still, and its name for who is to see the very same."""
    with store.connect() as link, link.transaction():
        link.execute("set transaction isolation level repeatable read, read only")
        row = link.execute("select pg_export_snapshot()").fetchone()
        assert row is not None  # the function gives one
        yield link, str(row[0])


def dump(store: Store, snapshot: str, path: Path) -> None:
    """Write a database as it stands in a snapshot, packed. Raises BackupFailed."""
    left_out = [f"--exclude-table-data=public.{name}" for name in NOT_KEPT]
    _run(
        store, "pg_dump", "--format=custom", "--no-owner", "--no-acl", "--lock-wait-timeout=60000",
        f"--snapshot={snapshot}", f"--file={path}", *left_out, f"--dbname={store.name}",
    )  # fmt: skip


def refill(store: Store, path: Path) -> None:
    """Fill an empty database with what `dump` wrote. Raises BackupFailed."""
    _run(store, "pg_restore", "--exit-on-error", "--no-owner", "--no-acl",
         f"--dbname={store.name}", str(path))  # fmt: skip


def _run(store: Store, tool: str, *words: str) -> None:
    command = ["nice", "-n", "10", _tool(tool), *words]
    try:
        done = subprocess.run(
            command, env=store.environment, capture_output=True, text=True, timeout=_LONGEST_S,
            check=False,
        )  # fmt: skip
    except subprocess.TimeoutExpired:
        raise BackupFailed(f"{tool} did not end within {_LONGEST_S / 3600:.0f} h") from None
    if done.returncode:
        said = done.stderr.strip().splitlines() or [f"it ended with {done.returncode}"]
        raise BackupFailed(f"{tool}: {said[-1]}")


def _tool(name: str) -> str:
    """The newest that is installed: an older one does not read a newer server's database."""
    installed = sorted(
        Path("/usr/lib/postgresql").glob(f"*/bin/{name}"),
        key=lambda path: float(path.parts[-3]) if path.parts[-3].replace(".", "").isdigit() else 0,
    )
    found = str(installed[-1]) if installed else shutil.which(name)
    if found is None:
        raise BackupFailed(f"{name} is not installed: install Debian's package postgresql-client")
    return found

"""Whether this process lives, and whether it can serve: for what watches it."""

import asyncio
import json
from collections.abc import Awaitable, Callable
from typing import Any, Final

from django.conf import settings
from django.db import DatabaseError, connection, connections
from django.db.migrations.executor import MigrationExecutor

__all__ = ["Health", "newer_than_code", "unready"]

_FRESH_S: Final = 1.0
_NOT_MIGRATED: Final = "the database is older than the code: run bin/serve, or migrate it"

App = Callable[[Any, Any, Any], Awaitable[None]]
Run = Callable[[Callable[[], list[str]]], Awaitable[list[str]]]


class Health:
    """Answers `/healthz` and `/readyz` before all else, without a name, a session or a log line.

    `/healthz`: 200 while the event loop turns. `/readyz`: 200 when pages can be served, 503 with
    why else. `run`: runs what asks the database, off the event loop.
    """

    def __init__(self, app: App, run: Run) -> None:
        self._app, self._run = app, run
        self._looked: tuple[float, asyncio.Task[list[str]]] | None = None

    async def _why(self) -> list[str]:
        """Looked at once a second at most, however many ask: anybody may."""
        loop = asyncio.get_running_loop()
        if self._looked is None or loop.time() - self._looked[0] > _FRESH_S:
            self._looked = loop.time(), loop.create_task(self._look())
        return await asyncio.shield(self._looked[1])

    async def _look(self) -> list[str]:
        return await self._run(unready)

    async def __call__(self, scope: Any, receive: Any, send: Any) -> None:
        path = scope.get("path") if scope["type"] == "http" else None
        if path == "/healthz":
            await _say(send, 200, {"lives": True})
        elif path == "/readyz":
            why = await self._why()
            await _say(send, 503 if why else 200, {"ready": not why, "why": why})
        else:
            await self._app(scope, receive, send)


def unready() -> list[str]:
    """Why no page can be served just now; empty: it can."""
    why = []
    if not (settings.WEB_DIST / "index.html").exists():
        why.append("the screens are not built")
    try:
        with connection.cursor() as cursor:
            cursor.execute("select 1")
        executor = MigrationExecutor(connection)
    except DatabaseError:
        connections.close_all()
        return [*why, "the database does not answer"]
    if newer := newer_than_code(executor):
        why.append(f"the database is newer than the code, by {newer[0]}")
    elif executor.migration_plan(executor.loader.graph.leaf_nodes()):
        why.append(_NOT_MIGRATED)
    return why


def newer_than_code(executor: MigrationExecutor) -> list[str]:
    """Migrations that the database has had and this code does not know, by name."""
    known = set(executor.loader.disk_migrations)
    ours = {app for app, _ in known}
    had = executor.loader.applied_migrations
    return sorted(f"{app}.{name}" for app, name in had if app in ours and (app, name) not in known)


async def _say(send: Any, status: int, what: dict[str, Any]) -> None:
    body = json.dumps(what).encode()
    headers = [
        (b"content-type", b"application/json"),
        (b"content-length", str(len(body)).encode()),
        (b"cache-control", b"no-store"),
        (b"x-content-type-options", b"nosniff"),
    ]
    await send({"type": "http.response.start", "status": status, "headers": headers})
    await send({"type": "http.response.body", "body": body})

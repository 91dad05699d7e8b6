"""Figures of this process, told to Prometheus at an address of their own (OMBREL_METRICS).

No label comes from outside: neither names nor paths, of which anybody could make as many as they
like.
"""

import logging
import time
from collections.abc import Iterable
from typing import Final

from django.db import connection
from prometheus_client import CollectorRegistry, Counter, Gauge, Histogram, start_http_server
from prometheus_client.core import GaugeMetricFamily
from prometheus_client.metrics_core import Metric
from prometheus_client.registry import Collector

__all__ = ["FIGURES", "Figures", "serve_figures"]

_LOG = logging.getLogger(__name__)
_QUICK: Final = (0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1.0, 2.5, 10.0)
_KINDS: Final = ("api", "static", "live", "mine", "ride", "sign-in", "sign-out")


class Figures:
    """What this process counts. Times are in seconds."""

    def __init__(self) -> None:
        self.registry = registry = CollectorRegistry()
        self._edits = Counter(
            "ombrel_edits", "Edits that were answered, by what became of them", ["outcome"],
            registry=registry,
        )  # fmt: skip
        self._refusals = Counter(
            "ombrel_refusals", "Edits that were refused, by why", ["code"], registry=registry
        )
        self._edit_s = Histogram(
            "ombrel_edit_seconds", "From an edit's arrival until it is kept or refused",
            buckets=_QUICK, registry=registry,
        )  # fmt: skip
        self._tick_s = Histogram(
            "ombrel_tick_seconds", "A tick's edits, through the door and into the database",
            buckets=_QUICK, registry=registry,
        )  # fmt: skip
        self._requests = Histogram(
            "ombrel_request_seconds", "Requests, by what they ask and how they ended",
            ["kind", "status"], buckets=_QUICK, registry=registry,
        )  # fmt: skip
        self._screens = Gauge(
            "ombrel_screens", "Screens that are open, by kind", ["kind"], registry=registry
        )
        self.loop_late = Gauge(
            "ombrel_loop_late_seconds", "How late the event loop came to what was due",
            registry=registry,
        )  # fmt: skip
        self.backup_at = Gauge(
            "ombrel_backup_timestamp_seconds", "When the last good backup was made (Unix time)",
            registry=registry,
        )  # fmt: skip
        registry.register(_Pool())

    def edit(self, code: str | None, seconds: float) -> None:
        """An edit was answered; `code`: of what refused it, None: it is kept."""
        self._edits.labels("kept" if code is None else "refused").inc()
        if code is not None:
            self._refusals.labels(code).inc()
        self._edit_s.observe(seconds)

    def tick(self, seconds: float) -> None:
        """A tick's edits were kept."""
        self._tick_s.observe(seconds)

    def request(self, method: str, path: str, status: int, seconds: float) -> None:
        """A request ended, or a screen came (101) and has gone."""
        first = path.lstrip("/").partition("/")[0]
        kind = "live" if method == "LIVE" else first if first in _KINDS else "page"
        if method != "LIVE":
            self._requests.labels(kind, f"{status // 100}xx").observe(seconds)

    def screens(self, kind: str, by: int) -> None:
        """So many screens more (or fewer) of a kind are open."""
        self._screens.labels(kind).inc(by)


class _Pool(Collector):
    """What the pool of connections says of itself when it is asked."""

    def collect(self) -> Iterable[Metric]:
        """Its figures."""
        pool = getattr(connection, "pool", None)
        if pool is None:
            return
        stats = pool.get_stats()
        for name, what in (
            ("pool_size", "Connections to PostgreSQL"),
            ("pool_available", "Connections that nobody uses"),
            ("requests_waiting", "Who waits for a connection"),
            ("requests_errors", "Who waited in vain, in all"),
            ("connections_lost", "Connections that were lost, in all"),
        ):
            yield GaugeMetricFamily(f"ombrel_{name}", what, value=float(stats.get(name, 0)))


FIGURES: Final = Figures()


def serve_figures(at: tuple[str, int]) -> None:
    """Tell figures at a host and port, in a thread of its own; an address that is taken is told in

    the log, and nothing else is held up.
    """
    host, port = at
    try:
        start_http_server(port, host, FIGURES.registry)
    except OSError as error:
        _LOG.error("figures are told nowhere: %s:%s: %s", host, port, error)


class Lateness:
    """How late something is that should happen every `PERIOD_S`."""

    PERIOD_S: Final = 1.0

    def __init__(self) -> None:
        self._due = time.monotonic() + self.PERIOD_S

    def now(self) -> None:
        """It happens."""
        now = time.monotonic()
        FIGURES.loop_late.set(max(0.0, now - self._due))
        self._due = now + self.PERIOD_S

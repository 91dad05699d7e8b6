"""Writes `docs/licences.md`: of what is in the screens and in the server."""

from typing import Any

from django.core.management.base import BaseCommand

from ombrel.server.operating.given import ROOT
from ombrel.server.operating.licences import licences_paper


class Command(BaseCommand):
    """Writes it."""

    help = __doc__
    requires_system_checks = ()

    def handle(self, *args: Any, **options: Any) -> None:
        (ROOT / "docs" / "licences.md").write_text(licences_paper(ROOT), "utf-8")

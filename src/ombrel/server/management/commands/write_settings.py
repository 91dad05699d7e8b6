"""Writes the table of settings into `docs/deploy.md`, from where each is described."""

import re
from typing import Any

from django.core.management.base import BaseCommand

from ombrel.server.operating.given import ROOT, settings_table

_PLACE = re.compile(r"(<!-- settings: [^>]*-->\n).*?(<!-- /settings -->)", re.DOTALL)


class Command(BaseCommand):
    """Writes it."""

    help = __doc__
    requires_system_checks = ()

    def handle(self, *args: Any, **options: Any) -> None:
        paper = ROOT / "docs" / "deploy.md"
        text = paper.read_text("utf-8")
        paper.write_text(_PLACE.sub(rf"\1\n{settings_table()}\n\2", text), "utf-8")

"""The screens as they were built: what of it is served, and how the server's own pages find it."""

import json
from collections.abc import Iterable, Iterator
from functools import lru_cache
from pathlib import Path
from typing import Any, Final

from django.conf import settings
from django.contrib.staticfiles.finders import FileSystemFinder
from django.http import HttpRequest

__all__ = ["Built", "style"]

_STYLE: Final = "src/signin.css"


class Built(FileSystemFinder):
    """Finds what was built, without notes about the building and without the pages themselves."""

    def list(self, ignore_patterns: Iterable[str] | None) -> Iterator[Any]:
        """What is served."""
        return iter(super().list([*(ignore_patterns or ()), ".*", "*.html", "*.html.*"]))


def style(request: HttpRequest) -> dict[str, str]:
    """For templates: the name of the style of the server's own pages."""
    manifest = settings.WEB_DIST / ".vite" / "manifest.json"
    when = manifest.stat().st_mtime_ns if manifest.exists() else 0
    return {"style": _named(manifest, when)}


@lru_cache(maxsize=1)
def _named(manifest: Path, when: int) -> str:
    return str(json.loads(manifest.read_text())[_STYLE]["file"]) if when else "none.css"

"""Under which licences stands what ships: `docs/licences.md`, from the lock files and packages."""

import json
import re
from collections.abc import Iterator
from importlib.metadata import metadata
from pathlib import Path

__all__ = ["licences_paper"]

_LOCKED = re.compile(r"^([a-z0-9._-]+)(?:\[[^\]]*\])?==(\S+)", re.MULTILINE)
_BUNDLED = re.compile(r"^## (\S+) - (\S+) \((.+)\)$", re.MULTILINE)
# what the build's own list leaves out, since it is no script: fonts, and the style's first rules
_NO_SCRIPT = (
    "@fontsource-variable/atkinson-hyperlegible-next",
    "@fontsource-variable/bricolage-grotesque",
    "tailwindcss",
)

Row = tuple[str, str, str]  # name, version, licence


def _python(root: Path) -> Iterator[Row]:
    for name, version in _LOCKED.findall((root / "requirements/app.lock").read_text("utf-8")):
        told = metadata(name)
        said = told["License-Expression"] or ""
        classed = [
            one.rpartition(" :: ")[2]
            for one in told.get_all("Classifier") or ()
            if one.startswith("License :: ") and "Freely" not in one
        ]
        text = told["License"] or ""
        if text.startswith("This is free and unencumbered"):
            text = "Unlicense"
        yield name, version, said or " or ".join(classed) or text.partition("\n")[0]


def _front(root: Path) -> Iterator[Row]:
    yield from _BUNDLED.findall((root / "web/dist/licences.txt").read_text("utf-8"))
    locked = json.loads((root / "web/package-lock.json").read_text("utf-8"))["packages"]
    for name in _NO_SCRIPT:
        about = locked[f"node_modules/{name}"]
        yield name, about["version"], about["license"]


def licences_paper(root: Path) -> str:
    """The paper, for the project in a folder whose packages are installed and screens are built."""
    return f"""# Licences of what ships

Written by `python -m django write_licences`. Ombrel's own is in `LICENSE`.

## In the screens

Their texts go with the build: `/static/licences.txt`; of the fonts `/static/licences-fonts.txt`.

{_table(sorted(_front(root)))}

## In the server

Installed by `bin/prepare` from the Python index, each with its text in its own folder of `.venv`.

{_table(sorted(_python(root)))}

PostgreSQL, nginx, Redis and what they need are Debian's packages, with their texts in
`/usr/share/doc`.
"""


def _table(rows: list[Row]) -> str:
    lines = [("package", "version", "licence"), ("---",) * 3, *rows]
    return "\n".join(f"| {' | '.join(line)} |" for line in lines)

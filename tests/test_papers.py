"""The papers for newcomers name files that are there, and links that lead somewhere."""

import re
from pathlib import Path

import pytest

ROOT = Path(__file__).parent.parent
PAPERS = sorted(
    path
    for folder in (".", "docs", "docs/architecture", "docs/decisions", "docs/screenshots")
    for path in (ROOT / folder).glob("*.md")
)
_FILE = re.compile(r"`((?!\.data/)(?:[\w.-]+/)+[\w.-]+\.(?:py|tsx?|toml|css|json|md))`")
_LINK = re.compile(r"\]\((?!https?:)([^)#]+)(?:#[^)]*)?\)")
_BEGINNINGS = ("", "src/ombrel", "web/src", "tests", "tests/core", "src/ombrel/core")


@pytest.mark.parametrize("paper", PAPERS, ids=lambda paper: str(paper.relative_to(ROOT)))
def test_every_file_and_link_of_a_paper_is_there(paper):
    text = paper.read_text("utf-8")
    for name in _FILE.findall(text):
        assert any((ROOT / start / name).exists() for start in _BEGINNINGS), f"{paper.name}: {name}"
    for link in _LINK.findall(text):
        assert (paper.parent / link).exists(), f"{paper.name}: {link}"


def test_the_map_has_a_place_for_every_module_of_the_core():
    told = (ROOT / "docs/architecture/map.md").read_text("utf-8")
    modules = {path.stem for path in (ROOT / "src/ombrel/core").glob("*.py")} - {"__init__"}
    assert modules - set(re.findall(r"`([a-z_]+)[`/]", told)) == set()

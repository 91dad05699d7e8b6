"""The rooms of the code: small, entered by their doors, none larger than one can look over.

That no room imports one above it is a contract of import-linter (pyproject.toml).
"""

import ast
import importlib
from collections.abc import Iterator
from pathlib import Path
from typing import Final

_SRC: Final = Path(__file__).parents[1] / "src/ombrel"
_CORE: Final = _SRC / "core"
_MOST_FILES: Final = 16  # some fifteen, and the door
_ROOMS: Final = sorted(one.name for one in _CORE.iterdir() if (one / "__init__.py").exists())


def _imports(path: Path) -> Iterator[ast.ImportFrom]:
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.ImportFrom):
            yield node


def test_a_room_has_some_fifteen_files_and_says_what_it_is_for() -> None:
    for room in _ROOMS:
        files = list((_CORE / room).glob("*.py"))
        assert len(files) <= _MOST_FILES, f"{room} has {len(files)} files"
        assert importlib.import_module(f"ombrel.core.{room}").__doc__


def test_nobody_reaches_into_another_room() -> None:
    reaching = [
        f"{path.relative_to(_SRC)}: {node.module}"
        for path in _SRC.rglob("*.py")
        for node in _imports(path)
        if (_CORE in path.parents and node.level == 2 and "." in (node.module or ""))
        or (node.module or "").startswith("ombrel.core.")
    ]
    assert not reaching


def test_a_room_offers_what_others_ask_for_and_no_more() -> None:
    asked: dict[str, set[str]] = {room: set() for room in _ROOMS}
    for path in _CORE.rglob("*.py"):
        for node in _imports(path):
            of_core = node.level == (1 if path.parent == _CORE else 2)
            if of_core and node.module in asked:
                asked[node.module] |= {alias.name for alias in node.names}
    for room, names in asked.items():
        offered = importlib.import_module(f"ombrel.core.{room}").__all__
        assert sorted(offered) == sorted(names), room

"""Nobody but the catalogue takes the text of an address apart."""

import ast
import re
from collections.abc import Iterator
from pathlib import Path
from typing import Final

from ombrel.core.catalogue.bearing import BEARINGS
from ombrel.core.catalogue.parameters import CATALOGUE

_SRC: Final = Path(__file__).parents[1] / "src/ombrel"
_CUTTING: Final = {
    "split", "rsplit", "partition", "rpartition", "startswith", "endswith", "removeprefix",
    "removesuffix",
}  # fmt: skip
# where addresses are made and read: the catalogue itself
_CATALOGUE: Final = {
    "address", "addresses", "bearing", "parameters", "strip_parameters", "processing_parameters",
    "beside_parameters", "scene_parameters", "fitting_parameters", "cells",
}  # fmt: skip
# texts with a slash that are no addresses: paths of URLs, files and archives
_OTHERS: Final = {
    "middleware.py", "guard.py", "allowed.py", "sheets.py", "book.py", "desks.py", "given.py",
    "metrics.py", "unsafe.py",
}  # fmt: skip
_WORDS: Final = {word for key in CATALOGUE for word in key.split("/") if not word.startswith("<")}


def _texts(node: ast.AST) -> Iterator[str]:
    for one in ast.walk(node):
        if isinstance(one, ast.Constant) and isinstance(one.value, str):
            yield one.value


def _cuts(path: Path) -> Iterator[str]:
    for node in ast.walk(ast.parse(path.read_text())):
        where = f"{path.name}:{getattr(node, 'lineno', 0)}"
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute):
            texts = [text for argument in node.args for text in _texts(argument)]
            of_pattern = ast.unparse(node.func) == "re.split"
            if (
                node.func.attr in _CUTTING
                and not of_pattern
                and any("/" in text or text.strip("/") in _WORDS for text in texts)
            ):
                yield f"{where} {ast.unparse(node)}"
        elif isinstance(node, ast.Compare) and _looks_inside(node):
            yield f"{where} {ast.unparse(node)}"


def _looks_inside(node: ast.Compare) -> bool:
    """Whether it asks if a piece of a path lies in an address, a cell or a leaf."""
    inside = node.comparators[0]
    return (
        isinstance(node.ops[0], ast.In | ast.NotIn)
        and isinstance(inside, ast.Name)
        and inside.id in ("a", "address", "cell", "leaf")
        and any(len(text) > 1 and "/" in text for text in _texts(node.left))
    )


def test_no_text_of_an_address_is_cut_outside_the_catalogue() -> None:
    found = [
        cut
        for path in sorted(_SRC.rglob("*.py"))
        if path.name not in _OTHERS and path.stem not in _CATALOGUE
        for cut in _cuts(path)
    ]
    assert not found, "\n".join(found)


def test_everything_that_hangs_on_addresses_is_asked_for() -> None:
    asked = "\n".join(path.read_text() for path in _SRC.rglob("*.py") if path.name != "bearing.py")
    calls = set(re.findall(r"""(?:bears|bearing|bears_on)\(\s*"([a-z_]+)\"""", asked))
    rules = set(re.findall(r"""^    "([a-z_]+)": _[a-z_]+,$""", asked, re.MULTILINE))
    borne = set(re.findall(r"""\"([a-z_]+)\" in [a-z_.]*borne""", asked))
    assert calls | rules | borne >= BEARINGS.keys()


_WEB: Final = Path(__file__).parents[1] / "web/src"
# how a page would take an address apart; an address of the browser's own is no address of a show
_PAGES: Final = re.compile(
    r"""\.split\(["']/|lastIndexOf\(["']/|startsWith\(["'`][^"'`)]*/|endsWith\(["'`]/"""
    r"""|includes\(["']/|replace\(["']/|/\^\(?[a-z_|]+\)?\\/"""
)
_IN_ONE_PLACE: Final = {"address.ts", "catalogue.ts", "places.ts", "unsent.ts"}


def test_no_page_takes_an_address_apart() -> None:
    found = [
        f"{path.relative_to(_WEB)}:{number} {line.strip()}"
        for path in sorted(_WEB.rglob("*.ts*"))
        if path.name not in _IN_ONE_PLACE and ".test." not in path.name
        for number, line in enumerate(path.read_text().splitlines(), start=1)
        if _PAGES.search(line)
    ]
    assert not found, "\n".join(found)

"""Seeded faults of the core and the server, one at a time: a comparison, a sign, a constant or a

boolean is another, and the tests that run its line run. What no test notices is named, and for
what is noticed the test that did; at the end those tests must pass on the copy as it was.

`python -m tests.mutants lines.json --many 150 --seed 1`; `lines.json` comes of `--cover` (see
`bin/mutants`). A copy of the sources is changed, never the sources themselves.
"""

import argparse
import ast
import json
import random
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import zip_longest
from pathlib import Path
from typing import Final

ROOT: Final = Path(__file__).parent.parent
ROOMS: Final = ("core", "server")
MOST_TESTS: Final = 160  # of those that run a line, from as many files as do
AT_ONCE: Final = 40  # of them in one run: most faults are noticed by the first
MOST_BESIDE: Final = 12  # filled up to so many by others of the file
SECONDS: Final = 240
_FAILS: Final = ("FAILED ", "ERROR ")
_COMPARED: Final = {
    ast.Lt: "<=", ast.LtE: "<", ast.Gt: ">=", ast.GtE: ">", ast.Eq: "!=", ast.NotEq: "==",
    ast.In: "not in", ast.NotIn: "in", ast.Is: "is not", ast.IsNot: "is",
}  # fmt: skip
_SIGNS: Final = {ast.Add: "-", ast.Sub: "+", ast.Mult: "/", ast.Div: "*"}


@dataclass(frozen=True, slots=True)
class Mutant:
    """A fault: in which file, at which line, from and to which character, and what stands there."""

    path: str
    line: int
    start: int
    end: int
    was: str
    now: str

    def __str__(self) -> str:
        return f"{self.path}:{self.line}: {self.was.strip()} -> {self.now.strip()}"


def mutants_of(path: Path) -> Iterator[Mutant]:
    """Every fault that a file can have."""
    text = path.read_text("utf-8")
    starts = [0]
    for line in text.splitlines(keepends=True):
        starts.append(starts[-1] + len(line.encode()))
    source = text.encode()
    name = str(path.relative_to(ROOT / "src"))

    def at(line: int, column: int) -> int:
        return starts[line - 1] + column

    def between(left: ast.expr, right: ast.expr, line: int, now: str) -> Mutant | None:
        start = at(left.end_lineno or line, left.end_col_offset or 0)
        end = at(right.lineno, right.col_offset)
        was = source[start:end].decode()
        if set(was) & set("()#\n"):  # an operator with more around it than blanks
            return None
        return Mutant(name, right.lineno, start, end, was, f" {now} ")

    for node in ast.walk(ast.parse(text)):
        found: Mutant | None = None
        if isinstance(node, ast.Compare) and len(node.ops) == 1:
            now = _COMPARED.get(type(node.ops[0]))
            found = between(node.left, node.comparators[0], node.lineno, now) if now else None
        elif isinstance(node, ast.BinOp):
            now = _SIGNS.get(type(node.op))
            is_text = any(isinstance(one, ast.JoinedStr) for one in (node.left, node.right))
            found = (
                between(node.left, node.right, node.lineno, now) if now and not is_text else None
            )
        elif isinstance(node, ast.BoolOp):
            now = "or" if isinstance(node.op, ast.And) else "and"
            found = between(node.values[0], node.values[1], node.lineno, now)
        elif isinstance(node, ast.Constant) and isinstance(node.value, bool | int | float):
            start = at(node.lineno, node.col_offset)
            end = at(node.end_lineno or node.lineno, node.end_col_offset or 0)
            is_truth = isinstance(node.value, bool)
            changed = str(not node.value) if is_truth else repr(node.value + 1)
            found = Mutant(name, node.lineno, start, end, source[start:end].decode(), changed)
        if found:
            yield found


def chosen(tests_of: dict[str, dict[str, list[str]]], many: int, seed: int) -> list[Mutant]:
    """So many faults on lines that some test runs."""
    every = [
        one
        for room in ROOMS
        for path in sorted((ROOT / "src/ombrel" / room).rglob("*.py"))
        if "migrations" not in path.parts
        for one in mutants_of(path)
        if tests_of.get(one.path, {}).get(str(one.line))
    ]
    return random.Random(seed).sample(every, min(many, len(every)))


def spread(tests: list[str], most: int, draw: random.Random) -> list[str]:
    """So many tests at most, by turns from each file: each has eyes of its own."""
    by_file: dict[str, list[str]] = {}
    for test in draw.sample(tests, len(tests)):
        by_file.setdefault(test.partition("::")[0], []).append(test)
    turns = zip_longest(*by_file.values())
    return [test for turn in turns for test in turn if test is not None][:most]


def concerned(by_line: dict[str, list[str]], line: int, draw: random.Random) -> list[str]:
    """Tests that run a line; where they are few, others of its file too: what is worked out once

    for all is run by whoever comes first.
    """
    found = spread(by_line[str(line)], MOST_TESTS, draw)
    beside = sorted({test for tests in by_line.values() for test in tests} - set(found))
    return found + spread(beside, max(0, MOST_BESIDE - len(found)), draw)


def laid_out(folder: Path) -> Path:
    """A copy of the sources, with the rest of the project beside it as it is; the copy's path."""
    for path in ROOT.iterdir():
        if path.name not in ("src", ".data"):
            (folder / path.name).symlink_to(path)
    copy = folder / "src"
    shutil.copytree(ROOT / "src", copy, ignore=shutil.ignore_patterns("__pycache__"))
    return copy


def failing(tests: list[str], copy: Path, *options: str) -> list[str]:
    """Which of some tests fail on a copy of the sources."""
    run = subprocess.run(
        [
            *(sys.executable, "-m", "pytest", "-q", "--reuse-db", "-p", "no:cacheprovider"),
            *("-rfE", "-o", f"pythonpath={copy} {ROOT}", *options, *tests),
        ],
        cwd=ROOT, capture_output=True, text=True, timeout=SECONDS, check=False,
    )  # fmt: skip
    told = [
        line.split(" ", 1)[1]
        for line in run.stdout.splitlines()
        if line.startswith(_FAILS) and "::" in line
    ]
    found = [line.partition(" - ")[0] for line in told]
    return found or (["(none could start)"] if run.returncode not in (0, 5) else [])


def noticing(one: Mutant, tests: list[str], copy: Path) -> str:
    """The test that fails on a copy of the sources that has the fault; "" where none does."""
    path = copy / one.path
    whole = path.read_bytes()
    path.write_bytes(whole[: one.start] + one.now.encode() + whole[one.end :])
    try:
        compile(path.read_bytes(), str(path), "exec")
        for some in batched(tests, AT_ONCE):
            quick_first = sorted(some, key=lambda test: test.startswith("tests/server"))
            if by := next(iter(failing(quick_first, copy, "-x")), ""):
                return by
        return ""
    except SyntaxError:
        return "(no Python)"
    except subprocess.TimeoutExpired:
        return "(without an end)"
    finally:
        path.write_bytes(whole)


def lines_run(database: Path) -> dict[str, dict[str, list[str]]]:
    """By file and line, the tests that run it, out of what coverage.py has measured."""
    from coverage import CoverageData  # of the run that measures alone

    data = CoverageData(str(database))
    data.read()
    found: dict[str, dict[str, list[str]]] = {}
    for path in data.measured_files():
        name = str(Path(path).relative_to(ROOT / "src"))
        for line, contexts in data.contexts_by_lineno(path).items():
            tests = sorted({one.partition("|")[0] for one in contexts if one})
            if tests:
                found.setdefault(name, {})[str(line)] = tests
    return found


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("lines", type=Path)
    parser.add_argument("--cover", type=Path, help="write the lines out of this measurement")
    parser.add_argument("--many", type=int, default=150)
    parser.add_argument("--seed", type=int, default=1)
    asked = parser.parse_args()
    if asked.cover:
        asked.lines.write_text(json.dumps(lines_run(asked.cover)))
        return
    tests_of = json.loads(asked.lines.read_text())
    living: list[Mutant] = []
    noticed_by: dict[str, list[Mutant]] = {}
    drawn = chosen(tests_of, asked.many, asked.seed)
    with tempfile.TemporaryDirectory() as folder:
        copy = laid_out(Path(folder))
        for number, one in enumerate(drawn, start=1):
            some = concerned(tests_of[one.path], one.line, random.Random(asked.seed))
            if by := noticing(one, some, copy):
                noticed_by.setdefault(by, []).append(one)
            else:
                living.append(one)
            print(f"{number}/{len(drawn)} {f'noticed: {by}' if by else 'LIVES'} {one}", flush=True)
        named = sorted(by for by in noticed_by if not by.startswith("("))
        for some in batched(named, 20):
            for by in failing(list(some), copy):
                print(f"fails without a fault: {by}")
                living += noticed_by.pop(by, [])
    print(f"\n{len(drawn) - len(living)} of {len(drawn)} noticed; living:")
    for one in living:
        print(f"  {one}")


def batched(tests: list[str], many: int) -> Iterator[list[str]]:
    """So many at a time."""
    for at in range(0, len(tests), many):
        yield tests[at : at + many]


if __name__ == "__main__":
    main()

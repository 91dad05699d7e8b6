"""One word for one thing, everywhere: what people read in the interface, in refusals, findings and
labels, on paper and in the guide holds none of the words that once meant several things."""

import ast
import re
from pathlib import Path

import pytest

from ombrel.core import findings, flow_of
from ombrel.core.catalogue import CATALOGUE
from ombrel.demo import demo_show
from tests.desks import TOURING
from tests.shows import show_of_seed

ROOT = Path(__file__).parents[1]
# what is not said any more, and what is said for it
INSTEAD = {
    r"\b[Pp]assed by\b": "skipped by go, not in this path, left out",
    r"\b[Tt]ake (?:it )?back a lift\b": "remove",
    r"\b(?:hard|soft) (?:mute|group|key)s?\b": "seal, mute",
    r"\bFrom top to bottom\b": "open strip",
    r"\b(?:solo )?proof\b": "stays open in solo",
    r"\bsuspend(?:ed|s)?\b": "rest, resting",
    r"\bUse A\b": "source, spare",
    r"\b[Tt]urned over\b": "inverted",
    r"\blet Mono wait\b": "delay Mono by",
    r"\bNeutral\b": "flat",
    r"\b\d+ loose\b": "change not kept",
    r"\b[Pp]ut all on\b": "all fittings on",
    r"\b[Bb]ack to the one before\b": "recall the one before",
    r"\bIn between\b": "groups and effects",
    r"\bstraight\b": "direct",
    r"\bserves\b": "used for",
    r"\bsettle\b": "mend",
    r"(?<!\$\.)\bbays?\b": "side",
}
# how something is spelt in code, which nobody reads: two words by a low line, an address
CODE = re.compile(r"\b[a-z]+_[a-z]+\b|\b[a-z_]+/\d")


def old_words(text):
    return [word for word in INSTEAD if re.search(word, text)]


def said_in_python(path):
    """Sentences in a file's code: texts of several words that are no documentation."""
    tree = ast.parse(path.read_text())
    documentation = {
        id(node.body[0].value)
        for node in ast.walk(tree)
        if isinstance(node, ast.Module | ast.ClassDef | ast.FunctionDef | ast.AsyncFunctionDef)
        and node.body
        and isinstance(node.body[0], ast.Expr)
    }
    for node in ast.walk(tree):
        text = getattr(node, "value", None)
        if (
            isinstance(node, ast.Constant)
            and isinstance(text, str)
            and id(node) not in documentation
        ) and " " in text.strip():
            yield node.lineno, text


def said_in_web(path):
    """Sentences in a view: texts of several words, quoted or between tags; no comment is one."""
    code = re.sub(r"/\*.*?\*/|(?<!:)//[^\n]*", "", path.read_text(), flags=re.DOTALL)
    code = re.sub(r'class(?:Name)?=(?:"[^"]*"|\{`[^`]*`\})', "", code)
    for text in re.findall(
        r'"([^"\n]* [^"\n]*)"|`([^`]* [^`]*)`|>\s*([^<>{}]* [^<>{}]*)\s*<', code
    ):
        told = "".join(text)
        if not re.search(r"[{}();=]", told):  # code between two texts
            yield 0, told


def places():
    for room in ("core", "formats", "server", "demo"):
        for path in sorted((ROOT / "src/ombrel" / room).rglob("*.py")):
            if "find" not in path.parts and "lists" not in path.parts:  # they read what people say
                yield from ((path, line, text) for line, text in said_in_python(path))
    for path in sorted((ROOT / "web/src").rglob("*.ts*")):
        if ".test." not in path.name and "generated" not in path.parts:
            yield from ((path, line, text) for line, text in said_in_web(path))


def test_no_sentence_of_the_code_says_an_old_word():
    told = list(places())
    assert len(told) > 1500  # it reads something
    found = [
        f"{path.relative_to(ROOT)}:{line}: {text[:90]!r} says {old_words(text)}"
        for path, line, text in told
        if old_words(text)
    ]
    assert found == []


@pytest.mark.parametrize("page", ["README.md", "docs/guide.md"])
def test_no_page_for_people_says_one(page):
    lines = (ROOT / page).read_text().split("\n")
    assert [f"{n}: {line}" for n, line in enumerate(lines, 1) if old_words(line)] == []


def test_every_label_and_choice_is_in_words():
    for parameter in CATALOGUE.values():
        for text in (parameter.label, parameter.says):
            assert text, parameter.key
            assert not CODE.search(text), (parameter.key, text)
            assert not old_words(text), (parameter.key, text)


def test_every_finding_is_in_words_and_names_what_it_is_about():
    read = 0
    for show in (demo_show(TOURING), *map(show_of_seed, range(120))):
        for finding in findings(show, flow_of(show)):
            read += 1
            for text in filter(None, (finding.says, finding.remedy)):
                assert not CODE.search(text), (finding.rule, text)
                assert not old_words(text), (finding.rule, text)
            assert finding.says.endswith("."), finding.says
    assert read > 300

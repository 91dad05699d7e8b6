"""What ships stands under licences that let it ship, and the paper says which."""

import json
import re

from ombrel.server.operating.given import ROOT
from ombrel.server.operating.licences import licences_paper

# words of licences under which a program may be handed on with others beside it, as it is
FREE = re.compile(
    r"MIT|BSD|ISC|Apache|OFL-1\.1|Unlicense|0BSD|PSF|Python Software|LGPL|MPL|Zlib|CC0"
)


def rows():
    paper = (ROOT / "docs/licences.md").read_text("utf-8")
    found = re.findall(r"^\| (\S+) \| (\S+) \| (.+) \|$", paper, re.M)
    return {
        name: (version, licence)
        for name, version, licence in found
        if name not in ("package", "---")
    }


def test_the_paper_is_what_is_locked_and_built():
    assert (ROOT / "docs/licences.md").read_text("utf-8") == licences_paper(ROOT), (
        "python -m django write_licences, behind a build"
    )


def test_each_package_of_the_server_and_each_that_the_screens_name_is_in_it():
    there = rows()
    locked = (ROOT / "requirements/app.lock").read_text("utf-8")
    for line in [one for one in locked.splitlines() if "==" in one]:
        name, _, version = line.split(" ")[0].partition("==")
        assert there[name.partition("[")[0]][0] == version
    for name in json.loads((ROOT / "web/package.json").read_text("utf-8"))["dependencies"]:
        # one that gathers others is not in the build itself: they are
        assert name in there or name == "radix-ui", name
    assert any(name.startswith("@radix-ui/") for name in there)


def test_nothing_ships_that_may_not():
    for name, (_, licence) in rows().items():
        choices = re.split(r" or | OR ", licence)
        assert any(FREE.search(one) for one in choices), (name, licence)


def test_the_texts_go_with_the_screens():
    texts = (ROOT / "web/dist/licences.txt").read_text("utf-8")
    assert texts.count("Permission is hereby granted") > 50
    fonts = (ROOT / "web/dist/licences-fonts.txt").read_text("utf-8")
    for folder in ROOT.glob("web/node_modules/@fontsource-variable/*"):
        assert (folder / "LICENSE").read_text("utf-8").strip() in fonts, folder.name

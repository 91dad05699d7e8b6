"""Rules about the code itself."""

import ast
import pathlib

import pytest
from django.core.management import call_command

ROOT = pathlib.Path(__file__).parent.parent
CORE = sorted((ROOT / "src/ombrel/core").rglob("*.py"))
WORLD = {"django", "channels", "asyncio", "socket", "os", "pathlib", "time", "datetime", "random",
         "logging", "importlib", "urllib", "subprocess"}  # fmt: skip
HOSTS = ("registry.np" + "mjs", "files.python" + "hosted", "pypi." + "org")


@pytest.mark.parametrize("path", CORE, ids=lambda path: path.name)
def test_core_reaches_for_nothing_outside(path):
    roots = set()
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Import):
            roots |= {alias.name.split(".")[0] for alias in node.names}
        elif isinstance(node, ast.ImportFrom) and node.level == 0:
            roots.add((node.module or "").split(".")[0])
    assert not roots & WORLD


def test_every_model_change_has_its_migration(db):
    call_command("makemigrations", "--check", "--dry-run", verbosity=0)


def test_what_the_front_end_is_told_of_the_api_and_a_desk_is_the_codes_own():
    from ombrel.server.management.commands import write_openapi as written

    told = "run manage write_openapi and npm run types"
    assert written.PATH.read_text() == written.description(), told
    assert written.DESK.read_text() == written.desk(), told


@pytest.mark.parametrize("name", ["requirements/app.lock", "requirements/dev.lock",
                                  "web/package-lock.json"])  # fmt: skip
def test_lock_files_hold_no_download_addresses(name):
    text = (ROOT / name).read_text()
    assert not any(host in text for host in HOSTS)
    assert "://" not in text.replace("https://opencollective", "").replace(
        "https://github", ""
    ) or ('"resolved"' not in text)

"""Backups: what was there is there again, row by row; what is damaged or newer is refused."""

import json
import os
import signal
import subprocess
import sys
import threading
import time
import uuid

import psycopg
import pytest
from django.core.management import CommandError, call_command
from django.db.migrations.loader import MigrationLoader

from ombrel.server import models
from ombrel.server.operating import backups, dumps
from ombrel.server.operating.backups import Backup, backups_in, failure_in, make_backup
from ombrel.server.operating.dumps import NOT_KEPT, BackupFailed, Store
from ombrel.server.operating.restoring import restore

from .conftest import make

pytestmark = pytest.mark.usefixtures("transactional_db")


@pytest.fixture
def store():
    return Store.given()


@pytest.fixture
def house(show, ann, ben):
    """A show with a history, a point, somebody it is shared with, and sign-ins."""
    for step in range(5):
        make(show, {"channel/3/fader": -float(step)}, ann)
        make(show, {"channel/4/name": f"Võice ✓ {step}"}, ben)
    models.Point.objects.create(show=show, revision=3, name="before doors", author=ann)
    models.Share.objects.create(show=show, person=ben, role="volunteer", given=[["dca/1", -6, 0]])
    ann.set_password("seven tin kettles")
    ann.save()
    models.ListFile.objects.create(
        show=show, author=ann, name="list.csv", content=bytes(range(256))
    )
    models.Visit.objects.create(session="x" * 32, person=ann)
    return show


def rows(store):
    """All that a database holds, table by table: a referee that makes no digests."""
    with store.connect() as link:
        names = [
            name
            for (name,) in link.execute(
                "select table_name from information_schema.tables where table_schema = 'public'"
            )
        ]
        return {
            name: sorted(map(repr, link.execute(f'select * from "{name}"').fetchall()))
            for name in names
        }


def names_of(store):
    with store.named("postgres").connect() as link:
        return {name for (name,) in link.execute("select datname from pg_database")}


def known():
    return {f"{app}.{name}" for app, name in MigrationLoader(None).disk_migrations}


@pytest.fixture
def elsewhere(store):
    """The name of a database that is not there yet, as on a new machine; gone behind the test."""
    name = f"{store.name}_{uuid.uuid4().hex[:8]}"
    yield store.named(name)
    with store.named("postgres").connect() as link:
        for one in names_of(store):
            if one.startswith(name):
                link.execute(f'drop database "{one}" with (force)')


def test_what_was_there_is_there_again_row_by_row(house, store, elsewhere, tmp_path):
    made = make_backup(store, tmp_path, "hand")
    assert (made.shows, made.changes, made.accounts) == (1, 10, 1)
    assert backups_in(tmp_path) == [made]
    was = rows(store)
    done = restore(elsewhere, tmp_path / f"{made.name}.dump", known())
    assert (done.backup, done.aside) == (made, "")
    again = rows(elsewhere)
    assert again.keys() == was.keys()
    for name, held in was.items():
        assert again[name] == ([] if name in NOT_KEPT else held), name
    assert len(again["server_change"]) == 10
    # nothing but the two files is left, and nobody else can read them
    assert {path.suffix for path in tmp_path.iterdir()} == {".dump", ".json"}
    assert (tmp_path / f"{made.name}.dump").stat().st_mode & 0o077 == 0
    assert not [name for name in names_of(store) if name.endswith("_readback")]


def test_what_was_there_before_a_restore_stays_beside(house, store, elsewhere, tmp_path):
    first = make_backup(store, tmp_path, "night")
    restore(elsewhere, tmp_path / f"{first.name}.dump", known())
    with elsewhere.connect() as link:
        link.execute("update server_show set name = 'Tonight'")
        later = rows_of_shows(link)
    done = restore(elsewhere, tmp_path / f"{first.name}.dump", known())
    assert done.aside in names_of(store)
    with elsewhere.connect() as link, elsewhere.named(done.aside).connect() as aside:
        assert rows_of_shows(aside) == later
        assert rows_of_shows(link) == [("Quay",)]


def rows_of_shows(link):
    return link.execute("select name from server_show").fetchall()


def damaged(folder, made):
    path = folder / f"{made.name}.dump"
    content = bytearray(path.read_bytes())
    content[len(content) // 2] ^= 1
    path.write_bytes(content)


def told_newer(folder, made):
    told = json.loads((folder / f"{made.name}.json").read_text())
    told["migrations"].append("server.9999_of_next_year")
    (folder / f"{made.name}.json").write_text(json.dumps(told))


def another_form(folder, made):
    told = json.loads((folder / f"{made.name}.json").read_text())
    (folder / f"{made.name}.json").write_text(json.dumps({**told, "format": 99}))


def other_rows(folder, made):
    told = json.loads((folder / f"{made.name}.json").read_text())
    told["tables"]["server_change"]["rows"] += 1
    (folder / f"{made.name}.json").write_text(json.dumps(told))


def no_manifest(folder, made):
    (folder / f"{made.name}.json").unlink()


def no_json(folder, made):
    (folder / f"{made.name}.json").write_text("[1, 2")


@pytest.mark.parametrize(
    ("spoil", "words"),
    [
        (damaged, "damaged"),
        (told_newer, "made by a newer Ombrel (server.9999_of_next_year)"),
        (another_form, "written by a newer Ombrel"),
        (other_rows, "differs in server_change"),
        (no_manifest, "a backup is a .dump and its .json"),
        (no_json, "manifest cannot be read"),
    ],
)
def test_what_cannot_be_trusted_is_not_restored_and_nothing_changes(
    spoil, words, house, store, elsewhere, tmp_path
):
    made = make_backup(store, tmp_path, "hand")
    restore(elsewhere, tmp_path / f"{made.name}.dump", known())
    was, there = rows(elsewhere), names_of(store)
    spoil(tmp_path, made)
    with pytest.raises(BackupFailed) as told:
        restore(elsewhere, tmp_path / f"{made.name}.dump", known())
    assert words in str(told.value)
    assert rows(elsewhere) == was
    assert names_of(store) == there


def test_a_database_that_is_in_use_is_left_alone(house, store, tmp_path):
    made = make_backup(store, tmp_path, "hand")
    there = names_of(store)
    with pytest.raises(BackupFailed, match="in use: stop the server first"):
        restore(store, tmp_path / f"{made.name}.dump", known())
    assert names_of(store) == there


def test_a_backup_is_of_one_moment_while_hands_go_on(house, store, elsewhere, tmp_path, ann):
    ended = threading.Event()

    def hands():
        step = 0
        while not ended.is_set():
            make(house, {"channel/9/fader": -float(step % 40)}, ann)
            step += 1

    hand = threading.Thread(target=hands)
    hand.start()
    try:
        made = make_backup(store, tmp_path, "night")  # read back and alike, or this raises
    finally:
        ended.set()
        hand.join()
    restore(elsewhere, tmp_path / f"{made.name}.dump", known())
    with elsewhere.connect() as link:
        revision, changes = link.execute(
            "select revision, (select count(*) from server_change) from server_show"
        ).fetchone()
    assert revision == changes == made.changes


def test_what_a_killed_backup_leaves_is_no_backup_and_is_swept(house, store, tmp_path):
    environment = {**os.environ, "OMBREL_DB_NAME": store.name, "OMBREL_BACKUPS": str(tmp_path)}
    command = [sys.executable, "-m", "django", "backup"]
    killed = 0
    for wait_s in (0.0, 0.1, 0.3, 0.6):
        process = subprocess.Popen(command, env=environment, stdout=subprocess.DEVNULL)
        while process.poll() is None and not list(tmp_path.glob(".making-*")):
            time.sleep(0.01)
        time.sleep(wait_s)
        if process.poll() is None:
            process.send_signal(signal.SIGKILL)
            killed += 1
        process.wait()
        for one in backups_in(tmp_path):  # it was quicker than that
            (tmp_path / f"{one.name}.json").unlink()
    assert killed
    assert backups_in(tmp_path) == []
    deadline = time.monotonic() + 60
    while True:  # the lock goes with the connection of who was killed
        try:
            made = make_backup(store, tmp_path, "hand")
            break
        except BackupFailed as error:
            if "under way" not in str(error) or time.monotonic() > deadline:
                raise
            time.sleep(0.2)
    assert backups_in(tmp_path) == [made]
    assert not list(tmp_path.glob(".making-*"))
    assert f"{store.name}_readback" not in names_of(store)


def test_two_at_once_are_one_and_a_failure_is_kept_until_one_succeeds(house, store, tmp_path):
    with backups.alone(store), pytest.raises(BackupFailed, match="under way"):
        make_backup(store, tmp_path, "hand")
    failed = failure_in(tmp_path)
    assert failed is not None
    assert "under way" in failed[1]
    make_backup(store, tmp_path, "hand")
    assert failure_in(tmp_path) is None


def test_what_read_back_differs_gets_no_name(house, store, tmp_path, monkeypatch):
    told = dumps.held

    def less(link):  # as from a disk that lost a row
        lost = {"server_point": None} if "readback" in link.info.dbname else {}
        return told(link) | lost

    monkeypatch.setattr("ombrel.server.operating.backups.held", less)
    with pytest.raises(BackupFailed, match="differs in server_point"):
        make_backup(store, tmp_path, "night")
    assert backups_in(tmp_path) == []
    assert "differs" in failure_in(tmp_path)[1]


def test_who_may_make_no_database_is_told_what_to_do(house, store, tmp_path):
    with store.connect() as link:
        link.execute("drop role if exists only_reads")
        link.execute("create role only_reads login password 'x' in role pg_read_all_data")
    poor = Store(store.host, store.port, "only_reads", "x", store.name)
    try:
        with pytest.raises(BackupFailed, match="alter role only_reads createdb"):
            make_backup(poor, tmp_path, "hand")
    finally:
        with store.connect() as link:
            link.execute("drop role only_reads")


def test_a_manifest_says_the_same_when_it_is_read(house, store, tmp_path):
    made = make_backup(store, tmp_path, "hand")
    assert Backup.from_json(made.to_json()) == made


def test_before_a_migration_there_is_a_backup_and_without_one_no_migration(
    house, store, elsewhere, tmp_path
):
    made = make_backup(store, tmp_path, "hand")
    restore(elsewhere, tmp_path / f"{made.name}.dump", known())
    environment = {**os.environ, "OMBREL_DB_NAME": elsewhere.name}

    def upgraded(folder):
        return subprocess.run(
            [sys.executable, "-m", "django", "upgrade"],
            env={**environment, "OMBREL_BACKUPS": str(folder)},
            capture_output=True, text=True, check=False,
        )  # fmt: skip

    with elsewhere.connect() as link:  # as if the last one had not been yet
        link.execute("delete from django_migrations where app = 'sessions'")
        link.execute("drop table django_session")
    was = rows(elsewhere)
    blocked = tmp_path / "a-file"
    blocked.touch()
    done = upgraded(blocked / "folder")
    assert done.returncode == 1
    assert "Nothing was changed" in done.stderr
    assert rows(elsewhere) == was
    done = upgraded(tmp_path / "kept")
    assert done.returncode == 0, done.stderr
    assert [one.reason for one in backups_in(tmp_path / "kept")] == ["migration"]
    assert "django_session" in rows(elsewhere)
    assert upgraded(tmp_path / "kept").stdout == ""  # there is nothing to do
    assert len(backups_in(tmp_path / "kept")) == 1


def test_a_command_says_what_it_made_and_what_there_is(house, store, tmp_path, settings, capsys):
    settings.GIVEN = settings.GIVEN.model_copy(update={"backups": tmp_path})
    call_command("restore")
    assert "There is no backup" in capsys.readouterr().out
    call_command("backup")
    assert "1 shows, 10 changes, 1 accounts; read back, and alike" in capsys.readouterr().out
    call_command("restore")
    assert ".dump   1 shows, 10 changes" in capsys.readouterr().out
    with pytest.raises(CommandError, match="nothing changed: there is no file"):
        call_command("restore", str(tmp_path / "none.dump"))


def test_an_administrator_sees_when_the_last_good_one_was_and_makes_one(
    house, signed_in, ann, tmp_path, settings
):
    settings.GIVEN = settings.GIVEN.model_copy(update={"backups": tmp_path})
    assert signed_in.get("/api/backups").status_code == 403
    ann.is_staff = True
    ann.save()
    assert signed_in.get("/api/backups").json()["standing"] == "none"
    make_backup(Store.given(), tmp_path, "night")
    told = signed_in.get("/api/backups").json()
    assert (told["standing"], told["failed"], len(told["backups"])) == ("good", "", 1)
    manifest = next(tmp_path.glob("*.json"))
    later = json.loads(manifest.read_text())
    late = Backup.from_json(json.dumps({**later, "made_at": "2026-01-01T05:00:00+00:00"}))
    for path in list(tmp_path.iterdir()):
        path.rename(tmp_path / f"{late.name}{path.suffix}")
    (tmp_path / f"{late.name}.json").write_text(late.to_json())
    assert signed_in.get("/api/backups").json()["standing"] == "late"


def test_nobody_answers_where_no_database_is(tmp_path):
    nowhere = Store("127.0.0.1", 1, "ombrel", "", "ombrel")
    with pytest.raises(BackupFailed, match="does not answer"):
        make_backup(nowhere, tmp_path, "night")
    assert "does not answer" in failure_in(tmp_path)[1]
    with pytest.raises(psycopg.OperationalError):
        psycopg.connect(host="127.0.0.1", port=1, connect_timeout=1)

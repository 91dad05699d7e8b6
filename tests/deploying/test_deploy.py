"""`docs/deploy.md`, followed line by line, and what it promises looked at from outside."""

import contextlib
import json
import os
import re
import shutil
import signal
import subprocess
import time
import urllib.error
import urllib.parse
import urllib.request

import psycopg
import pytest
from websockets.exceptions import ConnectionClosed, InvalidStatus

from .machine import ROOT, Machine, blocks
from .visitor import Visitor

# the order in which somebody does it
ORDER = [
    "install",
    "database",
    "start",
    "account",
    "check",
    "watch",
    "backup",
    "restore",
    "update",
    "several",
]


@pytest.fixture(scope="module")
def machine():
    here = Machine()
    yield here
    here.end()


@pytest.fixture(scope="module")
def me(machine):
    """The paper followed to the end of *Install*, and its first account signed in."""
    for name in ORDER[:3]:
        machine.follow(name)
    told = machine.follow("account")
    password = re.search(r"with the password (\S+)\.", told)
    assert password, told
    machine.password = password.group(1)
    return Visitor(machine, "house-engineer", machine.password)


def test_every_command_of_the_paper_is_followed_here():
    assert list(blocks()) == ORDER
    source = (ROOT / "docs/deploy.md").read_text("utf-8")
    assert source.count("\n```sh") == len(ORDER)


def test_pages_are_held_to_tls_and_run_no_code_but_their_own(machine, me):
    with Visitor(machine).open("/sign-in") as reply:
        told = reply.headers
    assert "max-age=31536000" in told["Strict-Transport-Security"]
    policy = told["Content-Security-Policy"]
    assert "unsafe" not in policy
    assert "default-src 'none'" in policy
    assert told["X-Content-Type-Options"] == "nosniff"
    assert "Server" not in told or "/" not in told["Server"]
    with me.open("/") as reply:
        policy, page = reply.headers["Content-Security-Policy"], reply.read().decode()
    own = re.search(r"'nonce-([^']+)'", policy)
    assert own
    assert f'nonce="{own.group(1)}"' in page
    assert "__NONCE__" not in page
    assert not re.search(r"<script(?![^>]*\bsrc=)|<style|\sstyle=|\son\w+=", page)
    with me.open("/") as reply:  # each page has another
        assert own.group(1) not in reply.headers["Content-Security-Policy"]
    session = me.cookie("__Host-sessionid")
    assert session.secure
    assert session.has_nonstandard_attr("HttpOnly")
    assert me.cookie("csrftoken").secure


def test_what_comes_without_tls_is_sent_on_and_past_the_proxy_too(machine, me):
    class Stays(urllib.request.HTTPRedirectHandler):
        def redirect_request(self, *about):
            return None

    opener = urllib.request.build_opener(Stays)
    for port in (machine.http, machine.server):
        with pytest.raises(urllib.error.HTTPError) as told:
            opener.open(f"http://127.0.0.1:{port}/sign-in", timeout=30)
        assert told.value.code == 301
        assert told.value.headers["Location"].startswith("https://")


def test_files_are_packed_and_never_asked_for_again(machine, me):
    with me.open("/") as reply:
        script = re.search(r'src="(/static/assets/main-[^"]+\.js)"', reply.read().decode())
    assert script
    with me.open(script.group(1), **{"Accept-Encoding": "br"}) as reply:
        assert "immutable" in reply.headers["Cache-Control"]
        assert reply.headers["Content-Encoding"] == "br"
    for hidden in ("/static/.vite/manifest.json", "/static/.ombrel-built", "/static/index.html"):
        with pytest.raises(urllib.error.HTTPError) as told:
            me.open(hidden)
        assert told.value.code == 404


def test_who_asks_is_who_the_proxy_says_and_not_who_they_say(machine, me):
    assert {one["address"] for one in me.api("me/visits")} == {"127.0.0.1"}


def test_a_screen_is_live_through_the_proxy_and_no_other_page_opens_one(machine, me):
    show = me.api("shows", {"name": "Opening night", "desk": "touring-48"})["id"]
    with me.live(show) as live:
        live.send(json.dumps({"type": "ping", "at": 1}))
        assert json.loads(live.recv(timeout=30))
    for origin in ("https://elsewhere.example.org", machine.site.replace("https", "http")):
        with pytest.raises(InvalidStatus) as told, me.live(show, origin):
            pass
        assert told.value.response.status_code == 403
    stranger = Visitor(machine)
    with stranger.live(show) as live, pytest.raises(ConnectionClosed):
        live.recv(timeout=30)
    assert live.close_code == 4401  # without a word


def test_djangos_own_check_and_what_watches_it_are_content(machine, me):
    assert "no issues" in machine.follow("check")
    told = machine.follow("watch")
    assert '"lives": true' in told
    assert '"ready": true' in told
    assert "ombrel_edits_total" in told or "# TYPE ombrel_edits" in told
    assert "ombrel_pool_size" in told


def test_log_lines_are_json_with_the_requests_id_and_hold_nothing_secret(machine, me):
    with me.open("/api/me?token=seven-tin-kettles") as reply:
        asked = reply.headers["x-request-id"]
    deadline = time.monotonic() + 30
    while True:
        lines = [json.loads(one) for one in machine.said().splitlines() if one.startswith("{")]
        mine = [one for one in lines if one.get("request") == asked]
        if mine or time.monotonic() > deadline:
            break
        time.sleep(0.1)
    assert [(one["message"], one["status"]) for one in mine] == [("GET /api/me", 200)]
    # beside the words with which it starts, every line is one
    others = [one for one in machine.said().splitlines() if not one.startswith("{")]
    assert all("▸" in one or one.startswith("migrated: ") for one in others), others
    session = me.cookie("__Host-sessionid").value
    for secret in ("kettles", machine.password, session):
        assert secret not in machine.said()


def server_pid(machine):
    found = subprocess.run(
        ["pgrep", "-f", f"ombrel.server.serve --port {machine.server}"],
        stdout=subprocess.PIPE, text=True, check=True,
    ).stdout  # fmt: skip
    return int(found.split()[0])


def test_a_server_that_is_killed_comes_back_and_the_database_stays(machine, me):
    names = [one["name"] for one in me.api("shows")]
    killed = server_pid(machine)
    os.kill(killed, signal.SIGKILL)
    deadline = time.monotonic() + 60
    while True:
        with contextlib.suppress(urllib.error.URLError, OSError, subprocess.CalledProcessError):
            if server_pid(machine) != killed and me.api("shows"):
                break
        assert time.monotonic() < deadline, machine.said()
        time.sleep(0.1)
    assert [one["name"] for one in me.api("shows")] == names


def kept(machine):
    """All rows that a backup holds, by another way than it."""
    with psycopg.connect(
        host="127.0.0.1", port=machine.database, user="postgres", password="for-the-test",
        dbname="ombrel",
    ) as link:  # fmt: skip
        names = ("server_show", "server_setting", "server_change", "server_point", "server_share")
        return {
            name: sorted(map(repr, link.execute(f"select * from {name}").fetchall()))
            for name in (*names, "auth_user")
        }


def test_a_backup_is_made_the_house_lost_and_all_of_it_had_back(machine, me):
    machine.ready()
    me.api("shows", {"name": "To be kept", "desk": "small-24"})
    told = machine.follow("backup")
    assert "read back, and alike" in told
    assert told.count(".dump") == 2  # made, and listed
    was = kept(machine)
    assert len(was["server_show"]) == 2
    # all that the installation keeps beside its backups is lost
    machine.follow("restore", fails=True, extra="\nexit 1\n")
    machine.ready()
    subprocess.run(
        ["bash", "-c", "systemctl stop ombrel; dropdb --force ombrel"], check=True,
        env=machine.environment, cwd=machine.here,
    )  # fmt: skip
    shutil.rmtree(machine.here / "var/lib/ombrel")
    (machine.here / "var/lib/ombrel").mkdir()
    machine.follow("restore")
    machine.ready()
    again = kept(machine)
    # when somebody signed in last is kept as it was when the backup was made
    assert {name: again[name] for name in was} == was
    another = Visitor(machine, "house-engineer", machine.password)  # everybody signs in again
    assert {one["name"] for one in another.api("shows")} == {"Opening night", "To be kept"}
    standing = another.api("backups")
    assert standing["standing"] == "good"


def test_an_update_restarts_it_and_newer_data_is_left_alone(machine, me):
    machine.ready()
    before = server_pid(machine)
    machine.follow("update")
    machine.ready()
    assert server_pid(machine) != before
    newer = (
        "systemctl stop ombrel\n"
        'psql -q ombrel -c "insert into django_migrations (app, name, applied)'
        " values ('server', '9999_of_next_year', now())\"\n"
        f"set -a; . {machine.here}/etc/ombrel/ombrel.env; set +a\n"
        f"! {machine.here}/opt/ombrel/bin/serve\n"
        "psql -q ombrel -c \"delete from django_migrations where name = '9999_of_next_year'\"\n"
    )
    done = subprocess.run(
        ["bash", "-ec", newer], env=machine.environment, cwd=machine.here, text=True,
        stdout=subprocess.PIPE, stderr=subprocess.STDOUT, timeout=120, check=False,
    )  # fmt: skip
    assert done.returncode == 0, done.stdout
    assert "The data is newer than this code" in done.stdout


@pytest.mark.parametrize(
    ("line", "word"),
    [
        ("OMBREL_PROXIES=", "OMBREL_PROXIES names no proxy"),
        ("OMBREL_DEMO=1 OMBREL_SITE=https://sound.example.org", "demo's password"),
        ("OMBREL_REDIS=redis://10.0.0.9", "without a password"),
        ("OMBREL_SITE=http://sound.example.org", "without TLS"),
    ],
)
def test_a_mix_that_is_not_safe_is_not_served(line, word, machine, me):
    settings = machine.here / "etc/ombrel/ombrel.env"
    commands = f"set -a; . {settings}; {line}; set +a\n! {machine.here}/opt/ombrel/bin/serve"
    done = subprocess.run(
        ["bash", "-ec", commands], env=machine.environment, cwd=machine.here, text=True,
        stdout=subprocess.PIPE, stderr=subprocess.STDOUT, timeout=120, check=False,
    )  # fmt: skip
    assert done.returncode == 0, done.stdout
    assert word in done.stdout


def test_the_unit_is_one_that_systemd_reads_and_shuts_in(tmp_path):
    tool = shutil.which("systemd-analyze")
    unit = tmp_path / "ombrel.service"
    unit.write_text((ROOT / "deploy/ombrel.service").read_text().replace("/opt/ombrel", str(ROOT)))
    fields = dict(re.findall(r"^(\w+)=(.*)$", unit.read_text(), re.M))
    assert fields["Restart"] == "always"
    assert fields["StartLimitIntervalSec"] == "0"
    assert fields["NoNewPrivileges"] == "yes"
    if tool is None:
        return  # a machine without systemd: what it would say is not known here
    said = subprocess.run([tool, "verify", str(unit)], capture_output=True, text=True, check=False)
    assert (said.returncode, said.stderr) == (0, "")
    shut = subprocess.run(
        [tool, "security", "--offline=true", "--threshold=25", str(unit)],
        capture_output=True, text=True, check=False,
    )  # fmt: skip
    assert shut.returncode == 0, shut.stdout[-300:]

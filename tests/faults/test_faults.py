"""An evening of faults: what was acknowledged is there, once, and whole, whatever died meanwhile.

`bin/test` has a few of each, `bin/test faults` many: OMBREL_KILLS, OMBREL_HOSTILE.
"""

import contextlib
import os
import random
import socket
import subprocess
import sys
import threading
import time
import uuid
from pathlib import Path

import pytest
from websockets.exceptions import ConnectionClosed

from ombrel.formats.osc import write_message
from tests.hostile import Hostile
from tests.screens.conftest import Served, free_port
from tests.screens.pages import Page

from .storm import Storm, judged

KILLS = int(os.environ.get("OMBREL_KILLS", "3"))
NOISE_S = float(os.environ.get("OMBREL_NOISE", "6"))  # `bin/test faults` has more
WIRED = int(os.environ.get("OMBREL_WIRED", "200"))  # hostile messages over the wire


@pytest.fixture
def process(server, tmp_path):
    process = Served({**server.environment, "PYTHONUNBUFFERED": "1"}, says=tmp_path / "said")
    process.start()
    yield process
    process.kill()


def told(what, acknowledged, lost, doubled, half):
    print(
        f"\n{what}: {acknowledged} acknowledged, {len(lost)} lost, {len(doubled)} doubled,"
        f" {len(half)} half done"
    )
    assert acknowledged > 0
    assert (lost, doubled, half) == (set(), [], [])


def no_tracebacks(process, *but):
    """Nothing that nobody foresaw is in what a process said; what a dead database says may be."""
    said = process.says.read_text(errors="replace")
    blocks = said.split("Traceback (most recent call last):")[1:]
    strange = [block[-1_500:] for block in blocks if not any(word in block for word in but)]
    assert strange == [], strange[0]


def test_a_server_that_is_killed_again_and_again_loses_nothing(server, process):
    show = server.copied_demo()
    draw = random.Random(28)
    with Storm(process, show) as storm:
        for _ in range(KILLS):
            storm.goes_on()
            time.sleep(draw.random() * 0.3)
            process.kill()
            process.start()
        storm.goes_on()
    told(f"{KILLS} kills of the server", *judged(server, show, storm))
    no_tracebacks(process)
    with Page(process, show) as one, Page(process, show, "monitors") as other:
        assert one.values == other.values
        one.until(lambda: [m for m in one.heard if m["type"] == "present"])
        one.listen(1.0)  # whoever was killed is there no more
        here = [m for m in one.heard if m["type"] == "present"][-1]
        assert len(here["others"]) == 2


def test_a_database_that_dies_again_and_again_loses_nothing(server, process):
    show = server.copied_demo()
    command = [f"{os.environ['PG_BIN']}/pg_ctl", "-D", os.environ["PG_FOLDER"], "-m", "immediate",
               "-w", "restart"]  # fmt: skip
    as_owner = ["runuser", "-u", "postgres", "--"] if os.getuid() == 0 else []
    with Storm(process, show) as storm:
        for _ in range(max(1, KILLS // 4)):
            storm.goes_on()
            subprocess.run([*as_owner, *command], check=True, stdout=subprocess.DEVNULL)
        storm.goes_on()
    told(f"{max(1, KILLS // 4)} kills of the database", *judged(server, show, storm))
    no_tracebacks(process, "psycopg", "OperationalError", "InterfaceError")


# ---- cues from outside


def listening(process, show, kind="osc_udp", sort=socket.SOCK_DGRAM):
    """A show whose cues are armed, with a way in that is open; gives its port."""
    port = free_port(sort)
    with Page(process, show) as page:
        page.say(type="arm_cues", mode="armed")
        page.say(type="set_cue_way", id=str(uuid.uuid4()), kind=kind, on=True,
                 host="127.0.0.1", port=str(port))  # fmt: skip
        page.until(lambda: _cues(page) and _listens(page, kind))
    return port


def _listens(page, kind):
    return any(way["listens"] for way in _cues(page)["ways"] if way["kind"] == kind)


def _cues(page):
    told = [one for one in page.heard if one["type"] == "cues"]
    return told[-1] if told else None


def test_cues_amid_kills_are_done_and_told_or_neither(server, process):
    """Every row that says what was done has its change, and every change its row."""
    show, draw = server.copied_demo(), random.Random(36)
    port = listening(process, show)
    sent = 0
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as machine:
        for _ in range(KILLS):
            end = time.monotonic() + 1.0 + draw.random()
            while time.monotonic() < end:
                sent += 1
                number = draw.randint(1, 20)
                machine.sendto(write_message("/ombrel/scene", number), ("127.0.0.1", port))
                time.sleep(0.06)
            process.kill()
            process.start()
        time.sleep(2.0)  # its way opens by itself: settings are kept
        with Page(process, show) as page:
            machine.sendto(write_message("/ombrel/scene", 21), ("127.0.0.1", port))
            page.until(lambda: page.values.get("run/now") == "scene/22")
    with server.sql() as link:
        rows = link.execute(
            "select edit_id, revision from server_cuetold"
            " where show_id = %s and revision is not null", [show]).fetchall()  # fmt: skip
        changes = link.execute(
            "select c.edit_id, c.revision from server_change c join auth_user u"
            " on u.id = c.author_id where c.show_id = %s and u.username = 'Cues from outside'",
            [show]).fetchall()  # fmt: skip
    print(f"\n{KILLS} kills amid {sent} cues: {len(changes)} done, {len(rows)} told")
    assert changes
    assert sorted(rows) == sorted(changes)
    no_tracebacks(process)


def memory_kb(process):
    """Resident memory of a process, in kB."""
    status = Path(f"/proc/{process.process.pid}/status").read_text()
    return int(next(line.split()[1] for line in status.splitlines() if line.startswith("VmRSS")))


def test_noise_at_every_way_in_is_counted_and_holds_nobody_up(server, process):
    """Random bytes, damaged packets and true ones cut anywhere; hands are answered meanwhile."""
    show, draw = server.copied_demo(), random.Random(37)
    ports = {
        kind: listening(process, show, kind, sort)
        for kind, sort in (("osc_udp", socket.SOCK_DGRAM), ("osc_tcp", socket.SOCK_STREAM),
                           ("midi_tcp", socket.SOCK_STREAM))
    }  # fmt: skip
    real = write_message("/ombrel/scene", 4)
    datagrams = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
    streams = [socket.create_connection(("127.0.0.1", ports[k])) for k in ("osc_tcp", "midi_tcp")]
    for one in streams:
        one.settimeout(10)
    with Page(process, show) as page:
        slowest = 0.0
        before = None
        end = time.monotonic() + NOISE_S
        while time.monotonic() < end:
            for _ in range(200):
                content = bytearray(draw.choice([draw.randbytes(draw.randint(0, 300)), real]))
                for _ in range(draw.choice([0, 1, 3])):
                    if content:
                        content[draw.randrange(len(content))] = draw.randrange(256)
                datagrams.sendto(bytes(content), ("127.0.0.1", ports["osc_udp"]))
                for stream in streams:
                    stream.sendall(content)
            began = time.monotonic()
            page.put("channel/3/fader", -round(draw.random() * 20, 1))
            slowest = max(slowest, time.monotonic() - began)
            before = before or memory_kb(process)
        grown_kb = memory_kb(process) - before
        page.until(lambda: any("20 a second" in row["says"] for row in _cues(page)["told"]))
    for one in (datagrams, *streams):
        one.close()
    print(f"\n{NOISE_S} s of noise: slowest answer {slowest:.2f} s, memory {grown_kb} kB more")
    assert slowest < 5.0
    assert grown_kb < 60_000
    no_tracebacks(process)


# ---- an answer of COMMIT that is lost


class Between:
    """A door to the database that, when it is told to, lets a COMMIT through and not its answer."""

    def __init__(self, port):
        self._port, self.losing, self.lost = port, 0, 0
        self._lock = threading.Lock()
        self._ear = socket.create_server(("127.0.0.1", 0))
        self.port = self._ear.getsockname()[1]
        threading.Thread(target=self._serve, daemon=True).start()

    def _serve(self):
        with contextlib.suppress(OSError):
            while True:
                near, _ = self._ear.accept()
                far = socket.create_connection(("127.0.0.1", self._port))
                threading.Thread(target=self._there, args=(near, far), daemon=True).start()
                threading.Thread(target=self._back, args=(near, far), daemon=True).start()

    def _there(self, near, far):
        with contextlib.suppress(OSError):
            while data := near.recv(65_536):
                if b"COMMIT" in data and self._loses():
                    far.sendall(data)
                    time.sleep(0.05)  # it is done by then, and its answer on its way
                    break
                far.sendall(data)
        self._close(near, far)

    def _loses(self):
        with self._lock:
            if self.losing <= 0:
                return False
            self.losing -= 1
            self.lost += 1
            return True

    def _back(self, near, far):
        with contextlib.suppress(OSError):
            while data := far.recv(65_536):
                near.sendall(data)
        self._close(near, far)

    @staticmethod
    def _close(*ends):
        for end in ends:
            with contextlib.suppress(OSError):
                end.shutdown(socket.SHUT_RDWR)
            end.close()

    def end(self):
        self._ear.close()


def test_an_answer_of_commit_that_is_lost_costs_nothing_on_a_show_with_fittings(server, tmp_path):
    """The demo: fittings lie over its channels; a lift is on its way while answers are lost."""
    between = Between(int(os.environ["OMBREL_DB_PORT"]))
    environment = {**server.environment, "OMBREL_DB_PORT": str(between.port)}
    process = Served(environment, says=tmp_path / "said")
    process.start()
    show = server.copied_demo()
    try:
        with Page(process, show) as watching, Storm(process, show, hands=3) as storm:
            for turn in range(max(2, KILLS // 3)):
                lift = {"action": "lift", "lift": "lift/1", "on": turn % 2 == 0,
                        "strips": [singer_of(watching)]}  # fmt: skip
                watching.answer(watching.ask(lift))
                storm.goes_on()
                between.losing = 1
                watching.until(lambda turn=turn: between.lost > turn)
                watching.listen(0.3)
        assert any(message["type"] == "fading" for message in watching.heard)
        told(f"{between.lost} answers of COMMIT lost", *judged(server, show, storm))
        no_tracebacks(process, "psycopg", "OperationalError", "InterfaceError")
        with Page(process, show) as page:
            assert page.put("channel/1/fader", -6.0)["type"] == "done"
    finally:
        process.kill()
        between.end()


def singer_of(page):
    """Somebody whom the demo's lift can lift."""
    backing = page.values["lift/1/backing"]
    return min(
        address.partition(f"/{backing}/")[0]
        for address, value in page.values.items()
        if address.endswith(f"/{backing}/on") and value is True and address.startswith("channel/")
    )


# ---- what nobody means, over the wire


def test_hostile_messages_over_the_wire_end_nobody_and_leave_nothing(server, process):
    show = server.copied_demo()
    with Page(process, show, "monitors") as watching:
        schema = hostile_schema()
        source = Hostile(2, schema, demo())
        before, deaths, page = process_memory(process), 0, None
        for number in range(WIRED):
            if page is None:
                page = Page(process, show)
            try:
                page.link.send(source.message() or " ")
                if number % 20 == 19:
                    page.say(type="ping")
                    page.until(lambda page=page: [m for m in page.heard if m["type"] == "pong"])
                    page.heard.clear()
            except (ConnectionClosed, AssertionError):
                deaths += 1
                page = None
        if page is not None:
            page.connecting.__exit__(None, None, None)
        began = time.monotonic()
        assert watching.put("channel/1/fader", -7.0)["type"] == "done"
        took_s = time.monotonic() - began
        grown = process_memory(process) - before
        print(f"\n{WIRED} hostile messages: {deaths} connections ended, {grown:.0f} MB more,"
              f" then a move in {took_s:.2f} s")  # fmt: skip
        assert deaths == 0
        assert grown < 150.0  # caches fill; nothing grows with the messages
        watching.listen(1.0)
        here = [m for m in watching.heard if m["type"] == "present"]
        assert not here or len(here[-1]["others"]) == 1  # nobody is left behind
    no_tracebacks(process)


def process_memory(process):
    for line in Path(f"/proc/{process.process.pid}/status").read_text().splitlines():
        if line.startswith("VmRSS"):
            return int(line.split()[1]) / 1024
    raise AssertionError("no such process")


def demo():
    from ombrel.demo import DEMO_DESK, demo_show
    from ombrel.server.keeping.desks import desk_of

    return demo_show(desk_of(DEMO_DESK))


def hostile_schema():
    from ombrel.server.messages import from_screen

    return from_screen.FROM_SCREEN.json_schema()


# ---- half-said requests


def test_requests_that_are_never_said_whole_keep_nobody_out(server, process):
    held = [socket.create_connection(("127.0.0.1", process.port)) for _ in range(200)]
    for number, one in enumerate(held):
        one.sendall(b"POST /sign-in HTTP/1.1\r\nHost: 127.0.0.1\r\n"[: 10 + number % 30])
    began = time.monotonic()
    with Page(process, server.copied_demo()) as page:
        page.put("channel/1/fader", -6.0)
    assert time.monotonic() - began < 10.0
    for one in held:
        one.settimeout(30.0)
        with contextlib.suppress(ConnectionResetError):
            assert one.recv(1_000)[:12] in (b"", b"HTTP/1.1 400")
        one.close()


# ---- a full disk


@pytest.mark.mounts  # a disk of its own: in `bin/test faults` alone
def test_a_full_disk_loses_nothing_that_was_acknowledged(server, tmp_path):
    disk = tmp_path / "disk"
    disk.mkdir()
    subprocess.run(["mount", "-t", "tmpfs", "-o", "size=400m", "tmpfs", str(disk)], check=True)
    pg, data = os.environ["PG_BIN"], disk / "data"
    port = free_port()
    owner = ["runuser", "-u", "postgres", "--"]
    options = f"-c listen_addresses=127.0.0.1 -c port={port} -c unix_socket_directories=''"
    quiet: dict = {"stdout": subprocess.DEVNULL, "check": True}
    process = None
    try:
        data.mkdir()
        for path in (*reversed(tmp_path.parents), tmp_path, disk):
            if str(path).startswith("/tmp/"):
                path.chmod(0o755)
        subprocess.run(["chown", "-R", "postgres", str(data)], check=True)
        data.chmod(0o700)
        subprocess.run(
            [*owner, f"{pg}/initdb", "-D", str(data), "-U", "ombrel", "--auth=trust", "-E", "UTF8"],
            **quiet,
        )
        start = [*owner, f"{pg}/pg_ctl", "-D", str(data), "-w", "-l", "/dev/null", "-o", options,
                 "start"]  # fmt: skip
        subprocess.run(start, **quiet)
        environment = {**server.environment, "OMBREL_DB_PORT": str(port), "OMBREL_DB_NAME": "full"}
        subprocess.run(
            [f"{pg}/createdb", "-h", "127.0.0.1", "-p", str(port), "-U", "ombrel", "full"], **quiet
        )
        subprocess.run(
            [sys.executable, "-m", "django", "load_demo", "--migrate"], env=environment, **quiet
        )
        process = Served(environment, says=tmp_path / "said")
        process.start()
        full = OnDisk(port)
        show = full.demo
        with Storm(process, show, hands=3) as storm:
            storm.goes_on()
            filler = disk / "filler"
            subprocess.run(f"cat /dev/zero > {filler} 2>/dev/null; true", shell=True, check=True)
            time.sleep(4.0)
            filler.unlink()
            time.sleep(3.0)
            with contextlib.suppress(subprocess.CalledProcessError):  # it may have ended itself
                subprocess.run([*start[:-1], "restart"], timeout=60, **quiet)
            storm.goes_on()
        told("a full disk", *judged(full, show, storm))
    finally:
        if process is not None:
            process.kill()
        subprocess.run([*owner, f"{pg}/pg_ctl", "-D", str(data), "-m", "immediate", "stop"],
                       stdout=subprocess.DEVNULL, check=False)  # fmt: skip
        subprocess.run(["umount", "-l", str(disk)], check=True)


class OnDisk:
    """The database on the disk that runs full."""

    def __init__(self, port):
        self._port = port
        with self.sql() as link:
            self.demo = str(link.execute("select id from server_show").fetchone()[0])

    def sql(self):
        import psycopg

        return psycopg.connect(
            host="127.0.0.1", port=self._port, user="ombrel", dbname="full", autocommit=True
        )

import contextlib
import functools
import http.cookiejar
import json
import os
import shutil
import signal
import socket
import subprocess
import sys
import tempfile
import time
import urllib.parse
import urllib.request

import psycopg
import pytest

from .browser import Person

# tests that run side by side have each a server of their own
DATABASE = "ombrel_screens_" + os.environ.get("PYTEST_XDIST_WORKER", "alone")
PYTHON = [sys.executable, "-m"]


def free_port(kind=socket.SOCK_STREAM):
    """A port that nobody has just now."""
    with socket.socket(socket.AF_INET, kind) as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]


class Served:
    """A process of the real application. `environment`: what it is started with; `says`: a file

    for its words.
    """

    def __init__(self, environment, says=None):
        self.environment, self.says, self.process = environment, says, None
        self.port = free_port()
        self.address = f"http://127.0.0.1:{self.port}"

    @functools.cache  # noqa: B019 - one server a run
    def signed_in(self, name):
        """An opener of addresses, signed in as somebody, and the cookies that say so."""
        jar = http.cookiejar.CookieJar()
        opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar))
        opener.open(f"{self.address}/sign-in")
        fields = {"username": name, "password": "demo"}
        fields["csrfmiddlewaretoken"] = next(one.value for one in jar if one.name == "csrftoken")
        opener.open(f"{self.address}/sign-in", urllib.parse.urlencode(fields).encode())
        return opener, {one.name: one.value for one in jar}

    def start(self):
        command = [*PYTHON, "ombrel.server.serve", "--port", str(self.port)]
        with contextlib.ExitStack() as stack:
            said = stack.enter_context(self.says.open("ab")) if self.says else None
            self.process = subprocess.Popen(command, env=self.environment, stderr=said)
        for _ in range(1_200):  # a machine under load takes its time to load everything
            try:
                urllib.request.urlopen(f"{self.address}/sign-in", timeout=1)
                return
            except OSError:
                time.sleep(0.05)
        raise AssertionError("the server did not start")

    def kill(self):
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()

    def pause(self):
        """Stand still without closing anything: to a browser, a network that died."""
        self.process.send_signal(signal.SIGSTOP)

    def go_on(self):
        self.process.send_signal(signal.SIGCONT)


class Server(Served):
    """The real application in a process of its own, with a database of its own."""

    def __init__(self):
        stage_port, machine_port = free_port(socket.SOCK_DGRAM), free_port(socket.SOCK_DGRAM)
        self.backups = tempfile.mkdtemp(prefix="ombrel-backups-")
        super().__init__(
            {
                **os.environ,
                "OMBREL_STAGE": f"127.0.0.1:{stage_port}",
                "OMBREL_CUE_MACHINE": f"127.0.0.1:{machine_port}",
                "OMBREL_DB_NAME": DATABASE,
                "OMBREL_BACKUPS": self.backups,
                "DJANGO_SETTINGS_MODULE": "ombrel.server.settings",
            }
        )
        with self.sql("postgres") as link:
            link.execute(f"drop database if exists {DATABASE} with (force)")
            link.execute(f"create database {DATABASE}")
        self.manage("load_demo", "--migrate")
        stage = [*PYTHON, "ombrel.standin.stage", str(stage_port)]
        self.stage = subprocess.Popen(stage, env=self.environment)
        machine = [*PYTHON, "ombrel.standin.cue_machine", str(machine_port)]
        self.machine = subprocess.Popen(machine, env=self.environment)
        self.start()
        with self.sql() as link:
            self.original = str(link.execute("select id from server_show").fetchone()[0])
        self.own_demo = None

    @property
    def demo(self):
        """A demo show of the file's own, so that what another file does to one is no matter."""
        self.own_demo = self.own_demo or self.copied_demo()
        return self.own_demo

    def sql(self, name=DATABASE):
        return psycopg.connect(
            host="127.0.0.1",
            port=os.environ["OMBREL_DB_PORT"],
            user="ombrel",
            password=os.environ["OMBREL_DB_PASSWORD"],
            dbname=name,
            autocommit=True,
        )

    def manage(self, *words):
        command = [*PYTHON, "django", *words]
        done = subprocess.run(
            command, env=self.environment, capture_output=True, text=True, check=False
        )
        assert done.returncode == 0, done.stderr
        return done.stdout.strip()

    def blank_show(self, name, desk="touring-48"):
        return self._made("", {"name": name, "desk": desk})

    def copied_demo(self):
        """A demo show of one's own, as it was loaded."""
        return self._made(f"/{self.original}/copy", {})

    def _made(self, path, fields):
        """A show of the engineer's, shared with the other one."""
        show = self.asked(f"/api/shows{path}", fields)["id"]
        self.asked(f"/api/shows/{show}/people", {"name": "monitors", "role": "engineer"})
        return show

    def asked(self, path, fields, by="engineer"):
        """What the API answers somebody."""
        opener, cookies = self.signed_in(by)
        headers = {"Content-Type": "application/json", "X-CSRFToken": cookies["csrftoken"]}
        asking = urllib.request.Request(
            f"{self.address}{path}", json.dumps(fields).encode(), headers
        )
        with opener.open(asking) as reply:
            return json.load(reply)

    def read(self, path, by="engineer"):
        """What stands at a path of the API, for somebody."""
        with self.signed_in(by)[0].open(f"{self.address}{path}") as reply:
            return json.load(reply)


@pytest.fixture(scope="session")
def server():
    server = Server()
    yield server
    server.go_on()
    server.kill()
    server.stage.kill()
    server.machine.kill()
    server.stage.wait()
    server.machine.wait()
    shutil.rmtree(server.backups)


@pytest.fixture(scope="module", autouse=True)
def _another_file(server):
    server.own_demo = None


@pytest.fixture
def people(server):
    """Makes signed-in people; each page must end without an error in its console."""
    made = []

    def person(name="engineer", *, signing_in=False, **size):
        cookies = None if signing_in else server.signed_in(name)[1]
        made.append(Person(server.address, name, cookies=cookies, **size))
        return made[-1]

    yield person
    complaints = [complaint for one in made for complaint in one.complaints()]
    for one in made:
        one.leave()
    assert complaints == []

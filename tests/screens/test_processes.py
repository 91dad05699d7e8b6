"""Two server processes that serve the same show, with Redis between them, and without."""

import os
import shutil
import signal
import socket
import subprocess
import time

import pytest

from .conftest import Served
from .pages import Page

IDLE_S = float(os.environ.get("OMBREL_IDLE", "14"))  # longer than a client's own read timeout
REDIS = shutil.which("redis-server") or "redis-server"


class Redis:
    """A Redis of one's own, that keeps nothing."""

    def __init__(self):
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.start()

    def start(self):
        command = [REDIS, "--port", str(self.port), "--bind", "127.0.0.1", "--save", ""]
        self.process = subprocess.Popen(command, stdout=subprocess.DEVNULL)
        for _ in range(400):
            with socket.socket() as probe:
                if probe.connect_ex(("127.0.0.1", self.port)) == 0:
                    return
            time.sleep(0.025)
        raise AssertionError("Redis did not start")

    def kill(self):
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()


@pytest.fixture(scope="module")
def redis():
    redis = Redis()
    yield redis
    redis.kill()


@pytest.fixture(scope="module")
def processes(server, redis):
    shared = server.environment | {"OMBREL_REDIS": f"redis://127.0.0.1:{redis.port}/0"}
    both = [Served(shared), Served(shared)]
    for one in both:
        one.start()
    yield both
    for one in both:
        one.kill()


@pytest.fixture
def show(server):
    return server.blank_show("Two processes")


def faders(page, *channels):
    return [page.values.get(f"channel/{n}/fader") for n in channels]


def test_moves_pass_from_process_to_process_and_a_gang_is_held_on_both(processes, show):
    with Page(processes[0], show) as one, Page(processes[1], show, "monitors") as other:
        gang = [{"address": f"channel/{n}/gang/1/on", "value": True} for n in (1, 2, 3)]
        levels = [{"address": f"channel/{n}/fader", "value": -10.0} for n in (1, 2, 3)]
        one.answer(one.ask({"action": "moves", "moves": gang + levels}))
        other.until(lambda: faders(other, 1, 2, 3) == [-10.0] * 3)
        one.put("channel/1/fader", -8.0, "first")
        other.put("channel/2/fader", -5.0, "second")  # the first leads, by another process
        one.put("channel/1/fader", -9.0, "first")
        for page in (one, other):
            page.until(lambda page=page: faders(page, 1, 2, 3) == [-9.0, -5.0, -9.0])
        one.say(type="let_go", gesture="first")
        other.put("channel/2/fader", -4.0, "second")  # alone for as long as it lasts
        other.link.close()  # its process says that it is gone
        one.until(lambda: [m for m in one.heard if m["type"] == "present"][-1]["others"][1:] == [])
        one.put("channel/1/fader", -10.0, "third")
        one.until(lambda: faders(one, 1, 2, 3) == [-10.0, -5.0, -10.0])
        assert one.put("channel/4/fader", -3.0)["type"] == "done"


def test_who_is_there_is_told_by_both_and_nobody_who_is_idle_is_let_go(processes, show):
    with Page(processes[0], show) as one, Page(processes[1], show, "monitors") as other:
        other.say(type="watch", table=False, why=None, check=None, view="lines")

        def named():
            there = [m for m in one.heard if m["type"] == "present"][-1:]
            return [(who["name"], who["view"]) for m in there for who in m["others"]]

        one.until(lambda: ("monitors", "lines") in named())
        one.listen(IDLE_S)
        other.listen(0.1)
        assert (one.closed, other.closed) == (None, None)
        other.put("channel/1/fader", -6.0)
        one.until(lambda: faders(one, 1) == [-6.0], within_s=5)


def test_without_redis_moves_come_later_and_with_it_again_at_once(processes, redis, show):
    with Page(processes[0], show) as one, Page(processes[1], show, "monitors") as other:
        redis.kill()
        try:
            for turn in range(4):
                one.put("channel/1/fader", -20.0 - turn)
                other.put("channel/2/fader", -30.0 - turn)
        finally:
            redis.start()
        for page in (one, other):
            page.until(lambda page=page: faders(page, 1, 2) == [-23.0, -33.0], within_s=20)
        deadline = time.monotonic() + 30
        while time.monotonic() < deadline:  # until both hear one another anew
            began = time.monotonic()
            value = -round(40.0 + began % 10, 3)
            one.put("channel/1/fader", value)
            other.until(lambda value=value: faders(other, 1) == [value])
            if time.monotonic() - began < 0.5:
                return
        raise AssertionError("moves still come late")


def test_who_signs_out_or_is_signed_out_edits_no_more(processes, server, show):
    one, other = processes
    _, cookies = other.signed_in("monitors")
    with Page(one, show) as watching, Page(other, show, "monitors") as page:
        page.put("channel/1/fader", -6.0)
        with server.sql() as link:  # as signing out does
            session = cookies["sessionid"]
            link.execute("delete from django_session where session_key = %s", [session])
        end = time.monotonic() + 10
        while page.closed is None and time.monotonic() < end:
            page.listen(0.2)
        assert page.closed == 4401
        watching.listen(0.1)
        assert watching.closed is None
    other.signed_in.cache_clear()


@pytest.mark.parametrize(
    "change", ["is_active = false", "password = 'pbkdf2_sha256$1$a$b'"], ids=["off", "password"]
)
def test_who_is_not_active_or_has_another_password_edits_no_more(processes, server, show, change):
    process = processes[0]
    process.signed_in.cache_clear()
    with server.sql() as link:
        before = link.execute(
            "select is_active, password from auth_user where username = 'monitors'"
        ).fetchone()
    with Page(process, show, "monitors") as page:
        page.put("channel/1/fader", -6.0)
        with server.sql() as link:
            link.execute(f"update auth_user set {change} where username = 'monitors'")
        try:
            end = time.monotonic() + 10
            while page.closed is None and time.monotonic() < end:
                page.listen(0.2)
            assert page.closed == 4401
        finally:
            with server.sql() as link:
                link.execute(
                    "update auth_user set is_active = %s, password = %s"
                    " where username = 'monitors'", before,
                )  # fmt: skip
            process.signed_in.cache_clear()

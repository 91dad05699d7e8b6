"""Two servers of the same shows behind the proxy, as `docs/deploy.md` has them: each show on one,

and on the other when that one is gone.
"""

import contextlib
import json
import os
import re
import shutil
import signal
import subprocess
import time
import uuid

import pytest
from websockets.exceptions import ConnectionClosed, InvalidStatus

from .machine import Machine
from .visitor import Visitor

SHOWS = 12
BACK_S = 60.0


@pytest.fixture(scope="module")
def machine():
    here = Machine()
    for name in ("install", "database", "start"):
        here.follow(name)
    redis = subprocess.Popen(
        [shutil.which("redis-server") or "redis-server", "--port", str(here.redis),
         "--bind", "127.0.0.1", "--save", ""],
        stdout=subprocess.DEVNULL,
    )  # fmt: skip
    told = here.follow("account")
    here.password = re.search(r"with the password (\S+)\.", told)[1]
    here.follow("several")
    for port in (here.server, here.second):
        here.ready(port)
    yield here
    here.end()
    redis.kill()
    redis.wait()


def opened(machine, unit):
    """The shows of which a server says that a screen was opened there."""
    return re.findall(r'"LIVE /live/([0-9a-f-]{36}) opened"', machine.said(unit))


def until(found, why):
    deadline = time.monotonic() + BACK_S
    while not found():
        assert time.monotonic() < deadline, why()
        time.sleep(0.1)


class Screen:
    """A screen of a show, which comes back by itself as a page does."""

    def __init__(self, person, show):
        self.person, self.show, self.values = person, show, {}
        self.held, self.link = contextlib.ExitStack(), None
        self.back()

    def back(self):
        deadline, failed = time.monotonic() + BACK_S, []
        while True:
            try:
                self.held.close()
                self.link = self.held.enter_context(self.person.live(self.show))
                self.link.send(json.dumps({"type": "hello", "since": None}))
                self.hear(lambda told: told["type"] == "snapshot")
                return
            except (ConnectionClosed, InvalidStatus, OSError) as error:
                failed.append(repr(error))
                assert time.monotonic() < deadline, (len(failed), failed[-5:])
                time.sleep(0.2)

    def hear(self, wanted):
        while True:
            told = json.loads(self.link.recv(timeout=BACK_S))
            assert told["type"] != "refused", told
            if told["type"] in ("snapshot", "moved"):
                self.values |= told["values"]
            if wanted(told):
                return

    def move(self, address, value):
        edit = str(uuid.uuid4())
        ask = {"action": "moves", "moves": [{"address": address, "value": value}]}
        self.link.send(json.dumps({"type": "do", "id": edit, "gesture": edit, "ask": ask}))
        self.hear(lambda told: told["type"] == "done" and told["id"] == edit)


def test_each_show_is_one_servers_and_the_others_when_that_one_is_gone(machine):
    me = Visitor(machine, "house-engineer", machine.password)
    shows = [me.api("shows", {"name": f"Show {n}", "desk": "small-24"})["id"] for n in range(SHOWS)]
    pairs = [(Screen(me, show), Screen(me, show)) for show in shows]
    for turn, (one, other) in enumerate(pairs):
        one.move("channel/1/fader", -10.0 - turn)
        other.hear(lambda told, other=other: "channel/1/fader" in other.values)
        assert other.values["channel/1/fader"] == -10.0 - turn
    first, second = opened(machine, "ombrel"), opened(machine, "ombrel-2")
    assert set(first) | set(second) == set(shows)
    assert not set(first) & set(second)  # both screens of a show at one of them
    assert first
    assert second  # and neither has all

    # the second one with all that belongs to it, as when its machine burns
    group = os.getpgid(int((machine.here / "ombrel-2.pid").read_text()))
    os.killpg(group, signal.SIGKILL)
    for one, other in pairs:
        if one.show not in second:
            continue
        for screen in (one, other):
            with pytest.raises(ConnectionClosed):
                screen.hear(lambda told: False)
            screen.values.clear()
            screen.back()
        assert one.values["channel/1/fader"] == -10.0 - shows.index(one.show)
        one.move("channel/2/fader", -5.0)
        other.hear(lambda told, other=other: "channel/2/fader" in other.values)
    assert set(opened(machine, "ombrel")) == set(shows)
    # those that the first one held noticed nothing
    for one, other in pairs:
        if one.show in first:
            one.move("channel/2/fader", -6.0)
            other.hear(lambda told, other=other: "channel/2/fader" in other.values)

    # when it is back, a show that two hold for a while is one show
    machine.typed("systemctl start ombrel-2")
    machine.ready(machine.second)
    late = [(Screen(me, one.show), one) for one, _ in pairs if one.show in second]
    until(
        lambda: set(opened(machine, "ombrel-2")[len(second) :]) or _again(me, late),
        lambda: "the proxy does not send anything to the second one again",
    )
    for new, one in late:
        new.move("channel/3/fader", -7.0)
        one.hear(lambda told, one=one: "channel/3/fader" in one.values)
        one.move("channel/3/fader", -8.0)
        new.hear(lambda told, new=new: new.values["channel/3/fader"] == -8.0)


def _again(me, late):
    """The proxy tries a server that was gone after some seconds: open the screens anew."""
    time.sleep(1.0)
    late[:] = [(Screen(me, one.show), one) for _, one in late]
    return False

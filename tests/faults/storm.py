"""Hands that never give up: each asks the same again until it is answered, whatever dies."""

import contextlib
import random
import threading
import time
import uuid

from websockets.exceptions import WebSocketException

from tests.screens.pages import Page

__all__ = ["Storm", "judged"]


class Storm:
    """Several people on one show, each in a thread, until they are told to end.

    `acknowledged`: ids that were answered as kept; `refused`: those that were not.
    """

    def __init__(self, process, show, *, hands=4, pause_s=0.02):
        self.process, self.show, self.pause_s = process, show, pause_s
        self.acknowledged, self.refused, self.asked = set(), {}, {}
        self.going = True
        for who in ("engineer", "monitors"):
            process.signed_in(who)
        self.threads = [threading.Thread(target=self._hand, args=(n,)) for n in range(hands)]

    def __enter__(self):
        for thread in self.threads:
            thread.start()
        return self

    def __exit__(self, *_):
        self.going = False
        for thread in self.threads:
            thread.join(timeout=180)
            assert not thread.is_alive(), "a hand waits for ever"

    def goes_on(self, count=20, within_s=60):
        """Wait until so many more were acknowledged."""
        enough, end = len(self.acknowledged) + count, time.monotonic() + within_s
        while len(self.acknowledged) < enough:
            assert time.monotonic() < end, f"{len(self.acknowledged)} acknowledged, no more come"
            time.sleep(0.02)

    def _hand(self, number):
        draw, who = random.Random(number), ("engineer", "monitors")[number % 2]
        page, identity, waiting = None, str(uuid.uuid4()), None
        gesture = str(uuid.uuid4())
        while self.going or waiting:
            try:
                if page is None:
                    page = Page(self.process, self.show, who, page=identity)
                if waiting is None:
                    waiting = str(uuid.uuid4()), self._ask(draw, number)
                    self.asked[waiting[0]] = waiting[1]
                    if draw.random() < 0.2:
                        gesture = str(uuid.uuid4())
                edit_id, ask = waiting
                page.ask(ask, gesture, edit_id)
                answer = page.answer(edit_id)
                if answer["type"] == "done":
                    self.acknowledged.add(edit_id)
                else:
                    self.refused[edit_id] = answer["message"]
                waiting = None
                page.heard.clear()
                time.sleep(self.pause_s)
            except (AssertionError, OSError, TimeoutError, WebSocketException):
                if page is not None:
                    with contextlib.suppress(Exception):
                        page.connecting.__exit__(None, None, None)
                page = None
                time.sleep(0.1)
        if page is not None:
            page.connecting.__exit__(None, None, None)

    def _ask(self, draw, number):
        """Mostly a drag of a hand; now and then a recall, a cast, a lift, a list."""
        what = draw.random()
        if what < 0.08:
            return {"action": "recall_scene", "scene": f"scene/{draw.randint(1, 4)}"}
        if what < 0.14:
            return {"action": "choose_cast", "cast": f"cast/{draw.randint(1, 2)}"}
        if what < 0.2:
            return {"action": "add_line", "name": f"Late {draw.randint(1, 999)}", "kind": "mic"}
        channel = 1 + number * 8 + draw.randint(0, 7)
        leaf = draw.choice(["fader", "send/mix/1/level", "low_cut/frequency", "pan"])
        value = {"pan": draw.randint(-9, 9) / 10, "low_cut/frequency": float(draw.randint(40, 200))}
        place = value.get(leaf, float(-draw.randint(0, 600)) / 10)
        moves = [{"address": f"channel/{channel}/{leaf}", "value": place}]
        hand = {"stays": draw.random() < 0.8}
        return {"action": "moves", "moves": moves, "by_hand": {**hand, "sure": True}}


def judged(server, show, storm):
    """(acknowledged, lost, doubled, half done) by what the database alone has."""
    with server.sql() as link:
        log = link.execute(
            "select edit_id::text, old, new, revision from server_change"
            " where show_id = %s order by revision", [show],
        ).fetchall()  # fmt: skip
        beside = link.execute(
            "select edit_id::text from server_overtaken where show_id = %s", [show]
        ).fetchall()
        settings = dict(
            link.execute(
                "select address, value from server_setting where show_id = %s", [show]
            ).fetchall()
        )
        revision = link.execute("select revision from server_show where id = %s", [show]).fetchone()
    ids = [one[0] for one in log] + [one[0] for one in beside]
    # what was asked for and moved nothing is answered, and leaves no entry
    idle = {one for one in storm.acknowledged - set(ids) if _moves_nothing(storm.asked[one], log)}
    lost = storm.acknowledged - set(ids) - idle
    doubled = [one for one in ids if ids.count(one) > 1]
    stands: dict = {}
    half = []
    for place, (_, old, new, at) in enumerate(log):
        if at != place + 1 or old.keys() != new.keys():
            half.append(at)
        stands.update(new)
    half += [address for address, value in stands.items() if settings.get(address) != value]
    half += [] if revision == (len(log),) else ["revision"]
    return len(storm.acknowledged), lost, doubled, half


def _moves_nothing(ask, log):
    """Whether an edit may have found everything as it wanted it: the log has that value there."""
    if ask["action"] != "moves":
        return ask["action"] != "add_line"
    move = ask["moves"][0]
    leaf = move["address"].partition("/")[2].partition("/")[2]
    wanted = move["value"]
    return any(
        new.get(address) == wanted
        for _, _, new, _ in log
        for address in (move["address"], *(a for a in new if a.endswith(f"/value/{leaf}")))
    )

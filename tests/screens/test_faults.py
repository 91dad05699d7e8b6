"""What goes wrong in an evening: a killed server, a dead network, a restarted database."""

import contextlib
import json
import os
import random
import signal
import subprocess
import threading
import time
import uuid
from pathlib import Path

from selenium.webdriver.common.action_chains import ActionChains
from websockets.sync.client import connect

from ombrel.formats.show_file import write_show
from tests.many_scenes import many_scenes

from .pages import Page
from .test_banks import value
from .test_phones import dragged, network, phone_for


def acknowledged(person):
    """Ids and revisions of all edits that this page was told are kept."""
    heard = person.driver.execute_script("return window.heard.filter((m) => m.type === 'done')")
    return {(message["id"], message["revision"]) for message in heard}


def kept(server, show):
    with server.sql() as link:
        rows = link.execute(
            "select edit_id::text, revision from server_change where show_id = %s", [show]
        )
        return set(rows.fetchall())


def level_of(person, name):
    return person.field(f"Level of {name} in dB").get_attribute("value")


def drag(person, name, bus, during):
    """Drag a send to the right in small steps, with something happening in the middle."""
    fader = person.field(f"{name} into {bus}")
    width = fader.size["width"]
    chain = ActionChains(person.driver, duration=20)
    chain.move_to_element_with_offset(fader, -width // 2 + 4, 0).click_and_hold().perform()
    for step in range(40):
        if step == 20:
            during()
        ActionChains(person.driver, duration=10).move_by_offset(width // 60, 0).perform()
    ActionChains(person.driver).release().perform()


def test_a_server_killed_in_a_mic_check_keeps_what_it_said_and_nobody_has_anothers(server):
    """Two check, move and go on; the server dies at random moments, and each goes on from there."""
    show = server.copied_demo()
    draw = random.Random(7)
    before, given, said = fitted(server, show), {}, set()
    for round_ in range(4):
        with contextlib.ExitStack() as stack:
            links = {who: stack.enter_context(linked(server, show, who)) for who in OPERATORS}
            for who, link in links.items():
                link.send(json.dumps({"type": "hello", "since": None}))
                asking(server, link, {"action": "check_step", "step": "next"})
                fitting = checked_by(server, show, who)
                if fitting is None:
                    continue  # all are done
                leaf = draw.choice(["low_cut/frequency", "eq/3/gain"])
                value = float(100 + 10 * round_) if leaf.startswith("low") else float(round_ + 1)
                move = {"address": f"{on_channel(server, show, fitting)}/{leaf}", "value": value}
                asking(server, link, {"action": "moves", "by_hand": {}, "moves": [move]})
                given.setdefault(fitting, set()).add((leaf, value))
                said.add((fitting, leaf, value))
            # the last step is on its way when the server dies
            step = {"action": "check_step", "step": "next"}
            asking(server, links["engineer"], step, wait=False)
            time.sleep(draw.random() * 0.05)
            server.kill()
        server.start()
    now = fitted(server, show)
    for fitting, leaf, value in said:
        last = {v for one, v in given[fitting] if one == leaf}
        assert now[f"{fitting}/value/{leaf}"] in last, value
    for address, value in now.items():
        fitting, leaf = address.split("/value/")
        if value != before.get(address):
            assert (leaf, value) in given[fitting]  # no other hand, and nobody else's


def linked(server, show, who="engineer"):
    """A page's websocket, as somebody has it open."""
    cookie = f"sessionid={server.signed_in(who)[1]['sessionid']}"
    address = f"{server.address.replace('http', 'ws')}/live/{show}"
    return connect(
        address, additional_headers={"Cookie": cookie}, origin=server.address, max_size=None
    )


def checked_by(server, show, who):
    with server.sql() as link:
        row = link.execute(
            """select a.address from server_setting a join server_setting b
               on b.show_id = a.show_id and b.address = replace(a.address, '/checker', '/check')
               where a.show_id = %s and a.address like 'fitting/%%/checker'
               and a.value #>> '{}' = %s and b.value #>> '{}' = 'on'""", [show, who],
        ).fetchone()  # fmt: skip
    return row and row[0].removesuffix("/checker")


def on_channel(server, show, fitting):
    with server.sql() as link:
        row = link.execute(
            """select address from server_setting where show_id = %s
               and address like 'channel/%%/fitting' and value #>> '{}' = %s""", [show, fitting],
        ).fetchone()  # fmt: skip
    return row[0].removesuffix("/fitting")


def fitted(server, show):
    """What stands in fittings, by address."""
    with server.sql() as link:
        query = """select address, value from server_setting
                   where show_id = %s and address like 'fitting/%%/value/%%'"""
        return dict(link.execute(query, [show]).fetchall())


OPERATORS = ("engineer", "monitors")
FADERS = [f"channel/{number}/fader" for number in range(1, 41)]


def asking(server, link, ask, *, wait=True):
    """Ask for an edit over a page's websocket, and wait until it is kept."""
    edit_id = str(uuid.uuid4())
    link.send(json.dumps({"type": "do", "id": edit_id, "gesture": edit_id, "ask": ask}))
    while wait:
        message = json.loads(link.recv(timeout=60))
        assert message["type"] != "refused", message
        if message["type"] == "done" and message["id"] == edit_id:
            return


def faders_kept(server, show):
    with server.sql() as link:
        query = """select value from server_setting
                   where show_id = %s and (address = any(%s) or address = 'run/now')"""
        return [row[0] for row in link.execute(query, [show, FADERS])]


def test_a_server_killed_in_the_middle_of_a_recall_keeps_all_of_it_or_nothing(server):
    """Whichever moment it dies in: forty faders and which scene is now, together or not at all."""
    show = server.blank_show("Killed")
    with linked(server, show) as link:
        link.send(json.dumps({"type": "hello", "since": None}))
        for number, level_db in ((1, -10.0), (2, -20.0)):
            moves = [{"address": fader, "value": level_db} for fader in FADERS]
            moves += [{"address": f"channel/{n}/name", "value": f"C{n}"} for n in range(1, 41)]
            asking(server, link, {"action": "moves", "moves": moves})
            asking(server, link, {"action": "store_scene", "name": f"Scene {number}"})
        asking(server, link, {"action": "recall_scene", "scene": "scene/2"})
    scenes = {"scene/1": -10.0, "scene/2": -20.0}
    for delay_s in (0.0, 0.02, 0.05):
        was = next(one for one in faders_kept(server, show) if one in scenes)
        other = next(one for one in scenes if one != was)
        with linked(server, show) as link:
            link.send(json.dumps({"type": "hello", "since": None}))
            link.recv(timeout=60)
            asking(server, link, {"action": "recall_scene", "scene": other}, wait=False)
            time.sleep(delay_s)
            server.kill()
        found = faders_kept(server, show)
        assert len(found) == 41
        now = next(one for one in found if one in scenes)
        assert sorted(map(str, found)) == sorted([now, *[str(scenes[now])] * 40])
        server.start()


def test_a_server_killed_in_the_middle_of_a_drag_loses_no_acknowledged_move(server, people):
    me = people()
    me.open("mixes/2", server.demo)
    before = level_of(me, "Kora")
    drag(me, "Kora", "Ears tellers", during=server.kill)
    me.until(lambda: me.status() == "lost")
    told = acknowledged(me)
    assert told
    server.start()
    me.settled()  # by itself: nobody pressed anything
    assert told <= kept(server, server.demo)
    assert acknowledged(me) <= kept(server, server.demo)
    after = level_of(me, "Kora")
    assert after != before
    other = people("monitors").open("mixes/2", server.demo)
    assert level_of(other, "Kora") == after
    with server.sql() as link:
        query = "select value from server_setting where show_id = %s and address = %s"
        row = link.execute(query, [server.demo, "channel/20/send/mix/2/level"]).fetchone()
    assert f"{row[0]:+.1f}".replace("-", "−") == after


def test_a_network_that_dies_without_a_word_is_noticed_and_nothing_is_lost(server, people):
    me = people()
    me.open("mixes/1", server.demo)
    server.pause()
    try:
        me.type("Level of Kick in dB", "-33")
        me.until(lambda: me.status() != "live")
    finally:
        server.go_on()  # whatever comes of this test, the next one needs the server
    me.settled()
    assert level_of(me, "Kick") == "−33.0"
    assert acknowledged(me) <= kept(server, server.demo)


def test_a_restarted_database_costs_nothing_but_a_moment(server, people):
    me = people()
    me.open("mixes/1", server.demo)
    me.type("Level of Snare in dB", "-31")
    me.settled()
    command = [f"{os.environ['PG_BIN']}/pg_ctl", "-D", os.environ["PG_FOLDER"], "-m", "immediate",
               "-w", "restart"]  # fmt: skip
    as_owner = ["runuser", "-u", "postgres", "--"] if os.getuid() == 0 else []
    restart = subprocess.Popen([*as_owner, *command], stdout=subprocess.DEVNULL)
    # of no gang, so that nothing follows them
    me.type("Level of Snare in dB", "-29")
    me.type("Level of Kora in dB", "-28")
    assert restart.wait() == 0
    me.settled()
    assert (level_of(me, "Snare"), level_of(me, "Kora")) == ("−29.0", "−28.0")
    assert acknowledged(me) <= kept(server, server.demo)
    other = people("monitors").open("mixes/1", server.demo)
    assert level_of(other, "Snare") == "−29.0"


def test_a_page_asked_for_while_the_database_stands_still_opens_when_it_goes_on(server, people):
    """It stands for longer than one attempt to reach it lasts, so that one at least is in vain."""
    me, show = people(), server.demo
    postmaster = int(Path(os.environ["PG_FOLDER"], "postmaster.pid").read_text().split()[0])
    later = threading.Timer(7.0, os.kill, (postmaster, signal.SIGCONT))
    os.kill(postmaster, signal.SIGSTOP)
    try:
        later.start()
        me.open("lines", show)
    finally:
        later.join()
    assert me.count("Lines") == 36


def test_an_edit_that_is_shown_first_is_made_when_the_server_is_back(server, people):
    """Choosing a source that a channel has asks first what it would do: nobody answers yet."""
    show = server.blank_show("Away")
    me = people()
    me.imported(show)
    me.open("patch", show)
    me.field("Source of channel 9")
    server.kill()
    me.until(lambda: me.status() == "lost")
    me.type("Source of channel 47", "Deck 16")  # free: nobody loses anything by it
    me.until(lambda: "1 waiting" in me.find("[data-status]").text)
    me.type("Sockets", "Harbour 1-2", enter=False)
    me.type("Channels", "46", enter=False)
    me.until(lambda: "Offline: what it would do is told when the server is back" in me.body())
    server.start()
    me.settled()
    me.until(lambda: me.find('[data-testid="consequence"]'))
    assert me.field("Source of channel 47").get_attribute("value") == "Deck 16"


def test_a_screen_that_only_watches_notices_that_the_network_died(server, people):
    me, other = people(), people()
    me.open("mixes/1", server.demo)
    other.open("mixes/1", server.demo)
    server.pause()
    try:
        me.until(lambda: me.status() == "lost")
    finally:
        server.go_on()
    me.settled()
    other.settled()
    other.type("Level of Trumpet in dB", "-26")
    me.until(lambda: level_of(me, "Trumpet") == "−26.0")


def test_on_a_slow_network_nothing_typed_is_lost(server, people):
    me = people()
    me.open("mixes/1", server.demo)
    speed = {"downloadThroughput": 30_000, "uploadThroughput": 20_000}
    slow = {"offline": False, "latency": 400, **speed}
    me.driver.execute_cdp_cmd("Network.enable", {})
    me.driver.execute_cdp_cmd("Network.emulateNetworkConditions", slow)
    for level in ("-21", "-22", "-23"):
        me.type("Level of Trombone in dB", level)
    me.settled()
    assert level_of(me, "Trombone") == "−23.0"
    assert acknowledged(me) <= kept(server, server.demo)


def test_what_a_closed_page_had_not_sent_is_made_by_the_next_or_asked_about(server, people):
    show = server.copied_demo()
    me = people()
    for level, moved_on in (("-30", False), ("-24", True)):
        me.open("mixes/1", show)
        server.kill()
        me.until(lambda: me.status() == "lost")
        me.type("Level of Kora in dB", level)
        me.until(lambda: "1 waiting" in me.find("[data-status]").text)
        me.driver.get("about:blank")  # as closing the page does
        server.start()
        if moved_on:
            with Page(server, show, "monitors") as other:
                other.put("channel/1/send/mix/1/level", -20.0)
        me.open("mixes/1", show)
        if moved_on:
            me.until(lambda: "Kora: " in me.body() and "the show has moved on since" in me.body())
            assert level_of(me, "Kora") == "−30.0"
            me.button("Make them now").click()
        shown = f"−{level[1:]}.0"
        me.until(lambda shown=shown: level_of(me, "Kora") == shown)
        me.until(lambda: "of a page that was closed: sent now" in me.body())
        me.settled()


def test_what_came_through_though_the_page_closed_before_it_knew_is_nothing_to_ask_about(
    server, people
):
    show = server.copied_demo()
    me = people()
    me.open("mixes/1", show)
    server.pause()
    try:
        me.type("Level of Kora in dB", "-27")
        me.until(lambda: "1 waiting" in me.find("[data-status]").text)
        me.driver.get("about:blank")  # the edit is on its way: only its answer will find nobody
    finally:
        server.go_on()
    with Page(server, show, "monitors") as other:
        other.until(lambda: -27.0 in other.values.values() or other.listen(0.2))
        other.put("channel/1/send/mix/1/level", -20.0)
    me.open("mixes/1", show)
    assert level_of(me, "Kora") == "−27.0"
    # the page takes it over and asks; once that is answered, nothing of it is stored any more
    left = "return Object.keys(localStorage).filter((key) => key.startsWith('unsent/')).length"
    me.until(lambda: not me.driver.execute_script(left))
    assert not me.all("[role=dialog]")
    assert "sent now" not in me.body()


def test_a_large_show_file_says_how_far_it_is_and_stopped_leaves_nothing(server, people, tmp_path):
    """The show that is open goes on meanwhile."""
    file = tmp_path / "Long run.json"
    file.write_bytes(write_show(many_scenes(40)))
    show = server.copied_demo()
    me = people()
    me.open("mixes/1", show)
    before = shows(server)
    me.driver.execute_script("document.querySelector('[aria-label=\"Show file\"]').value = ''")
    me.driver.find_element("css selector", '[aria-label="Show file"]').send_keys(str(file))
    me.until(lambda: "Opening a show file" in me.body())
    me.until(lambda: me.find("[role=progressbar]").get_attribute("aria-valuenow") != "0")
    me.button("Stop").click()
    me.until(lambda: "It was stopped" in me.body())
    assert shows(server) == before
    me.type("Level of Kora in dB", "-31")
    me.settled()
    me.driver.find_element("css selector", '[aria-label="Show file"]').send_keys(str(file))
    me.until(lambda: "/hears" in me.driver.current_url, within_s=120)
    assert len(shows(server)) == len(before) + 1


def shows(server):
    with server.sql() as link:
        return link.execute("select id from server_show order by id").fetchall()


NO_SHEET = """
const plain = window.fetch;
const sheet = '[{"key": "input-list", "filled": true}]';
window.fetch = (asked, ...rest) =>
  String(asked.url ?? asked).includes("/paper")
    ? Promise.resolve(new Response(sheet))
    : plain(asked, ...rest);
"""


def test_a_view_that_fails_leaves_the_others_standing(server, people):
    """A sheet that is no sheet: the page throws while it is drawn, and only that view is gone."""
    me = people()
    me.open("lines", server.demo)
    me.driver.execute_script(NO_SHEET)
    me.link("Print or export").click()
    me.until(lambda: "This view could not be drawn" in me.body())
    me.link("Mixes").click()
    me.until(lambda: "Sends into this mix" in me.body())
    me.type("Level of Trumpet in dB", "-25")
    me.settled()
    me.driver.get_log("browser")  # what it threw is there, rightly


def test_a_phone_waits_through_a_minute_without_network_and_goes_on_after_a_killed_server(
    server, people
):
    """What a finger moved meanwhile is there once, as it was moved; and the page needs no touch."""
    me, show = people(), server.copied_demo()
    phone, _ = phone_for(people, me, 6, show)
    send = "channel/20/send/mix/6/level"
    was = value(server, show, send)
    network(phone, offline=True)
    began = time.monotonic()
    phone.until(lambda: phone.status() == "away", within_s=30)
    dragged(phone, "Strings", -40)
    time.sleep(max(0.0, 60.0 - (time.monotonic() - began)))
    assert value(server, show, send) == was
    network(phone, offline=False)
    phone.until(lambda: phone.status() == "live", within_s=30)
    phone.settled()
    there = value(server, show, send)
    assert there < was - 1.0
    server.kill()
    phone.until(lambda: phone.status() == "away", within_s=30)
    dragged(phone, "Strings", -20)
    server.start()
    phone.until(lambda: phone.status() == "live", within_s=30)
    phone.settled()
    assert value(server, show, send) < there - 0.5
    phone.button("Undo").click()
    phone.until(lambda: value(server, show, send) == there)
    # the link and who it is outlive the server: no other person was made for it
    with server.sql() as link:
        (count,) = link.execute(
            "select count(*) from server_phone p join server_earlink l on l.id = p.link_id"
            " where l.show_id = %s", [show],
        ).fetchone()  # fmt: skip
    assert count == 1

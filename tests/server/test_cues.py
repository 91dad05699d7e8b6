"""Cues from outside on real ports: armed or not, once, in order, told, undone; all or nothing."""

import asyncio
import random
import socket
import time
import uuid

import mido
import pytest
from asgiref.sync import sync_to_async
from django.db import OperationalError
from mido.sockets import connect
from pydantic import TypeAdapter
from pythonosc.osc_message import OscMessage
from pythonosc.osc_message_builder import OscMessageBuilder

from ombrel.core import UnreadableText, made, recall, store_scene
from ombrel.formats.osc import Slip, slipped
from ombrel.server import models
from ombrel.server.asks.every import Ask
from ombrel.server.asks.plans import Planned
from ombrel.server.keeping import cues as keeping
from ombrel.server.keeping.cues import Came, arm, do_cue, read_senders, set_way
from ombrel.server.keeping.door import commit
from ombrel.server.screen import cueing as cueing_module
from ombrel.server.screen.cueing import Cueing, cueing

from .conftest import make, stored
from .test_socket import Screen

pytestmark = pytest.mark.django_db(transaction=True)


def free_port(kind=socket.SOCK_DGRAM):
    with socket.socket(socket.AF_INET, kind) as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]


@pytest.fixture
def evening(show):
    """Five scenes, each with another fader of channel 1, all with cues; mute group 1, DCA 1."""
    make(show, {"channel/1/source": "input/a/1", "channel/2/source": "input/a/2"})
    for number in range(1, 6):
        make(show, {"channel/1/fader": -float(number)})
        make(show, lambda turn, n=number: Planned(
            store_scene(turn.show, f"Scene {n}", {"channel/1": ["fader"]})))  # fmt: skip
    make(show, ask("cues_for_scenes"))
    make(show, {"channel/1/fader": -20.0})
    return show


def ask(action, **fields):
    return TypeAdapter(Ask).validate_python({"action": action, **fields}).plan


def packet(address, *arguments):
    builder = OscMessageBuilder(address)
    for one in arguments:
        builder.add_arg(one)
    return builder.build().dgram


def came(heard, arguments=(), **extra):
    return Came("osc_udp", "127.0.0.1", heard, arguments, **extra)


# ---- through the door


def test_an_armed_cue_does_it_and_is_told_with_its_change(evening):
    arm(evening.pk, "armed", "ann")
    told = do_cue(evening.pk, came("/cue 3"))
    assert (told.what, told.says) == ("done", "Scene 3 Scene 3 recalled")
    assert stored(evening)["channel/1/fader"] == -3.0
    change = models.Change.objects.latest("revision")
    assert (change.edit_id, change.revision) == (told.edit_id, told.revision)
    assert change.author.get_username() == "Cues from outside"
    assert not change.author.is_active
    assert 0.0 < told.ms < 60_000


@pytest.mark.parametrize("disarmed", [False, True])
def test_unarmed_it_is_told_what_it_would_do(evening, disarmed):
    if disarmed:  # by a hand, or since nobody armed it yet
        arm(evening.pk, "armed", "ann")
        arm(evening.pk, "rehearse", "ann")
    before = models.Show.objects.get(pk=evening.pk).revision
    told = do_cue(evening.pk, came("/cue 3"))
    assert (told.what, told.says, told.revision) == ("rehearsed", "Scene 3 Scene 3 recalled", None)
    assert do_cue(evening.pk, came("/cue 99")).what == "unknown"
    assert models.Show.objects.get(pk=evening.pk).revision == before


def test_a_refused_cue_alters_nothing_and_says_why(evening):
    arm(evening.pk, "armed", "ann")
    make(evening, {"mute_group/1/pinned": True, "channel/1/source": "input/a/9"})
    make(evening, lambda turn: Planned(
        store_scene(turn.show, "Other", {"channel/1": ["source"]}, number="9")))  # fmt: skip
    make(evening, {"channel/1/source": "input/a/1"})
    make(evening, ask("add_cues", text="40 -> mute group 1 on; 9 -> scene 9"))
    make(evening, {"cue/900/comes": "/cue 2", "cue/900/does": "back"})
    before = stored(evening)
    for heard, why in (
        ("/cue 40", "pinned"),
        ("/cue 9", "two presses of a hand"),
        ("/cue 2", "2 cues wait for it"),
        ("/ombrel/scene 77", "77"),
        ("/ombrel/go 5", "Not recalled"),
        ("/ombrel/store 1", "own addresses"),
    ):
        arguments = (float(heard.split()[1]),)
        told = do_cue(evening.pk, came(heard, arguments))
        assert told.what == "refused", heard
        assert why in told.says
    assert stored(evening) == before


def test_a_go_of_a_hand_and_one_of_a_cue_for_the_same_scene_are_one_step(evening):
    arm(evening.pk, "armed", "ann")
    first = do_cue(evening.pk, came("/ombrel/go"))
    assert first.says.startswith("Scene 1 ")
    following = stored(evening)["run/next"]
    make(evening, ask("go", scene=following))
    told = do_cue(evening.pk, came("/ombrel/go"))
    assert "one step" in told.says
    assert told.revision is None
    assert stored(evening)["run/now"] == following
    later = do_cue(evening.pk, came("/ombrel/go", at_s=time.time() + 1.0))
    assert later.says.startswith("Scene 3 ")


def test_what_a_cue_did_is_undone_from_its_row_also_behind_later_ones(evening):
    arm(evening.pk, "armed", "ann")
    make(evening, ask("add_cues", text="50 -> DCA 1 mute on; 51 -> DCA 2 mute on"))
    one, other = (do_cue(evening.pk, came(f"/cue {n}")) for n in (50, 51))
    undo = keeping.undo_request(evening.pk, one.pk, uuid.uuid4(), "ann")
    [outcome], _, _ = commit(evening.pk, [undo])
    assert outcome.says.startswith("Undone by ann at the desk: DCA 1")
    assert not stored(evening).on("dca/1/mute")
    assert stored(evening).on("dca/2/mute")
    [again], _, _ = commit(
        evening.pk, [keeping.undo_request(evening.pk, one.pk, uuid.uuid4(), "ann")]
    )
    assert "undo" in str(again.error).lower()
    assert models.CueTold.objects.get(pk=other.pk).revision


def test_what_is_told_is_kept_with_what_was_done_or_not_at_all(evening, monkeypatch):
    """A server that dies before the transaction ends has neither done nor told it."""
    arm(evening.pk, "armed", "ann")
    before = stored(evening)

    def die(self, **extra):
        raise SystemExit

    monkeypatch.setattr(models.CueTold, "save", die)
    with pytest.raises(SystemExit):
        do_cue(evening.pk, came("/cue 3"))
    assert stored(evening) == before
    assert not models.CueTold.objects.exists()


def test_rows_are_bounded_and_a_flood_takes_none_of_what_was_done(evening, monkeypatch):
    for name, most in (("_KEPT", 20), ("_DROPPED", 5), ("_TIDY", 5)):
        monkeypatch.setattr(keeping, name, most)
    for _ in range(40):
        do_cue(evening.pk, came("/cue 3"))
    for _ in range(60):
        keeping.tell_dropped(evening.pk, "osc_udp", "x", "why", 1)
    rows = models.CueTold.objects.all()
    assert 20 <= rows.filter(what="rehearsed").count() <= 25
    assert 5 <= rows.filter(what="dropped").count() <= 10


async def test_an_answer_of_the_store_that_is_lost_is_no_cue_that_is_not_done(desk, evening):
    """It was kept, and only nobody heard so: it is told as done, once."""
    port = free_port()
    await desk.listening("osc_udp", port)
    real = do_cue

    def lost(*asked):
        real(*asked)
        raise OperationalError

    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(cueing_module, "do_cue", lost)
        with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as sender:
            sender.sendto(packet("/cue", 3), ("127.0.0.1", port))
        rows = await desk.told(1)
    assert [(row["came"], row["what"]) for row in rows] == [("/cue 3", "done")]


async def test_whoever_forges_senders_fills_no_list(desk, evening):
    await desk.listening("osc_udp", free_port())
    [one] = cueing()._desks.values()
    way, _ = one.ways["osc_udp"]
    for number in range(500):
        one.drop(way, f"10.0.0.{number}", "Not among those who may send.")
    rows = await desk.told(9)
    assert len(rows) == 9
    assert sum(row["times"] for row in rows) == 500


@pytest.mark.parametrize("seed", range(6))
def test_any_sequence_leaves_the_show_as_the_same_by_hand_would(evening, seed):
    draw = random.Random(seed)
    arm(evening.pk, "armed", "ann")
    make(evening, ask("add_cues", text="60 -> mute group 1 on; 61 -> mute group 1 off; 62 -> back;"
                                       " 63 -> DCA 1 mute on; 64 -> DCA 1 mute off"))  # fmt: skip
    by_hand = stored(evening)
    at_s = 2_000_000.0
    by_number = {by_hand.number(f"{s}/number"): s for s in by_hand.scenes}
    for _ in range(10):
        at_s += 5.0
        number = draw.choice([1, 2, 3, 4, 5, 60, 61, 62, 63, 64])
        do_cue(evening.pk, came(f"/cue {number}", at_s=at_s))
        if number in by_number or number == 62:
            now = by_hand["run/now"]
            order = list(by_number.values())
            place = order.index(now) if now in order else 0
            if number == 62 and place == 0:
                continue
            scene = by_number.get(number) or order[place - 1]
            moves, own = recall(by_hand, scene, since_s=at_s).moves, True
        else:
            leaf = "mute_group/1/on" if number < 62 else "dca/1/mute"
            moves, own = {leaf: number in (60, 63)}, False
        by_hand = made(by_hand, moves, own=own)[0]
    assert stored(evening) == by_hand


# ---- on the wire


class Desk(Screen):
    """An engineer's screen, and the process's ports."""

    async def listening(self, kind, port, **fields):
        await self.say(type="set_cue_way", id=str(uuid.uuid4()), kind=kind, on=True,
                       host="127.0.0.1", port=str(port), **fields)  # fmt: skip
        cueing().begin()
        for _ in range(200):
            if any(kind in desk.ways for desk in cueing()._desks.values()):
                return
            await asyncio.sleep(0.02)
        raise AssertionError("nobody listens")

    async def told(self, many):
        """The newest rows, once there are so many."""
        while True:
            rows = (await self.next("cues"))["told"]
            if len(rows) >= many:
                return rows


@pytest.fixture
async def desk(evening, ann):
    screen = Desk(evening, ann)
    await screen.open()
    await screen.say(type="arm_cues", mode="armed")
    yield screen
    await cueing().end()


async def test_datagrams_come_in_order_and_two_screens_see_it(desk, evening, ben):
    port = free_port()
    other = Screen(evening, ben)
    await other.open()
    await desk.listening("osc_udp", port)
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as sender:
        for number in (3, 1, 4):
            sender.sendto(packet("/cue", number), ("127.0.0.1", port))
        sender.sendto(b"noise", ("127.0.0.1", port))
    rows = await desk.told(4)
    done = [row["came"] for row in reversed(rows) if row["what"] == "done"]
    assert done == ["/cue 3", "/cue 1", "/cue 4"]
    assert any(row["what"] == "dropped" and "damaged" in row["says"] for row in rows)
    while (await other.next("moved"))["values"].get("channel/1/fader") != -4.0:
        pass


async def test_the_same_twice_is_one_and_a_flood_is_dropped_and_counted(desk, evening):
    port = free_port()
    await desk.listening("osc_udp", port)
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as sender:
        for _ in range(3):
            sender.sendto(packet("/ombrel/go"), ("127.0.0.1", port))
        rows = await desk.told(2)
        for number in range(200):
            sender.sendto(packet("/cue", 100 + number), ("127.0.0.1", port))
        flood = unknown = 0
        while flood + unknown < 200:  # told one after the other; a silence for long ends the test
            rows = await desk.told(10)
            flood = sum(r["times"] for r in rows if "20 a second" in r["says"])
            unknown = sum(r["what"] == "unknown" for r in rows)
    assert [r["times"] for r in rows if "the same again" in r["says"].lower()] == [2]
    assert flood > 0
    assert unknown <= 20
    assert flood + unknown == 200
    show = await sync_to_async(stored)(evening)
    assert show["run/now"] == show.scenes[0]  # of three go's one step


async def test_a_sender_is_answered_and_told_what_is_now_and_next_by_whomever(desk, evening):
    port = free_port(socket.SOCK_STREAM)
    await desk.listening("osc_tcp", port, answers=True)
    reader, writer = await asyncio.open_connection("127.0.0.1", port)
    slip, heard = Slip(), []

    async def until(address):
        while not any(one.address == address for one in heard):
            content = await asyncio.wait_for(reader.read(4096), 20)
            heard.extend(OscMessage(one) for one in slip.feed(content))
        found = [one for one in heard if one.address == address]
        heard.clear()
        return found[-1].params

    writer.write(slipped(packet("/cue", 2)))
    assert (await until("/ombrel/done"))[:2] == ["/cue 2", "Scene 2 Scene 2 recalled"]
    writer.write(slipped(packet("/cue", 99)))
    assert (await until("/ombrel/refused"))[0] == "/cue 99"
    following = (await sync_to_async(stored)(evening))["run/next"]
    await desk.say(type="do", id=str(uuid.uuid4()), gesture="g",
                   ask={"action": "go", "scene": following})  # fmt: skip
    assert await until("/ombrel/next") == ["4", "Scene 4"]
    writer.close()


async def test_midi_bytes_of_another_library_are_heard(desk, evening):
    port = free_port(socket.SOCK_STREAM)
    await desk.say(type="do", id=str(uuid.uuid4()), gesture="g", ask={
        "action": "add_cues", "text": "program 7 on 3 -> scene 2; go 5 -> scene 5"})  # fmt: skip
    await desk.next("done")
    await desk.listening("midi_tcp", port)
    out = await asyncio.to_thread(connect, "127.0.0.1", port)
    await asyncio.to_thread(out.send, mido.Message("program_change", program=7, channel=2))
    rows = await desk.told(1)
    assert (rows[0]["came"], rows[0]["what"]) == ("program 7 on 3", "done")
    go = mido.Message("sysex", data=[0x7F, 0x7F, 0x02, 0x01, 0x01, *b"5"])
    await asyncio.to_thread(out.send, go)
    rows = await desk.told(2)
    assert (rows[0]["came"], rows[0]["says"]) == ("show control go 5", "Scene 5 Scene 5 recalled")
    out.close()


async def test_bundles_for_later_are_refused_and_strangers_are_not_read(desk, evening):
    port = free_port()
    await desk.listening("osc_udp", port)
    later = b"#bundle\0" + (int(time.time() + 2_208_988_800 + 60) << 32).to_bytes(8, "big")
    inner = packet("/cue", 3)
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as sender:
        sender.sendto(later + len(inner).to_bytes(4, "big") + inner, ("127.0.0.1", port))
    assert "for later" in (await desk.told(1))[0]["says"]
    way = (await sync_to_async(keeping.ways_on)())[0]
    assert way.takes("127.0.0.1")
    assert not way.takes("10.0.0.5")


def test_who_may_send_is_named(evening):
    port = free_port()
    set_way(evening.pk, "osc_udp", on=True, host="0.0.0.0", port=str(port),
            senders="10.0.0.5, 192.168.1.0/24", answers=False)  # fmt: skip
    [way] = keeping.ways_on()
    taken = {one: way.takes(one) for one in ("10.0.0.5", "10.0.0.6", "192.168.1.77", "::1",
                                             "::ffff:10.0.0.5")}  # fmt: skip
    assert list(taken.values()) == [True, False, True, True, True]
    for bad in ("10.0.0", "lamp", " ".join(f"10.0.0.{n}" for n in range(40))):
        with pytest.raises(UnreadableText):
            read_senders(bad)
    for bad_port in ("80", "lamp", "70000", "", "1e4"):
        with pytest.raises(UnreadableText, match="a port from 1024 to 65535"):
            set_way(evening.pk, "osc_tcp", on=True, host="0.0.0.0", port=bad_port, senders="",
                    answers=False)  # fmt: skip
    with pytest.raises(UnreadableText, match="from 0 to 5000"):
        keeping.set_once(evening.pk, "-3")
    keeping.set_once(evening.pk, "150 ms")
    assert keeping.ways_on()[0].once_s == 0.15
    other = models.Show.objects.create(name="Other", desk="touring-48")
    with pytest.raises(UnreadableText, match="Quay listens there"):
        set_way(other.pk, "osc_udp", on=True, host="0.0.0.0", port=str(port), senders="",
                answers=False)  # fmt: skip


async def test_a_port_that_is_taken_is_told_and_heard_when_it_is_free(desk, evening):
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as taken:
        taken.bind(("127.0.0.1", 0))
        port = taken.getsockname()[1]
        await desk.say(type="set_cue_way", id=str(uuid.uuid4()), kind="osc_udp", on=True,
                       host="127.0.0.1", port=str(port))  # fmt: skip
        cueing().begin()
        while "cannot be opened" not in (await desk.next("cues"))["ways"][0]["trouble"]:
            pass
    while (await desk.next("cues"))["ways"][0]["trouble"]:
        pass


async def test_a_second_process_takes_over_when_the_first_is_gone(desk, evening):
    port = free_port()
    await desk.listening("osc_udp", port)
    second = Cueing()
    second.begin()
    await asyncio.sleep(0.2)
    assert not any(one.ways for one in second._desks.values())
    await cueing().end()  # its port is free now
    for _ in range(300):
        if any(one.ways for one in second._desks.values()):
            break
        await asyncio.sleep(0.02)
    assert any(one.ways for one in second._desks.values())
    await second.end()

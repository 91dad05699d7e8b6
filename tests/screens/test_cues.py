"""Cues from outside in the real interface: an act run by the cue machine, hands in between."""

import socket

from selenium.webdriver.common.keys import Keys

from .conftest import free_port
from .pages import Page

DRUM = "channel/13"  # the second frame drum, which scene 8 opens


def now(me):
    """The scene that is on, as the bar on top says it."""
    return me.find("header").text.split("Next")[0]


def played(me, *numbers):
    """Have the machine play cues, a tenth of a second apart."""
    sheet = me.field("Cue sheet: seconds, message, what it is for")
    text = "".join(f"{n / 10},/cue {number}\n" for n, number in enumerate(numbers))
    sheet.send_keys(Keys.CONTROL, "a")
    sheet.send_keys(Keys.BACKSPACE)
    me.until(lambda: sheet.get_attribute("value") == "")
    sheet.send_keys(text)
    me.until(lambda: sheet.get_attribute("value") == text)
    me.button("Play the sheet").click()


def test_an_act_is_run_by_the_machine_with_hands_in_between_and_one_refused(server, people):
    show, port = server.copied_demo(), free_port(socket.SOCK_DGRAM)
    me, other = people(), people("monitors", width=820, height=1180)
    other.open("hears", show)
    me.open("cues/ways", show)
    me.type("Port of OSC over UDP", str(port))
    me.until(lambda: me.field("Port of OSC over UDP").get_attribute("value") == str(port))
    me.find('[data-way="osc_udp"] [aria-label="listens: OSC over UDP"]').click()
    me.until(lambda: me.find('[data-way="osc_udp"] [aria-pressed="true"]'))
    me.open("cues/machine", show)
    me.until(lambda: "At rest" in me.body())
    # nothing is armed: what comes is told with what it would do
    played(me, 1, 2)
    me.until(lambda: "2 sent, last /cue 2" in me.body())
    me.open("cues", show)
    me.until(lambda: len(me.all('[data-told="rehearsed"]')) == 2)
    assert "Scene 2 The host comes on recalled" in me.find('[data-told="rehearsed"]').text
    me.button("Armed").click()
    me.until(lambda: "What comes is done." in me.body())
    # the act: four by the machine, two by hand, two by the machine
    me.open("cues/machine", show)
    played(me, 1, 2, 3, 4)
    for one in (me, other):
        one.until(lambda one=one: "Two tellers" in now(one))
    other.open("run", show)
    assert "Cues armed" in other.body()
    assert "engineer" in other.find('[aria-label="Cues from outside"]').text
    for scene in ("The harbour wakes", "Gulls"):
        other.until(lambda scene=scene: scene in other.find("header").text.split("Next")[1])
        other.find("[data-go]").click()
        for one in (me, other):
            one.until(lambda one=one, scene=scene: scene in now(one))
    played(me, 7, 8)
    other.until(lambda: "Curtain of rain" in now(other))
    # one that would change sources is refused with words
    with Page(server, show) as page:
        page.put("channel/1/source", "input/a/30")
        stored = page.ask({"action": "store_scene", "name": "Repatch", "number": "90",
                           "preset": "everything"})  # fmt: skip
        assert page.answer(stored)["type"] == "done"
        cells = page.ask({"action": "set_cells", "scene": "scene/25", "on": True,
                          "strips": [{"holder": "channel/1", "cells": ["source"]}]})  # fmt: skip
        assert page.answer(cells)["type"] == "done"
        page.put("channel/1/source", "input/a/1")
        added = page.ask({"action": "add_cues", "text": "90 -> scene 90"})
        assert page.answer(added)["type"] == "done"
    me.type("One message", "/cue 90")
    me.until(lambda: "last /cue 90" in me.body())
    me.open("cues", show)
    me.until(lambda: me.all('[data-told="refused"]'))
    assert "two presses of a hand" in me.find('[data-told="refused"]').text
    # who hears what has moved with it
    other.open("hears", show)
    other.until(lambda: "Curtain of rain" in now(other))
    other.until(lambda: other.cell(DRUM, "house").text == "\u221211.4")
    # what the last one did is undone beside it
    undo = '[data-told="done"] button'
    me.until(lambda: me.all(undo))
    me.find(undo).click()
    me.until(lambda: "undone" in me.find('[data-told="done"]').text)

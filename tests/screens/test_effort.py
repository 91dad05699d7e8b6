"""Jobs with a ceiling on the actions that they may take."""

import socket
import time
import uuid

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from ombrel.formats.osc import write_message

from .browser import many_lines
from .conftest import free_port
from .effort import Effort, report
from .pages import Page

ROWS = "\n".join(f"{n},Line {n},condenser,A {n}" if n <= 32 else f"{n},Line {n},DI,B {n - 32}"
                 for n in range(1, 41))  # fmt: skip


@pytest.fixture(scope="module")
def counted():
    jobs = []
    yield jobs
    report(jobs)


def test_importing_and_patching_40_lines_takes_at_most_4_actions(server, people, tmp_path, counted):
    path = tmp_path / "forty.csv"
    path.write_text(f"Ch,Name,Mic,Box\n{ROWS}\n")
    me = people()
    me.open("lines", server.blank_show("Forty"))
    effort = Effort(me)
    effort.click(me.button("Import a list"), "Import a list")
    effort.file("Input list file", str(path))
    effort.click(me.button("Take 40 lines"), "Take 40 lines")
    me.until(lambda: me.count("Lines") == 40)
    me.until(lambda: me.sought('[data-line="40"]').text.endswith("40"))  # its channel
    counted.append(("Import and patch 40 lines", effort, 4))
    assert len(effort) <= 4


def numbered(names, start=1):
    rows = "".join(f"{n},{name},dynamic\n" for n, name in enumerate(names, start=start))
    return f"Ch,Instrument,Mic\n{rows}"


def test_20_lines_as_numbered_and_a_newer_version_of_the_list(server, people, tmp_path, counted):
    names = [f"Source {letter}" for letter in "ABCDEFGHIJKLMNOPQRST"]
    first, second = tmp_path / "twenty.csv", tmp_path / "newer.csv"
    first.write_text(numbered(names, start=5))
    second.write_text(numbered([*names[:10], "New one", *names[10:19]], start=5))
    me = people()
    me.open("lines", server.blank_show("Twenty"))
    effort = Effort(me)
    effort.click(me.button("Import a list"), "Import a list")
    effort.file("Input list file", str(first))
    effort.click(me.button("Take 20 lines"), "Take 20 lines")
    me.until(lambda: me.count("Lines") == 20)
    me.until(lambda: me.find('[data-line="20"]').text.endswith("24"))  # its channel, as numbered
    counted.append(("20 lines as numbered", effort, 4))
    assert len(effort) <= 4
    newer = Effort(me)
    newer.click(me.button("Import a list"), "Import a list")
    newer.file("Input list file", str(second))
    newer.click(me.button("Take 20 lines"), "Take 20 lines")
    me.until(lambda: me.find('[data-line="11"]').text.endswith("16"))
    assert me.count("Lines") == 20
    counted.append(("A newer version of the list merged in", newer, 3))
    assert len(newer) <= 3


def test_a_line_check_of_ten_lines_with_a_swapped_pair(server, people, counted):
    me = people()
    show = server.blank_show("Ten lines")
    me.imported(show)
    me.open("check", show)
    me.find('[data-check="9"]').click()  # the stage is ready, the cables of 9 and 10 are swapped
    me.until(lambda: "Kick" in me.find("main h2").text)
    me.button("swap its cable with Snare").click()
    effort = Effort(me)
    effort.key("t")
    me.until(lambda: "Swapped cables?" in me.body())
    effort.click(me.button("Swap Kick and Snare in the patch"), "Swap Kick and Snare")
    for line in range(9, 19):
        me.until(lambda: "as expected" in me.find('[data-testid="arrival"]').text)
        effort.key("g")
        me.find(f'[data-check="{line}"][data-verdict="good"]')
    counted.append(("A line check of ten lines with a swapped pair", effort, 12))
    assert len(effort) <= 12
    me.keys("t")
    me.button("plug all as patched").click()  # for the next


def test_a_stage_box_that_moved_is_patched_again_in_at_most_3_actions(server, people, counted):
    me = people()
    show = server.blank_show("Moved")
    me.imported(show)
    me.open("patch", show)
    effort = Effort(me)
    effort.typed("Sockets", "Harbour 1-19")
    effort.typed("Channels", "Quay 14")
    me.until(lambda: "loses socket Harbour 1" in me.body())  # read before it happens: no action
    effort.enter()
    me.until(lambda: me.field("Source of channel 9").get_attribute("value") == "Quay 14")
    me.until(lambda: me.field("Source of channel 17").get_attribute("value") == "Quay 22")
    counted.append(("Patch again a stage box that moved", effort, 3))
    assert len(effort) <= 3


def test_six_stereo_mixes_of_24_channels_take_at_most_5_actions(server, people, counted):
    me = people()
    show = server.blank_show("Six ears")
    me.open("hears", show)
    me.find('[aria-label="First steps"]')  # a new show leads on from step to step
    me.imported(show)
    me.open("hears", show)
    effort = Effort(me)
    effort.click(me.button("New mixes"), "New mixes")
    effort.typed("Names", ", ".join(f"Ears {n}" for n in range(1, 7)))
    effort.typed("Channels to send", "1-24")
    effort.enter()
    me.link("Who hears what").click()
    me.reads("channel/24", "mix/6", "−12.0")
    counted.append(("Six stereo mixes of 24 channels from nothing", effort, 5))
    assert len(effort) <= 5


def test_a_new_show_with_20_lines_and_four_stereo_ears(server, people, tmp_path, counted):
    path = tmp_path / "twenty.csv"
    path.write_text(numbered([f"Source {letter}" for letter in "ABCDEFGHIJKLMNOPQRST"]))
    me = people()
    me.open("lines", server.demo)
    effort = Effort(me)
    effort.click(me.find("[data-show-menu]"), "Menu of the show")
    new = me.find("[role=menu]").find_element("xpath", ".//*[text()='New show…']")
    effort.click(new, "New show")
    effort.typed("Name of the show", "Twenty and four")
    effort.file("The band's input list", str(path))
    effort.typed("Who wears ears", "Ears A, Ears B, Ears C, Ears D")
    effort.typed("Channels in their ears", "1-16")
    effort.enter()
    me.until(lambda: "show=" in me.driver.current_url and me.all("[role=dialog]"))
    effort.click(me.button("Take 20 lines"), "Take 20 lines")
    me.until(lambda: me.count("Lines") == 20)
    me.settled()
    me.link("Who hears what").click()
    me.reads("channel/16", "mix/4", "−12.0")
    job = "A new show, 20 lines as numbered and four stereo ears of 16 channels"
    counted.append((job, effort, 8))
    assert len(effort) <= 8


def test_two_decibels_more_in_all_mixes_and_the_houses_balance_in_one(server, people, counted):
    me = people()
    show = server.blank_show("Balance")
    me.imported(show)
    me.open("mixes", show)
    me.button("New mix").click()
    me.type("Names", "Ears A, Ears B, Ears C", enter=False)
    me.type("Channels to send", "1-24")
    me.open("hears", show)
    me.reads("channel/9", "mix/3", "−12.0")
    more = Effort(me)
    more.click(me.find('[data-row-head="8"]'), "the head of Kick")
    me.keys("up 2", Keys.ENTER)
    more.actions.append("type +2")
    for mix in (1, 2, 3):
        me.reads("channel/9", f"mix/{mix}", "−10.0")
    me.reads("channel/10", "mix/1", "−12.0")
    counted.append(("up 2 for one source in all mixes", more, 2))
    assert len(more) <= 2
    me.cell("channel/9", "mix/2").click()
    me.find('[data-column-head="2"]').click()
    me.keys("up 1", Keys.ENTER)
    for channel in (10, 11):
        me.reads(f"channel/{channel}", "mix/2", "−11.0")
    me.open("mixes/1", show)
    fill = Effort(me)
    fill.click(me.button("Fill"), "Fill")
    me.find('[data-testid="consequence"]')
    fill.enter()
    me.until(lambda: not me.all("[role=dialog]"))
    me.settled()
    counted.append(("The house's balance into a mix", fill, 2))
    assert len(fill) <= 2


def test_a_found_channels_gain_is_in_hand(server, people, counted):
    me = people()
    me.open("lines", server.demo)
    effort = Effort(me)
    effort.key("/")
    me.type("Find by name, number or wish", "kora")
    effort.actions.append("type its name")
    hand = me.driver.switch_to
    me.until(lambda: hand.active_element.get_attribute("aria-label") == "Gain of Harbour 12")
    counted.append(("The gain of a channel that is looked for, in hand", effort, 2))
    assert len(effort) <= 2


NINE = ["Tellers", "Drums", "Bass", "Strings", "Brass", "Foley", "Tracks", "Choir", "Effects"]
MEMBERS = """
select count(*) from server_setting where show_id = %s and value = 'true'
 and address ~ '^channel/[0-9]+/dca/[0-9]+/on$'
"""
GANGED = """
select count(*) from server_setting where show_id = %s and value = 'true'
 and address ~ '^channel/[0-9]+/gang/[0-9]+/on$'
"""


def test_nine_dcas_named_coloured_and_filled_with_45_members(server, people, tmp_path, counted):
    show = server.blank_show("Nine")
    me = people()
    me.open("lines", show)
    many_lines(me, tmp_path, 45)
    me.link("DCAs").click()
    effort = Effort(me)
    effort.typed("Names of new DCAs", ", ".join(NINE))
    effort.enter()
    me.until(lambda: len(me.all("[data-column-head]")) == 9)
    for place, name in enumerate(NINE):
        effort.typed(f"Members of {name}", f"{place * 5 + 1}-{place * 5 + 5}")
    effort.enter()
    me.settled()
    with server.sql() as link:
        me.until(lambda: link.execute(MEMBERS, [show]).fetchone() == (45,))
    colour = "return getComputedStyle(arguments[0]).borderTopColor"
    colours = {me.driver.execute_script(colour, head) for head in me.all("[data-column-head]")}
    assert len(colours) >= 8
    words = (action.split(" of ")[0] for action in effort.actions)  # told once, with how often
    effort.actions = [word.replace("type Names", "type the names") for word in words]
    counted.append(("Nine DCAs named, coloured and filled with 45 members", effort, 20))
    assert len(effort) <= 20


def test_why_a_channel_is_silent(server, people, counted):
    me = people()
    me.open("dcas", server.demo)
    me.field("Mute Strings").click()
    me.settled()
    me.open("hears", server.demo)
    effort = Effort(me)
    effort.click(me.cell("channel/20", "house"), "the cell")
    me.until(lambda: "The DCA Strings is muted." in me.find('[aria-label="Why"]').text)
    counted.append(("Why a channel is silent", effort, 2))
    assert len(effort) <= 2
    me.button("Unmute the DCA Strings").click()
    me.settled()


def test_thirty_channels_through_a_new_group_and_the_proof(server, people, tmp_path, counted):
    show = server.blank_show("Thirty")
    me = people()
    me.open("lines", show)
    many_lines(me, tmp_path, 32)
    me.open("routing", show)
    effort = Effort(me)
    effort.click(me.button("Put a group in between"), "Put a group in between")
    effort.typed("Strips to the house", "1-30")
    effort.typed("Name of the new group", "Band")
    effort.enter()
    me.until(lambda: "kept, 30 arrive so" in me.find('[data-promise="promise/1"]').text)
    counted.append(("30 channels through a new group, and the proof", effort, 4))
    assert len(effort) <= 4


def test_an_effect_shared_by_eight_channels(server, people, tmp_path, counted):
    show = server.blank_show("Wet")
    me = people()
    me.open("lines", show)
    many_lines(me, tmp_path, 10)
    me.open("effects", show)
    effort = Effort(me)
    effort.typed("Name of a new effect", "Hall")
    effort.typed("Strips sent to the new effect", "1-8")
    effort.enter()
    me.until(lambda: "8 sent:" in me.find('[data-effect="engine/1"]').text)
    counted.append(("An effect shared by eight channels", effort, 3))
    assert len(effort) <= 3


def test_eight_microphones_share_one_gain(server, people, tmp_path, counted):
    """Who will hear it shared, and what it costs, is read before it is made."""
    show = server.blank_show("A panel of eight")
    me = people()
    me.open("lines", show)
    many_lines(me, tmp_path, 8)
    me.open("sharing", show)
    effort = Effort(me)
    effort.typed("Who shares gain", "1-8")
    me.until(lambda: "Takes 8 places" in me.find('[data-testid="consequence"]').text)
    effort.enter()
    me.until(lambda: len(me.all('[data-sharing="sharing/1"] [data-standing]')) == 8)
    counted.append(("Eight microphones share one gain", effort, 4))
    assert len(effort) <= 4


def test_all_scenes_have_cues_and_one_is_learnt_by_listening(server, people, counted):
    show = server.copied_demo()
    me = people()
    me.open("scenes", show)
    me.settled()
    me.open("cues", show)  # the demo has its cues: they go first
    remove = {"action": "remove_cues", "cues": [f"cue/{n}" for n in range(1, 25)]}
    with Page(server, show) as page:
        assert page.answer(page.ask(remove))["type"] == "done"
    me.until(lambda: me.count("Cues") == 0)
    me.open("run", show)
    effort = Effort(me)
    effort.click(_tab(me, "/cues"), "Cues")
    effort.click(me.button("Cues for 24 scenes"), "Cues for 24 scenes")
    me.until(lambda: len(me.all("[data-cue]")) == 24)
    counted.append(("Cues for all 24 scenes", effort, 2))
    assert len(effort) <= 2
    port = free_port(socket.SOCK_DGRAM)
    with Page(server, show) as page:
        page.say(type="set_cue_way", id=str(uuid.uuid4()), kind="osc_udp", on=True,
                 host="127.0.0.1", port=str(port))  # fmt: skip
        page.until(lambda: any(one["listens"] for told in page.heard if told["type"] == "cues"
                               for one in told["ways"]))  # fmt: skip
    me.open("run", show)
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as machine:
        me.until(lambda: _sent(machine, port) and "No cue waits" in me.body())
    learnt = Effort(me)
    learnt.click(_tab(me, "/cues"), "Cues")
    learnt.click(me.find('[aria-label="Take /lamp/go 7 as a cue"]'), "Take")
    field = me.field("What comes, and what it does")
    me.until(lambda: me.driver.switch_to.active_element == field)
    me.driver.switch_to.active_element.send_keys("note: stand by", Keys.ENTER)
    learnt.actions.append("type what it does")
    me.until(lambda: len(me.all("[data-cue]")) == 25)
    counted.append(("One cue by listening", learnt, 3))
    assert len(learnt) <= 3


def _tab(me, path):
    """The tab of a view, where it is in sight: a narrow screen has another."""
    links = me.until(lambda: [a for a in me.all(f'a[href="{path}"]') if a.is_displayed()])
    return links[0]


def _sent(machine, port):
    """Sent once more: the port may not be open yet."""
    machine.sendto(write_message("/lamp/go", 7), ("127.0.0.1", port))
    time.sleep(0.3)
    return True


def test_twenty_channels_and_four_effects_are_on_tracks(server, people, counted, tmp_path):
    show = server.blank_show("Tape", desk="touring-48")
    me = people()
    me.open("lines", show)
    many_lines(me, tmp_path, 20)
    me.open("effects", show)
    for name in ("Hall", "Plate", "Echo", "Room"):
        me.type("Name of a new effect", name)
        me.until(lambda name=name: name in me.find("main").text)
    me.open("tracks", show)
    effort = Effort(me)
    effort.typed("What is to be recorded", "1-20 processed; returns as heard")
    effort.enter()
    me.until(lambda: len(me.all("[data-wish]")) == 24)
    effort.typed("Tracks that stay as they are", "29-32")
    me.keys(Keys.TAB)
    effort.press("Find the plan")
    me.until(lambda: "24 of 24 on tracks" in me.body())
    effort.press("Take the plan")
    me.until(lambda: len(me.all('[data-wish] [aria-label^="on track"]')) == 24)
    counted.append(("20 processed channels, four stereo effects, four tracks free", effort, 6))
    assert len(effort) <= 6


def test_a_singer_is_lifted_trimmed_and_read_in_why(server, people, counted):
    me = people()
    me.open("hears", server.demo)
    before = me.cell("channel/3", "house").text
    me.open("lifts", server.demo)
    me.find('[data-singer="channel/3"] button')
    lift = Effort(me)
    lift.key("3")
    me.until(lambda: "Teller, part B up" in me.find("main [role=status]").text)
    trim = Effort(me)
    trim.typed("Step of Teller, part B at House", "+3")
    me.driver.execute_script("document.activeElement.blur()")
    me.until(lambda: me.field("Step of Teller, part B at House").get_attribute("value") == "+3.0")
    me.settled()
    me.open("hears", server.demo)
    level = float(before.replace("\u2212", "-"))
    me.reads("channel/3", "house", f"{level + 3.0:.1f}".replace("-", "\u2212"))
    me.cell("channel/3", "house").click()
    me.until(lambda: "Voices lead" in me.find('[aria-label="Why"]').text)
    counted.append(("A singer lifted to the lead", lift, 1))
    counted.append(("The step of one singer trimmed", trim, 1))
    assert (len(lift), len(trim)) == (1, 1)
    for _ in range(2):
        me.chord(Keys.CONTROL, key="z")
        me.settled()


def test_a_scene_stored_recalled_changed_to_the_end_and_a_value_pinned(server, people, counted):
    """On the demo's evening; what the recall would do is read before it is pressed."""
    me = people()
    me.open("scenes/4", server.demo)
    me.until(lambda: me.find("[data-looked-at]"))
    store = Effort(me)
    store.press("Store")
    me.until(lambda: me.count("Scenes") == 25)
    me.settled()
    me.open("scenes/5", server.demo)
    me.until(lambda: me.find("[data-looked-at]"))
    me.until(lambda: "ilences Ring host" in me.find("[data-looked-at]").text)
    recall = Effort(me)
    recall.press("Recall")
    me.until(lambda: me.find('[data-scene="scene/5"]').text.endswith("now"))
    me.button("What it holds").click()
    me.find('[data-held="channel/1"]')
    onward = Effort(me)
    onward.typed("Fader of Ring host in the scene", "-6", settled=True)
    me.find('[data-testid="reaching"]')
    onward.choose("Where it is changed", "from here to the end")
    me.until(lambda: "Change 20 scenes" in me.find('[data-testid="reaching"]').text)
    onward.press("Change 20 scenes")
    me.until(lambda: "−6 dB" in me.field("Fader of Ring host in the scene").get_attribute("value"))
    me.open("scenes/6", server.demo)
    me.button("What it does").click()
    pin = Effort(me)
    pin.click(me.field("pin, Fiddle, Mute"), "the pin of Fiddle's mute")
    me.until(lambda: "Fiddle" in me.find('[aria-label="Held by pins"]').text)
    found = [("A scene stored", store, 1), ("A scene recalled, its preview seen", recall, 1),
             ("One value from a scene to the end", onward, 3), ("A pin", pin, 1)]  # fmt: skip
    for what, effort, most in found:
        counted.append((what, effort, most))
        assert len(effort) <= most
    for _ in range(4):
        me.driver.execute_script("document.activeElement.blur()")
        me.chord(Keys.CONTROL, key="z")
        me.settled()


def test_a_mic_check_takes_one_action_a_performer(server, people, counted):
    show = server.copied_demo()
    me = people()
    me.open("cast", show)
    me.find('[data-testid="cast-preview"], [data-part]')
    effort = Effort(me)
    effort.choose("Tonight's cast", "Tonight: Anchor cast")
    me.until(lambda: "Corin Vashti as Teller A" in me.body())
    effort.click(me.button("Take it"), "Take it")
    me.settled()
    counted.append(("Tonight's cast, with everybody's settings", effort, 2))
    assert len(effort) <= 2
    late = Effort(me)
    me.until(lambda: me.chosen("Tonight, Teller B") == "Mirelle Aske")
    late.choose("Tonight, Teller B", "Oswin Tarn")
    me.until(lambda: "Oswin Tarn as Teller B" in me.body())
    late.click(me.button("Take it"), "Take it")
    me.settled()
    counted.append(("A late change", late, 2))
    assert len(late) <= 2
    me.open("miccheck", show)
    me.until(lambda: "0 done, 7 to go" in me.body())
    me.keys("n")
    check = Effort(me)
    for done in range(1, 6):
        me.until(lambda: me.all('[data-phase="on"]'))
        check.key("n")
        me.until(lambda done=done: len(me.all('[data-phase="done"]')) == done)
    counted.append(("A mic check of five performers", check, 5))
    assert len(check) <= 5


def test_an_evenings_scene_after_two_levels_and_its_late_change(server, people, counted):
    """From the view in which one works, and back to none: what the way there costs counts."""
    show = server.copied_demo()
    me = people()
    me.open("scenes/4", show)
    me.until(lambda: me.find("[data-looked-at]"))
    me.open("mixes/1", show)
    store = Effort(me)
    store.typed("Level of Kick in dB", "-21", settled=True)
    store.typed("Level of Snare in dB", "-22", settled=True)
    store.click(me.link("Scenes"), "Scenes")
    me.until(lambda: me.find("[data-looked-at]"))
    store.typed("Name of the new scene", "After the storm", settled=True)
    me.until(lambda: me.count("Scenes") == 25)
    me.settled()
    with server.sql() as link:
        query = """select number.value::text::float from server_setting named
            join server_setting number on number.show_id = named.show_id
             and number.address = replace(named.address, '/name', '/number')
            where named.show_id = %s and named.value #>> '{}' = 'After the storm'"""
        (number,) = link.execute(query, [show]).fetchone()
    assert 4 < number < 5  # behind the scene in hand
    counted.append(("A scene stored after two levels in a mix", store, 5))
    assert len(store) <= 5
    me.open("run", show)
    late = Effort(me)
    late.click(me.link("Cast"), "Cast")
    late.choose("Tonight, Teller B", "Mirelle Aske")
    me.until(lambda: "Mirelle Aske as Teller B" in me.body())
    late.click(me.button("Take it"), "Take it")
    me.settled()
    counted.append(("A late change from Run, in the interval", late, 3))
    assert len(late) <= 3


def test_a_drum_is_reinforced_by_a_tone_and_why_says_what_opens_it(server, people, counted):
    me = people()
    me.open("strip/channel/12", server.demo)
    effort = Effort(me)
    effort.click(me.find('[data-stage="gate"]'), "the gate of Frame drum 1")
    effort.typed("Frequency of a tone that Frame drum 1 opens", "50")
    effort.enter()
    me.settled()
    with server.sql() as link:
        query = """select split_part(address, '/', 2) from server_setting
                   where show_id = %s and value = %s"""
        row = [server.demo, '"Frame drum 1 tone"']
        me.until(lambda: link.execute(query, row).fetchone())
        (tone,) = link.execute(query, row).fetchone()
    me.open(f"strip/channel/{tone}", server.demo)
    effort.click(me.find('[data-stage="gate"]'), "the gate of the tone")
    me.until(
        lambda: "Frame drum 1 opens it, behind its fader" in me.find('[data-testid="keyed"]').text
    )
    me.until(lambda: "Frame drum 1 opens it" in me.find('[aria-label="Why"]').text)
    counted.append(("A drum reinforced by a keyed tone, and what opens it", effort, 6))
    assert len(effort) <= 6


def test_gangs_named_and_filled_and_all_stereo_lines_linked(server, people, counted):
    show = server.blank_show("Together")
    me = people()
    me.imported(show)
    me.open("gangs", show)
    effort = Effort(me)
    effort.typed("Names of new Gangs", "Tellers, Drums, Brass")
    effort.enter()
    me.until(lambda: len(me.all("[data-column-head]")) == 3)
    for name, members in (("Tellers", "1-8"), ("Drums", "9-16"), ("Brass", "23-24")):
        effort.typed(f"Members of {name}", members)
    effort.enter()
    me.settled()
    with server.sql() as link:
        query = GANGED, [show]
        me.until(lambda: link.execute(*query).fetchone() == (18,))
    effort.actions = [action.split(" of ")[0] for action in effort.actions]
    counted.append(("Three gangs named and filled", effort, 8))
    assert len(effort) <= 8
    me.open("gangs/pairs", show)
    effort = Effort(me)
    effort.click(me.button("Link all stereo lines"), "Link all stereo lines")
    effort.click(me.button("Take it"), "Take it")
    me.until(lambda: len(me.all('[aria-label="Pairs"] li')) == 4)
    counted.append(("The pairs of all stereo lines linked", effort, 3))
    assert len(effort) <= 3


SINGERS = [
    "Zoë Ångström-Quillfeather the Younger",
    "בת שבע",
    "Ada",
    "Ada",
    "Mi\u0302rea, alto",
    "J",
]


def test_a_volunteers_evening_one_limited_fader_and_six_singers_to_lift_inside_it(
    server, people, tmp_path, counted
):
    """Thirty channels, click and guide out; whichever was made first, a lift breaks no promise."""
    show = server.blank_show("Volunteers")
    names = [*SINGERS, *(f"Instrument {n}" for n in range(7, 29)), "Click", "Guide"]
    path = tmp_path / "thirty.csv"
    path.write_text(numbered([f'"{name}"' for name in names]))
    me = people()
    me.open("lines", show)
    me.button("Import a list").click()
    me.field("Input list file").send_keys(str(path))
    me.button("Take 30 lines").click()
    me.until(lambda: me.count("Lines") == 30)
    me.settled()
    me.open("routing", show)
    effort = Effort(me)
    effort.click(me.button("Put a group in between"), "Put a group in between")
    effort.typed("Strips to the house", "1-30 except Click, Guide")
    effort.typed("Name of the new group", "All of them")
    effort.typed("Limiter at, in dBFS", "-6")
    effort.enter()
    me.until(lambda: "kept, 28 arrive so" in me.find('[data-promise="promise/1"]').text)
    effort.click(me.link("Lifts"), "Lifts")
    ActionChains(me.driver).move_to_element(me.find("main h1")).perform()  # away from its tabs
    effort.typed("Name of a new lift", "Voices")
    effort.typed("Who sings in it", "1-6")
    effort.enter()
    me.find('[data-singer="channel/6"] button')
    counted.append(
        ("A volunteer's evening: one limited fader, and six singers to lift inside it", effort, 12)
    )
    assert len(effort) <= 12
    me.keys("2")
    me.until(lambda: "up" in me.find("main [role=status]").text)
    me.settled()
    me.open("wrong/promises", show)
    me.until(lambda: "kept, 28 arrive so" in me.find('[data-promise="promise/1"]').text)
    with server.sql() as link:  # both groups of the lift go into the one that is ridden
        query = "select count(*) from server_setting where show_id = %s and address in (%s, %s)"
        into = ["group/2/group/1/on", "group/3/group/1/on"]
        assert link.execute(query, [show, *into]).fetchone() == (2,)


def test_twenty_direct_outs_to_tracks_before_the_fader(server, people, tmp_path, counted):
    show = server.blank_show("Tracks")
    me = people()
    me.open("lines", show)
    many_lines(me, tmp_path, 20)
    me.open("outputs", show)
    effort = Effort(me)
    effort.typed("What goes where", "1-20 direct to Tape 1, before fader")
    effort.enter()
    me.until(lambda: "Tape 20/32" in me.body().replace("\n", " "))
    counted.append(("20 direct outs to tracks, before the fader", effort, 3))
    assert len(effort) <= 3
    me.button("Tape").click()
    tap = Effort(me)
    tap.click(me.find('[aria-label^="Choose all outputs"]'), "Choose all outputs")
    tap.choose("Field to set", "Trim in dB")
    tap.typed("Value to set", "-3")
    tap.enter()
    me.until(lambda: me.field("Trim of Tape 20").get_attribute("value") == "\u22123.0")
    counted.append(("The trim of a whole recorder", tap, 4))
    assert len(tap) <= 4


def test_a_channel_copied_onto_four_moved_and_found_again(server, people, counted):
    me = people()
    me.open("strip/channel/9", server.demo)
    effort = Effort(me)
    effort.click(me.button("Copy or move"), "Copy or move")
    effort.typed("Copy Kick onto", "42-45")
    me.until(lambda: "Channel 45" in me.find('[data-testid="consequence"]').text)
    effort.enter()
    me.until(lambda: not me.all("[role=dialog]"))
    counted.append(("A channel copied onto four", effort, 3))
    assert len(effort) <= 3
    me.settled()
    move = Effort(me)
    move.click(me.button("Copy or move"), "Copy or move")
    move.typed("Number to move Kick to", "41")
    me.until(lambda: "9 \u2192 41" in me.find('[data-testid="consequence"]').text)
    move.enter()
    me.until(lambda: "41 Kick" in me.find("h1").text)
    counted.append(("A channel moved to another number", move, 3))
    assert len(move) <= 3
    me.button("Duplicate").click()  # a duplicate leads to where it is: a free one without a name
    me.until(lambda: "42 Kick copy" in me.find("h1").text)
    for _ in range(3):
        me.settled()
        me.chord(Keys.CONTROL, key="z")
    me.settled()
    me.open("strip/channel/9", server.demo)
    me.until(lambda: "9 Kick" in me.find("h1").text)


def test_four_performers_from_nothing_to_links_on_paper(server, people, counted):
    me = people()
    show = server.blank_show("Four")
    me.imported(show)
    me.open("mixes", show)
    effort = Effort(me)
    effort.press("New mix")
    effort.typed("Names", "Ears A, Ears B, Ears C, Ears D")
    effort.typed("Channels to send", "1-24")
    effort.enter()
    me.until(lambda: not me.all("[role=dialog]"))
    me.go("ears")
    effort.press("Make 4 links")
    me.until(lambda: len(me.all('[role=dialog] [data-testid="link"]')) == 4)
    me.driver.execute_script("window.printed = 0; window.print = () => { window.printed += 1; }")
    effort.press("Print them")
    assert me.driver.execute_script("return window.printed") == 1
    cards = me.driver.execute_script("return document.querySelectorAll('.link-cards li').length")
    assert cards == 4
    counted.append(("Four performers from nothing to links on paper", effort, 6))
    assert len(effort) <= 6


def test_a_recipe_for_all_and_a_bit_more_of_three_in_one_mix(server, people, counted):
    me = people()
    me.open("ears", server.demo)
    recipe = Effort(me)
    recipe.press("Start mixes")
    recipe.typed("Recipe", "self +6, rest = -12")
    recipe.press("Start them")
    me.until(lambda: not me.all("[role=dialog]"))
    me.settled()
    counted.append(("A recipe for all ears and wedges", recipe, 3))
    assert len(recipe) <= 3
    more = Effort(me)
    more.click(me.find('[title="Unfold Ears bass"]'), "Ears bass")
    more.typed("Only these of Ears bass", "Double bass DI, Kick, Snare")
    more.typed("Trim Ears bass by dB", "up 1.5", settled=True)
    me.settled()
    me.open("mixes/5", server.demo)
    me.until(lambda: me.field("Level of Kick in dB").get_attribute("value") == "\u221210.5")
    counted.append(("A bit more bass, kick and snare in one mix", more, 3))
    assert len(more) <= 3


def test_a_call_is_answered_by_one_press(server, people, counted):
    me, phone = people(), people()
    me.open("ears/3", server.demo)
    me.button("New link").click()
    link = me.find('[data-testid="link"]').text
    me.open("lines", server.demo)
    phone.resize(390, 844, touch=True)
    phone.driver.get(link)
    phone.until(lambda: phone.status() == "live")
    call = Effort(phone)
    call.press("Call the desk")
    call.press("too loud")
    answer = Effort(me)
    answer.press("I have seen it")
    phone.until(lambda: "The desk has seen it" in phone.body())
    counted.append(("Call the desk from a phone", call, 2))
    counted.append(("Answer a call", answer, 1))
    assert len(answer) == 1

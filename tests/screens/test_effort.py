"""Jobs with a ceiling on the actions that they may take."""

import pytest

from .effort import Effort, report

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
    assert me.find('[data-line="40"]').text.endswith("40")  # its channel
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
    assert me.find('[data-line="20"]').text.endswith("24")  # its channel, as numbered
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
    effort.typed("Sockets", "A 1-19")
    effort.typed("Channels", "B 14")
    me.until(lambda: "loses socket A 1" in me.body())  # read before it happens: no action
    effort.enter()
    me.until(lambda: me.field("Source of channel 9").get_attribute("value") == "B 14")
    assert me.field("Source of channel 17").get_attribute("value") == "B 22"
    counted.append(("Patch again a stage box that moved", effort, 3))
    assert len(effort) <= 3


def test_six_stereo_mixes_of_24_channels_take_at_most_5_actions(server, people, counted):
    me = people()
    show = server.blank_show("Six ears")
    me.imported(show)
    me.open("mixes", show)
    effort = Effort(me)
    effort.click(me.button("New mix"), "New mix")
    effort.typed("Names", ", ".join(f"Ears {n}" for n in range(1, 7)))
    effort.typed("Channels to send", "1-24")
    effort.enter()
    me.link("Who hears what").click()
    me.reads("channel/24", "mix/6", "−12.0")
    counted.append(("Six stereo mixes of 24 channels from nothing", effort, 5))
    assert len(effort) <= 5

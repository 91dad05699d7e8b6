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
    me.until(lambda: len(me.all("[data-line]")) == 40)
    assert me.find('[data-line="40"]').text.endswith("40")  # its channel
    counted.append(("Import and patch 40 lines", effort, 4))
    assert len(effort) <= 4


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

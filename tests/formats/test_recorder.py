"""The stand-in recorder: files that another reader reads, and levels that come back as expected."""

import pytest
import soundfile
from hypothesis import given
from hypothesis import strategies as st

from ombrel.core import BadFile
from ombrel.formats.stage_osc import play, read_command, record, stop, track
from ombrel.standin.recorder import RATE_HZ, Take
from ombrel.standin.stage import Stage

TAKES = [("input/recorder/5", "Kick", -18.0), ("input/recorder/12", "Ring host: tent / quay", -6.0)]


def stage(folder):
    found = Stage(folder=folder)
    for socket, name, dbfs in TAKES:
        found.obey(read_command(track(socket, name, dbfs, 21.0)))
    return found


def test_it_writes_what_the_plan_says_and_plays_it_back(tmp_path):
    one = stage(tmp_path)
    one.obey(read_command(record(2.0)))
    for _ in TAKES:
        one.recorder.step()
    files = sorted(tmp_path.glob("*.wav"))
    assert [file.name for file in files] == ["005 Kick.wav", "012 Ring host_ tent _ quay.wav"]
    for file, (_, name, dbfs) in zip(files, TAKES, strict=True):
        samples, rate_hz = soundfile.read(file)
        assert (rate_hz, len(samples)) == (RATE_HZ, 2 * RATE_HZ)
        assert abs(samples).max() == pytest.approx(10.0 ** (dbfs / 20.0), rel=1e-3)
        with soundfile.SoundFile(file) as read:
            assert read.title == name
            assert read.subtype == "PCM_24"
    assert one.levels_dbu() == {}
    one.obey(read_command(play()))
    for _ in range(30):  # longer than the files: they go round
        levels = one.levels_dbu()
        assert levels == pytest.approx({socket: dbfs + 21.0 for socket, _, dbfs in TAKES}, abs=0.1)
    one.obey(read_command(stop()))
    assert one.levels_dbu() == {}


def test_a_second_take_replaces_the_first_whole(tmp_path):
    one = stage(tmp_path)
    one.obey(read_command(record(0.2)))
    for _ in TAKES:
        one.recorder.step()
    one.recorder.takes.pop("input/recorder/12")
    one.obey(read_command(record(0.5)))
    one.recorder.step()
    assert [file.name for file in tmp_path.glob("*.wav")] == ["005 Kick.wav"]


def test_playing_what_was_never_recorded_is_silence(tmp_path):
    one = stage(tmp_path)
    one.obey(read_command(play()))
    assert one.levels_dbu() == {}


@given(name=st.text(max_size=60), number=st.integers(1, 999))
def test_whatever_a_track_is_called_its_file_stays_in_the_folder(name, number):
    take = Take(socket=f"input/recorder/{number}", name=name, dbfs=-20.0, full_scale_dbu=21.0)
    assert "/" not in take.file
    assert ".." not in take.file.removesuffix(".wav").strip(".") or take.file[0].isdigit()
    assert len(take.file) <= 70


@pytest.mark.parametrize(
    "content",
    [
        track("input/../../etc/1", "x", -3.0, 21.0),
        track("input/recorder/0", "x", -3.0, 21.0),
        track("input/recorder/5", "x" * 61, -3.0, 21.0),
        track("input/recorder/5", "x", float("nan"), 21.0),
        record(0.0),
        record(1e9),
        record(float("nan")),
        track("input/recorder/5", "Kick", -3.0, 21.0)[:-4],
    ],
)
def test_what_is_no_message_of_a_recorder_is_refused(content):
    with pytest.raises(BadFile):
        read_command(content)

"""The people who talk on the stand-in stage: by seed, in turns, within what a voice can be."""

from ombrel.formats.stage_osc import Command
from ombrel.standin.stage import Stage
from ombrel.standin.talkers import Talkers

SPEAKS_DB = -12.0


def evening(seed: int, places: int = 5, minutes: float = 10.0) -> list[list[float]]:
    talkers = Talkers(seed)
    return [talkers.after(places, 0.1) for _ in range(int(minutes * 600))]


def test_equal_seeds_talk_alike_and_others_do_not() -> None:
    assert evening(7, minutes=1.0) == evening(7, minutes=1.0)
    assert evening(7, minutes=1.0) != evening(8, minutes=1.0)


def test_everybody_has_turns_with_pauses_overlaps_and_laughter() -> None:
    for seed in (1, 2, 3):
        levels = evening(seed)
        assert all(-45.0 < one < 15.0 for step in levels for one in step)
        speaking = [sum(one > SPEAKS_DB for one in step) for step in levels]
        for who in range(5):  # each a twentieth of the time, at least
            assert sum(step[who] > SPEAKS_DB for step in levels) > len(levels) / 20
        # nobody, one, two at a time; and three or more, when they laugh
        assert {0, 1, 2} <= set(speaking)
        assert max(speaking) >= 3
        assert speaking.count(1) > speaking.count(2)


def test_a_stage_lets_plugs_talk_at_their_levels_through_whatever_cables() -> None:
    stage = Stage(seed=3)
    for plug, dbu in (("input/a/1", -40.0), ("input/a/2", -20.0)):
        stage.obey(Command(verb="feed", sockets=(plug,), signal="speech", dbu=dbu))
    stage.obey(Command(verb="feed", sockets=("input/a/3",), signal="tone", dbu=-10.0))
    stage.obey(Command(verb="swap", sockets=("input/a/1", "input/a/9")))
    heard = [stage.levels_dbu() for _ in range(600)]
    assert all(set(one) == {"input/a/9", "input/a/2", "input/a/3"} for one in heard)
    assert all(one["input/a/3"] == -10.0 for one in heard)
    loudest = {socket: max(one[socket] for one in heard) for socket in heard[0]}
    assert -45.0 < loudest["input/a/9"] < -25.0
    assert -25.0 < loudest["input/a/2"] < -5.0
    stage.obey(Command(verb="feed", sockets=("input/a/1",), signal="nothing", dbu=0.0))
    assert "input/a/9" not in stage.levels_dbu()

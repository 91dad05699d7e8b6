"""Shared effects on their page: held to the tempo, given to performers, and read in Why."""

from .test_banks import value


def card(person, engine):
    return person.find(f'[data-effect="engine/{engine}"]')


def test_a_delay_is_held_to_the_tempo_and_a_return_given_to_performers(server, people):
    show = server.blank_show("Echoes")
    me = people()
    me.imported(show)
    me.open("effects", show)
    me.type("Name of a new effect", "Echo", enter=False)
    me.type("Strips sent to the new effect", "1-4")
    me.until(lambda: "4 sent:" in card(me, 1).text)
    me.choose("What Echo is", "delay")
    me.until(lambda: me.field("Note of Echo"))
    me.choose("Note of Echo", "eighth dotted")
    me.until(lambda: value(server, show, "engine/1/note") == "eighth_dotted")
    me.type("Tempo in bpm", "90")
    me.until(lambda: value(server, show, "engine/1/time") == 500.0)  # 45 000 / 90
    for _ in range(3):
        me.button("Tap").click()
    me.until(lambda: value(server, show, "show/tempo") != 90.0)
    me.until(lambda: value(server, show, "engine/1/time") != 500.0)
    me.type("Return of Echo into mixes", "mix 2-3")
    me.until(lambda: "mix 2-3 are not" in me.body())
    me.open("mixes", show)
    me.new_mix()
    me.type("Names", "Ears")
    me.until(lambda: value(server, show, "mix/2/name") == "Ears")
    me.open("effects", show)
    me.type("Return of Echo into mixes", "mix 2")
    me.until(lambda: value(server, show, "return/1/send/mix/2/level") == -12.0)
    assert value(server, show, "channel/1/send/mix/1/tap") == "after_fader"
    # by hand off the tempo: said at once, and settled from the findings
    me.type("Time, Echo", "123")
    me.open("wrong", show)
    me.until(lambda: "Echo is 123 ms" in me.body())

"""A whole evening by one person from an empty show: awkward names, a company twice cast,

twelve scenes, a mic check, one scene put in between, a late change in the interval, go to the end.
What stands is read in the database after each step, and who is on by the names on the banks.
"""

import csv

from .test_banks import value

NAMES = [
    "Vox 1 (A/B)", "Vox, 2", '"Vox" 3', "50% dry & wet", "+2", "Vöx — sieben ½", "channel/7",
    "1-4, all", "Kick In/Out", "−∞ dB", "Akkordeon und Bandoneon der Nachtwache!", "<b>DI</b>",
]  # fmt: skip
PARTS = ["Keeper", "Pilot", "Gull, the elder", "Bailiff", "Ferryman", "Widow"]
HARBOUR = ["Ada Lun", "Bo Vesk", "Ray, Cyr", "Dot Ames", "Eck Ott", "Fenn Ould"]
ANCHOR = ["Gil Tarr", "Hob Wenn", "Isa Brook", "Jory Lamb", "Kit Moss", "Lorn Pike"]


def quoted(name):
    return f'"{name}"' if "," in name else name


def on_the_banks(person):
    faders = person.all("[data-bank-strip] [role=slider]")
    labels = (one.get_attribute("aria-label") for one in faders)
    return [label.removeprefix("Fader of ") for label in labels]


def on(server, show, channel):
    """Who stands in the fitting that is on a channel, by name."""
    fitting = value(server, show, f"channel/{channel}/fitting")
    if not fitting:
        return None
    return value(server, show, value(server, show, f"{fitting}/performer") + "/name")


def lines_and_mixes(me, server, show, folder):
    path = folder / "evening.csv"
    with path.open("w", newline="") as out:
        rows = csv.writer(out)
        rows.writerow(["Ch", "Instrument", "Mic"])
        rows.writerows([n, name, "condenser"] for n, name in enumerate(NAMES, start=1))
    me.open("lines", show)
    me.button("Import a list").click()
    me.field("Input list file").send_keys(str(path))
    me.button("Take 12 lines").click()
    me.until(lambda: me.count("Lines") == 12)
    me.settled()
    assert [value(server, show, f"channel/{n}/name") for n in range(1, 13)] == NAMES
    me.open("mixes", show)
    me.button("New mix").click()
    me.type("Names", "Ears left, Ears right", enter=False)
    me.type("Channels to send", "1-12")
    me.until(lambda: value(server, show, "channel/12/send/mix/2/level") == -12.0)


def twice_cast(me, server, show):
    me.open("cast", show)
    for n, (part, one, two) in enumerate(zip(PARTS, HARBOUR, ANCHOR, strict=True), start=1):
        me.type("Name of the new part", part, enter=False)
        me.type("Channels of the new part", str(n), enter=False)
        me.type("Who plays the new part", f"{quoted(one)}, {quoted(two)}")
        me.until(lambda n=n: len(me.all("[data-part]")) == n)
        me.until(lambda: me.field("Name of the new part").get_attribute("value") == "")
    for cast, company in (("Harbour", HARBOUR), ("Anchor", ANCHOR)):
        me.type("Name of the new cast", cast)
        for part, player in zip(PARTS, company, strict=True):
            me.choose(f"{cast}, {part}", player)
    me.settled()
    tonight(me, "Tonight's cast", "Tonight: Harbour", "Ray, Cyr as Gull, the elder")
    assert [on(server, show, n) for n in range(1, 7)] == HARBOUR


def tonight(me, field, word, told):
    preview = '[data-testid="cast-preview"]'
    me.choose(field, word)
    me.until(lambda: told in me.find(preview).text)
    me.button("Take it").click()
    me.until(lambda: not me.all(preview))
    me.settled()


def stored(me, server, show, number, name):
    """Two levels in the house, and the scene of it, each in its own view."""
    me.open("mixes/house", show)
    me.type(f"Level of {HARBOUR[0]} in dB", f"-{number}")
    me.type(f"Level of {NAMES[8]} in dB", f"-{20 + number}")
    me.settled()
    me.link("Scenes").click()
    me.until(lambda: not me.all("[data-loading]"))
    before = me.count("Scenes")
    me.type("Name of the new scene", name)
    me.until(lambda: me.count("Scenes") == before + 1)
    me.settled()


def go(me, server, show, scene, name):
    board = '[data-scene-board="{}"]'
    me.until(lambda: name in me.find(board.format("Next")).text)
    me.keys("g")
    me.until(lambda: name in me.find(board.format("Now")).text)
    me.settled()
    assert value(server, show, "run/now") == scene


def gain_shown(me, show):
    me.open("strip/channel/3", show)
    me.find('[data-stage="preamp"]').click()
    return float(me.field("Gain of Harbour 3").get_attribute("value"))


def test_a_whole_evening_from_an_empty_show(server, people, tmp_path):
    show = server.blank_show("The evening")
    me = people()
    lines_and_mixes(me, server, show, tmp_path)
    twice_cast(me, server, show)
    me.open("banks", show)
    me.button("Make banks").click()
    me.type("Names of new banks", "Company")
    me.type("Strips of the bank", "1-12")
    me.button("Done").click()
    me.until(lambda: on_the_banks(me) == [*HARBOUR, *NAMES[6:]])
    # who has come is heard one after another, and kept
    me.open("miccheck", show)
    me.until(lambda: "0 done, 6 to go" in me.body())
    me.keys("n")
    for done, name in enumerate(HARBOUR, start=1):
        me.find(f'main section[aria-label="Checking {name}"]')
        if name == "Ray, Cyr":
            me.field("Gain up").click()
            me.until(lambda: "1 value moved" in me.find('[aria-label^="Checking"]').text)
        me.keys("n")
        me.until(lambda done=done: len(me.all('[data-phase="done"]')) == done)
    # twelve scenes, with work in another view between
    for number in range(1, 13):
        stored(me, server, show, number, f"Step {number}")
    assert [value(server, show, f"scene/{n}/number") for n in range(1, 13)] == list(range(1, 13))
    # one is put in between: with scene 4 in hand
    me.open("scenes/4", show)
    me.until(lambda: me.find("[data-looked-at]"))
    stored(me, server, show, 30, "Put in")
    assert value(server, show, "scene/13/number") == 4.5
    # the first half
    me.open("run", show)
    order = [1, 2, 3, 4, 13, 5, 6]
    for n in order:
        go(me, server, show, f"scene/{n}", "Put in" if n == 13 else f"Step {n}")
        level = -30.0 if n == 13 else -float(n)
        assert value(server, show, "channel/1/fader") == level
        assert value(server, show, "channel/9/fader") == level - 20.0
        assert [on(server, show, one) for one in range(1, 7)] == HARBOUR
    # the interval: the gull has lost her voice
    me.link("Cast").click()
    tonight(me, "Tonight, Gull, the elder", "Isa Brook", "Isa Brook as Gull, the elder")
    assert on(server, show, 3) == "Isa Brook"
    me.open("banks", show)
    company = [*HARBOUR[:2], "Isa Brook", *HARBOUR[3:]]
    me.until(lambda: on_the_banks(me) == [*company, *NAMES[6:]])
    assert value(server, show, "fitting/3/value/preamp/gain") == 1.0  # hers is kept, and off
    assert gain_shown(me, show) == 0.0
    # and to the end
    me.open("run", show)
    for n in range(7, 13):
        go(me, server, show, f"scene/{n}", f"Step {n}")
        assert value(server, show, "channel/1/fader") == -float(n)
        assert [on(server, show, one) for one in range(1, 7)] == company
    me.until(lambda: "No scene follows" in me.find('[data-scene-board="Next"]').text)
    assert value(server, show, "run/next") is None
    # the one who was ill comes back as she was left
    me.link("Cast").click()
    tonight(me, "Tonight, Gull, the elder", "Ray, Cyr", "Ray, Cyr as Gull, the elder")
    assert on(server, show, 3) == "Ray, Cyr"
    assert gain_shown(me, show) == 1.0

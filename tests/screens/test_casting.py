"""The company in the real interface: a mic check of eight with one action each, by two people, one

skipped and come back to; every road to keep under a wrong name refused; tonight's cast, a late
change, and a scene run, with what then stands.
"""

from selenium.webdriver.common.keys import Keys

from .test_banks import value


def card(person):
    return person.find('main section[aria-label^="Checking"], main section[aria-label="Mic check"]')


def checking(person, name):
    person.until(lambda: f"Checking {name}" == card(person).get_attribute("aria-label"))


def rows(person, phase):
    return person.texts(f'[data-phase="{phase}"] [data-name]')


def versions(server, show, name):
    """How many versions are kept of whoever is called so, over their fittings."""
    with server.sql() as link:
        query = """select coalesce(sum(newest.value::text::float), 0)
            from server_setting named
            join server_setting fitting on fitting.show_id = named.show_id
             and fitting.address like 'fitting/%%/performer'
             and fitting.value #>> '{}' || '/name' = named.address
            join server_setting newest on newest.show_id = named.show_id
             and newest.address = replace(fitting.address, '/performer', '/newest')
            where named.show_id = %s and named.address like 'performer/%%/name'
             and named.value #>> '{}' = %s"""
        return int(link.execute(query, [show, name]).fetchone()[0])


def test_eight_are_checked_with_one_action_each_one_skipped_and_come_back_to(server, people):
    show = server.copied_demo()
    me = people()
    me.open("cast", show)
    me.type("Who can play Choir of gulls", "Wilkie Strand")
    me.settled()
    me.until(lambda: "nothing kept yet: Wilkie Strand" in me.body())
    me.choose("Tonight, Choir of gulls", "Wilkie Strand")
    me.until(
        lambda: "Wilkie Strand as Choir of gulls" in me.find('[data-testid="cast-preview"]').text
    )
    me.button("Take it").click()
    me.settled()
    me.open("miccheck", show)
    me.until(lambda: "0 done, 8 to go" in me.body())
    order = rows(me, "waiting")
    assert order[0] == "Maro Quill"
    assert order[-1] == "Wilkie Strand"
    actions = 0
    me.keys("n")  # the first comes on: begun
    for place, name in enumerate(order):
        checking(me, name)
        if name == "Pell Haverby":  # what was loose of her from last night is seen
            me.until(lambda: "1 value moved, kept with Next" in card(me).text)
        before = value(server, show, f"input/local/{place + 1}/gain") if place < 3 else None
        if name == "Ilka Dunmoor":
            me.field("Gain up").click()
            me.until(lambda: "1 value moved, kept with Next" in card(me).text)
        if name == "Oswin Tarn":
            me.keys("s")  # his pack is not there yet
            me.until(lambda: rows(me, "skipped") == ["Oswin Tarn"])
            continue
        me.keys("n")
        actions += 1
        me.until(lambda done=actions: len(rows(me, "done")) == done)
        assert before is None or before == value(server, show, f"input/local/{place + 1}/gain")
    assert actions == 7
    me.until(lambda: "7 done, 1 skipped, 0 to go" in me.body())
    me.find('[data-phase="skipped"] button').click()
    checking(me, "Oswin Tarn")
    me.field("Gain down").click()
    me.until(lambda: "1 value moved" in card(me).text)
    me.keys("n")
    me.until(lambda: "8 done, 0 to go" in me.body())
    me.settled()
    kept = {name: versions(server, show, name) for name in order}
    assert kept["Ilka Dunmoor"] == 2
    assert kept["Oswin Tarn"] == 2
    assert kept["Pell Haverby"] == 2
    assert kept["Maro Quill"] == 1  # nothing moved: nothing new to keep
    assert versions(server, show, "Corin Vashti") == 1  # the other cast's, untouched


def test_two_check_at_once_and_one_takes_over_by_name(server, people):
    show = server.copied_demo()
    me, other = people(), people("monitors", width=390, height=844)
    me.open("miccheck", show)
    other.open("miccheck", show)
    me.until(lambda: "to go" in me.body())
    me.keys("n")
    checking(me, "Maro Quill")
    other.button("Begin: ").click()
    checking(other, "Ilka Dunmoor")  # what is taken is passed by
    me.until(lambda: sorted(rows(me, "on")) == ["Ilka Dunmoor", "Maro Quill"])
    take = me.field("Take Ilka Dunmoor over from monitors")
    take.click()
    me.field("Press again: Take Ilka Dunmoor over from monitors").click()
    checking(me, "Ilka Dunmoor")
    other.until(lambda: card(other).get_attribute("aria-label") == "Mic check")
    me.until(lambda: rows(me, "done") == ["Maro Quill"])


def test_no_road_leads_to_a_wrong_name(server, people):
    show = server.copied_demo()
    me, other = people(), people("monitors")
    me.open("strip/channel/2", show)
    other.open("cast", show)
    who = '[data-testid="who-is-on"]'
    me.until(lambda: me.find(who).text == "Ilka Dunmoor as Teller A")
    me.find('[data-stage="preamp"]').click()
    before = versions(server, show, "Corin Vashti")
    # kept under another name: it has to be said, and is another's
    me.button("Fitting…").click()
    me.type("Capture Teller, part A for", " ", enter=False)
    assert not me.button("Capture").is_enabled()
    me.choose("Another fitting", "Corin Vashti as Teller A")
    me.button("Compare").click()
    me.until(lambda: "450 Hz" in me.find('[data-testid="fittings-compared"]').text)
    me.driver.execute_script("document.activeElement.blur()")
    me.field("Give Corin Vashti the settings of Ilka Dunmoor").click()  # once is not twice
    me.settled()
    assert versions(server, show, "Corin Vashti") == before
    me.keys(Keys.ESCAPE)
    # a hand that was offline while the other cast came on
    server.pause()
    try:
        me.until(lambda: me.status() == "lost")
        me.type("Gain of Deck 2", "40")
    finally:
        server.go_on()
    me.settled()
    me.until(lambda: me.status() == "live")
    other.choose("Tonight's cast", "Tonight: Anchor cast")
    other.until(lambda: "Corin Vashti" in other.find('[data-testid="cast-preview"]').text)
    other.button("Take it").click()
    me.until(lambda: me.find(who).text == "Corin Vashti as Teller A")
    me.settled()
    assert versions(server, show, "Corin Vashti") == before
    # undo of the hand's own move does not reach whoever is on now
    now = value(server, show, "fitting/2/value/preamp/gain")
    me.button("Undo").click()
    me.settled()
    assert value(server, show, "fitting/2/value/preamp/gain") == now


def test_tonights_cast_a_late_change_and_a_scene_run(server, people):
    show = server.copied_demo()
    me = people()
    me.open("cast", show)
    me.choose("Tonight's cast", "Tonight: Anchor cast")
    preview = '[data-testid="cast-preview"]'
    me.until(lambda: "Mirelle Aske as Teller B" in me.find(preview).text)
    me.until(lambda: "Nobody plays Choir of gulls" in me.find(preview).text)
    me.button("Take it").click()
    me.until(lambda: not me.all(preview))
    assert value(server, show, "tonight/cast") == "cast/2"
    me.until(lambda: me.chosen("Tonight, Teller B") == "Mirelle Aske")
    me.choose("Tonight, Teller B", "Oswin Tarn")
    me.until(lambda: "Oswin Tarn as Teller B" in me.find(preview).text)
    me.button("Take it").click()
    me.until(lambda: "1 late change" in me.body())
    me.settled()
    # the market crier has the harbour master's radio in scene 19, whoever plays
    me.open("scenes/19", show)
    me.until(lambda: "Odalys Finch as Market crier" in me.find('[aria-label="Who is on"]').text)
    me.button("Recall").click()
    me.settled()
    me.open("strip/channel/6", show)
    me.until(lambda: me.find('[data-testid="who-is-on"]').text == "Odalys Finch as Market crier")
    me.open("hears", show)
    me.until(lambda: "Harbour master" in me.body())
    # the scene opens it: the level is the channel's, the voice is hers
    me.reads("channel/6", "house", "−5.8")
    me.button("Undo").click()
    me.settled()
    me.open("strip/channel/6", show)
    me.until(lambda: me.find('[data-testid="who-is-on"]').text == "Benno Askew as Harbour master")

"""What an engineer reaches for: from an empty show with awkward names, and on the demo."""

from selenium.webdriver.common.keys import Keys

from .test_banks import fader, value

# forty letters, right to left, a mark of its own, two alike
NAMES = (
    "Violins behind the rood screen, desk two", "קול ראשון של המקהלה", "Jose\u0301 Marti\u0301",
    "Vox", "Vox", "Ryōko",
)  # fmt: skip


def lines(me, show):
    """Six lines by hand, patched in order."""
    me.open("lines", show)
    for count, name in enumerate(NAMES, start=1):
        me.type("Name of a new line", name)
        me.until(lambda count=count: me.count("Lines") == count)
    me.open("patch", show)
    me.button("Patch them in order").click()
    me.until(lambda: not me.all("[data-loading]") and "no socket or no channel" not in me.body())


def test_a_club_evening_without_scenes_has_all_in_hand_and_says_who_is_silent(server, people):
    show = server.blank_show("Friday, the club")
    me = people()
    lines(me, show)
    me.open("dcas", show)
    me.type("Names of new DCAs", "Voices, Band")
    me.until(lambda: me.all("[data-column-head='dca/2']"))
    me.type("Strips of Voices", "4-5") if me.all("[aria-label='Strips of Voices']") else None
    me.open("lifts", show)
    me.type("Name of a new lift", "Singers", enter=False)
    me.type("Who sings in it", "4-6")
    me.until(lambda: len(me.all("[data-singer]")) == 3)
    me.open("run", show)
    silent = 'section[aria-label="Silent"]'
    me.until(lambda: "Their own faders are off" in me.find(silent).text)
    assert "6" in me.find(f"{silent} h2").text
    fader(me, "house/fader")
    me.type("Level of House in dB", "-3")
    me.until(lambda: value(server, show, "house/fader") == -3.0)
    lift = me.find('[data-subject="channel/5"][aria-pressed]')
    lift.click()
    me.until(lambda: value(server, show, f"channel/5/{value(server, show, 'lift/1/lead')}/on"))
    # a second screen says so too, and by two keys all inputs are shut and open again
    other = people("monitors").open("run", show)
    other.until(lambda: other.find('[data-subject="channel/5"]').get_attribute("aria-pressed"))
    me.driver.execute_script("document.activeElement.blur()")
    for shut in (True, False):
        me.keys("q")
        me.find("[role=dialog]")
        me.keys("i")
        me.until(lambda shut=shut: bool(value(server, show, "mute_group/1/on")) is shut)
        other.until(lambda shut=shut: ("sealed" in other.find("header").text) is shut)


def test_48_v_of_many_is_switched_once_its_list_was_seen_and_pairs_are_shown_as_pairs(
    server, people
):
    show = server.blank_show("Pairs")
    me = people()
    lines(me, show)
    me.open("patch", show)
    first = value(server, show, "line/1/socket")
    box = me.find(f'[data-socket="{first}"] button').text.split()[0]
    me.type("Sockets", f"{box} 1-6", enter=False)
    me.choose("Field to set", "48 V")
    me.find("form[aria-label='Preamps of the chosen sockets'] button[type=submit]").click()
    told = me.find('[data-testid="consequence"]')
    me.until(lambda: told.text.count("48 V on") == 6)
    assert value(server, show, f"{first}/phantom") is None
    me.button("Take it").click()
    me.until(lambda: value(server, show, f"{first}/phantom") is True)
    me.open("gangs/pairs", show)
    me.type("Pairs to link", "1-2")
    me.until(lambda: "pan: " in me.find('[data-testid="consequence"]').text)
    assert "With it" not in me.find('[data-testid="consequence"]').text
    me.button("Take it").click()
    me.until(lambda: value(server, show, "channel/1/linked") is True)


def test_mixes_are_started_by_a_recipe_of_a_role_and_what_cannot_be_is_told(server, people):
    me = people()
    me.open("mixes/3", server.demo)
    me.button("Start…").click()
    me.type("Mixes to start", "mix 3-5", enter=False)
    me.type("Recipe", "rest = -12, fiddle = -3, drumz +3", enter=False)
    me.until(lambda: "a family, part, DCA, line or strip" in me.find("[role=dialog]").text)
    me.type("Recipe", "rest = -12, fiddle = -3, drums +30", enter=False)
    me.until(lambda: "Cut at +6" in me.find("[role=dialog]").text)
    me.button("Start them").click()
    me.until(lambda: not me.all("[role=dialog]"))
    fiddle, mix = "channel/19/send/mix/3/level", value(server, server.demo, "mix/3/name")
    assert (mix, value(server, server.demo, fiddle)) == ("Ears fiddle", -3.0)
    assert value(server, server.demo, "channel/20/send/mix/5/level") == -12.0
    me.settled()
    me.driver.execute_script("document.activeElement.blur()")
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: value(server, server.demo, fiddle) != -3.0)


MIDDLES = """
const middle = (css) => {
  const box = document.querySelector(css).getBoundingClientRect();
  return box.top + box.height / 2;
};
return [-60, -10, -5, 0].map((level) =>
  middle(`[data-scale="${level}"]`) - middle(`[data-scale-line="${level}"]`));
"""


def test_the_scale_stands_beside_the_lines_that_it_means_on_every_screen(server, people):
    me = people()
    for width, height, touch in ((1280, 800, False), (820, 1180, True), (390, 844, True)):
        me.resize(width, height, touch=touch)
        me.open("banks", server.demo)
        me.find("[data-scale-line]")
        assert max(map(abs, me.driver.execute_script(MIDDLES))) < 2.5, (width, height)


def test_a_bank_goes_on_page_after_page_and_unfolds_around_the_fader(server, people):
    me = people()
    me.open("banks", server.demo)
    me.button("Edit banks").click()
    me.type("Names of new banks", "All")
    me.type("Strips of the bank", "1-40")
    me.button("Done").click()
    me.until(lambda: "Page 1 of" in me.body())
    before = [one.get_attribute("data-address") for one in me.all("[role=slider]")]
    me.button("Page 1 of").click()
    me.until(lambda: "Page 2 of" in me.body())
    after = [one.get_attribute("data-address") for one in me.all("[role=slider]")]
    assert set(before) & set(after) == {a for a in before if a.startswith("dca/")}  # the fixed
    key = '[data-bank-strip="dca/1"] [aria-expanded]'
    place = me.find('[data-bank-strip="dca/1"]').rect
    me.find(key).click()
    me.until(lambda: me.find(key).get_attribute("aria-expanded") == "true")
    assert me.find('[data-bank-strip="dca/1"]').rect == place
    me.find(key).click()
    me.until(lambda: "Page 2 of" in me.body())


def test_assignments_are_painted_and_the_effects_of_a_dca_muted_with_it(server, people):
    me = people()
    me.open("assignments", server.demo)
    me.sought('[data-member="channel/9/send/mix/1"]').click()
    # somebody loses by it: shown first
    me.button("Take it").click()
    me.until(lambda: value(server, server.demo, "channel/9/send/mix/1/on") is False)
    me.settled()
    me.driver.execute_script("document.activeElement.blur()")
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: value(server, server.demo, "channel/9/send/mix/1/on") is not False)
    head = me.sought('[data-row="dca/1"] button')
    head.click()
    me.until(lambda: "show all" in me.body())
    assert len(me.all("[data-row-head]")) == 8  # the tellers
    me.open("dcas/1", server.demo)
    me.until(lambda: "Rings on when it mutes" in me.body())


def test_a_show_goes_to_a_smaller_desk_and_comes_back_whole(server, people):
    show = server.copied_demo()
    me = people()
    me.open("lines", show)

    def onto(desk):
        me.find("[data-show-menu]").click()
        me.driver.find_element(
            "xpath", "//*[@role='menuitem' and contains(., 'Onto another desk')]"
        ).click()
        me.choose("The other desk", desk)
        me.find('[aria-label="What it means"]')

    def values(of):
        with server.sql() as link:
            query = "select address, value from server_setting where show_id = %s"
            return dict(link.execute(query, [of]).fetchall())

    onto("Small 24")
    assert "channels 25-40" in me.find('[aria-label="What it means"]').text
    me.button("Copy it onto Small 24").click()
    me.until(lambda: show not in me.driver.execute_script("return localStorage.getItem('show')"))
    me.until(lambda: me.status() == "live")
    small = me.driver.execute_script("return localStorage.getItem('show')")
    assert len(values(small)) < len(values(show))
    onto("Touring 48")
    me.until(lambda: "back" in me.find('[aria-label="What it means"]').text)
    me.button("Move it there").click()
    me.until(lambda: me.driver.execute_script("return localStorage.getItem('show')") != small)
    me.until(lambda: me.status() == "live")
    whole = me.driver.execute_script("return localStorage.getItem('show')")
    assert values(whole) == values(show)

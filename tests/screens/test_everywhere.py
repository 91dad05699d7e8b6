"""Every view at every size, full, empty and with long names: nothing cut off, covered or too small
for a finger; and by the rules of axe-core, in both themes, nothing that shuts anybody out."""

import pathlib

import pytest
from selenium.webdriver.common.keys import Keys

from .long_show import long_show

HERE = pathlib.Path(__file__).parent
LOOKING = (HERE / "looking.js").read_text()
AXE = HERE.parents[1] / "web" / "node_modules" / "axe-core" / "axe.min.js"
VIEWS = [
    "hears", "lines", "patch", "strip/channel/9", "routing", "assignments", "wrong/promises",
    "effects", "mixes/1", "mixes/house", "outputs", "dcas", "dcas/6", "banks", "mutes", "mutes/1",
    "gangs", "gangs/1", "gangs/pairs", "lifts", "sharing", "tracks", "tracks/back",
    "cast", "miccheck", "ears", "ears/1", "crew", "account", "accounts", "backups",
    "strip/channel/4", "scenes",
    "scenes/2", "run", "cues", "cues/ways", "cues/machine",
    "check", "paper", "wrong", "history", "shows", "guide", "settings",
]  # fmt: skip
# width, height, whether fingers
SIZES = [
    (1920, 1080, False),
    (1280, 800, False),
    (1180, 820, True),
    (1024, 768, False),
    (640, 400, False),  # 1280x800 enlarged twofold
    (820, 1180, True),
    (390, 844, True),
    (320, 640, True),  # 1280 enlarged fourfold (WCAG 1.4.10)
]
# an empty view has little that could break: the usual screen, the enlarged one, and a phone
SIZES_OF_EMPTY = [SIZES[1], SIZES[3], SIZES[5]]
# long names run out of room where there is least of it
SIZES_OF_LONG = [SIZES[1], SIZES[3], SIZES[5], SIZES[7]]
RULES = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]
RUN_AXE = """
const done = arguments[arguments.length - 1];
const how = {runOnly: arguments[0], resultTypes: ["violations"], rules: arguments[1]};
axe.run(document, how).then((found) => done(found.violations.map(
  (one) => [one.id, one.help, ...one.nodes.slice(0, 3).map((node) => node.html)].join(' | '))));
"""


@pytest.fixture(scope="module")
def shows(server):
    return {
        "demo": server.demo,
        "empty": server.blank_show("Nothing here"),
        "long": long_show(server),
    }


def ready(me):
    """The view has what it draws: the link lives, and nothing says that it still computes."""
    # a desk with everything set, on a machine under load, takes its time to be drawn at first
    me.until(lambda: any(one.text for one in me.all("main h1, main h2")))
    me.until(lambda: not me.all("[data-loading]"))
    me.until(lambda: me.driver.execute_script("return document.fonts.status") == "loaded")


def faults_at(me, sizes):
    found = []
    for width, height, touch in sizes:
        me.resize(width, height, touch=touch)
        for fault in me.driver.execute_script(LOOKING, touch, width):
            found.append(f"{width}x{height}: {fault}")
    return found


@pytest.mark.parametrize("kind", ["demo", "empty", "long"])
def test_nothing_is_cut_off_covered_or_too_small_and_nobody_is_shut_out(people, shows, kind):
    """One walk for both, since a page costs more to open than to look at."""
    me = people()
    found = []
    me.open("shows", shows[kind])
    sizes = {"empty": SIZES_OF_EMPTY, "long": SIZES_OF_LONG}.get(kind, SIZES)
    for view in VIEWS:
        me.resize(1280, 800)
        me.go(view)
        ready(me)
        # colours are the same whatever a show is called, and dearest to look at
        found += [f"{view} dusk {fault}" for fault in barred(me, colours=kind != "long")]
        if kind == "demo":  # of a theme only colours differ
            me.driver.execute_script("document.documentElement.dataset.theme = 'daylight'")
            found += [f"{view} daylight {fault}" for fault in barred(me, ["color-contrast"])]
        found += [f"{view} {fault}" for fault in faults_at(me, sizes)]
        if view in VIEWS[:4] and kind == "demo":  # the last size was a phone
            found += [f"{view} phone {fault}" for fault in barred(me)]
    assert found == []


DIALOGS = {
    "find": ("lines", lambda me: me.keys("/")),
    "keys": ("lines", lambda me: me.keys("?")),
    "new mix": ("mixes", lambda me: me.button("New mix").click()),
    "import": ("lines", lambda me: me.button("Import a list").click()),
    "between": (
        "routing",
        lambda me: me.find("main [role=grid]") and me.button("Put a group in between").click(),
    ),
    "found": ("hears", lambda me: wished(me, "1 -6")),
    "presets": ("strip/channel/9", lambda me: me.button("Presets").click()),
    "quiet": ("lines", lambda me: me.keys("q")),
    "start": ("mixes/1", lambda me: me.button("Start…").click()),
    "beside": ("ears/1", lambda me: me.button("Side by side").click()),
    "join": ("ears", lambda me: me.button("Join later").click()),
    "lock": ("ears", lambda me: me.button("Lock all").click()),
    "elsewhere": ("shows", lambda me: elsewhere(me)),
    "menu": ("lines", lambda me: me.find("[data-show-menu]").click()),
    "choice": ("paper", lambda me: me.field("Mix sheet").click()),
}


def elsewhere(me):
    me.button("Other desk…").click()
    me.choose("The other desk", "Small 24")
    me.find('[aria-label="What it means"]')


def wished(me, words):
    me.keys("/")
    me.type("Find by name, number or wish", words, enter=False)
    me.until(lambda: me.all("[role=dialog] [role=option]"))


@pytest.mark.parametrize("dialog", DIALOGS)
def test_dialogs_fit_and_shut_nobody_out(people, shows, dialog):
    view, opening = DIALOGS[dialog]
    me = people()
    me.open(view, shows["long"])
    ready(me)
    opening(me)
    me.find("[role=dialog], [role=menu], [role=listbox]")
    found = faults_at(me, SIZES_OF_LONG)
    found += barred(me)
    assert found == []


def barred(me, rules=RULES, *, colours=True):
    """What axe-core finds on the page, by rules or by tags of rules; `colours`: contrast too."""
    without = {} if colours else {"color-contrast": {"enabled": False}}
    if not me.driver.execute_script("return window.axe !== undefined"):
        me.driver.execute_script(AXE.read_text())
    me.driver.set_script_timeout(60)
    return me.driver.execute_async_script(RUN_AXE, rules, without)


# Names that begin from right to left, and do not run their own way; sentences run as the page does.
TURNED = """
const turned = /^[^A-Za-z]*[\\u0590-\\u08ff]/;
const own = (e) => ["rtl", "plaintext"].some((way) =>
  [getComputedStyle(e).direction, getComputedStyle(e).unicodeBidi].includes(way));
const main = document.querySelector("main");
const texts = document.createTreeWalker(main, NodeFilter.SHOW_TEXT);
const found = [];
let seen = 0;
for (let text = texts.nextNode(); text; text = texts.nextNode()) {
  const e = text.parentElement;
  const shown = e.getClientRects().length > 0 && !e.closest(".sr-only, [aria-hidden=true]");
  if (!turned.test(text.data) || text.data.trim().endsWith(".") || !shown) continue;
  seen++;
  if (!own(e)) found.push(text.data.slice(0, 30) + " in " + e.outerHTML.slice(0, 80));
}
for (const field of main.querySelectorAll("input"))
  if (turned.test(field.value) && (seen++, !own(field))) found.push(field.ariaLabel);
return [seen, found];
"""


def test_names_run_their_own_way(people, shows):
    me = people()
    me.open("shows", shows["long"])
    told = 0
    found = []
    for view in VIEWS:
        me.go(view)
        ready(me)
        seen, turned = me.driver.execute_script(TURNED)
        told += seen
        found += [f"{view}: {one}" for one in turned[:4]]
    assert found == []
    assert told > 100


def test_forty_five_stops_of_the_tab_key_reach_everything(people, shows):
    """Lists are one stop: from the top of the page to its end in 45 presses at most."""
    me = people()
    for view in (
        "lines", "patch", "mixes/1", "hears", "banks", "scenes/2", "lifts", "cast", "effects",
        "strip/channel/4", "wrong/promises", "mutes/1", "dcas", "cues", "run",
    ):  # fmt: skip
        me.open(view, shows["demo" if view in ("lifts", "wrong/promises", "effects") else "long"])
        ready(me)
        stops = 0
        me.driver.execute_script("document.activeElement.blur()")
        while stops <= 60:
            me.keys(Keys.TAB)
            stops += 1
            if me.driver.execute_script("return document.activeElement === document.body"):
                break
        # while tracks play back, the way out of that is one more
        back = len(me.all('[aria-label="Playback"] button'))
        assert stops <= 46 + back, (view, stops)


def test_every_page_has_a_title_and_the_hand_comes_back(people, shows):
    me = people()
    for view, title in (("lines", "Lines"), ("hears", "Who hears what"), ("check", "Line check")):
        me.open(view, shows["demo"])
        me.until(lambda title=title: me.driver.title.startswith(f"{title} · The Salt Road"))
    me.open("lines", shows["demo"])
    me.field("Name, line 3").click()
    me.chord(Keys.CONTROL, key="k")
    me.find("[role=dialog]")
    me.keys(Keys.ESCAPE)
    me.until(lambda: not me.all("[role=dialog]"))
    me.until(
        lambda: me.driver.switch_to.active_element.get_attribute("aria-label") == "Name, line 3"
    )


def test_in_the_systems_own_colours_marks_and_pressed_keys_are_told_by_form(people, shows):
    """Where grounds are one colour, a member, a way and a pressed key still differ from none."""
    me = people()
    forced = {"features": [{"name": "forced-colors", "value": "active"}]}
    me.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", forced)
    style = "return getComputedStyle(arguments[0])[arguments[1]]"
    for view, marked, cell in (
        ("mutes", "[data-member] .drawn", "[data-member]"),
        ("hears", "[data-state=heard] .drawn", "[data-state=heard]"),
        ("routing", "[data-member] .drawn", "[data-member]"),
    ):
        me.open(view, shows["demo"])
        me.until(lambda marked=marked: me.all(marked))
        grounds = [
            me.driver.execute_script(style, me.all(one)[0], "backgroundColor")
            for one in (marked, cell)
        ]
        assert grounds[0] != grounds[1], view
    me.open("hears", shows["demo"])
    me.until(lambda: me.all("[data-state=muted]"))
    assert (
        me.driver.execute_script(style, me.all("[data-state=muted]")[0], "borderStyle") == "dashed"
    )
    me.open("banks", shows["demo"])
    me.until(lambda: me.all('[data-bank-strip] [aria-pressed="true"]'))
    pressed = me.all('[data-bank-strip] [aria-pressed="true"]')[0]
    assert me.driver.execute_script(style, pressed, "outlineWidth") == "3px"
    faults = []
    for view in VIEWS:
        me.go(view)
        ready(me)
        faults += [f"{view} {fault}" for fault in barred(me, ["wcag2a"], colours=False)]
        faults += [f"{view} {fault}" for fault in faults_at(me, [SIZES[1], SIZES[6]])]
    assert not faults, faults

"""The frame with awkward shows: nothing at all, 128 channels, long names; and the keyboard."""

import pytest
from selenium.webdriver.common.keys import Keys

VIEWS = ["lines", "patch", "mixes", "hears"]
FITS = """
const page = document.documentElement;
return page.scrollWidth <= innerWidth && page.scrollHeight <= innerHeight
"""
# the text of every heading, key and table that reaches beyond the window; what a table has beyond
# its own frame, the frame scrolls to
CUT_OFF = """
return [...document.querySelectorAll('h1, main button, nav a, [role=grid]')]
  .filter((e) => e.getBoundingClientRect().right > innerWidth + 1).map((e) => e.textContent)
"""

# whether something is seen from its top to its bottom
SEEN = """
const thing = document.querySelector(arguments[0]);
const { left, top, bottom } = thing?.getBoundingClientRect() ?? {};
return thing !== null && [top + 2, bottom - 2]
  .every((y) => thing.contains(document.elementFromPoint(left + 20, y)));
"""


@pytest.mark.parametrize("view", VIEWS)
def test_the_frame_never_scrolls_at_1280_by_800(server, people, view):
    me = people()
    me.open(view, server.demo)
    me.until(lambda: len(me.body()) > 300)
    me.until(lambda: me.driver.execute_script(FITS))
    assert me.driver.execute_script(CUT_OFF) == []


def test_what_is_wrong_and_where_one_is_are_in_sight_on_a_low_screen_too(server, people):
    me = people()
    me.resize(1366, 600)
    for place, view in (("hear", "history"), ("stage", "lines"), ("show", "run")):
        me.open(view, server.demo)
        for css in ("[data-wrong]", f"[data-place='{place}'] [aria-current]", "main h1"):
            me.until(lambda css=css: me.driver.execute_script(SEEN, css))


def test_a_blank_show_says_in_every_view_what_to_do_first(server, people):
    show = server.blank_show("Nothing")
    me = people()
    for view, first in zip(
        VIEWS, ["Import the input list", "Choose sockets", "Nothing to send yet", "Nobody plays"],
        strict=True,
    ):  # fmt: skip
        me.open(view, show)
        me.until(lambda first=first: first in me.body())


def test_the_largest_desk_with_long_names_is_drawn_and_moves(server, people, tmp_path):
    show = server.blank_show("Large", "festival-128")
    rows = [f"{n},Line number {n} with a name as long as anybody types,DI" for n in range(1, 129)]
    path = tmp_path / "long.csv"
    path.write_text("Ch,Name,Mic\n" + "\n".join(rows))
    me = people()
    me.open("lines", show)
    me.button("Import a list").click()
    me.field("Input list file").send_keys(str(path))
    me.button("Take 128 lines").click()
    me.until(lambda: me.count("Lines") == 128)
    me.link("Mixes").click()
    me.new_mix()
    names = ", ".join(f"Ears of performer {n}" for n in range(1, 9))
    me.type("Names", names, enter=False)
    me.type("Channels to send", "1-128")
    me.until(lambda: not me.all("[role=dialog]"))  # it closes when the mixes are kept
    me.link("Who hears what").click()
    me.reads("channel/1", "mix/8", "−12.0")
    assert me.driver.execute_script(FITS)
    # only the rows in sight are in the page
    assert len(me.all('[role="rowheader"]')) < 60
    me.cell("channel/1", "mix/8").click()
    me.keys(*[Keys.PAGE_DOWN] * 13)
    me.reads("channel/128", "mix/8", "−12.0")
    me.keys("-3", Keys.ENTER)
    me.reads("channel/128", "mix/8", "−3.0")


def test_a_level_is_set_from_the_first_tab_on_without_a_mouse(server, people):
    show = server.blank_show("Keyboard")
    me = people()
    me.open("mixes", show)
    me.driver.execute_script("document.activeElement.blur()")
    for _ in range(30):
        me.keys(Keys.TAB)
        label = me.driver.execute_script("return document.activeElement.getAttribute('aria-label')")
        if label == "Master of House":
            break
    fader = me.field("Master of House")
    assert fader.get_attribute("aria-valuetext") == "0.0 dB"
    me.keys(Keys.ARROW_LEFT)
    me.until(lambda: fader.get_attribute("aria-valuetext") == "−1.0 dB")
    me.keys(Keys.HOME)
    me.until(lambda: fader.get_attribute("aria-valuetext") == "off")
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: fader.get_attribute("aria-valuetext") == "−1.0 dB")


def test_both_themes_have_readable_contrast(server, people):
    """WCAG 2.2, 1.4.3: at least 4.5:1 for text; each text token on each ground it stands on."""
    me = people()
    me.open("hears", server.demo)
    for theme in ("dusk", "daylight"):
        tokens = me.driver.execute_script(
            """document.documentElement.dataset.theme = arguments[0];
            const style = getComputedStyle(document.documentElement);
            const names = ['ink','floor','card','raise','paper','soft','faint','sea','coral',
                           'iris','sun','sun-text','on-sun','heard','quiet','blocked'];
            const value = (name) => style.getPropertyValue('--' + name).trim();
            return Object.fromEntries(names.map((name) => [name, value(name)]))
            """,
            theme,
        )
        pairs = [(text, ground) for text in ("paper", "soft") for ground in
                 ("ink", "floor", "card", "raise")]  # fmt: skip
        pairs += [("faint", ground) for ground in ("ink", "floor", "card")]
        pairs += [("paper", "heard"), ("paper", "quiet"), ("on-sun", "sun"), ("iris", "card")]
        pairs += [(text, ground) for text in ("coral", "sea") for ground in ("card", "floor")]
        pairs += [("sun-text", ground) for ground in ("ink", "floor", "card", "raise")]
        low = {pair: round(contrast(tokens[pair[0]], tokens[pair[1]]), 2) for pair in pairs}
        assert {pair: ratio for pair, ratio in low.items() if ratio < 4.5} == {}, theme


def contrast(one, other):
    """Contrast ratio of two #rrggbb colours: WCAG 2.2, definition of relative luminance."""

    def luminance(colour):
        parts = [int(colour[i : i + 2], 16) / 255 for i in (1, 3, 5)]
        red, green, blue = (
            part / 12.92 if part <= 0.04045 else ((part + 0.055) / 1.055) ** 2.4 for part in parts
        )
        return 0.2126 * red + 0.7152 * green + 0.0722 * blue

    high, low = sorted((luminance(one), luminance(other)), reverse=True)
    return (high + 0.05) / (low + 0.05)

"""Five jobs by the keyboard alone; the hand is asserted after each step: it is never nowhere."""

import pytest
from selenium.webdriver.common.keys import Keys

from ombrel.core.find.places import CONTROLS

# What has the hand, by the words that a person is told of it; "" for nothing.
HAND = """
const e = document.activeElement;
if (!e || e === document.body) return "";
return (e.ariaLabel || e.textContent || e.id || e.tagName).trim().slice(0, 80);
"""
MOST_STOPS = 45


class Hands:
    """A person without a mouse: only keys, and whatever they land on."""

    def __init__(self, me):
        self.me = me

    @property
    def on(self):
        return self.me.driver.execute_script(HAND)

    def press(self, *keys, then=None):
        """Press keys; then the hand is on what is said, or at least somewhere."""
        self.me.keys(*keys)
        self.held(then)

    def held(self, then=None):
        # A dialog gives the hand back after it has gone, and a view takes it when it has come.
        self.me.until(lambda: self.on.startswith(then) if then else self.on)

    def tab_to(self, label):
        """Go on by Tab to what is called so, in as many presses as a whole page may have."""
        for _ in range(MOST_STOPS):
            if self.on.startswith(label):
                return
            self.me.keys(Keys.TAB)
        pytest.fail(f"Tab reaches no {label}, but {self.on}")

    def wish(self, words, then=None):
        """Find it and take the first answer; then the hand is where it was, or where it led."""
        self.me.chord(Keys.CONTROL, key="k")  # also from a field
        self.me.until(lambda: self.on.startswith("Find by name"))
        self.me.keys(words)
        self.me.until(lambda: self.me.all("[role=dialog] [role=option]"))
        self.me.keys(Keys.ENTER)
        # what touches sources is shown first, and made by Enter when it was seen
        self.me.until(lambda: not self.me.all("[role=dialog]") or self.me.keys(Keys.ENTER))
        self.held(then)


@pytest.fixture
def hands(people):
    return Hands(people())


def saw(hands, text):
    hands.me.until(lambda: text in hands.me.body())


def test_a_list_is_typed_and_patched(server, hands):
    show = server.blank_show("By keys")
    hands.me.open("lines", show)
    hands.tab_to("Name of a new line")
    for name in ("Kick", "Snare", "Fiddle"):
        hands.press(name, Keys.ENTER, then="Name of a new line")
        hands.me.until(lambda name=name: hands.me.field(f"Socket of {name}"))
    hands.wish("patch all lines")
    field = hands.me.field("Socket of Fiddle")
    hands.me.until(lambda: field.get_attribute("value") == "Harbour 3")
    hands.wish("patch")
    saw(hands, "3 of 3")


def test_mixes_are_made_for_performers(server, hands):
    show = server.blank_show("By keys")
    hands.me.open("mixes", show)
    hands.tab_to("New mix")
    hands.press(Keys.ENTER, then="Names")
    hands.press("Ears Ada, Wedge Bo", Keys.ENTER)
    hands.me.until(lambda: not hands.me.all("[role=dialog]"))
    saw(hands, "Wedge Bo")
    hands.held()
    hands.tab_to("Outputs of Ears Ada")
    hands.press("Deck 5-6", Keys.ENTER, then="Outputs of Ears Ada")
    field = hands.me.field("Outputs of Ears Ada")
    hands.me.until(lambda: field.get_attribute("value") == "Deck 5-6")
    hands.press("x", Keys.ESCAPE, then="Outputs of Ears Ada")  # gives up, and stays there
    assert field.get_attribute("value") == "Deck 5-6"


def test_a_dca_is_made_and_its_members_painted(server, hands):
    hands.me.open("dcas", server.copied_demo())
    hands.tab_to("Names of new DCAs")
    hands.press("Extras", Keys.ENTER, then="Names of new DCAs")
    saw(hands, "Extras")
    hands.tab_to("Strips against DCAs")
    hands.press(*[Keys.ARROW_RIGHT] * 9, Keys.SPACE, Keys.ARROW_DOWN, Keys.SPACE)
    cells = [f'[data-member="channel/{n}/dca/10"]' for n in (1, 2)]
    hands.me.until(
        lambda: all(
            hands.me.find(one).get_attribute("aria-label").endswith(", member") for one in cells
        )
    )
    hands.held("Strips against DCAs")
    hands.wish("extras -6")
    hands.me.until(lambda: "−6.0" in hands.me.field("Level of Extras in dB").get_attribute("value"))


def test_a_scene_is_stored_and_recalled(server, hands):
    hands.me.open("scenes", server.copied_demo())
    hands.tab_to("Name of the new scene")
    hands.press("Encore", Keys.ENTER, then="Name of the new scene")
    saw(hands, "Encore")
    hands.tab_to("What it carries")
    hands.press("b")  # a letter opens the list, and is sought
    hands.me.until(lambda: hands.me.all("[role=listbox]"))
    hands.press(Keys.ENTER, then="What it carries")
    hands.press("/", then="Find by name")  # a sign is a key again, and opens no list
    hands.press(Keys.ESCAPE, then="What it carries")
    hands.tab_to("Notes of the scene")
    hands.press("Lights up", Keys.ENTER, then="Notes of the scene")
    hands.tab_to("Recall, ")
    hands.press(Keys.ENTER)
    hands.me.until(lambda: "Encore" in hands.me.find("[data-now-next]").text)
    hands.held()


def test_a_mic_check_goes_from_performer_to_performer(server, hands):
    hands.me.open("miccheck", server.copied_demo())
    hands.me.until(lambda: hands.me.all("[data-entry]"))
    hands.me.keys("n")
    hands.me.until(lambda: hands.me.all('[data-phase="on"]'))
    first = hands.me.find('[data-phase="on"] [data-name]').text
    hands.tab_to("Gain of ")
    hands.press("31", Keys.ENTER, then="Gain of ")
    hands.press(Keys.ESCAPE)  # nothing is typed: the hand leaves the field, and keys are keys
    hands.press("n")
    hands.me.until(lambda: hands.me.find('[data-phase="on"] [data-name]').text != first)
    hands.me.until(lambda: len(hands.me.all('[data-phase="done"]')) == 1)
    hands.held()


def test_find_leads_the_hand_to_every_control_that_it_offers(server, hands):
    """By each one's own address, as Find goes there; what opens a dialog has opened it."""
    me = hands.me
    me.open("shows", server.demo)
    missed = []
    for control in CONTROLS:
        me.go(f"{control.view}?at={control.beside.replace(' ', '%20')}")
        try:
            me.until(
                lambda name=control.beside: (
                    hands.on.lower().startswith(name.lower()) or me.all("[role=dialog]")
                ),
                within_s=15.0,
            )
        except AssertionError:
            missed.append((control.title, hands.on))
        if me.all("[role=dialog]"):
            me.keys(Keys.ESCAPE)
            me.until(lambda: not me.all("[role=dialog]"))
    assert missed == []

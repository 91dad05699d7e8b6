"""Accounts, roles and a volunteer's page in the real interface, with three people at once."""

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from .test_everywhere import SIZES_OF_LONG, barred, faults_at

PASSWORD = "seven tin kettles"


def signs_in(person, name, password):
    driver = person.driver
    driver.get(f"{person.address}/sign-in")
    driver.find_element(By.NAME, "username").send_keys(name)
    driver.find_element(By.NAME, "password").send_keys(password, Keys.ENTER)


def signed_out(person):
    """The same window, with nobody signed in."""
    person.driver.delete_all_cookies()


def rides(person):
    """Faders and keys of a volunteer's page, as it says them."""
    return {
        one.accessible_name.partition(",")[0].strip(): one.get_attribute("aria-valuetext")
        or one.get_attribute("aria-pressed")
        for one in person.all("main [role=slider], main [aria-pressed]")
    }


def press(person, name):
    keys = person.all("main [aria-pressed]")
    next(one for one in keys if one.accessible_name.startswith(name)).click()


def test_an_account_is_made_a_show_shared_and_a_fader_ridden_on_a_phone(server, people):
    show = server.copied_demo()
    me, volunteer = people(), people(width=390, height=844)
    signed_out(volunteer)
    me.open("accounts", show)
    me.type("Name of the new account", "Wren", enter=False)
    me.type("Password of the new account", "short", enter=True)
    me.until(lambda: "at least 10" in me.body())  # refused with words, and nothing typed is lost
    me.type("Password of the new account", PASSWORD, enter=True)
    me.find('[data-account="Wren"]')
    signs_in(volunteer, "Wren", PASSWORD)
    volunteer.until(lambda: "No show yet" in volunteer.body())
    # shared as a volunteer, with one fader between its ends
    me.open("crew", show)
    me.choose("Whom to share it with", "Wren")
    me.choose("As what", "Volunteer")
    me.button("Share").click()
    me.find('[data-share="Wren"]')
    volunteer.driver.get(f"{volunteer.address}/")
    volunteer.until(lambda: "Nothing is given to you yet" in volunteer.body())
    me.type("Of what Wren gets the fader", "dca 1", enter=False)
    me.type("Lowest level for Wren, dB", "-12", enter=False)
    me.type("Highest level for Wren, dB", "0", enter=True)
    me.find('[data-given="dca/1/fader"]')
    volunteer.until(lambda: rides(volunteer) == {"Tellers": "0.0"})  # by itself
    fader = volunteer.field("Tellers")
    fader.send_keys(Keys.ARROW_LEFT)
    volunteer.until(lambda: rides(volunteer)["Tellers"] == "\u22121.0")
    me.go("banks")
    me.until(lambda: "\u22121.0" in me.find("main").text)
    for _ in range(3):
        volunteer.field("Tellers").send_keys(Keys.ARROW_RIGHT)
    volunteer.until(lambda: rides(volunteer)["Tellers"] == "0.0")  # its end
    # nothing else of the show is theirs, whatever they open
    volunteer.driver.get(f"{volunteer.address}/patch?show={show}")
    volunteer.until(lambda: "/ride" in volunteer.driver.current_url)
    volunteer.until(lambda: rides(volunteer) == {"Tellers": "0.0"})
    # a mute beside it, then the show is shared no more
    me.go("crew")
    me.choose("What kind of thing Wren gets", "Mute group")
    me.choose("Which one Wren gets", "Foley")
    me.find('form[aria-label="Give Wren something"] button[type=submit]').click()
    volunteer.until(lambda: "Mute Foley" in rides(volunteer))
    press(volunteer, "Mute Foley")
    volunteer.until(lambda: rides(volunteer)["Mute Foley"] == "true")
    me.field("Share no more with Wren").click()
    volunteer.until(lambda: "Nothing is given to you in this show" in volunteer.body())
    me.until(lambda: not me.all('[data-share="Wren"]'))


def test_an_onlooker_changes_nothing_and_an_assistant_checks_lines(server, people):
    show = server.copied_demo()
    for name in ("assistant", "onlooker"):
        server.asked(f"/api/shows/{show}/people", {"name": name, "role": name})
    me, onlooker, assistant = people(), people("onlooker"), people("assistant")
    me.open("banks", show)
    onlooker.open("banks", show)
    assert "You look on" in onlooker.find("[data-role=onlooker]").text
    onlooker.find('[aria-label^="Mute"], [data-mute]')
    keys = [one for one in onlooker.all("main button") if one.text == "mute"]
    keys[0].click()
    onlooker.until(lambda: "not for an onlooker of this show" in onlooker.body())
    assistant.open("lines", show)
    assert "You assist" in assistant.find("[data-role=assistant]").text
    assistant.open("banks", show)
    next(one for one in assistant.all("main button") if one.text == "mute").click()
    assistant.until(lambda: "for an engineer to change" in assistant.body())
    # the role changes while the page is open
    me.open("crew", show)
    me.choose("Role of onlooker", "Engineer")
    onlooker.until(lambda: not onlooker.all("[data-role=onlooker]"))
    next(one for one in onlooker.all("main button") if one.text == "mute").click()
    onlooker.until(lambda: any(one.text == "muted" for one in onlooker.all("main button")))


def test_guesses_are_held_back_passwords_change_and_sign_ins_end(server, people):
    show = server.copied_demo()
    me, one, two = people(), people(), people()
    for person in (one, two):
        signed_out(person)
    me.open("accounts", show)
    me.type("Name of the new account", "Finch", enter=False)
    me.type("Password of the new account", PASSWORD, enter=True)
    me.find('[data-account="Finch"]')
    for _ in range(5):
        signs_in(one, "Finch", "wrong")
        one.until(lambda: "do not go together" in one.body() or "Too many" in one.body())
    signs_in(one, "Finch", PASSWORD)
    one.until(lambda: "Too many wrong passwords" in one.body())
    me.open("accounts", show)
    me.until(lambda: "held back" in me.find('[data-account="Finch"]').text)
    me.field("Let in again, Finch").click()
    me.until(lambda: "held back" not in me.find('[data-account="Finch"]').text)
    for person in (one, two):
        signs_in(person, "Finch", PASSWORD)
        person.until(lambda person=person: "No show yet" in person.body())
    one.driver.get(f"{one.address}/account")
    one.until(lambda: len(one.all("[data-visit]")) == 2)
    old, new = one.all("input[type=password]")
    old.send_keys(PASSWORD)
    new.send_keys("eight tin kettles", Keys.ENTER)
    one.until(lambda: len(one.all("[data-visit]")) == 1)
    two.driver.get(f"{two.address}/account")
    two.until(lambda: "/sign-in" in two.driver.current_url)  # signed out there
    signs_in(two, "Finch", "eight tin kettles")
    two.until(lambda: "/sign-in" not in two.driver.current_url)
    # closed, it is signed out everywhere at once
    me.open("accounts", show)
    for label in ("Close the account of Finch", "Press again: Close the account of Finch"):
        me.field(label).click()
    me.until(lambda: "closed" in me.find('[data-account="Finch"]').text)
    two.driver.get(f"{two.address}/account")
    two.until(lambda: "/sign-in" in two.driver.current_url)


def test_pages_of_small_roles_are_whole_at_every_size_and_shut_nobody_out(server, people):
    """The volunteer's page, and the frame with the mark of an assistant, in both themes."""
    show = server.copied_demo()
    for name in ("assistant", "volunteer"):
        server.asked(f"/api/shows/{show}/people", {"name": name, "role": name})
    shares = server.read(f"/api/shows/{show}/people")["shares"]
    share = next(one["id"] for one in shares if one["name"] == "volunteer")
    for kind, typed in (
        ("fader", "dca 1, channel 1-3"),
        ("mute_group", "Foley"),
        ("lift", "Voices"),
    ):
        given = {"kind": kind, "typed": typed, "lowest": "", "highest": ""}
        server.asked(f"/api/shows/{show}/people/{share}/given", given)
    assistant, volunteer = people("assistant"), people("volunteer")
    assistant.open("check", show)
    volunteer.driver.get(f"{volunteer.address}/ride/{show}")
    volunteer.until(lambda: len(volunteer.all("[role=slider]")) == 4)
    press(volunteer, "Mute Foley")
    volunteer.until(lambda: rides(volunteer)["Mute Foley"] == "true")
    found = []
    for me in (assistant, volunteer):
        for theme in ("dusk", "daylight"):
            me.driver.execute_script(f"document.documentElement.dataset.theme = '{theme}'")
            found += [f"{theme} {fault}" for fault in barred(me)]
        found += faults_at(me, SIZES_OF_LONG)
    assert found == []

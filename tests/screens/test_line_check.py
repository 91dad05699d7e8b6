"""Line check with the stand-in stage: by keyboard at the desk, by phone beside the stage."""

from selenium.webdriver.common.keys import Keys


def shows_arrival(person, text):
    person.until(lambda: text in person.find('[data-testid="arrival"]').text)


def test_the_list_is_walked_by_keyboard_and_the_second_person_sees_it_on_a_phone(server, people):
    desk, phone = people(), people("monitors", width=390, height=800)
    desk.open("check", server.demo)
    phone.resize(390, 844, touch=True)
    phone.open("check", server.demo)
    phone.find('[data-check="1"][data-verdict="unchecked"]')
    desk.keys("t")
    shows_arrival(desk, "Arrives at −18 dBFS, as expected.")
    desk.keys("g")
    phone.find('[data-check="1"][data-verdict="good"]')
    desk.until(lambda: "Teller, part A" in desk.find("main h2").text)  # and on to the next
    shows_arrival(desk, "as expected")  # the tone came along
    desk.until(lambda: "goes along to each line" in desk.find('[data-testid="feeding"]').text)
    desk.keys("b")
    desk.keys("n")
    desk.keys("hums", Keys.ENTER)
    phone.until(lambda: "hums" in phone.find('[data-check="2"][data-verdict="bad"]').text)
    phone.until(lambda: "1 good, 1 bad, 34 to go" in phone.body())
    height = phone.driver.execute_script(
        "return Math.min(...[...document.querySelectorAll('main button')]"
        ".map((button) => button.offsetHeight).filter((height) => height > 0))"
    )
    assert height >= 44  # WCAG 2.2's enhanced target size, for thumbs
    desk.keys("t")


def test_a_swapped_pair_is_noticed_and_mended_in_one_action(server, people):
    me = people()
    me.open("check", server.demo)
    me.find('[data-check="9"]').click()  # Kick
    me.keys("t")
    shows_arrival(me, "as expected")
    me.button("swap its cable with Snare").click()
    shows_arrival(me, "it arrives at Harbour 2, where Snare should be. Swapped cables?")
    me.button("Swap Kick and Snare in the patch").click()
    shows_arrival(me, "Arrives at −18 dBFS, as expected.")
    me.until(lambda: "Harbour 2" in me.find('[data-check="9"]').text)
    me.keys("t")
    me.find("main h1").click()
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: "Harbour 1" in me.find('[data-check="9"]').text)
    me.button("plug all as patched").click()  # for the next
    me.keys("t")
    shows_arrival(me, "Arrives at −18 dBFS, as expected.")
    me.keys("t")


def test_good_with_nothing_arriving_asks_once(server, people):
    me = people()
    me.open("check", server.demo)
    me.find('[data-check="12"]').click()
    shows_arrival(me, "Feed it, or have somebody tap it.")
    me.keys("g")
    me.until(lambda: "Nothing arrives from" in me.body())
    assert me.find('[data-check="12"]').get_attribute("data-verdict") == "unchecked"
    me.keys("g")
    me.find('[data-check="12"][data-verdict="good"]')

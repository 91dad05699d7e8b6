"""The hand that drives the screens: what it does with a page that draws itself anew under it."""

from urllib.parse import quote

import pytest
from selenium.common.exceptions import StaleElementReferenceException

PAGE = """<button>Go</button><button>Stay</button><p>0</p><script>
  const anew = (all) => {
    for (const old of document.querySelectorAll(all)) old.replaceWith(old.cloneNode(true));
  };
  const count = () => document.querySelector("p").textContent++;
  document.addEventListener("click", (event) => {
    if (event.target.textContent === "Go") count();
  });
</script>"""


@pytest.fixture
def me(people):
    person = people()
    person.driver.get("data:text/html," + quote(PAGE))
    return person


def test_what_was_drawn_anew_since_it_was_found_is_pressed_once_and_read(me):
    key, shown = me.button("Go"), me.find("p")
    for times in (1, 2):
        me.driver.execute_script("anew('button, p')")
        key.click()
        assert shown.text == str(times)
    me.driver.execute_script("anew('button')")
    assert me.driver.execute_script("return arguments[0].textContent", key) == "Go"
    assert key.is_displayed()


def test_what_is_gone_is_not_pressed_nor_anything_in_its_place(me):
    key = me.button("Go")
    both = me.all("button")
    me.driver.execute_script("document.querySelector('button').remove()")
    with pytest.raises(StaleElementReferenceException):
        key.click()
    me.driver.execute_script("anew('button')")
    with pytest.raises(StaleElementReferenceException):
        both[1].click()
    assert me.find("p").text == "0"

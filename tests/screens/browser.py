"""A person at a browser: finds things by role and name, as somebody with a screen reader does."""

import time
from importlib.resources import files

from selenium.common.exceptions import NoSuchElementException, StaleElementReferenceException
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.screens.chromium import PATIENCE_S, Chromium

LIST = str(files("ombrel") / "demo" / "salt-road-full.xlsx")
EXPECTED = (
    "WebSocket",
    "ERR_CONNECTION",
    "ERR_EMPTY_RESPONSE",
    "status of 422",
    "status of 409",
    "status of 403",
    "status of 429",
    "/mine/enter - ",
)
# Keeps every message of the page's websockets, so that a test knows what was acknowledged to it.
LISTEN = """
window.heard = [];
const Plain = window.WebSocket;
window.WebSocket = class extends Plain {
  constructor(...all) {
    super(...all);
    this.addEventListener("message", (event) => window.heard.push(JSON.parse(event.data)));
  }
};
"""
# One window further in every list and grid: to the right, then down, and round again.
FURTHER = """
for (const box of document.querySelectorAll('[data-grid], [role=grid]')) {
  const across = box.scrollWidth - box.clientWidth, down = box.scrollHeight - box.clientHeight;
  if (box.scrollLeft < across - 1) box.scrollLeft += box.clientWidth * 0.6;
  else {
    box.scrollLeft = 0;
    box.scrollTop = box.scrollTop >= down - 1 ? 0 : box.scrollTop + box.clientHeight * 0.7;
  }
}
"""
# Laid out, and drawn again by what follows from it.
DRAWN = """
const done = arguments[0], frame = requestAnimationFrame;
frame(() => frame(() => frame(done)));
"""
# Brings an element to the middle, if something else lies where it would be pressed.
INTO_SIGHT = """
const e = arguments[0], box = e.getBoundingClientRect();
const top = document.elementFromPoint(box.left + box.width / 2, box.top + box.height / 2);
if (top && (e === top || e.contains(top) || top.contains(e))) return false;
e.scrollIntoView({block: 'center', inline: 'center'});
return true;
"""


_RESTING: list[Chromium] = []  # browsers that nobody uses: a new one takes seconds


class Window:
    """A window of an exact inner size, with nothing that another left: no cookie, no storage."""

    def __init__(self, width, height):
        self.driver = _RESTING.pop() if _RESTING else Chromium()
        self.driver.get_log("browser")  # what the last one complained of
        self.home = self.driver.current_window_handle
        self.driver.switch_to.new_window("tab")  # what a tab keeps for itself is new with it
        metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False}
        self._do("Emulation.setDeviceMetricsOverride", metrics)
        self._do("Page.addScriptToEvaluateOnNewDocument", {"source": LISTEN})

    def _do(self, what, parameters):
        return self.driver.execute_cdp_cmd(what, parameters)

    def close(self, address):
        """Leave nothing of what was kept for an address."""
        kept = {"origin": address, "storageTypes": "local_storage"}
        self._do("Storage.clearDataForOrigin", kept)
        self._do("Network.clearBrowserCookies", {})
        self.driver.close()
        self.driver.switch_to.window(self.home)
        self.driver.forget()
        _RESTING.append(self.driver)


class Person:
    """One signed-in person with one browser window."""

    def __init__(self, address, name="engineer", width=1280, height=800, cookies=None):
        """With the cookies of somebody signed in, this person need not do so."""
        self.address = address
        self.window = Window(width, height)
        self.driver = self.window.driver
        self.driver.get(f"{address}/sign-in")
        if cookies:
            self.driver.add_cookie({"name": "sessionid", "value": cookies["sessionid"]})
            return
        self.driver.find_element(By.NAME, "username").send_keys(name)
        self.driver.find_element(By.NAME, "password").send_keys("demo", Keys.ENTER)
        self.until(lambda: "/sign-in" not in self.driver.current_url)

    def imported(self, show, count=36):
        """Take the demo's input list into a show, patched, as a person does in Lines."""
        self.open("lines", show)
        self.button("Import a list").click()
        self.field("Input list file").send_keys(LIST)
        self.button(f"Take {count} lines").click()
        self.until(lambda: self.count("Lines") == count)

    def new_mix(self):
        """Open the dialog for new mixes."""
        self.find("main h1")
        self.settled()
        self.button("New mix").click()
        self.find("[role=dialog]")

    def leave(self):
        self.window.close(self.address)

    def open(self, view, show=None):
        """Open a view and wait until the show is there, and what the view waits for."""
        self.driver.get(f"{self.address}/{view}" + (f"?show={show}" if show else ""))
        self.until(lambda: self.status() == "live")
        self.until(lambda: not self.all("[data-loading]"))
        return self

    def go(self, view):
        """Go to another view of the show that is open, as a link in the page does."""
        wait = """const done = arguments[1], frame = requestAnimationFrame;
            history.pushState(null, "", "/" + arguments[0]);
            frame(() => frame(done));"""
        self.driver.execute_async_script(wait, view)

    def resize(self, width, height, *, touch=False):
        """Be another screen; with `touch` fingers are what it is used by."""
        size = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": touch}
        fingers = {"enabled": touch, "maxTouchPoints": 5 if touch else 1}
        self.driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", size)
        self.driver.execute_cdp_cmd("Emulation.setTouchEmulationEnabled", fingers)
        self.driver.execute_async_script(DRAWN)

    def until(self, true, within_s=PATIENCE_S):
        """Wait until something is true (and give what it gave), or fail saying what was shown."""
        end = time.monotonic() + within_s
        while True:
            try:
                found = true()
                if found:
                    return found
            except (NoSuchElementException, StaleElementReferenceException):
                pass
            if time.monotonic() > end:
                text = self.driver.find_element(By.TAG_NAME, "body").text[:1500]
                raise AssertionError(f"waited {within_s} s in vain; the page says:\n{text}")
            time.sleep(0.04)  # asking costs the page the time in which it would answer

    def find(self, css):
        return self.until(lambda: self.driver.find_element(By.CSS_SELECTOR, css))

    def all(self, css):
        return self.driver.find_elements(By.CSS_SELECTOR, css)

    def texts(self, css):
        """What each of several says, none of them drawn anew while it was read."""
        return self.until(lambda: ([one.text for one in self.all(css)],))[0]

    def field(self, label):
        """A field, choice, fader or key by its accessible name, or what it begins with."""
        return self.sought(f'[aria-label="{label}"], [aria-label^="{label}, "]')

    def button(self, text):
        path = f'//button[contains(normalize-space(.), "{text}")]'
        return self.until(lambda: self.driver.find_element(By.XPATH, path))

    def link(self, text):
        """A link that is in sight, or a tab of a place that one points at."""

        def there():
            if found := self.driver.find_elements(By.PARTIAL_LINK_TEXT, text):
                return found[0]
            path = f"//*[@data-place-tabs]//a[starts-with(normalize-space(.), {text!r})]"
            tab = self.driver.find_element(By.XPATH, path)
            place = tab.find_element(By.XPATH, "ancestor::*[@data-place]")
            ActionChains(self.driver).move_to_element(place).perform()
            return tab if tab.is_displayed() else None

        return self.until(there)

    def choose(self, label, word):
        """Choose one of a few words, by it or by what it stands for; a number may be behind it."""
        self.field(label).click()
        said = "normalize-space(translate(., '✓', ''))"  # the one that stands is marked
        named = f"{said}={word!r} or starts-with({said}, {word + ' ·'!r})"
        path = f"//*[@role='option' and ({named} or @data-option={word!r})]"
        self.until(lambda: self.driver.find_element(By.XPATH, path)).click()
        self.until(lambda: not self.all("[role=listbox]"))
        self.driver.execute_async_script(DRAWN)  # the keyboard goes back to where it was

    def chosen(self, label):
        """The word that is chosen, without the number behind a name."""
        return self.field(label).text.split("\n")[0].split(" · ")[0]

    def type(self, label, text, *, enter=True):
        """Replace what a field holds."""
        field = self.field(label)
        field.click()
        field.send_keys(Keys.CONTROL, "a")
        field.send_keys(text, *([Keys.ENTER] if enter else []))

    def keys(self, *keys):
        ActionChains(self.driver).send_keys(*keys).perform()

    def chord(self, *held, key):
        chain = ActionChains(self.driver)
        for one in held:
            chain.key_down(one)
        chain.send_keys(key)
        for one in reversed(held):
            chain.key_up(one)
        chain.perform()

    def count(self, label):
        """How many rows a list has, drawn or not."""
        css = f'[role=list][aria-label="{label}"] > [role=listitem]'
        try:
            return int(self.driver.find_element(By.CSS_SELECTOR, css).get_attribute("aria-setsize"))
        except NoSuchElementException:
            return 0

    def cell(self, source, listener):
        """A cell of who hears what, by addresses."""
        return self.sought(f'[data-cell="{source} {listener}"]')

    def sought(self, css):
        """Something that a list or grid may have out of sight, where it is not drawn."""
        began = time.monotonic()

        def there():
            if not self.all(css) and time.monotonic() - began > 0.4:
                self.driver.execute_script(FURTHER)
            found = self.driver.find_element(By.CSS_SELECTOR, css)
            if self.driver.execute_script(INTO_SIGHT, found):
                found = self.driver.find_element(By.CSS_SELECTOR, css)  # drawn again where it rests
            return found

        return self.until(there)

    def reads(self, source, listener, text):
        """Wait until a cell reads a text."""
        css = f'[data-cell="{source} {listener}"]'
        self.sought(css)
        self.until(lambda: self.driver.find_element(By.CSS_SELECTOR, css).text.strip() == text)

    def status(self):
        return self.find("[data-status]").get_attribute("data-status")

    def settled(self):
        """Wait until the link lives and the server has everything."""

        def kept():
            pill = self.driver.find_element(By.CSS_SELECTOR, "[data-status]")
            return (pill.get_attribute("data-status"), pill.get_attribute("data-waiting")) == (
                "live",
                "0",
            )

        self.until(kept)

    def body(self):
        return self.driver.find_element(By.TAG_NAME, "body").text

    def complaints(self):
        """Errors that the page wrote to its console, lost connections and refusals apart."""
        return [
            entry["message"]
            for entry in self.driver.get_log("browser")
            if not any(word in entry["message"] for word in EXPECTED)
        ]


def many_lines(person, folder, count):
    """Import and patch a list of many lines, in a view of Lines that is open."""
    path = folder / "many.csv"
    rows = [f"{n},Voice {n},DI" for n in range(1, count + 1)]
    path.write_text("Ch,Name,Mic\n" + "\n".join(rows))
    person.button("Import a list").click()
    person.field("Input list file").send_keys(str(path))
    person.button(f"Take {count} lines").click()
    person.until(lambda: person.count("Lines") == count)

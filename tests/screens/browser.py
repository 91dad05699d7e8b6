"""A person at a browser: finds things by role and name, as somebody with a screen reader does."""

import tempfile
import time
from importlib.resources import files

from selenium import webdriver
from selenium.common.exceptions import NoSuchElementException, StaleElementReferenceException
from selenium.webdriver.chrome.service import Service
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

LIST = str(files("ombrel") / "demo" / "salt-road-full.xlsx")
FLAGS = (
    "--headless",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
    "--hide-scrollbars",
)
EXPECTED = ("WebSocket", "ERR_CONNECTION", "status of 422")
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


def chromium(width=1280, height=800):
    """A headless Chromium of an exact inner size, with a profile of its own."""
    options = webdriver.ChromeOptions()
    for flag in (*FLAGS, f"--user-data-dir={tempfile.mkdtemp()}"):
        options.add_argument(flag)
    options.set_capability("goog:loggingPrefs", {"browser": "SEVERE"})
    driver = webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))
    metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False}
    driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
    driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": LISTEN})
    return driver


class Person:
    """One signed-in person with one browser window."""

    def __init__(self, address, name="engineer", width=1280, height=800):
        self.address = address
        self.driver = chromium(width, height)
        self.driver.get(f"{address}/sign-in")
        self.driver.find_element(By.NAME, "username").send_keys(name)
        self.driver.find_element(By.NAME, "password").send_keys("demo", Keys.ENTER)
        self.until(lambda: "/sign-in" not in self.driver.current_url)

    def imported(self, show, count=36):
        """Take the demo's input list into a show, patched, as a person does in Lines."""
        self.open("lines", show)
        self.button("Import a list").click()
        self.field("Input list file").send_keys(LIST)
        self.button(f"Take {count} lines").click()
        self.until(lambda: len(self.all("[data-line]")) == count)

    def leave(self):
        self.driver.quit()

    def open(self, view, show=None):
        """Open a view and wait until the show is there."""
        self.driver.get(f"{self.address}/{view}" + (f"?show={show}" if show else ""))
        self.until(lambda: self.status() == "live")
        return self

    def open_narrow(self, view, show):
        """Open a view that on a phone stands without the frame."""
        self.driver.get(f"{self.address}/{view}?show={show}")
        self.find("main")
        return self

    def until(self, true, within_s=8.0):
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
            time.sleep(0.02)

    def find(self, css):
        return self.until(lambda: self.driver.find_element(By.CSS_SELECTOR, css))

    def all(self, css):
        return self.driver.find_elements(By.CSS_SELECTOR, css)

    def field(self, label):
        """A field, choice, fader or key by its accessible name."""
        return self.find(f'[aria-label="{label}"]')

    def button(self, text):
        path = f'//button[contains(normalize-space(.), "{text}")]'
        return self.until(lambda: self.driver.find_element(By.XPATH, path))

    def link(self, text):
        return self.until(lambda: self.driver.find_element(By.PARTIAL_LINK_TEXT, text))

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

    def cell(self, source, listener):
        """A cell of who hears what, by addresses."""
        return self.find(f'[data-cell="{source} {listener}"]')

    def reads(self, source, listener, text, within_s=8.0):
        """Wait until a cell reads a text."""
        css = f'[data-cell="{source} {listener}"]'
        self.until(
            lambda: self.driver.find_element(By.CSS_SELECTOR, css).text.strip() == text, within_s
        )

    def status(self):
        return self.find("[data-status]").get_attribute("data-status")

    def settled(self, within_s=15.0):
        """Wait until the link lives and the server has everything."""

        def kept():
            pill = self.driver.find_element(By.CSS_SELECTOR, "[data-status]")
            return (pill.get_attribute("data-status"), pill.get_attribute("data-waiting")) == (
                "live",
                "0",
            )

        self.until(kept, within_s)

    def body(self):
        return self.driver.find_element(By.TAG_NAME, "body").text

    def complaints(self):
        """Errors that the page wrote to its console, lost connections and refusals apart."""
        return [
            entry["message"]
            for entry in self.driver.get_log("browser")
            if not any(word in entry["message"] for word in EXPECTED)
        ]

"""Headless Chromium, whose elements are found anew where the page has drawn them anew."""

import atexit
import tempfile
import time
from collections.abc import Mapping

from selenium import webdriver
from selenium.common.exceptions import NoSuchElementException, StaleElementReferenceException
from selenium.webdriver.chrome.service import Service
from selenium.webdriver.common.by import By
from selenium.webdriver.remote.command import Command

_FLAGS = (
    "--headless",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
    "--hide-scrollbars",
)
PATIENCE_S = 40.0  # a busy machine may stall for seconds; only a failing test waits this long


class Chromium(webdriver.Chrome):
    """A page may draw an element anew between the moment it is found and the one it is used.

    A person does not notice. The driver says that the element is stale, and has done nothing
    with it: here it is sought again, by the words by which it was found, and used. An element
    that is no more is stale as ever. So is one of several that were found together, since which
    of them it was is not to be told, and one that fingers are on: half of what they do may be done.
    """

    def __init__(self):
        self._searches = {}  # of each element, by its id: how it was found
        options = webdriver.ChromeOptions()
        for flag in (*_FLAGS, f"--user-data-dir={tempfile.mkdtemp()}"):
            options.add_argument(flag)
        options.set_capability("goog:loggingPrefs", {"browser": "SEVERE"})
        super().__init__(options=options, service=Service("/usr/bin/chromedriver"))
        atexit.register(self.quit)

    def find_element(self, by=By.ID, value=None):
        found = super().find_element(by, value)
        self._searches[found.id] = (by, value)
        return found

    def execute(self, driver_command, params=None):
        params = self._wrap_value(params)
        end = time.monotonic() + PATIENCE_S
        while True:
            try:
                return super().execute(driver_command, params)
            except StaleElementReferenceException:
                if driver_command == Command.W3C_ACTIONS or time.monotonic() > end:
                    raise
                anew = self._anew(params)
                if anew == params:
                    raise
                params = anew

    def forget(self):
        """Nothing that was found until now is used again."""
        self._searches.clear()

    def _anew(self, params):
        """The parameters of a command with its elements as they are drawn now."""
        if isinstance(params, Mapping):
            return {name: self._anew(value) for name, value in params.items()}
        if isinstance(params, list):
            return [self._anew(value) for value in params]
        search = self._searches.get(params) if isinstance(params, str) else None
        if search is None:
            return params
        try:
            return self.find_element(*search).id
        except NoSuchElementException:
            return params

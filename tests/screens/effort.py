"""Counts what a practised user does: clicks, drags, shortcuts, typed fields and chosen files.

Waiting and reading cost nothing. `report` writes docs/effort.md from what the tests counted, each
beside its ceiling.
"""

import pathlib
from itertools import groupby

from selenium.webdriver.common.keys import Keys

REPORT = pathlib.Path(__file__).parents[2] / "docs" / "effort.md"
HEAD = """# Effort

Actions that a practised user needs for a job, counted by driving the real screens
(`tests/screens/test_effort.py`): a click, drag, shortcut, typed field or chosen file is one.

| job | actions | ceiling |
| --- | ---: | ---: |
"""


class Effort:
    """A person whose every action is counted."""

    def __init__(self, person):
        self.person = person
        self.actions = []

    def click(self, element, what):
        element.click()
        self.actions.append(f"click {what}")

    def shortcut(self, *keys, what):
        self.person.chord(*keys[:-1], key=keys[-1])
        self.actions.append(f"press {what}")

    def enter(self):
        self.person.keys(Keys.ENTER)
        self.actions.append("press Enter")

    def key(self, key):
        self.person.keys(key)
        self.actions.append(f"press {key.upper()}")

    def typed(self, label, text, *, settled=False):
        """A typed field; `settled`: by its Enter, which is a part of typing."""
        self.person.type(label, text, enter=settled)
        self.actions.append(f"type {label}")

    def press(self, text):
        self.click(self.person.button(text), text)

    def choose(self, label, word):
        self.person.choose(label, word)
        self.actions.append(f"choose {word}")

    def file(self, label, path):
        self.person.field(label).send_keys(path)
        self.actions.append("choose the file")

    def __len__(self):
        return len(self.actions)


def told(actions):
    """Actions in words; the same one over and over is told once, with how often."""
    return [
        f"{action} ({count} times)" if (count := len(list(again))) > 1 else action
        for action, again in groupby(actions)
    ]


def rows(counted):
    """The lines of the report: (job, actions, ceiling) each."""
    return "".join(
        f"| {job}: {', '.join(told(effort.actions))} | {len(effort)} | {ceiling} |\n"
        for job, effort, ceiling in counted
    )


def report(counted):
    """Write docs/effort.md, if it says something else by now."""
    text = HEAD + rows(counted)
    if not REPORT.exists() or REPORT.read_text() != text:
        REPORT.write_text(text)

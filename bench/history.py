"""A small history of what was measured, so that what becomes slower is seen: bench/history.jsonl.

    python -m bench.history FOLDER  ->  adds a line: commit, date, machine, and ratios by name

`worse` names the ratios that are larger by more than a third than the median of the last three
runs; a ratio is of two figures of one run, so another machine does not make one by itself.
"""

import datetime
import json
import subprocess
import sys
from pathlib import Path
from statistics import median

from .machine import machine
from .report import AIMS, FED, medians_of

HISTORY = Path(__file__).with_name("history.jsonl")
WORSE = 4.0 / 3.0
LAST = 3


def ratios_of(found):
    """The ratios of a run, by their names; larger is worse."""
    ratios = {}
    live = found.get("live")
    if live:
        idle, *more = live["hands"]
        for one in more:
            for figure in ("median_ms", "p95_ms"):
                name = f"{one['hands']} hands, {figure.removesuffix('_ms')}, in idle ones"
                ratios[name] = one["screens"][figure] / idle["screens"][figure]
        ratios["another beside a flood, in idle medians"] = (
            live["flood"]["other"]["median_ms"] / idle["screens"]["median_ms"]
        )
        ratios["300 idle screens, in idle medians"] = (
            live["idle"]["screens"]["median_ms"] / idle["screens"]["median_ms"]
        )
    if phones := found.get("phones"):
        ratios["40 phones, median, in idle ones"] = phones["times"]
    profile = found.get("profile")
    if profile:
        ratios["an edit of forty, in edits alone"] = profile["forty"]["ms"] / profile["one"]["ms"]
    latency = found.get("latency")
    if latency:
        ratios["a recall of 1 000 values, in edits"] = latency["recall_ms"] / latency["edit_ms"]
    return ratios


def flow_ratios(runs):
    """The ratios of who hears what, of some turns: each as the aims have it, larger is worse."""
    turns = [medians_of(run) for run in runs]
    ratios = {}
    for desk in turns[0] if turns else ():
        if desk == FED:
            continue
        for words, top, bottom in AIMS:
            value = median(turn[desk][top] / turn[desk][bottom] for turn in turns)
            more = "at least" in words  # of these larger is better
            ratios[f"{desk}: {words.partition(' (')[0]}"] = 1.0 / value if more else value
    return ratios


def read():
    if not HISTORY.exists():
        return []
    return [json.loads(line) for line in HISTORY.read_text().splitlines()]


def worse(ratios, past):
    """Names of ratios that are worse by more than a third than the last three runs, with both."""
    found = []
    for name, now in sorted(ratios.items()):
        before = [run["ratios"][name] for run in past if name in run["ratios"]][-LAST:]
        if before and now > WORSE * median(before):
            found.append((name, median(before), now))
    return found


def added(ratios, commit=None):
    """Write a run at the end of the history."""
    git = ["git", "rev-parse", "--short", "HEAD"]
    here = subprocess.run(git, capture_output=True, text=True, check=True).stdout.strip()
    line = {
        "commit": commit or here,
        "date": datetime.datetime.now(datetime.UTC).date().isoformat(),
        "machine": machine(),
        "ratios": {name: round(value, 3) for name, value in sorted(ratios.items())},
    }
    with HISTORY.open("a") as history:
        history.write(json.dumps(line) + "\n")


def main(folder, commit=None):
    found = {path.stem: json.loads(path.read_text()) for path in Path(folder).glob("*.json")}
    turns = [run for name, run in sorted(found.items()) if name.startswith("flow-")]
    ratios = ratios_of(found) | flow_ratios(turns)
    for name, before, now in worse(ratios, read()):
        print(f"worse: {name}: {now:.2f}, before {before:.2f}")
    added(ratios, commit)


if __name__ == "__main__":
    main(*sys.argv[1:])

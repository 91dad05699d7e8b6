"""Writes docs/benchmarks.md from what one run measured.

python -m bench.report FOLDER
"""

import json
import sys
from pathlib import Path
from statistics import median

ROWS = {
    "floor": "floor: the bare numpy products of the same blocks, levels and ways",
    "reading": "reading a show's values into arrays",
    "evaluating": "evaluating the arrays: levels and states",
    "whole": "reading and evaluating",
    "move": "one fader move, from edit to changed cells",
    "nested": "evaluating where groups feed groups, through three",
    "nested_move": "one fader move there",
    "turned_move": "the same where a polarity is turned over against a tap at the input",
    "findings": "all findings, with every remedy tried",
    "dca": "one move of a DCA with 45 members (24 on the smallest), to changed cells",
    "mute_group": "one press of a mute group of the same channels, to changed cells",
    "shares[channels]": "a step of 32 microphones that share one gain (24 on the smallest desk)",
    "shares[buses]": "the same with a group among them",
    "gang": "one move of a gang of the same channels by hand, to changed cells",
    "thousand": "1 000 values at once, from edit to changed cells",
    "thousand_anew": "the show that they leave, evaluated",
    "scenes": "500 scenes of 60 differing values, followed",
    "scenes_anew": "the show that the last of them leaves, evaluated",
    "scene_looked_at": "a recall of a whole desk looked at beforehand, 200 values, by listener",
    "scene_list[10]": "the list of 10 scenes of a whole desk",
    "scene_list[500]": "the list of 500 such scenes",
    "scene_compared": "two such scenes compared",
    "walk": "the levels alone by a networkx walk",
}
PLANS = {
    "tracks[plan]": "the best plan, as many wishes as tracks (aim on the largest: 2 s)",
    "tracks[none]": "one must too many: why there is none, and all that would do",
}
AIMS = (
    ("evaluating, in floors (aim: at most 5)", "evaluating", "floor"),
    ("reading and evaluating, in moves (aim: at least 50)", "whole", "move"),
    (
        "1 000 values at once, in evaluations of what they leave (aim: at most 2)",
        "thousand",
        "thousand_anew",
    ),
    (
        "500 scenes, in evaluations of what the last leaves (aim: at most 150)",
        "scenes",
        "scenes_anew",
    ),
    (
        "a recall looked at, in readings and evaluations (aim: at most 3)",
        "scene_looked_at",
        "whole",
    ),
    ("a step of 32 shares, in moves", "shares[channels]", "move"),
    ("all findings, in readings and evaluations", "findings", "whole"),
    ("a move with a polarity turned over, in moves", "turned_move", "move"),
    ("the list of 500 scenes, in lists of 10", "scene_list[500]", "scene_list[10]"),
    ("the networkx walk, in readings and evaluations (aim: at least 50)", "walk", "whole"),
)
# what grows with a show, on the largest desk; in ms, as it was when these were first told so
GROWTH = (("move", 0.8), ("evaluating", 5.5), ("reading", 37.0))
FED = "64 bus-fed channels"
STEP_S = 0.1
BEFORE = Path(__file__).with_name("before.json")
SMALL_DESKS = (
    "The aims were set for large desks. On small ones an evaluation is the fixed price of a few"
    " hundred calls of numpy, whatever their size: it cannot be five times a floor of twenty, nor"
    " a move, which is half as many, a fiftieth of it. And 60 values touch nearly every channel of"
    " Small 24 and Touring 48, so that following has next to nothing to leave out; to check 1 000"
    " values takes as long on every desk."
)


def shown(seconds):
    return f"{seconds * 1000:.2f} ms" if seconds >= 1e-3 else f"{seconds * 1e6:.0f} µs"


def ratio(value):
    return f"{value:,.0f}" if value >= 100 else f"{value:.1f}"


def medians_of(run):
    """Median in seconds of each thing of one turn, by desk."""
    found = {}
    for entry in run["benchmarks"]:
        name = entry["name"].removeprefix("test_")
        # parametrised by desk; what has a parameter besides keeps that one
        if not name.startswith("fed"):
            own = next(
                (
                    p
                    for p in ("10", "500", "channels", "buses", "plan", "none")
                    if f"-{p}]" in name or f"[{p}-" in name
                ),
                "",
            )
            name = name.split("[")[0] + (f"[{own}]" if own else "")
        found.setdefault(entry["extra_info"]["desk"], {})[name] = entry["stats"]["median"]
    return found


def main(results):
    """Print the report of a folder of results: `flow-1.json` and on, one a turn, and the rest."""
    runs = [json.loads(path.read_text()) for path in sorted(Path(results).glob("flow-*.json"))]
    latency, scroll, screens, scenes = (
        json.loads((Path(results) / f"{name}.json").read_text())
        for name in ("latency", "scroll", "screens", "scenes")
    )
    turns = [medians_of(run) for run in runs]

    def in_turns(desk, top, bottom):
        """How many times as long one thing takes as another: the median of the turns."""
        return median(turn[desk][top] / turn[desk][bottom] for turn in turns)

    medians = {
        desk: {name: median(turn[desk][name] for turn in turns) for name in names}
        for desk, names in turns[0].items()
    }
    print("# Benchmarks\n")
    print(
        "Written by `bin/bench`; medians of one run, with everything that is compared measured side"
        " by side in it. Times depend on the machine and on what else it does; the ratios are the"
        " message. Who hears what is measured in turns, and a ratio is the median of theirs, since"
        " a machine's speed drifts.\n"
    )
    machine = runs[0]["machine_info"]
    print(
        f"Machine: {machine['cpu'].get('brand_raw', machine['machine'])}, "
        f"{machine['cpu'].get('count', '?')} cores; Python {machine['python_version']}.\n"
    )
    print("## Who hears what: every send set; groups, matrices and effects in use\n")
    fed = medians.pop(FED)
    for desk, found in medians.items():
        print(f"### {desk}\n\n| what | median | against the floor |\n| --- | ---: | ---: |")
        for name, words in ROWS.items():
            floors = ratio(in_turns(desk, name, "floor"))
            print(f"| {words} | {shown(found[name])} | {floors} |")
        print()
    print(f"| aim | {' | '.join(medians)} |\n| --- |{' ---: |' * len(medians)}")
    for words, top, bottom in AIMS:
        ratios = " | ".join(ratio(in_turns(desk, top, bottom)) for desk in medians)
        print(f"| {words} | {ratios} |")
    for of, words in (("channels", ""), ("buses", ", a group among them")):
        faster = min(STEP_S / found[f"shares[{of}]"] for found in medians.values())
        print(
            f"\n32 microphones that share one gain{words}: {ratio(faster)} times as fast as real"
            " time on the slowest desk (the stage tells levels ten times a second).",
        )
    print("\n| track plans | desk | median | in readings and evaluations |")
    print("| --- | --- | ---: | ---: |")
    for name, words in PLANS.items():
        for desk, found in medians.items():
            if name in found:
                whole = ratio(in_turns(desk, name, "whole"))
                print(f"| {words} | {desk} | {shown(found[name])} | {whole} |")
    print(f"\n{SMALL_DESKS}")
    print("\n| what grows with a show, on Festival 128 | now | before |\n| --- | ---: | ---: |")
    for name, was_ms in GROWTH:
        print(f"| {ROWS[name]} | {shown(medians['Festival 128'][name])} | {was_ms} ms |")
    print("\n### Festival 128 with 64 channels fed by buses, all in one loop\n")
    print("| what | median | reading and evaluating, in moves (aim: at least 10) |")
    print("| --- | ---: | ---: |")
    print(f"| reading and evaluating | {shown(fed['fed_whole'])} | |")
    for name, words in (("fed_move[free]", "a fader"), ("fed_move[fed]", "a fader in the loop")):
        times = ratio(in_turns(FED, "fed_whole", name))
        print(f"| one move of {words} | {shown(fed[name])} | {times} |")
    print("\n### A stereo master of Festival 128 muted and opened\n")
    print("| channels that buses feed | median | of that without any (aim: at most 3) |")
    print("| --- | ---: | ---: |")
    for many in ("none", "one", "64"):
        times = ratio(in_turns(FED, f"fed_mute[{many}]", "fed_mute[none]"))
        print(f"| {many} | {shown(fed[f'fed_mute[{many}]'])} | {times} |")
    load_told(*(json.loads((Path(results) / f"{n}.json").read_text()) for n in ("live", "profile")))
    phones_told(json.loads((Path(results) / "phones.json").read_text()))
    print("\n## From one screen to another\n")
    print("The demo show, over loopback, PostgreSQL committing every tick to disk.\n")
    print("| what | measured |\n| --- | ---: |")
    print(f"| one edit, alone, to the second screen | {latency['edit_ms']:.0f} ms |")
    recall = "a recall of 1 000 changed values, to the second screen"
    print(f"| {recall} | {latency['recall_ms']:.0f} ms |")
    print(f"| the recall, in edits | {latency['recall_ms'] / latency['edit_ms']:.1f} |")
    print(f"| a cue by OSC, from the datagram to the second screen | {latency['cue_ms']:.0f} ms |")
    print(f"| the cue, in edits of the same key | {latency['cue_ms'] / latency['key_ms']:.1f} |")
    print("\n## Scrolling the patch grid of Festival 128, every channel fed\n")
    print("Headless Chromium without a graphics processor; 16.7 ms is 60 frames a second.\n")
    print("| a frame of scrolling | measured |\n| --- | ---: |")
    print(f"| median | {scroll['median_ms']:.1f} ms |")
    print(f"| 95th percentile | {scroll['p95_ms']:.1f} ms |")
    screens_told(screens)
    scenes_told(scenes)


SCENES = {
    "open": "opening the view, to a scene and what its recall would do",
    "choose": "choosing another scene, to what its recall would do",
    "search": "a search, to the list",
}


def load_told(live, profile):
    """One show under the hands of a whole band, and where the time of an edit goes."""
    before = json.loads(BEFORE.read_text())
    print("\n## One show under many hands\n")
    print(
        "Each hand drags a level of its own, ten moves a second, on the demo show; five screens"
        " draw the whole table. From a move to a screen that shows it or a newer one of its hand."
        f" Before: the code of {before['commit']}, measured on {before['date']} by the same program"
        f" on the same machine; it had no limits, and its edits were worked out one by one.\n"
    )
    print("| hands | median | in idle ones | aim | 95th percentile | in idle ones | aim | answered"
          " within | before: median, 95th |")  # fmt: skip
    print("| ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: |")
    idle = live["hands"][0]["screens"]
    old = {one["hands"]: one["screens"] for one in before["live"]["hands"]}
    for one in live["hands"]:
        told, aims = one["screens"], ("3", "6") if one["hands"] == 40 else ("", "")
        was = old.get(one["hands"])
        then = f"{was['median_ms']:.0f} ms, {was['p95_ms']:.0f} ms" if was else ""
        assert one["equal"], "the screens do not show the same"
        print(
            f"| {one['hands']} | {told['median_ms']:.0f} ms"
            f" | {told['median_ms'] / idle['median_ms']:.1f} | {aims[0]}"
            f" | {told['p95_ms']:.0f} ms | {told['p95_ms'] / idle['p95_ms']:.1f} | {aims[1]}"
            f" | {one['answers']['worst_ms']:.0f} ms | {then} |"
        )
    flood, many, back = live["flood"], live["idle"], live["back"]
    lost = sum(one["lost"] for one in live["hands"]) + flood["lost"] + many["lost"]
    memory = [one["memory_mb"] for one in live["hands"]]
    print("\n| what | measured | in idle medians |\n| --- | ---: | ---: |")
    rows = (
        ("another person's answers beside a flood of 10 000 moves, median", flood["other"]),
        ("a move beside 300 idle screens, median", many["screens"]),
    )
    for words, told in rows:
        times = told["median_ms"] / idle["median_ms"]
        print(f"| {words} | {told['median_ms']:.0f} ms | {times:.1f} |")
    print(f"| the flood, until all of it is answered | {flood['flood_s']:.1f} s | |")
    print(f"| 300 screens that open at once, until all are there | {many['here_s']:.1f} s | |")
    print(f"| 40 screens that come back at once, until each had a move answered |"
          f" {back['first_move_s']:.2f} s | |")  # fmt: skip
    if opening := live.get("opening"):
        print(f"| a show file with 500 scenes that differ, opened (aim: 5 s) |"
              f" {opening['opened_s']:.1f} s | |")  # fmt: skip
        print(
            f"| a move while it is opened, median | {opening['screens']['median_ms']:.0f} ms |"
            f" {opening['screens']['median_ms'] / idle['median_ms']:.1f} |"
        )
    print(f"| moves lost | {lost} | |")
    print(f"| memory of the server, first to last | {memory[0]:.0f} to {memory[-1]:.0f} MB | |")
    print("\n### Where the time of an edit goes\n")
    print(
        "Of a hand's move of a fader of the demo, through the door: shares of the processor's time,"
        " of one edit in a batch and of forty.\n"
    )
    was = before["profile"]
    print(
        "| part | one, before | one | forty, before | forty |\n| --- | ---: | ---: | ---: | ---: |"
    )
    columns = (was["one"], profile["one"], was["forty"], profile["forty"])
    print("| milliseconds an edit | " + " | ".join(f"{one['ms']:.2f}" for one in columns) + " |")
    for part in profile["one"]["shares"]:
        shares = " | ".join(f"{one['shares'].get(part, 0.0):.0%}" for one in columns)
        print(f"| {part} | {shares} |")


def phones_told(found):
    """A band on its phones, beside one phone alone."""
    alone, every = found["alone"], found["every"]
    assert every["equal"], "the screens do not show what the phones moved"
    print("\n## A band on its phones\n")
    print(
        "Each phone drags one strip of its mix of the demo, ten moves a second for a minute, each"
        " held against its link; five screens draw the whole table. From a move to a screen that"
        " shows it or a newer one of its finger.\n"
    )
    print("| phones | to a screen, median | 95th percentile | answered, median | moves | lost |"
          " refused, since a finger on the other side of a linked pair moved it |")  # fmt: skip
    print("| ---: | ---: | ---: | ---: | ---: | ---: | ---: |")
    for one in (alone, every):
        told, answers = one["screens"], one["answers"]
        print(
            f"| {one['phones']} | {told['median_ms']:.0f} ms | {told['p95_ms']:.0f} ms"
            f" | {answers['median_ms']:.0f} ms | {one['moves']} | {one['lost']}"
            f" | {one['refused']} |"
        )
    first, last = every["memory_mb"]
    print(f"\nForty phones, in idle medians (aim: at most 3): {found['times']:.1f}. Memory of the"
          f" server, first to last: {first:.0f} to {last:.0f} MB.")  # fmt: skip


def scenes_told(found):
    """Ten scenes beside five hundred."""
    few, many = found["few"], found["many"]
    print("\n## Scenes in the browser: ten whole scenes of a Festival 128 beside 500\n")
    print("Each other than the last in 60 values of 45 strips; medians of one run, taking turns.\n")
    print("| what | 10 scenes | 500 scenes | ratio |\n| --- | ---: | ---: | ---: |")
    for what, words in SCENES.items():
        one, other = few[what], many[what]
        print(f"| {words} | {one:.0f} ms | {other:.0f} ms | {other / one:.2f} |")


WAITS = {"key": "a key", "typed": "a typed level", "scroll": "a step of scrolling"}


def screens_told(found):
    """What a hand waits for, the demo and the full Festival side by side."""
    demo, full = found["demo"], found["full"]
    print("\n## Who hears what in the browser: the demo beside a full Festival 128\n")
    print(
        "Headless Chromium without a graphics processor, from the hand to the painted page; medians"
        " of one run in which the shows take turns. Busy: while another hand makes 20 moves a"
        " second. Festival: 128 channels and 60 stereo mixes of forty letters, every send set, 200"
        " scenes.\n"
    )
    print("| what | demo | Festival | ratio | aim |\n| --- | ---: | ---: | ---: | ---: |")
    first = full["first"] / demo["first"]
    print(f"| first cell | {demo['first']:.0f} ms | {full['first']:.0f} ms | {first:.2f} | 3 |")
    for when in ("quiet", "busy"):
        for what, words in WAITS.items():
            one, other = demo[when][what], full[when][what]
            print(f"| {words}, {when} | {one:.0f} ms | {other:.0f} ms | {other / one:.2f} | 1.5 |")
    faders = [demo["fader"], full["fader"]]
    row = " | ".join(f"{one:.0f} ms" for one in faders)
    print(f"| a key on a fader of a bank, quiet | {row} | {faders[1] / faders[0]:.2f} | 1.5 |")
    frames = [f"{one['frames_busy'][0]:.1f} ms" for one in (demo, full)]
    late = [f"{one['frames_busy'][1]:.1f} ms" for one in (demo, full)]
    print(f"| a frame, busy (median) | {frames[0]} | {frames[1]} | | 16.7 ms |")
    print(f"| a frame, busy (95th percentile) | {late[0]} | {late[1]} | | |")
    banks = [one["bank_busy"] for one in (demo, full)]
    what = "a frame of a bank of 12 faders, of 24, with meters, busy"
    print(f"| {what} (median) | {banks[0][0]:.1f} ms | {banks[1][0]:.1f} ms | | 16.7 ms |")
    print(f"| the same, 95th percentile | {banks[0][1]:.1f} ms | {banks[1][1]:.1f} ms | | |")
    for key, what, aim in (
        ("frame", "a frame while a point of the EQ is dragged", "16.7 ms"),
        ("redraw", "from the core's answer to its curve", "16.7 ms"),
        ("whole", "from the hand's move to a curve that the core drew", ""),
    ):
        one, other = (f"{which['eq'][key]:.1f} ms" for which in (demo, full))
        print(f"| {what} (median) | {one} | {other} | | {aim} |")


if __name__ == "__main__":
    main(sys.argv[1])

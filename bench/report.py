"""Writes docs/benchmarks.md from what one run measured.

python -m bench.report FLOW.json LATENCY.json SCROLL.json > docs/benchmarks.md
"""

import json
import sys

ROWS = {
    "floor": "floor: bare numpy products of the same size",
    "reading": "reading a show's values into arrays",
    "evaluating": "evaluating the arrays: the full table",
    "whole": "reading and evaluating",
    "move": "one fader move, from edit to changed cells",
    "walk": "the same table by a networkx walk",
}


def shown(seconds):
    return f"{seconds * 1000:.2f} ms" if seconds >= 1e-3 else f"{seconds * 1e6:.0f} µs"


def ratio(value):
    return f"{value:,.0f}" if value >= 100 else f"{value:.1f}"


def main(flow_path, latency_path, scroll_path):
    with open(flow_path) as file:
        run = json.load(file)
    with open(latency_path) as file:
        latency = json.load(file)
    with open(scroll_path) as file:
        scroll = json.load(file)
    medians = {}
    for entry in run["benchmarks"]:
        name = entry["name"].removeprefix("test_").split("[")[0]
        medians.setdefault(entry["extra_info"]["desk"], {})[name] = entry["stats"]["median"]
    print("# Benchmarks\n")
    print(
        "Written by `bin/bench`; medians of one run, with everything that is compared measured side"
        " by side in it. Times depend on the machine and on what else it does; the ratios are the"
        " message.\n"
    )
    machine = run["machine_info"]
    print(
        f"Machine: {machine['cpu'].get('brand_raw', machine['machine'])}, "
        f"{machine['cpu'].get('count', '?')} cores; Python {machine['python_version']}.\n"
    )
    print("## Who hears what, every send set\n")
    for desk, found in medians.items():
        print(f"### {desk}\n\n| what | median | against the floor |\n| --- | ---: | ---: |")
        for name, words in ROWS.items():
            print(f"| {words} | {shown(found[name])} | {ratio(found[name] / found['floor'])} |")
        print()
    print("| aim | Touring 48 | Festival 128 |\n| --- | ---: | ---: |")
    one, other = medians["Touring 48"], medians["Festival 128"]
    aims = (
        ("evaluating, in floors (aim: at most 5)", "evaluating", "floor"),
        ("reading and evaluating, in moves (aim on Festival 128: at least 10)", "whole", "move"),
        ("the networkx walk, in evaluations (aim: at least 100)", "walk", "evaluating"),
    )
    for words, top, bottom in aims:
        print(
            f"| {words} | {ratio(one[top] / one[bottom])} | {ratio(other[top] / other[bottom])} |"
        )
    print("\n## From one screen to another\n")
    print(
        "Ten websocket clients with the whole table on screen, ten fader moves a second each, on"
        " the demo show, over loopback, PostgreSQL committing every tick to disk.\n"
    )
    print("| what | measured |\n| --- | ---: |")
    print(f"| moves made, acknowledged | {latency['moves']}, {latency['acknowledged']} |")
    print(f"| arrivals at other screens | {latency['arrivals']} |")
    print(f"| median | {latency['median_ms']:.0f} ms |")
    print(f"| 95th percentile | {latency['p95_ms']:.0f} ms |")
    print(f"| worst | {latency['worst_ms']:.0f} ms |")
    print("\n## Scrolling the patch grid of Festival 128, every channel fed\n")
    print("Headless Chromium without a graphics processor; 16.7 ms is 60 frames a second.\n")
    print("| a frame of scrolling | measured |\n| --- | ---: |")
    print(f"| median | {scroll['median_ms']:.1f} ms |")
    print(f"| 95th percentile | {scroll['p95_ms']:.1f} ms |")


if __name__ == "__main__":
    main(*sys.argv[1:4])

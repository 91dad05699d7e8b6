"""An independent reading of who hears what: a networkx graph of one show, walked path by path.

It shares no code with `ombrel.core.flow`: it reads addresses from the show and builds nodes and
edges with gains, then multiplies along every simple path. Slow, and meant to be.
"""

import math
from collections import defaultdict

import networkx as nx

TAPS = ("input", "before_eq", "before_fader", "before_fader_after_mute", "after_fader")


def gain(level_db: float) -> float:
    return 0.0 if level_db == -math.inf else 10 ** (level_db / 20)


def graph_of(show) -> nx.DiGraph:
    """Nodes: (channel, tap), (bus, side), (bus, side, tap), ("output", box, number, bus, side)."""
    graph = nx.DiGraph()
    buses = {"house": True, "mono": False}
    for mix in range(1, show.desk.mixes + 1):
        if show[f"mix/{mix}/format"] != "unused":
            buses[f"mix/{mix}"] = show[f"mix/{mix}/format"] == "stereo"
    for channel in range(1, show.desk.channels + 1):
        strip = f"channel/{channel}"
        if show[f"{strip}/spare" if show[f"{strip}/on_spare"] else f"{strip}/source"] is None:
            continue
        taps = [(strip, tap) for tap in TAPS]
        sign = -1.0 if show[f"{strip}/polarity"] else 1.0
        unmuted = 0.0 if show[f"{strip}/mute"] else 1.0
        graph.add_edge(taps[0], taps[1], gain=sign * gain(show[f"{strip}/trim"]))
        graph.add_edge(taps[1], taps[2], gain=1.0)
        graph.add_edge(taps[2], taps[3], gain=unmuted)
        graph.add_edge(taps[3], taps[4], gain=gain(show[f"{strip}/fader"]))
        for bus, stereo in buses.items():
            if bus in ("house", "mono"):
                tap, level, on = "after_fader", 1.0, show[f"{strip}/{bus}/on"]
                pan = show[f"{strip}/pan"]
            else:
                send = f"{strip}/send/{bus}"
                tap, level = show[f"{send}/tap"], gain(show[f"{send}/level"])
                on, pan = show[f"{send}/on"], show[f"{send}/pan"]
            if not on or level == 0.0:
                continue
            angle = (pan + 1) * math.pi / 4
            sides = {"left": math.cos(angle), "right": math.sin(angle)} if stereo else {"left": 1.0}
            for side, share in sides.items():
                if share > 1e-15:
                    graph.add_edge((strip, tap), (bus, side), gain=level * share)
    for bus, stereo in buses.items():
        unmuted = 0.0 if show[f"{bus}/mute"] else 1.0
        for side in ("left", "right") if stereo else ("left",):
            for tap in TAPS:
                passed = unmuted if TAPS.index(tap) >= 3 else 1.0
                passed *= gain(show[f"{bus}/fader"]) if tap == "after_fader" else 1.0
                graph.add_edge((bus, side), (bus, side, tap), gain=passed)
    for channel in range(1, show.desk.channels + 1):
        source = show.source_of(channel) or ""
        bus, _, side = source.partition("/") if source.startswith("ho") else (source, "", "")
        if source.startswith("mix/"):
            number, _, side = source.removeprefix("mix/").partition("/")
            bus = f"mix/{number}"
        if bus in buses:
            target = (f"channel/{channel}", "input")
            halves = ("left", "right") if buses[bus] and not side else (side or "left",)
            for half in halves if buses[bus] else ("left",):
                share = 0.5 if len(halves) == 2 and buses[bus] else 1.0
                graph.add_edge((bus, half, "after_fader"), target, gain=share)
    for box in show.desk.boxes:
        for number in range(1, box.outputs + 1):
            output = f"output/{box.key}/{number}"
            words = (show[f"{output}/source"] or "none").split("/")
            bus = "/".join(words[:2]) if words[0] == "mix" else words[0]
            if bus not in buses:
                continue
            side = words[-1] if words[-1] in ("left", "right") else "whole"
            trim, tap = gain(show[f"{output}/trim"]), show[f"{output}/tap"]
            socket = ("output", box.key, number, bus, side)
            if not buses[bus]:
                graph.add_edge((bus, "left", tap), socket, gain=trim)
            elif side != "whole":
                graph.add_edge((bus, side, tap), socket, gain=trim)
            else:
                for half in ("left", "right"):
                    graph.add_edge((bus, half, tap), socket, gain=trim * 0.5)
    return graph


def heard_power(graph: nx.DiGraph, arriving: dict, bus: str, stereo: bool) -> float:
    """Power of one source at one bus's listener: of each side, the loudest socket counts."""
    sockets = [node for node in graph if node[0] == "output" and node[3] == bus]
    sides: dict[str, float] = defaultdict(float)
    for node in sockets:
        side = node[4] if stereo else "left"
        sides[side] = max(sides[side], abs(arriving[node]))
    if {node[4] for node in sockets} & {"left", "right"} and stereo:
        sides.pop("whole", None)
    return sum(amplitude**2 for amplitude in sides.values())


def walked_table(show) -> dict[tuple[str, str], float]:
    """Level in dB of every (channel, bus) that anything arrives at, by multiplying along paths."""
    graph = graph_of(show)
    topological = {node: number for number, node in enumerate(nx.topological_sort(graph))}
    stereo_of = {"house": True, "mono": False} | {
        f"mix/{mix}": show[f"mix/{mix}/format"] == "stereo"
        for mix in range(1, show.desk.mixes + 1)
        if show[f"mix/{mix}/format"] != "unused"
    }
    table: dict[tuple[str, str], float] = {}
    for channel in range(1, show.desk.channels + 1):
        start = (f"channel/{channel}", "input")
        if start not in graph:
            continue
        arriving: dict = defaultdict(float)
        arriving[start] = 1.0
        for node in sorted(nx.descendants(graph, start) | {start}, key=topological.__getitem__):
            for _, target, data in graph.out_edges(node, data=True):
                arriving[target] += arriving[node] * data["gain"]
        for bus, stereo in stereo_of.items():
            power = heard_power(graph, arriving, bus, stereo)
            if power > 0.0:
                table[f"channel/{channel}", bus] = 10 * math.log10(power)
    return table

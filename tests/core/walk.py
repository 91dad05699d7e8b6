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
    """Nodes: (channel, tap), (bus, side), (bus, "out", side), (bus, "hears", side)."""
    graph = nx.DiGraph()
    graph.add_node("sockets")
    buses = {"house": True, "mono": False}
    for mix in range(1, show.desk.mixes + 1):
        if show[f"mix/{mix}/format"] != "unused":
            buses[f"mix/{mix}"] = show[f"mix/{mix}/format"] == "stereo"
    for channel in range(1, show.desk.channels + 1):
        strip = f"channel/{channel}"
        if show[f"{strip}/source"] is None:
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
        master = 0.0 if show[f"{bus}/mute"] else gain(show[f"{bus}/fader"])
        for side in ("left", "right") if stereo else ("left",):
            graph.add_edge((bus, side), (bus, "out", side), gain=master)
    for box in show.desk.boxes:
        for number in range(1, box.outputs + 1):
            source = show[f"output/{box.key}/{number}/source"]
            if source is None:
                continue
            words = source.split("/")
            bus = "/".join(words[:2]) if words[0] == "mix" else words[0]
            if bus not in buses:
                continue
            side = words[-1] if words[-1] in ("left", "right") else "whole"
            if not buses[bus]:
                graph.add_edge((bus, "out", "left"), (bus, "hears", "left"), gain=1.0)
            elif side != "whole":
                graph.add_edge((bus, "out", side), (bus, "hears", side), gain=1.0)
            else:
                graph.nodes["sockets"].setdefault("sums", set()).add(bus)
    for bus in graph.nodes["sockets"].get("sums", set()):
        if not any((bus, "hears", side) in graph for side in ("left", "right")):
            for side in ("left", "right"):
                graph.add_edge((bus, "out", side), (bus, "hears", "left"), gain=0.5)
    return graph


def walked_table(show) -> dict[tuple[str, str], float]:
    """Level in dB of every (channel, bus) that anything arrives at, by multiplying along paths."""
    graph = graph_of(show)
    topological = {node: number for number, node in enumerate(nx.topological_sort(graph))}
    table: dict[tuple[str, str], float] = {}
    for channel in range(1, show.desk.channels + 1):
        start = (f"channel/{channel}", "input")
        if start not in graph:
            continue
        arriving: dict = defaultdict(float)
        arriving[start] = 1.0
        reached = nx.descendants(graph, start) | {start}
        for node in sorted(reached, key=topological.__getitem__):
            for _, target, data in graph.out_edges(node, data=True):
                arriving[target] += arriving[node] * data["gain"]
        power: dict = defaultdict(float)
        for node, amplitude in arriving.items():
            if len(node) == 3 and node[1] == "hears":
                power[node[0]] += amplitude**2
        for bus, total in power.items():
            if total > 0.0:
                table[f"channel/{channel}", bus] = 10 * math.log10(total)
    return table

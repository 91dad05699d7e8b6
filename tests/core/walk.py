"""An independent reading of who hears what: a networkx graph of one show, walked path by path.

It shares no code with `ombrel.core.flow`: it reads addresses from the show, builds nodes and edges
by the rules of the signal path, and looks at every simple path. Slow, and meant to be.
"""

import math
from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property

import networkx as nx
import numpy as np

SIDED = ("group", "mix", "matrix")
TAPS = ("input", "before_eq", "before_fader", "before_fader_after_mute", "after_fader")
ORDER = ("no_source", "muted", "down", "no_output")
NOT_SENT, HEARD, CANCELLED = "unrouted", "heard", "cancelled"


def gain(level_db):
    return 0.0 if level_db == -math.inf else 10 ** (level_db / 20)


def strips_of(desk):
    counts = {
        "channel": desk.channels, "return": desk.returns, "group": desk.groups,
        "mix": desk.mixes, "matrix": desk.matrices,
    }  # fmt: skip
    found = [f"{kind}/{n}" for kind, most in counts.items() for n in range(1, most + 1)]
    return [*found, "house", "mono"]


def kind(strip):
    return strip.split("/")[0]


def sides(show, strip):
    if kind(strip) in ("group", "mix", "matrix"):
        return {"unused": (), "mono": ("L",), "stereo": ("L", "R")}[show[f"{strip}/format"]]
    return ("L", "R") if kind(strip) in ("return", "house") else ("L",)


def dcas_of(show, thing, seen=()):
    """The DCAs that rule a strip or DCA, each once, walked member by member."""
    for number in range(1, show.desk.dcas + 1):
        if show[f"{thing}/dca/{number}/on"] and f"dca/{number}" not in seen:
            seen = dcas_of(show, f"dca/{number}", (*seen, f"dca/{number}"))
    return seen


def groups_of(show, strip):
    """The mute groups that mute a strip now: (address, hard)."""
    numbers = range(1, show.desk.mute_groups + 1)
    return [
        (f"mute_group/{n}/on", show[f"mute_group/{n}/hard"])
        for n in numbers
        if show[f"{strip}/mute_group/{n}/on"] and show[f"mute_group/{n}/on"]
    ]


_LAST_SOLO: list = [None, set()]


def silenced_by_solo(show):
    """What solo in place silences in a show; worked out once for the show asked of last."""
    if _LAST_SOLO[0] is not show:
        _LAST_SOLO[:] = show, _silenced_by_solo(show)
    return _LAST_SOLO[1]


def _silenced_by_solo(show):
    """Sources from which nothing soloed can be reached, and that are not solo-proof."""
    strips = strips_of(show.desk)
    sources = [s for s in strips if kind(s) in ("channel", "return")]
    soloed = {
        s for s in strips if show[f"{s}/solo"] or any(show[f"{d}/solo"] for d in dcas_of(show, s))
    }
    if show["show/solo"] != "in_place" or not soloed:
        return set()
    graph = nx.DiGraph(
        (a, b) for a, b, data in graph_of(show, bare=True).edges(data=True) if not data["edge"].off
    )
    beside = [node for node in graph if node[0] in soloed]
    on_way = set().union(*(nx.ancestors(graph, n) | nx.descendants(graph, n) for n in beside))
    kept = soloed | {strip for strip, _ in on_way}
    return {s for s in sources if s not in kept and not show[f"{s}/solo_proof"]}


def is_out(show, strip):
    """Where a strip that shares gain is closed since it is out; "" for any other."""
    if kind(strip) not in ("channel", "group", "mix", "mono", "matrix"):
        return ""
    group = show[f"{strip}/sharing/group"]
    return show[f"{group}/place"] if group and show[f"{strip}/sharing/out"] else ""


def at_tap(show, strip, tap):
    """Signed gain to a tap, and the causes that close it: (state, address) pairs."""
    level, causes, reach = 1.0, set(), TAPS.index(tap)
    dcas, groups = dcas_of(show, strip), groups_of(show, strip)
    causes |= {("muted", address) for address, hard in groups if hard}
    if reach >= 3:
        causes |= {("muted", address) for address, _ in groups}
        causes |= {("muted", f"{dca}/mute") for dca in dcas if show[f"{dca}/mute"]}
    if reach >= 4:
        causes |= {("down", f"{dca}/fader") for dca in dcas if show[f"{dca}/fader"] == -math.inf}
        level = math.prod(gain(show[f"{dca}/fader"]) for dca in dcas)
    if reach >= 3 and strip in silenced_by_solo(show):
        causes |= {("muted", "show/solo")}
    if causes:
        level = 0.0
    if kind(strip) in ("channel", "return") and reach >= 1:
        level *= gain(show[f"{strip}/trim"]) * (-1 if show[f"{strip}/polarity"] else 1)
    if reach >= 2 and show[f"{strip}/compressor/on"]:  # open: only its make-up is heard
        blend = show[f"{strip}/compressor/blend"] / 100
        level *= (1 - blend) + blend * gain(show[f"{strip}/compressor/make_up"])
    if reach >= (2 if is_out(show, strip) == "before_fader" else 4) and is_out(show, strip):
        level, causes = 0.0, causes | {("muted", f"{strip}/sharing/out")}
    if reach >= 3 and show[f"{strip}/mute"]:
        level, causes = 0.0, causes | {("muted", f"{strip}/mute")}
    if reach >= 4:
        level *= gain(show[f"{strip}/fader"])
        if show[f"{strip}/fader"] == -math.inf:
            causes = causes | {("down", f"{strip}/fader")}
    return level, frozenset(causes)


def pan_matrix(first, second, pan):
    """{(from side, to side): gain}, structurally possible pairs only."""
    if second == ("L",):
        return {("L", "L"): 1.0} if first == ("L",) else {("L", "L"): 0.5, ("R", "L"): 0.5}
    if first == ("L",):
        angle = (pan + 1) * math.pi / 4
        return {
            ("L", "L"): 0.0 if pan == 1 else math.cos(angle),
            ("L", "R"): 0.0 if pan == -1 else math.sin(angle),
        }
    away = 0.0 if abs(pan) == 1 else math.cos(abs(pan) * math.pi / 2)
    return {("L", "L"): away if pan > 0 else 1.0, ("R", "R"): away if pan < 0 else 1.0}


def feeds(show):
    """(from, to, tap, level gain, switch addresses that are off, pan address, pan)."""
    strips = strips_of(show.desk)
    for one in strips:
        for other in strips:
            pair = (kind(one), kind(other))
            assigned = pair[0] in ("channel", "return") and pair[1] in ("group", "house", "mono")
            assigned |= pair[0] == "group" and pair[1] in ("group", "house", "mono")
            assigned &= one != other
            sent = pair[0] in ("channel", "return", "group") and pair[1] == "mix"
            sent |= pair[0] in ("mix", "group", "house", "mono") and pair[1] == "matrix"
            if assigned:
                on = f"{one}/{other}/on"
                off: tuple[str, ...] = () if show[on] else (on,)
                level = 1.0
                if pair[1] == "group":  # it has a level too
                    level = gain(show[f"{one}/{other}/level"])
                    off += () if level else (f"{one}/{other}/level",)
                yield one, other, "after_fader", level, off, f"{one}/pan", show[f"{one}/pan"]
            elif sent:
                send = f"{one}/send/{other}"
                level = gain(show[f"{send}/level"])
                off = () if level else (f"{send}/level",)
                off += () if show[f"{send}/on"] else (f"{send}/on",)
                yield (
                    one,
                    other,
                    show[f"{send}/tap"],
                    level,
                    off,
                    f"{send}/pan",
                    show[f"{send}/pan"],
                )


def bus_and_side(source):
    words = source.split("/")
    side = words[-1] if words[-1] in ("left", "right") else "whole"
    return (words[0] if words[0] in ("house", "mono") else "/".join(words[:2])), side


def taken(show, bus, side):
    """{side of the bus: share} of a reference to it."""
    if len(sides(show, bus)) == 2:
        return {"left": {"L": 1.0}, "right": {"R": 1.0}, "whole": {"L": 0.5, "R": 0.5}}[side]
    return dict.fromkeys(sides(show, bus), 1.0)


def source_of(show, strip):
    if kind(strip) == "return":
        return show[f"{strip}/source"]
    return show[f"{strip}/spare" if show[f"{strip}/on_spare"] else f"{strip}/source"]


@dataclass(frozen=True)
class Edge:
    gain: float
    causes: frozenset
    off: tuple
    wet: bool = False
    turned: str = ""


def graph_of(show, *, bare=False):
    """Edges between (strip, side) nodes; those of feeds that are off too, with what is off.

    `bare`: whatever the strips pass.
    """
    graph = nx.MultiDiGraph()
    for strip in strips_of(show.desk):
        graph.add_nodes_from((strip, side) for side in sides(show, strip))

    def edge(one, other, tap, share, off=(), wet=False):
        level, causes = (1.0, frozenset()) if bare else at_tap(show, one[0], tap)
        turned = ""
        if kind(one[0]) in ("channel", "return") and tap != "input" and show[f"{one[0]}/polarity"]:
            turned = f"{one[0]}/polarity"
        graph.add_edge(one, other, edge=Edge(level * share, causes, off, wet, turned))

    for one, other, tap, level, off, pan_address, pan in feeds(show):
        first, second = sides(show, one), sides(show, other)
        if not first or not second:
            continue
        for (a, b), share in pan_matrix(first, second, pan).items():
            away = (pan_address,) if not off and share == 0.0 else ()
            edge((one, a), (other, b), tap, share * level, off + away)
    for strip in strips_of(show.desk):
        if kind(strip) not in ("channel", "return"):
            continue
        source = source_of(show, strip) or ""
        if kind(strip) == "channel" and kind(source) in ("group", "mix", "matrix", "house", "mono"):
            bus, side = bus_and_side(source)
            for a, share in taken(show, bus, side).items():
                edge((bus, a), (strip, "L"), "after_fader", share)
        if source.startswith("engine/"):
            mix = show[f"{source}/source"]
            for a in sides(show, mix) if mix else ():
                for b in ("L", "R") if len(sides(show, mix)) == 1 else (a,):
                    share = math.cos(math.pi / 4) if len(sides(show, mix)) == 1 else 1.0
                    edge((mix, a), (strip, b), "after_fader", share, wet=True)
    return graph


def sockets_of(show, bus):
    """(side word, tap, trim gain) of what carries a bus; virtual ones where the rules say so."""
    found, other = [], {}
    for box in show.desk.boxes:
        for number in range(1, box.outputs + 1):
            output = f"output/{box.key}/{number}"
            source = show[f"{output}/source"]
            if source and source.split("/")[0] in (*SIDED, "house", "mono"):
                name, side = bus_and_side(source)
                other.setdefault(name, []).append(
                    (side, show[f"{output}/tap"], gain(show[f"{output}/trim"]))
                )
    found = list(other.get(bus, ()))
    engines = range(1, show.desk.effect_engines + 1)
    virtual = any(show[f"engine/{n}/source"] == bus for n in engines)
    if kind(bus) == "group" and not found:
        virtual = True
    if kind(bus) in ("mix", "house", "mono") and not found and not virtual and sides(show, bus):
        for n in range(1, show.desk.matrices + 1):
            send = f"{bus}/send/matrix/{n}"
            feeding = show[f"{send}/on"] and show[f"{send}/level"] > -math.inf
            if feeding and sides(show, f"matrix/{n}") and other.get(f"matrix/{n}"):
                virtual = True
    if virtual:
        found += [("left", "after_fader", 1.0), ("right", "after_fader", 1.0)]
    return found


def ends_of(show, listener):
    """(node, ear, gain, causes) of every way out of a listener's bus; and those that lack one."""
    if listener.startswith("output/"):
        words = show[f"{listener}/source"].split("/")
        strip, side = "/".join(words[:2]), words[-1]
        level, causes = at_tap(show, strip, show[f"{listener}/tap"])
        level *= gain(show[f"{listener}/trim"])
        if kind(strip) == "return" and side not in ("left", "right"):
            return [((strip, one), 0, level / 2, causes) for one in "LR"], []
        return [((strip, "R" if side == "right" else "L"), 0, level, causes)], []
    found, sockets, here = [], sockets_of(show, listener), sides(show, listener)
    carried = {side for side, _, _ in sockets}
    for side, tap, trim in sockets:
        level, causes = at_tap(show, listener, tap)
        if len(here) < 2:
            found += [((listener, s), 0, level * trim, causes) for s in here]
        elif side != "whole":
            found.append(((listener, side[0].upper()), "lr".index(side[0]), level * trim, causes))
        else:
            ears = [ear for ear, own in enumerate(("left", "right")) if own not in carried]
            if not carried & {"left", "right"}:
                ears = [0]
            for ear in ears:
                found += [((listener, s), ear, level * trim / 2, causes) for s in "LR"]
    lacking = []
    for side in here:
        if not any(node == (listener, side) for node, *_ in found):
            _, causes = at_tap(show, listener, "after_fader")
            word = {"L": "/left", "R": "/right"}[side] if found else ""
            lack = frozenset({("no_output", f"{listener}{word}")})
            lacking.append(((listener, side), 0, 1.0, causes | lack))
    return found, lacking


def starts(show, source):
    """What a source puts on each side of its strip."""
    share = math.sqrt(0.5) if kind(source) == "return" else 1.0
    return {(source, side): share for side in sides(show, source)}


class Referee:
    """All answers of one show."""

    def __init__(self, show):
        self.show, self.graph = show, graph_of(show)
        self.nodes = list(self.graph)
        self.dry = {}
        self.alive = self._alive()

    def _alive(self):
        """Sources that there are: origins, and what an open path from an origin feeds."""
        strips = [s for s in strips_of(self.show.desk) if kind(s) in ("channel", "return")]
        fed = {
            s for s in strips
            if kind(source_of(self.show, s) or "") in ("group", "mix", "matrix", "house", "mono",
                                                       "engine")
        }  # fmt: skip
        alive = {s for s in strips if source_of(self.show, s) and s not in fed}
        opened = nx.DiGraph()
        opened.add_nodes_from(self.nodes)
        for a, b, data in self.graph.edges(data=True):
            if not data["edge"].off and not data["edge"].causes:
                opened.add_edge(a, b)
        for strip in fed:
            for side in sides(self.show, strip):
                behind = nx.ancestors(opened, (strip, side))
                origins = [n for n in behind if n[0] in alive and n[0] not in fed]
                if origins:
                    alive = alive | {strip}
        return alive

    @cached_property
    def sizes(self):
        """What each node feeds to each, by its size."""
        sizes = np.zeros((len(self.nodes), len(self.nodes)))
        place = {node: number for number, node in enumerate(self.nodes)}
        for a, b, data in self.graph.edges(data=True):
            if not data["edge"].off:
                sizes[place[a], place[b]] += abs(data["edge"].gain)
        return sizes

    def among(self, strips):
        """Nodes of some strips (None: all), and what they feed to one another."""
        keep = [n for n, node in enumerate(self.nodes) if strips is None or node[0] in strips]
        return [self.nodes[n] for n in keep], self.sizes[np.ix_(keep, keep)]

    def radius(self, strips=None):
        """The spectral radius of what strips pass to one another: below 1 nothing howls."""
        _, matrix = self.among(strips)
        if not matrix.any():
            return 0.0
        return float(max(np.abs(np.linalg.eigvals(matrix)), default=0.0))

    def once_around(self, strip, strips=None):
        """What comes back to a strip of what it gives, its sides together: sent out and followed

        through the others, a step at a time, until nothing more comes.
        """
        nodes, step = self.among(strips)
        here = [place for place, node in enumerate(nodes) if node[0] == strip]
        back = []
        for start in here:
            going, came = step[start].copy(), np.zeros(len(here))
            for _ in range(20_000):
                came += going[here]
                going[here] = 0.0
                if going.max() < 1e-15:
                    break
                going = going @ step
            else:
                raise AssertionError("the others howl by themselves")
            back.append(came)
        return float(max(np.abs(np.linalg.eigvals(np.array(back))), default=0.0))

    def fed(self):
        """Strips that something of the desk feeds, in use or not."""
        kinds = ("group", "mix", "matrix", "house", "mono", "engine")
        strips = [s for s in strips_of(self.show.desk) if kind(s) in ("channel", "return")]
        return {s for s in strips if kind(source_of(self.show, s) or "") in kinds}

    def at_bus(self, source, bus):
        """What of a source stands behind a bus's fader, by side."""
        arriving, place = self._arriving(source)
        behind, _ = at_tap(self.show, bus, "after_fader")
        return [arriving[place[bus, side]] * behind for side in sides(self.show, bus)]

    def _arriving(self, source):
        """What arrives at each node, all paths and rounds: x = start + x * K solved as a whole."""
        matrix = np.zeros((len(self.nodes),) * 2)
        place = {node: n for n, node in enumerate(self.nodes)}
        for a, b, data in self.graph.edges(data=True):
            if not data["edge"].wet and not data["edge"].off:
                matrix[place[a], place[b]] += data["edge"].gain
        start = np.zeros(len(self.nodes))
        for node, share in starts(self.show, source).items():
            start[place[node]] = share
        whole = np.eye(len(self.nodes)) - matrix
        arriving = np.linalg.solve(whole.T, start)
        for _ in range(3):
            arriving += np.linalg.solve(whole.T, start - arriving @ whole)
        return arriving, place

    def level(self, source, listener):
        """Level in dB, and what each ear gets."""
        arriving, place = self._arriving(source)
        ears = {0: {}, 1: {}}
        ends, _ = ends_of(self.show, listener)
        for node, ear, share, _ in ends:  # of several sockets of a side the loudest counts
            ears[ear][node] = max(ears[ear].get(node, 0.0), abs(share))
        heard = [sum(arriving[place[n]] * g for n, g in ear.items()) for ear in ears.values()]
        power = sum(amplitude**2 for amplitude in heard)
        return (10 * math.log10(power) if power else -math.inf), heard

    def _dry(self, off):
        """The graph without effects; `off`: with feeds that are off."""
        if off not in self.dry:
            graph = self.dry[off] = nx.MultiDiGraph()
            graph.add_nodes_from(self.nodes)
            for a, b, data in self.graph.edges(data=True):
                if not data["edge"].wet and (off or not data["edge"].off):
                    graph.add_edge(a, b, edge=data["edge"])
        return self.dry[off]

    def paths(self, source, listener, *, off):
        """Every simple path: (gain, causes, addresses off, feeds off, strips between, ear, turned,

        lacks a socket). `off`: those with feeds off too.
        """
        ends, lacking = ends_of(self.show, listener)
        graph = self._dry(off)
        found = []
        missing = frozenset() if source in self.alive else {("no_source", source)}
        for start, share in starts(self.show, source).items():
            by_node = {}
            for end in [*((e, False) for e in ends), *((e, True) for e in lacking)]:
                by_node.setdefault(end[0][0], []).append(end)
            for target, here in by_node.items():
                walks: Iterable = [[]] if start == target else []
                if start != target and start in graph and target in graph:
                    # no path leaves what leads to its end: not to look there is much quicker
                    leading = nx.ancestors(graph, target)
                    if start in leading:
                        between = graph.subgraph({target, *leading}).copy()
                        walks = nx.all_simple_edge_paths(between, start, target)
                for walk in walks:
                    edges = [graph.edges[step]["edge"] for step in walk]
                    for (_, ear, last, causes), lacks in here:
                        found.append(
                            (
                                share * math.prod(e.gain for e in edges) * last,
                                causes.union(missing, *(e.causes for e in edges)),
                                tuple(a for e in edges for a in e.off),
                                sum(bool(e.off) for e in edges),
                                len(edges),
                                ear,
                                {e.turned for e in edges} - {""},
                                lacks,
                            )
                        )
        return found

    def answer(self, source, listener):
        """(state, level in dB, reasons as a set of (code, address))."""
        on = self.paths(source, listener, off=False)
        if any(not p[7] for p in on):
            on = [p for p in on if not p[7]]
        if not on:
            every = self.paths(source, listener, off=True)
            if not every:
                return NOT_SENT, -math.inf, set()
            least = min((p[3], p[4]) for p in every)
            off = {a for p in every if (p[3], p[4]) == least for a in p[2]}
            return NOT_SENT, -math.inf, {("unrouted", a) for a in off}
        opened = [p for p in on if not p[1]]
        causes = {cause for p in on for cause in p[1]}
        if opened:
            level_db, heard = self.level(source, listener)
            largest = {}
            for p in opened:
                largest[p[5]] = max(largest.get(p[5], 0.0), abs(p[0]))
            if all(abs(heard[ear]) <= most * 1e-6 for ear, most in largest.items()):
                turned = {("turned", a) for p in opened for a in p[6]}
                return CANCELLED, -math.inf, causes | turned
            return HEARD, level_db, set()
        fewest = min(len(p[1]) for p in on)
        names = [cause[0] for p in on if len(p[1]) == fewest for cause in p[1]]
        return min(names, key=ORDER.index), -math.inf, causes

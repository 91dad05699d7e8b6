"""The table by a networkx graph, walked source by source: what the arrays are compared with.

The graph is the one that the tests' referee makes. Loops are not followed: the measured show's
walk is that of a show without bus-fed channels.
"""

import math

import networkx as nx
from tests.core.walk import ends_of, graph_of, starts, strips_of

from ombrel.core import Show

__all__ = ["walked_levels"]


def walked_levels(show: Show) -> dict[tuple[str, str], float]:
    """Level in dB of every (source, bus) that anything arrives at."""
    whole = graph_of(show)
    graph = nx.MultiDiGraph()
    graph.add_nodes_from(whole)
    for one, other, data in whole.edges(data=True):
        edge = data["edge"]
        if not edge.wet and not edge.off and edge.gain != 0.0:
            graph.add_edge(one, other, gain=edge.gain)
    order = list(nx.topological_sort(graph))
    buses = [s for s in strips_of(show.desk) if s.split("/")[0] not in ("channel", "return")]
    ends = {bus: ends_of(show, bus)[0] for bus in buses}
    table = {}
    for source in strips_of(show.desk):
        if source.split("/")[0] not in ("channel", "return") or not show[f"{source}/source"]:
            continue
        arriving = dict.fromkeys(order, 0.0)
        arriving.update(starts(show, source))
        for node in order:
            if arriving[node]:
                for _, target, data in graph.out_edges(node, data=True):
                    arriving[target] += arriving[node] * data["gain"]
        for bus, found in ends.items():
            ears = {0: {}, 1: {}}
            for node, ear, share, _ in found:
                ears[ear][node] = max(ears[ear].get(node, 0.0), abs(share))
            sides = [sum(arriving[n] * g for n, g in ear.items()) for ear in ears.values()]
            power = sum(side * side for side in sides)
            if power:
                table[source, bus] = 10.0 * math.log10(power)
    return table

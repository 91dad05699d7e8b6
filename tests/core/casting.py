"""A referee for who is on, by the rule book alone: plain dictionaries, two layers.

It shares no code with Ombrel. It knows a small company on a small desk: three channels, of which
two share a preamp, and what lies on them: one leaf of the EQ, the low cut, the preamp's gain, and a
fader that no fitting carries.
"""

from dataclasses import dataclass, field

CARRIED = ("eq/1/gain", "low_cut/frequency", "preamp/gain")
PLAIN = {"eq/1/gain": 0.0, "low_cut/frequency": 80.0, "preamp/gain": 0.0, "fader": float("-inf")}
ASPECT = {"eq/1/gain": "eq", "low_cut/frequency": "low_cut", "preamp/gain": "preamp"}


@dataclass
class Fitting:
    """`every`: values with what is loose and what sleeps; `versions`: what was kept, by number."""

    every: dict = field(default_factory=dict)
    versions: dict = field(default_factory=dict)
    carries: set = field(default_factory=lambda: set(ASPECT.values()))
    check: str = "waiting"
    by: str = ""

    @property
    def kept(self):
        """The newest version, with what sleeps in it."""
        return self.versions[max(self.versions)] if self.versions else {}

    @property
    def now(self):
        return self.carried(self.every)

    def carried(self, values):
        return {leaf: value for leaf, value in values.items() if ASPECT[leaf] in self.carries}

    def keep(self, values, aspects):
        """A version of some aspects' values; what it had of others stays in it."""
        old = {leaf: v for leaf, v in self.kept.items() if ASPECT[leaf] not in aspects}
        self.versions[max(self.versions, default=0) + 1] = old | values
        self.versions = dict(sorted(self.versions.items())[-10:])

    def replace(self, values, aspects):
        rest = {leaf: v for leaf, v in self.every.items() if ASPECT[leaf] not in aspects}
        self.every = rest | values


class Company:
    """Own values, fittings by (performer, part), and who is on where."""

    def __init__(self, sources, homes, gang, scene, scene_parts):
        self.own = {}
        self.sources = dict(sources)  # socket by channel
        self.homes = dict(homes)  # channels by part
        self.gang = set(gang)  # channels whose EQ moves together
        self.scene, self.scene_parts = dict(scene), dict(scene_parts)
        self.fittings = {}
        self.on = {}  # (performer, part) by channel
        self.part = {}  # part by channel
        self.attached = {}  # socket by channel
        self.back = {}  # aspects that a pin kept, by channel
        self.pins = set()  # (channel, aspect)
        self.tonight = {}

    def address(self, channel, leaf):
        return (self.sources[channel], leaf) if leaf == "preamp/gain" else (channel, leaf)

    def fitting(self, who):
        return self.fittings.setdefault(who, Fitting())

    def covers(self, channel, leaf):
        if channel not in self.on or leaf not in CARRIED:
            return False
        carries = self.fitting(self.on[channel]).carries
        return ASPECT[leaf] in carries and ASPECT[leaf] not in self.back[channel]

    def holder(self, socket):
        """Of the channels on a preamp: one under check; of several, or of none, the first with a

        gain, or the first.
        """
        on = [
            c for c in sorted(self.on)
            if self.attached.get(c) == socket and self.covers(c, "preamp/gain")
        ]  # fmt: skip
        checked = [c for c in on if self.fitting(self.on[c]).check == "on"] or on
        having = [c for c in checked if "preamp/gain" in self.fitting(self.on[c]).now] or checked
        return having[0] if having else None

    def lies(self, channel, leaf):
        """Who a hand moves by this leaf of a channel: a fitting's (performer, part), or None."""
        if leaf == "preamp/gain":
            channel = self.holder(self.sources[channel])
        return self.on[channel] if channel and self.covers(channel, leaf) else None

    def stands(self, channel, leaf):
        who = self.lies(channel, leaf)
        if who is not None and leaf in self.fitting(who).now:
            return self.fitting(who).now[leaf]
        return self.own.get(self.address(channel, leaf), PLAIN[leaf])

    def hand(self, channel, leaf, value):
        if value == self.stands(channel, leaf):
            return
        who = self.lies(channel, leaf)
        if who is None:
            self.own[self.address(channel, leaf)] = value
        else:
            self.fitting(who).every[leaf] = value

    def put_on(self, channel, who):
        for other in [c for c, there in self.on.items() if there == who and c != channel]:
            self.take_off(other)
        self.forget(channel, who)
        self.on[channel], self.part[channel] = who, who[1]
        self.attached[channel] = self.sources[channel]
        self.back[channel] = {a for c, a in self.pins if c == channel and a != "part"}
        if any(self.sources[c] == self.sources[channel] for c, a in self.pins if a == "preamp"):
            self.back[channel].add("preamp")  # by whatever channel its socket is reached
        self.fitting(who)

    def take_off(self, channel, part=None):
        self.forget(channel, None)
        for what in (self.on, self.attached, self.back, self.part):
            what.pop(channel, None)
        if part is not None:
            self.part[channel] = part

    def forget(self, channel, coming):
        """The mic check holds nobody who goes off."""
        was = self.on.get(channel)
        if was is not None and was != coming and self.fitting(was).check == "on":
            self.fitting(was).check, self.fitting(was).by = "waiting", ""

    def part_on(self, channel, part):
        if (channel, "part") in self.pins:
            return
        if part is not None and self.tonight.get(part):
            self.put_on(channel, (self.tonight[part], part))
        else:
            self.take_off(channel, part)

    def all_on(self, parts):
        """Parts on channels in the channels' order; a fitting that two want is on the first."""
        given = set()
        for channel in sorted(parts):
            who = (self.tonight.get(parts[channel]), parts[channel])
            if who in given and (channel, "part") not in self.pins:
                self.take_off(channel)
            else:
                self.part_on(channel, parts[channel])
            if who[0] and (channel, "part") not in self.pins:
                given.add(who)

    def choose(self, cast):
        self.tonight = dict(cast)
        for part, channels in self.homes.items():
            for channel in channels:
                self.part.setdefault(channel, part)
        self.all_on({c: part for c, part in self.part.items() if part is not None})

    def late(self, part, performer):
        self.tonight[part] = performer
        for channel in self.homes[part]:
            first = next(one for one, channels in self.homes.items() if channel in channels)
            if first == part:
                self.part.setdefault(channel, part)
        self.all_on({c: p for c, p in self.part.items() if p == part})

    def renumber(self, to):
        """Channels get other numbers, and all that is said of them goes along."""
        whole = {"own", "sources", "homes", "on", "part", "attached", "back", "pins", "gang",
                 "scene", "scene_parts"}  # fmt: skip
        for name in whole:
            setattr(self, name, otherwise(getattr(self, name), to))

    def leave_socket(self, channel):
        """What a channel's fitting set stays at the socket, and is own."""
        socket = self.attached.get(channel)
        if socket is not None and self.holder(socket) == channel:
            self.own[socket, "preamp/gain"] = self.stands_at(socket)
            for other in [c for c, s in self.attached.items() if s == socket]:
                if self.covers(other, "preamp/gain"):
                    self.attached[other] = None
        elif socket is not None:
            self.attached[channel] = None

    def stands_at(self, socket):
        holder = self.holder(socket)
        now = self.fitting(self.on[holder]).now if holder else {}
        return now.get("preamp/gain", self.own.get((socket, "preamp/gain"), 0.0))

    def patch(self, channel, socket):
        if socket == self.sources[channel]:
            return
        self.leave_socket(channel)
        self.attached[channel] = None
        self.sources[channel] = socket

    def pin(self, channel, aspect):
        if (channel, aspect) in self.pins:
            return
        self.pins.add((channel, aspect))
        if aspect == "preamp":
            self.hold_preamps()
        elif channel in self.on and aspect != "part" and aspect not in self.back[channel]:
            leaf = next(leaf for leaf, of in ASPECT.items() if of == aspect)
            self.own[channel, leaf] = self.stands(channel, leaf)
            self.back[channel].add(aspect)

    def hold_preamps(self):
        """A pin that is set holds preamps: of the channels that reach its socket none sets it."""
        held = {self.sources[c] for c, a in self.pins if a == "preamp"}
        before = {s: self.holder(s) for s in set(self.attached.values()) - {None}}
        for channel in sorted(self.on):
            pinned = (channel, "preamp") in self.pins or self.attached.get(channel) in held
            if not pinned or "preamp" in self.back[channel]:
                continue
            socket = self.attached.get(channel)
            if socket is not None and before.get(socket) == channel:
                self.own[socket, "preamp/gain"] = self.stands_at(socket)
                for other in [c for c, s in self.attached.items() if s == socket and c != channel]:
                    if self.covers(other, "preamp/gain"):
                        self.attached[other] = None
            self.back[channel].add("preamp")

    def unpin(self, channel, aspect):
        self.pins.discard((channel, aspect))

    def keep(self, who):
        found = self.fitting(who)
        if found.now != found.carried(found.kept):
            found.keep(found.now, found.carries)

    def drop(self, who):
        found = self.fitting(who)
        found.replace(found.carried(found.kept), found.carries)

    def take_all(self, channel, who):
        """Captured: all that stands on a channel, kept under a name that was said."""
        found = self.fitting(who)
        values = found.carried({leaf: self.stands(channel, leaf) for leaf in CARRIED})
        found.replace(values, found.carries)
        found.keep(values, found.carries)

    def copy(self, who, to):
        """All that one has, for another, kept under a name that was said; who carries what too."""
        one, other = self.fitting(who), self.fitting(to)
        values, aspects = one.now, set(one.carries)
        other.replace(values, aspects)
        other.keep(values, aspects)
        other.carries = aspects

    def bring_back(self, who, number):
        found = self.fitting(who)
        found.every = dict(found.versions[number])
        found.keep(found.every, set(ASPECT.values()))

    def remove(self, who):
        """Its part stays on the channel; what it had is gone from the list."""
        for channel in [c for c, there in self.on.items() if there == who]:
            self.take_off(channel, self.part.get(channel))
        self.fittings.pop(who)

    def recall(self, values, parts):
        """Own values that a scene carries, and who is on; nobody: off."""
        for (channel, leaf), value in values.items():
            if (channel, ASPECT.get(leaf, leaf)) not in self.pins:
                self.own[channel, leaf] = value
        self.all_on(parts)


def otherwise(thing, to):
    """A thing of dictionaries, sets, lists and texts with some texts replaced."""
    if isinstance(thing, dict):
        return {otherwise(key, to): otherwise(value, to) for key, value in thing.items()}
    if isinstance(thing, set | list | tuple):
        return type(thing)(otherwise(one, to) for one in thing)
    return to.get(thing, thing) if isinstance(thing, str) else thing

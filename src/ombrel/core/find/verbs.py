"""Wishes that begin with a deed: mute, solo, pin, rest, lift, recall, store, patch, rename."""

from collections.abc import Callable, Iterator, Sequence
from typing import Final

from ..catalogue import SHARERS, STRIP_KINDS, Thing, of_kind
from ..flow import strip_name
from ..scenes import scene_named
from ..show import read_sockets, socket_name, strips_text
from ..tracks import add_wishes, switch_playback
from ..values import Asked, ConsoleError, counted
from .answer import Answer
from .changes import ALREADY
from .things import Named
from .wish import Wish
from .words import BETWEEN

__all__ = ["verb_answers"]

# What each kind has its key called, by the deed: the leaf, and what it becomes.
_MUTES: Final = {**dict.fromkeys((*STRIP_KINDS, "dca"), "mute"), "mute_group": "on"}
_KEYS: Final = {
    "mute": (_MUTES, True), "silence": (_MUTES, True), "kill": (_MUTES, True),
    "unmute": (_MUTES, False), "open": (_MUTES, False), "unsilence": (_MUTES, False),
    "solo": (dict.fromkeys((*STRIP_KINDS, "dca"), "solo"), True),
    "unsolo": (dict.fromkeys((*STRIP_KINDS, "dca"), "solo"), False),
    "listen": (dict.fromkeys((*STRIP_KINDS, "dca"), "solo"), True),
    "pin": (dict.fromkeys((*STRIP_KINDS, "dca", "mute_group", "engine"), "pinned"), True),
    "unpin": (dict.fromkeys((*STRIP_KINDS, "dca", "mute_group", "engine"), "pinned"), False),
    "rest": ({"gang": "suspended"}, True), "suspend": ({"gang": "suspended"}, True),
    "resume": ({"gang": "suspended"}, False),
    "lock": ({"mute_group": "safe"}, True), "unlock": ({"mute_group": "safe"}, False),
}  # fmt: skip
_SAID: Final = {
    ("mute", True): "Mute", ("mute", False): "Unmute", ("on", True): "Mute", ("on", False): "Open",
    ("solo", True): "Solo", ("solo", False): "Solo off:", ("pinned", True): "Pin",
    ("pinned", False): "Unpin", ("suspended", True): "Rest", ("suspended", False): "Resume",
    ("safe", True): "Lock", ("safe", False): "Unlock",
}  # fmt: skip
_RECALL: Final = frozenset(("recall", "fire", "load", "go", "take", "run"))
_NEXT: Final = frozenset(("next", "advance"))
_BEFORE: Final = frozenset(("back", "previous", "before"))
_LINK: Final = {"link": True, "pair": True, "unlink": False, "unpair": False}
_VERB = 10.5  # how sure a deed is that its own word named


def verb_answers(wish: Wish) -> Iterator[Answer]:
    """What a wish means by the deeds that it names, wherever their words stand."""
    for at, word in enumerate(word.lower() for word in wish.words):
        rest = wish.without(at, at + 1)
        following = wish.words[at + 1].lower() if at + 1 < len(wish.words) else ""
        if word in _KEYS and following not in ("group", "groups"):  # "mute group 4" is a thing
            yield from _key(wish, word, rest)
        if word in _RECALL or (word in _NEXT and len(wish.words) == 1):
            yield from _recall(wish, rest)
        if word in _BEFORE:
            yield from _before(wish)
        if word in _LINK and rest:
            yield from _link(wish, rest, on=_LINK[word])
        for named, does in _OTHERS.items():
            if word in named:
                yield from does(wish, at)
    yield from _scene(wish)


def _key(wish: Wish, word: str, rest: Sequence[int]) -> Iterator[Answer]:
    leaf_of, on = _KEYS[word]
    if any(wish.words[n].lower() == "off" for n in rest):  # "mute off kick"
        rest, on = [n for n in rest if wish.words[n].lower() != "off"], not on
    for fits, one in [pair for pair in wish.named(rest) if pair[1].kind in leaf_of][:4]:
        leaf = leaf_of[one.kind]
        yield Answer(
            group="change",
            title=f"{_SAID[leaf, on]} {one.name}",
            about=_where(wish, one, leaf, on=on),
            moves={f"{one.at}/{leaf}": on},
            rank=_VERB + 0.25 * fits,
        )
    several = wish.strips(rest)
    if several and all(of_kind(one) in leaf_of for one in several.strips):
        moves: dict[str, Asked] = {f"{s}/{leaf_of[of_kind(s)]}": on for s in several.strips}
        leaf = leaf_of[of_kind(several.strips[0])]
        title = f"{_SAID[leaf, on]} {wish.listed(several.strips)}"
        yield Answer(group="change", title=title, moves=moves, rank=_VERB + 1.0)


def _where(wish: Wish, one: Named, leaf: str, *, on: bool) -> str:
    kind = {"dca": "DCA", "mute_group": "mute group"}.get(one.kind, one.kind)
    already = bool(leaf) and wish.show.on(f"{one.at}/{leaf}") == on
    return f"{kind} {one.number}".rstrip() + (f", {ALREADY}" if already else "")


def _recall(wish: Wish, rest: Sequence[int]) -> Iterator[Answer]:
    show = wish.show
    left = [wish.words[n].lower() for n in rest if wish.words[n].lower() not in BETWEEN]
    following = show["run/next"]
    if (not left or left == ["next"]) and isinstance(following, str):
        yield Answer(group="change", title=f"Go: {scene_named(show, following)}",
                     about="the scene that is next", action="go",
                     fields={"scene": following}, rank=_VERB)  # fmt: skip
    for fits, one in _scenes(wish, rest)[:4]:
        yield _recalling(one, _VERB - 0.5 + 0.25 * fits)


def _before(wish: Wish) -> Iterator[Answer]:
    """ "go back": the scene ahead of the one that was recalled last."""
    show, scenes = wish.show, [*wish.show.scenes]
    now = show["run/now"]
    if now in scenes and scenes.index(now) and set(wish.plain) <= {"go", "scene", *_BEFORE}:
        before = scenes[scenes.index(now) - 1]
        yield Answer(group="change", title=f"Recall {scene_named(show, before)}",
                     about="the one before", action="recall_scene", fields={"scene": before},
                     rank=_VERB + 0.5)  # fmt: skip


def _recalling(one: Named, rank: float) -> Answer:
    return Answer(group="change", title=f"Recall {one.number} {one.name}".rstrip(), about="scene",
                  action="recall_scene", fields={"scene": one.at}, rank=rank)  # fmt: skip


def _scenes(wish: Wish, at: Sequence[int]) -> list[tuple[float, Named]]:
    return [pair for pair in wish.named(at) if pair[1].kind == "scene"]


def _scene(wish: Wish) -> Iterator[Answer]:
    """A scene that is merely named can be recalled too, behind going there."""
    for fits, one in _scenes(wish, range(len(wish.words)))[:2]:
        yield _recalling(one, fits - 1.5)


def _link(wish: Wish, rest: Sequence[int], *, on: bool) -> Iterator[Answer]:
    words = [wish.words[n] for n in rest if wish.words[n].lower() not in ("and", "stereo")]
    kind = "mix" if words and words[0].lower() in ("mix", "mixes") else "channel"
    numbers = ",".join(word for word in words if word[:1].isdigit())
    named = [one for _, one in wish.named(rest) if one.kind in ("channel", "mix")][:1]
    if named and not numbers:
        kind, numbers = named[0].kind, named[0].number
    if numbers:
        verb = "Link" if on else "Part"
        many = kind if numbers.isdigit() else {"mix": "mixes"}.get(kind, f"{kind}s")
        yield Answer(group="change", title=f"{verb} {many} {numbers.replace(',', ' and ')}",
                     about="as a pair" if on else "each by itself",
                     action="link_pairs", fields={"kind": kind, "strips": numbers, "on": on},
                     rank=_VERB)  # fmt: skip


def _lift(wish: Wish, at: int) -> Iterator[Answer]:
    """ "lift bass": a singer forward by the lift that has them; or back."""
    show, word = wish.show, wish.words[at].lower()
    on = word == "lift" and "back" not in (one.lower() for one in wish.words)
    rest = [n for n in wish.without(at, at + 1) if wish.words[n].lower() != "back"]
    wanted = [one.at for _, one in wish.named(rest)] if rest else None
    for lift in (f"lift/{n}" for n in range(1, show.desk.count("lift") + 1)):
        backing, lead = show.text(f"{lift}/backing"), show.text(f"{lift}/lead")
        if not backing or not lead:
            continue
        singers = [s for s in show.in_use("channel") if show.on(f"{s}/{backing}/on")]
        for strip in singers:
            if wanted is not None and strip not in wanted:
                continue
            up = show.on(f"{strip}/{lead}/on")
            if up == on:
                continue
            less = 0.3 * wanted.index(strip) if wanted else 1.0
            name = strip_name(show, strip)
            yield Answer(group="change", title=f"Lift {name}" if on else f"Bring {name} back",
                         about=show.text(f"{lift}/name"), action="lift",
                         fields={"lift": lift, "strips": [strip], "on": on},
                         rank=_VERB + 0.2 - less)  # fmt: skip


def _store(wish: Wish, at: int) -> Iterator[Answer]:
    rest = wish.without(at, at + 1)
    for fits, one in _scenes(wish, rest)[:2] if rest else []:
        if wish.words[at].lower() != "save" or any(w in ("scene", "cue") for w in wish.plain):
            yield Answer(group="change", title=f"Store {one.number} {one.name} again",
                         about="as everything stands now", action="store_again",
                         fields={"scene": one.at}, rank=_VERB - 0.6 + 0.25 * fits)  # fmt: skip
    words = [wish.words[n] for n in rest]
    while words and words[0].lower() in ("scene", "snapshot", "cue", "new", "as", "a"):
        words.pop(0)
    if words and wish.words[at].lower() == "store":
        name = " ".join(words)
        yield Answer(group="change", title=f"Store scene {name}", about="a new one",
                     action="store_scene", fields={"name": name}, rank=_VERB - 0.2)  # fmt: skip


def _patch(wish: Wish, at: int) -> Iterator[Answer]:
    """ "patch a14 to 3", "patch mix 3 to local 9": a socket, and what goes on it or comes of it."""
    rest = [n for n in wish.without(at, at + 1) if wish.words[n].lower() not in BETWEEN]
    for size in (1, 2):
        for start in range(len(rest) - size + 1):
            there = rest[start : start + size]
            others = [n for n in rest if n not in there]
            text = " ".join(wish.words[n] for n in there)
            if others and len(there) == size:
                yield from _onto(wish, text, others)


def _onto(wish: Wish, text: str, others: Sequence[int]) -> Iterator[Answer]:
    show = wish.show
    socket, output = _socket(wish, text, "input"), _socket(wish, text, "output")
    if not socket and not output:
        return
    name = " ".join(wish.plain[n] for n in others)
    channel = int(name) if name.isdigit() and 1 <= int(name) <= show.desk.channels else 0
    named = [one for _, one in wish.named(others)]
    if not channel and named and named[0].kind == "channel":
        channel = int(named[0].number)
    if socket and channel:
        now = show[f"channel/{channel}/source"]
        was = socket_name(show.desk, now) if isinstance(now, str) else "nothing"
        what = strip_name(show, f"channel/{channel}")
        title = f"{socket_name(show.desk, socket)} feeds {channel} {what}".replace(
            f"{channel} Channel {channel}", f"channel {channel}"
        )
        yield Answer(group="change", title=title, about=f"now {was}", action="feed",
                     fields={"channel": channel, "socket": text}, rank=_VERB + 0.3)  # fmt: skip
    for place, one in enumerate([n for n in named if n.kind == "line"][:1]):
        if socket:
            yield Answer(group="change", title=f"{one.name} is plugged at"
                         f" {socket_name(show.desk, socket)}", about=f"line {one.number}",
                         action="plug", fields={"line": int(one.number), "socket": text},
                         rank=_VERB - 0.2 - place)  # fmt: skip
    carried = [n for n in named if n.kind in ("mix", "matrix", "group", "house", "mono")][:1]
    for one in carried if output and not name.isdigit() else ():
        yield Answer(group="change", title=f"{socket_name(show.desk, output)} carries {one.name}",
                     about="output", action="patch_output",
                     fields={"socket": output, "source": one.at}, rank=_VERB + 0.1)  # fmt: skip


def _socket(wish: Wish, text: str, side: str) -> str:
    """The one socket of a side that a text names; "" for none."""
    try:
        found = read_sockets(wish.show.desk, text, side=side)
    except ConsoleError:
        return ""
    return found[0] if len(found) == 1 else ""


def _share(wish: Wish, at: int) -> Iterator[Answer]:
    """ "share gain 1-8": a group of these that share one gain."""
    filling = ("gain", "one", "a", "among", "between", "with")
    rest = [n for n in wish.without(at, at + 1) if wish.words[n].lower() not in filling]
    several = wish.strips(rest)
    if several and len(several.strips) > 1 and all(of_kind(s) in SHARERS for s in several.strips):
        yield Answer(group="change", title=f"Share one gain: {wish.listed(several.strips)}",
                     about="a new group", action="make_sharing",
                     fields={"strips": strips_text(several.strips)}, rank=_VERB)  # fmt: skip


def _record(wish: Wish, at: int) -> Iterator[Answer]:
    """ "record 1-8 processed": wishes of the track plan, as they are typed there."""
    text = " ".join(wish.words[n] for n in wish.without(at, at + 1))
    try:
        added = add_wishes(wish.show, text) if text else {}
    except ConsoleError:
        return
    if added:
        yield Answer(group="change", title=f"Record {text}", about="to be recorded",
                     action="add_wishes", fields={"text": text}, rank=_VERB)  # fmt: skip


def _play(wish: Wish, at: int) -> Iterator[Answer]:
    """ "play tracks", "playback": the key, and back."""
    del at
    on = not any(wish.show.on(f"channel/{n}/played") for n in wish.show.channels())
    try:
        many = len(switch_playback(wish.show, on=on)) // 2
    except ConsoleError:
        return
    title = "Play the tracks back" if on else "Back from playback to the stage"
    yield Answer(group="change", title=title, about=counted(many, "channel"),
                 action="switch_playback", fields={"on": on}, rank=_VERB - 0.3)  # fmt: skip


def _rename(wish: Wish, at: int) -> Iterator[Answer]:
    """ "rename 7 to Second fiddle"."""
    rest = wish.without(at, at + 1)
    small = [wish.words[n].lower() for n in rest]
    joint = next((n for n, word in enumerate(small) if word in ("to", "as")), None)
    if joint is None or joint in (0, len(rest) - 1):
        return
    name = " ".join(wish.words[n] for n in rest[joint + 1 :])
    for fits, one in wish.named(rest[:joint])[:2]:
        kinds = (*STRIP_KINDS, "dca", "mute_group", "gang", "bank", "line", "scene")
        if one.kind in kinds and Thing.at(one.at).number:
            yield Answer(group="change", title=f"Call {one.name} {name}",
                             about=_where(wish, one, "", on=True),
                             moves={f"{one.at}/name": name}, rank=_VERB + 0.25 * fits)  # fmt: skip


def _make(wish: Wish, at: int) -> Iterator[Answer]:
    """ "make dca Brass", "new mute group Choir": the next free one of a name."""
    rest = [wish.words[n] for n in wish.without(at, at + 1)]
    small = [word.lower() for word in rest]
    while small and small[0] in ("a", "new", "another"):
        small.pop(0)
        rest.pop(0)
    for kind, said in (("dca", ["dca"]), ("dca", ["vca"]), ("gang", ["gang"]),
                       ("mute_group", ["mute", "group"])):  # fmt: skip
        name = " ".join(rest[len(said) :])
        if small[: len(said)] == said and name:
            word = {"dca": "DCA", "mute_group": "mute group"}.get(kind, kind)
            yield Answer(group="change", title=f"Make {word} {name}", about="the next free one",
                         action="make_rulers", fields={"kind": kind, "names": [name]},
                         rank=_VERB)  # fmt: skip
    if small[:1] in (["mix"], ["aux"], ["line"], ["scene"]) and len(rest) > 1:
        name = " ".join(rest[1:])
        fields: dict[str, object] = {"names": [name], "stereo": True}
        action = "make_mixes"
        if small[0] == "line":
            action, fields = "add_line", {"name": name}
        if small[0] == "scene":
            action, fields = "store_scene", {"name": name}
        word = {"aux": "mix"}.get(small[0], small[0])
        yield Answer(group="change", title=f"Make {word} {name}", about="the next free one",
                     action=action, fields=fields, rank=_VERB)  # fmt: skip


_OTHERS: Final[dict[frozenset[str], Callable[[Wish, int], Iterator[Answer]]]] = {
    frozenset(("lift", "bring", "return")): _lift,
    frozenset(("store", "update", "save", "overwrite")): _store,
    frozenset(("patch", "plug", "connect", "route")): _patch,
    frozenset(("share", "automix")): _share,
    frozenset(("record", "track")): _record,
    frozenset(("play", "playback")): _play,
    frozenset(("rename", "name", "call")): _rename,
    frozenset(("make", "new", "add", "create")): _make,
}

"""What brings the demo under a hand: DCAs, mute groups, pairs, gangs, and banks of two bays."""

from collections.abc import Callable, Iterator, Mapping

from ombrel.core import (
    Asked,
    Show,
    fill_bay,
    fix_strips,
    linking,
    make_banks,
    make_rulers,
    membership,
    mute_all,
    read_strips,
)

from .families import family_of

__all__ = ["hands"]


def hands() -> Iterator[Callable[[Show], Mapping[str, Asked]]]:
    """The steps, each by the show as the ones before left it."""
    yield _dcas
    yield lambda now: mute_all(now, "inputs")
    yield lambda now: mute_all(now, "ears")
    yield _mute_groups
    yield lambda now: linking(now, "", kind="channel", on=True, spread=False)
    yield lambda now: make_rulers(now, "gang", [name for name, *_ in _GANGS])
    yield _gangs
    yield lambda now: make_banks(now, [name for name, *_ in _BANKS])
    yield lambda now: fix_strips(now, 1, "dca 1, 6")
    yield lambda now: fix_strips(now, 2, "house")
    yield _banks


# each DCA with the families that it rules; Band holds Drums and Brass besides
_DCAS = (
    ("Tellers", ("voices",)),
    ("Band voices", ("band voices",)),
    ("Drums", ("drums",)),
    ("Brass", ("brass",)),
    ("Strings", ("strings",)),
    ("Band", ("bass", "strings")),
    ("Foley", ("foley",)),
    ("Playback", ("playback",)),
    ("Effects", ()),
)


def _dcas(show: Show) -> Mapping[str, Asked]:
    """DCAs that overlap, and one that holds others."""
    moves = dict(make_rulers(show, "dca", [name for name, _ in _DCAS]))
    dcas = {name: f"dca/{number}" for number, (name, _) in enumerate(_DCAS, start=1)}
    for channel in show.channels():
        family = family_of(show.text(f"channel/{channel}/name"))
        for name, families in _DCAS:
            if family in families:
                moves[f"channel/{channel}/{dcas[name]}/on"] = True
    for name in ("Drums", "Brass"):
        moves[f"{dcas[name]}/{dcas['Band']}/on"] = True
    for number in (1, 2):
        moves[f"return/{number}/{dcas['Effects']}/on"] = True
    colours = ("amber", "sand", "rose", "moss", "sea", "iris", "sky", "slate", "coral")
    moves |= {f"{dca}/colour": one for dca, one in zip(dcas.values(), colours, strict=True)}
    return moves


# each bank with what lies on the left bay, and on the right
_BANKS = (
    ("Tellers", "1-8", "37-39, 31-34, return 1-2"),
    ("Band", "17-24", "9-16, 37-39"),
    ("Foley", "25-28, 40, 29-30", "mix 1-8"),
    ("DCAs", "dca 2-5, 7-9", "group 1-2, matrix 1-3, return 1-2"),
)


def _banks(show: Show) -> Mapping[str, Asked]:
    moves: dict[str, Asked] = {}
    for number, (_, left, right) in enumerate(_BANKS, start=1):
        moves |= fill_bay(show, number, 1, left) | fill_bay(show, number, 2, right)
    return moves


def _mute_groups(show: Show) -> Mapping[str, Asked]:
    """The two hard ones are there; soft ones beside them."""
    names = ("Tellers", "Band", "Foley", "Effects")
    groups = dict(zip(names, range(3, 7), strict=True))
    moves = dict(make_rulers(show, "mute_group", names))
    of_band = ("drums", "bass", "strings", "brass", "band voices")
    for channel in show.channels():
        family = family_of(show.text(f"channel/{channel}/name"))
        for name, families in (("Tellers", ("voices",)), ("Band", of_band), ("Foley", ("foley",))):
            if family in families:
                moves[f"channel/{channel}/mute_group/{groups[name]}/on"] = True
    for number in (1, 2):
        moves[f"return/{number}/mute_group/{groups['Effects']}/on"] = True
    return moves


# each gang with its members, what it carries besides faders and mutes, and whether it rests
_GANGS = (
    ("Double bass", "17-18", ("sends",), False),
    ("Frame drums", "12-13", ("gain", "sends"), False),
    ("Brass", "23-24", ("sends",), False),
    ("Singing players", "37-39, return 1", (), False),
    ("Foley table", "25-26", ("gain",), True),
)


def _gangs(show: Show) -> Mapping[str, Asked]:
    moves: dict[str, Asked] = {}
    for number, (_, members, carries, rests) in enumerate(_GANGS, start=1):
        gang = f"gang/{number}"
        moves |= membership(show, gang, read_strips(show, members), on=True)
        moves |= {f"{gang}/carries_{aspect}": True for aspect in carries}
        moves[f"{gang}/suspended"] = rests
    return moves

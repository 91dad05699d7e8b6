"""What an edit means for fittings: what a hand moves under one goes into it, and what lies settles.

`layered` turns what stands into what is written; `settling` says what an edit of own values brings
with it, whoever makes it: a patch moves no preamp, a pin stops nothing that stands, a fitting is on
one channel, and the mic check holds only what is on.
"""

from collections.abc import Callable, Mapping

from ..catalogue import Address, bearing, bears, cells_of, of_kind, thing_of
from ..scenes import pin_of_cell, pin_of_preamp
from ..show import Show, fitted_leaves, layer_at
from ..values import Value

__all__ = ["layered", "settling"]

_Draft = Callable[[str], Value]


def layered(show: Show, whole: Mapping[str, Value]) -> dict[str, Value]:
    """An edit of what stands, as what is written: into fittings where they lie, else own values.

    Where an edit itself says who is on a channel, it names the channel's own values. A name that is
    typed follows nobody any more.
    """
    if not show.layers.on and not show.layers.names:
        return dict(whole)
    found: dict[str, Value] = {}
    for address, value in whole.items():
        strip = Address.at(address).thing
        if Address.at(address).leaf == "name" and strip in show.layers.names:
            if value != show[address]:
                found |= {address: value, f"{strip}/name_typed": True}
            continue
        at = layer_at(show.desk, show.layers, address)
        if at is None or _says_who(address, whole):
            found[address] = value
        elif value != show[address]:
            found[at] = value
    return found


def _says_who(address: str, whole: Mapping[str, Value]) -> bool:
    return f"{thing_of(address)}/fitting" in whole


def settling(show: Show, whole: Mapping[str, Value]) -> dict[str, Value]:
    """What an edit of own values brings with it for what lies."""
    if not bears("settling", whole):
        return {}
    found: dict[str, Value] = {}

    def now(address: str) -> Value:
        if address in found:
            return found[address]
        return whole[address] if address in whole else show.own_value(address)

    _one_channel(show, whole, now, found)
    fitted = {channel for channel in _channels(show, whole) if now(f"{channel}/fitting")}
    for channel in _channels(show, whole) - fitted:
        plain = {"attached": None, "held_back": "", "fitted_s": 0.0}
        found |= {
            f"{channel}/{leaf}": value
            for leaf, value in plain.items()
            if now(f"{channel}/{leaf}") != value
        }
    for channel in sorted(fitted):
        socket = now(f"{channel}/attached")
        if socket is not None and socket != now(f"{channel}/source"):
            if show.layers.holder.get(str(socket)) == channel:
                _leave(show, str(socket), now, found, but=channel)
            found[f"{channel}/attached"] = None
    _pinned(show, whole, fitted, now, found)
    for channel, one in show.layers.on.items():
        gone = one.checked and not _still_on(show, channel, one.fitting, fitted, now)
        if gone and now(f"{one.fitting}/check") == "on":
            found |= {f"{one.fitting}/check": "waiting", f"{one.fitting}/checker": ""}
    for address, value in whole.items():
        if value == "on" and Address.at(address).is_at("fitting", "check"):
            fitting = Address.at(address).thing
            if all(now(f"{channel}/fitting") != fitting for channel in fitted):
                found |= {address: "waiting", f"{fitting}/checker": ""}
    return found


def _still_on(show: Show, channel: str, fitting: str, fitted: set[str], now: _Draft) -> bool:
    """Whether a fitting is on as it was, if by another number: then it has been on as long."""
    since = show.own_value(f"{channel}/fitted_s")
    return now(f"{channel}/fitting") == fitting or any(
        now(f"{other}/fitting") == fitting and now(f"{other}/fitted_s") == since for other in fitted
    )


def _channels(show: Show, whole: Mapping[str, Value]) -> set[str]:
    """The channels that have a fitting on, before or after."""
    named = {at.thing for at in bearing("fitting_on", whole)}
    return {*named, *show.layers.on}


def _one_channel(
    show: Show, whole: Mapping[str, Value], now: _Draft, found: dict[str, Value]
) -> None:
    """A fitting that goes on is off where it was."""
    coming: dict[Value, str] = {}
    for at in sorted(bearing("fitting_on", whole), key=lambda at: at.text):
        if fitting := whole[at.text]:
            if fitting in coming:
                found |= {at.text: None, at.beside("part"): None}
            coming.setdefault(fitting, at.thing)
    for fitting, channel in coming.items():
        was = show.layers.at.get(str(fitting))
        if was is not None and was != channel and now(f"{was}/fitting") == fitting:
            found |= {f"{was}/fitting": None, f"{was}/part": None}


def _leave(show: Show, socket: str, now: _Draft, found: dict[str, Value], *, but: str) -> None:
    """What a socket's holder set stays as it stands, and is own from now on. Others on the socket

    let go too, since theirs would move it.
    """
    for leaf in ("gain", "pad"):
        address = f"{socket}/{leaf}"
        if now(address) == show.own_value(address):  # unless the edit itself says what it is
            found[address] = show[address]
    for channel in show.layers.attached_to(socket):
        if channel != but and now(f"{channel}/attached") == socket:
            found[f"{channel}/attached"] = None


def _pinned(
    show: Show,
    whole: Mapping[str, Value],
    fitted: set[str],
    now: _Draft,
    found: dict[str, Value],
) -> None:
    """What a pin holds from now on stays as it stands, and is own."""
    if not bears("pins", whole):
        return
    then = show.with_values(whole)
    pinned, of_preamp = pin_of_cell(then), pin_of_preamp(then)
    for mix, name in show.layers.names.items():
        held = of_kind(mix) == "mix" and (now(f"{mix}/pinned") or now(f"{mix}/pinned_name"))
        if held and f"{mix}/name" not in whole and name != show.own_value(f"{mix}/name"):
            found[f"{mix}/name"] = name
    for channel in sorted(fitted):
        one = show.layers.on.get(channel)
        if one is None or now(f"{channel}/fitting") != one.fitting:
            continue  # what goes on now says itself what pins keep back
        back = set(str(now(f"{channel}/held_back")).split())
        new = [
            cell
            for cell in dict.fromkeys((*fitted_leaves(show.desk).values(), "name"))
            if cell not in back
            and (pinned(channel, cell) or (cell == "preamp" and of_preamp(str(one.attached))))
        ]
        if not new:
            continue
        found[f"{channel}/held_back"] = " ".join(sorted(back.union(new)))
        for cell in new:
            if cell == "preamp":
                socket = one.attached
                if socket and show.layers.holder.get(socket) == channel:
                    _leave(show, socket, now, found, but=channel)
                continue
            leaves = ("name",) if cell == "name" else cells_of(show.desk, "channel")[cell]
            for leaf in leaves:
                address = f"{channel}/{leaf}"
                if show[address] != show.own_value(address) and address not in whole:
                    found[address] = show[address]

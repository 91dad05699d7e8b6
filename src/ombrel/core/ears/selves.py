"""Whose a mix is: the channels by which whoever hears it is heard, and who that is."""

from ..casting import microphones, part_name, parts, performer_name, tonight
from ..catalogue import Thing
from ..show import Show, lines_on, read_strips, strips_of_performer
from ..together import member_for
from ..values import Asked, UnreadableText

__all__ = ["channels_of_part", "named_selves", "selves_of", "set_self", "who_hears"]


def channels_of_part(show: Show, part: str) -> list[str]:
    """The channels that a part's microphones come in on."""
    return [one.channel for one in microphones(show, part) if one.channel]


def named_selves(show: Show, mix: str) -> list[str]:
    """The channels that were named as a mix's self, ascending; none: they are found by names."""
    every = (f"channel/{n}" for n in range(1, show.desk.channels + 1))
    return [one for one in every if f"{one}/send/{mix}/self" in show.values]


def selves_of(show: Show, mix: str) -> list[str]:
    """Whom a mix is for: the channels that were named so, or else those of parts whose mix it is,

    and those whose line's performer is called as the mix, its part, or who plays that tonight;
    ascending.
    """
    if named := named_selves(show, mix):
        return named
    of_mix = _parts_of(show, mix)
    names = [show.text(f"{mix}/name"), *(part_name(show, one) for one in of_mix)]
    names += [performer_name(show, who) for one in of_mix if (who := tonight(show, one))]
    found = {channel for part in of_mix for channel in channels_of_part(show, part)}
    found |= {channel for name in names for channel in strips_of_performer(show, name)}
    return sorted(found, key=lambda one: Thing.at(one).number)


def set_self(show: Show, mix: str, text: str) -> dict[str, Asked]:
    """Moves that name the channels of a mix's self as typed ("7, 9"); no text: by names again.

    Raises UnreadableText for what is no channel.
    """
    strips = read_strips(show, text, dcas=False, unused=True) if text.strip() else []
    if wrong := [one for one in strips if Thing.at(one).kind != "channel"]:
        raise UnreadableText(wrong[0].replace("/", " "), "channels")
    named = {member_for(show, one) for one in strips}
    every = {*named, *named_selves(show, mix)}
    return {f"{one}/send/{mix}/self": one in named for one in sorted(every)}


def who_hears(show: Show, mix: str) -> str:
    """Who listens to a mix, in words: who plays its parts tonight, else who plays the lines of its

    self; "" for nobody.
    """
    of_parts = _parts_of(show, mix)
    if of_parts:
        who = [(part, tonight(show, part)) for part in of_parts]
        names = [performer_name(show, one) if one else part_name(show, part) for part, one in who]
    else:
        sources = [show.source_of(Thing.at(one).number) for one in selves_of(show, mix)]
        lines = [line for one in sources if one for line in lines_on(show, one)]
        names = [name for line in lines if (name := show.text(f"line/{line}/performer"))]
    return " and ".join(dict.fromkeys(names))


def _parts_of(show: Show, mix: str) -> list[str]:
    return [one for one in parts(show) if show[f"{one}/mix"] == mix]

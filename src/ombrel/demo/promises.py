"""What is promised in the demo, whoever touches what."""

from collections.abc import Mapping

from ombrel.core import Asked, Show, made, make_promise, read_strips

__all__ = ["promised"]


def promised(show: Show) -> Mapping[str, Asked]:
    """Cues never go out; the band goes by one fader, its hall by a return of its own."""
    cues = read_strips(show, "31-34")
    band = [f"channel/{n}" for n in show.channels() if show.on(f"channel/{n}/group/1/on")]
    moves = dict(
        make_promise(show, sources=cues, listeners=["house", "matrix/2"], name="Cues and talkback")
    )
    show, _ = made(show, moves)
    moves |= make_promise(
        show, sources=band, listeners=["house"], through="group/1", name="The band"
    )
    return moves | {"promise/2/wet": False}

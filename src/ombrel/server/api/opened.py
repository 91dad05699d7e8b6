"""The process in which a stranger's show file is read, checked and kept: `python -m` this.

    ombrel.server.api.opened AUTHOR NAME < FILE

It tells one JSON object a line: {"doing": words, "part": of all work}, and at last {"show": id} or
{"what": what is wrong, "way_out": what to do}. A file that takes more than a show file may costs
this process its life, and nothing else; one that is ended half-way has made nothing.
"""

import gc
import json
import resource
import sys
from typing import Any

import django

MOST_MEMORY = 3 * 1024 * 1024 * 1024
MOST_CPU_S = 120

_STEPS = ("reading", "putting together what scenes hold", "reading values", "checking", "keeping")


def _say(**told: Any) -> None:
    sys.stdout.write(json.dumps(told) + "\n")
    sys.stdout.flush()


def _step(place: int) -> None:
    _say(doing=_STEPS[place], part=place / len(_STEPS))


def main(author: str, name: str) -> None:
    """Read, check and keep; tell how far it is."""
    resource.setrlimit(resource.RLIMIT_AS, (MOST_MEMORY, MOST_MEMORY))
    resource.setrlimit(resource.RLIMIT_CPU, (MOST_CPU_S, MOST_CPU_S))
    gc.disable()  # it lives for one file, and makes a million things that stay
    _step(0)
    django.setup()
    from django.db import DatabaseError

    from ombrel.core import BadFile, ConsoleError
    from ombrel.formats.show_file import read_whole

    from ..keeping.desks import desk_of
    from ..keeping.shows import made_from

    try:
        show, asides = read_whole(sys.stdin.buffer.read(), desk_of, step=_step)
    except BadFile as fault:
        _say(what=fault.what, way_out=fault.way_out)
        return
    _step(4)
    called = show.text("show/name") or name
    try:
        by = int(author) if author else None
        row = made_from(called, show, by, "Opened from a file", asides)
    except ConsoleError as refused:
        _say(what=str(refused), way_out="Mend the file, and open it again.")
    except DatabaseError:
        _say(what="The show's store does not answer.", way_out="Open it again.")
    else:
        _say(show=str(row.pk))


if __name__ == "__main__":
    main(*sys.argv[1:3])

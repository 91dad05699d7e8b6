"""Puts the full show of a desk into the database, for measuring the screens.

    python -m bench.full DESK NAME  ->  the show's id
"""

import sys
import uuid

import django


def main(desk_key: str, name: str) -> None:
    django.setup()
    from ombrel.server import models
    from ombrel.server.desks import desk_of
    from ombrel.server.door import Refused, Request, commit
    from ombrel.server.plans import Planned

    from .shows import full_show

    # groups do not send to mixes here, so that a typed level has one way to be met
    values = {
        address: value
        for address, value in full_show(desk_of(desk_key)).values.items()
        if not address.startswith("group/") or "/send/mix/" not in address
    }
    show = models.Show.objects.create(name=name, desk=desk_key)
    plan = Planned(values, "The full show")
    request = Request(edit_id=uuid.uuid4(), author_id=None, gesture="full", plan=lambda turn: plan)
    outcomes, _, _ = commit(show.pk, [request])
    if isinstance(outcomes[0], Refused):
        raise outcomes[0].error
    print(show.pk)


if __name__ == "__main__":
    main(*sys.argv[1:3])

import uuid

import pytest

from ombrel.core import blank_show
from ombrel.server import models
from ombrel.server.asks.plans import Planned
from ombrel.server.keeping import judge, live, people, states, work
from ombrel.server.keeping.desks import desk_of
from ombrel.server.keeping.door import commit
from ombrel.server.keeping.request import Request
from ombrel.server.screen import rooms


@pytest.fixture(autouse=True)
def nothing_in_memory():
    """Each test starts as a freshly started server does, and lets its connections go."""
    live._LIVE.clear()
    yield
    work.let_go()


@pytest.fixture(autouse=True)
def a_house_of_engineers(request, monkeypatch):
    """Everybody is an engineer of every show, unless a test is about who is not (`strangers`)."""
    if "strangers" in request.fixturenames:
        return
    known = people.acting_in

    def acting_in(show_id, ids):
        house = {one: people.Acting("engineer") for one in ids}
        return {**house, **known(show_id, ids)}

    for place in (people, judge, rooms):
        monkeypatch.setattr(place, "acting_in", acting_in)


@pytest.fixture
def strangers():
    """Nobody has a role that was not given."""


@pytest.fixture
def show(transactional_db):
    return models.Show.objects.create(name="Quay", desk="touring-48")


@pytest.fixture
def ann(transactional_db, django_user_model):
    return django_user_model.objects.create_user("ann")


@pytest.fixture
def ben(transactional_db, django_user_model):
    return django_user_model.objects.create_user("ben")


@pytest.fixture
def signed_in(client, ann):
    """A client of the API that Ann signed in by."""
    client.force_login(ann)
    return client


def request(moves, author=None, gesture=None, edit_id=None, author_name="", **extra):
    edit_id = edit_id or uuid.uuid4()
    return Request(
        edit_id=edit_id,
        author_id=author.pk if author else None,
        gesture=gesture or str(edit_id),
        plan=moves if callable(moves) or moves is None else lambda turn: Planned(moves),
        author=author_name,
        **extra,
    )


def make(show, moves, author=None, **extra):
    """One edit through the door; gives its outcome."""
    return commit(show.pk, [request(moves, author, **extra)])[0][0]


def stored(show):
    """The show as the database alone has it."""
    row = models.Show.objects.get(pk=show.pk)
    values = states.from_wire(dict(row.settings.values_list("address", "value")))
    return blank_show(desk_of(row.desk)).with_values(values)

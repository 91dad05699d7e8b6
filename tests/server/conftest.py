import uuid

import pytest

from ombrel.core import blank_show
from ombrel.server import models
from ombrel.server.asks.plans import Planned
from ombrel.server.keeping import live, states, work
from ombrel.server.keeping.desks import desk_of
from ombrel.server.keeping.door import Request, commit


@pytest.fixture(autouse=True)
def nothing_in_memory():
    """Each test starts as a freshly started server does, and lets its connections go."""
    live._LIVE.clear()
    yield
    work.let_go()


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

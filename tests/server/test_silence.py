"""A request whose database does not answer: it waits, and what it is told when that is in vain."""

import psycopg
import pytest
from django.db import OperationalError, connection

from ombrel.server.access import allowed, middleware


class Store:
    """A database that is reached only after so many attempts."""

    def __init__(self, in_vain):
        self.in_vain = in_vain

    def ensure_connection(self):
        self.in_vain -= 1
        if self.in_vain >= 0:
            raise OperationalError("connection timeout expired")
        connection.ensure_connection()


class Cut:
    """A database that ends the session which it has just begun."""

    def ensure_connection(self):
        connection.ensure_connection()
        one = connection.connection.info
        with psycopg.connect(
            host=one.host, port=one.port, user=one.user, password=one.password, dbname=one.dbname,
            autocommit=True,
        ) as other:  # fmt: skip
            ended = other.execute("select pg_terminate_backend(%s, 10000)", [one.backend_pid])
            assert ended.fetchone() == (True,)


@pytest.fixture
def store(monkeypatch):
    monkeypatch.setattr(middleware, "RETRY_S", 0.0)

    def of(kind, patience_s=60.0):
        monkeypatch.setattr(middleware, "connection", kind)
        monkeypatch.setattr(middleware, "PATIENCE_S", patience_s)

    return of


def test_a_request_waits_for_the_database_and_is_then_served(client, ann, store):
    client.force_login(ann)
    slow = Store(in_vain=30)
    store(slow)
    reply = client.get("/api/me")
    assert reply.status_code == 200
    assert reply.json()["name"] == "ann"
    assert slow.in_vain < 0


def test_a_request_that_waited_in_vain_is_told_so_and_a_page_asks_again(client, ann, store):
    client.force_login(ann)
    store(Store(in_vain=10**9), patience_s=0.01)
    reply = client.post("/api/shows", {"name": "Quay"}, content_type="application/json")
    assert reply.status_code == 503
    assert reply.json()["message"] == (
        "The show's store does not answer. Nothing was changed; try again."
    )
    page = client.get("/lines")
    assert page.status_code == 503
    assert b'http-equiv="refresh"' in page.content
    sent = client.post("/sign-in", {"username": "ann", "password": "x"})
    assert sent.status_code == 503
    assert b"refresh" not in sent.content  # nothing is sent a second time unasked
    assert b"Nothing was changed" in sent.content


def test_a_database_that_goes_away_in_the_middle_is_no_bug_of_the_view(
    client, ann, store, monkeypatch
):
    client.force_login(ann)
    store(Cut())
    read = client.get("/api/me")
    connection.close()
    judged = client.post("/api/shows", {"name": "Quay"}, content_type="application/json")
    connection.close()
    assert "Nothing was changed" in judged.json()["message"]  # it had not come to the view
    monkeypatch.setattr(allowed.Allowed, "_judged", lambda *about: None)
    written = client.post("/api/shows", {"name": "Quay"}, content_type="application/json")
    connection.close()
    assert (read.status_code, written.status_code) == (503, 503)
    assert "Nothing was changed" in read.json()["message"]
    assert "Look whether it was done" in written.json()["message"]

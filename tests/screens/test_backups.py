"""The page of backups: one is made, one fails, and who is no administrator sees neither."""

import os
from pathlib import Path

from ombrel.server.operating.backups import alone, backups_in
from ombrel.server.operating.dumps import Store

from .conftest import DATABASE


def test_an_administrator_makes_a_backup_and_learns_why_one_failed(server, people):
    me = people()
    me.open("lines", server.demo)
    me.find("[data-person-menu]").click()
    me.until(lambda: [o for o in me.all("[role=menuitem]") if o.text == "Backups"])[0].click()
    me.until(lambda: "no backup yet" in me.body())
    me.button("Make one now").click()
    me.find("[data-backup]")
    me.until(lambda: "The last good one: today" in me.body())
    assert me.find("[data-standing]").get_attribute("data-standing") == "good"
    (kept,) = Path(server.backups).glob("*.dump")
    assert kept.name in me.body()
    with server.sql() as link:  # whatever other files have made here
        shows, accounts = (
            link.execute(f"select count(*) from {table} where {which}").fetchone()[0]
            for table, which in (("server_show", "true"), ("auth_user", "password not like '!%'"))
        )
    assert f"{shows} shows" in me.find("[data-backup]").text
    assert f"{accounts} people" in me.find("[data-backup]").text
    here = (os.environ[f"OMBREL_DB_{word}"] for word in ("HOST", "PORT", "USER", "PASSWORD"))
    host, port, user, password = here
    # as where another server makes one just now
    with alone(Store(host, int(port), user, password, DATABASE)):
        me.button("Make one now").click()
        me.until(lambda: "The last try failed" in me.body())
    assert "The last good one: today" in me.body()
    me.button("Make one now").click()
    me.until(lambda: len(me.all("[data-backup]")) == 2)
    me.until(lambda: "The last try failed" not in me.body())
    assert len(backups_in(Path(server.backups))) == 2


def test_who_is_no_administrator_is_told_so_and_has_no_entry(server, people):
    me = people("monitors")
    me.open("lines", server.demo)
    me.find("[data-person-menu]").click()
    me.until(lambda: me.all("[role=menuitem]"))
    assert "Backups" not in [one.text for one in me.all("[role=menuitem]")]
    me.open("backups")
    me.until(lambda: me.all("[role=alert]"))
    assert not me.all("[data-backup]")
    assert str(server.backups) not in me.body()

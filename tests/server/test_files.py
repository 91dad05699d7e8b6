"""Paper and show files over HTTP."""

import asyncio
import json
import time
import uuid
from urllib.parse import unquote

import pytest
from asgiref.sync import sync_to_async
from django.test import AsyncClient

from ombrel.core import BadFile
from ombrel.demo import DEMO_DESK, demo_show
from ombrel.formats.show_file import write_show
from ombrel.server import models
from ombrel.server.api import printing
from ombrel.server.api.opening import opened_apart, opening_of, stop
from ombrel.server.keeping.desks import desk_of
from ombrel.server.keeping.shows import made_from

from .conftest import make, stored
from .test_api import upload


@pytest.fixture
def demo(show):
    make(show, demo_show(desk_of(DEMO_DESK)).values)
    return show


async def test_a_show_saved_as_a_file_and_opened_again_is_the_same_show(demo, ann):
    client = AsyncClient()
    await client.aforce_login(ann)
    reply = await client.get(f"/api/shows/{demo.pk}/file")
    assert reply["Content-Disposition"] == 'attachment; filename="The Salt Road.json"'
    fields = {"file": upload(reply.content, "mine.json")}
    opened = (await client.post("/api/shows/file", fields)).json()
    copy = await models.Show.objects.aget(pk=opened["id"])
    assert (copy.name, opened["desk"]) == ("The Salt Road", "touring-48")
    assert await sync_to_async(stored)(copy) == await sync_to_async(stored)(demo)
    document = json.loads(reply.content)
    del document["values"]["show/name"]  # then it is called as its file is
    fields = {"file": upload(json.dumps(document), "Second night.v2.json")}
    opened = (await client.post("/api/shows/file", fields)).json()
    assert (await models.Show.objects.aget(pk=opened["id"])).name == "Second night.v2"


async def test_a_show_file_with_a_fault_opens_nothing_and_says_where(demo, ann):
    client = AsyncClient()
    await client.aforce_login(ann)
    document = json.loads(write_show(demo_show(desk_of(DEMO_DESK))))
    document["values"]["channel/1/fader"] = 99
    fields = {"file": upload(json.dumps(document), "bad.json")}
    reply = await client.post("/api/shows/file", fields)
    assert reply.status_code == 422
    assert "Channel 1 (Ring host), fader: 99 dB" in reply.json()["message"]
    assert await models.Show.objects.acount() == 1


async def test_a_file_that_is_stopped_on_its_way_leaves_nothing(demo, ann):
    content = write_show(await sync_to_async(stored)(demo))
    name = uuid.uuid4()
    opening = asyncio.ensure_future(opened_apart(content, "Mine", ann.pk, name))
    doing = set()
    while len(doing) < 2:
        assert not opening.done()
        told = opening_of(name)
        doing |= {told.doing} if told else set()
        await asyncio.sleep(0.005)
    assert told
    stop(told)
    with pytest.raises(BadFile, match="It was stopped"):
        await opening
    assert await models.Show.objects.acount() == 1
    assert opening_of(name) is None
    client = AsyncClient()
    await client.aforce_login(ann)
    for ask in (client.get, client.delete):
        assert (await ask(f"/api/shows/opening/{name}")).json() is None


def test_paper_comes_as_pages_and_as_files_and_only_to_whoever_is_signed_in(client, demo, ann):
    paths = ["paper", "paper/all.xlsx", "file"]
    base = f"/api/shows/{demo.pk}"
    assert [client.get(f"{base}/{path}").status_code for path in paths] == [401] * 3
    client.force_login(ann)
    sheets = client.get(f"{base}/paper").json()
    assert [sheet["title"] for sheet in sheets[:3]] == ["Input list", "Patch sheet", "Output list"]
    assert len(sheets) == 9 + 8  # rulers, cues, the company too; six ears and two wedges
    assert client.get(f"{base}/paper/input-list.csv").content.startswith(b"\xef\xbb\xbfNo.,Channel")
    assert client.get(f"{base}/paper/mix-1.csv").content.startswith(b"\xef\xbb\xbfSource,Name")
    assert client.get(f"{base}/paper/all.xlsx").content.startswith(b"PK")
    for wrong in ("all.csv", "nothing.xlsx", "input-list.doc", "mix-99.csv"):
        assert client.get(f"{base}/paper/{wrong}").status_code == 422


def test_a_file_keeps_the_shows_name_in_any_script(client, demo, ann):
    client.force_login(ann)
    make(demo, {"show/name": "港の/夜 שלום"})
    header = client.get(f"/api/shows/{demo.pk}/paper/input-list.csv")["Content-Disposition"]
    assert unquote(header.partition("utf-8''")[2]) == "港の-夜 שלום, Input list.csv"


async def test_a_pdf_is_made_apart_with_its_progress_told_and_fetched_when_done(demo, ann):
    client = AsyncClient()
    await client.aforce_login(ann)
    base = f"/api/shows/{demo.pk}"
    job = (await client.post(f"{base}/paper/all/pdf")).json()
    assert (job["done"], job["pages"]) == (False, 0)
    assert job["about"] > 10
    assert (await client.get(f"{base}/pdf/{job['job']}/file")).status_code == 404
    told, loop_held_s = set(), 0.0
    while not job["done"]:
        before = time.monotonic()
        await asyncio.sleep(0.05)
        loop_held_s = max(loop_held_s, time.monotonic() - before)
        job = (await client.get(f"{base}/pdf/{job['job']}")).json()
        assert job["fault"] == ""
        told.add(job["pages"])
    assert len(told) > 3
    assert loop_held_s < 2.0  # it is made in another process
    reply = await client.get(f"{base}/pdf/{job['job']}/file")
    assert reply.content.startswith(b"%PDF")
    assert 'filename="The Salt Road.pdf"' in reply["Content-Disposition"]
    assert (await client.post(f"{base}/paper/nothing/pdf")).status_code == 422
    assert (await client.get(f"{base}/pdf/{uuid.uuid4()}")).status_code == 404


async def test_one_shows_pdf_waits_for_no_other_shows_and_is_given_up(demo, ann, monkeypatch):
    """A show's own come one behind another; what is stopped makes room for the next at once."""
    client = AsyncClient()
    await client.aforce_login(ann)
    other = await sync_to_async(made_from)("Other", await sync_to_async(stored)(demo), None, "made")
    under_way, most, ended = [], [], asyncio.Event()

    async def spoken(process, document, on_page):
        under_way.append(process)
        most.append(len(under_way))
        try:
            await ended.wait()
            return b"%PDF", ""
        finally:
            under_way.remove(process)

    monkeypatch.setattr(printing, "_spoken_with", spoken)
    monkeypatch.setattr(asyncio, "create_subprocess_exec", _no_process)
    first, second = [
        (await client.post(f"/api/shows/{demo.pk}/paper/{key}/pdf")).json()["job"]
        for key in ("all", "input-list")
    ]
    await client.post(f"/api/shows/{other.pk}/paper/all/pdf")
    while len(under_way) < 2:
        await asyncio.sleep(0.01)
    assert len(under_way) == 2  # one of each show: the second of the first waits
    await client.delete(f"/api/shows/{demo.pk}/pdf/{first}")
    assert (await client.get(f"/api/shows/{demo.pk}/pdf/{first}")).status_code == 404
    while len(most) < 3:
        await asyncio.sleep(0.01)
    ended.set()
    while not (await client.get(f"/api/shows/{demo.pk}/pdf/{second}")).json()["done"]:
        await asyncio.sleep(0.01)
    assert max(most) == 2


class _Silent:
    """A process that does nothing and has ended well."""

    returncode = 0


async def _no_process(*words, **how):
    return _Silent()

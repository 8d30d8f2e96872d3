"""The studio under attack: who may send a body, and what becomes of work that its worker does not survive."""

from __future__ import annotations

import asyncio
import errno
import io
import json
import re
import resource
import struct
import zipfile
from collections.abc import Callable
from pathlib import Path
from typing import Any
from urllib.parse import unquote

import brotli
import psycopg
import pytest
from django.conf import settings
from django.contrib.auth.models import User
from django.core.files.base import ContentFile
from django.core.files.storage import FileSystemStorage
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import OperationalError, connection
from django.test import Client
from procrastinate.contrib.django import app
from procrastinate.jobs import Job

import upper_rim.web
from tests.broken_pages import archive
from upper_rim.core.exchange.bundle import write_bundle
from upper_rim.core.exchange.imports.import_pages import digest
from upper_rim.core.model.fonts import Font, FontFile, Measures
from upper_rim.core.model.site import content_hash
from upper_rim.core.style.type.fonts import LARGEST_FONT
from upper_rim.demo import quillwort
from upper_rim.web.accounts.bodies import LARGEST_SIGN_IN
from upper_rim.web.jobs import arriving, publishing, tasks
from upper_rim.web.jobs.turns import begin_edition, begin_work
from upper_rim.web.sites import store
from upper_rim.web.sites.models import Edition, StoredSite, Work
from upper_rim.web.sites.storage import NO_ROOM

from .conftest import signed_in
from .test_studio import site_addresses


class Unread(io.BytesIO):
    """A body that must not be read."""

    def read(self, *_: Any) -> bytes:
        raise AssertionError("the body was read")


@pytest.mark.parametrize(
    ("address", "kind", "size"),
    [
        ("/s/ostrey/pages/", "multipart/form-data; boundary=x", 9_000_000),
        ("/s/ostrey/pieces/pc-main/", "application/x-www-form-urlencoded", 10),
        ("/nowhere/", "application/json", 10),
        ("/account/sign-in/", "application/json", 100),
        ("/account/sign-in/", "application/x-www-form-urlencoded", LARGEST_SIGN_IN + 1),
    ],
)
def test_nobody_who_is_not_signed_in_can_send_a_body(ferries: StoredSite, address: str, kind: str, size: int) -> None:
    sent = {"wsgi.input": Unread(), "CONTENT_LENGTH": str(size), "CONTENT_TYPE": kind}
    answer = Client(HTTP_HOST="localhost", enforce_csrf_checks=True).post(address, **sent)
    assert answer.status_code == 403 and answer["HX-Redirect"] == "/account/sign-in/"


@pytest.mark.parametrize(
    ("address", "most"),
    [
        ("/sites/new/", settings.LARGEST_UPLOAD),
        ("/s/ostrey/foundations/font/", LARGEST_FONT),
        ("/s/ostrey/pieces/pc-main/", settings.DATA_UPLOAD_MAX_MEMORY_SIZE),
        ("/nowhere/", 0),
    ],
)
def test_what_is_too_large_is_refused_before_it_is_read(
    ferries: StoredSite, ada: User, address: str, most: int
) -> None:
    sent = {"CONTENT_LENGTH": str(most + 200_000), "CONTENT_TYPE": "multipart/form-data; boundary=x"}
    answer = signed_in(ada).post(address, **sent, **{"wsgi.input": Unread()})
    assert answer.status_code == 413 and "This is too large" in answer.content.decode()
    assert unquote(answer["X-Rim-Wrong"]).startswith("This is too large. ")


NASTY = ["a\0b", "9" * 5000, "1e999", "[" * 2000]
"""A number of so many digits is none to Python."""
FIELDS = sorted(
    {
        name
        for file in Path(upper_rim.web.__file__).parent.rglob("*.py")
        for name in re.findall(r'(?:GET|POST|asked|post|get)\.(?:get|getlist)\("(\w[\w-]*)"', file.read_text())
    }
)
"""All that views ask for."""


@pytest.mark.parametrize("value", NASTY, ids=range(len(NASTY)))
def test_no_text_in_any_field_of_any_address_ends_in_a_fault_of_ours(
    ferries: StoredSite, ada: User, value: str
) -> None:
    assert len(FIELDS) > 40
    client = signed_in(ada)
    for address in site_addresses("ostrey"):
        asked = dict.fromkeys(FIELDS, value)
        assert client.get(address, asked).status_code < 500
        assert client.post(address, {name: value for name in FIELDS if name != "do"}).status_code < 500


@pytest.mark.parametrize(
    ("kind", "body", "status"),
    [
        ("multipart/form-data", b"x", 400),
        ("multipart/form-data; boundary=", b"x", 400),
        ("multipart/form-data; boundary=x", b"--x\r\n", 422),
        ("application/x-www-form-urlencoded", b"a=1&" * 2000, 400),
        ("application/x-www-form-urlencoded; charset=utf-16", b"a=b", 400),
        ("application/x-www-form-urlencoded", b"name=a%00b", 400),
    ],
)
def test_a_body_that_cannot_be_read_is_answered_with_a_sentence(ada: User, kind: str, body: bytes, status: int) -> None:
    answer = signed_in(ada).generic("POST", "/sites/new/", body, kind)
    assert answer.status_code == status
    assert status == 422 or "This could not be read" in answer.content.decode()


def of_zeros(room: int, made: Callable[[bytes], bytes], ended: Callable[[], bytes]) -> bytes:
    return b"".join([made(bytes(1_000_000)) for _ in range(room // 1_000_000)]) + ended()


def swelling_font() -> bytes:
    """A WOFF2 file (WOFF File Format 2.0, 4) of some hundred bytes, with 900 MB of zeros in it."""
    packer = brotli.Compressor(quality=1)
    packed = of_zeros(900_000_000, packer.process, packer.finish)
    table = bytes([0x3F]) + b"hack" + b"\x83\xad\x93\xa4\x00"
    size = 48 + len(table) + len(packed)
    header = struct.pack(
        ">4sIIHHIIHHIIIII", b"wOF2", 0x10000, size, 1, 0, 900_000_044, len(packed), 1, 0, 0, 0, 0, 0, 0
    )
    return header + table + packed


def swelling_bundle() -> bytes:
    """A site of 150 MB of empty objects, deflated to some hundred kB."""
    file = io.BytesIO()
    with (
        zipfile.ZipFile(file, "w", zipfile.ZIP_DEFLATED, compresslevel=1) as written,
        written.open("site.json", "w", force_zip64=True) as document,
    ):
        document.write(b'{"pages":[{}')
        for _ in range(150):
            document.write(b",{}" * 333_333)
        document.write(b"]}")
    return file.getvalue()


def bundle_with_a_swelling_font() -> bytes:
    data, out = swelling_font(), io.BytesIO()
    file = FontFile(content=digest(data), size=len(data), lightest=400, boldest=400)
    measures = Measures(ascent=0.9, descent=0.2, widths=((400, 0.5),))
    font = Font(id="fo-harm", name="Swelling", files=(file,), measures=measures)
    site, contents = quillwort()
    write_bundle(out, site.replaced(fonts=(font,), pages=(), assets=()), {**contents, digest(data): data}.__getitem__)
    return out.getvalue()


HOSTILE: list[tuple[str, str, str, Callable[[], bytes]]] = [
    ("/s/ostrey/foundations/font/", "font", "a.woff2", swelling_font),
    ("/sites/new/", "bundle", "a.zip", swelling_bundle),
    ("/s/ostrey/foundations/carry/", "bundle", "a.zip", swelling_bundle),
    ("/sites/new/", "bundle", "a.zip", bundle_with_a_swelling_font),
    ("/s/ostrey/foundations/carry/", "bundle", "a.zip", bundle_with_a_swelling_font),
    ("/s/ostrey/foundations/tokens/", "tokens", "a.json", lambda: b"[" * 1_900_000),
    ("/s/ostrey/foundations/tokens/", "tokens", "a.json", lambda: b'{"a":' * 300_000),
    ("/s/ostrey/pages/wording/brought/", "file", "a.xlf", lambda: b"<a>" * 600_000),
    ("/s/ostrey/pages/wording/brought/", "file", "a.csv", lambda: b'"' * 1_000_000),
    ("/s/ostrey/pages/wording/brought/", "file", "a.csv", lambda: b"\0," * 500_000),
]


@pytest.mark.parametrize("at", range(len(HOSTILE)))
def test_a_file_that_is_made_to_do_harm_is_refused_in_a_sentence_and_nothing_is_changed(
    ferries: StoredSite, ada: User, at: int
) -> None:
    address, field, name, made = HOSTILE[at]
    data = made()
    assert len(data) < 2_000_000
    before = content_hash(store.load(ferries.pk).site)
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    client = signed_in(ada)
    answer = client.post(address, {field: SimpleUploadedFile(name, data)})
    answer = client.get(answer["Location"]) if answer.status_code in {302, 303} else answer
    grown = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - peak
    assert answer.status_code in {200, 422} and re.search(
        r"not taken|is no |is not |cannot be used", answer.content.decode()
    )
    assert grown < 150_000, "what it swells to is not in this process"
    assert content_hash(store.load(ferries.pk).site) == before and StoredSite.objects.count() == 1


def test_a_name_and_a_password_can_be_sent_by_anybody_and_edits_by_who_is_signed_in(
    ada: User, ferries: StoredSite
) -> None:
    signing_in = Client(HTTP_HOST="localhost").post(
        "/account/sign-in/", "username=ada&password=p", content_type="application/x-www-form-urlencoded"
    )
    assert signing_in.status_code == 302
    form = {"do": "set", "node": "site", "field": "name", "value": "Boats", "base": ferries.revision}
    assert signed_in(ada).post("/s/ostrey/", form).status_code in {200, 302, 405}


def waiting_work(site: StoredSite, author: User, data: bytes, name: str = "in.zip") -> Work:
    work = Work.objects.create(site=site, author=author, kind="bring in", name=name)
    work.file.save(name, ContentFile(data))
    return work


def test_work_that_ends_in_a_fault_of_ours_says_so_and_is_over(
    ferries: StoredSite, ada: User, monkeypatch: pytest.MonkeyPatch
) -> None:
    work = waiting_work(ferries, ada, archive({"index.html": b"<p>x"}))

    def fails(_: int) -> None:
        raise RuntimeError("a fault")

    monkeypatch.setattr(arriving, "take_in", fails)
    with pytest.raises(RuntimeError):
        tasks.take_in(work.pk)
    work.refresh_from_db()
    assert work.state == Work.State.FAILED and "nothing was changed" in work.message


def fill_the_disk(monkeypatch: pytest.MonkeyPatch, error: Exception) -> None:
    """Nothing more can be kept: neither files nor contents nor what was done."""

    def full(*_: Any, **__: Any) -> Any:
        raise error

    for kept in (
        "sites.storage.ContentStorage.keep",
        "sites.contents.keep_contents",
        "sites.store.Revision.objects.create",
    ):
        monkeypatch.setattr(f"upper_rim.web.{kept}", full)
    monkeypatch.setattr(FileSystemStorage, "_save", full)


def full_database() -> Exception:
    error = OperationalError("could not extend file")
    error.__cause__ = psycopg.errors.DiskFull("could not extend file")
    return error


@pytest.mark.django_db(transaction=True)
@pytest.mark.parametrize("error", [OSError(errno.ENOSPC, "No space left on device"), full_database()])
def test_a_full_disk_is_said_and_nothing_is_changed(
    ferries: StoredSite, ada: User, monkeypatch: pytest.MonkeyPatch, error: Exception
) -> None:
    fill_the_disk(monkeypatch, error)
    client = signed_in(ada)
    client.raise_request_exception = False
    archived = SimpleUploadedFile("in.zip", archive({"index.html": b"<p>x"}))
    for address, form in (
        ("/s/ostrey/pages/bring-in/", {"file": archived}),
        ("/s/ostrey/foundations/", {"do": "set", "node": "site", "field": "name", "value": "Boats"}),
    ):
        answer = client.post(address, {**form, "base": ferries.revision})
        assert answer.status_code == 507 and NO_ROOM in unquote(answer["X-Rim-Wrong"])
    assert store.load(ferries.pk)[0].name != "Boats"
    assert client.get("/s/ostrey/pages/").status_code == 200


def test_work_for_which_the_disk_has_no_room_says_so_and_the_site_shows_its_last_edition(
    ferries: StoredSite, ada: User, monkeypatch: pytest.MonkeyPatch
) -> None:
    work = waiting_work(ferries, ada, archive({"index.html": b"<p>x"}))
    edition = Edition.objects.create(site=ferries, author=ada, number=7, revision=ferries.revision)
    fill_the_disk(monkeypatch, OSError(errno.ENOSPC, "No space left on device"))
    with pytest.raises(OSError, match="No space"):
        tasks.take_in(work.pk)
    with pytest.raises(OSError, match="No space"):
        tasks.publish(edition.pk)
    work.refresh_from_db()
    edition.refresh_from_db()
    assert work.state == Work.State.FAILED and work.message == NO_ROOM
    assert edition.state == Edition.State.FAILED and edition.message.startswith(NO_ROOM)


@pytest.mark.django_db(transaction=True)
def test_a_job_whose_worker_died_three_times_fails_with_its_reason(ada: User, monkeypatch: pytest.MonkeyPatch) -> None:
    work = waiting_work(store.new_site(ada, *quillwort(), slug="plants"), ada, b"")
    Work.objects.filter(pk=work.pk).update(state=Work.State.WORKING)
    job_id = tasks.take_in.defer(work_id=work.pk)
    done: list[str] = []

    def stalled(attempts: int) -> Job:
        return Job(id=job_id, status="doing", queue="default", lock=None, queueing_lock=None, task_name="take_in",
                   task_kwargs={"work_id": work.pk}, attempts=attempts)  # fmt: skip

    async def take_up(attempts: int) -> None:
        async def listed(**_: Any) -> list[Job]:
            return [stalled(attempts)]

        async def retried(job: Job, **_: Any) -> None:
            done.append("retried")

        async def finished(job: Job, status: Any, **_: Any) -> None:
            done.append(str(status.value))

        monkeypatch.setattr(app.job_manager, "get_stalled_jobs", listed)
        monkeypatch.setattr(app.job_manager, "retry_job", retried)
        monkeypatch.setattr(app.job_manager, "finish_job", finished)
        await tasks.take_up_stalled.func(None, 0)

    for attempts in range(3):
        asyncio.run(take_up(attempts))
    assert done == ["retried", "retried", "failed"]
    work.refresh_from_db()
    assert work.state == Work.State.FAILED and "three times" in work.message


def test_who_has_much_waiting_keeps_nobody_else_waiting(ferries: StoredSite, ada: User, ben: User) -> None:
    other = store.new_site(ben, *quillwort(), slug="plants")
    for _ in range(3):
        begin_work(waiting_work(ferries, ada, b""), tasks.take_in)
    begin_work(waiting_work(other, ben, b""), tasks.take_in)
    begin_edition(publishing.new_edition(other, ben.pk), tasks.publish)
    begin_work(waiting_work(ferries, ada, b""), tasks.take_in)
    with connection.cursor() as cursor:
        cursor.execute("select args from procrastinate_jobs where status = 'todo' order by priority desc, id")
        queued = [row[0] if isinstance(row[0], dict) else json.loads(row[0]) for row in cursor.fetchall()]
    owners = [
        (Work.objects.get(pk=one["work_id"]) if "work_id" in one else Edition.objects.get(pk=one["edition_id"])).author
        for one in queued
    ]
    assert owners == [ada, ben, ada, ben, ada, ada]

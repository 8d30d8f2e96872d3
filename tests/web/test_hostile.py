"""The studio under attack: who may send a body, and what becomes of work that its worker does not survive."""

from __future__ import annotations

import asyncio
import io
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.core.files.base import ContentFile
from django.test import Client
from procrastinate.contrib.django import app
from procrastinate.jobs import Job

from tests.broken_pages import archive
from upper_rim.web.accounts.bodies import LARGEST_SIGN_IN
from upper_rim.web.jobs import arriving, tasks
from upper_rim.web.sites.models import StoredSite, Work

from .conftest import signed_in


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


@pytest.mark.django_db(transaction=True)
def test_a_job_whose_worker_died_three_times_fails_with_its_reason(ada: User, monkeypatch: pytest.MonkeyPatch) -> None:
    from upper_rim.demo import quillwort
    from upper_rim.web.sites import store

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

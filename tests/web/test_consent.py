"""Answers to a question about consent on record, and the screen on which is said what waits for what."""

from __future__ import annotations

import html
from datetime import timedelta
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.test import Client
from django.utils import timezone

from upper_rim.core.gates.asking import asked_in_short
from upper_rim.core.model.site import Site
from upper_rim.web.jobs import publishing
from upper_rim.web.live import consent
from upper_rim.web.sites import store
from upper_rim.web.sites.models import ConsentRecord, StoredSite

from .conftest import signed_in

RECORDS, SCREEN = "/_rim/consent", "/s/ostrey/gates/"


@pytest.fixture
def live(ferries: StoredSite, ada: User) -> Client:
    publishing.make_edition(publishing.new_edition(ferries, ada.pk).pk)
    return Client(HTTP_HOST="ostrey.localhost", REMOTE_ADDR="198.51.100.7")


def told(answer: Any) -> str:
    return html.unescape(answer.content.decode())


def answer(client: Client, stored: StoredSite, **said: str) -> Any:
    asked = asked_in_short(store.load(stored.pk).site)
    return client.post(RECORDS, {"asked": asked, "yes": "statistics", "number": "12-34", **said})


def site_of(stored: StoredSite) -> Site:
    return store.load(stored.pk).site


def test_an_answer_is_taken_down_without_an_address(live: Client, ferries: StoredSite) -> None:
    assert answer(live, ferries).status_code == 204
    assert answer(live, ferries, yes="").status_code == 204
    no, yes = ConsentRecord.objects.all()
    assert (yes.yes, no.yes, yes.region, yes.number) == (["statistics"], [], "DE-BY", "12-34")
    assert yes.asked == asked_in_short(site_of(ferries)) and timezone.now() - yes.at < timedelta(minutes=1)
    assert not any("198.51" in str(getattr(yes, field.name)) for field in ConsentRecord._meta.fields)


@pytest.mark.parametrize(
    ("said", "status"),
    [
        ({"yes": "everything"}, 422),
        ({"asked": "<script>"}, 422),
        ({"number": "x" * 30}, 422),
        ({"number": ""}, 422),
        ({"yes": "a" * 200_000}, 413),
    ],
)
def test_what_is_no_answer_is_not_kept(live: Client, ferries: StoredSite, said: dict[str, str], status: int) -> None:
    assert answer(live, ferries, **said).status_code == status
    assert not ConsentRecord.objects.exists()


def test_only_the_site_itself_can_send_one_and_nobody_reads_any(live: Client, ferries: StoredSite) -> None:
    assert live.get(RECORDS).status_code == 405
    asked = {"asked": asked_in_short(site_of(ferries)), "yes": "", "number": "1"}
    assert live.post(RECORDS, asked, headers={"Origin": "https://elsewhere.example"}).status_code == 403
    assert live.get("/_rim/gates/consent.json").status_code == 404
    other = Client(HTTP_HOST="quillwort.localhost")
    assert other.post(RECORDS, asked).status_code == 404
    assert not ConsentRecord.objects.exists()


def test_so_many_in_a_minute_and_no_more(live: Client, ferries: StoredSite, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(consent, "MOST_IN_A_MINUTE", 3)
    assert {answer(live, ferries).status_code for _ in range(5)} == {204}
    assert ConsentRecord.objects.count() == 3


def test_what_was_kept_for_its_time_goes(live: Client, ferries: StoredSite, ada: User) -> None:
    answer(live, ferries)
    ConsentRecord.objects.update(at=timezone.now() - timedelta(days=1094))
    answer(live, ferries)
    assert ConsentRecord.objects.count() == 2
    client = signed_in(ada)
    assert (
        client.post(SCREEN, {"do": "set", "node": "site", "field": "consent.kept_days", "value": "30"}).status_code
        == 200
    )
    client.get(SCREEN)
    assert ConsentRecord.objects.count() == 1


def test_answers_are_taken_along_as_a_file_by_those_who_work_on_the_site(
    live: Client, ferries: StoredSite, ada: User, ben: User
) -> None:
    client = signed_in(ada)
    assert "No answer is on record yet" in told(client.get(SCREEN))
    answer(live, ferries, number="=cmd", yes="preferences.statistics")
    answer(live, ferries, number="7", yes="preferences.statistics")
    listed = client.get(f"{SCREEN}answers.csv")
    assert listed["Content-Disposition"] == 'attachment; filename="ostrey-consent.csv"'
    head, *lines = listed.content.decode("utf-8-sig").split("\r\n")
    assert head == "Answered,Number,Asked,Yes to,Region" and len(lines) == 2
    assert ",7," in lines[0] and ",preferences statistics,DE-BY" in lines[0]
    assert signed_in(ben).get(f"{SCREEN}answers.csv").status_code == 404
    assert "Export 1 answer as CSV" in told(client.get(SCREEN))


def test_a_host_is_said_to_wait_or_left(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    shown = told(client.get(SCREEN))
    assert shown.count('data-test="host"') == 2 and "as saltmarsh.example" in shown
    for value, kept in (("statistics", "statistics"), ("left", None)):
        assert client.post(SCREEN, {"do": "host", "host": "saltmarsh.example", "value": value}).status_code == 200
        assert {one.host: one.category for one in site_of(ferries).hosts}["saltmarsh.example"] == kept
    assert (
        client.post(SCREEN, {"do": "host", "host": "https://New.Example/x", "value": "statistics"}).status_code == 200
    )
    assert site_of(ferries).hosts[-1].host == "new.example"
    before = site_of(ferries)
    for post in ({"host": "", "value": "statistics"}, {"host": "new.example", "value": "gone"}):
        assert client.post(SCREEN, {"do": "host", **post}).status_code == 422
    assert site_of(ferries) == before


def test_categories_come_and_go_and_stay_while_something_waits(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    assert client.post(SCREEN, {"do": "category", "name": "Über films"}).status_code == 200
    made = site_of(ferries).categories[-1]
    assert made.words.text == "Über films" and made.id == "ber-films"
    for name in ("Über films", "", "Statistics"):
        assert client.post(SCREEN, {"do": "category", "name": name}).status_code == 422
    assert client.post(SCREEN, {"do": "remove", "node": made.id}).status_code == 200
    refused = client.post(SCREEN, {"do": "remove", "node": "statistics"})
    assert refused.status_code == 422 and "waits for a yes to something that is not asked for" in told(refused)


@pytest.mark.parametrize(
    ("field", "value", "kept"),
    [
        ("days", "30", 30),
        ("heeds_signal", "", False),
        ("modes", "US opt-in, gb-wls notice", [("US", "opt-in"), ("GB-WLS", "notice")]),
        ("modes", "", []),
        ("days", "never", None),
        ("modes", "US perhaps", None),
        ("nothing", "1", None),
    ],
)
def test_how_answers_count_is_said_on_the_workbench(
    ferries: StoredSite, ada: User, field: str, value: str, kept: Any
) -> None:
    client, before = signed_in(ada), site_of(ferries).consent
    answered = client.post(
        "/s/ostrey/pieces/pc-consent/", {"do": "set", "node": "site", "field": f"consent.{field}", "value": value}
    )
    after = site_of(ferries).consent
    if kept is None:
        assert answered.status_code == 422 and after == before
    else:
        found = getattr(after, field)
        assert (
            answered.status_code == 200
            and ([tuple(one.model_dump().values()) for one in found] if field == "modes" else found) == kept
        )


def test_cookies_are_named_or_refused(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    form = {"do": "set", "node": "statistics", "field": "cookies"}
    assert client.post("/s/ostrey/pieces/pc-consent/", {**form, "value": "tm_*, seen"}).status_code == 200
    assert site_of(ferries).categories[-1].cookies == ("tm_*", "seen")
    assert client.post("/s/ostrey/pieces/pc-consent/", {**form, "value": "a;b"}).status_code == 422


def test_a_site_that_asks_nobody_says_what_to_do(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    client.post("/s/ostrey/pieces/", {"do": "remove", "node": "pc-consent"})
    shown = told(client.get(SCREEN))
    assert "nobody is asked yet" in shown and "Hosts wait for a yes, and nobody is asked: 2" in shown
    assert 'href="/s/ostrey/pieces/new/?kind=consent"' in shown
    fetching = [one.id for one in site_of(ferries).hosts] + ["sn-counting", "it-help-chart"]
    for node in fetching:
        assert client.post(SCREEN, {"do": "remove", "node": node}).status_code == 200
    assert 'data-test="no-hosts"' in told(client.get(SCREEN))


def test_a_visit_tells_whom_a_page_asks_before_and_after_an_answer(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    shown = told(client.get(SCREEN, {"page": "/travelling/"}))
    hosts = shown[shown.index('data-test="visit-hosts"') :][:900]
    assert "before an answer</span> no other host" in hosts and "after a no</span> no other host" in hosts
    assert "after a yes</span> charts.saltmarsh.example, count.tidemark.example" in hosts
    assert "visit-hosts" not in told(client.get(SCREEN, {"page": "/nowhere/"}))
    client.post("/s/ostrey/pieces/", {"do": "remove", "node": "pc-consent"})
    assert "visit-hosts" not in told(client.get(SCREEN, {"page": "/travelling/"}))

"""The board in the studio: what it says, and the exceptions that are taken on it."""

from __future__ import annotations

import json
from typing import Any

import pytest
from django.contrib.auth.models import User

from upper_rim.core.conditions.below import Below
from upper_rim.core.conditions.on_page import OnPage
from upper_rim.core.model.site import Page
from upper_rim.web.sites import ids, store
from upper_rim.web.sites.models import StoredSite

from .conftest import signed_in

BOARD = "/s/ostrey/board/"


def seen(user: User, **asked: str) -> str:
    answer = signed_in(user).get(BOARD, asked)
    assert answer.status_code == 200
    return str(answer.content.decode())


def test_a_cell_tells_what_shows_and_why(ferries: StoredSite, ada: User) -> None:
    html = seen(ada, cell="header page /guide/", open="/guide/")
    assert "Header of the guide, on /guide/" in html and "Not Header of the guide on this page" in html
    html = seen(ada, cell="header below /guide/")
    assert "Main header on 5 of 6" in html and "Header of the guide on 1 of 6" in html
    html = seen(
        ada, **{"as": "vc-regular", "against": "vc-first", "cell": "notice page /harbours/", "open": "/harbours/"}
    )
    assert "Winter timetable, everywhere; First visit is for those who come for the first time." in html
    assert "A→B" in html and "differs" in html
    html = seen(ada, **{"as": "vc-first", "cell": "notice page /travelling/", "open": "/travelling/"})
    assert "Winter weekends, on /travelling/ and below" in html
    html = seen(
        ada, **{"as": "vc-first", "at": "2026-11-25T12:00", "cell": "notice page /travelling/", "open": "/travelling/"}
    )
    assert "Winter weekends is for everybody from 2 Nov until 28 Mar each year" in html, "on a Wednesday"


def test_an_exception_is_taken_where_it_is_seen(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    rule = {"do": "add", "what": "rule", "cell": "header page /guide/birds/", "open": "/guide/", "band": "bd-wide"}
    answer = client.post(
        BOARD, {**rule, "parent": "pc-main", "shows": "false", "where": "page", "value": "/guide/birds/"}
    )
    html = answer.content.decode()
    assert "Nothing: except on /guide/birds/" in html and 'aria-selected="true"' in html, "one stays where one is"
    below = {**rule, "parent": "pc-press", "shows": "true", "where": "below", "value": "/shop/"}
    client.post(BOARD, {**below, "cell": "header below /shop/"})
    pieces = {piece.id: piece for piece in store.load(ferries.pk).site.pieces}
    assert pieces["pc-main"].reach[-1].where == OnPage(page="pg-birds") and not pieces["pc-main"].reach[-1].shows
    assert pieces["pc-press"].reach[-1].where == Below(path="/shop/") and pieces["pc-press"].reach[-1].shows


@pytest.mark.parametrize(
    "asked",
    [
        {"cell": "x"}, {"cell": "gate page /"}, {"cell": "header page /nowhere/"}, {"open": "|||/nowhere/"}, {"band": "bd-x"},
        {"as": "vc-x", "against": "vc-first"}, {"as": "vc-first", "at": "sometime"}, {"upto": "99999999999999"}, {"upto": "-1"},
    ],
)  # fmt: skip
def test_what_nobody_can_have_asked_for_is_a_board_all_the_same(
    asked: dict[str, str], ferries: StoredSite, ada: User
) -> None:
    assert "What shows on which pages" in seen(ada, **asked)


def test_many_pages_come_some_at_a_time(ada: User, ferries: StoredSite) -> None:
    pages = tuple(Page(id=f"pg-n{at}", path=f"/news/{at:03}/") for at in range(250))
    site = store.load(ferries.pk).site
    store.new_site(ada, site.replaced(key=ids.new_key(), pages=pages), {}, slug="news")
    client: Any = signed_in(ada)
    html = client.get("/s/news/board/").content.decode()
    assert html.count('data-test="row"') == 1 and "250 pages" in html
    html = client.get("/s/news/board/?open=/news/").content.decode()
    assert html.count('data-test="row"') == 201 and "Show more of the 50 pages" in html
    assert client.get("/s/news/board/?open=/news/&upto=400").content.decode().count('data-test="row"') == 251


def test_the_board_is_taken_along_as_a_file_by_those_who_work_on_it(ferries: StoredSite, ada: User, ben: User) -> None:
    def taken(user: User, form: str, **asked: str) -> Any:
        answer: Any = signed_in(user).get(f"{BOARD}{form}/", asked)
        return b"".join(answer.streaming_content) if answer.status_code == 200 else answer.status_code

    rows = json.loads(taken(ada, "json"))
    assert len(rows) == 42 * 9 * 3 and {row["card"] for row in rows} == {""}
    rows = json.loads(taken(ada, "json", **{"as": "vc-first", "against": "vc-regular"}))
    assert {row["card"] for row in rows} == {"First visit, phone", "Regular, signed in"}
    assert taken(ada, "csv").startswith(b"page,slot,band,piece,why,rule,beaten,not_for_them,card\r\n/,header,Narrow,")
    assert taken(ada, "exe") == taken(ben, "csv") == 404
    assert signed_in(ben).get(BOARD).status_code == 404

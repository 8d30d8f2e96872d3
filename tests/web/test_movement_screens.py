"""The screens of movement: what they say, what they refuse, and what becomes of what is posted."""

from __future__ import annotations

import json
from html import unescape

import pytest
from django.contrib.auth.models import User
from django.test import Client

from upper_rim.core.kinds.moving import ByElement, ByPage, Stage
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.web.sites import store
from upper_rim.web.sites.models import StoredSite

from .conftest import signed_in

pytestmark = pytest.mark.django_db(transaction=True)
BENCH = "/s/ostrey/pieces/pc-main/"


def header_of(stored: StoredSite) -> Header:
    header = store.load(stored.pk).site.pieces[0]
    assert isinstance(header, Header)
    return header


def stage_of(stored: StoredSite, stage: str) -> Stage:
    return next(one for one in header_of(stored).stages if one.id == stage)


def said(client: Client, address: str, **asked: str) -> str:
    return unescape(client.get(address, asked).content.decode())


def set_(client: Client, node: str, field: str, value: str, **more: object) -> int:
    form = {"do": "set", "node": node, "field": field, "value": value, **more}
    return client.post(BENCH, form).status_code


def test_distances_are_typed_with_what_they_count(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    assert set_(client, "sg-reading", "after", "30", unit="page") == 200
    assert stage_of(ferries, "sg-reading").after == ByPage(percent=30)
    assert set_(client, "sg-reading", "after", "#tides", unit="element") == 200
    assert stage_of(ferries, "sg-reading").after == ByElement(selector="#tides")
    for value, unit in (("soon", "px"), ("", "px"), ("120", "page"), ("p >", "element"), ("3", "miles"), ("-4", "px")):
        assert set_(client, "sg-reading", "after", value, unit=unit) == 422, (value, unit)
    assert stage_of(ferries, "sg-reading").after == ByElement(selector="#tides")
    assert set_(client, "pc-main", "hides_until", "200", unit="px") == 200
    assert set_(client, "pc-main", "hides_until", "", unit="px") == 200
    assert header_of(ferries).hides_until is None


def test_a_way_by_width_and_what_a_stage_leaves_out_are_chosen(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    assert set_(client, "pc-main", "moves_in", "away", band="bd-wide") == 200
    assert header_of(ferries).way_in("bd-wide") == "away" and header_of(ferries).way_in("bd-narrow") == "up"
    assert set_(client, "pc-main", "moves_in", "", band="bd-wide") == 200
    assert header_of(ferries).way_in("bd-wide") == "stays"
    assert set_(client, "sg-slim", "without", "", values=["rw-main", "it-logo", "it-menu", "rw-above"]) == 200
    assert set(stage_of(ferries, "sg-slim").without) == {
        "it-tagline",
        "it-phone",
        "it-languages",
        "it-search",
        "it-book",
    }
    assert set_(client, "sg-slim", "logo_percent", "5") == 422


def test_a_stage_begins_later_hands_over_and_goes_with_its_rows(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    before = store.load(ferries.pk).site
    client.post(BENCH, {"do": "add", "what": "stage", "parent": "pc-main", "name": "Late"})
    stage = header_of(ferries).stages[-1]
    assert stage.name == "Late" and stage.after.kind == "px" and stage.after.px == 700
    client.post(BENCH, {"do": "hand-over:copy", "node": stage.id})
    rows = [row for row in header_of(ferries).rows if row.stage == stage.id]
    assert [row.name for row in rows] == ["Tagline row", "Main row"]
    assert not {row.id for row in rows} & {"rw-above", "rw-main"}
    client.post(BENCH, {"do": "hand-over:new", "node": stage.id})
    assert len([row for row in header_of(ferries).rows if row.stage == stage.id]) == 3
    client.post(BENCH, {"do": "remove", "node": stage.id})
    assert store.load(ferries.pk).site.pieces == before.pieces
    assert client.post(BENCH, {"do": "hand-over:copy", "node": stage.id}).status_code == 422
    assert client.post(BENCH, {"do": "add", "what": "stage", "parent": "pc-footer"}).status_code == 422


def test_a_header_is_doubled_with_its_stages(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    client.post("/s/ostrey/pieces/", {"do": "duplicate", "node": "pc-main"})
    copy = next(piece for piece in store.load(ferries.pk).site.pieces if piece.name == "Main header, copy")
    assert isinstance(copy, Header)
    assert copy.stages[0].without == (copy.rows[0].id,) and copy.rows[2].stage == copy.stages[1].id


def test_a_distance_that_would_flicker_is_refused_at_its_place(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    form = {"do": "set", "node": "sg-slim", "field": "after", "value": "20", "unit": "px", "select": "sg-slim"}
    refused = client.post(BENCH, form)
    told = unescape(refused.content.decode())
    assert refused.status_code == 422 and "From 77 px on neither happens" in told and "border-brick" in told
    assert set_(client, "sg-slim", "after", "77", unit="px") == 200


def test_the_workbench_tells_of_movement(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    shown = said(client, BENCH, page="/guide/walks/", tray="movement")
    assert "While one scrolls" in shown and "after 80 px" in shown and "shows when one scrolls up" in shown
    assert 'id="grip-sg-slim"' in shown and "Nothing is wrong with it" in shown
    short = said(client, BENCH, page="/shop/", tray="movement")
    assert "is not reached here" in short
    stage = said(client, BENCH, page="/guide/walks/", select="sg-slim")
    assert "Main row: 52 px. Menu: Main and Button: Book: 44 px" in stage
    for piece in ("pc-footer", "pc-guide", "pc-bar", "pc-book", "pc-winter"):
        assert "While one scrolls" in said(client, f"/s/ostrey/pieces/{piece}/", tray="movement")
    again = client.get(
        f"{BENCH}scroll-ruler/", {"page": "/guide/walks/", "width": "1120"}, headers={"X-Rim-Shape": "2400 700"}
    )
    assert 'data-scrolls="1700"' in again.content.decode() and "data-measured" in again.content.decode()
    assert client.get("/s/ostrey/pieces/pc-none/scroll-ruler/").status_code == 404


def test_the_study_plays_what_is_asked_for_and_says_what_cannot_be_read(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    study = f"{BENCH}movement/"
    shown = said(client, study, page="/guide/walks/", shape="844x390", path="0, 900, 300")
    assert "Along the way, on 844 × 390" in shown and "33 % of the window is covered" in shown
    frames = json.loads(shown.split('<script id="frames" type="application/json">')[1].split("</script>")[0])
    assert frames[0][0] == 0 and frames[-1][0] == 300
    for path in ("", "40", "0, x", "0," * 30, "0, 99999999"):
        assert "two to twenty positions" in said(client, study, page="/guide/walks/", path=path or " ")
    pinned = said(client, study, page="/guide/walks/", without="pinned")
    assert "With nothing pinned" in pinned

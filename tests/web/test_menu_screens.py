"""The menus' screens as forms: entries and what stands beside them, what grows, what is pasted, what is doubtful."""

from __future__ import annotations

import re
from html import unescape
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.test import Client

from upper_rim.core.fit.advice.opened import all_opened
from upper_rim.core.kinds.entries import Entry, Grown
from upper_rim.core.kinds.items.menu import MenuItem
from upper_rim.core.kinds.pieces.drawer import Drawer
from upper_rim.core.model.navigation.menus import Menus, all_entries
from upper_rim.core.model.site import Menu, Page, Site
from upper_rim.core.model.tree import items_of
from upper_rim.core.values.targets import ToPage, ToPlace
from upper_rim.web.sites import store
from upper_rim.web.sites.fitters import site_fitter
from upper_rim.web.sites.models import StoredSite

from .conftest import signed_in

MENU = "/s/ostrey/menus/mn-main/"
BENCH = "/s/ostrey/pieces/pc-main/"


def main_menu(stored: StoredSite) -> Menu:
    menu = store.load(stored.pk).site.menu("mn-main")
    assert menu is not None
    return menu


def entry(stored: StoredSite, node: str) -> Entry:
    return next(one for one in all_entries(main_menu(stored).entries) if one.id == node)


def set_field(client: Client, node: str, field: str, value: str, **more: str) -> Any:
    return client.post(MENU, {"do": "set", "node": node, "field": field, "value": value, **more})


def said(client: Client, address: str = MENU, **asked: str) -> str:
    """The screen, its lines and indents as single spaces."""
    return " ".join(unescape(client.get(address, asked).content.decode()).split())


def test_an_entry_has_more_than_a_label(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    for field, value in {"second": "Five of them", "mark": "New", "icon": "anchor", "new_window": "true"}.items():
        set_field(client, "en-harbours", field, value)
    set_field(client, "en-harbours", "mark", "Neu", language="de")
    set_field(client, "en-harbours", "picture", "/pictures/osterhaven.svg")
    found = entry(ferries, "en-harbours")
    assert (found.second.text, found.mark.text, found.icon, found.new_window) == ("Five of them", "New", "anchor", True)
    assert found.mark.in_language("de") == "Neu"
    shown = said(client, select="en-harbours")
    assert "Neu" in shown and "Five of them" in shown
    assert set_field(client, "en-harbours", "icon", "no-such-icon").status_code == 422
    set_field(client, "en-harbours", "icon", "")
    assert entry(ferries, "en-harbours").icon is None


def test_a_place_in_a_page_is_offered_and_chosen(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    set_field(client, "en-shop", "target", "/")
    places = re.findall(r'<option value="(/#[^"]+)"', said(client, select="en-shop"))
    assert "/#sailing-today" in places, "headings of pages written by hand have ids"
    set_field(client, "en-shop", "target", "/#sailing-today")
    assert entry(ferries, "en-shop").target == ToPlace(page="pg-home", place="sailing-today")
    assert 'value="/#sailing-today" selected' in said(client, select="en-shop")
    set_field(client, "en-shop", "target", "/shop/")
    assert entry(ferries, "en-shop").target == ToPage(page="pg-shop")


def test_a_sections_pages_grow_are_left_out_and_taken_back(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    set_field(client, "en-guide", "grows", "", path="/guide")
    site = store.load(ferries.pk).site
    assert entry(ferries, "en-guide").grows == Grown(path="/guide/", depth=2)
    below = next(one for one in Menus(site).whole(main_menu(ferries)) if one.id == "en-guide").entries
    assert len(below) >= 4 and below[0].id.startswith("pg-")
    client.post(MENU, {"do": "set", "node": "en-guide", "field": "grows", "leave": below[0].id})
    grows = entry(ferries, "en-guide").grows
    assert (
        grows is not None
        and grows.without == (below[0].id,)
        and 'data-test="take-back"' in said(client, select="en-guide")
    )
    client.post(MENU, {"do": "set", "node": "en-guide", "field": "grows", "back": below[0].id})
    set_field(client, "en-guide", "grows", "", path="/guide/", depth="1", order="title")
    assert entry(ferries, "en-guide").grows == Grown(path="/guide/", depth=1, order="title")
    assert set_field(client, "en-guide", "grows", "", path="/guide/", depth="99").status_code == 422
    set_field(client, "en-guide", "grows", "", path="")
    assert entry(ferries, "en-guide").grows is None


def keep_text(client: Client, text: str, **more: str) -> Any:
    return client.post(MENU, {"do": "menu-text", "menu": "mn-main", "value": text, **more})


def shown_text(client: Client, **asked: str) -> tuple[str, str]:
    """The menu as text, and what it is known by."""
    told = unescape(client.get(MENU, asked).content.decode())
    text = re.search(r'data-test="menu-text">(.*?)</textarea>', told, re.DOTALL)
    known = re.search(r'name="told" value="([^"]+)"', told)
    assert text and known
    return text[1], known[1]


def test_the_menu_is_edited_as_text(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    before = store.load(ferries.pk)
    text, told = shown_text(client)
    assert keep_text(client, text, told=told).status_code == 200
    assert store.load(ferries.pk).site == before.site, "its own text changes nothing"
    changed = text.replace("Fares | /sailings/fares/\n", "").replace("Shop | /shop/", "Shop on board | /shop/")
    keep_text(client, changed + "Mail | post@ostrey.example\n    Fares | /sailings/fares/\n", told=told)
    *_, shop, mail = main_menu(ferries).entries
    assert (shop.id, shop.label.text, mail.entries[0].id) == ("en-shop", "Shop on board", "en-fares")
    client.post(MENU, {"do": "undo"})
    assert store.load(ferries.pk).site == before.site, "all of it is one step"


def test_the_same_is_seen_and_edited_as_a_table_with_its_languages(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    before = store.load(ferries.pk).site
    table, told = shown_text(client, **{"as": "table"})
    assert table.startswith("level,label,leads to,second line,mark,label ar,label cy,label de\n")
    keep_text(client, table, told=told, **{"as": "table"})
    assert store.load(ferries.pk).site == before
    answer = keep_text(client, table.replace("Häfen", "Die Häfen"), told=told, **{"as": "table"})
    assert entry(ferries, "en-harbours").label.in_language("de") == "Die Häfen"
    assert "1,Harbours,/harbours/" in unescape(answer.content.decode()), "what is shown stays a table"


def test_a_table_is_read_as_text_too(ferries: StoredSite, ada: User) -> None:
    text = "level,label,leads to,label de\n1,Eagles,/guide/birds/,Adler\n2,Nests,/guide/birds/#nests,\n"
    keep_text(signed_in(ada), text)
    (eagles,) = main_menu(ferries).entries
    assert eagles.label.in_language("de") == "Adler"
    assert eagles.entries[0].target == ToPlace(page="pg-birds", place="nests")


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("A\nBad | ftp://x", "line 2: “ftp://x” leads nowhere"),
        ("A\n    B\n  C", "line 3: it is indented less"),
        ("level,label\n7,A\n", "line 2: it is on level 7"),
        ("* all below /guide/ | without /none/", "line 1: there is no page at /none/"),
    ],
)
def test_a_text_with_a_broken_line_is_refused_with_its_reason(
    ferries: StoredSite, ada: User, text: str, said: str
) -> None:
    before = store.load(ferries.pk)
    answer = keep_text(signed_in(ada), text)
    assert answer.status_code == 422 and said in unescape(answer.content.decode())
    assert store.load(ferries.pk) == before


def test_a_text_that_was_begun_before_the_menu_changed_takes_nothing_away(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    text, told = shown_text(client)
    client.post(MENU, {"do": "add", "what": "entries", "parent": "mn-main", "label": "New", "value": "/press/"})
    before = store.load(ferries.pk)
    answer = keep_text(client, text, told=told)
    assert answer.status_code == 422 and "has changed meanwhile" in answer.content.decode()
    assert store.load(ferries.pk) == before


def test_the_navigation_of_a_page_is_offered_as_lines_to_go_on_with(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    markdown = (
        "# Old\n\n- [Fares](/sailings/fares/)\n    - [Birds](/guide/birds/)\n- [Elsewhere](https://other.example/)\n"
    )
    client.post("/s/ostrey/pages/", {"do": "add", "what": "page", "title": "Old", "path": "/old/", "source": markdown})
    shown = unescape(client.get(MENU, {"from": "/old"}).content.decode())
    assert 'data-test="navigation"' in shown and "3 entries" in shown
    lines = "Fares | /sailings/fares/\n    Birds | /guide/birds/\nElsewhere | https://other.example/\n"
    assert f'data-lines="{lines}"' in shown
    assert "There is no page at /nowhere" in said(client, **{"from": "/nowhere"})
    assert "No list of three links" in said(client, **{"from": "/shop/"})


def hang(client: Client, page: str, do: str = "hang") -> Any:
    return client.post(MENU, {"do": do, "menu": "mn-main", "page": page})


def test_pages_are_put_in_taken_out_and_grow_from_the_tree(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    before = store.load(ferries.pk).site
    hang(client, "pg-birds")
    assert [one.target for one in entry(ferries, "en-guide").entries] == [ToPage(page="pg-birds")]
    hang(client, "pg-birds")
    assert store.load(ferries.pk).site == before
    hang(client, "pg-guide", "grow")
    assert entry(ferries, "en-guide").grows == Grown(path="/guide/")
    shown = said(client)
    assert "5.1*" in shown and 'title="It grows there"' in shown
    hang(client, "pg-birds")
    grows = entry(ferries, "en-guide").grows
    assert grows is not None and grows.without == ("pg-birds",)
    assert hang(client, "pg-nowhere").status_code == 422
    assert client.post(MENU, {"do": "hang", "menu": "mn-none", "page": "pg-birds"}).status_code == 422


def test_an_entry_is_let_go_beside_another_and_a_page_below_one(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    client.post(MENU, {"do": "put:before", "menu": "mn-main", "node": "en-shop", "beside": "en-fares"})
    assert [one.id for one in main_menu(ferries).entries][:3] == ["en-timetable", "en-shop", "en-fares"]
    client.post(MENU, {"do": "put:below", "menu": "mn-main", "node": "pg-birds", "beside": "en-shop"})
    assert [one.target for one in entry(ferries, "en-shop").entries] == [ToPage(page="pg-birds")]
    for wrong in ({"node": "en-none"}, {"node": "en-shop", "do": "put:up"}):
        refused = client.post(MENU, {"do": "put:after", "menu": "mn-main", "beside": "", **wrong})
        assert refused.status_code == 422
    within = client.post(MENU, {"do": "put:below", "menu": "mn-main", "node": "en-harbours", "beside": "en-skarrow"})
    assert within.status_code == 422, "nothing goes into itself"


@pytest.mark.parametrize(
    ("typed", "label", "leads"),
    [("Birds", "", "pg-birds"), ("/guide/birds/", "", "pg-birds"), ("Tides", "Tides", ""), ("a@b.example", "a@b.example", "mailto:a@b.example")],
)  # fmt: skip
def test_what_is_typed_on_the_menu_is_a_page_an_address_or_words(
    ferries: StoredSite, ada: User, typed: str, label: str, leads: str
) -> None:
    form = {"do": "add", "what": "entries", "parent": "mn-main", "at": "1", "typed": typed}
    signed_in(ada).post(MENU, form)
    made = main_menu(ferries).entries[1]
    assert (made.label.text, getattr(made.target, "page", getattr(made.target, "address", ""))) == (label, leads)


def test_a_menu_is_looked_at_in_a_language_and_in_a_header_that_there_could_be(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    assert "/?" not in re.findall(r'data-stage-src="([^"]+)"', said(client))[0]
    german = said(client, lang="de", select="en-harbours")
    assert re.findall(r'data-stage-src="[^"]+/de/"', german) and 'name="value" value="Häfen"' in german
    client.post("/s/ostrey/menus/", {"do": "add", "what": "menu", "name": "Unused"})
    unused = store.load(ferries.pk).site.menus[-1]
    shown = said(client, f"/s/ostrey/menus/{unused.id}/")
    assert f"rim-begun=line&rim-menu={unused.id}" in shown and "shown nowhere yet" in shown


def test_what_is_doubtful_is_told_at_its_entry_and_in_a_list(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    assert 'data-test="finding"' not in said(client)
    set_field(client, "en-guide", "target", "/harbours/#nowhere")
    set_field(client, "en-shop", "target", "/sailings/fares/")
    shown = said(client)
    assert "its page has no place “nowhere” any more" in shown and "leads to the same place as “Fares”" in shown
    assert "2 to look at" in shown and "2 to look at" in said(client, "/s/ostrey/menus/")


def test_an_item_shows_a_part_of_a_menu(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    assert "Shown entries" in said(client, BENCH, select="it-menu")
    site = store.load(ferries.pk).site

    def item() -> MenuItem:
        found = next(one for one in items_of(store.load(ferries.pk).site.pieces) if one.id == "it-menu")
        assert isinstance(found, MenuItem)
        return found

    offered = re.findall(r'name="values" value="([^"]+)" id="c-it-menu-without', said(client, BENCH, select="it-menu"))
    assert {"en-harbours", "en-shop"} <= set(offered)
    form = {"do": "set", "node": "it-menu", "field": "without", "values": [one for one in offered if one != "en-shop"]}
    client.post(BENCH, form)
    client.post(BENCH, {"do": "set", "node": "it-menu", "field": "depth", "value": "1"})
    assert (item().without, item().depth) == (("en-shop",), 1)
    assert "without “Shop”" in said(client) and "1 level deep" in said(client)
    client.post(BENCH, {"do": "set", "node": "it-menu", "field": "depth", "value": ""})
    client.post(BENCH, {**form, "values": offered})
    assert store.load(ferries.pk).site == site


def test_a_new_drawer_is_held_by_the_first_menu_with_a_button_that_holds_none(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    made = client.post(
        "/s/ostrey/pieces/new/", {"do": "add", "what": "piece", "arrangement": "search-first", "name": "Rows"}
    )
    site = store.load(ferries.pk).site
    drawer = next(one for one in site.pieces if one.name == "Rows")
    assert isinstance(drawer, Drawer) and drawer.above == 1
    assert [(piece.id, item.id) for piece, item in site.holders(drawer)] == [("pc-press", "it-press-menu")]
    bench = f"/s/ostrey/pieces/{drawer.id}/"
    assert bench in str(made.headers)
    shown = said(client, bench)
    assert "Where the button of" in shown and "in Press header opens it" in shown and 'value="390"' in shown
    assert "on 3 of 42 pages" in shown and "Rows above" in shown
    refused = client.post("/s/ostrey/pieces/", {"do": "remove", "node": drawer.id})
    assert refused.status_code == 422 and "take it off there first" in unescape(refused.content.decode())
    client.post(bench, {"do": "add", "what": "item", "kind": "menu", "parent": drawer.rows[0].cells[0].id})
    inner = store.load(ferries.pk).site.shown_items(
        next(one for one in store.load(ferries.pk).site.pieces if one.id == drawer.id)
    )[1]
    assert isinstance(inner, MenuItem) and (inner.way, inner.drawer_below) == ("column", None)
    client.post("/s/ostrey/pieces/pc-press/", {"do": "set", "node": "it-press-menu", "field": "drawer", "value": ""})
    assert "No menu holds it yet" in said(client, bench)
    assert "entries only" in said(client, "/s/ostrey/pieces/pc-press/", select="it-press-menu")
    client.post("/s/ostrey/pieces/", {"do": "remove", "node": drawer.id})
    assert drawer.id not in {one.id for one in store.load(ferries.pk).site.pieces}


def test_renaming_and_moving_a_page_follows_through(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    client.post(
        "/s/ostrey/pages/pg-skarrow/", {"do": "set", "node": "pg-skarrow", "field": "path", "value": "/ports/skarrow/"}
    )
    client.post(
        "/s/ostrey/pages/pg-skarrow/", {"do": "set", "node": "pg-skarrow", "field": "title", "value": "Skarrow pier"}
    )
    shown = said(client)
    assert "/ports/skarrow/" in shown and "Skarrow pier" in shown


def big_site(site: Site, count: int) -> Site:
    pages = (page_at(f"/far/{at // 20}/" + (f"{at}/" if at % 20 else "")) for at in range(count))
    far = sorted((*site.pages, *pages), key=lambda page: page.path)
    entries = tuple(
        Entry(id=f"en-{page.id[3:]}", target=ToPage(page=page.id)) for page in far if "/far/3/" in page.path
    )
    return site.replaced(pages=tuple(far), menus=(site.menus[0].replaced(entries=entries), *site.menus[1:]))


def page_at(path: str) -> Page:
    return Page(id="pg" + path.rstrip("/").replace("/", "-"), path=path, title=path)


def test_branches_of_a_large_tree_are_shut_until_they_are_asked_for(ada: User) -> None:
    from upper_rim.demo import ostrey

    site, contents = ostrey()
    store.new_site(ada, big_site(site, 1000), contents, slug="large")
    client, address = signed_in(ada), "/s/large/menus/mn-main/"

    def lines(**asked: str) -> int:
        return said(client, address, **asked).count('data-test="page-line"')

    shut = said(client, address)
    assert lines() < 20 and "20 of 1000" in shut and "▸" in shut
    assert lines(open="/far/") == lines() + 50 and "20 of 19" not in shut
    assert lines(open="/far/ pg-far-7") == lines() + 69
    assert lines(select="en-far-3-65") == lines() + 69, "the way to what is chosen is open"
    assert lines(q="/far/3/") == 20
    assert "No page has that" in said(client, address, q="no such page")


def test_how_long_the_opened_menu_is_on_a_phone_is_told_in_each_language(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)

    def told(**asked: str) -> list[str]:
        return re.findall(r"Opened, ([\d.]+) screens? of a phone", said(client, MENU + "opened/", **asked))

    site = store.load(ferries.pk).site
    header = next(piece for piece in site.pieces if piece.id == "pc-main")
    row = next(row for row in header.rows for cell in row.cells if any(one.id == "it-menu" for one in cell.items))
    fitter = site_fitter(ferries.pk)
    resolved = fitter.resolved(site)
    foreseen = {one.screen: one.screens for one in all_opened(fitter, resolved, header, row, "de")}
    assert told(lang="de") == [str(foreseen[390, 844])] and len(told()) == 1
    client.post("/s/ostrey/menus/", {"do": "add", "what": "menu", "name": "Unused"})
    unused = store.load(ferries.pk).site.menus[-1]
    assert "Opened" not in said(client, f"/s/ostrey/menus/{unused.id}/opened/")
    assert client.get("/s/ostrey/menus/mn-none/opened/").status_code == 404


def test_what_is_chosen_says_how_many_pages_could_grow_from_it(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    assert "Have the 5 pages below it grow" in said(client, select="en-harbours")
    assert "grow-chosen" not in said(client, select="en-skarrow")
    assert "Put it in, and have the 2 below it grow" in said(client, select="pg-press")
    hang(client, "pg-guide", "grow")
    assert "Leave it out" in said(client, select="pg-birds") and "grow-chosen" not in said(client, select="en-guide")

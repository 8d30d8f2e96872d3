"""What is typed at a seam becomes what was most likely meant, and every candidate can stand there."""

from __future__ import annotations

from itertools import count
from typing import Any

import pytest

from upper_rim.core.exchange.imports.typed_items import MOST_OFFERS, ORDER, TypedItem, typed_items
from upper_rim.core.kinds.items import ITEM_KINDS
from upper_rim.core.model.arrangements.arranging import new_item
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Add
from upper_rim.core.model.site import Site
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

from .generated import WORDS


def offered(typed: str) -> list[TypedItem]:
    return typed_items(ostrey()[0], typed, shelf().brands, "pf-new")


def said(one: TypedItem) -> tuple[str, Any]:
    return one.kind, one.fields.get("target", {}).get("address") or one.fields.get("target", {}).get("page")


@pytest.mark.parametrize(
    ("typed", "kind", "leads"),
    [
        ("+44 1632 960144", "icon", "tel:+441632960144"),
        ("quay@ostrey.example", "icon", "mailto:quay@ostrey.example"),
        ("https://www.youtube.com/@ostrey", "social", None),
        ("https://elsewhere.example/about", "button", "https://elsewhere.example/about"),
        ("/sailings/timetable/", "button", "pg-sailings-timetable"),
        ("Timetable", "button", "pg-sailings-timetable"),
        ("timet", "button", "pg-sailings-timetable"),
        ("search", "search", None),
        ("©", "copyright", None),
        ("Photos: A. Dawe", "credit", None),
        ("Designed by Fern & Co", "credit", None),
        ("credits", "credit", None),
        ("breadcrumbs", "trail", None),
        ("hamburger", "menu", None),
        ("Back to", "top", None),
        ("coast", "picture", None),
        ("Every day of the year", "text", None),
    ],
)
def test_the_likeliest_comes_first(typed: str, kind: str, leads: str | None) -> None:
    pages = {page.id: page.path for page in ostrey()[0].pages}
    first = offered(typed)[0]
    found = said(first)
    assert first.kind == kind, offered(typed)
    if leads is not None and not leads.startswith("pg-"):
        assert found[1] == leads
    elif leads is not None:
        assert pages[found[1]].strip("/").rpartition("/")[2] == leads.rpartition("-")[2]


def test_with_nothing_typed_every_kind_is_offered_once() -> None:
    assert [one.kind for one in offered(" ")] == list(ORDER)
    assert set(ORDER) == set(ITEM_KINDS) and len(ORDER) == len(ITEM_KINDS)


def test_a_menu_is_found_by_its_name_and_words_are_always_there() -> None:
    menus = {one.fields.get("menu") for one in offered("Main") if one.kind == "menu"}
    assert "mn-main" in menus
    assert any(one.kind == "text" for one in offered("se")), "however much it may mean besides"
    assert any(
        one.kind == "text" and one.fields["words"]["text"] == "Nothing of the sort"
        for one in offered("Nothing of the sort")
    )


@pytest.mark.parametrize(
    "typed",
    ["", *WORDS, "+49", "a@b.example", "http://", "https://x.example/ü?q=<b>", "//", "#", "/", "©<script>", "x" * 400],
)
def test_every_candidate_is_an_edit_that_the_site_takes(typed: str) -> None:
    site, _ = ostrey()
    numbers = count()
    listed = typed_items(site, typed, shelf().brands, "pf-new")
    assert listed and (not typed.strip() or len(listed) <= MOST_OFFERS)
    assert len({(one.kind, str(one.fields)) for one in listed}) == len(listed)
    for one in listed:
        item = new_item(site, (one.kind, one.fields), lambda letters: f"{letters}-new-{next(numbers)}")
        cell = {"age": "cl-shop-age", "password": "cl-press-door", "consent": "cl-consent"}.get(
            min(ITEM_KINDS[one.kind].ONLY_IN, default=""), "cl-end"
        )
        made = apply(site, Add(parent=cell, slot="items", values=(item,)))
        assert isinstance(made, Site), (one, made)

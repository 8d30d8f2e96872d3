"""A new piece is seen before there is one: on a page that has a place for it, in the site's own words."""

from __future__ import annotations

import pytest

from upper_rim.core.kinds.items.menu import MenuItem
from upper_rim.core.model.arrangements import ARRANGEMENTS
from upper_rim.core.model.editing.rules import Rules
from upper_rim.core.model.site import Band, Site
from upper_rim.core.model.tree import items_of, walk
from upper_rim.core.reach.begun import PIECE, begun
from upper_rim.core.reach.coverage import Coverage
from upper_rim.demo import ostrey, quillwort

RULES = Rules(is_icon=lambda name: True, is_mark=lambda name: False, selector_fault=lambda selector: None)
DEMO = ostrey()[0]
EMPTY = Site(name="Nothing yet", key="q1x7")
SITES = {
    "a demo": DEMO,
    "the other demo": quillwort()[0],
    "nothing": EMPTY,
    "bands alone": EMPTY.replaced(bands=(Band(id="bd-a", name="All", from_px=0),)),
    "bare pages": DEMO.replaced(pages=tuple(page.replaced(bare=True) for page in DEMO.pages)),
    "no front page": DEMO.replaced(pages=tuple(page for page in DEMO.pages if page.path != "/")),
    "menus without a button": DEMO.replaced(pieces=tuple(one for one in DEMO.pieces if one.kind != "header")),
}


@pytest.mark.parametrize("key", sorted(ARRANGEMENTS))
@pytest.mark.parametrize("name", sorted(SITES))
def test_an_arrangement_stands_on_a_page_of_any_site_in_some_band(name: str, key: str) -> None:
    site = SITES[name]
    seen = begun(site, key, RULES)
    assert seen is not None
    page = next(page for page in seen.site.pages if page.id == seen.page.id)
    assert PIECE in Coverage(seen.site).pieces_on(page)
    piece = next(piece for piece in seen.site.pieces if piece.id == PIECE)
    assert piece.kind == ARRANGEMENTS[key].kind
    assert seen.node in {node.id for node in (piece, *walk(piece))}
    assert {one.id for one in site.pieces} <= {one.id for one in seen.site.pieces}, "nothing is taken from the site"


def test_a_front_page_is_taken_before_others_and_one_is_made_where_none_has_a_place() -> None:
    fronts = {name: begun(site, "halves", RULES) for name, site in SITES.items()}
    paths = {name: seen.page.path for name, seen in fronts.items() if seen}
    assert (paths["a demo"], paths["nothing"], paths["bare pages"]) == ("/", "/", "/1/")
    assert paths["no front page"] in {page.path for page in DEMO.pages if page.language == DEMO.language}


def test_what_the_site_says_already_is_said_again_with_ids_of_its_own() -> None:
    seen = begun(DEMO, "line", RULES)
    assert seen
    new = next(piece for piece in seen.site.pieces if piece.id == PIECE)
    for item in items_of((new,)):
        like = next(one for one in items_of(DEMO.pieces) if one.kind == item.kind)
        assert [getattr(item, field) for field in item.ALIKE] == [getattr(like, field) for field in like.ALIKE]
    halves = begun(DEMO, "halves", RULES)
    assert halves
    social = next(one for one in items_of(halves.site.pieces[-1:]) if one.kind == "social")
    like = next(one for one in items_of(DEMO.pieces) if one.kind == "social")
    assert [one.address for one in social.profiles] == [one.address for one in like.profiles]
    assert not {one.id for one in social.profiles} & {one.id for one in like.profiles}


def test_a_drawer_opens_from_a_menu_that_shows_on_the_page_or_from_a_header_of_its_own() -> None:
    def openers(site: Site) -> list[MenuItem]:
        return [one for one in items_of(site.pieces) if isinstance(one, MenuItem) and one.drawer == PIECE]

    seen, alone = begun(DEMO, "reach-us", RULES), begun(SITES["menus without a button"], "reach-us", RULES)
    assert seen and alone
    (own,), (made,) = openers(seen.site), openers(alone.site)
    assert own.id in {one.id for one in items_of(DEMO.pieces)}
    assert made.drawer_always and made.menu == DEMO.menus[0].id


def test_an_arrangement_that_is_not_there_is_none() -> None:
    assert begun(DEMO, "no such", RULES) is None


@pytest.mark.parametrize("key", sorted(ARRANGEMENTS))
def test_a_new_piece_says_no_kinds_name_and_no_button_of_it_is_dead(key: str) -> None:
    seen = begun(DEMO.replaced(pieces=()), key, RULES)
    assert seen
    for item in items_of(piece for piece in seen.site.pieces if piece.id == PIECE):
        if item.kind in {"text", "button"}:
            assert item.words.text not in {"", item.NAME}
        if item.kind == "button":
            assert item.target.kind == "page"

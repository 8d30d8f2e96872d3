"""A site begins with little, and each piece that comes makes what it needs."""

from __future__ import annotations

from itertools import count

import pytest

from upper_rim.core.kinds.items.base import ShowsMenu
from upper_rim.core.model.arrangements import ARRANGEMENTS
from upper_rim.core.model.arrangements.arranging import with_menu
from upper_rim.core.model.beginning import Steps, blank_site, steps_done
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Add, Edit, Together
from upper_rim.core.model.navigation.menus import Menus
from upper_rim.core.model.site import Page, Site
from upper_rim.core.model.tree import ROOT, items_of
from upper_rim.core.values.words import Words

from .test_begun import RULES

numbers = count(1)


def new_id(letters: str) -> str:
    return f"{letters}-{next(numbers)}"


def made(site: Site, *edits: Edit) -> Site:
    after = apply(site, Together(edits=edits), RULES)
    assert isinstance(after, Site)
    return after


def begun_with(site: Site, key: str) -> Site:
    ready, first = with_menu(site, ARRANGEMENTS[key].kinds, new_id)
    piece = ARRANGEMENTS[key].piece(ready, "New", new_id)
    return made(site, *first, Add(parent=ROOT, slot="pieces", values=(piece,)))


def of_pages(*paths: str) -> Site:
    pages = tuple(Page(id=new_id("pg"), path=path, title=path.strip("/") or "Home") for path in sorted(paths))
    return blank_site("Fernhill", "q1x7", new_id).replaced(pages=pages)


@pytest.mark.parametrize("key", sorted(ARRANGEMENTS))
def test_what_shows_a_menu_has_one_of_the_sites_pages_where_there_was_none(key: str) -> None:
    site = begun_with(of_pages("/", "/rooms/", "/rooms/blue/", "/walks/"), key)
    shown = [item for item in items_of(site.pieces) if isinstance(item, ShowsMenu)]
    assert len(site.menus) == (1 if shown else 0)
    assert all(item.menu == site.menus[0].id for item in shown)
    if shown:
        (rooms, walks) = Menus(site).whole(site.menus[0])
        assert len(rooms.entries) == 1 and not walks.entries
        again = begun_with(site, key)
        assert again.menus == site.menus, "a second menu beside the first"


def test_steps_are_done_one_after_the_other() -> None:
    site = blank_site("Fernhill", "q1x7", new_id)
    assert steps_done(site) == Steps(*[False] * 6)
    site = of_pages("/", "/rooms/")
    assert steps_done(site) == Steps(True, *[False] * 5)
    assert steps_done(site.replaced(face="bitter")).ground
    swatch = site.swatches[2].replaced(colour="#114488")
    assert steps_done(site.replaced(swatches=(*site.swatches[:2], swatch))).ground
    site = begun_with(site, "line")
    assert steps_done(site) == Steps(True, False, True, True, False, True), "a header's menu has a button on phones"
    site = begun_with(site, "colophon")
    assert steps_done(site).footer
    assert not steps_done(site.replaced(pieces=tuple(one.replaced(on=False) for one in site.pieces))).header


def test_a_footer_says_what_the_site_says_of_itself_and_nothing_in_its_place() -> None:
    site = of_pages("/", "/rooms/")
    plain = begun_with(site, "columns")
    assert "rich" not in {item.kind for item in items_of(plain.pieces)}
    said = begun_with(site.replaced(description=Words(text="Rooms & walks above the bay")), "columns")
    assert [item.rich.text for item in items_of(said.pieces) if item.kind == "rich"] == [
        "<p>Rooms &amp; walks above the bay</p>"
    ]

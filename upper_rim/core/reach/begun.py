"""How would a site look with a new piece, on a page where it stands?

For the eye alone: the piece shows everywhere, in place of those of its kind; a drawer in the first menu that opens one.
What is then added starts from the same arrangement, and takes nothing from the others.
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import chain, count
from typing import NamedTuple

from ..kinds.items.menu import MenuItem
from ..kinds.pieces import PIECE_KINDS
from ..model.arrangements import ARRANGEMENTS
from ..model.arrangements.arranging import Arrangement, JsonNode, NewId, with_menu
from ..model.editing.apply import apply
from ..model.editing.edits import Add, Edit, Set, SetEach, Together
from ..model.editing.rules import Rules
from ..model.site import Page, Site
from ..model.tree import ROOT, items_of
from .coverage import coverage_of, without_place

PIECE = "pc-begun"


class Begun(NamedTuple):
    """`page`: one on which it stands, the front page if it can; `node`: what is new there, as the stage marks it."""

    site: Site
    page: Page
    node: str


def begun(site: Site, key: str, rules: Rules, menu: str = "") -> Begun | None:
    """With the arrangement of that key, and in it a menu of the site's where one is named; None where there is no such
    arrangement, or the site cannot take it."""
    arrangement = ARRANGEMENTS.get(key)
    if arrangement is None:
        return None
    page = _page_for(site, arrangement.kind)
    numbers = count(1)
    edits = [*_edits(site, arrangement, page, lambda letters: f"{letters}-begun-{next(numbers)}")]
    if page is None:
        page = Page(id="pg-begun", path=_free_path(site), title=site.name, language=site.language)
        edits.append(Add(parent=ROOT, slot="pages", values=(page.model_dump(mode="json"),)))
    made = apply(site, Together(edits=tuple(edits)), rules)
    if menu and isinstance(made, Site):
        items = items_of(piece for piece in made.pieces if piece.id == PIECE)
        named = (Set(node=item.id, field="menu", value=menu) for item in items if isinstance(item, MenuItem))
        made = apply(made, Together(edits=tuple(named)), rules)
    if not isinstance(made, Site):
        return None
    piece = next(piece for piece in made.pieces if piece.id == PIECE)
    return Begun(made, page, piece.rows[0].id if arrangement.kind == "drawer" else PIECE)


def _page_for(site: Site, kind: str) -> Page | None:
    """The front page, else the first in the site's language; none where no page has a place for the kind."""
    open_pages = (page for page in site.pages if not page.bare and (page.content is None or page.splice is not None))
    return site.first_looked_at(page for page in open_pages if kind not in without_place(page))


def _free_path(site: Site) -> str:
    taken = {page.path for page in site.pages}
    return next(path for path in chain(["/"], (f"/{number}/" for number in count(1))) if path not in taken)


def _edits(site: Site, arrangement: Arrangement, page: Page | None, new_id: NewId) -> Iterator[Edit]:
    site, first = with_menu(site, arrangement.kinds, new_id)
    yield from first
    piece = {**arrangement.piece(site, PIECE_KINDS[arrangement.kind].NAME, new_id), "id": PIECE}
    if arrangement.kind == "drawer":
        yield Add(parent=ROOT, slot="pieces", values=(piece,))
        yield from _opened_by_a_menu(site, page, new_id)
    else:
        yield from _in_place_of_others(site, {**piece, "reach": [{"id": new_id("rr")}]})


def _in_place_of_others(site: Site, piece: JsonNode) -> Iterator[Edit]:
    others = tuple((one.id, False) for one in site.pieces if one.kind == piece["kind"])
    if others:
        yield SetEach(field="on", values=others)
    yield Add(parent=ROOT, slot="pieces", values=(piece,))


def _opened_by_a_menu(site: Site, page: Page | None, new_id: NewId) -> Iterator[Edit]:
    """By one that shows on the page; by a header of its own where none does."""
    shown = coverage_of(site).pieces_on(page) if page else frozenset()
    menus = (item for item in items_of(one for one in site.pieces if one.id in shown) if isinstance(item, MenuItem))
    opener = next((item.id for item in menus if item.has_button and item.menu), None)
    if opener is None:
        site, first = with_menu(site, ARRANGEMENTS["line"].kinds, new_id)
        yield from first
        header = ARRANGEMENTS["line"].piece(site, "Header", new_id)
        items = [item for row in header["rows"] for cell in row["cells"] for item in cell["items"]]
        item = next(item for item in items if item["kind"] == "menu")
        item.update(drawer_always=True)
        opener = item["id"]
        yield from _in_place_of_others(site, {**header, "reach": [{"id": new_id("rr")}]})
    yield Set(node=opener, field="drawer", value=PIECE)

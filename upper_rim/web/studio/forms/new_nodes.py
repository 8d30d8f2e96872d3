"""Which nodes does a form add that names what is to be made: a swatch, a menu, a row, an item, a page …?"""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple, cast

from django.http import QueryDict
from pydantic import JsonValue

from ....core.exchange.html.encoding import decode
from ....core.exchange.html.markdown import written_page
from ....core.exchange.imports.import_menu import Navigation, navigations_in
from ....core.exchange.imports.import_pages import digest
from ....core.exchange.imports.typed_links import TypedLinks
from ....core.kinds.items import ITEM_KINDS
from ....core.kinds.items.menu import MenuItem
from ....core.kinds.moving import ByPixels
from ....core.kinds.pieces import PIECE_KINDS
from ....core.kinds.pieces.drawer import Drawer
from ....core.kinds.pieces.header import Header
from ....core.model.arrangements import ARRANGEMENTS
from ....core.model.arrangements.arranging import new_item, with_menu
from ....core.model.editing.edits import Edit, Set
from ....core.model.site import Page, Site
from ....core.model.tree import ROOT, items_of
from ....core.values.targets import ToPage, ToPlace
from ... import wall
from ...sites import contents, ids
from .form_error import FormError
from .targets import target_of, where_of


class NewNodes(NamedTuple):
    """`first` and `then`: edits that go before and after it."""

    slot: str
    values: list[JsonValue]
    then: tuple[Edit, ...] = ()
    first: tuple[Edit, ...] = ()


def _new_swatch(site: Site, post: QueryDict) -> NewNodes:
    return NewNodes(
        "swatches",
        [{"id": ids.new_id("sw"), "name": post.get("name", "") or "New swatch", "colour": post.get("colour", "")}],
    )


def _new_look(site: Site, post: QueryDict) -> NewNodes:
    return NewNodes("looks", [{"id": ids.new_id("lk"), "name": post.get("name", "").strip() or "New look"}])


def _new_snippet(site: Site, post: QueryDict) -> NewNodes:
    snippet: dict[str, JsonValue] = {"id": ids.new_id("sn"), "name": post.get("name", "").strip() or "New snippet"}
    return NewNodes("snippets", [{**snippet, "place": post.get("place", "head"), "code": post.get("code", "")}])


def _new_band(site: Site, post: QueryDict) -> NewNodes:
    return NewNodes(
        "bands",
        [{"id": ids.new_id("bd"), "name": post.get("name", "") or "New band", "from_px": post.get("from_px", "")}],
    )


def _new_card(site: Site, post: QueryDict) -> NewNodes:
    """Somebody whose language and time zone are the site's."""
    who: dict[str, JsonValue] = {"id": ids.new_id("vc"), "name": post.get("name", "").strip() or "Somebody"}
    return NewNodes("cards", [{**who, "languages": [site.language], "zone": site.zone}])


def _new_menu(site: Site, post: QueryDict) -> NewNodes:
    return NewNodes("menus", [{"id": ids.new_id("mn"), "name": post.get("name", "") or "Menu"}])


def _menu_of_pages(site: Site, post: QueryDict) -> NewNodes:
    """The site's first, for an item that shows none yet (`holder`)."""
    made, _ = with_menu(site, ("menu",), ids.new_id)
    if made is site:
        raise FormError(post.get("holder", ROOT), "menu", "the site has a menu now: choose it")
    menu = made.menus[0].model_dump(mode="json")
    return NewNodes("menus", [menu], (Set(node=post["holder"], field="menu", value=menu["id"]),))


def _new_entries(site: Site, post: QueryDict) -> NewNodes:
    """One entry: what it says and where it leads, or one text (`typed`) that is either, or a page's title."""
    label, text = post.get("label", "").strip(), post.get("value", "").strip()
    if typed := post.get("typed", "").strip():
        label, text = _read_as_one(site, typed)
    if not label and not text:
        raise FormError(post.get("parent", ROOT), "entries", "type what the entry says, or where it leads")
    entry: dict[str, JsonValue] = {"id": ids.new_id("en"), "label": {"text": label}, "target": target_of(site, text)}
    return NewNodes("entries", [entry])


def _read_as_one(site: Site, typed: str) -> tuple[str, str]:
    try:
        target = TypedLinks(site).target(typed)
    except ValueError:
        return typed, ""
    return ("", typed) if isinstance(target, ToPage | ToPlace) else (typed, typed)


def navigations_of(page: Page) -> list[Navigation]:
    if page.content is None:
        return []
    text = decode(contents.read_content(page.content), page.encoding)
    return wall.read_or([], navigations_in, text, page.path)


def _new_row(site: Site, post: QueryDict) -> NewNodes:
    tracks: tuple[tuple[str, str], ...] = (("content", "start"), ("share", "center"), ("content", "end"))
    cells = [{"id": ids.new_id("cl"), "track": {"kind": track}, "align": align} for track, align in tracks]
    return NewNodes(
        "rows", [{"id": ids.new_id("rw"), "name": post.get("name", "") or "New row", "cells": cast(JsonValue, cells)}]
    )


def _shared_row(site: Site, post: QueryDict) -> NewNodes:
    if not post.get("shares"):
        raise FormError(post.get("parent", ROOT), "rows", "choose the row that is to stand here too")
    return NewNodes("rows", [{"id": ids.new_id("rw"), "name": "Shared row", "shares": post["shares"]}])


def _new_stage(site: Site, post: QueryDict) -> NewNodes:
    """Where it was asked for on the ruler, or behind the last one; the header then stays, if it did not."""
    piece = next((piece for piece in site.pieces if piece.id == post.get("parent")), None)
    if not isinstance(piece, Header):
        raise FormError(post.get("parent", ROOT), "stages", "only headers pass through stages")
    last = max((one.after.px for one in piece.stages if isinstance(one.after, ByPixels)), default=0)
    stage: dict[str, JsonValue] = {
        "id": ids.new_id("sg"),
        "name": post.get("name", "").strip() or f"Stage {len(piece.stages) + 1}",
        "after": {"kind": "px", "px": last + 200},
    }
    return NewNodes(
        "stages", [stage], () if piece.is_ever_pinned else (Set(node=piece.id, field="moves", value="stays"),)
    )


def _new_cell(site: Site, post: QueryDict) -> NewNodes:
    return NewNodes("cells", [{"id": ids.new_id("cl")}])


def _new_item(site: Site, post: QueryDict) -> NewNodes:
    kind = post.get("kind", "")
    if kind not in ITEM_KINDS:
        raise FormError(post.get("parent", ROOT), "items", "choose what kind of item it is to be")
    site, first = with_menu(site, (kind,), ids.new_id)
    item = new_item(site, kind, ids.new_id, in_drawer=_is_in_drawer(site, post.get("parent", "")))
    return NewNodes("items", [item], first=first)


def _is_in_drawer(site: Site, cell: str) -> bool:
    drawers = (piece for piece in site.pieces if isinstance(piece, Drawer))
    return any(one.id == cell for piece in drawers for row in piece.rows for one in row.cells)


def _new_rule(site: Site, post: QueryDict) -> NewNodes:
    shows = post.get("shows", "true") == "true"
    in_set = any(one.id == post.get("parent") for one in site.reach_sets)
    return NewNodes(
        "rules" if in_set else "reach", [{"id": ids.new_id("rr"), "shows": shows, "where": where_of(site, post)}]
    )


def _new_piece(site: Site, post: QueryDict) -> NewNodes:
    arrangement = ARRANGEMENTS.get(post.get("arrangement", ""))
    if arrangement is None:
        raise FormError(ROOT, "pieces", "choose what the piece is to begin with")
    name = post.get("name", "").strip() or PIECE_KINDS[arrangement.kind].NAME
    site, first = with_menu(site, arrangement.kinds, ids.new_id)
    piece = arrangement.piece(site, name, ids.new_id)
    return NewNodes("pieces", [piece], _tied(site, piece["id"]) if arrangement.kind == "drawer" else (), first)


def _tied(site: Site, drawer: str) -> tuple[Edit, ...]:
    """A new drawer is held by the first menu that has a button and holds none yet."""
    menus = (item for item in items_of(site.pieces) if isinstance(item, MenuItem))
    free = next((item for item in menus if item.has_button and item.drawer is None), None)
    return (Set(node=free.id, field="drawer", value=drawer),) if free else ()


def _new_page(site: Site, post: QueryDict) -> NewNodes:
    title, markdown = post.get("title", "").strip(), post.get("source", "")
    language = post.get("language", "").strip() or site.language
    if not title:
        raise FormError(ROOT, "pages", "a page needs a title")
    path = post.get("path", "").strip()
    page: dict[str, JsonValue] = {"id": ids.new_id("pg"), "path": path if path.startswith("/") else "/" + path}
    return NewNodes("pages", [{**page, **written(title, language, markdown)}])


def written(title: str, language: str, markdown: str) -> dict[str, JsonValue]:
    content, splice = written_page(title, language, markdown)
    contents.keep_contents({digest(content): content})
    return {
        "title": title,
        "language": language,
        "source": markdown,
        "content": digest(content),
        "splice": splice.model_dump(mode="json"),
    }


MAKERS: dict[str, Callable[[Site, QueryDict], NewNodes]] = {
    "swatch": _new_swatch,
    "look": _new_look,
    "snippet": _new_snippet,
    "band": _new_band,
    "card": _new_card,
    "menu": _new_menu,
    "menu-of-pages": _menu_of_pages,
    "entries": _new_entries,
    "row": _new_row,
    "shared": _shared_row,
    "cell": _new_cell,
    "stage": _new_stage,
    "item": _new_item,
    "rule": _new_rule,
    "piece": _new_piece,
    "page": _new_page,
}

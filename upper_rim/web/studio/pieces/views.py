"""The pieces of a site, and what a new one can begin with, seen in place."""

from __future__ import annotations

from typing import Any
from urllib.parse import quote, urlencode

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render

from ....core.kinds.pieces import GATE_SLOTS, PIECE_KINDS
from ....core.kinds.pieces.base import Piece
from ....core.kinds.pieces.drawer import Drawer
from ....core.model.arrangements import ARRANGEMENTS
from ....core.model.arrangements.arranging import Arrangement
from ....core.model.site import Site
from ....core.reach.begun import begun
from ....core.reach.reached import reached
from ...live.stage import ARRANGEMENT
from ...sites import store
from ...sites.access import site_of
from ...sites.fitters import site_fitter
from ...sites.rules import rules_of
from ..cycle.screen import Opened, Redirected, screen, site_url, stage_address
from ..forms.numbers import PHONE_PX, USUAL_PX
from ..preview.found import Marked
from ..preview.small import SmallPicture, pictures_of_arrangements, pictures_of_pieces
from ..preview.steps import steps_of
from ..words.reach import rule_in_words


@screen("studio/pieces/pieces.html", "pieces")
def pieces(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    pages = reached(opened.site).pages
    drawn = pictures_of_pieces(opened.site, site_fitter(opened.stored.pk), stage_address(request, opened))
    marked = Marked(opened.stored.pk, opened.site)
    listed = [
        (
            piece,
            piece.NAME,
            pages.get(piece.id, 0),
            _places(piece, opened.site),
            drawn.get(piece.id),
            marked.of_piece(piece),
        )
        for piece in opened.site.pieces
    ]
    return {
        "steps": steps_of(request, opened),
        "listed": listed,
        "kinds": [(kind, one.NAME) for kind, one in PIECE_KINDS.items()],
    }


@screen("studio/pieces/new_piece.html", "pieces")
def new_piece(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    """One walks through the arrangements, each seen on the site's own front page, and begins with what one sees."""
    if made:
        raise Redirected(site_url("workbench", opened, made[0]))
    site = opened.site
    asked = {**request.GET.dict(), **request.POST.dict()}
    of_kind = (key for key, one in ARRANGEMENTS.items() if one.kind == asked.get("kind", "header"))
    key = asked.get("arrangement", "")
    key = key if key in ARRANGEMENTS else next(of_kind, "line")
    kind = ARRANGEMENTS[key].kind
    rules = rules_of(opened.stored.pk)
    seen = begun(site, key, rules)
    drawn = _drawn(request, opened)
    return {
        "kinds": _kinds(drawn),
        "arrangement": key,
        "kind_name": PIECE_KINDS[kind].NAME,
        "typed_name": asked.get("name", ""),
        "page_count": sum(page.content is not None for page in site.pages),
        "rivals": [piece.name for piece in site.pieces if piece.kind == kind and piece.kind != "drawer"],
        "is_drawer": kind == "drawer",
        "is_gate": kind in GATE_SLOTS,
        "seen": seen,
        "stage_page": f"{quote(seen.page.path, safe='/%')}?{urlencode({ARRANGEMENT: key})}" if seen else "",
        "width": PHONE_PX if kind in FOR_PHONES else USUAL_PX,
    }


def arrangements(request: HttpRequest, slug: str) -> HttpResponse:
    """The same to be created at once, from another piece's workbench."""
    stored = site_of(request.user, slug)
    opened = Opened(stored, *store.load(stored.pk), request.user)
    return render(request, "studio/pieces/arrangements.html", {"kinds": _kinds(_drawn(request, opened))})


def _drawn(request: HttpRequest, opened: Opened) -> dict[str, SmallPicture]:
    number = opened.stored.pk
    address = stage_address(request, opened)
    return pictures_of_arrangements(opened.site, site_fitter(number), rules_of(number), address)


def _kinds(drawn: dict[str, SmallPicture]) -> list[tuple[str, str, list[tuple[str, Arrangement, SmallPicture | None]]]]:
    """By kind of piece: its name, what it is, and with what one of it can begin, with a picture."""
    return [
        (
            one.NAME,
            KIND_ABOUT[name],
            [(its, plan, drawn.get(its)) for its, plan in ARRANGEMENTS.items() if plan.kind == name],
        )
        for name, one in PIECE_KINDS.items()
    ]


def _places(piece: Piece, site: Site) -> list[str]:
    """Where a piece shows, in words."""
    if isinstance(piece, Drawer):
        return [f"in a menu of {holder.name}" for holder, _ in site.holders(piece)]
    return [rule_in_words(rule, site) for rule in site.rules_of(piece)]


FOR_PHONES = frozenset({"bottom", "drawer"})
"""Kinds that one sees first on a phone."""
KIND_ABOUT = {
    "header": "Before the content of every page that it reaches.",
    "notice": "A bar with a message, at the top or the bottom, for a time.",
    "footer": "After the content.",
    "sidebar": "Beside the content; before or after it where the window is narrow.",
    "bottom": "Two to five targets, always at the bottom of a phone’s screen.",
    "float": "A button, or a few, over the page.",
    "password": "In place of the pages that it locks, until somebody types a password.",
    "age": "In place of pages for adults, until somebody says how old they are.",
    "consent": "Over a page: what may be fetched from others is asked, and waits for the answer.",
    "drawer": "Rows of its own in what a menu’s button opens, above and below the menu’s entries.",
}

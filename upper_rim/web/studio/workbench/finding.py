"""Find: where is the control, the part, the piece, the page or the screen that a few letters name?"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import islice
from typing import Any, NamedTuple
from urllib.parse import urlencode

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import reverse

from ....core.kinds.pieces.base import Piece
from ....core.model.names import node_name
from ....core.model.site import Site
from ....core.model.tree import holder_of
from ....core.values.properties import PROPERTIES
from ...sites import store
from ...sites.access import site_of
from ..controls.control import Control
from ..controls.of_movement import movement_groups
from ..controls.of_nodes import groups_for
from ..controls.of_styles import FACET_NAMES, LABELS, SIDED, listed_groups, part_name
from ..forms.numbers import whole_number
from ..preview.viewing import TRAYS, seen_roles, trays_of
from .outline import outline_of

MOST_FOUND, MOST_PAGES = 12, 40
SCREENS = (
    ("Pages", "pages"),
    ("Start from what is there: lift old bits out of pages", "lifting"),
    ("Foundations: swatches", "foundations"),
    ("Foundations: type", "type"),
    ("Foundations: defaults", "defaults"),
    ("Foundations: looks", "looks"),
    ("Foundations: code", "code"),
    ("Foundations: contrast", "contrast"),
    ("Menus", "menus"),
    ("Pieces", "pieces"),
    ("Create a piece", "new-piece"),
    ("Gates", "gates"),
    ("Findings: what is wrong, doubtful or unfinished", "findings"),
    ("Inbox", "inbox"),
    ("Editions: publish", "editions"),
    ("Past steps", "past"),
    ("Settings of the site", "settings"),
)


class Found(NamedTuple):
    """`at`: the id of what is focused there, empty for the whole screen. `known_as`: what else it is looked for by."""

    name: str
    about: str
    href: str
    at: str = ""
    known_as: str = ""


def find(request: HttpRequest, slug: str) -> HttpResponse:
    site = store.load(site_of(request.user, slug).pk).site
    asked = request.GET.get("q", "").strip().casefold()[:80]
    piece = next((piece for piece in site.pieces if piece.id == request.GET.get("piece")), None)
    ranked = [(_rank(one, asked), one) for one in _all(request, site, slug, piece, asked)]
    found = sorted(((rank, one) for rank, one in ranked if rank is not None), key=lambda each: each[0])
    return render(request, "studio/workbench/found.html", {"found": [one for _, one in found[:MOST_FOUND]]})


def _rank(one: Found, asked: str) -> int | None:
    """Names that begin so come first, then words that do, then what is somewhere within; None for what is not meant.
    Each word of what is asked counts, in the name or in what is said of it."""
    name, whole = one.name.casefold(), f"{one.name} {one.about} {one.known_as}".casefold()
    if not all(word in whole for word in asked.split()):
        return None
    if name.startswith(asked):
        return 0
    words = name.replace(":", " ").split()
    return 1 if all(any(word.startswith(part) for word in words) for part in asked.split()) else 2


def _all(request: HttpRequest, site: Site, slug: str, piece: Piece | None, asked: str) -> Iterator[Found]:
    if piece is not None:
        kept = {name: request.GET[name] for name in ("page", "width") if request.GET.get(name)}
        own = reverse("workbench", args=[slug, piece.id])
        lines = outline_of(piece, site, None, {})
        selected = request.GET.get("select", "")
        chosen: Any = holder_of(site, selected) if any(line.id == selected for line in lines) else piece
        yield from _controls(site, piece, chosen, f"{own}?{urlencode({**kept, 'select': chosen.id})}")
        for line in lines:
            address = f"{own}?{urlencode({**kept, 'select': line.id})}"
            yield Found(line.name, f"{line.kind} of this piece", address, f"line-{line.id}")
        yield from _pages(request, site, own, chosen, asked)
        for name, screen in (("Fit study", "fit"), ("Movement study", "movement")):
            yield Found(name, "of this piece", reverse(screen, args=[slug, piece.id]))
    for other in site.pieces:
        if other is not piece:
            yield Found(other.name, f"another piece: {other.NAME}", reverse("workbench", args=[slug, other.id]))
    for name, screen in SCREENS:
        yield Found(name, "screen", reverse(screen, args=[slug]))


def _controls(site: Site, piece: Piece, chosen: Any, address: str) -> Iterator[Found]:
    name, shown = node_name(chosen, site), set(trays_of(chosen))
    for group in groups_for(chosen, site):
        for control in group.controls:
            if control.kind not in {"note", "make"}:
                yield Found(control.label, f"{name}: {group.name}", f"{address}&tray=content", _id(control))
    roles = seen_roles(chosen, site)
    for part, role in roles.items():
        if part != "box":
            yield Found(part_name(part, role, chosen), f"a part of {name}", f"{address}&tray=text&part={part}", "part")
    (box,) = (role for part, role in roles.items() if part == "box")
    for facet in (one for one in FACET_NAMES if one in shown - {"content", "looks"}):
        for heading, names in listed_groups(facet, box):
            for one in names:
                listed = PROPERTIES[SIDED.get(one, (one,))[0]]
                said = f"{name}: {FACET_NAMES[facet]}, {heading.lower()}"
                at, known_as = f"s-{one}", f"{one} {listed.kind}"
                yield Found(LABELS.get(one, listed.label), said, f"{address}&tray={facet}", at, known_as)
    if "movement" in shown:
        for group in movement_groups(piece, site):
            for control in group.controls:
                if control.kind != "note":
                    yield Found(control.label, f"{piece.name}: {group.name}", f"{address}&tray=movement", _id(control))
    for tray in shown:
        yield Found(TRAYS[tray], f"all of it for {name}", f"{address}&tray={tray}", f"tray-{tray}")


def _id(control: Control) -> str:
    if control.kind == "upload":
        return f"up-file-{control.node}"
    text = "-text" if control.kind == "rich" else ""
    return f"c-{control.node}-{control.field}{control.language}{control.band}{text}"


def _pages(request: HttpRequest, site: Site, own: str, chosen: Any, asked: str) -> Iterator[Found]:
    """Of many pages those alone that can be meant."""
    width = whole_number(request.GET.get("width", ""))
    kept = {"select": chosen.id, **({"width": str(width)} if width else {})}
    words = asked.split()
    meant = (page for page in site.pages if all(word in f"{page.title} page {page.path}".casefold() for word in words))
    for page in islice(meant, MOST_PAGES):
        address = f"{own}?{urlencode({'page': page.path, **kept})}"
        yield Found(page.title or page.path, f"look at the page {page.path}", address, "looked-at")

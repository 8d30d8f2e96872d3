"""The gates of a site, what each stands before, and the ways through them for a visitor."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, NamedTuple
from urllib.parse import quote

from django.db.models import Count
from django.http import HttpRequest
from django.utils import timezone

from ....core.conditions.visitor import VisitorCard
from ....core.findings.checks.shown.consent import in_consent
from ....core.findings.checks.shown.gates import in_files, in_gates, in_pages
from ....core.findings.words import finding_words
from ....core.gates.guards import Guards, guards_of
from ....core.gates.visit import ways
from ....core.gates.waiting import hosts_found
from ....core.kinds.pieces.gate import Gate
from ....core.kinds.pieces.password import PasswordGate
from ....core.model.site import Site
from ...sites.contents import read_content
from ..cycle.screen import Opened, screen
from ..preview.viewing import looking_as
from ..words.gates import states_shown
from .consent import consent_shown, met_words
from .study import visit_study

MOST_READ = 200
"""Pages whose texts are read when the screen is looked at; `upper-rim visit` reads all."""


class GateShown(NamedTuple):
    """`before`: the path of a page that it guards, with escapes. `lacks`: what nobody gets in without."""

    gate: Gate
    before: str
    pages: int
    files: int
    passwords: int | None
    states: Mapping[str, str]
    lacks: str


@screen("studio/gates/gates.html", "gates")
def gates(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    site = opened.site
    guards = guards_of(site)
    names = {piece.id: piece.name for piece in site.pieces}
    card = looking_as(request, site)
    asked = request.GET.get("page", "").strip()
    path = asked if asked.startswith("/") else _first_guarded(site, guards)
    visitor = card or VisitorCard(id="vc-new", name="Somebody new", clock=f"{timezone.now():%Y-%m-%dT%H:%MZ}")
    found = list(ways(guards, visitor, path)) if guards and path else []
    presses = [way.presses for way in found if way.ends == "page"]
    hosts = hosts_found(site)
    told = [*in_files(site, guards, read_content), *in_pages(site, guards, read_content, MOST_READ)]
    listed = [*in_gates(site, guards), *told, *in_consent(site, hosts)]
    return {
        **consent_shown(opened, hosts),
        "gates": _shown(opened, guards),
        "off": [piece for piece in site.pieces if isinstance(piece, Gate) and not piece.on],
        "page_path": path,
        "card": card,
        "visitor": visitor,
        "study": visit_study(found, names) if found else None,
        "presses": min(presses, default=None),
        "met": met_words(site, path, visitor),
        "found": [
            (finding_words(one, lambda node: names.get(node, node)), one.node if one.node in names else "")
            for one in listed
        ],
        "kept": {"page": path, **({"as": card.id} if card else {})},
    }


def _first_guarded(site: Site, guards: Guards | None) -> str:
    listed = (page.path for page in site.pages if guards is not None and guards.before_path(page.path).any)
    return next(listed, site.pages[0].path if site.pages else "")


def _shown(opened: Opened, guards: Guards | None) -> list[GateShown]:
    if guards is None:
        return []
    site = opened.site
    counted = dict(opened.stored.passwords.values_list("gate").annotate(Count("pk")))
    pages = [guards.before_path(page.path).by_slot for page in site.pages]
    files = [guards.before_path(asset.path).by_slot for asset in site.assets]
    listed = []
    for piece in site.pieces:
        if not isinstance(piece, Gate) or piece.id not in guards.gates:
            continue
        passwords = counted.get(piece.id, 0) if isinstance(piece, PasswordGate) else None
        lacks = "it has no password" if passwords == 0 else ""
        guarded = [page for page, by_slot in zip(site.pages, pages, strict=True) if _is_in(piece.id, by_slot)]
        before = quote((guarded or site.pages)[0].path, safe="/%") if site.pages else ""
        files_count = sum(_is_in(piece.id, by_slot) for by_slot in files)
        listed.append(GateShown(piece, before, len(guarded), files_count, passwords, states_shown(piece, site), lacks))
    return listed


def _is_in(gate: str, by_slot: tuple[tuple[str, ...], ...]) -> bool:
    return any(gate in slot for slot in by_slot)

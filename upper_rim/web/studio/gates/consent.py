"""What visitors are asked to agree to, what waits for it, and what they have answered."""

from __future__ import annotations

from typing import Any, NamedTuple
from urllib.parse import quote

from django.http import HttpRequest, HttpResponse

from ....core.conditions.visitor import VisitorCard
from ....core.exchange.spreadsheet import csv_line
from ....core.gates.asking import met_on
from ....core.gates.consent import law_of, shipped_table
from ....core.gates.waiting import HostFound, asks
from ....core.kinds.consent import Category
from ....core.kinds.items.embed import Embed
from ....core.kinds.pieces.consent import ConsentQuestion
from ....core.model.site import Site
from ....core.model.tree import items_of
from ....core.reach.coverage import coverage_of
from ...live.consent import forget_old
from ...sites import store
from ...sites.access import site_of
from ..controls.control import category_choices
from ..cycle.screen import Opened

KIND_WORDS = {
    "script": "scripts", "frame": "frames", "picture": "pictures", "style": "styles", "media": "films and sounds", "link": "links in the head",
    "object": "objects", "code": "code that names it", "snippet": "snippets", "embed": "embeds",
}  # fmt: skip


class Asked(NamedTuple):
    """A category, what it is called, and what keeps it from being taken away."""

    category: Category
    words: str
    waiting: int


def consent_shown(opened: Opened, hosts: list[HostFound]) -> dict[str, Any]:
    site, stored = opened.site, opened.stored
    forget_old(stored, site.consent.kept_days)
    table = shipped_table()
    modes = sorted({(law_of(region, site.consent.modes).mode, region) for region in table.laws})
    questions = [piece for piece in site.pieces if isinstance(piece, ConsentQuestion)]
    return {
        "questions": [(piece, _first_page(site, piece)) for piece in questions],
        "categories": [Asked(one, one.called(site.language), _waiting(one, site)) for one in site.categories],
        "hosts": [_in_words(one) for one in hosts],
        "choices": category_choices(site, ""),
        "table": table,
        "opt_in": [region for mode, region in modes if mode == "opt-in"],
        "opt_out": [region for mode, region in modes if mode == "opt-out"],
        "answered": stored.consents.count(),
    }


def _first_page(site: Site, piece: ConsentQuestion) -> str:
    """The address, with escapes, of a page on which it may show; the site's first where there is none."""
    page = (coverage_of(site).first_with(piece.id) if piece.on else None) or next(iter(site.pages), None)
    return quote(page.path, safe="/%") if page else ""


def _waiting(category: Category, site: Site) -> int:
    embeds = [item.category for item in items_of(site.pieces) if isinstance(item, Embed)]
    said = [*embeds, *(host.category for host in site.hosts), *(snippet.waits for snippet in site.snippets)]
    return said.count(category.id)


def _in_words(found: HostFound) -> tuple[HostFound, str, str]:
    """What is fetched, in words, and what is chosen for it."""
    said = "" if found.said is None else found.said.category or "left"
    return found, ", ".join(KIND_WORDS[kind] for kind in found.kinds) or "nothing any more", said


def met_words(site: Site, path: str, visitor: VisitorCard) -> list[tuple[str, str]]:
    """When, and whom a page then asks for something; nothing where the site asks nobody, or the page is not there."""
    page = next((page for page in site.pages if page.path.rstrip("/") == path.rstrip("/")), None)
    if page is None or not asks(site):
        return []
    met = met_on(site, page, visitor)
    begins = "before an answer" if met.asking.is_put else "without being asked"
    told = ((begins, met.before), ("after a no", met.after_no), ("after a yes", met.after_yes))
    return [(when, ", ".join(sorted(hosts)) or "no other host") for when, hosts in told]


def answers_csv(request: HttpRequest, slug: str) -> HttpResponse:
    """All answers on record (RFC 4180)."""
    stored = site_of(request.user, slug)
    forget_old(stored, store.load(stored.pk).site.consent.kept_days)
    lines = [csv_line(["Answered", "Number", "Asked", "Yes to", "Region"])]
    for one in stored.consents.order_by("at", "pk").iterator():
        at = one.at.isoformat(timespec="seconds")
        lines.append(csv_line([at, one.number, one.asked, " ".join(one.yes), one.region]))
    response = HttpResponse("\ufeff" + "".join(lines), content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="{stored.slug}-consent.csv"'
    return response

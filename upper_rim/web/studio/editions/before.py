"""Before publishing: what is new since the last edition, and what was found."""

from __future__ import annotations

from typing import NamedTuple

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render

from ....core.findings.told import Teller
from ....core.findings.whole import Cause
from ....core.model.site import Site
from ....core.reach.changes import Change, changes
from ...sites import store
from ...sites.access import site_of
from ...sites.looking import sorted_today, whole
from ...sites.models import StoredSite

_CALLED = {
    "menus": "Menu", "snippets": "Code", "fonts": "Font", "looks": "Look", "swatches": "Swatch", "bands": "Width band",
    "pages": "page", "assets": "file",
}  # fmt: skip


class ChangeShown(NamedTuple):
    said: str
    what: str
    pages: int | None


class FoundShown(NamedTuple):
    said: str
    where: str
    key: str


def before_publishing(request: HttpRequest, slug: str) -> HttpResponse:
    """Asked for once the screen is there: rows and movement are looked at."""
    stored = site_of(request.user, slug)
    site, revision = store.load(stored.pk)
    teller = Teller(site)
    still_open = sorted_today(whole(stored.pk, revision, site), site).open
    breaks = [_found(cause, teller) for cause in still_open if cause.severity == "breaks"]
    context = {
        "slug": slug,
        "edition": stored.current_edition,
        "changes": _changes(stored, site),
        "breaks": breaks,
        "others": [_found(cause, teller) for cause in still_open if cause.severity != "breaks"],
        "pages": len(site.pages),
    }
    return render(request, "studio/editions/before.html", context)


def _changes(stored: StoredSite, site: Site) -> list[ChangeShown]:
    if stored.current_edition is None:
        return []
    return [_change(one) for one in changes(store.load_revision(stored.pk, stored.current_edition.revision), site)]


def _change(one: Change) -> ChangeShown:
    if one.slot == "site":
        return ChangeShown("Foundations and settings", one.what, one.pages)
    called = _CALLED.get(one.slot, "")
    if not one.node:
        return ChangeShown(f"{one.many} {called}{'' if one.many == 1 else 's'}", one.what, None)
    return ChangeShown(f"{called} “{one.name}”" if called else one.name, one.what, one.pages)


def _found(cause: Cause, teller: Teller) -> FoundShown:
    said = teller.said(cause)
    return FoundShown(f"{said[:1].upper()}{said[1:]}", " › ".join(teller.where(cause)), cause.key)

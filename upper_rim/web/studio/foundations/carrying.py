"""Something of another site goes over into this one: chosen, clashes seen and decided, carried as one edit."""

from __future__ import annotations

from typing import Any, cast

from django.contrib import messages
from django.http import HttpRequest

from ....core.exchange.bundle import BrokenBundle, read_site, site_with_fonts
from ....core.exchange.carrying import SLOTS_CARRIED, Decision, carried, clashes, needed
from ....core.exchange.imports.import_pages import digest
from ....core.model.site import Site, canonical_json
from ... import wall
from ...accounts.bodies import takes_files
from ...sites import contents, ids, store
from ...sites.models import Arrival, StoredSite
from ...sites.uploads import on_disk
from ..cycle.announcements import announcement
from ..cycle.notices import notice_of
from ..cycle.screen import Opened, Redirected, screen, site_url

LARGEST_BUNDLE = 200_000_000


@takes_files(LARGEST_BUNDLE)
@screen("studio/foundations/carry.html", "foundations")
def carry(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    if request.method == "POST" and request.FILES.get("bundle"):
        _take_bundle(request, opened)
        raise Redirected(site_url("carry", opened) + "?from=bundle")
    asked = request.POST if request.method == "POST" else request.GET
    others = list(StoredSite.objects.filter(people=opened.user.pk).exclude(pk=opened.stored.pk).order_by("name"))
    arrival = Arrival.objects.filter(site=opened.stored, person_id=opened.user.pk).first()
    chosen_source = asked.get("from", "")
    source = _source(chosen_source, others, arrival)
    take = set(asked.getlist("take"))
    if source is not None and "swatches" in take:
        take |= {swatch.id for swatch in source.swatches}
    if source is not None and "bands" in take:
        take |= {band.id for band in source.bands}
    if source is not None and "defaults" in take:
        take |= {default.id for default in source.roles}
    if source is not None and request.method == "POST" and asked.get("carry") and take:
        _carry(request, opened, source, take, arrival if chosen_source == "bundle" else None)
        raise Redirected(site_url("carry", opened) + f"?from={chosen_source}")
    along = needed(source, take) - take if source is not None else set()
    return {
        "room": "carry",
        "others": others,
        "arrival": arrival,
        "from_slug": chosen_source if source is not None else "",
        "source": source,
        "take": take,
        "along": [_named(source, node) for node in sorted(along)] if source is not None else [],
        "clashes": clashes(source, opened.site, take) if source is not None else [],
    }


def _source(asked: str, others: list[StoredSite], arrival: Arrival | None) -> Site | None:
    if asked == "bundle":
        return Site.model_validate(arrival.document) if arrival else None
    stored = next((one for one in others if one.slug == asked), None)
    return store.load(stored.pk).site if stored else None


def _named(source: Site, node_id: str) -> str:
    for slot in SLOTS_CARRIED:
        for node in getattr(source, slot):
            if node.id == node_id:
                return str(getattr(node, "name", None) or node.role)
    return node_id


def _take_bundle(request: HttpRequest, opened: Opened) -> None:
    """A bundle's foundations, menus and pieces wait to be chosen from; its pages are left out but for their paths."""
    file = request.FILES["bundle"]
    if file.size > LARGEST_BUNDLE:
        messages.error(request, f"This bundle is larger than {LARGEST_BUNDLE // 1_000_000} MB.")
        return
    try:
        with on_disk(file) as path:
            site, fonts = wall.read(site_with_fonts, path, refusals=(BrokenBundle,))
    except BrokenBundle as broken:
        messages.error(request, f"“{file.name}” was not taken in: {broken}")
        return
    except wall.Unread as unread:
        messages.error(request, f"“{file.name}” was not taken in: {unread}.")
        return
    contents.keep_contents({digest(data): data for data in fonts})
    light = site.replaced(
        assets=(), pages=tuple(page.replaced(content=None, splice=None, source=None, cuts=()) for page in site.pages)
    )
    document = read_site(canonical_json(light.model_dump(mode="json"))).model_dump(mode="json")
    Arrival.objects.update_or_create(
        site=opened.stored, person_id=opened.user.pk, defaults={"name": site.name, "document": document}
    )


def _carry(request: HttpRequest, opened: Opened, source: Site, take: set[str], arrival: Arrival | None) -> None:
    decisions = {
        name.removeprefix("clash-"): cast(Decision, value)
        for name, value in request.POST.items()
        if name.startswith("clash-") and value in {"keep", "replace", "both"}
    }
    if "scale" in take and "scale" not in decisions:
        decisions["scale"] = "replace"
    edit = carried(source, opened.site, take, decisions, ids.new_id)
    if not edit.edits:
        messages.info(request, "Nothing was carried over: all of it is here already, or was to be kept as it is here.")
        return
    notice = notice_of(store.submit(opened.stored.pk, opened.user, edit, tells=announcement), edit, opened.site)
    if notice is not None:
        messages.error(request, f"Nothing was carried over. {notice.sentence}")
        return
    if arrival is not None:
        arrival.delete()
    messages.success(request, f"Carried over from {source.name}. Undo takes it back.")

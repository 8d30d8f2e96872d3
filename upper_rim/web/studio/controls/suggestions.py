"""What can it be that somebody types: an icon, a page's path?"""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render

from ....shipped import shelf
from ...sites import store
from ...sites.access import site_of

MOST_ICONS = 96


def icons(request: HttpRequest, slug: str) -> HttpResponse:
    """Icons whose names have what is typed in them: of the general set, and the marks of services."""
    site_of(request.user, slug)
    typed = request.GET.get("q", "").strip().lower().replace(" ", "-")[:60]
    order = request.GET.get("sort", "name")
    found: list[tuple[str, str, Any]] = [
        (name, name.replace("-", " "), drawing) for name, drawing in shelf().icons.items() if typed in name
    ]
    if len(typed) > 1:
        brands = shelf().brands.by_slug.values()
        found += [
            (f"brand-{brand.slug}", brand.title, brand.path)
            for brand in brands
            if typed in brand.slug or typed in brand.title.lower()
        ]
    if request.GET.get("as") == "options":
        return render(
            request,
            "studio/controls/icon_options.html",
            {"names": sorted((name for name, _, _ in found), key=len)[:40]},
        )
    found.sort(key=lambda one: (len(one[0]), one[0]) if order == "short" else (0, one[0]))
    context = {
        "icons": [(name, title, drawing, name.startswith("brand-")) for name, title, drawing in found[:MOST_ICONS]],
        "more": max(0, len(found) - MOST_ICONS),
        "typed": typed,
    }
    return render(request, "studio/controls/icon_list.html", context)


def find_paths(request: HttpRequest, slug: str) -> HttpResponse:
    """Options for a path that is being typed: pages whose path or title holds it."""
    stored = site_of(request.user, slug)
    typed = (request.GET.get("q") or "").strip().lower()
    pages = store.load(stored.pk).site.pages
    found = [page for page in pages if typed in page.path.lower() or typed in page.title.lower()][:30]
    return render(request, "studio/controls/path_options.html", {"found": found})

"""Swatches, face, width bands and measures: what all pieces of a site share."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest

from ...core.model.check import SWATCH_FIELDS
from ...core.model.site import Site
from ...core.model.tree import walk
from ...shipped import shelf
from .screens import Opened, screen


@screen("studio/foundations.html", "foundations")
def foundations(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    site = opened.site
    bands = [
        (band, site.bands[at + 1].from_px if at + 1 < len(site.bands) else None) for at, band in enumerate(site.bands)
    ]
    sample = next((page.title for page in site.pages if page.title), site.name)
    return {
        "swatches": [(swatch, swatch_uses(site, swatch.id)) for swatch in site.swatches],
        "faces": list(shelf().faces.values()),
        "bands": bands,
        "sample": sample,
    }


def swatch_uses(site: Site, swatch_id: str) -> list[str]:
    """Names of the pieces that use a swatch, once for each place."""
    return [
        piece.name
        for piece in site.pieces
        for node in (piece, *walk(piece))
        for field in SWATCH_FIELDS
        if getattr(node, field, None) == swatch_id
    ]

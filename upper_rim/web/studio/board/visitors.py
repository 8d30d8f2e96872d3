"""The visitors as whom one can look at a site: simulated ones, that it keeps."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest

from ....core.model.site import Site
from ....core.reach.coverage import coverage_of
from ..controls.visitors import fields_of
from ..cycle.screen import Opened, screen


@screen("studio/board/visitors.html", "board")
def visitors(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    site = opened.site
    asked = (*made, request.POST.get("node", ""), request.GET.get("card", ""))
    chosen = next((card for one in asked for card in site.cards if card.id == one), None)
    chosen = chosen or next(iter(site.cards), None)
    return {
        "cards": site.cards,
        "chosen_card": chosen,
        "field_groups": fields_of(chosen, site) if chosen else [],
        "gets": _gets(site, chosen) if chosen else [],
    }


def _gets(site: Site, card: Any) -> list[tuple[str, bool]]:
    """Of the pieces that are not for everybody, which are for them."""
    gets = coverage_of(site).gets(card)
    return [(piece.name, piece.id in gets) for piece in site.pieces if not piece.audience.is_everybody]

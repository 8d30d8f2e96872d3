"""What does somebody look at on the workbench: which part of the tray, which state, which width?"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, cast

from django.http import HttpRequest

from ....core.kinds.moving import Stage
from ....core.kinds.pieces.base import Piece
from ....core.model.editing.check import roles_of
from ....core.model.site import Page, Site
from ....core.reach.coverage import Coverage
from ....core.style.boxes import extent
from ....core.style.paint.contrast import Measured, edge_contrast, passing_shade, ring_contrast, text_contrast
from ....core.style.paint.painting import Painter, PaintView
from ....core.style.paint.pictures import Picture, read_picture
from ....core.style.resolve import StyledElement, Styling, band_at
from ....core.values.styling import STATES_OF, Part, State, Styled
from ...sites import contents
from ..controls.editors import editing_of
from ..controls.of_styles import FACET_NAMES, STATE_NAMES, Chosen, StyleGroup, part_name, style_groups

TRAYS = {**FACET_NAMES, "fit": "Fit", "movement": "Movement"}
"""What the workbench's tray can show: the facets of a look, how the piece fits and what it does while one scrolls."""
EDGED = frozenset({"field", "second"})
"""Roles that are known as controls by their edge alone, so that it has to be seen (WCAG 2.2, 1.4.11)."""


@dataclass(frozen=True)
class StateShown:
    """One cell under the strip: a state, its contrast, and whether it is left as it is at rest."""

    state: State
    name: str
    chosen: bool
    contrast: Measured | None
    ring: Measured | None
    edge: Measured | None
    undesigned: bool


def pictures_of(site: Site) -> Any:
    """Reads the pictures that grounds show, by path."""
    assets = {asset.path: asset.content for asset in site.assets}

    def picture(path: str) -> Picture | None:
        return _picture(assets[path]) if path in assets else None

    return picture


@lru_cache(maxsize=64)
def _picture(content: str) -> Picture | None:
    return read_picture(contents.read_content(content))


def asked(request: HttpRequest, name: str, allowed: Any, otherwise: str = "") -> str:
    """A part of the view as the form or the address names it, if it is one of those allowed."""
    value = request.POST.get(name) or request.GET.get(name) or otherwise
    return value if value in allowed else otherwise


def tray(request: HttpRequest, site: Site, chosen: Any, width: int, stage_address: str) -> dict[str, Any]:
    """What the tray shows of a node's look. `stage_address`: where the site's files are seen."""
    roles = roles_of(chosen)
    facet = asked(request, "tray", trays_of(chosen), "content")
    part = cast(Part, asked(request, "part", roles, "content" if roles.get("content") in {"entry", "icon"} else "box"))
    states = STATES_OF[roles[part]]
    state = cast(State, asked(request, "state", states, "rest"))
    band = asked(request, "band", {band.id for band in site.bands}) or None
    styling = Styling(site)
    element = styling.elements[chosen.id, part]
    seen_band = band or band_at(site, width)
    painter = Painter(styling, pictures_of(site))
    about = Chosen(chosen.styles, element, part, state, band)
    groups: list[StyleGroup] = []
    if facet not in {"content", "looks", "fit", "movement"}:
        # What is shown is what holds at the width looked at; what is set is set for the band chosen.
        groups = style_groups(site, styling, facet, about, seen_band)
    strip = states_shown(styling, painter, element, states, state, seen_band, width)
    return {
        "tray": facet,
        "facets": [(key, name, key == facet) for key, name in TRAYS.items() if key in trays_of(chosen)],
        "part": part,
        "parts": [(key, part_name(key, role)) for key, role in roles.items()] if len(roles) > 1 else [],
        "state": state,
        "band": band or "",
        "seen_band": seen_band or "all",
        "strip": strip,
        "editing": editing_of(styling, element, state, strip[states.index(state)].contrast, stage_address),
        "style_groups": groups,
        "style_node": chosen.id,
        "extent": extent(styling, element, seen_band, width) if facet == "room" else None,
        "shade": _shade(painter, element, state, seen_band, width) if facet == "text" else None,
        "worn": [(look, look.id in chosen.wears) for look in site.looks] if isinstance(chosen, Styled) else [],
        "has_styles": bool(chosen.styles),
    }


def trays_of(chosen: Any) -> Iterable[str]:
    """A stage changes what is painted, and nothing else."""
    return ("content", "ground", "edge", "text", "movement") if isinstance(chosen, Stage) else TRAYS


def states_shown(
    styling: Styling,
    painter: Painter,
    element: StyledElement,
    states: tuple[State, ...],
    chosen: State,
    band: str | None,
    width: int,
) -> list[StateShown]:
    rest = {name: found.value for name, found in styling.all_of(element, "rest", band).items()}
    shown = []
    for state in states:
        view = PaintView(state, band, width)
        values = {name: found.value for name, found in styling.all_of(element, state, band).items()}
        text = text_contrast(painter, element, view)
        ring = ring_contrast(painter, element, view) if state == "focus" else None
        edge = edge_contrast(painter, element, view) if element.role in EDGED else None
        shown.append(
            StateShown(state, STATE_NAMES[state], state == chosen, text, ring, edge, state != "rest" and values == rest)
        )
    return shown


def _shade(painter: Painter, element: StyledElement, state: State, band: str | None, width: int) -> str | None:
    view = PaintView(state, band, width)
    if text_contrast(painter, element, view).passes:
        return None
    return passing_shade(painter, element, view)


def looked_at(request: HttpRequest, site: Site, piece: Piece) -> Page | None:
    """The page on the stage: the one asked for, else the first that the piece shows on, else the first."""
    asked = request.POST.get("page") or request.GET.get("page") or ""
    page = next((page for page in site.pages if asked and page.path in {asked, asked + "/"}), None)
    if page is not None:
        return page
    coverage = Coverage(site)
    for page in site.pages:
        if piece.id in coverage.pieces_on(page):
            return page
    return site.pages[0] if site.pages else None

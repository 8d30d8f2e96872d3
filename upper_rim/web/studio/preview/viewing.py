"""What does somebody look at on the workbench: which part of the tray, which state, which width?"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Set
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, cast

from django.http import HttpRequest

from ....core.conditions.visitor import VisitorCard
from ....core.kinds.items.base import ShowsMenu
from ....core.kinds.moving import Stage
from ....core.kinds.pieces.base import Piece
from ....core.kinds.rows import Row
from ....core.model.editing.check import roles_of, unseen_of
from ....core.model.site import Page, Site
from ....core.output.page.specimen import IN_PIECE
from ....core.reach.coverage import coverage_of
from ....core.style.boxes import extent
from ....core.style.paint.contrast import Measured, edge_contrast, passing_shade, ring_contrast, text_contrast
from ....core.style.paint.painting import Painter, PaintView
from ....core.style.paint.pictures import Picture
from ....core.style.paint.texts import SAID_BY_ENTRIES, beside_labels
from ....core.style.resolve import (
    StyledElement,
    Styling,
    alike_in_piece,
    band_at,
    default_of,
    element_in,
    styled_in,
    styling_of,
)
from ....core.values.styling import STATES_OF, Part, Role, State, Styled
from ....shipped import shelf
from ...sites import contents
from ...sites.walled import read_picture
from ..controls.editors import editing_of
from ..controls.of_styles import (
    FACET_NAMES,
    FACETS,
    ROLE_NAMES,
    STATE_NAMES,
    Chosen,
    StyleGroup,
    listed_groups,
    part_name,
    style_groups,
)

TRAYS = {**FACET_NAMES, "who": "For whom", "fit": "Fit", "movement": "Movement"}
"""What the workbench's tray can show: the facets of a look, for whom it is, how the piece fits and what it does while one
scrolls."""
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
    shows_text: bool


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
    roles = seen_roles(chosen, site)
    styling = styling_of(site)
    defaults = {f"{IN_PIECE}{role}": role for role in roles_in(chosen)} if isinstance(chosen, Piece) else {}
    usual = "content" if roles.get("content") in {"entry", "icon"} else "box"
    key = asked(request, "part", {*roles, *defaults}, usual)
    if key in defaults:
        part, said, style_node = "box", default_of(chosen.roles, defaults[key]), f"role:{defaults[key]}@{chosen.id}"
        element, styles = element_in(styling, chosen.id, defaults[key]), said.styles if said else ()
    else:
        part, style_node, styles = key, chosen.id, chosen.styles
        element = styling.elements[chosen.id, cast(Part, part)]
    trays = [one for one in trays_of(chosen) if one not in FACETS or listed_groups(one, element.role)]
    facet = asked(request, "tray", trays, "ground" if request.GET.get("tray") in FACETS else "content")
    states = STATES_OF[element.role]
    state = cast(State, asked(request, "state", states, states[0]))
    band = asked(request, "band", {band.id for band in site.bands}) or None
    seen_band = band or band_at(site, width)
    painter = Painter(styling, pictures_of(site))
    about = Chosen(styles, element, cast(Part, part), state, band)
    groups: list[StyleGroup] = []
    if facet not in {"content", "looks", "who", "fit", "movement"}:
        # What is shown is what holds at the width looked at; what is set is set for the band chosen.
        groups = style_groups(site, styling, facet, about, seen_band)
    strip = states_shown(styling, painter, element, states, state, seen_band, width)
    return {
        "tray": facet,
        "facets": [(key, name, key == facet) for key, name in TRAYS.items() if key in trays],
        "part": key,
        "parts": parts_shown(chosen, roles, defaults),
        "opened": OPENED_BY.get(key, ""),
        "state": state,
        "band": band or "",
        "seen_band": seen_band or "all",
        "strip": strip,
        "editing": editing_of(styling, element, state, strip[states.index(state)].contrast, stage_address),
        "style_groups": groups,
        "faces": shelf().offered_faces if facet == "text" else [],
        "style_node": style_node,
        "extent": extent(styling, element, seen_band, width) if facet == "room" and element.node else None,
        "shade": _shade(painter, element, state, seen_band, width) if facet == "text" else None,
        "worn": [(look, look.id in chosen.wears) for look in site.looks] if isinstance(chosen, Styled) else [],
        "alike": _alike(site, chosen),
        "has_styles": bool(chosen.styles),
    }


OPENED_BY: dict[str, str] = {
    "opened": "drawer",
    "close": "drawer",
    "veil": "drawer",
    "panel": "panel",
    "lower": "panel",
}
"""What of a menu is to be open on the stage for a part to be seen."""


def roles_in(piece: Piece) -> list[str]:
    """Roles of what stands in a piece, for which it can have defaults of its own."""
    there = {
        role for holder in styled_in(piece) for part, role in roles_of(holder).items() if part not in unseen_of(holder)
    }
    return [role for role in ROLE_NAMES if role in there]


def parts_shown(chosen: Any, roles: Mapping[Part, Role], defaults: Mapping[str, str]) -> list[tuple[str, str]]:
    """Key and name of each part that can be styled by itself; none where there is only one."""
    named: list[tuple[str, str]] = [(part, part_name(part, role, chosen)) for part, role in roles.items()]
    named += [(key, f"{ROLE_NAMES[role]} in it") for key, role in defaults.items()]
    return named if len(named) > 1 else []


def seen_roles(chosen: Any, site: Site) -> dict[Part, Role]:
    """The parts that show, as it is, and those that are styled already; and the role of each."""
    unseen: Set[Part] = unseen_of(chosen)
    if isinstance(chosen, ShowsMenu):
        unseen = unseen | (SAID_BY_ENTRIES - beside_labels(chosen, site))
    unseen = unseen - {style.part for style in getattr(chosen, "styles", ())}
    return {part: role for part, role in roles_of(chosen).items() if part not in unseen}


def looking_as(request: HttpRequest, site: Site, name: str = "as") -> VisitorCard | None:
    """The simulated visitor as whom the stage is looked at, or the one `beside` it; None for somebody who gets
    everything."""
    name = asked(request, name, {card.id for card in site.cards})
    return next((card for card in site.cards if card.id == name), None)


def _alike(site: Site, chosen: Any) -> str:
    """What all in the piece are called that a look can be put on at once; empty where there is no other."""
    role = roles_of(chosen).get("box")
    if role not in ROLE_NAMES or not isinstance(chosen, Styled) or len(alike_in_piece(site, chosen)) < 2:
        return ""
    return ROLE_NAMES[role].lower()


def trays_of(chosen: Any) -> Iterable[str]:
    """A stage changes what is painted, and nothing else."""
    if isinstance(chosen, Stage):
        return ("content", "ground", "edge", "text", "movement")
    shares = isinstance(chosen, Row) and chosen.shares is not None
    return TRAYS if hasattr(chosen, "audience") and not shares else [one for one in TRAYS if one != "who"]


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
            StateShown(
                state,
                STATE_NAMES[state],
                state == chosen,
                text,
                ring,
                edge,
                undesigned=state != "rest" and values == rest,
                shows_text=element.role != "veil",
            )
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
    coverage = coverage_of(site)
    for page in site.pages:
        if piece.id in coverage.pieces_on(page):
            return page
    return site.pages[0] if site.pages else None

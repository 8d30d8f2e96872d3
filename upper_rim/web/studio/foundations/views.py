"""What all pieces of a site share: swatches, faces, scale, widths, defaults by role, looks, the designer's own code."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator
from typing import Any, NamedTuple, cast

from django.http import HttpRequest

from ....core.kinds.pieces.base import Piece
from ....core.model.names import node_name
from ....core.model.references import references
from ....core.model.site import Site
from ....core.model.tree import holder_of
from ....core.output.page.specimen import SHOWN_ROLES
from ....core.style.own_css import css_faults
from ....core.style.paint.colour import Palette
from ....core.style.paint.contrast import Weak, weak_texts
from ....core.style.paint.painting import Painter
from ....core.style.resolve import StyledElement, Styling, default_of, styled_in, styling_of, wearers
from ....core.style.type.faces import character_em
from ....core.style.type.scale import column_px, sidebar_needs_px, spaces, spreads, steps
from ....core.values.colours import ROLE_COLOURS
from ....core.values.styling import LOOK_PARTS, STATES_OF, Declaration, Look, Part, RoleDefault, State, Swatch
from ....shipped import shelf
from ..controls.control import category_choices
from ..controls.editors import editing_of
from ..controls.of_styles import (
    FACET_NAMES,
    ROLE_NAMES,
    STATE_NAMES,
    Chosen,
    faces_in_themselves,
    part_name,
    style_groups,
)
from ..cycle.screen import Opened, Redirected, screen, site_url, stage_address
from ..preview.viewing import asked, pictures_of, states_shown


@screen("studio/foundations/foundations.html", "foundations")
def foundations(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    site = opened.site
    palette = Palette(site)
    counts = Counter(use.swatch for use in swatch_uses(site))
    listed = request.GET.get("uses", "")
    return {
        "room": "swatches",
        "swatches": [
            (swatch, palette.colour(swatch.id), counts[swatch.id], _parent_name(site, swatch))
            for swatch in site.swatches
        ],
        "listed": listed,
        "used_in": [_use_in_words(use, site) for use in swatch_uses(site) if use.swatch == listed],
        "roles": list(ROLE_COLOURS),
        "ground": page_ground_styles(site),
        "swatch_names": [swatch.name for swatch in site.swatches],
        "sample_page": next((page.path for page in site.pages), "/"),
    }


def _parent_name(site: Site, swatch: Any) -> str:
    return next((one.name for one in site.swatches if swatch.tied and one.id == swatch.tied.parent), "")


def page_ground_styles(site: Site) -> dict[str, str]:
    default = default_of(site.roles, "page")
    return {style.property.replace("-", "_"): style.value for style in default.styles} if default else {}


class UseInWords(NamedTuple):
    """A place where a swatch is used: the node that says so, the piece that it lies in, and for what property."""

    swatch: str
    node: Any
    piece: Piece | None
    property: str | None


def swatch_uses(site: Site) -> Iterator[UseInWords]:
    of_role: dict[str, str] = {swatch.role: swatch.id for swatch in reversed(site.swatches) if swatch.role}
    holders: Iterable[tuple[Any, Piece | None]] = (
        *((holder, None) for holder in (*site.roles, *site.looks)),
        *((node, piece) for piece in site.pieces for node in (*piece.roles, *styled_in(piece))),
    )
    for node, piece in holders:
        for style in node.styles:
            for reference in references(style):
                if reference.slot == "swatches":
                    used = of_role.get(reference.id[1:]) if reference.id.startswith(":") else reference.id
                    if used is not None:
                        yield UseInWords(used, node, piece, style.property)
    for swatch in site.swatches:
        if swatch.role is not None:
            yield UseInWords(swatch.id, swatch, None, None)
        if swatch.tied is not None:
            yield UseInWords(swatch.tied.parent, swatch, None, None)


def _use_in_words(use: UseInWords, site: Site) -> str:
    match use.node:
        case Swatch() if use.node.id == use.swatch:
            return f"stands for the role {use.node.role}"
        case Swatch():
            return f"tied to it: {use.node.name}"
        case RoleDefault():
            name = f"{use.piece.name}, {use.node.role}" if use.piece else f"defaults of {use.node.role}"
        case Look():
            name = f"look {use.node.name}"
        case _:
            assert use.piece is not None
            name = use.piece.name if use.node is use.piece else f"{use.piece.name}, {node_name(use.node, site)}"
    return f"{name}: {use.property}"


@screen("studio/foundations/type.html", "foundations")
def type_screen(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    site = opened.site
    bands = [
        (band, site.bands[at + 1].from_px if at + 1 < len(site.bands) else None) for at, band in enumerate(site.bands)
    ]
    character = character_em(site, shelf().faces)
    needs = sidebar_needs_px(site, character)
    return {
        "room": "type",
        "faces": shelf().offered_faces,
        "fonts": site.fonts,
        "faces_in_themselves": faces_in_themselves(site),
        "bands": bands,
        "sample": next((page.title for page in site.pages if page.title), site.name),
        "steps": steps(site, character),
        "spaces": spaces(site, character).items(),
        "spreads": spreads(site, character),
        "column": round(column_px(site, character)),
        "sidebar_needs": needs,
        "sidebar_is_band": any(band.from_px == needs for band in site.bands),
    }


@screen("studio/foundations/defaults.html", "foundations")
def defaults(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    site = opened.site
    styling = styling_of(site)
    painter = Painter(styling, pictures_of(site))
    band = site.bands[-1].id if site.bands else None
    listed = []
    for role_name, name, _ in SHOWN_ROLES:
        element = styling.role_element(role_name)
        shown = states_shown(styling, painter, element, STATES_OF[role_name], "rest", band, 1280)
        listed.append((role_name, name, shown, default_of(site.roles, role_name)))
    return {"room": "defaults", "listed": listed}


@screen("studio/foundations/role.html", "foundations")
def role(request: HttpRequest, opened: Opened, role: str, made: tuple[str, ...]) -> dict[str, Any]:
    """One role's defaults: every state, and the controls for the one chosen."""
    name = {
        **{key: name for key, name, _ in SHOWN_ROLES},
        "ring": "Focus ring",
        "page": "Page ground",
        "piece": "Piece",
        "row": "Row",
    }.get(role)
    if name is None:
        raise Redirected(site_url("defaults", opened))
    styling = styling_of(opened.site)
    default = default_of(opened.site.roles, role)
    shown_role = "button" if role == "ring" else role
    element = styling.role_element(shown_role) if shown_role != "page" else styling.role_element("piece")
    context = _styled(request, opened, styling, element, default.styles if default else (), ("box",), STATES_OF[role])
    return {
        "room": "defaults",
        "role": role,
        "shown_role": shown_role,
        "role_name": name,
        "style_node": f"role:{role}",
        "is_default_set": bool(default and default.styles),
        "has_strip": any(key == shown_role for key, _, _ in SHOWN_ROLES),
        **context,
    }


@screen("studio/foundations/looks.html", "foundations")
def looks(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    if made and made[0].startswith("lk-") and request.POST.get("do") == "add":
        raise Redirected(site_url("look", opened, made[0]))
    listed = [(look, _worn_by(opened.site, look.id)) for look in opened.site.looks]
    return {"room": "looks", "listed": listed}


@screen("studio/foundations/look.html", "foundations")
def look(request: HttpRequest, opened: Opened, look_id: str, made: tuple[str, ...]) -> dict[str, Any]:
    """A look: its three layers, in every state."""
    site = opened.site
    chosen = next((one for one in site.looks if one.id == look_id), None)
    if chosen is None:
        raise Redirected(site_url("looks", opened))
    styling = styling_of(site)
    worn = wearers(site, look_id)
    part = cast(Part, asked(request, "part", LOOK_PARTS, "box"))
    elements = [styling.elements[node.id, part] for node in worn if (node.id, part) in styling.elements]
    element = elements[0] if elements else styling.role_element("entry" if part == "content" else "button")
    context = _styled(request, opened, styling, element, chosen.styles, LOOK_PARTS, STATES_OF["entry"])
    return {
        "room": "looks",
        "look": chosen,
        "style_node": chosen.id,
        "wearers": _worn_by(site, look_id),
        "taken_up": sorted({style.property for style in chosen.styles if style.part == part}),
        **context,
    }


def _worn_by(site: Site, look_id: str) -> list[tuple[str, str, str]]:
    """Who wears a look: piece id, node id, and in words."""
    worn = {node.id for node in wearers(site, look_id)}
    return [
        (piece.id, node.id, piece.name if node is piece else f"{piece.name}, {node_name(node, site)}")
        for piece in site.pieces
        for node in styled_in(piece)
        if node.id in worn
    ]


def _styled(
    request: HttpRequest,
    opened: Opened,
    styling: Styling,
    element: StyledElement,
    styles: tuple[Declaration, ...],
    parts: tuple[Part, ...],
    states: tuple[State, ...],
) -> dict[str, Any]:
    """What the controls of a look or a role's defaults show."""
    site = opened.site
    facets = {key: name for key, name in FACET_NAMES.items() if key not in {"content", "looks"}}
    facet = asked(request, "tray", facets, "text")
    part = cast(Part, asked(request, "part", parts, "box"))
    state = cast(State, asked(request, "state", states, states[0]))
    band = asked(request, "band", {band.id for band in site.bands})
    seen = band or (site.bands[-1].id if site.bands else None)
    about = Chosen(styles, element, part, state, band or None)
    strip = states_shown(styling, Painter(styling, pictures_of(site)), element, states, state, seen, 1280)
    contrast = strip[states.index(state)].contrast
    return {
        "tray": facet,
        "facets": [(key, name, key == facet) for key, name in facets.items()],
        "part": part,
        "parts": [(key, key.capitalize()) for key in parts] if len(parts) > 1 else [],
        "state": state,
        "states": [(key, STATE_NAMES[key]) for key in states],
        "strip": strip,
        "editing": editing_of(styling, element, state, contrast, stage_address(request, opened)),
        "band": band,
        "style_groups": style_groups(site, styling, facet, about, seen),
        "faces": shelf().offered_faces if facet == "text" else [],
        "swatch_names": [swatch.name for swatch in site.swatches],
        "seen_band": seen or "all",
    }


@screen("studio/foundations/contrast.html", "foundations")
def contrast(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    """Every text that is hard to read: where, in which state and widths, and the nearest shade that passes."""
    site = opened.site
    pieces = {piece.id: piece.name for piece in site.pieces}
    bands = {band.id: band.name for band in site.bands}
    listed = [
        {
            "piece": pieces[weak.element.piece],
            "piece_id": weak.element.piece,
            "name": node_name(holder_of(site, weak.node), site),
            "weak": weak,
            "within": _within(site, weak),
            "state": STATE_NAMES[weak.state],
            "bands": ""
            if len(weak.bands) == max(1, len(site.bands))
            else ", ".join(bands[band] for band in weak.bands if band),
            "band": weak.bands[0] if len(weak.bands) == 1 and len(site.bands) > 1 and weak.bands[0] else "",
        }
        for weak in weak_texts(site, pictures_of(site))
    ]
    return {"room": "contrast", "listed": listed}


def _within(site: Site, weak: Weak) -> str:
    """Of which part of the node a text is; empty where it is the node's own."""
    if not weak.element.node:
        return ROLE_NAMES[weak.element.role].lower()
    holder = holder_of(site, weak.node)
    return part_name(weak.element.part, weak.element.role, holder).lower() if weak.element.part != "box" else ""


@screen("studio/foundations/code.html", "foundations")
def code(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    """The designer's own CSS, checked, and snippets."""
    return {
        "room": "code",
        "faults": css_faults(opened.site.css),
        "css_lines": opened.site.css.count("\n") + 1,
        "wheres": [("everywhere", "on every page"), ("below", "below a path"), ("page", "on one page")],
        "places": [("head", "in the head"), ("start", "at the body’s start"), ("end", "at the body’s end")],
        "waits": category_choices(opened.site, "waits as its hosts do"),
        "snippets": [(snippet, _where_words(opened.site, snippet.where)) for snippet in opened.site.snippets],
        "sample_page": next((page.path for page in opened.site.pages), "/"),
    }


def _where_words(site: Site, where: Any) -> str:
    match where.kind:
        case "below":
            return str(where.path)
        case "page":
            return next((page.path for page in site.pages if page.id == where.page), "")
    return ""

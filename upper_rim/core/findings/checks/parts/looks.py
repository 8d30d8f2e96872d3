"""Can states be told apart by those who do not see colours, or use no pointer? And is there the weight that is asked for?"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from functools import partial
from typing import NamedTuple

from ....fit.rows.fitter import Fitter, foundations_of
from ....kinds.items.rich import RichText
from ....kinds.pieces.base import Piece
from ....model.site import Site
from ....model.tree import ROOT, items_of
from ....style.lengths import NoLength
from ....style.paint.colour import contrast_ratio
from ....style.paint.painting import Painter, PaintView
from ....style.resolve import FOCUSABLE, StyledElement, Styling, styling_of
from ....style.type.faces import Face
from ....values.properties import PROPERTIES
from ....values.styling import STATES_OF, State
from ...dress import dress_of
from ...finding import Finding, FindingKind

TOLD_APART = 3.0
"""WCAG 2.2, technique G183: so much contrast between two colours tells them apart without any hue."""
_COLOURS = frozenset(name for name in PROPERTIES if name == "color" or name.endswith("-color"))
_UNSEEN = ("none", "hidden")


_DESIGNED: Mapping[State, frozenset[str]] = {
    "hover": frozenset({"entry", "button", "second", "icon", "link"}),
    "current": frozenset({"entry"}),
}
"""Roles of which one expects to see that they are in a state."""
_UNDESIGNED: Mapping[State, FindingKind] = {"hover": "same on hover", "current": "current unmarked"}


class Looked(NamedTuple):
    """Of one piece. `weights`: the faces and weights that it asks for, and who asks first."""

    found: list[Finding]
    weights: dict[tuple[str, int], str]


def in_looks(fitter: Fitter, site: Site) -> Iterator[Finding]:
    """Of the pieces' own elements, in every width band. `fitter` keeps what has not changed."""
    looks = (site.looks, site.roles, site.swatches, site.bands, site.face, site.heading_face, site.text_weight)
    weights: dict[tuple[str, int], str] = {}
    for piece in site.pieces:
        if not piece.on:
            continue
        holders = [dress_of(holder) for holder, _ in site.holders(piece)] if piece.kind == "drawer" else []
        told = (looks, foundations_of(site), dress_of(piece), piece.roles, holders)
        looked = fitter.kept(("looks of", piece.id), told, partial(_of_piece, site, piece))
        yield from looked.found
        weights = {**looked.weights, **weights}
    yield from _weights(site, fitter.faces, weights)


def _of_piece(site: Site, piece: Piece) -> Looked:
    weights: dict[tuple[str, int], str] = {}
    return Looked(list(_found_in(site, piece, weights)), weights)


def _found_in(site: Site, piece: Piece, weights: dict[tuple[str, int], str]) -> Iterator[Finding]:
    styling = styling_of(site)
    painter = Painter(styling)
    items = {item.id: item for item in items_of((piece,))}
    bands: list[str | None] = [*(band.id for band in site.bands)] or [None]
    for element in styling.elements.values():
        if element.piece != piece.id:
            continue
        if element.role in FOCUSABLE and any(_has_no_focus(styling, element, band) for band in bands):
            yield Finding("unseen focus", element.node, about={"part": element.part})
        if "current" in STATES_OF.get(element.role, ()) and any(
            _is_alike(styling, painter, element, band) for band in bands
        ):
            yield Finding("colour alone", element.node, about={"part": element.part})
        for state, roles in _DESIGNED.items():
            unseen = items[element.node].unseen_parts if element.node in items else ()
            is_asked = element.role in roles and element.node and element.part not in unseen
            if is_asked and not all(_differing(styling, element, state, band) for band in bands):
                yield Finding(_UNDESIGNED[state], element.node, about={"part": element.part})
        is_in_text = element.part == "link" and isinstance(items.get(element.node), RichText)
        if is_in_text and any(_is_hidden(styling, painter, element, band) for band in bands):
            yield Finding("hidden link", element.node, about={"part": element.part})
        for band in bands:
            face, weight = (
                styling.resolve(element, name, "rest", band).value for name in ("font-family", "font-weight")
            )
            if weight.isdecimal():
                weights.setdefault((face, int(weight)), element.node)


def _said_in(styling: Styling, element: StyledElement, state: State) -> set[str]:
    """Of which properties something is said in that state."""
    return {
        name
        for layer in styling.layers(element)
        for name, said in layer.said.items()
        if any(one == state for one, _ in said)
    }


def _differing(styling: Styling, element: StyledElement, state: State, band: str | None) -> set[str]:
    return {
        name
        for name in _said_in(styling, element, state)
        if styling.resolve(element, name, state, band).value != styling.resolve(element, name, "rest", band).value
    }


def _has_no_focus(styling: Styling, element: StyledElement, band: str | None) -> bool:
    style, width = (styling.resolve(element, f"outline-{name}", "focus", band).value for name in ("style", "width"))
    if style not in _UNSEEN and width not in {"0", "0px"}:
        return False
    return all(name.startswith("outline-") for name in _differing(styling, element, "focus", band))


def _is_alike(styling: Styling, painter: Painter, element: StyledElement, band: str | None) -> bool:
    """What is current differs by nothing but colours that are too alike."""
    differing = _differing(styling, element, "current", band)
    if not differing or differing - _COLOURS:
        return False
    return all(_are_near(painter, element, name, band) for name in differing)


def _are_near(painter: Painter, element: StyledElement, name: str, band: str | None) -> bool:
    try:
        one, other = (painter.colour(element, name, PaintView(state, band)) for state in _REST_AND_CURRENT)
    except (NoLength, ValueError):
        return False
    return contrast_ratio(one, other) < TOLD_APART


_REST_AND_CURRENT: tuple[State, State] = ("rest", "current")


def _is_hidden(styling: Styling, painter: Painter, element: StyledElement, band: str | None) -> bool:
    """A link within running text that is told by its colour alone."""
    parent = element.parent
    if parent is None or styling.resolve(element, "text-decoration-line", "rest", band).value != "none":
        return False
    if any(
        styling.resolve(element, name, "rest", band).value != styling.resolve(parent, name, "rest", band).value
        for name in ("font-weight", "font-style")
    ):
        return False
    view = PaintView("rest", band)
    return contrast_ratio(painter.colour(element, "color", view), painter.colour(parent, "color", view)) < TOLD_APART


def _weights(site: Site, faces: Mapping[str, Face], asked: Mapping[tuple[str, int], str]) -> Iterator[Finding]:
    fonts = {font.id: font for font in site.fonts}
    for (face, weight), node in asked.items():
        if face in fonts:
            ranges, name = [(file.lightest, file.boldest) for file in fonts[face].files], fonts[face].name
        elif face in faces:
            ranges, name = [(faces[face].lightest, faces[face].boldest)], faces[face].family
        else:
            continue
        if ranges and not any(lightest <= weight <= boldest for lightest, boldest in ranges):
            yield Finding("no such weight", node or ROOT, face, {"weight": weight, "face": name})

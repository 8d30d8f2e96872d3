"""What the workbench says of a piece besides fit and movement: texts that are hard to read, items that are squeezed."""

from __future__ import annotations

from typing import Any, NamedTuple

from ...core.findings.squeezed import Squeezed, squeezed
from ...core.fit.fitter import Fitter
from ...core.model.site import Cell, Page, Piece, Site
from ...core.model.styling import Styled
from ...core.model.tree import holder_of, items_of, walk
from ...core.style.contrast import Weak, texts_within, weak_texts
from ...core.style.resolve import Element
from .control import Group, note
from .controls import node_name
from .styling_controls import STATE_NAMES
from .viewing import pictures_of

MOST_ITEMS = 60
"""In a piece of more, all texts at every edit would take too long: they are told under Foundations alone."""


class Legible(NamedTuple):
    """Sentences, and marks beside nodes of the outline."""

    weak: list[str]
    squeezed: list[Squeezed]
    said: list[str]
    marks: dict[str, str]


def legible(fitter: Fitter, site: Site, piece: Piece, page: Page | None, width: int) -> Legible:
    texts = fitter.kept(("weak", piece.id), _looks_of(site, piece), lambda: _weak(site, piece))
    language = page.language if page else site.language
    narrow = list(squeezed(fitter, site, piece, language, width))
    names = {item.id: node_name(item, site) for item in items_of((piece,))}
    marks = {one.node: "hard to read" for one in texts} | {one.node: "squeezed" for one in narrow}
    said = [f"{names[one.node]}: {one.px:.0f} of {one.asked_px:.0f} px" for one in narrow]
    return Legible([_weak_words(one, site) for one in texts], narrow, said, marks)


def squeezed_note(found: Legible, chosen: Any, site: Site, width: int) -> list[Group]:
    """At an item that is squeezed, and what would give it room."""
    one = next((one for one in found.squeezed if one.node == getattr(chosen, "id", "")), None)
    if one is None:
        return []
    cells = (cell for piece in site.pieces for row in piece.rows for cell in row.cells)
    cell = next((cell for cell in cells if isinstance(cell, Cell) and cell.id == one.cell), None)
    way = "Give its cell a share of the row" if cell and cell.track.kind != "share" else "Give its cell a greater share"
    words = f"It is {one.px:.0f} px wide at a width of {width} px, and asks for {one.asked_px:.0f}. {way}, or move it to a row of its own."
    return [Group("Squeezed", [note(chosen, words)])]


def _weak(site: Site, piece: Piece) -> list[Weak]:
    """Each text once, in the state in which it can be read least."""
    if sum(1 for _ in items_of((piece,))) > MOST_ITEMS:
        return []
    found: dict[tuple[str, Element], Weak] = {}
    listed = weak_texts(site, pictures_of(site), piece.id, with_shades=False)
    for weak in sorted(listed, key=lambda one: one.measured.ratio):
        found.setdefault((weak.node, weak.element), weak)
    return list(found.values())


def _weak_words(weak: Weak, site: Site) -> str:
    state = "" if weak.state == "rest" else f", {STATE_NAMES[weak.state].lower()}"
    over = " over a picture" if weak.is_pictured else ""
    name = node_name(holder_of(site, weak.node), site)
    return f"{name}{state}: {weak.measured.ratio:.2f} to 1{over}, {weak.measured.needed:g} are needed"


def _looks_of(site: Site, piece: Piece) -> tuple[Any, ...]:
    """All that the contrast of its texts depends on: equal where that is."""
    around = [holder for holder, _ in site.holders(piece)] if piece.kind == "drawer" else []
    nodes = [node for one in (piece, *around) for node in walk(one) if isinstance(node, Styled)]
    looks = tuple((node.id, node.styles, node.wears) for node in nodes)
    texts = tuple((item.kind, item.id, texts_within(item)) for item in items_of((piece,)))
    site_wide = (site.swatches, site.looks, site.roles, site.bands, site.face, site.text_px, site.ratio, site.assets)
    return (looks, texts, piece.roles, getattr(piece, "fan", None), site_wide)

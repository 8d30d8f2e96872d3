"""What the workbench says of a piece besides fit and movement: texts that are hard to read, items that are squeezed."""

from __future__ import annotations

from typing import Any, NamedTuple

from ....core.findings.checks.laid_out.legibility import glimpsed, squeezed, weak_texts_of
from ....core.findings.finding import Finding, FindingKind
from ....core.findings.words import finding_words
from ....core.fit.rows.fitter import Fitter
from ....core.kinds.pieces.base import Piece
from ....core.kinds.rows import Cell
from ....core.model.names import node_name
from ....core.model.site import Page, Site
from ....core.model.tree import items_of
from ..controls.control import Group, note
from .found import Mark, mark_of

MOST_ITEMS = 60
"""In a piece of more, all texts at every edit would take too long: they are told under Foundations alone."""


class Legible(NamedTuple):
    """Sentences, and marks beside nodes of the outline."""

    weak: list[str]
    pictured: list[str]
    squeezed: list[Finding]
    said: list[str]
    marks: dict[str, Mark]


def legible(fitter: Fitter, site: Site, piece: Piece, page: Page | None, width: int) -> Legible:
    items = list(items_of((piece,)))
    seen = glimpsed(fitter, site, piece) if len(items) <= MOST_ITEMS else {}
    narrow = list(squeezed(fitter, site, piece, page.language if page else site.language, width))
    names = {item.id: node_name(item, site) for item in items}
    said: dict[FindingKind, list[str]] = {kind: [] for kind in _MARKED}
    marks: dict[str, Mark] = {}
    for kind in _MARKED:
        for one in (one for one in (*weak_texts_of(seen), *narrow) if one.kind == kind):
            said[kind].append(finding_words(one, lambda node: names.get(node, piece.name)))
            marks[one.node] = mark_of(kind, f"at some widths, or in some states: {said[kind][-1]}")
    return Legible(said["weak text"], said["over a picture"], narrow, said["squeezed"], marks)


_MARKED: tuple[FindingKind, ...] = ("over a picture", "weak text", "squeezed")
"""Kinds that are told beside a node in the outline; of several the last one."""


def squeezed_note(found: Legible, chosen: Any, site: Site, width: int) -> list[Group]:
    """At an item that is squeezed, and what would give it room."""
    one = next((one for one in found.squeezed if one.node == getattr(chosen, "id", "")), None)
    if one is None:
        return []
    cells = (cell for piece in site.pieces for row in piece.rows for cell in row.cells)
    cell = next((cell for cell in cells if isinstance(cell, Cell) and cell.id == one.other), None)
    way = "Give its cell a share of the row" if cell and cell.track.kind != "share" else "Give its cell a greater share"
    asked = f"It is {one.amount:.0f} px wide at a width of {width} px, and asks for {one.about['asked_px']:.0f}."
    words = f"{asked} {way}, or move it to a row of its own."
    return [Group("Squeezed", [note(chosen, words)])]

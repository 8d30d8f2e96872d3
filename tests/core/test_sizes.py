"""A size that can be set changes something: no other rule of the sheet is stronger than what it says."""

from __future__ import annotations

from typing import Any

import pytest

from upper_rim.core.kinds.items import ITEM_KINDS
from upper_rim.core.model.site import Site
from upper_rim.core.model.tree import items_of
from upper_rim.core.output.drawn.draw_piece import PieceDrawer
from upper_rim.core.output.fitting import fitter_of
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

DEMO, CONTENTS = ostrey()
ELSEWHERE = {
    ("menu", "drawer_below_px"): "at which width the button shows",
    ("menu", "drawer_px"): "what the button opens",
    ("top", "after_px"): "how far one has scrolled",
    ("rich", "column_px"): "for how many columns there is room",
}
"""What does not show in a piece at rest, at one width."""
SIZES = [
    (kind, name)
    for kind, listed in ITEM_KINDS.items()
    for name in listed.model_fields
    if name.endswith("_px") and (kind, name) not in ELSEWHERE
]
WIDTHS_PX, MORE_PX = (1120, 390), 17


def in_place_of(site: Site, item_id: str, item: Any) -> Site:
    """The site with another item where one stands."""
    pieces = []
    for piece in site.pieces:
        rows = []
        for row in piece.rows:
            cells = [
                cell.replaced(items=tuple(item if one.id == item_id else one for one in cell.items))
                for cell in row.cells
            ]
            rows.append(row.replaced(cells=tuple(cells)))
        pieces.append(piece.replaced(rows=tuple(rows)))
    return site.replaced(pieces=tuple(pieces))


def drawn(site: Site, item_id: str) -> list[Any]:
    fitter = fitter_of(shelf(), CONTENTS.__getitem__, 2026, foresees=False)
    drawer = PieceDrawer(site, fitter)
    piece = next(one for one in drawer.site.pieces if any(item.id == item_id for item in items_of([one])))
    drawings = [drawer.draw(piece, "en", width) for width in WIDTHS_PX]
    return [drawing.shapes if drawing else None for drawing in drawings]


@pytest.mark.parametrize(("kind", "name"), SIZES, ids=[f"{kind}-{name}" for kind, name in SIZES])
def test_each_size_of_an_item_changes_what_is_drawn(kind: str, name: str) -> None:
    suited = [one for one in items_of(DEMO.pieces) if one.kind == kind and getattr(one, "picture", "none") is not None]
    site, item = DEMO, next(iter(suited), None)
    if item is None:
        item = ITEM_KINDS[kind](id="it-tagline")
        site = in_place_of(DEMO, item.id, item)
    if name.startswith("column_"):
        item = item.replaced(column_count=2, column_px=80)
        site = in_place_of(site, item.id, item)
    larger = in_place_of(site, item.id, item.replaced(**{name: getattr(item, name) + MORE_PX}))
    assert drawn(larger, item.id) != drawn(site, item.id)


def test_what_does_not_show_at_rest_is_still_a_size() -> None:
    assert all(name in ITEM_KINDS[kind].model_fields for kind, name in ELSEWHERE)

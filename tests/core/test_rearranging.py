"""A piece stands otherwise with all that is in it: nothing is lost, nothing twice, and back is exactly what there was."""

from __future__ import annotations

from collections import Counter
from itertools import count

import pytest

from tests.fitted_sites import FittedMaker
from upper_rim.core.kinds.pieces.base import Piece
from upper_rim.core.model.arrangements import ARRANGEMENTS
from upper_rim.core.model.editing.apply import apply, inverse
from upper_rim.core.model.rearranging import arrangements_for, rearranged
from upper_rim.core.model.site import Site
from upper_rim.core.model.tree import items_of
from upper_rim.demo import ostrey, quillwort

from .test_begun import RULES

SITES = {"ostrey": ostrey()[0], "quillwort": quillwort()[0]} | {
    f"generated {seed}": FittedMaker(seed).site()[0] for seed in range(12)
}


def taken_on(site: Site, piece: Piece, key: str) -> Site | None:
    numbers = count(1)
    edit = rearranged(site, piece, key, lambda letters: f"{letters}-other-{next(numbers)}")
    if edit is None:
        return None
    made = apply(site, edit, RULES)
    assert isinstance(made, Site), made
    undo = inverse(site, edit)
    assert apply(made, undo, RULES) == site, "taken off, it is what it was"
    return made


def same(site: Site, piece: Piece) -> Piece:
    return next(one for one in site.pieces if one.id == piece.id)


def cells_of(piece: Piece) -> list[list[list[str]]]:
    return [[[item.id for item in cell.items] for cell in row.cells] for row in piece.rows if row.stage is None]


@pytest.mark.parametrize("name", SITES)
def test_all_that_a_piece_holds_stands_in_it_once(name: str) -> None:
    site, tried = SITES[name], 0
    for piece in site.pieces:
        for key in arrangements_for(piece):
            made = taken_on(site, piece, key)
            if made is None:
                continue
            tried += 1
            after = same(made, piece)
            assert Counter(item.id for item in items_of((after,))) == Counter(item.id for item in items_of((piece,)))
            assert {item.id: item for item in items_of((after,))} == {item.id: item for item in items_of((piece,))}
            for row in piece.rows:
                if row.stage is not None or row.shares is not None:
                    assert row in after.rows, "stages and what is shared stay"
            shared = {row.shares for one in site.pieces for row in one.rows} & {row.id for row in piece.rows}
            assert shared <= {row.id for row in after.rows}, "what others share is there still"
            assert [one for one in made.pieces if one.id != piece.id] == [
                one for one in site.pieces if one.id != piece.id
            ]
            if max(Counter(item.kind for item in items_of((piece,))).values()) > 1:
                continue
            renamed = made.replaced(pieces=tuple(_with_other_ids(one) for one in made.pieces))
            again = taken_on(renamed, same(renamed, piece), key)
            if again is not None:
                assert cells_of(same(again, piece)) == cells_of(after), "once more changes nothing"
    assert tried > 0 or not any(arrangements_for(piece) for piece in site.pieces)


def _with_other_ids(piece: Piece) -> Piece:
    """Cells and rows that the edit made, under ids that a second one does not make again."""
    rows = tuple(
        row.replaced(
            id=row.id.replace("-other-", "-before-"),
            cells=tuple(cell.replaced(id=cell.id.replace("-other-", "-before-")) for cell in row.cells),
        )
        for row in piece.rows
    )
    return piece.replaced(rows=rows)


def test_a_crown_holds_the_demos_header() -> None:
    site = SITES["ostrey"]
    header = next(piece for piece in site.pieces if piece.id == "pc-main")
    made = taken_on(site, header, "crown")
    assert made is not None
    rows = same(made, header).rows
    kinds = [[[item.kind for item in cell.items] for cell in row.cells] for row in rows if row.stage is None]
    logo_row = next(row for row in kinds if any("logo" in cell for cell in row))
    assert logo_row[1] == ["logo"] or "logo" in logo_row[1], "the title stands in the middle"
    assert any(any("menu" in cell for cell in row) and not any("logo" in cell for cell in row) for row in kinds)


def test_what_cannot_stand_otherwise_is_not_asked() -> None:
    site = SITES["ostrey"]
    header = next(piece for piece in site.pieces if piece.kind == "header")
    footer = next(key for key, one in ARRANGEMENTS.items() if one.kind == "footer")
    assert rearranged(site, header, footer, str) is None
    assert rearranged(site, header, "no such", str) is None
    assert rearranged(site, header.replaced(rows=()), next(iter(arrangements_for(header))), str) is None

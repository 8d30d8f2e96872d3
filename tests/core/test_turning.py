"""The last size with which a row fits: what is searched for at one width agrees with what is said of all widths."""

from __future__ import annotations

from functools import partial

import pytest

from tests.fitted_sites import FittedMaker
from upper_rim.core.fit.advice.turning import turning_points
from upper_rim.core.fit.rows.fitter import Fitter
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Set
from upper_rim.core.model.site import Site
from upper_rim.core.output.fitting import fitter_of
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

SITES = {"ostrey": ostrey()} | {f"generated {seed}": FittedMaker(seed).site() for seed in range(4)}
MOST_PX = 160


def gap(node: str, size: int) -> Set:
    return Set(node=node, field="gap_px", value=size)


def fails(fitter: Fitter, site: Site, piece_id: str, node: str, size: int, width: int) -> bool:
    """As the width ruler says it: some stretch of the row in which the gap is, in some language."""
    made = apply(site, gap(node, size))
    assert isinstance(made, Site)
    piece = next(one for one in made.pieces if one.id == piece_id)
    row = next(
        row
        for row in made.shown_rows(piece)
        if node in {row.id, *(cell.id for cell in row.cells), *(item.id for cell in row.cells for item in cell.items)}
    )
    return any(
        stretch.from_px <= width <= stretch.to_px
        for fit in fitter.rows(made, piece)
        if fit.row == row.id
        for stretch in fit.failing
    )


@pytest.mark.parametrize("name", SITES)
def test_with_one_px_more_the_row_fails_that_fitted_before(name: str) -> None:
    width = 390 if name.endswith(("1", "3")) else 1120
    made, contents = SITES[name]
    fitter = fitter_of(shelf(), contents.__getitem__, 2026)
    site = fitter.resolved(made)
    for piece in site.pieces:
        gaps = [
            node
            for row in piece.rows
            if row.shares is None
            for node in (row, *row.cells, *(item for cell in row.cells for item in cell.items))
            if hasattr(node, "gap_px")
        ]
        for node in gaps:
            told = turning_points(fitter, site, piece.id, width, partial(gap, node.id), range(MOST_PX + 1), node.gap_px)
            failing = partial(fails, fitter, site, piece.id, node.id, width=width)
            ends = [failing(size=0), failing(size=MOST_PX)]
            assert len(told) % 2 == (ends[0] != ends[1]), (node.id, told, ends)
            for size in told:
                assert not failing(size=size), (node.id, size)
                assert failing(size=size + 1) or failing(size=size - 1), (node.id, size)

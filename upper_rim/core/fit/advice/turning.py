"""At which values of a size does a row begin to fit, or cease to, while the window stays as wide as it is?

A gap, a padding or a picture may grow until its row is full; a column has to be as wide as what it holds, and leave
room for its neighbours. So the values that fit lie side by side; where that begins and ends is searched for.
"""

from __future__ import annotations

from collections.abc import Callable
from itertools import pairwise

from ...model.editing.apply import apply
from ...model.editing.edits import Edit
from ...model.site import Site
from ..rows.fitter import Fitter
from ..rows.states import FAILING

BETWEEN = 6
"""About as many values are looked at first, with the greatest and the present one."""


def turning_points(
    fitter: Fitter,
    site: Site,
    piece_id: str,
    viewport_width: int,
    edit_of: Callable[[int], Edit | None],
    values: range,
    now: int,
) -> list[int]:
    """The last values, in px, with which all rows that the size is part of fit, in every language of the pages that the
    piece shows on. `edit_of`: the edit that gives the size a value; None where there is none. `values`: those that it
    may have. Empty where it makes no difference."""
    rows = _unlike(_edited(site, edit_of(values[0])), _edited(site, edit_of(values[-1])), piece_id)
    languages = [
        language for piece in site.pieces if piece.id == piece_id for language in fitter.languages(site, piece)
    ]

    def fits(size: int) -> bool:
        made = _edited(site, edit_of(size))
        if made is None:
            return False
        piece = next(piece for piece in made.pieces if piece.id == piece_id)
        laid = (
            fitter.row_at(made, piece, row, language, viewport_width)
            for row in made.shown_rows(piece)
            for language in languages
            if row.id in rows
        )
        return all(one is None or one.found.state not in FAILING for one in laid)

    if not rows:
        return []
    looked = sorted({*values[:: max(1, len(values) // BETWEEN)], values[-1], *({now} & set(values))})
    known = {size: fits(size) for size in looked}
    return [_last_that_fits(fits, low, high, known[low]) for low, high in pairwise(looked) if known[low] != known[high]]


def _edited(site: Site, edit: Edit | None) -> Site | None:
    made = apply(site, edit) if edit is not None else None
    return made if isinstance(made, Site) else None


def _unlike(one: Site | None, other: Site | None, piece_id: str) -> frozenset[str]:
    """The rows of a piece that are not the same in both sites; all of them, where the piece itself is not. None, where
    a site or the piece is not there."""
    if one is None or other is None:
        return frozenset()
    was, piece = (next((piece for piece in site.pieces if piece.id == piece_id), None) for site in (one, other))
    if was is None or piece is None:
        return frozenset()
    rows, before = other.shown_rows(piece), one.shown_rows(was)
    if was.replaced(rows=()) != piece.replaced(rows=()):
        return frozenset(row.id for row in rows)
    return frozenset(row.id for row in rows if row not in before)


def _last_that_fits(fits: Callable[[int], bool], low: int, high: int, low_fits: bool) -> int:
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if fits(middle) == low_fits else (low, middle)
    return low if low_fits else high

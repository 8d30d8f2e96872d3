"""Where does a row fail only beside a scroll bar?

A scroll bar that takes room takes it from the row, and not from the width that media queries ask for.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import NamedTuple

from ...kinds.pieces.base import Piece
from ...model.site import Site
from ..rows.fitter import Fitter
from ..rows.states import FAILING, RowState
from ..rows.sweep import RowFit

BAR_PX = 15.0
"""What it takes in most browsers on most desktops."""
LEAST_PX = 500
"""Windows that are narrower are those of phones, whose scroll bars lie over the page."""


class BesideBar(NamedTuple):
    """Widths of the window, both included, at which a row fails for that alone; `cause`: a node's id."""

    row: str
    language: str
    from_px: int
    to_px: int
    state: RowState
    cause: str


def beside_bars(fitter: Fitter, site: Site, piece: Piece, fits: Iterable[RowFit]) -> list[BesideBar]:
    """`fits`: the piece's rows in windows without one."""
    without = list(fits)
    languages = list(dict.fromkeys(fit.language for fit in without))
    beside = {(fit.row, fit.language): fit for fit in fitter.beside_bar(BAR_PX).rows(site, piece, languages)}
    return [one for fit in without for one in _failing_only(beside[fit.row, fit.language], fit)]


def _failing_only(beside: RowFit, without: RowFit) -> Iterator[BesideBar]:
    known = [(one.from_px, one.to_px) for one in without.stretches if one.state in FAILING]
    for stretch in beside.stretches:
        if stretch.state not in FAILING:
            continue
        for first, last in _less((max(stretch.from_px, LEAST_PX), stretch.to_px), known):
            yield BesideBar(beside.row, beside.language, first, last, stretch.state, stretch.cause)


def _less(span: tuple[int, int], others: Iterable[tuple[int, int]]) -> Iterator[tuple[int, int]]:
    """What is left of widths without others, which come in their order."""
    first, last = span
    for begin, end in others:
        if begin > last:
            break
        if first < begin:
            yield first, begin - 1
        first = max(first, end + 1)
    if first <= last:
        yield first, last

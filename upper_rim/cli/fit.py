"""`upper-rim fit`: at which widths does which row fail, by what, and what would mend it?"""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Callable, Iterator
from itertools import count
from typing import Any

from ..core.exchange.bundle import Bundle
from ..core.findings.checks.laid_out.fit import unfitting
from ..core.findings.words import finding_words
from ..core.fit.advice.columns import measures
from ..core.fit.advice.opened import all_opened
from ..core.fit.advice.remedies import Failure, Remedy, remedies
from ..core.fit.advice.targets import pressed_in, too_close
from ..core.fit.rows.fitter import Fitter
from ..core.fit.rows.states import FAILING
from ..core.fit.rows.sweep import RowFit, Stretch
from ..core.kinds.entries import Entry
from ..core.kinds.pieces.base import Piece
from ..core.kinds.rows import Row
from ..core.model.editing.edits import edit_adapter
from ..core.model.navigation.links import Links
from ..core.model.site import Site
from ..core.model.tree import holder_of, walk
from ..core.output.fitting import fitter_of
from ..shipped import shelf
from .clock import present


class NoPiece(Exception):
    """There is no piece of that name; the text says which there are."""


def report(bundle: Bundle, chosen: argparse.Namespace) -> list[str]:
    """Prints what was asked for; gives back a sentence for each failure."""
    fitter = fitter_of(shelf(), bundle.read, present().year).beside_bar(chosen.scroll_bar)
    site = fitter.resolved(bundle.site)
    pieces = [piece for piece in site.pieces if chosen.piece in (None, piece.name, piece.id)]
    if not pieces:
        raise NoPiece(f"there is no piece “{chosen.piece}”; there are: " + ", ".join(one.name for one in site.pieces))
    told = [(piece, row, fit) for piece in pieces for row, fit in _rows(fitter, site, piece)]
    if chosen.json:
        json.dump([_as_json(fitter, site, *one) for one in told], sys.stdout, ensure_ascii=False, indent=1)
        print()
    else:
        for piece, row, fit in told:
            _print(fitter, site, piece, row, fit)
    return [
        f"{piece.name}, {fit.language}: {finding_words(one, _names(site, row, fit.language))}"
        for piece, row, fit in told
        for one in unfitting(fit)
        if one.kind in FAILING
    ]


def _names(site: Site, row: Row, language: str) -> Callable[[str], str]:
    """The row's name, entries' labels; other nodes by their ids."""
    links = Links(site)

    def name_of(node: str) -> str:
        holder = holder_of(site, node)
        return row.name if node == row.id else links.label(holder, language) if isinstance(holder, Entry) else node

    return name_of


def _rows(fitter: Fitter, site: Site, piece: Piece) -> Iterator[tuple[Row, RowFit]]:
    rows = {row.id: row for row in site.shown_rows(piece)}
    return ((rows[fit.row], fit) for fit in fitter.rows(site, piece))


def _mending(fitter: Fitter, site: Site, piece: Piece, row: Row, fit: RowFit, stretch: Stretch) -> list[Remedy]:
    if stretch.state not in FAILING:
        return []
    return remedies(fitter, site, piece, row, Failure(fit.language, stretch), _counted(site))


def _counted(site: Site) -> Callable[[str], str]:
    """Ids that nothing of the site has: the same again for the same failure."""
    taken, numbers = {node.id for node in walk(site)}, count(1)

    def new_id(prefix: str) -> str:
        return next(free for number in numbers if (free := f"{prefix}-mended-{number}") not in taken)

    return new_id


def _as_json(fitter: Fitter, site: Site, piece: Piece, row: Row, fit: RowFit) -> dict[str, Any]:
    return {
        "piece": piece.name,
        "piece_id": piece.id,
        "row": row.name,
        "row_id": row.id,
        "language": fit.language,
        "estimate": fit.is_estimate,
        "estimated_nodes": sorted(fit.estimated),
        "missing_characters": fit.missing,
        "fits_from_px": fit.fits_from_px,
        "stretches": [
            {
                "from_px": stretch.from_px,
                "to_px": stretch.to_px,
                "state": stretch.state,
                "cause": stretch.cause or None,
                "band": stretch.band,
                "height_px": round(stretch.height_px[1], 2),
                "least_height_px": round(stretch.height_px[0], 2),
                "remedies": [_told(one) for one in _mending(fitter, site, piece, row, fit, stretch)],
            }
            for stretch in fit.stretches
        ],
        "measures": [one._asdict() for one in measures(site, fit)],
        "targets": [one._asdict() for one in too_close(fit, pressed_in(row))],
        "opened": [
            {**one._asdict(), "screen": "x".join(map(str, one.screen)), "screens": one.screens}
            for one in all_opened(fitter, site, piece, row, fit.language)
        ],
    }


def _told(remedy: Remedy) -> dict[str, Any]:
    edit = None if remedy.edit is None else edit_adapter.dump_python(remedy.edit, mode="json")
    return {**remedy._asdict(), "edit": edit}


def _print(fitter: Fitter, site: Site, piece: Piece, row: Row, fit: RowFit) -> None:
    well = f"fits from {fit.fits_from_px} px" if fit.fits_from_px is not None else "does not fit at the greatest width"
    print(f"{piece.name}, {row.name}, {fit.language}: {well}{' (estimate)' if fit.is_estimate else ''}")
    for stretch in fit.stretches:
        low, high = (round(px, 1) for px in stretch.height_px)
        height = f"{low:g}" if low == high else f"{low:g} to {high:g}"
        cause = f", by {stretch.cause}" if stretch.cause else ""
        print(f"  {stretch.from_px:>4} to {stretch.to_px:>4} px  {stretch.state}{cause}; {height} px high")
        for remedy in _mending(fitter, site, piece, row, fit, stretch)[:4]:
            width = f", then fits from {remedy.fits_from_px} px" if remedy.fits_from_px is not None else ""
            value = f" {remedy.value}" if remedy.value else ""
            print(f"         {remedy.kind} {remedy.node}{value}: gains {remedy.gain_px:g} px{width}")

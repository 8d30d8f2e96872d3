"""What shows on every page, as a table that other programs read: CSV (RFC 4180) and JSON."""

from __future__ import annotations

import json
from collections.abc import Iterable, Iterator
from typing import NamedTuple

from ..conditions.visitor import VisitorCard
from ..reach.coverage import Coverage, Gets, in_words
from .spreadsheet import csv_line


class CoverageRow(NamedTuple):
    """What shows on a page in a slot and band, and why. An empty band means all widths, an empty piece none."""

    page: str
    slot: str
    band: str
    piece: str
    why: str
    rule: str
    beaten: list[str]
    not_for_them: list[str]
    card: str = ""


def coverage_rows(coverage: Coverage, *cards: VisitorCard) -> Iterator[CoverageRow]:
    """For a visitor; for whoever it is, where there is no card; for two only where they are not shown the same, one
    after the other."""
    looking: list[tuple[str, Gets]] = [(card.name, coverage.gets(card)) for card in cards] or [("", coverage.everybody)]
    site = coverage.site
    names = {piece.id: piece.name for piece in site.pieces}
    band_names = {band.id: band.name for band in site.bands}
    for page in site.pages:
        found = [(name, coverage.on(page, gets)) for name, gets in looking]
        for slot in coverage.slots:
            for at, band in enumerate(coverage.bands):
                outcomes = [(name, by_slot[slot][at]) for name, by_slot in found]
                if len(outcomes) > 1 and len({outcome.piece and outcome.piece.id for _, outcome in outcomes}) == 1:
                    continue
                for name, outcome in outcomes:
                    yield CoverageRow(
                        page.path,
                        slot,
                        band_names.get(band or "", ""),
                        outcome.piece.name if outcome.piece else "",
                        outcome.why.value,
                        in_words(outcome.rule, site) if outcome.rule else "",
                        [names[piece] for piece in outcome.beaten],
                        [names[piece] for piece in outcome.not_for_them],
                        name,
                    )


def as_json(rows: Iterable[CoverageRow]) -> Iterator[str]:
    yield "["
    for at, row in enumerate(rows):
        yield (",\n" if at else "\n") + json.dumps(row._asdict(), ensure_ascii=False)
    yield "\n]\n"


def as_csv(rows: Iterable[CoverageRow]) -> Iterator[str]:
    yield csv_line(CoverageRow._fields)
    yield from map(csv_line, rows)

"""All pages against all slots: what is folded is what its pages show."""

from __future__ import annotations

import csv
import io
import json
from collections import Counter
from random import Random

import pytest

from tests.visitors import any_audience, any_card
from upper_rim.core.conditions.below import Below
from upper_rim.core.exchange.coverage_table import CoverageRow, as_csv, as_json, coverage_rows
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.footer import Footer
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.model.site import Page, Site
from upper_rim.core.reach.board import Board
from upper_rim.core.reach.coverage import Coverage, Gets

from .test_reach import generated


def sited(seed: int) -> tuple[Site, Random]:
    chance = Random(seed)
    site = generated(seed)
    pieces = [piece.replaced(audience=any_audience(chance)) for piece in site.pieces]
    footers = [
        Footer(id=f"{piece.id}-f", name=f"F {piece.id}", reach=piece.reach, audience=any_audience(chance))
        for piece in pieces[:2]
    ]
    return site.replaced(pieces=(*pieces, *footers)), chance


def plainly(coverage: Coverage, pages: list[Page], slot: str, band: int, looking: tuple[Gets, Gets]) -> Counter[object]:
    def shown(page: Page, gets: Gets) -> str | None:
        piece = coverage.on(page, gets)[slot][band].piece
        return piece.id if piece else None

    return Counter((shown(page, looking[0]), shown(page, looking[1])) for page in pages)


@pytest.mark.parametrize("seed", range(60))
def test_a_section_shows_what_its_pages_do_and_each_page_stands_once(seed: int) -> None:
    site, chance = sited(seed)
    coverage = Coverage(site)
    gets, other = (coverage.gets(any_card(chance)) for _ in range(2))
    compared = None if chance.random() < 0.5 else other
    board = Board(coverage, gets, compared)
    band, looking = chance.randrange(len(coverage.bands)), (gets, gets if compared is None else other)
    everything = frozenset(board.sections_of_few(10_000))
    rows = list(board.rows(band, everything, 10_000))
    assert sorted(row.path for row in rows if row.page) == sorted(page.path for page in site.pages)
    assert {row.path for row in rows if not row.page} == everything
    for row in rows:
        pages = [row.page] if row.page else [page for page in site.pages if page.path.startswith(row.path)]
        assert row.pages == len(pages)
        for slot, shares in zip(board.slots, row.cells, strict=True):
            found = Counter({share.shown: share.pages for share in shares})
            assert found == plainly(coverage, pages, slot, band, looking)
            assert [share.pages for share in shares] == sorted((share.pages for share in shares), reverse=True)
    some = frozenset(path for path in everything if chance.random() < 0.5)
    around = {row.path: row for row in rows if not row.page}
    for row in board.rows(band, some, 10_000):
        assert row.page or row.cells == around[row.path].cells, "folded or not"


@pytest.mark.parametrize("lines", [1, 3, 1000])
def test_at_a_glance_nothing_that_differs_is_lost(lines: int) -> None:
    for seed in range(20):
        site, chance = sited(seed)
        coverage = Coverage(site)
        gets = coverage.gets(any_card(chance))
        found = Board(coverage, gets).over_all(0, lines)["header"]
        assert len(found) == min(lines, len(site.pages))
        shown = plainly(coverage, list(site.pages), "header", 0, (gets, gets))
        assert {one for one, _ in found} <= set(shown)
        if lines >= len(site.pages):
            assert Counter(one for one, _ in found) == shown and not any(mixed for _, mixed in found)
        elif len(shown) > len({one for one, _ in found}):
            assert any(mixed for _, mixed in found)


def test_many_pages_of_a_section_come_some_at_a_time_and_deep_paths_are_paths() -> None:
    deep = "/" + "a/" * 400
    pages = (*(Page(id=f"pg-{at}", path=f"/news/{at}/") for at in range(25)), Page(id="pg-deep", path=deep))
    board = Board(Coverage(Site(key="qtest", name="T", pages=pages)), frozenset())
    rows = list(board.rows(0, frozenset({"/news/"}), 10))
    assert [row.more for row in rows if row.page and row.path.startswith("/news/")] == [0] * 9 + [15]
    assert next(row for row in rows if row.path == "/a/").pages == 1
    assert len(board.over_all(0, 10)["header"]) == 10
    nobody = Board(Coverage(Site(key="qtest", name="T")), frozenset())
    assert list(nobody.rows(0, frozenset(), 10)) == [] and nobody.over_all(0, 10)["header"] == []


@pytest.mark.parametrize("seed", range(20))
def test_the_table_tells_every_outcome_and_of_two_visitors_those_that_differ(seed: int) -> None:
    site, chance = sited(seed)
    coverage, cards = Coverage(site), [any_card(chance, f"vc-{at}").replaced(name=f"=V{at}") for at in range(2)]
    one, other = (list(coverage_rows(coverage, card)) for card in cards)
    assert len(one) == len(site.pages) * len(coverage.slots) * len(coverage.bands)
    differing = [row for pair in zip(one, other, strict=True) if pair[0].piece != pair[1].piece for row in pair]
    assert list(coverage_rows(coverage, *cards)) == differing
    assert [CoverageRow(**row) for row in json.loads("".join(as_json(one)))] == one
    lines = list(csv.reader(io.StringIO("".join(as_csv(one)))))
    assert lines[0] == list(CoverageRow._fields) and all(line[8] == "'=V0" for line in lines[1:])
    assert [line[3] for line in lines[1:]] == [row.piece for row in one]


def test_a_page_may_lie_as_deep_as_a_path_can_say() -> None:
    deep = Page(id="pg-deep", path="/" + "a/" * 499)
    rule = ReachRule(id="rr-a", where=Below(path="/a/a/"))
    header = Header(id="pc-a", name="A", reach=(rule,))
    coverage = Coverage(Site(key="qtest", name="T", pages=(deep,), pieces=(header,)))
    board = Board(coverage, coverage.everybody)
    (row,) = board.rows(0, frozenset(), 10)
    assert row.path == "/a/" and row.cells[0][0].shown == ("pc-a", "pc-a") and row.pages == 1

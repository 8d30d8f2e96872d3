"""What the shipped style sheets say of an element is what fit reckons with, and it is said nowhere else."""

from __future__ import annotations

import re
import sys
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

import pytest

from tests.fit_judge import boxes_of
from upper_rim.core.fit.css.base import BaseSheets
from upper_rim.core.fit.css.boxes import Sides
from upper_rim.core.fit.markup.placed import PART_OF_CLASS
from upper_rim.core.fit.rows.sweep import frame_at
from upper_rim.core.fit.text.typesetting import Type
from upper_rim.core.kinds.entries import Entry
from upper_rim.core.kinds.items.menu import MenuItem
from upper_rim.core.kinds.items.rich import RichText
from upper_rim.core.kinds.items.text import TextItem
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.kinds.rule import Rule, rules_in
from upper_rim.core.model.site import Menu, Site
from upper_rim.core.output.css.part_selectors import PART_SELECTORS
from upper_rim.core.output.fitting import fitter_of
from upper_rim.core.output.shelf import Shelf
from upper_rim.core.values.rich import RichWords
from upper_rim.core.values.words import Words
from upper_rim.shipped import shelf


def sheets(plain: str, **menus: str) -> BaseSheets:
    return BaseSheets(rules_in(plain), {}, {way: rules_in(text) for way, text in menus.items()})


def test_the_more_specific_rule_counts_then_the_later_and_a_menus_way_adds_its_own() -> None:
    found = sheets(
        ".rim-list a{min-block-size:10px;gap:1px} .rim-list>li>a{min-block-size:20px} .rim-list a{gap:2px 3px}",
        list="& .rim-list a{gap:4px} a.no{gap:9px}",
    )
    plain = found.of("nav.rim-menu > ul.rim-list > li > a")
    assert plain.sizes() == {"min_height": 20.0} and plain.gaps() == {"row_gap": 2.0, "column_gap": 3.0}
    assert found.of("nav.rim-menu > ul.rim-list > li > a", "list").gaps() == {"row_gap": 4.0, "column_gap": 4.0}


def test_what_only_a_browser_can_know_and_what_is_for_other_media_is_left_out() -> None:
    found = sheets(
        "a{gap:1px} a:hover,a:dir(rtl),a:popover-open{gap:2px} a::before{gap:3px} :is(a,b):first-child{gap:4px}"
        "@media print{a{gap:5px}} a:not(.x),a:nonsense{min-inline-size:6px}"
    )
    assert found.of("div > a").gaps() == {"row_gap": 1.0, "column_gap": 1.0}
    assert found.of("div > a").px("min-inline-size") == 6.0
    with pytest.raises(ValueError, match="no way"):
        found.of("div >> a")
    with pytest.raises(KeyError):
        found.of("div").px("gap")


@pytest.mark.parametrize(
    ("declared", "sizes"),
    [
        ("padding:1px 2px 3px 4px", {"padding": Sides(1.0, 2.0, 3.0, 4.0)}),
        ("padding:1px 2px 3px", {"padding": Sides(1.0, 2.0, 3.0, 2.0)}),
        ("padding:1px 2px max(3px,env(safe-area-inset-bottom))", {"padding": Sides(1.0, 2.0, 3.0, 2.0)}),
        ("padding-inline:1em", {"padding": Sides(7.0, 20.0, 7.0, 20.0)}),
        ("margin-block:.5em;margin-inline-start:auto", {"margin": Sides(10.0, 7.0, 10.0, None)}),
        ("border:1px solid red;border-inline-start:3px solid", {"border": Sides(1.0, 1.0, 1.0, 3.0)}),
        ("flex:0 1 34em", {"grow": 0.0, "shrink": 1.0, "basis": 680.0}),
        ("flex:none;inline-size:auto;block-size:2em", {"grow": 0.0, "shrink": 0.0, "height": 40.0}),
    ],
)  # fmt: skip
def test_declarations_become_sizes_of_boxes(declared: str, sizes: dict[str, object]) -> None:
    assert sheets(f"p{{{declared}}}").of("p").sizes(20.0, 7.0) == sizes


def test_a_text_is_set_as_around_it_but_for_what_is_said() -> None:
    around = Type("figtree", 400, False, 20.0, 0.0, 30.0, 1.5)
    small = sheets("small{font-size:.75em;font-weight:700;font-style:italic;white-space:nowrap}").of("small")
    assert small.type(around) == around._replace(size=15.0, line_height=22.5, weight=700, italic=True)
    assert not small.breaks and sheets("").of("small").breaks


def test_a_number_that_changes_in_a_sheet_changes_what_is_foreseen() -> None:
    marked = (Entry(id="en-a", label=Words(text="Fares"), mark=Words(text="New")),)
    site = Site(
        key="qbase",
        name="O",
        menus=(Menu(id="mn-a", name="M", entries=marked),),
        pieces=(
            Header(
                id="pc-a",
                name="H",
                rows=(
                    Row(
                        id="rw-a",
                        cells=(
                            Cell(
                                id="cl-a",
                                items=(
                                    MenuItem(id="it-menu", menu="mn-a"),
                                    RichText(id="it-rich", rich=RichWords(text="<p>a</p><p>b</p><p>c</p>")),
                                    TextItem(id="it-text", words=Words(text="d")),
                                ),
                            ),
                        ),
                    ),
                ),
            ),
        ),
    )

    def measured(shipped: Shelf) -> dict[str, tuple[float, float]]:
        ((fit,),) = [fitter_of(shipped, None, None).rows(site, site.pieces[0])]
        laid = fit.at(1200)
        assert laid is not None
        return {node: (float(box.width), float(box.height)) for node, box in boxes_of(frame_at(laid, 1200, 800.0))}

    before = measured(shelf())
    more = (Rule(".rim-list small.rim-mark", {"padding-inline": "26px"}), Rule(".rim-rich p", {"margin-block": "2em"}))
    after = measured(replace(shelf(), piece_rules=(*shelf().piece_rules, *more)))
    assert after["it-menu"][0] == pytest.approx(before["it-menu"][0] + 40)
    assert after["it-rich"][1] == pytest.approx(before["it-rich"][1] + 2 * 1.5 * 16)
    assert after["it-text"] == before["it-text"]


def test_fit_finds_the_part_of_an_element_by_a_class_that_the_published_sheet_finds_it_by() -> None:
    for name, part in PART_OF_CLASS.items():
        assert re.search(rf"\.rim-{name}\b(?!-)", PART_SELECTORS[part]), (name, part)
    by_parts_of_their_own = {
        "list",
        "content",
        "lower",
        "apart",
        "entry",
        "bullet",
        "panel",
        "opened",
        "veil",
        "caption",
    }
    assert {*PART_SELECTORS} - {"box"} - {*PART_OF_CLASS.values()} <= by_parts_of_their_own


def test_threads_that_share_the_sheets_are_told_what_each_would_be_told_alone() -> None:
    ways = [
        (f"nav.rim-menu > ul.rim-list > li > {inner}", way)
        for inner in ("a", "a > small.rim-mark", "ul.rim-sub", "ul.rim-sub > li > a", "button.rim-sub-button")
        for way in ("", "list", "columns", "list drawer", "list drawer levels")
    ]
    alone = [shelf().sheets.of(*way).sizes() for way in ways]
    before = sys.getswitchinterval()
    sys.setswitchinterval(1e-6)
    try:
        for _ in range(4):
            fresh = replace(shelf(), piece_rules=shelf().piece_rules).sheets
            with ThreadPoolExecutor(6) as threads:
                told = list(threads.map(lambda way, fresh=fresh: fresh.of(*way).sizes(), ways * 3))
            assert told == alone * 3
    finally:
        sys.setswitchinterval(before)

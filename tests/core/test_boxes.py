"""Boxes by themselves: worked examples of the CSS specifications' rules, and lengths that move with the window."""

from __future__ import annotations

import random
from collections.abc import Callable
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.boxed import BoxMaker, in_px, laid_out
from upper_rim.core.fit.css.amount import ROOT_PX, Relative, Viewport, amount, times, worked_out
from upper_rim.core.fit.css.block import Block, Void
from upper_rim.core.fit.css.boxes import Align, Box, Frame, Sides
from upper_rim.core.fit.css.flex import Flex
from upper_rim.core.fit.css.grid import Grid, GridTrack
from upper_rim.core.fit.css.linear import Length, Linear, LinearSpan, exceeds, larger, slope_of, smaller, value
from upper_rim.core.style.lengths import NoLength

VIEWPORT = Viewport(1000.0, 800.0)


def void(wide: float = 0.0, high: float = 10.0, /, **own: Any) -> Void:
    return Void(inner_width=wide, inner_height=high, **own).settle()


def flex(*within: Box, **own: Any) -> Flex:
    return Flex(within=list(within), **own).settle()


def placed(box: Box, width: float) -> list[tuple[float, float]]:
    """Where its kids begin, and how wide they are."""
    return [(value(x), value(kid.width)) for x, _, kid in box.lay_out(width, VIEWPORT, width).kids]


def stacked(box: Box, width: float) -> list[tuple[float, float]]:
    """Where its kids' tops are, and how high they are."""
    return [(value(y), value(kid.height)) for _, y, kid in box.lay_out(width, VIEWPORT, width).kids]


@given(st.integers(0, 100_000), st.integers(280, 2500))
@settings(max_examples=150, deadline=None)
def test_within_a_span_a_tree_moves_along_its_slopes(seed: int, width: int) -> None:
    tree, _ = BoxMaker(seed).tree()
    span = LinearSpan(width)
    moving = laid_out(tree, Viewport(Linear(float(width), 1.0, span), 800.0))
    # A bent span is only touched by its lines where it begins.
    reach = min(span.until, 0.05 if span.bends else 2560.0 - width)
    for moved in {0.0, reach / 2, reach * 0.999}:
        afresh = laid_out(BoxMaker(seed).tree()[0], Viewport(width + moved, 800.0))
        for part, place in moving.items():
            assert in_px(place, moved) == pytest.approx(in_px(afresh[part]), abs=0.02), (part, moved, span.until)


def test_a_box_that_wraps_is_never_at_its_most_narrower_than_its_widest_item() -> None:
    """CSS Sizing 3, 2.1, as Chromium has it where negative margins pull the items over each other."""
    pulled = flex(void(1.0, margin=Sides(inline_start=-4.0)), void(100.0), wraps=True)
    assert (pulled.wanted(VIEWPORT).least, pulled.wanted(VIEWPORT).most) == (100.0, 100.0)
    wide = flex(void(60.0, margin=Sides(inline_start=-4.0)), void(100.0), wraps=True)
    assert (wide.wanted(VIEWPORT).least, wide.wanted(VIEWPORT).most) == (100.0, 156.0)


@given(st.integers(0, 100_000))
@settings(max_examples=150, deadline=None)
def test_a_tree_wants_no_less_than_its_longest_part(seed: int) -> None:
    tree, _ = BoxMaker(seed).tree()
    wanted = tree.wanted(VIEWPORT)
    assert 0.0 <= value(wanted.least) <= value(wanted.most) + 1e-9
    assert value(tree.lay_out(5000.0, VIEWPORT, 5000.0).width) == 5000.0
    assert isinstance(tree, Block)
    # Negative margins can leave a part less than nothing; a box's own content is never that (CSS Sizing 3, 5.1).
    widest = max(value(kid.contribution(VIEWPORT).most) for kid in tree.within)
    assert value(wanted.most) == pytest.approx(max(widest, 0.0))


@pytest.mark.parametrize(
    ("items", "room", "wanted"),
    [
        # 9.7: what is left is shared by the grow factors.
        ([void(100, grow=1.0), void(100, grow=3.0)], 400, [(0, 150), (150, 250)]),
        # What reaches its greatest width is frozen, and the others share what it leaves.
        ([void(100, grow=1.0, max_width=120.0), void(100, grow=1.0)], 400, [(0, 120), (120, 280)]),
        # Shrinking is by the shrink factor times the content's base size.
        ([void(200, basis=200.0, min_width=0.0), void(100, basis=100.0, min_width=0.0)], 150, [(0, 100), (100, 50)]),
        (
            [
                void(100, basis=200.0, min_width=0.0, padding=Sides(0.0, 50.0, 0.0, 50.0)),
                void(100, basis=100.0, min_width=0.0),
            ],
            200,
            [(0, 150), (150, 50)],
        ),
        ([void(200, shrink=0.0), void(100, basis=100.0, min_width=0.0)], 250, [(0, 200), (200, 50)]),
        # 4.5: the automatic least width is the content's.
        ([void(80, basis=200.0), void(80, basis=200.0, min_width=0.0)], 120, [(0, 80), (80, 40)]),
        # 8.1: auto margins take what is left, before anything is justified.
        ([void(50, margin=Sides(0.0, None, 0.0, 0.0)), void(50)], 300, [(0, 50), (250, 50)]),
        ([void(50, margin=Sides(0.0, None, 0.0, None)), void(50)], 300, [(100, 50), (250, 50)]),
    ],
)
def test_items_share_the_room_of_their_line(items: list[Box], room: float, wanted: list[tuple[float, float]]) -> None:
    assert placed(flex(*items), room) == [pytest.approx(one) for one in wanted]


def test_a_flex_boxs_baseline_is_its_first_items_even_where_that_has_none() -> None:
    """CSS Flexible Box 1, 8.5: an icon's lower edge, and not the words' behind it."""
    row = flex(void(24.0, 24.0), flex(void(30.0, 10.0)), align="center", min_height=44.0)
    assert value(row.lay_out(200.0, VIEWPORT, 200.0).baseline or 0.0) == 34.0


@pytest.mark.parametrize(("justify", "begins"), [("start", 0.0), ("center", 95.0), ("end", 190.0)])
def test_a_line_is_justified_by_what_it_leaves(justify: Align, begins: float) -> None:
    row = flex(void(50), void(50), column_gap=10.0, justify=justify)
    assert placed(row, 300) == [(begins, 50), (begins + 60, 50)]


def test_a_full_line_ends_before_the_item_that_does_not_fit() -> None:
    row = flex(*(void(100, 20) for _ in range(3)), wraps=True, column_gap=10.0, row_gap=4.0)
    frames = {width: row.lay_out(width, VIEWPORT, width) for width in (320.0, 319.0, 210.0, 209.0, 60.0)}
    assert [frame.lines for frame in frames.values()] == [1, 2, 2, 3, 3]
    assert [value(frame.height) for frame in frames.values()] == [20, 44, 44, 68, 68]
    assert value(row.wanted(VIEWPORT).least) == 100 and value(row.wanted(VIEWPORT).most) == 320
    single = flex(*(void(100, 20) for _ in range(3)), column_gap=10.0)
    assert value(single.wanted(VIEWPORT).least) == 320


@pytest.mark.parametrize(
    ("align", "tops"),
    [("start", [(0, 10), (0, 40)]), ("center", [(15, 10), (0, 40)]), ("end", [(30, 10), (0, 40)])],
)
def test_items_of_a_line_are_aligned_across_it(align: Align, tops: list[tuple[float, float]]) -> None:
    assert stacked(flex(void(50, 10), void(50, 40), align=align), 300) == tops
    assert stacked(flex(void(50, 10, align_self=align), void(50, 40), align="stretch"), 300) == tops


def test_a_stretched_item_is_as_high_as_its_line_unless_its_height_is_said() -> None:
    assert stacked(flex(void(50, 10), void(50, 40), void(50, 10, height=24.0)), 300) == [(0, 40), (0, 40), (0, 24)]


def test_tracks_take_what_they_hold_and_share_the_rest() -> None:
    def columns(*tracks: GridTrack, room: float = 500.0) -> list[tuple[float, float]]:
        cells: list[Box] = [void(80), void(120), void(40)]
        return placed(Grid(within=cells, tracks=tracks, column_gap=10.0).settle(), room)

    share, equal, content = GridTrack("share"), GridTrack("equal"), GridTrack("content")
    assert columns(content, GridTrack("share", 2.0), share) == [
        (0, 80),
        (90, pytest.approx(800 / 3)),
        (pytest.approx(100 + 800 / 3), pytest.approx(400 / 3)),
    ]
    assert columns(equal, equal, equal) == [(0, 160), (170, 160), (340, 160)]
    assert columns(GridTrack("fixed", 200.0), content, share) == [(0, 200), (210, 120), (340, 160)]
    # A share is never less than what its cell holds; an equal one is.
    assert columns(share, share, share, room=260.0) == [(0, 80), (90, 120), (220, 40)]
    assert [width for _, width in columns(equal, equal, equal, room=260.0)] == [80, 80, 80]


def test_cells_go_on_in_the_next_row_of_tracks() -> None:
    cells: list[Box] = [void(10, high) for high in (20, 50, 30)]
    grid = Grid(within=cells, tracks=(GridTrack("equal"),) * 2, row_gap=6.0, align="center").settle()
    assert stacked(grid, 400) == [(15, 20), (0, 50), (56, 30)]
    assert value(grid.lay_out(400, VIEWPORT, 400).height) == 86


def test_margins_of_blocks_collapse_and_stay_inside_a_context_of_their_own() -> None:
    def tops(kids: list[Box], **own: Any) -> tuple[list[float], float]:
        frame = Block(within=kids, **own).settle().lay_out(300, VIEWPORT, 300)
        return [value(y) for _, y, _ in frame.kids], value(frame.height)

    def margins(above: float, below: float) -> Sides:
        return Sides(above, 0.0, below, 0.0)

    kids: list[Box] = [void(0, 10, margin=margins(8, 12)), void(0, 10, margin=margins(20, 4))]
    assert tops(kids) == ([8, 38], 52)
    assert tops(kids, contains_margins=False) == ([0, 30], 40)
    assert tops(kids, contains_margins=False, padding=margins(1, 1)) == ([9, 39], 54)
    inner = Block(within=kids, contains_margins=False).settle()
    assert tops([inner, void(0, 5, margin=margins(2, 0))]) == ([8, 52], 57), "the greater one of 4 and 2"


@pytest.mark.parametrize(
    ("sides", "begins"),
    [((None, None), 100.0), ((0.0, None), 200.0), ((None, 0.0), 0.0), ((0.0, 30.0), 30.0)],
)
def test_auto_margins_share_what_a_block_leaves(sides: tuple[float | None, float | None], begins: float) -> None:
    kid = void(width=100.0, max_width=100.0, margin=Sides(0.0, sides[0], 0.0, sides[1]))
    outer = Block(within=[kid]).settle()
    assert placed(outer, 300) == [(begins, 100)]


def test_limits_hold_least_over_greatest() -> None:
    box = void(10, width=50.0, min_width=80.0, max_width=60.0)
    assert box.filling(VIEWPORT, 500) == box.fitting(VIEWPORT, 500) == 80
    padded = void(10, width=5.0, padding=Sides(0.0, 9.0, 0.0, 9.0))
    assert padded.filling(VIEWPORT, 500) == 18, "never less than its padding"
    assert void(200).fitting(VIEWPORT, 120) == 200 and void(40).fitting(VIEWPORT, 120) == 40


@pytest.mark.parametrize(
    ("text", "px"),
    [
        ("12px", 12.0),
        ("2rem", 2 * ROOT_PX),
        ("1.5em", 30.0),
        ("10vw", 100.0),
        ("50%", 200.0),
        ("calc(1em + 5vw)", 70.0),
        ("calc(100% - 16px)", 384.0),
        ("clamp(16px, 1rem + 3vw, 40px)", 40.0),
        ("clamp(16px, 0.5rem, 40px)", 16.0),
        ("clamp(40px, 0.5rem, 16px)", 40.0),
        ("calc(-0.01 * clamp(13px, 0.5rem + 1vw, 26px))", -0.18),
        ("calc(-1 * clamp(40px, 1vw, 16px))", -40.0),
        ("calc(clamp(16px, 0.5rem, 40px) + 5vw)", 66.0),
        ("calc(5vw - clamp(16px, 0.5rem, 40px))", 34.0),
        ("clamp(1px, clamp(2px, 1vw, 30px), clamp(4px, 5px, 6px))", 5.0),
        ("-4px", -4.0),
    ],
)
def test_lengths_are_worked_out_in_px(text: str, px: float) -> None:
    read = amount(text, 20.0)
    assert worked_out(read, VIEWPORT, 400.0) == pytest.approx(px)
    assert worked_out(times(read, 2.5), VIEWPORT, 400.0) == pytest.approx(px * 2.5)
    assert isinstance(read, Relative) == any(unit in text for unit in ("vw", "%"))


def test_lengths_say_what_they_are_relative_to() -> None:
    width, share, grown = amount("5vw", 16.0), amount("5%", 16.0), amount("1em", amount("2vw", 16.0))
    assert isinstance(width, Relative) and (width.has_viewport, width.has_percent) == (True, False)
    assert isinstance(share, Relative) and (share.has_viewport, share.has_percent) == (False, True)
    assert isinstance(grown, Relative) and grown.has_viewport and worked_out(grown, VIEWPORT, 0.0) == 20.0
    assert isinstance(amount("3rem", grown), float), "a rem is none of the font's"
    with pytest.raises(NoLength):
        amount("auto", 16.0)


_OPERATIONS: tuple[Callable[[Length, Length], Length], ...] = (
    lambda one, other: one + other,
    lambda one, other: one - other,
    lambda one, other: one * 0.5 - other / 4,
    lambda one, other: -one + other,
    larger,
    smaller,
)


@given(st.integers(0, 1_000_000))
@settings(max_examples=300, deadline=None)
def test_what_is_worked_out_with_moving_lengths_holds_to_the_end_of_their_span(seed: int) -> None:
    chance = random.Random(seed)
    steps = [(chance.choice(_OPERATIONS), chance.randrange(-50, 50)) for _ in range(8)]

    def work(window: Length) -> Length:
        made: Length = window
        for step, number in steps:
            made = step(made, step(window * 0.25, float(number)))
        return made

    span = LinearSpan(300)
    found = work(Linear(300.0, 1.0, span))
    for moved in (0.0, min(span.until, 900.0) / 2, min(span.until, 900.0)):
        assert value(found) + slope_of(found) * moved == pytest.approx(value(work(300.0 + moved)), abs=1e-6)


def test_comparisons_end_a_span_where_they_turn_over() -> None:
    def until(compare: Callable[[Length], bool]) -> tuple[bool, float]:
        span = LinearSpan(300)
        return compare(Linear(300.0, 0.5, span)), span.until

    assert until(lambda window: window > 290.0) == (True, float("inf"))
    assert until(lambda window: window > 310.0) == (False, 20)
    assert until(lambda window: window < 310.0) == (True, 20)
    assert until(lambda window: window >= 310.0) == (False, 20)
    assert until(lambda window: window <= 310.0) == (True, 20)
    assert until(lambda window: -window < -290.0) == (True, float("inf"))
    assert until(lambda window: exceeds(310.0, window)) == (True, pytest.approx(20, abs=0.1))
    assert until(lambda window: window - window > 1.0) == (False, float("inf"))


def test_a_frame_works_out_where_its_kids_stand_once() -> None:
    asked: list[int] = []

    def kids() -> tuple[tuple[Length, Length, Frame], ...]:
        asked.append(1)
        return ()

    frame = Frame(void(), 10.0, 10.0, kids)
    assert not asked and frame.kids == frame.kids == () and asked == [1]


@pytest.mark.parametrize(
    ("above", "outer", "inner", "between"),
    [
        (8.0, 0.0, 3.0, 8.0),
        (8.0, -5.0, 3.0, 3.0),
        (8.0, 3.0, -5.0, 3.0),
        (-2.0, -5.0, 3.0, -2.0),
        (-2.0, -5.0, 0.0, -5.0),
    ],
)
def test_of_margins_that_adjoin_the_greatest_and_the_least_count(
    above: float, outer: float, inner: float, between: float
) -> None:
    """CSS 2, 8.3.1: a box's, those of the next one, and those of the first in that."""
    list_ = Block(
        within=[void(margin=Sides(block_start=inner))], contains_margins=False, margin=Sides(block_start=outer)
    ).settle()
    both = Block(within=[void(margin=Sides(block_end=above)), list_]).settle()
    (_, first), (second, _) = stacked(both, 100.0)
    assert second - first == between

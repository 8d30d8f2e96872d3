"""A text in columns: all of it stands there once, in columns that are equally high, and no heading is left alone."""

from __future__ import annotations

from collections.abc import Iterator

import pytest

from upper_rim.core.fit.css.amount import Viewport
from upper_rim.core.fit.css.boxes import Frame
from upper_rim.core.fit.css.inline import Inline
from upper_rim.core.fit.css.linear import value
from upper_rim.core.fit.css.multicol import Columns
from upper_rim.core.kinds.items.rich import RichText
from upper_rim.core.kinds.pieces.footer import Footer
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.model.site import Band, Site
from upper_rim.core.output.fitting import fitter_of
from upper_rim.core.values.rich import RichWords
from upper_rim.shipped import shelf

WORDS = "Three ships and five harbours on every day of the year. " * 9
TEXTS = {
    "one paragraph": f"<p>{WORDS}</p>",
    "paragraphs": f"<p>{WORDS[:90]}</p><p>{WORDS[:300]}</p><p>{WORDS[:40]}</p>",
    "a list": "<ul>" + "".join(f"<li>{WORDS[: 30 * at]}</li>" for at in range(1, 9)) + "</ul>",
    "headings": f"<h2>Sailings</h2><p>{WORDS[:200]}</p><h2>Harbours</h2><p>{WORDS[:200]}</p><h3>Ships</h3><p>{WORDS[:90]}</p>",
}


def columns(text: str, count: int, width: int, least_px: int = 160) -> Frame:
    item = RichText(id="it-a", rich=RichWords(text=text), column_count=count, column_px=least_px, column_gap_px=20)
    row = Row(id="rw-a", cells=(Cell(id="cl-a", items=(item,)),))
    footer = Footer(id="pc-a", name="Footer", rows=(row,))
    site = Site(name="Ferries", key="q1x7", bands=(Band(id="bd-a", name="All", from_px=0),), pieces=(footer,))
    whole = fitter_of(shelf(), lambda content: b"", 2026).whole(site, footer, "en", Viewport(float(width), 800.0))
    assert whole is not None
    return next(frame for frame in below(whole.frame) if frame.box.node == "it-a")


def below(frame: Frame) -> Iterator[Frame]:
    yield frame
    for _, _, kid in frame.kids:
        yield from below(kid)


def lines(frame: Frame) -> int:
    return sum(one.lines for one in below(frame) if isinstance(one.box, Inline))


def by_column(frame: Frame) -> dict[float, list[tuple[float, Frame]]]:
    found: dict[float, list[tuple[float, Frame]]] = {}
    for x, y, kid in frame.kids:
        found.setdefault(round(value(x)), []).append((value(y), kid))
    return found


@pytest.mark.parametrize("name", TEXTS)
@pytest.mark.parametrize("count", [2, 3])
def test_all_of_a_text_stands_in_its_columns_once(name: str, count: int) -> None:
    frame = columns(TEXTS[name], count, 1000)
    assert isinstance(frame.box, Columns) and 1 < len(by_column(frame)) <= count
    alone = columns(TEXTS[name], 1, 1000)
    width = value(next(kid for _, _, kid in frame.kids).width)
    same_width = columns(TEXTS[name], 1, round(1000 - value(alone.width) + width))
    assert lines(frame) == lines(same_width)
    high = value(frame.height)
    assert high < value(same_width.height) * 0.8
    begins = value(same_width.kids[0][1])
    for x, placed in by_column(frame).items():
        above = 0.0 if x else begins
        assert placed[0][0] == pytest.approx(above, abs=0.1), (
            "what begins a column behind a break has no margin above it"
        )
        assert all(y + value(kid.height) <= high + 0.1 for y, kid in placed)


def test_where_there_is_no_room_for_several_there_is_one() -> None:
    assert len(by_column(columns(TEXTS["one paragraph"], 3, 360))) == 1
    narrow, wide = (columns(TEXTS["one paragraph"], 3, width, 200) for width in (460, 1000))
    assert len(by_column(narrow)) < len(by_column(wide))


def test_no_heading_is_the_last_of_a_column() -> None:
    for width in range(420, 1000, 20):
        for placed in by_column(columns(TEXTS["headings"], 3, width)).values():
            _, last = placed[-1]
            assert not last.box.is_joined, width

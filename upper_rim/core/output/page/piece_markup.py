"""What is the markup of the pieces of a page: what stands before its content, and what behind it?

Landmarks follow the ARIA Authoring Practices: banner, contentinfo, complementary, navigation, and regions with a name.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace
from typing import NamedTuple

from ...exchange.html.markers import marked
from ...kinds.markup import Attributes, Element, Markup, element, html
from ...kinds.page_shapes import PageShape
from ...kinds.pieces.asking import Asking
from ...kinds.pieces.base import Moving, Piece
from ...kinds.pieces.consent import ConsentQuestion
from ...kinds.pieces.float import Float
from ...kinds.pieces.header import Header
from ...kinds.pieces.sidebar import Sidebar
from ...kinds.rows import Cell, Row
from ...languages import direction
from ...values.styling import Styled
from ..css.movement_rules import distance_data, moves
from ..css.stage_rules import is_painted, is_slimmed
from .item_markup import item_markup
from .site_context import SiteContext


class Shown(NamedTuple):
    """A piece on a page, and the width bands in which it does not show there."""

    piece: Piece
    out_in: tuple[str, ...]


class Around(NamedTuple):
    """HTML of what stands before a page's content and behind it, each insertion in its marks."""

    before: str
    behind: str


def around(shown: Iterable[Shown], context: SiteContext, shape: PageShape | None = None) -> Around:
    """The pieces of a page in the order in which they are read: top notice, header, sidebar; footer, and what is pinned
    to the bottom. The way past the first ones stands before them, whichever of them show; the last brings its target. `shape`: of
    a page that is not a plain one."""
    listed = list(shown)

    def of_kind(kind: str, *, at_bottom: bool = False) -> list[Shown]:
        return [one for one in listed if one.piece.kind == kind and one.piece.is_at_bottom == at_bottom]

    top = [*of_kind("notice"), *of_kind("header")]
    before = marked("skip", html([_skip_link(context)])) if top else ""
    # Read before all that they stand over, since they are seen first.
    asking = [one for one in listed if isinstance(one.piece, Asking)]
    before += "".join(marked(one.piece.kind, html(_piece(one, context))) for one in asking)
    for at, one in enumerate(top, start=1):
        before += marked(one.piece.kind, html(_piece(one, context, target=at == len(top))))
    behind = ""
    for one in of_kind("sidebar"):
        opening, closing = _beside(one, context)
        before += marked("sidebar", opening)
        behind = marked("sidebar-end", closing) + behind
    if shape is not None and shape.is_boxed:
        names = (f"{shape.id}-root", shape.id) if shape.root else (shape.id,)
        before += marked("flow", "".join(f'<div class="{context.name("flow")} {context.name(one)}">' for one in names))
        behind = marked("flow-end", "</div>" * len(names)) + behind
    elif shape is not None:
        before += marked("shape", html([element("div", {"class": f"{context.name('edge')} {context.name(shape.id)}"})]))
    lower = of_kind("notice", at_bottom=True)
    for one in [*of_kind("footer"), *(one for one in lower if not one.piece.is_low)]:
        behind += marked(one.piece.kind, html(_piece(one, context)))
    low = [*of_kind("float"), *(one for one in lower if one.piece.is_low), *of_kind("bottom")]
    return Around(before, behind + (marked("stack", html(_stack(low, context))) if low else ""))


def _stack(low: list[Shown], context: SiteContext) -> Iterator[Element]:
    """What is pinned to the bottom, one above the other, so that each lifts what stands over it; and the room that the
    page's end keeps free for it."""
    for one in low:
        if not isinstance(one.piece, Float):
            classes = ("room", f"{one.piece.id}-room", *_out(one))
            yield element("div", {"class": " ".join(context.name(part) for part in classes)})
    pieces = (part for one in low for part in _piece(one, context))
    yield element("div", {"class": context.name("stack"), "dir": direction(context.language)}, *pieces)


def _out(shown: Shown) -> list[str]:
    """Classes of the bands in which a piece does not show."""
    return [f"out-{band}" for band in shown.out_in]


def _beside(shown: Shown, context: SiteContext) -> tuple[str, str]:
    """What opens before the content, and what closes behind it."""
    piece, aside = shown.piece, html(_piece(shown, context))
    opening = f'<div class="{context.name("beside")} {context.name(piece.id + "-beside")}">'
    content = f'<div class="{context.name("beside-content")}">'
    if isinstance(piece, Sidebar) and piece.narrow == "before":
        return f"{opening}{aside}{content}", "</div></div>"
    return f"{opening}{content}", f"</div>{aside}</div>"


def _piece(shown: Shown, context: SiteContext, *, target: bool = False) -> list[Markup]:
    """One piece as its landmark, hidden in the bands `out_in`."""
    piece = shown.piece
    context = replace(
        context, early=piece.is_early, drawer=_drawer_rows, asks_consent=isinstance(piece, ConsentQuestion)
    )
    classes = ["", piece.id, *_out(shown)]
    slimmed = is_slimmed(piece, context.site)
    rows: list[Markup] = [_ground(piece, context, *classes)] if slimmed else []
    rows += _rows_in(piece, None, context, grounds=slimmed)
    rows += _handed_over(piece, context)
    attributes = {
        **context.attributes(piece, *classes, *piece.CLASSES, *(f"opens-{way}" for way in piece.opens)),
        "lang": context.language,
        "dir": direction(context.language),
        **piece.landmark_attributes(context),
        **_movement(piece),
    }
    landmark = element(piece.TAG, attributes, *piece.content(rows, context))
    after = [element("div", {"id": context.name("content"), "class": context.name("target"), "tabindex": "-1"})]
    return [*_with_edges(landmark, piece, context), *piece.script(context), *(after if target else ())]


def _skip_link(context: SiteContext) -> Element:
    """The way past what comes before the content (WCAG 2.2, 2.4.1)."""
    link = element("a", {"href": f"#{context.name('content')}"}, context.phrase("skip"))
    classes = f"{context.name('')} {context.name('skip')}"
    return element("div", {"class": classes, "lang": context.language, "dir": direction(context.language)}, link)


def _with_edges(landmark: Element, piece: Piece, context: SiteContext) -> Iterator[Element]:
    """A piece with what its script watches around it: where it comes to the window's edge, and how far down one is."""
    watched = landmark.attributes
    edge = context.name("edge")
    if isinstance(piece, Header) and not watched.keys().isdisjoint({"data-rim-stages", "data-rim-until"}):
        yield element("div", {"class": edge, "data-rim-mark": True})
    if isinstance(piece, Header) and piece.over:
        pin: Attributes = {"class": f"{context.name('pin')} {context.name(piece.id + '-pin')}", "data-rim-pin": True}
        landmark = element("div", pin, landmark)
    yield landmark
    if "data-rim-up" in watched and not piece.is_low:
        yield element("div", {"class": edge, "data-rim-edge": True})


def _movement(piece: Piece) -> Attributes:
    """What the script has to watch for it."""
    if not isinstance(piece, Moving) or not moves(piece):
        return {}
    watched: dict[str, str | bool] = {}
    if isinstance(piece, Header) and piece.stages and piece.is_ever_pinned:
        watched["data-rim-stages"] = "\n".join(distance_data(stage.after) for stage in piece.stages)
    if "up" in piece.ways:
        watched["data-rim-up"] = str(piece.up_px)
    if piece.comes_and_goes and piece.hides_until is not None:
        watched["data-rim-until"] = distance_data(piece.hides_until)
    return {**watched, "data-rim-yields": piece.comes_and_goes and piece.yields}


def _rows_in(piece: Piece, stage: str | None, context: SiteContext, *, grounds: bool = False) -> Iterator[Element]:
    """The rows that it shows at rest, or in a stage. `grounds`: each with an element for what is painted behind it."""
    for row, own in zip(context.site.shown_rows(piece), piece.rows, strict=True):
        if own.stage == stage:
            there = context.within(piece.id) if own.shares else context
            yield _row(row, there, ground=grounds and is_painted(row, piece, context.site))


def _ground(node: Styled, context: SiteContext, *classes: str) -> Element:
    """What is painted behind a piece or a row, where that can be less high than itself: it has the same classes."""
    attributes = replace(context, marks=False).attributes(node, *classes, "ground")
    return element("div", {**attributes, "aria-hidden": "true"})


def _handed_over(piece: Piece, context: SiteContext) -> Iterator[Element]:
    """The rows of each stage that has some of its own: a piece like the one that it stands in."""
    for stage in piece.stages if isinstance(piece, Header) and piece.is_ever_pinned else ():
        rows = list(_rows_in(piece, stage.id, context))
        if rows:
            yield element("div", context.attributes(piece, "", piece.id, "over", stage.id), *rows)


def _drawer_rows(drawer: str | None, item_id: str, context: SiteContext) -> tuple[Sequence[Markup], Sequence[Markup]]:
    """The rows of a menu's drawer above its entries, and those below them: each part a piece of its own in it."""
    piece = context.site.drawer(drawer)
    if piece is None or not piece.on:
        return (), ()
    there = replace(context, early=False).within(item_id)
    rows = [_row(row, there) for row in context.site.shown_rows(piece)]
    classes = ("", piece.id, "drawn", *(f"out-{band}" for band in piece.hidden_in))
    attributes = {
        **context.attributes(piece, *classes),
        "lang": context.language,
        "dir": direction(context.language),
    }
    above, below = (
        [element("div", attributes, *part)] if part else [] for part in (rows[: piece.above], rows[piece.above :])
    )
    return above, below


def _row(row: Row, context: SiteContext, *, ground: bool = False) -> Element:
    cells = element("div", {"class": context.name("cells")}, *(_cell(cell, context) for cell in row.cells))
    behind = _ground(row, context, "row", row.id) if ground else None
    return element("div", context.attributes(row, "row", row.id), behind, cells)


def _cell(cell: Cell, context: SiteContext) -> Element:
    classes = ["cell", cell.id] + ([cell.align] if cell.align != "start" else [])
    items = (part for item in cell.items for part in item_markup(item, context))
    return element("div", context.attributes(cell, *classes), *items)

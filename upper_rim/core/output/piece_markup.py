"""What is the markup of the pieces of a page: what stands before its content, and what behind it?

Landmarks follow the ARIA Authoring Practices: banner, contentinfo, complementary, navigation, and regions with a name.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace
from typing import NamedTuple

from ..exchange.markers import marked
from ..kinds.items.parts import icon
from ..kinds.markup import Attributes, Element, Markup, Raw, element, html
from ..languages import direction, phrase
from ..model.site import BottomBar, Cell, Float, Footer, Header, Moving, Notice, Piece, Row, Sidebar
from ..values.styling import Styled
from .item_markup import item_markup
from .movement_rules import moves, told
from .site_context import SiteContext
from .stage_rules import is_painted, is_slimmed


class Shown(NamedTuple):
    """A piece on a page, and the width bands in which it does not show there."""

    piece: Piece
    out_in: tuple[str, ...]


class Around(NamedTuple):
    """HTML of what stands before a page's content and behind it, each insertion in its marks."""

    before: str
    behind: str


def around(shown: Iterable[Shown], context: SiteContext) -> Around:
    """The pieces of a page in the order in which they are read: top notice, header, sidebar; footer, and what is pinned
    to the bottom. The first brings the skip link, the last before the content its target."""
    listed = list(shown)

    def of_kind(kind: str, *, at_bottom: bool = False) -> list[Shown]:
        return [one for one in listed if one.piece.kind == kind and one.piece.is_at_bottom == at_bottom]

    top = [*of_kind("notice"), *of_kind("header")]
    before = "".join(
        marked(one.piece.kind, html(_piece(one, context, skip=at == 0, target=at == len(top) - 1)))
        for at, one in enumerate(top)
    )
    behind = ""
    for one in of_kind("sidebar"):
        opening, closing = _beside(one, context)
        before += marked("sidebar", opening)
        behind = marked("sidebar-end", closing) + behind
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


def _piece(shown: Shown, context: SiteContext, *, skip: bool = False, target: bool = False) -> list[Markup]:
    """One piece as its landmark, hidden in the bands `out_in`."""
    piece = shown.piece
    early = isinstance(piece, Header) or (isinstance(piece, Notice) and piece.edge == "top")
    context = replace(context, early=early, drawer=_drawer_rows)
    content_id = context.name("content")
    to_content = element(
        "a", {"class": context.name("skip"), "href": f"#{content_id}"}, phrase("skip", context.language)
    )
    after: list[Markup] = []
    if target:
        after = [element("div", {"id": content_id, "class": context.name("target"), "tabindex": "-1"})]
    slimmed = is_slimmed(piece, context.site)
    rows: list[Markup] = [*_rows_in(piece, None, context, grounds=slimmed)]
    classes = ["", piece.id, *_out(shown)]
    label: Attributes = {"aria-label": piece.name}
    own: Attributes = {}
    match piece:
        case Header():
            tag = "header"
            ground = [_ground(piece, context, *classes)] if slimmed else []
            rows = [*ground, *rows, *_handed_over(piece, context)]
        case Footer():
            tag, own = "footer", {"data-rim-footer": True}
            rows = [element("div", {"class": context.name("beneath")}, *rows)] if piece.uncovered else rows
        case Sidebar():
            tag, own = "aside", label
        case Notice():
            tag, own = "section", {**label, **_closing(piece, context)}
            rows = [*rows, *_close_button(piece, context)]
            after = [*_notice_script(piece, context), *after]
        case BottomBar():
            tag, own = "nav", label
        case Float():
            tag, own = "section", label
            classes.append("float")
            rows = [_fan(piece, rows, context)] if piece.fan else rows
        case _:
            raise AssertionError(piece.kind)
    attributes = {
        **context.attributes(piece, *classes),
        "lang": context.language,
        "dir": direction(context.language),
        **own,
        **_movement(piece),
    }
    landmark = element(tag, attributes, to_content if skip else None, *rows)
    return [*_with_edges(landmark, piece, context), *after]


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
        watched["data-rim-stages"] = "\n".join(told(stage.after) for stage in piece.stages)
    if "up" in piece.ways:
        watched["data-rim-up"] = str(piece.up_px)
    if piece.comes_and_goes and piece.hides_until is not None:
        watched["data-rim-until"] = told(piece.hides_until)
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


def _handed_over(piece: Header, context: SiteContext) -> Iterator[Element]:
    """The rows of each stage that has some of its own: a piece like the one that it stands in."""
    for stage in piece.stages if piece.is_ever_pinned else ():
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


def _closing(piece: Notice, context: SiteContext) -> Attributes:
    key = f"{context.site.key}-{piece.id}"
    return {f"data-rim-{name}": value for condition in piece.conditions for name, value in condition.data(key)}


def _close_button(piece: Notice, context: SiteContext) -> Iterator[Element]:
    if piece.closable:
        words = phrase("close_notice", context.language)
        attributes: Attributes = {
            "type": "button",
            "class": context.name("shut"),
            "data-rim-shut": True,
            "aria-label": words,
        }
        yield element("button", attributes, icon("x", context))


def _notice_script(piece: Notice, context: SiteContext) -> Iterator[Element]:
    """Within the page, not deferred: whether the bar shows is settled before anything below it is drawn. Not on the
    stage, where its designer wants to see it at any time."""
    if piece.conditions and not context.marks:
        yield element("script", {}, Raw(context.shelf.notice_script))


def _fan(piece: Float, rows: Iterable[Markup], context: SiteContext) -> Element:
    summary = element("summary", {"class": context.name("button")}, piece.name)
    return element("details", {"class": context.name("fan")}, summary, *rows)


def _row(row: Row, context: SiteContext, *, ground: bool = False) -> Element:
    cells = element("div", {"class": context.name("cells")}, *(_cell(cell, context) for cell in row.cells))
    behind = _ground(row, context, "row", row.id) if ground else None
    return element("div", context.attributes(row, "row", row.id), behind, cells)


def _cell(cell: Cell, context: SiteContext) -> Element:
    classes = ["cell", cell.id] + ([cell.align] if cell.align != "start" else [])
    items = (part for item in cell.items for part in item_markup(item, context))
    return element("div", context.attributes(cell, *classes), *items)

"""What is the HTML of the pieces of a page: what stands before its content, and what behind it?

Landmarks follow the ARIA Authoring Practices: banner, contentinfo, complementary, navigation, and regions with a name.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from html import escape
from typing import NamedTuple

from ..exchange.markers import marked
from ..languages import direction, phrase
from ..model.items import MenuItem
from ..model.site import BottomBar, Cell, Float, Footer, Header, Moving, Notice, Piece, Row, Sidebar
from ..model.styling import Styled
from .item_html import Scene, item_html
from .movement_rules import moves, told
from .stage_rules import is_painted, is_slimmed


class Shown(NamedTuple):
    """A piece on a page, and the width bands in which it does not show there."""

    piece: Piece
    out_in: tuple[str, ...]


class Around(NamedTuple):
    """What stands before a page's content and behind it, each insertion in its marks."""

    before: str
    behind: str


def around(shown: Iterable[Shown], scene: Scene) -> Around:
    """The pieces of a page in the order in which they are read: top notice, header, sidebar; footer, and what is pinned
    to the bottom. The first brings the skip link, the last before the content its target."""
    listed = list(shown)

    def of_kind(kind: str, *, at_bottom: bool = False) -> list[Shown]:
        return [one for one in listed if one.piece.kind == kind and one.piece.is_at_bottom == at_bottom]

    top = [*of_kind("notice"), *of_kind("header")]
    before = "".join(
        marked(one.piece.kind, _piece(one, scene, skip=at == 0, target=at == len(top) - 1))
        for at, one in enumerate(top)
    )
    behind = ""
    for one in of_kind("sidebar"):
        opening, closing = _beside(one, scene)
        before += marked("sidebar", opening)
        behind = marked("sidebar-end", closing) + behind
    lower = of_kind("notice", at_bottom=True)
    for one in [*of_kind("footer"), *(one for one in lower if not one.piece.is_low)]:
        behind += marked(one.piece.kind, _piece(one, scene))
    low = [*of_kind("float"), *(one for one in lower if one.piece.is_low), *of_kind("bottom")]
    return Around(before, behind + _stack(low, scene))


def _stack(low: list[Shown], scene: Scene) -> str:
    """What is pinned to the bottom, one above the other, so that each lifts what stands over it; and the room that the
    page's end keeps free for it."""
    if not low:
        return ""
    pieces = "".join(_piece(one, scene) for one in low)
    rooms = "".join(
        f'<div class="{" ".join(scene.name(part) for part in ("room", f"{one.piece.id}-room", *_out(one)))}"></div>'
        for one in low
        if not isinstance(one.piece, Float)
    )
    return marked(
        "stack", f'{rooms}<div class="{scene.name("stack")}" dir="{direction(scene.language)}">{pieces}</div>'
    )


def _out(shown: Shown) -> list[str]:
    """Classes of the bands in which a piece does not show."""
    return [f"out-{band}" for band in shown.out_in]


def _beside(shown: Shown, scene: Scene) -> tuple[str, str]:
    """What opens before the content, and what closes behind it."""
    piece, aside = shown.piece, _piece(shown, scene)
    opening = f'<div class="{scene.name("beside")} {scene.name(piece.id + "-beside")}">'
    content = f'<div class="{scene.name("beside-content")}">'
    if isinstance(piece, Sidebar) and piece.narrow == "before":
        return f"{opening}{aside}{content}", "</div></div>"
    return f"{opening}{content}", f"</div>{aside}</div>"


def _piece(shown: Shown, scene: Scene, *, skip: bool = False, target: bool = False) -> str:
    """One piece as its landmark, hidden in the bands `out_in`."""
    piece = shown.piece
    early = isinstance(piece, Header) or (isinstance(piece, Notice) and piece.edge == "top")
    scene = replace(scene, early=early, drawn=_drawn)
    content_id = scene.name("content")
    to_content = (
        f'<a class="{scene.name("skip")}" href="#{content_id}">{escape(phrase("skip", scene.language))}</a>'
        if skip
        else ""
    )
    after = f'<div id="{content_id}" class="{scene.name("target")}" tabindex="-1"></div>' if target else ""
    slimmed = is_slimmed(piece, scene.site)
    rows = _rows_in(piece, None, scene, grounds=slimmed)
    language = f' lang="{scene.language}" dir="{direction(scene.language)}"'
    classes = ["", piece.id, *_out(shown)]
    label = f' aria-label="{escape(piece.name, quote=True)}"'
    match piece:
        case Header():
            tag, named, said = "header", "", ""
            rows = (_ground(piece, scene, *classes) if slimmed else "") + rows + _handed_over(piece, scene)
        case Footer():
            tag, named, said = "footer", "", " data-rim-footer"
            rows = f'<div class="{scene.name("beneath")}">{rows}</div>' if piece.uncovered else rows
        case Sidebar():
            tag, named, said = "aside", label, ""
        case Notice():
            tag, named, said = "section", label, _closing(piece, scene)
            rows, after = rows + _close_button(piece, scene), _notice_script(piece, scene) + after
        case BottomBar():
            tag, named, said = "nav", label, ""
        case Float():
            tag, named, said = "section", label, ""
            classes.append("float")
            rows = _fan(piece, rows, scene) if piece.fan else rows
        case _:
            raise AssertionError(piece.kind)
    said += _movement(piece)
    whole = f"<{tag} {scene.attributes(piece, *classes)}{language}{named}{said}>{to_content}{rows}</{tag}>"
    if isinstance(piece, Header) and piece.over:
        whole = f'<div class="{scene.name("pin")} {scene.name(piece.id + "-pin")}" data-rim-pin>{whole}</div>'
    if ' data-rim-up="' in said and not piece.is_low:
        whole += f'<div class="{scene.name("edge")}" data-rim-edge></div>'
    if isinstance(piece, Header) and (" data-rim-stages=" in said or " data-rim-until=" in said):
        whole = f'<div class="{scene.name("edge")}" data-rim-mark></div>{whole}'
    return whole + after


def _movement(piece: Piece) -> str:
    """What the script has to watch for it, as attributes."""
    if not isinstance(piece, Moving) or not moves(piece):
        return ""
    watched: dict[str, str | None] = {}
    if isinstance(piece, Header) and piece.stages and piece.is_ever_pinned:
        watched["stages"] = "\n".join(told(stage.after) for stage in piece.stages)
    if "up" in piece.ways:
        watched["up"] = str(piece.up_px)
    if piece.comes_and_goes and piece.hides_until is not None:
        watched["until"] = told(piece.hides_until)
    said = "".join(f' data-rim-{name}="{escape(value or "", quote=True)}"' for name, value in watched.items())
    return said + (" data-rim-yields" if piece.comes_and_goes and piece.yields else "")


def _rows_in(piece: Piece, stage: str | None, scene: Scene, *, grounds: bool = False) -> str:
    """The rows that it shows at rest, or in a stage. `grounds`: each with an element for what is painted behind it."""
    shown = zip(scene.site.shown_rows(piece), piece.rows, strict=True)
    return "".join(
        _row(
            row,
            scene.within(piece.id) if own.shares else scene,
            ground=grounds and is_painted(row, piece, scene.site),
        )
        for row, own in shown
        if own.stage == stage
    )


def _ground(node: Styled, scene: Scene, *classes: str) -> str:
    """What is painted behind a piece or a row, where that can be less high than itself: it has the same classes."""
    attributes = replace(scene, marks=False).attributes(node, *classes, "ground")
    return f'<div {attributes} aria-hidden="true"></div>'


def _handed_over(piece: Header, scene: Scene) -> str:
    """The rows of each stage that has some of its own: a piece like the one that it stands in."""
    found = ""
    for stage in piece.stages if piece.is_ever_pinned else ():
        rows = _rows_in(piece, stage.id, scene)
        if rows:
            found += f"<div {scene.attributes(piece, '', piece.id, 'over', stage.id)}>{rows}</div>"
    return found


def _drawn(item: MenuItem, scene: Scene) -> tuple[str, str]:
    """The rows of a menu's drawer above its entries, and those below them: each part a piece of its own in it."""
    piece = scene.site.drawer(item.drawer)
    if piece is None or not piece.on:
        return "", ""
    there = replace(scene, early=False).within(item.id)
    rows = [_row(row, there) for row in scene.site.shown_rows(piece)]
    classes = ("", piece.id, "drawn", *(f"out-{band}" for band in piece.hidden_in))
    attributes = f'{scene.attributes(piece, *classes)} lang="{scene.language}" dir="{direction(scene.language)}"'
    above, below = (
        f"<div {attributes}>{''.join(part)}</div>" if part else ""
        for part in (rows[: piece.above], rows[piece.above :])
    )
    return above, below


def _closing(piece: Notice, scene: Scene) -> str:
    key = f"{scene.site.key}-{piece.id}"
    said = (pair for condition in piece.conditions for pair in condition.data(key))
    return "".join(f' data-rim-{name}="{value}"' for name, value in said)


def _close_button(piece: Notice, scene: Scene) -> str:
    if not piece.closable:
        return ""
    words = escape(phrase("close_notice", scene.language), quote=True)
    icon = f'<span class="{scene.name("icon")} {scene.name("icon-x")}"></span>'
    return f'<button type="button" class="{scene.name("shut")}" data-rim-shut aria-label="{words}">{icon}</button>'


def _notice_script(piece: Notice, scene: Scene) -> str:
    """Within the page, not deferred: whether the bar shows is settled before anything below it is drawn. Not on the
    stage, where its designer wants to see it at any time."""
    return f"<script>{scene.shelf.notice_script}</script>" if piece.conditions and not scene.marks else ""


def _fan(piece: Float, rows: str, scene: Scene) -> str:
    name = escape(piece.name)
    return (
        f'<details class="{scene.name("fan")}"><summary class="{scene.name("button")}">{name}</summary>{rows}</details>'
    )


def _row(row: Row, scene: Scene, *, ground: bool = False) -> str:
    cells = "".join(_cell(cell, scene) for cell in row.cells)
    behind = _ground(row, scene, "row", row.id) if ground else ""
    return f'<div {scene.attributes(row, "row", row.id)}>{behind}<div class="{scene.name("cells")}">{cells}</div></div>'


def _cell(cell: Cell, scene: Scene) -> str:
    classes = ["cell", cell.id] + ([cell.align] if cell.align != "start" else [])
    items = "".join(item_html(item, scene) for item in cell.items)
    return f"<div {scene.attributes(cell, *classes)}>{items}</div>"

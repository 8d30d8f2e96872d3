"""What is the HTML of a piece, on a page in a given language, with a given page current?

Landmarks and patterns follow the ARIA Authoring Practices: banner, labelled navigation, disclosure.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from html import escape

from ..model.items import ButtonItem, IconLink, Item, Logo, MenuItem, Target, TextItem
from ..model.site import Cell, Entry, Piece, Row, Site
from ..model.styling import Styled
from ..model.values import direction
from .links import Links
from .naming import look_class, published_name
from .phrases import phrase


@dataclass(frozen=True)
class Scene:
    """For which page a piece is written: its language and, where menus may mark it, its id.

    `marks` adds the ids of nodes as `data-rim-node`, for the stage to tell what was pressed.
    """

    site: Site
    links: Links
    language: str
    current: str | None
    marks: bool = False

    def name(self, part: str = "") -> str:
        return published_name(self.site.key, part)

    def attributes(self, node: Styled, *classes: str) -> str:
        worn = (look_class(look, position) for position, look in enumerate(node.wears))
        names = " ".join([*(self.name(part) for part in (*classes, *worn)), *node.classes.split()])
        node_id = node.id
        mark = f' data-rim-node="{node_id}"' if self.marks else ""
        return f'class="{names}"{mark}'


def piece_html(piece: Piece, scene: Scene, *, first: bool, out_in: tuple[str, ...] = ()) -> str:
    """A header as a banner landmark, hidden in the bands `out_in`. The first of a page brings the skip link and its target."""
    rows = "".join(_row(row, scene) for row in piece.rows)
    skip = (
        f'<a class="{scene.name("skip")}" href="#{scene.name("content")}">{escape(phrase("skip", scene.language))}</a>'
        if first
        else ""
    )
    target = f'<div id="{scene.name("content")}" class="{scene.name("target")}" tabindex="-1"></div>' if first else ""
    language = f'lang="{scene.language}" dir="{direction(scene.language)}"'
    return f"<header {scene.attributes(piece, '', piece.id, *(f'out-{band}' for band in out_in))} {language}>{skip}{rows}</header>{target}"


def _row(row: Row, scene: Scene) -> str:
    cells = "".join(_cell(cell, scene) for cell in row.cells)
    return f'<div {scene.attributes(row, "row", row.id)}><div class="{scene.name("cells")}">{cells}</div></div>'


def _cell(cell: Cell, scene: Scene) -> str:
    classes = ["cell", cell.id] + ([cell.align] if cell.align != "start" else [])
    items = "".join(item_html(item, scene) for item in cell.items)
    return f"<div {scene.attributes(cell, *classes)}>{items}</div>"


def item_html(item: Item, scene: Scene) -> str:
    match item:
        case Logo():
            return _logo(item, scene)
        case MenuItem():
            return _menu(item, scene)
        case TextItem():
            return f"<span {scene.attributes(item, 'text', item.id)}>{escape(item.words.in_language(scene.language))}</span>"
        case ButtonItem():
            words = escape(item.words.in_language(scene.language))
            return _linked(
                item.target,
                scene,
                scene.attributes(item, "second" if item.rank == "second" else "button", item.id),
                words,
            )
        case IconLink():
            name = escape(item.words.in_language(scene.language), quote=True)
            icon = f'<span class="{scene.name("icon")} {scene.name("icon-" + item.icon)}"></span>'
            attributes = f'{scene.attributes(item, "link", item.id)} aria-label="{name}"'
            return _linked(item.target, scene, attributes, icon)


def _linked(target: Target, scene: Scene, attributes: str, content: str) -> str:
    """A link; without a target, a placeholder link (HTML Standard, 4.6: an `a` without `href`)."""
    href, page = scene.links.resolve(target, scene.language)
    if href is None:
        return f'<a role="link" aria-disabled="true" {attributes}>{content}</a>'
    current = ' aria-current="page"' if page is not None and page.id == scene.current else ""
    return f'<a {attributes} href="{escape(href, quote=True)}"{current}>{content}</a>'


def _logo(item: Logo, scene: Scene) -> str:
    words = escape(item.words.in_language(scene.language) or scene.site.name, quote=True)
    content = words
    if item.picture:
        content = f'<img src="{escape(item.picture, quote=True)}" alt="{words}" height="{item.height_px}">'
    front = escape(scene.links.front(scene.language), quote=True)
    return f'<a {scene.attributes(item, "logo", item.id)} href="{front}">{content}</a>'


def _menu(item: MenuItem, scene: Scene) -> str:
    menu = next((menu for menu in scene.site.menus if menu.id == item.menu), None)
    if menu is None:
        return f"<div {scene.attributes(item, item.id)}></div>"
    drawer_id = scene.name(f"{item.id}-drawer")
    entries = f'<ul class="{scene.name("list")}" role="list">{_entries(menu.entries, scene, item.id)}</ul>'
    below = drawer_width(item, scene.site)
    label = escape(menu.name, quote=True)
    if below is None:
        return f'<nav {scene.attributes(item, "menu", item.id)} aria-label="{label}">{entries}</nav>'
    side = ["from-start"] if item.drawer_side == "start" else []
    close = escape(phrase("close", scene.language), quote=True)
    opening = f' popovertarget="{drawer_id}" aria-controls="{drawer_id}" aria-expanded="false" data-rim-drawer="(max-width:{below - 0.02:.2f}px)"'
    return (
        f'<div class="{scene.name(f"below-{below}")}"><nav {scene.attributes(item, "menu", item.id, *side)} aria-label="{label}">'
        f"{opener_html(item, scene, opening)}"
        f'<div class="{scene.name("drawer")}" id="{drawer_id}" popover>'
        f'<button type="button" class="{scene.name("close")}" popovertarget="{drawer_id}" popovertargetaction="hide" aria-label="{close}">'
        f'<span class="{scene.name("icon")} {scene.name("icon-x")}"></span></button>{entries}</div></nav></div>'
    )


def opener_html(item: MenuItem, scene: Scene, opening: str = "") -> str:
    """The button that stands for the menu below its width. `opening`: attributes that tie it to its drawer."""
    words = escape(item.button_words.in_language(scene.language) or "Menu", quote=True)
    icon = f'<span class="{scene.name("icon")} {scene.name("icon-menu")}"></span>'
    face = f"{icon}<span>{words}</span>" if item.button_words_shown else icon
    naming = "" if item.button_words_shown else f' aria-label="{words}"'
    return f'<button type="button" class="{scene.name("menu-button")}"{opening}{naming}>{face}</button>'


def drawer_width(item: MenuItem, site: Site) -> int | None:
    """The viewport width in px below which the menu is a drawer; None where it never is."""
    band = next((band for band in site.bands if band.id == item.drawer_below), None)
    return band.from_px if band is not None and band.from_px > 0 else None


def _entries(entries: Iterable[Entry], scene: Scene, where: str) -> str:
    return "".join(_entry(entry, scene, where) for entry in entries)


def _entry(entry: Entry, scene: Scene, where: str) -> str:
    href, page = scene.links.resolve(entry.target, scene.language)
    label = scene.links.label(entry, scene.language)
    branch = _entries(entry.entries, scene, where)
    if href is None and not branch and entry.target.kind != "nothing":
        return ""
    words = escape(label)
    current = ' aria-current="page"' if page is not None and page.id == scene.current else ""
    mark = f' data-rim-node="{entry.id}"' if scene.marks else ""
    if href is None:
        head = f'<span class="{scene.name("head")}"{mark}>{words}</span>'
    else:
        head = f'<a href="{escape(href, quote=True)}"{current}{mark}>{words}</a>'
    if not branch:
        return f"<li>{head}</li>"
    branch_id = scene.name(f"{where}-{entry.id}")
    opener = escape(phrase("branch", scene.language, label), quote=True)
    return (
        f'<li>{head}<button type="button" class="{scene.name("sub-button")}" aria-expanded="false" aria-controls="{branch_id}"'
        f' aria-label="{opener}" data-rim-branch><span class="{scene.name("icon")} {scene.name("icon-chevron-down")}"></span></button>'
        f'<ul class="{scene.name("sub")}" id="{branch_id}" role="list">{branch}</ul></li>'
    )

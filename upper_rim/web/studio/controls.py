"""Which controls change the chosen node, and in which groups do they lie in the tray?

A control is data: what it is called, which field it sets, how it is typed. The template only draws it.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from typing import Any

from ...core.model.items import ButtonItem, IconLink, Logo, MenuItem, Target, TextItem, ToAddress, ToPage
from ...core.model.site import Cell, Piece, Row, Site, Track
from ...core.model.values import Words

Choice = tuple[str, str]


RANKS = (("first", "First button"), ("second", "Second button"))


@dataclass(frozen=True)
class Control:
    """`kind`: text, number, choice, swatch, yes or bands. `value` is what it shows; `language` is set for translations."""

    kind: str
    label: str
    node: str
    field: str
    value: Any
    choices: Sequence[Choice] = ()
    unit: str = ""
    hint: str = ""
    language: str = ""
    least: int | None = None
    greatest: int | None = None
    suggestions: str = ""


@dataclass(frozen=True)
class Group:
    name: str
    controls: list[Control] = field(default_factory=list)


def groups_for(node: Any, site: Site) -> list[Group]:
    """The tray's groups for a piece, row, cell or item."""
    match node:
        case Piece():
            return [
                Group("Piece", [_text(node, "name", "Name"), _yes(node, "on", "Switched on")]),
                _shown(node, site),
            ]
        case Row():
            return [
                Group("Row", [_text(node, "name", "Name"), _yes(node, "full_width", "Edge to edge")]),
                Group("Space", [_px(node, "gap_px", "Between cells", 400)]),
                _shown(node, site),
            ]
        case Cell():
            aligned = (("start", "Start"), ("center", "Middle"), ("end", "End"))
            return [
                Group(
                    "Cell",
                    [
                        Control(
                            "text",
                            "Width",
                            node.id,
                            "track",
                            track_in_words(node.track),
                            hint="content, share 1, or 240 px",
                        ),
                        Control("choice", "Items stand at", node.id, "align", node.align, aligned),
                    ],
                ),
                Group("Space", [_px(node, "gap_px", "Between items", 400)]),
            ]
        case _:
            return [*_content(node, site), _shown(node, site)]


def _content(node: Any, site: Site) -> list[Group]:
    match node:
        case Logo():
            pictures = [("", "none: show the title")] + [
                (asset.path, asset.path) for asset in site.assets if _is_picture(asset.path)
            ]
            return [
                Group(
                    "Content",
                    [
                        *_words(node, "words", "Title", site),
                        Control("choice", "Picture", node.id, "picture", node.picture or "", pictures),
                        _px(node, "height_px", "Height", 400),
                    ],
                ),
            ]
        case MenuItem():
            menus = [("", "none yet")] + [(menu.id, menu.name) for menu in site.menus]
            sides = (("start", "Start"), ("end", "End"))
            never = [("", "never: always a row")] + [
                (band.id, f"below {band.name} ({band.from_px} px)") for band in site.bands if band.from_px > 0
            ]
            return [
                Group(
                    "Content",
                    [
                        Control("choice", "Menu", node.id, "menu", node.menu or "", menus),
                        *_words(node, "button_words", "Button says", site),
                        _yes(node, "button_words_shown", "Word beside the icon"),
                    ],
                ),
                Group(
                    "Drawer",
                    [
                        Control("choice", "Becomes a drawer", node.id, "drawer_below", node.drawer_below or "", never),
                        Control("choice", "Comes from", node.id, "drawer_side", node.drawer_side, sides),
                        _px(node, "gap_px", "Between entries", 200),
                    ],
                ),
            ]
        case TextItem():
            return [Group("Content", list(_words(node, "words", "Text", site)))]
        case ButtonItem():
            return [
                Group("Content", [*_words(node, "words", "Says", site), _link(node, site)]),
                Group("Button", [Control("choice", "Rank", node.id, "rank", node.rank, RANKS)]),
            ]
        case IconLink():
            return [
                Group(
                    "Content",
                    [
                        Control(
                            "text",
                            "Icon",
                            node.id,
                            "icon",
                            node.icon,
                            suggestions="icons",
                            hint="a name from the icon set",
                        ),
                        *_words(node, "words", "Its name", site),
                        _link(node, site),
                    ],
                ),
                Group("Icon", [_px(node, "icon_px", "Size", 96)]),
            ]
        case _:
            return []


def _shown(node: Any, site: Site) -> Group:
    bands = [(band.id, band.name) for band in site.bands]
    shown = [band for band, _ in bands if band not in node.hidden_in]
    widths = [Control("bands", "Widths", node.id, "hidden_in", shown, bands)] if bands else []
    return Group("Shows at", [*widths, _text(node, "classes", "Classes")])


def _words(node: Any, name: str, label: str, site: Site) -> Iterable[Control]:
    words: Words = getattr(node, name)
    yield Control("text", label, node.id, name, words.text, hint=site.language)
    for language in languages_of(site):
        other = next((translation.text for translation in words.translations if translation.language == language), "")
        yield Control("text", f"in {language}", node.id, name, other, language=language, hint=words.text)


def languages_of(site: Site) -> list[str]:
    """The languages of the site's pages other than its own."""
    return sorted({page.language for page in site.pages} - {site.language})


def _text(node: Any, name: str, label: str) -> Control:
    return Control("text", label, node.id, name, getattr(node, name))


def _yes(node: Any, name: str, label: str) -> Control:
    return Control("yes", label, node.id, name, getattr(node, name))


def _px(node: Any, name: str, label: str, greatest: int) -> Control:
    return Control("number", label, node.id, name, getattr(node, name), unit="px", least=0, greatest=greatest)


def _link(node: Any, site: Site) -> Control:
    return Control(
        "text",
        "Leads to",
        node.id,
        "target",
        target_in_words(node.target, site),
        suggestions="paths",
        hint="/path, address, mail or telephone",
    )


def target_in_words(target: Target, site: Site) -> str:
    match target:
        case ToPage(page=page_id):
            return next((page.path for page in site.pages if page.id == page_id), "")
        case ToAddress(address=address):
            return address.removeprefix("mailto:").removeprefix("tel:")
        case _:
            return ""


def track_in_words(track: Track) -> str:
    return {"content": "content", "share": f"share {track.amount}", "fixed": f"{track.amount} px"}[track.kind]


def _is_picture(path: str) -> bool:
    return path.lower().endswith((".svg", ".png", ".jpg", ".jpeg", ".webp", ".gif", ".avif"))


KIND_NAMES = {"logo": "Logo", "menu": "Menu", "text": "Text", "button": "Button", "icon": "Icon link"}


def node_name(node: Any, site: Site) -> str:
    """What a node is called in the outline and over the tray."""
    match node:
        case Piece() | Row():
            return node.name
        case Cell():
            return _cell_name(node, site)
        case MenuItem():
            menu = next((menu.name for menu in site.menus if menu.id == node.menu), "none yet")
            return f"Menu: {menu}"
        case Logo():
            return "Logo"
        case IconLink():
            return f"Icon: {node.icon}"
        case _:
            words = node.words.text
            return f"{KIND_NAMES[node.kind]}: {words[:28] + '…' if len(words) > 29 else words}"


def _cell_name(cell: Cell, site: Site) -> str:
    """By its place in its row: Start, Middle, End, or a number where there are more."""
    cells = next((row.cells for piece in site.pieces for row in piece.rows if cell in row.cells), (cell,))
    at = cells.index(cell)
    if len(cells) == 1:
        return "Whole row"
    if at in {0, len(cells) - 1}:
        return "End" if at else "Start"
    return "Middle" if len(cells) == 3 else f"Cell {at + 1}"

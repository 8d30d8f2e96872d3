"""How high is what opens (the drawer, the panels of a menu's row), on the small screens that count?"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import NamedTuple

from ...kinds.items.menu import MenuItem
from ...kinds.pieces.base import Piece
from ...kinds.pieces.drawer import Drawer
from ...kinds.rows import Row
from ...model.site import Site, drawer_width
from ..css.amount import Viewport
from ..css.block import Block
from ..css.boxes import Box
from ..css.linear import value
from ..markup.elements import ElementBoxes
from ..markup.pieces import piece_around, row_box
from ..rows.fitter import Fitter
from ..rows.held import drawer_share
from ..rows.setting import Setting

SCREENS: tuple[tuple[int, int], ...] = ((320, 568), (360, 640), (390, 844), (844, 390), (768, 1024))
"""Small screens, width by height in CSS px."""


class OpenedDrawer(NamedTuple):
    """What a menu's drawer comes to on a screen: `whole_px` is the height of all that it holds, submenus open;
    `shut_px` with them shut. `screens`: how many screens long it is, open."""

    menu: str
    language: str
    screen: tuple[int, int]
    width_px: float
    whole_px: float
    shut_px: float

    @property
    def screens(self) -> float:
        return round(self.whole_px / self.screen[1], 2)


class Drawn(NamedTuple):
    """A drawer's piece, and its rows, each with what its boxes are made from."""

    piece: Drawer
    rows: tuple[tuple[Row, Setting], ...]


def opened(setting_of: Setting, item: MenuItem, below_px: int | None, drawn: Drawn | None = None) -> list[OpenedDrawer]:
    """For each small screen on which the menu is a drawer. `setting_of`: of its row, in the language; the band is
    chosen here. `below_px`: see `model.site.drawer_width`. `drawn`: the rows that stand in it besides its entries."""
    found = []
    for wide, high in SCREENS:
        if below_px is None or wide >= below_px:
            continue
        setting = _in_band(setting_of, wide)
        viewport = Viewport(float(wide), float(high))
        width = value(drawer_share(item).at(viewport))
        whole = max(_height_of(box, width, viewport) for box in levels(item, setting, drawn, submenus=True))
        shut = _height_of(levels(item, setting, drawn, submenus=False)[0], width, viewport)
        found.append(OpenedDrawer(item.id, setting.language, (wide, high), width, whole, shut))
    return found


def _height_of(box: Block, width: float, viewport: Viewport) -> float:
    return round(value(box.lay_out(width, viewport, viewport.width).height), 2)


def _in_band(setting: Setting, wide: int) -> Setting:
    band = None
    for one in setting.site.bands:
        if one.from_px <= wide:
            band = one.id
    return replace(setting, band=band, from_px=wide)


def levels(item: MenuItem, setting: Setting, drawn: Drawn | None, *, submenus: bool) -> list[Block]:
    """What is opened: the close button, the drawer's own rows, and the entries one below the other; and, where submenus
    open level by level, each of the further levels with its way back."""
    above, below = _parts(drawn, setting) if drawn is not None else ([], [])
    boxes = ElementBoxes(item, setting, submenus=None if item.submenus == "levels" else submenus)
    further = boxes.further_levels() if item.submenus == "levels" else ()
    return [boxes.drawer(above, below), *further]


def _parts(drawn: Drawn, setting: Setting) -> tuple[list[Box], list[Box]]:
    """What stands above the entries, and below them, in the setting's band."""
    piece = drawn.piece
    if not piece.on or setting.band in piece.hidden_in:
        return [], []

    def part(rows: Sequence[tuple[Row, Setting]]) -> list[Box]:
        there = [(row, replace(own, band=setting.band, from_px=setting.from_px)) for row, own in rows]
        boxes = [row_box(row, piece, own) for row, own in there if setting.band not in row.hidden_in]
        return [piece_around(boxes, piece, there[0][1])] if there else []

    return part(drawn.rows[: piece.above]), part(drawn.rows[piece.above :])


def all_opened(fitter: Fitter, site: Site, piece: Piece, row: Row, language: str) -> list[OpenedDrawer]:
    """For every menu of a row."""
    setting = fitter.setting(site, piece, row, language)
    menus = [item for cell in row.cells for item in cell.items if isinstance(item, MenuItem)]
    return [
        one
        for item in menus
        for one in opened(setting, item, drawer_width(item, site), _drawn_of(fitter, site, item, language))
    ]


def _drawn_of(fitter: Fitter, site: Site, item: MenuItem, language: str) -> Drawn | None:
    drawer = site.drawer(item.drawer)
    if drawer is None:
        return None
    return Drawn(drawer, tuple((row, fitter.setting(site, drawer, row, language)) for row in site.shown_rows(drawer)))

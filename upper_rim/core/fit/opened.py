"""How high is what opens (the drawer, the panels of a menu's row), on the small screens that count?"""

from __future__ import annotations

from dataclasses import replace
from typing import NamedTuple

from ..model.items import MenuItem
from ..model.menus import all_entries
from ..model.site import Piece, Row, Site, drawer_width
from .amount import Viewport
from .block import Block, Void
from .boxes import Sides
from .fitter import Fitter
from .linear import value
from .menus import listed
from .setting import Setting

SCREENS: tuple[tuple[int, int], ...] = ((320, 568), (360, 640), (390, 844), (844, 390), (768, 1024))
"""Small screens, width by height in CSS px."""
CLOSE_PX = 44.0
LEVEL_AT_PX = 56.0
DRAWER_PX = 360.0


class Opened(NamedTuple):
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


def opened(setting_of: Setting, item: MenuItem, below_px: int | None) -> list[Opened]:
    """For each small screen on which the menu is a drawer. `setting_of`: of its row, in the language; the band is chosen
    here. `below_px`: see `model.site.drawer_width`."""
    found = []
    for wide, high in SCREENS:
        if below_px is None or wide >= below_px:
            continue
        setting = _in_band(setting_of, wide)
        viewport = Viewport(float(wide), float(high))
        width = opened_width(item, wide)
        whole = max(_height_of(box, width, viewport) for box in levels(item, setting, submenus=True))
        shut = _height_of(levels(item, setting, submenus=False)[0], width, viewport)
        found.append(Opened(item.id, setting.language, (wide, high), width, whole, shut))
    return found


def _height_of(box: Block, width: float, viewport: Viewport) -> float:
    return round(value(box.lay_out(width, viewport, viewport.width).height), 2)


def opened_width(item: MenuItem, wide: int) -> float:
    """In px, of what the menu's button opens on a screen so many px wide."""
    if item.drawer_side not in {"start", "end"}:
        return float(wide)
    return min(0.86 * wide, DRAWER_PX) if item.drawer_px is None else float(min(wide, item.drawer_px))


def _in_band(setting: Setting, wide: int) -> Setting:
    band = None
    for one in setting.site.bands:
        if one.from_px <= wide:
            band = one.id
    return replace(setting, band=band, from_px=wide)


def levels(item: MenuItem, setting: Setting, *, submenus: bool) -> list[Block]:
    """What is opened: the close button, and the entries one below the other, as the drawer's CSS has them; and, where
    submenus open level by level, each of the further levels with its way back."""
    entries = setting.menus.shown(item)
    close = Void(part="close", width=CLOSE_PX, height=CLOSE_PX).settle()
    own = Block(part="list", within=list(listed(entries, item, setting, submenus=submenus))).settle()
    found = [Block(part="drawer", within=[close, own], padding=Sides(12.0, 20.0, 24.0, 20.0)).settle()]
    if item.submenus == "levels":
        for entry in all_entries(entries):
            below = list(listed(entry.entries, item, setting, submenus=False))
            if below:
                back = Void(part="back", width=CLOSE_PX, height=CLOSE_PX).settle()
                level = Block(part="level", within=[back, *below], padding=Sides(LEVEL_AT_PX, 20.0, 24.0, 20.0))
                found.append(level.settle())
    return found


def all_opened(fitter: Fitter, site: Site, piece: Piece, row: Row, language: str) -> list[Opened]:
    """For every menu of a row."""
    setting = fitter.setting(site, piece, row, language)
    return [
        one
        for cell in row.cells
        for item in cell.items
        if isinstance(item, MenuItem)
        for one in opened(setting, item, drawer_width(item, site))
    ]

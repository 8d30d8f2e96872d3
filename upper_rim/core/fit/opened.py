"""How high is what opens (the drawer, the panels of a menu's row), on the small screens that count?"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import NamedTuple

from ..model.items import MenuItem
from ..model.site import Entry, Piece, Row, Site, drawer_width
from .amount import Viewport
from .block import Block, Void
from .boxes import Box, Sides
from .fitter import Fitter
from .linear import value
from .menus import entry_box
from .setting import Setting

SCREENS: tuple[tuple[int, int], ...] = ((320, 568), (360, 640), (390, 844), (844, 390), (768, 1024))
"""Small screens, width by height in CSS px."""
CLOSE_PX = 44.0
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
        drawer = drawer_box(item, setting, wide, submenus=True)
        shut = drawer_box(item, setting, wide, submenus=False)
        viewport = Viewport(float(wide), float(high))
        width = min(0.86 * wide, DRAWER_PX)
        found.append(
            Opened(
                item.id,
                setting.language,
                (wide, high),
                width,
                round(value(drawer.lay_out(width, viewport, float(wide)).height), 2),
                round(value(shut.lay_out(width, viewport, float(wide)).height), 2),
            )
        )
    return found


def _in_band(setting: Setting, wide: int) -> Setting:
    band = None
    for one in setting.site.bands:
        if one.from_px <= wide:
            band = one.id
    return replace(setting, band=band)


def drawer_box(item: MenuItem, setting: Setting, wide: int, *, submenus: bool) -> Block:
    """The close button, and the entries one below the other, as the drawer's CSS has them."""
    entries = list(_listed(setting.menus.shown(item), item, setting, submenus=submenus))
    close = Void(part="close", width=CLOSE_PX, height=CLOSE_PX).settle()
    listed = Block(part="list", within=entries).settle()
    made = Block(part="drawer", within=[close, listed], padding=Sides(12.0, 20.0, 24.0, 20.0))
    made.settle()
    return made


def _listed(entries: Iterable[Entry], item: MenuItem, setting: Setting, *, submenus: bool) -> Iterable[Box]:
    own = setting.part(item.id, "content")
    for entry in entries:
        link = entry_box(entry, own, setting)
        if link is None:
            continue
        within = [link]
        below = list(_listed(entry.entries, item, setting, submenus=True)) if submenus else []
        if below:
            sub = Block(part="sub", min_width=200.0, within=below, padding=Sides(inline_start=16.0)).settle()
            within.append(sub)
        yield Block(part="line", within=within).settle()


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

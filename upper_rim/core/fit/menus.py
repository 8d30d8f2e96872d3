"""Which boxes is a menu made of: in a row, as the button of its drawer, as a list of links?"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from ..model.items import LinkList, MenuItem
from ..model.site import Entry, drawer_width
from .amount import times
from .block import Block, Void
from .boxes import Box, Sides
from .flex import Flex
from .parts import labelled, titled
from .setting import Setting
from .styles import BoxStyle
from .text import Run

TARGET_PX = 44.0
ENTRY_GAP_PX, ICON_PX = 8.0, 20.0
SECOND_SIZE, MARK_SIZE = 0.85, 0.75


def menu_box(item: MenuItem, setting: Setting) -> Box:
    own, entry = setting.part(item.id), setting.part(item.id, "content")
    if setting.site.menu(item.menu) is None:
        return Void(node=item.id, **own.over()).settle()
    shown: Box
    if is_drawer(item, setting):
        shown = setting.around(menu_button(item, setting), own.type)
    else:
        shown = entry_row(setting.menus.shown(item), item, entry, setting)
    return Block(node=item.id, within=[shown], **own.over()).settle()


def is_drawer(item: MenuItem, setting: Setting) -> bool:
    """Whether in this width band the menu is a button."""
    below = drawer_width(item, setting.site)
    band = next((band for band in setting.site.bands if band.id == setting.band), None)
    return below is not None and band is not None and band.from_px < below


def menu_button(item: MenuItem, setting: Setting) -> Box:
    own = setting.part(item.id, "title")
    words = item.button_words.in_language(setting.language) or "Menu" if item.button_words_shown else ""
    icon = Void(part="icon", width=24.0, height=24.0, shrink=0.0).settle()
    within: list[Box] = [icon, setting.line(words, own.type)] if words else [icon]
    return Flex(
        node=item.id, part="opener", align="center", justify="center", column_gap=8.0, within=within, **own.over()
    ).settle()


def entry_row(entries: Iterable[Entry], item: MenuItem, own: BoxStyle, setting: Setting) -> Box:
    shown = [box for entry in entries if (box := _entry(entry, own, setting)) is not None]
    return Flex(
        part="list", wraps=True, align="center", column_gap=float(item.gap_px), within=list(shown)
    ).settle()  # fmt: skip


def label_of(entry: Entry, setting: Setting) -> str | None:
    """What an entry says; None where it is left out."""
    href, _ = setting.links.resolve(entry.target, setting.language)
    if href is None and entry.target.kind != "nothing" and all(label_of(one, setting) is None for one in entry.entries):
        return None
    return setting.words(entry.label, entry.id) or setting.links.label(entry, setting.language)


def labels_of(item: MenuItem | LinkList, setting: Setting) -> tuple[Any, ...]:
    """All that its menu says, entry by entry."""
    return tuple(_said(entry, setting) for entry in setting.menus.shown(item))


def _said(entry: Entry, setting: Setting) -> tuple[Any, ...]:
    below = tuple(_said(one, setting) for one in entry.entries)
    beside = tuple(setting.words(words, entry.id) for words in (entry.second, entry.mark))
    return (entry.id, label_of(entry, setting), beside, entry.icon, entry.new_window, below)


def _entry(entry: Entry, own: BoxStyle, setting: Setting, *, in_row: bool = True) -> Box | None:
    label = label_of(entry, setting)
    if label is None:
        return None
    within = [_link(entry, label, own, setting, in_row=in_row)]
    if any(label_of(one, setting) is not None for one in entry.entries):
        chevron = Void(part="icon", width=16.0, height=16.0, shrink=0.0).settle()
        opener = Flex(
            part="branch", align="center", justify="center", min_width=28.0, min_height=TARGET_PX, within=[chevron]
        )
        within.append(opener.settle())
    return Flex(part="line", align="center", within=within).settle()


def _link(entry: Entry, label: str, own: BoxStyle, setting: Setting, *, in_row: bool = True) -> Box:
    within = _words(entry, label, own, setting, in_row=in_row)
    return Flex(
        node=entry.id, part="entry", align="center", column_gap=ENTRY_GAP_PX, within=within, **own.over()
    ).settle()  # fmt: skip


def _words(entry: Entry, label: str, own: BoxStyle, setting: Setting, *, in_row: bool) -> list[Box]:
    """What stands in an entry's link. In a row its second line does not show."""
    second, mark = (setting.words(words, entry.id) for words in (entry.second, entry.mark))
    if not (second or mark or entry.icon or entry.new_window):
        return labelled(label, own.type, setting)
    within: list[Box] = []
    if entry.icon:
        within.append(Void(part="icon", width=ICON_PX, height=ICON_PX, shrink=0.0).settle())
    lines: list[Box] = [setting.line(label, own.type)]
    if second and not in_row:
        lines.append(setting.line(second, own.type.at_size(times(own.type.size, SECOND_SIZE)), part="flowing"))
    within.append(Block(within=lines).settle() if len(lines) > 1 else lines[0])
    if mark:
        kind = own.type.at_size(times(own.type.size, MARK_SIZE))
        edges, thin = Sides(0.0, 6.0, 0.0, 6.0), Sides(1.0, 1.0, 1.0, 1.0)
        within.append(setting.lines([Run(mark, kind)], kind, part="mark", breaks=False, padding=edges, border=thin))
    return within


def entry_box(entry: Entry, own: BoxStyle, setting: Setting) -> Box | None:
    """An entry's link by itself, as it stands in a drawer; None where it is left out."""
    label = label_of(entry, setting)
    return None if label is None else _link(entry, label, own, setting, in_row=False)


def link_list(item: LinkList, setting: Setting) -> Box:
    own, entry = setting.part(item.id), setting.part(item.id, "content")
    lines = [box for one in setting.menus.shown(item) if (box := _entry(one, entry, setting, in_row=False)) is not None]
    return titled(item.id, setting.words(item.words, item.id), own, lines, setting)

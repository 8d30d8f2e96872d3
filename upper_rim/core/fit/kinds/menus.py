"""Which boxes is a menu made of: in a row, as the button of its drawer, as a list of links?"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from functools import lru_cache
from typing import Any, NamedTuple

from ...kinds.entries import Entry
from ...kinds.items.links import LinkList
from ...kinds.items.menu import MenuItem
from ...kinds.items.trail import SEPARATORS, Trail
from ...model.site import drawer_width
from ..css.amount import times
from ..css.block import Block, Void
from ..css.boxes import Box, Sides
from ..css.flex import Flex
from ..css.grid import Folding, Grid, GridTrack
from ..rows.setting import Setting
from ..rows.styles import BoxStyle
from ..text.text import Run
from .parts import labelled, titled

TARGET_PX = 44.0
ENTRY_GAP_PX, ICON_PX = 8.0, 20.0
SECOND_SIZE, MARK_SIZE = 0.85, 0.75


def menu_box(item: MenuItem, setting: Setting) -> Box:
    own, entry = setting.part(item.id), setting.part(item.id, "content")
    if setting.site.menu(item.menu) is None:
        return Void(node=item.id, **own.over()).settle()
    entries = setting.menus.shown(item)
    shown: Box
    if is_drawer(item, setting):
        shown = setting.around(menu_button(item, setting), own.type)
    elif item.way == "column":
        shown = Block(
            part="list", within=list(lines_below(entries, item, setting, submenus=not item.has_toggles))
        ).settle()
    elif item.way == "columns":
        shown = _columns(entries, entry, setting)
    else:
        shown = entry_row(entries, item, entry, setting)
    return Block(node=item.id, within=[shown], **own.over()).settle()


def is_drawer(item: MenuItem, setting: Setting) -> bool:
    """Whether at these widths the menu is a button."""
    below = drawer_width(item, setting.site)
    return below is not None and setting.from_px < below


def menu_button(item: MenuItem, setting: Setting) -> Box:
    own = setting.part(item.id, "title")
    words = item.button_words.in_language(setting.language) or "Menu" if item.button_words_shown else ""
    icon = Void(part="icon", width=24.0, height=24.0, shrink=0.0).settle()
    within: list[Box] = [icon, setting.line(words, own.type)] if words else [icon]
    within = within[::-1] if item.button_words_first else within
    return Flex(
        node=item.id, part="opener", align="center", justify="center", column_gap=8.0, within=within, **own.over()
    ).settle()


def entry_row(entries: Iterable[Entry], item: MenuItem, own: BoxStyle, setting: Setting) -> Box:
    shown = [box for entry in entries if (box := _entry(entry, own, setting)) is not None]
    return Flex(
        part="list", wraps=True, align="center", column_gap=float(item.gap_px), within=list(shown)
    ).settle()  # fmt: skip


def lines_below(entries: Iterable[Entry], item: MenuItem, setting: Setting, *, submenus: bool) -> Iterator[Box]:
    """Entries below each other, as a column or a drawer has them: `submenus` open, or shut."""
    own = setting.part(item.id, "content")
    for entry in entries:
        label = label_of(entry, setting)
        if label is None:
            continue
        below = [] if item.submenus == "levels" else list(lines_below(entry.entries, item, setting, submenus=True))
        within: list[Box] = [_link(entry, label, own, setting, in_row=False)]
        if item.has_toggles:
            within += [_toggle(TARGET_PX)] if _has_branch(entry, setting) else []
            within = [Grid(tracks=(GridTrack("share"), GridTrack("content")), within=within).settle()]
        if below and submenus:
            within.append(Block(part="sub", min_width=200.0, within=below, padding=Sides(inline_start=16.0)).settle())
        yield Block(part="line", within=within).settle()


def _has_branch(entry: Entry, setting: Setting) -> bool:
    return any(label_of(one, setting) is not None for one in entry.entries)


@lru_cache(maxsize=8)
def _toggle(width: float) -> Box:
    """The button that opens a submenu."""
    chevron = Void(part="icon", width=16.0, height=16.0, shrink=0.0).settle()
    return Flex(
        part="branch", align="center", justify="center", min_width=width, min_height=TARGET_PX, within=[chevron]
    ).settle()  # fmt: skip


COLUMN_PX, COLUMN_GAPS_PX = 180.0, (16.0, 24.0)


def _columns(entries: Iterable[Entry], own: BoxStyle, setting: Setting) -> Box:
    """Each entry of the first level at the head of a column."""

    def column(entry: Entry, depth: int) -> Block | None:
        label = label_of(entry, setting)
        if label is None:
            return None
        within: list[Box] = [_link(entry, label, own, setting, in_row=depth == 0)]
        below = [box for one in entry.entries if (box := column(one, depth + 1)) is not None]
        if below:
            within.append(
                Block(part="sub", within=list(below), padding=Sides(inline_start=16.0 if depth else 0.0)).settle()
            )
        return Block(part="line", within=within).settle()

    made = [box for one in entries if (box := column(one, 0)) is not None]
    return Folding(part="list", within=list(made), least=COLUMN_PX, gaps=COLUMN_GAPS_PX).settle()


def label_of(entry: Entry, setting: Setting) -> str | None:
    """What an entry says; None where it is left out."""
    href, _ = setting.links.resolve(entry.target, setting.language)
    if href is None and entry.target.kind != "nothing" and all(label_of(one, setting) is None for one in entry.entries):
        return None
    return setting.words(entry.label, entry.id) or setting.links.label(entry, setting.language)


def labels_of(item: MenuItem | LinkList, setting: Setting) -> tuple[Any, ...]:
    """All that can be seen of what its menu says, entry by entry: in a row, of its submenus, that they are there."""
    is_row = isinstance(item, LinkList) or item.way == "row"
    return tuple(_said(entry, setting, deep=not is_row) for entry in setting.menus.shown(item))


class _Said(NamedTuple):
    """All of an entry that takes room. `below`: whether anything is, or what."""

    id: str
    label: str | None
    beside: tuple[str, ...]
    icon: str | None
    new_window: bool
    below: Any


def _said(entry: Entry, setting: Setting, *, deep: bool) -> _Said:
    below: Any = tuple(_said(one, setting, deep=True) for one in entry.entries) if deep else _has_branch(entry, setting)
    beside = tuple(setting.words(words, entry.id) for words in (entry.second, entry.mark))
    return _Said(entry.id, label_of(entry, setting), beside, entry.icon, entry.new_window, below)


def _entry(entry: Entry, own: BoxStyle, setting: Setting, *, in_row: bool = True) -> Box | None:
    said = _said(entry, setting, deep=False)
    label = said.label
    if label is None:
        return None

    def make(alone: Setting) -> Box:
        within = [_link(entry, label, own, alone, in_row=in_row)]
        if said.below:
            within.append(_toggle(28.0))
        return Flex(part="line", align="center", within=within).settle()

    return setting.kept((said, in_row), own, make)


def _link(entry: Entry, label: str, own: BoxStyle, setting: Setting, *, in_row: bool) -> Box:
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
        kind = own.type.at_size(times(own.type.size, SECOND_SIZE))
        lines.append(setting.line(second, kind, part="flowing"))
    within.append(Block(within=lines).settle() if len(lines) > 1 else lines[0])
    if mark:
        kind = own.type.at_size(times(own.type.size, MARK_SIZE))
        edges, thin = Sides(0.0, 6.0, 0.0, 6.0), Sides(1.0, 1.0, 1.0, 1.0)
        within.append(setting.lines([Run(mark, kind)], kind, part="mark", breaks=False, padding=edges, border=thin))
    return within


def trail_box(item: Trail, setting: Setting) -> Box:
    """The longest trail of all pages in the language: that one has to fit."""
    own, entry = setting.part(item.id), setting.part(item.id, "content")
    lines = []
    for at, step in enumerate(setting.trail(item)):
        link = Flex(
            part="entry", align="center", within=labelled(step.words, entry.type, setting), **entry.over()
        ).settle()
        parting = [setting.line(SEPARATORS[item.separator], own.type, part="parting")] if at else []
        lines.append(Flex(part="line", align="center", column_gap=ENTRY_GAP_PX, within=[*parting, link]).settle())
    shown = Flex(part="list", wraps=True, align="center", column_gap=ENTRY_GAP_PX, within=list(lines)).settle()
    return Block(node=item.id, within=[shown], **own.over()).settle()


def link_list(item: LinkList, setting: Setting) -> Box:
    own, entry = setting.part(item.id), setting.part(item.id, "content")
    lines = [box for one in setting.menus.shown(item) if (box := _entry(one, entry, setting, in_row=False)) is not None]
    return titled(item.id, setting.words(item.words, item.id), own, lines, setting)

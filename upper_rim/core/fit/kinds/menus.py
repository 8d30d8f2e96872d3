"""Which boxes is a menu made of: in a row, as the button of its drawer, as a list of links?"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import Any, NamedTuple

from ...kinds.entries import Entry
from ...kinds.items.links import LinkList
from ...kinds.items.menu import MenuItem
from ...kinds.items.trail import SEPARATORS, Trail
from ...model.site import drawer_width
from ..css.block import Block, Void
from ..css.boxes import Box
from ..css.flex import Flex
from ..css.grid import Folding, Grid, GridTrack
from ..rows.setting import Setting
from ..rows.styles import BoxStyle
from ..text.paragraph import Run
from .parts import labelled, titled

_LINE, _LINK = "nav.rim-menu > ul.rim-list > li", "nav.rim-menu > ul.rim-list > li > a"


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
    button = setting.sheets.of("nav.rim-menu > button.rim-menu-button", "drawer")
    icon = _icon("nav.rim-menu > button.rim-menu-button > span.rim-icon", setting)
    within: list[Box] = [icon, setting.line(words, own.type)] if words else [icon]
    within = within[::-1] if item.button_words_first else within
    return Flex(
        node=item.id, part="opener", align="center", justify="center", within=within, **button.gaps(), **own.over()
    ).settle()


def _icon(path: str, setting: Setting) -> Box:
    return Void(part="icon", **setting.sheets.of(path).sizes()).settle()


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
            toggles = "nav.rim-menu.rim-toggles > ul.rim-list > li"
            within += [_toggle(toggles, "list", setting)] if _has_branch(entry, setting) else []
            within = [Grid(tracks=(GridTrack("share"), GridTrack("content")), within=within).settle()]
        if below and submenus:
            listed = setting.sheets.of(f"{_LINE} > ul.rim-sub", "list")
            within.append(Block(part="sub", within=below, **listed.sizes(unsaid=0.0)).settle())
        yield Block(part="line", within=within).settle()


def _has_branch(entry: Entry, setting: Setting) -> bool:
    return any(label_of(one, setting) is not None for one in entry.entries)


def _toggle(line: str, way: str, setting: Setting) -> Box:
    """The button that opens a submenu. `line`: the way to what it stands in."""
    button = setting.sheets.of(f"{line} > button.rim-sub-button", way)
    chevron = _icon(f"{line} > button.rim-sub-button > span.rim-icon.rim-icon-chevron-down", setting)
    return Flex(part="branch", align="center", justify="center", within=[chevron], **button.sizes()).settle()


def _columns(entries: Iterable[Entry], own: BoxStyle, setting: Setting) -> Box:
    """Each entry of the first level at the head of a column."""

    def column(entry: Entry, depth: int) -> Block | None:
        label = label_of(entry, setting)
        if label is None:
            return None
        within: list[Box] = [_link(entry, label, own, setting, in_row=depth == 0)]
        below = [box for one in entry.entries if (box := column(one, depth + 1)) is not None]
        if below:
            sub = setting.sheets.of(f"{_LINE} > ul.rim-sub{' > li > ul.rim-sub' if depth else ''}", "columns")
            within.append(Block(part="sub", within=list(below), **sub.sizes(unsaid=0.0)).settle())
        return Block(part="line", within=within).settle()

    made = [box for one in entries if (box := column(one, 0)) is not None]
    grid = setting.sheets.of("nav.rim-menu > ul.rim-list", "columns")
    return Folding(
        part="list", within=list(made), least=grid.px_in("grid-template-columns"), gaps=(grid.px("row-gap"), grid.px("column-gap")),
    ).settle()  # fmt: skip


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
            within.append(_toggle(_LINE, "", alone))
        return Flex(part="line", align="center", within=within).settle()

    return setting.kept((said, in_row), own, make)


def _link(entry: Entry, label: str, own: BoxStyle, setting: Setting, *, in_row: bool) -> Box:
    within = _words(entry, label, own, setting, in_row=in_row)
    return Flex(
        node=entry.id, part="entry", align="center", within=within, **setting.sheets.of(_LINK).gaps(), **own.over()
    ).settle()  # fmt: skip


def _words(entry: Entry, label: str, own: BoxStyle, setting: Setting, *, in_row: bool) -> list[Box]:
    """What stands in an entry's link. In a row its second line does not show."""
    second, mark = (setting.words(words, entry.id) for words in (entry.second, entry.mark))
    if not (second or mark or entry.icon or entry.new_window):
        return labelled(label, own.type, setting)
    within: list[Box] = []
    if entry.icon:
        within.append(_icon(f"{_LINK} > span.rim-icon", setting))
    lines: list[Box] = [setting.line(label, own.type)]
    if second and not in_row:
        kind = setting.sheets.of(f"{_LINK} > span > small.rim-more").type(own.type)
        lines.append(setting.line(second, kind, part="flowing"))
    within.append(Block(within=lines).settle() if len(lines) > 1 else lines[0])
    if mark:
        base = setting.sheets.of(f"{_LINK} > small.rim-mark")
        kind = base.type(own.type)
        sizes = base.sizes(kind.size, 0.0)
        within.append(setting.lines([Run(mark, kind)], kind, part="mark", breaks=base.breaks, **sizes))
    return within


def trail_box(item: Trail, setting: Setting) -> Box:
    """The longest trail of all pages in the language: that one has to fit."""
    own, entry = setting.part(item.id), setting.part(item.id, "content")
    lines: list[Box] = []
    listed = setting.sheets.of("nav.rim-menu.rim-trail > ol.rim-list").gaps()
    step_gaps = setting.sheets.of("nav.rim-menu.rim-trail > ol.rim-list > li").gaps()
    for at, step in enumerate(setting.trail(item)):
        link = Flex(
            part="entry", align="center", within=labelled(step.words, entry.type, setting), **entry.over()
        ).settle()
        parting = [setting.line(SEPARATORS[item.separator], own.type, part="parting")] if at else []
        lines.append(Flex(part="line", align="center", within=[*parting, link], **step_gaps).settle())
    shown = Flex(part="list", wraps=True, align="center", within=lines, **listed).settle()
    return Block(node=item.id, within=[shown], **own.over()).settle()


def link_list(item: LinkList, setting: Setting) -> Box:
    own, entry = setting.part(item.id), setting.part(item.id, "content")
    lines = [box for one in setting.menus.shown(item) if (box := _entry(one, entry, setting, in_row=False)) is not None]
    return titled(item.id, setting.words(item.words, item.id), own, lines, setting)

"""What is said in a menu, entry by entry: all of it that takes room?"""

from __future__ import annotations

from typing import Any, NamedTuple

from ...kinds.entries import Entry
from ...kinds.items.links import LinkList
from ...kinds.items.menu import MenuItem
from ..rows.setting import Setting


class Said(NamedTuple):
    """All of an entry that takes room; its label is None where it is left out. `below`: whether anything is, or
    what."""

    id: str
    label: str | None
    beside: tuple[str, ...]
    icon: str | None
    new_window: bool
    apart: bool
    below: Any


def label_of(entry: Entry, setting: Setting) -> str | None:
    """What an entry says; None where it is left out."""
    href, _ = setting.links.resolve(entry.target, setting.language)
    if href is None and entry.target.kind != "nothing" and all(label_of(one, setting) is None for one in entry.entries):
        return None
    return setting.words(entry.label, entry.id) or setting.links.label(entry, setting.language)


def labels_of(item: MenuItem | LinkList, setting: Setting) -> tuple[Said, ...]:
    """All that can be seen of what its menu says, entry by entry: in a row, of its submenus, that they are there."""
    is_row = isinstance(item, LinkList) or item.way == "row"
    return tuple(said_of(entry, setting, deep=not is_row) for entry in setting.menus.shown(item))


def said_of(entry: Entry, setting: Setting, *, deep: bool = False) -> Said:
    below: Any
    if deep:
        below = tuple(said_of(one, setting, deep=True) for one in entry.entries)
    else:
        below = any(label_of(one, setting) is not None for one in entry.entries)
    beside = tuple(setting.words(words, entry.id) for words in (entry.second, entry.mark))
    return Said(entry.id, label_of(entry, setting), beside, entry.icon, entry.new_window, entry.apart, below)

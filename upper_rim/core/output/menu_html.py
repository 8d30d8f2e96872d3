"""What is the HTML of a menu's entries, on a page that stands somewhere among them?

The entries are written once for all pages in a language; where a page stands is then put in at known places.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass, field
from html import escape
from typing import TYPE_CHECKING

from ..model.current import Standing
from ..model.items import LinkList, MenuItem
from ..model.phrases import phrase
from ..model.site import Entry

if TYPE_CHECKING:
    from .item_html import Scene

_SLOT = re.compile("\x00([cf])([a-z0-9-]+)\x00")


@dataclass(slots=True)
class Written:
    """Nested lists, and where in them something is put in for entries that a page stands at or below: offsets, by the
    entry's id, of its link's attributes (`links`) and of its submenu's button's (`buttons`)."""

    html: str
    links: dict[str, list[int]] = field(default_factory=dict)
    buttons: dict[str, list[int]] = field(default_factory=dict)

    def on_page(self, standing: Standing) -> str:
        here = ' aria-current="page"'
        put = [(at, here) for node in standing.here for at in self.links.get(node, ())]
        put += [(at, ' aria-current="true"') for node in standing.above for at in self.links.get(node, ())]
        for node in (*standing.here, *standing.above):
            put += [(at, " data-rim-first") for at in self.buttons.get(node, ())]
        if not put:
            return self.html
        parts: list[str] = []
        last = 0
        for at, text in sorted(put):
            parts += (self.html[last:at], text)
            last = at
        return "".join((*parts, self.html[last:]))


def written(item: MenuItem | LinkList, scene: Scene) -> Written:
    """The entries that an item shows."""
    marked = _Tree(scene, item).entries(scene.menus.shown(item))
    made = Written("")
    parts: list[str] = []
    last = length = 0
    for slot in _SLOT.finditer(marked):
        parts.append(marked[last : slot.start()])
        length += slot.start() - last
        last = slot.end()
        (made.links if slot[1] == "c" else made.buttons).setdefault(slot[2], []).append(length)
    made.html = "".join((*parts, marked[last:]))
    return made


class _Tree:
    def __init__(self, scene: Scene, item: MenuItem | LinkList) -> None:
        self._scene, self._where = scene, item.id
        self._item = item if isinstance(item, MenuItem) else None

    def entries(self, entries: Iterable[Entry], depth: int = 0) -> str:
        return "".join(self._entry(entry, depth) for entry in entries)

    def _entry(self, entry: Entry, depth: int) -> str:
        scene = self._scene
        href, _ = scene.links.resolve(entry.target, scene.language)
        label = scene.links.label(entry, scene.language)
        branch = self.entries(entry.entries, depth + 1)
        if href is None and not branch and entry.target.kind != "nothing":
            return ""
        words = self._picture(entry, depth) + entry_words(entry, label, scene)
        said = f"\x00c{entry.id}\x00{scene.mark(entry.id)}"
        if href is None:
            head = f'<span class="{scene.name("head")}"{said}>{words}</span>'
        else:
            window = ' target="_blank" rel="noopener"' if entry.new_window else ""
            head = f'<a href="{escape(href, quote=True)}"{window}{said}>{words}</a>'
        return f"<li>{head}{self._branch(entry, label, branch)}</li>" if branch else f"<li>{head}</li>"

    def _picture(self, entry: Entry, depth: int) -> str:
        """In wide panels the entries of the second level have pictures."""
        wide = self._item is not None and self._item.way == "row" and self._item.panels == "wide"
        if not (wide and depth == 1 and entry.picture):
            return ""
        source = escape(entry.picture, quote=True)
        return f'<img class="{self._scene.name("entry-picture")}" src="{source}" alt=""{self._scene.size(entry.picture)} loading="lazy">'

    def _branch(self, entry: Entry, label: str, branch: str) -> str:
        """The button that opens what is below an entry, and that."""
        scene, item = self._scene, self._item
        branch_id = scene.html_id(f"{self._where}-{entry.id}")
        opener = escape(phrase("branch", scene.language, label), quote=True)
        first = f"\x00f{entry.id}\x00" if item and item.submenus == "current" else ""
        back = feature = ""
        if item is not None and item.submenus == "levels":
            icon = f'<span class="{scene.name("icon")} {scene.name("icon-chevron-left")}"></span>'
            back = f'<li class="{scene.name("back")}"><button type="button" data-rim-back>{icon}<span>{escape(label)}</span></button></li>'
        if item is not None and item.way == "row" and item.panels == "wide":
            feature = _feature(entry, label, scene)
        return (
            f'<button type="button" class="{scene.name("sub-button")}" aria-expanded="false" aria-controls="{branch_id}"'
            f' aria-label="{opener}" data-rim-branch{first}><span class="{scene.name("icon")} {scene.name("icon-chevron-down")}"></span></button>'
            f'<ul class="{scene.name("sub")}" id="{branch_id}" role="list">{back}{feature}{branch}</ul>'
        )


def _feature(entry: Entry, label: str, scene: Scene) -> str:
    """What a wide panel begins with: the entry's own picture and second line, where it has any."""
    second = entry.second.in_language(scene.language)
    if not entry.picture and not second:
        return ""
    size = scene.size(entry.picture) if entry.picture else ""
    picture = f'<img src="{escape(entry.picture, quote=True)}" alt=""{size} loading="lazy">' if entry.picture else ""
    words = f"<span>{escape(second)}</span>" if second else ""
    return f'<li class="{scene.name("feature")}">{picture}<strong>{escape(label)}</strong>{words}</li>'


def entry_words(entry: Entry, label: str, scene: Scene) -> str:
    """What stands in its link: the label by itself, or beside an icon, with a second line, a mark, a note."""
    second, mark = entry.second.in_language(scene.language), entry.mark.in_language(scene.language)
    words = escape(label)
    if second:
        words = f'<span>{words}<br><small class="{scene.name("more")}">{escape(second)}</small></span>'
    elif entry.icon or mark or entry.new_window:
        words = f"<span>{words}</span>"
    icon = f'<span class="{scene.name("icon")} {scene.name("icon-" + entry.icon)}"></span>' if entry.icon else ""
    marked = f'<small class="{scene.name("mark")}">{escape(mark)}</small>' if mark else ""
    note = phrase("new_window", scene.language)
    noted = f'<span class="{scene.name("unseen")}">, {escape(note)}</span>' if entry.new_window else ""
    return f"{icon}{words}{marked}{noted}"

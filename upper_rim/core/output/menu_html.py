"""What is the HTML of a menu's entries, on a page that stands somewhere among them?

The entries are written once for all pages in a language; where a page stands is then put in at known places.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from html import escape
from itertools import accumulate
from typing import TYPE_CHECKING, NamedTuple

from ..exchange.encoding import insertion
from ..languages import phrase
from ..model.current import Standing
from ..model.items import LinkList, MenuItem
from ..model.site import Entry
from .splicing import Chunk

if TYPE_CHECKING:
    from .item_html import Scene

_SLOT = re.compile("\x00([cf])([a-z0-9-]+)\x00")


class Written(NamedTuple):
    """Nested lists in parts; between two of them stands a slot, for what an entry's link (`c`) or its submenu's button (`f`)
    has where a page stands at or below the entry: the slot's kind and the entry's id."""

    parts: tuple[str, ...]
    slots: tuple[tuple[str, str], ...]

    @property
    def html(self) -> str:
        """On a page that stands nowhere among them."""
        return "".join(self.parts)


class Encoded:
    """The same in a document's encoding, for all of its pages."""

    def __init__(self, made: Written, label: str) -> None:
        parts = [insertion(part, label) for part in made.parts]
        self._bytes = b"".join(parts)
        self._slots: dict[tuple[str, str], list[int]] = {}
        for slot, at in zip(made.slots, accumulate(map(len, parts)), strict=False):
            self._slots.setdefault(slot, []).append(at)
        self._here, self._above, self._first = (
            insertion(text, label) for text in (' aria-current="page"', ' aria-current="true"', " data-rim-first")
        )

    def on_page(self, standing: Standing) -> list[Chunk]:
        put = [(at, self._here) for node in standing.here for at in self._slots.get(("c", node), ())]
        put += [(at, self._above) for node in standing.above for at in self._slots.get(("c", node), ())]
        for node in (*standing.here, *standing.above):
            put += [(at, self._first) for at in self._slots.get(("f", node), ())]
        view, last = memoryview(self._bytes), 0
        chunks: list[Chunk] = []
        for at, text in sorted(put):
            chunks += [view[last:at], text]
            last = at
        return [*chunks, view[last:]]


def written(item: MenuItem | LinkList, scene: Scene) -> Written:
    """The entries that an item shows."""
    # Split at its slots: a part, then a slot's kind and id, and so on.
    first, *rest = _SLOT.split(_Tree(scene, item).entries(scene.menus.shown(item)))
    return Written((first, *rest[2::3]), tuple(zip(rest[::3], rest[1::3], strict=True)))


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

"""What is the markup of a menu's entries? Written once for all pages in a language, with slots for where a page
stands."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from ..context import PageContext
from ..entries import Entry
from ..markup import Attributes, Element, Markup, element, slot
from .base import ShowsMenu
from .menu import MenuItem
from .parts import icon


def entries_markup(item: ShowsMenu, page: PageContext, entries: Iterable[Entry]) -> Iterator[Element]:
    """Of these entries, a branch at a time, for a menu may have thousands of them."""
    return _Writer(item, page).lines(entries)


class _Writer:
    def __init__(self, item: ShowsMenu, page: PageContext) -> None:
        self._item, self._page = item, page
        menu = item if isinstance(item, MenuItem) else None
        self._sets_apart = "apart" in item.roles
        self._has_panels = menu is not None and menu.way == "row" and menu.panels == "wide"
        self._has_levels = menu is not None and menu.submenus == "levels"
        self._opens_current = menu is not None and menu.submenus == "current"

    def lines(self, entries: Iterable[Entry], depth: int = 0) -> Iterator[Element]:
        for entry in entries:
            line = self._line(entry, depth)
            if line is not None:
                yield line

    def _line(self, entry: Entry, depth: int) -> Element | None:
        page = self._page
        href, label = page.destination(entry.target).href, page.label(entry)
        branch = list(self.lines(entry.entries, depth + 1))
        if href is None and not branch and entry.target.kind != "nothing":
            return None
        words = (*self._picture(entry, depth), *entry_words(entry, label, page))
        own: Attributes = {slot("c", entry.id): True, **page.mark(entry.id)}
        apart = page.name("apart") if entry.apart and self._sets_apart and depth == 0 else None
        if href is None:
            head = element("span", {"class": " ".join(filter(None, (page.name("head"), apart))), **own}, *words)
        else:
            window = {"target": "_blank", "rel": "noopener"} if entry.new_window else {}
            head = element("a", {"href": href, "class": apart, **window, **own}, *words)
        return element("li", {}, head, *(self._branch(entry, label, branch) if branch else ()))

    def _picture(self, entry: Entry, depth: int) -> tuple[Element, ...]:
        """In wide panels the entries of the second level have pictures."""
        if not (self._has_panels and depth == 1 and entry.picture):
            return ()
        picture = {"class": self._page.name("entry-picture"), "src": entry.picture, "alt": ""}
        return (element("img", {**picture, **self._page.size(entry.picture), "loading": "lazy"}),)

    def _branch(self, entry: Entry, label: str, lines: list[Element]) -> tuple[Element, Element]:
        """The button that opens what is below an entry, and that."""
        page = self._page
        branch_id = page.html_id(f"{self._item.id}-{entry.id}")
        button = element(
            "button",
            {
                "type": "button",
                "class": page.name("sub-button"),
                "aria-expanded": "false",
                "aria-controls": branch_id,
                "aria-label": page.phrase("branch", label),
                "data-rim-branch": True,
                **({slot("f", entry.id): True} if self._opens_current else {}),
            },
            icon("chevron-down", page),
        )
        listed = element(
            "ul",
            {"class": page.name("sub"), "id": branch_id, "role": "list"},
            self._back(label) if self._has_levels else None,
            _feature(entry, label, page) if self._has_panels else None,
            *lines,
        )
        return button, listed

    def _back(self, label: str) -> Element:
        page = self._page
        attributes: Attributes = {"type": "button", "data-rim-back": True}
        button = element("button", attributes, icon("chevron-left", page), element("span", {}, label))
        return element("li", {"class": page.name("back")}, button)


def _feature(entry: Entry, label: str, page: PageContext) -> Element | None:
    """What a wide panel begins with: the entry's own picture and second line, where it has any."""
    second = entry.second.in_language(page.language)
    if not entry.picture and not second:
        return None
    picture = None
    if entry.picture:
        picture = element("img", {"src": entry.picture, "alt": "", **page.size(entry.picture), "loading": "lazy"})
    words = element("span", {}, second) if second else None
    return element("li", {"class": page.name("feature")}, picture, element("strong", {}, label), words)


def entry_words(entry: Entry, label: str, page: PageContext) -> Iterator[Markup]:
    """What stands in its link: the label by itself, or beside an icon, with a second line, a mark, a note."""
    second, mark = page.words(entry.second, entry.id), page.words(entry.mark, entry.id)
    if entry.icon:
        yield icon(entry.icon, page)
    if second:
        more = element("small", {"class": page.name("more")}, second)
        yield element("span", {}, label, element("br", {}), more)
    elif entry.icon or mark or entry.new_window:
        yield element("span", {}, label)
    else:
        yield label
    if mark:
        yield element("small", {"class": page.name("mark")}, mark)
    if entry.new_window:
        yield element("span", {"class": page.name("unseen")}, f", {page.phrase('new_window')}")

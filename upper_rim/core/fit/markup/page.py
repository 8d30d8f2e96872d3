"""What does an item get to know of the site while its markup is written for fit alone?"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from ...kinds.consent import Category
from ...kinds.context import Destination, GateState, Post
from ...kinds.entries import Entry, MenuPart
from ...kinds.items import Item
from ...kinds.markup import Markup
from ...kinds.spoken import SpokenLanguage
from ...model.site import band_widths
from ...style.paint.pictures import Picture
from ...values.brands import Mark
from ...values.styling import Styled
from ...values.targets import Target
from ...values.words import Words
from ..rows.setting import Setting
from .menus import label_of

KEY = "rim"
"""With which the classes in the sheets that ship begin."""


class FitPage:
    """A `PageContext` and a `SheetContext`: of all pages in the setting's language, with what takes room on them."""

    early = marks = asks_consent = False
    gate_state: GateState = "asked"
    has_heading = False
    holder = front = index_path = results_path = notice_script = ""
    key = KEY

    def __init__(self, item: Item, setting: Setting) -> None:
        self._item, self._setting = item, setting

    @property
    def language(self) -> str:
        return self._setting.language

    @property
    def languages(self) -> Sequence[str]:
        return self._setting.site.offered_in(self.language)

    def said_of(self, language: str) -> SpokenLanguage:
        return self._setting.site.said_of(language)

    @property
    def site_name(self) -> str:
        return self._setting.site.name

    @property
    def categories(self) -> Sequence[Category]:
        return self._setting.site.categories

    def waits_for(self, host: str, code: str, category: str | None) -> str:
        """What waits, and what does not, take the same room: a frame is as large as it is said to be. What is said in its
        place can be drawn."""
        return "any"

    @property
    def year(self) -> int | None:
        return self._setting.year

    @property
    def content_px(self) -> int:
        return self._setting.site.content_px

    @property
    def gutter_px(self) -> int:
        return self._setting.site.gutter_px

    @property
    def band_from_px(self) -> Mapping[str, int]:
        return band_widths(self._setting.site)

    def phrase(self, name: str, *parts: str) -> str:
        return self._setting.site.phrase(name, self.language, *parts)

    def words(self, words: Words, node: str) -> str:
        return self._setting.words(words, node)

    def name(self, part: str = "") -> str:
        return f"{KEY}-{part}" if part else KEY

    def html_id(self, part: str) -> str:
        return part

    def attributes(self, node: Styled, *classes: str) -> dict[str, str]:
        return {"class": " ".join(map(self.name, classes)), **self.mark(node.id)}

    def mark(self, node_id: str) -> dict[str, str]:
        return {"data-rim-node": node_id}

    def picture(self, path: str) -> Picture | None:
        return self._setting.pictures(path)

    def size(self, path: str, height_px: int | None = None) -> dict[str, str]:
        found = self.picture(path)
        return {"width": str(found.width), "height": str(found.height)} if found else {}

    def smaller_pictures(self, path: str, width_px: int) -> Sequence[tuple[str, int]]:
        return ()

    def destination(self, target: Target) -> Destination:
        href, page = self._setting.links.resolve(target, self.language)
        return Destination(href, page.title if page else "")

    def is_current(self, page_id: str | None) -> bool:
        return False

    def is_heading(self, item_id: str) -> bool:
        return False

    def label(self, entry: Entry) -> str:
        return label_of(entry, self._setting) or ""

    def entries(self, part: MenuPart) -> Sequence[Entry]:
        return self._setting.menus.shown(part)

    def menu_name(self, menu_id: str | None) -> str | None:
        menu = self._setting.site.menu(menu_id)
        return menu.name if menu else None

    def drawer_rows(self, drawer: str | None, item_id: str) -> tuple[Sequence[Markup], Sequence[Markup]]:
        return (), ()

    def brand_mark(self, address: str) -> Mark:
        return self._setting.brands.mark(address)

    def posts(self, feed: str | None, below: str) -> Sequence[Post]:
        told: Any = self._setting.posts(self._item, self.language)
        return [Post(title, "", date) for title, date in told]

    def module(self, name: str) -> str:
        return ""

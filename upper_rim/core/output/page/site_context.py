"""What do the kinds get to know of a site, on a page in a given language, with a given page current?"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property

from ...conditions.audience.audience import is_for_everybody
from ...exchange.html.foreign import hosts_in
from ...gates.waiting import asks, needed_for
from ...kinds.consent import Category
from ...kinds.context import Destination, GateState, Post
from ...kinds.entries import Entry, MenuPart
from ...kinds.markup import Markup
from ...kinds.spoken import SpokenLanguage
from ...model.navigation.links import Links
from ...model.navigation.menus import Menus
from ...model.site import Site, band_widths
from ...style.paint.pictures import Picture
from ...values.brands import Mark
from ...values.styling import Styled
from ...values.targets import Target
from ...values.words import Words
from ..naming import look_class, published_name
from ..search.search_html import results_path
from ..shelf import Shelf


@dataclass(frozen=True)
class SiteContext:
    """A `PageContext`. `current`: the page's id, where items may lead to it.

    `heading`: the title that is the page's first heading. `posts_of` gives the posts of a feed or below a path in a
    language, `smaller` where the smaller ones of a picture are and how wide, `picture` one of the site's by its path;
    `drawer` gives what stands above and below the entries of a menu in its drawer. `modules`: where those are that are
    fetched when something is used, by name.
    """

    site: Site
    links: Links
    menus: Menus
    shelf: Shelf
    language: str
    current: str | None
    marks: bool = False
    year: int | None = None
    index_path: str = ""
    holder: str = ""
    heading: str = ""
    early: bool = False
    gate_state: GateState = "asked"
    asks_consent: bool = False
    posts_of: Callable[[str | None, str, str], Sequence[Post]] = lambda feed, below, language: ()
    smaller: Callable[[str, int], Sequence[tuple[str, int]]] = lambda path, width_px: ()
    picture: Callable[[str], Picture | None] = lambda path: None
    drawer: Callable[[str | None, str, SiteContext], tuple[Sequence[Markup], Sequence[Markup]]] = (
        lambda drawer, item_id, context: ((), ())
    )
    modules: Mapping[str, str] = field(default_factory=dict)

    def within(self, piece: str) -> SiteContext:
        return replace(self, holder=piece)

    @property
    def languages(self) -> Sequence[str]:
        return self.site.offered_in(self.language)

    def said_of(self, language: str) -> SpokenLanguage:
        return self.site.said_of(language)

    @property
    def site_name(self) -> str:
        return self.site.name

    @property
    def categories(self) -> Sequence[Category]:
        return self.site.categories

    def waits_for(self, host: str, code: str, category: str | None) -> str:
        return needed_for(self.site, {host} | hosts_in(code), category) if asks(self.site) else ""

    @property
    def front(self) -> str:
        return self.links.front(self.language)

    @property
    def results_path(self) -> str:
        return results_path(self.language, self.site.language)

    @cached_property
    def band_from_px(self) -> Mapping[str, int]:
        return band_widths(self.site)

    def phrase(self, name: str, *parts: str) -> str:
        return self.site.phrase(name, self.language, *parts)

    def words(self, words: Words, node: str) -> str:
        return words.in_language(self.language)

    def name(self, part: str = "") -> str:
        return published_name(self.site.key, part)

    def html_id(self, part: str) -> str:
        return published_name(self.site.key, f"{part}-{self.holder}" if self.holder else part)

    def attributes(self, node: Styled, *classes: str) -> dict[str, str]:
        worn = (look_class(look, position) for position, look in enumerate(node.wears))
        for_some = [] if self.marks or is_for_everybody(node) else ["if"]
        names = " ".join([*(self.name(part) for part in (*classes, *for_some, *worn)), *node.classes.split()])
        return {"class": names, **self.mark(node.id)}

    def mark(self, node_id: str) -> dict[str, str]:
        return {"data-rim-node": node_id} if self.marks else {}

    def size(self, path: str, height_px: int | None = None) -> dict[str, str]:
        seen = self.picture(path)
        if seen is None or seen.height <= 0:
            return {} if height_px is None else {"height": str(height_px)}
        scale = 1.0 if height_px is None else height_px / seen.height
        width, height = (str(max(1, round(length * scale))) for length in (seen.width, seen.height))
        return {"width": width, "height": height}

    def smaller_pictures(self, path: str, width_px: int) -> Sequence[tuple[str, int]]:
        return self.smaller(path, width_px)

    def destination(self, target: Target) -> Destination:
        href, page = self.links.resolve(target, self.language)
        return Destination(href) if page is None else Destination(href, page.title, page.id == self.current)

    def is_current(self, page_id: str | None) -> bool:
        return self.current == page_id

    def is_heading(self, item_id: str) -> bool:
        return self.heading == item_id

    @property
    def has_heading(self) -> bool:
        return bool(self.heading)

    def label(self, entry: Entry) -> str:
        return self.links.label(entry, self.language)

    def entries(self, part: MenuPart) -> Sequence[Entry]:
        return self.menus.shown(part)

    def menu_name(self, menu_id: str | None) -> str | None:
        menu = self.site.menu(menu_id)
        return menu.name if menu else None

    def drawer_rows(self, drawer: str | None, item_id: str) -> tuple[Sequence[Markup], Sequence[Markup]]:
        return self.drawer(drawer, item_id, self)

    def brand_mark(self, address: str) -> Mark:
        return self.shelf.brands.mark(address)

    def posts(self, feed: str | None, below: str) -> Sequence[Post]:
        return self.posts_of(feed, below, self.language)

    @property
    def notice_script(self) -> str:
        return self.shelf.notice_script

    def module(self, name: str) -> str:
        return self.modules.get(name, "")


def pageless(site: Site, shelf: Shelf, language: str) -> SiteContext:
    """A context on none of the site's pages."""
    return SiteContext(site, Links(site), Menus(site), shelf, language, None)

"""By which pages does one come to a page: what does a breadcrumb trail say on it?"""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from ...kinds.items.trail import Step, Trail
from ..site import Page, Site
from .current import Standings
from .links import Links
from .menus import Menus, all_entries
from .page_index import index_of


class Trails:
    """The trails of a site's pages. Made once for a site."""

    def __init__(self, site: Site, links: Links, menus: Menus, standings: Standings) -> None:
        self._site, self._links, self._menus, self._standings = site, links, menus, standings
        self._by_path = index_of(site.pages).by_path

    def steps(self, item: Trail, page: Page) -> list[Step]:
        """From the front page to the page, itself included. By way of a menu where one is named and leads there, else
        by the paths that the page's own begins with."""
        language = page.language
        front = self._by_path.get(self._links.front(language))
        steps = []
        if front is not None and front.id != page.id:
            steps.append(Step(item.words.in_language(language) or front.title or "/", front.path))
        steps += self._by_menu(item, page) or self._by_paths(page)
        return [*steps, Step(page.title or page.path, None)]

    def _by_menu(self, item: Trail, page: Page) -> list[Step]:
        menu = self._site.menu(item.menu)
        if menu is None:
            return []
        entries = self._menus.whole(menu)
        way = self._standings.way(entries, page.language, page.id, page.path)
        listed = {entry.id: entry for entry in all_entries(entries) if entry.id in way}
        steps = []
        for node in way:
            href, target = self._links.resolve(listed[node].target, page.language)
            if target is None or target.id != page.id:
                steps.append(Step(self._links.label(listed[node], page.language), href))
        return steps

    def _by_paths(self, page: Page) -> list[Step]:
        return [Step(above.title or above.path, above.path) for above in self._above(page)]

    def _above(self, page: Page) -> Iterator[Page]:
        parts = page.path.split("/")[1:-1]
        front = self._links.front(page.language)
        for end in range(1, len(parts) + 1):
            above = self._by_path.get("/" + "/".join(parts[:end]) + "/")
            if above is not None and above.id != page.id and above.path != front:
                yield above

    def longest(self, item: Trail, language: str, pages: Iterable[Page]) -> list[Step]:
        """The longest of these pages' trails in a language, counted in characters."""
        trails = (self.steps(item, page) for page in pages if page.language == language)
        return max(trails, key=lambda steps: sum(len(step.words) for step in steps), default=[])

"""Which page says the same in another language, and what stands in for one that is not there?"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from functools import partial
from typing import Literal, NamedTuple

from ...kinds.items.languages import Offered
from ..site import Page, Site
from .page_index import index_of

Why = Literal["itself", "translation", "speaks both", "above", "front", "stays", "none"]


class Counterpart(NamedTuple):
    """`page`: where somebody is led who wants the language, and `why`: it is the page itself, its translation, a page of
    its family that stands for that language, too; by the site's rule, what stands above, or first; or they stay. None:
    the language is not offered there."""

    language: str
    page: Page | None
    why: Why


class Counterparts:
    """Of a site's pages. Made once for a site."""

    def __init__(self, site: Site) -> None:
        self._site = site
        self._pages = index_of(site.pages)

    def of(self, page: Page) -> Iterator[Counterpart]:
        """In each of the site's languages, in their order."""
        return (self.in_language(page, language) for language in self._site.languages)

    def in_language(self, page: Page, language: str) -> Counterpart:
        return self._same(page, language) or self._instead(page, language)

    def same(self, page: Page, language: str) -> Page | None:
        """The page itself, or the same in another language, where there is such a one."""
        found = self._same(page, language)
        return found.page if found else None

    def spoken(self, page: Page) -> frozenset[str]:
        """The languages in which something says the same, its own among them."""
        return frozenset(tag for one in self._pages.family(page) for tag in (one.language, *one.also))

    def families(self) -> Iterable[Sequence[Page]]:
        """Pages that translate each other, by whatever way."""
        return self._pages.families.values()

    def originals(self) -> Sequence[Page]:
        """One page of each family, of which the others are translations, in the order of their paths."""
        return self._pages.originals

    def alternates(self, page: Page) -> Mapping[str, Page]:
        """By language, the pages that say the same and lead to each other: each of them has the same ones. None where
        there is no other, or where something else of its language stands for it. A page into which nothing can be put
        leads nowhere; of a language that is held back nobody is told."""
        family = [one for one in self._pages.family(page) if one.splice is not None and not one.bare]
        said = {one.language: one for one in reversed(family)}
        for one in family:
            said = {**dict.fromkeys(one.also, one), **said}
        found = {tag: said[tag] for tag in self._site.offered_in(self._site.language) if tag in said}
        is_one = page in found.values() and len({one.id for one in found.values()}) > 1
        return found if is_one else {}

    def _same(self, page: Page, language: str) -> Counterpart | None:
        if page.language == language:
            return Counterpart(language, page, "itself")
        family = self._pages.family(page)
        for other in family:
            if other.language == language:
                return Counterpart(language, other, "translation")
        for other in (page, *family):
            if language in other.also:
                return Counterpart(language, other, "speaks both")
        return None

    def _instead(self, page: Page, language: str) -> Counterpart:
        rule = self._site.untranslated
        if rule == "hide":
            return Counterpart(language, None, "none")
        if rule == "stay":
            return Counterpart(language, page, "stays")
        front = self._pages.by_path.get("/")
        first = front and self.same(front, language)
        ways = map(partial(self.same, language=language), self._above(page) if rule == "above" else ())
        found = next((there for there in ways if there is not None), first)
        if found is None:
            return Counterpart(language, None, "none")
        return Counterpart(language, found, "front" if found is first else "above")

    def _above(self, page: Page) -> Iterator[Page]:
        """The pages whose paths its own begins with, the nearest first."""
        folder = page.path.rstrip("/")
        while folder:
            folder = folder.rpartition("/")[0]
            above = self._pages.by_path.get(f"{folder}/")
            if above is not None and above.id != page.id:
                yield above


def offered(site: Site, counterparts: Iterable[Counterpart]) -> list[Offered]:
    """What a switch shows of them: the page's own language, and what is not held back."""
    to_all = site.offered_in(site.language)
    return [
        Offered(one.language, None if one.why == "stays" else one.page.path, one.why == "itself")
        for one in counterparts
        if one.page is not None and (one.why == "itself" or one.language in to_all)
    ]

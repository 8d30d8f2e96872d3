"""The languages of a site: which page is there in which, what stands in for the rest, and what may translate what."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from typing import Any, NamedTuple

from django.core.paginator import Paginator
from django.http import HttpRequest
from django.urls import reverse

from ....core.exchange.html.likeness import (
    MOST_READ,
    AlikePair,
    Likeness,
    alike_pairs,
    compared_pages,
    likenesses,
)
from ....core.findings.checks.parts.languages import in_languages
from ....core.findings.finding import Finding
from ....core.findings.words import finding_words
from ....core.kinds.spoken import SpokenLanguage
from ....core.languages import direction
from ....core.languages.flags import countries
from ....core.languages.names import known_names, locale_of, own_name
from ....core.model.names import node_name
from ....core.model.navigation.counterparts import Counterpart, Counterparts
from ....core.model.navigation.pairing import Pair, proposed_pairs
from ....core.model.navigation.renewed import older_pages
from ....core.model.navigation.unsaid import likely_languages
from ....core.model.site import Page, Site
from ....core.model.texts import PHRASES
from ....core.model.tree import ancestors, find
from ....core.output.file_types import content_type
from ... import wall
from ...sites import contents
from ..controls.items.languages import UNTRANSLATED
from ..cycle.screen import Opened, screen
from ..forms.languages import path_in
from ..words.languages import language_name

ROWS = 100
"""Of the board on one screen."""
MOST_BRANCHES = 12
MOST_PICTURES = 500
_IN_A_COUNTRY = re.compile(r"-(?:[A-Z]{2}|\d{3})$")
WHY = {
    "above": "leads to",
    "front": "leads to",
    "stays": "no link",
    "none": "left out",
    "speaks both": "the same page",
}


class Spoken(NamedTuple):
    """A language of the site. `pages`: how many are in it; `gaps`: how many of the originals are not; `at`: its place, the
    site's own having the first. `can_go`: no page is in it."""

    said: SpokenLanguage
    name: str
    own_name: str
    direction: str
    pages: int
    gaps: int
    at: int
    can_go: bool

    @property
    def tag(self) -> str:
        return self.said.language

    @property
    def above(self) -> int:
        """The place above; 0 where there is none for it."""
        return max(self.at - 1, 0)


class Row(NamedTuple):
    """An original, and what stands for it in each language."""

    original: Page
    cells: Sequence[Cell]


class Cell(NamedTuple):
    """`why` is empty where the page says the same; `new`: where one may be begun that does. `is_older`: its original has
    changed since."""

    language: str
    page: Page | None
    why: str
    new: str
    is_older: bool


class Likely(NamedTuple):
    """Pages whose words are likely in a language. `counted`: what they count as, by name."""

    tag: str
    name: str
    pages: Sequence[Page]
    counted: Sequence[str]


class Branch(NamedTuple):
    """Proposals below a path in a language."""

    below: str
    language: str
    name: str
    pairs: Sequence[Pair]


@screen("studio/languages/languages.html", "pages")
def languages(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    site = opened.site
    counterparts = Counterparts(site)
    originals, languages = counterparts.originals(), frozenset(site.languages)
    spoken = Counter(map(counterparts.spoken, originals)) if len(languages) > 1 else Counter[frozenset[str]]()
    gaps = Counter({tag: sum(count for tags, count in spoken.items() if tag not in tags) for tag in languages})
    with_gaps = [page for page in originals if languages - counterparts.spoken(page)] if spoken else []
    older = frozenset(page.id for page in older_pages(site.pages))
    only_gaps = request.GET.get("show") == "gaps"
    listed = with_gaps if only_gaps else originals
    board = Paginator(listed, ROWS).get_page(request.GET.get("part"))
    return {
        "spoken": list(_spoken(site, gaps)),
        "known": [(tag, name) for tag, name in known_names().items() if not _IN_A_COUNTRY.search(tag)],
        "pictures": _pictures(site),
        "flags": _flags(),
        "board": board,
        "rows": [_row(page, counterparts, older, site) for page in board.object_list],
        "originals": len(originals),
        "gaps": len(with_gaps),
        "only_gaps": only_gaps,
        "kept": "&show=gaps" if only_gaps else "",
        "likely": [
            Likely(tag, language_name(tag), pages, sorted({language_name(page.language) for page in pages}))
            for tag, pages in likely_languages(site.pages).items()
        ],
        "branches": _branches(site)[:MOST_BRANCHES],
        "unpaired": sum(page.language != site.language and not page.translates for page in site.pages),
        "looked": "look" in request.GET,
        "most_read": MOST_READ if len(site.pages) > MOST_READ else 0,
        "alike": _alike(site) if "look" in request.GET else (),
        "rules": UNTRANSLATED,
        "found": [_told(one, opened) for one in in_languages(site)],
    }


_OF_TEXTS = {"not translated": "missing", "older texts": "older", "drafts": "draft", "other letters": "all"}
"""Kinds of findings, and which of the texts the words board shows then."""


def _told(finding: Finding, opened: Opened) -> tuple[str, str]:
    """In words, and where it is seen; empty where that is the whole site."""
    site, node = opened.site, finding.node
    if finding.kind == "in English":
        shown = f"{reverse('wording', args=[opened.slug])}?at={PHRASES}"
        return finding_words(
            finding, str
        ), shown if finding.language == site.language else f"{shown}&in={finding.language}"
    if finding.kind in _OF_TEXTS:
        shown = f"{reverse('wording', args=[opened.slug])}?in={finding.language}&show={_OF_TEXTS[finding.kind]}"
        return finding_words(finding, str), shown
    spot = find(site, node)
    if spot is None:
        return finding_words(finding, lambda _: site.name), ""
    if isinstance(spot.node, Page):
        path = spot.node.path
        return finding_words(finding, lambda _: path), reverse("page", args=[opened.slug, node])
    words = finding_words(finding, lambda _: node_name(spot.node, site))
    outermost = [node, *ancestors(site, node)][-1]
    if site.menu(outermost) is not None:
        return words, reverse("menu", args=[opened.slug, outermost])
    return words, f"{reverse('workbench', args=[opened.slug, outermost])}?select={node}"


def _row(page: Page, counterparts: Counterparts, older: frozenset[str], site: Site) -> Row:
    def cell(one: Counterpart) -> Cell:
        why = WHY.get(one.why, "")
        new = path_in(site.said_of(one.language), page, site) if why and one.why != "speaks both" else ""
        return Cell(one.language, one.page, why, new, bool(one.page and not why and one.page.id in older))

    return Row(page, [cell(one) for one in counterparts.of(page)])


def _spoken(site: Site, gaps: Mapping[str, int]) -> Iterator[Spoken]:
    pages = Counter(page.language for page in site.pages)
    needed = {site.language, *pages, *(tag for page in site.pages for tag in page.also)}
    for at, tag in enumerate(site.languages):
        names = language_name(tag), own_name(tag), direction(tag)
        yield Spoken(site.said_of(tag), *names, pages[tag], gaps[tag], at, tag not in needed)


def _alike(site: Site) -> list[AlikePair]:
    seen: list[tuple[Page, Likeness]] = []
    for some in contents.of_pages(compared_pages(site)):
        try:
            found = wall.read(likenesses, some)
        except wall.Unread:
            continue
        seen += zip((page for page, _ in some), found, strict=True)
    return alike_pairs(site, seen)


def _pictures(site: Site) -> list[str]:
    return [asset.path for asset in site.assets if content_type(asset.path).startswith("image/")][:MOST_PICTURES]


def _flags() -> list[tuple[str, str]]:
    """By the names of their countries."""
    territories = locale_of("en").territories
    return sorted(((one, territories[one.upper()]) for one in countries()), key=lambda one: one[1])


def _branches(site: Site) -> list[Branch]:
    """What is proposed, those with the most first."""
    found: dict[tuple[str, str], list[Pair]] = {}
    for pair in proposed_pairs(site):
        found.setdefault((pair.branch, pair.page.language), []).append(pair)
    made = [Branch(below, language, language_name(language), pairs) for (below, language), pairs in found.items()]
    return sorted(made, key=lambda branch: (-len(branch.pairs), branch.below, branch.language))

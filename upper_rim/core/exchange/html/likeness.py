"""Which pages may well be translations of which, by what is in them? What a translation leaves as it is: pictures, ways to
elsewhere, how headings follow each other."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Iterable, Iterator, Mapping
from typing import NamedTuple
from urllib.parse import urljoin, urlsplit

from selectolax.lexbor import LexborHTMLParser

from ...model.site import Page, Site
from .encoding import decode

MOST_READ = 1_000
"""So many pages in the site's own language are read in one go, and so many others."""
_LEAST = 0.5
_AHEAD = 0.1
"""So alike two pages are at least, of 1, and so much more than any other two that could be meant."""
_HOME = "https://site.invalid"


class Likeness(NamedTuple):
    """`kept`: addresses of pictures, and of what lies on other hosts; `outline`: the levels of the headings."""

    kept: frozenset[str]
    outline: str


class AlikePair(NamedTuple):
    """`page` may be `original` in another language: so many pictures and links are the same, and the headings follow each
    other in the same way, where so many are told."""

    page: Page
    original: Page
    kept: int
    headings: int


def likeness(page: Page, content: bytes) -> Likeness:
    parsed = LexborHTMLParser(decode(content, page.encoding))
    kept = set[str]()
    for node in parsed.css("img[src], source[src], video[src], a[href]"):
        address = node.attributes.get("src") or node.attributes.get("href") or ""
        try:
            there = urlsplit(urljoin(_HOME + page.path, address.strip()))
        except ValueError:
            continue
        is_elsewhere = f"{there.scheme}://{there.netloc}" != _HOME
        if node.tag != "a" or is_elsewhere:
            kept.add(there.geturl() if is_elsewhere else there.path)
    outline = "".join(str(node.tag)[1] for node in parsed.css("h1, h2, h3, h4, h5, h6"))
    return Likeness(frozenset(kept), outline)


def likenesses(pages: Iterable[tuple[Page, bytes]]) -> list[Likeness]:
    return [likeness(page, content) for page, content in pages]


def compared_pages(site: Site) -> list[Page]:
    """Those in the site's own language, and others of which nothing is said yet."""
    used = {page.translates for page in site.pages if page.translates}
    own = [page for page in site.pages if page.content and page.language == site.language]
    others = [page for page in site.pages if page.content and page.language != site.language]
    others = [page for page in others if not page.translates and page.id not in used]
    return [*own[:MOST_READ], *others[:MOST_READ]]


def alike_pairs(site: Site, seen: Iterable[tuple[Page, Likeness]]) -> list[AlikePair]:
    """For pages of which nothing is said yet: one in the site's own language, where only one is. What stands on most pages
    of a language tells nothing. `seen`: the compared pages."""
    taken = {(page.translates, page.language) for page in site.pages if page.translates}
    by_language: dict[str, dict[str, tuple[Page, Likeness]]] = defaultdict(dict)
    for page, its in seen:
        by_language[page.language][page.id] = (page, its)
    told = {language: _telling(listed) for language, listed in by_language.items()}
    originals = told.pop(site.language, {})
    found = []
    for language, pages in told.items():
        free = {one: seen for one, seen in originals.items() if (one, language) not in taken}
        found += list(_best(pages, free))
    return sorted(found, key=lambda pair: pair.page.path)


def _telling(listed: Mapping[str, tuple[Page, Likeness]]) -> dict[str, tuple[Page, Likeness]]:
    counts = Counter(address for _, seen in listed.values() for address in seen.kept)
    usual = {address for address, count in counts.items() if count > max(2, len(listed) / 2)}
    return {one: (page, seen._replace(kept=seen.kept - usual)) for one, (page, seen) in listed.items()}


def _best(
    pages: Mapping[str, tuple[Page, Likeness]], originals: Mapping[str, tuple[Page, Likeness]]
) -> Iterator[AlikePair]:
    """Two that are most alike of all that each could be paired with, and clearly so. They share something that no other
    page of their languages has."""
    holding: dict[str, list[str]] = defaultdict(list)
    for one, (_, seen) in originals.items():
        for address in seen.kept:
            holding[address].append(one)
    theirs = Counter(address for _, seen in pages.values() for address in seen.kept)
    scores: dict[str, dict[str, float]] = {}
    for one, (_, seen) in pages.items():
        near = {holding[address][0] for address in seen.kept if len(holding[address]) == theirs[address] == 1}
        scores[one] = {other: _score(seen, originals[other][1]) for other in near}
    back: dict[str, dict[str, float]] = defaultdict(dict)
    for one, of_one in scores.items():
        for other, score in of_one.items():
            back[other][one] = score
    for one, of_one in scores.items():
        best = _first(of_one)
        if best is not None and _first(back[best]) == one:
            (page, seen), (original, its) = pages[one], originals[best]
            headings = len(seen.outline) if seen.outline == its.outline else 0
            yield AlikePair(page, original, len(seen.kept & its.kept), headings)


def _first(scores: Mapping[str, float]) -> str | None:
    ranked = sorted(scores, key=lambda one: -scores[one])
    if not ranked or scores[ranked[0]] < _LEAST:
        return None
    return ranked[0] if len(ranked) == 1 or scores[ranked[0]] - scores[ranked[1]] > _AHEAD else None


def _score(one: Likeness, other: Likeness) -> float:
    """Three quarters for what is kept (Jaccard), a quarter for the headings."""
    kept = len(one.kept & other.kept) / max(len(one.kept | other.kept), 1)
    return 0.75 * kept + (0.25 if one.outline == other.outline else 0.0)

"""What is wrong or doubtful about a site's languages: a switch that leads nowhere, a language that nobody reaches, pages that
stand in each other's way, texts that are not translated?"""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache
from typing import Any
from urllib.parse import unquote, urljoin, urlsplit

from ....gates.waiting import items_with
from ....kinds.items.languages import LanguageSwitch
from ....kinds.phrases import is_shipped, sayable
from ....languages import phrase
from ....languages.names import name_in
from ....languages.scripts import is_written_in
from ....model.memo import Memo
from ....model.navigation.counterparts import Counterparts
from ....model.navigation.renewed import older_pages
from ....model.site import Page, Site
from ....model.texts import PHRASES, SaidText, texts_of
from ....model.tree import ROOT, items_of
from ....values.rich import without_marks
from ....values.words import Standing
from ...finding import Finding, FindingKind, SeenAt

_TELLS = 60
"""Characters of a text that is named."""


def in_languages(site: Site) -> list[Finding]:
    return [*of_pieces(site), *of_pages(site)]


def of_pieces(site: Site) -> list[Finding]:
    """Switches, and texts that are not translated."""
    switches = [item for item in items_of(site.pieces) if isinstance(item, LanguageSwitch)]
    if len(site.offered_in(site.language)) < 2:
        return [Finding("one language", switches[0].id)] if switches else []
    return [*_ways(site), *_texts(site)]


def of_pages(site: Site) -> list[Finding]:
    """All that hangs on pages and languages alone (`given_of_pages`)."""
    found = [*_in_english(site), *_one_sided(site), *_turned(site)]
    if len(site.offered_in(site.language)) < 2:
        return found
    counterparts = Counterparts(site)
    return [*_alone(site, counterparts), *_doubles(counterparts), *_older(site), *found]


def given_of_pages(site: Site) -> tuple[Any, ...]:
    return (site.pages, site.language, site.spoken, site.phrases, site.untranslated)


def _ways(site: Site) -> Iterator[Finding]:
    shown = (item for piece in site.pieces if piece.on for item in items_with(site, piece))
    if not any(isinstance(item, LanguageSwitch) for item in shown):
        yield Finding("no switch", ROOT, about={"count": len(site.offered_in(site.language))})


def _alone(site: Site, counterparts: Counterparts) -> Iterator[Finding]:
    """Languages of which no page says the same as one in another language: no switch leads into them."""
    spoken = (counterparts.spoken(family[0]) for family in counterparts.families())
    led_to = {tag for tags in spoken if len(tags) > 1 for tag in tags}
    for language in site.offered_in(site.language):
        pages = [page for page in site.pages if page.language == language]
        if pages and language not in led_to:
            about: dict[str, float | str] = {
                "first": name_in(language, "en"),
                "path": pages[0].path,
                "pages": len(pages),
            }
            yield Finding("speaks alone", pages[0].id, about=about, place=SeenAt(page=pages[0].id), language=language)


def _doubles(counterparts: Counterparts) -> Iterator[Finding]:
    """Told of the first."""
    found: list[tuple[Page, Page]] = []
    for family in counterparts.families():
        first: dict[str, Page] = {}
        for page in family:
            other = first.setdefault(page.language, page)
            found += [(page, other)] if other is not page else []
    if found:
        page, other = found[0]
        about: dict[str, float | str] = {"count": len(found), "first": other.path, "path": page.path}
        yield Finding("twice in a language", page.id, about=about, place=SeenAt(page=page.id))


def _in_english(site: Site) -> Iterator[Finding]:
    """What pieces say of themselves on pages in a language that does not have it."""
    spoken = {page.language for page in site.pages} if site.pieces else set()
    for language in site.offered_in(site.language):
        if language not in spoken:
            continue
        said = {one.phrase for one in site.phrases if one.said_in(language, own=language == site.language)}
        lacking = [name for name in sayable() if name not in said and not is_shipped(name, language)]
        if lacking:
            about: dict[str, float | str] = {
                "count": len(lacking),
                "first": phrase(lacking[0], language),
                "second": name_in(language, "en"),
            }
            yield Finding("in English", ROOT, about=about, language=language)


def _one_sided(site: Site) -> Iterator[Finding]:
    """Of what pages that came in say themselves. Told of the first."""
    named = {page.path: set(_named(site, page)) for page in site.pages if page.splice and page.splice.alternates}
    found = [
        (path, other)
        for path, others in named.items()
        for other in sorted(others)
        if other != path and path not in named.get(other, ())
    ]
    if found:
        first = next(page for page in site.pages if page.path == found[0][0])
        about: dict[str, float | str] = {
            "count": len({path for path, _ in found}),
            "path": first.path,
            "first": found[0][1],
        }
        yield Finding("not mutual", first.id, about=about, place=SeenAt(page=first.id))


def _named(site: Site, page: Page) -> Iterator[str]:
    """Paths of the site that a page names as the same in another language."""
    home = site.address or "https://site.invalid"
    for one in page.splice.alternates if page.splice else ():
        try:
            there = urlsplit(urljoin(home + page.path, one.address))
        except ValueError:
            continue
        if f"{there.scheme}://{there.netloc}" == home:
            yield unquote(there.path) or "/"


def _older(site: Site) -> Iterator[Finding]:
    older = older_pages(site.pages)
    if older:
        about: dict[str, float | str] = {"count": len(older), "path": older[0].path}
        yield Finding("older pages", older[0].id, about=about, place=SeenAt(page=older[0].id))


def _turned(site: Site) -> Iterator[Finding]:
    turned = [page for page in site.pages if page.splice and page.splice.turned]
    if turned:
        about: dict[str, float | str] = {"count": len(turned), "path": turned[0].path}
        yield Finding("turned by CSS", turned[0].id, about=about, place=SeenAt(page=turned[0].id))


@lru_cache(maxsize=8192)
def _in_other_letters(text: str, language: str) -> bool:
    return not is_written_in(without_marks(text), language)


_on_pages: Memo[tuple[Page, ...], frozenset[str]] = Memo(8)
_OF_STANDING: dict[Standing, FindingKind] = {"missing": "not translated", "older": "older texts", "draft": "drafts"}


def _texts(site: Site) -> Iterator[Finding]:
    """Texts that show and are said in the site's own language instead, say what theirs was before, were looked at by nobody,
    or are in other letters."""
    said = [text for text in texts_of(site) if text.is_shown and text.within != PHRASES]
    on_pages = _on_pages.of(site.pages, lambda pages: frozenset(page.language for page in pages))
    languages = [language for language in site.offered_in(site.language)[1:] if language in on_pages]
    standings = [text.words.standings(languages) for text in said]
    for language in languages:
        found: dict[FindingKind, list[SaidText]] = {}
        for text, standing in zip(said, standings, strict=True):
            kind = _OF_STANDING.get(standing[language])
            if kind:
                found.setdefault(kind, []).append(text)
            theirs = text.words.translation(language)
            if theirs and theirs.text != text.words.text and _in_other_letters(theirs.text, language):
                found.setdefault("other letters", []).append(text)
        for kind, texts in found.items():
            about: dict[str, float | str] = {
                "count": len(texts),
                "of": len(said),
                "first": without_marks(texts[0].words.text)[:_TELLS],
                "second": name_in(language, "en"),
            }
            yield Finding(kind, texts[0].node, about=about, language=language)

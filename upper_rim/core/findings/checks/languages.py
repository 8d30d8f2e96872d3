"""What is wrong or doubtful about a site's languages: a switch that leads nowhere, a language that nobody reaches, pages that
stand in each other's way, texts that are not translated?"""

from __future__ import annotations

from collections.abc import Iterator

from ...gates.waiting import items_with
from ...kinds.items.languages import LanguageSwitch
from ...languages import primary
from ...languages.names import name_in
from ...model.navigation.counterparts import Counterparts
from ...model.site import Page, Site
from ...model.tree import ROOT, items_of, walk
from ...values.rich import RichWords, without_marks
from ...values.words import Words
from ..finding import Finding, SeenAt

_TELLS = 60
"""Characters of a text that is named."""


def in_languages(site: Site) -> list[Finding]:
    switches = [item for item in items_of(site.pieces) if isinstance(item, LanguageSwitch)]
    if len(site.languages) < 2:
        return [Finding("one language", switches[0].id)] if switches else []
    counterparts = Counterparts(site)
    return [*_ways(site), *_alone(site, counterparts), *_doubles(counterparts), *_untranslated(site)]


def _ways(site: Site) -> Iterator[Finding]:
    shown = (item for piece in site.pieces if piece.on for item in items_with(site, piece))
    if not any(isinstance(item, LanguageSwitch) for item in shown):
        yield Finding("no switch", ROOT, about={"count": len(site.languages)})


def _alone(site: Site, counterparts: Counterparts) -> Iterator[Finding]:
    """Languages of which no page says the same as one in another language: no switch leads into them."""
    spoken = (counterparts.spoken(family[0]) for family in counterparts.families())
    led_to = {tag for tags in spoken if len(tags) > 1 for tag in tags}
    for language in site.languages:
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


def _untranslated(site: Site) -> Iterator[Finding]:
    """Texts of pieces that show, and labels of menus, which are said in the site's own language instead."""
    said: list[tuple[str, Words | RichWords]] = []
    for held in (*(piece for piece in site.pieces if piece.on), *site.menus):
        for holder in (held, *walk(held)):
            own = (getattr(holder, name) for name in type(holder).model_fields)
            said += [(holder.id, one) for one in own if isinstance(one, Words | RichWords) and one.text.strip()]
    for language in site.languages[1:]:
        missing = [(node, without_marks(one.text)) for node, one in said if not _is_in(one, language)]
        if missing and any(page.language == language for page in site.pages):
            node, text = missing[0]
            about: dict[str, float | str] = {
                "count": len(missing),
                "of": len(said),
                "first": text[:_TELLS],
                "second": name_in(language, "en"),
            }
            yield Finding("not translated", node, about=about, language=language)


def _is_in(words: Words | RichWords, language: str) -> bool:
    wanted = {language.lower(), primary(language)}
    return any(one.language.lower() in wanted and one.text for one in words.translations)

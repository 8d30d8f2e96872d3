"""Which pages are likely in another language than they count as? Nothing says it but their words; the designer decides."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from ...languages import primary
from ...languages.identification import UNDETERMINED
from ..memo import Memo
from ..site import Page


def likely_languages(pages: tuple[Page, ...]) -> Mapping[str, Sequence[Page]]:
    """By tag, those with the most pages first. What is said of a page by hand or its own `lang` is no proposal any more."""
    return _likely.of(pages, _by_language)


_likely: Memo[tuple[Page, ...], Mapping[str, Sequence[Page]]] = Memo(12)


def _by_language(pages: tuple[Page, ...]) -> Mapping[str, Sequence[Page]]:
    found: dict[str, list[Page]] = {}
    for page in pages:
        if page.likely not in {"", UNDETERMINED} and primary(page.likely) != primary(page.language):
            found.setdefault(page.likely, []).append(page)
    return dict(sorted(found.items(), key=lambda one: (-len(one[1]), one[0])))

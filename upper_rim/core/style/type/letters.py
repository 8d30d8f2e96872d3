"""Which letters of scripts that have very many does a site use?"""

from __future__ import annotations

from ...languages import language_of
from ...languages.names import own_name
from ...model.memo import Memo
from ...model.site import Site
from .unicode_range import scripts_in

OF_MANY_LETTERS = frozenset({"Hani", "Hira", "Kana", "Hang", "Bopo"})
"""ISO 15924 codes."""

_known: Memo[Site, frozenset[str]] = Memo(8)


def letters_of(site: Site) -> frozenset[str]:
    """All that its pieces can come to say, in any language, the titles of pages among it, with what stands between these
    letters; no ASCII."""
    return _known.of(
        site, lambda site: frozenset(char for char in _said(site) if not char.isascii() and _is_among(char))
    )


def _said(site: Site) -> set[str]:
    texts = [
        site.replaced(pages=(), assets=(), lifts=(), let_be=()).model_dump_json(),
        *(page.title for page in site.pages),
    ]
    for language in site.languages:
        texts += [own_name(language), *language_of(language).phrases.values()]
    return set().union(*texts)


def _is_among(char: str) -> bool:
    return not (scripts := scripts_in(char)) or bool(scripts & OF_MANY_LETTERS)

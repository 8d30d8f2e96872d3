"""What is a language called, by itself and in another one? By the CLDR (Babel reads it)."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache

from babel import Locale, UnknownLocaleError
from babel.localedata import locale_identifiers


def own_name(tag: str) -> str:
    """As its readers call it: `Deutsch`, `português (Brasil)`; with a capital, as it stands in a list by itself."""
    return name_in(tag, tag)


@lru_cache(maxsize=4096)
def name_in(tag: str, other: str) -> str:
    """As it is called in `other`, else in English, else by its tag; with a capital, where the script has any."""
    named = _locale(tag)
    for language in (other, "en"):
        in_words = _locale(language)
        found = named.get_display_name(in_words) if named and in_words else None
        if found:
            return found[0].title() + found[1:]
    return tag


@lru_cache(maxsize=1)
def known_names() -> Mapping[str, str]:
    """In English, by tag, in the order of the names: of every language that the CLDR has texts in, and of what it tells
    apart by country or script."""
    tags = [identifier.replace("_", "-") for identifier in locale_identifiers() if identifier != "root"]
    return dict(sorted(((tag, name_in(tag, "en")) for tag in tags), key=lambda one: one[1].casefold()))


@lru_cache(maxsize=1)
def _names_alone() -> Mapping[str, str]:
    """Tags of single languages by their English names in small letters."""
    return {name.casefold(): tag.replace("_", "-") for tag, name in Locale("en").languages.items()}


def tag_of(typed: str) -> str | None:
    """The tag of a language that is typed as its tag or as its English name; None of what the CLDR does not know."""
    said = typed.strip().casefold()
    named = {name.casefold(): tag for tag, name in known_names().items()} | dict(_names_alone())
    if said in named:
        return named[said]
    first, *rest = said.replace("_", "-").split("-")
    if first not in Locale("en").languages or not all(
        part.isascii() and part.isalnum() and len(part) <= 8 for part in rest
    ):
        return None
    return "-".join(
        [first, *(part.title() if len(part) == 4 else part.upper() if len(part) == 2 else part for part in rest)]
    )


def locale_of(tag: str) -> Locale:
    """The CLDR's, or English where it has none."""
    return _locale(tag) or Locale("en")


@lru_cache(maxsize=1024)
def _locale(tag: str) -> Locale | None:
    """None for a language that the CLDR does not have; of one that it has, whatever else the tag says is left out where
    it is not known."""
    parts = tag.split("-")
    for end in range(len(parts), 0, -1):
        try:
            return Locale.parse("-".join(parts[:end]), sep="-")
        except (UnknownLocaleError, ValueError):
            continue
    return None

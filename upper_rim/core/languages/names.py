"""What is a language called, by itself and in another one? By the CLDR (Babel reads it)."""

from __future__ import annotations

from functools import lru_cache

from babel import Locale, UnknownLocaleError


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

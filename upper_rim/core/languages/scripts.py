"""In which scripts is a language written, and is a text in one of them? By the CLDR (Babel reads it) and Unicode's `Script`."""

from __future__ import annotations

from functools import lru_cache

from babel.core import get_global
from babel.localedata import locale_identifiers
from fontTools.unicodedata import script

from . import primary

_MADE_OF = {
    "Jpan": ("Hira", "Kana", "Hani"),
    "Kore": ("Hang", "Hani"),
    "Hans": ("Hani",),
    "Hant": ("Hani", "Bopo"),
}
"""Codes that stand for several scripts, or for one in a way of writing (ISO 15924)."""
_ROMANISED = frozenset({"hi", "ja", "ko", "zh"})
"""The CLDR tells a way of writing them in Latin letters apart, in which nobody's site is meant to be unless its tag says
so."""
_OF_ANY = frozenset({"Zyyy", "Zinh", "Zzzz"})


@lru_cache(maxsize=1024)
def scripts_of(tag: str) -> frozenset[str]:
    """ISO 15924 codes, such as `Arab`; of one that is written in several, all that the CLDR has texts in, but for the one
    that the tag itself names. Empty where nothing is known."""
    named = [part.title() for part in tag.split("-")[1:] if len(part) == 4 and part.isalpha()]
    codes = set(named or [*_likely(tag), *_told_apart().get(primary(tag), ())])
    if not named and primary(tag) in _ROMANISED:
        codes.discard("Latn")
    return frozenset(script for code in codes for script in _MADE_OF.get(code, (code,)))


def is_written_in(text: str, tag: str) -> bool:
    """Whether any of its letters is one of the language's; so, too, where it has none, or nothing is known."""
    scripts = scripts_of(tag)
    letters = {script(char) for char in text if char.isalpha()} - _OF_ANY
    return not letters or not scripts or bool(letters & scripts)


def _likely(tag: str) -> list[str]:
    """The script that the language is mostly written in (CLDR, likely subtags)."""
    likely = get_global("likely_subtags")
    parts = tag.split("-")
    for asked in ("_".join([parts[0].lower(), *parts[1:2]]), parts[0].lower()):
        if asked in likely:
            return [part for part in likely[asked].split("_") if len(part) == 4 and part.isalpha()]
    return []


@lru_cache(maxsize=1)
def _told_apart() -> dict[str, set[str]]:
    """By language, the scripts that the CLDR tells apart."""
    found: dict[str, set[str]] = {}
    for identifier in locale_identifiers():
        parts = identifier.split("_")
        found.setdefault(parts[0], set()).update(part for part in parts[1:] if len(part) == 4 and part.isalpha())
    return found

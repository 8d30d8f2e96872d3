"""In which order do texts of a language stand in a list? By the Unicode Collation Algorithm (UTS 10), with the letters that
a language has between others (`sorts` of `data/`, as the CLDR tailors them)."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Mapping
from functools import lru_cache

from pyuca import Collator

from . import language_of, primary

_BEHIND = 0xF0000
"""Characters of private use from here on sort behind every letter: after another one they make it a later one."""


def sort_key(text: str, tag: str) -> tuple[tuple[int, ...], str]:
    """Of two keys the lesser one is of what stands first."""
    plain = unicodedata.normalize("NFC", text)
    letters, found = _letters(primary(tag))
    told = found.sub(lambda one: letters[one[0]], plain) if found else plain
    return tuple(_collator().sort_key(told)), plain


@lru_cache(maxsize=64)
def _letters(language: str) -> tuple[Mapping[str, str], re.Pattern[str] | None]:
    """What stands for each of a language's own letters, several characters together among them, and what finds them."""
    letters: dict[str, str] = {}
    for said in language_of(language).sorts:
        base, *behind = said.split()
        for at, letter in enumerate(behind):
            for cased in (letter, letter.upper(), letter.title()):
                start = base.upper() if cased != letter else base
                letters[cased] = f"{start}{chr(_BEHIND + at)}"
    longest = sorted(letters, key=len, reverse=True)
    return letters, re.compile("|".join(map(re.escape, longest))) if longest else None


@lru_cache(maxsize=1)
def _collator() -> Collator:
    """Read in most of a second, where something is sorted at all."""
    return Collator()

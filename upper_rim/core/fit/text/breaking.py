"""In which letters is a text shown, and where may a line of it end?

Break opportunities are those of UAX #14, found by ICU, and browsers' own between characters of ASCII.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Mapping
from functools import lru_cache

from fontTools.unicodedata import script as script_of
from icu4py.breakers import LineBreaker

from ...languages import language_of
from .faces import graphemes, segments

_PUNCTUATION = re.escape(
    "".join(char for char in map(chr, range(0x3100)) if unicodedata.category(char) in {"Ps", "Pe", "Pi", "Pf", "Po"})
)
"""What belongs to the first letter that it stands beside (CSS Pseudo-Elements 4, 2.3)."""


def transformed(text: str, transform: str, language: str) -> str:
    """CSS Text 3, 2.1: with the rules of the languages that have their own."""
    case = language_of(language).case
    if transform == "uppercase":
        if case and case.left_out_of_upper:
            parted = unicodedata.normalize("NFD", text)
            text = unicodedata.normalize("NFC", "".join(one for one in parted if one not in case.left_out_of_upper))
        return _replaced(text, case.to_upper if case else {}).upper()
    if transform == "lowercase":
        return _replaced(text, case.to_lower if case else {}).lower()
    if transform == "capitalize":
        made, inside = [], False
        for char in text:
            letter = char.isalnum() or (inside and char in "'’\u00ad")
            made.append(char.title() if letter and not inside else char)
            inside = letter
        return "".join(made)
    return text


def _replaced(text: str, pairs: Mapping[str, str]) -> str:
    for letter, by in pairs.items():
        text = text.replace(letter, by)
    return text


_OPENING = frozenset("(<[{")
_BROKEN_BEFORE: dict[str, frozenset[str]] = {
    **dict.fromkeys('!"#%&)*+,.:;=>\\]|}~', _OPENING),
    "-": frozenset("\"#%&'(*+-0123456789<=>@ABCDEFGHIJKLMNOPQRSTUVWXYZ[\\^_`abcdefghijklmnopqrstuvwxyz{|~"),
    "?": frozenset("#$%&(*+-0123456789<=>@ABCDEFGHIJKLMNOPQRSTUVWXYZ[\\^_`abcdefghijklmnopqrstuvwxyz{|~"),
}
"""Between two characters of ASCII browsers go by a table instead of UAX #14: what a line can begin with behind a
character (measured on every pair: `tests/browser/test_fit.py`)."""


@lru_cache(maxsize=8192)
def opportunities(text: str, language: str) -> tuple[int, ...]:
    """Where lines can end, the text's own end included: indexes between characters. Behind spaces always."""
    by_icu = frozenset() if text.isascii() else {end for _, end in segments(LineBreaker(text, language), text)}
    found: list[int] = []
    for at in range(1, len(text)):
        before, after = text[at - 1], text[at]
        if after == " ":
            continue
        if before == " ":
            found.append(at)
        elif before in _PLAIN and after in _PLAIN:
            if after in _BROKEN_BEFORE.get(before, ()) and not (
                before == "-" and after.isdigit() and not _alnum(text, at - 2)
            ):
                found.append(at)
        elif at in by_icu:
            found.append(at)
    return (*found, len(text)) if text else ()


_PLAIN = frozenset({*map(chr, range(0x21, 0x7F)), "\u00a0"})


def _alnum(text: str, at: int) -> bool:
    """A hyphen before a number is a minus sign, where no letter or digit stands before it."""
    return at >= 0 and text[at].isascii() and text[at].isalnum()


def opportunities_in_block(text: str, language: str) -> tuple[int, ...]:
    """The same in a block container, whose first letter the published style sheet sets apart so that no page's own can:
    browsers look at what follows it as at a text of its own. So “9-17” stays whole, and “10-17” does not. Words that a
    dictionary parts (UAX #14, SA) are parted as a whole."""
    letter = first_letter_end(text)
    if letter < len(text) and script_of(text[letter]) in _BY_DICTIONARY:
        return opportunities(text, language)
    return least_opportunities_in_block(text, language)


def least_opportunities_in_block(text: str, language: str) -> tuple[int, ...]:
    """The same while the least width is asked for: then words of a dictionary, too, are parted without the first letter
    (measured: `tests/browser/test_fit.py`)."""
    whole = opportunities(text, language)
    letter = first_letter_end(text)
    if letter == len(text):
        return whole
    before = tuple(end for end in whole if end <= letter)
    return before + tuple(letter + end for end in opportunities(text[letter:], language))


_BY_DICTIONARY = frozenset({"Khmr", "Laoo", "Mymr", "Talu", "Tale", "Thai"})


@lru_cache(maxsize=8192)
def first_letter_end(text: str) -> int:
    """Of the text that `::first-letter` takes, with its marks (UAX #29); the text's own end, where all of it or none is
    that."""
    before = _BEFORE_LETTER.match(text)
    start = before.end() if before else 0
    if start == len(text) or text[start].isspace():
        return len(text)
    near = text[start : start + _LONGEST_LETTER]
    letter = 1 if near[:2].isascii() else graphemes(near)[0][1]
    after = _AFTER_LETTER.match(text, start + letter)
    return after.end() if after else start + letter


_BEFORE_LETTER, _AFTER_LETTER = re.compile(rf"[\s{_PUNCTUATION}]*"), re.compile(rf"[{_PUNCTUATION}]*")
_LONGEST_LETTER = 64

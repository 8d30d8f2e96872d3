"""What is known of a language: which way it is written, how long its labels are, what its letters are, what the pieces
say?

Each language is one file in `data/`, named by its subtag (BCP 47); a file more is a language more.
"""

from __future__ import annotations

import tomllib
from collections.abc import Iterable, Mapping
from functools import lru_cache
from importlib.resources import files
from typing import Literal, NamedTuple

_FILES = {
    file.name.removesuffix(".toml"): file
    for file in (files(__name__) / "data").iterdir()
    if file.name.endswith(".toml")
}
PHRASES_OF = "en"
"""The language that has every phrase."""


DatePart = Literal["day", "month", "year"]


class Case(NamedTuple):
    """Rules of its own for capital letters (Unicode SpecialCasing; CSS Text 3, 2.1)."""

    to_upper: Mapping[str, str] = {}
    to_lower: Mapping[str, str] = {}
    left_out_of_upper: str = ""


class Language(NamedTuple):
    """`expansion`: the length of a label of up to twenty characters, against English. `letters`: its code points beside
    Latin's, first and last of each range. `face`: the shipped face that writes what the site's own cannot. `sorts`: a
    letter, and its own letters that stand behind that one (CLDR, collation). `dates`: the order in which a date is typed
    (CLDR, short dates); `dates_in`: in some countries."""

    direction: Literal["ltr", "rtl"] = "ltr"
    expansion: float = 1.3
    letters: tuple[tuple[int, int], ...] = ()
    face: str = ""
    case: Case | None = None
    phrases: Mapping[str, str] = {}
    sorts: tuple[str, ...] = ()
    dates: tuple[DatePart, ...] = ("day", "month", "year")
    dates_in: Mapping[str, tuple[DatePart, ...]] = {}


@lru_cache(maxsize=1024)
def primary(tag: str) -> str:
    """`pt` of `pt-BR` (BCP 47, 2.2.1)."""
    return tag.split("-")[0].lower()


def language_of(tag: str) -> Language:
    """Of the tag's primary subtag; what most languages are like, where that is not known."""
    return _read(primary(tag))


@lru_cache(maxsize=256)
def _read(subtag: str) -> Language:
    if subtag not in _FILES:
        return Language()
    said = tomllib.loads(_FILES[subtag].read_text(encoding="utf-8"))
    if "case" in said:
        said["case"] = Case(**said["case"])
    said["sorts"] = tuple(said.get("sorts", ()))
    ranges = (text.split("-") for text in said.pop("letters", ()))
    return Language(**said, letters=tuple((int(first, 16), int(last, 16)) for first, last in ranges))


def known_languages() -> list[str]:
    """Subtags of the languages that have a file."""
    return sorted(_FILES)


def direction(tag: str) -> Literal["ltr", "rtl"]:
    """Which way a language is usually written."""
    return language_of(tag).direction


def date_order(tag: str) -> tuple[DatePart, ...]:
    """In which order the parts of a date are typed in a language, as it is written in a country."""
    said, country = language_of(tag), tag.rpartition("-")[2].upper()
    return tuple(said.dates_in.get(country, said.dates))


def phrase(name: str, tag: str, *parts: str) -> str:
    """What the pieces say of themselves: in the language, or in English where it does not have the phrase."""
    return filled(language_of(tag).phrases.get(name) or language_of(PHRASES_OF).phrases[name], parts)


def filled(said: str, parts: Iterable[str]) -> str:
    """With these in place of `{0}`, `{1}`."""
    for at, part in enumerate(parts):
        said = said.replace(f"{{{at}}}", part)
    return said

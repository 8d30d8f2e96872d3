"""How are dates, days and lists of them written in a language? By the CLDR (Babel reads it)."""

from __future__ import annotations

from datetime import date
from functools import lru_cache

from babel.dates import format_date, get_day_names

from .names import locale_of

_BETWEEN = ",،、"


@lru_cache(maxsize=4096)
def date_in_words(iso: str, tag: str) -> str:
    """`1 December 2026`, of an ISO 8601 date; what is none stays as it is."""
    try:
        return format_date(date.fromisoformat(iso), "long", locale=locale_of(tag))
    except ValueError:
        return iso


@lru_cache(maxsize=256)
def day_names(tag: str) -> tuple[str, ...]:
    """Short ones, Monday's first."""
    names = get_day_names("abbreviated", "stand-alone", locale_of(tag))
    return tuple(names[day] for day in range(7))


@lru_cache(maxsize=256)
def comma(tag: str) -> str:
    """What stands between two of a list."""
    locale = locale_of(tag)
    between = locale.list_patterns["standard"]["middle"].replace("{0}", "").replace("{1}", "")
    if any(char in _BETWEEN for char in between):
        return str(between)
    return "، " if locale.text_direction == "rtl" and locale.script != "Hebr" and locale.language != "he" else ", "

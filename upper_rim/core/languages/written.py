"""How are dates, days and lists of them written in a language? By the CLDR (Babel reads it)."""

from __future__ import annotations

from datetime import date, time
from functools import lru_cache

from babel import Locale, UnknownLocaleError
from babel.dates import format_date, format_time, get_day_names

from .names import locale_of

_BETWEEN = ",،、"


@lru_cache(maxsize=4096)
def date_in_words(iso: str, tag: str) -> str:
    """`1 December 2026`, of an ISO 8601 date; what is none stays as it is."""
    try:
        return format_date(date.fromisoformat(iso), "long", locale=locale_of(tag))
    except ValueError:
        return iso


@lru_cache(maxsize=4096)
def time_in_words(clock: str, tag: str, country: str = "") -> str:
    """`09:00`, as it is written in a language in a country (ISO 3166-1): `9:00 AM`. As it stands where no country is known,
    neither here nor from the tag, and where it is none (`24:00`)."""
    language, _, rest = tag.partition("-")
    there = country or next((part for part in rest.split("-") if len(part) == 2), "")
    try:
        at = time.fromisoformat(clock)
        locale = Locale.parse(f"{language.lower()}_{there.upper()}") if there else None
    except (UnknownLocaleError, ValueError):
        return clock
    return format_time(at, "short", locale=locale).replace("\u202f", "\xa0") if locale else clock


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

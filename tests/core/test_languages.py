"""Every language's file says what can be said of a language, and nothing else."""

from __future__ import annotations

import string
from random import Random

import pytest

from upper_rim.core.kinds.items.contact import Hours, days_in_words
from upper_rim.core.languages import PHRASES_OF, Language, direction, known_languages, language_of, phrase
from upper_rim.core.languages.sorting import sort_key
from upper_rim.core.languages.written import comma, date_in_words, day_names, time_in_words
from upper_rim.shipped import shelf


def places(text: str) -> set[str]:
    """What is put into a phrase."""
    return {name for _, name, _, _ in string.Formatter().parse(text) if name is not None}


@pytest.mark.parametrize("tag", known_languages())
def test_a_languages_file_can_be_read_and_its_phrases_take_what_the_english_ones_take(tag: str) -> None:
    language, english = language_of(tag), language_of(PHRASES_OF)
    assert language.direction in {"ltr", "rtl"} and 0.3 <= language.expansion <= 2
    assert all(0 < first <= last <= 0x10FFFF for first, last in language.letters)
    assert not language.face or language.face in shelf().faces
    for name, words in language.phrases.items():
        assert places(words) == places(english.phrases[name]), name
        assert words.strip() == words and words


def test_a_tags_region_does_not_matter_and_an_unknown_language_is_like_most() -> None:
    assert language_of("AR-eg") is language_of("ar") and direction("ar-EG") == "rtl"
    assert language_of("qaa") == Language() and phrase("close_notice", "qaa") == phrase("close_notice", "en")
    assert phrase("found", "de-AT", "7") == "Gefunden: 7"
    assert language_of("../en") == Language()


def test_dates_days_and_lists_are_written_as_the_cldr_has_it() -> None:
    tags = ("en", "en-GB", "de", "cy", "ar", "ja", "de-x-none", "qaa")
    assert [date_in_words("2026-12-01", tag) for tag in tags] == [
        "December 1, 2026", "1 December 2026", "1. Dezember 2026", "1 Rhagfyr 2026", "1 ديسمبر 2026", "2026年12月1日",
        "1. Dezember 2026", "December 1, 2026",
    ]  # fmt: skip
    assert date_in_words("some day", "en") == "some day" and date_in_words("2026-13-01", "de") == "2026-13-01"
    assert day_names("de") == ("Mo", "Di", "Mi", "Do", "Fr", "Sa", "So") and day_names("fr")[0] == "lun."
    assert [comma(tag) for tag in ("en", "ar", "ja", "he", "fa")][:4] == [", ", "، ", "、", ", "]
    hours = Hours(days=("Sa", "Su"), opens="10:00", closes="12:00")
    assert days_in_words(hours, "ar") == "السبت، الأحد" and days_in_words(hours, "fr") == "sam., dim."


@pytest.mark.parametrize(
    ("tag", "country", "said"),
    [
        ("en", "", "17:30"), ("en-US", "", "5:30\xa0PM"), ("en", "US", "5:30\xa0PM"), ("en", "GB", "17:30"), ("fr", "CA", "17 h 30"),
        ("hi", "IN", "5:30 pm"), ("de", "US", "17:30"), ("cy", "ZZ", "17:30"), ("khw", "PK", "17:30"),
    ],
)  # fmt: skip
def test_hours_are_written_as_in_the_country_where_they_are_kept(tag: str, country: str, said: str) -> None:
    assert time_in_words("17:30", tag, country) == said
    assert time_in_words("24:00", tag, country) == "24:00", "which is no time of a day"


@pytest.mark.parametrize(
    ("tag", "ordered"),
    [
        ("en", "Äpfel apple élan Elle Ñandu nz Österreich zebra 港"),
        ("de", "Apfel Äpfel Arm Öl Ostrey Zebra"),
        ("sv", "apa ost zebra ål Åre äpple öl"),
        ("da", "zebra æble øl ål"),
        ("es", "nadie nz ñu oso"),
        ("pl", "las lzy łza mama"),
        ("cs", "cena cz čas dům had hvězda chata ivan"),
        ("cy", "cwm chwarel dŵr ddoe lôn llan mam"),
        ("tr", "hz ısı ispanya İzmir zil"),
        ("hu", "cukor csak dal zab zseb"),
        ("ar", "أحمد بيت ثلاثة ياسمين"),
    ],
)
def test_lists_stand_in_the_order_of_their_language(tag: str, ordered: str) -> None:
    words = ordered.split()
    for seed in range(5):
        assert sorted(Random(seed).sample(words, len(words)), key=lambda one: sort_key(one, tag)) == words

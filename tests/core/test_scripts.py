"""Faces for scripts that a site's own face lacks: what is published of them, and how their words are parted."""

from __future__ import annotations

import re
from io import BytesIO

import pytest
from fontTools.ttLib import TTFont

from upper_rim.core.exchange.html.markdown import document
from upper_rim.core.exchange.imports.import_pages import described_page, digest
from upper_rim.core.fit.text.breaking import (
    first_letter_end,
    least_opportunities_in_block,
    opportunities,
    opportunities_in_block,
)
from upper_rim.core.kinds.items.parts import points
from upper_rim.core.kinds.items.text import TextItem
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.languages import known_languages, language_of
from upper_rim.core.model.site import Page, Site
from upper_rim.core.output.publication import publication
from upper_rim.core.style.type.faces import IN_SLICES, faces_in_use
from upper_rim.core.style.type.metrics import FALLBACKS, SAMPLES
from upper_rim.core.style.type.unicode_range import code_points
from upper_rim.core.values.words import Words
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

SAID = {
    "el": "Δρομολόγια",
    "ru": "Расписание",
    "he": "לוח זמנים",
    "hi": "समय सारिणी",
    "th": "ตารางเวลา",
    "ja": "時刻表、島の案内",
    "ko": "시간표",
    "zh": "时刻表",
}


def files_of(language: str) -> dict[str, bytes]:
    words = Words(text="Timetable").saying(language, SAID[language])
    row = Row(id="rw-a", name="Row", cells=(Cell(id="cl-a", items=(TextItem(id="it-a", words=words),)),))
    piece = Header(id="pc-a", name="Header", reach=(ReachRule(id="rr-a"),), rows=(row,))
    contents = {}
    pages = []
    for path, tag in (("/", "en"), ("/x/", language)):
        html, _ = document("Page", tag, "<p>Text</p>")
        contents[digest(html)] = html
        pages.append(described_page(Page(id=f"pg-{tag}", path=path, language=tag), html))
    site = Site(key="qscript", name="Scripts", pages=tuple(pages), pieces=(piece,))
    return {file.name: file.data for file in publication(site, shelf(), contents.__getitem__)}


def faces_asked(files: dict[str, bytes], page: str) -> dict[str, set[int]]:
    """By the name of a font's file that a page's sheet asks for, the characters for which it does."""
    sheet = re.search(r'href="/(_rim/[^"]+\.css)"', files[page].decode())
    assert sheet is not None
    asked = {}
    for rule in re.findall(r"@font-face\s*{([^}]*)}", files[sheet[1]].decode()):
        source = re.search(r"url\(\"?([^)\"]+)", rule)
        if source:
            served = re.search(r"unicode-range:([^;}]+)", rule)
            asked[source[1].rpartition("/")[2]] = set(code_points(served[1])) if served else set()
    return asked


@pytest.mark.parametrize("language", list(SAID))
def test_a_page_brings_a_face_for_its_letters_and_others_bring_none_of_it(language: str) -> None:
    files = files_of(language)
    asked, elsewhere = faces_asked(files, "x/index.html"), faces_asked(files, "index.html")
    letters = {ord(char) for char in SAID[language] if not char.isspace()}
    assert letters <= set().union(*asked.values()), "each is served by some file"
    for name, served in asked.items():
        font = TTFont(BytesIO(files[f"_rim/{name}"]))
        assert letters & served <= set(font.getBestCmap()), name
    helping = set(asked) - set(elsewhere)
    assert helping and all(name.startswith("noto-sans-") for name in helping)
    assert sum(len(files[f"_rim/{name}"]) for name in helping) <= 140_000


@pytest.mark.parametrize("language", ["ja", "ko", "zh"])
def test_of_faces_with_very_many_letters_only_those_in_use_are_published(language: str) -> None:
    files = files_of(language)
    slices = {name: data for name, data in files.items() if IN_SLICES.search(name)}
    assert slices and sum(map(len, slices.values())) < 30_000
    asked = faces_asked(files, "x/index.html")
    wide = {point for name, points in asked.items() if f"_rim/{name}" in slices for point in points}
    assert {ord(char) for char in SAID[language]} <= wide
    assert len(wide) < 300, "what the site says, and what pieces say of themselves"


def test_each_language_with_letters_of_its_own_has_a_face_that_has_them() -> None:
    for tag in known_languages():
        language = language_of(tag)
        if not language.letters:
            continue
        face = shelf().faces.get(language.face)
        assert face is not None, tag
        served = set().union(*(code_points(file.unicode_range) for file in face.files))
        assert any(
            first in served or last in served or set(range(first, last)) & served for first, last in language.letters
        )


def test_a_helping_face_is_not_offered_and_stands_in_for_its_script_alone() -> None:
    offered = {face.id for face in shelf().offered_faces}
    assert {"figtree", "noto-sans-arabic", "noto-sans-hebrew"} <= offered
    assert not offered & {"noto-sans-greek", "noto-sans-jp", "noto-sans-cyrillic"}
    site = Site(key="qscript", name="S", language="el")
    (own, greek) = faces_in_use(site, shelf().faces)
    assert (own.id, greek.id) == ("figtree", "noto-sans-greek")
    assert set(SAMPLES) >= {face.script for face in shelf().faces.values()}
    assert all("latin" in one.advances for listed in FALLBACKS.values() for one in listed)


@pytest.mark.parametrize(
    "text, letter, whole, least",
    [
        ("ท่าเรือ", 2, [], [3]),
        ("คู่มือเกาะ", 3, [6], [6]),
        ("ติดต่อเรา", 2, [6], [3, 6]),
        ("ตารางเวลา", 1, [5], [2, 5]),
        ("9-17", 1, [], []),
        ("e\u0301a b", 2, [4], [4]),
        ("時刻表", 1, [1, 2], [1, 2]),
    ],
)
def test_words_are_parted_behind_the_first_letter_as_browsers_do(
    text: str, letter: int, whole: list[int], least: list[int]
) -> None:
    """Measured in Chromium."""
    assert first_letter_end(text) == letter
    assert [end for end in opportunities_in_block(text, "th") if end < len(text)] == whole
    assert [end for end in least_opportunities_in_block(text, "th") if end < len(text)] == least
    assert len(text) in opportunities(text, "th")


@pytest.mark.parametrize(
    "name, is_so",
    [
        ("chevron-left", True),
        ("circle-arrow-out-up-right", True),
        ("external-link", True),
        ("list-checks", True),
        ("message-square-reply", True),
        ("log-out", True),
        ("arrow-left-right", False),
        ("chevron-down", False),
        ("clock", False),
        ("play", False),
        ("fast-forward", False),
        ("ship", False),
        ("copyleft", False),
        ("x", False),
    ],
)
def test_icons_that_point_along_a_line_are_turned_where_it_runs_the_other_way(name: str, is_so: bool) -> None:
    assert name in shelf().icons or name == "copyleft"
    assert points(name) is is_so
    assert any(
        rule.selector == ".rim-points:dir(rtl)" and rule.declarations == {"scale": "-1 1"}
        for rule in shelf().piece_rules
    )


def test_what_a_menu_leads_back_with_is_such_an_icon() -> None:
    files = {file.name: file.data for file in publication(ostrey()[0], shelf(), ostrey()[1].__getitem__)}
    html = files["ar/index.html"].decode()
    assert re.search(r'class="\w+-icon \w+-icon-chevron-left \w+-points"', html)
    sheet = re.search(r'href="/(_rim/[^"]+\.css)"', html)
    assert sheet and re.search(r"-points:dir\(rtl\)\{scale:-1 1", files[sheet[1]].decode())

"""Pages that are alike by what a translation leaves as it is."""

from __future__ import annotations

from random import Random

import pytest

from tests.core.test_counterparts import page, site
from upper_rim.core.exchange.html.likeness import Likeness, alike_pairs, compared_pages, likeness
from upper_rim.core.exchange.imports.import_pages import described_page
from upper_rim.core.model.site import Page, Site

ON_ALL = '<img src="/logo.png"><a href="https://paint.example/">x</a>'


def content(chance: Random, kept: list[str], levels: list[int], words: str) -> bytes:
    parts = [f"<h{level}>{words} {at}</h{level}>" for at, level in enumerate(levels)]
    parts += [f'<img src="{one}">' if one.endswith(".png") else f'<a href="{one}">{words}</a>' for one in kept]
    chance.shuffle(parts)
    headings = [part for part in parts if part.startswith("<h")]
    headings.sort(key=lambda part: int(part.rpartition(" ")[2].partition("<")[0]))
    others = [part for part in parts if not part.startswith("<h")]
    return f"<html lang=en><body>{ON_ALL}{''.join(headings)}<p>{words}</p>{''.join(others)}</body></html>".encode()


def shuffled(seed: int) -> tuple[Site, dict[str, bytes], dict[str, str]]:
    """Pages under other names in another language, some with a picture more or less, and some that translate nothing."""
    chance, contents, wanted = Random(seed), dict[str, bytes](), dict[str, str]()
    pages: list[Page] = []

    def add(number: int, path: str, language: str, made: bytes) -> Page:
        came = described_page(page(number, path, language), made).replaced(language=language)
        contents[came.content or ""] = made
        pages.append(came)
        return came

    for at in range(12):
        kept = [f"/pictures/{at}-{one}.png" for one in range(chance.randrange(1, 4))]
        kept += [f"https://far{at}.example/{one}" for one in range(chance.randrange(3))]
        levels = [1, *chance.choices([2, 3], k=chance.randrange(5))]
        original = add(at, f"/{at}/", "en", content(chance, kept, levels, "words"))
        if chance.random() < 0.7:
            theirs = [*kept, "/mehr.png"] if len(kept) > 1 and chance.random() < 0.3 else kept
            there = add(100 + at, f"/x{chance.randrange(10**6)}/", "de", content(chance, theirs, levels, "Worte"))
            wanted[there.id] = original.id
    add(200, "/allein/", "de", content(chance, ["/niemand.png"], [1, 2], "Worte"))
    add(201, "/leer/", "de", content(chance, [], [1], "Worte"))
    return site(*pages), contents, wanted


def seen_of(whole: Site, contents: dict[str, bytes]) -> list[tuple[Page, Likeness]]:
    return [(one, likeness(one, contents[one.content or ""])) for one in compared_pages(whole)]


@pytest.mark.parametrize("seed", range(30))
def test_what_is_alike_is_paired_whatever_it_is_called_and_nothing_else(seed: int) -> None:
    whole, contents, wanted = shuffled(seed)
    found = {pair.page.id: pair.original.id for pair in alike_pairs(whole, seen_of(whole, contents))}
    assert found == wanted
    said = whole.replaced(
        pages=tuple(
            one.replaced(translates=wanted.get(one.id)) if one.id in list(wanted)[:3] else one for one in whole.pages
        )
    )
    left = {pair.page.id for pair in alike_pairs(said, seen_of(said, contents))}
    assert left == set(list(wanted)[3:]), "what is said is not asked again"


def test_of_two_that_are_as_alike_none_is_taken() -> None:
    kept, chance, contents, pages = ["/a.png", "/b.png"], Random(0), dict[str, bytes](), []
    for at, language in enumerate(("en", "en", "de")):
        made = content(chance, [*kept, f"/{at}.png"], [1, 2], language)
        came = described_page(page(at, f"/{at}/", language), made).replaced(language=language)
        contents[came.content or ""] = made
        pages.append(came)
    assert alike_pairs(site(*pages), seen_of(site(*pages), contents)) == []


def test_addresses_are_those_that_a_browser_would_ask() -> None:
    made = (
        b"<body><img src=' ../a.png?x'><a href='b/'>x</a><a href='//far.example/'>y</a><img src='http://[no'><h2>z</h2>"
    )
    came = described_page(page(0, "/de/c/"), made)
    assert likeness(came, made) == (frozenset({"/de/a.png", "https://far.example/"}), "2")

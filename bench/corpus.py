"""Imported sites of any size for measuring: pages of some ten kilobytes, made with a fixed seed."""

from __future__ import annotations

import random
from collections.abc import Callable
from html import escape

from upper_rim.core.exchange.imports.import_pages import described_page, digest
from upper_rim.core.model.site import Page, Site
from upper_rim.demo import ostrey

_WORDS = [
    "tide",
    "quay",
    "rope",
    "gull",
    "sail",
    "harbour",
    "lamp",
    "fog",
    "island",
    "bell",
    "crossing",
    "deck",
    "ticket",
    "wind",
    "shore",
    "ferry",
    "night",
    "morning",
]


def page_source(number: int, kilobytes: int = 10) -> bytes:
    chance = random.Random(number)
    title = " ".join(chance.choices(_WORDS, k=4)).title()
    parts = [
        f"<!DOCTYPE html>\n<html lang=en><head><meta charset=utf-8><title>{escape(title)} {number}</title><link rel=stylesheet href=/style.css></head>\n<body class=page>\n<main><h1>{title}</h1>\n"
    ]
    size = 0
    while size < kilobytes * 1000:
        text = " ".join(chance.choices(_WORDS, k=60))
        parts.append(
            f'<section class="block"><h2>{text[:24]}</h2><p>{text}<p><a href="/page/{number + 1}/">{text[:12]}</a></section>\n'
        )
        size += len(parts[-1])
    return "".join(parts).encode() + b"</main></body></html>\n"


def large_site(page_count: int, kilobytes: int = 10) -> tuple[Site, Callable[[str], bytes]]:
    """The demo's pieces around many pages, and a function that gives a content by its hash (made again on each
    call)."""
    site, contents = ostrey()
    numbers: dict[str, int] = {}
    pages: list[Page] = list(site.pages)
    for number in range(page_count - len(pages)):
        source = page_source(number, kilobytes)
        path = f"/archive/{number % 40}/{number // 40 % 25}/{number}/"
        pages.append(described_page(Page(id=f"pg-{number}", path=path), source))
        numbers[digest(source)] = number

    def read(content: str) -> bytes:
        return contents[content] if content in contents else page_source(numbers[content], kilobytes)

    return site.replaced(pages=tuple(sorted(pages, key=lambda page: page.path))), read

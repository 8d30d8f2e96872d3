"""How long does the board of words take, with 3,000 texts in twelve languages? `python ops/with_test_database.py python -m
bench.wording`

Its first answer, a text found, and a text typed, over Django's own test client (all middleware, a real database), as the
best of many; and as a ratio to listing the user's sites.
"""

from __future__ import annotations

import os
import sys
from collections.abc import Iterator

from upper_rim.core.exchange.translations.xliff import read_xliff, write_xliff
from upper_rim.core.kinds.entries import Entry
from upper_rim.core.model.site import Menu, Page, Site
from upper_rim.core.values.words import Translation, Words
from upper_rim.demo import ostrey

from .asking import HEADERS, asking, best_ms
from .measured import Measured, table, timed

LANGUAGES = ("ar", "cs", "cy", "de", "el", "es", "fr", "he", "ja", "pl", "ru")
TEXTS, IN_A_MENU = 3000, 300


def site_with(texts: int) -> Site:
    """The demo, with menus of so many labels in all languages."""

    def words(number: int) -> Words:
        others = tuple(Translation(language=tag, text=f"{tag} label {number}") for tag in LANGUAGES)
        return Words(text=f"Label {number}", translations=others[number % 3 :])

    menus = tuple(
        Menu(
            id=f"mn-many-{first}",
            name=f"Many {first}",
            entries=tuple(Entry(id=f"en-many-{at}", label=words(at)) for at in range(first, first + IN_A_MENU)),
        )
        for first in range(0, texts, IN_A_MENU)
    )
    pages = tuple(Page(id=f"pg-in-{tag}", path=f"/{tag}-front/", language=tag) for tag in LANGUAGES)
    site, _ = ostrey()
    ours = tuple(sorted((*site.pages, *pages), key=lambda page: page.path))
    return site.replaced(menus=(*site.menus, *menus), pages=ours)


def measure(tiny: bool) -> Iterator[Measured]:
    with asking() as (client, user):
        from upper_rim.web.sites import store

        times = 2 if tiny else 20
        yardstick = ("listing the sites", best_ms(lambda at: client.get("/", headers=HEADERS), times))
        site, (_, contents) = site_with(IN_A_MENU if tiny else TEXTS), ostrey()
        stored = store.new_site(user, site, contents, slug=f"bench-words-{os.getpid()}")
        board = f"/s/{stored.slug}/pages/wording/?in={','.join(LANGUAGES)}"

        def asked(at: int, more: str = "") -> None:
            assert client.get(f"{board}{more}", headers=HEADERS).status_code == 200

        def typed(at: int) -> None:
            form = {"do": "set", "node": "en-many-7", "field": "label", "language": "de", "value": f"Wort {at}"}
            assert client.post(board, form, headers=HEADERS).status_code == 200

        many = f"{IN_A_MENU if tiny else TEXTS} texts, {len(LANGUAGES) + 1} languages"
        yield Measured(f"the board, {many}", best_ms(asked, times), 200.0, "ms", yardstick)
        yield Measured(
            "a word found in it", best_ms(lambda at: asked(at, "&q=label+29"), times), 200.0, "ms", yardstick
        )
        yield Measured("what is missing", best_ms(lambda at: asked(at, "&show=missing"), times), 200.0, "ms", yardstick)
        yield Measured("a text typed", best_ms(typed, times), 150.0, "ms", yardstick)
        stored.delete()
    written = write_xliff(site, "de").encode()
    bytes_read = ("writing the file", timed(3, lambda: write_xliff(site, "de")))
    yield Measured("XLIFF of all read and matched", timed(3, lambda: read_xliff(site, written)), None, "ms", bytes_read)


if __name__ == "__main__":
    print(table(measure("--tiny" in sys.argv)))

"""How long does work on a large menu take? `python ops/with_test_database.py python -m bench.menus`

A site of 4,000 pages whose main menu has 1,200 entries: the menu's screen, edits of an entry there and of the menu's
item on the workbench, over Django's own test client, as the best of many, and as a ratio to the yardstick: a request
that loads the session and lists the user's sites. Then composing the pages, against the same site with the demo's own menu.
"""

from __future__ import annotations

import os
import sys
import time
from collections.abc import Callable, Iterator

from upper_rim.core.kinds.entries import Entry
from upper_rim.core.model.site import Site
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.values.targets import ToPage
from upper_rim.shipped import shelf

from .asking import HEADERS, asking, best_ms
from .corpus import large_site
from .measured import Measured, table

PAGES, ENTRIES, TIMES = 4_000, 1_200, 25


ASKED = {
    "the menu's screen": 100.0,
    "an edit of a label": 150.0,
    "a branch moved": 150.0,
    "an edit of the menu's item": 150.0,
}


def measure(tiny: bool) -> Iterator[Measured]:
    plain, read = large_site(1_300 if tiny else PAGES, kilobytes=1)
    times = 2 if tiny else TIMES
    site = with_large_menu(plain)
    with asking() as (client, user):
        from upper_rim.web.sites import store

        contents = {one.content: read(one.content) for one in (*site.pages, *site.assets) if one.content}
        stored = store.new_site(user, site, contents, slug=f"bench-menus-{os.getpid()}")
        menu, bench = f"/s/{stored.slug}/menus/mn-main/", f"/s/{stored.slug}/pieces/pc-main/"

        def get(address: str) -> Callable[[int], None]:
            def act(at: int) -> None:
                assert client.get(address, headers=HEADERS).status_code == 200

            return act

        def post(address: str, form: Callable[[int], dict[str, str]]) -> Callable[[int], None]:
            def act(at: int) -> None:
                answer = client.post(address, form(at), headers=HEADERS)
                assert answer.status_code == 200 and answer.headers["X-Rim-Revision"]

            return act

        def label(at: int) -> dict[str, str]:
            return {"do": "set", "node": "en-7-3", "field": "label", "value": f"Label {at}", "select": "en-7-3"}

        def step(at: int) -> dict[str, str]:
            return {"do": f"step:{1 if at % 2 else -1}", "node": "en-7", "select": "en-7"}

        def gap(at: int) -> dict[str, str]:
            return {"do": "set", "node": "it-menu", "field": "gap_px", "value": str(at % 90), "select": "it-menu"}

        yardstick = ("listing the sites", best_ms(get("/"), times))
        for name, act in {
            "the menu's screen": get(menu),
            "an entry chosen": get(menu + "?select=en-7-3"),
            "all menus": get(f"/s/{stored.slug}/menus/"),
            "an edit of a label": post(menu, label),
            "a branch moved": post(menu, step),
            "the workbench": get(bench + "?select=it-menu"),
            "an edit of the menu's item": post(bench, gap),
        }.items():
            told = f"{name}, {len(site.pages)} pages, {ENTRIES} entries"
            yield Measured(told, best_ms(act, times), ASKED.get(name), "ms", yardstick)
        stored.delete()
    taken = {}
    for name, one in (("the demo's menu", plain), ("the large menu", site)):
        # Not by `read` as it is: the corpus makes a content anew each time that it is asked for.
        taken[name] = min(_composing_ms(one, read, contents) for _ in range(1 if tiny else 3))
    small, large = taken["the demo's menu"], taken["the large menu"]
    yield Measured("composing 500 pages with the large menu", large, 158.0, "ms", ("with the demo's own", small))


def _composing_ms(site: Site, read: Callable[[str], bytes], contents: dict[str, bytes]) -> float:
    begin = time.perf_counter()
    composer = Composer(site, shelf(), read)
    for page in site.pages[:500]:
        composer.page(page, contents[page.content or ""])
    return (time.perf_counter() - begin) * 1000


def with_large_menu(site: Site) -> Site:
    """Its main menu has 40 branches."""
    pages = [page for page in site.pages if page.language == "en"]
    branches, each = 40, ENTRIES // 40 - 1
    entries = tuple(
        Entry(
            id=f"en-{branch}",
            target=ToPage(page=pages[branch * (each + 1)].id),
            entries=tuple(
                Entry(id=f"en-{branch}-{at}", target=ToPage(page=pages[branch * (each + 1) + at + 1].id))
                for at in range(each)
            ),
        )
        for branch in range(branches)
    )
    return site.replaced(menus=(site.menus[0].replaced(entries=entries), *site.menus[1:]))


if __name__ == "__main__":
    print(table(measure("--tiny" in sys.argv)))

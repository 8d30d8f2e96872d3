"""How long does work on a large menu take? `python ops/with_test_database.py python -m bench.menus`

A site of 4,000 pages whose main menu has 1,200 entries: the menu's screen, edits of an entry there and of the menu's
item on the workbench, over Django's own test client, as the median, and as a ratio to the yardstick: a request that
loads the session and lists the user's sites. Then composing the pages, against the same site with the demo's own menu.
"""

from __future__ import annotations

import os
import statistics
import time
from collections.abc import Callable

import django

PAGES, ENTRIES, TIMES = 4_000, 1_200, 25


def main() -> None:
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "upper_rim.web.settings")
    django.setup()
    from django.contrib.auth import get_user_model
    from django.core.management import call_command
    from django.test import Client
    from django.test.utils import setup_test_environment

    from upper_rim.core.output.compose import Composer
    from upper_rim.shipped import shelf
    from upper_rim.web.sites import store

    from .corpus import large_site

    setup_test_environment()
    call_command("migrate", verbosity=0)
    user = get_user_model().objects.create_user(f"bench-{os.getpid()}", password="p")
    client = Client(HTTP_HOST="localhost")
    client.force_login(user, backend="django.contrib.auth.backends.ModelBackend")
    headers = {"HX-Request": "true"}
    plain, read = large_site(PAGES, kilobytes=1)
    site = _with_large_menu(plain)
    contents = {one.content: read(one.content) for one in (*site.pages, *site.assets) if one.content}
    stored = store.new_site(user, site, contents, slug=f"bench-menus-{os.getpid()}")
    menu, bench = f"/s/{stored.slug}/menus/mn-main/", f"/s/{stored.slug}/pieces/pc-main/"

    def get(address: str) -> Callable[[int], None]:
        def act(at: int) -> None:
            assert client.get(address, headers=headers).status_code == 200

        return act

    def post(address: str, form: Callable[[int], dict[str, str]]) -> Callable[[int], None]:
        def act(at: int) -> None:
            answer = client.post(address, form(at), headers=headers)
            assert answer.status_code == 200 and answer.headers["X-Rim-Revision"]

        return act

    def label(at: int) -> dict[str, str]:
        return {"do": "set", "node": "en-7-3", "field": "label", "value": f"Label {at}", "select": "en-7-3"}

    def step(at: int) -> dict[str, str]:
        return {"do": f"step:{1 if at % 2 else -1}", "node": "en-7", "select": "en-7"}

    def gap(at: int) -> dict[str, str]:
        return {"do": "set", "node": "it-menu", "field": "gap_px", "value": str(at % 90), "select": "it-menu"}

    yardstick = _median(get("/"))
    print(f"yardstick: listing the sites {yardstick:.1f} ms; {PAGES} pages, {ENTRIES} entries")
    for name, act in {
        "the menu's screen": get(menu),
        "an entry chosen": get(menu + "?select=en-7-3"),
        "all menus": get(f"/s/{stored.slug}/menus/"),
        "an edit of a label": post(menu, label),
        "a branch moved": post(menu, step),
        "the workbench": get(bench + "?select=it-menu"),
        "an edit of the menu's item": post(bench, gap),
    }.items():
        taken = _median(act)
        print(f"{name:28} {taken:6.1f} ms, ratio {taken / yardstick:.1f}")
    stored.delete()
    user.delete()
    for name, one in (("the demo's menu", plain), ("the large menu", site)):
        begin = time.perf_counter()
        composer = Composer(one, shelf(), read)
        size = sum(len(composer.page(page, read(page.content or ""))) for page in one.pages[:500])
        taken = (time.perf_counter() - begin) * 1000
        print(f"composing 500 pages with {name:16} {taken:7.0f} ms, {size / 500 / 1000:.1f} kB a page")


def _with_large_menu(site: object) -> object:
    from upper_rim.core.model.items import ToPage
    from upper_rim.core.model.site import Entry, Site

    assert isinstance(site, Site)
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


def _median(act: Callable[[int], None]) -> float:
    for at in range(3):
        act(at)
    times = []
    for at in range(3, TIMES + 3):
        begin = time.perf_counter()
        act(at)
        times.append((time.perf_counter() - begin) * 1000)
    return statistics.median(times)


if __name__ == "__main__":
    main()

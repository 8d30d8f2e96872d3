"""How long does an edit take on the server, from request to fragment? `python ops/with_test_database.py python -m bench.edits`

Edits in the workbench over Django's own test client (all middleware, a real database), for sites of several sizes, as
the median, and as a ratio to the yardstick: a request that loads the session and lists the user's sites.
"""

from __future__ import annotations

import os
import statistics
import sys
import time
from collections.abc import Callable

import django

SIZES = (41, 1000, 5000)
EDITS = 60


def main() -> None:
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "upper_rim.web.settings")
    django.setup()
    from django.contrib.auth import get_user_model
    from django.core.management import call_command
    from django.test import Client
    from django.test.utils import setup_test_environment

    from upper_rim.web.sites import store

    from .corpus import large_site

    setup_test_environment()
    call_command("migrate", verbosity=0)
    user = get_user_model().objects.create_user(f"bench-{os.getpid()}", password="p")
    client = Client(HTTP_HOST="localhost")
    client.force_login(user, backend="django.contrib.auth.backends.ModelBackend")
    headers = {"HX-Request": "true"}
    yardstick = _median(lambda at: client.get("/", headers=headers))
    print(f"yardstick: listing the sites {yardstick:.1f} ms")
    for size in [int(size) for size in sys.argv[1:]] or SIZES:
        site, _ = large_site(size, kilobytes=1)
        stored = store.new_site(user, site, {}, slug=f"bench-{size}-{os.getpid()}")
        bench = f"/s/{stored.slug}/pieces/pc-main/"

        def edit(at: int, bench: str = bench) -> None:
            form = {
                "do": "set",
                "node": "it-menu",
                "field": "gap_px",
                "value": str(at % 90),
                "select": "it-menu",
                "page": "/",
            }
            assert client.post(bench, form, headers=headers).status_code == 200

        def edit_a_page(at: int, slug: str = stored.slug) -> None:
            form = {"do": "set", "node": "pg-fares", "field": "title", "value": f"Fares {at}"}
            assert client.post(f"/s/{slug}/pages/pg-fares/", form, headers=headers).status_code == 200

        for name, act in (("a piece", edit), ("a page", edit_a_page)):
            taken = _median(act)
            print(f"{size:6} pages: an edit of {name} {taken:6.1f} ms, ratio {taken / yardstick:.1f}")
        stored.delete()
    user.delete()


def _median(act: Callable[[int], object]) -> float:
    for at in range(3):
        act(at)
    times = []
    for at in range(3, EDITS + 3):
        begin = time.perf_counter()
        act(at)
        times.append((time.perf_counter() - begin) * 1000)
    return statistics.median(times)


if __name__ == "__main__":
    main()

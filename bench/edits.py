"""How long does an edit take on the server, from request to fragment? `python ops/with_test_database.py python -m
bench.edits`

Edits in the workbench over Django's own test client (all middleware, a real database), for sites of several sizes, as
the best of many, and as a ratio to the yardstick: a request that loads the session and lists the user's sites.
"""

from __future__ import annotations

import os
import sys
from collections.abc import Iterator

from .asking import HEADERS, asking, best_ms
from .corpus import large_site
from .measured import Measured, table

SIZES = (42, 1000, 5000)
EDITS = 60


def measure(tiny: bool) -> Iterator[Measured]:
    with asking() as (client, user):
        from upper_rim.web.sites import store

        times = 2 if tiny else EDITS
        yardstick = ("listing the sites", best_ms(lambda at: client.get("/", headers=HEADERS), times))
        for size in SIZES[:1] if tiny else SIZES:
            site, read = large_site(size, kilobytes=1)
            kept = {one.content: read(one.content) for one in (*site.pages, *site.assets) if one.content}
            stored = store.new_site(user, site, kept, slug=f"bench-{size}-{os.getpid()}")
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
                assert client.post(bench, form, headers=HEADERS).status_code == 200

            def edit_a_page(at: int, slug: str = stored.slug) -> None:
                form = {"do": "set", "node": "pg-fares", "field": "title", "value": f"Fares {at}"}
                assert client.post(f"/s/{slug}/pages/pg-fares/", form, headers=HEADERS).status_code == 200

            for name, act in (("a piece", edit), ("a page", edit_a_page)):
                yield Measured(f"an edit of {name}, {size} pages", best_ms(act, times), 150.0, "ms", yardstick)
            stored.delete()


if __name__ == "__main__":
    print(table(measure("--tiny" in sys.argv)))

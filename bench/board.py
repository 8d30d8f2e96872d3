"""How soon is the board there? `python ops/with_test_database.py python -m bench.board`

From request to answer over Django's own test client (all middleware, a real database), for a site of 20,000 pages: the
first answer after its rules have changed, so that nothing of it is kept, and a section unfolded then. As a ratio to the
yardstick: a request that loads the session and lists the user's sites.
"""

from __future__ import annotations

import os
import statistics
import sys
import time
from collections.abc import Iterator

from .asking import HEADERS, asking, best_ms
from .corpus import large_site
from .measured import Measured, table

ROUNDS = 9


def measure(tiny: bool) -> Iterator[Measured]:
    size, rounds = (100, 1) if tiny else (20_000, ROUNDS)
    with asking() as (client, user):
        from upper_rim.web.sites import store

        yardstick = ("listing the sites", best_ms(lambda at: client.get("/", headers=HEADERS), rounds))
        site, read = large_site(size, kilobytes=1)
        kept = {one.content: read(one.content) for one in (*site.pages, *site.assets) if one.content}
        stored = store.new_site(user, site, kept, slug=f"bench-board-{os.getpid()}")
        board = f"/s/{stored.slug}/board/"
        rule = {"do": "add", "what": "rule", "parent": "pc-press", "where": "below"}
        section = site.pages[-1].path.rstrip("/").rpartition("/")[0] + "/"

        def took_ms(place: str) -> float:
            begin = time.perf_counter()
            assert client.get(board + place, headers=HEADERS).status_code == 200
            return (time.perf_counter() - begin) * 1000

        first: list[float] = []
        compared: list[float] = []
        unfolded: list[float] = []
        for at in range(rounds):
            form = {**rule, "value": f"/sailings/{at}/"}
            assert client.post(f"/s/{stored.slug}/pieces/pc-press/", form, headers=HEADERS).status_code == 200
            first.append(took_ms("?as=vc-first"))
            compared.append(took_ms("?as=vc-first&against=vc-regular"))
            unfolded.append(took_ms(f"?as=vc-first&against=vc-regular&open={section}"))
        stored.delete()
    for name, taken, asked in (
        ("the board's first answer", first, 200.0),
        ("two visitors compared", compared, None),
        ("a section unfolded", unfolded, 100.0),
    ):
        yield Measured(f"{name}, {size} pages, median", statistics.median(taken), asked, "ms", yardstick)


if __name__ == "__main__":
    print(table(measure("--tiny" in sys.argv)))

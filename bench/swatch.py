"""How soon is the stage up to date when a swatch that is used in 500 places gets another colour?

python ops/with_test_database.py python -m bench.swatch

The yardstick: loading the list of sites in the same process. What is timed is all that the server does between the press
and the picture: the edit with its screen, and the stage's page with its CSS.
"""

from __future__ import annotations

import os
import statistics
import time

import django
from django.test.utils import setup_test_environment

SWATCH, USES, ROUNDS = "sw-buoy", 500, 15


def main() -> None:
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "upper_rim.web.settings")
    django.setup()
    setup_test_environment()
    from django.contrib.auth import get_user_model
    from django.core.management import call_command
    from django.test import Client

    from upper_rim.core.model.items import ButtonItem
    from upper_rim.core.model.values import Words
    from upper_rim.demo import ostrey
    from upper_rim.demo.making import declared
    from upper_rim.web.live.addresses import StageKey, stage_label
    from upper_rim.web.sites import store

    call_command("migrate", verbosity=0)
    name = f"bench-{os.getpid()}"
    user = get_user_model().objects.create_user(name, password=name)
    site, contents = ostrey()
    piece = site.pieces[0]
    cell = piece.rows[1].cells[2]
    items = tuple(
        ButtonItem(
            id=f"it-b{at}",
            words=Words(text=f"Button {at}"),
            styles=declared(f"b{at}", {"background-color": "@sw-buoy", "padding-inline-start": f"{at % 40}px"}),
        )
        for at in range(USES)
    )
    row = piece.rows[1].replaced(cells=(*piece.rows[1].cells[:2], cell.replaced(items=(*cell.items, *items))))
    site = site.replaced(pieces=(piece.replaced(rows=(piece.rows[0], row)), *site.pieces[1:]))
    stored = store.new_site(user, site, contents, slug=name)
    client = Client(HTTP_HOST="localhost")
    client.force_login(user)
    stage = {"HTTP_HOST": f"{stage_label(StageKey(stored.pk, user.pk))}.localhost"}

    def timed(act: object) -> float:
        begun = time.perf_counter()
        act()  # type: ignore[operator]
        return (time.perf_counter() - begun) * 1000

    def change(at: int) -> None:
        form = {"do": "set", "node": SWATCH, "field": "colour", "value": f"#{at * 7 % 256:02x}8844"}
        assert client.post(f"/s/{name}/foundations/", form, HTTP_HX_REQUEST="true").status_code == 200
        assert b"data-rim-sheet" in client.get("/", **stage).content

    yardstick = statistics.median(timed(lambda: client.get("/")) for _ in range(ROUNDS))
    change(0)
    took = [timed(lambda at=at: change(at)) for at in range(1, ROUNDS)]  # type: ignore[misc]
    print(f"yardstick: listing the sites {yardstick:.1f} ms")
    print(
        f"a swatch in {USES} places: {statistics.median(took):.0f} ms, {statistics.median(took) / yardstick:.1f} times the yardstick; slowest {max(took):.0f} ms"
    )


if __name__ == "__main__":
    main()

"""Generated sites whose pieces, rows and items are for some: what visitors of all kinds see of them in a browser."""

from __future__ import annotations

from collections.abc import Iterable
from random import Random
from typing import Any

from tests.fit_judge import served
from tests.visitor_browser import SHOWN, VisitorBrowser, predicted
from tests.visitors import any_audience, any_card
from upper_rim.core.conditions.below import Below
from upper_rim.core.conditions.everywhere import Everywhere
from upper_rim.core.conditions.on_page import OnPage
from upper_rim.core.conditions.visitor import VisitorCard
from upper_rim.core.exchange.html.markdown import document
from upper_rim.core.kinds.items.text import TextItem
from upper_rim.core.kinds.pieces.base import Piece, ReachRule, ReachSet
from upper_rim.core.kinds.pieces.bottom import BottomBar
from upper_rim.core.kinds.pieces.float import Float
from upper_rim.core.kinds.pieces.footer import Footer
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.pieces.notice import Notice
from upper_rim.core.kinds.pieces.sidebar import Sidebar
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.model.site import Band, Page, Site
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.reach.looking import says
from upper_rim.core.values.words import Words
from upper_rim.shipped import shelf

PATHS = ("/", "/a/", "/a/b/")
CARDS = 3
ROOM = """
const style = getComputedStyle(document.documentElement), key = arguments[0];
const header = [...document.querySelectorAll(`header.${key}`)].find((one) => one.getClientRects().length);
return [parseFloat(style.getPropertyValue(`--${key}-header`)) || 0, header?.offsetHeight ?? 0];
"""
"""The room that is kept for a header which is pinned, and how high the one is that shows: no higher, where rows
and items in it are for some."""


def generated(seed: int) -> Site:
    chance, count = Random(seed), iter(range(1000))
    bands = (Band(id="bd-n", name="N", from_px=0), Band(id="bd-w", name="W", from_px=800))

    def rule() -> ReachRule:
        where: Any = chance.choice(
            [Everywhere(), Everywhere(), Below(path="/a/"), OnPage(page=f"pg-{chance.randrange(3)}")]
        )
        return ReachRule(id=f"rr-{next(count)}", shows=chance.random() < 0.85, where=where)

    def row() -> Row:
        items = tuple(
            TextItem(id=f"it-{next(count)}", words=Words(text="Words"), audience=any_audience(chance))
            for _ in range(chance.randrange(1, 3))
        )
        audience = (
            any_audience(chance)
            if chance.random() < 0.3
            else any_audience(Random(0)).replaced(every=(), some=(), none=())
        )
        cells = (Cell(id=f"cl-{next(count)}", items=items),)
        return Row(id=f"rw-{next(count)}", cells=cells, audience=audience)

    kinds: list[type[Piece]] = [Header, Header, Header, Notice, Notice, Footer, Sidebar, BottomBar, Float, Float]

    def own(kind: type[Piece]) -> dict[str, Any]:
        """What only some kinds have: how they move."""
        chosen: dict[str, Any] = {}
        if issubclass(kind, Header | Notice):
            chosen["moves"] = chance.choice(["away", "away", "stays", "up"])
        return chosen | ({"edge": chance.choice(["top", "bottom"])} if kind is Notice else {})

    pieces = tuple(
        kind(
            id=f"pc-{at}",
            name=f"P{at}",
            kind=kind.model_fields["kind"].default,
            rows=tuple(row() for _ in range(chance.randrange(1, 3))),
            hidden_in=("bd-n",) if chance.random() < 0.15 else (),
            reach=tuple(rule() for _ in range(chance.randrange(1, 3))),
            reach_sets=("rs-a",) if chance.random() < 0.3 else (),
            audience=any_audience(chance),
            **own(kind),
        )
        for at, kind in enumerate(chance.sample(kinds, chance.randrange(3, 8)))
    )
    pages = tuple(
        Page(id=f"pg-{at}", path=path, language=chance.choice(["en", "de", "ar"])) for at, path in enumerate(PATHS)
    )
    zone = chance.choice(["UTC", "Europe/Berlin", "America/St_Johns"])
    sets = (ReachSet(id="rs-a", name="A", rules=(rule(), rule())),)
    return Site(key="qtest", name="T", bands=bands, pieces=pieces, pages=pages, zone=zone, reach_sets=sets)


def put(site: Site, files: dict[str, bytes]) -> Site:
    """The site as it is published into a folder, but for its fonts: what these move, when they come, is another
    matter. Its pages know where their pieces stand."""
    composer, pages = Composer(site, shelf()), []
    for page in site.pages:
        content, splice = document("T", page.language, "<p>Words of the page</p>" * 20)
        page = page.replaced(splice=splice, content="x")
        files[page.path] = composer.page(page, content)
        pages.append(page)
    files.update({path: made for path, made in composer.parts() if not path.endswith(".woff2")})
    return site.replaced(pages=tuple(pages))


def nodes_of(site: Site) -> list[str]:
    return [
        node.id
        for piece in site.pieces
        for node in (piece, *piece.rows, *(item for row in piece.rows for cell in row.cells for item in cell.items))
    ]


def as_of_now(card: VisitorCard, site: Site, chance: Random) -> VisitorCard:
    """Of what they have closed some says the same as it did."""
    pieces = {piece.id: piece for piece in site.pieces}
    shuts = tuple(
        one.replaced(text=says(pieces[one.node], site)) if one.node in pieces and chance.random() < 0.6 else one
        for one in card.shuts
    )
    return card.replaced(shuts=shuts)


def judged(driver: Any, sites: Iterable[int]) -> tuple[list[Any], int]:
    """What shows otherwise than predicted, and how many outcomes there were."""
    wrong: list[Any] = []
    outcomes = 0
    with served() as (files, port):
        look = VisitorBrowser(driver)
        for seed in sites:
            site, chance = generated(seed), Random(seed + 1000)
            whole, nodes = put(site, files), nodes_of(site)
            for page in whole.pages:
                for at in range(CARDS):
                    card = as_of_now(any_card(chance, f"vc-{at}"), site, chance)
                    look.opens(f"http://127.0.0.1:{port}{page.path}", card, site.key)
                    shown = set(driver.execute_script(SHOWN, nodes, site.key))
                    outcomes += len(nodes)
                    due = predicted(whole, page, card)
                    room, tall = driver.execute_script(ROOM, site.key)
                    pinned = [one for one in site.pieces if isinstance(one, Header) and one.moves != "away"]
                    if bool(room) != any(one.id in due for one in pinned) or (room and room < tall - 1):
                        wrong.append((seed, page.path, [f"room {room}"], [f"header {tall}"], card))
                    if shown != due:
                        wrong.append((seed, page.path, sorted(shown - due), sorted(due - shown), card))
    return wrong, outcomes

"""What the workbench says of texts that are hard to read and of items that are squeezed: above, in the outline, at the
item."""

from __future__ import annotations

import re
from typing import Any

import pytest
from django.contrib.auth.models import User

from tests.styled_sites import StyledMaker
from upper_rim.core.findings.checks.laid_out.legibility import glimpsed, squeezed
from upper_rim.core.fit.rows.fitter import Fitter
from upper_rim.core.kinds.items import Item
from upper_rim.core.kinds.items.map import MapItem
from upper_rim.core.kinds.items.rich import RichText
from upper_rim.core.kinds.items.text import TextItem
from upper_rim.core.kinds.pieces.footer import Footer
from upper_rim.core.kinds.rows import Cell, Row, Track
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Add, Remove, Together
from upper_rim.core.model.site import Site
from upper_rim.core.output.fitting import fitter_of
from upper_rim.core.values.rich import RichWords
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf
from upper_rim.web.sites.models import StoredSite

from .conftest import signed_in

FOOTER = "/s/ostrey/pieces/pc-footer/"
LONG = RichText(id="it-new", rich=RichWords(text=f"<p>{'Words and words. ' * 20}</p>"))
MAP, TEXT = MapItem(id="it-new"), TextItem(id="it-beside")


def told(answer: Any) -> str:
    return str(answer.content.decode())


@pytest.mark.parametrize(
    ("item", "track", "width", "px"),
    [
        (MAP, Track(kind="fixed", amount=108), 1280, 108.0),
        (MAP, Track(kind="fixed", amount=170), 1280, None),
        (MAP, Track(kind="share"), 1280, None),
        (MAP, Track(kind="fixed", amount=108), 320, 108.0),
        (MAP, Track(kind="fixed", amount=165), 320, None),
        (LONG, Track(kind="fixed", amount=100), 1280, 100.0),
        (RichText(id="it-new"), Track(kind="fixed", amount=100), 1280, None),
        (TextItem(id="it-new"), Track(kind="fixed", amount=20), 1280, None),
    ],
)
def test_an_item_is_squeezed_where_it_has_less_than_half_of_what_it_asks_for(
    item: Item, track: Track, width: int, px: float | None
) -> None:
    row = Row(id="rw-new", cells=(Cell(id="cl-new", track=track, items=(item,)), Cell(id="cl-other", items=(TEXT,))))
    footer = Footer(id="pc-new", name="New", rows=(row,))
    site = Site(key="qtest", name="Test", pieces=(footer,))
    _, contents = ostrey()
    fitter = fitter_of(shelf(), contents.__getitem__, 2026)
    found = list(squeezed(fitter, site, footer, "en", width))
    assert [(one.node, one.amount) for one in found] == ([] if px is None else [("it-new", px)])


@pytest.mark.parametrize("seed", range(4))
def test_what_is_kept_of_contrast_over_edits_is_what_would_be_found_anew(seed: int) -> None:
    maker, (_, contents) = StyledMaker(seed), ostrey()

    def fitter() -> Fitter:
        return fitter_of(shelf(), contents.__getitem__, 2026)

    site, kept = maker.styled_site(2), fitter()
    for _ in range(12):
        site = maker.redressed(site)
        for piece in site.pieces:
            assert glimpsed(kept, site, piece) == glimpsed(fitter(), site, piece)


def test_a_drawer_is_looked_at_again_when_the_menu_that_opens_it_is_dressed_otherwise() -> None:
    site, contents = ostrey()
    kept = fitter_of(shelf(), contents.__getitem__, 2026)
    clear = {"id": "st-clear", "property": "background-color", "value": "transparent"}
    add = Add(parent="pc-drawer", slot="styles", values=(clear,))
    site = apply(site, Together(edits=(Remove(nodes=("st-drawer-reach-b1",)), add)))
    assert isinstance(site, Site)
    (drawer,) = (piece for piece in site.pieces if piece.kind == "drawer")
    ((_, item), *_) = site.holders(drawer)
    before = glimpsed(kept, site, drawer)
    ground = {"id": "st-new", "property": "background-color", "value": "#12344d", "part": "opened"}
    dressed = apply(site, Add(parent=item.id, slot="styles", values=(ground,)))
    assert isinstance(dressed, Site)
    found = glimpsed(kept, dressed, next(piece for piece in dressed.pieces if piece.id == drawer.id))
    assert found != before and any(one.failing for one in found.values())


def test_hard_texts_are_told_above_in_the_outline_and_after_an_edit(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    plain = told(client.get(FOOTER))
    assert 'data-test="weak"' not in plain and 'data-test="squeezed"' not in plain
    colour = {"do": "style", "node": "it-rights", "property": "color", "value": "#2a4a60"}
    assert client.post(FOOTER, colour).status_code in {200, 303}
    weak = told(client.get(FOOTER))
    said = re.search(r'title="([^"]*)" data-test="weak">1 text hard to read', weak)
    assert said and "to 1, 4.5 are needed" in said[1]
    assert re.search(r'data-test="mark-it-rights"[^>]*>hard to read', weak)


def test_words_over_a_picture_say_so(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    ground = {"do": "style", "node": "pc-footer", "property": "background-image", "value": 'url("/coast-fog.svg")'}
    assert client.post(FOOTER, ground).status_code in {200, 303}
    page = told(client.get(FOOTER))
    assert re.search(r'data-test="pictured">\d+ texts over a picture', page) and 'data-test="weak"' not in page
    assert re.search(r'data-test="mark-it-rights"[^>]*>over a picture', page)


def test_a_squeezed_item_is_told_above_in_the_outline_and_at_itself(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    client.post(FOOTER, {"do": "add", "what": "item", "kind": "map", "parent": "cl-rights", "slot": "items"})
    client.post(FOOTER, {"do": "set", "node": "cl-rights", "field": "track", "value": "108 px"})
    page = told(client.get(FOOTER))
    assert re.search(r'title="[^"]*: 108 of 320 px" data-test="squeezed">1 item squeezed', page)
    node = re.search(r'data-test="mark-(it-[\w-]+)"[^>]*>squeezed', page)
    assert node
    at_itself = told(client.get(f"{FOOTER}?select={node[1]}"))
    assert "It is 108 px wide at a width of" in at_itself and "a share of the row" in at_itself

"""What the workbench says of texts that are hard to read and of items that are squeezed: above, in the outline, at the
item."""

from __future__ import annotations

import re
from typing import Any

import pytest
from django.contrib.auth.models import User

from upper_rim.core.findings.checks.legibility import squeezed
from upper_rim.core.kinds.items import Item
from upper_rim.core.kinds.items.map import MapItem
from upper_rim.core.kinds.items.rich import RichText
from upper_rim.core.kinds.items.text import TextItem
from upper_rim.core.kinds.pieces.footer import Footer
from upper_rim.core.kinds.rows import Cell, Row, Track
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

"""Pieces and items as forms: how each kind begins, what is typed as one text, what moves where, what is refused."""

from __future__ import annotations

from typing import Any

import pytest
from django.contrib.auth.models import User
from django.test import Client

from tests.nodes import node_in
from upper_rim.core.kinds.items import ITEM_KINDS
from upper_rim.core.kinds.items.menu import MenuItem
from upper_rim.core.kinds.pieces import PIECE_KINDS
from upper_rim.core.kinds.pieces.consent import ConsentQuestion
from upper_rim.core.kinds.pieces.gate import Gate
from upper_rim.core.model.arrangements import ARRANGEMENTS
from upper_rim.core.model.names import node_name
from upper_rim.core.model.tree import items_of, walk
from upper_rim.web.live.addresses import StageKey, stage_label
from upper_rim.web.sites import store
from upper_rim.web.sites.models import StoredSite
from upper_rim.web.studio.controls.of_nodes import groups_for

from .conftest import signed_in

FOOTER = "/s/ostrey/pieces/pc-footer/"


def told(answer: Any) -> str:
    return str(answer.content.decode())


def test_each_beginning_is_a_piece_that_shows_on_the_stage(
    ferries: StoredSite, ada: User, subtests: pytest.Subtests
) -> None:
    client = signed_in(ada)
    for key, arrangement in ARRANGEMENTS.items():
        with subtests.test(key=key):
            _begun(client, ferries, ada, key, arrangement.kind)


def _begun(client: Client, ferries: StoredSite, ada: User, key: str, kind: str) -> None:
    """In place of all pieces of its kind; no menu needs a drawer any more."""
    before = store.load(ferries.pk).site
    for item in items_of(before.pieces) if kind == "drawer" else ():
        if isinstance(item, MenuItem) and item.drawer:
            client.post("/s/ostrey/pieces/pc-main/", {"do": "set", "node": item.id, "field": "drawer", "value": ""})
    gone = [piece.id for piece in before.pieces if piece.kind == kind]
    client.post("/s/ostrey/pieces/", {"do": "remove", "node": gone})
    answer = client.post("/s/ostrey/pieces/new/", {"do": "add", "what": "piece", "arrangement": key, "name": "New one"})
    assert answer.status_code == 303
    site = store.load(ferries.pk).site
    (made,) = [piece for piece in site.pieces if piece.kind == kind]
    assert made.name == "New one" and made.rows
    assert len(made.reach) == PIECE_KINDS[kind].SHOWS_AT_FIRST, (
        "a kind's first piece shows everywhere, but for a drawer, which shows in its menu, and gates"
    )
    for path in (
        answer["Location"],
        *(f"{answer['Location']}?select={node.id}" for node in walk(made) if node.id[:2] in {"rw", "cl", "it"}),
    ):
        assert client.get(path).status_code == 200
    host = f"{stage_label(StageKey(ferries.pk, ada.pk))}.localhost"
    asked = f"?rim-gate={made.id}.asked" if isinstance(made, Gate | ConsentQuestion) else ""
    assert f'data-rim-node="{made.id}"' in told(client.get(f"/sailings/{asked}", HTTP_HOST=host))


def test_a_new_piece_is_seen_on_the_stage_before_it_is_there(ferries: StoredSite, ada: User) -> None:
    client, host = signed_in(ada), f"{stage_label(StageKey(ferries.pk, ada.pk))}.localhost"
    screen = told(client.get("/s/ostrey/pieces/new/?kind=footer"))
    assert 'data-stage-src="http://' in screen and "/?rim-begun=columns" in screen
    assert all(f'value="{key}"' in screen for key in ARRANGEMENTS)
    assert "/?rim-begun=line" in told(client.get("/s/ostrey/pieces/new/?arrangement=none&kind=none"))
    assert 'value="Imprint"' in told(client.get("/s/ostrey/pieces/new/?arrangement=halves&name=Imprint"))
    before = store.load(ferries.pk)
    seen = told(client.get("/?rim-begun=halves", HTTP_HOST=host))
    assert 'data-rim-node="pc-begun"' in seen and 'data-rim-node="pc-footer"' not in seen
    assert "pc-begun" not in told(client.get("/", HTTP_HOST=host)) + told(client.get("/?rim-begun=x", HTTP_HOST=host))
    assert store.load(ferries.pk) == before


@pytest.mark.parametrize("arrangement", ["none", None])
def test_a_piece_that_begins_with_nothing_known_is_refused(
    arrangement: str | None, ferries: StoredSite, ada: User
) -> None:
    posted = {"do": "add", "what": "piece", **({"arrangement": arrangement} if arrangement else {})}
    before = store.load(ferries.pk)
    answer = signed_in(ada).post("/s/ostrey/pieces/new/", posted)
    assert answer.status_code == 422 and "choose what the piece is to begin with" in told(answer)
    assert store.load(ferries.pk) == before


def test_every_kind_has_a_name_a_beginning_and_controls(ferries: StoredSite) -> None:
    site = store.load(ferries.pk).site
    assert set(PIECE_KINDS) == {arrangement.kind for arrangement in ARRANGEMENTS.values()}
    assert set(PIECE_KINDS) == {piece.kind for piece in site.pieces}, "the demo has one of each"
    items = {node.kind for piece in site.pieces for node in walk(piece) if getattr(node, "kind", "") in ITEM_KINDS}
    assert {"logo", "menu", "rich", "links", "contact", "social", "copyright", "picture", "top"} <= items
    for piece in site.pieces:
        for node in (piece, *walk(piece)):
            if node.id[:2] in {"pc", "rw", "cl", "it"}:
                assert groups_for(node, site) and node_name(node, site)


def test_addresses_pasted_become_profiles_in_their_order_and_known_ones_keep_their_name(
    ferries: StoredSite, ada: User
) -> None:
    client = signed_in(ada)

    def paste(text: str) -> Any:
        return client.post(FOOTER, {"do": "set", "node": "it-social", "field": "profiles", "value": text})

    def listed() -> list[tuple[str, str]]:
        return [(one.address, one.name) for one in node_in(store.load(ferries.pk).site, "it-social").profiles]

    first = listed()
    paste("tel:+441632960144\ninstagram.com/ostrey,\nmailto:quay@ostrey.example\nquay2@ostrey.example")
    assert listed() == [
        ("tel:+441632960144", "Telephone"),
        ("https://instagram.com/ostrey", ""),
        ("mailto:quay@ostrey.example", "Mail"),
        ("mailto:quay2@ostrey.example", ""),
    ]
    for wrong in ("javascript:alert(1)", "/fares/", "#top", "file:///etc/passwd", "data:text/html,x"):
        answer = paste(wrong)
        assert answer.status_code == 422 and "is no address elsewhere" in told(answer), wrong
    assert len(listed()) == 4, "what is refused changes nothing"
    client.post(FOOTER, {"do": "undo"})
    assert listed() == first, "all of it was one edit"
    paste("")
    assert listed() == []


def test_opening_hours_are_typed_a_line_each(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)

    def write(text: str) -> Any:
        return client.post(FOOTER, {"do": "set", "node": "it-contact", "field": "hours", "value": text})

    def hours() -> list[tuple[str, str, str]]:
        found = node_in(store.load(ferries.pk).site, "it-contact").hours
        return [("".join(one.days), one.opens, one.closes) for one in found]

    write("Mo-We 9:00-17:30\n\nsaturday, Sun 10:00 – 12:00\nFr–Mo 20:00-24:00")
    assert hours() == [("MoTuWe", "09:00", "17:30"), ("SaSu", "10:00", "12:00"), ("FrSaSuMo", "20:00", "24:00")]
    answer = write("Mo-Fr 9:00-17:00\nwhenever")
    assert answer.status_code == 422 and "line 2: it is not understood" in told(answer) and len(hours()) == 3
    assert write("Xx 9:00-10:00").status_code == 422
    assert write("Mo 25:00-26:00").status_code == 422
    shown = told(client.get(f"{FOOTER}?select=it-contact"))
    assert "Mo-We 09:00-17:30" in shown and "Sa,Su 10:00-12:00" in shown


def test_columns_are_set_band_by_band(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)

    def fold(band: str, count: str) -> Any:
        form = {"do": "set", "node": "rw-columns", "field": "columns", "band": band, "value": count}
        return client.post(FOOTER, form)

    def columns() -> list[tuple[str, int]]:
        return [(one.band, one.count) for one in node_in(store.load(ferries.pk).site, "rw-columns").columns]

    fold("bd-wide", "3")
    assert columns() == [("bd-narrow", 1), ("bd-middle", 2), ("bd-wide", 3)]
    fold("bd-middle", "")
    assert columns() == [("bd-narrow", 1), ("bd-wide", 3)]
    for band, count in (("bd-wide", "9"), ("bd-none", "2"), ("bd-wide", "two")):
        assert fold(band, count).status_code == 422
    assert columns() == [("bd-narrow", 1), ("bd-wide", 3)]
    removed = client.post("/s/ostrey/foundations/type/", {"do": "remove", "node": "bd-wide"})
    assert removed.status_code == 422 and "width band" in told(removed), "a band that a row folds in cannot go unseen"


def test_a_text_with_marks_is_cleaned_on_its_way_in_in_each_language(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    typed = '<div onclick="x()">Hallo <b>Welt</b><script>x()</script> <a href="javascript:x()">hier</a></div>'
    client.post(FOOTER, {"do": "set", "node": "it-about", "field": "rich", "language": "de", "value": typed})
    rich = node_in(store.load(ferries.pk).site, "it-about").rich
    assert rich.in_language("de") == "Hallo <strong>Welt</strong> <a>hier</a>"
    assert rich.in_language("en").startswith("<p>Three ships")


def test_items_and_rows_move_between_pieces_and_the_screen_follows(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    bench = "/s/ostrey/pieces/pc-main/"
    assert "Footer, Closing line, Start" in told(client.get(f"{bench}?select=it-book"))
    move = {"do": "move", "node": "it-book", "parent": "cl-rights", "slot": "items", "at": "999"}
    answer = client.post(bench, move)
    assert answer.status_code == 303 and answer["Location"] == f"{FOOTER}?select=it-book"
    assert node_in(store.load(ferries.pk).site, "cl-rights").items[-1].id == "it-book"
    answer = client.post(FOOTER, {"do": "move", "node": "rw-closing", "parent": "pc-main", "slot": "rows", "at": "999"})
    assert answer.status_code == 303 and "/pc-main/" in answer["Location"]
    assert node_in(store.load(ferries.pk).site, "pc-main").rows[-1].id == "rw-closing"
    wrong = client.post(bench, {**move, "node": "it-logo", "parent": "rw-main"})
    assert wrong.status_code == 422


CANNOT_BE = [
    ("pc-bar", "height_px", "20"),
    ("pc-book", "place", "left"),
    ("pc-guide", "width_px", "5"),
    ("pc-winter", "shows_until", "tomorrow"),
    ("pc-winter", "closed_days", "0"),
    ("it-guide-picture", "ratio", "0/3"),
    ("it-guide-picture", "focus_x", "140"),
    ("it-contact", "mail", "nobody"),
    ("it-contact", "country", "United Kingdom"),
    ("it-contact", "business", "Pirates"),
    ("it-rights", "first_year", "87"),
    ("rw-columns", "align", "sideways"),
]


def test_what_cannot_be_is_refused_at_its_place(ferries: StoredSite, ada: User, subtests: pytest.Subtests) -> None:
    client, site = signed_in(ada), store.load(ferries.pk).site
    for node, field, value in CANNOT_BE:
        with subtests.test(node=node, field=field):
            piece = next(one.id for one in site.pieces if any(node == below.id for below in (one, *walk(one))))
            form = {"do": "set", "node": node, "field": field, "value": value}
            answer = client.post(f"/s/ostrey/pieces/{piece}/?select={node}", form)
            assert answer.status_code == 422 and store.load(ferries.pk).site == site


def test_a_divider_has_thickness_kind_and_colour_only(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    form = {"do": "style", "node": "rw-columns", "part": "content", "width": "1120", "page": "/"}
    assert client.post(FOOTER, {**form, "property": "border-inline-start-style", "value": "dotted"}).status_code == 200
    refused = client.post(FOOTER, {**form, "property": "font-size", "value": "20px"})
    assert refused.status_code == 422 and "thickness, kind and colour only" in told(refused)

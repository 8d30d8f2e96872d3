"""What the hand is given: handles for sizes, each with an edit that is taken, and a way by a few letters to every
control."""

from __future__ import annotations

import re
from html import unescape
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.http import QueryDict

from tests.core.test_begun import RULES
from upper_rim.core.kinds.pieces.base import Piece
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.site import Site
from upper_rim.core.model.tree import holder_of, items_of
from upper_rim.core.output.fitting import fitter_of
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf
from upper_rim.web.sites.models import StoredSite
from upper_rim.web.studio.forms.form_error import Posted
from upper_rim.web.studio.forms.posting import posted_edit
from upper_rim.web.studio.workbench.handles import OnStage, handles_of

from .conftest import signed_in

DEMO, CONTENTS = ostrey()
FITTER = fitter_of(shelf(), CONTENTS.__getitem__, 2026)


def nodes() -> list[Any]:
    """One of each kind of what can be chosen."""
    cells = [cell for piece in DEMO.pieces for row in piece.rows for cell in row.cells]
    rows = [row for piece in DEMO.pieces for row in piece.rows]
    stages = [stage for piece in DEMO.pieces for stage in getattr(piece, "stages", ())]
    listed = [*DEMO.pieces, *stages, *rows, *cells, *items_of(DEMO.pieces)]
    told = ("shares", "picture", "columns", "without")
    return list({(type(node), *(bool(getattr(node, one, None)) for one in told)): node for node in listed}.values())


def edited(sends: dict[str, str], said: str, number: int) -> Any:
    post = QueryDict(mutable=True)
    post.update({**sends, "value": said.replace("#", str(number))})
    posted = posted_edit(DEMO, post)
    return apply(DEMO, posted.edit, RULES) if isinstance(posted, Posted) else posted


@pytest.mark.parametrize("node", nodes(), ids=lambda node: f"{type(node).__name__}-{node.id}")
@pytest.mark.parametrize("width", [420, 1120])
def test_every_value_within_a_handles_limits_is_taken_and_changes_that_node_alone(node: Any, width: int) -> None:
    for handle in handles_of(DEMO, node, OnStage(width, "en", "", True, FITTER)):
        for number in {handle["least"], min(handle["least"] + 37, handle["most"]), handle["most"]}:
            made = edited(handle["sends"], handle["said"], number)
            assert isinstance(made, Site), (handle["name"], number, made)
            assert made == DEMO or holder_of(made, node.id) != node
        if handle["sends"]["do"] == "set":
            assert not isinstance(edited(handle["sends"], handle["said"], handle["most"] + 1), Site)
            assert not isinstance(edited(handle["sends"], handle["said"], handle["least"] - 1), Site)


def test_sizes_that_a_practitioner_takes_hold_of_have_a_handle() -> None:
    names: dict[str, set[str]] = {}
    for node in nodes():
        names.setdefault(type(node).__name__, set()).update(
            one["name"] for one in handles_of(DEMO, node, OnStage(1120, "en", "", False, FITTER))
        )
    wanted = {
        "Logo": "height_px",
        "PictureItem": "width_px",
        "Sidebar": "width_px",
        "Row": "gap_px",
        "Stage": "height_px",
    }
    assert {kind: name for kind, name in wanted.items() if name not in names[kind]} == {}
    assert all("padding-block-start" in names[kind] for kind in ("Logo", "Row", "Cell", "Header"))
    folded = next(row for piece in DEMO.pieces for row in piece.rows if row.columns)
    assert "track" not in {
        one["name"] for one in handles_of(DEMO, folded.cells[0], OnStage(300, "en", "", False, FITTER))
    }


@pytest.mark.parametrize("node", ["it-logo", "it-menu", "rw-main", "cl-start", "pc-main"])
def test_every_control_that_is_found_is_where_it_is_said_to_be(ferries: StoredSite, ada: User, node: str) -> None:
    client = signed_in(ada)
    own = f"/s/{ferries.slug}/pieces/pc-main/"
    screens: dict[str, str] = {}
    missing = []
    for asked in ("", "padding", "text colour", "ground", "width", "name", "menu", "shadow", "between", "moves"):
        answer = client.get(f"/s/{ferries.slug}/find/", {"q": asked, "piece": "pc-main", "select": node})
        for href, at in found_in(answer.content.decode()):
            if not href.startswith(own):
                continue
            if href not in screens:
                screens[href] = client.get(href).content.decode()
            if at and f'id="{at}"' not in screens[href]:
                missing.append((asked, href, at))
    assert missing == []


def found_in(html: str) -> list[tuple[str, str]]:
    return [(unescape(href), at) for href, at in re.findall(r'data-href="([^"]*)"\s+data-at="([^"]*)"', html)]


def test_what_is_looked_for_is_found_by_the_words_of_it(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)

    def first(asked: str) -> str:
        query = {"q": asked, "piece": "pc-main", "select": "it-book"}
        found = found_in(client.get(f"/s/{ferries.slug}/find/", query).content.decode())
        return found[0][0] if found else ""

    assert "tray=ground" in first("ground colour") and "tray=text" in first("text colour")
    assert "select=it-logo" in first("logo")
    assert first("contrast").endswith("/foundations/contrast/")
    assert "page=%2Fsailings%2Ffares%2F" in first("fares")
    assert first("no such thing anywhere") == ""


def test_a_thing_goes_beside_another_of_its_kind_and_beside_nothing_else() -> None:
    def after(node: str, beside: str, where: str) -> Any:
        return edited({"do": f"beside:{where}", "node": node, "beside": beside}, "", 0)

    cells = {cell.id: [item.id for item in cell.items] for cell in _cells(DEMO)}
    start, end = (
        next(one for one in cells.values() if "it-logo" in one),
        next(one for one in cells.values() if "it-book" in one),
    )
    made = after("it-book", "it-logo", "before")
    now = {cell.id: [item.id for item in cell.items] for cell in _cells(made)}
    assert [*now.values()].count(["it-book", *start]) == 1 and [one for one in end if one != "it-book"] in now.values()
    # Within one holder its own place does not count.
    rows = [row.id for row in _piece(DEMO).rows]
    moved = [row.id for row in _piece(after(rows[0], rows[1], "after")).rows]
    assert moved == [rows[1], rows[0], *rows[2:]]
    assert not isinstance(after("it-book", "rw-main", "before"), Site)
    assert not isinstance(after("it-book", "it-gone", "before"), Site)
    assert not isinstance(after("it-book", "it-logo", "over"), Site)


def _piece(site: Site) -> Piece:
    return next(piece for piece in site.pieces if piece.id == "pc-main")


def _cells(site: Site) -> list[Cell]:
    rows: list[Row] = [row for piece in site.pieces for row in piece.rows]
    return [cell for row in rows for cell in row.cells]

"""What is not finished is found at its place, and nothing of what is."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any, get_args

import pytest

from upper_rim.cli.__main__ import main
from upper_rim.core.exchange.bundle import write_bundle
from upper_rim.core.findings import severity
from upper_rim.core.findings.checks.parts.unfinished import in_unfinished
from upper_rim.core.findings.checks.parts.unused import KEPT_FOR_USE, in_unused
from upper_rim.core.findings.finding import Finding, FindingKind
from upper_rim.core.findings.severity import severity_of
from upper_rim.core.findings.whole import causes
from upper_rim.core.kinds.items import ITEM_KINDS
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.model.fonts import Font
from upper_rim.core.model.site import Asset, Menu, Site
from upper_rim.core.model.tree import items_of
from upper_rim.core.values.styling import Look, Swatch
from upper_rim.demo import ostrey, quillwort

PAGE = {"kind": "address", "address": "https://tide.example/"}
PICTURE = Asset(id="as-1", path="/hut.png", content="0" * 64, size=1)
WITH_PICTURE: dict[str, Any] = {"picture": "/hut.png", "words": {"text": "The hut"}}
# By kind of item: what is not done, in which field, at which node; and what it is when it is done.
PLANTED: list[tuple[dict[str, Any], dict[str, Any], list[tuple[str, str, str]]]] = [
    ({"kind": "button"}, {"words": {"text": "Book"}, "target": PAGE}, [("first words", "words", "it-a"), ("leads nowhere", "target", "it-a")]),
    ({"kind": "button", "words": {"text": " "}, "target": PAGE}, {"words": {"text": "Book"}}, [("first words", "words", "it-a")]),
    ({"kind": "icon"}, {"words": {"text": "Call"}, "target": PAGE}, [("first words", "words", "it-a"), ("leads nowhere", "target", "it-a")]),
    ({"kind": "text"}, {"words": {"text": "Open in May"}}, [("first words", "words", "it-a")]),
    ({"kind": "rich"}, {"rich": {"text": "<p>Open in May</p>"}}, [("first words", "rich", "it-a")]),
    ({"kind": "text", "words": {"text": "Up"}, "target": {"kind": "address", "address": "#"}}, {"target": PAGE}, [("leads to itself", "target", "it-a")]),
    ({"kind": "text", "words": {"text": "Up"}, "target": {"kind": "address", "address": "https://www.example.com/x"}}, {"target": PAGE}, [("made-up address", "target", "it-a")]),
    ({"kind": "contact", "mail": "name@example.org"}, {"mail": "hut@tide.example"}, [("made-up address", "mail", "it-a")]),
    ({"kind": "contact", "name": "The hut"}, {"town": "Skarrow"}, [("says nothing", "street", "it-a")]),
    ({"kind": "links"}, {"menu": "mn-full"}, [("empty list", "menu", "it-a")]),
    ({"kind": "links", "menu": "mn-none"}, {"menu": "mn-full"}, [("empty list", "menu", "it-a")]),
    ({"kind": "menu"}, {"menu": "mn-full"}, [("empty list", "menu", "it-a")]),
    ({"kind": "social"}, {"profiles": [{"id": "pr-1", "address": "https://social.example/hut"}]}, [("empty list", "profiles", "it-a")]),
    ({"kind": "pictures"}, {"links": [{"id": "pl-1", **WITH_PICTURE, "target": PAGE}]}, [("empty list", "links", "it-a")]),
    ({"kind": "pictures", "links": [{"id": "pl-1"}]}, {"links": [{"id": "pl-1", **WITH_PICTURE, "target": PAGE}]},
     [("no picture", "picture", "pl-1"), ("first words", "words", "pl-1"), ("leads nowhere", "target", "pl-1")]),
    ({"kind": "picture"}, WITH_PICTURE, [("no picture", "picture", "it-a")]),
    ({"kind": "picture", "picture": "/hut.png"}, {"ornament": True}, [("no alternative", "words", "it-a")]),
    ({"kind": "picture", **WITH_PICTURE, "picture": "/gone.png"}, WITH_PICTURE, [("picture gone", "picture", "it-a")]),
    ({"kind": "logo", "picture": "/gone.svg"}, {"picture": "/hut.png"}, [("picture gone", "picture", "it-a")]),
    ({"kind": "form"}, {"fields": [{"id": "ff-1", "words": {"text": "Your name"}}]}, [("no fields", "fields", "it-a")]),
    ({"kind": "form", "fields": [{"id": "ff-1"}]}, {"fields": [{"id": "ff-1", "words": {"text": "Your name"}}]}, [("first words", "words", "ff-1")]),
    ({"kind": "map"}, {"latitude": 56.2}, [("first place", "latitude", "it-a")]),
    ({"kind": "embed"}, {"address": "https://film.example/1"}, [("says nothing", "address", "it-a")]),
]  # fmt: skip


def site_with(*items: dict[str, Any]) -> Site:
    made = tuple(ITEM_KINDS[item["kind"]].model_validate({"id": "it-a", **item}) for item in items)
    site, _ = quillwort()
    header = next(piece for piece in site.pieces if piece.kind == "header")
    row = Row(id="rw-1", cells=(Cell(id="cl-1", items=made),))
    entry = {"id": "en-1", "label": {"text": "Books"}, "target": PAGE}
    menus = (Menu.model_validate({"id": "mn-full", "name": "Full", "entries": [entry]}),)
    asked = {item.get("menu") for item in items}
    menus += (Menu(id="mn-none", name="None yet"),) if "mn-none" in asked else ()
    return site.replaced(pieces=(header.replaced(rows=(row,)),), menus=menus, assets=(PICTURE,), pages=())


@pytest.mark.parametrize(("planted", "mending", "expected"), PLANTED)
def test_each_is_found_at_its_place_and_not_in_its_mended_twin(
    planted: dict[str, Any], mending: dict[str, Any], expected: list[tuple[str, str, str]]
) -> None:
    found = [one for one in in_unfinished(site_with(planted)) if one.node != "mn-none"]
    assert [(one.kind, one.about["field"], one.node) for one in found] == expected
    assert in_unfinished(site_with({**planted, **mending})) == []


def test_pieces_and_menus_with_nothing_in_them_are_found() -> None:
    site = site_with()
    assert [one.kind for one in in_unfinished(site)] == ["empty piece"]
    off = site.replaced(pieces=tuple(piece.replaced(on=False) for piece in site.pieces))
    assert in_unfinished(off) == [], "what is off is nobody's yet"
    named = site_with({"kind": "links", "menu": "mn-none"})
    assert [(one.kind, one.node, one.other) for one in in_unfinished(named)] == [
        ("empty list", "it-a", "mn-none"),
        ("empty list", "mn-none", ""),
    ]


@pytest.mark.parametrize("kind", ITEM_KINDS)
def test_every_kind_of_item_says_what_it_lacks_of_its_own_fields(kind: str) -> None:
    item = ITEM_KINDS[kind].model_validate({"id": "it-a"})
    for lack in item.lacks():
        assert lack.node or lack.field in type(item).model_fields


def test_the_demo_is_finished() -> None:
    for site, _ in (ostrey(), quillwort()):
        assert in_unfinished(site) == []


PLANTED_UNUSED = {
    "swatches": Swatch(id="no-planted", name="Planted", colour="#123456"),
    "looks": Look(id="no-planted", name="Planted"),
    "menus": Menu(id="no-planted", name="Planted"),
    "fonts": Font.model_construct(id="no-planted", name="Planted", files=(), measures=None),
}


@pytest.mark.parametrize("slot", KEPT_FOR_USE)
def test_what_nothing_refers_to_is_found_until_something_does(slot: str) -> None:
    site, _ = ostrey()
    assert in_unused(site) == [] and in_unused(quillwort()[0]) == []
    planted = PLANTED_UNUSED[slot]
    found = in_unused(site.replaced(**{slot: (*getattr(site, slot), planted)}))
    assert [(one.kind, one.node) for one in found] == [("unused", "no-planted")]
    if slot == "fonts":
        assert in_unused(site.replaced(fonts=(planted,), heading_face="no-planted")) == []


def test_a_drawer_that_no_menu_opens_is_unused() -> None:
    site, _ = ostrey()
    drawer = next(piece for piece in site.pieces if piece.kind == "drawer")
    closed = tuple(piece for piece in site.pieces if piece.kind in {"drawer", "footer"})
    assert [one.node for one in in_unused(site.replaced(pieces=closed, looks=(), menus=(), rows=(), swatches=()))] == [
        drawer.id
    ]


def test_each_kind_of_finding_is_as_bad_as_one_table_says() -> None:
    kinds = set(get_args(FindingKind))
    tables = (severity._BREAKS, severity._HINDERS)
    assert not tables[0] & tables[1] and tables[0] | tables[1] | severity.SOURCES.keys() <= kinds
    assert {severity_of(kind) for kind in kinds} == {"breaks", "hinders", "doubtful"}


def test_one_cause_is_one_however_many_places_it_has_and_the_worst_come_first() -> None:
    wraps = [Finding("wraps", "rw-1", "it-a", {"px": px}, language=tag) for px, tag in ((3.0, "de"), (9.0, "cy"))]
    one, other = causes([Finding("deep", "en-1"), *wraps])
    assert (one.kind, one.languages, [place.amount for place in one.findings]) == ("wraps", ["cy", "de"], [9.0, 3.0])
    assert (other.kind, other.severity) == ("deep", "doubtful")


def test_a_bundle_is_checked_for_a_pipeline(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    site, contents = quillwort()
    button = ITEM_KINDS["button"].model_validate({"id": "it-planted"})
    header, *others = site.pieces
    row = header.rows[0]
    cell = row.cells[0].replaced(items=(*row.cells[0].items, button))
    rows = (row.replaced(cells=(cell, *row.cells[1:])), *header.rows[1:])
    planted = site.replaced(pieces=(header.replaced(rows=rows), *others))
    assert len(list(items_of(planted.pieces))) == len(list(items_of(site.pieces))) + 1
    codes = {}
    for name, one in (("as it is", site), ("planted", planted)):
        bundle = tmp_path / f"{name}.zip"
        with bundle.open("wb") as file:
            write_bundle(file, one, contents.__getitem__)
        codes[name] = main(["check", str(bundle), "--json", "--fail-on", "breaks"])
        told = json.loads(capsys.readouterr().out)
        at_it = {(each["kind"], each["severity"]) for each in told if each["node"] == "it-planted"}
        expected = {("first words", "breaks"), ("leads nowhere", "breaks")} if name == "planted" else set()
        assert at_it - {("wraps", "hinders")} == expected
    assert codes["planted"] == 1
    assert main(["check", str(tmp_path / "planted.zip")]) == 1
    out, err = capsys.readouterr()
    assert "breaks: Button: Button leads nowhere: say where" in out and "breaks" in err

"""Bundles of every format that there was open as sites of today. `tests/bundles/` holds some of each; none is made
anew."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from upper_rim.core.exchange.bundle import BrokenBundle, Bundle, read_site, write_bundle
from upper_rim.core.kinds.pieces.notice import Notice
from upper_rim.core.model.upgrades import FORMAT, STEPS, to_2, to_3
from upper_rim.core.output.publication import publication
from upper_rim.shipped import shelf

BUNDLES = sorted((Path(__file__).parent.parent / "bundles").glob("*.zip"))


@pytest.mark.parametrize("path", BUNDLES, ids=lambda path: path.stem)
def test_an_old_bundle_opens_is_published_and_says_the_same_when_it_is_written_anew(path: Path, tmp_path: Path) -> None:
    with path.open("rb") as file:
        bundle = Bundle(file)
        site = bundle.site
        published = {one.name: one.data for one in publication(site, shelf(), bundle.read, year=2026)}
        for page in site.pages:
            if page.content and not page.bare:
                name = page.path.strip("/") + "/index.html" if page.path.endswith("/") else page.path[1:]
                assert b"<!--rim:" in published[name.lstrip("/")], page.path
        anew = tmp_path / "anew.zip"
        with anew.open("wb") as out:
            write_bundle(out, site, bundle.read_checked)
    with anew.open("rb") as file:
        again = Bundle(file)
        assert again.site == site
        assert all(again.read_checked(page.content) for page in site.pages if page.content)


def test_there_is_a_bundle_of_each_format() -> None:
    assert {int(path.name.split("-")[1]) for path in BUNDLES} == set(range(1, FORMAT + 1))


def test_a_notice_bar_of_the_first_format_says_how_it_moves() -> None:
    notices = [
        {"id": f"pc-{at}", "kind": "notice", "name": "N", **was}
        for at, was in enumerate(({"pinned": True}, {"pinned": False}, {}))
    ]
    site = read_site(json.dumps({"format": 1, "key": "abcd", "name": "x", "pieces": notices}).encode())
    assert [piece.moves for piece in site.pieces if isinstance(piece, Notice)] == ["stays", "away", "away"]
    assert site.format == FORMAT
    edit = {"kind": "set", "node": "pc-0", "field": "pinned", "value": True}
    assert to_2.lifted([edit]) == [{**edit, "field": "moves", "value": "stays"}]


@pytest.mark.parametrize("given", [0, FORMAT + 1, "2", None, 1.5])
def test_a_format_that_there_never_was_is_told(given: object) -> None:
    with pytest.raises(BrokenBundle, match="knows formats 1 to"):
        read_site(json.dumps({"format": given, "key": "abcd", "name": "x"}).encode())


@pytest.mark.parametrize("opening", ['{"a":', "["])
@pytest.mark.parametrize("depth", [300, 480, 700, 990, 100_000])
def test_a_document_nested_without_end_is_refused(opening: str, depth: int) -> None:
    closing = "}" if opening.startswith("{") else "]"
    nested = opening * depth + "1" + closing * depth
    with pytest.raises(BrokenBundle):
        read_site(f'{{"format": 1, "key": "abcd", "name": "x", "pieces": {nested}}}'.encode())


JSON = st.recursive(
    st.none() | st.booleans() | st.integers() | st.text(max_size=9),
    lambda inner: st.lists(inner, max_size=4) | st.dictionaries(st.sampled_from(["kind", "pinned", "moves", "field", "value", "rows"]), inner, max_size=4),
    max_leaves=20,
)  # fmt: skip


@given(value=JSON)
def test_what_is_lifted_once_is_not_changed_again(value: Any) -> None:
    for step in STEPS.values():
        once = step(value)
        assert step(once) == once


def test_every_format_but_the_last_has_a_step() -> None:
    assert list(STEPS) == list(range(1, FORMAT))


def test_an_order_of_languages_is_what_is_said_of_them_since_format_3() -> None:
    old = {"format": 2, "key": "abcd", "name": "x", "language_order": ["de", "fr", "de"]}
    lifted = read_site(json.dumps(old).encode())
    assert [one.language for one in lifted.spoken] == ["de", "fr"] and lifted.languages == ("en", "de", "fr")
    edit = {"kind": "set", "node": "site", "field": "language_order", "value": ["de"]}
    said = {**edit, "field": "spoken", "value": [{"language": "de"}]}
    assert to_3.lifted({"kind": "together", "edits": [edit]}) == {"kind": "together", "edits": [said]}

"""Bundles of every format that there was open as sites of today. `tests/bundles/` holds some of each; none is made anew."""

from __future__ import annotations

from pathlib import Path

import pytest

from upper_rim.core.exchange.bundle import Bundle, write_bundle
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
    assert {path.name.split("-")[1] for path in BUNDLES} == {"1"}

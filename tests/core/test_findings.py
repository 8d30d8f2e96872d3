"""Every finding can be said, whatever it is about."""

from __future__ import annotations

from typing import get_args

import pytest

from tests.moving_sites import MovingMaker
from upper_rim.core.findings.checks.laid_out.movement import in_movement
from upper_rim.core.findings.finding import Finding, FindingKind
from upper_rim.core.findings.words import WORDS, finding_words
from upper_rim.core.movement.scene import Scenes
from upper_rim.core.output.fitting import fitter_of
from upper_rim.shipped import shelf

ABOUT = {
    "px": 12.4, "asked_px": 30.0, "percent": 34.6, "most": 30, "ratio": 3.456, "needed": 4.5, "path": "/a/", "anchor": "b",
    "first": "A", "second": "B", "after_px": 20, "given_up_px": 77.0, "from_px": 21, "to_px": 97, "gap_px": 57.0, "least_px": 77,
    "limit": 30.0, "characters": 21.2, "width_px": 20.0, "height_px": 18.5, "at_px": 320, "distance_px": 3.5,
    "rule": "On /a/", "what": "look", "pages": 2, "count": 3, "audience": "nobody", "visitor": "First visit", "bands": "Narrow", "address": "https://example.com/", "host": "tide.example", "of": 9, "file": "/news.xml",
    "face": "Figtree", "weight": 1000, "kilobytes": 700.0, "line": 3,
}  # fmt: skip


@pytest.mark.parametrize("kind", get_args(FindingKind))
def test_every_kind_has_words_with_its_numbers(kind: FindingKind) -> None:
    words = finding_words(Finding(kind, "one", "other", ABOUT), lambda node: f"<{node}>")
    assert words and "{" not in words and not words.endswith(".")
    assert ("<other>" in words) is any(name in WORDS[kind] for name in ("{other}", "{both}"))


def test_a_row_that_is_its_own_cause_is_named_once_and_an_estimate_says_so() -> None:
    about = {"from_px": 280, "to_px": 310}
    assert finding_words(Finding("wraps", "a", "a", about), str) == "a wraps from 280 to 310 px"
    foreseen = Finding("clips", "a", "b", about, language="de", is_estimate=True)
    assert finding_words(foreseen, str) == "a: b is higher than its room, as far as can be foreseen, from 280 to 310 px"


@pytest.mark.parametrize("seed", range(8))
def test_what_is_found_about_generated_sites_is_said_with_its_place(seed: int) -> None:
    maker = MovingMaker(seed)
    site, contents = maker.site()
    scenes = Scenes(fitter_of(shelf(), contents.__getitem__, 2026, foresees=False), site)
    page = site.pages[0]
    pieces = {piece.id for piece in site.pieces}
    for viewport_px in maker.viewports:
        for one in in_movement(scenes, page, viewport_px, maker.shape_at(0.0)):
            assert one.node in pieces and one.amount >= 0.0
            assert (one.place.page, one.place.viewport_px) == (page.id, viewport_px)
            assert finding_words(one, str)

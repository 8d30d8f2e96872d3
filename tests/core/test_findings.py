"""Every finding can be said, whatever it is about."""

from __future__ import annotations

from typing import get_args

import pytest

from tests.moving_sites import MovingMaker
from upper_rim.core.findings.checks.movement import in_movement
from upper_rim.core.findings.finding import Finding, FindingKind
from upper_rim.core.findings.words import WORDS, finding_words
from upper_rim.core.movement.scene import Scenes
from upper_rim.core.output.fitting import fitter_of
from upper_rim.shipped import shelf

ABOUT = {
    "px": 12.4, "asked_px": 30.0, "percent": 34.6, "most": 30, "ratio": 3.456, "needed": 4.5, "path": "/a/", "anchor": "b",
    "first": "A", "second": "B", "after_px": 20, "given_up_px": 77.0, "from_px": 21, "to_px": 97, "gap_px": 57.0, "least_px": 77,
}  # fmt: skip


@pytest.mark.parametrize("kind", get_args(FindingKind))
def test_every_kind_has_words_with_its_numbers(kind: FindingKind) -> None:
    words = finding_words(Finding(kind, "one", "other", ABOUT), lambda node: f"<{node}>")
    assert words and "{" not in words and not words.endswith(".")
    assert ("<other>" in words) is ("{other}" in WORDS[kind])


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

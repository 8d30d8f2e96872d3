"""All that axe-core says of generated published pages, the findings say, too; what only they say is explained."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from selenium import webdriver

from tests.axe_judge import WE_ALONE, axe_says, is_said, site_at_random, unlike, we_say
from tests.fit_judge import served
from upper_rim.core.kinds.items.divider import Divider
from upper_rim.core.kinds.items.spacer import Spacer
from upper_rim.core.model.site import Site
from upper_rim.core.values.words import Words

from .conftest import plain_chromium

SITES = 12


@pytest.fixture(scope="module")
def chromium() -> Iterator[webdriver.Chrome]:
    driver = plain_chromium()
    driver.set_script_timeout(60)
    yield driver
    driver.quit()


def test_what_axe_says_is_found_and_what_is_found_alone_is_explained(chromium: webdriver.Chrome) -> None:
    with served() as (files, port):
        for seed in range(SITES):
            by_axe, by_us = unlike(seed, chromium, files, port)
            assert by_axe == [], seed
            assert {one.kind for one in by_us} <= WE_ALONE.keys(), seed


def test_the_comparison_sees_what_is_not_said(chromium: webdriver.Chrome) -> None:
    """A judge that takes everything for said would find nothing."""
    with served() as (files, port):
        for seed in range(SITES, 4 * SITES):
            site, contents = site_at_random(seed)
            said = [
                one
                for one in axe_says(site, contents, chromium, files, port)
                if one.nodes and one.rule == "color-contrast"
            ]
            if said:
                ours = [one for one in we_say(site, contents) if {one.node, one.other}.isdisjoint(said[0].nodes)]
                assert not is_said(said[0], ours), (seed, said[0])
                return
    raise AssertionError("axe says nothing of the colours in any piece")


def test_room_and_lines_have_no_focus_whatever_is_said_while_one_points_at_them(chromium: webdriver.Chrome) -> None:
    site, contents = site_at_random(0)
    hinted = (Spacer(id="it-room", hint=Words(text="Room")), Divider(id="it-line", hint=Words(text="A line")))
    site = with_items(site, hinted)
    with served() as (files, port):
        said = list(axe_says(site, contents, chromium, files, port))
    assert not [one for one in said if {"it-room", "it-line"} & {*one.nodes}]
    assert chromium.execute_script("return document.querySelectorAll('.qfit-hint').length") >= 2


def with_items(site: Site, items: tuple[Spacer | Divider, ...]) -> Site:
    """In the first cell of its first piece."""
    piece = site.pieces[0]
    row = piece.rows[0]
    cell = row.cells[0].replaced(items=items)
    made = piece.replaced(rows=(row.replaced(cells=(cell, *row.cells[1:])), *piece.rows[1:]))
    return site.replaced(pieces=(made, *site.pieces[1:]))


@pytest.mark.parametrize("seed", [109, 148, 190, 215, 235])
def test_a_title_that_hides_at_some_widths_leaves_no_heading_that_says_nothing(
    chromium: webdriver.Chrome, seed: int
) -> None:
    """Found on these: logos that are hidden in a width band, or whose header comes once one has scrolled."""
    with served() as (files, port):
        assert unlike(seed, chromium, files, port)[0] == []

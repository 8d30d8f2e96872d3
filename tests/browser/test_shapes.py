"""Pieces on pages of every shape: they lie across the window, and the page's content is laid out as it was."""

from __future__ import annotations

import itertools
import os
from collections.abc import Iterator
from functools import partial
from typing import Any

import pytest
from selenium import webdriver

from tests.folder import Folder, taken_away
from tests.shaped_sites import MORE, SCROLLING, SHAPES, shaped_at_random
from upper_rim.core.exchange.html.markers import strip
from upper_rim.core.exchange.imports.import_pages import ArchiveEntry, read_files
from upper_rim.core.kinds.pieces.footer import Footer
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.model.site import Asset, Page, Site

from .conftest import plain_chromium

AT_RANDOM = int(os.environ.get("RIM_SHAPES", "12"))
WIDTHS, HEIGHT = (360, 1280), 800
ABOUT_CONTENT = """
const ours = (node) => node.closest('.qtest');
const box = (node) => { const at = node.getBoundingClientRect(); return [at.left, at.top + scrollY, at.width, at.height]; };
const listed = [...document.body.querySelectorAll('h1,p,a,button,main,nav.side')].filter((node) => !ours(node));
const covered = listed.filter((node) => {
  if (!node.matches('a,button')) return false;
  node.scrollIntoView({block: 'center'});
  const at = node.getBoundingClientRect();
  return !node.contains(document.elementFromPoint(at.left + at.width / 2, at.top + at.height / 2));
}).length;
scrollTo(0, 0);
const root = document.documentElement;
return {boxes: listed.map(box), covered, wide: root.scrollWidth, high: root.scrollHeight, window: root.clientWidth,
  pieces: ['header', 'footer'].map((name) => document.querySelector(`body ${name}.qtest`)).filter((one) => one).map(box)};
"""


def came_in(files: dict[str, bytes]) -> tuple[Site, dict[str, bytes]]:
    """A site of these, with a header and a footer."""
    count = itertools.count()
    entries = [ArchiveEntry(name, partial(bytes, data)) for name, data in files.items()]
    came = list(read_files(entries, lambda kind: f"{kind}-n{next(count)}", "en", (), []))
    shapes = {one.shape.id: one.shape for one in came if one.shape is not None}
    pieces = []
    for kind in (Header, Footer):
        text = {"id": f"it-{kind.TAG}", "kind": "text", "words": {"text": f"Words of the {kind.TAG}"}}
        cell = {"id": f"cl-{kind.TAG}", "items": [text]}
        row = {"id": f"rw-{kind.TAG}", "cells": [cell]}
        made = {"id": f"pc-{kind.TAG}", "name": kind.TAG, "rows": [row], "reach": [{"id": f"rr-{kind.TAG}"}]}
        pieces.append(kind.model_validate(made))
    site = Site(
        key="qtest",
        name="Of others",
        pieces=tuple(pieces),
        pages=tuple(sorted((one.value for one in came if isinstance(one.value, Page)), key=lambda page: page.path)),
        assets=tuple(sorted((one.value for one in came if isinstance(one.value, Asset)), key=lambda one: one.path)),
        shapes=tuple(shapes.values()),
    )
    return site, {one.value.content or "": one.content for one in came}


@pytest.fixture(scope="module")
def driver() -> Iterator[webdriver.Chrome]:
    made = plain_chromium()
    yield made
    made.quit()


def looked_at(driver: webdriver.Chrome, folder: Folder, files: dict[str, bytes], width: int) -> dict[str, Any]:
    folder.files = files
    driver.execute_cdp_cmd(
        "Emulation.setDeviceMetricsOverride",
        {"width": width, "height": HEIGHT, "deviceScaleFactor": 1, "mobile": False},
    )
    driver.get(f"http://127.0.0.1:{folder.port}/")
    found: dict[str, Any] = driver.execute_script(ABOUT_CONTENT)
    return found


@pytest.mark.parametrize("name", [*SHAPES, *range(AT_RANDOM)])
def test_pieces_lie_across_the_window_and_the_content_as_it_was(
    driver: webdriver.Chrome, folder: Folder, name: str | int
) -> None:
    shaped = SHAPES[name] if isinstance(name, str) else shaped_at_random(name)
    files = {**shaped.files(), **MORE}
    site, contents = came_in(files)
    published = taken_away(site, contents)
    assert strip(published["index.html"]) == files["index.html"]
    is_high = any(one.is_tall for one in site.shapes) or "height:" in shaped.css
    for width in WIDTHS:
        before, after = (looked_at(driver, folder, one, width) for one in (files, published))
        header, footer = after["pieces"]
        where = f"{name} at {width}: {shaped.css}"
        assert header[:3] == pytest.approx([0, 0, after["window"]], abs=0.6), where
        assert [footer[0], footer[2]] == pytest.approx([0, after["window"]], abs=0.6), where
        assert max(footer[1] + footer[3], HEIGHT) == pytest.approx(max(after["high"], HEIGHT), abs=1), where
        assert after["wide"] <= max(before["wide"], after["window"]), where
        assert after["covered"] <= before["covered"], where
        assert len(after["boxes"]) == len(before["boxes"]) > 4
        lowest = 0.0
        for was, now in zip(before["boxes"], after["boxes"], strict=True):
            assert [now[0], now[2]] == pytest.approx([was[0], was[2]], abs=1), where
            assert now[1] >= header[3] - 1, where
            if not is_high:
                assert [now[1], now[3]] == pytest.approx([was[1] + header[3], was[3]], abs=1), where
            lowest = max(lowest, now[1] + now[3])
        assert footer[1] >= lowest - 1, where


ABOUT_SCROLLING = """
const box = (node) => { const at = node.getBoundingClientRect(); return [at.left, at.top, at.width, at.height]; };
const pressed = (node) => {
  const at = node.getBoundingClientRect();
  return node.contains(document.elementFromPoint(at.left + at.width / 2, at.top + at.height / 2));
};
const scrolls = (node) => node.scrollHeight > node.clientHeight + 20 && /auto|scroll/.test(getComputedStyle(node).overflowY);
const scroller = [...document.querySelectorAll('body,main,.app')].find(scrolls) || document.scrollingElement;
const [header, footer] = ['header', 'footer'].map((name) => document.querySelector(`body ${name}.qtest`));
const bar = document.querySelector('.bar'), found = [];
for (const at of [0, 300, 1e6]) {
  scroller.scrollTop = scrollY && at || at;
  found.push({header: box(header), pressed: pressed(header), bar: bar ? pressed(bar) : true});
}
const end = {footer: box(footer), pressed: pressed(footer)};
const links = [...document.querySelectorAll('main a, main button')].filter((one) => {
  one.scrollIntoView({block: 'center'});
  return !pressed(one);
});
const root = document.documentElement;
return {found, end, covered: links.length, window: root.clientWidth, scrolled: scroller.tagName, wide: root.scrollWidth};
"""


@pytest.mark.parametrize("name", SCROLLING)
def test_what_is_pinned_stays_wherever_a_page_scrolls_and_hides_nothing_of_it(
    driver: webdriver.Chrome, folder: Folder, name: str
) -> None:
    files = SCROLLING[name].files()
    site, contents = came_in(files)
    pieces = (one.replaced(moves="stays") if isinstance(one, Header) else one for one in site.pieces)
    published = taken_away(site.replaced(pieces=tuple(pieces)), contents)
    assert strip(published["index.html"]) == files["index.html"]
    for width in WIDTHS:
        looked_at(driver, folder, published, width)
        seen = driver.execute_script(ABOUT_SCROLLING)
        for at in seen["found"]:
            assert at["header"][:3] == pytest.approx([0, 0, seen["window"]], abs=0.6) and at["pressed"], (name, width)
            assert at["bar"], (name, width)
        left, top, wide, high = seen["end"]["footer"]
        assert [left, wide, top + high] == pytest.approx([0, seen["window"], HEIGHT], abs=1), (name, width)
        assert seen["covered"] == 0 and seen["wide"] <= seen["window"], (name, width)

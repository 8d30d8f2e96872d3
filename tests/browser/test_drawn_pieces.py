"""A piece drawn small looks from afar as Chromium paints it: its parts stand where they stand, in the same colours on
average."""

from __future__ import annotations

import base64
import io
from collections.abc import Iterator, Sequence
from itertools import combinations
from math import ceil, floor
from typing import Any

import pytest
from PIL import Image, ImageStat
from selenium import webdriver

from tests.fit_judge import served
from tests.fitted_sites import FittedMaker
from upper_rim.core.kinds.items.pager import Pager
from upper_rim.core.kinds.items.trail import Trail
from upper_rim.core.kinds.markup import html
from upper_rim.core.kinds.pieces.base import Piece
from upper_rim.core.kinds.pieces.drawer import Drawer
from upper_rim.core.kinds.pieces.gate import Gate
from upper_rim.core.kinds.rows import Cell
from upper_rim.core.model.site import Page, Site
from upper_rim.core.output.drawn.draw_piece import PieceDrawer
from upper_rim.core.output.drawn.shapes import Clipped, Drawing, Ground, PictureShown, Rect
from upper_rim.core.output.drawn.svg import drawn_svg
from upper_rim.core.output.fitting import fitter_of
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.reach.coverage import Coverage
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

from .conftest import load_faces, plain_chromium, wait_for

LEAST_COLOUR_PX = 10.0
MOST_PX, MOST_SHARE = 1.0, 0.02
SITES = 14

_PLACES = """
// At rest: on no page of its own, and without what a script puts there.
document.querySelectorAll('[aria-current]').forEach((part) => part.removeAttribute('aria-current'));
const piece = document.querySelector(`[data-rim-node="${arguments[0]}"]`);
const places = {};
// What comes when one has scrolled.
for (const part of [piece, ...piece.querySelectorAll('[data-rim-node]')]) part.style.setProperty('visibility', 'visible', 'important');
// Nothing else lies over it.
const others = [...document.querySelectorAll('[data-rim-node]')].filter((part) => !part.parentElement.closest('[data-rim-node]') && part !== piece);
others.forEach((part) => (getComputedStyle(part).position === 'fixed' || getComputedStyle(part.parentElement).position === 'fixed' ? part.remove() : part.style.setProperty('visibility', 'hidden', 'important')));
const at = piece.getBoundingClientRect();
for (const part of [piece, ...piece.querySelectorAll('[data-rim-node]')]) {
  const {left, top, width, height} = part.getBoundingClientRect();
  if (part.checkVisibility({visibilityProperty: true}) && width && height) (places[part.dataset.rimNode] ??= []).push([left - at.left, top - at.top, width, height]);
}
return [[at.left + scrollX, at.top + scrollY, at.width, at.height], places];
"""


@pytest.fixture(scope="module")
def chromium() -> Iterator[webdriver.Chrome]:
    driver = plain_chromium()
    yield driver
    driver.quit()


def pictured(driver: webdriver.Chrome, at: Sequence[float]) -> Image.Image:
    clip = {"x": at[0], "y": at[1], "width": max(1, at[2]), "height": max(1, at[3]), "scale": 1}
    shot = driver.execute_cdp_cmd(
        "Page.captureScreenshot", {"clip": clip, "captureBeyondViewport": at[1] + at[3] > 800}
    )
    return Image.open(io.BytesIO(base64.b64decode(shot["data"]))).convert("RGB")


def average(picture: Image.Image, rect: Sequence[float]) -> list[float] | None:
    left, top, width, height = rect
    # Whole pixels alone: browsers snap what stands between two of them in a page, and not in a drawing.
    box = (ceil(left), ceil(top), floor(left + width), floor(top + height))
    box = (max(0, box[0]), max(0, box[1]), min(picture.width, box[2]), min(picture.height, box[3]))
    if box[2] - box[0] < 4 or box[3] - box[1] < 4:
        return None
    return [mean / 255 for mean in ImageStat.Stat(picture.crop(box)).mean]


def alike_on_all_pages(site: Site) -> Site:
    """Without what is otherwise on each page: a trail is drawn as long as it gets, a pager stands on one page alone."""

    def kept(cell: Cell) -> Cell:
        return cell.replaced(items=tuple(item for item in cell.items if not isinstance(item, Pager | Trail)))

    pieces = (
        piece.replaced(rows=tuple(row.replaced(cells=tuple(map(kept, row.cells))) for row in piece.rows))
        for piece in site.pieces
    )
    return site.replaced(pieces=tuple(pieces))


def faults_of(
    driver: webdriver.Chrome,
    port: int,
    files: dict[str, bytes],
    site: Site,
    contents: dict[str, bytes],
    widths: Sequence[int],
    languages: Sequence[str],
) -> tuple[int, list[Any]]:
    """Of every piece that shows on some page in one of the languages: how many parts were compared, and what was wrong."""
    site = alike_on_all_pages(site)
    fitter = fitter_of(shelf(), contents.__getitem__, 2026, foresees=False)
    site = fitter.resolved(site)
    composer = Composer(site, shelf(), contents.__getitem__, marks=True, year=2026, fitter=fitter)
    drawer, coverage = PieceDrawer(site, fitter), Coverage(site)
    files.clear()
    files.update({asset.path: contents[asset.content] for asset in site.assets})
    compared, wrong = 0, []
    for language in languages:
        for piece in site.pieces:
            page = next(
                (
                    page
                    for page in site.pages
                    if page.language == language and page.content and piece in shown_first(coverage, page)
                ),
                None,
            )
            if page is None or isinstance(piece, Drawer | Gate):
                continue
            files["/piece.html"] = composer.page(page, contents[page.content or ""], asking=piece.id)
            files.update(dict(composer.parts()))
            for width in widths:
                drawing = drawer.draw(piece, language, width)
                driver.execute_cdp_cmd(
                    "Emulation.setDeviceMetricsOverride",
                    {"width": width, "height": 800, "deviceScaleFactor": 1, "mobile": False},
                )
                if drawing is None:
                    continue
                svg = html([drawn_svg(drawing, shelf(), lambda path: path, "one", piece.name)])
                files["/small.html"] = (
                    f"<!doctype html><style>body{{margin:0;background:#fff}}svg{{display:block;width:{drawing.width}px}}</style>{svg}".encode()
                )
                number, faults = compare(drawing, *pictured_both(driver, port, piece.id, drawing))
                if faults:
                    # What gives way to something of the page may do so late, on a machine that is busy.
                    number, faults = compare(drawing, *pictured_both(driver, port, piece.id, drawing))
                compared += number
                wrong += [(language, piece.id, width, *fault) for fault in faults]
    return compared, wrong


def shown_first(coverage: Coverage, page: Page) -> list[Piece]:
    """Of those that are for some, and their rivals, the first alone: the others are not in a marked page."""
    return [there[0] for in_slot in coverage.may_show(page).values() for there in in_slot if there]


def pictured_both(
    driver: webdriver.Chrome, port: int, piece: str, drawing: Drawing
) -> tuple[dict[str, list[list[float]]], Image.Image, Image.Image]:
    """Where the parts of a piece are in its page, its picture there, and that of its drawing."""
    driver.get(f"http://127.0.0.1:{port}/piece.html")
    load_faces(driver)
    driver.execute_script(_PLACES, piece)
    places, there = wait_for(lambda: seen_still(driver, piece))
    driver.get(f"http://127.0.0.1:{port}/small.html")
    return places, there, pictured(driver, (0, 0, drawing.width, drawing.height))


def seen_still(driver: Any, piece: str) -> tuple[Any, Image.Image] | None:
    """Where the parts of a piece are, and its picture; None where something moved meanwhile: what comes in, or gives way
    to the footer, is told to some frames after the page is there, and later on a machine that is busy."""
    if not driver.execute_async_script(_IS_STILL):
        return None
    at, places = driver.execute_script(_PLACES, piece)
    picture = pictured(driver, at)
    is_still = driver.execute_async_script(_IS_STILL) and driver.execute_script(_PLACES, piece) == [at, places]
    return (places, picture) if is_still else None


_IS_STILL = """const done = arguments[0], framed = (then) => requestAnimationFrame(() => requestAnimationFrame(then));
setTimeout(() => framed(() => done(document.getAnimations().length === 0)), 60)"""


def overlap(one: Rect, other: Rect) -> bool:
    across = min(one.left + one.width, other.left + other.width) - max(one.left, other.left)
    down = min(one.top + one.height, other.top + other.height) - max(one.top, other.top)
    return across > 1 and down > 1


def shapes_in(drawing: Drawing) -> Iterator[Any]:
    waiting = [shape for shape, _ in drawing.shapes]
    while waiting:
        shape = waiting.pop()
        yield shape
        if isinstance(shape, Clipped):
            waiting += [inner for inner, _ in shape.shapes]


def compare(
    drawing: Drawing, places: dict[str, list[list[float]]], there: Image.Image, here: Image.Image
) -> tuple[int, list[Any]]:
    compared, wrong = 0, []
    # Which of two that lie over each other is the upper one is nothing that a small picture tells.
    items = [shape.rect for shape, _ in drawing.shapes if isinstance(shape, Ground) and shape.node.startswith("it-")]
    pictures = [shape.rect for shape in shapes_in(drawing) if isinstance(shape, PictureShown)]
    collides = any(overlap(one, other) for one, other in combinations(items, 2))
    for shape, _ in drawing.shapes:
        if not isinstance(shape, Ground) or not shape.node or shape.node not in places or shape.rect.width < 1:
            continue
        compared += 1
        nearest = min(
            places[shape.node],
            key=lambda place: sum(abs(one - other) for one, other in zip(place, shape.rect, strict=True)),
        )
        if any(abs(one - other) > MOST_PX for one, other in zip(nearest, shape.rect, strict=True)):
            wrong.append(
                (shape.node, "place", [round(one, 1) for one in shape.rect], [round(one, 1) for one in nearest])
            )
            continue
        # Of less than that one column of pixels at an edge, drawn or not, is more than the share.
        if collides or min(shape.rect.width, shape.rect.height) < LEAST_COLOUR_PX:
            continue
        seen, drawn = average(there, nearest), average(here, shape.rect)
        # So it is with a row and a column where a picture ends: it may be black to its very edges.
        has_picture = any(overlap(shape.rect, picture) for picture in pictures)
        most = max(MOST_SHARE, 1 / shape.rect.width + 1 / shape.rect.height) if has_picture else MOST_SHARE
        if seen and drawn and any(abs(one - other) > most for one, other in zip(seen, drawn, strict=True)):
            wrong.append((shape.node, "colour", [round(one, 3) for one in drawn], [round(one, 3) for one in seen]))
    return compared, wrong


def test_every_piece_of_the_demo_is_drawn_as_it_is_painted(chromium: webdriver.Chrome) -> None:
    site, contents = ostrey()
    with served() as (files, port):
        compared, wrong = faults_of(chromium, port, files, site, contents, (390, 1120), ("en", "ar"))
    assert compared > 300
    assert wrong == []


def test_generated_pieces_are_drawn_as_they_are_painted(chromium: webdriver.Chrome) -> None:
    compared, wrong = 0, []
    with served() as (files, port):
        for seed in range(SITES):
            site, contents = FittedMaker(seed).site()
            number, faults = faults_of(chromium, port, files, site, contents, (420, 1200), (site.language,))
            compared += number
            wrong += [(seed, *fault) for fault in faults]
    assert compared > 200
    assert wrong == [], (len(wrong), compared)

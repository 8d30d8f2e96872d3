"""What does Chromium do with a generated site's pieces while its page is scrolled, and does `core.movement` say the
same?"""

from __future__ import annotations

import random
from typing import Any

from selenium import webdriver

from upper_rim.core.movement.play import SeenPiece, play
from upper_rim.core.movement.scene import Scene, Scenes
from upper_rim.core.output.fitting import fitter_of
from upper_rim.core.output.page.compose import Composer
from upper_rim.shipped import shelf

from .browser.conftest import load_faces
from .fit_judge import Tally
from .moving_sites import MovingMaker

RECTANGLE_PX = 1.0

_SCROLLED = r"""
const [positions, key, pieces, done] = [...arguments];
const frame = () => new Promise((next) => requestAnimationFrame(next));
const look = () => {
  const found = {};
  for (const id of pieces) {
    const piece = document.querySelector(`[data-rim-node="${id}"]`);
    if (!piece || !piece.getClientRects().length) continue;
    const own = getComputedStyle(piece);
    const drawn = [...piece.querySelectorAll(`:scope>.${key}-over`)].find((over) => over.getClientRects().length) ?? piece.querySelector(`:scope>.${key}-ground`) ?? piece;
    const { left, top, width, height, bottom, right } = drawn.getBoundingClientRect(), style = getComputedStyle(drawn);
    const out = bottom <= 0.5 || top >= innerHeight - 0.5 || right <= 0.5 || left >= document.documentElement.clientWidth - 0.5;
    found[id] = { left, top, width, height, out, hidden: style.visibility !== 'visible' || Number(own.opacity) === 0, opacity: Number(own.opacity), stage: own.getPropertyValue(`--${key}-stage`).trim() };
  }
  return { y: scrollY, whole: document.documentElement.scrollHeight, found };
};
(async () => {
  const moments = [];
  for (const y of positions) {
    scrollTo(0, y);
    for (let n = 0; n < 2; n += 1) await frame();
    document.getAnimations().forEach((one) => one instanceof CSSTransition && one.finish());
    moments.push(look());
  }
  done(moments);
})();
"""


def calm(driver: webdriver.Chrome, *, is_asked: bool = True) -> None:
    """Asks for reduced motion, or for none in particular."""
    features = [{"name": "prefers-reduced-motion", "value": "reduce" if is_asked else ""}]
    driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": features})


def looks_through(driver: webdriver.Chrome, viewport: tuple[int, int]) -> None:
    metrics = {"width": viewport[0], "height": viewport[1], "deviceScaleFactor": 1, "mobile": False}
    driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)


def compare_movement(
    seed: int, driver: webdriver.Chrome, files: dict[str, bytes], port: int, tally: Tally, moments: int = 24
) -> None:
    """One generated site, through its viewports, along a path of so many moments of chance each."""
    maker = MovingMaker(seed)
    site, contents = maker.site()
    fitter = fitter_of(shelf(), contents.__getitem__, 2026, foresees=False)
    page = site.pages[0]
    composer = Composer(fitter.resolved(site), shelf(), contents.__getitem__, marks=True, year=2026, fitter=fitter)
    files.clear()
    files["/"] = composer.page(page, contents[page.content or ""])
    files.update(dict(composer.parts()))
    files.update({asset.path: contents[asset.content] for asset in site.assets})
    chance = random.Random(seed)
    scenes = Scenes(fitter, site)
    for viewport in maker.viewports:
        top = scenes.of(page, viewport, maker.shape_at(0.0)).content_top_px
        is_calm = chance.random() < 0.5
        laid = scenes.of(page, viewport, maker.shape_at(top), calm=is_calm)
        positions = _path(chance, laid, moments)
        looks_through(driver, viewport)
        driver.get(f"http://127.0.0.1:{port}/")
        load_faces(driver)
        calm(driver, is_asked=is_calm)
        names = [piece.id for piece in site.pieces]
        observed = driver.execute_async_script(_SCROLLED, positions, site.key, names)
        told = f"{seed} at {viewport[0]}x{viewport[1]}"
        whole = observed[0]["whole"]
        tally.note("pages", abs(whole - laid.page_px) <= RECTANGLE_PX, f"{told}: page {laid.page_px:.2f}, seen {whole}")
        played = play(laid, [moment["y"] for moment in observed])
        for at, moment in enumerate(observed):
            faults = list(_faults(played.moment(at), moment["found"], laid, site))
            tally.note("moments", not faults, f"{told}, moment {at} at {moment['y']}: " + "; ".join(faults))
            tally.compared["rectangles"] += len(laid.bodies)


def _path(chance: random.Random, laid: Scene, moments: int) -> list[int]:
    most = int(laid.scrolls_px)
    y, found = 0, [0]
    for _ in range(moments):
        step = chance.choice([chance.randrange(-60, 90), chance.randrange(-700, 900), chance.randrange(-5, 6)])
        y = chance.randrange(0, most + 1) if chance.random() < 0.15 else min(most, max(0, y + step))
        found.append(y)
    return found


def _faults(predicted: list[SeenPiece], found: dict[str, Any], laid: Scene, site: Any) -> Any:
    stages = {piece.id: [stage.id for stage in getattr(piece, "stages", ())] for piece in site.pieces}
    for seen in predicted:
        body = laid.body(seen.piece)
        there = found.get(seen.piece)
        if there is None or body is None:
            yield f"{seen.piece} is not there"
            continue
        number = there["stage"] or "0"
        stage = stages[seen.piece][int(number) - 1] if number != "0" else None
        if stage != seen.stage:
            yield f"{seen.piece} in stage {seen.stage}, seen in {stage}"
        if body.place != "flow" and not seen.shown:
            if not (there["hidden"] or there["out"]):
                yield f"{seen.piece} is still there"
            continue
        if there["hidden"]:
            yield f"{seen.piece} is hidden"
            continue
        if abs(there["opacity"] - seen.opacity) > 0.01:
            yield f"{seen.piece} opacity {seen.opacity}, seen {there['opacity']}"
        for side in ("left", "top", "width", "height"):
            wanted = getattr(seen, f"{side}_px")
            if abs(wanted - there[side]) > RECTANGLE_PX:
                yield f"{seen.piece} {side} {wanted:.2f}, seen {there[side]:.2f}"
    for piece in found:
        if laid.body(piece) is None:
            yield f"{piece} is there"

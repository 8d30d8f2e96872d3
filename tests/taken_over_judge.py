"""Does what begins with an old part of a page look like it? Asked of Chromium, on the published page.

What is compared is read from both pages alone: each text, picture and field of the old part, and the same one in the piece.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping
from functools import partial
from itertools import count
from pathlib import Path
from typing import Any, NamedTuple

from selenium import webdriver

from upper_rim.core.exchange.html.lifting import lifted
from upper_rim.core.exchange.imports.import_pages import ArchiveEntry, read_files
from upper_rim.core.exchange.taken_over.making import Brought
from upper_rim.core.exchange.taken_over.measured import Measured
from upper_rim.core.exchange.taken_over.taking import Asked, Taken, drawings_in, take_over
from upper_rim.core.model.beginning import blank_site
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.site import Asset, Lift, Page, Site
from upper_rim.core.output.fitting import fitter_of
from upper_rim.core.output.page.compose import Composer
from upper_rim.shipped import shelf

from .browser.conftest import load_faces
from .old_sites import OldSite

WIDTH = 1280
_MEASURING = Path("upper_rim/web/live/stage_scripts/measuring.js")

SEEN = r"""
const [selector, isPiece] = arguments, found = [];
const top = isPiece ? document.querySelector(selector) : [...document.querySelectorAll(selector)][0];
const shows = (part) => part.checkVisibility({visibilityProperty: true, opacityProperty: true});
const rect = ({left, top, width, height}) => [left + scrollX, top + scrollY, width, height];
const walk = (part) => {
  if (part.nodeType === 3) {
    const text = part.data.replace(/\s+/g, ' ').trim();
    if (!text || /^[\s|/·•]*$/.test(text) || !shows(part.parentElement)) return;
    const range = document.createRange();
    range.selectNodeContents(part);
    const box = range.getBoundingClientRect();
    if (box.width < 2 || box.right < 0) return;
    const {color} = getComputedStyle(part.parentElement);
    found.push({what: 'text', text, rect: rect(box), color});
  } else if (part.nodeType === 1) {
    if (/^(script|style|template)$/.test(part.localName) || !shows(part)) return;
    // A search's button says what it does by a sign of its own.
    if (part.localName === 'button' && part.closest('form')) return;
    // A line about rights is one text, with the year in a part of its own.
    if (part.querySelector(':scope > [data-rim-year]')) return found.push({what: 'text', text: part.textContent, rect: rect(part.getBoundingClientRect()), color: getComputedStyle(part).color});
    const box = part.getBoundingClientRect(), css = getComputedStyle(part);
    if (part.localName === 'img' || (part.localName === 'svg' && box.width > 1)) return box.width > 1 && found.push({what: 'picture', text: '', rect: rect(box)});
    if (part.localName === 'input') return found.push({what: 'field', text: '', rect: rect(box), color: css.backgroundColor});
    if (!isPiece && css.backgroundImage.startsWith('url') && !part.children.length) return found.push({what: 'picture', text: '', rect: rect(box)});
    if (isPiece && css.maskImage !== 'none' && box.width > 1 && part.closest('a')) return found.push({what: 'picture', text: '', rect: rect(box)});
    [...part.childNodes].forEach(walk);
  }
};
walk(top);
// What is painted at a place of the window.
const groundAt = (x, y) => {
  // A cell's row lies behind it, and is not among them.
  for (const part of document.elementsFromPoint(x, y).flatMap((one) => one.localName === 'td' ? [one, one.parentElement] : [one])) {
    const {backgroundColor, backgroundImage} = getComputedStyle(part);
    if (backgroundImage.includes('gradient')) return 'gradient';
    if (!/, 0\)$/.test(backgroundColor)) return backgroundColor;
  }
  return 'rgb(255, 255, 255)';
};
for (const one of found) {
  if (one.what !== 'text') continue;
  const [left, y, width, height] = one.rect;
  scrollTo(0, y - 100);
  one.ground = groundAt(left + width / 2 - scrollX, y + height / 2 - scrollY);
}
scrollTo(0, 0);
const {top: begins, height} = top.getBoundingClientRect(), painted = [];
const {position} = getComputedStyle(top);
scrollTo(0, begins - 100);
for (let down = 4; down < height; down += 8) for (let share = 0.02; share < 1; share += 0.12) painted.push(groundAt(innerWidth * share, begins + (position === 'fixed' ? 0 : -scrollY) + down));
scrollTo(0, 0);
return {found, top: begins, height, painted};
"""


class Thing(NamedTuple):
    """Something of the old part, and how far from it the same thing of the piece stands; None where there is none."""

    name: str
    away: tuple[float, float] | None
    colours: tuple[str, str]
    grounds: tuple[str, str]

    @property
    def is_near(self) -> bool:
        return self.away is not None and max(map(abs, self.away)) <= 6

    @property
    def is_alike(self) -> bool:
        return self.colours[0] == self.colours[1] and self.grounds[0] == self.grounds[1]


def brought_in(old: OldSite) -> tuple[Site, dict[str, bytes]]:
    numbers = count(1)
    site = blank_site(old.name.title(), "oldsite", lambda letters: f"{letters}-{next(numbers)}")
    entries = [ArchiveEntry(name.removeprefix("/"), partial(bytes, data)) for name, data in old.files.items()]
    came = list(read_files(entries, lambda letters: f"{letters}-{next(numbers)}", "en", (), []))
    pages = sorted((one.value for one in came if isinstance(one.value, Page)), key=lambda page: page.path)
    assets = sorted((one.value for one in came if isinstance(one.value, Asset)), key=lambda asset: asset.path)
    shapes = {one.shape.id: one.shape for one in came if one.shape}
    site = site.replaced(pages=tuple(pages), assets=tuple(assets), shapes=tuple(shapes.values()))
    return site, {one.value.content or "": one.content for one in came}


def measured_in(driver: webdriver.Chrome, selector: str) -> Measured:
    script = _MEASURING.read_text().replace("export const", "const")
    told = driver.execute_script(
        f"{script}\nreturn rimMeasuring.measured([...document.querySelectorAll(arguments[0])]);", selector
    )
    return Measured.model_validate(told)


class Judged(NamedTuple):
    """`painted`: the share of places at which the same is painted; `higher_px`: by how much the piece is higher."""

    painted: float
    higher_px: float
    taken: Taken
    things: list[Thing]
    site: Site


def judge(
    old: OldSite, selector: str, slot: Any, driver: webdriver.Chrome, files: dict[str, bytes], port: int
) -> Judged:
    """Begins a piece with a part of an old site, publishes it, and compares."""
    site, contents = brought_in(old)
    origin = f"http://127.0.0.1:{port}"
    page = next(page for page in site.pages if page.path == "/")
    metrics = {"width": WIDTH, "height": 800, "deviceScaleFactor": 1, "mobile": False}
    driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
    files.clear()
    files.update(old.files)
    files["/"] = old.files["/index.html"]
    driver.get(f"{origin}/?{old.name}")
    before = driver.execute_script(SEEN, selector, False)
    measured = measured_in(driver, selector)
    drawings = drawings_in(measured)
    contents |= {asset.content: data for asset, data in drawings.values()}
    fitter = fitter_of(shelf(), contents.__getitem__, 2026)
    numbers = count(1)
    taken = take_over(
        site,
        measured,
        Asked(slot, slot.title(), {"kind": "below", "path": "/"}, origin, page.language),
        lambda letters: f"{letters}-took-{next(numbers)}",
        fitter,
        None,
        Brought({source: asset for source, (asset, _) in drawings.items()}),
    )
    assert isinstance(taken, Taken), taken
    with_piece = apply(site, taken.edit)
    assert isinstance(with_piece, Site), with_piece
    lift = Lift(id="lf-old", selector=selector)
    ((_, cuts),) = lifted([(contents[page.content or ""], {lift.id: selector})], selector)
    assert cuts
    pages = tuple(one.replaced(cuts=cuts) if one is page else one for one in with_piece.pages)
    with_piece = with_piece.replaced(pages=pages, lifts=(lift,))
    composer = Composer(with_piece, shelf(), contents.__getitem__, marks=True, year=2026, fitter=fitter)
    files.clear()
    files["/"] = composer.page(pages[site.pages.index(page)], contents[page.content or ""])
    files.update(dict(composer.parts()))
    files.update({asset.path: contents[asset.content] for asset in with_piece.assets})
    driver.get(f"{origin}/?{old.name}+{slot}")
    load_faces(driver)
    after = driver.execute_script(SEEN, f'[data-rim-node="{taken.piece}"]', True)
    # A footer stands where the page ends, which may be elsewhere than before.
    moved = after["top"] - before["top"] if slot == "footer" else 0.0
    pairs = list(zip(before["painted"], after["painted"], strict=False))
    painted = sum(old == new for old, new in pairs) / max(1, len(pairs))
    return Judged(
        painted,
        after["height"] - before["height"],
        taken,
        [*_things(before["found"], after["found"], moved)],
        with_piece,
    )


def _things(before: list[Mapping[str, Any]], after: list[Mapping[str, Any]], moved: float) -> Iterator[Thing]:
    left = list(after)
    for old in before:
        same = [new for new in left if (new["what"], _said(new["text"])) == (old["what"], _said(old["text"]))]
        new = min(same, key=lambda one: abs(one["rect"][0] - old["rect"][0]), default=None)
        name = f"{old['what']} {old['text'][:30]}"
        if new is None:
            yield Thing(name, None, ("", ""), ("", ""))
            continue
        left.remove(new)
        across = new["rect"][0] - old["rect"][0]
        down = _middle(new["rect"]) - _middle(old["rect"]) - moved
        colours = (old.get("color", ""), new.get("color", ""))
        yield Thing(name, (across, down), colours, (old.get("ground", ""), new.get("ground", "")))


def _said(text: str) -> str:
    """A line about rights goes with the year."""
    return re.sub(r"\d{4}", "0000", re.sub(r"(\d{4}) ?[–-] ?\d{4}", r"\1", text))


def _middle(rect: list[float]) -> float:
    return rect[1] + rect[3] / 2

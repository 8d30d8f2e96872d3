"""What does Chromium make of a generated site at a width, and does fit say the same?

The browser's side is read from the published page alone: boxes, and where the text in them stands.
"""

from __future__ import annotations

import random
import threading
from collections import Counter
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass, field
from functools import partial
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from itertools import pairwise
from typing import Any

from selenium import webdriver

from upper_rim.core.exchange.imports.import_pages import ArchiveEntry, digest, read_files
from upper_rim.core.fit.css.boxes import Frame
from upper_rim.core.fit.rows.fitter import Fitter, stands_in_lines
from upper_rim.core.fit.rows.sweep import FROM_PX, TO_PX, RowFit, frame_at
from upper_rim.core.kinds.pieces.base import Piece
from upper_rim.core.kinds.pieces.consent import ConsentQuestion
from upper_rim.core.kinds.pieces.gate import Gate
from upper_rim.core.model.site import Asset, Page, Site
from upper_rim.core.output.fitting import fitter_of
from upper_rim.core.output.page.compose import Composer
from upper_rim.shipped import shelf

from .browser.conftest import load_faces
from .fitted_sites import FittedMaker
from .shaped_sites import shaped_at_random

ITEM_PX, HEIGHT_PX, CHANGE_PX = 0.5, 1.0, 1
"""How far a prediction may be off: an item's width, a row's height, the width at which a state changes."""
_ENTRIES = ("en-", "pf-", "pl-", "ff-")

_OBSERVE = r"""
const [pieces] = arguments, out = {boxes: {}, rows: {}};
const nodes = (root) => [...root.querySelectorAll('[data-rim-node]')];
const hidden = (part) => part.getClientRects().length === 0;
// A heading around a logo has no box of its own.
const boxed = (parts) => [...parts].flatMap((part) => getComputedStyle(part).display === 'contents' ? boxed(part.children) : [part]);
const away = (part) => getComputedStyle(part).position === 'absolute' || getComputedStyle(part).position === 'fixed';
// All that is drawn of an item: its boxes, and its text wherever that stands.
const drawn = (item) => {
  let left = Infinity, right = -Infinity;
  const take = (r) => { if (r.width && r.height) { left = Math.min(left, r.left); right = Math.max(right, r.right) } };
  const walk = (part) => {
    if (part.nodeType === 3) {
      if (!part.data.trim()) return;
      const range = document.createRange();
      range.selectNodeContents(part);
      [...range.getClientRects()].forEach(take);
    } else if (part.nodeType === 1 && !hidden(part) && !(part !== item && away(part))) {
      take(part.getBoundingClientRect());
      part.childNodes.forEach(walk);
    }
  };
  walk(item);
  return [left, right];
};
const tops = (rects) => new Set(rects.filter((r) => r.width > 0).map((r) => Math.round(r.top))).size;
const texts = (item) => {
  const found = [], walker = document.createTreeWalker(item, NodeFilter.SHOW_TEXT);
  for (let text; (text = walker.nextNode());) {
    let part = text.parentElement, out = false;
    for (let up = part; up && up !== item; up = up.parentElement) out = out || away(up);
    if (!out && !hidden(part) && text.data.trim()) found.push(text);
  }
  return found;
};
const lines = (text) => {
  let block = text.parentElement;
  while (getComputedStyle(block).display === 'inline') block = block.parentElement;
  const range = document.createRange();
  // Beside blocks a text has lines of its own.
  range.selectNodeContents([...block.children].some((part) => getComputedStyle(part).display === 'block') ? text : block);
  return tops([...range.getClientRects()]);
};
const divided = (text) => {
  for (const word of text.data.matchAll(/[^\s]+/g)) {
    const range = document.createRange();
    range.setStart(text, word.index); range.setEnd(text, word.index + word[0].length);
    if (tops([...range.getClientRects()]) > 1) return true;
  }
  return false;
};
// Boxes side by side or one below the other: whether they stand on more than one line.
const folded = (boxes) => {
  const shown = boxes.map((box) => [box.getBoundingClientRect(), getComputedStyle(box)]).filter(([r]) => r.width > 0 && r.height > 0);
  const spans = shown.map(([r, css]) => [r.top - parseFloat(css.marginTop), r.bottom + parseFloat(css.marginBottom)]);
  return spans.some(([top], at) => at && spans.slice(0, at).every(([, bottom]) => top >= bottom - 0.5));
};
const edges = (css, ...names) => names.reduce((sum, name) => sum + parseFloat(css[name]), 0);
const roomIn = (part) => part.getBoundingClientRect().height - edges(getComputedStyle(part), 'paddingTop', 'paddingBottom', 'borderTopWidth', 'borderBottomWidth');
const outer = (part) => part.getBoundingClientRect().height + edges(getComputedStyle(part), 'marginTop', 'marginBottom');
for (const [id, inLines] of pieces) {
  const piece = document.querySelector(`[data-rim-node="${id}"]`);
  for (const part of [piece, ...nodes(piece)]) {
    const r = part.getBoundingClientRect(), node = part.dataset.rimNode;
    const item = part.parentElement.closest('[data-rim-node^="it-"]');
    out.boxes[/^(en|pf|pl|ff)-/.test(node) && item ? `${item.dataset.rimNode}/${node}` : node] = [r.width, r.height];
  }
  for (const row of piece.querySelectorAll('.qfit-row')) {
    const found = [], strict = [], box = row.getBoundingClientRect(), linesOf = new Map();
    const clips = (over) => { if (over > 0.55) found.push('clips'); if (over > 0.45) strict.push('clips') };
    clips(outer(row.querySelector('.qfit-cells')) - roomIn(row));
    for (const cell of row.querySelectorAll('.qfit-cell')) {
      const items = boxed(cell.children).filter((item) => !hidden(item) && !away(item) && !item.matches('.qfit-spacer,:has(>.qfit-spacer)'));
      const standing = boxed(cell.children).filter((item) => !hidden(item) && !away(item));
      const within = standing.map((item) => [item.getBoundingClientRect(), getComputedStyle(item)]);
      clips(Math.max(...within.map(([r, css]) => r.bottom + parseFloat(css.marginBottom))) - Math.min(...within.map(([r, css]) => r.top - parseFloat(css.marginTop))) - roomIn(cell));
      const lists = items.flatMap((item) => [item, ...item.querySelectorAll('.qfit-list')].filter((list) => list.matches('ul.qfit-list') && !hidden(list) && getComputedStyle(list).display === 'flex' && getComputedStyle(list).flexWrap === 'wrap'));
      if (inLines) {
        if (folded(items) || lists.some((list) => folded([...list.children]))) found.push('wraps');
        const flowing = '.qfit-more,.qfit-pictures,.qfit-rich,.qfit-contact,.qfit-line,.qfit-map,.qfit-posts time,.qfit-list-title';
        if (items.some((item) => texts(item).some((text) => !text.parentElement.closest(flowing) && lines(text) > 1))) found.push('wraps');
      }
      if (items.some((item) => texts(item).some(divided))) found.push('breaks words');
      const reach = items.map(drawn).filter(([left, right]) => right > left);
      if (!reach.length) continue;
      const span = [Math.min(...reach.map((r) => r[0])), Math.max(...reach.map((r) => r[1]))];
      const out = Math.max(box.left - span[0], span[1] - box.right);
      if (out > 0.1) found.push('overflows');
      if (out > 1 / 64) strict.push('overflows');
      const top = Math.round(cell.parentElement.getBoundingClientRect().top);
      const line = getComputedStyle(cell.parentElement).gridTemplateColumns.split(' ').length;
      const number = Math.floor([...cell.parentElement.children].indexOf(cell) / line);
      linesOf.set(number, [...(linesOf.get(number) ?? []), span]);
    }
    for (const spans of linesOf.values())
      spans.forEach((span, at) => {
        const over = at ? Math.min(span[1], spans[at - 1][1]) - Math.max(span[0], spans[at - 1][0]) : 0;
        if (over > 0.5) found.push('collides');
        if (over > 0.45) strict.push('collides');
      });
    out.rows[row.dataset.rimNode] = [[...new Set(found)], [...new Set([...found, ...strict])]];
  }
}
return out;
"""
_ORDER = ("wraps", "breaks words", "clips", "overflows", "collides")


@dataclass
class Tally:
    """How many predictions were compared and how many were off, by kind; and the faults themselves, each a line."""

    compared: Counter[str] = field(default_factory=Counter)
    off: Counter[str] = field(default_factory=Counter)
    faults: list[str] = field(default_factory=list)
    beside_bars: int = 0

    def note(self, kind: str, well: bool, fault: str) -> None:
        self.compared[kind] += 1
        if not well:
            self.off[kind] += 1
            self.faults.append(f"{kind}: {fault}")

    def share(self, kind: str) -> float:
        """Of the predictions that were right."""
        return 1 - self.off[kind] / max(1, self.compared[kind])


class Files(dict[str, bytes]):
    """What a server gives, by path. `broken_off`: after how many bytes the connection ends within a file."""

    broken_off: dict[str, int]


@contextmanager
def served() -> Iterator[tuple[Files, int]]:
    """Files by path, changed while they are served, on a loopback port."""
    files = Files()
    files.broken_off = {}

    class Handler(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            data = files.get(self.path.partition("?")[0])
            self.send_response(200 if data is not None else 404)
            kind = {"svg": "image/svg+xml", "css": "text/css", "js": "text/javascript", "woff2": "font/woff2"}
            self.send_header("content-type", kind.get(self.path.rpartition(".")[2], "text/html; charset=utf-8"))
            self.send_header("content-length", str(len(data or b"")))
            if self.path.endswith(".woff2"):
                # A face is what its file's name says; a browser may keep it from one site to the next.
                self.send_header("cache-control", "max-age=3600")
            self.end_headers()
            self.wfile.write((data or b"")[: files.broken_off.get(self.path)])

        def log_message(self, *_: Any) -> None:
            return

    server = ThreadingHTTPServer(("127.0.0.1", 0), Handler)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    try:
        yield files, server.server_address[1]
    finally:
        server.shutdown()
        server.server_close()


def publish_into(files: dict[str, bytes], site: Site, contents: Mapping[str, bytes], fitter: Fitter) -> None:
    """A site of one page, with all that it fetches; of a gate, what stands in its place."""
    composer = Composer(site, shelf(), contents.__getitem__, marks=True, year=2026, fitter=fitter)
    (page,), first = site.pages, site.pieces[0]
    files.clear()
    files["/"] = (
        composer.gate_page(first, site.language)
        if isinstance(first, Gate)
        else composer.page(page, contents[page.content or ""], asking=first.id)
    )
    files.update(dict(composer.parts()))
    files.update({asset.path: contents[asset.content] for asset in site.assets})


def compare(
    seed: int,
    driver: webdriver.Chrome,
    files: dict[str, bytes],
    port: int,
    tally: Tally,
    random_widths: int = 4,
    gate: type[Gate | ConsentQuestion] | None = None,
    *,
    shaped: bool = False,
) -> None:
    """One generated site: at each predicted change of a state, one px before and after, and at some widths of
    chance. `gate`: a gate of that kind, or a question about consent, by itself. `shaped`: on a high page of a shape of
    chance, beside whatever scroll bar it has there."""
    site, contents = FittedMaker(seed, gate).site()
    if shaped:
        site, contents = _on_shaped_page(site, contents, seed)
    # Without foresight: what is published is what counts.
    fitter = fitter_of(shelf(), contents.__getitem__, 2026, foresees=False)
    publish_into(files, site, contents, fitter)
    driver.get(f"http://127.0.0.1:{port}/?{seed}" if "/?" in files else f"http://127.0.0.1:{port}/")
    load_faces(driver)
    driver.execute_script(_COME)
    if shaped:
        bar = float(driver.execute_script("return innerWidth - document.documentElement.clientWidth"))
        tally.note("bars", bar in {0, 15}, f"{seed}: a scroll bar of {bar} px")
        tally.beside_bars += bar > 0
        fitter = fitter.beside_bar(bar)
    fits = [(piece, fit) for piece in site.pieces for fit in fitter.rows(site, piece)]
    chance = random.Random(seed)
    widths = {chance.randrange(FROM_PX, TO_PX + 1) for _ in range(random_widths)}
    changes = [change for piece, fit in fits for change in _changes(fit)]
    asked = chance.sample(changes, min(len(changes), 12))
    near = {px + by for _, px, _, _ in asked for by in (-CHANGE_PX - 1, CHANGE_PX)} & set(range(FROM_PX, TO_PX + 1))
    observed = {width: _observed(driver, site, width) for width in sorted(widths | near)}
    for width in widths:
        _compare_boxes(seed, site, fits, width, observed[width], tally)
        for _, fit in fits:
            laid = fit.at(width)
            if laid is not None:
                _note_state(tally, "states", seed, fit, width, _plain(laid.found.state), observed[width])
    for fit, px, before, after in asked:
        low, high = px - CHANGE_PX - 1, px + CHANGE_PX
        if low in observed and high in observed:
            found = (_states(observed[low], fit.row), _states(observed[high], fit.row))
            well = before in found[0] and after in found[1]
            tally.note("changes", well, f"{seed} {fit.row} at {px}: {before} to {after}, seen {found}")


def _on_shaped_page(site: Site, contents: Mapping[str, bytes], seed: int) -> tuple[Site, dict[str, bytes]]:
    """The same pieces on a page of others' making that has to be scrolled."""
    shaped, (page,) = shaped_at_random(seed), site.pages
    direction = ' dir="rtl"' if page.language == "ar" else ""
    high = f'{shaped.body}<p style="height: 3000px">Much more</p>'
    files = shaped._replace(root=f' lang="{page.language}"{direction}', body=high).files()
    entries = [ArchiveEntry(name, partial(bytes, data)) for name, data in files.items()]
    came = list(read_files(entries, lambda kind: f"{kind}-of-others", page.language, (), []))
    (taken,) = (one for one in came if isinstance(one.value, Page))
    pages = (page.replaced(content=taken.value.content, splice=taken.value.splice, shape=taken.value.shape),)
    assets = tuple(one.value for one in came if isinstance(one.value, Asset))
    shapes = (taken.shape,) if taken.shape else ()
    site = site.replaced(pages=pages, shapes=shapes, assets=(*site.assets, *assets))
    return site, {**contents, **{one.value.content or "": one.content for one in came}}


def _plain(state: str) -> str:
    return "fits" if state == "tight" else state


def _states(observed: dict[str, Any], row: str) -> set[str]:
    """What the row is in; both where it hangs on less than a tenth of a px how far something stands out. (Where that
    grows with the viewport's hundredth, a tenth is reached twenty px later.)"""
    return {max(found, key=_ORDER.index, default="fits") for found in observed["rows"].get(row, [[]])}


def _note_state(
    tally: Tally, kind: str, seed: int, fit: RowFit, width: int, state: str, observed: dict[str, Any]
) -> None:
    seen = _states(observed, fit.row)
    tally.note(kind, state in seen, f"{seed} {fit.row} at {width}: {state}, seen {seen}")


def _changes(fit: RowFit) -> Iterator[tuple[RowFit, int, str, str]]:
    """Widths at which the row comes into another state, that lasts for some px on both sides."""
    joined: list[list[Any]] = []
    for stretch in fit.stretches:
        state = _plain(stretch.state)
        if joined and joined[-1][0] == state and joined[-1][2] == stretch.from_px - 1:
            joined[-1][2] = stretch.to_px
        else:
            joined.append([state, stretch.from_px, stretch.to_px])
    for (before, start, end), (after, begin, last) in pairwise(joined):
        if begin == end + 1 and end - start > 2 * CHANGE_PX and last - begin > 2 * CHANGE_PX:
            yield fit, begin, before, after


_COME = "document.getAnimations().forEach((one) => one instanceof CSSTransition && one.finish())"
"""What comes by a transition is there."""


def _observed(driver: webdriver.Chrome, site: Site, width: int) -> dict[str, Any]:
    metrics = {"width": width, "height": 800, "deviceScaleFactor": 1, "mobile": False}
    driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
    found: dict[str, Any] = driver.execute_script(
        _OBSERVE, [[piece.id, stands_in_lines(piece)] for piece in site.pieces]
    )
    return found


def _compare_boxes(
    seed: int, site: Site, fits: list[tuple[Piece, RowFit]], width: int, observed: dict[str, Any], tally: Tally
) -> None:
    for _, fit in fits:
        laid = fit.at(width)
        if laid is None:
            continue
        for node, frame in boxes_of(frame_at(laid, width, 800.0)):
            if node not in observed["boxes"]:
                tally.note("items", False, f"{seed} {node} at {width} is not there")
                continue
            wide, high = observed["boxes"][node]
            told = f"{seed} {node} at {width}: {frame.width:.2f} x {frame.height:.2f}, seen {wide:.2f} x {high:.2f}"
            if node == fit.row:
                tally.note("heights", abs(high - laid.height_px(width)) <= HEIGHT_PX, told)
            else:
                tally.note("items", abs(wide - _px(frame.width)) <= ITEM_PX, told)


def _px(length: Any) -> float:
    return float(length)


def boxes_of(frame: Frame, item: str = "") -> Iterator[tuple[str, Frame]]:
    """Frames of nodes in a row, by id; of what an item lists, with the item's before it."""
    node, part = frame.box.node, frame.box.part
    if node.startswith("it-") and part in {"", "hinted"}:
        item = node
    if node and part in {"", "entry", "cell", "row", "profile", "field-line"}:
        yield f"{item}/{node}" if node.startswith(_ENTRIES) else node, frame
    for _, _, kid in frame.kids:
        yield from boxes_of(kid, item)


__all__ = ["CHANGE_PX", "HEIGHT_PX", "ITEM_PX", "Tally", "compare", "digest", "served"]

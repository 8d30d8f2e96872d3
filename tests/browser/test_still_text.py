"""Nothing moves when a face arrives: fallbacks are as wide and as tall as what they stand in for."""

from __future__ import annotations

import http.server
import json
import statistics
import threading
import time
from collections.abc import Iterator
from datetime import UTC, datetime
from functools import partial
from pathlib import Path

import pytest
from selenium import webdriver

from upper_rim.core.exchange.imports.import_pages import file_name
from upper_rim.core.output.publication import composer_of
from upper_rim.demo import ostrey, quillwort
from upper_rim.shipped import shelf

from .conftest import plain_chromium

FONT_DELAY_S = 0.04
MOST_SHIFT = 0.001


class SlowFonts(http.server.SimpleHTTPRequestHandler):
    """Sends fonts late and anew each time, so that the fallback is painted before the face is there; what else a page
    loads is kept."""

    protocol_version = "HTTP/1.1"

    def do_GET(self) -> None:
        if self.path.endswith(".woff2"):
            time.sleep(FONT_DELAY_S)
        super().do_GET()

    def end_headers(self) -> None:
        kept = self.path.endswith((".css", ".js", ".svg", ".png", ".jpg", ".webp"))
        self.send_header("Cache-Control", "max-age=600" if kept else "no-store")
        super().end_headers()

    def log_message(self, *_: object) -> None:
        pass


@pytest.fixture(scope="module")
def chromium() -> Iterator[webdriver.Chrome]:
    driver = plain_chromium(frames="hastened")
    driver.execute_cdp_cmd(
        "Page.addScriptToEvaluateOnNewDocument",
        {
            "source": "window.shifts = []; new PerformanceObserver((list) => { for (const entry of list.getEntries()) window.shifts.push(entry.value) }).observe({type: 'layout-shift', buffered: true});"
        },
    )
    yield driver
    driver.quit()


def watched(chromium: webdriver.Chrome, address: str) -> tuple[float, int]:
    """The layout shift of a page until its faces are there, and how many faces have arrived."""
    chromium.get(address)
    found = chromium.execute_async_script(
        "const done = arguments[0]; document.fonts.ready.then(() => requestAnimationFrame(() => setTimeout(() => done("
        "[window.shifts.reduce((sum, one) => sum + one, 0), [...document.fonts].filter((one) => one.status === 'loaded' && !/ [012]$/.test(one.family.replaceAll('\"', ''))).length]), 20)))"
    )
    return found[0], found[1]


def written(target: Path, data: bytes) -> None:
    target.parent.mkdir(parents=True, exist_ok=True)
    target.write_bytes(data)


@pytest.mark.parametrize("slug", ["ostrey", "quillwort"])
def test_the_swap_to_any_shipped_face_moves_nothing(chromium: webdriver.Chrome, tmp_path: Path, slug: str) -> None:
    site, contents = {"ostrey": ostrey, "quillwort": quillwort}[slug]()
    faces = [face.id for face in shelf().offered_faces]
    server = http.server.ThreadingHTTPServer(("127.0.0.1", 0), partial(SlowFonts, directory=str(tmp_path)))
    threading.Thread(target=server.serve_forever, daemon=True).start()
    too_much, seen, swapped = {}, 0, 0
    try:
        for asset in site.assets:
            written(tmp_path / file_name(asset.path), contents[asset.content])
        for number, face in enumerate(faces):
            composer = composer_of(site.replaced(face=face), shelf(), contents.__getitem__, datetime.now(UTC).year)
            # The first face comes to every page; each other one, where there are many, to one page of five.
            some = site.pages[number % 5 :: 5] if number and len(site.pages) > 12 else site.pages
            pages = [page for page in some if page.content and not page.bare]
            for page in pages:
                written(tmp_path / file_name(page.path), composer.page(page, contents[page.content or ""]))
            for path, data in composer.parts():
                written(tmp_path / path[1:], data)
            for width in (1280,) if number else (390, 1280):
                metrics = {"width": width, "height": 800, "deviceScaleFactor": 1, "mobile": False}
                chromium.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
                for page in pages if width == 1280 else pages[::12]:
                    address = f"http://127.0.0.1:{server.server_port}{page.path}"
                    shift, arrived = watched(chromium, address)
                    if shift > MOST_SHIFT:
                        # Once in some hundred loads on a busy machine something else moves; a face would move it again.
                        again = [watched(chromium, address)[0] for _ in range(5)]
                        shift = statistics.median(again)
                    seen += 1
                    swapped += arrived > 0
                    if shift > MOST_SHIFT:
                        too_much[f"{face} {width} {page.path}"] = round(shift, 5)
    finally:
        server.shutdown()
    assert too_much == {}, json.dumps(too_much, indent=1)
    assert seen > 40 and swapped == seen, "each page was seen with its face arriving"

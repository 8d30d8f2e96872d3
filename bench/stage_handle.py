"""How soon does the stage follow a handle that is dragged on it, in Chromium, measured in its page?

python -m bench stage_handle

It runs the whole application as ./start does, drags the handle of a logo's height, of a gap and of a padding sixty
times by a px and stops the clock, for each move, when the page is laid out anew in the frame that it was told in.
The yardstick: a move over the same page that nothing follows.
"""

from __future__ import annotations

import statistics
import sys
from collections.abc import Iterator

from tests.browser.conftest import Browser, handle_on_stage, wait_for

from .browsing import signed_in
from .measured import Measured, table

MOVES, ASKED_MS = 60, 16.0
HANDLES = (("it-logo", "height_px"), ("rw-main", "gap_px"), ("pc-main", "padding-block-end"))

_CLOCK = """
window.rimTook = [];
addEventListener('pointermove', ({timeStamp}) => requestAnimationFrame(() => {
  document.body.getBoundingClientRect();
  rimTook.push(performance.now() - timeStamp);
}), true);
"""


def measure(tiny: bool) -> Iterator[Measured]:
    moves = 3 if tiny else MOVES
    with signed_in("ostrey") as browser:
        yardstick = ("a move over the page", _median_ms(browser, *HANDLES[0], moves, is_held=False))
        for node, handle in HANDLES:
            told = f"{moves} moves of a handle: {handle}"
            yield Measured(told, _median_ms(browser, node, handle, moves), ASKED_MS, "ms", yardstick)


def _median_ms(browser: Browser, node: str, handle: str, moves: int, is_held: bool = True) -> float:
    browser.go(f"/s/ostrey/pieces/pc-main/?select={node}&tray=room")
    x, y = browser.on_screen(handle_on_stage(handle))
    browser.on_stage_js(_CLOCK)
    if not is_held:
        for at in range(moves):
            browser.mouse("mouseMoved", x + at, y + at)
        return _median(browser)
    with browser.held(x, y) as pull:
        for at in range(moves):
            pull(x + at / 2, y + at / 2)
        took = _median(browser)
    browser.settled()
    browser.press("undo")
    return took


def _median(browser: Browser) -> float:
    return statistics.median(float(one) for one in wait_for(lambda: browser.on_stage_js("return rimTook")))


if __name__ == "__main__":
    print(table(measure("--tiny" in sys.argv)))

"""How soon does the workbench show what was pressed, where the processor is slowed four times, measured in its page?

python -m bench slow_processor

It runs the whole application as ./start does and stops the clock, from the press, when the screen with the answer in it
is painted: of choosing in the outline, with the pointer resting there for a moment before and without, of another
colour typed in the tray, and of taking it back. Only the screen's own process is slowed; the server and the stage go on beside it. The yardstick: the same screen shown again, as it is.
"""

from __future__ import annotations

import statistics
import sys
import time
from collections.abc import Callable, Iterator
from itertools import cycle

from tests.browser.conftest import Browser, wait_for

from .browsing import signed_in
from .measured import Measured, table

ROUNDS, WARM_AFTER, SLOWED, REST_S, ASKED_MS = 16, 3, 4, 0.4, 200.0
POINTED_S = 0.2
"""So long a pointer rests on a line before it is pressed."""
CHOSEN = ("it-logo", "it-menu", "it-book", "rw-main", "it-search", "cl-end", "it-phone")
COLOURS = ("#204a46", "#1d3557", "#5a2a27")

_CLOCK = """
window.rimTook = [];
let began = 0;
for (const name of ['click', 'change']) addEventListener(name, () => (began = performance.now()), true);
document.addEventListener('htmx:afterSwap', () => requestAnimationFrame(() => {
  const { port1, port2 } = new MessageChannel();
  port1.onmessage = () => rimTook.push(performance.now() - began);
  port2.postMessage(0);
}));
"""
_CHOOSE = "document.querySelector(`#outline [data-select='${arguments[0]}']`).click()"
_REST = """
const line = document.querySelector(`#outline [data-select='${arguments[0]}']`);
line.dispatchEvent(new PointerEvent('pointerover', { bubbles: true }));
"""
_SHOW_AGAIN = "document.querySelector('#outline [aria-current]').click()"
_COLOUR = """
const field = document.querySelector('[data-test=style-background-color]');
field.value = arguments[0];
field.dispatchEvent(new Event('change', { bubbles: true }));
"""
_UNDO = "document.querySelector('[data-test=undo]').click()"


def measure(tiny: bool) -> Iterator[Measured]:
    rounds = 1 if tiny else WARM_AFTER + ROUNDS
    with signed_in("ostrey") as browser:
        browser.go("/s/ostrey/pieces/pc-main/?select=it-book&tray=ground")
        browser.js(_CLOCK)
        browser.driver.execute_cdp_cmd("Emulation.setCPUThrottlingRate", {"rate": 1 if tiny else SLOWED})
        again = _median_ms(browser, rounds, lambda: browser.js(_SHOW_AGAIN))
        colours, chosen = cycle(COLOURS), cycle(CHOSEN)

        def pointed_at() -> None:
            line = next(chosen)
            browser.js(_REST, line)
            time.sleep(POINTED_S)
            browser.js(_CHOOSE, line)

        acts: dict[str, Callable[[], object]] = {
            "another colour": lambda: browser.js(_COLOUR, next(colours)),
            "undo": lambda: browser.js(_UNDO),
            "choosing where it rested": pointed_at,
            "choosing at once": lambda: browser.js(_CHOOSE, next(chosen)),
        }
        for name, act in acts.items():
            told = f"{name}, slowed {SLOWED} times"
            yield Measured(told, _median_ms(browser, rounds, act), ASKED_MS, "ms", ("shown again", again))
        browser.driver.execute_cdp_cmd("Emulation.setCPUThrottlingRate", {"rate": 1})


def _median_ms(browser: Browser, rounds: int, act: Callable[[], object]) -> float:
    """The first few are not counted: they find nothing that is kept yet."""
    browser.js("rimTook = []")
    for at in range(rounds):
        act()
        wait_for(lambda at=at: len(browser.js("return rimTook")) > at)
        time.sleep(REST_S)
    took = [float(one) for one in browser.js("return rimTook")]
    return statistics.median(took[WARM_AFTER:] or took)


if __name__ == "__main__":
    print(table(measure("--tiny" in sys.argv)))

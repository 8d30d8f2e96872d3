"""How soon does the stage show, in Chromium, that a swatch which is used in 500 places has another colour?

python -m bench swatch_on_stage

It runs the whole application as ./start does, puts 500 buttons into a piece, changes the swatch on a screen that has a
stage beside it and stops the clock when the stage has painted the new colour. The yardstick: the same for a swatch that
is used nowhere, on the site as it was.
"""

from __future__ import annotations

import json
import sys
import time
from collections.abc import Iterator
from typing import NamedTuple

from tests.browser.conftest import Browser, wait_for

from .browsing import signed_in
from .measured import Measured, table

USES, ROUNDS, WARM_AFTER, REST_S, ASKED_MS = 500, 12, 4, 0.3, 200.0
SCREENS = ("/s/quillwort/foundations/", "/s/quillwort/foundations/code/", "/s/quillwort/pieces/pc-main/")

_CHANGE = """
const [swatch, colour, done] = arguments, begun = performance.now();
const heard = (event) => {
  if (event.data?.rim !== "shown") return;
  removeEventListener("message", heard);
  done(performance.now() - begun);
};
addEventListener("message", heard);
const base = document.querySelector("#screen form [name=base]").value;
htmx.ajax("POST", location.pathname, { target: "#screen", swap: "morph:innerHTML",
  values: { do: "set", node: swatch, field: "colour", value: colour, base } });
"""
_EDIT = """
const [edit, done] = arguments;
htmx.ajax("POST", location.pathname, { target: "#screen", swap: "morph:innerHTML",
  values: { do: "edit", edit, base: document.querySelector("#screen form [name=base]").value } }).then(() => done(document.querySelector("[role=alert]:not([hidden])")?.textContent));
"""


class Pace(NamedTuple):
    """How often the swatch is changed, how many times of these are not counted, how long all rests in between."""

    rounds: int
    warm_after: int
    rest_s: float


def measure(tiny: bool) -> Iterator[Measured]:
    uses, pace = (5, Pace(1, 0, 0.0)) if tiny else (USES, Pace(ROUNDS, WARM_AFTER, REST_S))
    with signed_in("quillwort") as browser:
        before = {screen: _best_ms(browser, screen, pace) for screen in SCREENS}
        _put_buttons(browser, uses)
        for screen in SCREENS:
            yardstick = ("used nowhere", before[screen])
            told = f"a swatch in {uses} places, {screen.removeprefix('/s/quillwort')}"
            yield Measured(told, _best_ms(browser, screen, pace), ASKED_MS, "ms", yardstick)


def _put_buttons(browser: Browser, uses: int) -> None:
    styles = [
        {"id": "st-b{at}g", "property": "background-color", "value": "@sw-straw"},
        {"id": "st-b{at}p", "property": "padding-inline-start", "value": "{at}px"},
    ]
    buttons = [
        json.loads(
            json.dumps(
                {"id": "it-b{at}", "kind": "button", "words": {"text": "Button {at}"}, "styles": styles}
            ).replace("{at}", str(at % 40 + 100 * (at // 40)))
        )
        for at in range(uses)
    ]
    browser.go(SCREENS[0])
    edit = {"kind": "add", "parent": "cl-end", "slot": "items", "values": buttons}
    fault = browser.driver.execute_async_script(_EDIT, json.dumps(edit))
    assert not fault, fault


def _best_ms(browser: Browser, screen: str, pace: Pace) -> float:
    """Milliseconds from the press to the stage's own word that it is up to date, once both processes are warm."""
    browser.go(screen)
    wait_for(
        lambda: browser.js("return document.querySelector('#stage') !== null && document.readyState === 'complete'")
    )
    time.sleep(5 * pace.rest_s)
    took = []
    for at in range(pace.rounds):
        colour = f"#{37 * at % 200 + 40:02x}{at * 11 % 256:02x}44"
        took.append(float(browser.driver.execute_async_script(_CHANGE, "sw-straw", colour)))
        time.sleep(pace.rest_s)
    return min(took[pace.warm_after :])


if __name__ == "__main__":
    print(table(measure("--tiny" in sys.argv)))

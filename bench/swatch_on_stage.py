"""How soon does the stage show, in Chromium, that a swatch which is used in 500 places has another colour?

python ops/with_test_database.py python -m bench.swatch_on_stage

It runs the whole application as ./start does, puts 500 buttons into a piece, changes the swatch on a screen that has a
stage beside it and stops the clock when the stage has painted the new colour. The yardstick: the same for a swatch that
is used nowhere, on the site as it was.
"""

from __future__ import annotations

import json
import statistics
import time

from bench.browsing import signed_in
from tests.browser.conftest import Browser, wait_for

USES, ROUNDS = 500, 12
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


def main() -> None:
    with signed_in() as browser:
        _measure(browser)


def _measure(browser: Browser) -> None:
    yardstick = {screen: _timed(browser, screen) for screen in SCREENS}
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
        for at in range(USES)
    ]
    browser.go(SCREENS[0])
    edit = {"kind": "add", "parent": "cl-end", "slot": "items", "values": buttons}
    fault = browser.driver.execute_async_script(_EDIT, json.dumps(edit))
    assert not fault, fault
    for screen in SCREENS:
        took = _timed(browser, screen)
        ratio = statistics.median(took) / statistics.median(yardstick[screen])
        print(
            f"{screen}: {statistics.median(took):.0f} ms (slowest {max(took):.0f}), {ratio:.1f} times the yardstick of"
            f" {statistics.median(yardstick[screen]):.0f} ms"
        )


def _timed(browser: Browser, screen: str) -> list[float]:
    """Milliseconds from the press to the stage's own word that it is up to date, once both processes are warm."""
    browser.go(screen)
    wait_for(
        lambda: browser.js("return document.querySelector('#stage') !== null && document.readyState === 'complete'")
    )
    time.sleep(1.5)
    took = []
    for at in range(ROUNDS):
        colour = f"#{37 * at % 200 + 40:02x}{at * 11 % 256:02x}44"
        took.append(float(browser.driver.execute_async_script(_CHANGE, "sw-straw", colour)))
        time.sleep(0.3)
    return took[4:]


if __name__ == "__main__":
    main()

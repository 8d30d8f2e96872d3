"""How soon do an edit's failing widths stand on the ruler, in Chromium?

python -m bench fit_on_screen

It runs the whole application as ./start does, changes a gap or a label of the demo's main header on the workbench, and
stops the clock when the new spans are in the document. The yardstick: the same for an edit of a piece without rows.
"""

from __future__ import annotations

import json
import sys
from collections.abc import Iterator

from tests.browser.conftest import Browser, wait_for

from .browsing import signed_in
from .measured import Measured, table

ROUNDS, WARM_AFTER, ASKED_MS = 24, 4, 150.0

_EDIT = """
const [edit, done] = arguments, begun = performance.now();
const shown = () => [...document.querySelectorAll('[data-test=fit-span]')].map((span) => span.title).join();
const before = shown();
const watch = new MutationObserver(() => {
  if (shown() === before && !window.rimSame) return;
  watch.disconnect();
  requestAnimationFrame(() => done([performance.now() - begun, document.querySelectorAll('[data-test=fit-span]').length]));
});
watch.observe(document.querySelector('#screen'), { subtree: true, childList: true, attributes: true, characterData: true });
htmx.ajax('POST', location.pathname + location.search, { target: '#screen', swap: 'morph:innerHTML',
  values: { do: 'edit', edit, base: document.querySelector('#screen form [name=base]').value } });
"""


def measure(tiny: bool) -> Iterator[Measured]:
    rounds = WARM_AFTER + 2 if tiny else ROUNDS
    gaps = [
        {"kind": "set", "node": "it-menu", "field": "gap_px", "value": 24 if at % 2 else 60} for at in range(rounds)
    ]
    label = {"text": "Fares", "translations": [{"language": "de", "text": ""}]}
    labels = []
    for at in range(rounds):
        said = {**label, "translations": [{"language": "de", "text": "Karten & Preise" if at % 2 else "Preise"}]}
        labels.append({"kind": "set", "node": "en-fares", "field": "label", "value": said})
    names = [{"kind": "set", "node": "pc-book", "field": "name", "value": f"Book {at}"} for at in range(rounds)]
    with signed_in("ostrey") as browser:
        yardstick = ("a float’s name, where nothing fails", _best_ms(browser, "pc-book", names, same=True))
        for what, edits in (("a gap of the menu", gaps), ("a German label", labels)):
            got = _best_ms(browser, "pc-main", edits, same=False)
            yield Measured(f"{what}, until its spans are on the ruler", got, ASKED_MS, "ms", yardstick)


def _best_ms(browser: Browser, piece: str, edits: list[dict[str, object]], *, same: bool) -> float:
    """`same`: the spans stay what they are."""
    browser.go(f"/s/ostrey/pieces/{piece}/")
    wait_for(lambda: browser.all("stage"))
    browser.js("window.rimSame = arguments[0]", same)
    taken = [float(browser.driver.execute_async_script(_EDIT, json.dumps(edit))[0]) for edit in edits]
    return min(taken[WARM_AFTER:])


if __name__ == "__main__":
    print(table(measure("--tiny" in sys.argv)))

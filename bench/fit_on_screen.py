"""How soon do an edit's failing widths stand on the ruler, in Chromium?

python ops/with_test_database.py python -m bench.fit_on_screen

It runs the whole application as ./start does, changes a gap or a label of the demo's main header on the workbench, and
stops the clock when the new spans are in the document. The yardstick: the same for an edit of a piece without rows.
"""

from __future__ import annotations

import json
import statistics

from bench.browsing import signed_in
from tests.browser.conftest import Browser, wait_for

ROUNDS = 24

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


def main() -> None:
    with signed_in() as browser:
        _measure(browser)


def _measure(browser: Browser) -> None:
    gaps = [
        {"kind": "set", "node": "it-menu", "field": "gap_px", "value": 60 if at % 2 else 24} for at in range(ROUNDS)
    ]
    label = {"text": "Fares", "translations": [{"language": "de", "text": ""}]}
    labels = []
    for at in range(ROUNDS):
        said = {**label, "translations": [{"language": "de", "text": "Preise" if at % 2 else "Karten & Preise"}]}
        labels.append({"kind": "set", "node": "en-fares", "field": "label", "value": said})
    names = [{"kind": "set", "node": "pc-book", "field": "name", "value": f"Book {at}"} for at in range(ROUNDS)]
    for what, piece, edits, same in (
        ("a gap of the menu", "pc-main", gaps[1:] + gaps[:1], False),
        ("a German label", "pc-main", labels[1:] + labels[:1], False),
        ("yardstick: a float’s name, where nothing fails", "pc-book", names, True),
    ):
        browser.go(f"/s/ostrey/pieces/{piece}/")
        wait_for(lambda: browser.all("stage"))
        browser.js("window.rimSame = arguments[0]", same)
        taken = [float(browser.driver.execute_async_script(_EDIT, json.dumps(edit))[0]) for edit in edits]
        warm = sorted(taken[4:])
        print(f"{what}: {statistics.median(warm):.0f} ms (slowest {warm[-1]:.0f}; the first {taken[0]:.0f})")


if __name__ == "__main__":
    main()

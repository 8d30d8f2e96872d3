"""Who gets what: the browser shows what is predicted, for visitors of all kinds."""

from __future__ import annotations

import json
from random import Random
from typing import Any

from tests.fit_judge import served
from tests.visitor_browser import VisitorBrowser, predicted
from tests.visitors import any_card
from tests.who_judge import generated, judged, nodes_of, put

from .conftest import plain_chromium

SITES = range(60)


def test_each_visitor_sees_what_was_predicted(measurer: Any) -> None:
    wrong, outcomes = judged(measurer.driver, SITES)
    assert not wrong, (len(wrong), outcomes, wrong[:3])
    assert outcomes > 10_000


WATCH = """
window.rimSeen = []; window.rimShifts = 0;
new PerformanceObserver((list) => list.getEntries().forEach((one) => (rimShifts += one.value))).observe({type: 'layout-shift', buffered: true});
const look = () => {
  if (document.body) rimSeen.push(NODES.filter((id) => [...document.querySelectorAll(`.KEY-${id}`)].some((one) => one.getClientRects().length > 0)));
  requestAnimationFrame(look);
};
requestAnimationFrame(look);
"""


def test_in_no_frame_anything_shows_that_is_not_for_them_and_nothing_shifts() -> None:
    """Loaded for the first time and again, on a processor that is slowed down six times."""
    driver = plain_chromium()
    driver.execute_cdp_cmd("Emulation.setCPUThrottlingRate", {"rate": 6})
    frames = 0
    try:
        with served() as (files, port):
            look = VisitorBrowser(driver)
            for seed in range(16):
                site, chance = generated(seed), Random(seed + 1000)
                whole, nodes = put(site, files), nodes_of(site)
                card = any_card(chance).replaced(has_script=True)
                watch = WATCH.replace("NODES", json.dumps(nodes)).replace("KEY", site.key)
                script = driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": watch})
                page = whole.pages[seed % 3]
                due = predicted(whole, page, card)
                for _ in range(2):
                    look.opens(f"http://127.0.0.1:{port}{page.path}", card, site.key)
                    driver.execute_async_script("const done = arguments[0]; setTimeout(done, 150)")
                    seen, shifts = driver.execute_script("return [rimSeen, rimShifts]")
                    assert shifts == 0, (seed, page.path, shifts)
                    assert set(seen[-1]) == due and all(set(one) <= due for one in seen), (seed, page.path)
                    frames += len(seen)
                driver.execute_cdp_cmd("Page.removeScriptToEvaluateOnNewDocument", {"identifier": script["identifier"]})
    finally:
        driver.quit()
    assert frames > 100

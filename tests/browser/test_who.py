"""Who gets what: the browser shows what is predicted, for visitors of all kinds."""

from __future__ import annotations

import json
from random import Random
from typing import Any

from tests.fit_judge import served
from tests.visitor_browser import SHOWN, VisitorBrowser, predicted
from tests.visitors import any_card
from tests.who_judge import generated, judged, nodes_of, put
from upper_rim.core.conditions.audience.audience import Audience
from upper_rim.core.conditions.audience.not_closed import NotClosed
from upper_rim.core.conditions.audience.unseen import Unseen
from upper_rim.core.kinds.items.text import TextItem
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.notice import Notice
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.model.site import Page, Site
from upper_rim.core.values.words import Words

from .conftest import plain_chromium

SITES = range(60)


def test_each_visitor_sees_what_was_predicted(measurer: Any) -> None:
    wrong, outcomes = judged(measurer.driver, SITES)
    assert not wrong, (len(wrong), outcomes, wrong[:3])
    assert outcomes > 10_000


WATCH = """
window.rimSeen = []; window.rimShifts = 0;
new PerformanceObserver((list) => list.getEntries().forEach((one) => {
  if (one.sources.some(({node}) => !node?.closest?.('.KEY-stack'))) rimShifts += one.value;
})).observe({type: 'layout-shift', buffered: true});
const look = () => {
  if (document.body) rimSeen.push(NODES.filter((id) => [...document.querySelectorAll(`.KEY-${id}`)].some((one) => one.getClientRects().length > 0)));
  requestAnimationFrame(look);
};
requestAnimationFrame(look);
"""


def test_in_no_frame_anything_shows_that_is_not_for_them_and_nothing_shifts() -> None:
    """Loaded for the first time and again, on a processor that is slowed down six times. What is pinned to the bottom grows
    where a page is painted before it is whole; that is another matter."""
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


def test_what_was_seen_rests_and_what_was_closed_stays_closed_until_it_says_something_else() -> None:
    def site(words: str) -> Site:
        item = TextItem(id="it-a", words=Words(text="Once"), audience=Audience(every=(Unseen(days=3),)))
        other = TextItem(id="it-b", words=Words(text=words))
        row = Row(id="rw-a", cells=(Cell(id="cl-a", items=(item, other)),))
        audience = Audience(every=(NotClosed(days=7, until_changed=True),))
        notice = Notice(id="pc-a", name="N", rows=(row,), reach=(ReachRule(id="rr-a"),), audience=audience)
        return Site(key="qtest", name="T", pieces=(notice,), pages=(Page(id="pg-a", path="/"),))

    driver, began, script = plain_chromium(), 1_796_000_000_000, ""
    try:
        with served() as (files, port):

            def shown(hours: float) -> list[str]:
                nonlocal script
                if script:
                    driver.execute_cdp_cmd("Page.removeScriptToEvaluateOnNewDocument", {"identifier": script})
                clock = {"source": f"Date.now = () => {began + round(hours * 3_600_000)}"}
                script = driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", clock)["identifier"]
                driver.get(f"http://127.0.0.1:{port}/")
                found: list[str] = driver.execute_script(SHOWN, ["pc-a", "it-a"], "qtest")
                return found

            put(site("Words"), files)
            assert shown(0) == ["pc-a", "it-a"]
            assert shown(0.2) == ["pc-a", "it-a"], "while the visit lasts"
            assert shown(2) == ["pc-a"], "in the next one it rests"
            shut = (
                "document.querySelector('[data-rim-shut]').click(); return document.querySelector('.qtest-pc-a').hidden"
            )
            assert driver.execute_script(shut) is True
            assert shown(3) == [] and shown(100) == []
            put(site("Other words"), files)
            assert shown(101) == ["pc-a", "it-a"], "and what was seen last three days ago comes again"
            assert driver.execute_script(shut) is True
            assert shown(101 + 7 * 24 - 1) == [] and shown(101 + 7 * 24 + 1) == ["pc-a", "it-a"]
    finally:
        driver.quit()

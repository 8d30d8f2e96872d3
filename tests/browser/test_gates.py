"""Gates in a browser: what visitors meet is what is foreseen; by keyboard alone; without a fault that axe finds."""

from __future__ import annotations

import json
from collections.abc import Callable
from datetime import datetime
from typing import Any

import pytest
from selenium import webdriver
from selenium.webdriver.common.keys import Keys

from tests.gates_judge import judged
from upper_rim.core.kinds.pieces.gate import GATE_STATES
from upper_rim.core.model.site import Site
from upper_rim.web.live import gates

from .conftest import ROOT, Browser, Running, plain_chromium, wait_for

AXE = (ROOT / "node_modules/axe-core/axe.min.js").read_text()
SITES = 40


@pytest.mark.django_db(transaction=True)
def test_visitors_meet_what_is_foreseen(
    live: Callable[[Site, dict[str, bytes]], str], monkeypatch: pytest.MonkeyPatch
) -> None:
    clock: list[datetime] = []
    monkeypatch.setattr(gates, "now", lambda: clock[-1])
    driver = plain_chromium(frames="none")
    try:
        wrong, steps = judged(driver, range(SITES), live, clock.append)
    finally:
        driver.quit()
    assert wrong == [] and steps >= 10 * SITES


@pytest.mark.parametrize("gate", ["pc-shop-age", "pc-press-door"])
@pytest.mark.parametrize("width", [1280, 320])
def test_axe_finds_nothing_in_any_state_and_nothing_is_cut(bench: Browser, gate: str, width: int) -> None:
    bench.go(f"/s/ostrey/pieces/{gate}/")
    stage = bench.one("stage").get_attribute("data-stage-src").split("?")[0]
    bench.resize(width, 640)
    wrong: list[Any] = []
    for state in GATE_STATES:
        bench.go(f"{stage}?rim-gate={gate}.{state}")
        wrong += [(state, one) for one in violations(bench.driver)]
        over = bench.js("return document.documentElement.scrollWidth - document.documentElement.clientWidth")
        wrong += [(state, f"{over} px too wide")] if over > 0 else []
    bench.resize(1280, 800)
    assert wrong == []


def violations(driver: webdriver.Chrome) -> list[Any]:
    """What axe finds on the page that is open, once all has come that comes by and by."""
    driver.execute_script("document.getAnimations().forEach((one) => one.finish())")
    driver.execute_script(AXE)
    told = driver.execute_async_script(
        "const done = arguments[0]; axe.run(document).then((found) => done(JSON.stringify(found.violations.map((one) => [one.id, one.nodes.map((node) => node.html.slice(0, 120))]))))"
    )
    return list(json.loads(told))


def test_a_door_is_opened_with_keys_alone(browser: Browser, running: Running) -> None:
    """Tab to the field, a wrong password, the fault is told and the field says so; then the right one, and Enter."""
    browser.go(f"{running.live('ostrey')}/press/releases/")
    browser.keys(Keys.TAB)
    assert browser.js("return document.activeElement.name") == "password", "nothing unseen has the focus first"
    browser.driver.switch_to.active_element.send_keys("wrong-one\n")
    told = wait_for(lambda: browser.js("return document.querySelector('[role=alert]')?.textContent"))
    field = "const field = document.querySelector('[name=password]'); return [field.getAttribute('aria-invalid'), document.getElementById(field.getAttribute('aria-describedby')).textContent]"
    assert browser.js(field) == ["true", told]
    browser.keys(Keys.TAB)
    browser.driver.switch_to.active_element.send_keys("tide-and-tern\n")
    wait_for(lambda: not browser.js("return document.querySelector('[name=gate]')"))
    assert browser.driver.current_url.endswith("/press/releases/")
    assert browser.js("return document.cookie") == "" or "rim-gate" not in browser.js("return document.cookie")


def test_the_shop_is_entered_by_date_and_the_too_young_go_home(browser: Browser, running: Running) -> None:
    shop = f"{running.live('ostrey')}/shop/"
    browser.go(shop)
    order = []
    for _ in range(5):
        browser.keys(Keys.TAB)
        order.append(browser.js("return document.activeElement.name || document.activeElement.localName"))
    assert order == ["a", "day", "month", "year", "answer"]

    def born(day: str, month: str, year: str) -> None:
        for name, said in (("day", day), ("month", month), ("year", year)):
            browser.driver.find_element("name", name).send_keys(said)
        browser.driver.find_element("name", "year").send_keys("\n")

    born("1", "1", "2020")
    wait_for(lambda: browser.driver.current_url == f"{running.live('ostrey')}/")
    browser.go(shop)
    born("29", "2", "2000")
    wait_for(lambda: not browser.js("return document.querySelector('[name=gate]')"))
    assert browser.driver.current_url == shop
    browser.go(f"{shop}index.html")
    assert not browser.js("return document.querySelector('[name=gate]')"), "it is remembered"

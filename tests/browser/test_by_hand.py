"""What is done with the pointer in the studio, and that the stage follows it."""

from __future__ import annotations

import time
from collections.abc import Callable, Iterator

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.remote.webelement import WebElement

from .conftest import Browser, wait_for


@pytest.fixture
def bench(browser: Browser) -> Iterator[Browser]:
    """A signed-in designer; what was done is undone afterwards."""
    browser.sign_in()
    with browser.running.undone_afterwards("quillwort"):
        yield browser


def carry(browser: Browser, grip: WebElement, down_px: int) -> None:
    """Takes something and lets it go further down, at the pace of a hand."""
    chain = ActionChains(browser.driver).click_and_hold(grip).pause(0.2)
    for _ in range(4):
        chain.move_by_offset(0, down_px // 4).pause(0.1)
    browser.acted(lambda: chain.pause(0.2).release().perform())
    time.sleep(0.3)


def texts(browser: Browser, test: str) -> list[str]:
    return [part.text.split("\n")[0] for part in browser.all(test)]


def test_items_are_dragged_from_cell_to_cell(bench: Browser) -> None:
    bench.go("/s/quillwort/pieces/pc-main/")
    assert texts(bench, "line") == ["Main row", "Start", "Logo", "Middle", "Menu: Main", "End", "Button: Write to us"]
    carry(bench, bench.all("line")[-1], -84)
    assert texts(bench, "line").index("Button: Write to us") < texts(bench, "line").index("End")


def test_what_is_pressed_on_the_stage_is_chosen(bench: Browser) -> None:
    bench.go("/s/quillwort/pieces/pc-main/")
    with bench.on_stage() as stage:
        wait_for(lambda: stage.find_element(By.CSS_SELECTOR, "nav a")).click()
    wait_for(lambda: bench.one("chosen").text == "Menu: Main")
    with bench.on_stage() as stage:
        wait_for(
            lambda: (
                "solid"
                in stage.execute_script(
                    "return getComputedStyle(document.querySelector('[data-rim-node=it-menu]')).outlineStyle"
                )
            )
        )
        assert stage.execute_script("return location.pathname") == "/", (
            "links on the stage choose; they do not lead away"
        )
        # The stage is drawn smaller than it is: the driver would press beside it.
        stage.execute_script("document.querySelector('[data-rim-node=\"it-letter\"]').click()")
    wait_for(lambda: bench.one("chosen").text == "Button: Write to us")


def test_choosing_another_page_and_width_keeps_what_is_chosen(bench: Browser) -> None:
    bench.go("/s/quillwort/pieces/pc-main/?select=it-menu")
    bench.change("looked-at", "/books/")
    bench.change("stage-width", "500")
    assert bench.one("chosen").text == "Menu: Main"
    with bench.on_stage() as stage:
        wait_for(lambda: stage.execute_script("return document.title").startswith("Books"))
        assert stage.execute_script("return innerWidth") == 500
        current = stage.find_element(By.CSS_SELECTOR, '[aria-current="page"]')
        assert current.get_attribute("textContent") == "Books"
    bench.choose("control-drawer_below", "")
    assert bench.one("stage-width").get_attribute("value") == "500"
    with bench.on_stage() as stage:
        wait_for(lambda: stage.find_element(By.LINK_TEXT, "Books").is_displayed())
        assert not stage.find_elements(By.CSS_SELECTOR, "[data-rim-drawer]")


def test_what_a_colleague_does_is_seen_without_asking(bench: Browser, new_browser: Callable[[], Browser]) -> None:
    other = new_browser()
    other.sign_in("colleague")
    bench.go("/s/quillwort/foundations/")
    other.go("/s/quillwort/foundations/")
    other.fill("swatch-name", "Fern")
    other.fill("swatch-colour", "#5a8f4d")
    other.press("add-swatch")
    wait_for(lambda: len(bench.all("swatch")) == 5, 12)
    other.press("undo")


def test_a_text_that_is_not_sent_yet_stays_when_something_else_changes(bench: Browser) -> None:
    bench.go("/s/quillwort/pages/")
    bench.driver.find_element(By.TAG_NAME, "details").click()
    bench.fill("page-title", "Mosses")
    bench.fill("page-path", "/mosses/")
    bench.fill("page-source", "Small.")
    bench.press("write-page")
    wait_for(lambda: bench.all("rewrite"))
    bench.driver.find_element(By.ID, "source").send_keys(" And slow.")
    bench.change("set-title", "All mosses")
    assert bench.driver.find_element(By.TAG_NAME, "h1").text == "All mosses"
    assert bench.driver.find_element(By.ID, "source").get_attribute("value") == "Small. And slow."
    bench.press("rewrite")
    bench.driver.refresh()
    assert bench.driver.find_element(By.ID, "source").get_attribute("value") == "Small. And slow."


def test_a_studio_that_does_not_answer_is_told_and_nothing_is_lost(bench: Browser) -> None:
    bench.go("/s/quillwort/pieces/pc-main/?select=it-letter")
    bench.driver.execute_cdp_cmd("Network.enable", {})
    bench.driver.execute_cdp_cmd(
        "Network.emulateNetworkConditions",
        {"offline": True, "latency": 0, "downloadThroughput": 0, "uploadThroughput": 0},
    )
    bench.change("control-words", "Post")
    wait_for(lambda: bench.driver.find_element(By.ID, "offline").is_displayed())
    bench.driver.execute_cdp_cmd(
        "Network.emulateNetworkConditions",
        {"offline": False, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1},
    )
    assert bench.one("control-words").get_attribute("value") == "Post", "what was typed is still there"
    bench.change("control-words", "Post us")
    wait_for(lambda: not bench.driver.find_element(By.ID, "offline").is_displayed())
    with bench.on_stage() as stage:
        wait_for(lambda: stage.find_element(By.CSS_SELECTOR, '[data-rim-node="it-letter"]').text == "Post us")

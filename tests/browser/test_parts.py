"""Parts of a menu are chosen with keys, seen open on the stage, and painted there as they are set."""

from __future__ import annotations

from selenium.webdriver.common.keys import Keys

from .conftest import Browser, wait_for

BENCH = "/s/ostrey/pieces/pc-main/?select=it-menu&tray=ground&width=1120"


def choose(browser: Browser, part: str) -> None:
    """By the arrows of the list of parts."""
    for _ in range(len(browser.js("return [...document.querySelector('#part').options]"))):
        browser.js("document.querySelector('#part').focus()")
        wanted, at = browser.js(
            "const list = document.querySelector('#part'); return [[...list.options].findIndex((one) => one.value === arguments[0]), list.selectedIndex]",
            part,
        )
        if wanted == at:
            return
        browser.acted(lambda down=wanted > at: browser.keys(Keys.ARROW_DOWN if down else Keys.ARROW_UP))
        browser.settled()
    raise AssertionError(f"{part} is not reached")


def is_open(browser: Browser, selector: str) -> bool:
    return bool(
        browser.on_stage_js("return !!document.querySelector(arguments[0])", f"[data-rim-node=it-menu] {selector}")
    )


def painted(browser: Browser, inner: str, pseudo: str = "") -> str:
    return str(
        browser.on_stage_js(
            "return getComputedStyle(document.querySelector(arguments[0]), arguments[1] || null).backgroundColor",
            f"[data-rim-node=it-menu] {inner}",
            pseudo,
        )
    )


def test_what_a_menu_opens_is_open_while_it_is_styled_and_shuts_again(bench: Browser) -> None:
    bench.go(BENCH)
    wait_for(lambda: bench.on_stage_js("return !!document.querySelector('[data-rim-handles]')"))
    choose(bench, "opened")
    wait_for(lambda: is_open(bench, ":popover-open"))
    assert int(bench.js("return document.querySelector('#stage-width').value")) == 979
    bench.fill("style-background-color", "#123456")
    bench.keys(Keys.ENTER)
    wait_for(lambda: painted(bench, "[popover]") == "rgb(18, 52, 86)")
    assert painted(bench, "[class$=-close]") == "rgb(18, 52, 86)", "what stands in it has its ground"
    choose(bench, "veil")
    bench.fill("style-background-color", "rgb(0 60 0 / 50%)")
    bench.keys(Keys.ENTER)
    wait_for(lambda: painted(bench, "[popover]", "::backdrop") == "rgba(0, 60, 0, 0.5)")
    choose(bench, "panel")
    wait_for(lambda: is_open(bench, "[data-rim-branch][aria-expanded=true]"))
    assert (
        not is_open(bench, ":popover-open")
        and int(bench.js("return document.querySelector('#stage-width').value")) == 980
    )
    bench.fill("style-background-color", "#fff0d0")
    bench.keys(Keys.ENTER)
    wait_for(lambda: painted(bench, "[data-rim-branch][aria-expanded=true] + ul") == "rgb(255, 240, 208)")
    choose(bench, "content")
    wait_for(lambda: not is_open(bench, "[data-rim-branch][aria-expanded=true]"))
    for _ in range(3):
        bench.press("undo")


def test_the_links_of_a_piece_are_styled_together(bench: Browser) -> None:
    bench.go("/s/ostrey/pieces/pc-footer/?select=pc-footer&tray=text&width=1120")
    choose(bench, "in-list-title")
    bench.fill("style-color", "#ffd27f")
    bench.keys(Keys.ENTER)
    titles = "return [...document.querySelectorAll('[data-rim-node=pc-footer] [class$=-list-title]')].map((one) => getComputedStyle(one).color)"
    wait_for(lambda: set(bench.on_stage_js(titles)) == {"rgb(255, 210, 127)"})
    assert len(bench.on_stage_js(titles)) == 2
    bench.press("undo")

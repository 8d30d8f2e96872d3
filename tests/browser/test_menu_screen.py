"""The same menu made in four ways: from the site's pages by keys and by pointer, as text, and on the menu itself."""

from __future__ import annotations

import io
import json
import urllib.request
import zipfile
from collections.abc import Callable, Iterator
from typing import Any

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement

from .conftest import Browser, wait_for

TEXT = "Harbours | /harbours/\n    Osterhaven | /harbours/osterhaven/\n        Fares | /sailings/fares/\n    Skarrow | /harbours/skarrow/\n"
"""Three levels, the third of another part of the site."""


@pytest.fixture
def bench(browser: Browser) -> Iterator[Browser]:
    """An empty menu, on a screen so large that the stage is as large as it is: the driver presses where it means to.
    What was done is undone afterwards."""
    browser.resize(1800, 1100)
    browser.sign_in()
    browser.go("/s/ostrey/menus/")
    before = revision(browser)
    browser.fill("menu-name", "Ways")
    browser.press("add-menu")
    wait_for(lambda: browser.all("menu-text"))
    yield browser
    browser.driver.switch_to.default_content()
    browser.go("/s/ostrey/menus/")
    for _ in range(revision(browser) - before):
        browser.press("undo")


def revision(browser: Browser) -> int:
    return int(browser.js("return document.querySelector('[name=base]').value"))


def text_of(browser: Browser) -> str:
    return str(browser.js("return document.querySelector('#menu-text').value"))


def line(browser: Browser, title: str) -> WebElement:
    return next(line for line in browser.all("page-line") if line.text.startswith(title))


def title(browser: Browser, said: str) -> WebElement:
    return line(browser, said).find_element(By.CSS_SELECTOR, "[data-select]")


def hang(browser: Browser, said: str) -> None:
    browser.acted(lambda: line(browser, said).find_element(By.CSS_SELECTOR, "[value=hang]").click())


def drag(browser: Browser, grip: WebElement, to: WebElement, *, share: float = 0.0) -> None:
    """Lets something go on another, `share` of half its height from its middle."""
    down = int(share * to.size["height"] / 2)
    chain = ActionChains(browser.driver).click_and_hold(grip).pause(0.1).move_by_offset(4, 4).move_by_offset(4, 4)
    chain.move_to_element_with_offset(to, 0, down).pause(0.1).move_by_offset(1, 0).pause(0.1)
    browser.acted(lambda: chain.release().perform())


def by_keys(browser: Browser) -> None:
    def walk_to(said: str) -> None:
        browser.js("arguments[0].focus()", browser.driver.find_element(By.CSS_SELECTOR, ".menu-pages [data-select]"))
        for _ in range(60):
            if browser.js("return document.activeElement.textContent") == said:
                return
            browser.keys(Keys.ARROW_DOWN)
        raise AssertionError(f"{said} is not reached with the arrow keys")

    for said in ("Harbours", "Osterhaven", "Skarrow", "Fares"):
        walk_to(said)
        browser.acted(lambda: browser.keys(" "))
        assert browser.js("return document.activeElement.textContent") == said, "the focus stays"
    browser.acted(lambda: browser.keys(Keys.ENTER))
    for key in (Keys.ARROW_RIGHT, Keys.ARROW_UP, Keys.ARROW_RIGHT):
        browser.acted(lambda key=key: browser.keys(Keys.ALT, key))


def by_pointer(browser: Browser) -> None:
    for said in ("Osterhaven", "Skarrow", "Harbours"):
        hang(browser, said)
    drag(browser, title(browser, "Osterhaven"), line(browser, "Harbours"))
    drag(browser, title(browser, "Skarrow"), line(browser, "Osterhaven"), share=0.9)
    drag(browser, title(browser, "Fares"), line(browser, "Osterhaven"))


def by_text(browser: Browser) -> None:
    field = browser.one("menu-text")
    browser.js("arguments[0].value = arguments[1]", field, TEXT)
    field.send_keys("")
    browser.acted(lambda: field.send_keys(Keys.CONTROL + Keys.ENTER))


def on_the_menu(browser: Browser) -> None:
    browser.fill("entry-target", "/harbours/")
    browser.press("add-entry")
    press_entry(browser, "Harbours")
    for typed, then in (("Osterhaven", "Osterhaven"), ("/sailings/fares/", "Osterhaven")):
        browser.acted(lambda typed=typed: browser.one("hand-below").send_keys(typed + Keys.ENTER))
        press_entry(browser, then)
    browser.acted(lambda: browser.one("hand-after").send_keys("Skarrow" + Keys.ENTER))


def press_entry(browser: Browser, said: str) -> None:
    """On the stage; what opens the menu there is asked for by choosing what holds it."""
    find = f"[...document.querySelectorAll('header [data-rim-node^=en-]')].find((one) => one.textContent.trim() === '{said}')"
    with browser.on_stage() as stage:
        entry = wait_for(lambda: stage.execute_script(f"return {find}"))
        stage.execute_script("arguments[0].click()", entry)
    wait_for(lambda: browser.one("chosen").text.endswith(said))
    wait_for(lambda: browser.one("entry-hand").is_displayed())


@pytest.mark.parametrize("way", [by_keys, by_pointer, by_text, on_the_menu], ids=lambda way: way.__name__)
def test_a_menu_of_three_levels_is_the_same_whichever_way_it_is_made(
    way: Callable[[Browser], None], bench: Browser
) -> None:
    way(bench)
    wait_for(lambda: text_of(bench) == TEXT)
    numbers = {
        line.text.split("\n")[0]: [n.text for n in line.find_elements(By.CSS_SELECTOR, "[data-test=number]")]
        for line in bench.all("page-line")
    }
    assert [numbers[said] for said in ("Harbours", "Osterhaven", "Fares", "Skarrow")] == [
        ["1"],
        ["1.1"],
        ["1.1.1"],
        ["1.2"],
    ]
    assert stored_menu(bench) == [entry("pg-harbours", entry("pg-osterhaven", entry("pg-fares")), entry("pg-skarrow"))]


def entry(page: str, *below: Any) -> dict[str, Any]:
    return {"page": page, "entries": list(below)}


def stored_menu(browser: Browser) -> list[dict[str, Any]]:
    """As the site's bundle has it, without ids: every other field has to be as one begins with it."""
    address = f"{browser.running.studio}/s/ostrey/bundle/"
    session = browser.running.session("designer", "ferry-and-fern")
    answer = urllib.request.urlopen(
        urllib.request.Request(address, headers={"Cookie": f"sessionid={session}"}), timeout=60
    )
    with zipfile.ZipFile(io.BytesIO(answer.read())) as bundle:
        menus = json.loads(bundle.read("site.json"))["menus"]

    def told(one: dict[str, Any]) -> dict[str, Any]:
        own = {name: value for name, value in one.items() if name not in {"id", "target", "entries"}}
        assert not any(value and value != {"text": "", "translations": []} for value in own.values()), own
        return {"page": one["target"]["page"], "entries": [told(below) for below in one["entries"]]}

    return [told(one) for menu in menus if menu["name"] == "Ways" for one in menu["entries"]]

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
    with browser.running.undone_afterwards("ostrey"):
        browser.go("/s/ostrey/menus/")
        browser.fill("menu-name", "Ways")
        browser.press("add-menu")
        wait_for(lambda: browser.all("menu-text"))
        yield browser


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
        write_in_hand(browser, "hand-below", typed)
        press_entry(browser, then)
    write_in_hand(browser, "hand-after", "Skarrow")


def write_in_hand(browser: Browser, name: str, typed: str) -> None:
    """It is hidden while the stage tells where it goes."""

    def write() -> bool:
        browser.one(name).send_keys(typed + Keys.ENTER)
        return True

    browser.acted(lambda: wait_for(write))


def asked_of(browser: Browser, frame: str, script: str) -> Any:
    """Of a stage as it is now: it may be loaded anew at any time. Before the whole page is there, a link is but a
    link."""
    browser.driver.switch_to.frame(browser.one(frame))
    try:
        return browser.js(script)
    finally:
        browser.driver.switch_to.default_content()


def press_entry(browser: Browser, said: str) -> None:
    """On the stage; what opens the menu there is asked for by choosing what holds it."""
    find = f"[...document.querySelectorAll('header [data-rim-node^=en-]')].find((one) => one.textContent.trim() === '{said}')"

    press = f"const one = document.readyState === 'complete' && {find}; if (one) one.click(); return Boolean(one)"
    wait_for(lambda: asked_of(browser, "stage", press))
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


def test_an_entry_is_dragged_on_the_menu_itself_and_a_page_onto_it(bench: Browser) -> None:
    by_text(bench)
    wait_for(lambda: text_of(bench) == TEXT)

    def middle(said: str) -> tuple[int, int]:
        """On the screen; the stage is as large there as it is."""
        frame = bench.one("stage").rect
        with bench.on_stage() as stage:
            where = f"[...document.querySelectorAll('header [data-rim-node^=en-]')].find((one) => one.textContent.trim() === '{said}')"
            rect = stage.execute_script(f"return {where}?.getBoundingClientRect().toJSON()")
        return int(frame["x"] + rect["left"] + rect["width"] / 2), int(frame["y"] + rect["top"] + rect["height"] / 2)

    def let_go(begin: tuple[int, int], end: tuple[int, int]) -> None:
        chain = ActionChains(bench.driver)
        mouse = chain.w3c_actions.pointer_action
        mouse.move_to_location(*begin).pointer_down().pause(0.1)
        mouse.move_to_location(begin[0] + 9, begin[1] + 3).move_to_location(*end).pause(0.2).pointer_up()
        bench.acted(chain.perform)

    press_entry(bench, "Harbours")
    wait_for(lambda: middle("Skarrow")[1] > middle("Harbours")[1])
    # Below Fares, which stands below Osterhaven, it comes a level further in.
    let_go(middle("Skarrow"), middle("Fares"))
    wait_for(
        lambda: text_of(bench).endswith("        Fares | /sailings/fares/\n            Skarrow | /harbours/skarrow/\n")
    )
    # The stage shows it, too: a page that is loaded anew in between takes nothing that is dropped.
    below = "return [...document.querySelectorAll('header [data-rim-node^=en-]')].find((one) => one.textContent.trim() === 'Skarrow').closest('li').parentElement.closest('li').textContent"
    wait_for(lambda: "Fares" in str(bench.on_stage_js(below)))
    wait_for(lambda: middle("Skarrow")[1] > middle("Harbours")[1])
    where = title(bench, "Timetable").rect
    let_go((int(where["x"] + 12), int(where["y"] + 8)), middle("Harbours"))
    wait_for(lambda: text_of(bench).endswith("    Timetable | /sailings/timetable/\n"))


def test_the_hand_stays_under_what_is_typed_when_the_screen_is_shown_anew(bench: Browser) -> None:
    """Hidden for a moment, it would lose the focus, and the letters that come then."""
    by_text(bench)
    press_entry(bench, "Harbours")
    bench.one("hand-below").send_keys("Timet")
    bench.js(
        "window.hidings = 0; const hand = document.querySelector('#entry-hand');"
        "new MutationObserver((seen) => { hidings += seen.length }).observe(hand, {attributes: true, attributeFilter: ['hidden']})"
    )
    again = "htmx.ajax('GET', location.href, {source: '#screen', target: '#screen', swap: 'morph:innerHTML'})"
    bench.acted(lambda: bench.js(again))
    assert bench.js("return [document.activeElement.id, window.hidings]") == ["hand-below", 0]
    bench.acted(lambda: bench.keys("able" + Keys.ENTER))
    wait_for(lambda: text_of(bench).endswith("    Timetable | /sailings/timetable/\n"))


def test_what_is_chosen_lights_up_on_the_menu_and_among_the_pages(bench: Browser) -> None:
    bench.go("/s/ostrey/menus/mn-main/")
    bench.acted(lambda: title(bench, "Skarrow").click())
    assert bench.one("chosen").text.split() == ["3.2", "Skarrow"]
    lit = "return [...document.querySelectorAll('header [data-rim-node=en-skarrow]')].some((one) => one.checkVisibility({visibilityProperty: true}) && getComputedStyle(one).outlineStyle === 'solid')"
    for frame in ("stage", "phone"):
        wait_for(lambda frame=frame: asked_of(bench, frame, lit))
    with bench.on_stage() as stage:
        stage.execute_script("document.querySelector('header [data-rim-node=en-fares]').click()")
    wait_for(lambda: "chosen" in (line(bench, "Fares").get_attribute("class") or ""))
    bench.settled()
    assert bench.js("return document.activeElement.textContent") == "Fares"
    bench.keys(Keys.ENTER)
    assert bench.js("return document.activeElement.id") == "hand-label", "once more, and it is changed where it stands"
    bench.acted(lambda: bench.keys("Prices" + Keys.TAB))
    with bench.on_stage() as stage:
        wait_for(lambda: stage.find_element(By.CSS_SELECTOR, "header [data-rim-node=en-fares]").text == "Prices")
    bench.js("document.activeElement.blur()")
    # Through the entries in the menu's order, whatever the pages' is.
    for said in ("Harbours", "Osterhaven", "Skarrow"):
        bench.acted(lambda: bench.keys("]"))
        assert bench.one("chosen").text.endswith(said)


def test_a_page_has_those_below_it_grow_and_one_of_them_is_left_out(bench: Browser) -> None:
    for said in ("Harbours", "Fares"):
        hang(bench, said)
    bench.js("arguments[0].focus()", title(bench, "Harbours"))
    bench.acted(lambda: bench.keys("*"))
    assert "    * all below /harbours/\n" in text_of(bench)
    assert line(bench, "Skarrow").find_element(By.CSS_SELECTOR, "[data-test=number]").text.endswith("*")
    bench.js("arguments[0].focus()", title(bench, "Skarrow"))
    bench.acted(lambda: bench.keys(" "))
    assert "    * all below /harbours/ | without /harbours/skarrow/\n" in text_of(bench)
    bench.acted(lambda: bench.keys(" "))
    assert "    * all below /harbours/\n" in text_of(bench)


def test_a_text_that_is_refused_or_begun_stays_as_it_was_typed(bench: Browser) -> None:
    typed = "Harbours | /harbours/\nBad | ftp://x\n"
    field = bench.one("menu-text")
    bench.js("arguments[0].value = arguments[1]", field, typed)
    bench.press("keep-text")
    assert "line 2" in bench.one("notice").text and text_of(bench) == typed
    assert (
        bench.js(
            "const f = document.querySelector('#menu-text'); return f.value.slice(f.selectionStart, f.selectionEnd)"
        )
        == "Bad | ftp://x"
    )
    hang(bench, "Fares")
    assert text_of(bench) == typed, "what is done beside it takes nothing away"
    bench.js("arguments[0].value = 'Harbours | /harbours/'", bench.one("menu-text"))
    bench.press("keep-text")
    assert "has changed meanwhile" in bench.one("notice").text
    assert text_of(bench) == "Harbours | /harbours/"

"""What is new comes in at a seam: between things on the stage and in the outline, by pointer and by keys."""

from __future__ import annotations

import time
from typing import Any

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.actions.action_builder import ActionBuilder
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from upper_rim.core.kinds.items import ITEM_KINDS

from .conftest import Browser, wait_for

HEADER = "/s/ostrey/pieces/pc-main/"

_BETWEEN = """
const [before, after] = [...arguments].map((node) => document.querySelector(`[data-rim-node="${node}"]`).getBoundingClientRect());
return [(before.right + after.left) / 2, (before.top + before.bottom) / 2];
"""
_MARKS = "return [...document.querySelectorAll('[data-rim-seam]')].map((one) => one.getBoundingClientRect().left)"


def open_header(browser: Browser, node: str) -> None:
    browser.sign_in()
    browser.go(f"{HEADER}?select={node}")
    wait_for(
        lambda: on_stage(
            browser, "return document.readyState === 'complete' && !!document.querySelector('[data-rim-node=it-book]')"
        )
    )


def on_stage(browser: Browser, script: str, *arguments: Any) -> Any:
    with browser.on_stage() as driver:
        return driver.execute_script(script, *arguments)


def point_at(browser: Browser, x: float, y: float) -> None:
    """At a place of the stage's own page."""
    box = browser.js(
        "const {left, top, width} = document.querySelector('#stage').getBoundingClientRect(); return [left, top, width / parseFloat(document.querySelector('#stage').style.width)]"
    )
    builder = ActionBuilder(browser.driver)
    builder.pointer_action.move_to_location(round(box[0] + x * box[2]), round(box[1] + y * box[2]))
    builder.perform()


def order_of(browser: Browser, cell: str) -> list[str]:
    return [
        str(node)
        for node in on_stage(
            browser,
            "return [...document.querySelectorAll(`[data-rim-node=${arguments[0]}] [data-rim-node^=it-]`)].map((one) => one.dataset.rimNode)",
            cell,
        )
    ]


def test_between_two_things_on_the_stage_what_is_typed_comes_to_stand(browser: Browser) -> None:
    open_header(browser, "it-book")
    x, y = on_stage(browser, _BETWEEN, "it-phone", "it-search")
    point_at(browser, x, y)
    marks = wait_for(lambda: on_stage(browser, _MARKS))
    assert abs(marks[0] - x) < 3, "where it would come is shown before it is pressed"
    ActionChains(browser.driver).click().perform()
    wait_for(lambda: browser.one("seam").is_displayed())
    assert browser.js("return document.activeElement.id") == "seam-typed"
    browser.insert_here("Timetable")
    before, made, after = wait_for(lambda: (found := order_of(browser, "cl-contact")) and len(found) == 3 and found)
    assert (before, after) == ("it-phone", "it-search")
    assert browser.one("chosen").text == "Button: Timetable"
    assert browser.one("control-target").get_attribute("value") == "/sailings/timetable/"
    on_page = on_stage(
        browser, "return document.querySelector(`[data-rim-node=${arguments[0]}]`).getBoundingClientRect().width", made
    )
    assert on_page > 60
    browser.press("undo")
    wait_for(lambda: len(order_of(browser, "cl-contact")) == 2)


def test_candidates_look_as_they_would_there_and_stay_out_of_the_site_until_one_is_taken(browser: Browser) -> None:
    open_header(browser, "it-phone")
    before = browser.one("changes").text
    browser.press("insert")
    wait_for(lambda: browser.all("candidate"))
    assert len(browser.all("candidate")) == sum(not one.ONLY_IN for one in ITEM_KINDS.values())
    browser.one("seam-typed").send_keys("+44 1632 960144")
    wait_for(lambda: browser.one("seam-list").get_attribute("data-typed") == "+44 1632 960144")
    first = browser.all("candidate")[0]
    grounds = browser.js(
        "return [...arguments[0].querySelectorAll('svg rect')].map((one) => one.getAttribute('fill'))", first
    )
    deep = on_stage(
        browser, "return getComputedStyle(document.querySelector('[data-rim-node=rw-above]')).backgroundColor"
    )
    assert tuple(int(grounds[1][at : at + 2], 16) for at in (1, 3, 5)) == tuple(map(int, deep[4:-1].split(", "))), (
        "in the row's own ground"
    )
    assert browser.one("changes").text == before
    browser.keys(Keys.ESCAPE)
    wait_for(lambda: not browser.one("seam").is_displayed())
    assert browser.js("return document.activeElement.dataset.test") == "insert"


def test_the_insert_key_opens_the_seam_behind_what_is_chosen_and_arrows_choose(browser: Browser) -> None:
    open_header(browser, "it-phone")
    browser.keys(Keys.INSERT)
    wait_for(lambda: browser.one("seam").is_displayed())
    browser.one("seam-typed").send_keys("quay@ostrey.example")
    wait_for(lambda: browser.one("seam-list").get_attribute("data-typed") == "quay@ostrey.example")
    browser.keys(Keys.ARROW_DOWN)
    chosen = browser.driver.find_element(By.CSS_SELECTOR, "#seam [aria-selected=true]")
    assert "Write to us" in chosen.text
    assert browser.one("seam-typed").get_attribute("aria-activedescendant") == chosen.get_attribute("id")
    browser.acted(lambda: browser.keys(Keys.ENTER))
    assert browser.one("chosen").text == "Button: Write to us"
    wait_for(lambda: order_of(browser, "cl-contact")[0] == "it-phone" and len(order_of(browser, "cl-contact")) == 3)
    browser.press("undo")


def test_a_seam_of_the_outline_and_one_of_another_site(browser: Browser) -> None:
    open_header(browser, "it-book")
    browser.js("arguments[0].click()", browser.one("seam-cl-tagline"))
    browser.insert_here("divider")
    wait_for(lambda: order_of(browser, "cl-tagline")[-1] == "it-tagline" and len(order_of(browser, "cl-tagline")) == 2)
    browser.press("undo")
    status = browser.driver.execute_async_script(
        "const done = arguments[0]; Promise.all(['/s/ostrey/pieces/pc-main/seam/?cell=cl-none', '/s/ostrey/pieces/pc-none/seam/?cell=cl-end', '/s/no-such/pieces/pc-main/seam/?cell=cl-end', '/s/ostrey/pieces/pc-main/seam/?cell=cl-end&at=-1&typed=' + 'x'.repeat(2000)].map((one) => fetch(one))).then((all) => done(all.map((one) => one.status)))"
    )
    assert status == [404, 404, 404, 200]


def written(browser: Browser) -> str | None:
    return on_stage(browser, "return document.querySelector('[data-rim-written]')?.textContent ?? null")  # type: ignore[no-any-return]


def text_of(browser: Browser, node: str) -> str:
    return str(
        on_stage(browser, "return document.querySelector(`[data-rim-node=${arguments[0]}]`).textContent.trim()", node)
    )


def write_over(browser: Browser, text: str, last: str) -> None:
    browser.acted(lambda: ActionChains(browser.driver).send_keys(text, last).perform())


def press_twice(browser: Browser, node: str) -> None:
    place = on_stage(
        browser,
        "const {left, top, width, height} = document.querySelector(`[data-rim-node=${arguments[0]}]`).getBoundingClientRect(); return [left + width / 2, top + height / 2]",
        node,
    )
    point_at(browser, *place)
    ActionChains(browser.driver).double_click().perform()


def test_words_are_written_where_they_stand_in_the_language_of_the_page(browser: Browser) -> None:
    browser.sign_in()
    browser.go(f"{HEADER}?select=it-logo&page=/de/")
    wait_for(lambda: text_of(browser, "it-book") == "Buchen")
    press_twice(browser, "it-book")
    wait_for(lambda: written(browser) == "Buchen")
    wait_for(lambda: browser.one("chosen").text == "Button: Book")
    write_over(browser, "Fahrt buchen", Keys.ENTER)
    wait_for(lambda: text_of(browser, "it-book") == "Fahrt buchen")
    wait_for(lambda: browser.one("control-words-de").get_attribute("value") == "Fahrt buchen")
    assert browser.one("control-words").get_attribute("value") == "Book", "the other languages stay"
    # By keys alone, and given up.
    browser.keys(Keys.F2)
    wait_for(lambda: written(browser) == "Fahrt buchen")
    write_over(browser, "Nichts", Keys.ESCAPE)
    assert text_of(browser, "it-book") == "Fahrt buchen" and written(browser) is None
    browser.press("undo")
    wait_for(lambda: text_of(browser, "it-book") == "Buchen")


HOLD = """
const real = window.fetch, held = new Promise((release) => (window.release = release));
window.fetch = async (...asked) => { const answer = await real(...asked); window.isHeld = true; await held; return answer; };
"""
"""The stage's answers are under way until they are released."""


def test_what_is_being_written_outlasts_an_answer_that_was_under_way(browser: Browser) -> None:
    browser.sign_in()
    with browser.running.undone_afterwards("ostrey"):
        browser.go(f"{HEADER}?select=it-tagline")
        wait_for(lambda: text_of(browser, "it-book") == "Book")
        on_stage(browser, HOLD)
        browser.change("control-words", "Four ships")
        wait_for(lambda: on_stage(browser, "return window.isHeld"))
        press_twice(browser, "it-book")
        wait_for(lambda: written(browser) == "Book")
        ActionChains(browser.driver).send_keys("Take part").perform()
        on_stage(browser, "release()")
        time.sleep(0.5)
        assert written(browser) == "Take part" and text_of(browser, "it-tagline") != "Four ships"
        ActionChains(browser.driver).send_keys(Keys.ENTER).perform()
        wait_for(lambda: text_of(browser, "it-book") == "Take part" and text_of(browser, "it-tagline") == "Four ships")
        wait_for(lambda: browser.one("control-words").get_attribute("value") == "Take part")


def test_an_entry_of_the_menu_is_written_on_the_header(browser: Browser) -> None:
    open_header(browser, "it-menu")
    press_twice(browser, "en-fares")
    wait_for(lambda: written(browser) == "Fares")
    write_over(browser, "What it costs", Keys.ENTER)
    wait_for(lambda: text_of(browser, "en-fares") == "What it costs")
    browser.press("undo")
    wait_for(lambda: text_of(browser, "en-fares") == "Fares")

"""Foundations and looks in the studio: states side by side, trying on, carrying over, edits that show elsewhere."""

from __future__ import annotations

import json
from collections.abc import Iterator
from pathlib import Path

import pytest
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from upper_rim.core.style.paint.colour import contrast_ratio, read_colour
from upper_rim.shipped import HERE

from .conftest import Browser, Running, wait_for

BOOK = "/s/ostrey/pieces/pc-main/?select=it-book&tray=text"


@pytest.fixture(scope="module")
def browser(running: Running, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Browser]:
    """One window for all of these, signed in."""
    opened = Browser(running, tmp_path_factory.mktemp("downloads"))
    opened.sign_in()
    yield opened
    opened.quit()


def turn(browser: Browser, test: str) -> None:
    """Goes to a part of the tray, or a state, by its link."""
    browser.acted(lambda: browser.js("arguments[0].click()", browser.one(test)))
    wait_for(lambda: browser.one(test).get_attribute("aria-current") == "true")


def test_the_strip_shows_every_state_for_real_with_its_contrast(browser: Browser) -> None:
    browser.go(BOOK)
    wait_for(lambda: browser.all("strip"))
    states = browser.one("states").text
    assert "Rest" in states and "Hover" in states and "Pressed" in states
    deep, buoy = read_colour("#12344d"), read_colour("#e9b44c")
    assert f"{contrast_ratio(deep, buoy):.1f}" in browser.one("state-rest").text
    assert "as at rest" in browser.one("state-current").text, "a state that nobody designed is pointed out"
    assert "as at rest" not in browser.one("state-hover").text
    browser.driver.switch_to.frame(browser.one("strip"))
    colours = browser.js("return [...document.querySelectorAll('a')].map((a) => getComputedStyle(a).backgroundColor)")
    outlines = browser.js("return [...document.querySelectorAll('a')].map((a) => getComputedStyle(a).outlineStyle)")
    widths = browser.js("return [...document.querySelectorAll('a')].map((a) => a.getBoundingClientRect().width)")
    browser.driver.switch_to.default_content()
    assert len(set(colours)) == 3, "rest, hover and pressed differ; current and focus are as at rest"
    assert outlines == ["none", "none", "none", "solid", "none"]
    assert all(wide > 20 for wide in widths), (
        "it is seen, though the frame is as narrow as where the button is left out"
    )

    turn(browser, "state-hover")
    assert browser.one("source-color").text == "site, rest"
    browser.change("style-color", "#777777")
    assert browser.one("source-color").text == "here"
    assert "low" in browser.one("state-hover").text
    browser.press("take-shade")
    assert "low" not in browser.one("state-hover").text
    browser.press("give-back-color")
    assert browser.one("source-color").text == "site, rest"
    browser.press("undo")
    browser.press("undo")
    browser.press("undo")


def test_an_edit_without_effect_in_view_says_where_it_shows(browser: Browser) -> None:
    browser.go(BOOK + "&width=1120&band=bd-middle")
    browser.change("style-font-size", "13px")
    notice = browser.one("notice").text
    assert "nothing that is looked at changes" in notice and "at Middle" in notice and "Button: Book" in notice
    browser.press("undo")
    browser.go(BOOK + "&width=700&band=bd-middle")
    browser.change("style-font-size", "13px")
    assert not browser.all("notice"), "at this width it shows"
    assert browser.one("source-font-size").text == "middle only"
    browser.press("undo")
    browser.change("style-font-size", "thirteen")
    assert "a length is a number with" in browser.one("notice").text
    assert browser.one("style-font-size").get_attribute("value") in {"", "thirteen"}


def test_the_contents_width_is_typed_and_the_whole_follows(browser: Browser) -> None:
    browser.go("/s/ostrey/pieces/pc-main/?select=it-book&tray=room")
    assert browser.one("extent").text == "around it 36 px"
    browser.change("content-width", "120")
    assert browser.one("style-inline-size").get_attribute("value") == "156px"
    assert browser.one("extent").text == "whole 156 px, around it 36 px"
    with browser.on_stage() as stage:
        wide = "const b = document.querySelector('[data-rim-node=it-book]').getBoundingClientRect(); return b.width"
        wait_for(lambda: stage.execute_script(wide) == 156)
    browser.press("undo")


def test_a_font_is_brought_along_or_refused(browser: Browser, tmp_path: Path) -> None:
    browser.go("/s/quillwort/foundations/type/")
    broken = tmp_path / "broken.woff2"
    broken.write_bytes(b"wOF2" + b"x" * 400)
    browser.one("font-file").send_keys(str(broken))
    browser.one("bring-font").click()
    wait_for(lambda: "was not taken in: it is damaged" in browser.one("message").text)
    browser.one("font-file").send_keys(str(HERE / "fonts" / "bitter-latin-wght-normal.woff2"))
    browser.one("bring-font").click()
    wait_for(lambda: "weight 100 to 900" in browser.one("message").text)
    browser.press("face-own")
    browser.go("/s/quillwort/pieces/pc-main/?select=it-menu")
    with browser.on_stage() as stage:
        family = "return getComputedStyle(document.querySelector('.w4ltq')).fontFamily"
        assert "w4ltq Bitter" in wait_for(lambda: stage.execute_script(family))
        wait_for(
            lambda: stage.execute_script(
                "return document.fonts.ready.then(() => [...document.fonts].some((one) => /Bitter$/.test(one.family.replaceAll('\"', '')) && one.status === 'loaded'))"
            )
        )
    browser.press("undo")
    browser.press("undo")


def test_weak_texts_are_listed_and_mended_with_one_press(browser: Browser) -> None:
    browser.go("/s/ostrey/foundations/contrast/")
    assert browser.one("all-pass")
    browser.go("/s/ostrey/pieces/pc-main/?select=rw-above&tray=ground")
    browser.change("style-background-color", "#9fb0bb")
    browser.go("/s/ostrey/foundations/contrast/")
    weak = browser.all("weak")
    assert any("Main header, Text: Three ships" in one.text and "of 4.5" in one.text for one in weak)
    count = len(weak)
    browser.press("take-shade")
    assert len(browser.all("weak")) < count
    browser.press("undo")
    browser.press("undo")


def test_a_look_is_edited_once_and_all_who_wear_it_change(browser: Browser) -> None:
    browser.go("/s/ostrey/foundations/looks/")
    browser.fill("new-look-name", "Loud")
    browser.press("new-look")
    assert "Nobody wears it" in wait_for(lambda: browser.one("worn-by").text)
    look = browser.driver.current_url.rstrip("/").rsplit("/", 1)[1]
    browser.change("style-letter-spacing", "2px")
    for item in ("it-book", "it-tagline"):
        browser.go(f"/s/ostrey/pieces/pc-main/?select={item}&tray=looks")
        browser.press(f"wear-{look}")
    browser.go(f"/s/ostrey/foundations/looks/{look}/?state=hover")
    assert "Button: Book" in browser.one("worn-by").text and "Three ships" in browser.one("worn-by").text
    browser.change("style-letter-spacing", "5px")
    browser.go(f"/s/ostrey/foundations/looks/{look}/?state=rest")
    assert browser.one("style-letter-spacing").get_attribute("value") == "2px"
    browser.go("/s/ostrey/pieces/pc-main/?select=it-book&tray=text&state=hover")
    assert browser.one("style-letter-spacing").get_attribute("placeholder") == "5px"
    assert browser.one("source-letter-spacing").text == "look: Loud"
    with browser.on_stage() as stage:
        spacing = "return [...document.querySelectorAll('[data-rim-node=it-book],[data-rim-node=it-tagline]')].map((one) => getComputedStyle(one).letterSpacing)"
        assert wait_for(lambda: stage.execute_script(spacing)) == ["2px", "2px"]
    browser.go("/s/ostrey/foundations/looks/")
    browser.acted(lambda: browser.driver.find_element(By.CSS_SELECTOR, "[aria-label='Remove the look Loud']").click())
    assert not any("Loud" in one.text for one in browser.all("look"))
    for _ in range(6):
        browser.press("undo")


def test_the_tray_is_used_by_keyboard_alone(browser: Browser) -> None:
    browser.go(BOOK)
    browser.one("state-hover").send_keys(Keys.ENTER)
    wait_for(lambda: browser.one("state-hover").get_attribute("aria-current") == "true")
    field = browser.one("style-color")
    field.send_keys("Tide")
    browser.acted(lambda: browser.keys(Keys.TAB))
    assert browser.one("source-color").text == "here"
    browser.acted(lambda: browser.one("give-back-color").send_keys(Keys.ENTER))
    assert browser.one("source-color").text == "site, rest"
    browser.acted(lambda: browser.one("tray-edge").send_keys(Keys.ENTER))
    assert browser.one("style-border-radius").get_attribute("placeholder") == "4px"
    browser.js("document.activeElement.blur()")
    browser.acted(lambda: browser.keys(Keys.CONTROL, "z"))
    browser.acted(lambda: browser.keys(Keys.CONTROL, "z"))


def test_a_value_comes_from_a_look_and_goes_with_it(browser: Browser) -> None:
    browser.go("/s/ostrey/pieces/pc-main/?select=it-phone&tray=ground")
    browser.change("style-background-color", "Buoy 30%")
    assert browser.one("style-background-color").get_attribute("value") == "Buoy 30%"
    turn(browser, "tray-looks")
    browser.fill("look-name", "Lit")
    browser.press("look-from")
    turn(browser, "tray-ground")
    assert browser.one("source-background-color").text == "look: Lit"
    turn(browser, "tray-looks")
    browser.press("detach")
    turn(browser, "tray-ground")
    assert browser.one("source-background-color").text == "here"
    for _ in range(3):
        browser.press("undo")


def test_a_scheme_is_tried_on_compared_and_taken_off_without_a_trace_or_kept(browser: Browser) -> None:
    browser.go("/s/quillwort/foundations/schemes/")
    before = browser.one("undo").is_enabled()
    browser.press("try-night-harbour")
    assert "Night harbour" in browser.one("trial").text
    grounds = []
    for test in ("as-it-is", "tried-on"):
        wait_for(lambda test=test: browser.all(test))
        browser.driver.switch_to.frame(browser.one(test))
        grounds.append(
            wait_for(lambda: browser.js("const p = document.querySelector('.w4ltq-button'); return p && getComputedStyle(p).fontFamily.includes('w4ltq') && getComputedStyle(p).borderStartStartRadius + getComputedStyle(p).fontFamily"))
        )  # fmt: skip
        browser.driver.switch_to.default_content()
    assert "Source Serif" in grounds[0] and "Atkinson" in grounds[1], "side by side, each for real"
    browser.press("trial-off")
    assert not browser.all("trial") and browser.one("undo").is_enabled() == before, "without a trace"
    browser.press("try-night-harbour")
    browser.press("trial-keep")
    assert not browser.all("trial")
    browser.go("/s/quillwort/foundations/")
    names = [
        swatch.find_element(By.CSS_SELECTOR, "[data-test=name]").get_attribute("value")
        for swatch in browser.all("swatch")
    ]
    assert {"Night water", "Moonlit", "Lamplight"} <= set(names)
    browser.press("undo")
    names = [
        swatch.find_element(By.CSS_SELECTOR, "[data-test=name]").get_attribute("value")
        for swatch in browser.all("swatch")
    ]
    assert "Night water" not in names and "Cream" in names


def test_foundations_are_carried_over_and_a_clash_is_decided(browser: Browser) -> None:
    browser.go("/s/quillwort/foundations/")
    browser.fill("swatch-name", "Deep")
    browser.fill("swatch-colour", "#222222")
    browser.press("add-swatch")
    browser.go("/s/quillwort/foundations/carry/?from=ostrey")
    browser.acted(lambda: browser.one("take-pc-press").click())
    clashes = browser.all("clash")
    assert any("Deep" in clash.text and "#222222" in clash.text for clash in clashes)
    Select(browser.one("clash-sw-deep")).select_by_value("both")
    browser.one("carry").click()
    wait_for(lambda: "Carried over from Ostrey Ferries" in browser.one("message").text)
    browser.go("/s/quillwort/foundations/")
    shown = [field.get_attribute("value") for field in browser.all("name")]
    assert "Deep" in shown and "Deep, from Ostrey Ferries" in shown
    browser.go("/s/quillwort/pieces/")
    assert any("Press header" in piece.text for piece in browser.all("piece"))
    browser.press("undo")
    browser.press("undo")
    assert not any("Press header" in piece.text for piece in browser.all("piece"))


def test_tokens_go_and_come_back(browser: Browser, tmp_path: Path) -> None:
    browser.go("/s/ostrey/foundations/")
    away = browser.js(
        "const request = new XMLHttpRequest(); request.open('GET', '/s/ostrey/foundations/tokens/', false); request.send(); return request.responseText"
    )
    tokens = json.loads(away)
    tokens["swatches"]["Broken"] = {"$value": "blurple"}
    tokens["swatches"]["Round"] = {"$value": "{swatches.Round}"}
    tokens["swatches"]["Tide"]["$value"] = "#0c7f9f"
    file = tmp_path / "ours.tokens.json"
    file.write_text(json.dumps(tokens))
    browser.one("tokens-file").send_keys(str(file))
    browser.one("tokens-in").click()
    wait_for(lambda: browser.all("message"))
    told = " ".join(message.text for message in browser.all("message"))
    assert "swatches.Broken: “blurple” is no colour" in told and "refers to itself" in told
    assert "#0c7f9f" in [field.get_attribute("value") for field in browser.all("colour")]
    browser.press("undo")


def test_own_css_is_checked_as_it_is_typed_and_seen_at_once(browser: Browser) -> None:
    browser.go("/s/ostrey/foundations/code/")
    browser.fill("own-css", ".q7xk-button { letter-spacing: 3px }\n.x { color: }")
    assert "Line 2" in wait_for(lambda: browser.one("css-faults").text)
    with browser.on_stage() as stage:
        wait_for(
            lambda: stage.execute_script(
                "return getComputedStyle(document.querySelector('.q7xk-button')).letterSpacing === '3px'"
            )
        )
    browser.fill("own-css", ".q7xk-button { letter-spacing: 3px }")
    assert wait_for(lambda: browser.one("css-good"))
    browser.fill("snippet-name", "Counter")
    browser.press("add-snippet")
    code = "<script>document.documentElement.dataset.counted = location.host</script>"
    browser.change("snippet-code", code, which=-1)
    with browser.on_stage() as stage:
        counted = wait_for(lambda: stage.execute_script("return document.documentElement.dataset.counted"))
    assert counted.startswith("stage-") and not browser.js("return document.documentElement.dataset.counted")
    browser.go("/s/ostrey/foundations/code/")
    for _ in range(8):
        if browser.one("own-css").get_attribute("value"):
            browser.press("undo")
    assert not browser.one("own-css").get_attribute("value"), "what is published next is as it was"
    browser.go("/s/ostrey/")


def test_a_swatch_is_changed_in_sight_of_the_page_and_its_uses_are_listed(browser: Browser) -> None:
    browser.go("/s/ostrey/foundations/")
    ground = "return getComputedStyle(document.querySelector('[data-rim-node=pc-winter]')).backgroundColor"
    with browser.on_stage() as stage:
        assert wait_for(lambda: stage.execute_script(ground)) == "rgb(233, 180, 76)"
    buoy = "#swatch-sw-buoy [data-test="
    browser.acted(lambda: browser.driver.find_element(By.CSS_SELECTOR, buoy + "uses]").click())
    assert "Winter timetable: background-color" in browser.one("use-list").text.splitlines()
    field = browser.driver.find_element(By.CSS_SELECTOR, buoy + "colour]")
    browser.js("arguments[0].value = ''", field)
    browser.acted(lambda: field.send_keys("#123456", Keys.TAB))
    with browser.on_stage() as stage:
        wait_for(lambda: stage.execute_script(ground) == "rgb(18, 52, 86)")
    browser.press("undo")


def test_a_swatch_in_use_asks_what_takes_its_place(browser: Browser) -> None:
    browser.go("/s/ostrey/foundations/")
    cards = {
        card.find_element(By.CSS_SELECTOR, "[data-test=name]").get_attribute("value"): card
        for card in browser.all("swatch")
    }
    browser.acted(lambda: cards["Mist"].find_element(By.CSS_SELECTOR, "[data-test=merge]").click())
    assert "choose the swatch that takes its place" in browser.one("notice").text
    cards = {
        card.find_element(By.CSS_SELECTOR, "[data-test=name]").get_attribute("value"): card
        for card in browser.all("swatch")
    }
    Select(cards["Mist"].find_element(By.CSS_SELECTOR, "[data-test=merge-into]")).select_by_visible_text("Pier")
    browser.acted(lambda: cards["Mist"].find_element(By.CSS_SELECTOR, "[data-test=merge]").click())
    names = [field.get_attribute("value") for field in browser.all("name")]
    assert "Mist" not in names
    browser.press("undo")
    assert "Mist" in [field.get_attribute("value") for field in browser.all("name")]

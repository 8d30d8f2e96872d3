"""Footers, sidebars, bars and floats in a real browser: where they stand, what they do, and how they are made."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from .conftest import Browser, Running, wait_for


@pytest.fixture(scope="module")
def reader(running: Running, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Browser]:
    browser = Browser(running, tmp_path_factory.mktemp("downloads"))
    yield browser
    browser.quit()


def box(browser: Browser, selector: str) -> dict[str, float]:
    found: dict[str, float] = browser.js(
        "const b = document.querySelector(arguments[0]).getBoundingClientRect(); return {left: b.left, top: b.top, right: b.right, bottom: b.bottom, width: b.width, height: b.height}",
        selector,
    )
    return found


@pytest.mark.parametrize(("width", "columns"), [(360, 1), (768, 2), (1280, 4)])
def test_the_footers_columns_fold_by_width(reader: Browser, running: Running, width: int, columns: int) -> None:
    reader.resize(width, 800)
    reader.go(running.live("ostrey") + "/guide/birds/")
    lefts = reader.js(
        "return [...document.querySelectorAll('.q7xk-rw-columns .q7xk-cell')].map((c) => Math.round(c.getBoundingClientRect().left))"
    )
    assert len(lefts) == 4 and len(set(lefts)) == columns
    footer, bar = box(reader, "footer.q7xk"), box(reader, ".q7xk-pc-bar")
    reader.js("scrollTo(0, document.documentElement.scrollHeight)")
    wait_for(lambda: reader.js("return scrollY > 0"))
    footer, bar = box(reader, "footer.q7xk"), box(reader, ".q7xk-pc-bar")
    if width == 360:
        assert bar["height"] >= 56 and bar["bottom"] == 800, "always at the bottom of the screen"
        assert footer["bottom"] <= bar["top"] + 1, "and the page's end keeps room for it"
    else:
        assert bar["height"] == 0 and abs(footer["bottom"] - 800) < 1


def test_a_sidebar_stands_beside_the_text_only_where_the_text_keeps_its_measure(
    reader: Browser, running: Running
) -> None:
    needs = None
    for width in range(600, 1000, 20):
        reader.resize(width, 800)
        if needs is None and width == 600:
            reader.go(running.live("ostrey") + "/guide/birds/")
        aside, main = box(reader, "aside.q7xk"), box(reader, "main")
        beside = abs(aside["top"] - main["top"]) < 1
        assert beside or aside["top"] >= main["bottom"] - 0.5
        if beside and needs is None:
            needs = width
        assert beside == (needs is not None), "once beside, always beside where there is more room"
    assert needs is not None and 660 < needs < 800
    reader.resize(1280, 800)
    aside, main = box(reader, "aside.q7xk"), box(reader, "main")
    assert round(aside["width"]) == 280 and aside["right"] < main["left"] + 1
    assert reader.js("return document.documentElement.scrollWidth") == 1280


def test_a_notice_that_was_closed_stays_closed_and_comes_back_in_time(reader: Browser, running: Running) -> None:
    reader.resize(1280, 800)
    reader.go(running.live("ostrey") + "/")
    notice = reader.driver.find_element(By.CSS_SELECTOR, ".q7xk-pc-winter")
    assert notice.is_displayed()
    reader.driver.find_element(By.CSS_SELECTOR, "[data-rim-shut]").send_keys(Keys.ENTER)
    assert not notice.is_displayed()
    reader.go(running.live("ostrey") + "/sailings/")
    assert not reader.driver.find_element(By.CSS_SELECTOR, ".q7xk-pc-winter").is_displayed()
    reader.js("localStorage.setItem('q7xk-pc-winter', Date.now() - 1)")
    reader.go(running.live("ostrey") + "/")
    assert reader.driver.find_element(By.CSS_SELECTOR, ".q7xk-pc-winter").is_displayed()


@pytest.mark.parametrize(("now", "shown"), [("2026-10-19", False), ("2026-12-24", True), ("2027-03-28", False)])
def test_a_notice_shows_within_its_period_only(reader: Browser, running: Running, now: str, shown: bool) -> None:
    stood_still = reader.driver.execute_cdp_cmd(
        "Page.addScriptToEvaluateOnNewDocument",
        {"source": f"const then = new Date('{now}T12:00').getTime(); Date.now = () => then; localStorage.clear()"},
    )
    reader.go(running.live("ostrey") + "/")
    displayed = reader.driver.find_element(By.CSS_SELECTOR, ".q7xk-pc-winter").is_displayed()
    reader.driver.execute_cdp_cmd("Page.removeScriptToEvaluateOnNewDocument", stood_still)
    assert displayed is shown


def test_a_float_stands_over_the_bar_and_gives_way_to_the_footer(reader: Browser, running: Running) -> None:
    reader.resize(360, 500)
    reader.go(running.live("ostrey") + "/sailings/")
    button = reader.driver.find_element(By.CSS_SELECTOR, ".q7xk-pc-book a")
    reader.js("scrollTo(0, 0)")
    wait_for(lambda: button.is_displayed())
    float_, bar = box(reader, ".q7xk-pc-book"), box(reader, ".q7xk-pc-bar")
    assert float_["bottom"] <= bar["top"] - 15 and float_["right"] <= 360 - 15
    reader.js("scrollTo(0, document.documentElement.scrollHeight)")
    wait_for(lambda: not button.is_displayed())


def test_without_scripts_everything_is_there(reader: Browser, running: Running) -> None:
    reader.driver.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": True})
    try:
        reader.resize(1280, 800)
        reader.go(running.live("ostrey") + "/guide/")
        links = reader.driver.find_elements(By.CSS_SELECTOR, ".q7xk a[href]")
        hidden = [link.get_attribute("href") for link in links if not link.is_displayed()]
        in_bands = [link for link in hidden if link and link.endswith(("#q7xk-content",))]
        shown = {link.get_attribute("href") for link in links if link.is_displayed()}
        assert "Winter sailings" in reader.driver.find_element(By.CSS_SELECTOR, ".q7xk-pc-winter").text
        assert not reader.driver.find_element(By.CSS_SELECTOR, "[data-rim-shut]").is_displayed()
        assert {link for link in hidden if link} - shown <= {
            link for link in hidden if link and ("/harbours/" in link or "/travelling/" in link)
        } | set(in_bands), "what is in a branch opens on hover and focus, the rest is simply there"
    finally:
        reader.driver.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": False})


def test_a_footer_is_built_from_nothing_and_five_addresses_become_icons(browser: Browser, running: Running) -> None:
    browser.sign_in()
    browser.go("/s/quillwort/pieces/")
    browser.press("kind-footer")
    browser.fill("piece-name-halves", "Colophon")
    browser.press("begin-halves")
    wait_for(lambda: "/pieces/pc-" in browser.driver.current_url)
    assert "on 6 of 6 pages" in browser.one("reached").text or "of" in browser.one("reached").text
    profiles = next(line for line in browser.all("line") if line.text.startswith("Profiles"))
    browser.acted(lambda: profiles.click())
    addresses = (
        "https://www.instagram.com/quillwort\nhttps://mastodon.social/@quillwort\n"
        "https://youtube.com/@quillwort\npress@quillwort.example\nhttps://quillwort.example/shop"
    )
    field = browser.one("control-profiles")
    browser.acted(
        lambda: browser.js(
            "arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event('change', {bubbles: true}))",
            field,
            addresses,
        )
    )
    icons = "return [...document.querySelectorAll('footer .w4ltq-social .w4ltq-icon')].map((i) => i.className.split('icon-').pop())"
    with browser.on_stage() as stage:
        wait_for(
            lambda: (
                stage.execute_script(icons) == ["brand-instagram", "brand-mastodon", "brand-youtube", "mail", "globe"]
            )
        )
    field = browser.one("control-profiles")
    browser.acted(
        lambda: browser.js(
            "arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event('change', {bubbles: true}))",
            field,
            addresses + "\njavascript:alert(1)",
        )
    )
    assert "is no address elsewhere" in browser.one("notice").text
    with browser.on_stage() as stage:
        assert len(stage.execute_script(icons)) == 5, "what cannot be is refused, and changes nothing"


def test_a_text_with_marks_is_written_in_the_editor(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/s/ostrey/pieces/pc-footer/?select=it-about")
    editor = wait_for(lambda: browser.one("control-rich"))
    wait_for(lambda: "Three ships" in editor.text)
    editor.send_keys(Keys.CONTROL, Keys.END)
    editor.send_keys(" Since 1987.")
    browser.acted(lambda: browser.js("document.activeElement.blur()"))
    with browser.on_stage() as stage:
        text = "return document.querySelector('.q7xk-it-about').innerText"
        wait_for(lambda: "Since 1987." in stage.execute_script(text))
        assert (
            stage.execute_script("return document.querySelector('.q7xk-it-about strong').textContent")
            == "five harbours"
        )


def test_an_item_moves_from_one_piece_into_another_and_back_by_undo(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/s/ostrey/pieces/pc-main/?select=it-phone")
    browser.choose("move-to", "cl-rights")
    wait_for(lambda: "/pieces/pc-footer/" in browser.driver.current_url)
    assert browser.one("chosen").text == "Icon: phone"
    place = "return document.querySelector('[data-rim-node=it-phone]').closest('footer, header').tagName"
    with browser.on_stage() as stage:
        wait_for(lambda: stage.execute_script(place) == "FOOTER")
    browser.press("undo")
    with browser.on_stage() as stage:
        wait_for(lambda: stage.execute_script(place) == "HEADER")

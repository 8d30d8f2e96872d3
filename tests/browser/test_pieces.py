"""Footers, sidebars, bars and floats in a real browser: where they stand, what they do, and how they are made."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path
from typing import get_args

import pytest
from selenium import webdriver
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from upper_rim.core.kinds.pieces.float import FloatPlace
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Edit, Set, Together
from upper_rim.core.model.site import Site
from upper_rim.core.output.page.compose import Composer
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

from .conftest import Browser, Running, let_in, plain_chromium, wait_for


@pytest.fixture(scope="module")
def reader(running: Running, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Browser]:
    browser = Browser(running, tmp_path_factory.mktemp("downloads"))
    yield browser
    browser.quit()


@pytest.fixture(scope="module")
def chromium() -> Iterator[webdriver.Chrome]:
    driver = plain_chromium()
    yield driver
    driver.quit()


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
        assert abs(footer["bottom"] - bar["top"]) < 1, "and the page's end keeps room for it and its edges"
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
    reader.go(running.live("ostrey") + "/guide/walks/")
    button = reader.driver.find_element(By.CSS_SELECTOR, ".q7xk-pc-book a")
    reader.js("scrollTo(0, 0)")
    wait_for(lambda: button.is_displayed())
    bar = box(reader, ".q7xk-pc-bar")
    wait_for(lambda: box(reader, ".q7xk-pc-book")["bottom"] <= bar["top"] - 15)
    assert box(reader, ".q7xk-pc-book")["right"] <= 360 - 15
    reader.js("scrollTo(0, document.documentElement.scrollHeight)")
    wait_for(lambda: not button.is_displayed())


_SEEN = """
const seen = (part) => part.checkVisibility({ opacityProperty: true, visibilityProperty: true })
  && [...part.getClientRects()].some((box) => box.width && box.height);
return [...document.querySelectorAll(arguments[0])].map((part) => [part.href, seen(part)]);
"""


def test_without_scripts_every_link_and_text_of_every_page_is_there(reader: Browser, running: Running) -> None:
    site, _ = ostrey()
    reader.driver.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": True})
    try:
        reader.resize(1280, 800)
        for page in site.pages:
            if page.bare or page.content is None:
                continue
            reader.go(running.live("ostrey") + page.path)
            let_in(reader.driver)
            # What is for some is not for whoever it is.
            whoevers = ".q7xk:not(.q7xk-if) a[href]:not(.q7xk-if, .q7xk-if *, [data-rim-question] *)"
            links = [(str(href), bool(seen)) for href, seen in reader.js(_SEEN, whoevers)]
            left = {href for href, seen in links if not seen} - {href for href, seen in links if seen}
            left = {link for link in left if not link.endswith("#q7xk-content")}
            in_branches = {href for href, _ in reader.js(_SEEN, ".q7xk-sub a")}
            assert len(links) > len(left) and left <= in_branches, (
                f"{page.path}: what is in a branch opens on pointing and focus, the rest is there"
            )
            assert not any(seen for _, seen in reader.js(_SEEN, "[data-rim-shut]"))
        branch = reader.driver.find_element(By.CSS_SELECTOR, ".q7xk-menu li:has(.q7xk-sub) > a")
        branch.send_keys(Keys.NULL)
        assert any(link.is_displayed() for link in reader.driver.find_elements(By.CSS_SELECTOR, ".q7xk-sub a"))
    finally:
        reader.driver.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": False})


def test_a_footer_is_built_from_nothing_and_five_addresses_become_icons(browser: Browser, running: Running) -> None:
    browser.sign_in()
    browser.begin_piece("quillwort", "halves", "Colophon")
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
    browser.take_piece_away()


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
    browser.choose("elsewhere", "cl-rights")
    browser.press("move-to")
    wait_for(lambda: "/pieces/pc-footer/" in browser.driver.current_url)
    assert browser.one("chosen").text == "Icon: phone"
    place = "return document.querySelector('[data-rim-node=it-phone]').closest('footer, header').tagName"
    with browser.on_stage() as stage:
        wait_for(lambda: stage.execute_script(place) == "FOOTER")
    browser.press("undo")
    with browser.on_stage() as stage:
        wait_for(lambda: stage.execute_script(place) == "HEADER")


def opened(chromium: webdriver.Chrome, tmp_path: Path, *edits: Edit) -> None:
    """The demo's front page after some edits, by itself."""
    site, contents = ostrey()
    after = apply(site, Together(edits=edits))
    assert isinstance(after, Site)
    page = next(page for page in after.pages if page.path == "/")
    assert page.content is not None
    composer = Composer(after, shelf(), contents.__getitem__, marks=True)
    file = tmp_path / "page.html"
    file.write_bytes(composer.page(page, contents[page.content]))
    metrics = {"width": 1000, "height": 600, "deviceScaleFactor": 1, "mobile": False}
    chromium.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
    chromium.get(file.as_uri())


@pytest.mark.parametrize("high", [420, 600, 1100])
def test_a_footer_beneath_stands_still_while_the_page_uncovers_it(
    chromium: webdriver.Chrome, tmp_path: Path, high: int
) -> None:
    """One that is higher than the window, too."""
    opened(chromium, tmp_path, Set(node="pc-footer", field="uncovered", value=True))
    metrics = {"width": 1000, "height": high, "deviceScaleFactor": 1, "mobile": False}
    chromium.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
    footer = chromium.execute_script("return document.querySelector('footer.q7xk').offsetHeight")
    assert (footer > high) == (high == 420)
    for still_to_go in (200, 120, 40, 0):
        found = chromium.execute_async_script(
            "scrollTo(0, document.documentElement.scrollHeight - innerHeight - arguments[0]);"
            "requestAnimationFrame(() => requestAnimationFrame(() => { const [f, b] = ['footer.q7xk', '.q7xk-beneath'].map((s) => document.querySelector(s).getBoundingClientRect());"
            "arguments[1]([f.top, f.bottom, b.top, b.bottom]) }))",
            still_to_go,
        )
        assert found[1] == pytest.approx(high + still_to_go, abs=1.5)
        assert found[3] == pytest.approx(high, abs=1.5), "its contents stand at the window's bottom all the while"
    chromium.execute_cdp_cmd(
        "Emulation.setEmulatedMedia", {"features": [{"name": "prefers-reduced-motion", "value": "reduce"}]}
    )
    top = "return document.querySelector('.q7xk-beneath').getBoundingClientRect().top - document.querySelector('footer.q7xk').getBoundingClientRect().top"
    chromium.execute_script("scrollTo(0, document.documentElement.scrollHeight - innerHeight - 150)")
    assert abs(chromium.execute_script(top)) < 1, "with less motion it is simply there"
    chromium.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": []})


@pytest.mark.parametrize("place", get_args(FloatPlace))
def test_a_float_stands_at_its_place_and_opens_as_a_fan_into_the_window(
    chromium: webdriver.Chrome, tmp_path: Path, place: str
) -> None:
    changes = {"place": place, "fan": True, "hidden_in": []}
    edits = [Set(node="pc-book", field=field, value=value) for field, value in changes.items()]
    opened(chromium, tmp_path, Set(node="pc-languages", field="on", value=False), *edits)
    rects = (
        "return ['.q7xk-pc-book', '.q7xk-fan summary', '.q7xk-it-float-book'].map((s) => {"
        " const b = document.querySelector(s).getBoundingClientRect(); return [b.left, b.top, b.right, b.bottom] })"
    )
    closed = chromium.execute_script(rects)
    block, inline = place.split("-")
    at_sides = closed[0][0], 1000 - closed[0][2]
    if inline == "center":
        assert at_sides[0] == pytest.approx(at_sides[1], abs=1)
    else:
        assert at_sides[inline == "end"] == pytest.approx(16, abs=1)
    if block != "middle":
        assert (closed[0][1] if block == "top" else 600 - closed[0][3]) == pytest.approx(16, abs=1)
    chromium.find_element(By.CSS_SELECTOR, ".q7xk-fan summary").send_keys(Keys.ENTER)
    _, summary, item = chromium.execute_script(rects)
    assert item[3] > item[1] and all(
        0 <= edge <= limit for edge, limit in zip(item, (1000, 600, 1000, 600), strict=True)
    )
    assert (item[3] <= summary[1]) if block == "bottom" else (item[1] >= summary[3])

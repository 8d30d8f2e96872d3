"""The way between languages, in a browser: each choice leads where it is foreseen, by hand and by keys, also without
script."""

from __future__ import annotations

from random import Random
from typing import Any, get_args

import pytest
from selenium import webdriver
from selenium.webdriver.common.actions import interaction
from selenium.webdriver.common.actions.action_builder import ActionBuilder
from selenium.webdriver.common.actions.pointer_input import PointerInput
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.test_gates import violations
from tests.core.test_counterparts import PAGES, any_site, site, with_switch, written
from tests.core.test_counterparts import page as a_page
from tests.folder import Folder, taken_away
from upper_rim.core.exchange.imports.import_pages import digest
from upper_rim.core.kinds.pieces.float import Float, FloatPlace
from upper_rim.core.languages.flags import flag
from upper_rim.core.languages.names import own_name
from upper_rim.core.model.navigation.counterparts import Counterparts, offered
from upper_rim.core.model.site import Asset, Site
from upper_rim.demo import ostrey

from .conftest import wait_for

SITES = 8
SWITCH = "[role=group][class*=languages]"


def filled(seed: int) -> tuple[Site, dict[str, bytes]]:
    """A generated site with a switch on all of its pages."""
    chance = Random(f"switch {seed}")
    whole, contents = written(any_site(seed))
    picture = Asset(id="as-l", path="/logo.svg", content=digest(flag("se")), size=len(flag("se")))
    whole, contents = whole.replaced(assets=(picture,)), {**contents, picture.content: flag("se")}
    ways, names = chance.choice(["row", "list", "button"]), chance.choice(["own", "here", "code"])
    pictures, hides = chance.choice(["none", "before", "alone"]), chance.random() < 0.3
    return with_switch(whole, way=ways, names=names, pictures=pictures, hides_current=hides), contents


def judged(driver: webdriver.Chrome, folder: Folder, seed: int) -> tuple[list[Any], int]:
    """What led elsewhere than foreseen, and how many choices were made."""
    whole, contents = filled(seed)
    folder.files, wrong, made = taken_away(whole, contents), [], 0
    origin, ways = f"http://l{seed}.localhost:{folder.port}", Counterparts(whole)
    driver.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": seed % 3 == 0})
    for page in whole.pages:
        wanted = {one.language: one.href for one in offered(whole, ways.of(page)) if one.href is not None}
        driver.get(origin + page.path)
        links = [str(one.get_attribute("hreflang")) for one in driver.find_elements(By.CSS_SELECTOR, f"{SWITCH} a")]
        hidden = set(wanted) - set(links)
        if hidden - {page.language} or set(links) - set(wanted):
            wrong.append((seed, page.path, links, wanted))
        for language in links:
            driver.get(origin + page.path)
            for opener in driver.find_elements(By.CSS_SELECTOR, f"{SWITCH} summary"):
                opener.click()
            driver.find_element(By.CSS_SELECTOR, f"{SWITCH} a[hreflang={language}]").click()
            made += 1
            there = wanted[language]
            heading = driver.find_element(By.CSS_SELECTOR, "h1").text
            if driver.current_url != origin + there or heading != there:
                wrong.append((seed, page.path, language, driver.current_url, there))
    driver.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": False})
    return wrong, made


def test_every_choice_leads_where_it_is_foreseen(driver: webdriver.Chrome, folder: Folder) -> None:
    made = 0
    for seed in range(SITES):
        wrong, choices = judged(driver, folder, seed)
        assert wrong == []
        made += choices
    assert made > SITES * 12


def test_each_page_of_the_demo_leads_to_its_own_translations(driver: webdriver.Chrome, folder: Folder) -> None:
    demo, contents = ostrey()
    folder.files, ways = taken_away(demo, contents), Counterparts(demo)
    origin, found = f"http://demo.localhost:{folder.port}", 0
    for page in demo.pages:
        if page.bare or f"{page.path}index.html"[1:] not in folder.files or page.path.startswith(("/shop/", "/press/")):
            continue
        driver.get(origin + page.path)
        wanted = [(one.language, one.href) for one in offered(demo, ways.of(page)) if one.href]
        links = f"[...document.querySelectorAll('footer {SWITCH} a')].map((one) => [one.hreflang, new URL(one.href).pathname])"
        shown = driver.execute_script(f"return {links}")
        assert not shown or [tuple(one) for one in shown] == wanted, page.path
        alternates = (
            "[...document.querySelectorAll('link[hreflang]')].map((one) => [one.hreflang, new URL(one.href).pathname])"
        )
        told = dict(driver.execute_script(f"return {alternates}"))
        told.pop("x-default", None)
        assert told == {language: other.path for language, other in ways.alternates(page).items()}, page.path
        found += bool(shown)
    assert found > 25


@pytest.mark.parametrize("width", [1280, 320])
def test_a_button_offers_languages_to_keys_and_axe_finds_nothing(
    driver: webdriver.Chrome, folder: Folder, width: int
) -> None:
    whole, contents = written(site(*PAGES))
    folder.files = taken_away(with_switch(whole, way="button"), contents)
    device = {"width": width, "height": 640, "deviceScaleFactor": 1, "mobile": False}
    driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", device)
    driver.get(f"http://keys.localhost:{folder.port}/")
    opener = driver.find_element(By.CSS_SELECTOR, f"{SWITCH} summary")
    assert opener.text == own_name("en") and violations(driver) == []
    is_open = f"return document.querySelector('{SWITCH} details').open"
    before = driver.execute_script("return document.documentElement.scrollHeight")
    driver.execute_script("arguments[0].focus()", opener)
    opener.send_keys(Keys.ENTER)
    assert driver.execute_script(is_open) and violations(driver) == []
    panel = driver.find_element(By.CSS_SELECTOR, f"{SWITCH} ul").rect
    assert panel["x"] >= 0 and panel["x"] + panel["width"] <= width
    assert driver.execute_script("return document.documentElement.scrollHeight") == before, "nothing moves"
    driver.switch_to.active_element.send_keys(Keys.TAB)
    assert driver.execute_script("return document.activeElement.hreflang")
    driver.switch_to.active_element.send_keys(Keys.ESCAPE)
    assert not driver.execute_script(is_open) and driver.switch_to.active_element == opener
    opener.send_keys(Keys.SPACE)
    driver.execute_script(
        "document.querySelector('h1').dispatchEvent(new PointerEvent('pointerdown', {bubbles: true}))"
    )
    wait_for(lambda: not driver.execute_script(is_open))


def speaks(driver: webdriver.Chrome, languages: str) -> None:
    driver.execute_cdp_cmd("Emulation.setUserAgentOverride", {"userAgent": "Test", "acceptLanguage": languages})


def suggested(driver: webdriver.Chrome) -> list[str]:
    """What is suggested, its language and where it leads; nothing where nothing is."""
    found = "const told = document.querySelector('[data-rim-suggests] [role=status]'), way = told.firstElementChild;"
    return list(
        driver.execute_script(
            f"{found} return told.hidden ? [] : [way.textContent, way.lang, new URL(way.href).pathname]"
        )
    )


def test_who_asks_for_another_language_is_told_once_and_led_nowhere_unasked(
    driver: webdriver.Chrome, folder: Folder
) -> None:
    whole, contents = written(site(*PAGES))
    folder.files = taken_away(with_switch(whole, way="row", suggests=True), contents)
    origin = f"http://told.localhost:{folder.port}"

    def came(path: str, *, anew: bool = True) -> list[str]:
        driver.get(f"{origin}{path}")
        if anew:
            driver.execute_script("sessionStorage.clear()")
            driver.refresh()
        assert driver.current_url == f"{origin}{path}", "nobody is sent anywhere"
        return suggested(driver)

    try:
        speaks(driver, "de-AT,fr")
        before = (came("/"), driver.execute_script("return document.documentElement.scrollHeight"))
        assert before[0] == ["Diese Seite auf Deutsch", "de", "/de/"] and violations(driver) == []
        assert came("/a/", anew=False) == [], "once a visit"
        assert came("/a/") == ["Diese Seite auf Deutsch", "de", "/de/a/"] and came("/de/a/") == []
        speaks(driver, "en-GB,de")
        assert came("/") == [], "the page is in one of theirs"
        speaks(driver, "ja")
        assert came("/") == [], "no page is in theirs"
        # What was chosen counts before what the browser asks for.
        speaks(driver, "en")
        driver.find_element(By.CSS_SELECTOR, f"{SWITCH} a[hreflang=cy]").click()
        assert came("/") == ["Y dudalen hon yn Gymraeg", "cy", "/cy/"]
        driver.find_element(By.CSS_SELECTOR, "[data-rim-suggests] [role=status] button").click()
        assert suggested(driver) == [] and came("/") == [], "who has shut it hears no more of it"
    finally:
        driver.execute_cdp_cmd("Emulation.setUserAgentOverride", {"userAgent": ""})


@pytest.mark.parametrize("place", get_args(FloatPlace))
def test_as_a_float_it_opens_into_the_window_on_a_ground_of_its_own_by_a_finger(
    driver: webdriver.Chrome, folder: Folder, place: str
) -> None:
    whole, contents = written(site(*PAGES, arabic := a_page(9, "/ar/", "ar", of=0)))
    header = with_switch(whole, way="button").pieces[0]
    piece = Float(id="pc-f", name="Languages", place=place, rows=header.rows, reach=header.reach)
    folder.files = taken_away(whole.replaced(pieces=(piece,)), contents)
    driver.execute_cdp_cmd(
        "Emulation.setDeviceMetricsOverride", {"width": 390, "height": 700, "deviceScaleFactor": 1, "mobile": True}
    )
    driver.execute_cdp_cmd("Emulation.setTouchEmulationEnabled", {"enabled": True})
    for path in ("/", arabic.path):
        driver.get(f"http://{place}.localhost:{folder.port}{path}")
        finger = ActionBuilder(driver, mouse=PointerInput(interaction.POINTER_TOUCH, "finger"))
        opener = driver.find_element(By.CSS_SELECTOR, f"{SWITCH} summary")
        finger.pointer_action.click(opener)
        finger.perform()
        panel = driver.find_element(By.CSS_SELECTOR, f"{SWITCH} ul")
        wait_for(panel.is_displayed)
        box = panel.rect
        assert box["x"] >= 0 and box["x"] + box["width"] <= 390, (path, box)
        assert box["y"] >= 0 and box["y"] + box["height"] <= 700, (path, box)
        assert "rgba(0, 0, 0, 0)" not in panel.value_of_css_property("background-color")
        assert opener.rect["height"] >= 24
    driver.execute_cdp_cmd("Emulation.setTouchEmulationEnabled", {"enabled": False})


def test_nothing_shifts_when_the_language_changes(driver: webdriver.Chrome, folder: Folder) -> None:
    demo, contents = ostrey()
    folder.files = taken_away(demo, contents)
    origin = f"http://shifts.localhost:{folder.port}"
    seen = (
        "new PerformanceObserver((list) => { for (const one of list.getEntries()) window.shifted = (window.shifted || 0) + one.value; })"
        ".observe({type: 'layout-shift', buffered: true})"
    )
    added = driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": seen})
    driver.get(f"{origin}/sailings/")
    for language in ("ar", "de", "cy", "en", "ar"):
        driver.find_element(By.CSS_SELECTOR, f"header {SWITCH} summary").click()
        driver.find_element(By.CSS_SELECTOR, f"header {SWITCH} a[hreflang={language}]").click()
        wait_for(lambda: driver.execute_script("return document.readyState") == "complete")
        driver.execute_async_script("document.fonts.ready.then(() => setTimeout(arguments[0], 300))")
        assert driver.execute_script("return document.documentElement.lang") == language
        assert driver.execute_script("return window.shifted || 0") < 0.001, language
    driver.execute_cdp_cmd("Page.removeScriptToEvaluateOnNewDocument", added)

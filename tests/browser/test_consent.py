"""Questions about consent in a browser: what is fetched is what is foreseen, as a proxy counts it; by keyboard alone; without
a fault that axe finds."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any

import pytest
from selenium import webdriver
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.consent_judge import Proxy, judged
from tests.folder import Folder, taken_away
from upper_rim.core.kinds.items.embed import Embed
from upper_rim.core.kinds.pieces.age import AgeGate
from upper_rim.core.kinds.pieces.consent import QUESTION_PLACES, ConsentQuestion
from upper_rim.core.model.site import Site
from upper_rim.demo import ostrey

from .conftest import Browser, Running, let_in, load_faces, wait_for
from .test_gates import violations

SITES = 14


PATH = "/sailings/fares/"


def a_few_pages() -> tuple[Site, dict[str, bytes]]:
    """Of the demo, which are published soon. The question is there at once."""
    site, contents = ostrey()
    shown = {PATH, "/ar/", "/privacy/"}
    pages = tuple(page for page in site.pages if page.path in shown)
    return asked(site.replaced(pages=pages), motion="none"), contents


def asked(site: Site, **fields: object) -> Site:
    """With a question that is another one in some fields."""
    pieces = (one.replaced(**fields) if isinstance(one, ConsentQuestion) else one for one in site.pieces)
    return site.replaced(pieces=tuple(pieces))


@pytest.mark.django_db(transaction=True)
def test_on_the_live_server_is_fetched_what_is_foreseen(
    driver: webdriver.Chrome, proxy: Proxy, live: Callable[[Site, dict[str, bytes]], str]
) -> None:
    wrong, steps = judged(driver, proxy, range(SITES), live)
    assert wrong == [] and steps == 8 * SITES


def unpacked(folder: Folder, site: Site, contents: dict[str, bytes]) -> str:
    """The site as it is in the ZIP, at a host that no visitor has been to."""
    folder.files = taken_away(site, contents)
    return f"http://z.localhost:{folder.port}"


def test_from_the_zip_is_fetched_what_is_foreseen(driver: webdriver.Chrome, proxy: Proxy, folder: Folder) -> None:
    live = partial(unpacked, folder)
    wrong, steps = judged(driver, proxy, range(SITES, 2 * SITES), live, is_served=False)
    assert wrong == [] and steps == 8 * SITES


def test_nothing_leaves_the_demo_before_a_yes_and_after_a_no_its_cookies_are_gone(
    driver: webdriver.Chrome, proxy: Proxy, running: Running
) -> None:
    site, _ = ostrey()
    home, found = running.live("ostrey"), set[str]()
    for page in site.pages:
        driver.get(home + page.path)
        let_in(driver)
        if not page.bare:
            wait_for(lambda: driver.find_elements(By.CSS_SELECTOR, "[data-rim-question]"))
        found |= {page.path} if driver.find_elements(By.CSS_SELECTOR, "[data-rim-question]") else set()
    assert proxy.settled() == frozenset(), "no page asks anybody for anything"
    assert {page.path for page in site.pages} - found == {"/sailings/winter/"}, "all but the one that stands alone ask"
    driver.get(f"{home}/travelling/")
    wait_for(lambda: driver.find_elements(By.CSS_SELECTOR, "[data-rim-question]:not([hidden])"))
    driver.execute_script(
        "document.querySelector('[data-rim-answer=yes]').click(); document.querySelector('iframe').scrollIntoView()"
    )
    wait_for(lambda: "tm_seen" in driver.execute_script("return document.cookie"))
    hosts = {"count.tidemark.example", "charts.saltmarsh.example"}
    assert proxy.settled(*hosts) == hosts
    driver.execute_script(
        "document.querySelector('[data-rim-choices]').click(); document.querySelector('[data-rim-answer=no]').click()"
    )
    wait_for(lambda: "tm_seen" not in driver.execute_script("return document.cookie"))
    assert proxy.settled() == frozenset()
    assert "rim-agreed" in driver.execute_script("return document.cookie")
    driver.execute_script(
        "document.querySelector('[data-rim-once]').click(); document.querySelector('iframe').scrollIntoView()"
    )
    assert proxy.settled("charts.saltmarsh.example") == {"charts.saltmarsh.example"}, "a yes of its own for one frame"


@pytest.mark.parametrize("place", QUESTION_PLACES)
def test_a_question_is_answered_with_keys_alone_wherever_it_stands(
    driver: webdriver.Chrome, folder: Folder, place: str
) -> None:
    site, contents = a_few_pages()
    driver.get(unpacked(folder, asked(site, place=place), contents) + PATH)
    shown = "return !document.querySelector('[data-rim-question]').hidden"
    wait_for(lambda: driver.execute_script(shown))
    is_whole = place == "whole"
    active = "return document.activeElement"
    assert driver.execute_script(f"{active}.matches('[data-rim-question]')") == is_whole, "a box takes no focus unasked"
    driver.switch_to.active_element.send_keys(Keys.ESCAPE)
    assert driver.execute_script(shown), "leaving is no answer"
    order: list[str] = []
    for _ in range(6 if is_whole else 7):
        driver.switch_to.active_element.send_keys(Keys.TAB)
        order.append(
            driver.execute_script(
                "const one = document.activeElement; return one.dataset.rimAnswer || one.dataset.rimChoice || one.localName"
            )
        )
    skip = [] if is_whole else ["a"]
    assert order == [*skip, "a", "preferences", "statistics", "yes", "no", "ticked"], "read first, and in its order"
    if is_whole:
        driver.switch_to.active_element.send_keys(Keys.TAB)
        within = (
            "const one = document.activeElement; return one === document.body || !!one.closest('[data-rim-question]')"
        )
        assert driver.execute_script(within), "what is behind is inert"
    driver.execute_script("document.querySelector('[data-rim-choice=preferences]').focus()")
    driver.switch_to.active_element.send_keys(Keys.SPACE)
    driver.execute_script("document.querySelector('[data-rim-answer=ticked]').focus()")
    driver.switch_to.active_element.send_keys(Keys.ENTER)
    assert not driver.execute_script(shown)
    assert driver.execute_script("return document.documentElement.dataset.rimAgreed") == "preferences"
    assert not driver.execute_script("return document.querySelector('[inert]')")
    back = driver.find_element(By.CSS_SELECTOR, "[data-rim-choices]")
    driver.execute_script("arguments[0].focus()", back)
    back.send_keys(Keys.ENTER)
    wait_for(lambda: driver.execute_script(shown))
    assert driver.execute_script("return document.querySelector('[data-rim-choice=preferences]').checked")
    driver.switch_to.active_element.send_keys(Keys.ESCAPE)
    assert not driver.execute_script(shown) and driver.switch_to.active_element == back, "the focus is given back"


@pytest.mark.parametrize("width", [1280, 320])
def test_axe_finds_nothing_and_nothing_is_cut_wherever_it_stands(
    driver: webdriver.Chrome, folder: Folder, width: int
) -> None:
    site, contents = a_few_pages()
    device = {"width": width, "height": 640, "deviceScaleFactor": 1, "mobile": False}
    driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", device)
    wrong: list[Any] = []
    for place in QUESTION_PLACES:
        home = unpacked(folder, asked(site, place=place), contents)
        for path in (PATH, "/ar/"):
            driver.execute_cdp_cmd("Network.clearBrowserCookies", {})
            driver.get(home + path)
            wait_for(lambda: driver.execute_script("return !document.querySelector('[data-rim-question]').hidden"))
            wrong += [(place, path, one) for one in violations(driver)]
            wrong += [(place, path, "out of the window")] * driver.execute_script(_IS_OUT)
    assert wrong == []


_IS_OUT = """const box = document.querySelector('[data-rim-question]').getBoundingClientRect();
return box.left < -0.5 || box.top < -0.5 || box.right > innerWidth + 0.5 || box.bottom > innerHeight + 0.5"""


MOVES = """const one = document.querySelector('[data-rim-question]');
return one.getAnimations().map((moved) => [moved.transitionProperty, moved.effect.getTiming().duration])"""


@pytest.mark.parametrize("motion", ["slide", "fade"])
def test_a_question_comes_and_goes_but_at_once_where_less_motion_is_asked_for(
    driver: webdriver.Chrome, folder: Folder, motion: str
) -> None:
    site, contents = a_few_pages()
    moved = {"slide": "translate", "fade": "opacity"}[motion]
    for place in ("bar-top", "middle-end", "whole"):
        home = unpacked(folder, asked(site, place=place, motion=motion, in_ms=1900, out_ms=1800), contents)
        for prefers in ("no-preference", "reduce"):
            features = [{"name": "prefers-reduced-motion", "value": prefers}]
            driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": features})
            driver.execute_cdp_cmd("Network.clearBrowserCookies", {})
            driver.get(home + PATH)
            wait_for(lambda: driver.execute_script("return !document.querySelector('[data-rim-question]').hidden"))
            comes = driver.execute_script(MOVES)
            driver.execute_script(
                "document.querySelector('[data-rim-question]').getAnimations().forEach((one) => one.finish())"
            )
            assert not driver.execute_script(_IS_OUT), place
            driver.execute_script("document.querySelector('[data-rim-answer=no]').click()")
            goes = dict(driver.execute_script(MOVES))
            if prefers == "reduce":
                assert (comes, goes) == ([], {}), place
            else:
                assert comes == [[moved, 1900]] and goes == {moved: 1800, "display": 1800}, (place, comes, goes)
                driver.execute_script(
                    "document.querySelector('[data-rim-question]').getAnimations().forEach((one) => one.finish())"
                )
            assert not driver.find_element(By.CSS_SELECTOR, "[data-rim-question]").is_displayed(), place


def test_a_page_does_not_move_when_it_asks(driver: webdriver.Chrome, folder: Folder) -> None:
    site, contents = a_few_pages()
    driver.get(unpacked(folder, site, contents) + PATH)
    wait_for(lambda: driver.execute_script("return !document.querySelector('[data-rim-question]').hidden"))
    boxes = "return [...document.querySelectorAll('body *')].filter((one) => !one.closest('[data-rim-question]')).map((one) => Object.values(one.getBoundingClientRect().toJSON()).join())"
    load_faces(driver)
    asking = driver.execute_script(boxes)
    driver.execute_script("document.querySelector('[data-rim-question]').hidden = true")
    assert driver.execute_script(boxes) == asking


def test_all_of_it_can_be_read_in_a_low_window_and_its_sides_are_its_languages_own(
    driver: webdriver.Chrome, folder: Folder
) -> None:
    site, contents = a_few_pages()
    device = {"width": 320, "height": 260, "deviceScaleFactor": 1, "mobile": False}
    driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", device)
    driver.get(unpacked(folder, asked(site, place="whole"), contents) + PATH)
    wait_for(lambda: driver.execute_script("return !document.querySelector('[data-rim-question]').hidden"))
    first = "const one = document.querySelector('[data-rim-question]'); one.scrollTop = 0; return one.querySelector('p').getBoundingClientRect().top"
    assert driver.execute_script(first) >= 0
    driver.get(unpacked(folder, asked(site, place="bottom-start"), contents) + "/ar/")
    wait_for(lambda: driver.execute_script("return !document.querySelector('[data-rim-question]').hidden"))
    driver.execute_script("document.documentElement.removeAttribute('dir')")
    device = {"width": 1000, "height": 600, "deviceScaleFactor": 1, "mobile": False}
    driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", device)
    right = "return innerWidth - document.querySelector('[data-rim-question]').getBoundingClientRect().right"
    assert driver.execute_script(right) == 16


def test_scripts_of_a_page_learn_what_was_answered(driver: webdriver.Chrome, folder: Folder) -> None:
    site, contents = a_few_pages()
    driver.execute_cdp_cmd(
        "Page.addScriptToEvaluateOnNewDocument",
        {"source": "window.told = []; document.addEventListener('rim:consent', ({detail}) => told.push(detail))"},
    )
    driver.get(unpacked(folder, site, contents) + PATH)
    wait_for(lambda: driver.execute_script("return !document.querySelector('[data-rim-question]').hidden"))
    driver.find_element(By.CSS_SELECTOR, "[data-rim-answer=yes]").click()
    assert driver.execute_script("return told") == [
        {"agreed": [], "answered": False},
        {"agreed": ["preferences", "statistics"], "answered": True},
    ]


def test_on_the_stage_a_question_shows_while_one_works_on_it(bench: Browser) -> None:
    bench.go("/s/ostrey/pieces/pc-consent/")
    shown = "return [...document.querySelectorAll('[data-rim-node=pc-consent]')].some((one) => one.checkVisibility())"
    wait_for(lambda: bench.on_stage_js(shown))
    bench.go("/s/ostrey/pieces/pc-consent/?gate=answered")
    wait_for(lambda: bench.on_stage_js("return document.querySelector('[data-rim-node=pc-main]') !== null"))
    assert not bench.on_stage_js(shown)
    bench.go("/s/ostrey/pieces/pc-main/")
    wait_for(lambda: bench.on_stage_js("return document.querySelector('[data-rim-node=pc-main]') !== null"))
    assert not bench.on_stage_js(shown)


def test_what_is_embedded_in_a_gate_waits_there_too_and_comes_after_its_own_yes(
    driver: webdriver.Chrome, proxy: Proxy, folder: Folder
) -> None:
    site, contents = ostrey()
    embed = Embed(id="it-map", address="http://charts.saltmarsh.example/quay")
    gate = next(piece for piece in site.pieces if isinstance(piece, AgeGate))
    row = gate.rows[0]
    cell = row.cells[0].replaced(items=(*row.cells[0].items, embed))
    with_embed = gate.replaced(rows=(row.replaced(cells=(cell,)),))
    pieces = tuple(with_embed if piece is gate else piece for piece in site.pieces)
    driver.get(unpacked(folder, site.replaced(pieces=pieces), contents) + "/shop/")
    once = wait_for(lambda: driver.find_elements(By.CSS_SELECTOR, "main [data-rim-once]"))[0]
    assert proxy.settled() == frozenset()
    driver.execute_script("arguments[0].click(); document.querySelector('iframe').scrollIntoView()", once)
    assert proxy.settled("charts.saltmarsh.example") == {"charts.saltmarsh.example"}

"""What pieces do while a page is scrolled is what was predicted; nothing of the page moves by it, and the studio says
why."""

from __future__ import annotations

import random
import time
from collections.abc import Iterator

import pytest
from selenium import webdriver
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.fit_judge import Tally, served
from tests.movement_judge import calm, compare_movement, looks_through
from upper_rim.core.kinds.moving import ByPixels
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.output.fitting import fitter_of
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.output.publication import publication
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

from .conftest import Browser, Running, live_edition, load_faces, plain_chromium, wait_for

SITES, MOMENTS = 16, 12
BENCH = "/s/ostrey/pieces/pc-main/?page=/guide/walks/"


@pytest.fixture(scope="module")
def chromium() -> Iterator[webdriver.Chrome]:
    driver = plain_chromium(frames="hastened")
    driver.set_script_timeout(120)
    yield driver
    driver.quit()


@pytest.fixture(scope="module")
def demo() -> Iterator[tuple[dict[str, bytes], int]]:
    """The demo as it is published, by path."""
    site, contents = ostrey()
    with served() as (files, port):
        for file in publication(site, shelf(), contents.__getitem__, year=2026):
            path = "/" + file.name
            files[path.removesuffix("index.html")] = file.data
        yield files, port


def opened(chromium: webdriver.Chrome, port: int, viewport: tuple[int, int]) -> None:
    """A long page of the demo, with its faces."""
    looks_through(chromium, viewport)
    chromium.get(f"http://127.0.0.1:{port}/guide/walks/")
    load_faces(chromium)


def test_rectangles_and_stages_are_what_the_browser_makes_of_generated_sites(chromium: webdriver.Chrome) -> None:
    tally = Tally()
    with served() as (files, port):
        for seed in range(SITES):
            compare_movement(seed, chromium, files, port, tally, MOMENTS)
    told = "\n".join(tally.faults[:20])
    assert tally.compared["moments"] == SITES * 3 * (MOMENTS + 1) and tally.compared["rectangles"] > 1700
    assert tally.share("moments") >= 0.995, told


_THROUGH = """
const done = arguments[0];
let shift = 0;
new PerformanceObserver((list) => list.getEntries().forEach((entry) => (shift += entry.value))).observe({ type: 'layout-shift', buffered: false });
const frame = () => new Promise((next) => requestAnimationFrame(next));
(async () => {
  await frame(); await frame();
  const most = document.documentElement.scrollHeight - innerHeight, stages = new Set();
  const step = 220, ways = [];
  for (let y = 0; y < most; y += step) ways.push(y);
  for (const y of [...ways, most, ...ways.reverse(), 0]) {
    scrollTo(0, y);
    await frame(); await frame();
    stages.add(getComputedStyle(document.querySelector('header') ?? document.body).getPropertyValue('--q7xk-stage'));
  }
  await Promise.allSettled(document.getAnimations().filter((one) => one instanceof CSSTransition).map((one) => one.finished));
  await frame(); await frame();
  done([shift, [...stages].sort()]);
})();
"""


@pytest.mark.parametrize("viewport", [(1280, 800), (390, 844)])
def test_nothing_of_the_demos_pages_shifts_while_they_are_scrolled_through_and_back(
    chromium: webdriver.Chrome, demo: tuple[dict[str, bytes], int], viewport: tuple[int, int]
) -> None:
    _, port = demo
    looks_through(chromium, viewport)
    seen: set[str] = set()
    for page in ostrey()[0].pages:
        chromium.get(f"http://127.0.0.1:{port}{page.path}")
        load_faces(chromium)
        shift, stages = chromium.execute_async_script(_THROUGH)
        assert round(shift, 3) == 0.0, page.path
        seen |= set(stages)
    assert seen >= ({"", "1", "2"} if viewport[0] > 600 else {""})


_CROSSED = """
const [positions, key] = arguments, header = document.querySelector('header'), faults = [];
const height = document.documentElement.scrollHeight;
const stage = () => getComputedStyle(header).getPropertyValue(`--${key}-stage`);
for (const y of positions) {
  scrollTo(0, y);
  dispatchEvent(new Event('scroll'));
  const now = stage();
  for (let again = 0; again < 3; again += 1) dispatchEvent(new Event('scroll'));
  if (scrollY !== y || document.documentElement.scrollHeight !== height || stage() !== now || now !== String(y > 536.25 ? 2 : y > 116.25 ? 1 : '')) faults.push([y, scrollY, now]);
}
return faults;
"""


def test_ten_thousand_steps_of_one_px_about_a_threshold_flicker_nowhere(
    chromium: webdriver.Chrome, demo: tuple[dict[str, bytes], int]
) -> None:
    _, port = demo
    calm(chromium)
    opened(chromium, port, (1280, 800))
    chromium.execute_async_script("requestAnimationFrame(() => requestAnimationFrame(arguments[0]))")
    chance = random.Random(7)
    walked = []
    for edge in (116, 536) * 10:
        at = edge
        for _ in range(500):
            at = min(edge + 2, max(edge - 1, at + chance.choice([-1, 1])))
            walked.append(at)
    for start in range(0, len(walked), 500):
        assert chromium.execute_script(_CROSSED, walked[start : start + 500], "q7xk") == []
    calm(chromium, is_asked=False)


def test_what_is_jumped_to_is_not_covered_and_what_has_the_focus_is_seen(
    chromium: webdriver.Chrome, demo: tuple[dict[str, bytes], int]
) -> None:
    _, port = demo
    for viewport in ((1280, 800), (390, 844), (844, 390)):
        opened(chromium, port, viewport)
        calm(chromium)
        chromium.execute_script("document.querySelectorAll('h2').forEach((part, at) => (part.id = `part-${at}`))")
        for at in (3, 1):
            chromium.execute_script(f"location.hash = 'part-{at}'")
            time.sleep(0.15)
            top, covered = chromium.execute_script(
                "const box = document.querySelector(`#part-${arguments[0]}`).getBoundingClientRect();"
                "const over = document.elementFromPoint(innerWidth / 2, box.top + box.height / 2);"
                "return [box.top, Boolean(over.closest('header'))]",
                at,
            )
            assert 0 <= top < 200 and not covered, (viewport, at)


def test_a_header_that_has_gone_comes_back_for_who_tabs_into_it(
    chromium: webdriver.Chrome, demo: tuple[dict[str, bytes], int]
) -> None:
    _, port = demo
    opened(chromium, port, (390, 844))
    calm(chromium)
    for y in (300, 700):
        chromium.execute_script(f"scrollTo(0, {y})")
        time.sleep(0.15)
    bottom = "return document.querySelector('header').getBoundingClientRect().bottom"
    assert chromium.execute_script(bottom) <= 0
    chromium.execute_script("document.querySelector('header [class*=-logo]').focus({ preventScroll: true })")
    time.sleep(0.1)
    assert chromium.execute_script(bottom) > 40


def test_with_reduced_motion_nothing_slides(chromium: webdriver.Chrome, demo: tuple[dict[str, bytes], int]) -> None:
    _, port = demo
    going = (
        "const done = arguments[1]; scrollTo(0, arguments[0]); let most = 0, frames = 0;"
        "const look = () => { most = Math.max(most, document.getAnimations().length); (frames += 1) < 8 ? requestAnimationFrame(look) : done(most); };"
        "requestAnimationFrame(look);"
    )
    for reduces, viewport in ((False, (1280, 800)), (True, (1280, 800)), (False, (390, 844)), (True, (390, 844))):
        opened(chromium, port, viewport)
        features = [{"name": "prefers-reduced-motion", "value": "reduce" if reduces else "no-preference"}]
        chromium.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": features})
        moved = [chromium.execute_async_script(going, y) for y in (160, 700, 600, 0)]
        assert (max(moved) == 0) is reduces, (reduces, viewport, moved)


def test_without_script_all_is_readable_and_nothing_is_covered(chromium: webdriver.Chrome) -> None:
    site, contents = ostrey()
    header = site.pieces[0]
    assert isinstance(header, Header)
    over = header.replaced(moves="up", moves_in=(), over=True, hides_until=ByPixels(px=300))
    site = site.replaced(pieces=(over, *site.pieces[1:]))
    fitter = fitter_of(shelf(), contents.__getitem__, 2026)
    composer = Composer(fitter.resolved(site), shelf(), contents.__getitem__, year=2026, fitter=fitter)
    page = next(page for page in site.pages if page.path == "/guide/walks/")
    looks_through(chromium, (1280, 800))
    with served() as (files, port):
        files["/"] = composer.page(page, contents[page.content or ""])
        files.update(dict(composer.parts()))
        chromium.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": True})
        try:
            chromium.get(f"http://127.0.0.1:{port}/")
            found = chromium.find_element(By.TAG_NAME, "header")
            title = chromium.find_element(By.TAG_NAME, "h1")
            assert found.value_of_css_property("visibility") == "visible"
            assert found.rect["y"] + found.rect["height"] <= title.rect["y"], "it takes its room"
            assert found.value_of_css_property("position") != "sticky", "it scrolls away"
        finally:
            chromium.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": False})


def test_a_stage_that_is_dragged_on_the_scroll_ruler_begins_there_when_published(
    browser: Browser, running: Running
) -> None:
    browser.sign_in()
    browser.go(BENCH + "&select=sg-reading")
    wait_for(lambda: browser.js("return document.querySelector('#scroll-ruler')?.matches('[data-measured]')"))
    grip = browser.driver.find_element(By.ID, "grip-sg-reading")
    before = int(grip.get_attribute("aria-valuenow") or 0)
    assert before == 500
    scale = browser.js("const r = document.querySelector('#scroll-ruler'); return r.clientHeight / r.dataset.to")
    browser.acted(
        lambda: (
            ActionChains(browser.driver).click_and_hold(grip).move_by_offset(0, round(200 * scale)).release().perform()
        )
    )
    wait_for(lambda: _now(browser) != before)
    now = _now(browser)
    assert 650 < now < 750
    wait_for(lambda: _value(browser, "control-after") == str(now))
    grip = browser.driver.find_element(By.ID, "grip-sg-reading")
    grip.send_keys(Keys.ARROW_DOWN)
    grip.send_keys(Keys.ARROW_DOWN)
    wait_for(lambda: _value(browser, "control-after") == str(now + 2))

    browser.go("/s/ostrey/editions/")
    numbers = {edition.get_attribute("data-number") for edition in browser.all("edition")}
    browser.publish_anyway()
    wait_for(lambda: live_edition(browser) not in numbers | {None}, 60)
    browser.go(running.live("ostrey") + "/guide/walks/")
    load_faces(browser.driver)
    begins = now + 2 + browser.js("const header = document.querySelector('header'); return header.offsetTop")
    assert [_stage_at(browser, y) for y in (int(begins), int(begins) + 2, int(begins))] == ["1", "2", "1"]
    browser.go(BENCH + "&select=sg-reading")
    browser.change("control-after", "500")


def _now(browser: Browser) -> int:
    return int(browser.driver.find_element(By.ID, "grip-sg-reading").get_attribute("aria-valuenow") or 0)


def _value(browser: Browser, test: str) -> str:
    fields = browser.all(test)
    return (fields[0].get_attribute("value") or "") if fields else ""


def _stage_at(browser: Browser, y: int) -> str:
    browser.js(f"scrollTo(0, {y})")
    time.sleep(0.2)
    found = browser.js("return getComputedStyle(document.querySelector('header')).getPropertyValue('--q7xk-stage')")
    return str(found).strip()


def test_the_item_that_limits_a_stage_is_named_and_the_stage_mended(browser: Browser) -> None:
    browser.sign_in()
    browser.go(BENCH + "&select=sg-slim")
    assert "44 px" in browser.one("height").text and "52 px" in browser.one("height").text
    browser.change("control-height_px", "48")
    told = browser.one("limited").text
    assert "52 px" in told and "Menu: Main and Button: Book" in told and "48 px were wished" in told
    offers = browser.all("lower")
    assert offers[0].text == "Padding of 2 px: 48 px"
    browser.acted(offers[0].click)
    wait_for(lambda: not browser.all("limited"))
    assert "48 px" in browser.one("height").text
    with browser.on_stage() as stage:
        stage.execute_script("scrollTo(0, 300)")
        wait_for(
            lambda: (
                abs(
                    stage.execute_script(
                        "return document.querySelector('header > [class*=-ground]').getBoundingClientRect().height"
                    )
                    - 48
                )
                <= 1
            )
        )
    for _ in range(2):
        browser.acted(lambda: browser.driver.find_element(By.CSS_SELECTOR, '[data-key="undo"]').click())


def test_a_distance_at_which_it_would_flicker_is_refused_with_its_reason(browser: Browser) -> None:
    browser.sign_in()
    browser.go(BENCH + "&select=sg-slim")
    browser.change("control-after", "20")
    said = browser.js("return document.querySelector('#screen').innerText")
    assert "at 20 px it gives up 77 px of room" in said and "flicker between 21 and 97 px" in said
    assert "From 77 px on neither happens" in said
    browser.go(BENCH + "&select=sg-slim")
    assert _value(browser, "control-after") == "80", "nothing has changed"


def test_the_movement_study_plays_a_way_and_compares_two(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/s/ostrey/pieces/pc-main/movement/?page=/guide/walks/&shape=360x640")
    compared = [figure.text for figure in browser.all("compared")]
    assert compared[0].startswith("As it is") and "without its stages" in compared[1].lower()
    assert len(browser.driver.find_elements(By.CSS_SELECTOR, '[data-test="moments"] li')) >= 4
    first = browser.one("moment-said").text
    browser.press("play")
    wait_for(lambda: browser.one("moment-said").text != first)
    wait_for(lambda: browser.one("moment-said").text.startswith("600 px"))
    turn = browser.all("turn")[1]
    browser.acted(lambda: ActionChains(browser.driver).click_and_hold(turn).move_by_offset(0, -10).release().perform())
    drawn = [int(part) for part in (browser.one("path").get_attribute("value") or "").split(",")]
    assert len(drawn) == 3 and drawn[0] == 0 and 0 < drawn[1] < 1200 and drawn[2] == 600
    pad = browser.one("pad")
    browser.acted(lambda: ActionChains(browser.driver).move_to_element_with_offset(pad, 50, 15).click().perform())
    wait_for(lambda: len(browser.all("turn")) == 4)
    browser.acted(lambda: browser.all("turn")[3].send_keys(Keys.DELETE))
    wait_for(lambda: len(browser.all("turn")) == 3)
    browser.change("path", "0, here")
    assert "two to twenty positions" in browser.one("path-fault").text


def _rows(browser: Browser) -> int:
    return sum(line.text.startswith("Press row") for line in browser.all("line"))


def test_rows_that_are_handed_over_are_copied_edited_and_taken_away(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/s/ostrey/pieces/pc-press/?page=/press/&tray=movement")
    browser.press("add-stage")
    wait_for(lambda: browser.all("hand-over"))
    assert browser.one("chosen").text == "Stage 1"
    browser.press("hand-over")
    wait_for(lambda: _rows(browser) == 2)
    wait_for(lambda: browser.js("return document.querySelectorAll('.scroll-grip').length === 1"))
    browser.press("remove")
    wait_for(lambda: _rows(browser) == 1)
    for _ in range(3):
        browser.acted(lambda: browser.driver.find_element(By.CSS_SELECTOR, '[data-key="undo"]').click())
    wait_for(lambda: not browser.all("scroll-grip"))

"""The published demo in a real browser: accessible, by keyboard, valid, on its own, and out of reach of page CSS."""

from __future__ import annotations

import json
import re
import time
from collections import Counter
from collections.abc import Iterator
from pathlib import Path
from urllib.parse import urlsplit

import html5lib
import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.actions.action_builder import ActionBuilder
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from upper_rim.demo import ostrey, quillwort

from .conftest import ROOT, Browser, Running, let_in, load_faces, load_what_comes_late, plain_chromium, wait_for

AXE = (ROOT / "node_modules/axe-core/axe.min.js").read_text() if (ROOT / "node_modules").exists() else ""
SITES = {"ostrey": ostrey()[0], "quillwort": quillwort()[0]}


@pytest.fixture(scope="module")
def reader(running: Running, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Browser]:
    browser = Browser(running, tmp_path_factory.mktemp("downloads"))
    yield browser
    browser.quit()


def axe(browser: Browser) -> list[str]:
    """What axe finds in the page itself: frames of other origins would not answer it."""
    if not browser.js("return window.axe !== undefined"):
        browser.js(AXE)
    found = browser.driver.execute_async_script(
        "axe.run(document, {resultTypes: ['violations'], iframes: false}).then((result) => arguments[0](result.violations))"
    )
    return [
        f"{fault['id']}: {node['html'][:160]} {node['failureSummary'][:200]}"
        for fault in found
        for node in fault["nodes"]
    ]


@pytest.mark.parametrize("slug", SITES)
def test_no_page_of_the_demo_has_an_accessibility_fault(measurer: Browser, running: Running, slug: str) -> None:
    for page in SITES[slug].pages:
        measurer.go(running.live(slug) + page.path)
        if page.bare:
            assert not measurer.driver.find_elements(By.CSS_SELECTOR, "header")
            continue
        let_in(measurer.driver)
        for width in (360, 1280):
            measurer.resize(width, 800)
            assert axe(measurer) == [], (page.path, width)
            wide = measurer.js("return document.documentElement.scrollWidth")
            assert wide <= width, f"{page.path} can be scrolled sideways at {width}: {wide}"


def test_open_drawer_and_open_branch_have_no_accessibility_fault(reader: Browser, running: Running) -> None:
    for path in ("/", "/ar/", "/press/"):
        reader.resize(360, 800)
        reader.go(running.live("ostrey") + path)
        let_in(reader.driver)
        reader.driver.find_element(By.CSS_SELECTOR, "[data-rim-drawer]").click()
        wait_for(lambda: reader.js("return document.querySelector(':popover-open') !== null"))
        assert axe(reader) == []
    reader.resize(1280, 800)
    reader.go(running.live("ostrey") + "/")
    reader.driver.find_element(By.CSS_SELECTOR, "[data-rim-branch]").click()
    assert axe(reader) == []


def test_the_drawer_by_keyboard(reader: Browser, running: Running) -> None:
    reader.resize(390, 700)
    reader.go(running.live("ostrey") + "/sailings/fares/")
    button = reader.driver.find_element(By.CSS_SELECTOR, "[data-rim-drawer]")

    def focused() -> str:
        return str(reader.js("const f = document.activeElement; return f.getAttribute('aria-label') || f.textContent"))

    press = reader.keys

    press(Keys.TAB)
    assert focused() == "Skip to content"
    assert reader.js(
        "const f = document.activeElement.getBoundingClientRect();"
        "return f.top >= 0 && document.elementFromPoint(f.x + f.width / 2, f.y + f.height / 2) === document.activeElement"
    ), "nothing covers it"
    press(Keys.TAB)
    assert focused() == "Close", "of the notice bar"
    press(Keys.TAB)
    press(Keys.TAB)
    assert focused() == "Menu", "the call link of the row above hides on narrow screens; the logo comes before"
    wait_for(lambda: button.get_attribute("aria-expanded") == "false")
    assert button.get_attribute("aria-controls") == reader.driver.find_element(
        By.CSS_SELECTOR, "[popover]"
    ).get_attribute("id")
    press(Keys.ENTER)
    wait_for(lambda: button.get_attribute("aria-expanded") == "true")
    wait_for(lambda: focused() == "Close menu")
    main = reader.driver.find_element(By.TAG_NAME, "main")
    assert main.get_property("inert") is True
    seen = [focused()]
    for _ in range(40):
        press(Keys.TAB)
        seen.append(focused())
        if focused() == "Close menu":
            break
    assert seen[-1] == "Close menu" and len(seen) == 20, (
        "search, six links, two submenus, four ways to reach us, four languages, then round again"
    )
    assert "Book" not in seen
    press(Keys.SHIFT, Keys.TAB)
    assert focused() == seen[-2]
    press(Keys.ESCAPE)
    wait_for(lambda: button.get_attribute("aria-expanded") == "false")
    assert focused() == "Menu"
    assert main.get_property("inert") is False
    press(Keys.ENTER)
    wait_for(lambda: focused() == "Close menu")
    reader.resize(1280, 700)
    wait_for(lambda: main.get_property("inert") is False)
    assert reader.js("return document.querySelector(':popover-open') === null"), "widened past its width, it closes"


def test_a_branch_opens_on_press_and_closes_by_escape_and_by_leaving(reader: Browser, running: Running) -> None:
    reader.resize(1280, 700)
    reader.go(running.live("ostrey") + "/")
    first, second = reader.driver.find_elements(By.CSS_SELECTOR, "[data-rim-branch]")[:2]
    first.send_keys(Keys.ENTER)
    assert first.get_attribute("aria-expanded") == "true"
    assert reader.driver.find_element(By.LINK_TEXT, "Osterhaven").is_displayed()
    second.click()
    assert (first.get_attribute("aria-expanded"), second.get_attribute("aria-expanded")) == ("false", "true")
    ActionChains(reader.driver).send_keys(Keys.TAB).send_keys(Keys.ESCAPE).perform()
    assert second.get_attribute("aria-expanded") == "false"
    assert reader.driver.switch_to.active_element == second
    time.sleep(0.4)
    assert second.get_attribute("aria-expanded") == "false", "the pointer rests there, and opens nothing"
    first.click()
    elsewhere = ActionBuilder(reader.driver)
    elsewhere.pointer_action.move_to_location(20, 650).click()
    elsewhere.perform()
    assert first.get_attribute("aria-expanded") == "false"


def test_without_script_the_menu_is_there_and_opens(reader: Browser, running: Running) -> None:
    reader.driver.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": True})
    try:
        reader.resize(390, 700)
        reader.go(running.live("ostrey") + "/")
        button = reader.driver.find_element(By.CSS_SELECTOR, "[data-rim-drawer]")
        button.click()
        time.sleep(0.3)
        assert reader.driver.find_element(By.LINK_TEXT, "Timetable").is_displayed()
        reader.resize(1280, 700)
        reader.go(running.live("ostrey") + "/")
        ActionChains(reader.driver).move_to_element(reader.driver.find_element(By.LINK_TEXT, "Harbours")).perform()
        time.sleep(0.2)
        assert reader.driver.find_element(By.LINK_TEXT, "Osterhaven").is_displayed()
    finally:
        reader.driver.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": False})


GATES = {"/press/": "pc-press-door", "/shop/": "pc-shop-age"}


def test_published_html_is_valid(running: Running) -> None:
    for slug, site in SITES.items():
        for page in site.pages:
            status, sent = running.fetch(slug, page.path)
            assert status == (403 if page.path.startswith(tuple(GATES)) and slug == "ostrey" else 200)
            if status == 403:
                gates = "; ".join(running.passes(slug, path, gate) for path, gate in GATES.items())
                status, sent = running.fetch(slug, page.path, gates)
                assert status == 200
            parser = html5lib.HTMLParser(html5lib.treebuilders.getTreeBuilder("etree"))
            document = parser.parse(sent)
            assert parser.errors == [], (page.path, parser.errors)
            ids = Counter(node.get("id") for node in document.iter() if node.get("id"))
            assert not [name for name, count in ids.items() if count > 1]
            known = set(ids)
            for node in document.iter():
                for attribute in ("aria-controls", "popovertarget"):
                    assert node.get(attribute) is None or node.get(attribute) in known


def test_no_page_asks_another_host_for_anything(running: Running) -> None:
    asking = plain_chromium("performance", "browser")
    try:
        for slug, site in SITES.items():
            for page in site.pages:
                asking.get(running.live(slug) + page.path)
                let_in(asking)
            hosts = set()
            for entry in asking.get_log("performance"):
                message = json.loads(entry["message"])["message"]
                if message["method"] == "Network.requestWillBeSent":
                    hosts.add(urlsplit(message["params"]["request"]["url"]).netloc or "data:")
            assert hosts - {"data:"} == {f"{slug}.localhost:{running.port}"}
        said = [line for line in asking.get_log("browser") if line["level"] == "SEVERE"]
    finally:
        asking.quit()
    told = [line["message"] for line in said if "favicon" not in line["message"]]
    assert [one for one in told if not re.search(r"/(press|shop)/\S* - Failed.* 403", one)] == []


HOSTILE = {
    "resets": "*{all:unset} *,*::before,*::after{box-sizing:content-box;margin:3px;padding:2px}",
    "important resets": "*:not(html,head,body,style,script,link,title,meta){all:unset!important;font-size:40px!important;color:lime!important}",
    "elements": "a{display:block!important;color:red!important;float:left!important} nav,ul,li{position:fixed!important;list-style:square!important}",
    "header": "header{position:fixed!important;bottom:0!important;transform:rotate(9deg)!important;opacity:.2!important;display:none!important}",
    "root size": "html{font-size:62.5%} button{font:9px monospace!important;border:9px solid red!important}",
    "pseudo": "*::before{content:'XX'!important;display:block!important} *::first-letter{font-size:60px!important;color:red!important}",
    "layers": "@layer first{*{color:red!important;letter-spacing:9px!important}} *{letter-spacing:4px;text-transform:uppercase;writing-mode:vertical-rl;direction:rtl!important}",
    "animation": "@keyframes x{from{color:red}to{color:blue}} *{animation:x 1s infinite!important;transition:all 9s!important;filter:blur(2px)!important}",
    "own names": ".q7xk-row,.q7xk-menu a,#q7xk-it-menu-drawer,[class^=q7xk]{display:none!important;color:red!important} :root{--q7xk-ground:red!important}",
}

_MEASURE = """
const wanted = ['color','fontSize','fontFamily','fontWeight','display','position','letterSpacing','textTransform','lineHeight','writingMode','direction','opacity','transform','filter','animationName','backgroundColor','visibility','float','listStyleType','paddingTop','marginTop'];
return [...document.querySelectorAll('.q7xk, .q7xk *')].map((part) => {
  const box = part.getBoundingClientRect(), style = getComputedStyle(part), before = getComputedStyle(part, '::before');
  return [part.className, (box.width ? [box.left, box.top - (style.position === 'fixed' ? 0 : part.closest('.q7xk-drawer:popover-open, .q7xk').getBoundingClientRect().top), box.width, box.height] : [0]).map((n) => Math.round(n * 10) / 10).join(' '), wanted.map((name) => (name === 'visibility' && part.closest('[data-rim-yields]') ? '' : style[name])).join('|'), before.content].join(' § ');
});
"""


def measured(reader: Browser) -> list[str]:
    """What is measured two frames on: an observer answers between them."""
    reader.driver.execute_async_script(
        "const done = arguments[0]; requestAnimationFrame(() => requestAnimationFrame(() => done()));"
    )
    return reader.js(_MEASURE)


@pytest.mark.parametrize("name", HOSTILE)
def test_hostile_css_of_the_page_changes_nothing_in_a_piece(reader: Browser, running: Running, name: str) -> None:
    for width in (390, 1280):
        reader.resize(width, 800)
        reader.go(running.live("ostrey") + "/sailings/fares/")
        load_faces(reader.driver)
        load_what_comes_late(reader.driver)
        if width == 390:
            reader.driver.find_element(By.CSS_SELECTOR, "[data-rim-drawer]").click()
            wait_for(lambda: reader.js("return document.querySelector(':popover-open') !== null"))
            wait_for(lambda: reader.js("return document.getAnimations().length === 0"))
        before = measured(reader)
        assert len(before) > 30
        reader.js(
            "const s = document.createElement('style'); s.textContent = arguments[0] + 'html,body{display:block!important;margin:0!important;padding:0!important;border:0!important;position:static!important;transform:none!important;direction:ltr!important;writing-mode:horizontal-tb!important}html::before,body::before{content:none!important}head,head *{display:none!important}'; document.head.append(s)",
            HOSTILE[name],
        )
        assert measured(reader) == before


def test_a_ground_reaches_both_edges_of_a_narrow_body(reader: Browser, running: Running) -> None:
    reader.resize(1280, 700)
    reader.go(running.live("ostrey") + "/")
    reader.js(
        "const s = document.createElement('style'); s.textContent = 'body{max-width:500px;margin:40px auto!important;padding:30px!important}'; document.head.append(s)"
    )
    shot = Path(reader.running.folder / "edges.png")
    reader.driver.save_screenshot(str(shot))
    pixels = reader.driver.execute_async_script(
        "const done = arguments[1], image = new Image(); image.onload = () => { const c = document.createElement('canvas'); c.width = image.width; c.height = image.height;"
        "const x = c.getContext('2d'); x.drawImage(image, 0, 0); done([3, 640, 1276].map((left) => [...x.getImageData(left, 8, 1, 1).data].slice(0, 3).join())) };"
        "image.src = 'data:image/png;base64,' + arguments[0]",
        reader.driver.get_screenshot_as_base64(),
    )
    assert pixels == ["233,180,76"] * 3
    assert reader.js("return document.documentElement.scrollWidth") == 1280


STUDIO_SCREENS = (
    "/",
    "/s/ostrey/",
    "/s/ostrey/pages/",
    "/s/ostrey/pages/pg-fares/",
    "/s/ostrey/pages/lifting/",
    "/s/ostrey/foundations/",
    "/s/ostrey/foundations/type/",
    "/s/ostrey/foundations/defaults/",
    "/s/ostrey/foundations/defaults/button/?state=hover",
    "/s/ostrey/foundations/defaults/page/?tray=ground",
    "/s/ostrey/foundations/looks/",
    "/s/ostrey/foundations/looks/lk-quiet/?part=content",
    "/s/ostrey/foundations/contrast/",
    "/s/ostrey/foundations/schemes/",
    "/s/ostrey/foundations/code/",
    "/s/ostrey/foundations/carry/?from=quillwort&take=pc-main",
    "/s/ostrey/pieces/pc-main/?select=it-menu&tray=text&part=content&state=hover",
    "/s/ostrey/pieces/pc-main/?select=it-book&tray=edge",
    "/s/ostrey/pieces/pc-main/?select=it-book&tray=looks",
    "/s/ostrey/menus/",
    "/s/ostrey/menus/mn-main/",
    "/s/ostrey/menus/mn-main/?select=en-harbours&lang=ar",
    "/s/ostrey/pieces/",
    "/s/ostrey/pieces/new/?kind=float",
    "/s/ostrey/pieces/pc-footer/?select=it-about",
    "/s/ostrey/pieces/pc-footer/?select=it-social",
    "/s/ostrey/pieces/pc-footer/?select=it-contact",
    "/s/ostrey/pieces/pc-footer/?select=rw-columns",
    "/s/ostrey/pieces/pc-winter/",
    "/s/ostrey/pieces/pc-main/?select=it-menu",
    "/s/ostrey/pieces/pc-main/",
    "/s/ostrey/editions/",
    "/s/ostrey/inbox/",
    "/s/ostrey/foundations/?uses=sw-deep",
    "/s/ostrey/pieces/pc-guide-front/?select=rw-guide-main",
    "/s/ostrey/pieces/pc-guide-front/?select=it-wonders",
    "/s/ostrey/pieces/pc-guide/?select=it-guide-picture",
    "/s/ostrey/pieces/pc-help/?select=it-help-form",
    "/s/ostrey/pieces/pc-news/?select=it-news",
    "/s/ostrey/pieces/pc-footer/?select=it-landings",
    "/s/ostrey/pieces/pc-main/?tray=fit",
    "/s/ostrey/pieces/pc-main/fit/",
    "/s/ostrey/pieces/pc-drawer/?select=it-drawer-contact",
    "/s/ostrey/pieces/new/?kind=drawer",
    "/s/ostrey/pieces/pc-footer/fit/",
)


def test_no_screen_of_the_studio_has_an_accessibility_fault(browser: Browser) -> None:
    browser.go("/account/sign-in/")
    assert axe(browser) == []
    browser.sign_in()
    for path in STUDIO_SCREENS:
        browser.go(path)
        assert axe(browser) == [], path
    browser.go("/s/ostrey/pieces/pc-main/?select=it-phone")
    browser.one("choose-icon").click()
    wait_for(lambda: browser.driver.find_elements(By.CSS_SELECTOR, "[data-icon]"))
    assert axe(browser) == [], "the chooser of icons"


def test_the_workbench_by_keyboard_alone(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/s/quillwort/pieces/pc-main/")
    wait_for(lambda: browser.all("stage"))

    def keys(*pressed: str) -> None:
        browser.acted(lambda: browser.keys(*pressed))

    keys("]")
    keys("]")
    keys("]")
    assert browser.one("chosen").text == "Logo"
    keys(Keys.ALT, "d")
    assert len([line for line in browser.all("line") if line.text.split("\n")[0] == "Logo"]) == 2
    keys(Keys.ALT, Keys.ARROW_DOWN)
    outline = [line.text.split("\n")[0] for line in browser.all("line")]
    assert outline.index("Middle") < [at for at, text in enumerate(outline) if text == "Logo"][1]
    keys(Keys.ALT, Keys.DELETE)
    assert len([line for line in browser.all("line") if line.text.split("\n")[0] == "Logo"]) == 1
    keys(Keys.CONTROL, "z")
    assert len([line for line in browser.all("line") if line.text.split("\n")[0] == "Logo"]) == 2
    keys(Keys.CONTROL, "z")
    keys(Keys.CONTROL, "z")
    assert len([line for line in browser.all("line") if line.text.split("\n")[0] == "Logo"]) == 1
    keys("g")
    keys("m")
    wait_for(lambda: browser.driver.current_url.endswith("/menus/"))


@pytest.mark.parametrize("slug", ["ostrey", "quillwort"])
def test_no_page_of_the_demo_scrolls_sideways_on_the_smallest_screen(
    measurer: Browser, running: Running, slug: str
) -> None:
    site = {"ostrey": ostrey, "quillwort": quillwort}[slug]()[0]
    measurer.resize(320, 640)
    for page in site.pages:
        measurer.go(running.live(slug) + page.path)
        assert measurer.js("return document.documentElement.scrollWidth") == 320, page.path


def test_on_paper_a_page_has_its_header_without_menus_and_nothing_that_lies_over_it(
    reader: Browser, running: Running
) -> None:
    reader.resize(400, 800)
    reader.go(running.live("ostrey") + "/")
    let_in(reader.driver)
    shown = """
    const named = (id) => document.querySelector(`[class~="q7xk-${id}"]`);
    return Object.fromEntries(arguments[0].map((id) => [id, Boolean(named(id)?.checkVisibility())]));
    """
    asked = ["pc-main", "it-logo", "it-menu", "pc-footer", "pc-winter", "pc-bar", "pc-book"]
    on_screen = reader.driver.execute_script(shown, asked)
    reader.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"media": "print"})
    try:
        on_paper = reader.driver.execute_script(shown, asked)
    finally:
        reader.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"media": ""})
    assert on_screen["it-menu"] and on_screen["pc-winter"] and on_screen["pc-bar"] and on_screen["pc-book"]
    assert {name for name, shows in on_paper.items() if shows} == {"pc-main", "it-logo", "pc-footer"}

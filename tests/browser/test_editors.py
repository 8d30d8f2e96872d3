"""Every value of a look is set by eye: with keys alone, and by the pointer; and what is turned is seen before it is an edit."""

from __future__ import annotations

import json
from typing import Any

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement

from .conftest import ROOT, Browser, wait_for

HEADER = "/s/ostrey/pieces/pc-main/"
AXE = (ROOT / "node_modules/axe-core/axe.min.js").read_text()
FACETS = ("text", "ground", "edge", "room")

_FIRST = """
const parts = [...document.querySelectorAll('#value-editor [data-editor-body] :is(input[type=range], button)')];
return parts.filter((one) => one.checkVisibility() && !one.matches('[aria-pressed=true], [data-colour-pick]'));
"""


@pytest.fixture(scope="module")
def book(running: Any, tmp_path_factory: pytest.TempPathFactory) -> Any:
    """The workbench with the header's button chosen."""
    browser = Browser(running, tmp_path_factory.mktemp("downloads"))
    browser.sign_in()
    yield browser
    browser.quit()


def look_at(browser: Browser, facet: str, node: str = "it-book") -> None:
    browser.go(f"{HEADER}?select={node}&tray={facet}")
    wait_for(
        lambda: browser.on_stage_js(
            "return document.readyState === 'complete' && !!document.querySelector('[data-rim-node=it-book]')"
        )
    )
    browser.watch_posts()


def painted(browser: Browser, name: str, node: str = "it-book") -> str:
    return str(
        browser.on_stage_js(
            "return getComputedStyle(document.querySelector(`[data-rim-node=${arguments[0]}]`)).getPropertyValue(arguments[1])",
            node,
            name,
        )
    )


def controls_of(browser: Browser) -> list[str]:
    return [str(one.get_attribute("id")) for one in browser.driver.find_elements(By.CSS_SELECTOR, ".style-control")]


def field_of(browser: Browser, control: str) -> WebElement:
    return browser.driver.find_element(By.CSS_SELECTOR, f"#{control} [name=value]")


def is_set_here(browser: Browser, control: str) -> bool:
    return bool(browser.driver.find_elements(By.CSS_SELECTOR, f"#{control} .give-back"))


@pytest.mark.parametrize("facet", FACETS)
def test_every_value_is_set_with_keys_alone_and_each_is_one_edit(book: Browser, facet: str) -> None:
    look_at(book, facet)
    unset = []
    for control in controls_of(book):
        name, before = control.removeprefix("w-s-it-book-"), book.posts()
        if is_set_here(book, control):
            continue
        field = field_of(book, control)
        if field.tag_name == "select":
            if len(field.find_elements(By.TAG_NAME, "option")) < 3:
                continue

            def act(field: WebElement = field) -> None:
                book.js("arguments[0].focus()", field)
                book.keys(Keys.END)
        else:
            book.js("arguments[0].focus()", field)
            book.keys(Keys.ALT, Keys.ARROW_DOWN)
            wait_for(lambda: book.one("value-editor").is_displayed())
            stops = book.js(_FIRST)
            assert stops, f"nothing in the editor of {name} can be reached"

            def act(stop: WebElement = stops[0]) -> None:
                book.js("arguments[0].focus()", stop)
                book.keys(
                    Keys.ARROW_LEFT if stop.get_attribute("max") == stop.get_attribute("value") else Keys.ARROW_RIGHT
                ) if stop.tag_name == "input" else book.keys(Keys.ENTER)

        book.acted(act)
        if not is_set_here(book, control) or book.posts() != before + 1:
            unset.append((name, book.posts() - before))
        book.keys(Keys.ESCAPE)
        wait_for(lambda: not book.one("value-editor").is_displayed())
        if field.tag_name != "select":
            assert book.js("return document.activeElement.id") == control.removeprefix("w-"), (
                f"{name}: the focus is not back"
            )
        if is_set_here(book, control):
            book.acted(
                lambda control=control: book.driver.find_element(By.CSS_SELECTOR, f"#{control} .give-back").click()
            )
    assert unset == []


def dragged(browser: Browser, test: str, steps: list[tuple[int, int]], release: bool = True) -> None:
    """Presses in the middle of something and moves on from there."""
    chain = ActionChains(browser.driver, duration=20).move_to_element(browser.one(test)).click_and_hold()
    for across, down in steps:
        chain.move_by_offset(across, down)
    (chain.release() if release else chain).perform()


def test_what_is_turned_is_seen_at_once_and_letting_go_is_one_edit(book: Browser) -> None:
    look_at(book, "room")
    book.press("edit-padding")
    book.press("side-all")
    before = painted(book, "padding-top")
    dragged(book, "length-slider", [(3, 0)] * 20, release=False)
    wait_for(lambda: painted(book, "padding-top") != before)
    turned = painted(book, "padding-top")
    assert book.posts() == 0, "an edit before it was let go"
    book.acted(lambda: ActionChains(book.driver).release().perform())
    assert book.posts() == 1
    kept = wait_for(lambda: book.one("style-padding").get_attribute("value"))
    assert kept == turned
    # What follows on the page itself is no longer what was turned, but what is so.
    wait_for(
        lambda: book.on_stage_js(
            "return ![...document.querySelectorAll('style')].some((one) => /^@layer rim-stage.*transition/.test(one.textContent))",
        )
    )
    assert painted(book, "padding-top") == turned
    book.press("editor-close")
    book.press("undo")
    wait_for(lambda: painted(book, "padding-top") == before)


def test_escape_gives_back_what_was_turned_and_sends_nothing(book: Browser) -> None:
    look_at(book, "room")
    before = painted(book, "padding-top")
    book.press("edit-padding")
    dragged(book, "length-slider", [(4, 0)] * 10, release=False)
    wait_for(lambda: painted(book, "padding-top") != before)
    book.keys(Keys.ESCAPE)
    wait_for(lambda: painted(book, "padding-top") == before)
    assert book.one("style-padding").get_attribute("value") == ""
    ActionChains(book.driver).release().perform()
    assert book.posts() == 0


def test_a_colour_is_turned_with_its_contrast_and_picked_from_the_stage(book: Browser) -> None:
    look_at(book, "text")
    book.press("edit-color")
    said = book.one("editor-contrast").text
    shown = book.one("state-rest").text
    assert said.split(" ")[0] in shown, (said, shown)
    dragged(book, "channel-l", [(2, 0)] * 25, release=False)
    assert "is needed" in wait_for(lambda: (now := book.one("editor-contrast").text) != said and now)
    book.acted(lambda: ActionChains(book.driver).release().perform())
    assert book.one("style-color").get_attribute("value").startswith("#")
    told = book.one("editor-contrast").text.split(" ")[0]
    assert told in book.one("state-rest").text, "the contrast that one turns by is the one that is told afterwards"
    book.acted(lambda: book.driver.find_element(By.CSS_SELECTOR, '#value-editor [data-swatch="sw-deep"]').click())
    assert book.one("style-color").get_attribute("value") == "Deep"
    book.driver.find_element(By.CSS_SELECTOR, "#value-editor [data-colour-pick]").click()
    with book.on_stage() as driver:
        wait_for(lambda: driver.execute_script("return document.documentElement.style.cursor") == "crosshair")
        wanted = driver.execute_script(
            "return getComputedStyle(document.querySelector('[data-rim-node=it-menu]')).color"
        )
        driver.find_element(By.CSS_SELECTOR, "[data-rim-node=it-menu] a").click()
    wait_for(lambda: painted(book, "color") == wanted)
    assert book.one("chosen").text == "Button: Book", "what is picked from is not chosen"
    for _ in range(3):
        book.press("undo")


def test_a_gradient_is_made_on_its_line_and_typed_on(book: Browser) -> None:
    look_at(book, "ground", "rw-main")
    book.press("edit-background-image")
    book.press("kind-linear")
    stops = book.driver.find_elements(By.CSS_SELECTOR, "#value-editor [data-stop]")
    assert len(stops) == 2
    book.press("add-stop")
    book.acted(lambda: dragged(book, "stops", [(20, 0), (20, 0)]))
    book.acted(lambda: (book.js("arguments[0].focus()", book.one("angle")), book.keys(Keys.ARROW_LEFT)))
    said = book.one("style-background-image").get_attribute("value")
    assert said.startswith("linear-gradient(179deg, ") and said.count("%") == 3, said
    assert "gradient" in painted(book, "background-image", "rw-main")
    # Typed in the field, it is what the editor shows.
    book.change("style-background-image", "radial-gradient(Deep, #fff 30%, Deep)")
    book.press("edit-background-image")
    assert book.one("kind-radial").get_attribute("aria-pressed") == "true"
    marks = book.driver.find_elements(By.CSS_SELECTOR, "#value-editor [data-stop]")
    assert [mark.get_attribute("aria-valuenow") for mark in marks] == ["0", "30", "100"]
    book.press("kind-picture")
    assert book.driver.find_element(By.CSS_SELECTOR, "#value-editor [data-picture] img").is_displayed()
    wait_for(lambda: book.js("return document.querySelector('#value-editor [data-picture] img').naturalWidth > 0"))
    book.press("kind-none")
    assert book.one("style-background-image").get_attribute("value") in {"", "none"}
    for _ in range(20):
        if book.one("undo").get_attribute("disabled"):
            break
        book.press("undo")


def test_a_shadow_has_a_point_to_drag_and_four_sides_go_together_or_apart(book: Browser) -> None:
    look_at(book, "ground")
    book.press("edit-box-shadow")
    book.press("add-shadow")
    book.acted(lambda: dragged(book, "pad", [(15, 20)]))
    right, down, *_ = book.one("style-box-shadow").get_attribute("value").split(" ")
    assert abs(float(right[:-2]) - 15 * 80 / 116) < 1.5 and abs(float(down[:-2]) - 20 * 80 / 116) < 1.5
    book.press("undo")
    look_at(book, "edge")
    book.press("edit-border-radius")
    book.press("side-all")
    book.acted(lambda: (book.js("arguments[0].focus()", book.one("length-slider")), book.keys(Keys.HOME)))
    assert painted(book, "border-top-left-radius") == "0px" or wait_for(
        lambda: painted(book, "border-top-left-radius") == "0px"
    )
    book.press("side-2")
    book.acted(lambda: (book.js("arguments[0].focus()", book.one("length-slider")), book.keys(Keys.PAGE_UP)))
    assert book.one("style-border-radius").get_attribute("value").split(" ")[0::3] == ["0px", "0px"]
    wait_for(lambda: painted(book, "border-bottom-right-radius") != "0px")
    assert painted(book, "border-top-right-radius") == "0px"
    book.press("undo")
    book.press("undo")


@pytest.mark.parametrize(
    ("name", "typed", "turned", "wanted"),
    [
        ("background-position", "20% 3px", "axis-0", "21% 3px"),
        ("background-position", "1.5rem center", "axis-1", "1.5rem 51%"),
        ("background-size", "20px 30px", "side-1 length-slider", "20px 31px"),
        ("background-size", "20px", "side-0 length-slider", "21px auto"),
        ("background-size", "cover", "side-1 length-slider", "auto 1%"),
    ],
)
def test_what_is_said_of_one_axis_stays_while_the_other_is_turned(
    book: Browser, name: str, typed: str, turned: str, wanted: str
) -> None:
    look_at(book, "ground")
    book.change(f"style-{name}", typed)
    book.press(f"edit-{name}")
    *first, slider = turned.split(" ")
    for one in first:
        book.press(one)
    book.acted(lambda: (book.js("arguments[0].focus()", book.one(slider)), book.keys(Keys.ARROW_RIGHT)))
    assert book.one(f"style-{name}").get_attribute("value") == wanted
    book.press("editor-close")
    book.press(f"give-back-{name}")


def test_arrow_keys_and_the_wheel_turn_a_number_in_its_field(book: Browser) -> None:
    look_at(book, "room")
    field = book.one("style-padding")
    book.js("arguments[0].focus()", field)
    begun = str(field.get_attribute("placeholder")).split(" ")
    assert len(begun) == 2, "two sides, which the arrows leave alone"
    book.change("style-padding", "10px")
    field = book.one("style-padding")
    book.js("arguments[0].focus()", field)
    before = book.posts()
    for _ in range(5):
        book.keys(Keys.ARROW_UP)
    book.keys(Keys.SHIFT, Keys.ARROW_UP)
    wait_for(lambda: painted(book, "padding-top") == "25px")
    wait_for(lambda: book.posts() == before + 1)
    wait_for(lambda: book.one("style-padding").get_attribute("value") == "25px")
    book.press("undo")
    book.press("undo")


def violations(browser: Browser, within: str) -> list[Any]:
    """What axe finds in a part of the screen."""
    browser.js(AXE)
    found = browser.driver.execute_async_script(
        "axe.run(arguments[0], {resultTypes: ['violations'], iframes: false}).then((found) => arguments[1](JSON.stringify(found.violations.map((one) => [one.id, one.nodes[0].html]))))",
        within,
    )
    return list(json.loads(found))


TRAYS = ("content", *FACETS, "looks", "fit", "movement")
SHOWN = (("pc-main", "it-menu"), ("pc-main", "pc-main"), ("pc-footer", "it-social"), ("pc-bar", "pc-bar"))


@pytest.mark.parametrize("wide", [1024, 1280, 1600])
def test_nothing_in_the_tray_scrolls_or_is_cut(book: Browser, wide: int) -> None:
    book.resize(wide, 800)
    wrong = []
    for piece, node in SHOWN:
        for tray in TRAYS:
            book.go(f"/s/ostrey/pieces/{piece}/?select={node}&tray={tray}&width={1000 if tray == 'fit' else 1120}")
            if tray == "fit" and piece == "pc-main":
                wait_for(lambda: book.all("try-remedy"))
            over = book.js(
                "const tray = document.querySelector('.tray'); return [tray.scrollHeight - tray.clientHeight, tray.scrollWidth - tray.clientWidth]"
            )
            if max(over) > 0:
                wrong.append((node, tray, over))
    book.resize(1280, 800)
    assert wrong == []


def test_axe_finds_nothing_in_the_tray_of_a_part_nor_in_the_boxes_that_open_over_the_workbench(book: Browser) -> None:
    for part in ("veil", "opened", "second-line"):
        book.go(f"{HEADER}?select=it-menu&tray=ground&part={part}")
        assert violations(book, ".tray") == [], part
    for key, box in (("/", "#find"), ("n", "#create-piece"), (Keys.INSERT, "#seam")):
        look_at(book, "content")
        book.js("document.activeElement.blur()")
        book.keys(key)
        wait_for(lambda box=box: book.js("return document.querySelector(arguments[0])?.checkVisibility()", box))
        book.settled()
        assert violations(book, box) == [], box


@pytest.mark.parametrize("width", [1024, 1280, 1600])
def test_no_editor_is_cut_and_axe_finds_nothing_in_any(book: Browser, width: int) -> None:
    book.resize(width, 800)
    wrong: list[Any] = []
    for facet, names in {
        "text": ["color", "text-shadow", "font-size"],
        "ground": ["background-image", "background-position", "box-shadow"],
        "room": ["padding", "transition-timing-function"],
    }.items():
        look_at(book, facet)
        for name in names:
            book.js("arguments[0].click()", book.one(f"edit-{name}"))
            for more in ("add-shadow", "kind-linear"):
                if any(one.is_displayed() for one in book.all(more)):
                    book.press(more)
            box = book.js(
                "const {left, top, right, bottom} = document.querySelector('#value-editor').getBoundingClientRect(); return [left, top, right - innerWidth, bottom - innerHeight]"
            )
            scrolls = book.js(
                "const box = document.querySelector('#value-editor'); return box.scrollHeight > box.clientHeight || box.scrollWidth > box.clientWidth"
            )
            if box[0] < 0 or box[1] < 0 or box[2] > 0 or box[3] > 0 or scrolls:
                wrong.append((name, box, scrolls))
            if width == 1280:
                wrong += [(name, one) for one in violations(book, "#value-editor")]
            book.js("document.querySelector('[data-editor-close]').click()")
            while any(one.is_displayed() for one in book.all(f"give-back-{name}")):
                book.press(f"give-back-{name}")
    book.resize(1280, 800)
    assert wrong == []


def test_forced_colours_keep_swatches_spans_bands_and_what_is_chosen(book: Browser) -> None:
    def forced(value: str) -> None:
        feature = {"name": "forced-colors", "value": value}
        book.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": [feature]})

    told = """return arguments[0].map((css) => { const one = document.querySelector(css), style = getComputedStyle(one);
        return [style.backgroundColor, style.outlineStyle, style.outlineWidth]; })"""
    kept = [".chip i[style*='background:#12344d'], .chip i", ".ruler-band", ".fit-span", ".flag > span", ".scroll-band"]
    marked = [".tree-line[aria-current]", ".facet[aria-current]", ".state[aria-current]"]
    look_at(book, "text")
    before = book.js(told, kept)
    forced("active")
    try:
        after, chosen = book.js(told, kept), book.js(told, marked)
    finally:
        forced("none")
    grounds = [(css, then[0]) for css, now, then in zip(kept, before, after, strict=True) if now[0] != then[0]]
    assert grounds == []
    assert all(line == "solid" and width == "2px" for _, line, width in chosen)


def test_a_band_that_is_chosen_takes_the_stage_along_and_a_notice_has_the_way_to_what_it_tells(book: Browser) -> None:
    book.resize(1280, 800)
    look_at(book, "room")
    book.choose("set-band", "bd-middle")
    wait_for(lambda: book.on_stage_js("return innerWidth") == 979)
    assert book.one("stage-width").get_attribute("value") == "979"
    # Back at a width of another band, what is set for this one shows nothing here: the way there is pressed.
    book.js(
        "const number = document.querySelector('[data-stage-width]'); number.value = 1200; number.dispatchEvent(new Event('change', {bubbles: true}))"
    )
    wait_for(lambda: book.on_stage_js("return innerWidth") == 1200)
    book.change("style-padding", "30px")
    assert "Show it at Middle" in book.one("show-there").text
    book.press("show-there")
    wait_for(lambda: book.on_stage_js("return innerWidth") == 979 and painted(book, "padding-top") == "30px")
    book.press("undo")


def test_escape_goes_out_from_an_item_to_its_piece(book: Browser) -> None:
    look_at(book, "content")
    book.js("document.querySelector('#outline [aria-current]').focus()")
    seen = []
    for _ in range(4):
        book.acted(lambda: book.keys(Keys.ESCAPE))
        seen.append(book.one("chosen").text)
    assert seen == ["End", "Main row", "Main header", "Main header"]

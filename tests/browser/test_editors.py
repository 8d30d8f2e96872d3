"""Every value of a look is set by eye: with keys alone, and by the pointer; and what is turned is seen before it is an edit."""

from __future__ import annotations

import json
from collections.abc import Iterator
from typing import Any

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement

from upper_rim.shipped import shelf

from .conftest import ROOT, Browser, Running, wait_for

HEADER = "/s/ostrey/pieces/pc-main/"
AXE = (ROOT / "node_modules/axe-core/axe.min.js").read_text()
FACETS = ("text", "ground", "edge", "room")


@pytest.fixture(autouse=True)
def _as_it_was(running: Running) -> Iterator[None]:
    with running.undone_afterwards("ostrey"):
        yield


_FIRST = """
const parts = [...document.querySelectorAll('#value-editor [data-editor-body] :is(input[type=range], button)')];
return parts.filter((one) => one.checkVisibility() && !one.matches('[aria-pressed=true], [data-colour-pick]'));
"""


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
def test_every_value_is_set_with_keys_alone_and_each_is_one_edit(bench: Browser, facet: str) -> None:
    look_at(bench, facet)
    unset = []
    for control in controls_of(bench):
        name, before = control.removeprefix("w-s-"), bench.posts()
        if is_set_here(bench, control):
            continue
        field = field_of(bench, control)
        if field.tag_name == "select":
            if len(field.find_elements(By.TAG_NAME, "option")) < 3:
                continue

            def act(field: WebElement = field) -> None:
                bench.js("arguments[0].focus()", field)
                is_drawn = "faces" in field.get_attribute("class").split()
                for key in (Keys.SPACE, Keys.END, Keys.ENTER) if is_drawn else (Keys.END,):
                    bench.keys(key)
        else:
            bench.js("arguments[0].focus()", field)
            bench.keys(Keys.ALT, Keys.ARROW_DOWN)
            wait_for(lambda: bench.one("value-editor").is_displayed())
            stops = bench.js(_FIRST)
            assert stops, f"nothing in the editor of {name} can be reached"

            def act(stop: WebElement = stops[0]) -> None:
                bench.js("arguments[0].focus()", stop)
                bench.keys(
                    Keys.ARROW_LEFT if stop.get_attribute("max") == stop.get_attribute("value") else Keys.ARROW_RIGHT
                ) if stop.tag_name == "input" else bench.keys(Keys.ENTER)

        bench.acted(act)
        if not is_set_here(bench, control) or bench.posts() != before + 1:
            unset.append((name, bench.posts() - before))
        bench.keys(Keys.ESCAPE)
        wait_for(lambda: not bench.one("value-editor").is_displayed())
        if field.tag_name != "select":
            assert bench.js("return document.activeElement.id") == control.removeprefix("w-"), (
                f"{name}: the focus is not back"
            )
        if is_set_here(bench, control):
            bench.acted(
                lambda control=control: bench.driver.find_element(By.CSS_SELECTOR, f"#{control} .give-back").click()
            )
    assert unset == []


def dragged(browser: Browser, test: str, steps: list[tuple[int, int]], release: bool = True) -> None:
    """Presses in the middle of something and moves on from there."""
    chain = ActionChains(browser.driver, duration=20).move_to_element(browser.one(test)).click_and_hold()
    for across, down in steps:
        chain.move_by_offset(across, down)
    (chain.release() if release else chain).perform()


def test_what_is_turned_is_seen_at_once_and_letting_go_is_one_edit(bench: Browser) -> None:
    look_at(bench, "room")
    bench.press("edit-padding")
    bench.press("side-all")
    before = painted(bench, "padding-top")
    dragged(bench, "length-slider", [(3, 0)] * 20, release=False)
    wait_for(lambda: painted(bench, "padding-top") != before)
    turned = painted(bench, "padding-top")
    assert bench.posts() == 0, "an edit before it was let go"
    bench.acted(lambda: ActionChains(bench.driver).release().perform())
    assert bench.posts() == 1
    kept = wait_for(lambda: bench.one("style-padding").get_attribute("value"))
    assert kept == turned
    # What follows on the page itself is no longer what was turned, but what is so.
    wait_for(
        lambda: bench.on_stage_js(
            "return ![...document.querySelectorAll('style')].some((one) => /^@layer rim-stage.*transition/.test(one.textContent))",
        )
    )
    assert painted(bench, "padding-top") == turned
    bench.press("editor-close")
    bench.press("undo")
    wait_for(lambda: painted(bench, "padding-top") == before)


def test_escape_gives_back_what_was_turned_and_sends_nothing(bench: Browser) -> None:
    look_at(bench, "room")
    before = painted(bench, "padding-top")
    bench.press("edit-padding")
    dragged(bench, "length-slider", [(4, 0)] * 10, release=False)
    wait_for(lambda: painted(bench, "padding-top") != before)
    bench.keys(Keys.ESCAPE)
    wait_for(lambda: painted(bench, "padding-top") == before)
    assert bench.one("style-padding").get_attribute("value") == ""
    ActionChains(bench.driver).release().perform()
    assert bench.posts() == 0


def test_a_colour_is_turned_with_its_contrast_and_picked_from_the_stage(bench: Browser) -> None:
    look_at(bench, "text")
    bench.press("edit-color")
    said = bench.one("editor-contrast").text
    shown = bench.one("state-rest").text
    assert said.split(" ")[0] in shown, (said, shown)
    dragged(bench, "channel-l", [(2, 0)] * 25, release=False)
    assert "is needed" in wait_for(lambda: (now := bench.one("editor-contrast").text) != said and now)
    bench.acted(lambda: ActionChains(bench.driver).release().perform())
    assert bench.one("style-color").get_attribute("value").startswith("#")
    told = bench.one("editor-contrast").text.split(" ")[0]
    assert told in bench.one("state-rest").text, "the contrast that one turns by is the one that is told afterwards"
    bench.acted(lambda: bench.driver.find_element(By.CSS_SELECTOR, '#value-editor [data-swatch="sw-deep"]').click())
    assert bench.one("style-color").get_attribute("value") == "Deep"
    bench.driver.find_element(By.CSS_SELECTOR, "#value-editor [data-colour-pick]").click()
    with bench.on_stage() as driver:
        wait_for(lambda: driver.execute_script("return document.documentElement.style.cursor") == "crosshair")
        wanted = driver.execute_script(
            "return getComputedStyle(document.querySelector('[data-rim-node=it-menu]')).color"
        )
        driver.find_element(By.CSS_SELECTOR, "[data-rim-node=it-menu] a").click()
    wait_for(lambda: painted(bench, "color") == wanted)
    assert bench.one("chosen").text == "Button: Book", "what is picked from is not chosen"
    for _ in range(3):
        bench.press("undo")


def test_a_gradient_is_made_on_its_line_and_typed_on(bench: Browser) -> None:
    look_at(bench, "ground", "rw-main")
    bench.press("edit-background-image")
    bench.press("kind-linear")
    stops = bench.driver.find_elements(By.CSS_SELECTOR, "#value-editor [data-stop]")
    assert len(stops) == 2
    bench.press("add-stop")
    bench.acted(lambda: dragged(bench, "stops", [(20, 0), (20, 0)]))
    bench.acted(lambda: (bench.js("arguments[0].focus()", bench.one("angle")), bench.keys(Keys.ARROW_LEFT)))
    said = bench.one("style-background-image").get_attribute("value")
    assert said.startswith("linear-gradient(179deg, ") and said.count("%") == 3, said
    assert "gradient" in painted(bench, "background-image", "rw-main")
    # Typed in the field, it is what the editor shows.
    bench.change("style-background-image", "radial-gradient(Deep, #fff 30%, Deep)")
    bench.press("edit-background-image")
    assert bench.one("kind-radial").get_attribute("aria-pressed") == "true"
    marks = bench.driver.find_elements(By.CSS_SELECTOR, "#value-editor [data-stop]")
    assert [mark.get_attribute("aria-valuenow") for mark in marks] == ["0", "30", "100"]
    bench.press("kind-picture")
    assert bench.driver.find_element(By.CSS_SELECTOR, "#value-editor [data-picture] img").is_displayed()
    wait_for(lambda: bench.js("return document.querySelector('#value-editor [data-picture] img').naturalWidth > 0"))
    bench.press("kind-none")
    assert bench.one("style-background-image").get_attribute("value") in {"", "none"}


def test_a_shadow_has_a_point_to_drag_and_four_sides_go_together_or_apart(bench: Browser) -> None:
    look_at(bench, "ground")
    bench.press("edit-box-shadow")
    bench.press("add-shadow")
    bench.acted(lambda: dragged(bench, "pad", [(15, 20)]))
    right, down, *_ = bench.one("style-box-shadow").get_attribute("value").split(" ")
    assert abs(float(right[:-2]) - 15 * 80 / 116) < 1.5 and abs(float(down[:-2]) - 20 * 80 / 116) < 1.5
    bench.press("undo")
    look_at(bench, "edge")
    bench.press("edit-border-radius")
    bench.press("side-all")
    bench.acted(lambda: (bench.js("arguments[0].focus()", bench.one("length-slider")), bench.keys(Keys.HOME)))
    assert painted(bench, "border-top-left-radius") == "0px" or wait_for(
        lambda: painted(bench, "border-top-left-radius") == "0px"
    )
    bench.press("side-2")
    bench.acted(lambda: (bench.js("arguments[0].focus()", bench.one("length-slider")), bench.keys(Keys.PAGE_UP)))
    assert bench.one("style-border-radius").get_attribute("value").split(" ")[0::3] == ["0px", "0px"]
    wait_for(lambda: painted(bench, "border-bottom-right-radius") != "0px")
    assert painted(bench, "border-top-right-radius") == "0px"
    bench.press("undo")
    bench.press("undo")


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
    bench: Browser, name: str, typed: str, turned: str, wanted: str
) -> None:
    look_at(bench, "ground")
    bench.change(f"style-{name}", typed)
    bench.press(f"edit-{name}")
    *first, slider = turned.split(" ")
    for one in first:
        bench.press(one)
    bench.acted(lambda: (bench.js("arguments[0].focus()", bench.one(slider)), bench.keys(Keys.ARROW_RIGHT)))
    assert bench.one(f"style-{name}").get_attribute("value") == wanted
    bench.press("editor-close")
    bench.press(f"give-back-{name}")


def test_arrow_keys_and_the_wheel_turn_a_number_in_its_field(bench: Browser) -> None:
    look_at(bench, "room")
    field = bench.one("style-padding")
    bench.js("arguments[0].focus()", field)
    begun = str(field.get_attribute("placeholder")).split(" ")
    assert len(begun) == 2, "two sides, which the arrows leave alone"
    bench.change("style-padding", "10px")
    field = bench.one("style-padding")
    bench.js("arguments[0].focus()", field)
    before = bench.posts()
    bench.linger()
    for _ in range(5):
        bench.keys(Keys.ARROW_UP)
    bench.keys(Keys.SHIFT, Keys.ARROW_UP)
    wait_for(lambda: painted(bench, "padding-top") == "25px")
    wait_for(lambda: bench.posts() == before + 1)
    wait_for(lambda: bench.one("style-padding").get_attribute("value") == "25px")
    bench.press("undo")
    bench.press("undo")


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
def test_nothing_in_the_tray_scrolls_or_is_cut(bench: Browser, wide: int) -> None:
    bench.resize(wide, 800)
    wrong = []
    for piece, node in SHOWN:
        for tray in TRAYS:
            bench.go(f"/s/ostrey/pieces/{piece}/?select={node}&tray={tray}&width={1000 if tray == 'fit' else 1120}")
            if tray == "fit" and piece == "pc-main":
                wait_for(lambda: bench.all("try-remedy"))
            over = bench.js(
                "const tray = document.querySelector('#tray-groups'); return [tray.scrollHeight - tray.clientHeight, tray.scrollWidth - tray.clientWidth]"
            )
            if max(over) > 0:
                wrong.append((node, tray, over))
    bench.resize(1280, 800)
    assert wrong == []


def test_axe_finds_nothing_in_the_tray_of_a_part_nor_in_the_boxes_that_open_over_the_workbench(bench: Browser) -> None:
    for part in ("veil", "opened", "second-line"):
        bench.go(f"{HEADER}?select=it-menu&tray=ground&part={part}")
        assert violations(bench, ".tray") == [], part
    for key, box in (("/", "#find"), ("n", "#create-piece"), (Keys.INSERT, "#seam")):
        look_at(bench, "content")
        bench.js("document.activeElement.blur()")
        bench.keys(key)
        wait_for(lambda box=box: bench.js("return document.querySelector(arguments[0])?.checkVisibility()", box))
        bench.settled()
        assert violations(bench, box) == [], box


@pytest.mark.parametrize("width", [1024, 1280, 1600])
def test_no_editor_is_cut_and_axe_finds_nothing_in_any(bench: Browser, width: int) -> None:
    bench.resize(width, 800)
    wrong: list[Any] = []
    for facet, names in {
        "text": ["color", "text-shadow", "font-size"],
        "ground": ["background-image", "background-position", "box-shadow"],
        "room": ["padding", "transition-timing-function"],
    }.items():
        look_at(bench, facet)
        for name in names:
            bench.js("arguments[0].click()", bench.one(f"edit-{name}"))
            for more in ("add-shadow", "kind-linear"):
                if any(one.is_displayed() for one in bench.all(more)):
                    bench.press(more)
            box = bench.js(
                "const {left, top, right, bottom} = document.querySelector('#value-editor').getBoundingClientRect(); return [left, top, right - innerWidth, bottom - innerHeight]"
            )
            scrolls = bench.js(
                "const box = document.querySelector('#value-editor'); return box.scrollHeight > box.clientHeight || box.scrollWidth > box.clientWidth"
            )
            if box[0] < 0 or box[1] < 0 or box[2] > 0 or box[3] > 0 or scrolls:
                wrong.append((name, box, scrolls))
            if width == 1280:
                wrong += [(name, one) for one in violations(bench, "#value-editor")]
            bench.js("document.querySelector('[data-editor-close]').click()")
            while any(one.is_displayed() for one in bench.all(f"give-back-{name}")):
                bench.press(f"give-back-{name}")
    bench.resize(1280, 800)
    assert wrong == []


def test_forced_colours_keep_swatches_spans_bands_and_what_is_chosen(bench: Browser) -> None:
    def forced(value: str) -> None:
        feature = {"name": "forced-colors", "value": value}
        bench.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": [feature]})

    told = """return arguments[0].map((css) => { const one = document.querySelector(css), style = getComputedStyle(one);
        return [style.backgroundColor, style.outlineStyle, style.outlineWidth]; })"""
    kept = [".chip i[style*='background:#12344d'], .chip i", ".ruler-band", ".fit-span", ".flag > span", ".scroll-band"]
    marked = [".tree-line[aria-current]", ".facet[aria-current]", ".state[aria-current]"]
    look_at(bench, "text")
    before = bench.js(told, kept)
    forced("active")
    try:
        after, chosen = bench.js(told, kept), bench.js(told, marked)
    finally:
        forced("none")
    grounds = [(css, then[0]) for css, now, then in zip(kept, before, after, strict=True) if now[0] != then[0]]
    assert grounds == []
    assert all(line == "solid" and width == "2px" for _, line, width in chosen)


def test_a_band_that_is_chosen_takes_the_stage_along_and_a_notice_has_the_way_to_what_it_tells(bench: Browser) -> None:
    bench.resize(1280, 800)
    look_at(bench, "room")
    bench.choose("set-band", "bd-middle")
    wait_for(lambda: bench.on_stage_js("return innerWidth") == 979)
    assert bench.one("stage-width").get_attribute("value") == "979"
    # Back at a width of another band, what is set for this one shows nothing here: the way there is pressed.
    bench.js(
        "const number = document.querySelector('[data-stage-width]'); number.value = 1200; number.dispatchEvent(new Event('change', {bubbles: true}))"
    )
    wait_for(lambda: bench.on_stage_js("return innerWidth") == 1200)
    bench.change("style-padding", "30px")
    assert "Show it at Middle" in bench.one("show-there").text
    bench.press("show-there")
    wait_for(lambda: bench.on_stage_js("return innerWidth") == 979 and painted(bench, "padding-top") == "30px")
    bench.press("undo")


def test_escape_goes_out_from_an_item_to_its_piece(bench: Browser) -> None:
    look_at(bench, "content")
    bench.js("document.querySelector('#outline [aria-current]').focus()")
    seen = []
    for _ in range(4):
        bench.acted(lambda: bench.keys(Keys.ESCAPE))
        seen.append(bench.one("chosen").text)
    assert seen == ["End", "Main row", "Main header", "Main header"]


def test_typefaces_are_shown_in_themselves_with_the_weights_that_they_have(bench: Browser) -> None:
    look_at(bench, "text")
    bench.js("document.querySelector('[data-test=style-font-family]').focus()")
    bench.keys(Keys.SPACE)
    listed = bench.js(
        "return [...document.querySelectorAll('[data-test=style-font-family] option')].filter((one) => one.value)"
        ".map((one) => [one.value, getComputedStyle(one).fontFamily, one.querySelector('small')?.textContent ?? ''])"
    )
    faces = shelf().offered_faces
    assert len(listed) == len(faces) and all(face in family for face, family, _ in listed)
    assert {weights for *_, weights in listed} == {f"{face.lightest} to {face.boldest}" for face in faces}
    wait_for(lambda: bench.js("return [...document.fonts].filter((one) => one.status === 'loaded').length > 5"))
    bench.keys(Keys.ESCAPE)
    assert bench.posts() == 0


def test_the_edge_of_the_tray_is_moved_by_pointer_and_by_keys_and_stays(bench: Browser) -> None:
    look_at(bench, "text")

    def heights() -> list[int]:
        return list(
            bench.js("return ['.tray', '#stage-ground'].map((one) => document.querySelector(one).offsetHeight)")
        )

    before = heights()
    # Its way leads over the stage, a window of its own.
    x, y = bench.js(
        "const edge = document.querySelector('#tray-height').getBoundingClientRect();"
        "return [edge.left + edge.width / 2, edge.top + edge.height / 2]"
    )
    with bench.held(x, y) as pull:
        for at in range(1, 5):
            pull(x, y - 20 * at)
    after = heights()
    assert after[0] == before[0] + 80 and after[1] == before[1] - 80
    assert bench.js("return document.activeElement.id") == "tray-height"
    bench.keys(Keys.ARROW_DOWN)
    assert heights()[0] == after[0] - 16 == int(bench.one("tray-height").get_attribute("aria-valuenow"))
    stage = (
        "const [stage, tray] = ['#stage', '.tray'].map((one) => document.querySelector(one).getBoundingClientRect());"
        "return stage.bottom <= tray.top"
    )
    assert bench.js(stage), "the stage has the room that is left"
    look_at(bench, "edge")
    assert heights()[0] == after[0] - 16, "it stays where it was left"
    bench.js("document.querySelector('#tray-height').focus()")
    bench.keys(Keys.HOME)
    assert heights()[0] == int(bench.one("tray-height").get_attribute("aria-valuemin"))
    ActionChains(bench.driver).double_click(bench.one("tray-height")).perform()
    assert heights() == before
    assert bench.posts() == 0


def test_what_was_typed_for_one_thing_and_refused_is_not_shown_at_another(bench: Browser) -> None:
    look_at(bench, "ground")
    field = bench.one("style-background-color")
    before = bench.posts()
    bench.js(
        "arguments[0].value = 'no colour'; arguments[0].dispatchEvent(new Event('change', {bubbles: true}))", field
    )
    wait_for(lambda: bench.all("notice"))
    assert bench.one("style-background-color").get_attribute("aria-invalid") == "true" and bench.posts() == before + 1
    bench.acted(lambda: bench.js("document.querySelector('#line-it-menu').click()"))
    there = bench.one("style-background-color")
    assert there == field, "the control is used again"
    assert (there.get_attribute("value"), there.get_attribute("aria-invalid")) == ("", None)
    bench.acted(lambda: bench.js("document.querySelector('#line-it-book').click()"))
    assert bench.one("style-background-color").get_attribute("value") != "no colour"


def test_an_arrow_in_a_field_counts_though_one_leaves_it_at_once(bench: Browser) -> None:
    look_at(bench, "room")
    field = bench.one("style-inline-size")
    field.click()
    field.send_keys("120px", Keys.TAB)
    wait_for(lambda: is_set_here(bench, "w-s-inline-size"))
    field = bench.one("style-inline-size")
    field.click()
    bench.acted(lambda: field.send_keys(Keys.ARROW_UP, Keys.TAB))
    wait_for(lambda: bench.one("style-inline-size").get_attribute("value") == "121px")
    for _ in range(2):
        bench.acted(lambda: bench.press("undo"))


def test_what_a_sheet_lists_is_drawn_each_time_that_it_opens(bench: Browser) -> None:
    look_at(bench, "ground")
    for line in ("line-it-menu", "line-pc-main", "line-it-book"):
        bench.press("create-piece")
        wait_for(lambda: bench.js("return document.querySelectorAll('#create-list button').length > 3"))
        bench.js("document.querySelector('#create-piece').close()")
        wait_for(lambda: not bench.js("return document.querySelector('#create-list').childNodes.length"))
        bench.acted(lambda line=line: bench.js("document.getElementById(arguments[0]).click()", line))

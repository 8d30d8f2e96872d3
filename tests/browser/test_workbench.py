"""The workbench holds still: the stage keeps its size and place, nothing typed is lost, keys act where they should."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from .conftest import Browser, wait_for

FOOTER = "/s/ostrey/pieces/pc-footer/"

_WATCH = """
window.rimResized = []; window.rimScrolled = [];
addEventListener('resize', () => rimResized.push([innerWidth, innerHeight]));
addEventListener('scroll', () => rimScrolled.push(scrollY));
scrollTo({top: document.documentElement.scrollHeight - innerHeight - 120, behavior: 'instant'});
return scrollY;
"""
_IN_VIEW = """
const part = document.querySelector(`[data-rim-node="${arguments[0]}"]`), box = part?.getBoundingClientRect();
return {resized: rimResized, at: scrollY, seen: !part || !part.getClientRects().length || (Math.min(box.bottom, innerHeight) - Math.max(box.top, 0) >= Math.min(24, box.height) - 0.5)};
"""


def on_stage(browser: Browser, script: str, *arguments: Any) -> Any:
    with browser.on_stage() as driver:
        return driver.execute_script(script, *arguments)


def counted(browser: Browser) -> None:
    """From now on requests of the studio, and whether its page is left, are counted."""
    browser.js(
        "window.rimSent = []; window.rimHere = true;"
        "document.addEventListener('htmx:beforeRequest', ({detail}) => detail.requestConfig.verb === 'post' && rimSent.push('post'))"
    )


def test_forty_choices_and_forty_edits_leave_the_stage_where_it_is(browser: Browser) -> None:
    browser.sign_in()
    browser.go(f"{FOOTER}?page=/guide/")
    wait_for(
        lambda: on_stage(
            browser, "return document.querySelector('[data-rim-node=pc-footer]') && document.readyState === 'complete'"
        )
    )
    browser.js("window.scrollTo(0, 0)")
    at = on_stage(browser, _WATCH)
    assert at > 0
    lines = [line.get_attribute("data-select") for line in browser.all("line")]
    for number in range(40):
        node = lines[(number * 7) % len(lines)]
        browser.acted(lambda node=node: browser.driver.find_element(By.CSS_SELECTOR, f'[data-select="{node}"]').click())
        seen = wait_for(lambda node=node: (now := on_stage(browser, _IN_VIEW, node))["seen"] and now)
        assert seen["resized"] == [], node
    browser.go(f"{FOOTER}?page=/guide/&select=rw-closing")
    wait_for(lambda: on_stage(browser, "return document.readyState === 'complete' && innerHeight > 0"))
    at = on_stage(browser, _WATCH)
    base = browser.one("undo")
    for number in range(40):
        browser.change("control-gap_px", str(20 + number % 7 + (number % 2) * 10))
    assert base.is_enabled()
    seen = on_stage(browser, _IN_VIEW, "rw-closing")
    assert (seen["resized"], seen["at"]) == ([], at)
    for _ in range(40):
        browser.acted(lambda: browser.keys(Keys.CONTROL, "z"))
    assert on_stage(browser, _IN_VIEW, "rw-closing")["resized"] == []


def test_what_a_visitor_opened_on_the_stage_stays_open_while_one_edits(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/s/ostrey/pieces/pc-main/?select=it-book&width=400")
    wait_for(
        lambda: on_stage(
            browser, "return document.querySelector('[popover]')?.showPopover && document.readyState === 'complete'"
        )
    )
    on_stage(browser, "document.querySelector('.q7xk-it-menu [popover], [popover]').showPopover()")
    browser.change("control-words", "Book it")
    wait_for(lambda: on_stage(browser, "return document.body.textContent.includes('Book it')"))
    assert on_stage(browser, "return document.querySelectorAll(':popover-open').length") == 1
    browser.acted(lambda: browser.keys(Keys.CONTROL, "z"))


FIELDS = {
    "number": ("rw-closing", "control-gap_px", "31"),
    "text": ("rw-closing", "control-name", "Last line"),
    "tick": ("rw-closing", "control-full_width", None),
    "choice": ("rw-closing", "control-align", None),
}


@pytest.mark.parametrize("kind", FIELDS)
def test_one_press_of_enter_is_one_request_and_the_focus_stays(browser: Browser, kind: str) -> None:
    node, test, value = FIELDS[kind]
    browser.sign_in()
    browser.go(f"{FOOTER}?select={node}")
    counted(browser)
    field = browser.one(test)
    browser.js("arguments[0].focus()", field)
    if value is not None:
        browser.js("arguments[0].select()", field)
        field.send_keys(value)
    elif kind == "choice":
        field.send_keys(Keys.ARROW_DOWN)
    browser.acted(lambda: field.send_keys(Keys.ENTER))
    sent = browser.js("return [rimSent, rimHere, document.activeElement.dataset.test]")
    assert sent[0] == ([] if kind == "tick" else ["post"]) and sent[1] is True and sent[2] == test
    assert not browser.all("theirs"), "no clash with oneself"
    if kind != "tick":
        browser.press("undo")


def test_edits_typed_one_after_the_other_do_not_wait_and_do_not_clash(browser: Browser) -> None:
    browser.sign_in()
    browser.go(f"{FOOTER}?select=rw-closing")
    field = "const field = document.querySelector('[data-test=control-gap_px]');"
    browser.acted(
        lambda: browser.js(
            field
            + "for (const px of [11, 12, 13]) { field.value = px; field.dispatchEvent(new Event('change', {bubbles: true})); }"
        )
    )
    wait_for(lambda: browser.one("control-gap_px").get_attribute("value") == "13")
    assert not browser.all("notice")
    for _ in range(3):
        browser.acted(lambda: browser.keys(Keys.CONTROL, "z"))


@pytest.mark.parametrize("how", ["pointer", "keys"])
def test_what_may_be_chosen_next_is_asked_for_before_it_is_pressed_and_not_again(browser: Browser, how: str) -> None:
    browser.sign_in()
    asked = (
        "return performance.getEntriesByType('resource').filter(({name}) => name.includes('select=' + arguments[0]))"
        ".map(({initiatorType, transferSize}) => [initiatorType, transferSize > 0])"
    )

    def rest_on(node: str) -> None:
        line = browser.driver.find_element(By.ID, f"line-{node}")
        if how == "pointer":
            ActionChains(browser.driver).move_to_element(line).perform()
        else:
            browser.js("arguments[0].focus()", line)
        wait_for(lambda: browser.js(asked, node) == [["fetch", True]])

    def press(node: str) -> None:
        browser.acted(lambda: browser.js("arguments[0].click()", browser.driver.find_element(By.ID, f"line-{node}")))
        assert browser.js("return document.querySelector('#outline [aria-current]').id") == f"line-{node}"

    measured = "return document.querySelector('#scroll-ruler').matches('[data-measured]')"
    browser.go(f"{FOOTER}?select=rw-closing&tray=content")
    wait_for(lambda: browser.js(measured))
    rest_on("it-social")
    press("it-social")
    assert browser.js(asked, "it-social") == [["fetch", True], ["xmlhttprequest", False]]
    assert browser.js(measured), "what the stage told counts there, too"
    # What was asked for before something changed is not what is shown then.
    browser.go(f"{FOOTER}?select=rw-closing&tray=content")
    rest_on("it-contact")
    change = "field.value = 31; field.dispatchEvent(new Event('change', {bubbles: true}))"
    browser.acted(lambda: browser.js(f"const field = document.querySelector('[data-test=control-gap_px]'); {change}"))
    press("it-contact")
    assert browser.js(asked, "it-contact") == [["fetch", True], ["xmlhttprequest", True]]
    browser.press("undo")


@pytest.mark.parametrize(
    ("node", "field"),
    [("it-menu", "select"), ("it-menu", "input[type=checkbox]"), ("it-logo", "[data-test=control-height_px]")],
    ids=["choice", "mark", "text"],
)
def test_what_is_said_while_an_answer_is_under_way_is_not_lost(browser: Browser, node: str, field: str) -> None:
    browser.sign_in()
    browser.go(f"/s/ostrey/pieces/pc-main/?select={node}&tray=content")
    all_anew = (
        "document.querySelectorAll('.region').forEach((one) => delete one.dataset.state);"
        "htmx.ajax('GET', location.href, {source: '#screen', target: '#screen', swap: 'morph:innerHTML'});"
    )
    find = (
        f"const field = document.querySelector('#tray-groups form[hx-trigger=change] {field}[data-test^=control]'),"
        "is = () => field.checked + field.value;"
    )
    said = (
        "if (field.type === 'checkbox') field.checked = !field.checked;"
        "else field.value = field.options ? [...field.options].find((one) => !one.selected).value : '31';"
        "field.dispatchEvent(new Event('change', {bubbles: true})); return is()"
    )
    was = browser.js(f"{find} return is()")
    now = ""

    def say() -> None:
        nonlocal now
        now = browser.js(f"{all_anew} {find} {said}")

    browser.acted(say)
    assert now != was
    wait_for(lambda: browser.one("undo").is_enabled())
    browser.go(browser.js("return location.pathname + location.search"))
    assert browser.js(f"{find} return is()") == now
    browser.press("undo")
    wait_for(lambda: browser.js(f"{find} return is()") == was)


def test_what_is_refused_stays_as_it_was_typed_with_the_faulty_line_marked_and_the_rest_may_go_in(
    browser: Browser,
) -> None:
    browser.sign_in()
    browser.go(f"{FOOTER}?select=it-social")
    before = browser.one("control-profiles").get_attribute("value")
    typed = "https://one.example/a | One\nhttps://two.example/b | Two\nnowhere at all | Three\nhttps://four.example/d | Four"
    browser.js(
        "arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event('change', {bubbles: true}))",
        browser.one("control-profiles"),
        typed,
    )
    notice = wait_for(lambda: browser.all("notice"))[0]
    assert "line 3" in notice.text and notice.get_attribute("role") == "alert"
    field = browser.one("control-profiles")
    assert field.get_attribute("value") == typed and field.get_attribute("aria-invalid") == "true"
    assert (
        browser.js("return arguments[0].value.slice(arguments[0].selectionStart, arguments[0].selectionEnd)", field)
        == typed.splitlines()[2]
    )
    browser.press("take-rest")
    wait_for(lambda: not browser.all("notice"))
    browser.go(f"{FOOTER}?select=it-social")
    assert browser.one("control-profiles").get_attribute("value") == "\n".join(
        line for line in typed.splitlines() if "nowhere" not in line
    )
    browser.press("undo")
    assert browser.one("control-profiles").get_attribute("value") == before


def test_a_swatch_without_its_sign_goes_in_and_a_wrong_one_keeps_its_name(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/s/quillwort/foundations/")
    browser.fill("swatch-name", "Chalk")
    browser.fill("swatch-colour", "no colour at all")
    browser.press("add-swatch")
    wait_for(lambda: browser.all("notice"))
    assert browser.one("swatch-name").get_attribute("value") == "Chalk"
    assert browser.one("swatch-colour").get_attribute("aria-invalid") == "true"
    assert "0." not in browser.one("notice").text and "@" not in browser.one("notice").text
    browser.fill("swatch-colour", "F3F3F3")
    browser.press("add-swatch")
    assert "#F3F3F3" in browser.js("return [...document.querySelectorAll('input')].map((one) => one.value).join(' ')")
    browser.press("undo")


def test_a_page_whose_path_is_taken_keeps_its_text(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/s/quillwort/pages/")
    form = browser.driver.find_element(By.CSS_SELECTOR, "form:has([name=source]):has([name=path])")
    browser.js("arguments[0].closest('details')?.setAttribute('open', '')", form)
    for name, text in (("path", "/"), ("title", "Again"), ("source", "A long text that took an hour.")):
        browser.js("arguments[0].value = arguments[1]", form.find_element(By.NAME, name), text)
    browser.acted(
        lambda: browser.js("arguments[0].requestSubmit(arguments[0].querySelector('button:not([type=button])'))", form)
    )
    wait_for(lambda: browser.all("notice"))
    assert browser.driver.find_element(By.NAME, "source").get_attribute("value") == "A long text that took an hour."


def test_keys_act_where_one_types_on_the_text_alone(browser: Browser) -> None:
    browser.sign_in()
    browser.go(f"{FOOTER}?select=it-social")
    lines = len(browser.all("line"))
    counted(browser)
    for test in ("control-profiles", "control-words_shown"):
        browser.js("arguments[0].focus()", browser.one(test))
        for key in (Keys.DELETE, Keys.ARROW_UP, Keys.ARROW_DOWN):
            ActionChains(browser.driver).key_down(Keys.ALT).send_keys(key).key_up(Keys.ALT).perform()
    assert browser.js("return rimSent") == [] and len(browser.all("line")) == lines
    field = browser.one("elsewhere")
    browser.js("arguments[0].focus()", field)
    field.send_keys(Keys.ARROW_DOWN)
    assert browser.js("return rimSent") == [], "choosing a place moves nothing (WCAG 2.2, 3.2.2)"
    browser.change("control-gap_px", "9")
    browser.js("arguments[0].focus()", browser.one("control-words_shown"))
    browser.acted(lambda: browser.keys(Keys.CONTROL, "z"))
    assert browser.one("control-gap_px").get_attribute("value") != "9", "undo works from a select"


def test_after_a_removal_the_next_one_is_chosen_has_the_focus_and_it_is_said(browser: Browser) -> None:
    browser.sign_in()
    browser.go(f"{FOOTER}?select=it-social")
    names = [line.get_attribute("data-select") for line in browser.all("line")]
    at = names.index("it-social")
    button = browser.one("remove")
    browser.js("arguments[0].focus()", button)
    browser.acted(lambda: button.send_keys(Keys.ENTER))
    focused = browser.js(
        "return [document.activeElement.dataset.select, document.activeElement.getAttribute('aria-current')]"
    )
    assert focused == [names[at + 1], "true"]
    assert "Removed" in wait_for(lambda: browser.one("said").get_attribute("textContent"))
    assert "it-social" not in [line.get_attribute("data-select") for line in browser.all("line")]
    browser.acted(lambda: browser.driver.switch_to.active_element.send_keys(Keys.ENTER))
    assert len(browser.all("line")) == len(names) - 1, "a second Enter removes nothing"
    browser.acted(lambda: browser.keys(Keys.CONTROL, "z"))
    assert browser.one("said").get_attribute("textContent") == "Undone."


def test_single_letters_can_be_switched_off_and_the_rulers_know_home_and_end(browser: Browser) -> None:
    browser.sign_in()
    browser.go(f"{FOOTER}?select=rw-closing")
    browser.js("document.activeElement.blur()")
    browser.keys("?")
    wait_for(lambda: browser.js("return document.getElementById('shortcuts').open"))
    browser.one("letters").click()
    browser.js("document.getElementById('shortcuts').close(); document.activeElement.blur()")
    browser.keys("?")
    assert not browser.js("return document.getElementById('shortcuts').open")
    browser.js("localStorage.clear()")
    handle = browser.one("handle")
    browser.js("arguments[0].focus()", handle)
    for key, px in ((Keys.END, "2560"), (Keys.HOME, "280")):
        handle.send_keys(key)
        assert browser.one("handle").get_attribute("aria-valuenow") == px


SCREENS = (
    "/",
    "/s/ostrey/pages/",
    "/s/ostrey/foundations/",
    "/s/ostrey/foundations/type/",
    "/s/ostrey/foundations/defaults/",
    "/s/ostrey/menus/mn-main/",
    "/s/ostrey/pieces/",
    "/s/ostrey/inbox/",
    "/s/ostrey/editions/",
    f"{FOOTER}?select=it-social",
    "/s/ostrey/pieces/pc-main/?select=it-menu&tray=ground",
    "/s/ostrey/pieces/pc-main/?tray=movement",
    "/s/ostrey/pieces/pc-main/movement/",
    "/s/ostrey/pieces/pc-main/fit/",
)
_RINGS = r"""
const parse = (colour) => { const c = document.createElement('canvas').getContext('2d', {willReadFrequently: true}); c.fillStyle = '#fff'; c.fillRect(0, 0, 1, 1); c.fillStyle = colour; c.fillRect(0, 0, 1, 1); return [...c.getImageData(0, 0, 1, 1).data].slice(0, 3); };
const light = (rgb) => { const [r, g, b] = rgb.map((v) => (v /= 255) <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4); return 0.2126 * r + 0.7152 * g + 0.0722 * b; };
const ground = (part) => { for (let up = part; up; up = up.parentElement) { const c = getComputedStyle(up).backgroundColor; if (!/rgba\(.*, 0\)|transparent/.test(c) && !/\/ 0(\.\d+)?\)|rgba\([^)]*, 0\.\d+\)/.test(c)) return c; } return '#fff'; };
const weak = [];
for (const part of document.querySelectorAll('a[href], button:not([disabled]), input:not([type=hidden]):not([disabled]), select, textarea, summary, [tabindex="0"], trix-editor')) {
  if (!part.checkVisibility({visibilityProperty: true}) || !part.getClientRects().length) continue;
  part.focus({focusVisible: true, preventScroll: true});
  if (document.activeElement !== part) continue;
  const style = getComputedStyle(part), inside = parseFloat(style.outlineOffset) < 0;
  const [a, b] = [light(parse(style.outlineColor)), light(parse(ground(inside ? part : part.parentElement)))].sort((x, y) => y - x);
  const ratio = (a + 0.05) / (b + 0.05);
  if (style.outlineStyle === 'none' || parseFloat(style.outlineWidth) < 2 || ratio < 3) weak.push([part.outerHTML.slice(0, 120), style.outline, ratio]);
}
return weak;
"""


def test_whatever_has_the_focus_shows_it_with_a_contrast_of_three_at_least(browser: Browser) -> None:
    browser.sign_in()
    for path in SCREENS:
        browser.go(path)
        weak = browser.js(_RINGS)
        assert weak == [], (path, weak[:3])


def test_after_a_press_on_the_stage_the_studios_keys_work(browser: Browser) -> None:
    browser.sign_in()
    browser.go(f"{FOOTER}?page=/guide/")
    wait_for(lambda: on_stage(browser, "return document.readyState === 'complete'"))

    def press() -> None:
        with browser.on_stage() as driver:
            driver.find_element(By.CSS_SELECTOR, '[data-rim-node="it-social"]').click()

    wait_for(lambda: browser.js("return document.querySelector('#stage').dataset.chosen !== undefined"))
    browser.acted(press)
    wait_for(lambda: "it-social" in browser.driver.current_url)
    browser.keys("?")
    wait_for(lambda: browser.js("return document.getElementById('shortcuts').open"))


def test_no_screen_logs_an_error(new_browser: Callable[[], Browser]) -> None:
    browser = new_browser()
    browser.sign_in()
    browser.driver.get_log("browser")
    for path in (*SCREENS, "/s/ostrey/foundations/code/"):
        browser.go(path)
        wait_for(lambda: browser.js("return document.readyState === 'complete'"))
        assert faults_logged(browser) == [], path
    browser.go(f"{FOOTER}?page=/guide/")
    browser.go(browser.one("stage").get_attribute("src") or "")
    wait_for(lambda: browser.js("return document.readyState === 'complete' && Boolean(window.Idiomorph)"))
    assert faults_logged(browser) == [], "the stage by itself: a frame of another site logs apart"


def faults_logged(browser: Browser) -> list[str]:
    """But what the tests have run in each document, which a frame without scripts does not."""
    logged = [entry["message"] for entry in browser.driver.get_log("browser") if entry["level"] == "SEVERE"]
    return [said for said in logged if "Blocked script execution in 'about:blank'" not in said]


@pytest.mark.parametrize("tray", ["content", "ground", "movement"])
def test_enlarged_to_twice_its_size_the_regions_of_the_workbench_stand_below_each_other(
    browser: Browser, tray: str
) -> None:
    browser.sign_in()
    browser.resize(640, 400)
    browser.go(f"/s/ostrey/pieces/pc-main/?select=it-book&tray={tray}")
    wait_for(lambda: browser.js("return document.readyState === 'complete'"))
    regions, wide = browser.js(
        """
        const regions = [...document.querySelectorAll('[data-region]')].filter((one) => one.checkVisibility());
        const rects = regions.map((one) => [one.dataset.region, one.getBoundingClientRect()]);
        return [rects.map(([name, {left, right, top, bottom}]) => [name, left, right, top, bottom]), document.documentElement.scrollWidth];
        """
    )
    assert wide <= 640 and len(regions) >= 6
    over = [
        (one[0], other[0])
        for at, one in enumerate(regions)
        for other in regions[at + 1 :]
        if min(one[2], other[2]) - max(one[1], other[1]) > 1 and min(one[4], other[4]) - max(one[3], other[3]) > 1
    ]
    assert over == []
    # Nothing of the controls is cut: they scroll with the page.
    assert browser.js(
        "const tray = document.querySelector('#tray-groups'); return tray.scrollHeight <= tray.clientHeight + 1"
    )


def test_another_arrangement_is_tried_on_by_keys_and_kept_by_pointer(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/s/ostrey/pieces/pc-footer/")
    lines = [line.text for line in browser.all("line")]
    browser.js("arguments[0].focus()", browser.one("rearrange"))
    browser.keys(Keys.ENTER)
    wait_for(lambda: browser.all("arranged-colophon"))
    wait_for(lambda: browser.js("return document.activeElement.dataset.test") == "arranged-columns")
    browser.keys(Keys.ARROW_DOWN)
    assert browser.js("return document.activeElement.dataset.test").startswith("arranged-")
    browser.js("arguments[0].focus()", browser.one("arranged-colophon"))
    browser.keys(Keys.ENTER)
    wait_for(lambda: browser.all("trial") and browser.one("trial").text.startswith("Trying on: Colophon"))
    assert [line.text for line in browser.all("line")] == lines, "nothing is changed yet"
    browser.press("trial-keep")
    wait_for(lambda: not browser.all("trial") and [line.text for line in browser.all("line")] != lines)
    browser.press("undo")
    wait_for(lambda: [line.text for line in browser.all("line")] == lines)

"""For whom something is, as it is made, looked at and seen over all pages, in the studio."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from .conftest import Browser, wait_for
from .test_editors import violations


@pytest.fixture
def bench(browser: Browser) -> Iterator[Browser]:
    browser.sign_in()
    with browser.running.undone_afterwards("ostrey"):
        yield browser


def add(bench: Browser, part: str, kind: str, **typed: Any) -> None:
    """Another condition, filled in field by field as with the keyboard."""
    at = len(bench.driver.find_elements("css selector", f"[data-test=conditions-{part}] > li"))
    bench.js("arguments[0].value = arguments[1]", bench.one(f"kind-{part}"), kind)
    bench.press(f"add-{part}")
    for name, value in typed.items():
        bench.acted(lambda name=name, value=value: bench.js(SET, f"#who-{part}-{at}", name, value))
    assert not bench.all("notice")


SET = """
const [form, name, value] = arguments, fields = [...document.querySelectorAll(`${form} [name="${name}"]`)];
const field = fields[0];
if (Array.isArray(value)) fields.forEach((one) => (one.checked = value.includes(one.value)));
else if (field.type === 'checkbox') field.checked = value;
else field.value = value;
field.dispatchEvent(new Event('change', {bubbles: true}));
"""


def sees(bench: Browser, card: str, node: str) -> bool:
    """Whether it shows on the stage to a visitor."""
    bench.choose("looking-as", card)
    # The stage is loaded anew as somebody else.
    shown = f"const one = document.querySelector('[data-rim-node={node}]'); return document.readyState === 'complete' && location.search.includes('{card}') && [Boolean(one?.getClientRects().length)]"

    def asked() -> Any:
        with bench.on_stage() as stage:
            return stage.execute_script(shown)

    return bool(wait_for(asked)[0])


@pytest.mark.parametrize(
    ("page", "conditions", "one", "another"),
    [
        ("/sailings/", [("every", "visits", {"first": "1", "last": "1"})], "vc-first", "vc-regular"),
        (
            "/sailings/",
            [("every", "came-from", {"value": "spring", "days": "14"})],
            "vc-campaign",
            "vc-first",
        ),
        ("/sailings/", [("every", "member", {})], "vc-regular", "vc-first"),
        ("/sailings/", [("none", "member", {})], "vc-first", "vc-regular"),
        ("/sailings/", [("every", "device", {"pointer": "touch"})], "vc-first", "vc-regular"),
        (
            "/sailings/",
            [
                ("every", "period", {"begins": "2026-11-02T00:00", "ends": "2027-03-28T00:00", "yearly": True}),
                ("some", "period", {"weekdays": ["fri", "sat", "sun"], "begins": ""}),
                ("none", "period", {"begins": "2027-03-05T00:00"}),
                ("some", "visits", {"first": "1", "last": "1"}),
            ],
            "vc-campaign",
            "vc-regular",
        ),
        ("/ar/", [("every", "asks-for", {"languages": ["en"]})], "vc-first", "vc-regular"),
    ],
    ids=["first visit", "campaign", "members", "others", "touch", "winter", "way back"],
)
def test_what_is_for_some_is_made_on_the_workbench_and_seen_as_they_see_it(
    page: str, conditions: list[tuple[str, str, dict[str, Any]]], one: str, another: str, bench: Browser
) -> None:
    bench.go(f"/s/ostrey/pieces/pc-main/?select=it-book&page={page}&tray=who&width=1120")
    for part, kind, typed in conditions:
        add(bench, part, kind, **typed)
    assert "for " in bench.js("return document.querySelector('#line-it-book').textContent")
    for card, is_shown in ((one, True), (another, False)):
        bench.go(f"/s/ostrey/pieces/pc-main/?select=it-book&page={page}&tray=who&width=1120&as={card}")
        assert on_the_stage(bench, "it-book") is is_shown, card
        told = bench.one("gets").text
        name = bench.js("return document.querySelector('#as').selectedOptions[0].textContent")
        assert (f"Not {name}" not in told) is is_shown


def on_the_stage(bench: Browser, node: str) -> bool:
    shown = f"const one = document.querySelector('[data-rim-node={node}]'); return document.readyState === 'complete' && Boolean(document.querySelector('header')) && [Boolean(one?.getClientRects().length)]"

    def asked() -> Any:
        with bench.on_stage() as stage:
            return stage.execute_script(shown)

    return bool(wait_for(asked)[0])


def test_one_looks_as_somebody_at_the_width_of_their_screen(bench: Browser) -> None:
    bench.go("/s/ostrey/pieces/pc-welcome/?page=/harbours/&tray=who")
    assert on_the_stage(bench, "it-welcome") and not on_the_stage(bench, "it-winter")
    assert sees(bench, "vc-first", "it-call")
    assert bench.one("stage-width").get_attribute("value") == "390"
    assert sees(bench, "vc-regular", "it-winter") and not on_the_stage(bench, "it-welcome")
    assert "as=vc-regular" in bench.driver.current_url
    bench.choose("beside", "vc-first")
    with bench.on_stage() as stage:
        stage.switch_to.default_content()
        stage.switch_to.frame(bench.one("stage-beside"))
        wait_for(lambda: "Here for the first time" in stage.find_element("css selector", "body").text)
    # What is done meanwhile is done at the same place.
    bench.press("add-none")
    assert bench.one("looking-as").get_attribute("value") == "vc-regular"


def test_a_visitor_is_created_and_said_by_hand(bench: Browser) -> None:
    bench.go("/s/ostrey/visitors/")
    bench.fill("card-name", "Night reader")
    bench.press("add-card")
    wait_for(lambda: "Night reader" in bench.one("card-form").find_element("name", "name").get_attribute("value"))
    for name, value in {"languages": "de-AT, en", "pointer": "touch", "prefers": ["dark"], "region": "AT"}.items():
        bench.acted(lambda name=name, value=value: bench.js(SET, "#card-form", name, value))
    assert "Call the quay: shown" in bench.one("card-gets").text
    bench.acted(lambda: bench.js(SET, "#card-form", "zone", "Europe/Nowhere"))
    field = bench.one("card-form").find_element("name", "zone")
    assert field.get_attribute("aria-invalid") == "true" and field.get_attribute("value") == "Europe/Nowhere"
    assert violations(bench, "main") == []


def test_the_board_is_walked_with_arrow_keys_and_takes_an_exception(bench: Browser) -> None:
    bench.go("/s/ostrey/board/?band=bd-wide")
    wait_for(lambda: bench.js("return document.querySelectorAll('#board [tabindex=\"0\"]').length === 1"))
    bench.js("document.querySelector('#board [tabindex=\"0\"]').focus()")
    for _ in range(5):
        bench.keys(Keys.ARROW_DOWN)
    assert "/guide/" in bench.js("return document.activeElement.textContent")
    bench.acted(lambda: bench.keys(Keys.ENTER))
    assert bench.js("return document.activeElement.closest('tr').ariaExpanded") == "true", "the focus stays"
    for key in (Keys.ARROW_DOWN, Keys.ARROW_DOWN, Keys.ARROW_RIGHT):
        bench.keys(key)
    bench.acted(lambda: bench.keys(Keys.ENTER))
    assert bench.one("told").text.lower().startswith("/guide/birds/ · header")
    assert violations(bench, "main") == []
    bench.press("except")
    assert "Nothing: except on /guide/birds/" in bench.one("told").text
    chosen = "return document.querySelector('#board [aria-selected] .sr-only').textContent"
    assert bench.js(chosen) == "nothing"


def test_the_end_of_a_time_is_dragged_and_moved_with_the_arrow_keys(bench: Browser) -> None:
    bench.go("/s/ostrey/pieces/pc-spring/?tray=who")
    add(bench, "every", "period", begins="2026-12-07T00:00", ends="2026-12-14T00:00")
    bench.go("/s/ostrey/timetable/?from=2026-11-30&days=28")
    bench.js("document.querySelector('[data-test=end-begins]').focus()")
    bench.acted(lambda: bench.keys(Keys.ARROW_RIGHT))
    assert told(bench, "end-begins") == "Tue 8 Dec 00:00"
    assert bench.js("return document.activeElement.dataset.test") == "end-begins", "the focus stays"
    bench.acted(lambda: bench.keys(Keys.SHIFT, Keys.ARROW_LEFT))
    assert told(bench, "end-begins") == "Mon 7 Dec 23:00"
    day_px = bench.js("return document.querySelector('.time-room').clientWidth") / 28
    chain = ActionChains(bench.driver).click_and_hold(bench.one("end-ends")).move_by_offset(round(day_px), 0)
    bench.acted(lambda: chain.move_by_offset(round(day_px), 0).release().perform())
    assert told(bench, "end-ends").startswith(("Tue 15 Dec 2", "Wed 16 Dec 0"))
    assert violations(bench, "main") == []


def told(bench: Browser, test: str) -> str:
    return str(bench.one(test).get_attribute("aria-valuetext"))


@pytest.mark.parametrize("wide", [640, 1024, 1280, 1600])
def test_nothing_of_the_board_and_the_visitors_is_cut(wide: int, bench: Browser) -> None:
    bench.resize(wide, 800)
    for path in ("board/?as=vc-first&against=vc-regular&cell=notice+below+/harbours/", "visitors/", "timetable/"):
        bench.go(f"/s/ostrey/{path}")
        over = "const root = document.documentElement; return root.scrollWidth - root.clientWidth"
        assert bench.js(over) <= 0, path
        assert violations(bench, "main") == [], path
    bench.resize(1280, 800)


def test_rules_get_a_name_in_one_piece_and_are_used_by_another(bench: Browser) -> None:
    bench.go("/s/ostrey/pieces/pc-press/")
    bench.unfolded("set-name")
    bench.fill("set-name", "The press room")
    bench.acted(lambda: bench.keys(Keys.ENTER))
    assert (
        "The press room" in bench.one("used-set").text and "on /press/ and below" in bench.one("used-set").text.lower()
    )
    bench.go("/s/ostrey/pieces/pc-welcome/")
    before = bench.one("reached").text
    chosen = bench.unfolded("set")
    name = next(one for one in chosen.find_elements("css selector", "option") if one.text == "The press room")
    bench.js("arguments[0].value = arguments[1]", chosen, name.get_attribute("value"))
    bench.press("use-set")
    assert "Used by Press header, too." in bench.one("used-set").text
    assert bench.one("reached").text != before, "it is on those pages, too"
    bench.press("leave-set")
    assert not bench.all("used-set") and bench.one("reached").text == before

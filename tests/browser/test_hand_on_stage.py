"""What is seen on the stage is taken there: sizes by their handles, things to another place; with keys, too."""

from __future__ import annotations

import pytest
from selenium.webdriver.common.keys import Keys

from .conftest import Browser, handle_on_stage, shown_on_stage, wait_for

HANDLES = [
    ("pc-main", "it-logo", "height_px", 1120, "it-logo", "", "height"),
    ("pc-main", "it-book", "padding-inline-start", 1120, "it-book", "", "width"),
    ("pc-main", "it-menu", "gap_px", 1120, "it-menu", "", "width"),
    ("pc-main", "it-phone", "icon_px", 1120, "it-phone", "[class*=-icon]", "height"),
    ("pc-main", "rw-main", "gap_px", 1120, "it-menu", "", "left"),
    ("pc-main", "rw-main", "padding-block-end", 1120, "pc-main", "", "height"),
    ("pc-main", "cl-start", "track", 1120, "it-menu", "", "left"),
    ("pc-main", "sg-slim", "height_px", 1120, "pc-main", ":scope > [class*=-ground]", "height"),
    ("pc-main", "sg-slim", "height_px", 1120, "it-menu", "", "top"),
    ("pc-guide", "it-guide-picture", "width_px", 1120, "it-guide-picture", "", "height"),
    ("pc-guide", "pc-guide", "width_px", 1120, "pc-guide", "", "width"),
    ("pc-bar", "pc-bar", "height_px", 420, "pc-bar", "", "height"),
    ("pc-footer", "it-social", "gap_px", 1120, "it-social", "", "width"),
    ("pc-footer", "it-social", "icon_px", 1120, "it-social", "[class*=-icon]", "height"),
]
"""Piece, node, handle, width of the stage, and what moves with it: a node or a part of it, and which measure."""

FRAMES = (
    "let left = 4; const done = arguments[0], next = () => (left-- ? requestAnimationFrame(next) : done()); next();"
)
STANDS = """return document.getAnimations().every((one) => one.timeline !== document.timeline
    || one.playState === 'finished' || one.effect.getComputedTiming().endTime === Infinity)"""
"""Nothing on the stage is on its way to somewhere: true some frames after it was scrolled."""

TAKEN = "return document.querySelector('[data-rim-handles]').shadowRoot.activeElement?.getAttribute('aria-valuetext')"
"""What the handle says that the keys turn."""


def look_at(browser: Browser, piece: str, chosen: str, width: int = 1120, tray: str = "room") -> None:
    browser.go(f"/s/ostrey/pieces/{piece}/?select={chosen}&tray={tray}&width={width}")
    wait_for(lambda: browser.on_stage_js("return !!document.querySelector('[data-rim-handles]')"))
    with browser.on_stage() as stage:
        stage.execute_async_script(FRAMES)
    wait_for(lambda: browser.on_stage_js(STANDS))
    browser.watch_posts()


def node(node_id: str) -> str:
    return shown_on_stage(f"[data-rim-node={node_id}]")


def measure(browser: Browser, moved: str, name: str, part: str = "") -> float:
    found = f"({node(moved)}){'.querySelector(arguments[1])' if part else ''}"
    return float(browser.on_stage_js(f"return {found}.getBoundingClientRect()[arguments[0]]", name, part))


@pytest.mark.parametrize(
    ("piece", "chosen", "handle", "width", "moved", "part", "name"),
    HANDLES,
    ids=[f"{one[1]}-{one[2]}" for one in HANDLES],
)
def test_what_follows_a_handle_is_what_comes_when_it_is_let_go(
    bench: Browser, piece: str, chosen: str, handle: str, width: int, moved: str, part: str, name: str
) -> None:
    look_at(bench, piece, chosen, width)
    x, y = bench.on_screen(handle_on_stage(handle))
    before = measure(bench, moved, name, part)
    # Both ways: which one makes it larger depends on the edge; Alt leaves the steps of the scale alone.
    with bench.held(x, y) as pull:
        for way in range(1, 61):
            pull(x + way / 3, y + way / 3, alt=True)
        wait_for(lambda: abs(measure(bench, moved, name, part) - before) > 0.5)
        followed = measure(bench, moved, name, part)
        assert bench.posts() == 0, "an edit before it was let go"
    wait_for(lambda: bench.posts() == 1, 5)
    bench.settled()
    wait_for(
        lambda: bench.on_stage_js(
            "return ![...document.querySelectorAll('style')].some((one) => /^@layer rim-stage.*transition/.test(one.textContent))"
        )
    )
    # What has a transition takes its time.
    wait_for(lambda: abs(measure(bench, moved, name, part) - followed) <= 0.51, 3)
    assert bench.posts() == 1
    bench.press("undo")
    wait_for(lambda: abs(measure(bench, moved, name, part) - before) <= 0.51)


def test_what_somebody_else_changes_does_not_take_back_what_follows_a_handle(bench: Browser) -> None:
    look_at(bench, "pc-main", "it-logo")
    before = measure(bench, "it-logo", "height")
    bench.js("window.rimShown = 0; addEventListener('message', ({data}) => (rimShown += data?.rim === 'shown'))")
    x, y = bench.on_screen(handle_on_stage("height_px"))
    with bench.held(x, y) as pull:
        for way in range(1, 13):
            pull(x, y + way, alt=True)
        wait_for(lambda: measure(bench, "it-logo", "height") > before)
        followed = measure(bench, "it-logo", "height")
        bench.js("document.dispatchEvent(new CustomEvent('rim:elsewhere', {detail: {revision: 1e6}}))")
        wait_for(lambda: bench.js("return rimShown"), 5)
        assert measure(bench, "it-logo", "height") == followed
        pull(x, y, alt=True)
    assert measure(bench, "it-logo", "height") == before


def test_keys_turn_a_handle_as_one_edit_and_escape_gives_back(bench: Browser) -> None:
    look_at(bench, "pc-main", "it-logo", tray="content")
    before = measure(bench, "it-logo", "height")
    bench.js("document.querySelector('#outline [aria-current]').focus()")
    bench.keys("h")
    assert wait_for(lambda: bench.on_stage_js(TAKEN)) == "40 px"
    bench.linger()
    for _ in range(5):
        bench.stage_keys(Keys.ARROW_DOWN)
    wait_for(lambda: measure(bench, "it-logo", "height") == before + 5)
    assert bench.posts() == 0
    bench.stage_keys(Keys.ESCAPE)
    assert measure(bench, "it-logo", "height") == before
    bench.stage_keys(Keys.SHIFT, Keys.ARROW_UP)
    bench.stage_keys(Keys.ENTER)
    wait_for(lambda: bench.posts() == 1, 5)
    bench.settled()
    wait_for(lambda: bench.one("control-height_px").get_attribute("value") == "30")
    bench.stage_keys(Keys.ESCAPE)
    wait_for(lambda: bench.js("return document.activeElement.matches('#outline [aria-current]')"))
    bench.press("undo")


def test_a_handle_snaps_to_other_edges_and_to_the_scale(bench: Browser) -> None:
    look_at(bench, "pc-main", "it-book")
    x, y = bench.on_screen(handle_on_stage("padding-inline-start"))
    told = "return [...document.querySelector('[data-rim-handles]').shadowRoot.querySelectorAll('.told output')].map((one) => one.textContent).join()"
    with bench.held(x, y) as pull:
        seen = set()
        for way in range(1, 15):
            pull(x + way, y)
            seen.add(bench.on_stage_js(told))
        assert any("as " in one for one in seen), seen
    bench.settled()
    bench.press("undo")


def test_a_handle_that_is_held_stops_where_the_row_just_fits(bench: Browser) -> None:
    look_at(bench, "pc-main", "it-menu", tray="content")
    fails = """return [...document.querySelectorAll('#ruler [data-test=fit-span]')]
        .some((span) => span.dataset.from <= 1120 && span.dataset.to >= 1120)"""
    x, y = bench.on_screen(handle_on_stage("gap_px"))
    told = "return document.querySelector('[data-rim-handles]').shadowRoot.querySelector('.told output').textContent"
    with bench.held(x, y) as pull:
        for half in range(2, 160):
            pull(x + half / 2, y)
            if "the row just fits" in bench.on_stage_js(told):
                break
        else:
            pytest.fail(bench.on_stage_js(told))
    wait_for(lambda: bench.posts() == 1, 5)
    bench.settled()
    assert not bench.js(fails), "with this gap the row fits in every language"
    bench.js("document.querySelector('#outline [aria-current]').focus()")
    bench.keys("h")
    wait_for(lambda: bench.on_stage_js(TAKEN))
    bench.stage_keys(Keys.ARROW_RIGHT)
    bench.stage_keys(Keys.ENTER)
    wait_for(lambda: bench.js(fails), 5)
    bench.press("undo")
    bench.press("undo")


def lines(browser: Browser) -> list[str]:
    return [
        str(one.get_attribute("data-id"))
        for one in browser.js("return [...document.querySelectorAll('#outline li[data-id]')]")
    ]


def drag(browser: Browser, what: str, where: str, beside: str, across: float, down: float) -> None:
    assert browser.drag_on_stage(node(what), node(beside), across, down) == f"{where} {beside}"


def test_an_item_is_dragged_before_another_and_into_another_piece(bench: Browser) -> None:
    look_at(bench, "pc-main", "it-book")
    drag(bench, "it-book", "before", "it-menu", 0.05, 0.5)
    wait_for(lambda: lines(bench).index("it-book") == lines(bench).index("it-menu") - 1)
    assert bench.posts() == 1 and bench.one("chosen").text.startswith("Button")
    bench.press("undo")
    # What is pressed is dragged, also where something else is chosen; into the row of another piece.
    look_at(bench, "pc-main", "it-logo")
    drag(bench, "it-book", "after", "it-winter", 0.95, 0.5)
    wait_for(lambda: "/pieces/pc-winter/" in bench.driver.current_url)
    assert "it-book" in lines(bench)
    bench.press("undo")


def test_rows_and_cells_that_are_chosen_are_dragged(bench: Browser) -> None:
    look_at(bench, "pc-main", "rw-main")
    drag(bench, "rw-main", "before", "rw-above", 0.5, 0.2)
    wait_for(lambda: lines(bench).index("rw-main") < lines(bench).index("rw-above"))
    bench.press("undo")
    look_at(bench, "pc-main", "cl-end")
    drag(bench, "cl-end", "before", "cl-start", 0.1, 0.5)
    wait_for(lambda: lines(bench).index("cl-end") < lines(bench).index("cl-start"))
    bench.press("undo")


def test_escape_leaves_a_dragged_thing_where_it_was(bench: Browser) -> None:
    look_at(bench, "pc-main", "it-book")
    x, y = bench.on_screen(node("it-book"))
    bench.on_stage_js("document.querySelector('[data-rim-node=it-menu] a').focus()")
    with bench.held(x, y) as pull:
        for way in range(1, 10):
            pull(x - 20 * way, y)
        bench.stage_keys(Keys.ESCAPE)
    assert bench.posts() == 0
    assert not bench.on_stage_js("return !!document.querySelector('[data-rim-landing]')")


def test_regions_are_near_for_the_keys(bench: Browser) -> None:
    look_at(bench, "pc-main", "it-book", tray="content")
    bench.js("document.activeElement.blur()")
    seen = []
    for _ in range(12):
        bench.keys(Keys.TAB)
        seen.append(str(bench.js("return document.activeElement.dataset.test ?? document.activeElement.id")))
    assert "skip-controls" in seen, "the controls are at most 12 Tabs and one Enter away"
    bench.js("document.querySelector('[data-test=skip-controls]').focus()")
    bench.keys(Keys.ENTER)
    assert bench.js("return !!document.activeElement.closest('.tray')")
    regions = []
    for _ in range(6):
        bench.keys(Keys.F6)
        regions.append(bench.js("return document.activeElement.closest('[data-region]')?.dataset.region"))
        if regions[-1] == "stage":
            # Within the page the keys are the page's, but for this one.
            bench.stage_keys(Keys.F6)
            wait_for(
                lambda: bench.js("return document.activeElement.closest('[data-region]').dataset.region !== 'stage'")
            )
    assert {"looked at", "widths", "outline", "stage", "controls"} <= set(regions), regions
    # The outline is one stop; within, the arrows go.
    bench.js("document.querySelector('#outline [aria-current]').focus()")
    bench.keys(Keys.ARROW_UP)
    above = bench.js("return document.activeElement.dataset.select")
    assert above and above != "it-book"
    assert bench.js("return document.querySelectorAll(\"#outline [tabindex='0']\").length") == 1
    bench.acted(lambda: bench.keys(Keys.ENTER))
    assert bench.js("return document.querySelector('#outline [aria-current]').dataset.select") == above

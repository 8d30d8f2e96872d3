"""Each way to show a menu, by keyboard, by touch and by the browser's way back; opened heights; scripts that never
come."""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator
from functools import cache
from typing import Any

import pytest
from selenium import webdriver
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement

from tests.fit_judge import boxes_of, served
from upper_rim.core.exchange.html.markdown import written_page
from upper_rim.core.exchange.imports.import_pages import digest
from upper_rim.core.fit.advice.opened import SCREENS, all_opened
from upper_rim.core.fit.rows.sweep import frame_at
from upper_rim.core.kinds.entries import Entry
from upper_rim.core.kinds.items.button import ButtonItem
from upper_rim.core.kinds.items.contact import Contact
from upper_rim.core.kinds.items.links import LinkList
from upper_rim.core.kinds.items.logo import Logo
from upper_rim.core.kinds.items.menu import MenuItem
from upper_rim.core.kinds.items.rich import RichText
from upper_rim.core.kinds.items.search import SearchBox
from upper_rim.core.kinds.items.social import Profile, SocialRow
from upper_rim.core.kinds.items.trail import Trail
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.drawer import Drawer
from upper_rim.core.kinds.pieces.footer import Footer
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.rows import Cell, Columns, Row, Track
from upper_rim.core.model.site import Band, Menu, Page, Site
from upper_rim.core.output.fitting import fitter_of
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.output.publication import publication
from upper_rim.core.values.rich import RichWords
from upper_rim.core.values.styling import Declaration, RoleDefault
from upper_rim.core.values.targets import ToPage
from upper_rim.core.values.words import Words
from upper_rim.demo import ostrey, quillwort
from upper_rim.shipped import shelf

from .conftest import ROOT, load_faces, plain_chromium, wait_for

AXE = ROOT / "node_modules/axe-core/axe.min.js"
SIDES = ("start", "end", "top", "bottom", "whole")


@pytest.fixture(scope="module")
def chromium() -> Iterator[webdriver.Chrome]:
    driver = plain_chromium()
    yield driver
    driver.quit()


def to(name: str, *below: Entry) -> Entry:
    return Entry(id=f"en-{name}", label=Words(text=name.title()), target=ToPage(page=f"pg-{name}"), entries=below)


NAMES = ("fares", "harbours", "skarrow", "pier", "stairs", "lindwick", "guide", "birds")
ENTRIES = (
    to("fares"),
    to("harbours", to("skarrow", to("pier"), to("stairs")), to("lindwick")),
    to("guide", to("birds")),
)


@cache
def pages_in(language: str) -> tuple[tuple[Page, ...], dict[str, bytes]]:
    """With much text."""
    contents: dict[str, bytes] = {}
    pages = []
    for name in ("", *NAMES):
        content, splice = written_page(name.title() or "Front", language, "A long page.\n\n" * 80)
        contents[digest(content)] = content
        path = f"/{name}/" if name else "/"
        pages.append(
            Page(
                id=f"pg-{name or 'front'}",
                path=path,
                title=name.title(),
                language=language,
                content=digest(content),
                splice=splice,
            )
        )
    return tuple(sorted(pages, key=lambda page: page.path)), contents


def menu_site(language: str = "en", **how: Any) -> tuple[Site, dict[str, bytes]]:
    """Its pages, and a header with the menu."""
    pages, contents = pages_in(language)
    item = MenuItem(id="it-menu", menu="mn-a", drawer_below="bd-wide", **how)
    cells = (
        Cell(id="cl-a", track=Track(kind="content"), items=(Logo(id="it-logo"),)),
        Cell(id="cl-b", align="end", items=(item,)),
    )
    site = Site(
        key="qmenu",
        name="Ostrey",
        language=language,
        bands=(Band(id="bd-slim", name="Slim", from_px=0), Band(id="bd-wide", name="Wide", from_px=900)),
        menus=(Menu(id="mn-a", name="Main", entries=ENTRIES),),
        pieces=(Header(id="pc-a", name="Head", rows=(Row(id="rw-a", cells=cells),), reach=(ReachRule(id="rr-a"),)),),
        pages=pages,
    )
    return site, dict(contents)


CONTENTS: dict[str, bytes] = {}
"""Of all sites here, by their hash."""


@cache
def composed(document: str) -> dict[str, bytes]:
    """A site as it is published, by path; many tests are about the same."""
    site = Site.model_validate_json(document)
    composer = Composer(site, shelf(), CONTENTS.__getitem__)
    pages = {page.path: composer.page(page, CONTENTS[page.content or ""]) for page in site.pages}
    return pages | dict(composer.parts())


def with_drawer(site: Site, **fields: Any) -> Site:
    """The menu holds a search above its entries; below them a text with links, contact and profiles."""
    linked = "<p>Ask at the <a href='/fares/'>quay</a>, or at any of the other four quays, in any season.</p><ul><li>dry</li></ul>"
    profile = Profile(id="pf-a", address="https://mastodon.example/@ostrey", name="Notes")
    reach_us = (
        Contact(id="it-contact", telephone="+44 1632 960144", mail="quay@ostrey.example"),
        SocialRow(id="it-social", profiles=(profile,)),
    )
    rows = (
        Row(id="rw-search", cells=(Cell(id="cl-s", items=(SearchBox(id="it-search"),)),)),
        Row(id="rw-text", cells=(Cell(id="cl-t", items=(RichText(id="it-rich", rich=RichWords(text=linked)), ButtonItem(id="it-go", target=ToPage(page="pg-fares")))),)),
        Row(id="rw-reach", cells=(Cell(id="cl-c", items=reach_us[:1]), Cell(id="cl-d", items=reach_us[1:])), columns=(Columns(band="bd-slim", count=1),)),
    )  # fmt: skip
    drawer = Drawer(id="pc-drawer", name="In the menu", above=1, rows=rows, **fields)
    head = site.pieces[0]
    row = head.rows[0]
    item = row.cells[1].items[0].replaced(drawer="pc-drawer")
    cells = (row.cells[0], row.cells[1].replaced(items=(item,)))
    return site.replaced(pieces=(head.replaced(rows=(row.replaced(cells=cells),)), drawer))


_NAME = "f.getAttribute('aria-label') || f.textContent.trim()"


class Reading:
    """A published site in a browser, and what a reader does there."""

    def __init__(self, driver: webdriver.Chrome, files: dict[str, bytes], port: int) -> None:
        self.driver, self.files, self.address = driver, files, f"http://127.0.0.1:{port}"

    def publish(self, site: Site, contents: dict[str, bytes]) -> None:
        CONTENTS.update(contents)
        self.files.clear()
        self.files.update(composed(site.model_dump_json()))

    def go(self, path: str, wide: int = 390, high: int = 700) -> None:
        metrics = {"width": wide, "height": high, "deviceScaleFactor": 1, "mobile": False}
        self.driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
        self.driver.get(self.address + path)
        load_faces(self.driver)

    def js(self, script: str, *given: Any) -> Any:
        return self.driver.execute_script(script, *given)

    def keys(self, *keys: str) -> None:
        ActionChains(self.driver).send_keys(*keys).perform()

    def slowed(self, rate: float) -> None:
        """How fast the page's animations run from now on: slow enough to look at one, however slow the machine is."""
        self.driver.execute_cdp_cmd("Animation.enable", {})
        self.driver.execute_cdp_cmd("Animation.setPlaybackRate", {"playbackRate": rate})

    def focused(self) -> str:
        return str(self.js(f"const f = document.activeElement; return {_NAME}"))

    def tab_to(self, name: str, back: bool = False) -> None:
        for _ in range(30):
            chain = ActionChains(self.driver)
            (
                chain.key_down(Keys.SHIFT).send_keys(Keys.TAB).key_up(Keys.SHIFT) if back else chain.send_keys(Keys.TAB)
            ).perform()
            if self.focused() == name:
                return
        raise AssertionError(f"no way to {name} by Tab; the focus is on {self.focused()}")

    @property
    def button(self) -> WebElement:
        return self.driver.find_element(By.CSS_SELECTOR, "[data-rim-drawer]")

    @property
    def is_open(self) -> bool:
        return bool(self.js("return document.querySelector(':popover-open') !== null"))

    def open(self) -> None:
        self.js("arguments[0].focus()", self.button)
        self.keys(Keys.ENTER)
        wait_for(lambda: self.is_open and self.focused() == "Close menu")

    def closed(self) -> None:
        wait_for(lambda: not self.is_open)
        wait_for(lambda: self.focused() == "Menu")
        wait_for(lambda: self.button.get_attribute("aria-expanded") == "false")
        assert self.js("return document.querySelector('main').inert") is False


@pytest.fixture
def reading(chromium: webdriver.Chrome) -> Iterator[Reading]:
    with served() as (files, port):
        yield Reading(chromium, files, port)


@pytest.mark.parametrize("side", SIDES)
@pytest.mark.parametrize("submenus", ["shut", "levels"])
def test_three_levels_are_walked_followed_and_come_back_from(reading: Reading, side: str, submenus: str) -> None:
    reading.publish(*menu_site(drawer_side=side, submenus=submenus))
    reading.go("/")
    reading.open()
    reading.tab_to("More: Harbours")
    reading.keys(Keys.ENTER)
    by_level = submenus == "levels"
    if by_level:
        assert reading.focused() == "Harbours", "the way back, first in its level"
    reading.tab_to("More: Skarrow")
    reading.keys(Keys.ENTER)
    if by_level:
        assert reading.focused() == "Skarrow"
        reading.keys(Keys.ENTER)
        assert reading.focused() == "More: Skarrow", "back a level, on what led down"
        reading.keys(Keys.ENTER)
    reading.tab_to("Stairs")
    assert reading.js(
        "const f = document.activeElement.getBoundingClientRect(); return document.elementFromPoint(f.x + 5, f.y + f.height / 2).closest('a') === document.activeElement"
    )
    reading.keys(Keys.ENTER)
    wait_for(lambda: reading.driver.current_url.endswith("/stairs/"))
    assert reading.js("return history.length") <= 60
    reading.driver.back()
    wait_for(lambda: reading.driver.current_url.endswith(f"{reading.address}/"))
    assert not reading.is_open


@pytest.mark.parametrize("side", SIDES)
def test_it_closes_by_escape_by_the_way_back_and_by_a_press_outside(reading: Reading, side: str) -> None:
    reading.publish(*menu_site(drawer_side=side, submenus="shut"))
    reading.go("/")
    reading.go("/fares/")
    reading.open()
    reading.keys(Keys.ESCAPE)
    reading.closed()
    wait_for(lambda: reading.js("return history.state") is None)
    reading.open()
    reading.driver.back()
    reading.closed()
    assert reading.driver.current_url.endswith("/fares/"), "it is what closes, not the page"
    if side != "whole":
        reading.open()
        x, y = {"start": (380, 600), "end": (10, 600), "top": (200, 690), "bottom": (200, 10)}[side]
        chain = ActionChains(reading.driver)
        chain.w3c_actions.pointer_action.move_to_location(x, y).click()
        chain.perform()
        reading.closed()
    reading.open()
    reading.keys(Keys.ENTER)
    reading.closed()
    wait_for(lambda: reading.js("return history.state") is None)
    reading.driver.back()
    wait_for(lambda: reading.driver.current_url == f"{reading.address}/")


@pytest.mark.parametrize("side", SIDES)
def test_the_page_behind_does_not_move(reading: Reading, side: str) -> None:
    reading.publish(*menu_site(drawer_side=side))
    reading.go("/")
    reading.js("scrollTo(0, 0)")
    place = "return [...document.querySelectorAll('main p')].slice(0, 9).map((p) => JSON.stringify(p.getBoundingClientRect())).join() + scrollY"
    before = reading.js(place)
    reading.open()
    assert reading.js(place) == before
    ActionChains(reading.driver).scroll_by_amount(0, 400).perform()
    assert reading.js(place) == before, "nor does it scroll"
    assert reading.js("return document.querySelector('main').inert")
    reading.keys(Keys.ESCAPE)
    reading.closed()
    assert reading.js(place) == before


def test_where_the_page_gives_way_it_moves_by_the_drawers_width(reading: Reading) -> None:
    for language, sign in (("en", 1), ("ar", -1)):
        reading.publish(
            *menu_site(
                language, drawer_side="start", drawer_px=200, drawer_pushes=True, button_words=Words(text="Menu")
            )
        )
        reading.go("/")
        before = reading.js("return document.querySelector('main').getBoundingClientRect().left")
        reading.js("arguments[0].click()", reading.button)
        wait_for(lambda: reading.is_open)
        moved = reading.js("return document.querySelector('main').getBoundingClientRect().left") - before
        assert moved == sign * 200


@pytest.mark.parametrize("language", ["en", "ar"])
@pytest.mark.parametrize("side", SIDES)
def test_it_comes_and_goes_in_its_time_and_at_once_where_calm_is_asked_for(
    reading: Reading, side: str, language: str
) -> None:
    site, contents = menu_site(language, drawer_side=side, drawer_ms=300, button_words=Words(text="Menu"))
    reading.publish(site, contents)
    drawer = "const d = document.querySelector('.qmenu-drawer'), r = d.getBoundingClientRect(); "
    running = drawer + "return d.getAnimations().map((one) => one.transitionProperty).sort().join()"
    shown = (
        drawer
        + "return [d.getClientRects().length, Math.round(r.left), Math.round(r.top), getComputedStyle(d).opacity].join()"
    )
    moved = "opacity" if side == "whole" else "translate"
    reading.go("/")
    reading.slowed(0.001)
    reading.js("arguments[0].click()", reading.button)
    assert moved in reading.js(running)
    reading.js(drawer + "d.getAnimations().forEach((one) => one.finish())")
    there = reading.js(shown)
    left = {"start": 0, "end": 55}.get(side, 0) if language == "en" else {"start": 55, "end": 0}.get(side, 0)
    assert there.split(",")[1] == str(left) and there.endswith(",1")
    reading.keys(Keys.ESCAPE)
    assert not reading.is_open and moved in reading.js(running), "on its way out it is still seen"
    reading.slowed(1)
    wait_for(lambda: reading.js(shown).startswith("0,"))
    reading.driver.execute_cdp_cmd(
        "Emulation.setEmulatedMedia", {"features": [{"name": "prefers-reduced-motion", "value": "reduce"}]}
    )
    try:
        reading.js("arguments[0].click()", reading.button)
        assert reading.js(running) == "" and reading.js(shown) == there
        reading.keys(Keys.ESCAPE)
        assert reading.js(shown).startswith("0,")
    finally:
        reading.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": []})


@pytest.fixture(params=["touch", "mouse"])
def tap(request: pytest.FixtureRequest, reading: Reading) -> Iterator[Callable[[WebElement], None]]:
    """Presses the middle of something, with a finger or with a mouse."""
    by_touch = request.param == "touch"

    def press(part: WebElement) -> None:
        if not by_touch:
            return part.click()
        middle = "const r = arguments[0].getBoundingClientRect(); return {x: r.x + r.width / 2, y: r.y + r.height / 2}"
        points = [reading.js(middle, part)]
        reading.driver.execute_cdp_cmd("Input.dispatchTouchEvent", {"type": "touchStart", "touchPoints": points})
        reading.driver.execute_cdp_cmd("Input.dispatchTouchEvent", {"type": "touchEnd", "touchPoints": []})

    emulated = {"enabled": by_touch, **({"maxTouchPoints": 5} if by_touch else {})}
    reading.driver.execute_cdp_cmd("Emulation.setTouchEmulationEnabled", emulated)
    yield press
    reading.driver.execute_cdp_cmd("Emulation.setTouchEmulationEnabled", {"enabled": False})


def test_a_drawer_answers_to_touch_as_to_a_press(reading: Reading, tap: Callable[[WebElement], None]) -> None:
    reading.publish(*menu_site(submenus="shut", one_at_a_time=True))
    reading.go("/")
    tap(reading.button)
    wait_for(lambda: reading.is_open)
    harbours, skarrow, guide = reading.driver.find_elements(By.CSS_SELECTOR, "[data-rim-branch]")
    tap(harbours)
    wait_for(lambda: harbours.get_attribute("aria-expanded") == "true" and skarrow.is_displayed())
    tap(skarrow)
    wait_for(lambda: reading.driver.find_element(By.LINK_TEXT, "Pier").is_displayed())
    tap(guide)
    wait_for(lambda: guide.get_attribute("aria-expanded") == "true")
    assert harbours.get_attribute("aria-expanded") == "false", "one at a time"
    tap(reading.driver.find_element(By.LINK_TEXT, "Birds"))
    wait_for(lambda: reading.driver.current_url.endswith("/birds/"))


@pytest.mark.parametrize("side", SIDES)
def test_levels_are_walked_by_touch_down_and_up_again(
    reading: Reading, tap: Callable[[WebElement], None], side: str
) -> None:
    reading.publish(*menu_site(drawer_side=side, submenus="levels"))
    reading.go("/fares/")
    tap(reading.button)
    wait_for(lambda: reading.is_open and reading.focused() == "Close menu")
    harbours, skarrow, _ = reading.driver.find_elements(By.CSS_SELECTOR, "[data-rim-branch]")
    tap(harbours)
    wait_for(lambda: skarrow.is_displayed() and reading.focused() == "Harbours")
    assert not reading.driver.find_elements(By.LINK_TEXT, "Fares"), "one level at a time"
    tap(skarrow)
    wait_for(lambda: reading.focused() == "Skarrow")
    tap(reading.driver.find_elements(By.CSS_SELECTOR, "[data-rim-back]")[1])
    wait_for(lambda: reading.focused() == "More: Skarrow")
    tap(skarrow)
    wait_for(lambda: reading.driver.find_element(By.LINK_TEXT, "Stairs").is_displayed())
    tap(reading.driver.find_element(By.LINK_TEXT, "Stairs"))
    wait_for(lambda: reading.driver.current_url.endswith("/stairs/"))
    reading.driver.back()
    wait_for(lambda: reading.driver.current_url.endswith("/fares/"))


def follow_and_come_back(reading: Reading) -> None:
    """From where the focus is to the third level, to its page, and back."""
    reading.tab_to("Skarrow")
    reading.tab_to("Pier")
    reading.tab_to("Stairs")
    reading.keys(Keys.ENTER)
    wait_for(lambda: reading.driver.current_url.endswith("/stairs/"))
    reading.driver.back()
    wait_for(lambda: reading.driver.current_url == f"{reading.address}/")


@pytest.mark.parametrize("panels", ["narrow", "wide"])
def test_panels_are_walked_by_keyboard_and_close_by_escape_and_by_a_press_outside(
    reading: Reading, panels: str
) -> None:
    reading.publish(*menu_site(panels=panels))
    reading.go("/", 1200)
    before = reading.js("return document.querySelector('main').getBoundingClientRect().top")
    reading.tab_to("More: Harbours")
    button = reading.driver.find_element(By.CSS_SELECTOR, "[data-rim-branch]")
    reading.keys(Keys.ENTER)
    assert button.get_attribute("aria-expanded") == "true" and reading.focused() == "More: Harbours"
    assert reading.js("return document.querySelector('main').getBoundingClientRect().top") == before
    reading.tab_to("Stairs")
    reading.keys(Keys.ESCAPE)
    assert button.get_attribute("aria-expanded") == "false" and reading.focused() == "More: Harbours"
    reading.keys(Keys.ENTER)
    ActionChains(reading.driver).move_to_element(
        reading.driver.find_elements(By.CSS_SELECTOR, "main p")[9]
    ).click().perform()
    assert button.get_attribute("aria-expanded") == "false"
    reading.js("arguments[0].focus()", button)
    reading.keys(Keys.ENTER)
    reading.tab_to("Lindwick")
    reading.tab_to("Guide")
    assert button.get_attribute("aria-expanded") == "false", "it goes with the focus that leaves it"
    reading.tab_to("More: Harbours", back=True)
    reading.keys(Keys.ENTER)
    follow_and_come_back(reading)


@pytest.mark.parametrize("how", [{"way": "column", "submenus": "shut"}, {"way": "column"}, {"way": "columns"}])
def test_what_stands_below_each_other_is_walked_by_keyboard(reading: Reading, how: dict[str, Any]) -> None:
    reading.publish(*menu_site(**how))
    reading.go("/", 1200)
    if how.get("submenus") == "shut":
        for name in ("More: Harbours", "More: Skarrow"):
            reading.tab_to(name)
            reading.keys(Keys.ENTER)
            assert reading.focused() == name
            assert reading.js("return document.activeElement.getAttribute('aria-expanded')") == "true"
        reading.tab_to("Harbours", back=True)
    follow_and_come_back(reading)


def test_a_list_of_links_and_a_trail_are_walked_by_keyboard(reading: Reading) -> None:
    site, contents = menu_site()
    items = (LinkList(id="it-links", menu="mn-a"), Trail(id="it-trail", menu="mn-a"))
    row = site.pieces[0].rows[0]
    piece = site.pieces[0].replaced(rows=(row.replaced(cells=(Cell(id="cl-x", items=items),)),))
    reading.publish(site.replaced(pieces=(piece,)), contents)
    reading.go("/stairs/", 1200)
    for name in ("Fares", "Harbours", "Guide", "/", "Harbours", "Skarrow"):
        reading.tab_to(name)
    reading.keys(Keys.ENTER)
    wait_for(lambda: reading.driver.current_url.endswith("/skarrow/"))
    reading.driver.back()
    wait_for(lambda: reading.driver.current_url.endswith("/stairs/"))
    assert reading.js("return document.querySelector('.qmenu-trail [aria-current]').textContent") == "Stairs"


@pytest.mark.parametrize("hover", [False, True])
@pytest.mark.parametrize("panels", ["narrow", "wide"])
def test_panels_open_by_touch_and_go_with_a_press_elsewhere(
    reading: Reading, tap: Callable[[WebElement], None], panels: str, hover: bool
) -> None:
    reading.publish(*menu_site(panels=panels, on_hover=hover))
    reading.go("/", 1200)
    harbours, _, guide = reading.driver.find_elements(By.CSS_SELECTOR, "[data-rim-branch]")
    tap(harbours)
    wait_for(lambda: reading.driver.find_element(By.LINK_TEXT, "Pier").is_displayed())
    assert harbours.get_attribute("aria-expanded") == "true"
    tap(guide)
    wait_for(lambda: guide.get_attribute("aria-expanded") == "true")
    assert harbours.get_attribute("aria-expanded") == "false", "one panel at a time"
    tap(reading.driver.find_elements(By.CSS_SELECTOR, "main p")[5])
    wait_for(lambda: guide.get_attribute("aria-expanded") == "false")
    tap(harbours)
    wait_for(lambda: reading.driver.find_element(By.LINK_TEXT, "Stairs").is_displayed())
    tap(reading.driver.find_element(By.LINK_TEXT, "Stairs"))
    wait_for(lambda: reading.driver.current_url.endswith("/stairs/"))
    reading.driver.back()
    wait_for(lambda: reading.driver.current_url == f"{reading.address}/")


def test_the_branch_of_the_page_is_open_at_first_and_all_are_shut_in_the_row(reading: Reading) -> None:
    reading.publish(*menu_site(submenus="current"))
    reading.go("/pier/")
    reading.open()
    expanded = (
        "return [...document.querySelectorAll('[data-rim-branch]')].map((one) => one.getAttribute('aria-expanded'))"
    )
    assert reading.js(expanded) == ["true", "true", "false"]
    assert reading.driver.find_element(By.LINK_TEXT, "Pier").get_attribute("aria-current") == "page"
    assert reading.driver.find_element(By.LINK_TEXT, "Skarrow").get_attribute("aria-current") == "true"
    reading.keys(Keys.ESCAPE)
    reading.closed()
    assert reading.js(expanded) == ["false"] * 3


@pytest.mark.parametrize("panels", ["narrow", "wide"])
def test_panels_of_a_row_open_by_press_and_by_hover_with_time_to_get_there(reading: Reading, panels: str) -> None:
    reading.publish(*menu_site(panels=panels, on_hover=True))
    reading.go("/", 1200)
    harbours = reading.driver.find_element(By.LINK_TEXT, "Harbours")
    button = reading.driver.find_element(By.CSS_SELECTOR, "[data-rim-branch]")
    ActionChains(reading.driver).move_to_element(harbours).perform()
    wait_for(lambda: button.get_attribute("aria-expanded") == "true")
    panel = reading.driver.find_element(By.LINK_TEXT, "Lindwick")
    ActionChains(reading.driver, duration=600).move_to_element(panel).perform()
    assert button.get_attribute("aria-expanded") == "true", "the way to the panel does not lose it"
    ActionChains(reading.driver).move_by_offset(0, 400).perform()
    wait_for(lambda: button.get_attribute("aria-expanded") == "false")
    reading.js("arguments[0].focus()", button)
    reading.keys(Keys.ENTER)
    assert button.get_attribute("aria-expanded") == "true"
    reading.keys(Keys.TAB)
    assert reading.focused() == "Skarrow"
    reading.keys(Keys.ESCAPE)
    assert button.get_attribute("aria-expanded") == "false" and reading.focused() == "More: Harbours"


def test_a_panel_lies_over_what_comes_after_its_piece(reading: Reading) -> None:
    site, contents = menu_site()
    short, splice = written_page("Short", "en", "")
    contents[digest(short)] = short
    foot = Footer(
        id="pc-b",
        name="Foot",
        rows=(Row(id="rw-b", cells=(Cell(id="cl-c", items=(Logo(id="it-b"),)),)),),
        reach=(ReachRule(id="rr-b"),),
    )
    pages = tuple(page.replaced(content=digest(short), splice=splice) for page in site.pages)
    reading.publish(site.replaced(pieces=(*site.pieces, foot), pages=pages), contents)
    reading.go("/guide/", 1200)
    reading.driver.find_element(By.CSS_SELECTOR, "[data-rim-branch]").click()
    last = reading.driver.find_element(By.LINK_TEXT, "Lindwick")
    assert reading.js(
        "const r = arguments[0].getBoundingClientRect(); return document.elementFromPoint(r.x + 3, r.y + r.height / 2) === arguments[0]",
        last,
    )


@pytest.mark.parametrize("how", [
    {"submenus": "open"}, {"submenus": "shut"}, {"submenus": "levels"},
    {"drawer_side": "top"}, {"drawer_side": "bottom", "submenus": "shut"}, {"drawer_side": "whole"}, {"drawer_px": 240},
])  # fmt: skip
@pytest.mark.parametrize("rows", [False, True])
def test_opened_heights_are_those_foreseen(reading: Reading, how: dict[str, Any], rows: bool) -> None:
    site, contents = menu_site(**how)
    site = with_drawer(site) if rows else site
    reading.publish(site, contents)
    piece = site.pieces[0]
    foreseen = all_opened(fitter_of(shelf(), contents.__getitem__, 2026), site, piece, piece.rows[0], "en")
    assert [one.screen for one in foreseen] == [screen for screen in SCREENS if screen[0] < 900]
    for one in foreseen:
        reading.go("/", *one.screen)
        reading.js("arguments[0].click()", reading.button)
        wait_for(lambda: reading.is_open)
        inside = "return [...document.querySelector(':popover-open').children].reduce((sum, part) => sum + part.getBoundingClientRect().height, 36)"
        assert reading.js(inside) == pytest.approx(one.shut_px if site_has_toggles(how) else one.whole_px, abs=1), one
        assert reading.js(
            "return document.querySelector(':popover-open').getBoundingClientRect().width"
        ) == pytest.approx(one.width_px, abs=1)
        if how.get("submenus") == "levels":
            continue
        reading.js(
            "document.querySelectorAll('[data-rim-branch]').forEach((one) => one.setAttribute('aria-expanded', 'true'))"
        )
        assert reading.js(inside) == pytest.approx(one.whole_px, abs=1), one


@pytest.mark.parametrize("how", [{}, {"drawer_px": 240}, {"drawer_side": "bottom"}])
def test_rows_in_a_drawer_are_as_wide_as_foreseen(reading: Reading, how: dict[str, Any]) -> None:
    site, contents = menu_site(**how)
    site = with_drawer(site)
    composer = Composer(site, shelf(), contents.__getitem__, marks=True)
    reading.publish(site, contents)
    reading.files["/"] = composer.page(site.pages[0], contents[site.pages[0].content or ""])
    fits = fitter_of(shelf(), contents.__getitem__, 2026).rows(site, site.pieces[1])
    for wide in (300, 390, 620, 899):
        reading.go("/", wide)
        reading.js("arguments[0].click()", reading.button)
        wait_for(lambda: reading.is_open)
        for fit in fits:
            laid = fit.at(wide)
            assert laid is not None
            for node, frame in boxes_of(frame_at(laid, wide, 800.0)):
                if "/" not in node:
                    seen = reading.js(
                        "return document.querySelector(`[data-rim-node='${arguments[0]}']`).getBoundingClientRect().width",
                        node,
                    )
                    assert seen == pytest.approx(float(frame.width), abs=0.5), (wide, node)
    assert all(fit.at(900) is None for fit in fits), "from there on there is no drawer"


def test_a_drawers_rows_look_as_they_are_set_whatever_holds_them(reading: Reading) -> None:
    """Neither what the header says of its buttons and letters nor what a menu says of its lists and links reaches
    them."""
    site, contents = menu_site(submenus="levels")
    site = with_drawer(site)
    loud = RoleDefault(
        id="rd-b", role="button", styles=(Declaration(id="st-b", property="background-color", value="#ff0000"),)
    )
    wide = Declaration(id="st-c", property="letter-spacing", value="6px")
    underlined = Declaration(id="st-d", part="content", property="text-transform", value="uppercase")
    head, drawer = site.pieces
    row = head.rows[0]
    item = row.cells[1].items[0]
    cells = (row.cells[0], row.cells[1].replaced(items=(item.replaced(styles=(underlined,)),)))
    head = head.replaced(roles=(loud,), styles=(wide,), rows=(row.replaced(cells=cells),))
    reading.publish(site.replaced(pieces=(head, drawer)), contents)
    reading.go("/")
    shown = "return [...document.querySelectorAll('.qmenu-drawn')].map((part) => part.getClientRects().length)"
    reading.go("/", 1200)
    assert reading.js(shown) == [0, 0], "in a row there is no drawer"
    reading.go("/")
    reading.open()
    assert reading.js(shown) == [1, 1]
    style = "return getComputedStyle(document.querySelector('.qmenu-drawn ' + arguments[0]))[arguments[1]]"
    assert reading.js(style, ".qmenu-it-go", "background-color") != "rgb(255, 0, 0)"
    assert reading.js(style, ".qmenu-it-go", "column-gap") == "normal"
    assert reading.js(style, ".qmenu-it-rich", "letter-spacing") == "normal"
    assert reading.js(style, ".qmenu-it-rich a", "display") == "inline"
    assert reading.js(style, ".qmenu-it-rich li", "display") == "list-item"
    assert reading.js(style, ".qmenu-it-social .qmenu-list", "display") == "flex"
    assert reading.js(style, ".qmenu-it-social a", "text-transform") == "none"
    reading.driver.find_element(By.CSS_SELECTOR, "[data-rim-branch]").click()
    assert reading.js(style, ".qmenu-it-go", "visibility") == "hidden", "a level lies over them"


def test_the_focus_goes_through_a_drawers_rows_in_the_order_they_are_read(reading: Reading) -> None:
    site, contents = menu_site()
    reading.publish(with_drawer(site), contents)
    reading.go("/")
    reading.open()
    order = []
    for _ in range(30):
        reading.keys(Keys.TAB)
        order.append(reading.focused())
        if order[-1] == "Close menu":
            break
    assert order.index("Fares") < order.index("quay") < order.index("+44 1632 960144") < order.index("Notes")
    assert order[-1] == "Close menu", "and round again"


def site_has_toggles(how: dict[str, Any]) -> bool:
    return MenuItem(id="it-x", **how).has_toggles


@pytest.mark.parametrize(
    "how",
    [
        {"drawer_side": side, "submenus": submenus}
        for side in ("end", "bottom", "whole")
        for submenus in ("shut", "levels")
    ],
)
def test_nothing_opened_has_an_accessibility_fault(reading: Reading, how: dict[str, Any]) -> None:
    site, contents = menu_site(**how)
    reading.publish(with_drawer(site) if how["submenus"] == "shut" else site, contents)
    reading.go("/")
    reading.open()
    reading.driver.find_element(By.CSS_SELECTOR, "[data-rim-branch]").click()
    assert axe(reading) == []


def axe(reading: Reading) -> list[str]:
    reading.js(AXE.read_text())
    found: list[str] = reading.driver.execute_async_script(
        "const done = arguments[0]; axe.run().then(({violations}) => done(violations.map((one) => one.id + ': ' + one.nodes.map((n) => n.html.slice(0, 120)).join(' | '))))"
    )
    return found


@pytest.mark.parametrize("how", [{}, {"panels": "wide"}, {"way": "column", "submenus": "shut"}, {"way": "columns"}])
def test_no_way_beside_the_drawer_has_one_either(reading: Reading, how: dict[str, Any]) -> None:
    reading.publish(*menu_site(**how))
    reading.go("/pier/", 1200)
    for button in reading.driver.find_elements(By.CSS_SELECTOR, "[data-rim-branch]"):
        if button.is_displayed():
            reading.js("arguments[0].click()", button)
    assert axe(reading) == []


def test_nor_has_any_opened_menu_of_the_demo(reading: Reading) -> None:
    """On a page of each kind: what its buttons open, on a phone and on a wide screen, in each language."""
    for site, contents in (ostrey(), quillwort()):
        reading.files.clear()
        reading.files.update(
            {f"/{file.name}": file.data for file in publication(site, shelf(), contents.__getitem__, year=2026)}
        )
        paths = ("/", "/de/", "/cy/", "/ar/", "/guide/birds/", "/press/") if site.name == "Ostrey Ferries" else ("/",)
        for path in paths:
            assert f"{path}index.html" in reading.files
            for wide in (390, 1280):
                reading.go(f"{path}index.html", wide, 780)
                for button in reading.driver.find_elements(By.CSS_SELECTOR, "[data-rim-drawer],[data-rim-branch]"):
                    if button.is_displayed() and not reading.is_open:
                        reading.js("arguments[0].click()", button)
                        assert axe(reading) == [], (path, wide)


def test_without_its_script_a_menu_can_be_used_all_the_same(reading: Reading) -> None:
    reading.publish(*menu_site(submenus="shut"))
    for path in [path for path in reading.files if path.endswith(".js")]:
        del reading.files[path]
    reading.go("/", 390)
    reading.button.click()
    wait_for(lambda: reading.is_open)
    assert reading.driver.find_element(By.LINK_TEXT, "Stairs").is_displayed(), "a list that is simply there"
    reading.go("/", 1200)
    ActionChains(reading.driver).move_to_element(reading.driver.find_element(By.LINK_TEXT, "Harbours")).perform()
    wait_for(lambda: reading.driver.find_element(By.LINK_TEXT, "Lindwick").is_displayed())


def test_no_page_of_the_demo_has_a_script_error_where_scripts_break_off(chromium: webdriver.Chrome) -> None:
    """The connection ends somewhere within each script."""
    chance = random.Random(6)
    told = chromium.execute_cdp_cmd(
        "Page.addScriptToEvaluateOnNewDocument",
        {
            "source": "window.faults = []; addEventListener('error', (event) => event.message && faults.push(event.message))"
        },
    )
    try:
        for site, contents in (ostrey(), quillwort()):
            files = {f"/{file.name}": file.data for file in publication(site, shelf(), contents.__getitem__, year=2026)}
            with served() as (pages, port):
                pages.update(files)
                for page in site.pages:
                    broken = {path: chance.randrange(len(data)) for path, data in files.items() if path.endswith(".js")}
                    pages.broken_off = broken
                    chromium.get(f"http://127.0.0.1:{port}{page.path}index.html")
                    assert chromium.execute_script("return document.readyState") == "complete"
                    assert chromium.execute_script("return window.faults") == [], page.path
                    assert not chromium.execute_script("return document.documentElement.hasAttribute('data-rim-on')")
    finally:
        chromium.execute_cdp_cmd("Page.removeScriptToEvaluateOnNewDocument", {"identifier": told["identifier"]})


def test_the_button_shows_wherever_the_row_would_not_fit(reading: Reading) -> None:
    site, contents = menu_site(drawer_when_full=True, gap_px=60)
    fitter = fitter_of(shelf(), contents.__getitem__, 2026)
    resolved = fitter.resolved(site)
    item = resolved.pieces[0].rows[0].cells[1].items[0]
    assert isinstance(item, MenuItem) and item.drawer_below_px is not None and 300 < item.drawer_below_px < 900
    reading.publish(resolved, contents)
    shown = "return [...document.querySelectorAll('.qmenu-list > li')].map((one) => one.getBoundingClientRect()).filter((box) => box.width).map((box) => box.top)"
    reading.go("/", item.drawer_below_px)
    assert len(set(reading.js(shown))) == 1 and not reading.button.is_displayed(), "on one line, to the pixel"
    reading.go("/", item.drawer_below_px - 1)
    assert reading.js(shown) == [] and reading.button.is_displayed()
    always = site.pieces[0].rows[0].cells[1].items[0].replaced(drawer_when_full=False, drawer_below=None)
    row = site.pieces[0].rows[0]
    cells = (row.cells[0], row.cells[1].replaced(items=(always,)))
    reading.publish(site.replaced(pieces=(site.pieces[0].replaced(rows=(row.replaced(cells=cells),)),)), contents)
    reading.go("/", item.drawer_below_px - 1)
    assert len(set(reading.js(shown))) > 1, "there it would wrap"


def test_the_button_can_stay_on_wide_screens_and_wear_a_drawing_of_its_own(reading: Reading) -> None:
    own = {"button_picture": "/knot.svg", "button_words_shown": True, "button_words_first": True, "button_turns": True}
    site, contents = menu_site(drawer_always=True, drawer_when_full=True, drawer_px=400, **own)
    fitter = fitter_of(shelf(), contents.__getitem__, 2026)
    assert fitter.resolved(site) is site, "it does not wait for what the row needs"
    reading.publish(site, contents)
    reading.files["/knot.svg"] = (
        b'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24"><path d="M2 2h20v20z"/></svg>'
    )
    for wide in (390, 1280, 2560):
        reading.go("/", wide)
        assert reading.button.is_displayed() and not reading.driver.find_elements(By.LINK_TEXT, "Fares")
        drawn = "const i = document.querySelector('.qmenu-icon-own-it-menu'), s = getComputedStyle(i), r = i.getBoundingClientRect(); return [s.maskImage.includes('/knot.svg'), r.width, r.left > i.closest('button').querySelector('span:not([class])').getBoundingClientRect().left]"
        assert reading.js(drawn) == [True, 24, True]
        reading.open()
        width = reading.js("return document.querySelector(':popover-open').getBoundingClientRect().width")
        assert width == min(wide, 400)
        reading.keys(Keys.ESCAPE)
        reading.closed()
    laid = fitter.rows(site, site.pieces[0])[0].at(2000)
    reading.go("/", 2000)
    high = reading.js("return document.querySelector('.qmenu-row').getBoundingClientRect().height")
    assert laid is not None and laid.height_px(2000) == high


def test_a_long_drawer_on_a_short_screen_keeps_its_close_button_in_view(reading: Reading) -> None:
    reading.publish(*menu_site(submenus="open"))
    reading.go("/", 320, 256)
    reading.open()
    reading.tab_to("Birds")
    assert reading.js("return document.querySelector(':popover-open').scrollTop") > 100
    close = "const r = document.querySelector(':popover-open > button').getBoundingClientRect();"
    assert reading.js(
        close + "return r.top >= 0 && document.elementFromPoint(r.x + 22, r.y + 22).closest('button') !== null"
    )


_TWICE = """for (const part of document.querySelectorAll('.qmenu, .qmenu *')) part.dataset.was = parseFloat(getComputedStyle(part).fontSize);
document.querySelectorAll('[data-was]').forEach((part) => part.style.setProperty('font-size', 2 * part.dataset.was + 'px', 'important'));"""
_SEEN = f"""const f = document.activeElement, r = f.getBoundingClientRect(), top = document.elementFromPoint(r.x + Math.min(r.width, 60) / 2, r.y + r.height / 2);
return [{_NAME}, r.top >= -1, r.bottom <= innerHeight + 1, r.left >= -1, r.right <= innerWidth + 1, f.contains(top) || !!top?.contains(f)]"""


@pytest.mark.parametrize("submenus", ["shut", "levels"])
@pytest.mark.parametrize("side", SIDES)
def test_text_at_twice_its_size_and_a_window_at_four_times_lose_nothing(
    reading: Reading, side: str, submenus: str
) -> None:
    """WCAG 2.2, 1.4.4 and 1.4.10: 1280 × 1024 at 400 % is 320 × 256. All that can have the focus is seen when it
    has."""
    site, contents = menu_site(drawer_side=side, submenus=submenus)
    reading.publish(with_drawer(site), contents)
    for wide, high, twice in ((320, 256, False), (390, 700, True), (640, 400, False)):
        _all_is_seen(reading, wide, high, submenus, twice=twice)


def _all_is_seen(reading: Reading, wide: int, high: int, submenus: str, *, twice: bool) -> None:
    reading.go("/", wide, high)
    if twice:
        reading.js(_TWICE)
    reading.open()
    if submenus == "levels":
        reading.tab_to("More: Harbours")
        reading.keys(Keys.ENTER)
    else:
        reading.js("document.querySelectorAll('[data-rim-branch]').forEach((one) => one.click())")
    if not twice:
        # At twice its size a mail address is longer than the drawer is wide: one scrolls to its end.
        assert reading.js("const d = document.querySelector(':popover-open'); return d.scrollWidth <= d.clientWidth")
    assert reading.js("return document.documentElement.scrollWidth <= innerWidth")
    stops = []
    while len(stops) < 40:
        name, *seen = reading.js(_SEEN)
        if stops.count(name) == 2:
            break
        stops.append(name)
        assert seen[:2] == [True] * 2 and seen[4] and (twice or all(seen)), name
        reading.keys(Keys.TAB)
    expected = {"Skarrow", "Lindwick"} | (
        {"Fares", "Stairs", "Birds", "quay", "Notes"} if submenus == "shut" else set()
    )
    assert expected <= set(stops)

"""From a site that has its pages and nothing else to a header, a footer, a drawer and a notice, on the workbench, by
pointer and by keys, without typing CSS; every press is counted."""

from __future__ import annotations

import io
import zipfile
from pathlib import Path

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from .conftest import Browser, shown_on_stage, wait_for

MOST_PRESSES = 60
PAGES = {"index": "Fernhill", "walks": "Walks", "rooms": "Rooms", "garden": "The garden", "find-us": "How to find us"}


class Hand:
    """Presses, of the pointer or of a key, each counted with what it was for; what is typed as words counts once."""

    def __init__(self, browser: Browser) -> None:
        self.browser = browser
        self.presses: list[str] = []

    def click(self, what: str, css: str) -> None:
        self.presses.append(f"press {what}")
        part = wait_for(lambda: self.browser.driver.find_elements(By.CSS_SELECTOR, css))[0]
        self.browser.acted(lambda: ActionChains(self.browser.driver).move_to_element(part).click().perform())

    def key(self, what: str, *keys: str) -> None:
        self.presses.append(f"key {what}")
        self.browser.acted(lambda: self.browser.keys(*keys))

    def type(self, words: str) -> None:
        self.presses.append(f"type “{words}”")
        ActionChains(self.browser.driver).send_keys(words).perform()

    def on_stage(self, what: str, css: str, times: int = 1) -> None:
        """Presses on the stage itself."""
        self.presses += [f"press {what} on the stage"] * times
        x, y = self.browser.on_screen(shown_on_stage(css))
        mouse = self.browser.mouse
        mouse("mouseMoved", x, y)
        for at in range(times):
            mouse("mousePressed", x, y, is_down=True, count=at + 1)
            mouse("mouseReleased", x, y, count=at + 1)
        self.browser.settled()

    def drag(self, what: str, css: str, onto: str, across: float) -> None:
        self.presses.append(f"drag {what} on the stage")
        self.browser.drag_on_stage(shown_on_stage(css), shown_on_stage(onto), across)

    def find(self, typed: str) -> None:
        """By the key for it, a few letters, Enter."""
        self.key("Ctrl K", Keys.CONTROL, "k")
        self.type(typed)
        wait_for(lambda: self.browser.one("find-list").get_attribute("data-typed") == typed)
        self.key("Enter", Keys.ENTER)
        wait_for(lambda: not self.browser.one("find").is_displayed())

    def write(self, old: str, new: str) -> None:
        """In place of words that are being written on the stage."""
        with self.browser.on_stage() as driver:
            wait_for(lambda: driver.execute_script("return getSelection().toString()").strip() == old)
            self.presses += [f"type “{new}”", "key Enter"]
            ActionChains(driver).send_keys(new, Keys.ENTER).perform()
        self.browser.settled()
        wait_for(lambda: new in self.browser.on_stage_js("return document.body.innerText"))


@pytest.fixture
def fernhill(browser: Browser, tmp_path: Path) -> Browser:
    """A new site whose pages came in."""
    held = io.BytesIO()
    with zipfile.ZipFile(held, "w") as archive:
        for name, title in PAGES.items():
            body = f"<h1>{title}</h1><p>A house with rooms above the bay.</p>" * (1 if name != "index" else 12)
            archive.writestr(f"{name}.html", f"<!doctype html><html lang=en><title>{title}</title><body>{body}")
    source = tmp_path / "pages.zip"
    source.write_bytes(held.getvalue())
    browser.sign_in()
    browser.driver.find_element(By.NAME, "name").send_keys("Fernhill House")
    browser.press("new-site")
    browser.one("file").send_keys(str(source))
    browser.press("bring-in")
    wait_for(lambda: len(browser.all("page")) == len(PAGES), 60)
    browser.driver.refresh()
    return browser


def ready(browser: Browser) -> None:
    wait_for(lambda: "/pieces/pc-" in browser.driver.current_url and browser.all("stage"))
    wait_for(lambda: browser.on_stage_js("return document.readyState === 'complete'"))


def is_whole(browser: Browser) -> None:
    """The published pieces say what the site says, and nothing that leads nowhere."""
    browser.go(browser.driver.current_url.split("/pieces/")[0] + "/pieces/")
    kinds = [one.text for one in browser.all("piece")]
    assert len(kinds) == 4, kinds
    assert all("on 5 of 5 pages" in one or "in a menu of" in one for one in kinds), kinds


def painted(browser: Browser, css: str, name: str) -> str:
    return str(
        browser.on_stage_js(
            f"return getComputedStyle({shown_on_stage(css)}).getPropertyValue(arguments[0])",
            name,
        )
    )


def test_all_four_by_pointer(fernhill: Browser) -> None:
    browser, hand = fernhill, Hand(fernhill)

    # A header: begun with what is seen, its button beside the title, its ground a swatch; it stays while one scrolls.
    hand.click("Header, of the steps", '[data-test=step][href$="kind=header"]')
    hand.click("Create it", "[data-test=begin]")
    ready(browser)
    assert "Fernhill House" in browser.on_stage_js("return document.body.innerText")
    assert "Rooms" in browser.on_stage_js("return document.querySelector('nav').innerText")
    hand.drag("the button", "header a[class$=-button], header [class*=-button]", "header nav", 0.98)
    hand.click("the header", "#outline [data-select^=pc-]")
    hand.click("Ground", "[data-test=tray-ground]")
    hand.click("its colour", "[data-test=edit-background-color]")
    hand.click("the swatch Ink", '#value-editor [title="Ink"]')
    wait_for(lambda: painted(browser, "header", "background-color") == "rgb(31, 42, 48)")
    hand.click("Text", "[data-test=tray-text]")
    hand.click("its colour", "[data-test=edit-color]")
    hand.click("the swatch Paper", '#value-editor [title="Paper"]')
    hand.click("Movement", "[data-test=tray-movement]")
    browser.choose("control-moves", "stays")
    hand.presses += ["press It", "press stays"]
    hand.on_stage("the button’s words", "header [class*=-button]", times=2)
    hand.write("How to find us", "Stay with us")

    # A footer.
    hand.click("Create…", "[data-test=create-piece]")
    hand.click("Four columns", "[data-test=create-columns]")
    wait_for(lambda: browser.one("chosen").text == "Footer")
    ready(browser)
    hand.click("Ground", "[data-test=tray-ground]")
    hand.click("its colour", "[data-test=edit-background-color]")
    hand.click("the swatch Accent", '#value-editor [title="Accent"]')
    wait_for(lambda: painted(browser, "footer", "background-color") == "rgb(47, 111, 98)")

    # A drawer, seen open at once, with a search in it.
    hand.click("Create…", "[data-test=create-piece]")
    hand.click("How to reach you", "[data-test=create-reach-us]")
    wait_for(lambda: browser.one("chosen").text == "Drawer")
    ready(browser)
    wait_for(lambda: browser.on_stage_js("return !!document.querySelector(':popover-open')"))
    hand.click("Insert…", "[data-test=insert]")
    hand.type("search")
    wait_for(lambda: browser.one("seam-list").get_attribute("data-typed") == "search")
    hand.key("Enter", Keys.ENTER)
    wait_for(lambda: browser.one("chosen").text.startswith("Search"))

    # A notice with words of its own.
    hand.click("Create…", "[data-test=create-piece]")
    hand.click("A line of news", "[data-test=create-news]")
    wait_for(lambda: browser.one("chosen").text == "Notice bar")
    ready(browser)
    item = browser.js("return document.querySelector('#outline li[data-kind=item]').dataset.id")
    hand.on_stage("its words", f"[data-rim-node={item}]", times=2)
    hand.write("Fernhill House", "Open again from March")

    print(f"{len(hand.presses)} presses by pointer:", *hand.presses, sep="\n  ")
    assert len(hand.presses) <= MOST_PRESSES
    is_whole(browser)


def test_all_four_by_keys(fernhill: Browser) -> None:
    browser, hand = fernhill, Hand(fernhill)

    hand.find("create a piece")
    wait_for(lambda: browser.js("return document.activeElement.name") == "arrangement")
    hand.key("Enter: begin", Keys.ENTER)
    ready(browser)
    hand.find("ground colour")
    hand.key("Alt ↓: its editor", Keys.ALT, Keys.ARROW_DOWN)
    hand.key("→ to the second swatch", Keys.TAB)
    hand.key("Enter: take it", Keys.ENTER)
    wait_for(lambda: painted(browser, "header", "background-color") == "rgb(31, 42, 48)")
    hand.key("Esc: out of the editor", Keys.ESCAPE)
    hand.find("text colour")
    hand.key("Alt ↓: its editor, at the first swatch", Keys.ALT, Keys.ARROW_DOWN)
    hand.key("Enter: take it", Keys.ENTER)
    hand.key("Esc: out of the editor", Keys.ESCAPE)
    wait_for(lambda: painted(browser, "header", "color") == "rgb(255, 255, 255)")
    hand.find("it header: while")
    hand.key("↓: stays", Keys.ARROW_DOWN)
    wait_for(lambda: browser.one("control-moves").get_attribute("value") == "stays")
    hand.find("button")
    hand.key("Alt ↑: into the cell before", Keys.ALT, Keys.ARROW_UP)
    hand.key("F2: its words", Keys.F2)
    hand.write("How to find us", "Stay with us")

    def create(name: str, letter: str, chosen: str) -> None:
        hand.key("n: create", "n")
        wait_for(lambda: browser.js("return document.activeElement.matches('#create-list button')"))
        hand.key(f"{letter}: to what is called so", letter)
        assert browser.js("return document.activeElement.dataset.test") == f"create-{name}"
        hand.key("Enter: create it", Keys.ENTER)
        wait_for(lambda: browser.one("chosen").text == chosen)
        ready(browser)

    create("columns", "f", "Footer")
    hand.find("ground colour")
    hand.key("Alt ↓: its editor", Keys.ALT, Keys.ARROW_DOWN)
    hand.key("Tab", Keys.TAB)
    hand.key("Tab: to the third swatch", Keys.TAB)
    hand.key("Enter: take it", Keys.ENTER)
    wait_for(lambda: painted(browser, "footer", "background-color") == "rgb(47, 111, 98)")
    hand.key("Esc: out of the editor", Keys.ESCAPE)
    hand.key("Esc: back to the outline", Keys.ESCAPE)
    create("reach-us", "h", "Drawer")
    wait_for(lambda: browser.on_stage_js("return !!document.querySelector(':popover-open')"))
    hand.key("Insert", Keys.INSERT)
    hand.type("search")
    wait_for(lambda: browser.one("seam-list").get_attribute("data-typed") == "search")
    hand.key("Enter", Keys.ENTER)
    wait_for(lambda: browser.one("chosen").text.startswith("Search"))
    create("news", "a", "Notice bar")
    hand.find("text:")
    hand.key("F2: its words", Keys.F2)
    hand.write("Fernhill House", "Open again from March")

    print(f"{len(hand.presses)} presses by keys:", *hand.presses, sep="\n  ")
    assert len(hand.presses) <= MOST_PRESSES
    is_whole(browser)

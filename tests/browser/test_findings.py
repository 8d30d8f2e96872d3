"""Findings by keyboard alone: walk, mend, take back, let be and see it return; publish in spite of one that breaks; the report
is opened and printed."""

from __future__ import annotations

import base64
import time
from collections.abc import Iterator
from pathlib import Path

import pytest
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from .conftest import Browser, wait_for
from .test_editors import violations

DEAD = ("it-book", "it-sign-in")


@pytest.fixture
def findings(browser: Browser) -> Iterator[Browser]:
    """Two buttons lead to the page that one is on. What was done is undone afterwards."""
    browser.sign_in()
    with browser.running.undone_afterwards("ostrey"):
        for button in DEAD:
            browser.go(f"/s/ostrey/pieces/{'pc-main' if button == 'it-book' else 'pc-help'}/?select={button}")
            browser.change("control-target", "#")
        browser.go("/s/ostrey/findings/?about=unfinished")
        looked_at(browser)
        yield browser


def looked_at(browser: Browser) -> None:
    wait_for(lambda: browser.all("looked-at"), 60)
    browser.settled()


def said(browser: Browser) -> list[str]:
    return [line.text for line in browser.driver.find_elements(By.CSS_SELECTOR, '[data-test="line"] b')]


def chosen(browser: Browser) -> str:
    return browser.driver.find_element(By.CSS_SELECTOR, '[data-test="line"][aria-current] b').text


def key(browser: Browser, name: str) -> None:
    """What would mend the one before is left off: its answer is not waited for."""
    browser.keys(name)


def test_one_walks_mends_takes_back_and_lets_be_by_keys_alone(findings: Browser) -> None:
    browser = findings
    first, second = said(browser)
    assert "Book leads to the page that one is on" in first and chosen(browser) == first
    key(browser, "j")
    wait_for(lambda: chosen(browser) == second)
    key(browser, "j")
    time.sleep(0.5)
    assert chosen(browser) == second, "it is the last"
    key(browser, "k")
    wait_for(lambda: chosen(browser) == first)

    wait_for(lambda: browser.all("mend"), 60)
    key(browser, "m")
    wait_for(lambda: said(browser) == [second])
    looked_at(browser)
    assert browser.one("breaks").text == "1"
    browser.keys(Keys.CONTROL, "z")
    wait_for(lambda: len(said(browser)) == 2, 60)
    looked_at(browser)

    key(browser, "l")
    wait_for(lambda: browser.driver.switch_to.active_element.get_attribute("name") == "reason")
    kept = chosen(browser)
    browser.keys("It opens in spring")
    browser.keys(Keys.ENTER)
    wait_for(lambda: len(said(browser)) == 1 and said(browser) != [kept], 60)
    looked_at(browser)
    assert browser.one("breaks").text == "1"

    browser.press("let-be-shown")
    wait_for(lambda: len(said(browser)) == 4)
    assert kept in said(browser)
    assert violations(browser, "main") == []


def test_what_was_let_be_returns_when_its_numbers_change(findings: Browser) -> None:
    browser = findings
    browser.go("/s/ostrey/findings/?state=let-be&at=wraps~rw-main~it-menu~")
    looked_at(browser)
    assert "shorter labels come with the spring timetable" in browser.one("one").text
    browser.go("/s/ostrey/pieces/pc-main/?select=it-menu")
    browser.change("control-gap_px", "36")
    browser.go("/s/ostrey/findings/?about=fit&piece=pc-main")
    looked_at(browser)
    back = [line.text for line in browser.all("line") if "wraps" in line.text]
    assert len(back) == 1 and "back again" in back[0]
    browser.go("/s/ostrey/findings/?about=unfinished")
    looked_at(browser)
    browser.press("let-it-be")
    browser.fill("reason", "Until the crossings are decided")
    browser.press("let-be")
    looked_at(browser)
    assert len(said(browser)) == 1
    browser.go("/s/ostrey/findings/?state=let-be&about=unfinished")
    looked_at(browser)
    browser.press("take-up")
    looked_at(browser)
    browser.go("/s/ostrey/findings/?about=unfinished")
    assert len(said(browser)) == 2


def test_where_it_is_mended_is_one_press_away_and_lit_up(findings: Browser) -> None:
    browser = findings
    browser.acted(lambda: browser.keys("s"))
    wait_for(lambda: "/pieces/pc-main/" in browser.driver.current_url)
    wait_for(lambda: browser.driver.switch_to.active_element.get_attribute("id") == "c-it-book-target")


def test_one_publishes_in_spite_of_what_breaks_after_being_asked(findings: Browser) -> None:
    browser = findings
    browser.go("/s/ostrey/editions/")
    wait_for(lambda: browser.all("break"), 60)
    assert [one.text for one in browser.all("break")] == said_of(browser)
    assert any("Main header" in one.text for one in browser.all("change"))
    before = len(browser.all("edition"))
    browser.press("publish")
    wait_for(lambda: browser.all("asks"))
    assert len(browser.all("edition")) == before
    browser.press("publish-anyway")
    wait_for(lambda: len(browser.all("edition")) == before + 1)
    wait_for(lambda: browser.all("edition")[0].get_attribute("data-state") == "done", 90)


def said_of(browser: Browser) -> list[str]:
    said = "leads to the page that one is on already: say where it is to lead"
    return [f"Button: {name} {said}" for name in ("Book", "Sign in")]


def test_the_report_opens_and_prints(findings: Browser, tmp_path: Path) -> None:
    browser = findings
    address = browser.one("report").get_attribute("href")
    told = "fetch(arguments[0]).then((answer) => answer.text()).then(arguments[1])"
    report = tmp_path / "report.html"
    report.write_text(browser.driver.execute_async_script(told, address), encoding="utf-8")
    browser.driver.get(report.as_uri())
    headings = [one.text for one in browser.driver.find_elements(By.CSS_SELECTOR, "h2")]
    assert headings[0] == "Breaks: 2" and headings[-1] == "Let be: 3"
    assert browser.js(
        "return document.documentElement.scrollWidth <= innerWidth && performance.getEntriesByType('resource').length === 0"
    )
    printed = browser.driver.execute_cdp_cmd("Page.printToPDF", {"printBackground": True})
    pdf = base64.b64decode(printed["data"])
    assert pdf.startswith(b"%PDF") and b"/Type /Page" in pdf

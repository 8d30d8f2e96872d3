"""A designer's way from a ZIP of somebody else's pages to a published site, through the interface alone."""

from __future__ import annotations

import io
import os
import subprocess
import sys
import time
import zipfile
from pathlib import Path

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.broken_pages import BROKEN, WITHOUT_PLACE, archive
from upper_rim.core.exchange.html.markers import strip
from upper_rim.core.exchange.imports.import_pages import page_path, site_path

from .conftest import ROOT, Browser, Running, wait_for


def test_from_a_zip_of_broken_pages_to_a_published_site_and_back(
    browser: Browser, running: Running, tmp_path: Path
) -> None:
    source = tmp_path / "old-site.zip"
    source.write_bytes(archive(folder="export/"))

    # The demo is there.
    browser.sign_in_by_hand("designer", "ferry-and-fern")
    sites = [site.text for site in browser.all("site")]
    assert any("Ostrey Ferries" in text and "42 pages" in text for text in sites)
    assert any("Quillwort Press" in text for text in sites)

    # A new site, and its pages.
    browser.driver.find_element(By.NAME, "name").send_keys("Journey")
    browser.press("new-site")
    wait_for(lambda: "/s/journey/pages/" in browser.driver.current_url)
    assert "No page yet" in browser.driver.page_source
    browser.one("file").send_keys(str(source))
    browser.press("bring-in")
    wait_for(lambda: [work for work in browser.all("work") if work.get_attribute("data-state") == "done"], 60)
    wait_for(lambda: len(browser.all("page")) == len(BROKEN))
    tree = browser.one("tree").text
    assert "Sixteen ŵ 🚢" in tree and "/nested/deep/page.html" in tree and "船の時刻表ソ" in tree
    assert "frameset" in browser.one("unread").text

    # Swatches, a face, a menu from the pages.
    browser.go("/s/journey/foundations/")
    browser.fill("swatch-name", "Harbour")
    browser.fill("swatch-colour", "#114488")
    browser.press("add-swatch")
    assert len(browser.all("swatch")) == 4
    browser.fill("swatch-colour", "bluish")
    browser.press("add-swatch")
    assert "not a colour" in browser.one("notice").text and len(browser.all("swatch")) == 4
    browser.go("/s/journey/foundations/type/")
    browser.press("face-bitter")
    browser.go("/s/journey/menus/")
    browser.fill("menu-name", "Main")
    browser.press("add-menu")
    wait_for(lambda: browser.all("page-line"))
    for at, title in enumerate(("Front", "Nested", "Unclosed"), 1):
        line = next(line for line in browser.all("page-line") if line.text.startswith(title))
        browser.acted(lambda line=line: line.find_element(By.NAME, "do").click())
        wait_for(lambda at=at: len(browser.all("number")) == at)
    browser.fill("entry-label", "Tides")
    browser.fill("entry-target", "tides.example/today")
    browser.press("add-entry")
    wait_for(lambda: len(browser.all("number")) == 4)

    # A header.
    browser.begin_piece("journey", "line", "Main header")
    assert f"of {len(BROKEN)} pages" in browser.one("reached").text
    with browser.on_stage() as stage:
        wait_for(lambda: stage.find_element(By.CSS_SELECTOR, "header nav a").is_displayed())
        assert [link.text for link in stage.find_elements(By.CSS_SELECTOR, "header nav a")] == [
            "Front",
            "Nested",
            "Unclosed",
            "Tides",
        ]
        stage.execute_script("window.sameDocument = true; document.body.style.minHeight = '3000px'; scrollTo(0, 900)")
    button = next(line for line in browser.all("line") if line.text.startswith("Button"))
    browser.acted(button.click)
    with browser.on_stage() as stage:
        wait_for(lambda: stage.execute_script("return scrollY") < 100), "what is chosen comes into view"
        stage.execute_script("scrollTo(0, 120)")
    browser.change("control-words", "Book a crossing")
    browser.change("control-target", "/nested/")
    with browser.on_stage() as stage:
        wait_for(lambda: "Book a crossing" in stage.find_element(By.CSS_SELECTOR, "header").text)
        assert stage.execute_script("return window.sameDocument && scrollY") == 120, (
            "the stage morphs: no reload, same place"
        )
    browser.insert("icon link")
    assert "Icon" in browser.one("chosen").text
    browser.change("control-icon", "phone")
    browser.change("control-target", "+44 1632 960100")

    # Any width: by the handle, then a flag.
    _drag(browser, "handle", -250)
    width = int(browser.one("stage-width").get_attribute("value") or 0)
    assert 650 < width < 900
    with browser.on_stage() as stage:
        assert stage.execute_script("return innerWidth") == width
        wait_for(lambda: stage.find_element(By.CSS_SELECTOR, "[data-rim-drawer]").is_displayed())
    flag = browser.one("flag")
    before = int(flag.get_attribute("aria-valuenow") or 0)
    browser.acted(lambda: _drag(browser, "flag", -200))
    after = int(browser.one("flag").get_attribute("aria-valuenow") or 0)
    assert after < before - 150
    with browser.on_stage() as stage:
        wait_for(lambda: stage.find_element(By.CSS_SELECTOR, "[data-rim-drawer]").is_displayed() == (width < after))
    browser.one("flag").send_keys(Keys.SHIFT + Keys.ARROW_RIGHT)
    wait_for(lambda: int(browser.one("flag").get_attribute("aria-valuenow") or 0) == after + 10)
    time.sleep(0.8)

    # Reach: an exception, a second header for a section, a bare page.
    _rule(browser, "false", "page", "/unclosed.html")
    assert "except on /unclosed.html" in browser.one("reach").text.lower()
    browser.begin_piece("journey", "crown", "Section header")
    assert "on 0 of" in browser.one("reached").text
    _rule(browser, "true", "below", "/nested/")
    assert "on 2 of" in browser.one("reached").text
    browser.change("looked-at", "/nested/")
    assert "more specific than Main header" in browser.one("here").text
    browser.go("/s/journey/pages/")
    browser.driver.find_element(By.LINK_TEXT, "Twins").click()
    wait_for(lambda: browser.all("bare"))
    browser.press("bare")
    assert "bare" in browser.one("why").text

    # Undo and redo, by keys, and after everything was stopped and started again.
    _keys(browser, Keys.CONTROL, "z")
    wait_for(lambda: "bare" not in browser.one("why").text)
    running.stop()
    running.begin()
    browser.driver.refresh()
    wait_for(lambda: browser.one("redo").is_enabled())
    _keys(browser, Keys.CONTROL, Keys.SHIFT, "z")
    wait_for(lambda: "bare" in browser.one("why").text)
    steps = 0
    while browser.one("undo").is_enabled():
        browser.press("undo")
        steps += 1
    assert steps > 15
    browser.go("/s/journey/pages/")
    assert "No page yet" in browser.driver.page_source, "undone to the beginning"
    for _ in range(steps):
        browser.press("redo")
    wait_for(lambda: len(browser.all("page")) == len(BROKEN))

    # Publish, see it live, take it away, go back.
    browser.one("to-editions").click()
    wait_for(lambda: browser.all("publish"))
    browser.publish_anyway()
    _published(browser, 1)
    for name, content in BROKEN.items():
        path = page_path(site_path(name) or "")
        status, sent = running.fetch("journey", _percent(path))
        assert status == 200, name
        assert strip(sent) == strip(content), name
        expected_piece = name not in WITHOUT_PLACE and name not in {"unclosed.html", "duplicate-ids.html"}
        assert (b"rim:header" in sent.replace(b"\x00", b"") and strip(sent) != sent) == expected_piece, name
    browser.go(running.live("journey") + "/nested/deep/page.html")
    assert browser.js("return document.querySelectorAll('body > header').length") == 1
    assert "Section" not in browser.driver.title and browser.js(
        "return getComputedStyle(document.querySelector('header')).fontFamily"
    ).count("Bitter")

    browser.go("/s/journey/pieces/")
    browser.acted(lambda: browser.driver.find_element(By.CSS_SELECTOR, '[aria-label="Remove Section header"]').click())
    browser.go("/s/journey/editions/")
    browser.publish_anyway()
    _published(browser, 2)
    two = running.fetch("journey", "/nested/")[1]
    browser.press("zip-1")
    packed = wait_for(lambda: list(tmp_path.glob("journey-edition-1.zip")))[0]
    wait_for(lambda: not list(tmp_path.glob("*.crdownload")))
    with zipfile.ZipFile(io.BytesIO(packed.read_bytes())) as archive_out:
        for name, content in BROKEN.items():
            stored = "index.html" if name == "index.html" else name
            assert strip(archive_out.read(stored)) == strip(content)
        one = archive_out.read("nested/index.html")
    assert one != two
    browser.press("go-back-1")
    wait_for(lambda: running.fetch("journey", "/nested/")[1] == one)
    assert (
        "live at"
        in next(edition for edition in browser.all("edition") if edition.get_attribute("data-number") == "1").text
    )
    _keys(browser, "?")
    wait_for(lambda: browser.driver.find_element(By.ID, "shortcuts").is_displayed())


def _drag(browser: Browser, test: str, by_px: int) -> None:
    grip = browser.one(test)
    ActionChains(browser.driver).move_to_element_with_offset(grip, 0, 14).click_and_hold().move_by_offset(
        by_px // 2, 0
    ).move_by_offset(by_px - by_px // 2, 0).release().perform()


def _rule(browser: Browser, shows: str, where: str, value: str) -> None:
    for test, chosen in (("rule-shows", shows), ("rule-where", where)):
        browser.js("arguments[0].value = arguments[1]", browser.one(test), chosen)
    browser.fill("rule-value", value)
    browser.press("add-rule")


def _keys(browser: Browser, *pressed: str) -> None:
    browser.acted(lambda: browser.keys(*pressed))


def _published(browser: Browser, number: int) -> None:
    wait_for(
        lambda: [
            edition
            for edition in browser.all("edition")
            if edition.get_attribute("data-number") == str(number)
            and edition.get_attribute("data-state") == "done"
            and "live at" in edition.text
        ],
        60,
    )


def _percent(path: str) -> str:
    from urllib.parse import quote

    return quote(path, safe="/%")


def test_an_account_is_made_while_the_application_runs(browser: Browser, running: Running) -> None:
    command = [sys.executable, str(ROOT / "ops" / "run.py"), "--port", str(running.port), "--account", "newcomer"]
    environment = {**os.environ, "RIM_RUN_FOLDER": str(running.folder)}
    told = subprocess.run(command, env=environment, capture_output=True, text=True, timeout=60)
    assert told.returncode == 0, told.stderr
    browser.sign_in_by_hand("newcomer", told.stdout.split()[-1])
    assert browser.all("home")

"""Pieces that begin with an old part of the pages look like it, and take its place in three presses."""

from __future__ import annotations

import io
import zipfile
from collections.abc import Iterator
from pathlib import Path

import pytest
from selenium import webdriver
from selenium.webdriver.common.by import By

from tests.fit_judge import Files, served
from tests.old_sites import OLD_SITES, OldSite
from tests.taken_over_judge import SEEN, judge

from .conftest import Browser, plain_chromium, wait_for

PARTS = [(old, selector, slot) for old in OLD_SITES for selector, slot in old.parts]


@pytest.fixture(scope="module")
def driver() -> Iterator[webdriver.Chrome]:
    driver = plain_chromium(frames="none")
    yield driver
    driver.quit()


@pytest.fixture(scope="module")
def server() -> Iterator[tuple[Files, int]]:
    with served() as found:
        yield found


@pytest.mark.parametrize(("old", "selector", "slot"), PARTS, ids=[f"{old.name}-{slot}" for old, _, slot in PARTS])
def test_each_thing_stands_where_the_old_one_stood_and_has_its_colours(
    old: OldSite, selector: str, slot: str, driver: webdriver.Chrome, server: tuple[Files, int]
) -> None:
    judged = judge(old, selector, slot, driver, *server)
    assert judged.things, "nothing was compared"
    assert not [thing for thing in judged.things if not thing.is_near], judged.taken.unread
    assert not [thing for thing in judged.things if not thing.is_alike]
    assert judged.painted >= 0.95 and abs(judged.higher_px) <= 6
    furthest = max(max(abs(one.right_px), abs(one.down_px)) for one in judged.taken.differences)
    seen = max(max(map(abs, thing.away or (0, 0))) for thing in judged.things)
    assert abs(furthest - seen) <= 4, "what is told of it is not so"


def archive(old: OldSite) -> bytes:
    file = io.BytesIO()
    with zipfile.ZipFile(file, "w") as packed:
        for name, data in old.files.items():
            packed.writestr(name.removeprefix("/"), data)
    return file.getvalue()


def test_a_header_is_begun_with_in_three_presses_and_undone_in_one(browser: Browser, tmp_path: Path) -> None:
    old = next(old for old in OLD_SITES if old.name == "flex")
    came = tmp_path / "old.zip"
    came.write_bytes(archive(old))
    browser.sign_in()
    browser.driver.find_element(By.NAME, "name").send_keys("Lantern Quay")
    browser.press("new-site")
    browser.one("file").send_keys(str(came))
    browser.press("bring-in")
    wait_for(lambda: len(browser.all("page")) == 6, 60)
    browser.go("/s/lantern-quay/pages/lifting/")
    wait_for(lambda: browser.all("proposal"))
    header = next(one for one in browser.all("proposal") if one.text.startswith("Header"))
    # One
    header.click()
    wait_for(lambda: browser.all("take-over"))
    wait_for(lambda: browser.on_stage_js("return document.querySelector('[data-rim-chosen]')?.localName") == "header")
    # Two
    browser.press("take-over")
    wait_for(lambda: browser.all("trial-keep"))
    assert "within one px" in browser.one("differences").text
    assert "stands for it" in browser.one("unlike").text
    frames = {}
    for name in ("old-one", "new-one"):
        browser.driver.switch_to.frame(browser.one(name))
        wait_for(lambda: browser.driver.execute_script("return document.readyState") == "complete")
        top = "header" if name == "old-one" else "header[data-rim-node]"
        found = browser.driver.execute_script(SEEN, top, name == "new-one")
        frames[name] = {one["text"]: one["rect"][:2] for one in found["found"]}
        browser.driver.switch_to.default_content()
    assert frames["old-one"].keys() == frames["new-one"].keys() and len(frames["old-one"]) == 5
    for text, (left, _) in frames["old-one"].items():
        assert abs(frames["new-one"][text][0] - left) <= 6, text
    # Three
    browser.press("trial-keep")
    wait_for(lambda: browser.all("to-begun"))
    assert "Lifted out of 6 pages." in browser.one("work").text
    browser.press("to-begun")
    wait_for(lambda: "/pieces/" in browser.driver.current_url)
    assert {"Logo", "Button: Buy tickets"} <= set(browser.one("outline").text.split("\n"))
    browser.go("/s/lantern-quay/pieces/")
    browser.press("undo")
    wait_for(lambda: not browser.all("piece"))
    browser.go("/s/lantern-quay/pages/lifting/")
    assert not browser.all("lifted"), "what was lifted out is back"

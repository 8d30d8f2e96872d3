"""Gates in what is taken away, on a server that knows nothing of them: a browser opens, asks and remembers."""

from __future__ import annotations

from base64 import b64decode
from collections.abc import Iterator
from typing import Any

import pytest
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.test_gates import violations
from tests.folder import Folder, taken_away
from tests.gates_judge import judged_unserved
from upper_rim.core.exchange.imports.import_pages import digest
from upper_rim.core.model.site import Asset
from upper_rim.demo import ostrey

from .conftest import plain_chromium, wait_for

DOOR, PASSWORD = "pc-press-door", "salt on the wind"
SITES = 20


@pytest.fixture(scope="module")
def files() -> dict[str, bytes]:
    return taken_away(*ostrey(), {DOOR: ["another password", PASSWORD]})


class Visitor:
    """With a browser of their own, at a host where they have never been."""

    def __init__(self, folder: Folder) -> None:
        self.driver, self.origin = plain_chromium(), f"http://ostrey.localhost:{folder.port}"

    def go(self, path: str) -> None:
        self.driver.get(self.origin + path)

    def seen(self, css: str) -> str:
        found = self.driver.find_elements(By.CSS_SELECTOR, css)
        return str(found[0].text) if found else ""

    def keys(self, *keys: str) -> None:
        for key in keys:
            self.driver.switch_to.active_element.send_keys(key)

    def js(self, code: str) -> Any:
        return self.driver.execute_script(code)

    def type_in(self, password: str) -> None:
        field = wait_for(lambda: self.driver.find_element(By.NAME, "password"))
        field.send_keys(password + Keys.ENTER)


@pytest.fixture
def visitor(folder: Folder, files: dict[str, bytes]) -> Iterator[Visitor]:
    folder.files = dict(files)
    made = Visitor(folder)
    yield made
    made.driver.quit()


ASKED_ANEW = (
    "const field = document.querySelector('[name=password]'); return field.getAttribute('aria-invalid') && !field.value"
)
"""What was typed was wrong, and has been taken away: only then is there room for the next."""


def test_visitors_meet_what_is_foreseen(folder: Folder) -> None:
    driver = plain_chromium(frames="none")
    try:
        wrong, steps = judged_unserved(driver, folder, range(SITES))
    finally:
        driver.quit()
    assert wrong == [] and steps == 13 * SITES


def test_the_press_room_opens_by_keys_with_all_that_is_behind_the_door(visitor: Visitor) -> None:
    visitor.go("/press/pictures/")
    visitor.keys(Keys.TAB)
    assert visitor.js("return document.activeElement.name") == "password", "nothing unseen has the focus first"
    visitor.type_in("a wrong one")
    told = wait_for(lambda: visitor.seen("[role=alert]"))
    assert (
        told and visitor.js("return document.querySelector('[name=password]').getAttribute('aria-invalid')") == "true"
    )
    assert violations(visitor.driver) == []
    visitor.type_in(PASSWORD)
    wait_for(lambda: visitor.seen("h1") == "Pictures")
    assert visitor.driver.current_url.endswith("/press/pictures/")
    assert wait_for(lambda: visitor.js("return document.querySelector('main img').naturalWidth")) > 0
    visitor.go("/press/the-quay-at-dusk.svg")
    assert visitor.js("return document.documentElement.localName") == "svg", "a file, too"
    visitor.go("/press")
    assert wait_for(lambda: visitor.seen("h1")) == "Press room", "and nobody is asked again"
    visitor.go("/guide/")
    assert visitor.seen("h1"), "other pages are as ever"
    visitor.driver.delete_all_cookies()
    visitor.go("/press/")
    assert wait_for(lambda: visitor.driver.find_elements(By.NAME, "password"))


def test_what_was_changed_stays_shut_and_says_so(visitor: Visitor, folder: Folder) -> None:
    locked = {name: data for name, data in folder.files.items() if "/locked/" in name and not name.endswith(".json")}
    for name, data in locked.items():
        folder.files[name] = data[:-1] + bytes([data[-1] ^ 1])
    visitor.go("/press/")
    visitor.type_in(PASSWORD)
    assert "not what was locked" in wait_for(lambda: visitor.seen("main > [role=alert]"))
    assert "For journalists" not in visitor.driver.page_source and violations(visitor.driver) == []


def test_a_new_time_has_new_keys(visitor: Visitor, folder: Folder) -> None:
    visitor.go("/press/")
    visitor.type_in(PASSWORD)
    wait_for(lambda: visitor.seen("h1") == "Press room")
    folder.files = taken_away(*ostrey(), {DOOR: ["quite another one"]})
    visitor.go("/press/")
    visitor.type_in(PASSWORD)
    wait_for(lambda: visitor.js(ASKED_ANEW))
    assert visitor.seen("[role=alert]")
    visitor.type_in("quite another one")
    wait_for(lambda: visitor.seen("h1") == "Press room")


def test_too_many_wrong_tries_have_to_wait(visitor: Visitor) -> None:
    visitor.go("/press/")
    for at in range(5):
        visitor.type_in(f"wrong {at}")
        wait_for(lambda: visitor.js(ASKED_ANEW))
    left = wait_for(lambda: visitor.seen("[data-rim-wait]"))
    assert left.endswith(" s") and 40 <= int(left[:-2]) <= 60
    visitor.type_in(PASSWORD)
    wait_for(lambda: visitor.js(ASKED_ANEW))
    assert visitor.seen("[data-rim-wait]"), "the right one, too, is not heard"


def test_the_shop_asks_by_a_script(visitor: Visitor) -> None:
    visitor.go("/shop/")
    wait_for(lambda: visitor.driver.find_elements(By.NAME, "year"))

    def born(*said: str) -> None:
        for name, value in zip(("day", "month", "year"), said, strict=True):
            visitor.driver.find_element(By.NAME, name).send_keys(value)
        visitor.keys(Keys.ENTER)

    born("31", "2", "2000")
    assert wait_for(lambda: visitor.seen("[role=alert]"))
    born("1", "1", "2020")
    wait_for(lambda: visitor.driver.current_url == f"{visitor.origin}/")
    visitor.go("/shop/")
    wait_for(lambda: visitor.driver.find_elements(By.NAME, "year"))
    born("29", "2", "2000")
    wait_for(lambda: not visitor.driver.find_elements(By.NAME, "year") and visitor.seen("h1"))
    assert visitor.driver.current_url == f"{visitor.origin}/shop/"


def test_over_http_a_door_says_what_it_needs(folder: Folder, files: dict[str, bytes]) -> None:
    folder.files = dict(files)
    driver = plain_chromium(flags=("--host-resolver-rules=MAP ostrey.example 127.0.0.1",))
    try:
        driver.get(f"http://ostrey.example:{folder.port}/press/")
        driver.find_element(By.NAME, "password").send_keys(PASSWORD + Keys.ENTER)
        told = wait_for(lambda: driver.find_elements(By.CSS_SELECTOR, "main > [role=alert]"))
        assert "https" in told[0].text
    finally:
        driver.quit()


def test_without_scripts_a_door_says_what_it_needs(folder: Folder, files: dict[str, bytes]) -> None:
    folder.files = dict(files)
    driver = plain_chromium()
    try:
        driver.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": True})
        driver.get(f"http://ostrey.localhost:{folder.port}/press/")
        told = driver.find_element(By.CSS_SELECTOR, "main > noscript > p")
        assert told.is_displayed() and "scripts" in told.text
    finally:
        driver.quit()


FILMS = """const done = arguments[0], canvas = document.createElement("canvas"), pen = canvas.getContext("2d");
const taken = new MediaRecorder(canvas.captureStream(25), { mimeType: "video/webm" }), parts = [];
const turns = setInterval(() => pen.fillRect(Math.random() * 90, Math.random() * 90, 9, 9), 20);
taken.ondataavailable = ({ data }) => parts.push(data);
taken.onstop = async () => done(btoa(String.fromCharCode(...new Uint8Array(await new Blob(parts).arrayBuffer()))));
taken.start();
setTimeout(() => (clearInterval(turns), taken.stop()), 700)"""
"""Takes a film of what is drawn."""


def test_a_film_behind_a_door_plays_where_motion_is_welcome_and_a_locked_one_comes_in_parts(
    visitor: Visitor, folder: Folder
) -> None:
    visitor.go("/404.html")
    film = b64decode(visitor.driver.execute_async_script(FILMS))
    site, contents = ostrey()
    paths = ("/films/dusk.webm", "/press/films/quay.webm")
    films = tuple(
        Asset(id=f"as-{at}", path=path, content=digest(film), size=len(film)) for at, path in enumerate(paths)
    )
    pieces = (one.replaced(film=paths[0]) if one.id == DOOR else one for one in site.pieces)
    filmed = site.replaced(pieces=tuple(pieces), assets=(*site.assets, *films))
    folder.files = taken_away(filmed, {**contents, digest(film): film}, {DOOR: [PASSWORD]})
    visitor.go("/press/")
    plays = "const film = document.querySelector('video'); return !film.paused && film.currentTime > 0 && film.muted"
    wait_for(lambda: visitor.js(plays))
    assert violations(visitor.driver) == []
    visitor.js("document.querySelector('video + button').focus()")
    visitor.keys(Keys.SPACE)
    pressed = "return document.querySelector('video + button').ariaPressed"
    assert visitor.js("return document.querySelector('video').paused") and visitor.js(pressed) == "true"
    visitor.keys(Keys.SPACE)
    wait_for(lambda: visitor.js(plays))
    assert visitor.js(pressed) == "false"
    still = [{"name": "prefers-reduced-motion", "value": "reduce"}]
    visitor.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": still})
    visitor.go("/press/")
    wait_for(lambda: visitor.js("return document.querySelector('video').readyState > 0"))
    assert visitor.js("return document.querySelector('video').paused && !document.querySelector('video + button').checkVisibility()")  # fmt: skip
    visitor.type_in(PASSWORD)
    wait_for(lambda: visitor.seen("h1") == "Press room")
    asked = """const [range, done] = arguments; fetch("/press/films/quay.webm", { headers: { Range: range } }).then(async (one) =>
    done([one.status, one.headers.get("Content-Range"), [...new Uint8Array(await one.arrayBuffer())]]))"""
    size = len(film)
    for range_, first, last in (("bytes=5-9", 5, 9), ("bytes=40-", 40, size - 1), ("bytes=0-999999999", 0, size - 1)):
        part = [206, f"bytes {first}-{last}/{size}", list(film[first : last + 1])]
        assert visitor.driver.execute_async_script(asked, range_) == part, range_
    for range_ in ("bytes=999999999-", "bytes=-5", "words"):
        assert visitor.driver.execute_async_script(asked, range_) == [200, None, list(film)], range_

"""Two designers at once, and a worker that dies."""

from __future__ import annotations

import io
import os
import signal
import time
from collections.abc import Callable

from selenium.webdriver.common.by import By

from bench.corpus import large_site
from upper_rim.core.exchange.bundle import write_bundle

from .conftest import Browser, Running, wait_for

PRESSES = 40


def test_two_browsers_edit_the_same_header_and_nothing_is_lost_silently(new_browser: Callable[[], Browser]) -> None:
    people = {"designer": new_browser(), "colleague": new_browser()}
    for name, browser in people.items():
        browser.sign_in(name)
        browser.go("/s/quillwort/pieces/pc-main/?select=cl-end")
        wait_for(lambda browser=browser: browser.all("stage"))
    # Both add items, and both keep changing the same field: the first is joined, the second may clash, and says so.
    wins: dict[str, list[int]] = {name: [] for name in people}
    clashes = 0
    for at in range(PRESSES // 2):
        for place, (name, browser) in enumerate(people.items()):
            browser.js(_ADD, "cl-end", f"it-{name}-{at}", f"{name} {at}")
            value = at * 2 + place
            browser.js(_SET, "it-menu", "gap_px", str(value % 100))
        for place, (name, browser) in enumerate(people.items()):
            wait_for(lambda browser=browser, at=at: browser.js("return window.rimAnswers.length") == (at + 1) * 2)
            added, changed = sorted(browser.js("return window.rimAnswers.slice(-2)"), key=lambda answer: answer["done"])
            assert not added["clash"]
            if changed["clash"]:
                clashes += 1
                assert changed["theirs"] and changed["mine"] == str((at * 2 + place) % 100)
            else:
                wins[name].append((at * 2 + place) % 100)
    browser = people["designer"]
    browser.go("/s/quillwort/pieces/pc-main/?select=it-menu")
    lines = {line.get_attribute("data-select") for line in browser.all("line")}
    assert lines >= {f"it-{name}-{at}" for name in people for at in range(PRESSES // 2)}
    assert len(wins["designer"]) + len(wins["colleague"]) + clashes == PRESSES
    assert clashes > 3, "the two did get into each other's way"
    # Whose answers are always the later ones may clash every time: the last value is still one that was said to be taken.
    taken_last = {taken[-1] for taken in wins.values() if taken}
    assert int(browser.one("control-gap_px").get_attribute("value") or -1) in taken_last
    # Whoever comes after finds the site as it was.
    browser.js(_REMOVE, [f"it-{name}-{at}" for name in people for at in range(PRESSES // 2)])
    wait_for(lambda: browser.js("return window.rimAnswers.length") == 1)
    browser.go("/s/quillwort/pieces/pc-main/")
    assert not any("designer" in line.text for line in browser.all("line"))


_SEND = """
window.rimAnswers = window.rimAnswers || [];
const base = document.querySelector('[name=base]').value, token = JSON.parse(document.body.getAttribute('hx-headers'))['X-CSRFToken'];
fetch(location.pathname, {method: 'POST', headers: {'X-CSRFToken': token, 'HX-Request': 'true'}, body: new URLSearchParams({...values, base: window.rimBase || base})})
  .then((answer) => answer.text()).then((text) => {
    const page = new DOMParser().parseFromString(text, 'text/html'), notice = page.querySelector('[data-test=notice]');
    window.rimBase = page.querySelector('[name=base]').value;
    window.rimAnswers.push({done: values.do, clash: Boolean(notice), theirs: notice?.querySelector('[data-test=theirs]')?.textContent, mine: notice?.querySelector('[data-test=mine]')?.textContent});
  });
"""
_SET = "const values = {do: 'set', node: arguments[0], field: arguments[1], value: arguments[2]};" + _SEND
_REMOVE = "const values = {do: 'edit', edit: JSON.stringify({kind: 'remove', nodes: arguments[0]})};" + _SEND
_ADD = (
    "const values = {do: 'edit', edit: JSON.stringify({kind: 'add', parent: arguments[0], slot: 'items',"
    " values: [{kind: 'text', id: arguments[1], words: {text: arguments[2]}}]})};" + _SEND
)


def test_a_clash_shows_both_versions_and_lets_one_choose(new_browser: Callable[[], Browser]) -> None:
    one, two = new_browser(), new_browser()
    for browser, name in ((one, "designer"), (two, "colleague")):
        browser.sign_in(name)
        browser.go("/s/ostrey/pieces/pc-main/?select=it-book")
        browser.js("document.getElementById('watch').remove()")
    one.change("control-words", "Book at once")
    two.change("control-words", "Reserve")
    notice = two.one("notice").text
    assert "designer changed says, English, of “Button: Book at once”" in notice
    assert (two.one("theirs").text, two.one("mine").text) == ("Book at once", "Reserve")
    assert two.one("control-words").get_attribute("value") == "Reserve", "what was typed stays"
    two.press("use-mine")
    assert two.one("control-words").get_attribute("value") == "Reserve"
    two.press("undo")
    one.go("/s/ostrey/pieces/pc-main/?select=it-book")
    assert one.one("control-words").get_attribute("value") == "Book at once"
    one.press("undo")


_NEWS_WHILE_UNDER_WAY = """
window.rimOrder = [];
document.addEventListener('htmx:beforeSend', ({detail: {target, xhr, requestConfig: {verb}}}) => {
  if (target.id !== 'screen') return;
  rimOrder.push(`${verb} asked`);
  xhr.addEventListener('load', () => rimOrder.push(`${verb} answered`));
  if (verb === 'post') htmx.trigger(document.body, 'rim:elsewhere', {revision: 1e6});
});
"""


def test_news_of_ones_own_edit_never_overtakes_its_answer(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/s/quillwort/pieces/pc-main/?select=cl-end")
    browser.js(_NEWS_WHILE_UNDER_WAY)
    browser.insert("logo")
    wait_for(lambda: len(browser.js("return rimOrder")) == 4)
    assert browser.js("return rimOrder") == ["post asked", "post answered", "get asked", "get answered"]
    assert "Logo" in browser.one("chosen").text, "what was added stays chosen"
    browser.driver.refresh()
    assert "Logo" in browser.one("chosen").text, "and so it does when the page is loaded again"
    browser.press("undo")


_UNTIL_WORKED_ON = """
const [address, done] = arguments, until = Date.now() + 50000;
const look = () => fetch(address).then((answer) => answer.text()).then((text) => {
  const [newest] = new DOMParser().parseFromString(text, 'text/html').querySelectorAll('[data-test=edition]');
  const { state, number } = newest.dataset;
  if (number === '2' && state === 'working') return done(true);
  if (number === '2' && (state === 'done' || state === 'failed') || Date.now() > until) return done(false);
  setTimeout(look, 10);
});
look();
"""


def test_a_worker_killed_in_mid_publish_loses_nothing(browser: Browser, running: Running) -> None:
    site, read = large_site(900, kilobytes=4)
    bundle = running.folder / "large.rim.zip"
    out = io.BytesIO()
    write_bundle(out, site.replaced(name="Large"), read)
    bundle.write_bytes(out.getvalue())
    browser.sign_in()
    browser.driver.find_element(By.NAME, "bundle").send_keys(str(bundle))
    browser.driver.find_element(By.XPATH, '//button[text()="Import"]').click()
    wait_for(lambda: "/s/large/pages/" in browser.driver.current_url, 90)
    wait_for(lambda: browser.one("work").get_attribute("data-state") == "done", 90)
    browser.go("/s/large/editions/")
    browser.publish_anyway()
    wait_for(
        lambda: [edition for edition in browser.all("edition") if edition.get_attribute("data-state") == "done"], 120
    )
    old = running.fetch("large", "/")[1]
    assert b"Book" in old

    browser.go("/s/large/pieces/pc-main/?select=it-book")
    browser.change("control-words", "Embark")
    browser.go("/s/large/editions/")
    browser.publish_anyway()
    assert browser.driver.execute_async_script(_UNTIL_WORKED_ON, "/s/large/editions/list/"), "caught in mid-publish"
    killed = running.process("worker 1"), running.process("worker 2")
    for worker in killed:
        os.kill(worker, signal.SIGKILL)
    last = site.pages[-1].path
    for path in ("/", "/sailings/fares/", last):
        assert b"Embark" not in running.fetch("large", path)[1]
    assert running.fetch("large", "/")[1] == old
    wait_for(lambda: not {running.process("worker 1"), running.process("worker 2")} & set(killed))
    wait_for(lambda: b"Embark" in running.fetch("large", "/")[1], 90)
    assert b"Embark" in running.fetch("large", last)[1]
    time.sleep(1)
    browser.go("/s/large/editions/")
    assert [edition.get_attribute("data-state") for edition in browser.all("edition")] == ["done", "done"]


def test_workers_and_screens_outlive_a_restart_of_the_database(browser: Browser, running: Running) -> None:
    browser.sign_in()
    browser.go("/s/quillwort/pieces/pc-main/?select=pc-main")
    before = [running.process(name) for name in ("web", "worker 1", "worker 2")]
    running.restart_database()
    time.sleep(3)
    browser.go("/s/quillwort/editions/")
    editions = len(browser.all("edition"))
    browser.publish_anyway()
    wait_for(lambda: len(browser.all("edition")) == editions + 1, 60)
    wait_for(lambda: browser.all("edition")[0].get_attribute("data-state") == "done", 60)
    assert [running.process(name) for name in ("web", "worker 1", "worker 2")] == before, "none was started again"

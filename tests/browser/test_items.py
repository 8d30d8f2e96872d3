"""What visitors do with the items of pieces, and how designers put them there."""

from __future__ import annotations

import csv
import io
import json
import random
import re
from collections.abc import Iterator
from itertools import pairwise
from pathlib import Path

import pytest
from selenium import webdriver
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import Select

from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Edit, Set, Together
from upper_rim.core.model.site import Site
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.output.search.search_index import PageText, Searched, index_files, made_index
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

from .conftest import Browser, Running, plain_chromium, wait_for


@pytest.fixture(scope="module")
def reader(running: Running, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Browser]:
    browser = Browser(running, tmp_path_factory.mktemp("downloads"))
    browser.resize(1280, 800)
    yield browser
    browser.quit()


@pytest.fixture(scope="module")
def plain() -> Iterator[webdriver.Chrome]:
    driver = plain_chromium(frames="none")
    yield driver
    driver.quit()


@pytest.fixture
def timed() -> Iterator[webdriver.Chrome]:
    """For what waits for a frame."""
    driver = plain_chromium()
    yield driver
    driver.quit()


def composed(plain: webdriver.Chrome, folder: Path, path: str, *edits: Edit, width: int = 1000) -> None:
    """A page of the demo after some edits, by itself, its CSS and scripts within it."""
    site, contents = ostrey()
    after = apply(site, Together(edits=edits))
    assert isinstance(after, Site)
    page = next(page for page in after.pages if page.path == path)
    assert page.content
    composer = Composer(after, shelf(), contents.__getitem__, year=2026)
    html = composer.page(page, contents[page.content]).decode()
    loaded = {**dict(composer.parts()), **dict(composer.loaded())}

    def inline(tag: re.Match[str]) -> str:
        said = loaded[tag[1]].decode()
        return f"<script>{said}</script>" if tag[1].endswith(".js") else f"<style>{said}</style>"

    html = re.sub(r'<link rel="stylesheet" href="(/_rim/[^"]*)">', inline, html)
    html, scripts = (
        re.sub(r'<script src="(/_rim/[^"]*)" charset="utf-8" defer></script>', "", html),
        re.findall(r'<script src="(/_rim/[^"]*)" charset="utf-8" defer>', html),
    )
    html += "".join(f"<script>{loaded[script].decode()}</script>" for script in scripts)
    (folder / "page.html").write_text(html)
    metrics = {"width": width, "height": 700, "deviceScaleFactor": 1, "mobile": False}
    plain.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
    plain.get((folder / "page.html").as_uri())


def scripts_off(reader: Browser, off: bool) -> None:
    reader.driver.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": off})


def test_a_search_finds_by_the_first_letters_and_without_accents_by_keys_alone(
    reader: Browser, running: Running
) -> None:
    reader.go(running.live("ostrey") + "/cy/")
    field = reader.driver.find_element(By.CSS_SELECTOR, ".q7xk-it-search input")
    links = ".q7xk-it-search .q7xk-found a"
    field.send_keys("harb")
    wait_for(lambda: reader.driver.find_elements(By.CSS_SELECTOR, links))
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys("TAIR llong")
    wait_for(lambda: len(reader.driver.find_elements(By.CSS_SELECTOR, links)) >= 1)
    reader.go(running.live("ostrey") + "/sailings/fares/")
    field = reader.driver.find_element(By.CSS_SELECTOR, ".q7xk-it-search input")
    field.send_keys("Österh")
    wait_for(lambda: "Osterhaven" in [one.text for one in reader.driver.find_elements(By.CSS_SELECTOR, links)])
    reader.keys(Keys.ARROW_DOWN)
    assert reader.js("return document.activeElement.textContent") == "Osterhaven", (
        "what has it in its title comes first"
    )
    reader.keys(Keys.ESCAPE)
    assert not reader.driver.find_element(By.CSS_SELECTOR, ".q7xk-it-search .q7xk-found").is_displayed()
    field.send_keys(Keys.END, Keys.BACKSPACE, "h")
    wait_for(lambda: reader.driver.find_elements(By.CSS_SELECTOR, links))
    reader.keys(Keys.ARROW_DOWN)
    reader.keys(Keys.ENTER)
    wait_for(lambda: reader.driver.current_url.endswith("/harbours/osterhaven/"))


ASKED = """
const [query, done] = arguments, field = document.forms[0].elements.q, [told, list] = document.forms[0].nextElementSibling.children;
told.textContent = "";
new MutationObserver((_, seen) => { seen.disconnect(); done([told.textContent, [...list.querySelectorAll("a")].map((one) => one.pathname)]); })
  .observe(told, { childList: true });
field.value = query;
field.dispatchEvent(new Event("input"));
"""
"""What the script tells in the field's box: how many pages, and the first of them."""


def test_the_script_finds_in_parts_what_is_found_in_the_whole(timed: webdriver.Chrome, tmp_path: Path) -> None:
    chance = random.Random(5)
    words = ["a", "ab", "abel", "Ärmel", "öre", "oré", "quay", "quays", "ﬁn", "x", *(f"n{at}" for at in range(400))]
    pages = [
        PageText(f"/p/{at}/", " ".join(chance.choices(words, k=2)), " ".join(chance.choices(words, k=30)))
        for at in range(700)
    ]
    files = index_files(made_index(pages), "now", whole_up_to=0, part=700)
    assert {part[:6] for part in files} == {"", ".now-t", ".now-w", ".now-b"}
    searched = Searched(files.__getitem__)
    (tmp_path / "page.html").write_text(
        '<meta charset="utf-8"><div><form data-rim-search="/index.txt"><input name="q"></form><div hidden>'
        '<p data-rim-words="{0}"></p><ul></ul></div></div><ol data-rim-results="/index.txt"></ol><script>'
        f"const INDEX = {json.dumps(files)}, fetch = async (address) =>"
        f" new Response(INDEX[address.slice(6, -4)]);{shelf().late_scripts['search']}</script>"
    )
    timed.set_window_size(800, 500)
    timed.get((tmp_path / "page.html").as_uri() + "?q=qua")
    results = "return [...document.querySelectorAll('[data-rim-results] a')].map((one) => one.pathname)"
    wanted = [hit.path for hit in searched.pages(searched.find("qua"))]
    assert len(wanted) > 60
    wait_for(lambda: len(timed.execute_script(results)) == 40)
    wait_for(lambda: timed.execute_script(f"scrollTo(0, 1e6); {results}") == wanted)
    typed = [word[:length] for word in words for length in (1, 2, 3)] + ["QUÁ ab", "ab n1 x", "n39 ore", "none", "fi"]
    for query in typed:
        told, listed = timed.execute_async_script(ASKED, query)
        found = searched.find(query)
        assert (int(told), listed) == (len(found), [hit.path for hit in searched.pages(found[:8])]), query


def test_the_page_of_results_needs_no_script(reader: Browser, running: Running) -> None:
    scripts_off(reader, True)
    try:
        reader.go(running.live("ostrey") + "/")
        field = reader.driver.find_element(By.CSS_SELECTOR, ".q7xk-it-search input")
        field.send_keys("gull", Keys.ENTER)
        wait_for(lambda: "/search/?q=gull" in reader.driver.current_url)
        found = reader.driver.find_elements(By.CSS_SELECTOR, "main ol a")
        assert [one.text for one in found] == ["Osterhaven"]
        reader.go(running.live("ostrey") + "/search/?q=%3Cscript%3Eqwxz")
        assert "Found: 0" in reader.driver.find_element(By.TAG_NAME, "main").text
        reader.go(running.live("ostrey") + "/search/")
        assert len(reader.driver.find_elements(By.CSS_SELECTOR, "main ol a")) > 20, (
            "before anything is asked: all pages"
        )
    finally:
        scripts_off(reader, False)


def test_a_pointed_at_link_shows_its_picture_and_the_first_one_at_first(reader: Browser, running: Running) -> None:
    opacities = "return [...document.querySelectorAll('.q7xk-pictures img')].map((one) => Number(getComputedStyle(one).opacity))"
    reader.go(running.live("ostrey") + "/guide/")
    assert reader.js(opacities) == [1, 0, 0, 0]
    links = reader.driver.find_elements(By.CSS_SELECTOR, ".q7xk-pictures a")
    ActionChains(reader.driver).move_to_element(links[2]).perform()
    wait_for(lambda: reader.js(opacities) == [0, 0, 1, 0])
    ActionChains(reader.driver).move_by_offset(0, 400).perform()
    reader.js("arguments[0].focus()", links[3])
    wait_for(lambda: reader.js(opacities) == [0, 0, 0, 1])
    reader.resize(360, 800)
    assert not any(one.is_displayed() for one in reader.driver.find_elements(By.CSS_SELECTOR, ".q7xk-pictures img"))
    assert reader.js("return document.documentElement.scrollWidth") == 360
    reader.resize(1280, 800)


@pytest.mark.parametrize("place", ["behind", "edges"])
def test_pictures_behind_a_list_leave_it_a_ground_and_the_page_its_width(
    plain: webdriver.Chrome, tmp_path: Path, place: str
) -> None:
    composed(plain, tmp_path, "/guide/", Set(node="it-wonders", field="place", value=place))
    found = plain.execute_script(
        "const box = (part) => document.querySelector(part).getBoundingClientRect(), list = box('.q7xk-pictures ul'), image = box('.q7xk-pictures img');"
        "return [list.left, list.right, image.left, image.right, getComputedStyle(document.querySelector('.q7xk-pictures ul')).backgroundColor, document.documentElement.scrollWidth]"
    )
    assert found[2] <= found[0] and found[3] >= found[1] and found[4] == "rgb(227, 232, 236)"
    assert (found[2] == 0 and found[3] == 1000) == (place == "edges") and found[5] == 1000


def test_a_list_is_parted_by_lines_where_entries_are_of_several(plain: webdriver.Chrome, tmp_path: Path) -> None:
    edits: list[Edit] = [
        Set(node="it-landings", field="counts", value="lines"),
        Set(node="it-landings", field="size", value=10),
    ]
    composed(plain, tmp_path, "/harbours/", *edits, width=260)
    lines = "return [...document.querySelectorAll('main > ul > li')].filter((one) => one.getClientRects().length).map((one) => Math.round(one.getBoundingClientRect().height / (parseFloat(getComputedStyle(one).lineHeight) || 24)))"
    parts = []
    while True:
        parts.append(plain.execute_script(lines))
        following = plain.find_elements(By.XPATH, "//nav[contains(@class, 'pager')]//a[text()='Next']")
        if not following:
            break
        plain.execute_script("arguments[0].click()", following[0])
    assert sum(len(part) for part in parts) == 24 and max(max(part) for part in parts) > 1
    assert all(sum(part) <= 10 for part in parts) and all(
        sum(part) + following[0] > 10 for part, following in pairwise(parts)
    )


def test_a_list_is_parted_by_rows_however_many_stand_in_one(timed: webdriver.Chrome, tmp_path: Path) -> None:
    edits: list[Edit] = [
        Set(node="it-landings", field="counts", value="rows"),
        Set(node="it-landings", field="size", value=2),
    ]
    composed(timed, tmp_path, "/harbours/", *edits)
    shown = "return [...document.querySelectorAll('main > ul > li')].flatMap((one, at) => one.getClientRects().length ? [at] : [])"
    timed.execute_script(
        "document.querySelector('main').style.cssText = 'margin:0;padding:0;max-width:none';"
        "document.querySelector('main > ul').style.cssText = 'display:grid;margin:0;padding:0;gap:0;grid-template-columns:repeat(auto-fill,100px)'"
    )

    def widened(px: int) -> None:
        metrics = {"width": px, "height": 700, "deviceScaleFactor": 1, "mobile": False}
        timed.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)

    widened(410)
    wait_for(lambda: timed.execute_script(shown) == list(range(8)))
    timed.execute_script("document.querySelector('.q7xk-pager a[data-at=\"1\"]').click()")
    assert timed.execute_script(shown) == list(range(8, 16))
    widened(310)
    wait_for(lambda: timed.execute_script(shown) == list(range(6, 12)))  # What was seen first is seen still.
    widened(1290)
    wait_for(lambda: timed.execute_script(shown) == list(range(24)))
    assert timed.execute_script("return document.querySelector('.q7xk-pager').hidden"), "there is one part alone"


def test_a_long_list_is_paged_by_the_address_and_shown_whole_without_script(reader: Browser, running: Running) -> None:
    shown = (
        "return [...document.querySelectorAll('main > ul > li')].filter((one) => one.getClientRects().length).length"
    )
    first = (
        "return [...document.querySelectorAll('main > ul > li')].find((one) => one.getClientRects().length).textContent"
    )
    address = running.live("ostrey") + "/harbours/"
    reader.go(address)
    assert reader.js(shown) == 8 and "Anker" in reader.js(first)
    pager = reader.driver.find_element(By.CSS_SELECTOR, ".q7xk-pager")
    assert [one.text for one in pager.find_elements(By.TAG_NAME, "li")] == ["1", "2", "3", "Next"]
    pager.find_element(By.LINK_TEXT, "2").send_keys(Keys.ENTER)
    assert "Garth" in reader.js(first) and "landings=2" in reader.driver.current_url
    reader.driver.back()
    wait_for(lambda: "Anker" in reader.js(first))
    reader.go(address + "?landings=3")
    assert "Oar" in reader.js(first) and "Previous" in reader.driver.find_element(By.CSS_SELECTOR, ".q7xk-pager").text
    scripts_off(reader, True)
    reader.go(address)
    assert (
        len([one for one in reader.driver.find_elements(By.CSS_SELECTOR, "main > ul > li") if one.is_displayed()]) == 24
    )
    scripts_off(reader, False)


def test_a_picture_opens_large_and_gives_the_focus_back(reader: Browser, running: Running) -> None:
    reader.go(running.live("ostrey") + "/guide/")
    picture = reader.driver.find_element(By.CSS_SELECTOR, "main img")
    assert picture.get_attribute("role") == "button" and picture.get_attribute("aria-label").startswith("Enlarge")
    picture.send_keys(Keys.ENTER)
    box = reader.driver.find_element(By.CSS_SELECTOR, ".q7xk-viewer")
    # What enlarges is fetched when it is first asked for.
    wait_for(box.is_displayed)
    assert reader.js("return document.activeElement.closest('dialog') !== null")
    large = box.find_element(By.TAG_NAME, "img")
    assert large.get_attribute("src").endswith("/coast-dusk.svg")
    assert not box.find_element(By.TAG_NAME, "figcaption").is_displayed(), "a picture without words has no caption"
    for width in (360, 768, 1280):
        reader.resize(width, 740)
        room = reader.js(
            "const b = arguments[0].getBoundingClientRect(); return [b.left, b.top, b.right, b.bottom]", large
        )
        assert room[0] <= 8 and room[2] >= width - 8 and room[1] >= 44 and room[3] <= 740, (
            "as large as the window lets it be"
        )
    reader.keys(Keys.ESCAPE)
    assert not box.is_displayed() and reader.js("return document.activeElement === arguments[0]", picture)


def test_pictures_follow_each_other_by_button_key_and_swipe(reader: Browser, running: Running) -> None:
    reader.resize(768, 740)
    reader.go(running.live("ostrey") + "/sailings/ships/")
    reader.driver.find_element(By.CSS_SELECTOR, "main img[alt='The Marram by day']").send_keys(Keys.SPACE)
    box = reader.driver.find_element(By.CSS_SELECTOR, ".q7xk-viewer")
    wait_for(box.is_displayed)
    caption = box.find_element(By.TAG_NAME, "figcaption")
    assert caption.text == "The Marram by day"
    box.find_element(By.CSS_SELECTOR, "[aria-label=Next]").click()
    assert caption.text == "The Turnstone in fog"
    reader.keys(Keys.ARROW_LEFT)
    assert caption.text == "The Marram by day"
    figure = box.find_element(By.TAG_NAME, "figure")
    swipe = ActionChains(reader.driver).move_to_element(figure).click_and_hold()
    swipe.move_by_offset(-120, 0).release().perform()
    assert caption.text == "The Turnstone in fog"
    box.find_element(By.CSS_SELECTOR, "[aria-label=Previous]").click()
    box.find_element(By.CSS_SELECTOR, "[aria-label=Close]").click()
    assert reader.js("return document.activeElement.alt") == "The Marram by day"
    reader.resize(1280, 800)


def test_a_hint_shows_on_pointing_and_on_focus_and_goes_with_escape(reader: Browser, running: Running) -> None:
    reader.go(running.live("ostrey") + "/sailings/")
    phone = reader.driver.find_element(By.CSS_SELECTOR, ".q7xk-it-phone")
    hint = reader.driver.find_element(By.CSS_SELECTOR, "[role=tooltip]")
    assert not hint.is_displayed() and phone.get_attribute("aria-describedby") == hint.get_attribute("id")
    ActionChains(reader.driver).move_to_element(phone).perform()
    assert hint.is_displayed()
    ActionChains(reader.driver).move_to_element(hint).perform()
    assert hint.is_displayed(), "one can point at the hint itself"
    reader.keys(Keys.ESCAPE)
    assert not hint.is_displayed()
    ActionChains(reader.driver).move_by_offset(0, 300).perform()
    reader.js("arguments[0].focus()", phone)
    assert hint.is_displayed()


def test_a_form_arrives_in_the_inbox_and_leaves_it_as_csv(browser: Browser, running: Running, tmp_path: Path) -> None:
    browser.resize(1280, 800)
    browser.go(running.live("ostrey") + "/travelling/luggage/")
    form = browser.driver.find_element(By.CSS_SELECTOR, "form[action*=forms]")

    def field(name: str) -> WebElement:
        return form.find_element(By.CSS_SELECTOR, f"[name=fd-{name}]")

    form.find_element(By.TAG_NAME, "button").click()
    assert "/travelling/luggage/" in browser.driver.current_url, "the browser asks for what is needed"
    field("name").send_keys("Maud Quill")
    field("mail").send_keys("maud@post.example")
    Select(field("ship")).select_by_visible_text("Eider")
    field("what").send_keys("=2+2, a harp\nand its stool")
    form.find_element(By.TAG_NAME, "button").click()
    wait_for(lambda: "Somebody on the quay will write" in browser.driver.find_element(By.TAG_NAME, "main").text)
    browser.driver.find_element(By.LINK_TEXT, "Back to the page").click()
    wait_for(lambda: browser.driver.current_url.endswith("/travelling/luggage/"))
    browser.sign_in()
    browser.go("/s/ostrey/inbox/")
    received = next(one.text for one in browser.all("message-received") if "Maud Quill" in one.text)
    assert all(
        part in received for part in ("Questions about luggage", "Maud Quill", "Eider", "a harp", "/travelling/")
    )
    taken = browser.driver.execute_async_script(
        "const done = arguments[0]; fetch('messages.csv').then((answer) => answer.text()).then(done)"
    )
    rows = list(csv.reader(io.StringIO(taken.lstrip("\ufeff"))))
    assert rows[0][3:] == ["Your name", "Mail", "Which ship", "What do you bring?"]
    mine = next(row for row in rows if "Maud Quill" in row)
    assert mine[3:] == [
        "Maud Quill",
        "maud@post.example",
        "Eider",
        "'=2+2, a harp\nand its stool".replace("\n", "\r\n"),
    ]


def test_a_footer_is_built_from_nothing_with_keys_alone(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/s/quillwort/pieces/")

    def tab_to(test: str, *, most: int = 160) -> None:
        for _ in range(most):
            if browser.js("return document.activeElement?.dataset.test") == test:
                return
            browser.keys(Keys.TAB)
        raise AssertionError(f"{test} is not reached with the Tab key")

    def pressed(*keys: str) -> None:
        browser.acted(lambda: browser.keys(*keys))

    tab_to("kind-footer")
    pressed(Keys.ENTER)
    wait_for(lambda: browser.js("return document.activeElement?.dataset.test") == "arrangement-columns")
    for key in ("halves", "colophon"):
        pressed(Keys.ARROW_DOWN)
        wait_for(lambda key=key: browser.one("stage").get_attribute("src").endswith(f"rim-begun={key}"))
        assert browser.js("return document.activeElement.value") == key
    with browser.on_stage() as stage:
        wait_for(lambda: stage.find_element(By.CSS_SELECTOR, "footer [data-rim-node]").is_displayed())
    pressed(Keys.ENTER)
    wait_for(lambda: "/pieces/pc-" in browser.driver.current_url)
    before = len(browser.all("line"))
    for _ in range(3):
        browser.js("document.activeElement.blur()")
        pressed("]")
    assert "List of links" in browser.one("chosen").text
    browser.keys(Keys.INSERT)
    browser.insert_here("©")
    wait_for(lambda: len(browser.all("line")) == before + 1)
    assert "Copyright" in browser.one("chosen").text
    tab_to("control-first_year")
    browser.keys("1998")
    pressed(Keys.TAB)
    with browser.on_stage() as stage:
        wait_for(lambda: "1998–" in stage.execute_script("return document.querySelector('footer.w4ltq')?.innerText"))
    browser.js("document.activeElement.blur()")
    pressed(Keys.ALT, Keys.ARROW_DOWN)
    pressed(Keys.ALT, "d")
    wait_for(lambda: len(browser.all("line")) == before + 2)
    browser.keys(Keys.ALT, "c")
    pressed(Keys.ALT, "v")
    wait_for(lambda: len(browser.all("line")) == before + 3)
    pressed(Keys.ALT, Keys.DELETE)
    wait_for(lambda: len(browser.all("line")) == before + 2)
    pressed(Keys.CONTROL, "z")
    wait_for(lambda: len(browser.all("line")) == before + 3)
    browser.take_piece_away()


def test_a_shared_row_changes_in_both_pieces_until_it_is_made_its_own(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/s/ostrey/pieces/pc-guide-front/?select=rw-guide-main")
    assert browser.one("chosen").text == "Main row, shared"
    browser.go("/s/ostrey/pieces/pc-main/?select=rw-main")
    browser.acted(browser.one("remove").click)
    assert "shares a row that would be gone" in browser.one("notice").text
    browser.go("/s/ostrey/pieces/pc-main/?select=it-book")
    browser.change("control-words", "Set sail")
    browser.go("/s/ostrey/pieces/pc-guide-front/?select=rw-guide-main")
    words = "return document.querySelector('header.q7xk .q7xk-button').textContent"
    with browser.on_stage() as stage:
        assert wait_for(lambda: stage.execute_script(words)) == "Set sail"
    browser.press("make-own")
    assert "shared" not in browser.one("chosen").text
    browser.go("/s/ostrey/pieces/pc-main/?select=it-book")
    browser.change("control-words", "Book")
    browser.go("/s/ostrey/pieces/pc-guide-front/")
    with browser.on_stage() as stage:
        assert wait_for(lambda: stage.execute_script(words)) == "Set sail"
    for _ in range(3):
        browser.press("undo")


def test_an_icon_is_searched_for_and_a_drawing_of_ones_own_is_cleaned(browser: Browser, tmp_path: Path) -> None:
    browser.sign_in()
    browser.go("/s/ostrey/pieces/pc-main/?select=it-phone")
    browser.one("choose-icon").click()
    browser.one("icon-search").send_keys("sailb")
    button = wait_for(lambda: browser.driver.find_element(By.CSS_SELECTOR, "[data-icon=sailboat]"))
    browser.acted(button.click)
    assert browser.one("control-icon").get_attribute("value") == "sailboat"
    icon = "return getComputedStyle(document.querySelector('[data-rim-node=it-phone] .q7xk-icon')).maskImage"
    drawing = tmp_path / "Our own.svg"
    drawing.write_text(
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><script>ran(1)</script><path d="M0 0h9v9z"/></svg>'
    )
    browser.one("upload").send_keys(str(drawing))
    wait_for(lambda: "Left out of it: script" in browser.one("message").text)
    with browser.on_stage() as stage:
        wait_for(lambda: "/pictures/our-own.svg" in stage.execute_script(icon))
    broken = tmp_path / "broken.svg"
    broken.write_text("<svg>")
    browser.one("upload").send_keys(str(broken))
    wait_for(lambda: "no well-formed XML" in browser.one("message").text)
    browser.press("undo")
    browser.press("undo")


def test_a_list_is_chosen_by_pointing_at_it(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/s/ostrey/pieces/pc-footer/?select=it-landings&page=/sailings/timetable/")
    with browser.on_stage() as stage:
        wait_for(lambda: stage.execute_script("return document.documentElement.style.cursor") == "crosshair")
        line = stage.find_element(By.CSS_SELECTOR, "main tbody td")
        stage.execute_script("arguments[0].scrollIntoView({ block: 'center' })", line)
        line.click()
    wait_for(lambda: "tbody" in browser.one("control-selector").get_attribute("value"))
    assert browser.one("control-list_on").get_attribute("value") == "/sailings/timetable/"
    browser.press("undo")
    assert browser.one("control-selector").get_attribute("value") == "main > ul"


def test_an_item_is_dragged_into_another_piece(browser: Browser) -> None:
    browser.sign_in()
    browser.resize(1280, 1400)
    browser.go("/s/ostrey/pieces/pc-guide/?select=it-guide")
    line = browser.driver.find_element(By.CSS_SELECTOR, "[data-id=it-guide-picture]")
    other = browser.one("other-pc-press")
    browser.js("arguments[0].scrollIntoView({block: 'center'})", other)
    drag = ActionChains(browser.driver).click_and_hold(line).pause(0.2).move_by_offset(0, 6).pause(0.2)
    drag.move_to_element(other).pause(0.3).release().perform()
    wait_for(lambda: "/pieces/pc-press/" in browser.driver.current_url)
    assert "Picture" in browser.one("chosen").text
    browser.press("undo")
    assert all("Picture" not in one.text for one in browser.all("line"))


def test_what_a_picture_or_a_bar_lacks_is_said_beside_it(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/s/ostrey/pieces/pc-guide/?select=it-guide-picture")
    assert not browser.all("control-note")
    browser.choose("control-words", "")
    assert "mark it as an ornament" in browser.one("control-note").text
    browser.press("undo")
    browser.go("/s/ostrey/pieces/pc-bar/")
    assert not browser.all("control-note")
    for item in ("times", "harbours", "guide"):
        browser.go(f"/s/ostrey/pieces/pc-bar/?select=it-bar-{item}")
        browser.press("remove")
    browser.go("/s/ostrey/pieces/pc-bar/")
    assert "one target" in browser.one("control-note").text
    for _ in range(3):
        browser.press("undo")


def test_profiles_are_put_into_another_order_by_dragging(browser: Browser) -> None:
    browser.sign_in()
    browser.resize(1280, 1000)
    browser.go("/s/ostrey/pieces/pc-footer/?select=it-social")
    names = (
        "return [...document.querySelectorAll('[data-test=order-profiles] li')].map((one) => one.textContent.trim())"
    )
    assert browser.js(names) == ["Notes from the bridge", "Mail", "Telephone"]
    first, *_, last = browser.one("order-profiles").find_elements(By.TAG_NAME, "li")
    drag = ActionChains(browser.driver).click_and_hold(first).pause(0.2).move_by_offset(6, 0).pause(0.2)
    browser.acted(drag.move_to_element(last).move_by_offset(20, 0).pause(0.3).release().perform)
    browser.go("/s/ostrey/pieces/pc-footer/?select=it-social")
    wait_for(lambda: browser.js(names) == ["Mail", "Telephone", "Notes from the bridge"])
    browser.press("undo")
    assert browser.js(names)[0] == "Notes from the bridge"

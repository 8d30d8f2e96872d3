"""What fit predicts is what the browser does; and the demo's German header is mended by what it offers."""

from __future__ import annotations

import json
import random
from collections.abc import Callable, Iterator
from functools import partial
from typing import Any

import pytest
from selenium import webdriver
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.fit_judge import Tally, boxes_of, compare, served
from tests.fitted_sites import IN_LINE, SPACES, VOCABULARY
from tests.lengths import any_length, takes_lengths
from tests.width_font import width_font
from upper_rim.core.exchange.html.markdown import written_page
from upper_rim.core.exchange.imports.import_pages import digest
from upper_rim.core.fit.advice.opened import SCREENS, all_opened
from upper_rim.core.fit.css.amount import Viewport
from upper_rim.core.fit.rows.sweep import frame_at
from upper_rim.core.fit.text.faces import font_data
from upper_rim.core.kinds.items import Item
from upper_rim.core.kinds.items.form import Form, FormField
from upper_rim.core.kinds.items.rich import RichText
from upper_rim.core.kinds.items.search import SearchBox
from upper_rim.core.kinds.items.text import TextItem
from upper_rim.core.kinds.pieces.age import AgeGate
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.consent import ConsentQuestion
from upper_rim.core.kinds.pieces.gate import Gate
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.pieces.password import PasswordGate
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.model.fonts import Font, FontFile
from upper_rim.core.model.site import Page, Site
from upper_rim.core.output.fitting import fitter_of
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.style.type.fonts import FontFault, read_font
from upper_rim.core.values.rich import RichWords
from upper_rim.core.values.styling import Part
from upper_rim.core.values.words import Words
from upper_rim.demo import ostrey
from upper_rim.demo.making import declared
from upper_rim.shipped import shelf

from .conftest import Browser, Running, live_edition, load_faces, plain_chromium, wait_for

GATES = 10
SITES = 36
SHAPED_SITES = 10


@pytest.fixture(scope="module")
def chromium() -> Iterator[webdriver.Chrome]:
    driver = plain_chromium(frames="none")
    yield driver
    driver.quit()


def test_widths_heights_and_changes_are_what_the_browser_makes_of_generated_sites(chromium: webdriver.Chrome) -> None:
    tally = Tally()
    with served() as (files, port):
        for seed in range(SITES):
            compare(seed, chromium, files, port, tally)
    told = "\n".join(tally.faults[:20])
    assert tally.compared["items"] > 2500 and tally.compared["changes"] > 70
    assert tally.share("items") >= 0.999, told
    assert tally.share("heights") >= 0.998, told
    assert tally.share("states") >= 0.998, told
    assert tally.share("changes") >= 0.99, told


def test_pieces_have_the_room_that_is_foreseen_on_pages_of_every_shape_beside_their_scroll_bars() -> None:
    tally = Tally()
    driver = plain_chromium(frames="none", bars=True)
    try:
        with served() as (files, port):
            for seed in range(SHAPED_SITES):
                compare(seed, driver, files, port, tally, 2, shaped=True)
    finally:
        driver.quit()
    told = "\n".join(tally.faults[:20])
    assert tally.beside_bars > SHAPED_SITES / 2 and tally.share("bars") == 1, told
    assert tally.compared["items"] > 600 and tally.share("items") >= 0.999, told
    assert tally.share("heights") >= 0.998 and tally.share("states") >= 0.998 and tally.share("changes") >= 0.99, told


@pytest.mark.parametrize("kind", [PasswordGate, AgeGate, ConsentQuestion])
def test_gates_are_as_wide_and_high_as_foreseen(chromium: webdriver.Chrome, kind: type[Gate | ConsentQuestion]) -> None:
    tally = Tally()
    with served() as (files, port):
        for seed in range(GATES):
            compare(seed, chromium, files, port, tally, gate=kind)
    told = "\n".join(tally.faults[:20])
    assert tally.compared["items"] > 100 and tally.share("items") >= 0.999, told
    assert tally.share("heights") >= 0.998 and tally.share("states") >= 0.998, told


def test_the_german_header_fails_on_the_ruler_and_the_first_remedy_mends_the_published_page(
    browser: Browser, running: Running
) -> None:
    browser.sign_in()
    browser.go("/s/ostrey/pieces/pc-main/?page=/de/&tray=fit")
    span = wait_for(lambda: browser.all("fit-span"))[0]
    assert span.get_attribute("data-language") == "de" and span.get_attribute("data-state") == "wraps"
    first, last = int(span.get_attribute("data-from") or 0), int(span.get_attribute("data-to") or 0)
    assert "German" in (span.get_attribute("title") or "") and "severity-hinders" in (span.get_attribute("class") or "")

    page = running.live("ostrey") + "/de/"
    assert [_menu_lines(browser, page, width) for width in (first - 1, first, last, last + 1)] == [0, 2, 2, 1]

    browser.go("/s/ostrey/pieces/pc-main/?page=/de/&tray=fit")
    wait_for(lambda: browser.all("try-remedy"))
    browser.press("try-remedy")
    wait_for(lambda: browser.all("trial"))
    assert f"begins at {last + 1} px" in browser.one("trial").text
    assert not browser.all("fit-span"), "what is tried on fits"
    browser.press("trial-keep")
    wait_for(lambda: not browser.all("trial") and browser.all("fits"))
    assert browser.one("flag").get_attribute("aria-valuenow") is not None

    browser.go("/s/ostrey/editions/")
    numbers = {edition.get_attribute("data-number") for edition in browser.all("edition")}
    browser.publish_anyway()
    wait_for(lambda: live_edition(browser) not in numbers | {None}, 60)
    widths = [first - 1, first, (first + last) // 2, last, last + 1, last + 60]
    assert [_menu_lines(browser, page, width) for width in widths] == [0, 0, 0, 0, 1, 1], widths

    browser.go("/s/ostrey/pieces/pc-main/")
    browser.acted(lambda: browser.keys(Keys.CONTROL, "z"))
    wait_for(lambda: browser.all("fit-span"))


def test_the_width_axis_of_a_font_that_was_brought_along_is_measured_as_the_browser_sets_it(
    chromium: webdriver.Chrome,
) -> None:
    found = read_font(width_font())
    assert not isinstance(found, FontFault) and (found.narrowest, found.widest) == (50, 100)
    content, splice = written_page("Page", "en", "Text.")
    contents = {digest(found.data): found.data, digest(content): content}
    file = FontFile(
        content=digest(found.data), size=len(found.data), lightest=400, boldest=400, narrowest=50, widest=100
    )
    styles = {"font-family": "ft-a", "font-weight": "400", "font-stretch": "80%", "word-spacing": "7px"}
    text = TextItem(id="it-a", words=Words(text="QUAY AND SHIP"), styles=declared("a", styles))
    row = Row(id="rw-a", cells=(Cell(id="cl-a", items=(text,)),))
    site = Site(
        key="qwide",
        name="O",
        fonts=(Font(id="ft-a", name=found.family, files=(file,), measures=found.measures),),
        pieces=(Header(id="pc-a", name="H", rows=(row,), reach=(ReachRule(id="rr-a"),)),),
        pages=(Page(id="pg-a", path="/", language="en", content=digest(content), splice=splice),),
    )
    fitter = fitter_of(shelf(), contents.__getitem__, 2026)
    (fit,) = fitter.rows(site, site.pieces[0])
    laid = fit.at(900)
    assert laid is not None
    predicted = next(frame.width for node, frame in boxes_of(frame_at(laid, 900, 800.0)) if node == "it-a")
    assert predicted == pytest.approx(13 * 16 * 0.48 + 2 * 7, abs=0.2)
    composer = Composer(site, shelf(), contents.__getitem__, marks=True)
    with served() as (files, port):
        files["/"] = composer.page(site.pages[0], content)
        files.update(dict(composer.parts()))
        chromium.get(f"http://127.0.0.1:{port}/")
        load_faces(chromium)
        seen = chromium.execute_script(
            "return document.querySelector('[data-rim-node=it-a]').getBoundingClientRect().width"
        )
    assert seen == pytest.approx(predicted, abs=0.5)


def test_texts_with_every_kind_of_space_mark_and_sign_are_as_wide_and_break_as_the_browser_has_it(
    chromium: webdriver.Chrome,
) -> None:
    """Pairs of ASCII behind which a line may end or not; spaces, joiners, marks, and letters of all that faces
    serve."""
    chance, printed = random.Random(7), [chr(point) for point in range(0x21, 0x7F)]
    marks = [chr(point) for point in (0x0300, 0x0301, 0x0302, 0x0303, 0x0304, 0x0308, 0x030C, 0x0323, 0x0327)]
    between = [
        *SPACES,
        *" " * 9,
        *(chr(point) for point in (*range(0x2000, 0x200B), 0x200C, 0x200D, 0x2010, 0x2011, 0x2028)),
    ]
    compared = 0
    for face in ("figtree", "noto-sans", "source-serif-4", "jetbrains-mono"):
        served_points = set().union(
            *(font_data(one.data, one.unicode_range).characters for one in shelf().faces[face].files)
        )
        # Letters whose case has been the same since before this Python's edition of Unicode.
        cased = {char for point in served_points if (char := chr(point)).upper() != char.lower()}
        letters = sorted(char for char in cased if char.upper().lower() == char.lower() and len(char.upper()) == 1)

        def word(letters: list[str] = letters) -> str:
            some = chance.choices([*letters, *printed], k=chance.randrange(1, 7))
            return "".join(char + (chance.choice(marks) if chance.random() < 0.06 else "") for char in some)

        texts = [
            # Signs go with a space that Cyrillic does not share, a bracket with the one that it closes.
            "З\u202f+",
            "З\u202f++(ж)+",
            *(
                "".join(word() + chance.choice(between) for _ in range(chance.randrange(2, 9))).strip()
                for _ in range(108)
            ),
        ]
        for styles in ({}, {"letter-spacing": "2px"}, {"word-spacing": "7px", "text-transform": "uppercase"}):
            for width, text, frame, seen, is_estimate in _set_items(chromium, texts, face, styles, 2400, 320):
                if is_estimate:
                    continue
                compared += 1
                assert (frame.width, frame.height) == pytest.approx(seen, abs=0.5), (face, styles, width, text)
    assert compared > 1000


def _text_item(text: str, **common: Any) -> Item:
    return TextItem(words=Words(text=text), **common)


def _rich_text(text: str, **common: Any) -> Item:
    return RichText(rich=RichWords(text=text), **common)


def _search(text: str, **common: Any) -> Item:
    return SearchBox(words=Words(text=text), **common)


def _choice(text: str, **common: Any) -> Item:
    field = FormField(id=f"ff-{common['id']}", kind="choice", words=Words(text=text), choices=(text,))
    return Form(fields=(field,), button=Words(text=text), **common)


def _set_items(
    chromium: webdriver.Chrome,
    texts: list[str],
    face: str,
    styles: dict[str, str],
    *widths: int,
    by_hand: str = "",
    kind: Callable[..., Item] = _text_item,
    part: Part = "box",
    language: str = "en",
) -> Iterator[tuple[int, str, Any, tuple[float, float], bool]]:
    """Each text as an item of its own row, at each width of the window: its frame as foreseen, its width and height as
    seen, and whether what was foreseen is an estimate. `by_hand`: CSS that each item is given besides; `kind`: makes an
    item of a text; `part`: of it has the styles."""
    content, splice = written_page("Page", language, "Text.")
    contents = {digest(content): content}
    items = (kind(text, id=f"it-{at}", styles=declared(f"s{at}", styles, part)) for at, text in enumerate(texts))
    rows = tuple(Row(id=f"rw-{at}", cells=(Cell(id=f"cl-{at}", items=(item,)),)) for at, item in enumerate(items))
    site = Site(
        key="qtext",
        name="O",
        language=language,
        face=face,
        content_px=2000,
        pieces=(Header(id="pc-a", name="H", rows=rows, reach=(ReachRule(id="rr-a"),)),),
        pages=(Page(id="pg-a", path="/", language=language, content=digest(content), splice=splice),),
    )
    composer = Composer(site, shelf(), contents.__getitem__, marks=True)
    found: dict[int, dict[str, dict[str, float]]] = {}
    with served() as (files, port):
        files["/"] = composer.page(site.pages[0], content)
        files.update(dict(composer.parts()))
        chromium.get(f"http://127.0.0.1:{port}/")
        load_faces(chromium)
        chromium.execute_script(
            "document.querySelectorAll('[data-rim-node^=it-]').forEach((one) => one.style.cssText += arguments[0])",
            by_hand,
        )
        for width in widths:
            metrics = {"width": width, "height": 800, "deviceScaleFactor": 1, "mobile": False}
            chromium.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
            found[width] = chromium.execute_script(
                "return Object.fromEntries([...document.querySelectorAll('[data-rim-node^=it-]')]"
                ".map((one) => [one.dataset.rimNode, one.getBoundingClientRect()]))"
            )
    fits = fitter_of(shelf(), contents.__getitem__, 2026).rows(site, site.pieces[0])
    for width in widths:
        for text, fit in zip(texts, fits, strict=True):
            laid = fit.at(width)
            assert laid is not None
            ((node, frame),) = (
                (node, frame)
                for node, frame in boxes_of(frame_at(laid, width, 800.0))
                if node.startswith("it-") and "/" not in node
            )
            box = found[width][node]
            yield width, text, frame, (box["width"], box["height"]), bool(fit.missing)


@pytest.mark.parametrize("seed", range(4))
def test_edges_of_links_take_room_in_the_lines_of_their_text(chromium: webdriver.Chrome, seed: int) -> None:
    chance = random.Random(seed)
    styles = {"border-inline-start-style": "solid", "border-inline-end-style": "solid"}
    styles |= {name: any_length(chance, name) for name in chance.sample(IN_LINE, 3) if takes_lengths(name)}

    def text() -> str:
        words = [" ".join(chance.choices(VOCABULARY["en"], k=chance.randrange(1, 4))) for _ in range(9)]
        links = (f"<a href='/x/'>{one}</a>{chance.choice(['', '.', ','])}" for one in words[::2])
        return f"<p>{' '.join(one for pair in zip(links, words[1::2], strict=False) for one in pair)}</p>"

    texts, widths = [text() for _ in range(12)], (280, 333, 420, 517, 700, 1100)
    for width, said, frame, seen, _ in _set_items(
        chromium, texts, "figtree", styles, *widths, kind=_rich_text, part="link"
    ):
        assert (frame.width, frame.height) == pytest.approx(seen, abs=0.5), (width, styles, said)


@pytest.mark.parametrize("count", [2, 3])
@pytest.mark.parametrize("first", ["p", "ul", "h2", "blockquote"])
def test_columns_are_as_high_as_the_browser_balances_them_whatever_stands_first(
    chromium: webdriver.Chrome, first: str, count: int
) -> None:
    chance = random.Random(f"{first} {count}")

    def block(tag: str) -> str:
        said = [" ".join(chance.choices(VOCABULARY["en"], k=chance.randrange(1, 9))) for _ in range(3)]
        return f"<ul>{''.join(f'<li>{one}</li>' for one in said)}</ul>" if tag == "ul" else f"<{tag}>{said[0]}</{tag}>"

    def text() -> str:
        """Without headings in a row: where these are higher than a column, something that is to be avoided is not."""
        tags = [first]
        for _ in range(chance.randrange(1, 6)):
            tags.append(chance.choice(["p", "p", "ul", "blockquote", *(["h2"] if tags[-1] != "h2" else [])]))
        return "".join(map(block, tags))

    texts = [text() for _ in range(24)]
    kind = partial(_rich_text, column_count=count, column_px=80, column_gap_px=16)
    for width, said, frame, seen, _ in _set_items(chromium, texts, "figtree", {}, 300, 480, 700, kind=kind):
        assert (frame.width, frame.height) == pytest.approx(seen, abs=0.5), (width, said)


@pytest.mark.parametrize("language", ["en", "ar", "el", "ru"])
@pytest.mark.parametrize("face", ["figtree", "noto-sans"])
def test_a_choice_is_as_high_as_its_first_font_whatever_is_chosen(
    chromium: webdriver.Chrome, face: str, language: str
) -> None:
    for size in ("13px", "30px", "41px"):
        for _, _, frame, seen, _ in _set_items(
            chromium, ["A", "اختر"], face, {"font-size": size}, 700, kind=_choice, part="field", language=language
        ):
            assert (frame.width, frame.height) == pytest.approx(seen, abs=0.5), size


@pytest.mark.parametrize("wide", ["40%", "100%", "clamp(90px, 50%, 300px)", "auto"])
@pytest.mark.parametrize("face", ["figtree", "bitter", "jetbrains-mono"])
def test_a_field_that_is_told_a_share_asks_for_as_many_letters_as_browsers_have_it(
    chromium: webdriver.Chrome, face: str, wide: str
) -> None:
    for size in ("13px", "16px", "17.3px", "1.9vw"):
        styles = {"inline-size": wide, "font-size": size}
        for width, _, frame, seen, _ in _set_items(
            chromium, ["Search"], face, styles, 400, 1100, 1290, kind=_search, part="field"
        ):
            assert (frame.width, frame.height) == pytest.approx(seen, abs=1.01), (styles, width)


def test_the_least_width_of_a_text_is_the_browsers_to_a_64th_of_a_px(chromium: webdriver.Chrome) -> None:
    """Words that break within themselves between letters that are kerned, at hyphens that show only there, and behind
    a first letter."""
    chance = random.Random(3)
    parted = [
        "2001–2026",
        "To-Yo",
        "AV-AV",
        "L–T",
        "T-o",
        "Wa\u00adffle",
        "Ta\u00adVa",
        "Tax-Yak",
        "x",
        "Ä-To-V",
        "LT/VA",
    ]
    texts = [" ".join(chance.choices(parted, k=chance.randrange(1, 4))) for _ in range(80)]
    by_hand = "inline-size:min-content!important"
    for face in ("bitter", "figtree", "source-serif-4"):
        for styles in ({}, {"letter-spacing": "2px"}):
            for _, text, frame, (seen, _), _ in _set_items(chromium, texts, face, styles, 2400, by_hand=by_hand):
                told, _ = frame.box.paragraph.widths(Viewport(2400.0, 800.0))
                assert told == pytest.approx(seen, abs=1.01 / 64), (face, styles, text)


def test_letters_advance_by_the_size_that_they_are_drawn_in(chromium: webdriver.Chrome) -> None:
    asked = ("16px", "16.015625px", "16.11px", "16.128px", "16.21875px", "17.3px", "1.6vw", "31.616px", "40.859375px")
    content, splice = written_page("Page", "en", "Text.")
    contents = {digest(content): content}
    rows = tuple(
        Row(
            id=f"rw-{at}",
            cells=(
                Cell(
                    id=f"cl-{at}",
                    items=(
                        TextItem(
                            id=f"it-{at}", words=Words(text="n" * 120), styles=declared(f"s{at}", {"font-size": size})
                        ),
                    ),
                ),
            ),
        )
        for at, size in enumerate(asked)
    )
    site = Site(
        key="qdraw",
        name="O",
        pieces=(Header(id="pc-a", name="H", rows=rows, reach=(ReachRule(id="rr-a"),)),),
        pages=(Page(id="pg-a", path="/", language="en", content=digest(content), splice=splice),),
    )
    composer = Composer(site, shelf(), contents.__getitem__, marks=True)
    with served() as (files, port):
        files["/"] = composer.page(site.pages[0], content)
        files.update(dict(composer.parts()))
        chromium.execute_cdp_cmd(
            "Emulation.setDeviceMetricsOverride",
            {"width": 1011, "height": 800, "deviceScaleFactor": 1, "mobile": False},
        )
        chromium.get(f"http://127.0.0.1:{port}/")
        load_faces(chromium)
        seen = chromium.execute_script(
            "return [...document.querySelectorAll('[data-rim-node^=it-]')].map((one) => one.getBoundingClientRect().width)"
        )
    fits = fitter_of(shelf(), contents.__getitem__, 2026).rows(site, site.pieces[0])
    told = [
        frame.width
        for fit in fits
        if (laid := fit.at(1011))
        for node, frame in boxes_of(frame_at(laid, 1011, 800.0))
        if node.startswith("it-")
    ]
    assert told == pytest.approx(seen, abs=0.05), "a hundredth of a px more in size would be 0.7 px more"


@pytest.mark.parametrize("screen", [screen for screen in SCREENS if screen[0] < 980])
def test_an_opened_drawer_is_as_high_as_foreseen(browser: Browser, running: Running, screen: tuple[int, int]) -> None:
    site, contents = ostrey()
    piece = site.pieces[0]
    for language, path in (("en", "/"), ("ar", "/ar/")):
        opened = all_opened(fitter_of(shelf(), contents.__getitem__, 2026), site, piece, piece.rows[1], language)
        (foreseen,) = [one for one in opened if one.screen == screen]
        browser.resize(*screen)
        browser.go(running.live("ostrey") + path)
        load_faces(browser.driver)
        browser.js("document.querySelector('.q7xk-it-menu .q7xk-drawer').showPopover()")
        wait_for(lambda: browser.js("return document.activeElement.closest('.q7xk-drawer') !== null"))
        browser.js(
            "document.querySelectorAll('[data-rim-branch]').forEach((one) => one.setAttribute('aria-expanded', 'true'))"
        )
        seen = browser.js("return document.querySelector('.q7xk-it-menu .q7xk-drawer').scrollHeight")
        if foreseen.screens > 1:
            assert seen == pytest.approx(foreseen.whole_px, abs=1), language
        else:
            assert seen == screen[1], "it is as high as the screen"
            listed = browser.js(
                "return [...document.querySelector('.q7xk-it-menu .q7xk-drawer').children].reduce((sum, part) => sum + part.getBoundingClientRect().height, 36)"
            )
            assert listed == pytest.approx(foreseen.whole_px, abs=1), language
    browser.resize(1280, 800)


def _menu_lines(browser: Browser, page: str, width: int) -> int:
    """On how many lines the menu's entries stand on the published page; 0 where it is a button."""
    browser.resize(width, 800)
    browser.go(page)
    load_faces(browser.driver)
    found = browser.js(
        "return [...document.querySelectorAll('.q7xk-it-menu .q7xk-list > li')].map((entry) => entry.getBoundingClientRect()).filter((r) => r.height).map((r) => r.top)"
    )
    browser.resize(1280, 800)
    return len(set(found))


def test_an_edit_shows_its_failing_widths_at_once(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/s/ostrey/menus/mn-main/")
    site = browser.running.studio
    wait_for(lambda: browser.driver.current_url.startswith(site))
    browser.go("/s/ostrey/pieces/pc-main/?select=it-menu")
    gap = {"kind": "set", "node": "it-menu", "field": "gap_px", "value": 60}
    spans = "[...document.querySelectorAll('[data-test=fit-span]')].map((span) => span.dataset.language)"
    wide = browser.posted({"do": "edit", "edit": json.dumps(gap), "select": "it-menu"}, spans)
    assert {"en", "de", "cy"} <= set(wide)
    browser.acted(lambda: browser.keys(Keys.CONTROL, "z"))
    assert {span.get_attribute("data-language") for span in browser.all("fit-span")} == {"de"}


def test_a_flag_that_is_dragged_near_a_width_where_something_begins_to_fit_stands_on_it(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/s/ostrey/pieces/pc-main/?page=/de/")
    (span,) = wait_for(lambda: browser.all("fit-span"))
    fits_from = int(span.get_attribute("data-to") or 0) + 1
    flag = max(browser.all("flag"), key=lambda one: int(one.get_attribute("aria-valuenow") or 0))
    stood = int(flag.get_attribute("aria-valuenow") or 0)
    name = flag.get_attribute("data-flag")
    px_each = browser.js(
        "const r = document.querySelector('#ruler'); return r.getBoundingClientRect().width / (r.dataset.to - r.dataset.from)"
    )

    def drag_to(width: int) -> int:
        grip = next(one for one in browser.all("flag") if one.get_attribute("data-flag") == name)
        by = round((width - int(grip.get_attribute("aria-valuenow") or 0)) * px_each)
        hold = ActionChains(browser.driver).move_to_element_with_offset(grip, 0, 14).click_and_hold()
        browser.acted(lambda: hold.move_by_offset(by // 2, 0).move_by_offset(by - by // 2, 0).release().perform())
        return int(
            next(one for one in browser.all("flag") if one.get_attribute("data-flag") == name).get_attribute(
                "aria-valuenow"
            )
            or 0
        )

    assert drag_to(fits_from + 4) == fits_from
    wait_for(lambda: browser.all("fits"))
    browser.acted(lambda: browser.keys(Keys.CONTROL, "z"))
    wait_for(lambda: browser.all("fit-span"))
    away = drag_to(fits_from + 40)
    assert abs(away - fits_from - 40) <= 3 and away != fits_from, "it stands where it is left"
    browser.acted(lambda: browser.keys(Keys.CONTROL, "z"))
    wait_for(
        lambda: (
            browser.one("flag")
            and stood in {int(one.get_attribute("aria-valuenow") or 0) for one in browser.all("flag")}
        )
    )


def test_the_study_sets_the_stage_to_the_width_that_is_pressed(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/s/ostrey/pieces/pc-main/fit/?page=/de/")
    study = browser.driver.find_elements("css selector", "[data-study]")[1]
    assert browser.js("return arguments[0].querySelectorAll('.study-need').length", study) == 4
    assert "English: fits, tight at 280–" in browser.all("study")[1].text
    browser.js(
        "const box = arguments[0].getBoundingClientRect();"
        "arguments[0].dispatchEvent(new MouseEvent('click', {bubbles: true, clientX: box.left + box.width * 0.5, clientY: box.top + 40}))",
        study,
    )
    shown = int(browser.one("stage-width").get_attribute("value") or 0)
    assert 1040 < shown < 1180
    assert browser.one("stage").value_of_css_property("width") == f"{shown}px"

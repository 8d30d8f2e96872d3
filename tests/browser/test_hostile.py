"""Nothing that is typed, pasted or brought along runs: on published pages, on the stage and in the studio."""

from __future__ import annotations

import json
import socket
import urllib.request
from collections.abc import Iterator
from functools import cache
from html import escape
from pathlib import Path
from typing import Any
from urllib.parse import urlencode

import pytest
from selenium import webdriver

from tests.hostile import ADDRESSES, DRAWINGS, MARKUP
from upper_rim.core.exchange.imports.import_pages import digest
from upper_rim.core.exchange.imports.import_picture import Brought, read_brought
from upper_rim.core.fit.rows.fitter import Fitter
from upper_rim.core.kinds.items import ITEM_KINDS
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Set, Together
from upper_rim.core.model.site import Asset, Site
from upper_rim.core.model.tree import find, walk
from upper_rim.core.output.fitting import fitter_of
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.output.page.who import decided
from upper_rim.core.values.rich import RichWords
from upper_rim.core.values.words import Words
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

from .conftest import Browser, Running, plain_chromium, wait_for

LISTEN = "window.__ran = []; window.ran = (what) => window.__ran.push(what); window.alert = window.ran"
TEXTS = {"name", "title", "street", "town", "classes"}


@pytest.fixture(scope="module")
def chromium() -> Iterator[webdriver.Chrome]:
    driver = plain_chromium()
    driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": LISTEN})
    yield driver
    driver.quit()


def text_edits(site: Site, payload: str) -> list[Set]:
    """The payload into every text of every piece, row, item, field, link, entry, look and swatch, whether it is refused
    there or not."""
    edits: list[Set] = []
    holders = (*site.pieces, *site.menus, *site.looks, *site.swatches, *site.bands, *site.pages[:4])
    edits.append(Set(node="site", field="name", value=payload[:110]))
    for node in (below for holder in holders for below in (holder, *walk(holder))):
        for field, value in node:
            if isinstance(value, Words | RichWords):
                edits.append(Set(node=node.id, field=field, value={"text": payload}))
            elif field in TEXTS and isinstance(value, str):
                edits.append(Set(node=node.id, field=field, value=payload[:110]))
    return edits


REFUSED: set[tuple[str, str]] = set()
"""Nodes and fields that have refused something: where the others take all at once, these are tried one by one."""


def accepted(site: Site, edits: list[Set]) -> Together:
    """What of the edits is not refused."""
    likely = [edit for edit in edits if (edit.node, edit.field) not in REFUSED]
    after = apply(site, Together(edits=tuple(likely)))
    found = likely if isinstance(after, Site) else []
    for edit in edits if not found else [one for one in edits if (one.node, one.field) in REFUSED]:
        if isinstance(apply(site, edit), Site):
            found.append(edit)
        else:
            REFUSED.add((edit.node, edit.field))
    return Together(edits=tuple(found))


def taken(site: Site, edits: list[Set]) -> Site:
    after = apply(site, accepted(site, edits))
    assert isinstance(after, Site), after
    return after


@cache
def fitter() -> Fitter:
    return fitter_of(shelf(), ostrey()[1].__getitem__, 2026)


def shown(chromium: webdriver.Chrome, folder: Path, html: bytes) -> list[Any]:
    """What ran on a page once everything on it that can have the focus has had it and every link was pressed."""
    file = folder / "page.html"
    file.write_bytes(html)
    chromium.get(file.as_uri())
    ran: list[Any] = chromium.execute_async_script(
        "const done = arguments[0]; addEventListener('click', (event) => event.target.closest('a') && !/^javascript:/i.test(event.target.closest('a').href) && event.preventDefault(), true);"
        "document.querySelectorAll('a,button,input,[tabindex]').forEach((part) => { part.focus(); if (part.matches('a')) part.click(); });"
        "setTimeout(() => done(window.__ran), 60)"
    )
    return ran


@pytest.mark.parametrize("at", range(len(MARKUP)))
def test_no_text_runs_on_a_published_page(chromium: webdriver.Chrome, tmp_path: Path, at: int) -> None:
    site, contents = ostrey()
    every_kind = {getattr(node, "kind", "") for piece in site.pieces for node in walk(piece)}
    assert every_kind >= set(ITEM_KINDS) - {"divider", "spacer"}, "the demo has every item that says something"
    site = taken(site, text_edits(site, MARKUP[at]))
    composer = Composer(site, shelf(), contents.__getitem__, marks=bool(at % 2), year=2026, fitter=fitter())
    for path in ("/guide/", "/travelling/luggage/"):
        page = next(page for page in site.pages if page.path == path)
        assert page.content
        html = composer.page(page, contents[page.content])
        if not at:
            assert b"&lt;script&gt;" in html, "it is there, as text"
        assert shown(chromium, tmp_path, html) == []
    assert shown(chromium, tmp_path, composer.results_page("en")) == []


@pytest.mark.parametrize("address", ADDRESSES)
def test_no_address_runs_or_leads_where_it_does_not_say(
    chromium: webdriver.Chrome, tmp_path: Path, address: str
) -> None:
    site, contents = ostrey()
    edits: list[Set] = []
    for node in (below for holder in (*site.pieces, *site.menus) for below in walk(holder)):
        fields = type(node).model_fields
        if "target" in fields:
            edits.append(Set(node=node.id, field="target", value={"kind": "address", "address": address}))
        for field in {"address", "own_address"} & fields.keys():
            edits.append(Set(node=node.id, field=field, value=address))
    site = taken(site, edits)
    page = next(page for page in site.pages if page.path == "/travelling/luggage/")
    assert page.content
    html = Composer(site, shelf(), contents.__getitem__, year=2026, fitter=fitter()).page(page, contents[page.content])
    assert shown(chromium, tmp_path, html) == []
    protocols = chromium.execute_script("return [...new Set([...document.links].map((link) => link.protocol))]")
    assert set(protocols) <= {"file:", "http:", "https:", "mailto:", "tel:", "geo:"}
    hosts = chromium.execute_script("return [...document.links].map((link) => link.getAttribute('href'))")
    assert not any(href.startswith(("//", "/\\", "\\")) for href in hosts)


def test_no_drawing_runs_even_where_it_stands_in_a_page(chromium: webdriver.Chrome, tmp_path: Path) -> None:
    refused = 0
    for drawing in DRAWINGS:
        found = read_brought(drawing.encode())
        if not isinstance(found, Brought):
            refused += 1
            continue
        kept = found.data.decode()
        assert "evil.example" not in kept and "javascript" not in kept.lower()
        assert shown(chromium, tmp_path, f"<!doctype html><body>{kept}".encode()) == []
        file = tmp_path / "own.svg"
        file.write_bytes(found.data)
        chromium.get(file.as_uri())
        assert not chromium.execute_script("return window.__ran")
    assert refused == 5
    plain = DRAWINGS[1].encode()
    assert isinstance(read_brought(plain), Brought)
    assert shown(chromium, tmp_path, b"<!doctype html><body>" + plain) == [2], "uncleaned, it would have run"


def test_no_feed_runs_on_a_published_page(chromium: webdriver.Chrome, tmp_path: Path) -> None:
    site, contents = ostrey()
    entries = "".join(
        f"<item><title>{escape(text)}</title><link>{escape(address.strip())}</link></item>"
        for text in MARKUP
        for address in ("https://there.example/", *ADDRESSES[:3])
    )
    feed = f'<?xml version="1.0"?><rss version="2.0"><channel><title>x</title>{entries}</channel></rss>'.encode()
    asset = Asset(id="as-news", path="/news.xml", content=digest(feed), size=len(feed))
    site = site.replaced(assets=tuple(asset if one.id == asset.id else one for one in site.assets))
    site = taken(site, [Set(node="it-news", field="count", value=50)])
    page = next(page for page in site.pages if page.path == "/press/")
    assert page.content
    html = Composer(site, shelf(), {**contents, digest(feed): feed}.__getitem__, year=2026).page(
        page, contents[page.content]
    )
    assert html.count(b'href="https://there.example/"') == len(MARKUP), "what leads elsewhere is left out"
    assert shown(chromium, tmp_path, html) == []


def test_nothing_runs_in_the_studio_or_on_its_stage(browser: Browser) -> None:
    browser.driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": LISTEN})
    browser.sign_in()
    site, _ = ostrey()
    chunks = ["".join(MARKUP[at : at + 4])[:390] for at in range(0, len(MARKUP), 4)]
    sent = [
        dict(zip(("fd-name", "fd-what"), pair, strict=True)) for pair in zip(chunks[::2], chunks[1::2], strict=True)
    ]
    browser.go(browser.running.live("ostrey") + "/travelling/luggage/")
    for answers in sent:
        form = {**answers, "fd-mail": "a@b.example", "language": "en"}
        told = browser.driver.execute_async_script(
            "const done = arguments[1]; fetch('/_rim/forms/it-help-form/', {method: 'POST', body: new URLSearchParams(arguments[0])}).then((answer) => done([answer.status, answer.redirected]))",
            form,
        )
        assert told == [200, True]
    for payload in MARKUP:
        browser.go(f"{browser.running.live('ostrey')}/search/?{urlencode({'q': payload})}")
        assert browser.js("return window.__ran") == []
    with browser.running.undone_afterwards("ostrey"):
        browser.go("/s/ostrey/foundations/code/")
        for chunk in chunks:
            edits = accepted(site, text_edits(site, chunk))
            assert len(edits.edits) > 60
            browser.posted({"do": "edit", "edit": json.dumps(edits.model_dump(mode="json"))})
        for path in (
            "pieces/pc-help/?select=it-help-form",
            "pieces/pc-footer/?select=it-about",
            "pieces/",
            "menus/mn-main/",
            "foundations/",
            "foundations/looks/",
            "inbox/",
            "pages/",
            "editions/",
        ):
            browser.go(f"/s/ostrey/{path}")
            if path.startswith("pieces"):
                assert "ran(" in browser.js("return document.body.innerText"), "it is there, as text"
            assert browser.js("return window.__ran") == [], path
            if path.startswith("inbox"):
                assert len(browser.all("message-received")) >= len(sent)
                assert "onerror=ran(3)" in browser.js("return document.body.innerText")
        browser.go("/s/ostrey/pieces/pc-help/")
        with browser.on_stage() as stage:
            wait_for(lambda: stage.execute_script("return document.querySelector('form[action*=forms]') !== null"))
            foreign = "script:not([src], [type='application/ld+json'], [data-rim-out], [data-rim-waits]), iframe, object, embed, base, [onerror], [onload], [onfocus], [ontoggle], img[src=x]"
            assert (
                stage.execute_script(
                    'return [...document.querySelectorAll(arguments[0])].map((one) => one.outerHTML.slice(0, 300) + " IN " + one.parentElement.outerHTML.slice(0, 300))',
                    foreign,
                )
                == []
            )
            marks = "return [...document.querySelectorAll('script[data-rim-out]')].map((one) => [one.textContent, one.dataset.rimOut])"
            assert stage.execute_script(marks) == [[decided(()).partition(">")[2].removesuffix("</script>"), ""]]
        assert not [line for line in browser.driver.get_log("browser") if "ran is not defined" in line["message"]]
        assert find(site, "it-help-form") is not None


HALF_OPEN = {
    "nothing": "",
    "headers": "GET / HTTP/1.1\r\nHost: localhost:{port}\r\nX-A: ",
    "bodies": (
        "POST /account/sign-in/ HTTP/1.1\r\nHost: localhost:{port}\r\nContent-Length: 3000\r\n"
        "Content-Type: application/x-www-form-urlencoded\r\n\r\na=1"
    ),
}


@pytest.mark.parametrize("kind", HALF_OPEN)
def test_fifty_requests_that_never_end_keep_nobody_else_waiting(running: Running, kind: str) -> None:
    """They hold their threads until their senders have said nothing for a quarter of a minute."""
    opened = [socket.create_connection(("127.0.0.1", running.port)) for _ in range(50)]
    try:
        for one in opened:
            one.sendall(HALF_OPEN[kind].format(port=running.port).encode())
        for _ in range(8):
            with urllib.request.urlopen(f"{running.studio}/account/sign-in/", timeout=12) as answer:
                assert answer.status == 200
    finally:
        for one in opened:
            one.close()

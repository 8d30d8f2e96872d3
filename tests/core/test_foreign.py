"""What a page fetches from others is found in any spelling, held back without a byte of its own being changed, and can be
taken out again."""

from __future__ import annotations

from collections.abc import Callable
from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.consent_judge import BODY, HEAD, PATHS, QUIET, asking
from upper_rim.core.exchange.html.encoding import insertion, sniff
from upper_rim.core.exchange.html.foreign import foreign_in, host_of, hosts_in, waiting
from upper_rim.core.exchange.html.markers import has_stray_marks, strip
from upper_rim.core.exchange.html.source_tags import attributes, tokens
from upper_rim.core.exchange.imports.import_pages import described_page
from upper_rim.core.model.site import Page


def held_back(content: bytes) -> bytes:
    """All that waits, for one category."""
    label = sniff(content).label
    put = sorted(
        (place for fetch in foreign_in(content) for place in waiting(fetch.how, fetch.at, "statistics")),
        key=lambda one: one[0],
    )
    parts, at = [], 0
    for place, text in put:
        parts += [content[at:place], insertion(text, label)]
        at = place
    return b"".join([*parts, content[at:]])


@pytest.mark.parametrize("at", range(len(HEAD) + len(BODY)))
@pytest.mark.parametrize("encoding", ["utf-8", "utf-16le", "utf-16be"])
def test_every_way_to_fetch_is_found_and_held_back_in_every_encoding(at: int, encoding: str) -> None:
    markup = [*HEAD, *BODY][at]("h.example")
    bom = {"utf-16le": b"\xff\xfe", "utf-16be": b"\xfe\xff"}.get(encoding, b"")
    content = bom + f"<!DOCTYPE html><title>é</title><body>{markup}<p>End</p>".encode(encoding)
    assert {host for fetch in foreign_in(content) for host in fetch.hosts} == {"h.example"}
    waits = held_back(content)
    assert waits != content and strip(waits) == content
    assert not has_stray_marks(content, sniff(content)) and has_stray_marks(waits, sniff(content))


@pytest.mark.parametrize("markup", QUIET)
def test_what_nobody_fetches_is_left(markup: Callable[[str], str]) -> None:
    assert foreign_in(f"<!DOCTYPE html><title>T</title>{markup('h.example')}".encode()) == ()


@pytest.mark.parametrize(
    ("address", "host"),
    [
        ("//h.example/x", "h.example"),
        ("HTTPS://H.Example:8443/x", "h.example"),
        ("https:h.example", "h.example"),
        ("\\\\h.example\\x", "h.example"),
        (" \t\nht\ttp:/\n/h.example", "h.example"),
        ("//me:pass@h.example/", "h.example"),
        ("///h.example", "h.example"),
        ("//ｈ.example。/", "h.example"),
        ("//h%2eexample/", "h.example"),
        ("//bücher.example/", "xn--bcher-kva.example"),
        ("wss://h.example", "h.example"),
        ("/x//h.example", None),
        ("x.html?u=//h.example", None),
        ("mailto:us@h.example", None),
        ("data:text/html,//h.example", None),
        ("", None),
        ("//", None),
        ("//[::1]/", ""),
        ("//a b/", ""),
    ],
)
def test_addresses_name_the_host_that_browsers_ask(address: str, host: str | None) -> None:
    assert host_of(address) == host


def test_a_base_elsewhere_makes_all_addresses_without_a_host_its_own() -> None:
    content = b"<base href='https://h.example/'><img src=a.png><img src='data:image/gif;base64,R0'><a href=x>x</a>"
    (fetch,) = foreign_in(content)
    assert fetch.hosts == ("h.example",) and len(fetch.at) == 1


@pytest.mark.parametrize(
    ("css", "hosts"),
    [
        ('p::before{content:"\\"";background:url("//a.example/x")}', {"a.example"}),
        ('p::before{content:"/*";background:url(//a.example/x);quotes:"*/" "x"}', {"a.example"}),
        ("/* url(//a.example/x) */ p{color:red}", set()),
        ('@import/**/"//a.example/x.css" screen;@import url(//b.example/y.css);', {"a.example", "b.example"}),
        ('@namespace svg url(http://a.example/svg);p{background:image-set("//b.example/1.png" 1x)}', {"b.example"}),
        ("p{background:\\75\\72 l(//a.example/x)}", {"a.example"}),
        ("p{background:url(\\2f\\2f a.example/x)}", {"a.example"}),
        ("@media (width > 1px){@font-face{src:url(x.woff2),url('//a.example/f')}}", {"a.example"}),
        ("p{background:url(//a.example/x", {"a.example"}),
        ("p{background:url(x.png);content:'or a//b'}", set()),
    ],
)
def test_style_sheets_are_read_by_their_syntax(css: str, hosts: set[str]) -> None:
    for content in (f"<style>{css}</style>", f"<style>{css}"):
        assert {host for fetch in foreign_in(content.encode()) for host in fetch.hosts} == hosts


def test_what_only_some_fetch_says_so() -> None:
    found = foreign_in(
        b"<noscript><img src=//a.example/></noscript><script src=//b.example/></script><img src=//c.example/>"
    )
    assert {fetch.hosts[0]: (fetch.is_for(has_script=True), fetch.is_for(has_script=False)) for fetch in found} == {
        "a.example": (False, True), "b.example": (True, False), "c.example": (True, True),
    }  # fmt: skip


@pytest.mark.parametrize("seed", range(30))
def test_no_byte_of_generated_pages_is_changed(seed: int) -> None:
    site, contents = asking(seed)
    for page in site.pages:
        content = contents[str(page.content)]
        waits = held_back(content)
        assert strip(waits) == content
        kept = [byte for byte in content if byte > 0x20]
        rest = iter(waits)
        assert all(byte in rest for byte in kept), "what is put in stands between its own bytes"


@given(st.text(st.sampled_from("<>/\\\"'= \n\tsrcimgbodytyle:&#;!-hp.e@()*{}"), max_size=120), st.integers(0, 10**6))
def test_whatever_a_page_is_like_what_is_put_in_comes_out_again(text: str, seed: int) -> None:
    markup = Random(seed).choice([*HEAD, *BODY])("h.example")
    for source in (text + markup, markup + text, f"<p {text}>{markup}"):
        content = source.encode()
        if not has_stray_marks(content, sniff(content)):
            assert strip(held_back(content)) == content
        for token in tokens(source):
            assert all(token.start < said.at < token.end for said in attributes(source, token) if token.kind == "start")


def test_a_page_that_has_such_marks_itself_is_carried_as_it_is() -> None:
    page = described_page(Page(id="pg-1", path=PATHS[1]), b"<title>T</title><img data-rim-then-src=//h.example/>")
    assert page.splice is None and "half a mark" in page.remark


def test_what_is_alike_is_told_once() -> None:
    content = b"".join(f'<img src="//h{at % 9}.example/p.gif" alt="">'.encode() for at in range(2_000))
    found = foreign_in(content)
    assert len(found) == 9 and sum(len(fetch.at) for fetch in found) == 2_000


def test_a_snippets_hosts_are_those_that_it_names() -> None:
    assert hosts_in("<script>load('https:\\/\\/a.example\\/x', `//b.example/`)</script>") == {"a.example", "b.example"}

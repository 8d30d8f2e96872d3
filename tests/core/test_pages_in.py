"""Bringing pages in: what a browser would read, byte for byte what came, nothing that does harm."""

from __future__ import annotations

import io
import itertools
import stat
import zipfile
from functools import partial

import html5lib
import pytest
from selectolax.lexbor import LexborHTMLParser

from tests.broken_pages import BROKEN, OTHER_FILES, WITHOUT_PLACE, archive
from tests.folder import taken_away
from upper_rim.core.exchange.html.anatomy import anatomy, places_hold
from upper_rim.core.exchange.html.encoding import decode, sniff
from upper_rim.core.exchange.html.lifting import cuts as cuts_of
from upper_rim.core.exchange.html.lifting import find_in_page, selector_fault, without_cuts
from upper_rim.core.exchange.html.markers import strip
from upper_rim.core.exchange.html.source_tags import tokens
from upper_rim.core.exchange.imports.import_pages import (
    ArchiveEntry,
    BrokenArchive,
    Incoming,
    Problem,
    files_of_zip,
    read_files,
    read_sitemap,
    site_path,
)
from upper_rim.core.kinds.items.text import TextItem
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.model.navigation.renewed import renewed
from upper_rim.core.model.navigation.unsaid import likely_languages
from upper_rim.core.model.site import Asset, Page, Site
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.values.words import Words
from upper_rim.shipped import shelf


def brought_in(data: bytes) -> tuple[list[Incoming], list[Problem]]:
    count = itertools.count()
    problems: list[Problem] = []
    entries = files_of_zip(io.BytesIO(data), problems)
    return list(read_files(entries, lambda prefix: f"{prefix}-{next(count)}", "en", (), problems)), problems


SITE = Site(
    key="qtest",
    name="T",
    pieces=(Header(id="pc-1", name="H", rows=(Row(id="rw-1"),), reach=(ReachRule(id="rr-1"),)),),
)


@pytest.mark.parametrize("name", BROKEN)
def test_a_broken_page_gets_its_piece_first_and_comes_back_byte_for_byte(name: str) -> None:
    came = strip(BROKEN[name])
    found = anatomy(came)
    page = Page(id="pg-1", path="/x.html", content="0" * 64, splice=found.splice)
    published = Composer(SITE, shelf()).page(page, came)
    assert strip(published) == came
    assert (found.splice is None) == (name in WITHOUT_PLACE)
    if found.splice is None:
        assert published == came
        assert found.remark
        return
    read = LexborHTMLParser(
        decode(published, sniff(published).label).replace("<noscript><img src=a.png></noscript>", "")
    )
    assert read.body is not None
    first = [(one.tag, "qtest" in (one.attributes["class"] or "")) for one in read.css("body > *")[:2]]
    assert first == [("div", True), ("header", True)], "the way past it, and the header"
    assert read.css_first("link[href^='/_rim/']") is not None
    assert len(read.css("header.qtest")) == 1
    assert sniff(published) == sniff(came), "the declaration of the encoding must stay within reach"


@pytest.mark.parametrize("name", BROKEN)
def test_places_that_are_said_of_a_page_are_those_that_are_found(name: str) -> None:
    came = strip(BROKEN[name])
    splice = anatomy(came).splice
    assert splice is None or places_hold(came, splice)
    assert splice is None or not places_hold(came + b"<p>x</body>", splice.replaced(encoding="big5"))


TRICKY = (
    "<!doctype html><html lang=en><head><title>a <b> c</title><style>p>a{}</style><script>'<p>'</script></head>"
    "<!-- <body> --><body title='>'><p id=a>Words <b>more</p><textarea><p>x</textarea><table><tr><td>y</table></body></html>"
)


@pytest.mark.parametrize("field", ["head_at", "body_at", "end_at"])
def test_places_said_within_tags_scripts_titles_or_tables_are_refused(field: str) -> None:
    """At each byte. html5lib says whether what is put in there stands where it is meant to, and moves nothing."""
    found = anatomy(TRICKY.encode()).splice
    assert found is not None and found.end_at is not None
    holds = 0
    for at in range(len(TRICKY) + 1):
        said = found.replaced(**{field: at, "wraps": False})
        if not said.head_at <= said.body_at <= (said.end_at or 0) or not places_hold(TRICKY.encode(), said):
            continue
        holds += 1
        probe = "<link rel=x-probe>" if field == "head_at" else "<footer id=x-probe></footer>"
        tree = html5lib.parse(TRICKY[:at] + probe + TRICKY[at:], namespaceHTMLElements=False)
        parent = tree.find("head" if field == "head_at" else "body")
        (put,) = [one for one in parent if "x-probe" in one.attrib.values()]
        assert field == "head_at" or put is parent[0 if field == "body_at" else -1], at
        parent.remove(put)
        alone = html5lib.parse(TRICKY, namespaceHTMLElements=False)
        assert [(one.tag, one.attrib) for one in tree.iter()] == [(one.tag, one.attrib) for one in alone.iter()], at
    assert holds


def test_an_archive_gives_pages_with_titles_and_languages_and_a_report() -> None:
    incoming, problems = brought_in(archive(folder="site/"))
    pages = {item.value.path: item.value for item in incoming if isinstance(item.value, Page)}
    assets = {item.value.path for item in incoming if isinstance(item.value, Asset)}
    assert len(pages) == len(BROKEN)
    assert assets == {"/" + name for name in OTHER_FILES}
    assert pages["/"].title == "Front" and pages["/"].language == "en"
    assert pages["/nested/"].title == "Nested"
    assert "/with%20space.html" in pages and "/100%25.html" in pages
    assert pages["/utf16le.html"].title == "Sixteen ŵ 🚢"
    assert pages["/shift-jis.html"].title == "船の時刻表ソ"
    assert pages["/windows1251.html"].title == "Паром"
    assert pages["/svg.html"].title == "Inline SVG"
    assert {name for name, _ in problems} == {"site/frameset.html", "site/broken-mark.html"}


def hostile(entries: list[tuple[zipfile.ZipInfo | str, bytes]]) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        for entry, content in entries:
            packed.writestr(entry, content)
    return out.getvalue()


def test_archives_are_not_trusted() -> None:
    link = zipfile.ZipInfo("link.html")
    link.external_attr = (stat.S_IFLNK | 0o777) << 16
    data = hostile(
        [
            ("../up.html", b"x"),
            ("/abs.html", b"x"),
            ("a/../../up.html", b"x"),
            ("C:\\win.html", b"x"),
            ("..\\..\\win.html", b"x"),
            (link, b"/etc/passwd"),
            ("bomb.html", b"a" * 8_000_000),
            ("good.html", b"<p>good"),
            ("Good.html", b"<p>twice on some disks"),
            ("_rim/own.css", b"x"),
            ("__MACOSX/good.html", b"x"),
            (".DS_Store", b"x"),
        ]
    )
    incoming, problems = brought_in(data)
    assert [item.value.path for item in incoming] == ["/good.html", "/Good.html"]
    assert len(problems) == 8
    assert all(problem.reason.endswith(".") for problem in problems)


@pytest.mark.parametrize("data", [b"", b"PK\x03\x04 cut off", b"<html>", archive()[:-400]])
def test_what_is_no_archive_is_refused_as_a_whole(data: bytes) -> None:
    with pytest.raises(BrokenArchive, match="ZIP"):
        brought_in(data)


def test_a_damaged_entry_is_reported_and_the_rest_comes_in() -> None:
    data = bytearray(hostile([("a.html", b"<p>" + bytes(range(200)) * 9), ("b.html", b"<p>b")]))
    data[60:90] = b"\x00" * 30
    incoming, problems = brought_in(bytes(data))
    assert [item.value.path for item in incoming] == ["/b.html"]
    assert [name for name, _ in problems] == ["a.html"]


def test_names_become_paths_and_never_climb() -> None:
    assert site_path("a b/c#d?.html") == "/a%20b/c%23d%3F.html"
    assert site_path("./a//b.html") == "/a/b.html"
    for name in ("../a", "/a", "a/../b", "..", "", "a\x00b", "C:/a"):
        assert site_path(name) is None


def test_a_sitemap_gives_paths_whose_pages_are_still_to_come() -> None:
    text = b"""<?xml version="1.0"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">
    <url><loc>https://ferries.example/</loc></url><url><loc> https://ferries.example/fares </loc></url>
    <url><loc>https://ferries.example/a/b.html?x=1</loc></url><url><loc>javascript:alert(1)</loc></url>
    <url><loc>https://ferries.example/../x</loc></url></urlset>"""
    paths, problems = read_sitemap(text)
    assert paths == ["/", "/fares/", "/a/b.html"]
    assert len(problems) == 2
    bomb = b'<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><urlset><url><loc>&b;</loc></url></urlset>'
    assert read_sitemap(bomb)[0] == [] and read_sitemap(bomb)[1]
    assert read_sitemap(b"<urlset><url>")[1]


@pytest.mark.parametrize(
    ("selector", "gone"),
    [
        ("header.old", [b'<header class="old"><p>One<p>Two<header>in</header></header>']),
        ("main > p", [b"<p class=q>p1", b"<p>p2"]),
        ("#nav", [b"<nav id=nav><ul><li>a<li>b</ul></nav>"]),
        ("li", [b"<li>a", b"<li>b"]),
        ("img", [b"<img src='a>b.png'>"]),
        ("table", [b"<table><tr><td>1</table>"]),
    ],
)
def test_lifting_finds_the_bytes_of_what_a_selector_matches(selector: str, gone: list[bytes]) -> None:
    page = (
        b'<!doctype html><title>x</title><body><!-- <header> --><header class="old"><p>One<p>Two<header>in</header></header>'
        b"<nav id=nav><ul><li>a<li>b</ul></nav><main><p class=q>p1<p>p2<img src='a>b.png'></main><table><tr><td>1</table><p>end"
    )
    if selector == "main > p":
        gone = [b"<p class=q>p1", b"<p>p2<img src='a>b.png'>"]
    found = find_in_page(page, selector).found
    assert [page[part.start : part.end] for part in found] == gone
    rest = without_cuts(page, cuts_of(page, {"lf-1": selector}))
    for part in gone:
        assert part not in rest


def test_what_cannot_be_lifted_cleanly_is_left_with_a_reason() -> None:
    page = b"<main><div class=open>rest <b>x</main><table><tr><td>1</table><p>y"
    assert find_in_page(page, ".open").faults
    assert "adds it by itself" in find_in_page(page, "tbody").faults[0]
    assert find_in_page(page, "body").faults
    assert selector_fault("a[") and selector_fault("p{}") and selector_fault("header.old") is None


@pytest.mark.parametrize("name", ["utf16le.html", "utf16be.html", "index.html", "bom.html"])
def test_lifting_works_in_every_encoding_and_beside_pieces(name: str) -> None:
    came = BROKEN[name]
    found = anatomy(came)
    cut = cuts_of(came, {"lf-1": "#old"})
    assert len(cut) == 1
    page = Page(id="pg-1", path="/x.html", content="0" * 64, splice=found.splice, cuts=cut)
    published = Composer(SITE, shelf()).page(page, came)
    assert strip(published) == without_cuts(came, cut)
    text = decode(published, sniff(published).label)
    assert "Old site" not in text and "<h1>" in text


@pytest.mark.parametrize(
    "name", ["shift-jis.html", "latin1.html", "iso-2022-jp.html", "utf16be.html", "windows1251.html"]
)
def test_words_that_a_pages_encoding_lacks_are_read_all_the_same(name: str) -> None:
    words = "ثلاث سفن · Ŵy & <b> 🚢"
    item = TextItem(id="it-1", words=Words(text=words))
    row = Row(id="rw-1", cells=(Cell(id="cl-1", items=(item,)),))
    site = SITE.replaced(pieces=(SITE.pieces[0].replaced(rows=(row,)),))
    came = BROKEN[name]
    page = Page(id="pg-1", path="/x.html", content="0" * 64, splice=anatomy(came).splice)
    published = Composer(site, shelf()).page(page, came)
    shown = LexborHTMLParser(decode(published, sniff(came).label)).css_first("header .qtest-text")
    assert shown is not None and shown.text() == words


SAID = {
    "plain tags": ("<p a=1>x</p>", ["start p", "end p"]),
    "a quoted >": ("<a title='>' b=\">\">x", ["start a"]),
    "an unfinished tag": ("<p>x<a href='", ["start p"]),
    "raw text": (
        "<script>'<p>'</script><title><b></title><p>",
        ["start script", "end script", "start title", "end title", "start p"],
    ),
    "a script in a script": ("<script><!--<script></script>--></script><p>", ["start script", "end script", "start p"]),
    "a comment in a script": ("<script><!-- x </script><p>", ["start script", "end script", "start p"]),
    "comments": ("<!--a--><!--><!---><!-- <p> --!><p>", ["comment ", "comment ", "comment ", "comment ", "start p"]),
    "bogus comments": ("<?x?><!y></ z></><p>", ["comment ", "comment ", "comment ", "comment ", "start p"]),
    "a doctype": ("<!DOCTYPE html><HTML>", ["doctype ", "start html"]),
    "no tags": ("a < b <3 <", []),
    "plaintext": ("<plaintext></plaintext><p>", ["start plaintext"]),
    "an odd end": ("</title ><p/>", ["end title", "start p"]),
}


@pytest.mark.parametrize("name", SAID)
def test_tags_are_found_as_the_standard_tokenizes_them(name: str) -> None:
    source, said = SAID[name]
    found = list(tokens(source))
    assert [f"{token.kind} {token.name}" for token in found] == said
    assert all(source[token.start] == "<" and source[token.end - 1] == ">" for token in found)


@pytest.mark.parametrize(
    ("body", "expected"),
    [
        ("<main><form><input name=who></form></main>", True),
        ("<header><form><input name=q></form></header><main><p>x</main>", False),
        ("<main><form role=search><input name=q></form></main>", False),
        ("<main><search><form><input name=q></form></search></main>", False),
        ("<nav><form></form></nav><div><form><input name=who></form></div>", True),
        ("<p>x<!-- <form></form> --><script>'<form>'</script>", False),
    ],
)
def test_a_page_tells_whether_it_has_a_form_to_be_filled_in(body: str, expected: bool) -> None:
    found = anatomy(f"<!doctype html><title>T</title><body>{body}".encode())
    assert found.splice is not None and found.splice.has_form is expected


NAMES = (
    *("LICENSE", "Makefile", "CNAME", "_headers", ".nojekyll", ".htaccess", ".well-known/security.txt", "a.b/c", "v1.0/x"),
    *("A.png", "a.png", "A B.html", "a b.html", "Index.html", "dir.html/file.txt", "no/index.html", "page.xhtml", "x.HTML5"),
    *("a%20b.txt", "q?x.html", "h#y.html", "e\u0301.html", "\u00e9.html", "semi;colon.html", "con.txt", "trailing./x"),
)  # fmt: skip


def test_nothing_is_renamed_and_nothing_lost() -> None:
    files = {name: f"<!doctype html><title>{name}</title><p>x".encode() for name in NAMES}
    problems: list[Problem] = []
    count = itertools.count()
    entries = [ArchiveEntry(name, partial(bytes, data)) for name, data in files.items()]
    came = list(read_files(entries, lambda prefix: f"{prefix}-{next(count)}", "en", (), problems))
    values = sorted((one.value for one in came), key=lambda value: value.path)
    site = Site(
        key="qtest",
        name="Of others",
        pages=tuple(value for value in values if isinstance(value, Page)),
        assets=tuple(value for value in values if isinstance(value, Asset)),
    )
    out = taken_away(site, {one.value.content or "": one.content for one in came})
    assert {name: out.get(name) for name in NAMES} == files
    assert len(problems) == 2 and all("in capitals only" in one.reason for one in problems)


def test_a_link_within_an_archive_is_the_file_that_it_leads_to() -> None:
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w") as written:
        written.writestr("look/site.css", "body{margin:0}")
        for name, there in {
            "site.css": "look/site.css",
            "twice.css": "./site.css",
            "out.css": "../../etc/passwd",
            "round.css": "round.css",
            "nowhere.css": "no.css",
        }.items():
            link = zipfile.ZipInfo(name)
            link.external_attr = 0o120777 << 16
            written.writestr(link, there)
    problems: list[Problem] = []
    found = {entry.name: entry.read() for entry in files_of_zip(packed, problems)}
    assert found == dict.fromkeys(("look/site.css", "site.css", "twice.css"), b"body{margin:0}")
    assert {one.name for one in problems} == {"out.css", "round.css", "nowhere.css"}


def test_pages_that_say_no_language_are_in_that_of_their_folder_where_folders_are_languages() -> None:
    def languages(*names: str) -> dict[str, str]:
        page = b"<!doctype html><title>x</title><p>x"
        entries = [ArchiveEntry(f"site/{name}", lambda: page) for name in names]
        count = itertools.count()
        came = read_files(entries, lambda prefix: f"{prefix}-{next(count)}", "en", (), [])
        return {one.value.path: one.value.language for one in came if isinstance(one.value, Page)}

    alike = ("index.html", "fares.html", "a/b.html")
    found = languages(*alike, *(f"{folder}/{name}" for folder in ("de", "fa-IR", "pt_BR", "xx") for name in alike))
    assert {path: tag for path, tag in found.items() if path.endswith("fares.html")} == {
        "/fares.html": "en",
        "/de/fares.html": "de",
        "/fa-IR/fares.html": "fa-IR",
        "/pt_BR/fares.html": "pt-BR",
        "/xx/fares.html": "en",
    }
    apart = languages(
        "index.html", "it/index.html", "it/printers.html", "hr/index.html", "hr/holidays.html", "no/x.html"
    )
    assert set(apart.values()) == {"en"}, "two departments, and an answer"


SPOKEN = {
    "cy": "Mae'r fferi yn gadael bob awr rhwng saith y bore a naw yr hwyr. Prynwch eich tocyn ar y cei cyn i chi hwylio.",
    "de": "Die Fähre fährt stündlich zwischen sieben Uhr morgens und neun Uhr abends. Karten gibt es am Anleger.",
    "fr": "Le bac part toutes les heures entre sept heures du matin et neuf heures du soir. Les billets sont vendus à quai.",
    "ar": "تغادر العبارة كل ساعة من السابعة صباحا حتى التاسعة مساء، وتباع التذاكر على الرصيف قبل الإبحار، ويمكن للأطفال السفر مجانا مع والديهم.",
    "fa": "کشتی هر ساعت از هفت صبح تا نه شب حرکت می‌کند و بلیت در اسکله فروخته می‌شود. کودکان رایگان سفر می‌کنند.",
    "ja": "フェリーは朝七時から夜九時まで毎時間出発します。切符は埠頭の窓口で買うことができます。子供は大人と一緒なら無料で乗れます。天気が悪い日は運航を中止することがあります。",
    "el": "Τα πλοία φεύγουν κάθε ώρα από τις επτά το πρωί μέχρι τις εννέα το βράδυ. Τα εισιτήρια πωλούνται στην προβλήτα.",
    "en": "Ferries leave every hour between seven in the morning and nine at night, and tickets are sold on the quay.",
}
UNTOLD = (
    "Home About Contact",
    "npm install; const x = require('y')",
    "Lorem ipsum dolor sit amet, consectetur adipiscing elit, sed do eiusmod tempor incididunt ut labore et dolore.",
    "Aldo Brun, Mira Castel, Tor Lindqvist, Ewa Nowak, Jan de Vries, Ilse Baum, Pia Holm, Otto Krantz",
)


@pytest.mark.parametrize("tag", SPOKEN)
def test_pages_that_say_no_language_are_read_for_it(tag: str) -> None:
    (page,) = pages_of(f"<p>{SPOKEN[tag]}")
    assert (page.language, page.likely) == ("en", tag)
    assert [*likely_languages((page,))] == ([] if tag == "en" else [tag])
    (said,) = pages_of(f"<p>{SPOKEN[tag]}", root='<html lang="nl">')
    assert (said.language, said.likely) == ("nl", "")


@pytest.mark.parametrize("text", UNTOLD)
def test_of_too_few_words_no_language_is_proposed(text: str) -> None:
    (page,) = pages_of(f"<p>{text}")
    assert page.likely == "und" and not likely_languages((page,))


def test_menus_around_the_content_do_not_count_for_its_language() -> None:
    (page,) = pages_of(f"<nav><ul><li>{SPOKEN['en'] * 9}</ul></nav><main><p>{SPOKEN['cy']}</main><p>{SPOKEN['en']}")
    assert page.likely == "cy"


def test_what_was_said_of_a_language_by_hand_stays_when_pages_come_in_again() -> None:
    old = [one.replaced(language="cy", likely="") for one in pages_of(f"<p>{SPOKEN['cy']}", f"<p>{SPOKEN['de']}")]
    came = renewed(pages_of(f"<p>{SPOKEN['cy']}!", f"<p>{SPOKEN['de']}!"), old)
    assert [(page.language, page.likely) for page in came] == [("cy", "")] * 2
    asked = renewed(pages_of(f"<p>{SPOKEN['cy']}!"), pages_of(f"<p>{SPOKEN['cy']}"))
    assert [(page.language, page.likely) for page in asked] == [("en", "cy")]


def pages_of(*bodies: str, root: str = "") -> list[Page]:
    """As they come in."""
    entries = [
        ArchiveEntry(f"site/{at}.html", f"<!doctype html>{root}<title>x</title>{body}".encode)
        for at, body in enumerate(bodies)
    ]
    came = read_files([*entries, ArchiveEntry("x.css", bytes)], "{}-1".format, "en", (), [])
    return [one.value for one in came if isinstance(one.value, Page)]

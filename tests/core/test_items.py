"""What items are made of: search, forms, feeds, pictures, shared rows, the title as a heading."""

from __future__ import annotations

import io
import re

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image
from pydantic import JsonValue

from tests.hostile import DRAWINGS
from tests.nodes import node_in
from upper_rim.core.exchange.carrying import carried, needed
from upper_rim.core.exchange.imports.feed import FeedFault, read_feed
from upper_rim.core.exchange.imports.import_pages import digest
from upper_rim.core.exchange.imports.import_picture import LONGEST_SIDE, Brought, PictureFault, read_brought
from upper_rim.core.kinds.items.form import Form
from upper_rim.core.kinds.pieces.drawer import Drawer
from upper_rim.core.model.editing.apply import apply, inverse
from upper_rim.core.model.editing.edits import Add, Edit, Remove, Set, Together
from upper_rim.core.model.editing.refusal import Refusal
from upper_rim.core.model.site import Asset, Site
from upper_rim.core.output.css.sheet import sheet
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.output.publication import publication
from upper_rim.core.output.search.search_index import (
    PageText,
    Searched,
    index_files,
    made_index,
    plain,
    read_index,
    search,
    text_of,
    words_of,
)
from upper_rim.demo import ostrey, quillwort
from upper_rim.demo.ostrey_pieces import NEWS_FEED
from upper_rim.shipped import shelf

SITE, CONTENTS = ostrey()
WORDS = st.sampled_from(
    [
        "Öre",
        "ore",
        "Ørsted",
        "straße",
        "Strasse",
        "ﬁn",
        "fine",
        "قارِب",
        "قارب",
        "tide",
        "tidal",
        "24",
        "o",
        "x-ray",
        "Ⅳ",
    ]
)
TEXTS = st.lists(WORDS, max_size=6).map(" ".join)


def changed(*edits: Edit) -> Site:
    after = apply(SITE, Together(edits=edits))
    assert isinstance(after, Site), after
    return after


def page_of(site: Site, path: str, contents: dict[str, bytes] = CONTENTS, *, marks: bool = False) -> str:
    page = next(page for page in site.pages if page.path == path)
    assert page.content
    composer = Composer(site, shelf(), contents.__getitem__, marks=marks, year=2026)
    return composer.page(page, contents[page.content]).decode()


@settings(max_examples=150, deadline=None)
@given(st.lists(st.tuples(TEXTS, TEXTS), max_size=9), st.text("aeioOÖößfst 2٤قر", max_size=5))
def test_the_index_finds_what_looking_through_all_pages_finds(pages: list[tuple[str, str]], query: str) -> None:
    listed = [PageText(f"/{at}/", title, text) for at, (title, text) in enumerate(pages)]
    index = made_index(listed)
    hits = search(index, query)
    found = {hit.path for hit in hits}
    assert len(hits) == len(found)
    for part, state in ((1, ""), (9, "q1"), (40, "q2")):
        searched = Searched(index_files(index, state, whole_up_to=0, part=part).__getitem__)
        assert searched.pages(searched.find(query)) == hits, "in parts as whole"
    wanted = words_of(query)
    has = {
        page.path
        for page in listed
        if wanted and all(any(word.startswith(one) for word in words_of(f"{page.title} {page.text}")) for one in wanted)
    }
    assert found == has


@given(
    st.lists(st.tuples(TEXTS, TEXTS), min_size=1, max_size=6),
    st.lists(st.tuples(st.integers(0, 5), TEXTS, TEXTS), max_size=3),
)
def test_an_index_whose_pages_changed_is_the_one_that_is_made_of_them(
    pages: list[tuple[str, str]], changes: list[tuple[int, str, str]]
) -> None:
    before = [PageText(f"/{at}/", title, text) for at, (title, text) in enumerate(pages)]
    now = list(before)
    for at, title, text in changes:
        now[at % len(now)] = PageText(f"/{at % len(now)}/", title, text)
    changed = {at: pair for at, pair in enumerate(zip(before, now, strict=True)) if pair[0] != pair[1]}
    for whole_up_to, part in ((0, 1), (0, 12), (10_000, 0)):
        kept = index_files(made_index(before), "q1", whole_up_to=whole_up_to, part=part)
        renewed = read_index(kept.__getitem__).with_changed(changed)
        anew = index_files(made_index(now), "q2", whole_up_to=whole_up_to, part=part)
        assert index_files(renewed, "q2", whole_up_to=whole_up_to, part=part) == anew


def test_accents_and_case_count_for_nothing_and_titles_come_first() -> None:
    assert plain("ÉCLAIR ﬁne Straße") == "eclair fine strasse"
    index = made_index([PageText("/a/", "Sea", "the quay"), PageText("/b/", "Quay", "the sea")])
    assert [hit.path for hit in search(index, "QUÁ")] == ["/b/", "/a/"]
    assert text_of("<p>one<script>two</script><style>three</style>") == "one"


def test_the_index_names_pages_of_its_language_only_and_nothing_that_pieces_say() -> None:
    files = {file.name: file.data for file in publication(SITE, shelf(), CONTENTS.__getitem__, year=2026)}
    indexes = {name: data.decode() for name, data in files.items() if name.startswith("_rim/search-")}
    assert len(indexes) == len({page.language for page in SITE.pages}) == 4
    english = next(data for name, data in indexes.items() if "search-en." in name)
    searched = Searched({"": english}.__getitem__)
    assert "/de/" not in english and not searched.find("Copyright")
    assert [hit.path for hit in searched.pages(searched.find("smokehouse"))] == ["/harbours/"]
    assert b"data-rim-results" in files["search/index.html"] and "search/de/index.html" in files


def test_answers_are_checked_again_where_the_browser_did_not() -> None:
    form = node_in(SITE, "it-help-form")
    assert isinstance(form, Form)
    good = {"fd-name": "Maud", "fd-mail": "m@post.example", "fd-ship": "Eider", "fd-what": "a harp"}
    assert form.faults(good, "en") == [] == form.faults({**good, "fd-ship": ""}, "en")
    for field, answer in (("fd-name", " "), ("fd-mail", "nowhere"), ("fd-ship", "Titanic"), ("fd-what", "x" * 6000)):
        assert len(form.faults({**good, field: answer}, "en")) == 1
    assert len(form.faults({}, "en")) == 3
    told = {language: form.faults({}, language)[0] for language in ("en", "de", "cy", "ar")}
    assert len(set(told.values())) == 4, "in the language of the page"


def test_a_form_labels_each_field_and_says_what_is_needed() -> None:
    html = page_of(SITE, "/travelling/luggage/")
    labels = dict(re.findall(r'<label class="[^"]*" for="([^"]+)">([^<(]+)', html))
    fields = re.findall(r'<(?:input|select|textarea)[^>]* id="([^"]+)" name="(fd-[^"]+)"', html)
    assert len(fields) == 4 and all(field in labels for field, _ in fields)
    assert html.count("(needed)") == 3 and 'action="/_rim/forms/it-help-form/"' in html


@pytest.mark.parametrize(
    ("data", "reason"),
    [
        (b"", "no well-formed"),
        (b"<html><p>no feed</html>", "no well-formed"),
        (NEWS_FEED.encode()[:-20], "no well-formed"),
        (b'<!DOCTYPE r [<!ENTITY a "b">]><rss version="2.0"/>', "document type"),
        (b"x" * 6_000_000, "2 MB"),
    ],
)
def test_a_broken_feed_is_refused_with_a_sentence_and_the_site_goes_on(data: bytes, reason: str) -> None:
    found = read_feed(data)
    assert isinstance(found, FeedFault) and reason in found.reason
    asset = Asset(id="as-news", path="/news.xml", content=digest(data), size=len(data))
    site = SITE.replaced(assets=tuple(asset if one.id == "as-news" else one for one in SITE.assets))
    assert "News from the quay" in page_of(site, "/press/", {**CONTENTS, digest(data): data})


def test_posts_come_from_a_feed_or_from_dated_pages_the_newest_first() -> None:
    posts = read_feed(NEWS_FEED.encode())
    assert not isinstance(posts, FeedFault) and [post.date[:7] for post in posts] == [
        "2026-11",
        "2026-09",
        "2026-06",
        "2026-03",
    ]
    rss = (
        b'<rss version="2.0"><channel><item><title>&lt;b&gt;A&lt;/b&gt;</title><link>https://a.example/</link>'
        b"<pubDate>Mon, 02 Nov 2026 08:00:00 GMT</pubDate></item><item><title>B</title><link>javascript:ran(1)</link></item></channel></rss>"
    )
    assert read_feed(rss) == (("A", "https://a.example/", "2026-11-02"),)
    dated = [
        Set(node=f"pg-{name}", field="dated", value=day)
        for name, day in (("fares", "2026-01-02"), ("ships", "2026-03-04"))
    ]
    site = changed(*dated, Set(node="it-news", field="feed", value=None))
    html = page_of(site, "/press/")
    assert 0 < html.index('datetime="2026-03-04"') < html.index('datetime="2026-01-02"')


def picture(wide: int, high: int, kind: str = "PNG") -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (wide, high), "teal").save(out, kind)
    return out.getvalue()


def test_a_picture_is_one_or_is_refused() -> None:
    kept = read_brought(picture(40, 30))
    assert isinstance(kept, Brought) and kept.ending == "png"
    for data, reason in (
        (picture(30_000, 2), str(LONGEST_SIDE)),
        (picture(40, 30)[:60], "broken"),
        (b"GIF89a<script>", "no picture"),
        (picture(8, 8, "BMP"), "only PNG"),
        (b"<svg" + b" " * 1_100_000 + b"/>", "1 MB"),
    ):
        found = read_brought(data)
        assert isinstance(found, PictureFault) and reason in found.reason, reason


@pytest.mark.parametrize("at", range(len(DRAWINGS)))
def test_a_cleaned_drawing_is_clean_and_stays_as_it_is(at: int) -> None:
    found = read_brought(DRAWINGS[at].encode())
    if isinstance(found, Brought):
        again = read_brought(found.data)
        assert again == Brought(found.data, "svg", ()), "cleaning twice changes nothing"
        assert not re.search(
            rb"script|javascript|evil|onload|style", re.sub(rb"<(title|desc)>.*?</\1>", b"", found.data), re.I
        )


def test_a_picture_is_published_in_the_sizes_that_are_shown() -> None:
    data = picture(1600, 900, "JPEG")
    asset: JsonValue = {"id": "as-photo", "path": "/photo.jpg", "content": digest(data), "size": len(data)}
    shown = Set(node="it-guide-picture", field="picture", value="/photo.jpg")
    site = changed(Add(parent="site", slot="assets", values=(asset,)), shown)
    contents = {**CONTENTS, digest(data): data}
    html = page_of(site, "/guide/birds/", contents)
    sizes = re.findall(r"(/_rim/[0-9a-f]{12}-(\d+)\.webp) \d+w", html)
    assert [width for _, width in sizes] == ["240", "480"] and 'loading="lazy"' in html
    files = {file.name: file.data for file in publication(site, shelf(), contents.__getitem__, year=2026)}
    for path, width in sizes:
        with Image.open(io.BytesIO(files[path[1:]])) as made:
            assert made.format == "WEBP" and made.width == int(width)
    assert "srcset" not in page_of(site, "/guide/birds/", contents, marks=True), "the stage needs no other sizes"


def test_a_shared_row_is_the_same_row_in_both_pieces_and_cannot_be_taken_away() -> None:
    front, other = page_of(SITE, "/guide/"), page_of(SITE, "/sailings/")
    for part in ("it-menu", "it-book", "it-tagline"):
        assert f"q7xk-{part}" in front and f"q7xk-{part}" in other
    assert 'id="q7xk-it-menu-drawer-pc-guide-front"' in front and 'id="q7xk-it-menu-drawer"' in other
    assert isinstance(apply(SITE, Remove(nodes=("rw-main",))), Refusal)
    assert isinstance(apply(SITE, Remove(nodes=("pc-main",))), Refusal)
    assert isinstance(apply(SITE, Set(node="rw-guide-main", field="shares", value="rw-wonders")), Refusal)
    assert isinstance(apply(SITE, Set(node="rw-guide-main", field="shares", value="rw-guide-above")), Refusal)
    gone = Remove(nodes=("rw-guide-main",))
    after = changed(gone)
    assert apply(after, inverse(SITE, gone)) == SITE
    assert "q7xk-it-book" not in page_of(after, "/guide/").split("<footer")[0]


def test_the_title_is_the_heading_of_a_front_page_that_has_none() -> None:
    page = next(page for page in SITE.pages if page.path == "/")
    assert page.content
    assert page_of(SITE, "/").count("<h1") == 1
    without = CONTENTS[page.content].replace(b"h1>", b"h4>")
    bare = page.replaced(content=digest(without))
    site = SITE.replaced(pages=tuple(bare if one is page else one for one in SITE.pages))
    html = page_of(site, "/", {**CONTENTS, digest(without): without})
    assert re.search(r'<h1 class="q7xk-plain"><a class="q7xk-logo', html) and html.count("<h1") == 1
    composer = Composer(SITE, shelf(), CONTENTS.__getitem__, year=2026)
    shown = (composer.page(page, CONTENTS[page.content]) for page in SITE.pages if page.content and not page.bare)
    assert all(html.count(b"<h1") == 1 for html in shown)


def test_a_hint_describes_what_it_belongs_to() -> None:
    site = changed(Set(node="it-tagline", field="hint", value={"text": "Even at <Christmas>"}))
    html = page_of(site, "/")
    assert re.search(r'<span aria-describedby="q7xk-it-tagline-hint" tabindex="0" class="q7xk-text', html)
    assert "Even at &lt;Christmas&gt;</span>" in html and 'aria-describedby="q7xk-it-phone-hint" class' in html


def test_items_stand_elsewhere_in_a_band_and_the_band_comes_along_where_the_piece_goes() -> None:
    at_narrow = Set(node="cl-end", field="aligned", value=[{"band": "bd-narrow", "align": "center"}])
    site = changed(at_narrow)
    css = sheet(site, shelf(), "")
    assert re.search(r"width<560px\)\{\.q7xk-cell\.q7xk-cl-end\{justify-content:center!important\}", css)
    gone = apply(site, Remove(nodes=("bd-narrow",)))
    assert isinstance(gone, Refusal)
    assert {"bd-narrow", "bd-middle"} <= needed(site, ["pc-main", "pc-footer"])
    numbers = iter(range(10_000))
    target, _ = quillwort()
    after = apply(target, carried(site, target, ["pc-guide-front"], {}, lambda prefix: f"{prefix}-c{next(numbers)}"))
    assert isinstance(after, Site), "a row that is shared there is the piece's own here"
    header, drawer = after.pieces[-2:]
    assert len(header.rows) == 3 and not any(row.shares for row in header.rows)
    assert isinstance(drawer, Drawer) and [holder for holder, _ in after.holders(drawer)] == [header], "it comes along"


def test_whatever_leads_somewhere_says_when_it_opens_a_window_of_its_own() -> None:
    to: JsonValue = {"kind": "address", "address": "https://harbour.example/"}
    for node in ("it-book", "it-phone", "it-tagline", "it-logo"):
        led = changed(Set(node=node, field="target", value=to), Set(node=node, field="new_window", value=True))
        (link,) = set(re.findall(rf'<a [^>]*q7xk-{node}[ "][^>]*>.*?</a>', page_of(led, "/")))
        assert 'href="https://harbour.example/"' in link and 'target="_blank" rel="noopener"' in link, node
        assert "opens in a new window" in link or "new window" in link, node
    home = page_of(changed(), "/")
    assert re.search(r'<a [^>]*q7xk-it-logo[ "][^>]*href="/"', home), "else a logo leads to the front page"
    assert re.search(r'<span [^>]*q7xk-it-tagline[ "]', home), "and a text is none"

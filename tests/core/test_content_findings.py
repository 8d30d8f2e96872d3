"""What is wrong about the pages themselves is found on them, and nothing of their mended twins."""

from __future__ import annotations

import pytest

from upper_rim.core.exchange.html.named_files import names_of_files
from upper_rim.core.exchange.html.outline import MOST_HEADINGS, PageOutline, outline_of
from upper_rim.core.exchange.imports.import_pages import ArchiveEntry, read_files
from upper_rim.core.findings.checks.contents.pages import Given, in_contents
from upper_rim.core.findings.words import finding_words
from upper_rim.core.model.site import Asset, Page, Site

GOOD = {
    "title": "<title>The hut</title>",
    "described": '<meta name="description" content="A hut">',
    "icon": '<link rel="icon" href="/hut.png">',
    "body": "<main><h1>The hut</h1><h2 id=a>When</h2><p>In <a href='guide/'>May</a></p><h3>Who</h3><h2>Where</h2></main>",
}
# What is planted, in place of what; the kind that is found, and what is told of it first.
PLANTED = [
    ("title", "", "no title", ""),
    ("title", "<title> \n </title>", "no title", ""),
    ("described", "", "no description", ""),
    ("described", '<meta name="description" content=" ">', "no description", ""),
    ("icon", "", "no icon", ""),
    ("body", "<main><h2>When</h2></main>", "no first heading", ""),
    ("body", "<main><h1>One</h1><h1>Two</h1></main>", "two first headings", ""),
    ("body", "<main><h1>One</h1><h2>Two</h2><h4>Four</h4></main>", "skips a level", "h4 after h2"),
    ("body", "<h1>One</h1><p>Words</p>", "no main", ""),
    ("body", "<main><h1>One</h1></main><div role=main>x</div>", "two mains", ""),
    ("body", "<main><h1 id=b>One</h1><p id=b>x</p></main>", "id twice", "b"),
    ("body", "<main><h1>One</h1><a href='../gone/?x#y'>x</a></main>", "broken link", "/gone/"),
    ("body", "<main><h1>One</h1><a href='/gone.pdf'>x</a></main>", "broken link", "/gone.pdf"),
    ("body", "<main><h1>One</h1><a href='/guide/'> <img src='/hut.png' alt=''></a></main>", "nameless link", "/guide/"),
    ("body", "<main><h1>One</h1><button><svg></svg></button></main>", "nameless link", "a button"),
    ("body", "<main><h1>One</h1><p tabindex=4>x</p></main>", "own order", ""),
    ("body", "<main><h1>One</h1><img src='/hut.png'></main>", "unseen picture", "/hut.png"),
    ("body", "<main><h1>One</h1><iframe title=' '></iframe></main>", "nameless frame", "one"),
    ("body", "<main><h1>One</h1><label for=b>Name</label><input id=a name=town></main>", "nameless field", "town"),
    ("body", "<main><h1>One</h1><label> <select name=a></select></label></main>", "nameless field", "a"),
    ("title", "<title>The hut</title><meta name=Viewport content='width=1, User-Scalable = no'>", "cannot grow", ""),
    ("title", "<title>The hut</title><meta name=viewport content='maximum-scale=1.9'>", "cannot grow", ""),
]
FINE = [
    ("body", "<main><h1>One</h1><a href='/guide/'><img src='/hut.png' alt='The guide'></a><button aria-label=Close></button></main>"),
    ("body", "<main><h1>One</h1><p tabindex=0>x</p><p tabindex=-1>x</p></main>"),
    ("body", "<main><h1>One</h1></main><main hidden>x</main>"),
    ("body", "<main><h1>One</h1><a href='#x'>x</a> <a href='https://tide.example/gone/'>x</a> <a href='mailto:a@b.example'>x</a></main>"),
    ("body", "<main><h1>One</h1><a href='./guide/index.html'>x</a> <a href=guide>x</a> <a href='/h%75t.png'>x</a></main>"),
    ("body", "<main><h1>One</h1><h4>Four</h4></main>".replace("h4", "h2")),
    ("body", "<main><h1>One</h1><img src='/hut.png' alt=''><img src='/hut.png' role=presentation><img src='/hut.png' hidden></main>"),
    ("body", "<main><h1>One</h1><iframe title=Map></iframe><iframe aria-hidden=true></iframe></main>"),
    ("body", "<main><h1>One</h1><label>Town <input></label><label for=a>B</label><input id=a><input type=hidden></main>"),
    ("body", "<main><h1>One</h1><input type=Submit><textarea aria-label=More></textarea><input placeholder=Town></main>"),
    ("title", "<title>The hut</title><meta name=viewport content='maximum-scale=5; user-scalable=yes'>"),
    ("title", "<title>The hut</title><meta name=viewport content='maximum-scale=much, width=device-width'>"),
    ("icon", '<base href="https://other.example/"><link rel="shortcut icon" href="/hut.png">'),
]  # fmt: skip


def site_of(**changed: str) -> tuple[Site, dict[str, bytes]]:
    said = {**GOOD, **changed}
    head = "".join(said[name] for name in ("title", "described", "icon"))
    page = f"<!doctype html><html lang=en><head>{head}</head><body>{said['body']}</body></html>"
    guide = page.replace(said["body"], "<main><h1>Guide</h1></main>").replace("The hut", "Guide")
    files = {"index.html": page, "guide/index.html": guide, "hut.png": "x"}
    entries = [ArchiveEntry(name, text.encode) for name, text in files.items()]
    came = [*read_files(entries, lambda kind: f"{kind}-{len(kind)}", "en", (), [])]
    pages = [one.value.replaced(id=f"pg-{at}") for at, one in enumerate(came) if isinstance(one.value, Page)]
    assets = [one.value for one in came if isinstance(one.value, Asset)]
    return Site(key="qtest", name="T", pages=tuple(pages), assets=tuple(assets)), {
        one.value.content or "": one.content for one in came
    }


def found_in(
    site: Site, contents: dict[str, bytes], headed: str = "", titled: str = "", footed: str = ""
) -> list[tuple[str, str, str]]:
    def outline(page: Page) -> PageOutline | None:
        return outline_of(contents[page.content], page.encoding, page.path) if page.content else None

    found = in_contents(
        site, outline, lambda page: Given(page.path == headed, page.path == footed, page.path == titled)
    )
    assert all(finding_words(one, str) for one in found)
    return [(one.kind, str(one.about["path"]), str(one.about["first"])) for one in found]


@pytest.mark.parametrize(("part", "planted", "kind", "first"), PLANTED)
def test_each_is_found_on_its_page(part: str, planted: str, kind: str, first: str) -> None:
    found = found_in(*site_of(**{part: planted}))
    on_both = part != "body" and part != "title"
    assert [one for one in found if one[0] == kind] == [(kind, "/", first)]
    assert len(found) == 1 or on_both or {one[0] for one in found} == {kind}


@pytest.mark.parametrize(("part", "said"), [("title", GOOD["title"]), *FINE])
def test_nothing_is_found_where_nothing_is_wrong(part: str, said: str) -> None:
    assert found_in(*site_of(**{part: said})) == []


def test_a_header_of_ours_is_a_second_banner_and_its_title_the_first_heading() -> None:
    site, contents = site_of(body="<header>Old</header><main><h2>When</h2><header>Of it</header></main>")
    assert {one[0] for one in found_in(site, contents)} == {"no first heading"}
    assert {one[0] for one in found_in(site, contents, headed="/", titled="/")} == {"two banners"}
    site, contents = site_of(body="<main><h1>When</h1><footer>Of it</footer></main><footer>Old</footer>")
    assert found_in(site, contents) == []
    assert {one[0] for one in found_in(site, contents, footed="/")} == {"two footers"}


@pytest.mark.parametrize("said", ["<div>", "<h1><div>", "<label for=a>x", "<button><span>", "<footer>", "<a>y"])
def test_a_page_of_very_many_elements_in_each_other_is_read_or_left_unread(said: str) -> None:
    """Nobody waits for it: what is looked at of each element is bounded, and no tree is made that is too deep."""
    page = f"<main>{said * 20_000}{'<input name=a>' * 20_000}</main>".encode()
    outline = outline_of(page, "utf-8", "/")
    assert outline is None or len(outline.headings) <= MOST_HEADINGS
    wide = f"<main>{'<h2>x</h2><footer>y</footer><img><a>z</a><input>' * 20_000}</main>".encode()
    found = outline_of(wide, "utf-8", "/")
    assert found is not None and found.unseen_picture == found.nameless_field == "one" and found.dead_link == "z"


def test_files_are_known_by_the_names_that_texts_say_however_they_are_written() -> None:
    text = """<img src="/a/b%20c.png" srcset="x.webp 2x, /y-1.WEBP?v=3 3x" poster='/left over.jpg'> url(pics/hero@2x.svg)
    const one = "/d.woff2#e"; no.pngs and .css and end.mp4"""
    assert list(names_of_files(text)) == [
        "c.png",
        "x.webp",
        "y-1.WEBP",
        "over.jpg",
        "hero@2x.svg",
        "d.woff2",
        "end.mp4",
    ]
    assert len(list(names_of_files("a" * 200_000 + ".png" * 20_000))) == 20_000


def test_pages_that_share_a_title_are_counted_and_the_sites_own_words_count_for_all() -> None:
    same = site_of(title="<title>Same</title>")
    assert ("same title", "/", "Same") in found_in(*same)
    site, contents = site_of(described="", icon="")
    assert {one[0] for one in found_in(site, contents)} == {"no description", "no icon"}
    described = Site.model_validate({**site.model_dump(), "description": {"text": "A hut"}, "icon": "/hut.png"})
    assert found_in(described, contents) == []

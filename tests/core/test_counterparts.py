"""Which page says the same in another language, what stands in for one that is not there, and what is published of that."""

from __future__ import annotations

import io
import re
from random import Random
from typing import Any
from xml.etree import ElementTree

import pytest
import uharfbuzz as hb
from fontTools.ttLib import TTFont

from upper_rim.core.exchange.html.markdown import document
from upper_rim.core.exchange.imports.import_pages import described_page, digest
from upper_rim.core.findings.checks.parts.languages import in_languages
from upper_rim.core.findings.words import finding_words
from upper_rim.core.kinds.items.languages import LanguageSwitch
from upper_rim.core.kinds.phrases import SaidPhrase, phrase_id, sayable
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.kinds.spoken import SpokenLanguage
from upper_rim.core.languages import phrase
from upper_rim.core.languages.names import name_in, own_name
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Set
from upper_rim.core.model.navigation.counterparts import Counterparts, offered
from upper_rim.core.model.site import Asset, Page, Site
from upper_rim.core.output import sitemap
from upper_rim.core.output.publication import publication
from upper_rim.core.values.words import Translation, Words
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf


def page(number: int, path: str, language: str = "en", of: int | None = None, also: tuple[str, ...] = ()) -> Page:
    translates = None if of is None else f"pg-{of}"
    return Page(id=f"pg-{number}", path=path, language=language, translates=translates, also=also)


def site(*pages: Page, untranslated: Any = "above") -> Site:
    return Site(
        key="qspeaks", name="Speaks", pages=tuple(sorted(pages, key=lambda one: one.path)), untranslated=untranslated
    )


PAGES = (
    page(0, "/"),
    page(1, "/de/", "de", of=0),
    page(2, "/a/"),
    page(3, "/de/a/", "de", of=2),
    page(4, "/a/b/"),
    page(5, "/c/"),
    page(6, "/a/b/d.html", also=("cy",)),
    page(7, "/cy/", "cy", of=1),
    page(8, "/de/own/", "de"),
)
DE = {"/": "/de/", "/a/": "/de/a/", "/a/b/": "/de/a/", "/c/": "/de/", "/a/b/d.html": "/de/a/", "/cy/": "/de/"}


def led(of: Site, path: str, language: str) -> tuple[str | None, str]:
    asked = next(one for one in of.pages if one.path == path)
    found = Counterparts(of).in_language(asked, language)
    return (found.page.path if found.page else None), found.why


@pytest.mark.parametrize(("path", "there"), list(DE.items()))
def test_a_page_leads_to_its_translation_else_to_that_of_what_stands_above(path: str, there: str) -> None:
    assert led(site(*PAGES), path, "de")[0] == there


def test_each_says_why() -> None:
    whole = site(*PAGES)
    assert led(whole, "/a/", "de") == ("/de/a/", "translation")
    assert led(whole, "/a/b/", "de") == ("/de/a/", "above") and led(whole, "/c/", "de") == ("/de/", "front")
    assert led(whole, "/a/b/d.html", "cy") == ("/a/b/d.html", "speaks both")
    assert led(whole, "/cy/", "en") == ("/", "translation"), "by way of the German one"
    assert led(whole, "/de/own/", "en") == ("/", "front"), "what stands above is /de/, which is translated"
    assert led(whole, "/a/", "en") == ("/a/", "itself")


def test_the_site_says_what_stands_in_for_what_is_not_translated() -> None:
    assert led(site(*PAGES, untranslated="front"), "/a/b/", "de") == ("/de/", "front")
    assert led(site(*PAGES, untranslated="stay"), "/a/b/", "de") == ("/a/b/", "stays")
    hiding = site(*PAGES, untranslated="hide")
    assert led(hiding, "/a/b/", "de") == (None, "none") and led(hiding, "/a/", "de") == ("/de/a/", "translation")
    assert [one.language for one in offered(hiding, Counterparts(hiding).of(PAGES[4]))] == ["en"]
    staying = site(*PAGES, untranslated="stay")
    assert [one.href for one in offered(staying, Counterparts(staying).of(PAGES[4]))] == ["/a/b/", None, None]
    assert led(site(page(0, "/x/"), page(1, "/de/", "de")), "/x/", "de") == (None, "none"), "there is no front page"


def any_site(seed: int) -> Site:
    """Pages that translate each other, themselves, in circles, twice, or not at all."""
    chance = Random(seed)
    languages = ("en", "de", "cy")
    pages = [
        page(
            number,
            f"/{'a/' * chance.randrange(3)}{number}/",
            chance.choice(languages),
            of=chance.choice([None, 99, chance.randrange(14)]),
            also=tuple(chance.sample(languages, chance.choice([0, 0, 1]))),
        ).replaced(bare=chance.random() < 0.1, splice=SPLICE if chance.random() < 0.9 else None)
        for number in range(12)
    ]
    spoken = [
        SpokenLanguage(
            language=language,
            on=chance.random() < 0.8,
            name=chance.choice(["", "Ours"]),
            picture=chance.choice([None, "/logo.svg"]),
        )
        for language in chance.sample([*languages, "fr"], chance.randrange(4))
    ]
    whole = site(*pages, page(99, "/"), untranslated=chance.choice(["above", "front", "stay", "hide"]))
    return whole.replaced(spoken=tuple(spoken))


SPLICE = described_page(page(0, "/"), document("A", "en", "<p>A</p>")[0]).splice


@pytest.mark.parametrize("seed", range(60))
def test_alternates_are_mutual_and_every_way_leads_somewhere_that_is_said(seed: int) -> None:
    ways = Counterparts(whole := any_site(seed))
    for one in whole.pages:
        others = ways.alternates(one)
        assert not others or (one in others.values() and one.splice and not one.bare)
        for language, other in others.items():
            assert ways.alternates(other) == others and language in {other.language, *other.also}
            assert language == whole.language or whole.said_of(language).on, "nobody is told of what is held back"
        found = {there.language: there for there in ways.of(one)}
        assert tuple(found) == whole.languages and found[one.language].page is one
        for language, there in found.items():
            speaks = there.page and {there.page.language, *there.page.also}
            assert there.why in {"stays", "none"} or (speaks and language in speaks), (one.path, there)
            assert (there.why == "none") == (there.page is None)
        for choice in offered(whole, ways.of(one)):
            assert choice.language in {one.language, whole.language} or whole.said_of(choice.language).on


def published(of: Site, contents: dict[str, bytes]) -> dict[str, str]:
    made = publication(of, shelf(), contents.__getitem__)
    return {file.name: file.data.decode() for file in made if file.name.endswith(".html")}


def alternates(text: str) -> dict[str, str]:
    return dict(re.findall(r'<link rel="alternate" hreflang="([^"]+)" href="([^"]+)">', text))


def test_alternates_of_the_demo_are_mutual_and_a_page_that_says_its_own_keeps_them() -> None:
    whole, contents = ostrey()
    said = {
        f"/{name.removesuffix('index.html')}": alternates(text) for name, text in published(whole, contents).items()
    }
    assert said["/de/"] == {"en": "/", "x-default": "/", "ar": "/ar/", "cy": "/cy/", "de": "/de/"}
    for path, ways in said.items():
        assert not ways or path in ways.values()
        assert all(said[other] == ways for other in ways.values()), path
    own = b'<!DOCTYPE html><html lang=en><head><title>A</title><link rel=alternate HREFLANG=fr href="/fr/"></head><body><p>A</p></body></html>'
    front = described_page(Page(id="pg-0", path="/"), own)
    content, _ = document("B", "de", "<p>B</p>")
    other = described_page(Page(id="pg-1", path="/de/", language="de", translates="pg-0"), content)
    told = published(site(front, other), {digest(own): own, digest(content): content})
    assert alternates(told["index.html"]) == {} and "/de/" in alternates(told["de/index.html"]).values()


HOME = "https://www.ostrey.example"


def all_files(of: Site, contents: dict[str, bytes]) -> dict[str, bytes]:
    return {file.name: file.data for file in publication(of, shelf(), contents.__getitem__)}


def test_where_a_site_is_known_to_be_search_engines_are_told_whole_addresses() -> None:
    whole, contents = ostrey()
    assert "sitemap.xml" not in all_files(whole, contents)
    files = all_files(whole.replaced(address=HOME), contents)
    german = files["de/fahrpreise/index.html"].decode()
    assert f'<link rel="canonical" href="{HOME}/de/fahrpreise/">' in german
    assert alternates(german)["x-default"] == f"{HOME}/sailings/fares/"
    tree = ElementTree.fromstring(files["sitemap.xml"])
    told = {
        str(one.findtext(f"{MAP}loc")): [str(link.get("href")) for link in one.iter(f"{XHTML}link")]
        for one in tree.iter(f"{MAP}url")
    }
    assert f"{HOME}/sailings/winter/" in told and told[f"{HOME}/de/"] == [
        f"{HOME}{one}" for one in ("/", "/ar/", "/cy/", "/de/")
    ]
    assert all(told[other] == ways for ways in told.values() for other in ways), "mutual"
    assert not [one for one in told if "/press/" in one or "/shop/" in one], "nothing that somebody has to pass for"
    assert len(told) == len(whole.pages) - 6


def test_a_sitemap_of_ones_own_stays_and_a_long_one_is_several(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(sitemap, "MOST", 4)
    whole, contents = written(site(*PAGES, page(9, "/a%20&b/")).replaced(address=HOME))
    files = all_files(whole, contents)
    listed = re.findall(f"<loc>{HOME}/([^<]+)</loc>", files["sitemap.xml"].decode())
    assert listed == ["sitemap-1.xml", "sitemap-2.xml", "sitemap-3.xml"]
    assert sum(len(ElementTree.fromstring(files[name])) for name in listed) == len(whole.pages)
    assert f"<loc>{HOME}/a%20&amp;b/</loc>".encode() in b"".join(files[name] for name in listed)
    own = Asset(id="as-map", path="/sitemap.xml", content=digest(b"own"), size=3)
    assert all_files(whole.replaced(assets=(own,)), {**contents, digest(b"own"): b"own"})["sitemap.xml"] == b"own"


def test_a_sites_address_is_that_of_a_host() -> None:
    def said(address: str) -> str | None:
        made = apply(site(*PAGES), Set(node="site", field="address", value=address))
        return made.address if isinstance(made, Site) else None

    assert said(" https://WWW.Ostrey.example/ ") == HOME and said("") == "" and said("http://a.example:8080")
    for wrong in ("ostrey.example", "https://a.example/b", "https://a b.example", "javascript:alert(1)", 'https://a"b', "https://u:p@a.example"):  # fmt: skip
        assert said(wrong) is None, wrong


MAP, XHTML = "{http://www.sitemaps.org/schemas/sitemap/0.9}", "{http://www.w3.org/1999/xhtml}"


def with_switch(of: Site, **fields: Any) -> Site:
    row = Row(id="rw-s", name="R", cells=(Cell(id="cl-s", items=(LanguageSwitch(id="it-s", **fields),)),))
    header = Header(id="pc-s", name="Head", rows=(row,), reach=(ReachRule(id="rr-s"),))
    return of.replaced(pieces=(header,))


def written(of: Site) -> tuple[Site, dict[str, bytes]]:
    """With contents, into all of which pieces can be put."""
    pages, contents = [], dict[str, bytes]()
    for one in of.pages:
        content, _ = document(one.path, one.language, f"<h1>{one.path}</h1>")
        contents[digest(content)] = content
        pages.append(described_page(one.replaced(splice=None, bare=False), content))
    return of.replaced(pages=tuple(pages)), contents


def shown(fields: dict[str, Any], path: str = "a/b") -> str:
    whole, contents = written(site(*PAGES))
    text = published(with_switch(whole, **fields), contents)[f"{path}/index.html"]
    return text.partition('<div class="qspeaks-menu qspeaks-languages')[2].partition("</header>")[0]


def test_a_switch_marks_the_present_language_and_names_each_in_its_own() -> None:
    text = shown({"words": Words(text="Read in")})
    assert 'aria-label="Read in"' in text and ">Read in</span>" in text
    assert re.findall(r'<a href="([^"]+)" hreflang="([^"]+)"( aria-current="true")?><span lang="[^"]+" dir="ltr">([^<]+)', text) == [
        ("/a/b/", "en", ' aria-current="true"', "English"), ("/cy/", "cy", "", "Cymraeg"), ("/de/a/", "de", "", "Deutsch"),
    ]  # fmt: skip
    assert ">Walisisch<" in shown({"names": "here"}, "de/a") and ">Welsh<" in shown({"names": "here"})
    assert '<span aria-label="German" role="img">DE</span>' in shown({"names": "code"})
    assert "English" not in shown({"hides_current": True})
    button = shown({"way": "button"})
    assert button.count("English") == 1 and re.search(r"<details[^>]*><summary[^>]*><span[^>]*>English", button)


def test_languages_are_called_as_the_cldr_has_it() -> None:
    assert [own_name(one) for one in ("de", "cy", "fr", "pt-BR", "ar")] == [
        "Deutsch", "Cymraeg", "Français", "Português (Brasil)", "العربية",
    ]  # fmt: skip
    assert name_in("ar", "cy") == "Arabeg" and name_in("de-x-none", "en") == "German" and own_name("xx-YY") == "xx-YY"
    assert own_name("ka") == "ქართული", "capitals of its own are for whole words"


def test_a_language_named_in_its_own_letters_brings_these_letters_of_its_face_and_no_others() -> None:
    files = {file.name: file.data for file in publication(*_read(ostrey()))}
    sheet = re.search(r'href="/(_rim/[^"]+[.]css)"', files["index.html"].decode())
    assert sheet is not None
    (cut,) = re.findall(r"url\((noto-sans-arabic-arabic[^)]+)\)", files[sheet[1]].decode())
    whole, less = files["_rim/noto-sans-arabic-arabic-wght-normal.woff2"], files[f"_rim/{cut}"]
    assert len(less) < len(whole) / 10

    def advances(data: bytes) -> list[int]:
        font = hb.Font(hb.Face(woff_bytes(data)))
        font.set_variations({"wght": 450})
        buffer = hb.Buffer()
        buffer.add_str(own_name("ar"))
        buffer.guess_segment_properties()
        hb.shape(font, buffer)
        return [one.x_advance for one in buffer.glyph_positions or []]

    assert advances(less) == advances(whole) and len(advances(less)) > 5


def _read(made: tuple[Site, dict[str, bytes]]) -> tuple[Any, ...]:
    return made[0], shelf(), made[1].__getitem__


def woff_bytes(data: bytes) -> bytes:
    font, out = TTFont(io.BytesIO(data)), io.BytesIO()
    font.flavor = None
    font.save(out)
    return out.getvalue()


def told(of: Site) -> list[tuple[str, str]]:
    return [(one.kind, one.language or one.node) for one in in_languages(of)]


def test_what_is_wrong_with_languages_is_found() -> None:
    whole = with_switch(site(*PAGES))
    assert told(whole) == [] and told(whole.replaced(pieces=())) == [("no switch", "site")]
    assert told(with_switch(site(page(0, "/"), page(1, "/a/")))) == [("one language", "it-s")]
    alone = site(*PAGES, page(20, "/lv/", "lv"), page(21, "/lv/a/", "lv"), page(22, "/et/", "et", of=0))
    assert told(with_switch(alone)) == [("speaks alone", "lv"), ("in English", "et"), ("in English", "lv")]
    twice = site(*PAGES, page(20, "/de/again/", "de", of=2))
    assert told(with_switch(twice)) == [("twice in a language", "pg-20")]
    german = Words(text="Read in", translations=(Translation(language="de", text="Auf"),))
    assert told(with_switch(site(*PAGES), words=german)) == [("not translated", "cy")]
    (found,) = in_languages(with_switch(site(*PAGES), words=german))
    assert finding_words(found, str) == "Texts that are not in Welsh: 1 of 1, “Read in” among them"


def test_what_pages_that_came_in_say_themselves_is_held_against_each_other() -> None:
    def came(number: int, path: str, head: str, root: str = "", language: str = "en") -> Page:
        text = f"<!DOCTYPE html><html lang={language} {root}><head><title>T</title>{head}</head><body><p>x</p></body></html>"
        return described_page(page(number, path, language), text.encode())

    def link(language: str, address: str) -> str:
        return f'<link rel="alternate" hreflang="{language}" href="{address}">'

    both = link("en", "/") + link("de", "de/") + link("x-default", "/nowhere/")
    pages = (
        came(0, "/", both),
        came(1, "/de/", link("en", "https://speaks.example/") + link("de", "../de/"), language="de"),
    )
    sound = with_switch(site(*pages)).replaced(address="https://speaks.example")
    assert [one.language for one in pages[0].splice.alternates] == ["en", "de"] if pages[0].splice else False
    assert "not mutual" not in dict(told(sound))
    silent = came(1, "/de/", link("de", "/de/"), language="de")
    (found,) = (one for one in in_languages(sound.replaced(pages=(pages[0], silent))) if one.kind == "not mutual")
    assert (found.node, found.about) == ("pg-0", {"count": 1, "path": "/", "first": "/de/"})
    elsewhere = came(0, "/", link("de", "https://other.example/de/") + link("fr", "http://[bad/"))
    assert "not mutual" not in dict(told(sound.replaced(pages=(elsewhere, silent))))
    for head, root, is_turned in (
        ("<style>p{color:red} body{direction:rtl}</style>", "", True),
        ("<style>p{direction:rtl}</style>", "", False),
        ("<style>:root,body{margin:0;direction : RTL}</style>", "", True),
        ("<style>html{direction:rtl}</style>", "dir=rtl", False),
        ("", 'style="direction:rtl"', True),
        ("<style>body{flex-direction:rtl}</style>", "", False),
    ):
        shown = with_switch(site(came(0, "/", head, root), page(1, "/de/", "de", of=0)))
        assert (("turned by CSS", "pg-0") in told(shown)) is is_turned, (head, root)


def test_phrases_that_a_language_does_not_have_are_english_until_the_site_says_them() -> None:
    whole = with_switch(site(*PAGES, page(20, "/lv/", "lv", of=0)))
    assert ("in English", "lv") in told(whole) and ("in English", "de") not in told(whole)
    latvian = tuple(
        SaidPhrase(id=phrase_id(name), words=Words(translations=(Translation(language="lv", text=phrase(name, "lv")),)))
        for name in sayable()
    )
    assert told(whole.replaced(phrases=latvian)) == []

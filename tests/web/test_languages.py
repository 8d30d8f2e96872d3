"""The screen of a site's languages, and what is said there and on a page's own screen of translations."""

from __future__ import annotations

import re

import pytest
from django.contrib.auth.models import User
from django.test import Client

from upper_rim.core.exchange.imports.import_pages import digest
from upper_rim.core.model.editing.edits import Add, SetEach
from upper_rim.core.model.navigation.counterparts import Counterparts, offered
from upper_rim.core.model.navigation.pairing import proposed_pairs
from upper_rim.core.model.navigation.renewed import older_pages, renewed
from upper_rim.core.model.site import Page, Site
from upper_rim.web.live.addresses import StageKey, stage_label
from upper_rim.web.sites import store
from upper_rim.web.sites.contents import keep_contents, read_content
from upper_rim.web.sites.models import StoredSite

from .conftest import signed_in

SCREEN = "/s/ostrey/pages/languages/"


@pytest.fixture
def unpaired(ferries: StoredSite, ada: User) -> StoredSite:
    """Nothing is said of what translates what."""
    pages = store.load(ferries.pk).site.pages
    edit = SetEach(field="translates", values=tuple((page.id, None) for page in pages))
    store.submit(ferries.pk, ada, edit)
    return ferries


def text_of(client: Client, query: str = "") -> str:
    return " ".join(re.sub(r"<[^>]+>", " ", client.get(SCREEN + query).content.decode()).split())


def test_it_shows_each_page_in_each_language_and_what_stands_in_for_it(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    shown = text_of(client)
    assert (
        "33 pages in 4 languages, 30 not in all of them" in shown
        and "German de are led to it not yet: cards only 3 30" in shown
    )
    assert "/sailings/fares/ /ar/fares/ /cy/prisiau/ /de/fahrpreise/" in shown
    assert "/guide/birds/ leads to /ar/ create leads to /cy/ create leads to /de/ create" in shown
    gaps = text_of(client, "?show=gaps")
    assert "/guide/birds/" in gaps and "/de/fahrpreise/" not in gaps
    assert "Texts that are not in" not in shown, "the demo says everything in each"
    text = {"do": "set", "node": "it-book", "field": "words", "value": ""}
    for language in ("ar", "cy", "de"):
        client.post(SCREEN, {**text, "language": language})
    found = re.findall(r'<a href="([^"]+)">(Texts that are not in [^<]+)', client.get(SCREEN).content.decode())
    assert len(found) == 3 and all(client.get(where.replace("&amp;", "&")).status_code == 200 for where, _ in found)
    client.post(SCREEN, {"do": "set", "node": "site", "field": "untranslated", "value": "hide"})
    assert "/guide/birds/ left out create left out create left out create" in text_of(client)
    assert "100 pages" not in client.get(f"{SCREEN}?part=9999&show=x").content.decode(), "any address is answered"


def test_languages_stand_in_the_order_that_is_said_in_switches_too(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)

    def languages() -> tuple[str, ...]:
        return store.load(ferries.pk).site.languages

    assert languages() == ("en", "ar", "cy", "de")
    shown = client.get(SCREEN).content.decode()
    assert "up-en" not in shown and "up-ar" not in shown, "the site's own stays first"
    up = re.search(r'name="at" value="(\d+)"\s+aria-label="Move German up"', shown)
    assert up is not None
    client.post(SCREEN, {"do": "place", "node": "de", "at": up[1]})
    assert languages() == ("en", "ar", "de", "cy")
    client.post(SCREEN, {"do": "say-of", "language": "cy", "field": "name", "value": "Y Gymraeg"})
    assert languages() == ("en", "ar", "de", "cy"), "what is said of one does not move it"
    client.post(SCREEN, {"do": "place", "node": "de", "at": "0"})
    assert languages() == ("en", "de", "ar", "cy")
    refused = client.post(SCREEN, {"do": "place", "node": "en", "at": "2"}).content.decode()
    assert "own language stands first" in refused
    found = Counterparts(site := store.load(ferries.pk).site).of(site.pages[0])
    assert [one.language for one in found] == ["en", "de", "ar", "cy"]


def test_a_language_is_added_by_name_and_held_back_until_it_is_on(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)

    def site() -> Site:
        return store.load(ferries.pk).site

    def said(**fields: str) -> str:
        return client.post(SCREEN, fields).content.decode()

    assert "“Klingonish” is no language" in said(do="speak", value="Klingonish")
    assert "German is there already" in said(do="speak", value="german")
    said(do="speak", value="Portuguese (Brazil)")
    said(do="speak", value=" EL ")
    assert site().languages == ("en", "ar", "cy", "de", "pt-BR", "el")
    assert site().offered_in("en") == ("en", "ar", "cy", "de") and site().offered_in("el")[-1] == "el"
    said(do="unspeak", language="pt-BR")
    assert "begins with a slash" in said(do="say-of", language="el", field="prefix", value="greek")
    said(do="say-of", language="el", field="prefix", value="/greek/")
    assert "there is no file /x.png" in said(do="say-of", language="el", field="picture", value="/x.png")
    assert "nothing of this name" in said(do="say-of", language="el", field="language", value="fr")
    assert "not in this language any more" in said(do="say-of", language="fr", field="name", value="x")
    assert "Create /greek/guide/" in client.get(SCREEN).content.decode()
    said(do="translation", value="begin pg-guide el")
    made = next(page for page in site().pages if page.path == "/greek/guide/")
    assert made.language == "el" and made.translates == "pg-guide" and made.content is None
    assert "there is a page /greek/guide/ already" in said(do="translation", value="begin pg-guide el")
    assert "remove-el" not in client.get(SCREEN).content.decode(), "a page is in it"
    said(do="say-of", language="el", field="on", value="true")
    assert site().offered_in("en")[-1] == "el" and offered(site(), Counterparts(site()).of(made))[-1].is_current


def test_a_flag_is_drawn_among_the_files_and_stands_for_its_language(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    client.post(SCREEN, {"do": "flag", "language": "de", "value": "at"})
    client.post(SCREEN, {"do": "flag", "language": "en", "value": "at"})
    site = store.load(ferries.pk).site
    assert site.said_of("de").picture == site.said_of("en").picture == "/flags/at.svg"
    asset = next(one for one in site.assets if one.path == "/flags/at.svg")
    assert b"<svg" in read_content(asset.content) and sum(one.path == asset.path for one in site.assets) == 1
    assert "no flag here" in client.post(SCREEN, {"do": "flag", "language": "de", "value": "xx"}).content.decode()


def test_what_is_held_back_shows_to_the_sites_cards_alone(ferries: StoredSite, ada: User) -> None:
    client, card = signed_in(ada), store.load(ferries.pk).site.cards[0].id
    client.post(SCREEN, {"do": "say-of", "language": "cy", "field": "on", "value": "false"})
    stage = Client(HTTP_HOST=f"{stage_label(StageKey(ferries.pk, ada.pk))}.localhost")

    def offered(as_whom: str) -> set[str]:
        page = stage.get(f"/guide/?{as_whom}").content.decode()
        return set(re.findall(r'hreflang="(\w+)"[^>]*><span lang="', page))

    assert offered("") == {"en", "ar", "de"} and offered(f"rim-as={card}") == {"en", "ar", "de", "cy"}
    assert offered("rim-as=nobody") == {"en", "ar", "de"}


def test_what_addresses_tell_is_proposed_and_taken_branch_by_branch(unpaired: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    shown = text_of(client)
    assert "1 in Arabic below /ar/ /ar/ of /, by path" in shown and "Take it" in shown
    client.post(SCREEN, {"do": "pair", "below": "/ar/", "language": "ar"})
    said = {page.path: page.translates for page in store.load(unpaired.pk).site.pages if page.translates}
    assert said == {"/ar/": "pg-home"}
    again = client.post(SCREEN, {"do": "pair", "below": "/ar/", "language": "ar"})
    assert "nothing is proposed there any more" in again.content.decode()
    assert "below /ar/" not in text_of(client) and "below /cy/" in text_of(client)


def test_a_page_says_of_which_it_is_a_translation_and_for_what_it_stands(ferries: StoredSite, ada: User) -> None:
    client, page = signed_in(ada), "/s/ostrey/pages/pg-guide/"

    def said(field: str, value: str) -> str:
        form = {"do": "set", "node": "pg-guide", "field": field, "value": value}
        return client.post(page, form).content.decode()

    assert "there is no page at /nowhere/" in said("translates", "/nowhere/")
    assert "no translation of itself" in said("translates", "/guide/")
    assert "Go to the original" in said("translates", "/sailings/")
    assert "Go to the original" not in said("translates", "")
    said("also", "fr, it")
    found = next(one for one in store.load(ferries.pk).site.pages if one.id == "pg-guide")
    assert found.also == ("fr", "it") and found.translates is None
    assert {"fr", "it"} <= set(store.load(ferries.pk).site.languages)
    said("also", "no language at all!")
    assert next(one for one in store.load(ferries.pk).site.pages if one.id == "pg-guide").also == ("fr", "it")


def test_proposals_are_sure_of_themselves() -> None:
    def page(number: int, path: str, language: str, translates: str | None = None) -> Page:
        return Page(id=f"pg-{number}", path=path, language=language, translates=translates)

    pages = (
        page(0, "/en/a.html", "en"), page(1, "/de/a.html", "de"),
        page(2, "/b.html", "en"), page(3, "/b.de.html", "de"), page(4, "/b-pt_BR.html", "pt-BR"),
        page(5, "/c/", "en"), page(6, "/docs/de/c/", "de"), page(7, "/de/docs/c/", "de"), page(8, "/docs/c/", "en"),
        page(9, "/d/", "en"), page(10, "/de/d/", "de", "pg-2"), page(11, "/de/e/", "de"), page(12, "/f-de-luxe/", "de"),
    )  # fmt: skip
    site = Site(key="qpairs", name="Pairs", pages=tuple(sorted(pages, key=lambda one: one.path)))
    found = {(pair.page.path, pair.original.path, pair.by) for pair in proposed_pairs(site)}
    assert found == {("/de/a.html", "/en/a.html", "path"), ("/b-pt_BR.html", "/b.html", "file name")}, (
        "two for one are none"
    )
    branches = {(pair.page.path, pair.branch) for pair in proposed_pairs(site)}
    assert branches == {("/de/a.html", "/de/"), ("/b-pt_BR.html", "/")}


def test_a_branch_is_taken_in_one_language_alone(ferries: StoredSite, ada: User) -> None:
    """Names of files lie beside each other, whatever their language."""
    client = signed_in(ada)
    content = next(page for page in store.load(ferries.pk).site.pages if page.path == "/guide/").model_dump(mode="json")
    paths = [("/a.html", "en"), ("/a.de.html", "de"), ("/a.cy.html", "cy")]
    made = [{**content, "id": f"pg-new{at}", "path": path, "language": tag} for at, (path, tag) in enumerate(paths)]
    store.submit(ferries.pk, ada, Add(parent="site", slot="pages", values=tuple(made)))
    assert "1 in German below / /a.de.html of /a.html, by file name" in text_of(client)
    client.post(SCREEN, {"do": "pair", "below": "/", "language": "de"})
    said = {page.id: page.translates for page in store.load(ferries.pk).site.pages if page.id.startswith("pg-new")}
    assert said == {"pg-new0": None, "pg-new1": "pg-new0", "pg-new2": None}


def test_a_translation_is_older_once_its_original_changes_until_somebody_has_looked(
    ferries: StoredSite, ada: User
) -> None:
    client = signed_in(ada)

    def older() -> str:
        shown = text_of(client)
        assert ("the original has changed since" in shown) is ("original has changed since they were" in shown)
        return str([page.path for page in older_pages(store.load(ferries.pk).site.pages)])

    assert older() == "[]", "the demo's translations are of what its pages say"
    contents = store.load(ferries.pk).site
    other = next(page.content for page in contents.pages if page.path == "/sailings/")
    changed = SetEach(field="content", values=(("pg-fares", other),))
    store.submit(ferries.pk, ada, changed)
    assert older() == "['/ar/fares/', '/cy/prisiau/', '/de/fahrpreise/']"
    cymraeg = next(page.id for page in contents.pages if page.path == "/cy/prisiau/")
    client.post(SCREEN, {"do": "translation", "value": f"still {cymraeg}"})
    assert older() == "['/ar/fares/', '/de/fahrpreise/']"
    german = next(page for page in contents.pages if page.path == "/de/fahrpreise/")
    anew = german.replaced(content=other, id="pg-new", translates=None, of=None)
    (came,) = renewed([anew], store.load(ferries.pk).site.pages)
    assert (came.id, came.translates, came.of) == (german.id, "pg-fares", other), "it comes in again, and is of now"
    same = renewed([german.replaced(id="pg-new")], store.load(ferries.pk).site.pages)
    assert same[0].of != other, "what comes in as it was is of what it was"
    client.post(
        f"/s/ostrey/pages/{german.id}/",
        {"do": "set", "node": german.id, "field": "translates", "value": "/sailings/fares/"},
    )
    assert older() == "['/ar/fares/']"
    assert "not there any more" in client.post(SCREEN, {"do": "translation", "value": "still pg-x"}).content.decode()


def test_pages_that_are_alike_by_what_is_in_them_are_looked_for_when_asked(unpaired: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    assert "9 pages in other languages translate nothing yet" in text_of(client)
    assert "No two pages of different languages are alike enough" in text_of(client, "?look=1")
    pictures = b"<html><body><h1>A</h1><img src=/one.png><img src=/two.png></body></html>"
    keep_contents({digest(pictures): pictures})
    store.submit(
        unpaired.pk,
        ada,
        SetEach(field="content", values=(("pg-guide", digest(pictures)), ("pg-fares-cy", digest(pictures)))),
    )
    shown = text_of(client, "?look=1")
    assert "/cy/prisiau/ of /guide/ 2 pictures or links the same, 1 heading alike" in shown
    client.post(f"{SCREEN}?look=1", {"do": "pair-these", "values": ["pg-home-ar pg-home", "pg-home-de pg-home"]})
    said = {page.id: page.translates for page in store.load(unpaired.pk).site.pages if page.translates}
    assert said == {"pg-home-ar": "pg-home", "pg-home-de": "pg-home"}
    answer = client.post(SCREEN, {"do": "pair-these", "values": ["pg-home-cy pg-nowhere"]}).content.decode()
    assert "a page of these is not there any more" in answer
    assert "tick those that are right" in client.post(SCREEN, {"do": "pair-these"}).content.decode()

"""The board of all texts: what is missing, what is older, what goes to translators and comes back."""

from __future__ import annotations

import re
from xml.etree import ElementTree

from django.contrib.auth.models import User
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from upper_rim.core.model.texts import texts_of
from upper_rim.core.values.words import Translatable
from upper_rim.web.live.addresses import StageKey, stage_label
from upper_rim.web.sites import store
from upper_rim.web.sites.models import StoredSite

from .conftest import signed_in

BOARD = "/s/ostrey/pages/wording/"


def text_of(html: bytes) -> str:
    return " ".join(re.sub(r"<[^>]+>", " ", html.decode()).split())


def words(site: StoredSite, key: str = "it-book.words") -> Translatable:
    return next(text.words for text in texts_of(store.load(site.pk).site) if text.key == key)


def listed(client: Client, query: str) -> list[str]:
    return re.findall(r'id="line-([^"]+)"', client.get(f"{BOARD}{query}").content.decode())


def say(client: Client, text: str, language: str = "", **more: str) -> bytes:
    named = {"do": "set", "node": "it-book", "field": "words", "value": text, **more}
    return client.post(BOARD, named | ({"language": language} if language else {})).content


def test_what_is_missing_older_and_drafted_is_told_and_counted(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    assert "it-book.words" in listed(client, "") and "it-book.words" not in listed(client, "?show=missing")
    say(client, "Book a crossing")
    assert words(ferries).standing("de") == "older"
    assert listed(client, "?show=older&in=de") == ["it-book.words"]
    client.post(BOARD, {"do": "looked", "node": "it-book", "field": "words", "language": "de"})
    assert (words(ferries).standing("de"), words(ferries).standing("cy")) == ("said", "older")
    assert listed(client, "?show=older&in=de") == []
    assert "There is none of this kind: nothing is left to do here." in text_of(
        client.get(f"{BOARD}?show=older&in=de").content
    )
    assert listed(client, "?show=missing&in=cy") == [], "the demo says everything"
    for key in ("fd-mail", "fd-name"):
        client.post(BOARD, {"do": "set", "node": key, "field": "words", "language": "cy", "value": ""})
    missing = listed(client, "?show=missing&in=cy")
    assert set(missing) == {"fd-mail.words", "fd-name.words"}
    assert "Stand-in translator (simulated)" in client.get(f"{BOARD}?show=missing&in=cy").content.decode()
    client.post(BOARD, {"do": "translate", "language": "cy"})
    assert listed(client, "?show=missing&in=cy") == [] and set(listed(client, "?show=draft&in=cy")) == set(missing)
    drafted = client.get(f"{BOARD}?show=draft&in=cy").content.decode()
    assert "draft, by a machine" in drafted and "Stand-in translator" not in drafted, "there is nothing to draft"
    client.post("/s/ostrey/pages/languages/", {"do": "undo"})
    assert listed(client, "?show=missing&in=cy") == missing, "one step takes all of it back"


def test_languages_stand_in_the_sites_order_in_whichever_they_are_asked(ferries: StoredSite, ada: User) -> None:
    shown = signed_in(ada).get(f"{BOARD}?in=de,cy&q=Timetable").content.decode()
    heads = re.findall(r"<th[^>]*>([A-Z][a-z]+) <span[^>]*>(\w+)</span>", shown)
    cells = re.findall(r'lang="(\w+)" dir', shown)
    assert [tag for _, tag in heads][-2:] == ["cy", "de"] and cells.index("cy") < cells.index("de")


def test_built_in_words_are_said_otherwise_and_again_as_they_ship(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    phrases = {"do": "set", "node": "ph-skip", "field": "words"}

    def skips(path: str) -> str:
        stage = Client(HTTP_HOST=f"{stage_label(StageKey(ferries.pk, ada.pk))}.localhost")
        found = re.search(r'<a href="#q7xk-content">([^<]+)</a>', stage.get(path).content.decode())
        return found[1] if found else ""

    assert "ph-skip.words" in listed(client, "?at=phrases") and "it-book.words" not in listed(client, "?at=phrases")
    client.post(BOARD, {**phrases, "language": "de", "value": "Zum Text"})
    assert (skips("/de/"), skips("/"), skips("/cy/")) == ("Zum Text", "Skip to content", "Neidio i’r cynnwys")
    client.post(BOARD, {**phrases, "value": "To the text"})
    assert skips("/") == "To the text" and "ph-skip.words" in listed(client, "?at=phrases&show=older&in=cy")
    found = {"do": "set", "node": "ph-found", "field": "words", "language": "de", "value": "Treffer"}
    answer = client.post(BOARD, found)
    assert answer.status_code == 422 and "it has to keep {0}" in answer.content.decode()
    client.post(BOARD, {**phrases, "value": ""})
    client.post(BOARD, {**phrases, "language": "de", "value": ""})
    assert skips("/") == "Skip to content" and store.load(ferries.pk).site.phrases == ()
    client.post(BOARD, {"do": "undo"})
    assert skips("/de/") == "Zum Text"


def test_what_gets_too_long_by_a_machine_stays_missing_and_the_rest_is_drafted(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    for key, text in (("it-book", "qu " * 133), ("fd-name", "A name")):
        client.post(BOARD, {"do": "set", "node": key, "field": "words", "value": text.strip()})
        client.post(BOARD, {"do": "set", "node": key, "field": "words", "language": "de", "value": ""})
    client.post(BOARD, {"do": "translate", "language": "de"})
    assert (words(ferries).standing("de"), words(ferries, "fd-name.words").standing("de")) == ("missing", "draft")


def test_texts_are_found_by_words_by_where_they_stand_and_language_by_language(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    assert "it-book.words" in listed(client, "?q=buchen") and len(listed(client, "?q=buchen")) < 4
    in_menu = listed(client, "?at=mn-main")
    assert in_menu and all(key.startswith("en-") for key in in_menu)
    html = client.get(f"{BOARD}?in=ar").content.decode()
    assert 'data-language="ar"' in html and 'data-language="de"' not in html and 'lang="ar"' in html
    assert "No text has “qqq”" in text_of(client.get(f"{BOARD}?q=qqq").content)
    for odd in ("?in=xx,,&show=nothing&part=99", "?at=none-such", "?edit=x.y.z"):
        assert client.get(BOARD + odd).status_code == 200


def test_what_cannot_be_is_told_where_it_was_typed_and_changes_nothing(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    before = words(ferries)
    assert "it has 401 characters; 400 are the most" in text_of(say(client, "x" * 401, "de"))
    for named in ({"language": "nl"}, {"language": "en"}, {"language": "de", "node": "it-gone", "field": "words"}):
        assert client.post(BOARD, {"do": "translate", **named}).status_code == 422
    assert words(ferries) == before
    say(client, "The same", "de", field="words.note")
    assert words(ferries).note == "The same" and words(ferries).translations == before.translations


def test_a_file_goes_to_a_translator_and_comes_back(ferries: StoredSite, ada: User, ben: User) -> None:
    client = signed_in(ada)
    out = client.get(f"{BOARD}xliff/de/")
    assert out["Content-Disposition"] == 'attachment; filename="ostrey-de.xlf"'
    assert client.get(f"{BOARD}xliff/en/").status_code == client.get(f"{BOARD}xliff/nl/").status_code == 404
    assert signed_in(ben).get(f"{BOARD}xliff/de/").status_code == 404
    ns = "{urn:oasis:names:tc:xliff:document:2.0}"
    root = ElementTree.fromstring(out.content)
    unit = next(unit for unit in root.iter(f"{ns}unit") if unit.get("id") == "it-book.words")
    next(unit.iter(f"{ns}target")).text = "Überfahrt buchen"
    strange = ElementTree.fromstring(ElementTree.tostring(unit))
    strange.set("id", "it-none.words")
    next(root.iter(f"{ns}group")).append(strange)
    back = SimpleUploadedFile("back.xlf", ElementTree.tostring(root))
    told = client.post(f"{BOARD}brought/", {"file": back}).content
    assert "“back.xlf”: 1 translation is new." in text_of(
        told
    ) and "it-none.words , German: there is no such text here" in text_of(told)
    assert words(ferries).in_language("de") == "Überfahrt buchen"
    again = client.post(
        f"{BOARD}brought/", {"file": SimpleUploadedFile("back.xlf", client.get(f"{BOARD}xliff/de/").content)}
    )
    assert "0 translations are new" in text_of(again.content)


def test_a_table_goes_and_comes_back_and_what_is_no_file_is_refused(ferries: StoredSite, ada: User, ben: User) -> None:
    client = signed_in(ada)
    table = client.get(f"{BOARD}csv/").content.decode("utf-8-sig")
    line = next(line for line in table.splitlines() if line.startswith("it-book.words"))
    assert "Buchen" in line
    changed = table.replace(line, line.replace("Buchen", "Platz buchen"))
    told = client.post(f"{BOARD}brought/", {"file": SimpleUploadedFile("texts.csv", changed.encode())})
    assert "1 translation is new" in text_of(told.content) and words(ferries).in_language("de") == "Platz buchen"
    before = store.load(ferries.pk)
    for name, data, why in (
        ("a.xlf", b"<xliff/>", "It is no XLIFF 2"),
        ("a.xlf", b"", "Choose a file first"),
        ("a.csv", b"\xff\xfe\x00", "It is not in UTF-8"),
    ):
        refused = client.post(f"{BOARD}brought/", {"file": SimpleUploadedFile(name, data)})
        assert refused.status_code == 422 and why in text_of(refused.content)
    assert store.load(ferries.pk) == before
    assert signed_in(ben).post(f"{BOARD}brought/", {"file": SimpleUploadedFile("a.xlf", b"")}).status_code == 404
    assert client.get(f"{BOARD}brought/").status_code == 404


def test_what_does_not_fit_is_told_of_what_is_kept_and_of_what_is_typed(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    typed = {"node": "it-book", "field": "words", "language": "de"}

    def tried(text: str) -> str:
        return client.get(f"{BOARD}tried/", {**typed, "value": text}).content.decode()

    assert tried("Buchen") == "fits"
    assert words(ferries).in_language("de") == "Buchen", "nothing is kept"
    long = "Jetzt eine Überfahrt zu den äußeren Inseln buchen und bezahlen"
    assert "px" in tried(f"{long}, für alle und für alles, was mitfährt"), tried(long)
    assert tried("x" * 500) == ""
    hostile = {
        "do": "set",
        "node": "en-travelling",
        "field": "label",
        "language": "de",
        "value": "<img src=x onerror=alert(1)> ist sehr lang",
    }
    client.post(BOARD, hostile)
    assert "&lt;img" in tried(f"{long}, für alle und für alles, was mitfährt") and "<img" not in tried(long)
    say(client, long, "de")
    found = dict(
        re.findall(
            r'id="fit-([^"]+)"[^>]*>([^<]*)</b>', client.get(f"{BOARD}lengths/?at=mn-main&in=de").content.decode()
        )
    )
    assert any("px too long" in told for told in found.values())
    assert listed(client, "?show=long&in=de")

"""Texts that go to translators and come back: what is told of them, and what a file may do to them."""

from __future__ import annotations

import re
from itertools import pairwise
from pathlib import Path
from random import Random
from typing import Any
from xml.etree import ElementTree

import pytest
from pydantic import ValidationError

from upper_rim.cli.__main__ import main
from upper_rim.core.exchange.translations.merging import Merged, UnreadableFile
from upper_rim.core.exchange.translations.texts_csv import read_texts, write_texts
from upper_rim.core.exchange.translations.xliff import read_xliff, write_xliff
from upper_rim.core.kinds.entries import Entry
from upper_rim.core.kinds.phrases import phrase_id, sayable
from upper_rim.core.languages.scripts import is_written_in
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Set
from upper_rim.core.model.editing.replay import replay
from upper_rim.core.model.site import Menu, Page, Site
from upper_rim.core.model.texts import says, texts_of
from upper_rim.core.model.tree import slots_of
from upper_rim.core.values.nodes import Node, within
from upper_rim.core.values.rich import RichWords
from upper_rim.core.values.words import Translatable, Translation, Words
from upper_rim.demo import ostrey

SITE = ostrey()[0]
OTHERS = [tag for tag in SITE.languages if tag != SITE.language]
NS = "urn:oasis:names:tc:xliff:document:2.0"


def small(*labels: Words) -> Site:
    entries = tuple(Entry(id=f"en-{at}", label=label) for at, label in enumerate(labels))
    pages = (
        Page(id="pg-0", path="/"),
        Page(id="pg-1", path="/de/", language="de"),
        Page(id="pg-2", path="/ar/", language="ar"),
    )
    return Site(key="qtexts", name="Texts", pages=pages, menus=(Menu(id="mn-0", name="Main", entries=entries),))


def said(site: Site, key: str = "en-0.label") -> Translatable:
    return next(text.words for text in texts_of(site) if text.key == key)


def done(site: Site, found: Merged) -> Site:
    after = apply(site, found.edit) if found.edit else site
    assert isinstance(after, Site), after
    return after


# ── the value ──


def test_a_translation_is_older_once_the_text_says_something_else() -> None:
    words = Words(text="Fares").saying("de", "Preise")
    assert [words.standing(tag) for tag in ("de", "de-AT", "cy")] == ["said", "said", "missing"]
    changed = words.saying("", "Fares and passes")
    assert changed.standing("de") == "older"
    assert changed.saying("", "Fares").standing("de") == "said"
    assert changed.saying("de", "Preise").standing("de") == "said", "looked at, and still right"
    assert changed.saying("cy", "Prisiau").standing("de") == "older", "another language says nothing of this one"
    assert words.saying("de", "  ").translations == ()
    assert words.saying("de", "Tarife", draft=True).standing("de") == "draft"


def test_the_site_knows_it_whoever_writes_and_undoing_takes_it_back() -> None:
    site = small(Words(text="Fares", translations=(Translation(language="de", text="Preise"),)))
    before = said(site)
    after = apply(site, Set(node="en-0", field="label", value={**before.model_dump(mode="json"), "text": "Passes"}))
    assert isinstance(after, Site)
    assert said(after).standing("de") == "older"
    back = apply(after, Set(node="en-0", field="label", value=before.model_dump(mode="json")))
    assert back == site


def test_of_two_who_write_at_once_the_translator_translated_what_there_was() -> None:
    base = small(Words(text="Fares"))
    newest = apply(base, Set(node="en-0", field="label", value={"text": "Passes"}))
    assert isinstance(newest, Site)
    mine = Set(node="en-0", field="label", value=said(base).saying("de", "Preise").model_dump(mode="json"))
    both = replay(mine, base, newest)
    assert isinstance(both, Site)
    assert (said(both).text, said(both).in_language("de"), said(both).standing("de")) == ("Passes", "Preise", "older")


def test_no_text_of_the_demo_is_left_out() -> None:
    kept = SITE.replaced(pages=(), assets=())
    every = [one for one in within(kept) if isinstance(one, Translatable) and one.text.strip()]
    ours = {phrase_id(name) for name in sayable()}
    assert len(texts_of(SITE)) == len(every) + len(ours) > 100
    assert len({text.key for text in texts_of(SITE)}) == len(texts_of(SITE))
    assert ours <= {text.node for text in texts_of(SITE)}
    assert all(text.group and (text.place or text.field == "label") for text in texts_of(SITE))


# ── XLIFF ──


def structure_faults(xliff: str) -> list[str]:
    """What XLIFF 2.1 (4.2, 4.3) asks of the elements that we write: no package of the registries brings its schema, so
    this was written from the standard by hand, for these elements and no others."""
    children = {
        "xliff": ["file"],
        "file": ["group"],
        "group": ["unit"],
        "unit": ["notes?", "originalData?", "segment"],
        "notes": ["note"],
        "originalData": ["data"],
        "segment": ["source", "target?"],
    }
    needed = {
        "xliff": {"version", "srcLang", "trgLang"},
        "file": {"id"},
        "group": {"id"},
        "unit": {"id"},
        "data": {"id"},
    }
    allowed = {
        "file": {"original", "{http://www.w3.org/XML/1998/namespace}space"},
        "group": {"name"},
        "unit": {"name"},
        "note": {"appliesTo"},
        "segment": {"state", "subState"},
        "pc": {"id", "type", "subType", "dataRefStart", "dataRefEnd"},
        "ph": {"id", "type", "subType", "dataRef"},
    }
    found: list[str] = []
    root = ElementTree.fromstring(xliff)
    ids: dict[str, set[str]] = {}
    for element in root.iter():
        name = element.tag.removeprefix(f"{{{NS}}}")
        inside = [child.tag.removeprefix(f"{{{NS}}}") for child in element]
        if name in children:
            order = [one.rstrip("?") for one in children[name]]
            found += [f"{name} in {child}" for child in inside if child not in order]
            found += [
                f"{name}: order" for first, second in pairwise(inside) if order.index(first) > order.index(second)
            ]
            found += [f"{name} without {one}" for one in children[name] if not one.endswith("?") and one not in inside]
        elif name in {"source", "target", "pc"}:
            found += [f"{child} in {name}" for child in inside if child not in {"pc", "ph"}]
        elif inside:
            found.append(f"{name} holds {inside}")
        attributes = set(element.attrib)
        found += [f"{name} without {one}" for one in needed.get(name, set()) - attributes]
        found += [f"{name} has {one}" for one in attributes - needed.get(name, set()) - allowed.get(name, set())]
        if name in {"file", "group", "unit"}:
            if not re.fullmatch(r"[\w.:-]+", element.get("id", "")) or element.get("id", "") in ids.setdefault(
                name, set()
            ):
                found.append(f"{name} {element.get('id')}: id")
            ids[name].add(element.get("id", ""))
        if name == "unit":
            data = {one.get("id") for one in element.iter(f"{{{NS}}}data")}
            for part in ("source", "target"):
                held = element.find(f".//{{{NS}}}{part}")
                codes = [] if held is None else [one for one in held.iter() if one is not held]
                if len({one.get("id") for one in codes}) < len(codes):
                    found.append(f"{element.get('id')}: codes of one {part} alike")
                refs = {value for one in codes for key, value in one.attrib.items() if key.startswith("dataRef")}
                found += [f"no data {one}" for one in refs - data]
        if (
            name == "segment"
            and element.get("subState")
            and not re.fullmatch(r"\w+:[\w-]+", element.get("subState", ""))
        ):
            found.append("sub-state without a prefix")
        if name == "segment" and element.get("state") not in {"initial", "translated", "reviewed", "final"}:
            found.append("state")
    return found


@pytest.mark.parametrize("language", OTHERS)
def test_the_demo_goes_out_comes_in_and_goes_out_as_the_same_bytes(language: str) -> None:
    out = write_xliff(SITE, language)
    assert structure_faults(out) == []
    found = read_xliff(SITE, out.encode())
    assert (found.edit, found.taken) == (None, 0)
    assert {remark.kind for remark in found.remarks} <= {"not said"}
    bare = SITE
    for text in texts_of(SITE):
        after = apply(bare, says(bare, text, text.words.saying(language, "").replaced(note="")))
        assert isinstance(after, Site)
        bare = after
    again = done(bare, read_xliff(bare, out.encode()))
    assert write_xliff(again, language) == out
    assert again == SITE


def _generated(chance: Random) -> Site:
    """Texts, plain ones and marked ones, of all that the model lets a text be."""
    bits = [
        "Fares",
        " & ",
        "<",
        "]]>",
        '"',
        "’",
        "\xa0",
        "ü",
        "🚢",
        "مواعيد",
        "é" * 9,
        "&amp;",
        "a  b",
        "{0}",
        "--",
        "%",
    ]
    marks = [
        "<p>{}</p>",
        "<strong>{}</strong>",
        '<a href="/fares/?a=1&amp;b=%20">{}</a>',
        "{}<br>",
        "<ul><li>{}</li></ul>",
        "<em><s>{}</s></em>",
    ]

    def plain() -> str:
        return "".join(chance.choices(bits, k=chance.randrange(1, 8)))

    def marked() -> str:
        text = plain().replace("&", "&amp;").replace("<", "&lt;")
        for _ in range(chance.randrange(4)):
            text = chance.choice(marks).format(text) + chance.choice(["", " and ", chance.choice(marks).format("x")])
        return text

    def words(make: Any, kind: Any) -> Any:
        made = kind(text=make(), note=plain() if chance.random() < 0.3 else "")
        for language in ("de", "ar"):
            if chance.random() < 0.7:
                made = made.saying(
                    language, make(), draft=chance.random() < 0.3, note=plain() if chance.random() < 0.3 else ""
                )
        return made.saying("", make()) if chance.random() < 0.3 else made

    site = small(*(words(plain, Words) for _ in range(6))).replaced(
        pieces=SITE.pieces, bands=SITE.bands, looks=SITE.looks
    )
    rich = [text for text in texts_of(site) if isinstance(text.words, RichWords)]
    pieces: Any = site.pieces
    for text in rich:
        pieces = _replaced(pieces, text.node, text.field, words(marked, RichWords))
    return site.replaced(pieces=pieces)


def _replaced(value: Any, node: str, field: str, words: Any) -> Any:
    if isinstance(value, tuple):
        return tuple(_replaced(one, node, field, words) for one in value)
    if not isinstance(value, Node):
        return value
    if value.id == node:
        return value.replaced(**{field: words})
    slots = {slot: _replaced(getattr(value, slot), node, field, words) for slot in slots_of(value)}
    return value.replaced(**slots)


@pytest.mark.parametrize("seed", range(40))
def test_any_texts_go_out_and_come_in_unchanged(seed: int) -> None:
    site = _generated(Random(seed))
    for language in ("de", "ar"):
        out = write_xliff(site, language)
        assert structure_faults(out) == []
        assert read_xliff(site, out.encode()).edit is None
    table = write_texts(site, ["de", "ar"])
    assert read_texts(site, table.encode()).edit is None


def translated(site: Site, language: str, change: Any) -> Merged:
    """What a translator's file means, in whose units something was changed: `change` gets the tree."""
    ElementTree.register_namespace("", NS)
    root = ElementTree.fromstring(write_xliff(site, language))
    change(root, {unit.get("id"): unit for unit in root.iter(f"{{{NS}}}unit")})
    return read_xliff(site, ElementTree.tostring(root, encoding="utf-8"))


def put(unit: Any, text: str, **attributes: str) -> None:
    segment = unit.find(f"{{{NS}}}segment")
    target = segment.find(f"{{{NS}}}target")
    if target is None:
        target = ElementTree.SubElement(segment, f"{{{NS}}}target")
    target.text = text
    for name, value in attributes.items():
        target.set(f"{{http://www.w3.org/XML/1998/namespace}}{name}", value)


def test_what_a_translator_does_to_a_file_is_told_unit_by_unit() -> None:
    site = small(
        *(Words(text=text) for text in ("Fares", "Harbours", "Ships", "Press", "Island guide", "Sailings", "Shop"))
    )
    now = apply(site, Set(node="en-5", field="label", value={"text": "All sailings"}))
    assert isinstance(now, Site)

    def change(root: Any, units: Any) -> None:
        for at, text in enumerate(("Preise", "Häfen", "Schiffe", "Presse", "Führer", "Fahrten", "المتجر")):
            put(units[f"en-{at}.label"], text)
        group = root.find(f".//{{{NS}}}group")
        # Two have each other's texts, one is gone, one is doubled, one is of nothing, one is in another language.
        first, second = (units[f"en-{at}.label"] for at in (0, 1))
        first.set("id", "en-1.label")
        second.set("id", "en-0.label")
        group.remove(units["en-2.label"])
        twice = ElementTree.fromstring(ElementTree.tostring(units["en-3.label"]))
        put(twice, "Nicht dies")
        group.append(twice)
        strange = ElementTree.fromstring(ElementTree.tostring(units["en-3.label"]))
        strange.set("id", "en-99.label")
        group.append(strange)
        put(units["en-4.label"], "Guide des îles", lang="fr")

    ElementTree.register_namespace("", NS)
    root = ElementTree.fromstring(write_xliff(site, "de"))
    change(root, {unit.get("id"): unit for unit in root.iter(f"{{{NS}}}unit")})
    found = read_xliff(now, ElementTree.tostring(root, encoding="utf-8"))
    told = {(remark.place, remark.kind) for remark in found.remarks}
    assert told == {
        ("en-0.label", "another's"),
        ("en-1.label", "another's"),
        ("en-2.label", "not in it"),
        ("en-3.label", "twice"),
        ("en-99.label", "not there"),
        ("en-4.label", "another language"),
        ("en-5.label", "older"),
        ("en-6.label", "another script"),
    }
    after = done(now, found)
    labels = [said(after, f"en-{at}.label") for at in range(7)]
    assert [words.in_language("de") for words in labels] == [
        "Fares",
        "Harbours",
        "Ships",
        "Presse",
        "Island guide",
        "Fahrten",
        "المتجر",
    ]
    assert [words.standing("de") for words in labels] == ["missing"] * 3 + ["said", "missing", "older", "said"]
    assert all("{" not in remark.words for remark in found.remarks)


def test_a_text_that_was_the_same_as_another_is_not_taken_for_that_one() -> None:
    site = small(Words(text="Menu"), Words(text="Menu"))
    now = apply(site, Set(node="en-0", field="label", value={"text": "All pages"}))
    assert isinstance(now, Site)
    back = write_xliff(site, "de").replace("<source>Menu</source>", "<source>Menu</source><target>Menü</target>")
    found = read_xliff(now, back.encode())
    assert [(remark.place, remark.kind) for remark in found.remarks] == [("en-0.label", "older")]
    after = done(now, found)
    assert [said(after, f"en-{at}.label").standing("de") for at in (0, 1)] == ["older", "said"]
    assert read_xliff(after, back.encode()) == Merged(None, 0, ()), "once more, there is nothing new"


def test_segments_come_back_in_the_order_that_the_translation_has() -> None:
    site = small(Words(text="One. Two."))

    def change(root: Any, units: Any) -> None:
        unit = units["en-0.label"]
        unit.remove(unit.find(f"{{{NS}}}segment"))
        for name, source, target, order in (
            ("segment", "One.", "Zwei.", "3"),
            ("ignorable", " ", None, ""),
            ("segment", "Two.", "Eins.", "1"),
        ):
            part = ElementTree.SubElement(unit, f"{{{NS}}}{name}")
            ElementTree.SubElement(part, f"{{{NS}}}source").text = source
            if target:
                said = ElementTree.SubElement(part, f"{{{NS}}}target", {"order": order})
                said.text = target

    assert said(done(site, translated(site, "de", change))).in_language("de") == "Eins. Zwei."


HOSTILE = '<a href="javascript:alert(1)" onclick="x()"><script>alert(2)</script>'


def test_marks_that_are_lost_or_made_up_are_told_and_nothing_else_gets_in() -> None:
    site = SITE
    key = next(text.key for text in texts_of(site) if isinstance(text.words, RichWords) and "<a " in text.words.text)

    def change(root: Any, units: Any) -> None:
        unit = units[key]
        ElementTree.SubElement(unit.find(f"{{{NS}}}originalData"), f"{{{NS}}}data", {"id": "own"}).text = HOSTILE
        target = unit.find(f".//{{{NS}}}target")
        target.text = "<script>alert(3)</script>"
        for child in list(target)[:1]:
            target.remove(child)
        ElementTree.SubElement(target, f"{{{NS}}}ph", {"id": "own", "dataRef": "own"})

    found = translated(site, "de", change)
    assert (key, "marks") in {(remark.place, remark.kind) for remark in found.remarks}
    text = said(done(site, found), key).in_language("de")
    assert "script" not in text.replace("&lt;script&gt;", "").replace("&lt;/script&gt;", "") and "onclick" not in text


@pytest.mark.parametrize(
    "data, why",
    [
        (b"", "no well-formed XML"),
        (b"\xff\xfe<", "not in UTF-8"),
        (b'<!DOCTYPE x [<!ENTITY a "b">]><x/>', "document type"),
        (b"<xliff/>", "no XLIFF 2"),
        (b"<a>" * 50_000 + b"</a>" * 50_000, "no XLIFF 2"),
        (f'<xliff xmlns="{NS}" srcLang="fr" trgLang="de"/>'.encode(), "from “fr”"),
        (f'<xliff xmlns="{NS}" srcLang="en" trgLang="nl"/>'.encode(), "into “nl”"),
    ],
    ids=["nothing", "bytes", "entities", "another", "deep", "from another", "into another"],
)
def test_what_is_no_such_file_is_refused_with_a_reason(data: bytes, why: str) -> None:
    with pytest.raises(UnreadableFile, match=why):
        read_xliff(small(Words(text="Fares")), data)


def test_a_deep_target_is_no_harm() -> None:
    site = small(Words(text="Fares"))

    def change(root: Any, units: Any) -> None:
        at = ElementTree.SubElement(units["en-0.label"].find(f"{{{NS}}}segment"), f"{{{NS}}}target")
        for _ in range(500):
            at = ElementTree.SubElement(at, f"{{{NS}}}pc", {"id": "1"})
        at.text = "Preise"

    assert {remark.kind for remark in translated(site, "de", change).remarks} == {"not said"}


def test_the_command_line_writes_texts_and_takes_them_in(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    bundle, out, back = (str(tmp_path / name) for name in ("a.rim.zip", "de.xlf", "b.rim.zip"))
    assert main(["demo", bundle]) == 0
    assert main(["texts", bundle, "--language", "de", "--out", out]) == 0
    file = tmp_path / "de.xlf"
    changed = file.read_text().replace("<target>Buchen</target>", "<target>Platz buchen</target>")
    file.write_text(changed)
    assert main(["texts", bundle, "--take", out, "--out", back]) == 0
    assert main(["texts", back, "--language", "de", "--out", out]) == 0
    assert file.read_text() == changed
    table = str(tmp_path / "texts.csv")
    assert main(["texts", bundle, "--out", table]) == 0 and "Buchen" in (tmp_path / "texts.csv").read_text()
    (tmp_path / "texts.csv").write_text("id,de\nit-none.words,Nichts\nit-book.words,Platz\n")
    assert main(["texts", bundle, "--take", table, "--out", back]) == 1
    assert "line 2: it-none.words, de: there is no such text here" in capsys.readouterr().err
    file.write_text("<x/>")
    for wrong in (
        ["--language", "nl", "--out", out],
        ["--take", out, "--out", back],
        ["--take", "none", "--out", back],
    ):
        assert main(["texts", bundle, *wrong]) == 3


def test_a_table_brings_several_languages_at_once() -> None:
    site = small(Words(text="Fares"), Words(text="=1+1"), Words(text="'-x"))
    lines = write_texts(site, ["de", "ar"]).splitlines()
    assert lines[0] == "id,where,en,de,ar,note" and "'=1+1" in lines[2]
    table = "\n".join(
        [lines[0].replace("where", "nl"), "en-0.label,x,Fares,Preise,الأجرة,for buttons", "en-1.label,,'=1+1,'=2,,"]
    )
    found = read_texts(site, table.encode("utf-8-sig"))
    after = done(site, found)
    assert [said(after).in_language(tag) for tag in ("de", "ar")] == ["Preise", "الأجرة"]
    assert said(after).note == "for buttons"
    assert said(after, "en-1.label").in_language("de") == "=2"
    assert found.taken == 3
    with pytest.raises(UnreadableFile, match="one of them is “id”"):
        read_texts(site, b"a,b\n1,2")
    with pytest.raises(UnreadableFile, match="other languages: ar, de"):
        read_texts(site, b"id,en\nen-0.label,Fares")


@pytest.mark.parametrize(
    "text, tag, fits",
    [
        ("Fares", "ar", False),
        ("Fares", "sr", True),
        ("Fares", "zh", False),
        ("時刻表", "ja", True),
        ("42 → 7", "ar", True),
        ("Ostrey احجز", "ar", True),
        ("Τιμές", "de", False),
        ("Fares", "qaa", True),
    ],
)
def test_letters_of_a_language(text: str, tag: str, fits: bool) -> None:
    assert is_written_in(text, tag) is fits


# ── Phrases ──


def phrase(site: Site, name: str) -> Words:
    return next(text.words for text in texts_of(site) if text.node == phrase_id(name))


def saying(site: Site, name: str, language: str, text: str) -> Site:
    found = next(one for one in texts_of(site) if one.node == phrase_id(name))
    after = apply(site, says(site, found, found.words.saying(language, text)))
    assert isinstance(after, Site)
    return after


def test_only_what_a_site_says_otherwise_is_kept_of_the_phrases() -> None:
    assert phrase(SITE, "skip").text == "Skip to content" and SITE.phrases == ()
    german = saying(SITE, "skip", "de", "Weiter zum Inhalt")
    assert [one.words.text for one in german.phrases] == [""]
    assert [one.language for one in german.phrases[0].words.translations] == ["de"]
    assert german.phrase("skip", "de") == "Weiter zum Inhalt" and german.phrase("skip", "en") == "Skip to content"
    assert german.phrase("skip", "cy") == SITE.phrase("skip", "cy") != "Skip to content"
    assert phrase(german, "skip").standings(("ar", "de")) == {"ar": "said", "de": "said"}
    both = saying(german, "skip", "", "To the text")
    assert both.phrase("skip", "en") == "To the text" and len(both.phrases) == 1
    assert phrase(both, "skip").standings(("ar", "de")) == {"ar": "older", "de": "older"}, "what ships is of what ships"
    back = saying(saying(both, "skip", "de", "Zum Inhalt springen"), "skip", "", "Skip to content")
    assert back == SITE, "nothing is kept of what is as it ships"


def test_a_phrase_keeps_what_is_put_into_it_and_nothing_else_is() -> None:
    assert saying(SITE, "found", "de", "{0} Treffer").phrase("found", "de", "7") == "7 Treffer"
    braced = saying(SITE, "skip", "de", "{site.key} {0.__class__}")
    assert braced.phrase("skip", "de") == "{site.key} {0.__class__}", "nothing is looked up"
    for name, text in (("found", "Treffer"), ("skip", "Zu {0}"), ("embed_waits", "{1}")):
        with pytest.raises(ValidationError):
            saying(SITE, name, "de", text)
    out = write_xliff(SITE, "de").replace("Gefunden: {0}", "Gefunden")
    told = read_xliff(SITE, out.encode())
    remark = told.remarks[0]
    assert told.edit is None and (remark.kind, remark.about) == ("not allowed", "it has to keep {0}")

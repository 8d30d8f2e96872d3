"""Looks, fonts and tokens as forms: what is typed, what is refused, and what never leaves its owner."""

from __future__ import annotations

import io
import json
import re

import pytest
from django.contrib.auth.models import User
from django.core.files.uploadedfile import SimpleUploadedFile

from tests.styled_sites import StyledMaker
from upper_rim.core.exchange.bundle import write_bundle
from upper_rim.core.model.site import Site
from upper_rim.core.output.naming import look_class
from upper_rim.core.output.publication import publication
from upper_rim.core.style.idle import NEEDS, Idle
from upper_rim.core.style.resolve import Styling, styled_in
from upper_rim.core.values.styling import LOOK_PARTS
from upper_rim.demo import ostrey, quillwort
from upper_rim.shipped import HERE, shelf
from upper_rim.web.live.addresses import StageKey, stage_label
from upper_rim.web.sites import contents, store
from upper_rim.web.sites.models import Arrival, StoredSite, Trial
from upper_rim.web.studio.controls.of_styles import FACET_NAMES, idle_in_words
from upper_rim.web.studio.forms.styles import typed

from .conftest import signed_in

BENCH = "/s/ostrey/pieces/pc-main/"


def value_of(site: Site, node: str, name: str, state: str = "rest", band: str | None = None) -> str:
    styling = Styling(site)
    return styling.resolve(styling.elements[node, "box"], name, state, band).value


def style(node: str, name: str, value: str, **where: str) -> dict[str, str]:
    return {"do": "style", "node": node, "property": name, "value": value, "width": "1120", "page": "/", **where}


def test_names_of_swatches_become_references() -> None:
    site, _ = ostrey()
    for text, wanted in {
        "Deep": "@sw-deep",
        "deep 40%": "@sw-deep/40%",
        "Buoy, lit": "@sw-lamp",
        "linear-gradient(90deg, Buoy, Deep 60% 80%)": "linear-gradient(90deg, @sw-buoy, @sw-deep/60% 80%)",
        "0 1px 2px accent": "0 1px 2px @:accent",
        'url("/deep.png")': 'url("/deep.png")',
        "@sw-deep": "@sw-deep",
        "#deep00": "#deep00",
        "deeper": "deeper",
    }.items():
        assert typed(site, text) == wanted


def test_sides_are_typed_together_and_given_back_together(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    client.post(BENCH, style("it-book", "padding", "4px 20px"))
    site = store.load(ferries.pk).site
    assert (value_of(site, "it-book", "padding-block-end"), value_of(site, "it-book", "padding-inline-start")) == (
        "4px",
        "20px",
    )
    client.post(BENCH, style("it-book", "padding", "1px 2px 3px 4px", band="bd-narrow"))
    site = store.load(ferries.pk).site
    assert value_of(site, "it-book", "padding-inline-start", band="bd-narrow") == "4px"
    assert value_of(site, "it-book", "padding-inline-start", band="bd-wide") == "20px"
    wrong = client.post(BENCH, style("it-book", "padding", "1px 2px 3px 4px 5px"))
    assert wrong.status_code == 422 and "clockwise" in wrong.content.decode()
    client.post(BENCH, style("it-book", "padding", ""))
    client.post(BENCH, style("it-book", "padding", "", band="bd-narrow"))
    assert store.load(ferries.pk).site == ostrey()[0]


@pytest.mark.parametrize(
    ("name", "value"), [("border-width", "2px 3px"), ("outline-width", "2px"), ("border-style", "dashed")]
)
@pytest.mark.parametrize("where", [{}, {"state": "hover"}, {"band": "bd-narrow"}])
def test_what_makes_a_line_show_goes_with_what_it_came_with(
    ferries: StoredSite, ada: User, name: str, value: str, where: dict[str, str]
) -> None:
    client = signed_in(ada)
    client.post(BENCH, style("it-book", name, value, **where))
    kind = name.replace("border-", "border-block-start-").rpartition("-")[0] + "-style"
    shown = value_of(store.load(ferries.pk).site, "it-book", kind, **where)
    assert shown == ("dashed" if name == "border-style" else "solid"), "a width alone shows nothing"
    client.post(BENCH, style("it-book", name, "", **where))
    assert store.load(ferries.pk).site == ostrey()[0]
    # What was chosen besides stays.
    client.post(BENCH, style("it-book", "border-style", "dotted", **where))
    client.post(BENCH, style("it-book", "border-width", "2px", **where))
    client.post(BENCH, style("it-book", "border-width", "", **where))
    assert value_of(store.load(ferries.pk).site, "it-book", "border-block-start-style", **where) == "dotted"


def test_a_roles_defaults_begin_with_their_first_value(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    client.post("/s/ostrey/foundations/defaults/entry/", style("role:entry", "color", "Tide", state="hover"))
    client.post(BENCH, style("role:entry@pc-press", "color", "#ffffff", state="hover"))
    styling = Styling(store.load(ferries.pk).site)
    found = {
        node: styling.resolve(styling.elements[node, "content"], "color", "hover")
        for node in ("it-menu", "it-press-menu")
    }
    assert found["it-menu"].value == "@sw-tide" and found["it-menu"].source.layer == "site"
    assert found["it-press-menu"].value == "#ffffff" and found["it-press-menu"].source.layer == "piece"


def test_contents_of_others_cannot_be_named_as_fonts(ferries: StoredSite, ada: User) -> None:
    font = {
        "id": "ft-a",
        "name": "A",
        "files": [{"content": "0" * 64, "size": 1, "lightest": 400, "boldest": 400}],
        "measures": {"ascent": 1, "descent": 0, "widths": [[400, 0.5]]},
    }
    edit = {"kind": "add", "parent": "site", "slot": "fonts", "values": [font]}
    answer = signed_in(ada).post(BENCH, {"do": "edit", "edit": json.dumps(edit)})
    assert "by upload only" in answer.content.decode() and store.load(ferries.pk).revision == 0


def test_what_is_tried_on_is_seen_by_its_designer_only(ferries: StoredSite, ada: User, ben: User) -> None:
    ferries.people.add(ben)
    client = signed_in(ada)
    client.post("/s/ostrey/foundations/schemes/", {"trial": "scheme:herbarium"})
    assert Trial.objects.count() == 1 and store.load(ferries.pk).revision == 0
    shown = {}
    for person in (ada, ben):
        host = f"{stage_label(StageKey(ferries.pk, person.pk))}.localhost"
        page = client.get("/?rim-try=1", HTTP_HOST=host).content.decode()
        shown[person] = page.split("<style data-rim-sheet>")[1].split("</style>")[0]
    assert "Source Serif" in shown[ada] and "Source Serif" not in shown[ben]
    client.post("/s/ostrey/foundations/schemes/", {"trial": "keep"})
    assert store.load(ferries.pk).site.face == "source-serif-4" and not Trial.objects.exists()
    refused = client.post("/s/ostrey/foundations/schemes/", {"trial": "scheme:none"})
    assert "nothing of that name" in refused.content.decode()


def test_a_bundle_is_carried_over_from_and_a_strangers_site_is_not(ferries: StoredSite, ada: User, ben: User) -> None:
    site, contents = quillwort()
    store.new_site(ben, site, contents, slug="bens")
    client = signed_in(ada)
    carry = "/s/ostrey/foundations/carry/"
    assert "Moss" not in client.get(f"{carry}?from=bens&take=swatches").content.decode()
    client.post(carry, {"from": "bens", "take": "swatches", "carry": "1"})
    assert store.load(ferries.pk).revision == 0
    out = io.BytesIO()
    write_bundle(out, site, contents.__getitem__)
    for data, told in ((b"no zip", "was not taken in"), (out.getvalue(), "")):
        client.post(carry, {"bundle": SimpleUploadedFile("q.rim.zip", data)})
        page = client.get(f"{carry}?from=bundle&take=pc-main").content.decode()
        assert told in page
    assert Arrival.objects.count() == 1 and "Comes along" in page
    client.post(carry, {"from": "bundle", "take": ["pc-main", "scale"], "carry": "1"})
    after = store.load(ferries.pk).site
    assert [piece.name for piece in after.pieces if piece.kind == "header"] == [
        "Main header",
        "Press header",
        "Header of the guide",
        "Header",
    ]
    assert after.face == "source-serif-4" and not Arrival.objects.exists()


BAD_FORMS = [
    {"do": "style", "node": "it-gone", "property": "color", "value": "red"},
    {"do": "style", "node": "it-book", "property": "none-such", "value": "red"},
    {"do": "style", "node": "it-book", "property": "color", "value": "red", "state": "asleep"},
    {"do": "style", "node": "it-book", "property": "color", "value": "red", "band": "bd-gone"},
    {"do": "style", "node": "it-book", "property": "color", "value": "red", "part": "title"},
    {"do": "style", "node": "role:king", "property": "color", "value": "red"},
    {"do": "wear", "node": "it-book", "look": "lk-gone"},
    {"do": "look-from", "node": "it-logo"},
    {"do": "detach", "node": "it-logo"},
    {"do": "merge", "node": "sw-deep", "other": "sw-gone"},
    {"do": "merge", "node": "sw-buoy", "other": "sw-lamp"},
    {"do": "tint", "node": "it-book"},
    {"do": "content-width", "node": "it-book", "value": "wide"},
    {"do": "set", "node": "site", "field": "ratio", "value": "9"},
    {"do": "set", "node": "it-book", "field": "classes", "value": "1st"},
    {"do": "set", "node": "sw-deep", "field": "colour", "value": "blurple"},
]


def test_bad_forms_about_looks_are_told_and_change_nothing(
    ferries: StoredSite, ada: User, subtests: pytest.Subtests
) -> None:
    client = signed_in(ada)
    for form in BAD_FORMS:
        with subtests.test(form=form):
            answer = client.post(BENCH, form)
            assert answer.status_code == 422 and 'data-test="notice"' in answer.content.decode()
            assert store.load(ferries.pk).revision == 0


def test_every_screen_about_looks_shows_for_any_site_and_any_address(ada: User) -> None:
    client = signed_in(ada)
    for seed in range(2):
        site = StyledMaker(seed).styled_site(2)
        stored = store.new_site(ada, site, {}, slug=f"styled-{seed}")
        host = f"{stage_label(StageKey(stored.pk, ada.pk))}.localhost"
        base = f"/s/styled-{seed}/"
        rooms = ["", "type/", "defaults/", "looks/", "contrast/", "schemes/", "code/", "carry/"]
        addresses = [f"{base}foundations/{room}" for room in rooms]
        addresses += [
            f"{base}foundations/looks/lk-{at}/?part={part}&state=hover" for at in range(4) for part in LOOK_PARTS
        ]
        addresses += [
            f"{base}foundations/defaults/{role}/?tray={tray}"
            for role in ("field", "ring", "page", "list")
            for tray in FACET_NAMES
        ]
        for piece in site.pieces:
            for node in [piece, *styled_in(piece)][:8]:
                addresses += [
                    f"{base}pieces/{piece.id}/?select={node.id}&tray={tray}&width=500" for tray in FACET_NAMES
                ]
        addresses.append(
            f"{base}pieces/pc-0/?select=none&tray=none&part=none&state=asleep&band=bd-gone&width=x&page=/none/"
        )
        for address in addresses:
            assert client.get(address).status_code == 200, address
        for element in list(Styling(site).elements.values())[:12]:
            for band in ("all", "bd-0", "bd-gone"):
                answer = client.get(f"/_rim/specimens/states/{element.node}/{element.part}/{band}/", HTTP_HOST=host)
                assert answer.status_code == 200 and b"<header" in answer.content
        assert client.get("/_rim/specimens/states/pc-0/in-link/all/", HTTP_HOST=host).status_code == 200
        for look in site.looks:
            answer = client.get(f"/_rim/specimens/looks/{look.id}/", HTTP_HOST=host).content.decode()
            assert all(word in answer for word in ("A title", "a link", "There", "A button"))
            assert answer.count(f"{site.key}-{look_class(look.id, 0)}") >= 3, "each wears it"
        for wrong in (
            "states/it-none/box/all/",
            "states/",
            "roles/king/",
            "looks/lk-none/",
            "roles/",
            "none/",
            "states/pc-0/content/all/",
            "states/pc-0/in-king/all/",
            "states/it-1/in-link/all/",
        ):
            assert client.get(f"/_rim/specimens/{wrong}", HTTP_HOST=host).status_code == 404, wrong


def test_a_font_that_was_brought_along_is_published_and_only_its_people_see_it(
    ferries: StoredSite, ada: User, ben: User
) -> None:
    client = signed_in(ada)
    data = (HERE / "fonts" / "bitter-latin-wght-normal.woff2").read_bytes()
    client.post("/s/ostrey/foundations/font/", {"font": SimpleUploadedFile("bitter.woff2", data)})
    client.post("/s/ostrey/foundations/font/", {"font": SimpleUploadedFile("bitter.woff2", data)})
    site = store.load(ferries.pk).site
    assert [(font.name, len(font.files)) for font in site.fonts] == [("Bitter", 1)], "the same file twice is one"
    font = site.fonts[0]
    client.post("/s/ostrey/foundations/type/", {"do": "set", "node": "site", "field": "face", "value": font.id})
    address = f"/s/ostrey/foundations/font/{font.id}/0/"
    assert client.get(address).content == data and client.get(address.replace("/0/", "/7/")).status_code == 404
    assert signed_in(ben).get(address).status_code == 404
    files = {file.name: file.data for file in publication(store.load(ferries.pk).site, shelf(), contents.read_content)}
    css = next(data.decode() for name, data in files.items() if name.endswith(".css") and name.startswith("_rim/"))
    published = [name for name in files if font.id in name]
    assert len(published) == 1 and published[0].removeprefix("_rim/") in css and "figtree" not in css
    host = f"{stage_label(StageKey(ferries.pk, ada.pk))}.localhost"
    assert client.get(f"/{published[0]}", HTTP_HOST=host).status_code == 200
    client.post("/s/ostrey/foundations/type/", {"do": "remove", "node": font.id})
    assert store.load(ferries.pk).site.fonts == (), "what is not there any more is not worn: the next family is"


def test_a_stage_that_shows_the_newest_markup_is_answered_with_the_css_alone(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    host = f"{stage_label(StageKey(ferries.pk, ada.pk))}.localhost"
    shown = re.search(r'data-shown="(\w+)"', client.get("/", HTTP_HOST=host).content.decode())
    assert shown is not None

    def again() -> tuple[str, str]:
        answer = client.get("/", HTTP_HOST=host, HTTP_X_RIM_SHOWN=shown[1])
        return answer["Content-Type"].split(";")[0], answer.content.decode()

    client.post("/s/ostrey/foundations/", {"do": "set", "node": "sw-buoy", "field": "colour", "value": "#123457"})
    kind, css = again()
    assert kind == "text/css" and "#123457" in css
    client.post(BENCH, {"do": "set", "node": "it-book", "field": "words", "value": "Book now"})
    kind, page = again()
    assert kind == "text/html" and "Book now" in page


def test_two_designers_set_the_same_value_and_the_second_is_told(ferries: StoredSite, ada: User, ben: User) -> None:
    ferries.people.add(ben)
    for person, value in ((ada, "13px"), (ben, "19px")):
        answer = signed_in(person).post(BENCH, {**style("it-book", "font-size", value), "base": "0"})
    page = answer.content.decode()
    assert "ada changed value" in page and "13px" in page and "19px" in page
    assert value_of(store.load(ferries.pk).site, "it-book", "font-size") == "13px"
    both = signed_in(ben).post(BENCH, {**style("it-book", "letter-spacing", "1px"), "base": "0"})
    assert both.status_code == 200 and value_of(store.load(ferries.pk).site, "it-book", "letter-spacing") == "1px"


def test_whatever_has_no_effect_says_why_in_a_few_words() -> None:
    for needs, without in NEEDS.values():
        words = idle_in_words(Idle(needs, next(iter(without))), ostrey()[0])
        assert words.startswith("no ") and len(words) <= 10, needs
    assert idle_in_words(Idle("", "", "bd-wide"), ostrey()[0]) == "Wide has its own"
    assert idle_in_words(None, ostrey()[0]) == ""

"""The studio over HTTP: whose sites there are, what forms do, what is refused."""

from __future__ import annotations

import io
import json
import re
from pathlib import Path

import brotli
import pytest
from django.contrib.auth.models import User
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext
from django.urls import URLPattern, reverse

from tests.broken_pages import archive
from upper_rim.core.exchange.html.markers import strip
from upper_rim.core.model.site import content_hash
from upper_rim.core.reach.coverage import Coverage
from upper_rim.demo import quillwort
from upper_rim.web.jobs import arriving, lifting, publishing
from upper_rim.web.live.addresses import StageKey, read_stage_label, stage_label
from upper_rim.web.sites import contents, store
from upper_rim.web.sites.models import Edition, StoredSite, Trial, Work
from upper_rim.web.sites.storage import editions, stored
from upper_rim.web.studio.urls import urlpatterns

from .conftest import signed_in, taken_away


def site_addresses(slug: str) -> list[str]:
    """Every address of the studio that names a site."""
    values = {
        "slug": slug,
        "page_id": "pg-home",
        "menu_id": "mn-main",
        "piece_id": "pc-main",
        "number": 1,
        "revision": 0,
        "person": 1,
        "kind": "bring in",
        "role": "button",
        "look_id": "lk-quiet",
        "font_id": "ft-none",
        "at": 0,
        "message": 1,
        "language": "de",
    }
    found = []
    for pattern in urlpatterns:
        assert isinstance(pattern, URLPattern)
        names = re.findall(r"<\w+:(\w+)>", str(pattern.pattern))
        if "slug" in names:
            found.append(reverse(pattern.name, kwargs={name: values[name] for name in names}))
    return found


def test_another_persons_site_does_not_exist_by_any_address_or_method(
    ferries: StoredSite, ada: User, ben: User
) -> None:
    publishing.make_edition(publishing.new_edition(ferries, ada.pk).pk)
    before = content_hash(store.load(ferries.pk).site)
    client = signed_in(ben)
    addresses = site_addresses("ostrey")
    assert len(addresses) > 18
    for address in addresses:
        for method in ("get", "post", "put", "patch", "delete", "head", "options"):
            answer = (
                getattr(client, method)(address, {"do": "remove", "node": "pc-main"})
                if method == "post"
                else getattr(client, method)(address)
            )
            assert answer.status_code == 404, (method, address, answer.status_code)
    assert content_hash(store.load(ferries.pk).site) == before
    assert Edition.objects.count() == 1 and Work.objects.count() == 0
    assert set(ferries.people.all()) == {ada}


def test_nobody_reaches_the_studio_without_signing_in(ferries: StoredSite) -> None:
    client = Client(HTTP_HOST="localhost")
    for address in ["/", *site_addresses("ostrey")]:
        assert client.get(address).status_code == 302


def test_a_stage_opens_only_with_our_signature_for_somebody_on_the_site(
    ferries: StoredSite, ada: User, ben: User
) -> None:
    client = Client()
    label = stage_label(StageKey(ferries.pk, ada.pk))
    assert read_stage_label(label) == StageKey(ferries.pk, ada.pk)
    answer = client.get("/sailings/fares/", HTTP_HOST=f"{label}.localhost")
    assert answer.status_code == 200 and b'data-rim-node="it-menu"' in answer.content
    assert not answer.cookies
    assert client.get("/", HTTP_HOST=f"{stage_label(StageKey(ferries.pk, ben.pk))}.localhost").status_code == 404
    assert client.get("/", HTTP_HOST=f"{label[:-1]}{'0' if label[-1] != '0' else '1'}.localhost").status_code == 404
    assert client.get("/", HTTP_HOST="evil.example").status_code == 400


def test_published_sites_set_no_cookie_and_serve_nothing_of_the_studio(ferries: StoredSite, ada: User) -> None:
    publishing.make_edition(publishing.new_edition(ferries, ada.pk).pk)
    client = signed_in(ada)
    for path in ("/", "/account/sign-in/", "/s/ostrey/pieces/", "/static/studio/script/studio.js"):
        answer = client.get(path, HTTP_HOST="ostrey.localhost")
        assert answer.status_code == (200 if path == "/" else 404)
        assert not answer.cookies


def test_live_answers_with_types_etags_compression_and_a_404_page(ferries: StoredSite, ada: User) -> None:
    publishing.make_edition(publishing.new_edition(ferries, ada.pk).pk)
    client = Client(HTTP_HOST="ostrey.localhost")
    front = client.get("/", HTTP_ACCEPT_ENCODING="br")
    assert front["Content-Type"] == "text/html" and front["Content-Encoding"] == "br"
    assert client.get("/", HTTP_ACCEPT_ENCODING="br", HTTP_IF_NONE_MATCH=front["ETag"]).status_code == 304
    assert client.get("/", HTTP_ACCEPT_ENCODING="gzip", HTTP_IF_NONE_MATCH=front["ETag"]).status_code == 200
    assert client.get("/", HTTP_ACCEPT_ENCODING="br", HTTP_IF_NONE_MATCH=f'"a", W/{front["ETag"]}').status_code == 304
    plain = client.get("/")
    assert "Content-Encoding" not in plain and "Accept-Encoding" in plain["Vary"]
    assert brotli.decompress(front.content) == plain.content
    css = re.search(rb'href="(/_rim/[^"]+\.css)"', plain.content)
    assert css is not None
    sheet = client.get(css[1].decode())
    assert sheet["Content-Type"].startswith("text/css") and "immutable" in sheet["Cache-Control"]
    assert client.get("/logo.svg")["Content-Type"] == "image/svg+xml"
    assert client.get("/sailings/fares")["Location"] == "/sailings/fares/"
    missing = client.get("/nothing/here/")
    assert missing.status_code == 404 and b"q7xk-pc-main" in missing.content
    assert client.post("/").status_code == 405
    assert client.get("/", HTTP_HOST="none-such.localhost").status_code == 404


def test_an_edition_reads_its_contents_many_at_a_time(
    ferries: StoredSite, ada: User, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(contents, "READ_AT_ONCE", 5)
    edition = publishing.new_edition(ferries, ada.pk)
    table = contents.Content._meta.db_table
    with CaptureQueriesContext(connection) as asked:
        publishing.make_edition(edition.pk)
    one_by_one = [query["sql"] for query in asked if f'FROM "{table}"' in query["sql"]]
    assert len(one_by_one) <= 2, "whatever else is read before the pages and between them"
    site = store.load(ferries.pk).site
    held = [page.content for page in site.pages if page.content]
    ahead = contents.ReadAhead(held)
    assert [ahead(one) for one in (*held, held[-1], held[3])] == [
        contents.read_content(one) for one in (*held, held[-1], held[3])
    ]


def test_an_edition_from_before_there_were_compressed_forms_is_served_plain(ferries: StoredSite, ada: User) -> None:
    publishing.make_edition(publishing.new_edition(ferries, ada.pk).pk)
    forms = [path for path in Path(editions().location).rglob("*.*") if path.suffix in {".br", ".gzip"}]
    assert len(forms) > 40
    for path in forms:
        path.unlink()
    stored.cache_clear()
    answer = Client(HTTP_HOST="ostrey.localhost").get("/", HTTP_ACCEPT_ENCODING="br, gzip")
    assert answer.status_code == 200 and "Content-Encoding" not in answer and b"<html" in answer.content


def test_a_form_that_cannot_be_is_refused_at_its_place_and_changes_nothing(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    bench = "/s/ostrey/pieces/pc-main/"
    cases = [
        ({"do": "set", "node": "it-menu", "field": "gap_px", "value": "many"}, "integer"),
        ({"do": "set", "node": "it-book", "field": "target", "value": "javascript:alert(1)"}, "an address begins with"),
        ({"do": "set", "node": "it-book", "field": "nonsense", "value": "1"}, "no field"),
        ({"do": "add", "what": "item", "parent": "cl-end", "kind": "hologram"}, "choose what kind"),
        ({"do": "add", "what": "rule", "parent": "pc-main", "where": "page", "value": "/nowhere/"}, "no page at"),
        ({"do": "fly"}, "does not say what"),
        ({"do": "set"}, "not filled in"),
        ({"do": "edit", "edit": "{"}, "not filled in"),
        (
            {
                "do": "edit",
                "edit": json.dumps({"kind": "set", "node": "pg-home", "field": "content", "value": "0" * 64}),
            },
            "by upload only",
        ),
        ({"do": "set", "node": "pg-home", "field": "content", "value": "0" * 64}, "no field"),
        (
            {
                "do": "edit",
                "edit": json.dumps(
                    {
                        "kind": "together",
                        "edits": [
                            {
                                "kind": "add",
                                "parent": "site",
                                "slot": "assets",
                                "values": [{"id": "as-x", "path": "/x", "size": 1, "content": "0" * 64}],
                            }
                        ],
                    }
                ),
            },
            "by upload only",
        ),
    ]
    for form, sentence in cases:
        answer = client.post(bench, form)
        assert answer.status_code == 422, form
        assert sentence in answer.content.decode(), form
    assert store.load(ferries.pk).revision == 0


def test_what_is_typed_becomes_a_page_an_address_a_mail_or_a_telephone_link(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    typed = {
        "/sailings/fares": {"kind": "page", "page": "pg-fares"},
        "Fares": {"kind": "page", "page": "pg-fares"},
        "hello@ostrey.example": {"kind": "address", "address": "mailto:hello@ostrey.example"},
        "+44 1632 960144": {"kind": "address", "address": "tel:+441632960144"},
        "tides.example/today": {"kind": "address", "address": "https://tides.example/today"},
        "": {"kind": "nothing"},
    }
    for text, target in typed.items():
        client.post("/s/ostrey/menus/mn-main/", {"do": "set", "node": "en-guide", "field": "target", "value": text})
        site = store.load(ferries.pk).site
        entry = next(entry for entry in site.menus[0].entries if entry.id == "en-guide")
        assert entry.target.model_dump() == target, text


def brought(ferries: StoredSite, ada: User, name: str, data: bytes) -> Work:
    upload = io.BytesIO(data)
    upload.name = name
    answer = signed_in(ada).post("/s/ostrey/pages/bring-in/", {"file": upload})
    assert answer.status_code == 200
    work = Work.objects.latest("made_at")
    arriving.take_in(work.pk)
    work.refresh_from_db()
    return work


def test_an_archive_comes_in_as_one_edit_and_one_undo_takes_it_out(ferries: StoredSite, ada: User) -> None:
    before = content_hash(store.load(ferries.pk).site)
    work = brought(ferries, ada, "old-site.zip", archive({"harbours/index.html": b"<title>New harbours</title><p>x"}))
    assert work.state == Work.State.DONE and "came in" in work.message and "replaced" in work.message
    assert len(work.problems) == 2
    site, revision = store.load(ferries.pk)
    assert revision == 1 and len(site.pages) > 80
    harbours = next(page for page in site.pages if page.path == "/harbours/")
    assert harbours.id == "pg-harbours" and harbours.title == "New harbours", "menus still lead to it"
    store.undo(ferries.pk, ada)
    assert content_hash(store.load(ferries.pk).site) == before


@pytest.mark.parametrize(
    ("name", "data"), [("x.zip", b"no zip"), ("x.xml", b"<no"), ("x.zip", b"PK\x05\x06" + b"\x00" * 18)]
)
def test_what_cannot_be_read_says_so_and_changes_nothing(
    ferries: StoredSite, ada: User, name: str, data: bytes
) -> None:
    work = brought(ferries, ada, name, data)
    assert work.state == Work.State.FAILED and work.message.endswith(".")
    assert store.load(ferries.pk).revision == 0


def test_a_wrong_kind_of_file_is_refused_at_the_door(ferries: StoredSite, ada: User) -> None:
    upload = io.BytesIO(b"x")
    upload.name = "movie.mp4"
    answer = signed_in(ada).post("/s/ostrey/pages/bring-in/", {"file": upload})
    assert "can come in" in answer.content.decode() and Work.objects.count() == 0


def test_old_bits_are_lifted_out_everywhere_and_put_back(ferries: StoredSite, ada: User) -> None:
    brought(ferries, ada, "old-site.zip", archive())
    client = signed_in(ada)
    assert "/s/ostrey/pages/lifting/proposals/" in client.get("/s/ostrey/pages/lifting/").content.decode()
    proposed = client.get("/s/ostrey/pages/lifting/proposals/").content.decode()
    assert 'data-test="proposal"' in proposed and "?selector=%23old&amp;below=/" in proposed
    look = client.get("/s/ostrey/pages/lifting/", {"selector": "div.old-header", "below": "/"}).content.decode()
    assert "Only lift it out" in look and "Old site" in look
    client.post("/s/ostrey/pages/lifting/", {"lift": "div.old-header", "below": "/"})
    work = Work.objects.filter(kind=Work.Kind.LIFT_OUT).get()
    lifting.lift_out(work.pk)
    site = store.load(ferries.pk).site
    cut = [page for page in site.pages if page.cuts]
    assert len(cut) > 8
    publishing.make_edition(publishing.new_edition(ferries, ada.pk).pk)
    answer = Client(HTTP_HOST="ostrey.localhost").get("/nested/deep/page.html")
    assert b"Old site" not in answer.content and b"<h1>Deep</h1>" in answer.content
    later = brought(ferries, ada, "more.html", b"<title>m</title><body><div class=old-header>Old site</div><p>x")
    assert later.state == Work.State.DONE
    assert next(page for page in store.load(ferries.pk).site.pages if page.path == "/more.html").cuts, (
        "also from pages that come later"
    )
    assert 'data-test="lifted"' in client.get("/s/ostrey/pages/lifting/").content.decode()
    client.post("/s/ostrey/pages/lifting/", {"do": "remove", "node": site.lifts[0].id})
    assert not any(page.cuts for page in store.load(ferries.pk).site.pages)


def test_editions_are_made_once_and_an_earlier_one_comes_back_whole(ferries: StoredSite, ada: User) -> None:
    client, live = signed_in(ada), Client(HTTP_HOST="ostrey.localhost")
    first = publishing.new_edition(ferries, ada.pk)
    publishing.make_edition(first.pk)
    one = live.get("/").content
    client.post("/s/ostrey/pieces/pc-main/", {"do": "set", "node": "it-book", "field": "words", "value": "Book now"})
    assert live.get("/").content == one, "nothing is live before it is published"
    second = publishing.new_edition(ferries, ada.pk)
    assert publishing.new_edition(ferries, ada.pk).pk == second.pk, "pressed twice, made once"
    publishing.make_edition(second.pk)
    publishing.make_edition(second.pk)
    assert b"Book now" in live.get("/").content
    client.post("/s/ostrey/editions/1/go-back/")
    assert live.get("/").content == one
    files = taken_away(client, number=2)
    assert b"Book now" in files["index.html"]
    pages = {page.path: page for page in store.load(ferries.pk).site.pages}
    assert strip(files["sailings/fares/index.html"]) == contents.read_content(pages["/sailings/fares/"].content or "")


def test_a_site_travels_as_a_bundle(ferries: StoredSite, ada: User, ben: User) -> None:
    answer = signed_in(ada).get("/s/ostrey/bundle/")
    data = io.BytesIO(b"".join(answer.streaming_content))
    data.name = "ostrey.rim.zip"
    made = signed_in(ben).post("/sites/new/", {"bundle": data})
    assert made.status_code == 302
    copy = StoredSite.objects.get(people=ben)
    arriving.take_in(Work.objects.get(site=copy).pk)
    assert copy.slug != "ostrey"
    assert store.load(copy.pk).site.replaced(key="q7xk") == store.load(ferries.pk).site
    broken = io.BytesIO(b"nothing")
    broken.name = "x.zip"
    assert "not a ZIP" in signed_in(ben).post("/sites/new/", {"bundle": broken}).content.decode()


def test_pages_written_by_hand_are_rewritten_and_their_html_is_no_markup(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    answer = client.post(
        "/s/ostrey/pages/",
        {"do": "add", "what": "page", "title": "News", "path": "/news", "source": "Hello *there* <script>x</script>"},
    )
    assert answer.status_code == 303
    page = next(page for page in store.load(ferries.pk).site.pages if page.path == "/news/")
    html = contents.read_content(page.content or "")
    assert b"<em>there</em>" in html and b"<script>" not in html
    client.post(f"/s/ostrey/pages/{page.id}/", {"do": "rewrite", "node": page.id, "title": "News", "source": "# Other"})
    page = next(page for page in store.load(ferries.pk).site.pages if page.path == "/news/")
    assert b"<h1>Other</h1>" in contents.read_content(page.content or "")
    store.undo(ferries.pk, ada)
    assert (
        next(page for page in store.load(ferries.pk).site.pages if page.path == "/news/").source
        == "Hello *there* <script>x</script>"
    )


def test_every_screen_answers_for_full_and_empty_sites(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    empty = client.post("/sites/new/", {"name": "Nothing <yet>"})
    assert empty.status_code == 302
    slug = StoredSite.objects.exclude(pk=ferries.pk).get().slug
    store.new_site(ada, *quillwort(), slug="quillwort")
    for name in ("settings", "pages", "lifting", "foundations", "menus", "pieces", "editions"):
        for site in ("ostrey", slug, "quillwort"):
            answer = client.get(reverse(name, args=[site]))
            assert answer.status_code == 200
            assert b"<yet>" not in answer.content
    for address in ("/s/ostrey/pieces/pc-none/", "/s/ostrey/menus/mn-none/", "/s/ostrey/pages/pg-none/"):
        assert client.get(address).status_code == 303


@pytest.mark.parametrize(
    ("where", "value", "words", "there", "elsewhere"),
    [
        ("language", "German", "on pages in German", "/de/", "/"),
        ("language", "cy", "on pages in Welsh", "/cy/", "/de/"),
        ("front", "", "on front pages", "/de/", "/sailings/"),
        ("below", "/*/walks/", "on /*/walks/ and below", "/guide/walks/", "/guide/birds/"),
        ("tag", "adults", "on pages tagged adults", None, "/"),
    ],
)
def test_where_a_piece_shows_is_said_by_language_kind_of_page_and_wildcard(
    ferries: StoredSite, ada: User, where: str, value: str, words: str, there: str | None, elsewhere: str
) -> None:
    client = signed_in(ada)
    bench = "/s/ostrey/pieces/pc-press/"
    site = store.load(ferries.pk).site
    press = next(piece for piece in site.pieces if piece.id == "pc-press")
    for rule in press.reach:
        client.post(bench, {"do": "remove", "node": rule.id})
    form = {"do": "add", "what": "rule", "parent": "pc-press", "where": where, "value": value}
    assert words in client.post(bench, form).content.decode()
    site = store.load(ferries.pk).site
    coverage, pages = Coverage(site), {page.path: page for page in site.pages}
    if there is not None:
        assert "pc-press" in coverage.pieces_on(pages[there])
    assert "pc-press" not in coverage.pieces_on(pages[elsewhere])


def test_rules_are_kept_as_a_set_that_pieces_use_and_that_goes_with_the_last(ferries: StoredSite, ada: User) -> None:
    client, press = signed_in(ada), "/s/ostrey/pieces/pc-press/"

    def shown(*, guide: bool) -> set[str]:
        site = store.load(ferries.pk).site
        page = next(page for page in site.pages if page.path == ("/guide/walks/" if guide else "/press/"))
        return {"pc-press", "pc-help"} & Coverage(site).pieces_on(page)

    def sent(bench: str, **form: str) -> str:
        return client.post(bench, form).content.decode()

    assert "give the set a name" in sent(press, do="keep-as-set", node="pc-press")
    assert "choose the set first" in sent(press, do="use-set", node="pc-press", set="")
    kept = sent(press, do="keep-as-set", node="pc-press", name="Press")
    assert "Do not use the set Press" in kept and shown(guide=False) == {"pc-press"}
    made = store.load(ferries.pk).site.reach_sets[-1]
    assert "take another than Press" in sent(
        "/s/ostrey/pieces/pc-help/", do="keep-as-set", node="pc-help", name="Press"
    )
    used = sent("/s/ostrey/pieces/pc-help/", do="use-set", node="pc-help", set=made.id)
    assert "Used by Press header, too" in used and shown(guide=False) == {"pc-press", "pc-help"}
    # What is added to the set counts for all that use it.
    sent(press, do="add", what="rule", parent=made.id, where="below", value="/guide/walks/")
    assert shown(guide=True) == {"pc-press", "pc-help"}
    sent("/s/ostrey/pieces/pc-help/", do="leave-set", node="pc-help", set=made.id)
    assert shown(guide=True) == {"pc-press"} and made.id in {one.id for one in store.load(ferries.pk).site.reach_sets}
    last = sent(press, do="leave-set", node="pc-press", set=made.id)
    assert "It shows nowhere yet" in last and shown(guide=True) == shown(guide=False) == set()
    assert made.id not in {one.id for one in store.load(ferries.pk).site.reach_sets}


def test_what_is_the_same_in_all_slots_and_bands_of_a_page_is_said_once(ferries: StoredSite, ada: User) -> None:
    site = store.load(ferries.pk).site
    bare = next(page for page in site.pages if page.bare)
    shown = signed_in(ada).get(f"/s/ostrey/pages/{bare.id}/").content.decode()
    assert shown.count("nothing: the page is bare") == 1


def test_what_was_measured_of_an_old_part_is_tried_on_then_kept_everywhere(ferries: StoredSite, ada: User) -> None:
    brought(ferries, ada, "old-site.zip", archive())
    client, address = signed_in(ada), "/s/ostrey/pages/lifting/taken-over/"
    page = next(page for page in store.load(ferries.pk).site.pages if page.path == "/nested/deep/page.html")
    block = {"display": "block", "font-size": "16px", "color": "rgb(1, 2, 3)", "font-family": "Arial"}
    parts = [
        {"parent": -1, "tag": "div", "rect": [0, 0, 1280, 20], "styles": block},
        {"parent": 0, "tag": "#text", "rect": [0, 0, 60, 20], "text": "Old site", "lines": 1},
    ]
    asked = {
        "lift": "div.old-header", "below": "/nested/", "page": page.id, "slot": "header",
        "measured": json.dumps({"width": 1280, "parts": parts}),
    }  # fmt: skip
    before = content_hash(store.load(ferries.pk).site)
    for wrong in (
        {"measured": "{"},
        {"measured": json.dumps({"width": 1280, "parts": parts[1:]})},
        {"slot": "gate"},
        {"page": "pg-nobody"},
        {"lift": "div{"},
        {"lift": "div.nothing-there"},
        {"below": "no path"},
        {"measured": "[" * 100_000},
    ):
        answer = client.get(client.post(address, {**asked, **wrong})["Location"])
        assert answer.status_code == 200 and "trial-keep" not in answer.content.decode(), wrong
    assert not Trial.objects.exists()
    client.post(address, asked)
    seen = client.get(address).content.decode()
    assert "Old site" not in seen and "1 thing compared" in seen and "below /nested/" in seen
    assert content_hash(store.load(ferries.pk).site) == before, "nothing is changed yet"
    assert not client.get("/s/ostrey/foundations/schemes/").content.decode().count('data-test="trial"')
    client.post(address, {"trial": "off"})
    assert client.get(address).status_code == 303 and not Trial.objects.exists()
    client.post(address, {**asked, "alone": "1", "below": page.path})
    client.post(address, {"trial": "keep"})
    work = Work.objects.filter(kind=Work.Kind.LIFT_OUT).get()
    lifting.lift_out(work.pk)
    site = store.load(ferries.pk).site
    assert [one.path for one in site.pages if one.cuts] == [page.path]
    piece = next(piece for piece in site.pieces if piece.id == work.details["piece"])
    (item,) = site.shown_items(piece)
    assert item.words.text == "Old site" and piece.reach[0].where.page == page.id
    assert "Open Header" in client.get("/s/ostrey/pages/lifting/").content.decode()


def test_one_press_sets_the_language_of_all_that_lies_in_a_folder(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)

    def pages() -> dict[str, str]:
        return {page.path: page.language for page in store.load(ferries.pk).site.pages}

    before = pages()
    page = next(page for page in store.load(ferries.pk).site.pages if page.path == "/guide/")
    address = f"/s/ostrey/pages/{page.id}/"
    assert "branch-language" not in client.get(address).content.decode()
    client.post(address, {"do": "set", "node": page.id, "field": "language", "value": "fr"})
    there = {path for path in before if path.startswith("/guide/")}
    shown = client.get(address).content.decode()
    assert f"{len(there) - 1} other pages in /guide/" in " ".join(shown.split())
    client.post(address, {"do": "branch-language", "node": page.id})
    assert pages() == {path: "fr" if path in there else language for path, language in before.items()}
    client.post(address, {"do": "undo"})
    assert pages() == {**before, "/guide/": "fr"}
    assert client.post(address, {"do": "branch-language", "node": "pg-nobody"}).status_code == 422


def test_languages_are_proposed_by_the_words_of_pages_and_set_or_left_in_one_press(
    ferries: StoredSite, ada: User
) -> None:
    said = "Die Fähre fährt stündlich zwischen sieben Uhr morgens und neun Uhr abends. Karten gibt es am Anleger."
    pages = {f"neu/{name}.html": f"<title>{name}</title><p>{said}".encode() for name in ("a", "b")}
    work = brought(ferries, ada, "new.zip", archive({**pages, "neu/c.html": b"<title>c</title><p>x", "x.css": b""}))
    assert work.state == Work.State.DONE, work.message
    client, address = signed_in(ada), "/s/ostrey/pages/languages/"

    def languages() -> dict[str, str]:
        return {page.path: page.language for page in store.load(ferries.pk).site.pages if page.path.startswith("/neu/")}

    before = languages()
    assert set(before.values()) == {"en"}
    assert "2 pages do not say their language" in " ".join(client.get("/s/ostrey/pages/").content.decode().split())
    shown = " ".join(client.get(address).content.decode().split())
    assert "2</b> pages do not say their language, count as English, and read like German" in shown
    asked = {"do": "likely-language", "language": "de"}
    client.post(address, {**asked, "value": "yes"})
    assert languages() == {**before, "/neu/a.html": "de", "/neu/b.html": "de"}
    client.post(address, {"do": "undo"})
    client.post(address, {**asked, "value": "no"})
    assert languages() == before and "do not say their language" not in client.get(address).content.decode()
    assert client.post(address, {**asked, "value": "yes"}).status_code == 422

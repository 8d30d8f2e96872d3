"""What the published site does with what visitors send, and what the studio does with files that are brought along."""

from __future__ import annotations

import csv
import io
import json
import re
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from tests.hostile import DRAWINGS, MARKUP
from tests.nodes import node_in
from upper_rim.core.model.editing.edits import Set
from upper_rim.web.jobs import publishing
from upper_rim.web.live.forms import MOST_BY_ONE
from upper_rim.web.sites import store
from upper_rim.web.sites.models import Message, StoredSite

from .conftest import signed_in, taken_away

FORM = "/_rim/forms/it-help-form/"
GOOD = {"fd-name": "Maud", "fd-mail": "maud@post.example", "fd-what": "a harp", "language": "en"}


@pytest.fixture
def live(ferries: StoredSite, ada: User) -> Client:
    publishing.make_edition(publishing.new_edition(ferries, ada.pk).pk)
    return Client(HTTP_HOST="ostrey.localhost")


def send(live: Client, answers: dict[str, str], **headers: Any) -> Any:
    return live.post(FORM, answers, HTTP_REFERER="http://ostrey.localhost/travelling/luggage/", **headers)


def test_what_is_sent_lies_in_the_inbox_of_its_site_only(live: Client, ada: User, ben: User) -> None:
    answer = send(live, GOOD)
    assert answer.status_code == 303 and not answer.cookies
    thanks = live.get(answer["Location"])
    assert b"Somebody on the quay" in thanks.content and b'href="/travelling/luggage/"' in thanks.content
    assert thanks["Cache-Control"] == "private, no-store"
    (message,) = Message.objects.all()
    assert message.page == "/travelling/luggage/" and ["Your name", "Maud"] in message.answers
    inbox = signed_in(ada).get("/s/ostrey/inbox/").content.decode()
    assert "maud@post.example" in inbox
    assert signed_in(ben).get("/s/ostrey/inbox/").status_code == 404
    assert signed_in(ben).post(f"/s/ostrey/inbox/{message.pk}/remove/").status_code == 404
    signed_in(ada).post(f"/s/ostrey/inbox/{message.pk}/remove/")
    assert (
        not Message.objects.exists()
        and "Nothing has arrived" in signed_in(ada).get("/s/ostrey/inbox/").content.decode()
    )


def test_what_is_wrong_with_a_form_is_told_and_nothing_is_kept(live: Client) -> None:
    answer = send(live, {**GOOD, "fd-mail": "<script>ran(1)</script>", "fd-what": ""})
    told = answer.content.decode()
    assert (
        answer.status_code == 422
        and "“Mail” is not written as it should be" in told
        and "“What do you bring?” is needed" in told
    )
    assert "<script>ran" not in told and 'href="/travelling/luggage/"' in told
    assert send(live, {**GOOD, "website": "https://buy.example"}).status_code == 303, "a program is thanked"
    assert send(live, {**GOOD, "fd-what": "x" * 200_000}).status_code == 413
    assert send(live, GOOD, HTTP_ORIGIN="https://evil.example").status_code == 403
    assert live.post("/_rim/forms/it-gone/", GOOD).status_code == 404
    assert live.get(f"{FORM}form.json").status_code == 404
    assert live.post("/", GOOD).status_code == 405
    assert b'href="/"' in live.get(f"{FORM}sent-en.html?from=//evil.example/").content
    assert not Message.objects.exists()


def test_a_flood_is_cut_and_the_site_goes_on(live: Client) -> None:
    answers = [send(live, GOOD).status_code for _ in range(MOST_BY_ONE + 3)]
    assert answers == [303] * MOST_BY_ONE + [429] * 3
    assert Message.objects.count() == MOST_BY_ONE and live.get("/").status_code == 200
    assert send(live, GOOD, REMOTE_ADDR="127.0.0.9").status_code == 303, "others are heard"


def test_the_inbox_goes_out_as_csv_that_no_spreadsheet_runs(live: Client, ada: User) -> None:
    send(live, {**GOOD, "fd-what": '=HYPERLINK("x"),\nand "more"'})
    answer = signed_in(ada).get("/s/ostrey/inbox/messages.csv?form=it-help-form")
    head, row = csv.reader(io.StringIO(answer.content.decode("utf-8-sig"), newline=""))
    assert dict(zip(head, row, strict=True))["What do you bring?"].startswith("'=HYPERLINK")


def test_a_zip_posts_to_an_address_of_ones_own(ferries: StoredSite, ada: User) -> None:
    edit = Set(node="it-help-form", field="own_address", value="https://post.example/in?a=1&b=2")
    store.submit(ferries.pk, ada, edit)
    publishing.make_edition(publishing.new_edition(ferries, ada.pk).pk)
    files = taken_away(signed_in(ada))
    page = files["travelling/luggage/index.html"].decode()
    assert 'action="https://post.example/in?a=1&amp;b=2"' in page and "/_rim/forms/" not in page
    assert not [name for name in files if "forms/" in name]
    assert (
        'action="/_rim/forms/it-help-form/"'
        in Client(HTTP_HOST="ostrey.localhost").get("/travelling/luggage/").content.decode()
    )


def test_the_page_of_results_is_filled_in_by_the_server(live: Client) -> None:
    answer = live.get("/search/?q=Gull")
    listed = answer.content.decode().partition("<main>")[2].partition("</main>")[0]
    assert listed.count("<li>") == 1 and "/harbours/osterhaven/" in listed and "Found: 1" in listed
    assert answer["X-Robots-Tag"] == "noindex" and "no-store" in answer["Cache-Control"]
    assert live.get("/search/?q=" + "%3Cscript%3E" * 90).content.count(b"<script><script>") == 0
    assert live.get("/search/?q=").content.count(b"<li><a href=") > 20
    assert "Gefunden" in live.get("/search/de/?q=fahr").content.decode()


def test_what_is_brought_along_is_taken_refused_or_cut_with_a_sentence(
    ferries: StoredSite, ada: User, ben: User
) -> None:
    client = signed_in(ada)

    def bring(node: str, name: str, data: bytes, field: str = "picture") -> str:
        form = {
            "node": node,
            "field": field,
            "file": SimpleUploadedFile(name, data),
            "back": "/s/ostrey/pieces/pc-main/",
        }
        answer = client.post("/s/ostrey/files/", form, follow=True)
        assert answer.redirect_chain[-1][0] == "/s/ostrey/pieces/pc-main/"
        return str(answer.content.decode())

    before = store.load(ferries.pk).revision
    assert "was not taken in" in bring("it-phone", "a.svg", b"<svg")
    assert "an icon is a drawing" in bring(
        "it-phone",
        "a.gif",
        b"GIF89a\x01\x00\x01\x00\x80\x00\x00\x00\x00\x00\xff\xff\xff!\xf9\x04\x00\x00\x00\x00\x00,\x00\x00\x00\x00\x01\x00\x01\x00\x00\x02\x02D\x01\x00;",
    )
    assert "no well-formed Atom" in bring("it-news", "feed.xml", b"<feed>", "feed")
    assert "is not there any more" in bring("it-book", "a.svg", DRAWINGS[0].encode())
    assert store.load(ferries.pk).revision == before, "what is refused changes nothing"
    assert "Left out of it: script" in bring("it-phone", "Mein Bild.svg", DRAWINGS[0].encode())
    site = store.load(ferries.pk).site
    assert node_in(site, "it-phone").picture == "/pictures/mein-bild.svg"
    bring("it-guide-picture", "other.svg", DRAWINGS[0].encode())
    assert node_in(store.load(ferries.pk).site, "it-guide-picture").picture == "/pictures/mein-bild.svg"
    bring("it-logo", "logo.svg", DRAWINGS[0].encode())
    assert node_in(store.load(ferries.pk).site, "it-logo").picture == "/pictures/mein-bild.svg"
    assert "only MP4 and WebM" in bring("pc-shop-age", "a.mp4", b"<html>", "film")
    bring("pc-shop-age", "Quay at dusk.MOV", b"\0\0\0\x20ftypisom", "film")
    assert node_in(store.load(ferries.pk).site, "pc-shop-age").film == "/films/quay-at-dusk.mp4"
    bring("it-phone", "b.webm", b"\x1a\x45\xdf\xa3 webm", "film")
    assert "/films/b.webm" not in {asset.path for asset in store.load(ferries.pk).site.assets}, "no film goes there"
    outside = client.post("/s/ostrey/files/", {"node": "it-phone", "back": "https://evil.example/"})
    assert outside["Location"] == "/s/ostrey/pieces/"
    assert signed_in(ben).post("/s/ostrey/files/", {"node": "it-phone"}).status_code == 404


def test_icons_are_found_in_both_sets_and_by_parts_of_their_names(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    found = client.get("/s/ostrey/icons/?q=sail boat&sort=short").content.decode()
    assert 'data-icon="sailboat"' not in found and "No icon is called" in found
    assert 'data-icon="sailboat"' in client.get("/s/ostrey/icons/?q=sailb").content.decode()
    assert 'data-icon="brand-mastodon"' in client.get("/s/ostrey/icons/?q=mastodon").content.decode()
    assert "<script>" not in client.get("/s/ostrey/icons/?q=<script>").content.decode()
    workbench = "/s/ostrey/pieces/pc-main/"
    client.post(workbench, {"do": "set", "node": "it-phone", "field": "icon", "value": "brand-mastodon"})
    assert node_in(store.load(ferries.pk).site, "it-phone").icon == "brand-mastodon"


LINES = {
    ("it-help-form", "fields"): (
        "Your name* | text\nWhen | choice | morning, evening\nCode | text | | [A-Z]{3}",
        {
            "When | choice": "name the choices",
            "x | colour": "there is no kind",
            "x | text | | [": "no regular expression",
            "a|b|c|d|e": "not understood",
        },
    ),
    ("it-wonders", "links"): (
        "Walks | The ridge | /coast-day.svg | /guide/walks/\nElsewhere | | | https://isles.example/",
        {"x | y | /gone.svg": "no picture", "x | | | javascript:ran(1)": "an address begins"},
    ),
}


@pytest.mark.parametrize(("node", "field"), LINES)
def test_lines_become_nodes_that_keep_their_ids(ferries: StoredSite, ada: User, node: str, field: str) -> None:
    client, good, bad = signed_in(ada), *LINES[node, field]
    path = "/s/ostrey/pieces/pc-help/" if field == "fields" else "/s/ostrey/pieces/pc-guide-front/"

    def post(value: str) -> str:
        return str(
            client.post(
                path, {"do": "set", "node": node, "field": field, "value": value}, HTTP_HX_REQUEST="true"
            ).content.decode()
        )

    first = getattr(node_in(store.load(ferries.pk).site, node), field)[0]
    for lines, sentence in bad.items():
        assert sentence in post(lines)
    assert store.load(ferries.pk).revision == 0
    post(good)
    made = getattr(node_in(store.load(ferries.pk).site, node), field)
    assert len(made) == good.count("\n") + 1 and made[0].id == first.id
    shown = client.get(f"{path}?select={node}").content.decode()
    assert good.splitlines()[-1].split(" |")[0] in shown
    post(good)
    assert store.load(ferries.pk).revision == 1, "what changes nothing is no edit"


def test_names_of_files_and_tokens_are_texts_and_no_more(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    for at, payload in enumerate(MARKUP):
        name = payload.replace("/", "").replace("\n", " ")[:90]
        form = {
            "node": "it-phone",
            "file": SimpleUploadedFile(f"{name}.svg", DRAWINGS[1].encode().replace(b"h9", f"h{at}".encode())),
        }
        told = client.post("/s/ostrey/files/", form, follow=True).content.decode()
        assert ("is among the site’s files now" in told and name not in told) or "<" not in name
    paths = [asset.path for asset in store.load(ferries.pk).site.assets]
    assert len(paths) == len(set(paths)) and all(re.fullmatch(r"/[a-z0-9/-]+\.(svg|css|xml)", path) for path in paths)
    tokens = {
        "swatches": {
            payload.replace(".", "").replace("{", "").replace("}", "")[:100]: {"$type": "color", "$value": "#123456"}
            for payload in MARKUP
        }
    }
    client.post("/s/ostrey/foundations/tokens/", {"tokens": SimpleUploadedFile("t.json", json.dumps(tokens).encode())})
    swatches = store.load(ferries.pk).site.swatches
    assert any("ran(" in swatch.name for swatch in swatches)
    screen = client.get("/s/ostrey/foundations/").content.decode()
    assert "ran(1)" in screen and not any(
        f'"{swatch.name}"' in screen or f">{swatch.name}<" in screen for swatch in swatches if "<" in swatch.name
    )

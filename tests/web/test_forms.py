"""What a designer's forms do to a site: adding, moving, doubling, sharing, removing."""

from __future__ import annotations

import io
import socket
import subprocess
import sys
from pathlib import Path

import pytest
from django.contrib.auth.models import User
from django.core.management import CommandError, call_command
from django.test import Client

from upper_rim.core.model.site import Site
from upper_rim.core.model.tree import find, holder_of, walk
from upper_rim.web.jobs import arriving
from upper_rim.web.sites import store
from upper_rim.web.sites.models import Edition, StoredSite, Work

from .conftest import signed_in

BENCH = "/s/ostrey/pieces/pc-main/"
ROOT = Path(__file__).resolve().parent.parent.parent


def site_of(stored: StoredSite) -> Site:
    return store.load(stored.pk).site


def place(site: Site, node_id: str) -> tuple[str, int]:
    spot = find(site, node_id)
    assert spot is not None
    return spot.parent, spot.at


def test_steps_go_through_a_cell_and_on_into_the_next(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    client.post(
        BENCH,
        {"do": "add", "what": "item", "parent": "cl-start", "slot": "items", "kind": "text", "select": "cl-start"},
    )
    assert place(site_of(ferries), "it-logo") == ("cl-start", 0)
    client.post(BENCH, {"do": "step:1", "node": "it-logo"})
    assert place(site_of(ferries), "it-logo") == ("cl-start", 1)
    client.post(BENCH, {"do": "step:1", "node": "it-logo"})
    assert place(site_of(ferries), "it-logo") == ("cl-middle", 0)
    client.post(BENCH, {"do": "step:-1", "node": "it-logo"})
    assert place(site_of(ferries), "it-logo") == ("cl-start", 1)
    assert client.post(BENCH, {"do": "step:1", "node": "it-book"}).status_code == 422, "it is the last of the last cell"
    client.post(BENCH, {"do": "step:1", "node": "rw-above"})
    assert [row.id for row in site_of(ferries).pieces[0].rows] == ["rw-main", "rw-above", "rw-reading"]


def test_menu_entries_go_in_and_out_a_level(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    client.post("/s/ostrey/menus/mn-main/", {"do": "indent:in", "node": "en-fares"})
    assert place(site_of(ferries), "en-fares") == ("en-timetable", 0)
    client.post("/s/ostrey/menus/mn-main/", {"do": "indent:out", "node": "en-fares"})
    assert place(site_of(ferries), "en-fares") == ("mn-main", 1)
    for way, node in (("in", "en-timetable"), ("out", "en-guide")):
        assert client.post("/s/ostrey/menus/mn-main/", {"do": f"indent:{way}", "node": node}).status_code == 422
    answer = client.post(
        "/s/ostrey/menus/mn-main/",
        {"do": "move", "node": "en-harbours", "parent": "en-skarrow", "slot": "entries", "at": "0"},
    )
    assert "cannot be moved into itself" in answer.content.decode()


def test_doubling_gives_new_identities_all_the_way_down(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    for address, node in (
        (BENCH, "rw-main"),
        ("/s/ostrey/pieces/", "pc-press"),
        ("/s/ostrey/menus/mn-main/", "en-harbours"),
    ):
        before = {node.id for node in walk(site_of(ferries))}
        client.post(address, {"do": "duplicate", "node": node})
        after = [node.id for node in walk(site_of(ferries))]
        assert len(after) == len(set(after)) > len(before)
    assert "Press header, copy" in {piece.name for piece in site_of(ferries).pieces}


def test_every_kind_of_item_can_be_added_and_has_its_controls(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    for kind in ("logo", "menu", "text", "button", "icon"):
        answer = client.post(
            BENCH, {"do": "add", "what": "item", "parent": "cl-end", "slot": "items", "kind": kind}
        ).content.decode()
        assert 'data-test="control-hidden_in"' in answer
    for node in ("rw-main", "cl-end", "pc-main"):
        assert 'data-test="control-' in client.get(BENCH, {"select": node}).content.decode()
    client.post(BENCH, {"do": "set", "node": "cl-middle", "field": "track", "value": "share 3"})
    client.post(BENCH, {"do": "set", "node": "cl-end", "field": "track", "value": "240 px"})
    assert client.post(BENCH, {"do": "set", "node": "cl-end", "field": "track", "value": "wide"}).status_code == 422
    tracks = [cell.track.model_dump() for cell in site_of(ferries).pieces[0].rows[1].cells]
    assert tracks[1:] == [{"kind": "share", "amount": 3}, {"kind": "fixed", "amount": 240}]
    client.post(BENCH, {"do": "set", "node": "it-book", "field": "hidden_in", "values": ["bd-wide"]})
    assert holder_of(site_of(ferries), "it-book").hidden_in == ("bd-narrow", "bd-middle")
    client.post(BENCH, {"do": "set", "node": "it-book", "field": "words", "language": "fr", "value": "Réserver"})
    client.post(BENCH, {"do": "set", "node": "it-book", "field": "words", "language": "de", "value": ""})
    assert [other.language for other in holder_of(site_of(ferries), "it-book").words.translations] == ["ar", "cy", "fr"]


def test_sharing_a_site_and_leaving_it(ferries: StoredSite, ada: User, ben: User) -> None:
    client = signed_in(ada)
    assert "nobody here by that name" in client.post("/s/ostrey/", {"person": "zoe"}).content.decode()
    client.post("/s/ostrey/", {"person": "ben"})
    assert signed_in(ben).get(BENCH).status_code == 200
    client.post(f"/s/ostrey/people/{ben.pk}/remove/")
    assert signed_in(ben).get(BENCH).status_code == 404
    client.post(f"/s/ostrey/people/{ada.pk}/remove/")
    assert client.get(BENCH).status_code == 200, "the last person stays"


def test_a_site_goes_only_when_its_name_is_typed(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    client.post("/s/ostrey/delete/", {"name": "Ostrey"})
    assert StoredSite.objects.filter(slug="ostrey").exists()
    client.post("/s/ostrey/delete/", {"name": "Ostrey Ferries"})
    assert not StoredSite.objects.filter(slug="ostrey").exists()
    assert Client(HTTP_HOST="ostrey.localhost").get("/").status_code == 404


def test_publishing_asks_for_a_new_edition_once(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    for _ in range(3):
        assert "waiting" in client.post("/s/ostrey/editions/publish/").content.decode()
    assert Edition.objects.count() == 1
    assert client.get("/s/ostrey/editions/publish/").status_code == 404
    assert client.get("/s/ostrey/editions/1/zip/").status_code == 404, "it is not made yet"


def test_a_sitemap_adds_the_pages_that_are_missing(ferries: StoredSite, ada: User) -> None:
    upload = io.BytesIO(
        b"<urlset><url><loc>https://x.example/</loc></url><url><loc>https://x.example/new</loc></url></urlset>"
    )
    upload.name = "sitemap.xml"
    client = signed_in(ada)
    client.post("/s/ostrey/pages/bring-in/", {"file": upload})
    arriving.take_in(Work.objects.get().pk)
    added = [page for page in site_of(ferries).pages if page.content is None]
    assert [page.path for page in added] == ["/new/"]
    assert "to come" in client.get("/s/ostrey/pages/").content.decode()


def test_a_damaged_bundle_makes_no_site(ada: User) -> None:
    broken = io.BytesIO(b"PK nothing")
    broken.name = "x.rim.zip"
    answer = signed_in(ada).post("/sites/new/", {"bundle": broken})
    assert answer.status_code == 422 and StoredSite.objects.count() == 0
    assert "Give the new site a name" in signed_in(ada).post("/sites/new/", {"name": " "}).content.decode()


def test_guessing_passwords_ends_after_eight_attempts(ada: User) -> None:
    client = Client(HTTP_HOST="localhost", REMOTE_ADDR="127.0.0.9")
    for _ in range(8):
        client.post("/account/sign-in/", {"username": "ada", "password": "guess"})
    shut = client.post("/account/sign-in/", {"username": "ada", "password": "p"})
    assert shut.status_code == 429 and "Wait a quarter of an hour" in shut.content.decode()
    assert client.get("/").status_code == 302


def test_an_account_is_made_once_and_opens_the_door(db: None) -> None:
    told = io.StringIO()
    call_command("make_account", "zoe", stdout=told)
    password = told.getvalue().split()[-1]
    client = Client(HTTP_HOST="localhost")
    assert client.post("/account/sign-in/", {"username": "zoe", "password": password}).status_code == 302
    assert "No site yet" in client.get("/").content.decode()
    with pytest.raises(CommandError, match="already"):
        call_command("make_account", "zoe")


def test_two_pieces_that_tie_are_told_on_the_page(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    client.post(
        "/s/ostrey/pieces/pc-press/", {"do": "add", "what": "rule", "parent": "pc-press", "where": "everywhere"}
    )
    assert "as specific as Press header, but first in order" in client.get("/s/ostrey/pages/pg-fares/").content.decode()


@pytest.mark.parametrize("arguments", [["--port", "taken"], ["--port", "x"]])
def test_start_says_what_to_do(arguments: list[str]) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        named = [str(taken.getsockname()[1]) if argument == "taken" else argument for argument in arguments]
        done = subprocess.run(
            [sys.executable, str(ROOT / "ops/run.py"), *named], capture_output=True, text=True, timeout=60
        )
    assert done.returncode != 0
    assert "Choose another one: ./start --port" in done.stderr or "invalid int value" in done.stderr

"""Gates of a live site: nobody gets a byte of what is locked, and who has passed is asked again when they should be."""

from __future__ import annotations

import json
import re
from base64 import b64decode
from collections.abc import Callable, Iterator
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from django.contrib.auth.hashers import make_password
from django.contrib.auth.models import User
from django.test import Client

from tests.folder import key_for, unlocked
from upper_rim.core.gates.guards import guards_of
from upper_rim.core.kinds.pieces.consent import ConsentQuestion
from upper_rim.core.kinds.pieces.gate import Gate
from upper_rim.core.model.editing.edits import Add, Remove, Set
from upper_rim.demo import quillwort
from upper_rim.web.jobs import publishing
from upper_rim.web.live import gates
from upper_rim.web.sites import store
from upper_rim.web.sites.models import GatePassword, StoredSite

from .conftest import signed_in, taken_away

DOOR, AGE = "pc-press-door", "pc-shop-age"
LOCKED = ("/press/", "/press/releases/", "/press/pictures/", "/press/the-quay-at-dusk.svg")
WORDS = [b"journalists", b"credit", b"Press desk"]
HOST = "ostrey.localhost"


@pytest.fixture
def published(ferries: StoredSite, ada: User) -> StoredSite:
    for label, secret in (("Newspapers", "tide-and-tern"), ("Broadcasters", "lamp-on-skarrow")):
        ferries.passwords.create(gate=DOOR, label=label, hash=make_password(secret), stamp=label[:8])
    publish(ferries, ada)
    return ferries


def publish(stored: StoredSite, person: User) -> None:
    publishing.make_edition(publishing.new_edition(stored, person.pk).pk)


@pytest.fixture
def clock(monkeypatch: pytest.MonkeyPatch) -> Iterator[Callable[[timedelta], None]]:
    now = [datetime(2026, 11, 30, 12, tzinfo=UTC)]
    monkeypatch.setattr(gates, "now", lambda: now[0])
    yield lambda on: now.__setitem__(0, now[0] + on)


def test_a_page_whose_path_has_escapes_is_counted_among_those_that_are_guarded(ferries: StoredSite, ada: User) -> None:
    path = "/press/%C3%BCber uns/".replace(" ", "%20")
    page = {"id": "pg-escaped", "path": path, "title": "A title that is long enough", "language": "en"}
    rule = {"id": "rr-escaped", "where": {"kind": "page", "page": "pg-escaped"}}
    store.submit(ferries.pk, ada, Add(parent="site", slot="pages", values=(page,)))
    door = next(piece for piece in store.load(ferries.pk).site.pieces if piece.id == DOOR)
    store.submit(ferries.pk, ada, Remove(nodes=tuple(one.id for one in door.reach)))
    answer = store.submit(ferries.pk, ada, Add(parent=DOOR, slot="reach", values=(rule,)))
    assert isinstance(answer, store.Loaded), answer
    guards = guards_of(answer.site)
    assert guards and guards.locked == {"/press/\u00fcber uns/"} and guards.is_locked(path)
    assert guards.before_path(path).any and guards.before("/press/\u00fcber uns").any
    said = signed_in(ada).get("/s/ostrey/gates/").content.decode()
    row = said[said.index(f"/pieces/{DOOR}/") :].split("</tr>")[0]
    assert "<td>1 page" in row and "say in its reach" not in row


def visitor(**headers: str) -> Client:
    return Client(HTTP_HOST=HOST, **headers)  # type: ignore[arg-type]


def unlock(client: Client, secret: str, path: str = "/press/") -> Any:
    return client.post(path, {"gate": DOOR, "answer": "yes", "password": secret})


def says_age(client: Client, year: int, month: int = 1, day: int = 1, zone: str = "") -> Any:
    said = {"gate": AGE, "answer": "yes", "year": year, "month": month, "day": day, "zone": zone}
    return client.post("/shop/", said)


def is_inside(answer: Any) -> bool:
    return answer.status_code == 200 and b"-gate" not in answer.content


METHODS = ("get", "head", "post", "put", "patch", "delete", "options", "trace")
HEADERS = (
    {"HTTP_RANGE": "bytes=0-99"},
    {"HTTP_RANGE": "bytes=-50"},
    {"HTTP_IF_NONE_MATCH": "*"},
    {"HTTP_IF_NONE_MATCH": '"{etag}"'},
    {"HTTP_IF_MODIFIED_SINCE": "Mon, 30 Nov 2099 00:00:00 GMT"},
    {"HTTP_IF_MATCH": '"{etag}"'},
    {"HTTP_ACCEPT_ENCODING": "br"},
    {"HTTP_ACCEPT_ENCODING": "gzip"},
    {"HTTP_ACCEPT_ENCODING": "identity;q=0, *"},
    {"HTTP_ACCEPT": "application/json"},
    {"HTTP_USER_AGENT": "Examplebot/1.0 (crawler)"},
    {"HTTP_REFERER": f"http://{HOST}/press/"},
    {"HTTP_X_ORIGINAL_URL": "/"},
    {"HTTP_X_REWRITE_URL": "/"},
    {"HTTP_X_HTTP_METHOD_OVERRIDE": "GET"},
    {"HTTP_X_FORWARDED_HOST": "localhost"},
    {"HTTP_X_FORWARDED_FOR": "127.0.0.1"},
    {"HTTP_COOKIE": f"rim-gate-{DOOR}=1"},
    {"HTTP_COOKIE": f"rim-gate-{DOOR}=eyJhdCI6MX0:1abc:xyz"},
    {"HTTP_COOKIE": "rim-member=press.crew.members"},
    {"HTTP_AUTHORIZATION": "Basic cHJlc3M6cHJlc3M="},
)
SPELLINGS = (
    "/press/index.html",
    "/press",
    "/press//",
    "//press/",
    "/press/./",
    "/./press/",
    "/press/releases/../",
    "/sailings/../press/",
    "/press/%2e/",
    "/sailings/%2e%2e/press/",
    "/%70ress/",
    "/press%2f",
    "/press%2findex.html",
    "/press/index.html?x=1",
    "/press/?gate=pc-press-door",
    "/press/#x",
    "/press/;x",
    "/press;x/",
    "/PRESS/",
    "/Press/Releases/",
    "/press/releases",
    "/press/releases/index.html",
    "/press/releases/index.htm",
    "/press/INDEX.HTML",
    "/press/%00",
    "/press\\",
    "/_rim/../press/",
    "/_rim/gates/../../press/index.html",
    f"/_rim/gates/{DOOR}/asked-en.html",
    "/_rim/gates/guards.json",
    "/search/?q=journalists",
    "/404.html",
    "/press/index.html.br",
)


def test_nobody_gets_in(published: StoredSite, settings: Any) -> None:
    """Sixty ways and more to each locked page; of a page that is there no byte comes, and nothing that a cache may keep."""
    insider = visitor()
    assert unlock(insider, "tide-and-tern").status_code == 303
    inside = {path: insider.get(path) for path in LOCKED}
    assert all(map(is_inside, inside.values()))
    nothing = visitor().get("/nothing/").content + visitor().get("/press/").content
    open_ones = _words_of(visitor().get("/").content) | _all_words_of(nothing)
    # Of a picture all that is drawn, not the words of which any picture is made.
    secrets = {
        path: {inside[path].content[-200:]} if path.endswith(".svg") else _words_of(answer.content) - open_ones
        for path, answer in inside.items()
    }
    assert all(secrets.values())
    tries = 0
    for path in LOCKED:
        etag = inside[path].get("ETag", "0" * 32)
        asked = [(method, path, {}) for method in METHODS]
        asked += [
            ("get", path, {name: said.format(etag=etag) for name, said in headers.items()}) for headers in HEADERS
        ]
        asked += [("get", spelling, {}) for spelling in SPELLINGS]
        assert len(asked) >= 60
        for method, address, headers in asked:
            answer = getattr(visitor(), method)(address, **headers)
            found = {word for word in secrets[path] if word in answer.content}
            assert not found, (method, address, headers, found)
            assert answer.status_code != 304 and not answer.get("Content-Range")
            if address.startswith("/press") and answer.status_code in {200, 403}:
                assert answer["Cache-Control"] == "private, no-store", (method, address)
            tries += 1
    for host in (
        f"evil.{HOST}",
        "quillwort.localhost",
        "localhost",
        "127.0.0.1",
        "ostrey.localhost.",
        "OSTREY.localhost",
    ):
        for path in LOCKED:
            answer = Client(HTTP_HOST=host).get(path)
            assert not any(word in answer.content for word in secrets[path]), host
    assert tries >= 180


def _all_words_of(page: bytes) -> set[bytes]:
    return set(re.findall(rb"[A-Za-z]{6,}", page))


def _words_of(page: bytes) -> set[bytes]:
    main = re.search(rb"<main.*?</main>", page, re.DOTALL)
    return set(re.findall(rb"[A-Za-z]{6,}", re.sub(rb"<[^>]+>", b" ", main[0] if main else page)))


def test_what_was_let_through_is_kept_by_no_cache_and_asked_for_again_each_time(published: StoredSite) -> None:
    client = visitor()
    unlock(client, "lamp-on-skarrow")
    answer = client.get("/press/")
    assert is_inside(answer) and answer["Cache-Control"] == "private, no-store" and "Cookie" in answer["Vary"]
    assert "ETag" not in answer and client.get("/press/", HTTP_IF_NONE_MATCH="*").status_code == 200
    assert client.get("/press").status_code == 301 and client.get("/press/nothing/").status_code == 404
    assert visitor().get("/press/nothing/").status_code == 403, "nobody learns what is not there"
    assert visitor().get("/")["Cache-Control"].startswith("public"), "what is open is kept as before"


def test_the_cookie_is_of_this_host_and_no_script_reads_it(published: StoredSite) -> None:
    client = visitor()
    cookie = unlock(client, "tide-and-tern").cookies[f"rim-gate-{DOOR}"]
    assert cookie["httponly"] and cookie["samesite"] == "Lax" and not cookie["domain"] and cookie["path"] == "/"
    assert cookie["max-age"] == 14 * 86_400
    for other in (cookie.value[:-1], cookie.value.replace(":", ";"), "x" + cookie.value):
        thief = visitor(HTTP_COOKIE=f"rim-gate-{DOOR}={other}")
        assert thief.get("/press/").status_code == 403
    elsewhere = visitor(HTTP_COOKIE=f"rim-gate-{AGE}={cookie.value}")
    assert elsewhere.get("/shop/").status_code == 403, "what opens one gate opens no other"


def test_a_password_has_a_last_day_a_count_and_an_end(
    published: StoredSite, clock: Callable[[timedelta], None]
) -> None:
    one = published.passwords.get(label="Newspapers")
    published.passwords.filter(pk=one.pk).update(last_day="2026-12-02")
    first, other = visitor(), visitor()
    assert unlock(first, "tide-and-tern").status_code == 303 and unlock(other, "lamp-on-skarrow").status_code == 303
    assert published.passwords.get(pk=one.pk).uses == 1
    clock(timedelta(days=2))
    assert is_inside(first.get("/press/")), "the last day counts"
    clock(timedelta(days=1))
    assert not is_inside(first.get("/press/")) and is_inside(other.get("/press/"))
    assert unlock(visitor(), "tide-and-tern").status_code == 403
    published.passwords.all().delete()
    assert not is_inside(other.get("/press/")), "who takes a password away ends its visits"


def test_a_visit_is_remembered_so_long_and_no_longer(published: StoredSite, clock: Callable[[timedelta], None]) -> None:
    client = visitor()
    unlock(client, "tide-and-tern")
    clock(timedelta(days=14, seconds=-1))
    assert is_inside(client.get("/press/releases/"))
    clock(timedelta(seconds=1))
    assert not is_inside(client.get("/press/releases/"))


def test_what_a_gate_says_now_is_answered_anew(published: StoredSite, ada: User) -> None:
    client = visitor()
    says_age(client, 1980)
    assert is_inside(client.get("/shop/"))
    store.submit(published.pk, ada, Set(node="it-shop-words", field="words", value={"text": "Are you sure?"}))
    publish(published, ada)
    assert not is_inside(client.get("/shop/"))
    says_age(client, 1980)
    store.submit(published.pk, ada, Set(node="it-footer-text", field="words", value={"text": "Elsewhere"}))
    publish(published, ada)
    assert is_inside(client.get("/shop/")), "what is said elsewhere asks nothing again"


def test_so_many_tries_and_then_a_wait(published: StoredSite, clock: Callable[[timedelta], None]) -> None:
    client = visitor(REMOTE_ADDR="192.0.2.7")
    answers = [unlock(client, f"wrong {at}").status_code for at in range(6)]
    assert answers == [403, 403, 403, 403, 429, 429]
    waiting = unlock(client, "tide-and-tern")
    assert waiting.status_code == 429 and 0 < int(waiting["Retry-After"]) <= 60, "the right one is not heard either"
    assert f"{waiting['Retry-After']} s".encode() in waiting.content
    assert unlock(visitor(REMOTE_ADDR="192.0.2.8"), "tide-and-tern").status_code == 303, "others are not kept waiting"
    clock(timedelta(seconds=61))
    assert unlock(client, "still wrong").status_code == 403
    clock(timedelta(seconds=61))
    assert unlock(client, "tide-and-tern").status_code == 303
    assert [unlock(visitor(REMOTE_ADDR="192.0.2.7"), "wrong").status_code for _ in range(4)] == [403] * 4, (
        "counted anew"
    )


def test_a_door_bears_only_so_many_from_all_together(published: StoredSite) -> None:
    codes = [unlock(visitor(REMOTE_ADDR=f"2001:db8::{at:x}"), "wrong").status_code for at in range(101)]
    assert codes[:99] == [403] * 99 and codes[100] == 429


@pytest.mark.parametrize(
    "secret", ["", " ", "tide-and-ter", "Tide-and-tern", "tide-and-tern ", "x" * 5000, "\x00", "tide\x00and-tern"]
)
def test_almost_is_wrong(published: StoredSite, secret: str) -> None:
    assert unlock(visitor(), secret).status_code == 403


def test_who_is_old_enough_is_reckoned_on_the_day_and_by_where_they_are(
    published: StoredSite, clock: Callable[[timedelta], None], settings: Any
) -> None:
    settings.REGION_HEADER = "X-Region"
    assert says_age(visitor(), 2008, 11, 30).status_code == 303 and is_inside_after(2008, 11, 30)
    assert not is_inside_after(2008, 12, 1)
    assert not is_inside_after(2007, 1, 1, HTTP_X_REGION="IS") and is_inside_after(2006, 11, 30, HTTP_X_REGION="IS")
    for year, month, day in ((2000, 2, 30), (2001, 2, 29), (2000, 13, 1), (2000, 0, 1), (2030, 1, 1), (1850, 1, 1)):
        assert says_age(visitor(), year, month, day).status_code == 403
    assert is_inside_after(2000, 2, 29)
    moved = visitor(HTTP_X_REGION="GB")
    says_age(moved, 2007, 6, 1)
    assert is_inside(moved.get("/shop/")) and not is_inside(moved.get("/shop/", HTTP_X_REGION="IS")), "asked anew there"


def test_the_day_is_that_of_the_visitor_where_their_browser_tells_it(published: StoredSite, clock: Any) -> None:
    """It is noon in London."""
    assert is_inside_after(2008, 12, 1, zone="Pacific/Kiritimati"), "where it is tomorrow"
    clock(timedelta(hours=-4))
    assert is_inside_after(2008, 11, 30) and not is_inside_after(2008, 11, 30, zone="Pacific/Pago_Pago"), "yesterday"
    for zone in ("Nowhere/Else", "../../etc/passwd", "/", "x" * 9999, "\0", "Europe/London\n"):
        assert is_inside_after(2008, 11, 30, zone=zone) and not is_inside_after(2008, 12, 1, zone=zone), zone


def is_inside_after(year: int, month: int, day: int, zone: str = "", **headers: str) -> bool:
    client = visitor(**headers)
    says_age(client, year, month, day, zone)
    return is_inside(client.get("/shop/"))


def test_who_is_refused_is_sent_where_the_gate_says_and_kept_nowhere(published: StoredSite) -> None:
    client = visitor(HTTP_ACCEPT_LANGUAGE="de-AT, en;q=0.5")
    answer = client.post("/shop/", {"gate": AGE, "answer": "no"})
    assert (answer.status_code, answer["Location"]) == (303, "/de/") and not answer.cookies
    assert says_age(visitor(), 2020)["Location"] == "/"
    refused = visitor().post("/press/", {"gate": DOOR, "answer": "no"})
    assert refused.status_code == 403 and b'name="password"' not in refused.content, "told here, and asked no more"


def test_a_gate_is_read_in_the_language_that_its_visitor_reads(published: StoredSite) -> None:
    for asked, said in {
        "de": "Geburtsdatum",
        "cy-GB": "Dyddiad geni",
        "ar": "تاريخ الميلاد",
        "fr, de;q=0.5": "Geburtsdatum",
        "": "Date of birth",
        "*": "Date of birth",
        "x" * 500: "Date of birth",
    }.items():
        assert said in visitor(HTTP_ACCEPT_LANGUAGE=asked).get("/shop/").content.decode(), asked


def test_an_answer_from_another_site_does_not_count(published: StoredSite) -> None:
    answer = visitor(HTTP_ORIGIN="https://evil.example").post(
        "/press/", {"gate": DOOR, "answer": "yes", "password": "tide-and-tern"}
    )
    assert answer.status_code == 403 and not answer.cookies
    other = visitor().post("/press/", {"gate": AGE, "answer": "yes", "year": 1970, "month": 1, "day": 1})
    assert other.status_code == 403 and not other.cookies
    assert visitor().post("/", {"gate": DOOR, "answer": "yes"}).status_code == 303
    assert visitor().post("/", {"x": "1"}).status_code == 405


def test_members_and_search_engines_are_let_in_where_it_is_said(
    published: StoredSite, ada: User, settings: Any
) -> None:
    crawler = {"HTTP_USER_AGENT": "Examplebot/1.0"}
    assert not is_inside(visitor(HTTP_COOKIE="rim-member=crew").get("/shop/")), "whoever says so of themselves"
    crew = visitor()
    crew.post("/_rim/sign-in/", {"groups": "crew"})
    assert is_inside(crew.get("/shop/")) and crew.get("/press/").status_code == 403
    stolen = crew.cookies["rim-member-proof"].value
    assert not is_inside(
        Client(HTTP_HOST="quillwort.localhost", HTTP_COOKIE=f"rim-member-proof={stolen}x").get("/shop/")
    )
    crew.post("/_rim/sign-in/", {"do": "out"})
    assert not is_inside(crew.get("/shop/"))
    settings.MEMBER_HEADER = "X-Groups"
    assert (
        is_inside(visitor(HTTP_X_GROUPS="others, crew").get("/shop/"))
        and visitor().get("/_rim/sign-in/").status_code == 404
    )
    assert not is_inside(visitor(**crawler).get("/shop/")) and not is_inside(visitor(**crawler).get("/press/"))
    store.submit(published.pk, ada, Set(node=AGE, field="lets_crawlers_in", value=True))
    publish(published, ada)
    assert is_inside(visitor(**crawler).get("/shop/")) and not is_inside(visitor(**crawler).get("/press/"))


def test_passwords_are_created_and_removed_and_nobody_reads_them(ferries: StoredSite, ada: User, ben: User) -> None:
    client, screen = signed_in(ada), f"/s/ostrey/pieces/{DOOR}/"
    assert "nobody gets in" in client.get(screen).content.decode()
    for label, secret, day, fault in (
        ("", "long enough", "", "whom"),
        ("Papers", "short", "", "8 characters"),
        ("Papers", "long enough", "tomorrow", "last day"),
        ("Papers", "x" * 300, "", "256 at most"),
    ):
        told = client.post(screen, {"door": "add", "label": label, "secret": secret, "last_day": day}).content.decode()
        assert fault in told and not GatePassword.objects.exists()
    html = client.post(
        screen, {"door": "add", "label": "Papers", "secret": "long enough", "last_day": "2030-01-31"}
    ).content.decode()
    made = GatePassword.objects.get()
    assert "Papers" in html and "31 Jan 2030" in html and "long enough" not in html and made.hash not in html
    assert make_password("x").split("$")[0] in made.hash and "long enough" not in made.hash
    assert (
        signed_in(ben).post(screen, {"door": f"remove:{made.pk}"}).status_code == 404 and GatePassword.objects.exists()
    )
    for wrong in ("remove:", "remove:x", "remove:999999"):
        client.post(screen, {"door": wrong})
    assert GatePassword.objects.exists()
    client.post(screen, {"door": f"remove:{made.pk}"})
    assert not GatePassword.objects.exists()


def test_a_password_is_no_part_of_a_site_that_is_taken_along(published: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    bundle = client.get("/s/ostrey/bundle/")
    told = b"".join(bundle.streaming_content) if bundle.streaming else bundle.content
    for bytes_ in (*taken_away(client).values(), told):
        assert b"argon2" not in bytes_ and b"md5$" not in bytes_


def test_what_is_taken_along_opens_by_the_passwords_that_are_typed(published: StoredSite, ada: User, ben: User) -> None:
    client = signed_in(ada)
    before_zip = "/s/ostrey/editions/1/zip/"
    html = client.get(before_zip).content.decode()
    fields = re.findall(r'name="(password-\d+)"', html)
    assert len(fields) == 2 and "Newspapers" in html and "left out" in html
    for told in ("addresses of locked pages", "asks by a script", "none is on record"):
        assert told in html, "what another server does less"
    wrong = client.post(before_zip, {fields[0]: "tide-and-tern", fields[1]: "no such word"})
    assert wrong.status_code == 200 and wrong.content.decode().count('role="alert" id="fault-') == 1
    assert "tide-and-tern" not in wrong.content.decode()
    files = taken_away(client, **{fields[0]: "tide-and-tern", fields[1]: ""})
    table = json.loads(re.findall(rb"rimGates=(\{.*?\});\(", files["rim-gates.js"])[0])
    door = table["gates"][DOOR]
    assert len(door["wrapped"]) == 1, "who types one password gets a door that opens by one"
    key = key_for("tide-and-tern", b64decode(table["salts"][DOOR]), [b64decode(door["wrapped"][0])])
    page = next(
        name for name in files if name.startswith(table["locked"][1:]) and key and unlocked(files[name], key, "/press/")
    )
    assert page and not any(b"journalists" in data for name, data in files.items() if name != page)
    assert not [name for name in taken_away(client) if name.startswith("press/") or "/locked/" in name]
    assert signed_in(ben).get(before_zip).status_code == 404
    assert client.get("/s/ostrey/editions/9/zip/").status_code == 404


def test_without_gates_nothing_is_asked_before_a_zip(ada: User) -> None:
    site, contents = quillwort()
    pieces = tuple(piece for piece in site.pieces if not isinstance(piece, Gate | ConsentQuestion))
    stored = store.new_site(ada, site.replaced(pieces=pieces), contents, slug="open")
    publishing.make_edition(publishing.new_edition(stored, ada.pk).pk)
    answer = signed_in(ada).get("/s/open/editions/1/zip/")
    assert answer["Content-Type"] == "application/zip" and int(answer["Content-Length"]) > 0


def test_the_stage_shows_a_gate_in_each_of_its_states(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    html = client.get(f"/s/ostrey/pieces/{DOOR}/").content.decode()
    address = re.search(r'data-stage-src="(http://([^/:"]+)[^"]*)"', html)
    assert address is not None and f"rim-gate={DOOR}.asked" in address[1]
    stage = Client(HTTP_HOST=address[2])
    pages = {
        state: stage.get(f"/press/?rim-gate={DOOR}.{state}").content.decode()
        for state in ("asked", "wrong", "waiting", "refused")
    }
    assert len(set(pages.values())) == 4 and all(f'data-rim-state="{state}"' in page for state, page in pages.items())
    passed = client.get(f"/s/ostrey/pieces/{DOOR}/?gate=passed").content.decode()
    assert "rim-gate=" not in re.findall(r'data-stage-src="([^"]*)"', passed)[0]
    assert "journalists" in stage.get("/press/").content.decode(), "its designer sees the page"


def test_the_gates_of_a_site_and_the_ways_through_them_are_one_screen(
    ferries: StoredSite, ada: User, ben: User
) -> None:
    client, screen = signed_in(ada), "/s/ostrey/gates/"
    html = client.get(screen).content.decode()
    assert html.count('data-test="gate"') == 2 and "nobody gets in: it has no password" in html
    assert html.count("data-src=") == 7, "each in the states that it can be met in, side by side; and the question"
    ferries.passwords.create(gate=DOOR, label="All", hash="x", stamp="x")
    assert "nobody gets in" not in client.get(screen).content.decode()
    shop = client.get(screen, {"page": "/shop/"}).content.decode()
    assert shop.count("visit-screen page") == 1 and shop.count("visit-screen elsewhere") == 1
    assert "1 answer until the page is seen" in shop
    door = client.get(screen, {"page": "/press/"}).content.decode()
    assert "visit-screen page" in door and "visit-screen refused" not in door, "it has no button for a no"
    assert "The page is seen at once" in client.get(screen, {"page": "/"}).content.decode()
    for odd in ("nothing", "//", "/<script>", "/" + "x" * 5000):
        assert client.get(screen, {"page": odd}).status_code == 200
    assert signed_in(ben).get(screen).status_code == 404
    store.submit(ferries.pk, ada, Remove(nodes=(DOOR, AGE)))
    empty = client.get(screen).content.decode()
    assert "There is no gate yet" in empty and "visit-study" not in empty


def test_a_gate_is_begun_from_nothing_and_guards_nothing_until_it_is_said(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    for arrangement in ("locked", "yes-no", "date-of-birth"):
        shown = client.get(f"/s/ostrey/pieces/new/?arrangement={arrangement}").content.decode()
        address = re.search(r'data-stage-src="http://([^/:"]+)[^"]*?(/[^"]*)"', shown)
        assert address is not None
        page = Client(HTTP_HOST=address[1]).get(address[2].replace("&amp;", "&")).content.decode()
        assert 'name="gate"' in page, "the gate is seen before it is created"
        made = client.post(
            "/s/ostrey/pieces/new/", {"do": "add", "what": "piece", "arrangement": arrangement, "name": arrangement}
        )
        assert made.status_code in {200, 302, 303}
    gates_made = [
        piece for piece in store.load(ferries.pk).site.pieces if piece.name in {"locked", "yes-no", "date-of-birth"}
    ]
    assert len(gates_made) == 3 and all(piece.reach == () for piece in gates_made)

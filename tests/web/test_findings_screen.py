"""Findings on the screen: what was found and of which state that is true, filters, letting be, mending, and what is asked
before publishing."""

from __future__ import annotations

import json
import re
from html import unescape
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.test import Client

from tests.nodes import node_in
from tests.planted import looked_at_demo
from upper_rim.core.findings.whole import LookedAt
from upper_rim.core.model.editing.edits import Add, Edit, Set, Together
from upper_rim.web.sites import contents, looking, progress, store
from upper_rim.web.sites.models import Edition, LookedThrough, StoredSite
from upper_rim.web.sites.progress import Progress

from .conftest import signed_in

ADDRESS, HOW_FAR = "/s/ostrey/findings/", "/s/ostrey/findings/how-far/"
DEAD_BUTTON = Set(node="it-book", field="target", value={"kind": "nothing"})
TWO_UNUSED = Add(
    parent="site",
    slot="swatches",
    values=({"id": "sw-one", "name": "One", "colour": "#112233"}, {"id": "sw-two", "name": "Two", "colour": "#332211"}),
)


@pytest.fixture(autouse=True)
def laid_out_once(monkeypatch: pytest.MonkeyPatch) -> None:
    """Every test has a site of its own, and all are the demo: what has been laid out of it stays."""
    monkeypatch.setattr(looking, "site_fitter", lambda _: looked_at_demo().fitter)


@pytest.fixture
def client(ada: User) -> Client:
    return signed_in(ada)


def edited(site: StoredSite, ada: User, *edits: Edit) -> int:
    answer = store.submit(site.pk, ada, edits[0] if len(edits) == 1 else Together(edits=edits))
    assert isinstance(answer, store.Loaded)
    return answer.revision


def shown(client: Client, **asked: str) -> str:
    return client.get(ADDRESS, {"whole": "1", **asked}).content.decode()


def lines(html: str) -> list[str]:
    return re.findall(r'id="line-([^"]+)"', html)


def test_at_first_what_takes_no_time_then_all_of_it_and_it_is_kept_for_all(
    ferries: StoredSite, ada: User, client: Client
) -> None:
    revision = edited(ferries, ada, DEAD_BUTTON)
    first = client.get(ADDRESS).content.decode()
    assert 'data-test="looking"' in first and lines(first) == ["leads-nowhere~it-book~~"]
    assert not LookedThrough.objects.exists()
    whole = shown(client)
    assert f"of revision {revision}, all looked at" in whole and 'data-test="looking"' not in whole
    assert LookedThrough.objects.get().revision == revision
    assert StoredSite.objects.get(pk=ferries.pk).found == {"revision": revision, "breaks": 1}
    later = edited(ferries, ada, TWO_UNUSED)
    old = client.get(ADDRESS).content.decode()
    assert f"as of revision {revision}; what has changed since" in old and lines(old) == ["leads-nowhere~it-book~~"]
    assert len(lines(shown(client))) == 3 and LookedThrough.objects.get().revision == later


def test_where_many_pages_are_read_the_screen_comes_first_and_one_sees_how_far_it_is(
    ferries: StoredSite, ada: User, client: Client, monkeypatch: pytest.MonkeyPatch
) -> None:
    edited(ferries, ada, DEAD_BUTTON)
    assert client.get(HOW_FAR).status_code == 204
    monkeypatch.setattr(looking, "MANY_PAGES", 3)
    monkeypatch.setattr(looking, "LOAD_PAGES", 1)
    monkeypatch.setattr(contents, "READ_AT_ONCE", 1)
    monkeypatch.setattr(progress, "EVERY_S", 0)
    looking.forget_all()
    first = client.get(ADDRESS).content.decode()
    assert "Nothing so far" in first and HOW_FAR in first and not looking._known_outlines
    seen: list[str] = []

    def told() -> str:
        return " ".join(re.sub(r"<[^>]+>", "", client.get(HOW_FAR).content.decode()).split())

    class Watched(Progress):
        def tell(self, done: int) -> None:
            super().tell(done)
            seen.append(told())

    laid_out = looking.found_by_laying_out
    monkeypatch.setattr(looking, "Progress", Watched)
    monkeypatch.setattr(looking, "found_by_laying_out", lambda looked: seen.append(told()) or laid_out(looked))
    whole = shown(client)
    count = len(looking._known_outlines)
    read = [f"{done} of {count} pages read" for done in range(1, count)]
    assert count > 20 and seen == [*read, "Laying out"]
    assert lines(whole) == ["leads-nowhere~it-book~~"]
    assert client.get(HOW_FAR).status_code == 204, "it is over"


def test_how_much_breaks_is_kept_up_with_edits_once_somebody_has_asked(
    ferries: StoredSite, ada: User, client: Client
) -> None:
    revision = edited(ferries, ada, TWO_UNUSED)
    assert client.get(f"/s/ostrey/newest/{revision}/").status_code == 204
    shown(client)
    assert client.get(f"/s/ostrey/newest/{revision}/").status_code == 204
    revision = edited(ferries, ada, DEAD_BUTTON)
    told = client.get(f"/s/ostrey/newest/{revision}/")
    assert told.status_code == 204 and json.loads(told["HX-Trigger"]) == {"rim:found": {"breaks": 1}}
    assert 'data-test="breaks" >1</span>' in client.get("/s/ostrey/menus/").content.decode()


@pytest.mark.parametrize(
    ("asked", "expected"),
    [
        ({"severity": "breaks"}, {"leads-nowhere~it-book~~", "leads-nowhere~it-sign-in~~"}),
        ({"severity": "doubtful"}, {"unused~sw-one~~", "unused~sw-two~~"}),
        ({"about": "unused"}, {"unused~sw-one~~", "unused~sw-two~~"}),
        ({"piece": "pc-help"}, {"leads-nowhere~it-sign-in~~"}),
        ({"page": "/press/"}, set()),
        ({"page": "/sailings/fares/", "severity": "breaks"}, {"leads-nowhere~it-book~~"}),
        ({"language": "de"}, set()),
        ({"state": "let-be"}, {"wraps~rw-main~it-menu~", "covered~pc-main~~", "overlap~pc-book~pc-guide~"}),
        ({"state": "let-be", "language": "de"}, {"wraps~rw-main~it-menu~"}),
        ({"page": "/nowhere/"}, set()),
    ],
)
def test_the_list_is_narrowed(
    ferries: StoredSite, ada: User, client: Client, asked: dict[str, str], expected: set[str]
) -> None:
    edited(ferries, ada, DEAD_BUTTON, Set(node="it-sign-in", field="target", value={"kind": "nothing"}), TWO_UNUSED)
    assert set(lines(shown(client, **asked))) == expected


def test_one_is_let_be_with_a_reason_by_who_is_signed_in_and_taken_up_again(
    ferries: StoredSite, ada: User, client: Client
) -> None:
    revision = edited(ferries, ada, DEAD_BUTTON)
    html = shown(client)
    form = {
        name: re.search(rf'<input type="hidden" name="{name}" value="([^"]*)">', html.partition('id="let-be-form"')[2])
        for name in ("kind", "node", "other", "stage", "as_it_was", "from")
    }
    posted: dict[str, Any] = {name: found[1] for name, found in form.items() if found} | {"do": "let-be", "by": "ben"}
    refused = client.post(ADDRESS, {**posted, "reason": " "})
    assert refused.status_code == 422 and "say why it is let be" in refused.content.decode()
    assert client.post(ADDRESS, {**posted, "reason": "x", "until": "2001-01-01"}).status_code == 422
    assert client.post(ADDRESS, {**posted, "reason": "x", "kind": "nothing of ours"}).status_code == 422
    assert store.load(ferries.pk).revision == revision
    done = client.post(ADDRESS, {**posted, "reason": "It opens in spring"}).content.decode()
    assert lines(done) == []
    made = store.load(ferries.pk).site.let_be[-1]
    assert (made.kind, made.about, made.by, made.reason) == ("leads nowhere", "it-book", "ada", "It opens in spring")
    assert made.as_it_was
    there = shown(client, state="let-be", at="leads-nowhere~it-book~~")
    assert "It opens in spring" in there and "Let be by ada" in there
    again = client.post(f"{ADDRESS}?state=let-be", {"do": "remove", "node": made.id, "base": revision + 1})
    assert again.status_code == 200 and lines(shown(client)) == ["leads-nowhere~it-book~~"]


def test_all_of_a_kind_are_let_be_at_once(ferries: StoredSite, ada: User, client: Client) -> None:
    edited(ferries, ada, TWO_UNUSED)
    assert "All 2 of this kind" in shown(client)
    client.post(ADDRESS, {"do": "let-be", "kind": "unused", "node": "sw-one", "all": "1", "reason": "Kept for later"})
    assert lines(shown(client)) == []
    assert store.load(ferries.pk).site.let_be[-1].about == ""


def test_what_was_let_be_is_back_and_says_so_when_its_numbers_have_changed(
    ferries: StoredSite, ada: User, client: Client
) -> None:
    known = {
        "id": "lb-a",
        "kind": "no icon",
        "about": "site",
        "as_it_was": "0" * 16,
        "reason": "In spring",
        "on": "2026-11-01",
    }
    edited(ferries, ada, Set(node="site", field="icon", value=None), Add(parent="site", slot="let_be", values=(known,)))
    html = shown(client, at="no-icon~site~~")
    assert "no-icon~site~~" in lines(html) and "back again" in html and "In spring" in html


def test_a_remedy_is_offered_with_a_picture_and_mends_in_one_press(
    ferries: StoredSite, ada: User, client: Client
) -> None:
    revision = edited(ferries, ada, DEAD_BUTTON)
    shown(client)
    offered = client.get(f"{ADDRESS}mending/", {"at": "leads-nowhere~it-book~~", "number": "1"}).content.decode()
    assert "Remove Button: Book" in offered and offered.count("<svg") >= 2
    (edit,) = (json.loads(unescape(one)) for one in re.findall(r'name="edit" value="([^"]+)"', offered))
    done = client.post(
        ADDRESS,
        {"do": "edit", "edit": json.dumps(edit), "gone": "leads-nowhere~it-book~~", "from": "1", "base": revision},
    ).content.decode()
    assert lines(done) == [] and "as of revision" in done
    assert lines(shown(client)) == []
    assert client.get(f"{ADDRESS}mending/", {"at": "leads-nowhere~it-book~~"}).status_code == 204


def test_several_of_a_kind_are_mended_by_one_press_which_one_undo_takes_back(
    ferries: StoredSite, ada: User, client: Client
) -> None:
    revision = edited(ferries, ada, TWO_UNUSED)
    shown(client)
    assert "Mend all 2 of this kind" in client.get(f"{ADDRESS}mending/", {"at": "unused~sw-one~~"}).content.decode()
    client.post(ADDRESS, {"mend-all": "unused", "base": revision})
    site, after = store.load(ferries.pk)
    assert after == revision + 1 and not {"sw-one", "sw-two"} & {one.id for one in site.swatches}
    assert "None of them can be mended" in client.post(ADDRESS, {"mend-all": "unused"}).content.decode()
    store.undo(ferries.pk, ada)
    assert {"sw-one", "sw-two"} <= {one.id for one in store.load(ferries.pk).site.swatches}


def test_a_report_is_handed_over(ferries: StoredSite, ada: User, client: Client) -> None:
    edited(ferries, ada, DEAD_BUTTON)
    answer = client.get(f"{ADDRESS}report/")
    assert answer["Content-Disposition"].startswith('attachment; filename="ostrey-findings-')
    page = answer.content.decode()
    assert "Button: Book leads nowhere" in page and "<script" not in page and "Let be: 3" in page


def test_before_publishing_one_sees_what_is_new_and_is_asked_once_more_where_something_breaks(
    ferries: StoredSite, ada: User, client: Client
) -> None:
    edition = Edition.objects.create(
        site=ferries, number=1, revision=ferries.revision, author=ada, state=Edition.State.DONE
    )
    StoredSite.objects.filter(pk=ferries.pk).update(current_edition=edition)
    edited(ferries, ada, DEAD_BUTTON)
    told = client.get("/s/ostrey/editions/before/").content.decode()
    assert "New since edition 1" in told and "Main header" in told and "on 37 pages" in told
    assert "1 thing that breaks" in told and "Button: Book leads nowhere" in told
    asked = client.post("/s/ostrey/editions/publish/").content.decode()
    assert 'data-test="asks"' in asked and Edition.objects.count() == 1
    client.post("/s/ostrey/editions/publish/", {"anyway": "1"})
    assert Edition.objects.count() == 2


def test_what_is_found_is_marked_alike_wherever_one_works_and_not_where_it_is_let_be(
    ferries: StoredSite, ada: User, client: Client
) -> None:
    edited(ferries, ada, DEAD_BUTTON)
    bench = "/s/ostrey/pieces/pc-main/?select=it-book"

    def marks(address: str, test: str) -> list[tuple[str, str]]:
        html = client.get(address).content.decode()
        return re.findall(rf'class="found-mark severity-(\w+) [^"]*" data-test="{test}"[^>]*>([^<]+)<', html)

    assert marks(bench, "mark-it-book") == [] and marks(bench, "mark-rw-main") == [("hinders", "wraps")]
    shown(client)
    assert marks(bench, "mark-it-book") == [("breaks", "leads nowhere")]
    assert marks(bench, "mark-rw-main") == [], "it is let be"
    assert (
        marks("/s/ostrey/board/", "board-mark")
        == marks("/s/ostrey/pieces/", "piece-mark")
        == [("breaks", "leads nowhere")]
    )
    there = re.search(r'class="told-here" href="([^"]+)"', client.get(bench).content.decode())
    assert there and lines(client.get(unescape(there[1])).content.decode()) == ["leads-nowhere~it-book~~"]
    target = node_in(looked_at_demo().site, "it-book").target.model_dump(mode="json")
    edited(ferries, ada, Set(node="it-book", field="target", value=target))
    shown(client)
    assert marks(bench, "mark-it-book") == marks("/s/ostrey/board/", "board-mark") == []


def test_nobody_sees_what_was_found_about_anothers_site(ferries: StoredSite, ben: User) -> None:
    for address in (ADDRESS, f"{ADDRESS}mending/", f"{ADDRESS}report/", "/s/ostrey/editions/before/"):
        assert signed_in(ben).get(address).status_code == 404


@pytest.mark.parametrize("name", ["found_at_once", "found_by_laying_out"])
def test_two_who_ask_at_the_same_time_wait_for_one_answer(
    ferries: StoredSite, ada: User, client: Client, monkeypatch: pytest.MonkeyPatch, name: str
) -> None:
    asked: list[LookedAt] = []
    work = getattr(looking, name)

    def counted(looked: LookedAt) -> Any:
        asked.append(looked)
        return work(looked)

    monkeypatch.setattr(looking, name, counted)
    shown(client)
    shown(client)
    assert len(asked) == 1

"""Edits kept in the database: undone without end, joined where two work at once, never lost silently."""

from __future__ import annotations

import json
import threading
from importlib import import_module
from typing import Any

import pytest
from django.apps import apps
from django.contrib.auth.models import User
from django.core.management import call_command
from django.db import connection

from upper_rim.core.kinds.pieces.notice import Notice
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Add, Move, Remove, Set, Together
from upper_rim.core.model.editing.refusal import Refusal
from upper_rim.core.model.site import Site, content_hash
from upper_rim.core.model.upgrades import FORMAT
from upper_rim.web.sites import store
from upper_rim.web.sites.models import Revision, StoredSite
from upper_rim.web.sites.store import Clash, Loaded, NothingThere


def loaded(answer: store.Answer) -> Loaded:
    assert isinstance(answer, Loaded), answer
    return answer


def gap(value: int) -> Set:
    return Set(node="it-menu", field="gap_px", value=value)


def test_a_site_comes_back_from_the_database_as_it_went(ferries: StoredSite) -> None:
    from upper_rim.demo import ostrey

    assert store.load(ferries.pk).site == ostrey()[0]


@pytest.mark.parametrize(("parts", "is_walked"), [((1, 1, 1), True), ((1, 3), False), ((4,), False), ((1,) * 4, False)])
def test_a_long_way_of_edits_is_not_walked_the_site_is_read_anew(
    ferries: StoredSite, ada: User, monkeypatch: pytest.MonkeyPatch, parts: tuple[int, ...], is_walked: bool
) -> None:
    """Of one edit all parts are counted: a process that was away for long would take its time."""
    before = store.load(ferries.pk).site
    for at, count in enumerate(parts):
        edits = tuple(gap(1 + 10 * at + part) for part in range(count))
        newest = loaded(store.submit(ferries.pk, ada, Together(edits=edits))).site
    store.forget_all()
    store._keep(ferries.pk, 0, before)
    walked: list[Any] = []
    monkeypatch.setattr(store, "LONGEST_WALK", 3)
    monkeypatch.setattr(store, "apply", lambda site, edit: walked.append(edit) or apply(site, edit))
    now = store.load(ferries.pk).site
    assert now == newest and bool(walked) == is_walked
    assert now.pages is before.pages and now.menus is before.menus, (
        "what is equal is the same, and never compared again"
    )
    assert [one is other for one, other in zip(now.pieces, before.pieces, strict=True)].count(False) == 1


def test_two_who_read_a_site_at_the_same_time_have_the_same_one(ferries: StoredSite) -> None:
    first, second = (store._read(StoredSite.objects.get(pk=ferries.pk)) for _ in range(2))
    assert first == second and first.pages is not second.pages
    assert store._keep(ferries.pk, 0, first) is first and store._keep(ferries.pk, 0, second) is first
    assert store.load(ferries.pk).site is first


def test_undo_reaches_back_to_the_beginning_and_redo_forward_again_also_after_a_restart(
    ferries: StoredSite, ada: User
) -> None:
    hashes = [content_hash(store.load(ferries.pk).site)]
    edits = [
        gap(9),
        Remove(nodes=("pg-fares", "pg-guide")),
        Set(node="site", field="name", value="Else"),
        Remove(nodes=("rw-press",)),
        Set(node="pg-home", field="path", value="/home/"),
        Move(node="pc-winter", parent="site", slot="pieces", at=0),
        Together(
            edits=(
                Remove(nodes=("pg-home",)),
                Add(parent="site", slot="menus", values=({"id": "pg-home", "name": "With the id of a page"},)),
            )
        ),
    ]
    for edit in edits:
        hashes.append(content_hash(loaded(store.submit(ferries.pk, ada, edit)).site))
    assert len(set(hashes)) == len(edits) + 1
    for wanted in reversed(hashes[:-1]):
        store.forget_all()
        assert content_hash(loaded(store.undo(ferries.pk, ada)).site) == wanted
    assert isinstance(store.undo(ferries.pk, ada), NothingThere)
    for wanted in hashes[1:]:
        store.forget_all()
        assert content_hash(loaded(store.redo(ferries.pk, ada)).site) == wanted
        store.forget_all()
        assert content_hash(store.load(ferries.pk).site) == wanted
    assert isinstance(store.redo(ferries.pk, ada), NothingThere)


def test_a_new_edit_ends_what_could_be_redone(ferries: StoredSite, ada: User) -> None:
    store.submit(ferries.pk, ada, gap(9))
    store.undo(ferries.pk, ada)
    assert store.steps_left(ferries.pk, ada) == (False, True)
    store.submit(ferries.pk, ada, gap(7))
    assert store.steps_left(ferries.pk, ada) == (True, False)
    assert isinstance(store.redo(ferries.pk, ada), NothingThere)


def test_undo_takes_back_ones_own_edit_and_leaves_what_others_did(ferries: StoredSite, ada: User, ben: User) -> None:
    store.submit(ferries.pk, ada, gap(9))
    store.submit(ferries.pk, ben, Set(node="it-menu", field="button_words", value={"text": "Book now"}))
    after = loaded(store.undo(ferries.pk, ada)).site
    menu = next(
        item for row in after.pieces[0].rows for cell in row.cells for item in cell.items if item.id == "it-menu"
    )
    assert (menu.gap_px, menu.button_words.text) == (24, "Book now")
    store.submit(ferries.pk, ben, gap(20))
    store.redo(ferries.pk, ada)
    clash = store.submit(ferries.pk, ada, gap(5), base=0)
    assert isinstance(clash, Clash) and clash.other == "ben"


def test_a_refused_edit_leaves_no_trace(ferries: StoredSite, ada: User) -> None:
    answer = store.submit(ferries.pk, ada, Set(node="sw-deep", field="colour", value="blurple"))
    assert isinstance(answer, Refusal)
    assert Revision.objects.count() == 0 and store.load(ferries.pk).revision == 0


def test_states_are_walked_to_along_the_edits_of_another_process(ferries: StoredSite, ada: User) -> None:
    first = store.load(ferries.pk).site
    for value in range(10, 40):
        store.submit(ferries.pk, ada, gap(value))
    newest = store.load(ferries.pk)
    store.forget_all()
    assert store.load_revision(ferries.pk, 0) == first
    assert store.load(ferries.pk).site == newest.site


@pytest.mark.django_db(transaction=True)
def test_two_hundred_edits_at_once_and_none_is_lost(django_user_model: type[User]) -> None:
    from upper_rim.demo import ostrey

    people = [django_user_model.objects.create_user(name, password="p") for name in ("ada", "ben")]
    site_id = store.new_site(people[0], *ostrey(), slug="ostrey").pk
    answers: dict[str, list[store.Answer]] = {}

    def work(person: User) -> None:
        got = answers[person.username] = []
        try:
            for at in range(100):
                item = {
                    "id": f"it-{person.username}-{at}",
                    "kind": "text",
                    "words": {"text": f"{person.username} {at}"},
                }
                base = store.load(site_id).revision
                got.append(store.submit(site_id, person, Add(parent="cl-end", slot="items", values=(item,)), base))
        finally:
            connection.close()

    threads = [threading.Thread(target=work, args=(person,)) for person in people]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert all(isinstance(answer, Loaded) for got in answers.values() for answer in got)
    store.forget_all()
    site: Site = store.load(site_id).site
    ids = {item.id for row in site.pieces[0].rows for cell in row.cells for item in cell.items}
    assert ids >= {f"it-{name}-{at}" for name in ("ada", "ben") for at in range(100)}
    assert list(Revision.objects.values_list("number", flat=True)) == list(range(1, 201))


def test_the_tables_are_what_the_models_say(db: None) -> None:
    call_command("makemigrations", check=True, dry_run=True, verbosity=0)


def test_a_site_and_its_edits_stored_in_the_first_format_are_lifted(ferries: StoredSite, ada: User) -> None:
    notice = next(piece.id for piece in store.load(ferries.pk).site.pieces if isinstance(piece, Notice))
    loaded(store.submit(ferries.pk, ada, Set(node=notice, field="moves", value="stays")))
    wanted = content_hash(store.load(ferries.pk).site)
    loaded(store.submit(ferries.pk, ada, Remove(nodes=(notice,))))

    def as_before(value: Any) -> Any:
        text = json.dumps(value)
        return json.loads(
            text.replace('"moves": "stays"', '"pinned": true').replace('"moves": "away"', '"pinned": false')
        )

    rows = import_module("upper_rim.web.sites.migrations.0010_rows_of_menus_and_pieces")
    rows.together(apps, None)
    stored = StoredSite.objects.get(pk=ferries.pk)
    assert {type(value) for slot in ("menus", "pieces") for value in stored.document[slot]} == {dict}
    StoredSite.objects.filter(pk=ferries.pk).update(document={**stored.document, "format": 1})
    revision = stored.revisions.order_by("-number")[0]
    Revision.objects.filter(pk=revision.pk).update(inverse=as_before(revision.inverse))
    assert "pinned" in json.dumps(Revision.objects.get(pk=revision.pk).inverse)
    for step in ("0005_format_2", "0009_format_3"):
        import_module(f"upper_rim.web.sites.migrations.{step}").lift(apps, None)
    rows.apart(apps, None)
    store.forget_all()
    assert store.load(ferries.pk).site.format == FORMAT
    assert content_hash(loaded(store.undo(ferries.pk, ada)).site) == wanted

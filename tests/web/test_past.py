"""Past steps: what was done is told, and the way back to any of them is one edit, which can be undone."""

from __future__ import annotations

import re

import pytest
from django.contrib.auth.models import User
from django.test import Client

from upper_rim.core.model.editing.edits import Add, Edit, Remove, Set, Together
from upper_rim.web.sites import store
from upper_rim.web.sites.models import StoredSite

from .conftest import signed_in

EDITS: tuple[Edit, ...] = (
    Set(node="it-logo", field="height_px", value=52),
    Set(node="it-book", field="words", value={"text": "Book now", "translations": []}),
    Remove(nodes=("it-phone",)),
    Set(node="site", field="name", value="Ostrey Boats"),
)


def worked(ferries: StoredSite, ada: User) -> list[int]:
    """The revisions, the one before all of them first."""
    numbers = [store.load(ferries.pk).revision]
    for edit in EDITS:
        answer = store.submit(ferries.pk, ada, edit)
        assert isinstance(answer, store.Loaded)
        numbers.append(answer.revision)
    return numbers


def shown(client: Client, ferries: StoredSite, query: str = "") -> list[tuple[int, str]]:
    html = client.get(f"/s/{ferries.slug}/past/{query}").content.decode()
    rows = re.findall(r'<li[^>]*data-test="past-step">(.*?)</li>', html, re.S)
    texts = [re.sub(r"\s+", " ", re.sub(r"<[^>]+>", " ", row)).strip() for row in rows]
    return [(int(text.split(" ")[0]), text) for text in texts]


def test_each_step_tells_what_was_done_by_whom(ferries: StoredSite, ada: User) -> None:
    numbers = worked(ferries, ada)
    listed = dict(shown(signed_in(ada), ferries))
    assert sorted(listed)[-4:] == numbers[1:]
    assert "height" in listed[numbers[1]] and "Removed" in listed[numbers[3]]
    assert all("ada," in listed[number] for number in numbers[1:])
    assert "as it is now" in listed[numbers[4]] and "Go back to it" in listed[numbers[1]]
    earlier = shown(signed_in(ada), ferries, f"?before={numbers[2]}")
    assert earlier[0][0] == numbers[2]


def test_going_back_to_any_step_makes_the_site_as_it_was_then_and_can_be_undone(ferries: StoredSite, ada: User) -> None:
    client, numbers = signed_in(ada), worked(ferries, ada)
    newest = store.load(ferries.pk).site
    for number in numbers[:-1]:
        assert client.post(f"/s/{ferries.slug}/past/", {"back": number}).status_code == 303
        assert store.load(ferries.pk).site == store.load_revision(ferries.pk, number)
        store.undo(ferries.pk, ada)
        assert store.load(ferries.pk).site == newest


def test_a_step_that_is_looked_at_changes_nothing_until_it_is_kept(ferries: StoredSite, ada: User) -> None:
    client, numbers = signed_in(ada), worked(ferries, ada)
    before = store.load(ferries.pk)
    answer = client.post(f"/s/{ferries.slug}/past/", {"look": numbers[1]})
    assert answer.status_code == 303 and "/pieces/" in answer["Location"]
    screen = client.get(answer["Location"]).content.decode()
    assert f"Trying on: as after step {numbers[1]}" in screen and store.load(ferries.pk) == before
    client.post(answer["Location"], {"trial": "keep"})
    assert store.load(ferries.pk).site == store.load_revision(ferries.pk, numbers[1])


def test_what_is_no_step_is_refused_and_changes_nothing(ferries: StoredSite, ada: User) -> None:
    client, numbers = signed_in(ada), worked(ferries, ada)
    for asked in (numbers[-1], numbers[-1] + 5, 10**9):
        answer = client.post(f"/s/{ferries.slug}/past/", {"back": asked})
        assert "no step of this site" in answer.content.decode()
    assert store.load(ferries.pk).revision == numbers[-1]


def test_what_was_told_when_it_was_done_is_listed_without_the_states_of_then(
    ferries: StoredSite, ada: User, monkeypatch: pytest.MonkeyPatch
) -> None:
    client, screen = signed_in(ada), f"/s/{ferries.slug}/past/"
    bench = f"/s/{ferries.slug}/pieces/pc-main/"
    for at in range(3):
        client.post(bench, {"do": "set", "node": "it-logo", "field": "height_px", "value": str(50 + at)})
    client.post(bench, {"do": "undo"})
    client.post(screen, {"back": "1"})
    monkeypatch.setattr(store, "load_revision", lambda *_: pytest.fail("nobody walks back for what is known"))
    said = [text for _, text in shown(client, ferries)]
    assert "Went back to step 1." in said[0] and "Undone: Changed" in said[1] and "Changed" in said[2]


def test_the_way_back_sets_each_value_once(ferries: StoredSite, ada: User) -> None:
    before = store.load(ferries.pk).site
    numbers = [edit for at in range(9) for edit in (gap(at), height(30 + at))]
    removed = Remove(nodes=("it-phone",))
    for edit in (*numbers, removed, *numbers):
        store.submit(ferries.pk, ada, edit)
    back = store.way_back(ferries.pk, 0)
    assert isinstance(back, Together) and [type(part) for part in back.edits] == [Set, Set, Add, Set, Set]
    assert isinstance(store.submit(ferries.pk, ada, back), store.Loaded)
    assert store.load(ferries.pk).site == before


def gap(px: int) -> Set:
    return Set(node="it-menu", field="gap_px", value=px)


def height(px: int) -> Set:
    return Set(node="it-logo", field="height_px", value=px)

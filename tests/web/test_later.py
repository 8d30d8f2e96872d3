"""What one does to a piece later: another arrangement is tried on; what the site says of itself is said in one way."""

from __future__ import annotations

import re
from html import unescape

import pytest
from django.contrib.auth.models import User

from upper_rim.core.model.rearranging import arrangements_for
from upper_rim.core.model.tree import items_of
from upper_rim.web.sites import store
from upper_rim.web.sites.models import StoredSite, Trial

from .conftest import signed_in

BENCH = "/s/ostrey/pieces/pc-main/"


def test_each_arrangement_of_the_kind_is_drawn_with_what_the_piece_holds(ferries: StoredSite, ada: User) -> None:
    site = store.load(ferries.pk).site
    for piece in site.pieces:
        answer = signed_in(ada).get(f"/s/ostrey/pieces/{piece.id}/arrangements/").content.decode()
        keys = arrangements_for(piece)
        assert answer.count("small-picture") == len(keys) + 1, piece.id
        assert all(f'value="arranged:{key}"' in answer for key in keys)


def test_one_is_tried_on_kept_as_one_step_and_undone(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    before = store.load(ferries.pk)
    answer = client.post(BENCH, {"trial": "arranged:crown", "page": "/"})
    assert answer.status_code == 303 and answer["Location"].startswith(BENCH)
    assert Trial.objects.get(site=ferries).name == "Crown" and store.load(ferries.pk) == before
    assert "Trying on: Crown" in client.get(BENCH).content.decode()
    client.post(BENCH, {"trial": "off"})
    assert not Trial.objects.exists() and store.load(ferries.pk) == before
    client.post(BENCH, {"trial": "arranged:crown"})
    client.post(BENCH, {"trial": "keep"})
    kept = store.load(ferries.pk)
    assert kept.revision == before.revision + 1 and kept.site != before.site
    client.post(BENCH, {"do": "undo"})
    assert store.load(ferries.pk).site == before.site


@pytest.mark.parametrize("key", ["columns", "no-such", ""])
def test_what_is_no_arrangement_of_a_header_is_not_tried_on(ferries: StoredSite, ada: User, key: str) -> None:
    answer = signed_in(ada).post(BENCH, {"trial": f"arranged:{key}"})
    assert "That cannot be tried on any more" in answer.content.decode() and not Trial.objects.exists()


def test_only_who_works_on_a_site_sees_its_pieces_otherwise(ferries: StoredSite, ben: User) -> None:
    assert signed_in(ben).get(f"{BENCH}arrangements/").status_code == 404


def offered(answer: str, name: str) -> str:
    """The edit that a button with a name for tests would make."""
    return unescape(re.findall(rf'name="edit" value="([^"]*)">\s*<button[^>]*data-test="{name}"', answer)[0])


def test_what_is_said_of_the_site_changes_in_all_places_at_once_or_here_alone(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    bench = "/s/ostrey/pieces/pc-footer/"

    def telephones() -> list[str]:
        items = {item.id: item for item in items_of(store.load(ferries.pk).site.pieces)}
        return [items[name].telephone for name in ("it-contact", "it-drawer-contact")]

    def posted(form: dict[str, str]) -> str:
        return client.post(bench, {**form, "select": "it-contact"}).content.decode()

    old, new = telephones()[0], "+44 1632 960155"
    shown = client.get(f"{bench}?select=it-contact").content.decode()
    assert 'data-test="say-everywhere"' not in shown
    changed = {"do": "set", "node": "it-contact", "field": "telephone", "value": new}
    answer = posted(changed)
    assert "Changed in “In the menu”, too" in answer and telephones() == [new, new]
    posted({"do": "undo"})
    assert telephones() == [old, old], "one step"
    posted(changed)
    answer = posted({"do": "edit", "edit": offered(answer, "only-here")})
    assert telephones() == [new, old]
    assert "Something else is said in “In the menu”." in answer
    posted({"do": "edit", "edit": offered(answer, "say-everywhere")})
    assert telephones() == [new, new]
    posted({**changed, "value": ""})
    assert telephones() == ["", new], "what is left out here is still said there"

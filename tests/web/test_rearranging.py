"""A piece tries on another arrangement: drawn with what is in it, seen on the stage, kept as one step or taken off."""

from __future__ import annotations

import pytest
from django.contrib.auth.models import User

from upper_rim.core.model.rearranging import arrangements_for
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
    assert "It cannot stand like that any more" in answer.content.decode() and not Trial.objects.exists()


def test_only_who_works_on_a_site_sees_its_pieces_otherwise(ferries: StoredSite, ben: User) -> None:
    assert signed_in(ben).get(f"{BENCH}arrangements/").status_code == 404

"""What is said of the site is one truth: who says otherwise is found, and one step has all say the same."""

from __future__ import annotations

from typing import Any

from upper_rim.core.kinds.items.contact import Contact, Hours
from upper_rim.core.kinds.items.social import Profile, SocialRow
from upper_rim.core.kinds.items.text import TextItem
from upper_rim.core.kinds.pieces.footer import Footer
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.model.editing.apply import apply, inverse
from upper_rim.core.model.editing.edits import Set
from upper_rim.core.model.facts import said_alike, said_everywhere, said_otherwise
from upper_rim.core.model.site import Site
from upper_rim.core.model.tree import items_of
from upper_rim.demo import ostrey, quillwort

from .test_begun import RULES

DAILY = (Hours(days=("Mo", "Tu"), opens="08:00", closes="17:00"),)


def profile(at: int, address: str) -> Profile:
    return Profile(id=f"pf-{at}", address=address)


def site_of(*items: Any) -> Site:
    pieces = tuple(
        Footer(
            id=f"pc-{at}", name=f"Footer {at}", rows=(Row(id=f"rw-{at}", cells=(Cell(id=f"cl-{at}", items=(item,)),)),)
        )
        for at, item in enumerate(items)
    )
    return Site(name="Ferries", key="q1x7", pieces=pieces)


def otherwise(site: Site, item: Any) -> list[tuple[str, str]]:
    return [(other.id, edit.field) for other, edit in said_otherwise(site, item)]


def test_a_place_may_say_less_and_says_otherwise_where_both_say_something() -> None:
    one = Contact(id="it-1", name="Quay", town="Osterhaven", telephone="+44 1632 960144", hours=DAILY)
    less = Contact(id="it-2", telephone="+44 1632 960144")
    old = Contact(id="it-3", telephone="+44 1632 960100", town="Osterhaven")
    office = Contact(id="it-4", name="Skarrow office", town="Skarrow", telephone="+44 1632 960150")
    site = site_of(one, less, old, office, TextItem(id="it-5"))
    assert otherwise(site, one) == [("it-3", "telephone")]
    assert otherwise(site, less) == [("it-3", "telephone"), ("it-4", "telephone")]
    assert said_everywhere(site, TextItem(id="it-5")) is None
    edit = said_everywhere(site, one)
    assert edit is not None
    made = apply(site, edit, RULES)
    assert isinstance(made, Site) and apply(made, inverse(site, edit), RULES) == site
    said = {item.id: item for item in items_of(made.pieces)}
    assert said["it-3"].telephone == one.telephone and said["it-2"] == less and said["it-4"] == office
    assert said_everywhere(made, one) is None


def test_what_changes_in_one_place_changes_in_all_that_said_the_same() -> None:
    one = Contact(id="it-1", name="Quay", town="Osterhaven", telephone="+44 1632 960144", hours=DAILY)
    less = Contact(id="it-2", telephone="+44 1632 960144")
    office = Contact(id="it-3", name="Skarrow office", telephone="+44 1632 960144")
    rows = [SocialRow(id=f"it-{at}", profiles=(profile(at, "https://one.example/us"),)) for at in (4, 5)]
    site = site_of(one, less, office, *rows)

    def with_it(node: str, field: str, value: Any) -> list[str]:
        return [edit.node for _, edit in said_alike(site, Set(node=node, field=field, value=value))]

    assert with_it("it-1", "telephone", "+44 1632 960150") == ["it-2"], "another office has its own"
    assert with_it("it-2", "telephone", "+44 1632 960150") == ["it-1", "it-3"]
    assert with_it("pf-4", "address", "https://one.example/new") == ["pf-5"]
    assert with_it("it-1", "telephone", "") == [], "what is left out in one place is not wrong in another"
    assert with_it("it-1", "telephone", one.telephone) == with_it("it-1", "hours", []) == []


def test_profiles_are_known_by_whose_service_they_are_at() -> None:
    one = SocialRow(
        id="it-1", profiles=(profile(1, "https://www.one.example/us"), profile(2, "mailto:us@ferries.example"))
    )
    other = SocialRow(
        id="it-2",
        profiles=(
            profile(3, "https://one.example/old"),
            profile(4, "mailto:old@ferries.example"),
            profile(5, "https://two.example/us"),
        ),
    )
    two_there = SocialRow(
        id="it-3", profiles=(profile(6, "https://one.example/crew"), profile(7, "https://one.example/shop"))
    )
    site = site_of(one, other, two_there)
    assert [edit.node for _, edit in said_otherwise(site, one)] == ["pf-3", "pf-4"]
    edit = said_everywhere(site, one)
    assert edit is not None
    made = apply(site, edit, RULES)
    assert isinstance(made, Site) and said_everywhere(made, one) is None


def test_the_demos_say_one_thing_everywhere() -> None:
    for site in (ostrey()[0], quillwort()[0]):
        assert not [edit for item in items_of(site.pieces) for edit in said_otherwise(site, item)]

"""What is new between two states of a site, and on how many pages one meets it."""

from __future__ import annotations

from typing import Any

import pytest

from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Add, Edit, Remove, Set
from upper_rim.core.model.site import Site
from upper_rim.core.reach.changes import changes
from upper_rim.demo import ostrey

SWATCH: dict[str, Any] = {"id": "sw-new", "name": "New", "colour": "#123456"}
KNOWN: dict[str, Any] = {"id": "lb-a", "kind": "unused", "on": "2026-12-01", "reason": "x"}


@pytest.mark.parametrize(
    ("edit", "expected"),
    [
        (Set(node="it-book", field="words", value={"text": "Embark"}), [("pieces", "changed", "Main header", 1, 37)]),
        (Set(node="en-fares", field="label", value={"text": "Prices"}), [("menus", "changed", "Main", 1, 37)]),
        (Remove(nodes=("pc-news",)), [("pieces", "gone", "News for the press", 1, 3)]),
        (Add(parent="site", slot="swatches", values=(SWATCH,)), [("swatches", "new", "New", 1, None)]),
        (Set(node="site", field="text_px", value=18), [("site", "changed", "", 1, 42)]),
        (Add(parent="site", slot="let_be", values=(KNOWN,)), []),
        (Remove(nodes=("as-quay",)), [("assets", "gone", "", 1, None)]),
    ],
)
def test_each_change_is_told_with_what_it_is_about(edit: Edit, expected: list[tuple[Any, ...]]) -> None:
    site, _ = ostrey()
    after = apply(site, edit)
    assert isinstance(after, Site)
    told = [(one.slot, one.what, one.name, one.many, one.pages) for one in changes(site, after)]
    assert told == expected
    assert changes(site, site) == []


def test_pages_are_counted_not_named() -> None:
    site, _ = ostrey()
    title = site.pages[1].replaced(title="Other")
    after = site.replaced(pages=(title, *site.pages[3:]))
    assert [(one.what, one.many) for one in changes(site, after)] == [("changed", 1), ("gone", 2)]

"""Every control of the tray can be used."""

from __future__ import annotations

import json
from collections.abc import Sequence
from itertools import cycle
from typing import Any, get_args

from django.contrib.auth.models import User

from tests.nodes import node_in
from upper_rim.core.kinds.items import ITEM_KINDS
from upper_rim.core.kinds.items.contact import BusinessKind
from upper_rim.core.kinds.items.menu import MenuItem
from upper_rim.core.model.site import Site, content_hash
from upper_rim.core.model.tree import ROOT, items_of, walk
from upper_rim.demo import ostrey
from upper_rim.web.sites import store
from upper_rim.web.sites.models import StoredSite
from upper_rim.web.studio.controls.control import Control
from upper_rim.web.studio.controls.items.contact import BUSINESSES
from upper_rim.web.studio.controls.of_movement import movement_groups
from upper_rim.web.studio.controls.of_nodes import groups_for

from .conftest import signed_in

FOOTER = "/s/ostrey/pieces/pc-footer/"


AT_GATES = {
    "answer": "cl-shop-age",
    "told": "cl-shop-age",
    "birth": "cl-shop-age",
    "secret": "cl-press-door",
    "choices": "cl-consent",
}
"""Kinds that mean something at gates only, each with a cell of one."""


def second_value(control: Control, site: Site) -> dict[str, Any] | None:
    """What a person would set a control to that is not what it shows; None for what sets nothing."""
    typed = {
        "target": "/fares/", "address": "https://charts.example/sound", "consent.modes": "US opt-in", "cookies": "tm_*", "list_on": "/sailings/", "selector": "main ol", "hours": "Su 10:00-11:00", "profiles": "https://elsewhere.example/us | Us | teal",
        "links": "One | two | | /fares/", "fields": "Your name* | text", "track": "share 3", "country": "IE", "telephone": "+44 1632 960199", "mail": "boats@ostrey.example",
        "own_address": "https://there.example/in", "below": "/guide/", "latitude": "51.5", "longitude": "-3.25", "classes": "one two", "rich": "<p>Said anew</p>", "by_region": "US 21, DE-BY 16", "excused": "pilots",
    }  # fmt: skip
    match control.kind:
        case "note" | "order" | "upload":
            return None
        case "yes":
            return {} if control.value else {"value": "true"}
        case "bands":
            kept = [value for value, _ in control.choices if value in control.value]
            return {"values": kept[1:] if kept else [value for value, _ in control.choices]}
        case "choice" | "swatch":
            others = [value for value, _ in control.choices if value != control.value]
            return {"value": others[-1]} if others else None
        case "number":
            least, most = control.least or 0, control.greatest or 10_000
            return {"value": str(least + 1 if str(least) == str(control.value) else min(most, least))}
        case "distance":
            return {"value": "450", "unit": "px"}
        case "icon":
            return {"value": "anchor"}
        case "moment":
            return {"value": "2027-01-02T03:04"}
        case _:
            return {"value": typed.get(control.field, "Said anew")}


def test_every_control_that_the_tray_offers_can_be_set_to_another_value_and_undone(
    ferries: StoredSite, ada: User
) -> None:
    client = signed_in(ada)
    footer = next(piece for piece in store.load(ferries.pk).site.pieces if piece.id == "pc-footer")
    # One of each kind, over all cells: a row of all of them would be looked at anew with each.
    cells = cycle([cell.id for row in footer.rows for cell in row.cells])
    every = {"kind": "together", "edits": [
        {"kind": "add", "parent": AT_GATES.get(kind, cell), "slot": "items", "values": [{"id": f"it-all-{kind}", "kind": kind}]} for kind, cell in zip(ITEM_KINDS, cells, strict=False)
    ]}  # fmt: skip
    assert client.post(FOOTER, {"do": "edit", "edit": json.dumps(every)}).status_code == 200
    site = store.load(ferries.pk).site
    offered = [
        (piece, control)
        for piece in site.pieces
        for node in (piece, *walk(piece))
        if node.id[:2] in {"pc", "rw", "cl", "it", "sg"}
        for group in [*groups_for(node, site), *(movement_groups(node, site) if node is piece else [])]
        for control in group.controls
    ]
    assert len(offered) > 600
    tried: set[tuple[Any, ...]] = set()
    for piece, control in offered:
        holder: Any = site if control.node == ROOT else node_in(site, control.node) if control.node else None
        is_translation = control.language not in {"", site.language}
        key = (type(holder), control.kind, control.field, is_translation, bool(control.band))
        values = second_value(control, site)
        if values is None or key in tried:
            continue
        tried.add(key)
        before = store.load(ferries.pk)
        form = {
            "do": "set",
            "node": control.node,
            "field": control.field,
            "language": control.language,
            "band": control.band,
            **values,
        }
        answer = client.post(
            f"/s/ostrey/pieces/{piece.id}/",
            {name: value for name, value in form.items() if value != ""} | {"value": values.get("value", "")},
        )
        assert answer.status_code == 200, (control, answer.content.decode()[:400])
        after = store.load(ferries.pk)
        assert after.revision == before.revision + 1, (control, values)
        undone = store.undo(ferries.pk, ada)
        assert isinstance(undone, store.Loaded) and content_hash(undone.site) == content_hash(before.site), control
    assert len(tried) > 150


def test_a_large_group_shows_few_controls_and_counts_what_is_set_among_the_rest() -> None:
    site = ostrey()[0]
    menu = next(item for item in items_of(site.pieces) if isinstance(item, MenuItem) and item.has_button)

    def lines(controls: Sequence[Control]) -> int:
        """A text with other languages takes one more, for these."""
        return sum(1 + bool(control.others) for control in controls)

    for groups in (groups_for(menu, site), movement_groups(site.pieces[0], site)):
        for group in groups:
            assert [*group.few, *group.more] == group.controls
            few, more, next_one = (lines(listed) for listed in (group.few, group.more, group.more[:1]))
            assert not group.more or (more > 1 and few <= group.shown_first < few + next_one)

    def gap(px: int) -> Control:
        controls = (one for group in groups_for(menu.replaced(gap_px=px), site) for one in group.controls)
        return next(one for one in controls if one.field == "gap_px")

    assert gap(31).is_set and not gap(MenuItem.model_fields["gap_px"].default).is_set


def test_every_kind_of_business_has_words() -> None:
    assert {kind for kind, _ in BUSINESSES} == set(get_args(BusinessKind))

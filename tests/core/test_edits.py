"""Edits, undo and replay, over generated sites."""

from __future__ import annotations

from typing import Any, get_args

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from upper_rim.core.exchange.bundle import checked_site
from upper_rim.core.exchange.html.markers import strip
from upper_rim.core.exchange.imports.import_pages import file_name
from upper_rim.core.kinds.items.icon import IconLink
from upper_rim.core.kinds.items.menu import MenuItem
from upper_rim.core.kinds.items.pager import Pager
from upper_rim.core.kinds.items.viewer import Viewer
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.model.editing.apply import apply, inverse
from upper_rim.core.model.editing.edits import Add, Remove, Set, Together, edit_adapter
from upper_rim.core.model.editing.refusal import WORDS, Refusal, RefusalKind
from upper_rim.core.model.editing.replay import Conflict, replay
from upper_rim.core.model.editing.rules import Rules
from upper_rim.core.model.site import Site, content_hash
from upper_rim.core.model.tree import find
from upper_rim.core.output.publication import publication
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

from .generated import CONTENT, CONTENTS, Maker


@settings(max_examples=120, deadline=None)
@given(st.integers(0, 10**9))
def test_whatever_is_done_and_undone_the_site_is_valid_and_undo_gives_the_earlier_value(seed: int) -> None:
    maker = Maker(seed)
    site = maker.site()
    history: list[tuple[Site, object]] = []
    undone: list[tuple[Site, object]] = []
    applied = 0
    for _ in range(30):
        choice = maker.chance.random()
        if choice < 0.2 and history:
            before, undoing = history.pop()
            redoing = inverse(site, undoing)
            undone.append((site, redoing))
            site = apply(site, undoing)
            assert site == before
            assert content_hash(site) == content_hash(before)
            continue
        if choice < 0.3 and undone:
            later, redoing = undone.pop()
            history.append((site, inverse(site, redoing)))
            site = apply(site, redoing)
            assert site == later
            continue
        edit = edit_adapter.validate_python(edit_adapter.dump_python(maker.edit(site), mode="json"))
        after = apply(site, edit)
        if isinstance(after, Refusal):
            assert after.words
            continue
        applied += after is not site
        if after is not site:
            history.append((site, inverse(site, edit)))
            undone.clear()
        site = after
        assert Site.model_validate(site.model_dump(mode="json")) == site
        assert checked_site(site) == site
    files = {file.name: file.data for file in publication(site, shelf(), CONTENTS.__getitem__)}
    for page in site.pages:
        if page.content and page.splice:
            assert strip(files[file_name(page.path)]) == CONTENT


def test_the_generator_makes_edits_that_mostly_hold() -> None:
    taken = refused = 0
    for seed in range(60):
        maker = Maker(seed)
        site = maker.site()
        for _ in range(20):
            after = apply(site, maker.edit(site))
            if isinstance(after, Refusal):
                refused += 1
            else:
                taken += after is not site
                site = after
    assert taken > 300
    assert refused > 100


def test_a_refusal_names_the_place_and_changes_nothing() -> None:
    site, _ = ostrey()
    cases = [
        (Set(node="sw-deep", field="colour", value="blurple"), "sw-deep", "colour"),
        (Set(node="it-menu", field="menu", value="mn-none"), "it-menu", "menu"),
        (Remove(nodes=("mn-main",)), "it-menu", "menu"),
        (Remove(nodes=("sw-deep",)), "rd-button", "color"),
        (Set(node="bd-wide", field="from_px", value=560), "bd-wide", "from_px"),
        (Set(node="bd-narrow", field="from_px", value=10), "bd-narrow", "from_px"),
        (Set(node="pg-fares", field="path", value="/"), "pg-fares", "path"),
        (Set(node="pg-fares", field="path", value="/../etc/"), "pg-fares", "path"),
        (Set(node="pg-fares", field="path", value="/%2e%2e/etc/"), "pg-fares", "path"),
        (
            Set(node="en-guide", field="target", value={"kind": "address", "address": "javascript:alert(1)"}),
            "en-guide",
            "target",
        ),
        (Set(node="it-gone", field="words", value={}), "it-gone", "words"),
        (Add(parent="cl-end", slot="items", values=({"id": "it-book", "kind": "text"},)), "it-book", "id"),
    ]
    for edit, node, field in cases:
        answer = apply(site, edit)
        assert isinstance(answer, Refusal), edit
        assert (answer.node, answer.field) == (node, field), answer
        assert answer.words and "{" not in answer.words


def test_every_kind_of_refusal_has_words() -> None:
    assert set(get_args(RefusalKind)) == set(WORDS)


def test_edits_of_two_designers_join_unless_they_contradict() -> None:
    base, _ = ostrey()
    theirs = apply(base, Set(node="it-menu", field="gap_px", value=12))
    assert isinstance(theirs, Site)
    joined = replay(Set(node="it-menu", field="button_words", value={"text": "Book now"}), base, theirs)
    assert isinstance(joined, Site)
    assert '"gap_px":12' in joined.model_dump_json() and "Book now" in joined.model_dump_json()
    clash = replay(Set(node="it-menu", field="gap_px", value=3), base, theirs)
    assert isinstance(clash, Conflict)
    assert (clash.was, clash.theirs, clash.mine) == (24, 12, 3)
    same = replay(Set(node="it-menu", field="gap_px", value=12), base, theirs)
    assert same is theirs


def test_removing_what_somebody_just_changed_is_shown_first() -> None:
    base, _ = ostrey()
    theirs = apply(base, Set(node="it-winter", field="words", value={"text": "Fog"}))
    assert isinstance(theirs, Site)
    assert isinstance(replay(Remove(nodes=("rw-winter",)), base, theirs), Conflict)
    gone = apply(base, Remove(nodes=("rw-winter",)))
    assert isinstance(gone, Site)
    assert isinstance(replay(Set(node="it-winter", field="words", value={"text": "Fog"}), base, gone), Conflict)
    assert isinstance(
        replay(Add(parent="cl-winter", slot="items", values=({"id": "it-new", "kind": "text"},)), base, gone), Conflict
    )


RULES = Rules(
    is_icon={"anchor"}.__contains__,
    is_mark={"brand-quay"}.__contains__,
    selector_fault=lambda text: "no" if "(" in text else None,
)


@pytest.mark.parametrize(
    ("kind", "field", "well", "badly"),
    [
        (IconLink, "icon", "anchor", "no-such-icon"),
        (IconLink, "icon", "brand-quay", "brand-none"),
        (MenuItem, "button_icon", "anchor", "brand-quay"),
        (Pager, "selector", "main ul", "main ul:("),
        (Viewer, "selector", "img", "img:("),
    ],
)
def test_what_only_the_shell_knows_is_refused_on_every_way(kind: Any, field: str, well: str, badly: str) -> None:
    item = kind(id="it-new")
    cell = Cell(id="cl-new", items=(item,))
    site = Site(key="qrules", name="O", pieces=(Header(id="pc-a", name="H", rows=(Row(id="rw-a", cells=(cell,)),)),))
    good, bad = (Set(node="it-new", field=field, value=value) for value in (well, badly))
    assert isinstance(apply(site, good, RULES), Site)
    refused = apply(site, bad, RULES)
    assert isinstance(refused, Refusal) and (refused.node, refused.field) == ("it-new", field)
    assert apply(site, Together(edits=(bad,)), RULES) == refused
    as_json = {**item.model_dump(mode="json"), "id": "it-other", field: badly}
    added = apply(site, Add(parent="cl-new", slot="items", values=(as_json,)), RULES)
    assert isinstance(added, Refusal) and added.node == "it-other"
    old = apply(site, bad)
    assert isinstance(old, Site), "what was accepted once can be played again"
    assert isinstance(apply(old, Set(node="it-new", field="hint", value={"text": "x"}), RULES), Site)


def test_two_who_write_in_different_languages_do_not_clash_and_both_texts_stay() -> None:
    base, _ = ostrey()

    def wrote(language: str, text: str) -> Set:
        words = (
            {"text": "Sail"}
            if not language
            else {"text": "Winter", "translations": [{"language": language, "text": text}]}
        )
        return Set(node="it-winter", field="words", value=words)

    base = apply(base, Set(node="it-winter", field="words", value={"text": "Winter", "translations": []}))
    newest = apply(base, wrote("de", "Winterfahrt"))
    assert isinstance(newest, Site)
    both = replay(wrote("cy", "Gaeaf"), base, newest)
    assert isinstance(both, Site)
    words = find(both, "it-winter").node.words
    assert {one.language: one.text for one in words.translations} == {"de": "Winterfahrt", "cy": "Gaeaf"}
    clash = replay(wrote("de", "Winterplan"), base, newest)
    assert isinstance(clash, Conflict) and (clash.language, clash.theirs, clash.mine) == (
        "de",
        "Winterfahrt",
        "Winterplan",
    )
    assert isinstance(replay(wrote("de", "Winterfahrt"), base, newest), Site), "equal words never clash"

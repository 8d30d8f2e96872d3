"""What holds of every kind, whichever it is: its markup escapes what is written in it, its rules can be read."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

import html5lib
import pytest
from hypothesis import given
from hypothesis import strategies as st

from upper_rim.core.kinds.items import ITEM_KINDS, Item
from upper_rim.core.kinds.items.base import BaseItem
from upper_rim.core.kinds.markup import Element, Markup, Raw, element, html, slot, takes_focus
from upper_rim.core.kinds.pieces import GATE_SLOTS, PIECE_KINDS
from upper_rim.core.kinds.rule import Rule, css, rules_in
from upper_rim.core.output.css.site_sheet import SiteSheet
from upper_rim.core.output.page.piece_markup import Shown, around
from upper_rim.core.output.page.site_context import pageless
from upper_rim.core.values.styling import STATES_OF
from upper_rim.core.values.words import Words
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

SITE = ostrey()[0]
CONTEXT = replace(pageless(SITE, shelf(), "en"), year=2026, marks=True)
HOSTILE = "<img src=x onerror=alert(1)>\"'&amp;</script></style>"


def filled(value: Any) -> Any:
    """The same item with every text of its own hostile."""
    fields: dict[str, Any] = {}
    for name in type(value).model_fields:
        held = getattr(value, name)
        if isinstance(held, Words):
            fields[name] = Words(text=HOSTILE)
        elif name in {"name", "street", "town"}:
            fields[name] = HOSTILE
        elif isinstance(held, tuple) and held and hasattr(held[0], "id") and name != "styles":
            fields[name] = tuple(filled(one) for one in held)
    return value.replaced(**fields)


DEMO: dict[str, Any] = {}
for piece in SITE.pieces:
    for item in SITE.shown_items(piece):
        DEMO.setdefault(item.kind, item)


def sample(kind: str) -> BaseItem:
    """An item of the demo, or one as it begins."""
    return DEMO.get(kind) or ITEM_KINDS[kind].model_validate({"id": f"it-{kind}"})


def elements(markup: tuple[Markup, ...]) -> Iterator[Element]:
    for node in markup:
        if isinstance(node, Element):
            yield node
            yield from elements(node.children)


@pytest.mark.parametrize("kind", ITEM_KINDS)
def test_what_is_written_in_an_item_stays_text(kind: str) -> None:
    item = filled(sample(kind))
    markup = item.markup(CONTEXT)
    parsed = html5lib.parseFragment(html(markup), namespaceHTMLElements=False)
    found = [node for node in parsed.iter() if isinstance(node.tag, str) and node.tag != "DOCUMENT_FRAGMENT"]
    ours = [one.tag for one in elements(markup)]
    if kind != "rich":
        assert [node.tag for node in found] == ours, "the tree that is meant is the tree that is read"
    assert not any(node.get("onerror") for node in found)


@pytest.mark.parametrize("kind", ITEM_KINDS)
def test_the_rules_of_an_item_can_be_read(kind: str) -> None:
    rules = tuple(sample(kind).rules(f".q-{kind}", SiteSheet(SITE, shelf(), lambda path: None)))
    assert rules_in(css(rules)) == rules


def test_kinds_are_told_apart_by_their_names_and_have_roles_with_states() -> None:
    kinds: list[Any] = [*ITEM_KINDS.values(), *PIECE_KINDS.values()]
    assert len({kind.NAME for kind in kinds}) == len(kinds)
    for kind in ITEM_KINDS.values():
        item: Item = kind.model_validate({"id": "it-a"})
        assert {*item.roles.values()} <= set(STATES_OF)
        assert {*item.texts_within(), *item.unseen_parts, "box"} <= {*item.roles}
        parts = list(item.roles)
        assert all(parts.index(outer) < parts.index(part) for part, outer in item.WITHIN.items() if part in parts)
    for at_home in kinds:
        assert at_home.__module__.rpartition(".")[2] == str(at_home.model_fields["kind"].default)


def test_the_serialiser_escapes_leaves_out_and_leaves_slots() -> None:
    tree = element(
        "a",
        {"href": 'x"y', "hidden": True, "title": None, "inert": False, slot("c", "en-a"): True},
        "a<b",
        Raw("<i></i>"),
    )
    assert html([tree]) == '<a href="x&quot;y" hidden\x00cen-a\x00>a&lt;b<i></i></a>'
    assert html([element("img", {"alt": ""}), element("path", {"d": "M0 0"}), element("span", {})]) == (
        '<img alt=""><path d="M0 0"/><span></span>'
    )
    assert (
        takes_focus([tree]) and takes_focus([Raw("<p><a class=x href=/>")]) and not takes_focus(["a", element("a", {})])
    )


def test_rules_within_the_same_conditions_stand_in_one_block() -> None:
    able, narrow = "@supports (a:b)", "@media (width < 9px)"
    rules = [
        Rule("a", {"x": "1", "y": "2"}),
        Rule("b", {"z": "3"}, (able,)),
        Rule("c", {"z": "4"}, (able, narrow)),
        Rule("d", {"z": "5"}, (able, narrow)),
        Rule("e", {"z": "6"}, (narrow,)),
        Rule("f", {}),
    ]
    assert css(rules) == (
        "a{x:1;y:2}@supports (a:b){b{z:3}@media (width < 9px){c{z:4}d{z:5}}}@media (width < 9px){e{z:6}}f{}"
    )
    assert css([]) == ""


NAMES = st.sampled_from(["class", "id", "title", "data-rim-a", "aria-label"])
TEXTS = st.text(st.characters(exclude_categories=("Cs", "Cc"), exclude_characters="\ufeff"), max_size=12)
TREES = st.recursive(
    TEXTS.filter(bool),
    lambda inner: st.builds(
        lambda tag, attributes, children: element(tag, attributes, *children),
        st.sampled_from(["span", "b", "i", "em"]),
        st.dictionaries(NAMES, TEXTS, max_size=3),
        st.lists(inner, max_size=3),
    ),
    max_leaves=12,
)


def as_read(node: Any) -> Any:
    """An element of html5lib as tag, attributes and what is in it; neighbouring texts are one."""
    inside: list[Any] = [node.text] if node.text else []
    for child in node:
        inside += [as_read(child), *([child.tail] if child.tail else [])]
    return node.tag, dict(node.attrib), inside


def as_meant(node: Any) -> Any:
    inside: list[Any] = []
    for child in node.children:
        if isinstance(child, str) and inside and isinstance(inside[-1], str):
            inside[-1] += child
        elif isinstance(child, str):
            inside.append(child)
        else:
            inside.append(as_meant(child))
    return node.tag, dict(node.attributes), [one for one in inside if one != ""]


@given(children=st.lists(TREES, max_size=3))
def test_what_is_written_is_read_as_it_was_meant(children: list[Markup]) -> None:
    tree = element("div", {}, *children)
    parsed = html5lib.parseFragment(html([tree]), namespaceHTMLElements=False)
    assert as_read(parsed[0]) == as_meant(tree)


CONDITIONS = st.sampled_from(["@media (width < 9px)", "@media print", "@supports (display:grid)", "@starting-style"])
RULES = st.builds(
    Rule,
    st.sampled_from([".a", ".b>.c", "d:hover"]),
    st.dictionaries(st.sampled_from(["color", "margin"]), st.sampled_from(["red", "1px 2px"]), max_size=2),
    st.lists(CONDITIONS, max_size=3).map(tuple),
)


@given(rules=st.lists(RULES, max_size=6))
def test_rules_are_read_in_their_order_within_their_conditions(rules: list[Rule]) -> None:
    assert rules_in(css(rules)) == tuple(rules)
    marked = css(rules, is_important=True)
    assert marked.count("!important") == sum(len(rule.declarations) for rule in rules)
    assert rules_in(marked.replace("!important", "")) == tuple(rules)


@pytest.mark.parametrize("wrong", ["a{b:c;b:d}", "a{b}", "a{b:c}}", "@import 'x';", "a"])
def test_a_sheet_of_ours_that_is_not_understood_is_a_fault(wrong: str) -> None:
    with pytest.raises(ValueError, match="at line 1"):
        rules_in(wrong)


@pytest.mark.parametrize("kind", [kind for kind in PIECE_KINDS if kind != "drawer"])
def test_a_piece_is_the_landmark_of_its_kind(kind: str) -> None:
    """ARIA Authoring Practices, landmark regions: what there may be several of has a name."""
    piece = next(one for one in SITE.pieces if one.kind == kind)
    around_it = around([Shown(piece, ())], CONTEXT)
    parsed = html5lib.parseFragment(around_it.before + around_it.behind, namespaceHTMLElements=False)
    found = [node for node in parsed.iter() if node.get("data-rim-node") == piece.id]
    landmark = found[0]
    assert landmark.tag == PIECE_KINDS[kind].TAG and (landmark.get("lang"), landmark.get("dir")) == ("en", "ltr")
    assert landmark.get("aria-label") == (None if kind in {"header", "footer", *GATE_SLOTS} else piece.name)
    rules = tuple(piece.rules(f".q-{kind}", SiteSheet(SITE, shelf(), lambda path: None)))
    assert rules_in(css(rules)) == rules

"""Parts of an item that are styled by themselves: which there are, which layer counts, what lies behind their texts."""

from __future__ import annotations

from itertools import count
from typing import Any, get_args

import pytest
from pydantic import ValidationError

from upper_rim.core.kinds.entries import Entry
from upper_rim.core.kinds.items import ITEM_KINDS
from upper_rim.core.kinds.items.icon import IconLink
from upper_rim.core.kinds.items.links import LinkList
from upper_rim.core.kinds.items.menu import MenuItem
from upper_rim.core.kinds.items.menu_entries import entries_markup
from upper_rim.core.kinds.items.social import SocialRow
from upper_rim.core.kinds.markup import html
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.check import roles_of
from upper_rim.core.model.editing.edits import Add
from upper_rim.core.model.editing.refusal import Refusal
from upper_rim.core.model.site import Band, Menu, Site
from upper_rim.core.output.css.part_selectors import PART_SELECTORS, ROLE_SELECTORS, selector_of
from upper_rim.core.output.css.sheet import site_rules
from upper_rim.core.output.page.site_context import pageless
from upper_rim.core.output.page.specimen import states_document
from upper_rim.core.style.paint.contrast import weak_texts
from upper_rim.core.style.resolve import SOME_OF, Styling, element_in
from upper_rim.core.style.shapes import SHAPES, shape_of, shaped
from upper_rim.core.values.properties import PROPERTIES
from upper_rim.core.values.styling import LIMITED, LOOK_PARTS, STATES_OF, Declaration, Look, Part, RoleDefault
from upper_rim.core.values.targets import ToAddress
from upper_rim.core.values.words import Words
from upper_rim.shipped import shelf


def said(number: int, name: str, value: str, part: Part = "box", **where: Any) -> Declaration:
    return Declaration(id=f"st-{number}", property=name, value=value, part=part, **where)


def entry(node: str, *below: Entry) -> Entry:
    label = Words(text=node)
    return Entry(id=node, label=label, second=label, mark=label, target=ToAddress(address="/x/"), entries=below)


def menu_site(*styles: Declaration, row: tuple[Declaration, ...] = (), **fields: Any) -> Site:
    item = MenuItem(id="it-menu", menu="mn-a", styles=styles, **({"drawer_below": "bd-wide"} | fields))
    rows = (Row(id="rw-a", cells=(Cell(id="cl-a", items=(item,)),), styles=row),)
    return Site(
        key="qpart",
        name="Parts",
        bands=(Band(id="bd-narrow", name="Narrow", from_px=0), Band(id="bd-wide", name="Wide", from_px=900)),
        menus=(Menu(id="mn-a", name="Main", entries=(entry("en-a", entry("en-b")), entry("en-c"))),),
        pieces=(Header(id="pc-a", name="Head", rows=rows),),
    )


def value_of(site: Site, part: Part, name: str, state: Any = "rest", band: str = "bd-narrow") -> tuple[str, str]:
    styling = Styling(site)
    found = styling.resolve(styling.elements["it-menu", part], name, state, band)
    return found.value, found.source.layer


def test_each_part_has_a_selector_and_each_role_of_one_is_found_by_what_it_says() -> None:
    assert set(PART_SELECTORS) == set(get_args(Part)) - {"hint"}
    used: set[str] = set()
    for kind in ITEM_KINDS.values():
        roles = roles_of(kind.model_validate({"id": "it-a"}))
        used |= set(roles)
        assert all(role in ROLE_SELECTORS and STATES_OF[role] for role in roles.values()), kind
    assert used == set(get_args(Part)), "no part that nothing has"


@pytest.mark.parametrize("part", sorted(part for part, whole in SOME_OF.items() if whole == "content"))
def test_some_entries_take_what_is_said_of_all_until_more_is_said_of_them(part: Part) -> None:
    of_all = (said(1, "color", "#111111", "content"), said(2, "color", "#222222", "content", state="hover"))
    assert value_of(menu_site(*of_all), part, "color", "hover") == ("#222222", "own")
    site = menu_site(*of_all, said(3, "color", "#333333", part))
    assert value_of(site, part, "color", "hover") == ("#333333", "own"), "how it rests counts before another's hover"
    assert value_of(site, "content", "color") == ("#111111", "own")
    rules = site_rules(site, shelf(), "")
    assert rules.layers.index("l") < rules.layers.index("a"), "the layer that is declared first wins"


def test_an_entry_is_set_apart_in_the_first_level_of_a_menu_alone() -> None:
    site = menu_site()
    apart = entry("en-a", entry("en-b").replaced(apart=True)).replaced(apart=True)
    site = site.replaced(menus=(Menu(id="mn-a", name="Main", entries=(apart, entry("en-c"))),))
    context = pageless(site, shelf(), "en")
    menu = html(entries_markup(MenuItem(id="it-a", menu="mn-a"), context, site.menus[0].entries))
    assert menu.count("qpart-apart") == 1 and menu.index("qpart-apart") < menu.index("en-a")
    listed = html(entries_markup(LinkList(id="it-b", menu="mn-a"), context, site.menus[0].entries))
    assert "apart" not in listed


def test_what_is_opened_has_the_ground_of_the_row_or_piece_that_it_is_opened_from_until_it_has_its_own() -> None:
    dark = said(1, "background-color", "#202020")
    for part in ("opened", "panel", "close"):
        assert value_of(menu_site(), part, "background-color") == ("@:ground", "inherited")
        assert value_of(menu_site(row=(dark,)), part, "background-color") == ("#202020", "inherited")
        clear = menu_site(row=(dark.replaced(value="transparent"),))
        assert value_of(clear, part, "background-color") == ("@:ground", "inherited")
    own = menu_site(said(2, "background-color", "#303030", "opened"), row=(dark,))
    assert value_of(own, "opened", "background-color") == ("#303030", "own")
    assert value_of(own, "close", "background-color") == ("#303030", "inherited"), "it stands in the drawer"
    assert value_of(own, "panel", "background-color") == ("#202020", "inherited"), "and the panel does not"


@pytest.mark.parametrize("band", ["bd-narrow", "bd-wide"])
def test_a_rows_ground_in_one_width_band_is_none_of_the_others(band: str) -> None:
    ground = said(1, "background-color", "#202020", band=band)
    site = menu_site(row=(ground,))
    rules = [rule for rule in site_rules(site, shelf(), "").ours if rule.selector == ".qpart-rw-a"]
    painted = {
        name: [rule.within for rule in rules if rule.declarations.get(name) not in {None, "inherit", "none"}]
        for name in ("--qpart-ground", "border-image")
    }
    back = [rule.within for rule in rules if rule.declarations.get("--qpart-ground") == "inherit"]
    bare = [rule.within for rule in rules if rule.declarations.get("border-image-source") == "none"]
    for name, taken in (("--qpart-ground", back), ("border-image", bare)):
        assert len(painted[name]) == 1, name
        everywhere = not any("width" in condition for condition in painted[name][0])
        assert bool(taken) == everywhere, "what is said of all widths is taken back in the other band"


def rules_with(site: Site, declared: str) -> list[tuple[str, tuple[str, ...]]]:
    ours = site_rules(site, shelf(), "").ours
    return [(rule.selector, rule.within) for rule in ours if declared in rule.declarations.values()]


def test_a_panel_is_painted_where_the_menu_is_a_row_and_a_drawer_where_it_is_none() -> None:
    site = menu_site(
        said(1, "box-shadow", "0 1px 9px #123456", "panel"), said(2, "box-shadow", "0 2px 9px #123456", "opened")
    )
    ((panel, in_row),) = rules_with(site, "0 1px 9px #123456")
    assert panel.endswith(".qpart-sub:where(.qpart-list>li>*)") and "@media (width >= 900px)" in in_row
    ((drawer, in_drawer),) = rules_with(site, "0 2px 9px #123456")
    assert ".qpart-drawer" in drawer and "@media (width < 900px)" in in_drawer
    column = menu_site(said(1, "box-shadow", "0 1px 9px #123456", "panel"), way="column")
    assert rules_with(column, "0 1px 9px #123456") == [], "a column has no panels"


@pytest.mark.parametrize("opens", [{"drawer_always": True}, {"drawer_below_px": 700}, {"drawer_below": "bd-wide"}])
def test_whatever_makes_a_menu_a_button_has_the_button_as_large_as_a_finger(opens: dict[str, Any]) -> None:
    site = menu_site(**({"drawer_below": None} | opens))
    sizes = [rule for rule in site_rules(site, shelf(), "").ours if rule.declarations.get("min-block-size") == "44px"]
    assert any(".qpart-menu-button" in rule.selector for rule in sizes)
    assert not {"title", "opened", "veil", "close"} & Styling(site).holders["it-menu"].unseen_parts


def test_texts_in_what_is_opened_are_judged_on_its_own_ground() -> None:
    def weak(*styles: Declaration) -> set[tuple[str, bool]]:
        return {(one.element.part, one.is_opened) for one in weak_texts(menu_site(*styles), lambda path: None)}

    assert weak() == set()
    dark = said(1, "background-color", "#202020", "opened")
    assert weak(dark) == {("content", True), ("lower", True), ("second-line", True), ("badge", True)}
    light = said(2, "color", "#ffffff", "content")
    assert weak(dark, light) == {("content", False), ("badge", False)} | {
        (part, True) for part in ("lower", "second-line", "badge")
    }, "on the header's own ground, and in its panel, they are white on white now"
    faint = said(3, "color", "#eeeeee", "second-line")
    assert weak(faint) == {("second-line", True)}, "in a row only what opens says it"


@pytest.mark.parametrize(("part", "name"), [("veil", "color"), ("opened", "font-size"), ("panel", "inline-size")])
def test_what_a_part_does_not_have_is_refused_and_said(part: Part, name: str) -> None:
    value = {"color": "#000000", "font-size": "12px", "inline-size": "20px"}[name]
    style = said(1, name, value, part).model_dump(mode="json")
    answer = apply(menu_site(), Add(parent="it-menu", slot="styles", values=(style,)))
    assert (
        isinstance(answer, Refusal)
        and (answer.node, answer.field) == ("it-menu", name)
        and answer.about == {"part": part}
    )


def test_all_that_a_limited_role_has_are_properties_and_no_look_or_default_is_of_what_is_opened() -> None:
    assert all(names and set(names) <= set(PROPERTIES) for names in LIMITED.values())
    for part in get_args(Part):
        made = {"id": "lk-a", "name": "L", "styles": [said(1, "opacity", "0.5", part).model_dump()]}
        if part in LOOK_PARTS:
            assert Look.model_validate(made).styles[0].part == part
        else:
            with pytest.raises(ValidationError, match=f"a look has no {part}"):
                Look.model_validate(made)
    for role in ("panel", "drawer", "veil"):
        with pytest.raises(ValidationError, match="styled at the menu"):
            RoleDefault(id="rd-a", role=role)


def test_a_pieces_own_default_is_what_all_in_that_role_have_there() -> None:
    default = RoleDefault(id="rd-a", role="second-line", styles=(said(1, "color", "#336699"),))
    site = menu_site()
    (piece,) = site.pieces
    site = site.replaced(pieces=(piece.replaced(roles=(default,)),))
    assert value_of(site, "second-line", "color") == ("#336699", "piece")
    styling = Styling(site)
    element = element_in(styling, "pc-a", "second-line")
    assert styling.resolve(element, "color").value == "#336699"
    assert selector_of(styling, element) == ".qpart-pc-a .qpart-more"


def test_each_part_is_shown_in_each_of_its_states() -> None:
    for kind in ITEM_KINDS.values():
        item = kind.model_validate({"id": "it-a"})
        row = Row(id="rw-a", cells=(Cell(id="cl-a", items=(item,)),))
        site = Site(key="qpart", name="P", pieces=(Header(id="pc-a", name="H", rows=(row,)),))
        styling = Styling(site)
        for part, role in roles_of(item).items():
            shown = states_document(site, shelf(), styling.elements["it-a", part], None, "/")
            assert shown.count('class="qpart qpart-pc-a"') == len(STATES_OF[role]), (item.kind, part)
            assert part in LOOK_PARTS or "qpart-it-a" in shown, (item.kind, part)


def test_a_shape_of_icons_is_one_choice_and_leaves_what_else_is_said() -> None:
    ids = count()
    for kind, part in ((SocialRow, "content"), (IconLink, "box")):
        kept = Declaration(id="st-kept", property="opacity", value="0.9", part=part)
        made: Any = kind(id="it-a", styles=(kept,))
        for shape in (*SHAPES, *reversed(SHAPES)):
            row = Row(id="rw-a", cells=(Cell(id="cl-a", items=(made,)),))
            site = Site(key="qpart", name="P", pieces=(Header(id="pc-a", name="H", rows=(row,)),))
            answer = apply(site, shaped(made, shape, lambda prefix: f"{prefix}-{next(ids)}"))
            assert isinstance(answer, Site)
            made = Styling(answer).holders["it-a"]
            assert shape_of(made) == shape and kept in made.styles
            assert len(made.styles) == 1 + len(SHAPES[shape])
        other = Declaration(id="st-own", property="background-color", value="#123456", part=part)
        assert shape_of(made.replaced(styles=(*made.styles, other))) is None, "a shape of its own"

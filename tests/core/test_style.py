"""Where values come from, what an edit shows, what clashes: the style package by itself."""

from __future__ import annotations

import io
import itertools
import json
import re
from pathlib import Path
from typing import cast

import lightningcss
import pytest
import tinycss2
from fontTools.ttLib import TTFont
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.moving_sites import MovingMaker
from tests.styled_sites import StyledMaker
from upper_rim.core.exchange.carrying import carried, clashes, needed
from upper_rim.core.exchange.tokens import read_tokens, tokens_of
from upper_rim.core.kinds.items.button import ButtonItem
from upper_rim.core.kinds.items.contact import Contact
from upper_rim.core.kinds.items.form import Form, FormField
from upper_rim.core.kinds.items.links import LinkList
from upper_rim.core.kinds.items.map import MapItem
from upper_rim.core.kinds.items.menu import MenuItem
from upper_rim.core.kinds.items.pager import Pager
from upper_rim.core.kinds.items.posts import Posts
from upper_rim.core.kinds.items.rich import RichText
from upper_rim.core.kinds.items.search import SearchBox
from upper_rim.core.kinds.items.text import TextItem
from upper_rim.core.kinds.items.trail import Trail
from upper_rim.core.kinds.pieces.drawer import Drawer
from upper_rim.core.kinds.pieces.float import Float
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.model.editing.apply import apply, inverse
from upper_rim.core.model.editing.edits import Add, Edit, Set
from upper_rim.core.model.editing.refusal import Refusal
from upper_rim.core.model.references import references
from upper_rim.core.model.site import Menu, Site
from upper_rim.core.model.tree import ROOT, find, walk
from upper_rim.core.output.css.sheet import inside_a_page, sheet
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.style.effect import SeenEffect, effect
from upper_rim.core.style.lengths import NoLength, Room, pixels, whatever_the_root
from upper_rim.core.style.own_css import css_faults, own_css
from upper_rim.core.style.paint.colour import Palette, Rgba, contrast_ratio, over, read_colour, shifted
from upper_rim.core.style.paint.contrast import weak_texts
from upper_rim.core.style.paint.painting import Painter, PaintView
from upper_rim.core.style.paint.pictures import Pictures
from upper_rim.core.style.resolve import Styling
from upper_rim.core.style.schemes import COLOUR_SCHEMES, worn
from upper_rim.core.style.type.fonts import FontFault, ReadFont, read_font, subset_font
from upper_rim.core.style.type.metrics import overrides, width_at
from upper_rim.core.style.type.scale import content_of_whole, sidebar_needs_px, spreads, steps
from upper_rim.core.values.properties import NotAValue, check_value
from upper_rim.core.values.rich import RichWords
from upper_rim.core.values.styling import Declaration, RoleDefault, Swatch
from upper_rim.core.values.words import Words
from upper_rim.demo import ostrey, quillwort
from upper_rim.shipped import HERE, shelf

DOCS = Path(__file__).resolve().parent.parent.parent / "docs" / "style.md"


class Ids:
    def __init__(self) -> None:
        self.count = 0

    def __call__(self, prefix: str) -> str:
        self.count += 1
        return f"{prefix}-new{self.count}"


def after(site: Site, *edits: Edit) -> Site:
    for edit in edits:
        made = apply(site, edit)
        assert isinstance(made, Site), made
        site = made
    return site


def said(property_name: str, value: str, number: int, **where: str) -> dict[str, str | None]:
    return {"id": f"st-test{number}", "property": property_name, "value": value, **where}


def test_within_a_layer_the_order_is_the_table_in_the_docs() -> None:
    rows = re.findall(r"^\| hover, narrow \|(.*)\|$", DOCS.read_text(), re.MULTILINE)
    assert len(rows) == 5
    site, _ = ostrey()
    places = (
        {"state": "hover", "band": "bd-narrow"},
        {"state": "hover"},
        {"state": "rest", "band": "bd-narrow"},
        {"state": "rest"},
    )
    for row in rows:
        *cells, answer = (cell.strip() for cell in row.split("|"))
        values = [
            said("letter-spacing", f"{ord(cell) - 96}px", at, **place)
            for at, (cell, place) in enumerate(zip(cells, places, strict=True))
            if cell != "-"
        ]
        styled = after(site, Add(parent="it-book", slot="styles", values=tuple(values)))
        styling = Styling(styled)
        found = styling.resolve(styling.elements["it-book", "box"], "letter-spacing", "hover", "bd-narrow")
        assert (f"{ord(answer) - 96}px" if len(answer) == 1 else "normal") == found.value
        assert (found.source.layer == "own") == (len(answer) == 1)


def test_the_layers_answer_in_the_order_of_the_docs() -> None:
    order = re.findall(r"^\| ([a-z-]+) \| [^|]+ \| [^|]+ \|$", DOCS.read_text(), re.MULTILINE)
    order = [name for name in order if name not in {"layer", "---"}]
    assert order == ["own", "look", "piece", "site", "ring", "built-in", "inherited", "initial"]
    site, _ = ostrey()
    layers: list[tuple[str, Edit]] = [
        ("site", Add(parent="rd-button", slot="styles", values=(said("opacity", "0.1", 1),))),
        ("piece", Add(parent="pc-main", slot="roles", values=({"id": "rd-mine", "role": "button", "styles": [said("opacity", "0.2", 2)]},))),
        ("look", Add(parent=ROOT, slot="looks", values=({"id": "lk-one", "name": "One", "styles": [said("opacity", "0.3", 3)]},))),
        ("look", Add(parent=ROOT, slot="looks", values=({"id": "lk-two", "name": "Two", "styles": [said("opacity", "0.4", 4)]},))),
        ("own", Add(parent="it-book", slot="styles", values=(said("opacity", "0.5", 5),))),
    ]  # fmt: skip
    seen = []
    for at, (layer, edit) in enumerate(layers, 1):
        site = after(site, edit)
        if layer == "look":
            site = after(site, Set(node="it-book", field="wears", value=["lk-one", "lk-two"][: at - 2]))
        styling = Styling(site)
        found = styling.resolve(styling.elements["it-book", "box"], "opacity", "hover", "bd-wide")
        assert (found.value, found.source.layer) == (f"0.{at}", layer)
        seen.append(layer)
    styling = Styling(site)
    element = styling.elements["it-book", "box"]
    assert styling.resolve(element, "outline-style", "focus").source.layer == "built-in"
    assert styling.resolve(element, "font-family").source.layer == "inherited"
    assert styling.resolve(element, "mix-blend-mode").source.layer == "initial"
    ringed = after(
        site,
        Add(
            parent=ROOT,
            slot="roles",
            values=({"id": "rd-ring", "role": "ring", "styles": [said("outline-width", "5px", 9, state="focus")]},),
        ),
    )
    styling = Styling(ringed)
    assert styling.resolve(styling.elements["it-book", "box"], "outline-width", "focus")[1].layer == "ring"


def test_a_swatch_changes_all_its_uses_its_tints_and_nothing_else() -> None:
    site, _ = ostrey()
    changed = after(site, Set(node="sw-buoy", field="colour", value="#3366cc"))
    before, now = Palette(site), Palette(changed)
    assert now.colour("sw-lamp") != before.colour("sw-lamp") and now.colour("sw-deep") == before.colour("sw-deep")
    assert now.resolved("0 1px @sw-buoy/50%, @:accent") == "0 1px #3366cc80, #3366cc"
    circle = apply(site, Set(node="sw-buoy", field="tied", value={"parent": "sw-lamp", "lightness": 3}))
    assert isinstance(circle, Refusal) and circle.kind == "tied to itself"


@pytest.mark.parametrize(
    ("name", "value", "fault"),
    [
        ("color", "blurple", "not a colour"),
        ("background-image", "linear-gradient(red)", "two stops"),
        ("background-image", 'url("https://x.example/a.png")', "of the site"),
        ("font-size", "-3px", "less than 0"),
        ("font-size", "12", "a length is"),
        ("padding-block-start", "calc(1px + 2px)", "a length is"),
        ("opacity", "1.5", "from 0 to 1"),
        ("box-shadow", "2px red", "a shadow is written"),
        ("text-shadow", "1px 1px 0 0 red", "no spread"),
        ("text-shadow", "inset 1px 1px red", "not inset"),
        ("font-weight", "heavy", "whole number"),
        ("transition-duration", "soon", "a time is"),
        ("color", "red;}body{display:none", "no braces"),
        ("none-such", "1px", "no property"),
    ],
)
def test_bad_values_are_refused_with_what_is_wrong(name: str, value: str, fault: str) -> None:
    with (
        pytest.raises(NotAValue, match=re.escape(fault))
        if "colour" not in fault
        else pytest.raises(ValueError, match=fault)
    ):
        check_value(name, value)
    site, _ = ostrey()
    refused = apply(
        site, Add(parent="it-book", slot="styles", values=({"id": "st-bad", "property": name, "value": value},))
    )
    assert isinstance(refused, Refusal) and fault in refused.words


def test_an_effect_is_in_view_or_is_told_where_it_is() -> None:
    site, _ = ostrey()
    seen = SeenEffect("pc-main", "bd-wide", "rest")
    narrow = after(site, Add(parent="it-book", slot="styles", values=(said("color", "red", 1, band="bd-middle"),)))
    found = effect(site, narrow, seen)
    assert not found.in_view and {(place.node, place.band) for place in found.elsewhere} == {("it-book", "bd-middle")}
    assert effect(site, narrow, SeenEffect("pc-main", "bd-middle")).in_view
    hidden = after(site, Add(parent="it-phone", slot="styles", values=(said("color", "red", 1),)))
    assert not effect(site, hidden, SeenEffect("pc-main", "bd-narrow")).in_view, "its row does not show there"
    off = after(narrow, Set(node="pc-main", field="on", value=False))
    assert (
        effect(off, after(off, Set(node="sw-deep", field="colour", value="#000000")), seen).off
        == "the piece is switched off"
    )
    unworn = after(site, Set(node="it-press-menu", field="wears", value=[]))
    nothing = after(unworn, Add(parent="lk-quiet", slot="styles", values=(said("color", "red", 1),)))
    assert effect(unworn, nothing, seen) == (False, (), "")


def test_tokens_come_back_as_the_file_that_went() -> None:
    for site in (ostrey()[0], quillwort()[0], *(StyledMaker(seed).styled_site(1) for seed in range(20))):
        tokens = tokens_of(site)
        for target in (Site(key="empty", name="Empty"), site):
            read = read_tokens(tokens, target, Ids())
            assert read.faults == ()
            assert tokens_of(after(target, read.edit)) == tokens


SPECIFICATION = {
    "token group": {
        "$type": "color",
        "token uno": {"$value": {"colorSpace": "srgb", "components": [1, 0, 1], "alpha": 0.5, "hex": "#ff00ff"}},
        "nested token group": {"token dos": {"$value": "{token group.token uno}"}},
        "wide": {"$value": {"colorSpace": "oklch", "components": [0.7016, 0.3225, 328.363]}},
        "none": {"$value": {"colorSpace": "hsl", "components": ["none", 0, 100]}},
        "plain": {"$value": "#00000088"},
    },
    "shadow-token": {
        "$type": "shadow",
        "$value": {
            "color": {"colorSpace": "srgb", "components": [0, 0, 0], "alpha": 0.5},
            "offsetX": {"value": 0.5, "unit": "rem"},
            "offsetY": {"value": 0.5, "unit": "rem"},
            "blur": {"value": 1.5, "unit": "rem"},
            "spread": {"value": 0, "unit": "rem"},
        },
    },
    "layered-shadow": {
        "$type": "shadow",
        "$value": [
            {"color": "#000000", "offsetX": "0px", "offsetY": "24px", "blur": "22px", "spread": "0px", "inset": True},
            {"color": "{token group.plain}", "offsetX": "0px", "offsetY": "42px", "blur": "44px", "spread": "0px"},
        ],
    },
    "border": {"heavy": {"$type": "border", "$value": {"color": "#36363600", "width": {"value": 3, "unit": "px"}, "style": "solid"}}},
    "transition": {
        "emphasis": {
            "$type": "transition",
            "$value": {
                "duration": {"value": 200, "unit": "ms"},
                "delay": {"value": 0, "unit": "ms"},
                "timingFunction": [0.5, 0, 1, 1],
            },
        }
    },
    "blue-to-red": {"$type": "gradient", "$value": [{"color": "#0000ff", "position": 0}, {"color": "#ff0000", "position": 1}]},
    "heading": {
        "$type": "typography",
        "$value": {
            "fontFamily": "Roboto",
            "fontSize": {"value": 42, "unit": "px"},
            "fontWeight": 700,
            "letterSpacing": {"value": 0.1, "unit": "px"},
            "lineHeight": 1.2,
        },
    },
    "round": {"a": {"$type": "color", "$value": "{round.b}"}, "b": {"$type": "color", "$value": "{round.a}"}},
    "typeless": {"$value": "#fff"},
    "odd": {"$type": "sound", "$value": "ding"},
    "alone": {"$type": "duration", "$value": {"value": 100, "unit": "ms"}},
    "lost": {"$type": "color", "$value": "{no.such}"},
}  # fmt: skip


def test_the_specifications_own_kinds_of_tokens_are_read_and_the_rest_is_told() -> None:
    read = read_tokens(json.dumps(SPECIFICATION).encode(), Site(key="empty", name="Empty"), Ids())
    site = after(Site(key="empty", name="Empty"), read.edit)
    assert {swatch.name: Palette(site).colour(swatch.id) for swatch in site.swatches} == {
        "token uno": "#ff00ff80",
        "token dos": "#ff00ff80",
        "wide": "oklch(0.7016 0.3225 328.363)",
        "none": "hsl(0 0 100)",
        "plain": "#00000088",
    }
    looks = {look.name: {style.property: style.value for style in look.styles} for look in site.looks}
    assert looks["shadow-token"]["box-shadow"].startswith("8px 8px 24px 0px ")
    assert looks["layered-shadow"]["box-shadow"].count("inset") == 1
    assert looks["heavy"]["border-inline-end-width"] == "3px"
    assert looks["emphasis"]["transition-timing-function"] == "cubic-bezier(0.5, 0, 1, 1)"
    assert looks["blue-to-red"]["background-image"] == "linear-gradient(90deg, #0000ff 0%, #ff0000 100%)"
    assert looks["heading"]["font-size"] == "42px"
    faults = {fault.path: fault.reason for fault in read.faults}
    assert faults.keys() == {"round.a", "round.b", "typeless", "odd", "alone", "lost"}
    assert "refers to itself" in faults["round.a"] and "no such token" in faults["lost"]
    assert read_tokens(b"[1]", site, Ids()).faults and read_tokens(b"{", site, Ids()).faults


def test_carrying_takes_along_what_is_needed_and_leaves_the_target_whole() -> None:
    source, target = ostrey()[0], quillwort()[0]
    assert needed(source, ["pc-press"]) >= {"sw-deep", "sw-paper", "lk-quiet", "mn-press", "bd-wide"}
    target = after(
        target, Add(parent=ROOT, slot="swatches", values=({"id": "sw-other", "name": "deep", "colour": "#010101"},))
    )
    assert {clash.node for clash in clashes(source, target, ["pc-press"])} == {"sw-deep", "bd-wide"}
    for decision in ("keep", "replace", "both"):
        edit = carried(source, target, ["pc-press", "scale"], {"sw-deep": decision, "scale": "replace"}, Ids())
        made = after(target, edit)
        deep = [swatch.colour for swatch in made.swatches if swatch.name.lower().startswith("deep")]
        assert deep == {"keep": ["#010101"], "replace": ["#12344d"], "both": ["#010101", "#12344d"]}[decision]
        press = next(piece for piece in made.pieces if piece.name == "Press header")
        ground = next(style.value for style in press.styles if style.property == "background-color")
        assert Palette(made).resolved(ground) == ("#010101" if decision == "keep" else "#12344d")
        assert made.face == "figtree" and made.content_px == source.content_px
        links = [entry.target for menu in made.menus if menu.name == "Press room" for entry in menu.entries]
        assert links[0].kind == "address", "a page that is not here becomes a path"
        assert apply(made, inverse(target, edit)) == target
        assert Composer(made, shelf()).parts()
    bar = after(target, carried(source, target, ["pc-bar"], {}, Ids()))
    (taken,) = (one for one in bar.reach_sets if one.name == "All but the press room")
    assert [rule.shows for rule in taken.rules] == [True, False] and bar.pieces[-1].reach_sets == (taken.id,)
    again = carried(source, made, ["lk-quiet", "mn-press"], {}, Ids())
    assert again.edits == (), "what is there already is not carried twice"


def test_schemes_can_be_worn_by_any_site_and_pass_their_own_contrast() -> None:
    for scheme in COLOUR_SCHEMES:
        for site in (
            ostrey()[0],
            quillwort()[0],
            Site(key="empty", name="E"),
            *(StyledMaker(seed).styled_site(2) for seed in range(6)),
        ):
            edit = worn(site, scheme, Ids())
            made = after(site, edit)
            assert made.face == scheme.face and apply(made, inverse(site, edit)) == site
        colours = {role: read_colour(colour) for role, (_, colour) in scheme.colours.items()}
        for text, ground in (("ink", "ground"), ("on-accent", "accent"), ("link", "ground")):
            assert contrast_ratio(colours[text], colours[ground]) >= 4.5, scheme.name
        assert contrast_ratio(colours["line"], colours["ground"]) >= 3


def test_weak_texts_are_found_in_every_state_and_band_and_their_shades_pass() -> None:
    site, _ = ostrey()
    assert list(weak_texts(site, lambda path: None)) == []
    styles = (said("color", "#e0b040", 1, state="hover"), said("color", "#f0f0f0", 2, band="bd-narrow"))
    faint = after(site, Add(parent="it-logo", slot="styles", values=styles))
    found = {(weak.element.node, weak.state): weak for weak in weak_texts(faint, lambda path: None)}
    assert found.keys() == {("it-logo", state) for state in ("rest", "current", "hover", "focus", "pressed")}
    assert found["it-logo", "hover"].bands == ("bd-narrow", "bd-middle", "bd-wide")
    assert found["it-logo", "rest"].bands == ("bd-narrow",)
    shade = found["it-logo", "hover"].shade
    assert shade is not None and 4.5 <= contrast_ratio(read_colour(shade), read_colour("#ffffff")) < 4.7


FAINT = "#f0f0f0"


def faint_site(ground: str = "#ffffff") -> Site:
    """Each kind of text that an item holds, in a header; rows of a drawer in it; a float that opens."""
    said_so = RichText(id="it-rich", rich=RichWords(text="<h2>A</h2><h3>B</h3><p><a href='/x/'>c</a></p>"))
    form = Form(id="it-form", fields=(FormField(id="ff-a", placeholder=Words(text="you")),))
    menu = MenuItem(id="it-menu", menu="mn-a", drawer="pc-drawer", drawer_always=True)
    kinds = (
        said_so,
        form,
        menu,
        Contact(id="it-contact", mail="a@b.example"),
        SearchBox(id="it-search"),
        MapItem(id="it-map"),
        Pager(id="it-pager"),
        LinkList(id="it-links", menu="mn-a", words=Words(text="T")),
        Posts(id="it-posts"),
        Trail(id="it-trail"),
    )
    header = Header(id="pc-a", name="H", rows=(Row(id="rw-a", cells=(Cell(id="cl-a", items=kinds),)),))
    held = TextItem(id="it-held", words=Words(text="Held"))
    drawer = Drawer(
        id="pc-drawer",
        name="D",
        rows=(Row(id="rw-b", cells=(Cell(id="cl-b", items=(held,)),)),),
        styles=(Declaration(id="st-g", property="background-color", value="transparent"),),
    )
    fan = Float(
        id="pc-fan",
        name="F",
        fan=True,
        rows=(Row(id="rw-c", cells=(Cell(id="cl-c", items=(ButtonItem(id="it-b"),)),)),),
    )
    return Site(
        key="qfaint",
        name="O",
        menus=(Menu(id="mn-a", name="M"),),
        pieces=(header, drawer, fan),
        swatches=(Swatch(id="sw-g", name="G", colour=ground, role="ground"),),
    )


@pytest.mark.parametrize("role", ["link", "heading-2", "heading-3", "field", "button", "entry"])
def test_a_faint_default_is_found_in_whatever_item_takes_it(role: str) -> None:
    faint = RoleDefault(id="rd-a", role=role, styles=(said("color", FAINT, 1), said("background-color", "#ffffff", 2)))
    site = faint_site().replaced(roles=(faint,))
    assert list(weak_texts(faint_site(), lambda path: None)) == []
    found = {weak.node for weak in weak_texts(site, lambda path: None) if weak.element.role == role}
    holders = {
        item.id
        for piece in site.pieces
        for item in site.shown_items(piece)
        if role in {item.roles[part] for part in item.texts_within()}
    }
    if role == "button":
        holders |= {"pc-fan", "it-b"}
    assert found >= holders and found


@pytest.mark.parametrize("item", ["it-links", "it-posts", "it-trail", "it-form"])
def test_an_items_own_words_are_asked_for_their_contrast(item: str) -> None:
    faint = after(faint_site(), Add(parent=item, slot="styles", values=(said("color", FAINT, 1),)))
    assert {weak.node for weak in weak_texts(faint, lambda path: None)} == {item}
    own = [weak for weak in weak_texts(faint, lambda path: None) if weak.element.part != "content"]
    assert own and all(weak.styled == item for weak in own)


def test_what_a_drawer_shows_is_judged_on_the_ground_of_the_piece_that_opens_it() -> None:
    site = faint_site().replaced(css="")
    white = after(site, Add(parent="it-held", slot="styles", values=(said("color", "#ffffff", 1),)))
    assert ("it-held", True) in {(weak.node, weak.is_opened) for weak in weak_texts(white, lambda path: None)}
    dark = (said("background-color", "#101010", 2), said("color", "#ffffff", 3))
    on_dark = after(white, Add(parent="pc-a", slot="styles", values=dark))
    assert ("it-held", True) not in {(weak.node, weak.is_opened) for weak in weak_texts(on_dark, lambda path: None)}


class CountedPicture:
    """A picture of noise, as dark as bright; it counts how often it is asked for colours."""

    width, height = 480.0, 300.0

    def __init__(self) -> None:
        self.asked = 0

    def at(self, across: list[float | None], down: list[float | None]) -> list[Rgba]:
        self.asked += 1
        shares = [(x or 0) + (y or 0) for x in across for y in down]
        return [Rgba(share * 7 % 1, share * 13 % 1, share * 19 % 1) for share in shares]


def over_a_picture(many: int, **styles: str) -> Site:
    own = tuple(
        Declaration(id=f"st-{at}", property=name.replace("_", "-"), value=value)
        for at, (name, value) in enumerate(styles.items())
    )
    items = tuple(TextItem(id=f"it-{at}", words=Words(text="Held"), styles=own) for at in range(many))
    ground = (Declaration(id="st-g", property="background-image", value='url("/noise.png")'),)
    row = Row(id="rw-a", cells=(Cell(id="cl-a", items=items),), styles=ground)
    return Site(key="qnoise", name="O", pieces=(Header(id="pc-a", name="H", rows=(row,)),))


@pytest.mark.parametrize("styles", [{"color": "#dddddd"}, {"color": "#dddddd", "opacity": "0.8"}])
def test_what_lies_behind_many_texts_is_looked_at_once(styles: dict[str, str]) -> None:
    found = []
    for many in (1, 40):
        picture = CountedPicture()
        weak = list(weak_texts(over_a_picture(many, **styles), cast(Pictures, {"/noise.png": picture}.get)))
        assert {one.node for one in weak} == {f"it-{at}" for at in range(many)}
        found.append((picture.asked, {one.measured for one in weak}))
    assert found[0] == found[1]


def test_a_picture_counts_only_where_it_is_seen() -> None:
    for styles, seen in (
        ({}, True),
        ({"background_color": "#ffffff"}, False),
        ({"background_color": "#ffffff80"}, True),
        ({"background_color": "#ffffff", "opacity": "0.9"}, True),
        ({"background_color": "#ffffff", "mix_blend_mode": "multiply"}, True),
    ):
        site = over_a_picture(1, **styles)
        styling = Styling(site)
        painter = Painter(styling, cast(Pictures, lambda path: CountedPicture()))
        coats = painter.coats(styling.elements["it-0", "box"], PaintView())
        assert painter.is_pictured(coats) is seen, styles


def test_layers_are_painted_as_the_specification_says() -> None:
    red, blue = read_colour("rgb(255 0 0 / 50%)"), read_colour("#0000ff")
    assert over(red, blue).css == "#800080" and over(blue, red) == blue
    assert over(read_colour("transparent"), red) == red
    for blend, wanted in {
        "multiply": "#000000",
        "screen": "#ff00ff",
        "difference": "#ff00ff",
        "darken": "#000000",
    }.items():
        assert over(read_colour("#ff0000"), blue, blend).css == wanted
    assert contrast_ratio(read_colour("#000"), read_colour("#fff")) == pytest.approx(21)
    assert contrast_ratio(read_colour("#777777"), read_colour("#ffffff")) == pytest.approx(4.48, abs=0.01)
    lighter = shifted("#12344d", 0.2)
    assert read_colour(lighter).blue > read_colour("#12344d").blue and shifted(lighter, -0.2) in {
        "#12344d",
        "#13344d",
        "#12344e",
    }


def test_the_scale_follows_its_formula() -> None:
    site, _ = ostrey()
    sizes = {step.name: step for step in steps(site, 0.45)}
    assert sizes["heading-1"].size_px == 31.25 and sizes["text"].line_height == 1.5 and sizes["text"].characters == 66
    heights = [step.line_height for step in steps(site, 0.45)]
    assert heights == sorted(heights, reverse=True), "larger text stands closer"
    assert spreads(site, 0.45).whole_px == 1160 and content_of_whole(1160, site.gutter_px) == 1120
    needs = sidebar_needs_px(site, 0.45)
    text = needs - site.sidebar_px - 4 * site.gutter_px
    assert text / (16 * 0.45) >= site.least_measure > (text - 1) / (16 * 0.45)


def test_lengths_are_worked_out_as_in_a_browser() -> None:
    room = Room(1000, 500, em_px=20, percent_px=300)
    for text, wanted in {
        "12px": 12, "2em": 40, "1.5rem": 24, "50%": 150, "2vw": 20, "10vh": 50, "0": 0,
        "clamp(10px, 1rem + 2vw, 30px)": 30, "clamp(40px, 1px, 50px)": 40, "calc(1.5 * calc(2 * 10px))": 30,
    }.items():  # fmt: skip
        assert pixels(text, room) == pytest.approx(wanted)
    for text in ("auto", "", "1px 2px", "clamp(1px, 2px)", "px"):
        with pytest.raises(NoLength):
            pixels(text, room)


def test_what_is_said_in_rem_is_said_in_px_and_no_text_or_address_is() -> None:
    for value, published in {
        "1.5rem": "24px", "-.25REM 0 1.204rem": "-4px 0 19.264px", "clamp(1rem, 1rem + 2vw, 3e1rem)": "clamp(16px, 16px + 2vw, 480px)",
        "rgb(0 0 0 / .2) 0 .5rem 1rem": "rgb(0 0 0 / .2) 0 8px 16px", "2em": "2em", "theorem": "theorem", "x1rem": "x1rem",
        'url(/1rem/a-2rem.svg) "3rem" 1rem': 'url(/1rem/a-2rem.svg) "3rem" 16px', "0rem": "0px",
    }.items():  # fmt: skip
        assert whatever_the_root(value) == published


def unpacked(name: str) -> TTFont:
    font = TTFont(HERE / "fonts" / name)
    font.flavor = None
    return font


def saved(font: TTFont) -> bytes:
    out = io.BytesIO()
    font.save(out)
    return out.getvalue()


def test_fonts_are_read_or_refused_with_a_reason() -> None:
    name = "bitter-cyrillic-wght-normal.woff2"
    for flavor in (None, "woff", "woff2"):
        font = unpacked(name)
        font.flavor = flavor
        read = read_font(saved(font))
        assert isinstance(read, ReadFont)
        assert (read.lightest, read.boldest, read.data[:4]) == (100, 900, b"wOF2")
    data = saved(unpacked(name))

    def refused(change: str, font: TTFont) -> None:
        answer = read_font(saved(font))
        assert isinstance(answer, FontFault) and change in answer.reason, answer

    font = unpacked(name)
    font["OS/2"].fsType = 2
    refused("forbid embedding", font)
    font = unpacked(name)
    font["hhea"].ascent, font["hhea"].descent = -5, 9000
    refused("what is not so", font)
    font = unpacked(name)
    del font["cmap"]
    refused("cmap is missing", font)
    for broken in (b"", b"GIF89a", data[:2000], data[:400] + b"\xff" * 600 + data[1000:], b"\0\1\0\0" + b"\0" * 40):
        assert isinstance(read_font(broken), FontFault)


def test_an_uploaded_font_is_published_with_the_scripts_in_use_only() -> None:
    data = (HERE / "fonts" / "bitter-cyrillic-wght-normal.woff2").read_bytes()
    read = read_font(data)
    assert isinstance(read, ReadFont) and read.data == data, "what is WOFF2 already is kept as it came"
    assert 0x0434 in TTFont(io.BytesIO(subset_font(data, frozenset({"en", "ru"})))).getBestCmap()
    without = subset_font(data, frozenset({"en"}))
    assert len(without) < len(data) / 3
    cmap = TTFont(io.BytesIO(without)).getBestCmap()
    assert 0x0434 not in cmap


def test_own_css_counts_where_it_is_understood_and_its_faults_are_located() -> None:
    text = '.a{color:red}\n.b{color:}\n@import "x.css";\n.c{content:"open\n}\n.d{color:blue}'
    assert [fault.line for fault in css_faults(text)] == [2, 3, 4]
    site, _ = ostrey()
    css = sheet(site.replaced(css=text), shelf(), "")
    assert css.index("@layer q7xk-own") < css.index("@layer q7xk{")
    assert ".a{color:red!important}" in css and ".d{color:#00f!important}" in css and "x.css" not in css
    assert "keyframes k{0%{color:red}to{color:#00f}}" in sheet(
        site.replaced(css="@keyframes k{from{color:red}to{color:blue}}"), shelf(), ""
    )
    for hostile in ("}}}} body{display:none}", "</style><script>", "@layer q7xk{*{display:none}}", "/*", '"'):
        assert own_css(hostile) is not None and sheet(site.replaced(css=hostile), shelf(), "")


def test_addresses_in_own_css_count_from_the_root_wherever_the_sheet_stands() -> None:
    said = own_css(
        """a{background:url(hill.svg),url("sea/b'c.png")} b{background:url(/x.svg),url("data:,a"),url(#d)}"""
    )
    assert 'url("/hill.svg")' in said and """url("/sea/b'c.png")""" in said
    assert "url(/x.svg)" in said.replace('"', "") and 'url("data:,a")' in said and 'url("#d")' in said


def test_css_within_a_page_says_the_same_in_any_encoding_and_never_ends_its_element() -> None:
    css = """.a::before{content:"</style><!--/rim--> é→🜂 ok"}"""
    inside = inside_a_page(css)
    assert inside.isascii() and "</" not in inside and "<!" not in inside
    assert lightningcss.process_stylesheet(inside, minify=True) == lightningcss.process_stylesheet(css, minify=True)


def test_snippets_stand_where_they_belong_and_come_out_again() -> None:
    from upper_rim.core.exchange.html.markers import strip

    site, contents = ostrey()
    snippets = (
        {"id": "sn-head", "name": "H", "place": "head", "code": "<meta name=x content=1>"},
        {
            "id": "sn-start",
            "name": "S",
            "place": "start",
            "code": "<!--s-->",
            "where": {"kind": "below", "path": "/harbours/"},
        },
        {
            "id": "sn-end",
            "name": "E",
            "place": "end",
            "code": "<!--e-->",
            "where": {"kind": "page", "page": "pg-fares"},
        },
        {"id": "sn-off", "name": "O", "place": "end", "code": "<!--off-->", "on": False},
    )
    site = after(site, Add(parent=ROOT, slot="snippets", values=snippets))
    composer = Composer(site, shelf(), contents.__getitem__)
    for page in site.pages:
        content = contents[page.content or ""]
        made = composer.page(page, content)
        assert (b"name=x" in made) and (b"<!--s-->" in made) == page.path.startswith("/harbours/")
        assert (b"<!--e-->" in made) == (page.id == "pg-fares") and b"<!--off-->" not in made
        assert strip(made) == content
    refused = apply(site, Set(node="sn-end", field="code", value="<!--/rim--><b>"))
    assert isinstance(refused, Refusal)


def test_whatever_is_declared_the_sheet_is_whole_and_keeps_to_its_layer() -> None:
    for seed in range(25):
        site = StyledMaker(seed).styled_site(3)
        css = sheet(site, shelf(), "")
        rules = tinycss2.parse_stylesheet(css, True, True)
        assert {rule.type for rule in rules} == {"at-rule"}
        allowed = {"font-face", "layer", "property", "keyframes"}
        assert {rule.at_keyword for rule in rules} <= allowed
        assert css.count("{") == css.count("}") and "undefined" not in css and "@sw" not in css and "@:" not in css
        assert not re.search(r"[.#-]rim[-{ ,:>)]", re.sub(r"\[data-rim-\w+\]", "", css))
        bundle = Site.model_validate_json(site.model_dump_json())
        assert bundle == site and sheet(bundle, shelf(), "") == css


def test_fallbacks_are_as_wide_as_what_they_stand_in_for() -> None:
    for face in shelf().faces.values():
        for plain, bold in overrides(face.measures, face.generic, 450, 700, face.script):
            assert (plain.lightest, plain.boldest, bold.lightest, bold.boldest) == (1, 599, 600, 1000)
            for override, weight in ((plain, 450), (bold, 700)):
                assert 60 < override.size_adjust < 150
                height = (override.ascent + override.descent) * override.size_adjust / 10_000
                assert height == pytest.approx(face.measures.ascent + face.measures.descent, abs=0.01)
                assert width_at(face.measures, weight) == pytest.approx(width_at(face.measures, weight + 1), abs=0.01)


def test_a_styled_site_needs_few_bytes() -> None:
    site, _ = ostrey()
    many = [said("letter-spacing", "1px", at) for at in range(1)]
    items = tuple({"id": f"it-n{at}", "kind": "text", "styles": [{**many[0], "id": f"st-n{at}"}]} for at in range(200))
    crowded = after(site, Add(parent="cl-end", slot="items", values=items))
    css = sheet(crowded, shelf(), "")
    assert css.count("letter-spacing") == 1, "what says the same is written once"
    assert isinstance(find(crowded, "st-n7").node, Declaration)


@given(st.integers(0, 60))
@settings(max_examples=25, deadline=None)
def test_what_is_carried_over_refers_to_nothing_that_is_not_there(seed: int) -> None:
    """Of all that the types of the model say refers to something."""
    source = MovingMaker(seed).site()[0]
    ids = itertools.count()
    target = Site(key="qother", name="Other")
    chosen = {piece.id for piece in source.pieces}
    edit = carried(source, target, chosen, {}, lambda prefix: f"{prefix}-n{next(ids)}")
    made = apply(target, edit)
    assert isinstance(made, Site), made
    known = {node.id for node in walk(made)}
    for node in walk(made):
        for reference in references(node):
            if reference.slot != "fonts":
                assert reference.id in known or reference.id.startswith(":"), reference
    before = [len(list(references(node))) for piece in source.pieces for node in (piece, *walk(piece))]
    after = [len(list(references(node))) for piece in made.pieces for node in (piece, *walk(piece))]
    assert before == after, "nothing was lost, either"


def test_clashes_say_how_much_each_of_the_two_holds() -> None:
    source = ostrey()[0]
    target = source.replaced(
        pieces=tuple(
            piece.replaced(rows=piece.rows[:1]) if piece.kind == "header" else piece for piece in source.pieces
        )
    )
    told = {clash.node: clash for clash in clashes(source, target, {"pc-main"}) if clash.slot == "pieces"}
    assert told["pc-main"].theirs.startswith("1 row, ") and told["pc-main"].ours.startswith("3 rows, ")

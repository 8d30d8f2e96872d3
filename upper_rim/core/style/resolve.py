"""Which value does a property have, in a state and a width band, and which layer does it come from?

An element asks its layers in this order and takes the first answer:

1. its own declarations; of a part that is some of another one (`SOME_OF`), those for it, then those for all;
2. the looks that it wears, the last one first; of a look, the content before the box where both are one element;
3. its piece's defaults for its role;
4. the site's defaults for its role (the scale and the faces count as such);
5. the site's focus ring, where it can be focused;
6. what is built in, for the ring and for its role;
7. for an inherited property, its parent (CSS Cascade 5, 7.1), which is pointed at and pressed with it, else at rest;
   for the ground of what is opened, the nearest row or piece around it that has one; otherwise the CSS initial value.

Within one layer the more exact declaration answers first: this state in this band, this state at all widths, rest in
this band, rest at all widths. So a layer that says how something rests also says how it looks hovered, until it says
more: nothing jumps back to what a layer below had in mind. docs/style.md shows it as a table.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Mapping
from typing import Any, Literal, NamedTuple

from ..kinds.items.base import BaseItem
from ..kinds.moving import Stage
from ..kinds.pieces.base import Piece
from ..model.editing.check import roles_of
from ..model.memo import Memo
from ..model.site import Site
from ..model.stages import stages_of
from ..values.properties import PROPERTIES
from ..values.styling import STATES_OF, Declaration, Look, Part, RoleDefault, State
from .built_in import BUILT_IN
from .foundations import foundation_values
from .lengths import computed_line_height
from .paint.colour import Palette

LayerKind = Literal["own", "look", "piece", "site", "ring", "built-in", "inherited", "initial"]
FOCUSABLE = frozenset({"title", "entry", "opener", "button", "second", "icon", "link", "field", "close"})
GROUNDED = frozenset({"panel", "drawer", "close"})
"""Roles of what is opened over a page: without a ground of its own it has the one that it is opened from."""
OF_MENUS = frozenset({"menu", "entry", "opener"})
"""Roles of a menu's parts, which are elements each by itself."""
SOME_OF: Mapping[Part, Part] = {"lower": "content", "apart": "content", "arrow": "icon"}
"""Parts that are some of another one, and have what is said of all of that until more is said: some of a menu's
entries, of a viewer's buttons."""


_HELD_IN = frozenset({"hover", "pressed"})
"""States that an element is in while something in it is (Selectors 4, 9.2 and 9.3)."""


class Source(NamedTuple):
    """Where a value comes from: the layer, the node that says so, and for which state and band it says it.

    For `inherited`, the rest is the source of the parent's value.
    """

    layer: LayerKind
    holder: str | None = None
    state: State = "rest"
    band: str | None = None


class Resolved(NamedTuple):
    """A value as it was written, with references to swatches."""

    value: str
    source: Source


class StyledElement(NamedTuple):
    """Something that is styled: a part of a node. `parent` is what it inherits from."""

    node: str
    part: Part
    role: str
    piece: str
    parent: StyledElement | None

    @property
    def parts(self) -> tuple[Part, ...]:
        """Parts of a look that end up on it, the stronger first. What is one element takes box and content; the line
        between columns takes none."""
        if self.role == "column-rule":
            return ()
        if self.part in SOME_OF:
            return (SOME_OF[self.part],)
        return (self.part,) if self.role in OF_MENUS or self.part != "box" else ("content", "box")


class Layer(NamedTuple):
    """One layer's declarations that concern an element, by property, then by state and band."""

    kind: LayerKind
    holder: str | None
    said: Mapping[str, Mapping[tuple[State, str | None], str]]


def elements_of(piece: Piece) -> Iterator[StyledElement]:
    """All that is styled in a piece, parents first."""
    top = StyledElement(piece.id, "box", roles_of(piece)["box"], piece.id, None)
    yield top
    for stage in stages_of(piece):
        yield StyledElement(stage.id, "box", top.role, piece.id, None)
    for row in piece.rows:
        in_row = StyledElement(row.id, "box", "row", piece.id, top)
        yield in_row
        yield StyledElement(row.id, "content", "column-rule", piece.id, in_row)
        for cell in row.cells:
            in_cell = StyledElement(cell.id, "box", "cell", piece.id, in_row)
            yield in_cell
            for item in cell.items:
                yield from item_elements(item, in_cell)


def item_elements(item: Any, parent: StyledElement) -> Iterator[StyledElement]:
    """The box, then its parts, each after what it stands in; a hint stands beside the item."""
    roles = roles_of(item)
    made: dict[str, StyledElement] = {"": parent}
    for part, role in roles.items():
        within = "" if part in {"box", "hint"} else item.WITHIN.get(part, "box")
        made[part] = StyledElement(item.id, part, role, parent.piece, made[within])
        yield made[part]


def element_in(styling: Styling, piece: str, role: str) -> StyledElement:
    """Something in a piece that is nothing but its role."""
    return StyledElement("", "box", role, piece, styling.elements[piece, "box"])


def said_of(styles: Iterable[Declaration], part: Part) -> dict[str, dict[tuple[State, str | None], str]]:
    """What declarations say of one part: values by property, then by state and band."""
    said: dict[str, dict[tuple[State, str | None], str]] = {}
    for style in styles:
        if style.part == part:
            said.setdefault(style.property, {})[style.state, style.band] = style.value
    return said


class Styling:
    """A site's styles, indexed to answer questions about many elements."""

    def __init__(self, site: Site) -> None:
        self.site = site
        self._looks: dict[str, Look] = {look.id: look for look in site.looks}
        self._site_roles = {default.role: default for default in site.roles}
        self._piece_roles = {piece.id: {default.role: default for default in piece.roles} for piece in site.pieces}
        self.holders: dict[str, Any] = {}
        self.elements: dict[tuple[str, Part], StyledElement] = {}
        for piece in site.pieces:
            for holder in styled_in(piece):
                self.holders[holder.id] = holder
            for element in elements_of(piece):
                self.elements[element.node, element.part] = element
        self.stages: dict[str, Stage] = {stage.id: stage for piece in site.pieces for stage in stages_of(piece)}
        self._layers: dict[StyledElement, list[Layer]] = {}
        self._saying: dict[StyledElement, dict[str, list[Layer]]] = {}
        self._known: dict[tuple[StyledElement, str, State, str | None], Resolved] = {}
        self._bands: dict[StyledElement, frozenset[str]] = {}
        self._palette = Palette(site)

    def layers(self, element: StyledElement) -> list[Layer]:
        """The layers that an element asks, the strongest first."""
        if element not in self._layers:
            self._layers[element] = list(self._asked(element))
        return self._layers[element]

    def _asked(self, element: StyledElement) -> Iterator[Layer]:
        stage = self.stages.get(element.node)
        if stage is not None:
            yield Layer("own", stage.id, said_of(stage.styles, "box"))
            yield from self.layers(self.elements[element.piece, "box"])
            return
        holder = self.holders.get(element.node)
        if holder is not None:
            for part in (element.part, SOME_OF[element.part]) if element.part in SOME_OF else (element.part,):
                yield Layer("own", holder.id, said_of(holder.styles, part))
            for look_id in reversed(holder.wears):
                for part in element.parts:
                    yield Layer("look", look_id, said_of(self._looks[look_id].styles, part))
        yield from self._of_role(element.role, element.piece)
        if element.role in FOCUSABLE:
            for layer in self._of_role("ring", element.piece):
                kind: LayerKind = "built-in" if layer.kind == "built-in" else "ring"
                yield layer._replace(kind=kind)
        differs = holder.built_in(element.part) if isinstance(holder, BaseItem) else {}
        said = built_in(element.role)
        for state, values in differs.items():
            for name, value in values.items():
                said[name] = said.get(name, {}) | {(state, None): value}
        yield Layer("built-in", None, said)

    def _of_role(self, role: str, piece: str) -> Iterator[Layer]:
        in_piece, in_site = self._piece_roles.get(piece, {}).get(role), self._site_roles.get(role)  # type: ignore[call-overload]
        if in_piece is not None:
            yield Layer("piece", in_piece.id, said_of(in_piece.styles, "box"))
        if in_site is not None:
            yield Layer("site", in_site.id, said_of(in_site.styles, "box"))
        if role == "ring":
            yield Layer("built-in", None, built_in("ring"))
        else:
            values = foundation_values(self.site, role)
            yield Layer("site", None, {name: {("rest", None): value} for name, value in values.items()})

    def resolve(self, element: StyledElement, name: str, state: State = "rest", band: str | None = None) -> Resolved:
        """The value and its source. `band`: id of the width band that is looked at; None where the site has none."""
        key = (element, name, state, band)
        known = self._known.get(key)
        if known is None:
            told = self.band_told(element, band)
            known = (
                self._worked_out(element, name, state, band)
                if told == band
                else self.resolve(element, name, state, told)
            )
            self._known[key] = known
        return known

    def band_told(self, element: StyledElement, band: str | None) -> str | None:
        """The band, where anything is said for it of the element or of what it stands in; else None: it looks there as in
        all bands of which nothing is said."""
        return band if band is None or band in self._told_bands(element) else None

    def _told_bands(self, element: StyledElement) -> frozenset[str]:
        if element not in self._bands:
            own = (told for layer in self.layers(element) for said in layer.said.values() for _, told in said)
            around = self._told_bands(element.parent) if element.parent is not None else frozenset[str]()
            self._bands[element] = around.union(one for one in own if one is not None)
        return self._bands[element]

    def _saying_something(self, element: StyledElement) -> dict[str, list[Layer]]:
        """The layers that say something of a property, by its name, the strongest first."""
        if element not in self._saying:
            saying: dict[str, list[Layer]] = {}
            for layer in self.layers(element):
                for name in layer.said:
                    saying.setdefault(name, []).append(layer)
            # Whole at once: several threads may ask.
            self._saying[element] = saying
        return self._saying[element]

    def _worked_out(self, element: StyledElement, name: str, state: State, band: str | None) -> Resolved:
        for layer in self._saying_something(element).get(name, ()):
            found = answer(layer, name, state, band)
            if found is not None:
                return found
        listed = PROPERTIES[name]
        if name == "background-color" and element.role in GROUNDED and element.parent is not None:
            return self._ground_around(element.parent, band)
        if not listed.inherits:
            return Resolved(listed.initial, Source("initial"))
        if element.parent is None:
            return Resolved(listed.initial, Source("initial"))
        around: State = state if state in _HELD_IN and state in STATES_OF[element.parent.role] else "rest"
        value, source = self.resolve(element.parent, name, around, band)
        if source.layer != "inherited":
            value = self._absolute(element.parent, name, value, band)
        said = source.layer not in {"built-in", "initial"}
        return Resolved(value, source._replace(layer="inherited") if said else source)

    def _ground_around(self, element: StyledElement, band: str | None) -> Resolved:
        """The ground of the nearest row or piece, or opened part, that has one."""
        value, source = self.resolve(element, "background-color", "rest", band)
        is_seen = element.role == "drawer" or (element.role in {"piece", "row"} and not self._palette.is_clear(value))
        if element.parent is None or is_seen:
            return Resolved(value, source._replace(layer="inherited", holder=source.holder or element.node))
        return self._ground_around(element.parent, band)

    def _absolute(self, element: StyledElement, name: str, value: str, band: str | None) -> str:
        """A value as it is inherited: what is relative to the font size of the element that says it is worked out
        (CSS Values 4, 6.1.1; a unitless line height is inherited as it is, CSS Inline 3, 5.2)."""
        if name == "line-height":
            value = computed_line_height(value)
        relative = ("em", "%") if name in {"font-size", "line-height"} else ("em",)
        if not any(unit in value for unit in relative):
            return value
        if name == "font-size":
            base = self.font_size(element.parent, band) if element.parent else PROPERTIES[name].initial
        else:
            base = self.font_size(element, band)
        return relative_to(value, base, relative)

    def font_size(self, element: StyledElement, band: str | None) -> str:
        """Independent of any element: px, rem, vw, vh, or a calculation with these."""
        value, source = self.resolve(element, "font-size", "rest", band)
        return value if source.layer == "inherited" else self._absolute(element, "font-size", value, band)

    def all_of(self, element: StyledElement, state: State = "rest", band: str | None = None) -> dict[str, Resolved]:
        """Every property that an element has."""
        return {name: self.resolve(element, name, state, band) for name in PROPERTIES}

    def role_element(self, role: str) -> StyledElement:
        """An element that is nothing but its role, in no piece: for specimens of the site's defaults."""
        top = StyledElement("", "box", "piece", "", None)
        return top if role == "piece" else StyledElement("", "box", role, "", top)


_stylings: Memo[Site, Styling] = Memo(8)


def styling_of(site: Site) -> Styling:
    """What is kept of this very site: all who ask about it find what the others have worked out."""
    return _stylings.of(site, Styling)


_RELATIVE = re.compile(r"(?<![\w.])([+-]?(?:\d+\.?\d*|\.\d+))(em|%)")


def relative_to(value: str, base: str, units: tuple[str, ...]) -> str:
    """A value with its em (and percentages) replaced by shares of `base`, a length."""

    def replaced(found: re.Match[str]) -> str:
        if found[2] not in units:
            return found[0]
        share = float(found[1]) / (100 if found[2] == "%" else 1)
        pixels = re.fullmatch(r"([\d.]+)px", base)
        return f"{round(float(pixels[1]) * share, 4):g}px" if pixels else f"calc({share:g} * {base})"

    return _RELATIVE.sub(replaced, value)


def answer(layer: Layer, name: str, state: State, band: str | None) -> Resolved | None:
    """What one layer says of a property, the more exact first."""
    said = layer.said.get(name)
    if said is None:
        return None
    exact: tuple[tuple[State, str | None], ...] = ((state, band), (state, None), ("rest", band), ("rest", None))
    for asked in exact:
        if asked in said:
            return Resolved(said[asked], Source(layer.kind, layer.holder, asked[0], asked[1]))
    return None


def built_in(role: str) -> dict[str, dict[tuple[State, str | None], str]]:
    said: dict[str, dict[tuple[State, str | None], str]] = {}
    for state in STATES_OF[role]:
        for name, value in BUILT_IN.get(role, {}).get(state, {}).items():
            said.setdefault(name, {})[state, None] = value
    return said


def styled_in(piece: Piece) -> Iterator[Any]:
    """A piece and all in it that can be styled."""
    yield piece
    for row in piece.rows:
        yield row
        for cell in row.cells:
            yield cell
            yield from cell.items


def alike_in_piece(site: Site, node: Any) -> list[Any]:
    """What has the role of a node in the piece that it stands in; itself among them."""
    for piece in site.pieces:
        there = list(styled_in(piece))
        if node in there:
            return [one for one in there if roles_of(one)["box"] == roles_of(node)["box"]]
    return [node]


def wearers(site: Site, look_id: str) -> list[Any]:
    """The pieces, rows, cells and items that wear a look."""
    return [node for piece in site.pieces for node in styled_in(piece) if look_id in node.wears]


def band_at(site: Site, width: int) -> str | None:
    """The width band that a viewport width lies in; None where the site has none."""
    found = None
    for band in site.bands:
        if band.from_px <= width:
            found = band.id
    return found


def default_of(defaults: Iterable[RoleDefault], role: str) -> RoleDefault | None:
    return next((default for default in defaults if default.role == role), None)

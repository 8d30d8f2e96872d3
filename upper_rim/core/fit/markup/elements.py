"""Which boxes does the markup of an item become? Each element one, as the style sheets that ship have it displayed.

What is known of the site goes over the sheets: an element that has a role takes the styles resolved for that. Elements
are blocks, flex boxes, grids or lines of text (CSS Display 3, 2); what is out of the flow becomes nothing.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from functools import partial
from itertools import groupby
from typing import Any, NamedTuple

from ...kinds.entries import Entry
from ...kinds.items import Item
from ...kinds.items.base import DiffersByPage, ShowsMenu
from ...kinds.items.menu import MenuItem
from ...kinds.items.menu_entries import entries_markup
from ...kinds.items.trail import Trail
from ...kinds.marks import MARK
from ...kinds.markup import Element, Markup, Raw
from ...kinds.rule import Rule
from ...model.navigation.menus import all_entries
from ...model.site import drawer_width
from ..css.base import OWN, BaseStyle, classes_in, is_of_boxes
from ..css.block import Block, Void
from ..css.boxes import INLINE_END, INLINE_START, NONE, Align, Box, Sides
from ..css.flex import Flex
from ..css.grid import Folding, Grid, GridTrack
from ..css.inline import InlineAround
from ..css.multicol import Columns
from ..css.replaced import Field, Replaced
from ..rows.setting import Setting
from ..rows.styles import BoxStyle
from ..text.paragraph import Run
from ..text.typesetting import Type
from .menus import Said, said_of
from .page import KEY, FitPage
from .placed import Paints, Placed, edges, parts_of_entry
from .written import elements_of

_FIELDS = frozenset({"input", "select", "textarea"})
_REPLACED = _FIELDS | {"img"}
USUAL_LETTERS = 20
"""A field of one line is so long where nothing else is said (HTML, 4.10.18.4)."""
_INLINE = frozenset({"inline", "contents"})
_ATOMS = frozenset({"inline-block", "inline-flex"})
_ALIGN: dict[str, Align] = {
    "normal": "stretch", "stretch": "stretch", "center": "center", "flex-start": "start", "start": "start", "flex-end": "end",
}  # fmt: skip
_SPACES = " \t\n\r\f"


class _Around(NamedTuple):
    """What an element has from what it stands in. `type`: how text is set; `breaks`: whether it may stand on several
    lines; `is_item`: it is a flex box's or a grid's."""

    type: Type
    breaks: bool = True
    is_item: bool = False


class ElementBoxes:
    """Of one item, in a setting."""

    def __init__(self, item: Item, setting: Setting, *, submenus: bool | None = None) -> None:
        """`submenus`: whether they are open, where that is not for the sheets to say."""
        self._item, self._setting, self._submenus = item, setting, submenus
        self._page = FitPage(item, setting)
        self._ways = ways_of(item, setting)
        rules = item.rules(f".{OWN}", self._page)
        self._own = [rule for rule in rules if is_of_boxes(rule) and _holds(rule, setting.from_px)]
        self._classes = setting.sheets.classes | classes_in(self._own)

    def box(self) -> Box | None:
        """Of all that it is; None where it takes no room."""
        placed = self._root()
        if placed is None or placed.is_out:
            return None
        return self._box(placed, _Around(self._setting.part(self._item.id).type, is_item=True))

    def drawer(self, above: Iterable[Box] = (), below: Iterable[Box] = ()) -> Block:
        """What a menu's button opens, as high as all that it holds. `above`, `below`: what stands over its entries, and
        under them."""
        placed = self._drawer()
        around = _Around(placed.base.type(self._setting.part(self._item.id).type))
        close, listed = (self._box(there, around) for there in self._elements(placed) if not there.is_out)
        style = self._setting.part(self._item.id, "opened").over(**placed.base.sizes())
        edges = {edge: style[edge] for edge in ("padding", "border")}
        return Block(part="drawer", within=[close, *above, listed, *below], **edges).settle()

    def further_levels(self) -> Iterator[Block]:
        """Where submenus open level by level, each of these in the drawer: its way back, and its entries."""
        item, page = self._item, self._page
        assert isinstance(item, MenuItem)
        placed = next(there for there in self._elements(self._drawer()) if "list" in there.classes)
        around = _Around(placed.base.type(self._setting.part(item.id).type))
        for entry in all_entries(page.entries(item)):
            for line in entries_markup(item, page, [entry]) if entry.entries else ():
                for sub in self._elements(self._placed(line, placed)):
                    if "sub" in sub.classes:
                        within = [self._box(there, around) for there in self._elements(sub) if not there.is_out]
                        top, *others = sub.base.sizes()["padding"]
                        padding = Sides(top + sub.base.px_in("inset"), *others)
                        yield Block(part="level", within=within, padding=padding).settle()

    def _drawer(self) -> Placed:
        root = self._root()
        assert root is not None
        return next(there for there in self._elements(root) if "drawer" in there.classes)

    def _root(self) -> Placed | None:
        root = next(iter(self._item.markup(self._page)), None)
        if not isinstance(root, Element):
            return None
        return self._placed(root._replace(children=tuple(_read(root.children))), None)

    def _elements(self, placed: Placed) -> Iterator[Placed]:
        return (self._placed(child, placed) for child in placed.element.children if isinstance(child, Element))

    def _placed(self, element: Element, around: Placed | None) -> Placed:
        classes = str(element.attributes.get("class") or "").split()
        known = [f".{name}" for name in classes if name in self._classes]
        step = element.tag + "".join(known) + ("[hidden]" if element.attributes.get("hidden") else "")
        path = f"{around.path} > {step}{edges(element, around)}" if around else f"{step}.{OWN}"
        names = frozenset(name.removeprefix(f"{KEY}-") for name in classes)
        base = self._setting.sheets.of(path, self._ways, self._own)
        if self._submenus is not None and "sub" in names:
            base = BaseStyle({**base.declared, "display": "block" if self._submenus else "none"})
        in_list = around is not None and (around.in_list or "list" in around.classes)
        in_sub = around is not None and (around.in_sub or "sub" in around.classes)
        in_apart = "apart" in names or (around is not None and around.in_apart)
        return Placed(element, path, names, base, in_list, in_sub, in_apart, around is None)

    def _style(self, placed: Placed) -> BoxStyle | None:
        """What is resolved for it; None where the sheets alone say how it is."""
        part = placed.part_of(self._item)
        if part is None:
            return None
        return self._setting.part(self._item.id, part, within=placed.around_part(self._item, part))

    def _paints(self, placed: Placed) -> Paints | None:
        part, said = placed.part_of(self._item), placed.element.attributes
        icon = next((name.removeprefix("icon-") for name in placed.classes if name.startswith("icon-")), "")
        picture = str(said.get("src") or "") if placed.element.tag == "img" else ""
        placeholder = str(said.get("placeholder") or "")
        painted = part or icon or picture or placeholder
        behind = next(self._behind(placed), None) if placed.is_root else None
        fits = placed.base.declared.get("object-fit", "fill")
        within = placed.around_part(self._item, part)
        return Paints(self._item.id, part, picture, fits, icon, placeholder, within, behind) if painted else None

    def _behind(self, placed: Placed) -> Iterator[tuple[str, float, float]]:
        """Pictures out of the flow, as high as what they stand in."""
        for child in self._elements(placed):
            said = child.base.declared
            if child.element.tag == "img" and said.get("position") == "absolute" and child.display != "none":
                start, share = (
                    float(found[1]) / 100 if (found := _SHARE.match(said.get(name, ""))) else unsaid
                    for name, unsaid in (("inset-inline", 0.0), ("inline-size", 1.0))
                )
                yield str(child.element.attributes.get("src")), start, share
            else:
                yield from self._behind(child)

    def _sized(self, placed: Placed, around: Type) -> tuple[Type, dict[str, Any]]:
        """How text in it is set, and its sizes and edges by the fields of `boxes.Box`."""
        style, base = self._style(placed), placed.base
        kind = style.type if style else base.type(around)
        sizes = base.sizes(kind.size, None if style else 0.0)
        return kind, style.over(**sizes) if style else sizes

    def _box(self, placed: Placed, around: _Around) -> Box:
        base, (kind, sizes) = placed.base, self._sized(placed, around.type)
        how: dict[str, Any] = {
            "node": self._node(placed),
            "part": placed.part_name,
            "paints": self._paints(placed),
        }
        how |= sizes
        if base.declared.get("align-self") == "stretch":
            how["align_self"] = "stretch"
        how["clips"] = base.declared.get("overflow") in {"clip", "hidden", "auto"}
        how["is_whole"] = base.declared.get("break-inside") == "avoid"
        how["is_joined"] = base.declared.get("break-after") == "avoid"
        if placed.is_root and placed.element.attributes.get("aria-hidden") == "true":
            how["is_seen"] = False
        made = self._replaced(placed, kind, how)
        if made is None:
            inner = _Around(kind, around.breaks and base.breaks)
            if placed.display in {"flex", "inline-flex"}:
                made = self._flex(placed, inner, how)
            elif placed.display == "grid":
                made = self._grid(placed, inner, how)
            else:
                made = self._block(placed, inner, how, is_own_context=around.is_item or placed.display in _ATOMS)
        return made.settle()

    def _flex(self, placed: Placed, inner: _Around, how: dict[str, Any]) -> Box:
        said = placed.base.declared
        return Flex(
            direction="column" if said.get("flex-direction") == "column" else "row",
            wraps=said.get("flex-wrap") == "wrap",
            align=_ALIGN[said.get("align-items", "normal")],
            justify=_ALIGN[said.get("justify-content", "flex-start")],
            within=list(self._items(placed, inner)),
            **placed.base.gaps(inner.type.size),
            **how,
        )

    def _grid(self, placed: Placed, inner: _Around, how: dict[str, Any]) -> Box:
        base = placed.base
        template = base.declared.get("grid-template-columns", "none")
        within = list(self._items(placed, inner))
        if "auto-fit" in template:
            gaps = (base.px("row-gap"), base.px("column-gap"))
            return Folding(within=within, least=base.px_in("grid-template-columns"), gaps=gaps, **how)
        if template == "none":
            # What stands in one place, one over the other: they are alike.
            return Block(within=within[:1], **how)
        # What goes over all columns stands below the others.
        tracks = tuple(GridTrack("share" if track.endswith("fr") else "content") for track in template.split())
        align = _ALIGN[base.declared.get("align-items", "normal")]
        across, below = within[: len(tracks)], within[len(tracks) :]
        return Block(within=[Grid(tracks=tracks, align=align, within=across).settle(), *below], **how)

    def _block(self, placed: Placed, inner: _Around, how: dict[str, Any], *, is_own_context: bool) -> Box:
        flow = list(self._flow(placed, inner))
        if not flow:
            return Void(**how)
        if len(flow) == 1 and isinstance(flow[0], _Line) and "rich" not in placed.classes:
            how["part"] = how["part"] or ("" if placed.is_root else "text")
            return flow[0].box(self._setting, inner, **how)
        part = "lines" if "rich" in placed.classes else "line"
        within = [
            one.box(self._setting, inner, part=part if one.atoms or part == "lines" else "text").settle()
            if isinstance(one, _Line)
            else one
            for one in flow
        ]
        said = placed.base
        if "column-count" in said.declared:
            count, least, gap = int(said.declared["column-count"]), said.px("column-width"), said.px("column-gap")
            return Columns(within=within, count=count, least_px=least, gap_px=gap, **how)
        return Block(within=within, contains_margins=is_own_context, **how)

    def _items(self, placed: Placed, inner: _Around) -> Iterator[Box]:
        """Of a flex box or a grid: each element, and each text as an anonymous one (CSS Flexible Box 1, 4)."""
        for child in self._children(placed):
            if isinstance(child, str):
                if child.strip(_SPACES):
                    yield self._setting.line(child, inner.type, breaks=inner.breaks, is_anonymous=True)
            elif isinstance(child, Box):
                yield child
            elif not (there := self._placed(child, placed)).is_out:
                yield self._box(there, inner._replace(is_item=True))

    def _flow(self, placed: Placed, inner: _Around) -> Iterator[Box | _Line]:
        """Of a block container: blocks, and between them lines."""
        line = _Line([], [])
        for child in self._inline(placed, inner):
            if isinstance(child, Run) and not line.atoms:
                line.runs.append(child)
                continue
            # Nothing that ships has a box and a text, or two boxes, on one line: each would have a line of its own.
            if line.is_seen:
                yield line
            line = _Line([], [])
            if isinstance(child, Run):
                line.runs.append(child)
            elif child.stands_in_line and child.box is not None:
                line.atoms.append(child.box)
            elif child.box is not None:
                yield child.box
        if line.is_seen:
            yield line

    def _inline(self, placed: Placed, inner: _Around) -> Iterator[Run | _Child]:
        """Texts as they are set, through all that is inline, and boxes."""
        for child in self._children(placed):
            if isinstance(child, str):
                yield Run(child, inner.type)
            elif isinstance(child, Box):
                yield _Child(child, stands_in_line=False)
            elif child.tag == "br":
                yield _Child(None, stands_in_line=False)
            elif not (there := self._placed(child, placed)).is_out:
                if there.display in _INLINE and child.tag not in _REPLACED:
                    within = self._inline(there, inner._replace(type=self._set_in_line(there, inner.type)))
                    yield from self._edged(there, inner.type, within) if there.display == "inline" else within
                else:
                    yield _Child(self._box(there, inner), there.display in _ATOMS)

    def _edged(self, placed: Placed, around: Type, within: Iterable[Run | _Child]) -> list[Run | _Child]:
        """What stands in an inline box, with its edges at the first and the last text of it."""
        _, sizes = self._sized(placed, around)
        edges = [sizes.get(edge, NONE) for edge in ("margin", "border", "padding")]
        starts, ends = (tuple(side for one in edges if (side := one[at])) for at in (INLINE_START, INLINE_END))
        found = list(within)
        texts = [at for at, one in enumerate(found) if isinstance(one, Run) and one.text]
        for at, before, after in ((texts[0], starts, ()), (texts[-1], (), ends)) if texts else ():
            run = found[at]
            assert isinstance(run, Run)
            found[at] = run._replace(before=before + run.before, after=run.after + after)
        return found

    def _set_in_line(self, placed: Placed, around: Type) -> Type:
        """How text in an inline element is set. The styles of its role are resolved as if it stood in the item itself:
        what it has of an element between counts, too."""
        style = self._style(placed)
        if style is None:
            return placed.base.type(around)
        return style.type._replace(weight=max(style.type.weight, around.weight), italic=around.italic)

    def _children(self, placed: Placed) -> Iterator[Element | Box | str]:
        """Texts that stand beside each other are one; what stands for a mark is in its place."""
        for is_text, beside in groupby(placed.element.children, key=lambda child: type(child) is str):
            if is_text:
                yield "".join(map(str, beside))
                continue
            for child in beside:
                if isinstance(child, Element):
                    yield child
                elif isinstance(child, Raw) and MARK.fullmatch(child.html):
                    yield from self._put(placed)

    def _put(self, placed: Placed) -> Iterator[Element | Box]:
        """A trail, or a menu's entries. In a row what opens below an entry is out of the flow: each entry is one for
        itself, which may be known."""
        item, setting = self._item, self._setting
        if isinstance(item, Trail):
            yield item.steps_markup(setting.trail(item), self._page)
        elif isinstance(item, DiffersByPage):
            yield item.sample(self._page)
        elif isinstance(item, ShowsMenu):
            for entry in self._page.entries(item):
                if self._ways:
                    yield from entries_markup(item, self._page, [entry])
                elif (said := said_of(entry, setting)).label is not None:
                    parts = parts_of_entry(item, apart=said.apart)
                    styles = tuple(setting.part(item.id, part, within=within) for part, within in parts)
                    yield setting.kept((said, placed.path), styles, partial(self._alone, said, entry, placed))

    def _alone(self, said: Said, entry: Entry, placed: Placed, setting: Setting) -> Box:
        item = self._item
        assert isinstance(item, ShowsMenu)
        boxes = ElementBoxes(item, setting)
        shallow = entry.replaced(entries=(_ANY_ENTRY,) if said.below else ())
        (line,) = entries_markup(item, boxes._page, [shallow])
        around = _Around(setting.part(item.id).type, is_item=placed.display == "flex")
        return boxes._box(boxes._placed(line, placed), around)

    def _replaced(self, placed: Placed, kind: Type, how: dict[str, Any]) -> Box | None:
        """A picture or a form field; None for anything else."""
        element = placed.element
        if element.tag == "img":
            width, height = (float(str(element.attributes.get(name) or 0)) for name in ("width", "height"))
            return Replaced(ratio=_ratio(placed.base, width, height), natural=(width, height), **how)
        if element.tag not in _FIELDS:
            return None
        if element.attributes.get("type") == "checkbox":
            return Void(**how)
        if element.tag == "select":
            # Chromium sets what is chosen as high as the first font has it, whatever its line height and its letters,
            # with a px above and below (measured: `tests/browser/test_fit.py`).
            normal = kind._replace(line_height=None, leading=None)
            return Field(type=normal, faces=self._setting.measurer.faces, around_px=2.0, **how)
        lines = int(str(element.attributes.get("rows") or 1))
        letters = int(str(element.attributes.get("size") or USUAL_LETTERS)) if element.tag == "input" else 0
        return Field(type=kind, faces=self._setting.measurer.faces, lines=lines, letters=letters, **how)

    def _node(self, placed: Placed) -> str:
        return self._item.id if placed.is_root else str(placed.element.attributes.get("data-rim-node") or "")


_ANY_ENTRY = Entry(id="any")
_SHARE = re.compile(r"([\d.]+)%")
_WIDTHS = re.compile(r"@media \(width (>=|<) (\d+)px\)")


class _Child(NamedTuple):
    """A box among lines; None: a line ends there."""

    box: Box | None
    stands_in_line: bool


class _Line(NamedTuple):
    """Texts, or boxes, between two blocks."""

    runs: list[Run]
    atoms: list[Box]

    @property
    def is_seen(self) -> bool:
        return bool(self.atoms) or any(run.text.strip(_SPACES) for run in self.runs)

    def box(self, setting: Setting, inner: _Around, **how: Any) -> Box:
        if self.atoms:
            (atom,) = self.atoms
            return InlineAround(type=inner.type, faces=setting.measurer.faces, atom=atom, **how)
        runs = [*self.runs]
        runs[0] = runs[0]._replace(text=runs[0].text.lstrip(_SPACES))
        runs[-1] = runs[-1]._replace(text=runs[-1].text.rstrip(_SPACES))
        return setting.lines([run for run in runs if run.text], inner.type, breaks=inner.breaks, **how)


def ways_of(item: Item, setting: Setting) -> str:
    """How a menu is shown at these widths: `core.fit.css.base`. Empty for a row, and for what is no menu."""
    if not isinstance(item, MenuItem):
        return ""
    if not is_drawer(item, setting):
        return {"column": "list", "columns": "columns"}.get(item.way, "")
    has_levels, is_turned = item.submenus == "levels", item.button_turns or item.button_words_open.text
    return " ".join(["list", "drawer", *(["levels"] if has_levels else []), *(["button"] if is_turned else [])])


def is_drawer(item: MenuItem, setting: Setting) -> bool:
    """Whether at these widths the menu is a button."""
    below = drawer_width(item, setting.site)
    return below is not None and setting.from_px < below


def _holds(rule: Rule, width_px: int) -> bool:
    """Whether its conditions do, as far as they are about widths."""
    found = [_WIDTHS.fullmatch(condition) for condition in rule.within]
    return all(one and (width_px >= int(one[2])) == (one[1] == ">=") for one in found)


def _read(children: Iterable[Markup]) -> Iterator[Markup]:
    """What is written as HTML already, as elements; but not what only stands for something."""
    for child in children:
        if isinstance(child, Raw) and not MARK.fullmatch(child.html):
            yield from elements_of(child.html)
        else:
            yield child


def _ratio(base: BaseStyle, width: float, height: float) -> float:
    """Width by height; 0 where it has none."""
    said = base.declared.get("aspect-ratio")
    if said:
        wide, high = said.split("/")
        return float(wide) / float(high) if float(high) else 0.0
    return width / height if height else 0.0

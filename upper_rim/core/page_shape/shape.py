"""What is the shape of a page, and do pieces need its content to have a box of its own?

None is needed where the body is as wide as the window and lays out its children one below the other.
"""

from __future__ import annotations

import hashlib
import re
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from itertools import islice
from typing import NamedTuple, TypeVar

import lightningcss

from ..kinds.page_shapes import ChildRule, ElementRule, PageShape, ShapeRule
from ..kinds.rule import Rule, css
from .cascade import LONGEST_CSS, Attributes, Declared, Imported, OfElement, Reached, Sheet, reached
from .darkness import Darkness, darkness

_USUAL_MARGIN = ShapeRule(declared=(("margin", "8px"),))
"""HTML, 15.3.3: of a body of which nothing is said."""
_HEIGHTS = frozenset({"height", "min-height", "block-size", "min-block-size"})
_WIDTHS = frozenset({"width", "max-width", "inline-size", "max-inline-size"})
_BOX = re.compile(
    r"(margin|padding)(-(top|right|bottom|left|(block|inline)(-start|-end)?))?"
    r"|border(-(top|right|bottom|left|(block|inline)(-start|-end)?))?(-(width|style|color))?|border-radius"
    r"|border-(top|bottom|start|end)-(left|right|start|end)-radius|box-shadow|box-sizing|float|position"
    r"|(((max|min)-)?(width|inline-size))|display|flex-(direction|wrap|flow)|(align|justify|place)-(items|content)"
    r"|(row-|column-)?gap|grid-(row|column)-gap|grid|grid-(template|auto)(-\w+)*|columns|column-(count|width|fill|rule)"
)
_GROUND = re.compile(r"background(-\w+)*")
MOST_RULES = 300
_NOTHING = re.compile(r"[+-]?(?:0++(?:\.0*+)?|\.0++)(?:[a-z]++|%)?")
_UNSAID = frozenset({"initial", "unset", "revert", "revert-layer", "normal", "auto", "none"})


Holds = Callable[[str], bool]
"""Whether an element of a page, chosen by a selector, holds most of its text."""


class Shaped(NamedTuple):
    """`shape`: None where pieces hold in the page as it is, and where its CSS cannot be read."""

    shape: PageShape | None
    dark: Darkness


def shaped(
    attributes: Attributes, sheets: Iterable[Sheet], imported: Imported, holds: Holds, *, is_all: bool = True
) -> Shaped:
    """What a page's own CSS tells of it. Where that is not all there is, for some lies on other hosts, the usual margin of
    a body is not counted on: hardly a sheet leaves it."""
    try:
        found = reached(attributes, sheets, imported)
    except RecursionError:
        found = None
    if found is None:
        return Shaped(None, "")
    return Shaped(_shape(found, attributes, holds, has_margin=is_all), darkness(found))


def _shape(found: Reached, attributes: Attributes, holds: Holds, *, has_margin: bool) -> PageShape | None:
    """`has_margin`: a body of which nothing is said has the usual margin."""
    heights, clips = tuple(_heights(found)), _clips(found)
    is_root_apart = _is_apart(found.root, has_margin=False)
    is_boxed = is_root_apart or _is_apart(found.body, has_margin=has_margin)
    is_shell = _is_shell(found, holds)
    at_edges = tuple(islice(_at_edges(found.placed), MOST_RULES))
    if not (is_boxed or heights or clips or is_shell or at_edges):
        return None
    shape = PageShape(id="sh-0", heights=heights, clips=clips and not is_shell, at_edges=at_edges, is_shell=is_shell)
    if is_shell:
        shape = shape.replaced(of_window=tuple(islice(_of_window(found.placed), MOST_RULES)))
    if is_boxed or is_shell:
        usual = (_USUAL_MARGIN,) if has_margin else ()
        shape = _boxed(shape, found, usual, is_quirky=attributes.is_quirky, is_root_apart=is_root_apart)
    shape = _understood(shape)
    return shape.replaced(id=f"sh-{hashlib.sha256(shape.model_dump_json().encode()).hexdigest()[:12]}")


def _understood(shape: PageShape) -> PageShape:
    """Without rules that are not understood where pages' sheets are written."""

    def kept(rules: Iterable[_Rule]) -> tuple[_Rule, ...]:
        return tuple(one for one in rules if _is_understood(one))

    return shape.replaced(
        box=kept(shape.box),
        root=kept(shape.root),
        children=kept(shape.children),
        heights=kept(shape.heights),
        of_window=kept(shape.of_window),
        at_edges=kept(shape.at_edges),
    )


_Rule = TypeVar("_Rule", bound=ShapeRule)


def _is_understood(rule: ShapeRule) -> bool:
    selector = "a"
    if isinstance(rule, ChildRule):
        selector = f"{rule.body} a>{rule.below}"
    elif isinstance(rule, ElementRule):
        selector = f"{rule.selector}:is(a *)"
    try:
        return bool(
            lightningcss.process_stylesheet(css([Rule(selector, dict(rule.declared), rule.within)]), minify=False)
        )
    except Exception:  # It tells faults by one kind alone, and that is the widest.
        return False


def _boxed(
    shape: PageShape, found: Reached, usual: tuple[ShapeRule, ...], *, is_quirky: bool, is_root_apart: bool
) -> PageShape:
    has_ground = any(_GROUND.fullmatch(one.name) and one.value not in _UNSAID for one in found.root)
    kept = [one for one in found.body if _BOX.fullmatch(one.name) or (has_ground and _GROUND.fullmatch(one.name))]
    children = (
        ChildRule(within=one.within, declared=one.declared, body=one.body, below=one.below)
        for one in found.children
        if _is_short(*one.within, one.body, one.below, *(value for _, value in one.declared))
    )
    return shape.replaced(
        is_boxed=True,
        box=(*usual, *_rules(kept)),
        root=tuple(_rules(one for one in found.root if _BOX.fullmatch(one.name))) if is_root_apart else (),
        children=tuple(islice(children, MOST_RULES)),
        is_tall=shape.is_shell or any(_is_tall(one) for one in found.body),
        is_quirky=is_quirky,
        has_ground=has_ground,
    )


def _is_short(*texts: str) -> bool:
    return all(len(text) <= LONGEST_CSS for text in texts)


def _heights(found: Reached) -> Iterator[ShapeRule]:
    """None of a body that scrolls by itself, or hides what is too high."""
    said = [one for one in found.body if one.name in {"height", "block-size"} and not _is_unsaid(one)]
    if said and not any(_scrolls(one) for one in found.body):
        yield from _rules(said)


def _is_unsaid(one: Declared) -> bool:
    return one.value.lower() in _UNSAID or bool(_NOTHING.fullmatch(one.value))


def _scrolls(one: Declared) -> bool:
    """Whether by this it is not the whole page that scrolls up and down."""
    words = one.value.lower().split()
    return one.name in {"overflow", "overflow-y", "overflow-block"} and bool(
        {*words[-1:]} - {"visible", "initial", "unset"}
    )


def _is_shell(found: Reached, holds: Holds) -> bool:
    """Whether the window never scrolls: what hides what is too high is as high as the window, or a part that scrolls lies
    over all of it and holds what there is to read. What holds at some widths only is none; nor is what a class makes one,
    since scripts take classes away."""
    if any(one.name in {"overflow", "overflow-y"} and _scrolls_within({"overflow": one.value}) for one in found.body):
        return False
    hides = any(_hides(one) and _is_of_type(one) for one in (*found.root, *found.body) if not one.within)
    fills = any(
        one.name in {"height", "block-size"} and one.value.lower() in _WHOLE and _is_of_type(one)
        for one in found.body
        if not one.within
    ) or any(_fills(dict(one.declared)) for one in found.placed if not one.within)
    over_all = (one for one in found.placed if not one.within and _lies_over_all(dict(one.declared)))
    return (hides and fills) or any(holds(one.selector) for one in over_all)


def _is_of_type(one: Declared) -> bool:
    """Whether its selector names no id, class or attribute."""
    return one.place[2][:2] == (0, 0)


_WHOLE = frozenset({"100%", "100vh", "100dvh", "100svh", "100lvh"})


def _hides(one: Declared) -> bool:
    return one.name in {"overflow", "overflow-y"} and one.value.lower().split()[-1:] in (["hidden"], ["clip"])


def _fills(said: Mapping[str, str]) -> bool:
    return said.get("height", "").lower() in _WHOLE - {"100%"} and _scrolls_within(said)


def _scrolls_within(said: Mapping[str, str]) -> bool:
    return any("auto" in said.get(name, "") or "scroll" in said.get(name, "") for name in ("overflow", "overflow-y"))


def _lies_over_all(said: Mapping[str, str]) -> bool:
    top, bottom = _edges(said)
    is_whole = bool(top and bottom and _NOTHING.fullmatch(top) and _NOTHING.fullmatch(bottom))
    is_whole |= bool(top and _NOTHING.fullmatch(top)) and said.get("height", "").lower() in _WHOLE
    return said.get("position") in {"fixed", "absolute"} and is_whole and _scrolls_within(said)


def _edges(said: Mapping[str, str]) -> tuple[str, str]:
    """How far from the upper and the lower edge; empty where that is not said."""
    inset = said.get("inset", "").split()
    block = said.get("inset-block", "").split()
    top = said.get("top") or said.get("inset-block-start") or (block[:1] or inset[:1] or [""])[0]
    bottom = said.get("bottom") or said.get("inset-block-end") or (block[-1:] or inset[2:3] or inset[:1] or [""])[0]
    return top, bottom


def _of_window(placed: Iterable[OfElement]) -> Iterator[ElementRule]:
    """Heights in parts of the window's."""
    for one in placed:
        said = tuple((name, value) for name, value in one.declared if "height" in name or "block-size" in name)
        heights = tuple((name, _VH.sub(r"\1cqh", value)) for name, value in said if _VH.search(value))
        if heights and _is_short(*one.within, one.selector, *(value for _, value in heights)):
            yield ElementRule(within=one.within, declared=heights, selector=one.selector)


_VH = re.compile(r"(?<![\w.-])(\d++(?:\.\d++)?|\.\d++)[dsl]?vh\b", re.IGNORECASE)


def _at_edges(placed: Iterable[OfElement]) -> Iterator[ElementRule]:
    """Of parts that are pinned to one edge: to the window's, or to where it has scrolled to."""
    for one in placed:
        said = dict(one.declared)
        top, bottom = ("" if edge.lower() in _UNSAID else edge for edge in _edges(said))
        is_pinned = said.get("position") in {"fixed", "sticky", "-webkit-sticky"}
        edge = ("top", top) if top and not bottom else ("bottom", bottom) if bottom and not top else None
        if is_pinned and edge is not None and "inset" not in said and _is_short(*one.within, one.selector, edge[1]):
            yield ElementRule(within=one.within, declared=(edge,), selector=one.selector)


def _clips(found: Reached) -> bool:
    """A body that hides something becomes what its contents are pinned to, unless the root leaves that to the window
    (CSS Overflow 3, 3.3)."""
    root, body = (
        [one for one in said if one.name.startswith("overflow") and "visible" not in one.value.split()[:1]]
        for said in (found.root, found.body)
    )
    return bool(root) and bool(body) and not any("auto" in one.value or "scroll" in one.value for one in body)


def _rules(declared: Iterable[Declared]) -> Iterator[ShapeRule]:
    """What follows each other within the same conditions is one rule; a property said again there ends it."""
    within: tuple[str, ...] = ()
    said: dict[str, str] = {}
    for one in islice((one for one in declared if _is_short(*one.within, one.value)), MOST_RULES):
        if one.within != within or one.name in said:
            if said:
                yield ShapeRule(within=within, declared=tuple(said.items()))
            within, said = one.within, {}
        said[one.name] = one.value
    if said:
        yield ShapeRule(within=within, declared=tuple(said.items()))


def _is_tall(one: Declared) -> bool:
    is_high = one.name in _HEIGHTS and not _is_unsaid(one)
    return is_high or (one.name == "display" and one.value.lower() in _DIRECTED)


_DIRECTED = frozenset({"flex", "inline-flex", "grid", "inline-grid", "-webkit-flex", "-webkit-box"})


def _is_apart(declared: Sequence[Declared], *, has_margin: bool) -> bool:
    """Whether something is said that pieces would not stand in. Kept for each group of properties; at first, of a body,
    for the usual margin."""
    said = {"margin": has_margin}
    is_column = _is_column(declared)
    is_directed = any(one.name == "display" and one.value.lower() in _DIRECTED for one in declared)
    for one in declared:
        group = _group(one.name)
        if not group or (group in {"arranged", "grid"} and not is_directed):
            continue
        is_plain = _is_plain(group, one, is_column=is_column)
        if not is_plain:
            said[group] = True
        elif not one.within and one.name == group:
            said[group] = False
    return any(said.values())


def _group(name: str) -> str:
    if name in _WIDTHS:
        return "width"
    first = name.partition("-")[0]
    if first in {"margin", "padding", "border", "columns", "column", "display", "float", "grid"}:
        return first
    return "arranged" if first in {"align", "justify", "place", "gap", "row"} else ""


def _is_plain(group: str, one: Declared, *, is_column: bool) -> bool:
    value = one.value.lower()
    parts = value.split()
    if value in _UNSAID and not (group == "margin" and value.startswith("revert")):
        return True
    match group:
        case "margin" | "padding":
            return all(part == "auto" or _NOTHING.fullmatch(part) for part in parts)
        case "border":
            is_drawn = one.name not in _BORDERS_APART and not one.name.endswith(("color", "style", "radius"))
            return not is_drawn or any(part == "none" or _NOTHING.fullmatch(part) for part in parts)
        case "width":
            return value in {"100%", "100vw", "-webkit-fill-available", "stretch"}
        case "display":
            return value in {"block", "flow-root", "flow"} or (value in {"flex", "-webkit-flex"} and is_column)
        case "arranged" | "grid" | "column" | "columns":
            return one.name in {"column-rule", "column-gap"} or (
                group == "arranged" and value in {"stretch", "flex-start", "start"}
            )
        case _:
            return False


_BORDERS_APART = frozenset({"border-collapse", "border-spacing"})


def _is_column(body: Iterable[Declared]) -> bool:
    """Whether it lays its children out one below the other, wherever it is flex."""
    return any(
        one.name in {"flex-direction", "flex-flow", "-webkit-flex-direction"}
        and "column" in one.value
        and not one.within
        for one in body
    )

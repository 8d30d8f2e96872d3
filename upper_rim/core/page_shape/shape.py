"""What is the shape of a page, and do pieces need its content to have a box of its own?

None is needed where the body is as wide as the window and lays out its children one below the other.
"""

from __future__ import annotations

import hashlib
import re
from collections.abc import Iterable, Iterator, Sequence
from itertools import islice

from ..kinds.page_shapes import ChildRule, PageShape, ShapeRule
from .cascade import Attributes, Declared, Imported, Reached, Sheet, reached

_USUAL_MARGIN = ShapeRule(declared=(("margin", "8px"),))
"""HTML, 15.3.3: of a body of which nothing is said."""
_HEIGHTS = frozenset({"height", "min-height", "block-size", "min-block-size"})
_WIDTHS = frozenset({"width", "max-width", "inline-size", "max-inline-size"})
_BOX = re.compile(
    r"(margin|padding)(-(top|right|bottom|left|(block|inline)(-start|-end)?))?"
    r"|border(-(top|right|bottom|left|(block|inline)(-start|-end)?))?(-(width|style|color))?|border-radius"
    r"|border-(top|bottom|start|end)-(left|right|start|end)-radius|box-shadow|box-sizing|float|position"
    r"|((max-)?(width|inline-size))|display|flex-(direction|wrap|flow)|(align|justify|place)-(items|content)"
    r"|(row-|column-)?gap|grid-(row|column)-gap|grid|grid-(template|auto)(-\w+)*|columns|column-(count|width|fill|rule)"
)
_GROUND = re.compile(r"background(-\w+)*")
LONGEST_CSS, MOST_RULES = 2000, 300
_NOTHING = re.compile(r"[+-]?0*\.?0+([a-z]+|%)?")
_UNSAID = frozenset({"initial", "unset", "revert", "revert-layer", "normal", "auto", "none"})


def page_shape(attributes: Attributes, sheets: Iterable[Sheet], imported: Imported) -> PageShape | None:
    """None where pieces hold as it is, and where its CSS cannot be read."""
    try:
        found = reached(attributes, sheets, imported)
    except RecursionError:
        return None
    if found is None:
        return None
    heights, clips = tuple(_heights(found)), _clips(found)
    is_root_apart = _is_apart(found.root, has_margin=False)
    is_boxed = is_root_apart or _is_apart(found.body, has_margin=True)
    if not (is_boxed or heights or clips):
        return None
    shape = PageShape(id="sh-0", heights=heights, clips=clips)
    if is_boxed:
        shape = _boxed(shape, found, is_quirky=attributes.is_quirky, is_root_apart=is_root_apart)
    return shape.replaced(id=f"sh-{hashlib.sha256(shape.model_dump_json().encode()).hexdigest()[:12]}")


def _boxed(shape: PageShape, found: Reached, *, is_quirky: bool, is_root_apart: bool) -> PageShape:
    has_ground = any(_GROUND.fullmatch(one.name) and one.value not in _UNSAID for one in found.root)
    kept = [one for one in found.body if _BOX.fullmatch(one.name) or (has_ground and _GROUND.fullmatch(one.name))]
    children = (
        ChildRule(within=one.within, declared=one.declared, body=one.body, below=one.below)
        for one in found.children
        if _is_short(*one.within, one.body, one.below, *(value for _, value in one.declared))
    )
    return shape.replaced(
        is_boxed=True,
        box=(_USUAL_MARGIN, *_rules(kept)),
        root=tuple(_rules(one for one in found.root if _BOX.fullmatch(one.name))) if is_root_apart else (),
        children=tuple(islice(children, MOST_RULES)),
        is_tall=any(_is_tall(one) for one in found.body),
        is_quirky=is_quirky,
        has_ground=has_ground,
    )


def _is_short(*texts: str) -> bool:
    return all(len(text) < LONGEST_CSS for text in texts)


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

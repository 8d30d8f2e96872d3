"""How does a page keep the shape of its body, where pieces stand in it?

The body becomes as wide as the window; all that the page says of its box holds for an element around its content.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator

from ...kinds.page_shapes import PageShape
from ...kinds.rule import Rule

_BODY = {
    "margin": "0",
    "padding": "0",
    "border": "0",
    "box-shadow": "none",
    "float": "none",
    "columns": "auto",
    "inline-size": "auto",
    "max-inline-size": "none",
}
_ZERO = re.compile(r"0+")
_WHOLE_WIDTH = "-webkit-fill-available"
"""Margins that share what is left make what stands in a flex container no wider than its content else."""
_SHELL = {
    "flex": "1 1 0",
    "min-block-size": "0",
    "inline-size": _WHOLE_WIDTH,
    "contain": "layout",
    "container-type": "size",
}
"""What the pieces leave of the window: of that the page's fixed parts, and its heights that are parts of the window's, are
reckoned."""
_AS_HIGH = {
    "display": "flex",
    "flex-flow": "column nowrap",
    "align-items": "normal",
    "justify-content": "normal",
    "align-content": "normal",
    "gap": "0",
}


def shape_rules(shapes: Iterable[PageShape], key: str) -> Iterator[Rule]:
    """Of the roots and bodies of pages, and of the elements around their contents."""
    for shape in shapes:
        flow = f".{key}-{shape.id}"
        root, body = f":root:has({flow})", f"body:has({flow})"
        if shape.is_boxed:
            yield Rule(body, {**_BODY, **(_AS_HIGH if shape.is_tall else {"display": "block"})})
        if shape.has_ground:
            yield Rule(body, {"background": "none"})
        for rule in shape.heights:
            yield Rule(body, {"block-size": "auto", "min-block-size": rule.declared[-1][1]}, rule.within)
        if shape.clips:
            yield Rule(body, {"overflow": "clip visible"})
        if shape.is_shell:
            yield Rule(body, {"block-size": "100vh", "min-block-size": "0"})
            yield Rule(body, {"block-size": "100dvh"}, ("@supports (height:1dvh)",))
            yield Rule(flow, _SHELL)
        elif shape.is_tall and shape.is_boxed:
            yield Rule(f"{flow}-root" if shape.root else flow, {"flex": "1 0 auto", "inline-size": _WHOLE_WIDTH})
        if shape.root:
            yield Rule(root, {**_BODY, "display": "block"})
            yield Rule(f"{flow}-root", {"display": "flow-root"})
        for place, rules in ((f"{flow}-root", shape.root), (flow, shape.box)):
            for rule in rules:
                declared = {name: _there(name, value, shape, place) for name, value in rule.declared}
                yield Rule(place, declared, rule.within)


def _there(name: str, value: str, shape: PageShape, place: str) -> str:
    """What is declared for a root or a body, so that it means the same for an element in it."""
    if shape.is_tall and name in {"width", "inline-size"} and value == "auto":
        return _WHOLE_WIDTH
    if not place.endswith("-root"):
        return value
    return "flow-root" if (name, value) == ("display", "block") else _OF_FONT.sub(r"\1r\2", value)


_OF_FONT = re.compile(r"(?<![\w.-])(\d++(?:\.\d++)?|\.\d++)(em|ex|ch|lh)\b", re.IGNORECASE)
"""What is measured by the root's letters is so within a body that has others, too."""


def rules_of_parts(shapes: Iterable[PageShape], key: str) -> Iterator[Rule]:
    """What parts of a page that are pinned, or as high as the window, leave to the pieces."""
    for shape in shapes:
        here = f":is(:root:has(.{key}-{shape.id}) *)"
        yield from (Rule(rule.selector + here, dict(rule.declared), rule.within) for rule in shape.of_window)
        for rule in () if shape.is_shell else shape.at_edges:
            edge, distance = rule.declared[0]
            taken = {"top": ("notice", "header"), "bottom": ("bottom", "low")}[edge]
            terms = ["0px" if _ZERO.fullmatch(distance) else distance, *(f"var(--{key}-{kind},0px)" for kind in taken)]
            # At the lower edge it lies over what comes last, as it lies over all else.
            over = {"z-index": "9001"} if edge == "bottom" else {}
            yield Rule(rule.selector + here, {edge: f"calc({' + '.join(terms)})", **over}, rule.within)


_WITH_MARGINS = "h1,h2,h3,h4,h5,h6,p,ul,ol,dl,dir,menu,blockquote,figure,fieldset,pre,form,listing,plaintext,xmp"
_FIRST = f":where({','.join('&' + '>:first-child' * deep for deep in range(1, 5))}):where({_WITH_MARGINS})"
"""In quirks mode the usual margin of what stands first in a body counts for nothing (HTML, 15.3.10)."""


def rules_of_children(shapes: Iterable[PageShape], key: str) -> Iterator[Rule]:
    """What a page says of what stands right in its body, for what stands right in that element now. They are no stronger
    than the page's own, but for an element more in their selectors."""
    for shape in shapes:
        if shape.is_quirky:
            yield Rule(_FIRST.replace("&", f".{key}-{shape.id}"), {"margin-block-start": "0"})
        for rule in shape.children:
            selector = f"{rule.body} div:where(.{key}-{shape.id})>{rule.below}"
            yield Rule(selector, dict(rule.declared), rule.within)

"""What are a page's root and body like, as its own CSS lays them out?

Pieces stand in a body that is as wide as the window, one after the other. Where a page's own is not like that (it is
narrow, it has margins, it lays its children out in a row), its content gets a box of its own in which all of that holds.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from ..values.nodes import Node, NodeId, Value

Css = Annotated[str, StringConstraints(max_length=4000)]


class ShapeRule(Value):
    """What is declared in one rule, in its order. `within`: the conditions around it, from outside."""

    within: tuple[Css, ...] = ()
    declared: tuple[tuple[Css, Css], ...] = ()


class ChildRule(ShapeRule):
    """For what stands right in the body: `body` selects the body, `below` what is in it."""

    body: Css
    below: Css


class ElementRule(ShapeRule):
    """For elements of the page."""

    selector: Css


class PageShape(Node):
    """Of pages that share their sheets, their own styles, and the attributes of their root and body."""

    on: bool = Field(default=True, description="Pieces hold by it; else these pages are left as they are.")
    is_boxed: bool = Field(default=False, description="The content has a box of its own.")
    box: tuple[ShapeRule, ...] = Field(default=(), description="Of the body's box, in the order of the cascade.")
    root: tuple[ShapeRule, ...] = Field(default=(), description="Of the root's, where that is no plain one either.")
    children: tuple[ChildRule, ...] = ()
    heights: tuple[ShapeRule, ...] = Field(
        default=(), description="Heights of a body that does not scroll by itself: what is pinned in it needs more."
    )
    clips: bool = Field(
        default=False,
        description="The body hides what is too wide, and the root does, too: nothing could be pinned in it.",
    )
    is_tall: bool = Field(
        default=False, description="It has a height of its own, or lays out its children in one direction or a grid."
    )
    is_shell: bool = Field(default=False, description="The window does not scroll: parts of the page do, and fill it.")
    of_window: tuple[ElementRule, ...] = Field(
        default=(), description="Of a shell: heights that are parts of the window's."
    )
    at_edges: tuple[ElementRule, ...] = Field(
        default=(), description="How far from an edge of the window the page's own parts are pinned."
    )
    is_measured: bool = Field(default=False, description="A browser measured it, and the designer took it.")
    instead_of: NodeId | Literal[""] = Field(
        default="",
        description="Of what was measured: the shape that the page's own CSS tells; empty where it tells none.",
    )
    is_quirky: bool = Field(default=False, description="Browsers read it in quirks mode (HTML, 13.2.6.4.1).")
    has_ground: bool = Field(default=False, description="The body is painted by itself: the root has its own ground.")

"""Where in a page does something stand that is styled: what is in a role, a part of a node?"""

from __future__ import annotations

from typing import Any

from ...kinds.items.menu import MenuItem
from ...kinds.rows import Row
from ...style.resolve import StyledElement, Styling
from ...values.styling import Part
from ..naming import with_site_key

ROLE_SELECTORS: dict[str, str] = {
    "piece": ".rim:where(:not(.rim-float))",
    "float": ".rim-float",
    "row": ".rim-row",
    "cell": ".rim-cell",
    "block": ".rim-block",
    "divider": ".rim-divider",
    "upright": ".rim-upright",
    "menu": ".rim-menu",
    "text": ".rim-text",
    "title": ".rim-logo",
    "entry": ".rim-list :is(a:where(:not(.rim-link)),.rim-head)",
    "opener": ".rim-menu-button",
    "button": ".rim-button",
    "second": ".rim-second",
    "icon": ".rim-link",
    "link": ".rim-anchor",
    "heading-1": ".rim-heading-1",
    "heading-2": ".rim-heading-2",
    "heading-3": ".rim-heading-3",
    "list": ".rim-bullets",
    "mark": ".rim-bullets>li::marker",
    "field": ".rim-field",
    "ring": ".rim :focus-visible",
    "list-title": ".rim-list-title",
    "second-line": ".rim-more",
    "badge": ".rim-mark",
    "panel": ".rim-sub:where(.rim-list>li>*)",
    "drawer": ".rim-drawer",
    "veil": ".rim-drawer::backdrop",
    "close": ".rim-close",
    "label": ".rim-label",
    "caption": ".rim-figure>figcaption",
    "hint": ".rim-hint",
}
_LIKE_THEIR_ROLE: tuple[Part, ...] = (
    "second-line", "badge", "panel", "veil", "close", "link", "list", "heading-2", "heading-3", "label", "field", "button", "icon", "entry", "caption",
)  # fmt: skip
COLUMN_RULE = ">.rim-cells>.rim-cell::before"
PART_SELECTORS: dict[Part, str] = {
    "box": "",
    "title": " .rim-menu-button",
    "content": " .rim-list :is(a,.rim-head)",
    "lower": " .rim-sub :is(a,.rim-head)",
    "apart": " .rim-list .rim-apart",
    "arrow": " .rim-arrow",
    "bullet": f" {ROLE_SELECTORS['mark']}",
    "heading": f" {ROLE_SELECTORS['list-title']}",
    "opened": f" {ROLE_SELECTORS['drawer']}",
    **{part: f" {ROLE_SELECTORS[part]}" for part in _LIKE_THEIR_ROLE},
}
"""Behind the selector of an item; a hint stands beside it."""


def own_selector(holder: Any, part: Part) -> str:
    """Of a part of a node that is styled by itself."""
    if part == "hint":
        return f".rim-hinted:has(.rim-{holder.id})>.rim-hint"
    inner = COLUMN_RULE if isinstance(holder, Row) and part == "content" else PART_SELECTORS[part]
    inner = outside_drawers(inner) if inner and isinstance(holder, MenuItem) and holder.drawer else inner
    return f".rim-{holder.id}{inner}"


def selector_of(styling: Styling, element: StyledElement) -> str:
    """What matches a styled element on the site's pages, whatever its state; of a stage, its piece; of what is nothing but
    its role, all in that role in its piece."""
    holder = styling.holders.get(element.node)
    own = own_selector(holder, element.part) if holder is not None else f".rim-{element.piece}"
    if not element.node:
        own = f".rim-{element.piece} {ROLE_SELECTORS[element.role]}"
    return with_site_key(own, styling.site.key)


def outside_drawers(selector: str) -> str:
    """The same, but for nothing in a drawer's own rows, which are a piece by themselves within another one."""
    element, colons, pseudo = selector.partition("::")
    return f"{element}:where(:not(.rim-drawn *)){colons}{pseudo}"

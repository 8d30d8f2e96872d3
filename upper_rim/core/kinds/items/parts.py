"""What do several kinds of items have in common in their markup?"""

from __future__ import annotations

import re
from urllib.parse import quote

from ...values.scalars import WordsShown
from ...values.targets import Target
from ..context import PageContext
from ..markup import Attributes, Element, Markup, element

WORDS_CLASS: dict[WordsShown, str] = {"beside": "wordy", "below": "below"}
"""Classes of links whose words stand beside or below their icon."""


def icon(name: str, page: PageContext) -> Element:
    pointing = f" {page.name('points')}" if points(name) else ""
    return element("span", {"class": f"{page.name('icon')} {page.name('icon-' + name)}{pointing}"})


_SIDES = re.compile(r"(?:^|-)(?:left|right)(?=-|$)")
_ALONG_A_LINE = re.compile(
    r"external-link|forward|log-(?:in|out)|(?:message-.+-)?reply(?:-all)?|(?:redo|undo)(?:-.+)?|send(?:-horizontal)?|list(?:-.+)?|.*quote"
)


def points(name: str) -> bool:
    """Whether an icon of the general set points along a line of text, and so the other way where that runs from right to
    left: one that shows a side, or what is written or sent. What shows both sides, a clock, a player or a ship does not."""
    return len(_SIDES.findall(name)) == 1 or _ALONG_A_LINE.fullmatch(name) is not None


def link(
    target: Target, attributes: Attributes, page: PageContext, *content: Markup, new_window: bool = False
) -> Element:
    """A link; without a target, a placeholder link (HTML Standard, 4.6: an `a` without `href`). One that opens a window
    of its own says so (WCAG 2.2, G201)."""
    leads = page.destination(target)
    if leads.href is None:
        return element("a", {"role": "link", "aria-disabled": "true", **attributes}, *content)
    lead: Attributes = {"href": leads.href, "aria-current": "page" if leads.is_current else None}
    if not new_window:
        return element("a", {**attributes, **lead}, *content)
    said, named = page.phrase("new_window"), attributes.get("aria-label")
    window: Attributes = {"target": "_blank", "rel": "noopener"}
    if named:
        return element("a", {**attributes, **lead, **window, "aria-label": f"{named}, {said}"}, *content)
    note = element("span", {"class": page.name("unseen")}, f", {said}")
    return element("a", {**attributes, **lead, **window}, *content, note)


def title_over(title: str, item_id: str, page: PageContext) -> Element | None:
    """The title of a list; None where it has none."""
    if not title:
        return None
    return element("div", {"class": page.name("list-title"), "id": page.html_id(f"{item_id}-title")}, title)


def listed(page: PageContext, *lines: Markup) -> Element:
    return element("ul", {"class": page.name("list"), "role": "list"}, *lines)


def lazy(page: PageContext) -> str | None:
    """What is not in view at first waits until it nearly is (HTML Standard, 2.5.7)."""
    return None if page.early else "lazy"


def drawn_mask(path: str) -> dict[str, str]:
    """Declarations for a drawing among the site's files, in the colour of its text."""
    source = f'url("{quote(path, safe="/%.-_~")}") center/contain no-repeat'
    return {"mask": source, "background": "currentColor"}


def square(px: int) -> dict[str, str]:
    return {"inline-size": f"{px}px", "block-size": f"{px}px"}

"""What stands in a cell for an item: its markup with its hint, and what takes the place of its marks where no page
is."""

from __future__ import annotations

import re

from ...kinds.items import Item
from ...kinds.items.base import DiffersByPage, ShowsMenu
from ...kinds.marks import MARK
from ...kinds.markup import Element, Markup, element, html, takes_focus, with_attributes
from ...model.tree import items_of
from .menu_entries import entries_html
from .site_context import SiteContext


def item_markup(item: Item, context: SiteContext) -> tuple[Markup, ...]:
    markup = item.markup(context)
    return _with_hint(markup, item, context) if item.hint.text and markup else markup


def _with_hint(markup: tuple[Markup, ...], item: Item, context: SiteContext) -> tuple[Markup, ...]:
    """A hint that shows on pointing and on focus (WCAG 2.2 1.4.13); what cannot have the focus is made to, unless it says
    nothing: room and lines."""
    first, *others = markup
    assert isinstance(first, Element)
    hint_id = context.html_id(f"{item.id}-hint")
    said = first.attributes
    is_told = said.get("aria-hidden") != "true" and said.get("role") != "separator"
    focus = None if takes_focus(markup) or not is_told else "0"
    described = {"aria-describedby": hint_id if is_told else None, "tabindex": focus}
    hint = {"class": context.name("hint"), "role": "tooltip", "id": hint_id}
    return (
        element(
            "span",
            {"class": context.name("hinted"), "data-rim-hint": True},
            with_attributes(first, described),
            *others,
            element("span", hint, item.hint.in_language(context.language)),
        ),
    )


def on_no_page(markup: str, context: SiteContext) -> str:
    """A piece with its menus as they are where no page is the current one, and a sample of what differs by page."""
    items = {item.id: item for item in items_of(context.site.pieces)}

    def put(mark: re.Match[str]) -> str:
        item = items.get(mark[1] or mark[2])
        if isinstance(item, DiffersByPage):
            return html([item.sample(context)])
        return entries_html(item, context.within(mark[3])).html if isinstance(item, ShowsMenu) else ""

    return MARK.sub(put, markup)

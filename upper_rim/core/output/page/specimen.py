"""How does something look in each of its states? The real markup under the real CSS, with states that hold still.

Shown side by side in the studio, on the stage's own host.
"""

from __future__ import annotations

from html import escape
from typing import Any

from ...kinds.entries import Entry
from ...kinds.items.menu import MenuItem
from ...kinds.markup import html
from ...kinds.pieces.base import Piece
from ...kinds.rows import Cell, Row
from ...kinds.rule import Rule, css, inside
from ...languages import direction
from ...model.apply import apply
from ...model.edits import Set
from ...model.refusal import Refusal
from ...model.site import Menu, Site
from ...model.tree import ancestors, find
from ...style.resolve import StyledElement, Styling
from ...values.styling import STATES_OF, Part, State
from ...values.words import Words
from ..css.sheet import sheet
from ..naming import look_class, named, published_name
from ..shelf import Shelf
from .item_markup import item_markup, on_no_page
from .site_context import SiteContext, pageless

SHOWN_ROLES: tuple[tuple[str, str, str], ...] = (
    ("entry", "Menu entry", "Timetable"),
    ("button", "Button", "Book"),
    ("second", "Second button", "More"),
    ("title", "Title", "The site"),
    ("icon", "Icon link", ""),
    ("opener", "Menu button", ""),
    ("link", "Link", "a link in a text"),
    ("text", "Text", "Some words"),
    ("heading-1", "Heading 1", "A heading"),
    ("heading-2", "Heading 2", "A heading"),
    ("heading-3", "Heading 3", "A heading"),
    ("list", "List", "One;Two"),
    ("field", "Form field", "Written"),
)
"""Roles in the order in which they are shown: role, name, sample."""


_CENTRED = {"justify-content": "center", "align-items": "center"}
_STRIP = (
    Rule("html,body", {"margin": "0", "height": "100%", "overflow": "hidden"}),
    Rule(".strip", {"display": "flex", "height": "100%"}),
    Rule(".strip>div", {"flex": "1", "min-width": "0", "overflow": "hidden", "display": "flex"}),
    Rule(".strip .rim,.strip .rim>div,.strip .rim>div>div", {"flex": "1", "display": "flex", **_CENTRED}),
    Rule(
        ".rim-menu-button",
        {"display": "inline-flex", "align-items": "center", "justify-content": "center", "gap": "8px"},
    ),
    Rule(".rim-bullets", {"display": "block"}),
    Rule(".rim-bullets li", {"display": "list-item"}),
)
"""The strip's own rules. They stand in a layer before the site's, whose importance they would not outweigh
otherwise."""


def _document(site: Site, title: str, sheet: str, shown: list[str]) -> str:
    strip = css(inside(("@layer strip",), named(_STRIP, site.key)), is_important=True)
    cells = "".join(f"<div>{one}</div>" for one in shown)
    return (
        f'<!doctype html><html lang="{site.language}" dir="{direction(site.language)}"><meta charset="utf-8">'
        f"<title>{escape(title)}</title>"
        f"<style>{strip}{sheet}</style><body><div class=strip>{cells}</div>"
    )


def states_document(site: Site, shelf: Shelf, element: StyledElement, band: str | None, font_url: str) -> str:
    """A strip with a part of the site in each of its states, over the ground on which it stands."""
    site = _never_hidden(site, element.node)
    context = pageless(site, shelf, site.language)
    shown = [_around(site, element, _in_state(context, element, state)) for state in STATES_OF[element.role]]
    return _document(site, "States", sheet(site, shelf, font_url, forced=True, only_band=band or ""), shown)


def _never_hidden(site: Site, node_id: str) -> Site:
    """The site with a node, and all that it stands in, hidden in no band: a strip is looked at in a narrow frame."""
    for one in (node_id, *ancestors(site, node_id)):
        spot = find(site, one)
        if spot is not None and "hidden_in" in type(spot.node).model_fields:
            shown = apply(site, Set(node=one, field="hidden_in", value=[]))
            site = site if isinstance(shown, Refusal) else shown
    return site


def role_document(site: Site, shelf: Shelf, role: str, font_url: str) -> str:
    """The same for a role by itself, as the site's defaults have it."""
    sample = next(sample for listed, _, sample in SHOWN_ROLES if listed == role)
    key = site.key
    shown = [
        f'<header class="{key}"><div>{role_markup(site, role, state, sample)}</div></header>'
        for state in STATES_OF[role]
    ]
    widest = site.bands[-1].id if site.bands else ""
    return _document(site, role, sheet(site, shelf, font_url, forced=True, only_band=widest), shown)


def role_markup(site: Site, role: str, state: State, sample: str) -> str:
    """One element in a role and a state."""
    key = site.key
    forced = f" {key}-as-{state}" if state in {"hover", "focus", "pressed"} else ""
    current = ' aria-current="page"' if state == "current" else ""
    words = escape(sample)
    match role:
        case "entry":
            return f'<nav class="{key}-menu"><ul class="{key}-list"><li><a class="{forced.strip()}" href="#"{current}>{words}</a></li></ul></nav>'
        case "icon":
            return f'<a class="{key}-link{forced}" href="#"{current} aria-label="Icon"><span class="{key}-icon {key}-icon-menu"></span></a>'
        case "opener":
            return f'<button type="button" class="{key}-menu-button{forced}" aria-label="Menu"><span class="{key}-icon {key}-icon-menu"></span></button>'
        case "field":
            value = "" if state == "placeholder" else f' value="{words}"'
            said = {"disabled": " disabled", "invalid": ' aria-invalid="true"'}.get(state, "")
            return f'<input class="{key}-field{forced}" aria-label="Field" placeholder="Your name"{value}{said}>'
        case "list":
            return (
                f'<ul class="{key}-bullets">'
                + "".join(f"<li>{escape(one)}</li>" for one in sample.split(";"))
                + "</ul>"
            )
        case "heading-1" | "heading-2" | "heading-3":
            return f'<div class="{key}-{role}" role="heading" aria-level="{role[-1]}">{words}</div>'
        case "text":
            return f'<span class="{key}-text{forced}">{words}</span>'
    css_class = {"title": "logo", "link": "anchor"}.get(role, role)
    return f'<a class="{key}-{css_class}{forced}" href="#"{current}>{words}</a>'


def _in_state(context: SiteContext, element: StyledElement, state: State) -> str:
    spot = find(context.site, element.node)
    assert spot is not None
    item: Any = spot.node
    if isinstance(item, Piece | Row | Cell):
        return f'<span class="{context.name("text")}">Aa</span>'
    key = context.site.key
    forced = f"{key}-as-{state} " if state in {"hover", "focus", "pressed"} else ""
    current = ' aria-current="page"' if state == "current" else ""
    if isinstance(item, MenuItem):
        worn = " ".join(context.name(look_class(look, at)) for at, look in enumerate(item.wears))
        inner = _menu_part(context, item, element.part)
        inner = inner.replace("<a ", f'<a class="{forced.strip()}"{current} ', 1).replace(
            'class="', f'class="{forced}', 1
        )
        return f'<nav class="{context.name("menu")} {context.name(item.id)} {worn} {item.classes}">{inner}</nav>'
    markup = on_no_page(html(item_markup(item, context)), context)
    if element.part == "content":
        return markup.replace('<a class="', f'<a{current} class="{forced}', 1).replace(
            "<a href", f'<a{current} class="{forced.strip()}" href', 1
        )
    return markup.replace('class="', f'class="{forced}', 1).replace(" class=", f"{current} class=", 1)


def _menu_part(context: SiteContext, item: MenuItem, part: Part) -> str:
    if part == "title":
        return html([item.opener(context)])
    menu = context.site.menu(item.menu) or Menu(id="none", name="Menu")
    entry = next(iter(menu.entries), Entry(id="none", label=Words(text="Entry")))
    return f'<ul class="{context.name("list")}"><li><a href="#">{escape(context.links.label(entry, context.language) or "Entry")}</a></li></ul>'


def _around(site: Site, element: StyledElement, inner: str) -> str:
    """What an element stands on: its cell, its row, its piece, with their own looks."""
    styling = Styling(site)
    parent: StyledElement | None = element.parent if element.role == "column-rule" else element
    while parent is not None:
        holder = styling.holders[parent.node]
        if isinstance(holder, Piece | Row | Cell):
            kind = parent.role if parent.role in {"row", "cell"} else ""
            worn = (look_class(look, at) for at, look in enumerate(holder.wears))
            names = " ".join(published_name(site.key, name) for name in dict.fromkeys((kind, holder.id, *worn)))
            tag = "header" if isinstance(holder, Piece) else "div"
            centre = f" {site.key}-center" if isinstance(holder, Cell) else ""
            inner = f'<{tag} class="{names}{centre}">{inner}</{tag}>'
        parent = parent.parent
    return inner

"""How does something look in each of its states? The real markup under the real CSS, with states that hold still.

Shown side by side in the studio, on the stage's own host.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import Any

from ...kinds.entries import Entry
from ...kinds.items.base import DiffersByPage, ShowsMenu
from ...kinds.items.button import ButtonItem
from ...kinds.items.menu import MenuItem
from ...kinds.items.menu_entries import entries_markup
from ...kinds.items.rich import RichText
from ...kinds.marks import MARK
from ...kinds.markup import SLOT, Attributes, Element, Markup, Raw, element, html
from ...kinds.pieces.base import Piece
from ...kinds.pieces.header import Header
from ...kinds.rows import Cell, Row
from ...kinds.rule import Rule, css, inside
from ...languages import direction
from ...model.editing.apply import apply
from ...model.editing.edits import Set
from ...model.editing.refusal import Refusal
from ...model.site import Menu, Site
from ...model.tree import ancestors, find, items_of
from ...style.resolve import StyledElement, styling_of
from ...values.rich import RichWords
from ...values.styling import LOOK_PARTS, STATES_OF, Part, State
from ...values.words import Words
from ..css.sheet import sheet
from ..naming import look_class, named, published_name
from ..shelf import Shelf
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


IN_PIECE = "in-"
"""Begins the key of a piece's own defaults for a role, where parts are named: `in-link`."""
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
    Rule(
        ".strip :is(.rim-sub,.rim-drawer,.rim-hint,.rim-close,.rim-figure)", {"display": "block", "position": "static"}
    ),
    Rule(".strip :is(.rim-sub,.rim-drawer,.rim-hint)", {"inline-size": "auto", "min-inline-size": "0"}),
    Rule(".rim-bullets", {"display": "block"}),
    Rule(".rim-bullets li", {"display": "list-item"}),
)
"""The strip's own rules. They stand in a layer before the site's, whose importance they would not outweigh
otherwise."""


def _document(site: Site, title: str, sheet: str, shown: Iterable[Markup]) -> str:
    strip = css(inside(("@layer strip",), named(_STRIP, site.key)), is_important=True)
    cells = element("div", {"class": "strip"}, *(element("div", {}, one) for one in shown))
    whole = element(
        "html",
        {"lang": site.language, "dir": direction(site.language)},
        element("meta", {"charset": "utf-8"}),
        element("title", {}, title),
        element("style", {}, Raw(strip + sheet)),
        element("body", {}, cells),
    )
    return "<!doctype html>" + html([whole])


def states_document(site: Site, shelf: Shelf, element: StyledElement, band: str | None, font_url: str) -> str:
    """A strip with a part of the site in each of its states, over the ground on which it stands."""
    site = _never_hidden(site, element.node or element.piece)
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
    if role not in {listed for listed, *_ in SHOWN_ROLES}:
        raise ValueError(role)
    sample = sample_of(role)
    shown = (
        element("header", {"class": site.key}, element("div", {}, role_markup(site, role, state, sample)))
        for state in STATES_OF[role]
    )
    widest = site.bands[-1].id if site.bands else ""
    return _document(site, role, sheet(site, shelf, font_url, forced=True, only_band=widest), shown)


def look_document(site: Site, shelf: Shelf, look: str, font_url: str) -> str:
    """A text with a title, links and a list, a menu's entries and a button, each of which wears the look."""
    if all(one.id != look for one in site.looks):
        raise ValueError(look)
    site = site.replaced(pieces=(*site.pieces, _sample_piece(look)), menus=(*site.menus, _SAMPLE_MENU))
    context, styling = pageless(site, shelf, site.language), styling_of(site)
    shown = (
        _around(site, styling.elements[item.id, "box"], tuple(_on_no_page(item.markup(context), context)))
        for item in items_of(site.pieces[-1:])
    )
    widest = site.bands[-1].id if site.bands else ""
    return _document(site, "Look", sheet(site, shelf, font_url, forced=True, only_band=widest), shown)


_SAMPLE_RICH = (
    '<h2>A title</h2><p>A text of some words, with <a href="#">a link</a> in it.</p><ul><li>One</li><li>Two</li></ul>'
)
_SAMPLE_MENU = Menu(
    id="mn-look-sample",
    name="Sample",
    entries=tuple(Entry(id=f"en-look-{at}", label=Words(text=word)) for at, word in enumerate(("Here", "There"))),
)


def _sample_piece(look: str) -> Piece:
    items = (
        RichText(id="it-look-text", rich=RichWords(text=_SAMPLE_RICH), wears=(look,)),
        MenuItem(id="it-look-menu", menu=_SAMPLE_MENU.id, wears=(look,)),
        ButtonItem(id="it-look-button", words=Words(text="A button"), wears=(look,)),
    )
    cells = tuple(Cell(id=f"cl-look-{at}", items=(item,)) for at, item in enumerate(items))
    return Header(id="pc-look-sample", name="Sample", rows=(Row(id="rw-look-sample", name="Sample", cells=cells),))


def sample_of(role: str) -> str:
    """What is said where a role is shown by itself."""
    return next((words for listed, _, words in SHOWN_ROLES if listed == role), "Some words")


def role_markup(site: Site, role: str, state: State, sample: str) -> Element:
    """One element in a role and a state."""

    def named(name: str) -> Attributes:
        return {"class": f"{site.key}-{name}"}

    picture = element("span", {"class": f"{site.key}-icon {site.key}-icon-menu"})
    made: Element
    match role:
        case "panel" | "drawer" | "veil":
            within = element("ul", {"class": f"{site.key}-sub"}, element("li", {}, sample))
            opened = element("div", named("drawer"), element("span", {}, sample))
            return element("div", named("list"), element("div", {}, within)) if role == "panel" else opened
        case "list-title" | "second-line" | "badge" | "label" | "hint" | "caption":
            return _small_text(site, role, sample)
        case "close":
            cross = element("span", {"class": f"{site.key}-icon {site.key}-icon-x"})
            made = element("button", {"type": "button", **named("close"), "aria-label": "Close"}, cross)
        case "entry":
            link = _in_the_state(element("a", {"href": "#"}, sample), site, state)
            return element("nav", named("menu"), element("ul", named("list"), element("li", {}, link)))
        case "list":
            return element("ul", named("bullets"), *(element("li", {}, one) for one in sample.split(";")))
        case "heading-1" | "heading-2" | "heading-3":
            return element("div", {**named(role), "role": "heading", "aria-level": role[-1]}, sample)
        case "icon":
            made = element("a", {**named("link"), "href": "#", "aria-label": "Icon"}, picture)
        case "opener":
            made = element("button", {"type": "button", **named("menu-button"), "aria-label": "Menu"}, picture)
        case "field":
            made = element("input", {**named("field"), **_field_in(state, sample)})
        case "text":
            made = element("span", named("text"), sample)
        case _:
            made = element("a", {**named({"title": "logo", "link": "anchor"}.get(role, role)), "href": "#"}, sample)
    return _in_the_state(made, site, state)


def _small_text(site: Site, role: str, sample: str) -> Element:
    """What only says something, by the class that it has in an item."""
    name = {"badge": "mark", "caption": "figure", "second-line": "more"}.get(role, role)
    inner: Markup = element("figcaption", {}, sample) if role == "caption" else sample
    return element("span", {"class": f"{site.key}-{name}"}, inner)


def _field_in(state: State, written: str) -> Attributes:
    return {
        "aria-label": "Field",
        "placeholder": "Your name",
        "value": None if state == "placeholder" else written,
        "disabled": state == "disabled",
        "aria-invalid": "true" if state == "invalid" else None,
    }


def _in_the_state(node: Element, site: Site, state: State) -> Element:
    """The element in a state that holds still."""
    own = node.attributes.get("class")
    forced = f"{site.key}-as-{state}" if state in {"hover", "focus", "pressed"} else None
    classes = " ".join(str(name) for name in (forced, own) if name)
    said = {"class": classes or None, "aria-current": "page" if state == "current" and node.tag == "a" else None}
    return node._replace(attributes={**node.attributes, **said})


def _in_state(context: SiteContext, element_of: StyledElement, state: State) -> tuple[Markup, ...]:
    """The node that an element is of, with the element in that state."""
    if not element_of.node:
        return (role_markup(context.site, element_of.role, state, sample_of(element_of.role)),)
    spot = find(context.site, element_of.node)
    assert spot is not None
    item: Any = spot.node
    if isinstance(item, Piece | Row | Cell):
        return (element("span", {"class": context.name("text")}, "Aa"),)
    if element_of.part not in LOOK_PARTS:
        return (_part_in_state(context, item, element_of, state),)
    if isinstance(item, MenuItem):
        worn = (context.name(look_class(look, at)) for at, look in enumerate(item.wears))
        classes = " ".join(filter(None, (context.name("menu"), context.name(item.id), *worn, item.classes)))
        around = element("nav", {"class": classes}, *_menu_part(context, item, element_of.part))
        return tuple(_First("button" if element_of.part == "title" else "a", context.site, state).in_state([around]))
    markup = tuple(_on_no_page(item.markup(context), context))
    return tuple(_First("a" if element_of.part == "content" else "", context.site, state).in_state(markup))


def _part_in_state(context: SiteContext, item: Any, element_of: StyledElement, state: State) -> Element:
    """What stands in an item, by itself: the sample of its role, in what it has its styles from."""
    made = role_markup(context.site, element_of.role, state, sample_of(element_of.role))
    if element_of.part == "hint":
        return element("span", {"class": context.name("hinted")}, element("i", {"class": context.name(item.id)}), made)
    if element_of.part == "lower":
        made = element("div", {"class": context.name("sub")}, *made.children)
    if element_of.part == "arrow":
        made = made._replace(
            attributes={**made.attributes, "class": f"{made.attributes['class']} {context.name('arrow')}"}
        )
    if element_of.part == "apart":
        link = _in_the_state(
            element("a", {"href": "#", "class": context.name("apart")}, "Set apart"), context.site, state
        )
        made = element("ul", {"class": context.name("list")}, element("li", {}, link))
    if item.WITHIN.get(element_of.part) == "content":
        made = element("ul", {"class": context.name("list")}, element("li", {}, element("a", {"href": "#"}, made)))
    return element("div", {"class": f"{context.name('menu')} {context.name(item.id)}"}, made)


class _First:
    """The first element of a name, or the first of all, is put into a state."""

    def __init__(self, tag: str, site: Site, state: State) -> None:
        self._tag, self._site, self._state = tag, site, state
        self._is_found = False

    def in_state(self, markup: Iterable[Markup]) -> Iterator[Markup]:
        for node in markup:
            if self._is_found or not isinstance(node, Element):
                yield node
            elif self._tag in {"", node.tag}:
                self._is_found = True
                yield _in_the_state(node, self._site, self._state)
            else:
                yield node._replace(children=tuple(self.in_state(node.children)))


def _on_no_page(markup: Iterable[Markup], context: SiteContext) -> Iterator[Markup]:
    """With what stands there for marks where no page is the current one."""
    for node in markup:
        mark = MARK.fullmatch(node.html) if isinstance(node, Raw) else None
        spot = find(context.site, mark[1] or mark[2]) if mark else None
        item: Any = spot.node if spot else None
        if mark and isinstance(item, DiffersByPage):
            yield item.sample(context)
        elif mark and isinstance(item, ShowsMenu):
            there = context.within(mark[3])
            yield from _on_no_page(entries_markup(item, there, there.entries(item)), context)
        elif isinstance(node, Element):
            attributes = {name: value for name, value in node.attributes.items() if not SLOT.fullmatch(name)}
            yield Element(node.tag, attributes, tuple(_on_no_page(node.children, context)))
        else:
            yield node


def _menu_part(context: SiteContext, item: MenuItem, part: Part) -> tuple[Element, ...]:
    if part == "title":
        return (item.opener(context),)
    menu = context.site.menu(item.menu) or Menu(id="none", name="Menu")
    entry = next(iter(menu.entries), Entry(id="none", label=Words(text="Entry")))
    label = context.links.label(entry, context.language) or "Entry"
    link = element("a", {"href": "#"}, label)
    return (element("ul", {"class": context.name("list")}, element("li", {}, link)),)


def _around(site: Site, styled: StyledElement, inner: tuple[Markup, ...]) -> Markup:
    """What an element stands on: its cell, its row, its piece, with their own looks."""
    styling = styling_of(site)
    parent: StyledElement | None = styled.parent if styled.role == "column-rule" or not styled.node else styled
    while parent is not None:
        holder = styling.holders[parent.node]
        if isinstance(holder, Piece | Row | Cell):
            kind = parent.role if parent.role in {"row", "cell"} else ""
            worn = (look_class(look, at) for at, look in enumerate(holder.wears))
            names = [published_name(site.key, name) for name in dict.fromkeys((kind, holder.id, *worn))]
            if isinstance(holder, Cell):
                names.append(f"{site.key}-center")
            tag = "header" if isinstance(holder, Piece) else "div"
            inner = (element(tag, {"class": " ".join(names)}, *inner),)
        parent = parent.parent
    return inner[0]

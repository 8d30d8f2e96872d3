"""What is the HTML of an item, on a page in a given language, with a given page current?

Patterns follow the ARIA Authoring Practices: labelled navigation, disclosure.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from html import escape

from ..exchange.feed import Post
from ..languages import phrase
from ..model.items import (
    SEPARATORS,
    BackToTop,
    ButtonItem,
    Contact,
    Copyright,
    Divider,
    Form,
    IconLink,
    Item,
    LinkList,
    Logo,
    MapItem,
    MenuItem,
    Pager,
    PictureItem,
    PictureList,
    Posts,
    Profile,
    RichText,
    SearchBox,
    SocialRow,
    Spacer,
    Target,
    TextItem,
    Trail,
    Viewer,
)
from ..model.links import Links
from ..model.menus import Menus
from ..model.site import Menu, Site, drawer_width
from ..model.styling import Styled
from ..model.told import years_told
from ..model.trail import Step
from ..model.tree import items_of
from ..style.pictures import Picture
from .contact_html import contact_html
from .form_html import form_html
from .map_html import map_html
from .menu_html import written
from .naming import look_class, published_name
from .pager_html import pager_html
from .picture_html import picture_html, picture_list_html, viewer_html
from .rich_html import rich_html
from .search_html import search_html
from .shelf import Shelf


@dataclass(frozen=True)
class Scene:
    """For which page a piece is written: its language and, where items may lead to it, its id.

    `marks` adds the ids of nodes as `data-rim-node`, for the stage to tell what was pressed. `year` is the present one;
    None where it is not to be told.
    `holder`: the piece that shares a row of another one, which may stand on the same page. `heading`: the title that is the page's
    first heading, since the page has none. `posts` gives those of an item in a language, `sizes` where the smaller
    ones of a picture are and how wide, `early` is true where pictures are seen first, `drawn` gives what stands above and
    below a menu's entries in its drawer, `picture` one of the site's by its path. `index_path`: where the index of the pages in that language is;
    `late`: where the modules are that are fetched when something is used, by name.
    """

    site: Site
    links: Links
    menus: Menus
    shelf: Shelf
    language: str
    current: str | None
    marks: bool = False
    year: int | None = None
    index_path: str = ""
    holder: str = ""
    heading: str = ""
    posts: Callable[[Posts, str], Sequence[Post]] = lambda item, language: ()
    sizes: Callable[[PictureItem], Sequence[tuple[str, int]]] = lambda item: ()
    picture: Callable[[str], Picture | None] = lambda path: None
    early: bool = False
    drawn: Callable[[MenuItem, Scene], tuple[str, str]] = lambda item, scene: ("", "")
    late: Mapping[str, str] = field(default_factory=dict)

    def name(self, part: str = "") -> str:
        return published_name(self.site.key, part)

    def within(self, piece: str) -> Scene:
        return replace(self, holder=piece)

    def html_id(self, part: str) -> str:
        """An id that is the only one of its kind on a page."""
        return published_name(self.site.key, f"{part}-{self.holder}" if self.holder else part)

    def attributes(self, node: Styled, *classes: str) -> str:
        worn = (look_class(look, position) for position, look in enumerate(node.wears))
        names = " ".join([*(self.name(part) for part in (*classes, *worn)), *node.classes.split()])
        return f'class="{names}"{self.mark(node.id)}'

    def size(self, path: str, height_px: int | None = None) -> str:
        """Width and height of a picture as attributes, so that its room is kept until it is there: its natural ones, or
        those at a height."""
        seen = self.picture(path)
        if seen is None or seen.height <= 0:
            return "" if height_px is None else f' height="{height_px}"'
        scale = 1.0 if height_px is None else height_px / seen.height
        return f' width="{max(1, round(seen.width * scale))}" height="{max(1, round(seen.height * scale))}"'

    def mark(self, node_id: str) -> str:
        return f' data-rim-node="{node_id}"' if self.marks else ""


def pageless(site: Site, shelf: Shelf, language: str) -> Scene:
    """A scene on none of the site's pages."""
    links = Links(site)
    return Scene(site, links, Menus(site), shelf, language, None)


def item_html(item: Item, scene: Scene) -> str:
    html = _bare_html(item, scene)
    return _with_hint(html, item, scene) if item.hint.text and html else html


def _bare_html(item: Item, scene: Scene) -> str:
    match item:
        case Logo():
            return _logo(item, scene)
        case MenuItem():
            return _menu(item, scene)
        case TextItem():
            return f"<span {scene.attributes(item, 'text', item.id)}>{escape(item.words.in_language(scene.language))}</span>"
        case ButtonItem():
            words = escape(item.words.in_language(scene.language))
            return _linked(
                item.target,
                scene,
                scene.attributes(item, "second" if item.rank == "second" else "button", item.id),
                words,
            )
        case IconLink():
            return _icon_link(item, scene)
        case RichText():
            markup = rich_html(item.rich.in_language(scene.language), scene.site.key)
            return f"<div {scene.attributes(item, 'text', 'rich', item.id)} dir=auto>{markup}</div>"
        case PictureItem():
            return picture_html(item, scene)
        case LinkList():
            return _link_list(item, scene)
        case Trail():
            label = escape(phrase("trail", scene.language), quote=True)
            return f'<nav {scene.attributes(item, "menu", "trail", item.id)} aria-label="{label}">{trail_mark(item.id)}</nav>'
        case Contact():
            return contact_html(item, scene.attributes(item, "text", "contact", item.id), scene.name, scene.language)
        case SocialRow():
            return _social_row(item, scene)
        case Copyright():
            return _copyright(item, scene)
        case Divider():
            shape = "upright" if item.upright else "divider"
            return f'<div {scene.attributes(item, shape, item.id)} role="separator"></div>'
        case Spacer():
            return f'<div {scene.attributes(item, "block", "spacer", item.id)} aria-hidden="true"><span></span></div>'
        case BackToTop():
            words = escape(item.words.in_language(scene.language) or phrase("top", scene.language))
            after = f' data-rim-until="{item.after_px}"' if item.after_px else ""
            return f'<a {scene.attributes(item, "second", item.id)} href="#"{after}>{words}</a>'
        case SearchBox():
            return search_html(item, scene)
        case PictureList():
            return picture_list_html(item, scene)
        case Pager():
            return pager_html(item, scene)
        case Viewer():
            return viewer_html(item, scene)
        case Form():
            return form_html(item, scene)
        case Posts():
            return _posts(item, scene)
        case MapItem():
            return map_html(item, scene)


_ROOT = re.compile(r"<([a-z]+)")
_STOPS = re.compile(r"<(?:a[^>]* href=|button|input|select|textarea)")


def _with_hint(html: str, item: Item, scene: Scene) -> str:
    """A hint that shows on pointing and on focus (WCAG 2.2 1.4.13); what cannot have the focus is made to."""
    words = escape(item.hint.in_language(scene.language))
    hint_id = scene.html_id(f"{item.id}-hint")
    stop = "" if _STOPS.search(html) else ' tabindex="0"'
    described = _ROOT.sub(lambda root: f'<{root[1]} aria-describedby="{hint_id}"{stop}', html, count=1)
    return (
        f'<span class="{scene.name("hinted")}" data-rim-hint>{described}'
        f'<span class="{scene.name("hint")}" role="tooltip" id="{hint_id}">{words}</span></span>'
    )


WORDY = {"beside": "wordy", "below": "below"}
"""Classes of links whose words stand beside or below their icon."""


def _icon_link(item: IconLink, scene: Scene) -> str:
    name = escape(item.words.in_language(scene.language), quote=True)
    icon = _icon(scene, f"own-{item.id}" if item.picture else item.icon)
    if item.words_shown == "none":
        return _linked(item.target, scene, f'{scene.attributes(item, "link", item.id)} aria-label="{name}"', icon)
    classes = ("link", WORDY[item.words_shown], item.id)
    return _linked(item.target, scene, scene.attributes(item, *classes), f"{icon}<span>{name}</span>")


def _icon(scene: Scene, icon: str) -> str:
    return f'<span class="{scene.name("icon")} {scene.name("icon-" + icon)}"></span>'


def _link_list(item: LinkList, scene: Scene) -> str:
    title = escape(item.words.in_language(scene.language), quote=True)
    listed = entries_mark(item, scene)
    title_id = scene.html_id(f"{item.id}-title")
    head = f'<div class="{scene.name("list-title")}" id="{title_id}">{title}</div>' if title else ""
    named = (
        f'aria-labelledby="{title_id}"'
        if title
        else f'aria-label="{escape(_name_of(scene.site.menu(item.menu)), quote=True)}"'
    )
    attributes = scene.attributes(item, "menu", "links", item.id)
    return f'<nav {attributes} {named}>{head}<ul class="{scene.name("list")}" role="list">{listed}</ul></nav>'


def _posts(item: Posts, scene: Scene) -> str:
    title = escape(item.words.in_language(scene.language), quote=True)
    listed = "".join(
        f'<li><a href="{escape(post.address, quote=True)}">{escape(post.title)}</a>'
        + (f'<time datetime="{post.date}">{post.date}</time>' if item.dates_shown and post.date else "")
        + "</li>"
        for post in scene.posts(item, scene.language)[: item.count]
    )
    title_id = scene.html_id(f"{item.id}-title")
    head = f'<div class="{scene.name("list-title")}" id="{title_id}">{title}</div>' if title else ""
    attributes = scene.attributes(item, "menu", "links", "posts", item.id)
    return f'<div {attributes}>{head}<ul class="{scene.name("list")}" role="list">{listed}</ul></div>'


def _name_of(menu: Menu | None) -> str:
    return menu.name if menu else "Links"


def _social_row(item: SocialRow, scene: Scene) -> str:
    listed = "".join(f"<li>{_profile(profile, item, scene)}</li>" for profile in item.profiles)
    return (
        f"<div {scene.attributes(item, 'menu', 'social', item.id)}>"
        f'<ul class="{scene.name("list")}" role="list">{listed}</ul></div>'
    )


def _profile(profile: Profile, item: SocialRow, scene: Scene) -> str:
    mark = scene.shelf.brands.mark(profile.address)
    name = escape(profile.name or mark.title, quote=True)
    web = not profile.address.startswith(("mailto:", "tel:"))
    window = item.new_window and web
    note = f" ({phrase('new_window', scene.language)})" if window else ""
    opening = ' target="_blank" rel="noopener me"' if window else ' rel="me"' if web else ""
    label = f' aria-label="{name}{escape(note)}"' if item.words_shown == "none" or window else ""
    words = "" if item.words_shown == "none" else f"<span>{name}</span>"
    classes = ("link", *([WORDY[item.words_shown]] if words else []), *([profile.id] if profile.colour else []))
    shown = " ".join(scene.name(part) for part in classes)
    href = escape(profile.address, quote=True)
    return (
        f'<a class="{shown}" href="{href}"{opening}{label}{scene.mark(profile.id)}>{_icon(scene, mark.icon)}{words}</a>'
    )


def _copyright(item: Copyright, scene: Scene) -> str:
    holder = escape(item.words.in_language(scene.language) or scene.site.name)
    years = years_told(item, scene.year)
    parts = " ".join(
        part
        for part in (
            "©",
            f'<span dir="ltr" data-rim-year="{item.first_year or 0}">{years}</span>' if years else "",
            holder,
        )
        if part
    )
    return f"<span {scene.attributes(item, 'text', item.id)}>{parts}</span>"


def _linked(target: Target, scene: Scene, attributes: str, content: str) -> str:
    """A link; without a target, a placeholder link (HTML Standard, 4.6: an `a` without `href`)."""
    href, page = scene.links.resolve(target, scene.language)
    if href is None:
        return f'<a role="link" aria-disabled="true" {attributes}>{content}</a>'
    current = ' aria-current="page"' if page is not None and page.id == scene.current else ""
    return f'<a {attributes} href="{escape(href, quote=True)}"{current}>{content}</a>'


def _logo(item: Logo, scene: Scene) -> str:
    words = escape(item.words.in_language(scene.language) or scene.site.name, quote=True)
    content = words
    if item.picture:
        content = (
            f'<img src="{escape(item.picture, quote=True)}" alt="{words}"{scene.size(item.picture, item.height_px)}>'
        )
    front = escape(scene.links.front(scene.language), quote=True)
    link = f'<a {scene.attributes(item, "logo", item.id)} href="{front}">{content}</a>'
    return f'<h1 class="{scene.name("plain")}">{link}</h1>' if item.id == scene.heading else link


def _menu(item: MenuItem, scene: Scene) -> str:
    menu = scene.site.menu(item.menu)
    if menu is None:
        return f"<div {scene.attributes(item, item.id)}></div>"
    below = drawer_width(item, scene.site)
    entries = f'<ul class="{scene.name("list")}" role="list">{entries_mark(item, scene)}</ul>'
    label = escape(menu.name, quote=True)
    classes = ["menu", item.id, *_ways(item, below)]
    said = f' aria-label="{label}"' + (" data-rim-single" if item.one_at_a_time else "")
    said += f' data-rim-hover data-rim-late="{scene.late.get("hover", "")}"' if item.opens_on_hover else ""
    said += " data-rim-column" if item.way == "column" else ""
    if below is None:
        return f"<nav {scene.attributes(item, *classes)}{said}>{entries}</nav>"
    drawer_id = scene.html_id(f"{item.id}-drawer")
    close = escape(phrase("close", scene.language), quote=True)
    asked, late = f"(max-width:{below - 0.02:.2f}px)", scene.late.get("drawer", "")
    watched = f' data-rim-drawer="{asked}" data-rim-late="{late}"'
    opening = f' popovertarget="{drawer_id}" aria-controls="{drawer_id}"{watched}'
    above, under = scene.drawn(item, scene)
    return (
        f"<nav {scene.attributes(item, *classes)}{said}>"
        f"{opener_html(item, scene, opening)}"
        f'<div class="{scene.name("drawer")}" id="{drawer_id}" popover>'
        f'<button type="button" class="{scene.name("close")}" popovertarget="{drawer_id}" popovertargetaction="hide" aria-label="{close}">'
        f'<span class="{scene.name("icon")} {scene.name("icon-x")}"></span></button>{above}{entries}{under}</div></nav>'
    )


def _ways(item: MenuItem, below: int | None) -> list[str]:
    """Classes that say how a menu shows itself, and how what its button opens does."""
    classes: list[str] = [item.way] if item.way != "row" else []
    if item.way == "row" and item.panels == "wide":
        classes.append("panels")
    if item.has_toggles:
        classes += ["toggles", *(["levels"] if item.submenus == "levels" else [])]
    if below is not None:
        classes += [f"below-{below}", f"from-{item.drawer_side}"]
        classes += ["pushes"] if item.drawer_pushes and item.drawer_side in {"start", "end"} else []
    return classes


def opener_html(item: MenuItem, scene: Scene, opening: str = "") -> str:
    """The button that stands for the menu below its width. `opening`: attributes that tie it to its drawer."""
    words = escape(item.button_words.in_language(scene.language) or "Menu", quote=True)
    icon = _icon(scene, f"own-{item.id}" if item.button_picture else item.button_icon)
    if item.button_turns:
        cross = _icon(scene, "x")
        icon = f'<span class="{scene.name("turning")}">{icon}{cross}</span>'
    opened = item.button_words_open.in_language(scene.language)
    if opened and item.button_words_shown:
        words = f'<span class="{scene.name("shut-words")}">{words}</span><span class="{scene.name("open-words")}">{escape(opened)}</span>'
    said = f"<span>{words}</span>" if item.button_words_shown else ""
    face = said + icon if item.button_words_first else icon + said
    naming = "" if item.button_words_shown else f' aria-label="{words}"'
    return f'<button type="button" class="{scene.name("menu-button")}"{opening}{naming}>{face}</button>'


def trail_mark(item_id: str) -> str:
    """Stands in a piece for the trail of the page on which it will be: pieces are written once for many pages."""
    return f"<!--rim-trail-{item_id}-->"


def entries_mark(item: MenuItem | LinkList, scene: Scene) -> str:
    """The same for the entries of a menu, which differ from page to page by where it stands among them."""
    return f"<!--rim-entries {item.id} {scene.holder}-->"


MARK = re.compile(r"<!--rim-(?:trail-([a-z0-9-]+)|entries ([a-z0-9-]+) ([a-z0-9-]*))-->")
"""A trail's item; or a menu's item, and the piece that shares its row."""


def on_no_page(html: str, scene: Scene) -> str:
    """A piece with its menus as they are where no page is the current one, and its trails as a sample."""
    items = {item.id: item for item in items_of(scene.site.pieces)}

    def put(mark: re.Match[str]) -> str:
        item = items.get(mark[1] or mark[2])
        if isinstance(item, Trail):
            return sample_trail(item, scene)
        if not isinstance(item, MenuItem | LinkList):
            return ""
        return written(item, scene.within(mark[3])).html

    return MARK.sub(put, html)


def sample_trail(item: Trail, scene: Scene) -> str:
    """A trail with all that one can have, on no page."""
    return trail_html(item, (Step(scene.site.name, "/"), Step("…", None)), scene)


def trail_html(item: Trail, steps: Sequence[Step], scene: Scene) -> str:
    """An ordered list of links, the page itself last (ARIA Authoring Practices: breadcrumb)."""
    lines = []
    for at, (words, href) in enumerate(steps):
        parting = f'<span aria-hidden="true">{SEPARATORS[item.separator]}</span>' if at else ""
        here = ' aria-current="page"' if at == len(steps) - 1 else ""
        said = escape(words)
        link = (
            f'<a href="{escape(href, quote=True)}">{said}</a>'
            if href
            else f'<span class="{scene.name("head")}"{here}>{said}</span>'
        )
        lines.append(f"<li>{parting}{link}</li>")
    return f'<ol class="{scene.name("list")}" role="list">{"".join(lines)}</ol>'

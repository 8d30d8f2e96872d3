"""How is a menu shown, and which part of it: with which controls is that set?"""

from __future__ import annotations

from .....core.kinds.entries import Entry
from .....core.kinds.items.links import LinkList
from .....core.kinds.items.menu import MenuItem
from .....core.kinds.pieces.drawer import Drawer
from .....core.model.navigation.links import Links
from .....core.model.navigation.menus import Menus, all_entries
from .....core.model.site import Site
from ..control import Control, Group, choice, number, px, words, yes
from ..of_entries import entry_name

MOST_OFFERED, MOST_BRANCHES = 8, 60
"""So many entries are offered to be left out where a menu is used; with more, so many of the first level."""


_WAYS = (("row", "a row"), ("column", "a column"), ("columns", "columns"))
PANELS = (("narrow", "lists"), ("wide", "wide panels"))
_SIDES = (
    ("start", "the start"),
    ("end", "the end"),
    ("top", "the top"),
    ("bottom", "the bottom"),
    ("whole", "whole screen"),
)
SUBMENUS = (
    ("open", "all open"),
    ("current", "current open"),
    ("shut", "shut at first"),
    ("levels", "level by level"),
)


def groups(item: MenuItem, site: Site) -> list[Group]:
    """How a menu is shown, and what its button opens; what could not have an effect is left out."""
    opens = item.has_button
    groups = [
        Group("Menu", menu_use(item, site)),
        Group("Way", [*_way(item), *_below_each_other(item, site)]),
        Group("Button opens" if opens else "On small screens", _opening(item, site)),
    ]
    return [*groups, Group("Button", _button(item, site))] if opens else groups


def _way(item: MenuItem) -> list[Control]:
    shown = [choice(item, "way", "Shown as", _WAYS)]
    if item.way == "row":
        shown += [px(item, "gap_px", "Between", 200), choice(item, "panels", "Submenus", PANELS)]
        shown += [number(item, "panel_columns", "Columns", "", 1, 6)] if item.panels == "wide" else []
        shown += [yes(item, "on_hover", "Open on hover, too")]
    return shown


def _below_each_other(item: MenuItem, site: Site) -> list[Control]:
    """What stands in its drawer, and how entries do that stand below each other."""
    listed = []
    drawers = [(piece.id, piece.name) for piece in site.pieces if isinstance(piece, Drawer)]
    if item.has_button and drawers:
        listed.append(
            Control("choice", "Drawer holds", item.id, "drawer", item.drawer or "", [("", "entries only"), *drawers])
        )
    if item.has_button or item.way == "column":
        listed.append(choice(item, "submenus", "Submenus" if item.way == "column" else "Drawer’s submenus", SUBMENUS))
        listed += [yes(item, "one_at_a_time", "Only one at a time")] if item.submenus in {"current", "shut"} else []
    return listed


def _opening(item: MenuItem, site: Site) -> list[Control]:
    """Where the button shows, and how what it opens comes in."""
    never = [("", "never")] + [
        (band.id, f"below {band.name} ({band.from_px} px)") for band in site.bands if band.from_px > 0
    ]
    below = Control("choice", "Button", item.id, "drawer_below", item.drawer_below or "", never)
    opening = [*([] if item.drawer_always else [below]), yes(item, "drawer_always", "Button at all widths")]
    if item.has_button:
        opening += [] if item.drawer_always else [yes(item, "drawer_when_full", "Where it stops fitting")]
        opening.append(choice(item, "drawer_side", "Opens at", _SIDES))
        if item.drawer_side != "whole":
            across = "Height" if item.drawer_side in {"top", "bottom"} else "Width"
            opening.append(number(item, "drawer_px", across, "px", 160, 2000))
        opening.append(number(item, "drawer_ms", "Comes in", "ms", 0, 2000))
        if item.drawer_side in {"start", "end"}:
            opening.append(yes(item, "drawer_pushes", "The page gives way"))
    return opening


def _button(item: MenuItem, site: Site) -> list[Control]:
    face = [
        Control("icon", "Icon", item.id, "button_icon", item.button_icon, suggestions="icons"),
        *_drawing(item, site),
        yes(item, "button_turns", "Turns into a cross"),
        yes(item, "button_words_shown", "Word beside the icon"),
        *([yes(item, "button_words_first", "Word first")] if item.button_words_shown else []),
        *words(item, "button_words", "It says", site),
    ]
    return [*face, *(words(item, "button_words_open", "When open", site) if item.button_words_shown else ())]


def _drawing(item: MenuItem, site: Site) -> list[Control]:
    """A drawing in place of the icon: it takes the colour of its text, which photographs cannot."""
    drawings = [(asset.path, asset.path) for asset in site.assets if asset.path.lower().endswith(".svg")]
    return [choice(item, "button_picture", "Drawing", [("", "the icon above"), *drawings])] if drawings else []


def menu_use(item: MenuItem | LinkList, site: Site) -> list[Control]:
    """Which menu an item shows, and how much of it."""
    menus = [("", "none yet")] + [(menu.id, menu.name) for menu in site.menus]
    controls = [Control("choice", "Menu", item.id, "menu", item.menu or "", menus)]
    if not site.menus:
        controls = [Control("make", "Make a menu of the site’s pages", item.id, "menu", "menu-of-pages")]
    menu = site.menu(item.menu)
    if menu is None:
        return controls
    links, grown = Links(site), Menus(site)
    branches = [one for one in all_entries(grown.whole(menu)) if one.entries][:MOST_BRANCHES]
    listed = [("", "whole menu")] + [(one.id, f"below {entry_name(one, links, site.language)}") for one in branches]
    if len(listed) > 1:
        controls.append(choice(item, "branch", "Which", listed))
    if isinstance(item, MenuItem) and len(listed) > 1:
        controls.append(number(item, "depth", "Levels", "", 1, 9))
    offered = offered_entries(item, grown)
    if len(offered) > 1:
        shown = {one.id for one in offered} - set(item.without)
        names = [(one.id, entry_name(one, links, site.language)) for one in offered]
        controls.append(Control("bands", "Shown entries", item.id, "without", shown, names))
    return controls


def offered_entries(item: MenuItem | LinkList, menus: Menus) -> list[Entry]:
    """Entries that an item can leave out: those of two levels, or of the first where these are many."""
    levels = 1 if isinstance(item, LinkList) else 2
    everything = item.replaced(without=(), **({"depth": levels} if isinstance(item, MenuItem) else {}))
    entries = menus.shown(everything)
    listed = list(all_entries(entries))
    return listed if len(listed) <= MOST_OFFERED else list(entries[:MOST_BRANCHES])

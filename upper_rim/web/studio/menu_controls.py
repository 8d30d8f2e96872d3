"""What of a menu's entry can be changed, and with which controls?"""

from __future__ import annotations

from ...core.model.items import LinkList, MenuItem
from ...core.model.links import Links
from ...core.model.menus import Menus, all_entries
from ...core.model.site import Entry, Site
from .control import Control, Group, choice, link, number, pictures, words, yes

MOST_BRANCHES = 60
"""So many entries are offered to be left out where a menu is used; with more, the first level's only."""


def entry_name(entry: Entry, links: Links, language: str) -> str:
    """What an entry is called: its label, or the title of its page."""
    return links.label(entry, language) or "An entry without a label"


def entry_groups(entry: Entry, site: Site) -> list[Group]:
    return [
        Group("It says", [*words(entry, "label", "Label", site), *_more_words(entry, "second", "Second line", site)]),
        Group("It leads to", [link(entry, site), yes(entry, "new_window", "Opens a new window")]),
        Group(
            "Beside it",
            [
                *_more_words(entry, "mark", "Mark", site),
                Control("text", "Icon", entry.id, "icon", entry.icon or "", suggestions="icons", hint="none"),
                pictures(entry, "picture", site, "none"),
            ],
        ),
    ]


def _more_words(entry: Entry, name: str, label: str, site: Site) -> list[Control]:
    """Words that few entries have: in other languages once there are any."""
    controls = list(words(entry, name, label, site))
    return controls if getattr(entry, name).text else controls[:1]


def menu_use(item: MenuItem | LinkList, site: Site) -> list[Control]:
    """Which menu an item shows, and how much of it."""
    menus = [("", "none yet")] + [(menu.id, menu.name) for menu in site.menus]
    controls = [Control("choice", "Menu", item.id, "menu", item.menu or "", menus)]
    menu = site.menu(item.menu)
    if menu is None:
        return controls
    links, grown = Links(site), Menus(site)
    branches = [one for one in all_entries(grown.whole(menu)) if one.entries][:MOST_BRANCHES]
    listed = [("", "the whole menu")] + [(one.id, f"below {entry_name(one, links, site.language)}") for one in branches]
    if len(listed) > 1:
        controls.append(choice(item, "branch", "Which", listed))
    if isinstance(item, MenuItem) and len(listed) > 1:
        controls.append(number(item, "depth", "Levels", "", 1, 9))
    offered = offered_entries(item, site)
    if len(offered) > 1:
        shown = {one.id for one in offered} - set(item.without)
        names = [(one.id, entry_name(one, links, site.language)) for one in offered]
        controls.append(Control("bands", "Shown entries", item.id, "without", shown, names))
    return controls


def offered_entries(item: MenuItem | LinkList, site: Site) -> list[Entry]:
    """Entries that an item can leave out: those of two levels, or of the first where these are many."""
    levels = 1 if isinstance(item, LinkList) else 2
    everything = item.replaced(without=(), **({"depth": levels} if isinstance(item, MenuItem) else {}))
    entries = Menus(site).shown(everything)
    listed = list(all_entries(entries))
    return listed if len(listed) <= MOST_BRANCHES else list(entries[:MOST_BRANCHES])

"""What of a menu's entry can be changed, and with which controls?"""

from __future__ import annotations

from ....core.kinds.entries import Entry
from ....core.model.navigation.links import Links
from ....core.model.site import Site
from .control import Control, Group, link_control, note, pictures, told_whether_set, words, yes


def entry_name(entry: Entry, links: Links, language: str) -> str:
    """What an entry is called: its label, or the title of its page."""
    return links.label(entry, language) or "An entry without a label"


def entry_groups(entry: Entry, site: Site) -> list[Group]:
    groups = [
        Group("It says", [*words(entry, "label", "Label", site), *words(entry, "second", "Second line", site)]),
        Group("It leads to", [link_control(entry, site), yes(entry, "new_window", "Opens a new window")]),
        Group(
            "Beside it",
            [
                *words(entry, "mark", "Mark", site),
                Control("text", "Icon", entry.id, "icon", entry.icon or "", suggestions="icons", hint="none"),
                pictures(entry, "picture", site, "none"),
                yes(entry, "apart", "Set apart: it looks otherwise"),
                *([note(entry, _APART)] if entry.apart else []),
            ],
        ),
    ]
    return told_whether_set(groups, entry)


_APART = "In the first level of a menu. How it looks is set on the workbench: choose the menu, and of its parts “Entries set apart”."

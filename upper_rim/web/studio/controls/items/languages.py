"""With which controls is a language switch changed?"""

from __future__ import annotations

from .....core.kinds.items.languages import LanguageSwitch
from .....core.model.site import Site
from .....core.model.tree import ROOT
from ..control import Control, Group, choice, words, yes

WAYS = (("row", "beside each other"), ("list", "below each other"), ("button", "behind a button"))
SIDES = (("start", "start"), ("end", "end"))
PICTURES = (("none", "none"), ("before", "before the names"), ("alone", "instead of the names"))
NAMES = (("own", "as their readers call them"), ("here", "in the page’s language"), ("code", "their codes"))
UNTRANSLATED = (
    ("above", "the nearest page above it"),
    ("front", "the front page"),
    ("stay", "nowhere: it is not a link"),
    ("hide", "leave the language out"),
)


def groups(node: LanguageSwitch, site: Site) -> list[Group]:
    return [
        Group(
            "Languages",
            [
                choice(node, "way", "Stand", WAYS),
                *([choice(node, "side", "Panel at its", SIDES)] if node.way == "button" else []),
                choice(node, "names", "Named", NAMES),
                choice(node, "pictures", "Pictures", PICTURES),
                *([yes(node, "hides_current", "Leave out the page’s own")] if node.way != "button" else []),
                *words(node, "words", "Before them", site),
                yes(node, "suggests", "Suggest theirs to those who ask for another"),
            ],
        ),
        Group(
            "Where a page is not translated",
            [Control("choice", "Lead to", ROOT, "untranslated", site.untranslated, UNTRANSLATED)],
        ),
    ]

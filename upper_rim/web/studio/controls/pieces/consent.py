"""With which controls is a question about consent changed, and what it asks for?"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from .....core.gates.consent import shipped_table
from .....core.kinds.consent import Category
from .....core.kinds.pieces.consent import ConsentQuestion
from .....core.model.site import Site
from .....core.model.tree import ROOT
from .....core.values.words import Words
from ..control import Control, Group, choice, number, px, words, yes
from .gate import PLACES, comes

_PLACES = (
    ("bar-bottom", "bar, at the bottom"),
    ("bar-top", "bar, at the top"),
    *((place, f"box, {name}") for place, name in PLACES),
    ("whole", "over all of the window"),
)


def groups(piece: ConsentQuestion, site: Site) -> list[Group]:
    place = [choice(piece, "place", "It stands", _PLACES)]
    if not piece.is_bar:
        place += [px(piece, "width_px", "As wide as", 4000), px(piece, "inset_px", "From the edges", 200)]
    place += [*comes(piece), number(piece, "out_ms", "Goes in", "ms", 0, 2000)]
    return [Group("Place", place), Group("Answers", _rules(site)), *(_category(one, site) for one in site.categories)]


def _rules(site: Site) -> list[Control]:
    rules = site.consent
    modes = ", ".join(f"{one.region} {one.mode}" for one in rules.modes)

    return [
        Control("number", "Count for", ROOT, "consent.days", rules.days, unit="days", least=0, greatest=3650),
        Control(
            "number", "Stay on record", ROOT, "consent.kept_days", rules.kept_days, unit="days", least=1, greatest=3650
        ),
        Control("yes", "A browser’s signal is a no", ROOT, "consent.heeds_signal", rules.heeds_signal),
        Control(
            "text",
            "Other than in the table",
            ROOT,
            "consent.modes",
            modes,
            hint=f"US opt-in, CH notice; the table is of {shipped_table().as_of}",
        ),
    ]


def _category(category: Category, site: Site) -> Group:
    """Where the site has no words of its own, those that ship are shown as a hint."""
    name = category.called(site.language)
    bare = category.replaced(words=Words(), about=Words())

    def said(field: str, label: str, shipped: Callable[[str], str]) -> list[Control]:
        (own,) = words(category, field, label, site)
        others = [replace(one, hint=shipped(one.language)) for one in own.others]
        return [replace(own, hint=shipped(site.language), others=others)]

    controls = [*said("words", "Called", bare.called), *said("about", "Said of it", bare.told)]
    if not category.is_necessary:
        cookies = ", ".join(category.cookies)
        hint = "names; a star for what follows: tm_*"
        controls += [
            yes(category, "is_sold", "A browser’s signal speaks of it"),
            Control("text", "Its cookies", category.id, "cookies", cookies, hint=hint),
        ]
    return Group(name if category.is_necessary else f"May be agreed to: {name}", controls)

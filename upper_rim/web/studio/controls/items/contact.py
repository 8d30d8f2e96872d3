"""With which controls is contact details changed?"""

from __future__ import annotations

from collections.abc import Iterable
from typing import get_args

from .....core.kinds.items.contact import BusinessKind, Contact, Day, Hours, joined_days
from .....core.model.site import Site
from ..control import Control, Group, choice, text

BUSINESSES: list[tuple[BusinessKind, str]] = [
    ("Organization", "Organisation"),
    ("LocalBusiness", "Local business"),
    ("Store", "Shop"),
    ("TravelAgency", "Travel agency"),
    ("Restaurant", "Restaurant"),
    ("LodgingBusiness", "Place to stay"),
    ("EducationalOrganization", "School or college"),
]
"""Each kind in words."""


def groups(node: Contact, site: Site) -> list[Group]:
    return [
        Group("Who", [text(node, "name", "Name"), choice(node, "business", "Is a", BUSINESSES)]),
        Group(
            "Where",
            [
                text(node, "street", "Street"),
                text(node, "postcode", "Postcode"),
                text(node, "town", "Town"),
                text(node, "country", "Country (two letters)"),
            ],
        ),
        Group("How", [text(node, "telephone", "Telephone"), text(node, "mail", "Mail")]),
        Group(
            "Hours",
            [
                Control(
                    "lines",
                    "Open",
                    node.id,
                    "hours",
                    hours_in_lines(node.hours),
                    hint="Mo-Fr 09:00-17:30, a line each",
                )
            ],
        ),
    ]


def hours_in_lines(hours: Iterable[Hours]) -> str:
    """Opening hours as they are typed: `Mo-Fr 09:00-17:30`."""
    names = list(get_args(Day))
    return "\n".join(f"{joined_days(one, names, '-', ',')} {one.opens}-{one.closes}" for one in hours)

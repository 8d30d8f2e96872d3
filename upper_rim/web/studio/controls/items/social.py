"""With which controls is profiles changed?"""

from __future__ import annotations

from .....core.kinds.items.social import SocialRow
from .....core.model.site import Site
from ..control import Control, Group, order, px, shape, words_shown, yes


def groups(node: SocialRow, site: Site) -> list[Group]:
    addresses = "\n".join(
        " | ".join((profile.address, profile.name, profile.colour)).rstrip(" |") for profile in node.profiles
    )
    return [
        Group(
            "Profiles",
            [
                Control(
                    "lines",
                    "Addresses",
                    node.id,
                    "profiles",
                    addresses,
                    hint="https://there.example/you | name | #1f5c57",
                ),
                *order(node, "profiles", [one.name or one.address for one in node.profiles]),
            ],
        ),
        Group(
            "Icons",
            [
                px(node, "icon_px", "Size", 96),
                px(node, "gap_px", "Between", 200),
                shape(node),
                words_shown(node),
                yes(node, "own_colours", "In their own colours"),
                yes(node, "new_window", "Open a new window"),
            ],
        ),
    ]

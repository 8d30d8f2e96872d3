"""With which controls is a map changed?"""

from __future__ import annotations

from .....core.kinds.items.map import MapItem
from .....core.model.site import Site
from ..control import Group, px, text, words


def groups(node: MapItem, site: Site) -> list[Group]:
    return [
        Group(
            "Place",
            [
                *words(node, "words", "Name", site),
                text(node, "latitude", "Latitude"),
                text(node, "longitude", "Longitude"),
            ],
        ),
        Group("Drawing", [px(node, "width_px", "Width", 2000), px(node, "height_px", "Height", 2000)]),
    ]

"""With which controls is a picture list changed?"""

from __future__ import annotations

from .....core.kinds.items.pictures import PictureLink, PictureList
from .....core.model.site import Site
from ..control import Control, Group, choice, number, order, px, target_in_words


def groups(node: PictureList, site: Site) -> list[Group]:
    lines = "\n".join(_picture_line(one, site) for one in node.links)
    hint = "Title | second line | /picture.svg | /path"
    bands = [("", "at all widths")] + [(band.id, f"from {band.name}") for band in site.bands if band.from_px > 0]
    places = (("beside", "beside the list"), ("behind", "behind it"), ("edges", "behind, edge to edge"))
    sides = (("start", "Start"), ("end", "End"))
    return [
        Group(
            "Links",
            [
                Control("lines", "Links", node.id, "links", lines, hint=hint),
                *order(node, "links", [one.words.text for one in node.links]),
            ],
        ),
        Group(
            "Pictures",
            [
                choice(node, "place", "Stand", places),
                choice(node, "pictures_from", "Show", bands),
                px(node, "least_height_px", "At least high", 2000),
            ],
        ),
        Group(
            "List",
            [
                choice(node, "list_side", "Side", sides),
                number(node, "list_percent", "Takes", "%", 10, 100),
                px(node, "list_padding_px", "Padding", 400),
                px(node, "gap_px", "Between", 400),
                number(node, "gap_grows", "and of the window", "%", 0, 20),
            ],
        ),
    ]


def _picture_line(link: PictureLink, site: Site) -> str:
    parts = (link.words.text, link.second.text, link.picture or "", target_in_words(link.target, site))
    return " | ".join(parts).rstrip(" |")

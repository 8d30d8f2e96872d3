"""With which controls is an icon link changed?"""

from __future__ import annotations

from .....core.kinds.items.icon import IconLink
from .....core.model.site import Site
from ..control import Control, Group, leads_to, px, shape, words, words_shown


def groups(node: IconLink, site: Site) -> list[Group]:
    return [
        Group(
            "Content",
            [
                Control("icon", "Icon", node.id, "icon", node.icon, suggestions="icons"),
                *own_drawing(node),
                *words(node, "words", "Its name", site),
                *leads_to(node, site),
            ],
        ),
        Group("Icon", [px(node, "icon_px", "Size", 96), shape(node), words_shown(node)]),
    ]


def own_drawing(node: IconLink) -> list[Control]:
    """The drawing that is shown instead of an icon of the sets, and how one comes in."""
    upload = Control("upload", "or your own", node.id, "picture", "")
    kept = (
        Control(
            "choice",
            "Shown is",
            node.id,
            "picture",
            node.picture,
            [(node.picture, node.picture), ("", "the icon above")],
        )
        if node.picture
        else None
    )
    return [kept, upload] if kept else [upload]

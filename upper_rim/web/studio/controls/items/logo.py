"""With which controls is the logo changed?"""

from __future__ import annotations

from .....core.kinds.items.logo import Logo
from .....core.model.site import Site
from ..control import Control, Group, pictures, px, words


def groups(node: Logo, site: Site) -> list[Group]:
    return [
        Group(
            "Content",
            [
                *words(node, "words", "Title", site),
                pictures(node, "picture", site, "none: show the title"),
                Control("upload", "Upload", node.id, "picture", ""),
                px(node, "height_px", "Height", 400),
            ],
        ),
    ]

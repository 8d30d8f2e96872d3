"""With which controls is the logo changed?"""

from __future__ import annotations

from dataclasses import replace

from .....core.kinds.items.logo import Logo
from .....core.model.site import Site
from ..control import Control, Group, leads_to, pictures, px, words


def groups(node: Logo, site: Site) -> list[Group]:
    return [
        Group(
            "Content",
            [
                *words(node, "words", "Title", site),
                pictures(node, "picture", site, "none: show the title"),
                Control("upload", "Upload", node.id, "picture", ""),
                px(node, "height_px", "Height", 400),
                *_leads(node, site),
            ],
        ),
    ]


def _leads(node: Logo, site: Site) -> list[Control]:
    to, *window = leads_to(node, site)
    return [replace(to, hint="the front page"), *window]

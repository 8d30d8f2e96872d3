"""With which controls is a frame of others changed?"""

from __future__ import annotations

from .....core.kinds.items.embed import Embed
from .....core.model.site import Site
from ..control import Control, Group, category_choices, choice, px, words


def groups(node: Embed, site: Site) -> list[Group]:
    return [
        Group(
            "Content",
            [
                Control("text", "Address", node.id, "address", node.address, hint="https://charts.example/skarrow"),
                *words(node, "words", "Title", site),
                Control("lines", "Or their code", node.id, "code", node.code, hint="HTML that they give you"),
                choice(node, "category", "Waits for a yes to", category_choices(site, "as its host does")),
            ],
        ),
        Group("Frame", [px(node, "width_px", "Width", 2000), px(node, "height_px", "Height", 2000)]),
    ]

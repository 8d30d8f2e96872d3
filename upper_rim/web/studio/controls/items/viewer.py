"""With which controls is a picture viewer changed?"""

from __future__ import annotations

from .....core.kinds.items.viewer import Viewer
from .....core.model.site import Site
from ..control import Group, number, text, yes


def groups(node: Viewer, site: Site) -> list[Group]:
    return [
        Group("Pictures", [text(node, "selector", "Which"), yes(node, "captions", "With captions")]),
        Group("Ground", [number(node, "opacity_percent", "Covers", "%", 0, 100)]),
    ]

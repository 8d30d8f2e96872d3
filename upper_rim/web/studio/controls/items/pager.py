"""With which controls is a pager changed?"""

from __future__ import annotations

from .....core.kinds.items.pager import Pager
from .....core.model.site import Site
from ..control import Control, Group, choice, number


def groups(node: Pager, site: Site) -> list[Group]:
    page = next((page.path for page in site.pages if page.id == node.list_on), "")
    on_page = Control("text", "On the page", node.id, "list_on", page, suggestions="paths", hint="/path")
    return [
        Group(
            "List",
            [
                on_page,
                Control("text", "Is", node.id, "selector", node.selector, hint="press the list on the stage"),
            ],
        ),
        Group(
            "Part",
            [
                number(node, "size", "Has", "", 1, 1000),
                choice(
                    node,
                    "counts",
                    "Counted in",
                    (("entries", "entries"), ("lines", "lines of text"), ("rows", "rows, of pictures say")),
                ),
            ],
        ),
    ]

"""What does nobody use: swatches, looks, menus, fonts, drawers?"""

from __future__ import annotations

from collections.abc import Iterator

from ...kinds.pieces.drawer import Drawer
from ...model.references import references
from ...model.site import Site
from ...model.tree import walk
from ...values.nodes import Node
from ..finding import Finding

KEPT_FOR_USE = {"swatches": "swatch", "looks": "look", "menus": "menu", "fonts": "font"}
"""By slot of the site, what each is called: what is there to be referred to."""


def in_unused(site: Site) -> list[Finding]:
    """A swatch with a role is used by what that role has by itself."""
    used = {
        (one.slot, one.id) for node in (site.replaced(pages=(), assets=()), *_nodes(site)) for one in references(node)
    }
    used |= {("fonts", site.face), ("fonts", site.heading_face)}
    unused = ((node, what) for slot, what, node in _kept(site) if (slot, node.id) not in used)
    return [Finding("unused", node.id, about={"what": what}) for node, what in unused]


def _nodes(site: Site) -> Iterator[Node]:
    """Pages and files refer to none of these, and there may be many."""
    return walk(site.replaced(pages=(), assets=(), shapes=()))


def _kept(site: Site) -> Iterator[tuple[str, str, Node]]:
    for slot, what in KEPT_FOR_USE.items():
        yield from ((slot, what, node) for node in getattr(site, slot) if not getattr(node, "role", None))
    yield from (("pieces", "drawer", piece) for piece in site.pieces if isinstance(piece, Drawer))

"""What does nobody use: swatches, looks, menus, fonts, drawers, files?"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator, Set
from functools import partial
from itertools import islice
from typing import Any

from ....exchange.html.named_files import is_shown, names_of_files
from ....kinds.pieces.drawer import Drawer
from ....model.references import references
from ....model.site import Asset, Site
from ....model.tree import ROOT, walk
from ....values.nodes import Node
from ...finding import Finding
from ...keeping import Keeps, anew

KEPT_FOR_USE = {"swatches": "swatch", "looks": "look", "menus": "menu", "fonts": "font"}
"""By slot of the site, what each is called: what is there to be referred to."""


def in_unused(site: Site, kept: Keeps = anew) -> list[Finding]:
    """A swatch with a role is used by what that role has by itself. Pages and files refer to none of these, and there may be
    many."""
    rest = site.replaced(pages=(), assets=(), shapes=(), pieces=(), let_be=())
    parts: list[tuple[str, Any]] = [("", rest), *((piece.id, piece) for piece in site.pieces)]
    used: set[tuple[str, str]] = set()
    for key, part in parts:
        used |= kept(("refers to", key), part, partial(_referred_to, part))
    used |= {("fonts", site.face), ("fonts", site.heading_face)}
    unused = ((node, what) for slot, what, node in _kept(site) if (slot, node.id) not in used)
    return [Finding("unused", node.id, about={"what": what}) for node, what in unused]


def _referred_to(part: Any) -> frozenset[tuple[str, str]]:
    return frozenset((one.slot, one.id) for node in (part, *walk(part)) for one in references(node))


def _kept(site: Site) -> Iterator[tuple[str, str, Node]]:
    for slot, what in KEPT_FOR_USE.items():
        yield from ((slot, what, node) for node in getattr(site, slot) if not getattr(node, "role", None))
    yield from (("pieces", "drawer", piece) for piece in site.pieces if isinstance(piece, Drawer))


_SAYING = (".css", ".js", ".json", ".mjs", ".svg", ".txt", ".vtt", ".webmanifest", ".xml")
"""Files that may name others."""
MOST_BYTES, MOST_NAMES = 3_000_000, 50_000
_ASKED_UNNAMED = re.compile(r"favicon|apple-touch-icon|mstile|pinned", re.IGNORECASE)
"""What browsers ask for without being told of it."""


def unused_files(
    site: Site, read: Callable[[str], bytes], named_in_pages: Callable[[], Set[str]], kept: Keeps = anew
) -> list[Asset]:
    """Pictures, films, sounds and fonts that nothing names, in whatever folder."""
    unnamed = kept("unnamed files", (site.pages, site.assets), partial(_unnamed, site, read, named_in_pages))
    if not unnamed:
        return []
    named = _named_in_site(site, kept)
    return [asset for asset in unnamed if _name(asset) not in named]


def in_unused_files(unused: list[Asset]) -> Iterator[Finding]:
    """One for all of them."""
    if unused:
        kilobytes = sum(asset.size for asset in unused) / 1000
        yield Finding(
            "unused files", ROOT, about={"count": len(unused), "kilobytes": kilobytes, "path": unused[0].path}
        )


def _unnamed(site: Site, read: Callable[[str], bytes], named_in_pages: Callable[[], Set[str]]) -> list[Asset]:
    shown = [asset for asset in site.assets if is_shown(asset.path) and not _ASKED_UNNAMED.search(asset.path)]
    if not shown:
        return []
    saying = (one for one in site.assets if one.path.lower().endswith(_SAYING) and one.size <= MOST_BYTES)
    texts = (read(asset.content).decode("utf-8", "replace") for asset in saying)
    named = {*named_in_pages(), *(name for text in texts for name in islice(names_of_files(text), MOST_NAMES))}
    return [asset for asset in shown if _name(asset) not in named]


def _name(asset: Asset) -> str:
    """As texts name it."""
    return next(reversed(list(names_of_files(asset.path))), asset.path)


def _named_in_site(site: Site, kept: Keeps) -> Set[str]:
    rest = site.replaced(pages=(), assets=(), pieces=(), shapes=(), let_be=())
    parts: Iterable[tuple[str, Any]] = (("", rest), *((piece.id, piece) for piece in site.pieces))
    named: set[str] = set()
    for key, part in parts:
        named |= kept(("files named in", key), part, partial(_named_in, part))
    return named


def _named_in(part: Any) -> frozenset[str]:
    return frozenset(names_of_files(part.model_dump_json()))

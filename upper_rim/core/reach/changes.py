"""What is new between two states of a site, by what it is about, and on how many pages one meets it?"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any, Literal, NamedTuple

from ..kinds.items.base import ShowsMenu
from ..model.site import Site
from ..model.tree import items_of
from .reached import reached

What = Literal["new", "changed", "gone"]


class Change(NamedTuple):
    """`slot`: of the site in which it stands; `name`: empty for what has none by itself. `many`: of pages and files, how
    many; `pages`: on how many pages one meets it, None where that is not asked."""

    slot: str
    what: What
    node: str = ""
    name: str = ""
    many: int = 1
    pages: int | None = None


_COUNTED = ("pages", "assets")
_NAMED = ("pieces", "menus", "snippets", "fonts", "looks", "swatches", "bands")
_NOT_SEEN = frozenset({"cards", "let_be", "lifts", "shapes", "format", "key"})
"""What is of no visitor's concern by itself."""


def changes(before: Site, after: Site) -> list[Change]:
    """Pieces first, then what they are made of, then pages and files; what has no name of its own is one change."""
    found = [one for slot in _NAMED for one in _in_slot(slot, before, after)]
    found += [one for slot in _COUNTED for one in _counted(slot, before, after)]
    rest = (field for field in Site.model_fields if field not in {*_NAMED, *_COUNTED, *_NOT_SEEN})
    changed = [field for field in rest if getattr(before, field) != getattr(after, field)]
    return [*found, *([Change("site", "changed", many=len(changed), pages=len(after.pages))] if changed else [])]


def _in_slot(slot: str, before: Site, after: Site) -> Iterator[Change]:
    old, new = ({node.id: node for node in getattr(site, slot)} for site in (before, after))
    for key, node in new.items():
        if key not in old or (node is not old[key] and node != old[key]):
            yield Change(slot, "changed" if key in old else "new", key, _name(node), pages=_met(slot, key, after))
    for key, node in old.items():
        if key not in new:
            yield Change(slot, "gone", key, _name(node), pages=_met(slot, key, before))


def _name(node: Any) -> str:
    return str(getattr(node, "name", "") or getattr(node, "family", "") or node.id)


def _met(slot: str, key: str, site: Site) -> int | None:
    if slot == "pieces":
        return reached(site).pages.get(key, 0)
    if slot == "menus":
        showing = [one.id for one in site.pieces if any(_shows(item, key) for item in items_of((one,)))]
        return _most(showing, site)
    return None


def _shows(item: object, menu: str) -> bool:
    return isinstance(item, ShowsMenu) and item.menu == menu


def _most(pieces: Sequence[str], site: Site) -> int:
    """At least on so many: pieces may show on the same pages."""
    return max((reached(site).pages.get(one, 0) for one in pieces), default=0)


def _counted(slot: str, before: Site, after: Site) -> Iterator[Change]:
    old, new = ({node.id: node for node in getattr(site, slot)} for site in (before, after))
    came = sum(key not in old for key in new)
    went = sum(key not in new for key in old)
    other = sum(key in old and node is not old[key] and node != old[key] for key, node in new.items())
    counts: tuple[tuple[What, int], ...] = (("new", came), ("changed", other), ("gone", went))
    yield from (Change(slot, what, many=count) for what, count in counts if count)

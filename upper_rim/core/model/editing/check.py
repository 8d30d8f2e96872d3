"""Does everything that a site refers to exist, and is what must differ different?

Menus, swatches, looks and bands that are referred to must be there. Pages may be missing: they come and go, and what
leads to a missing one is left out when the site is published.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Set
from typing import Any

from ...kinds.items.answer import Answer
from ...kinds.items.base import BaseItem
from ...kinds.items.embed import Embed
from ...kinds.items.menu import MenuItem
from ...kinds.moving import Stage
from ...kinds.pieces.base import Moving, Piece
from ...kinds.pieces.consent import ConsentQuestion
from ...kinds.pieces.drawer import Drawer
from ...kinds.pieces.gate import Gate
from ...kinds.pieces.header import Header
from ...kinds.rows import Cell, Row
from ...values.properties import PROPERTIES
from ...values.styling import LIMITED, STATES_OF, Declaration, Part, Role, RoleDefault, Styled
from ..references import references
from ..site import Asset, Page, Site
from ..tree import items_of, walk
from .refusal import Refusal, RefusalKind


def broken_references(site: Site, before: Site | None = None) -> Refusal | None:
    """The first reference in a site that leads nowhere, or pair that must differ and does not.

    `before`: a state of the same site that had no such fault; pieces, pages and files that are still the same objects
    are not looked at again, as long as all that they can refer to is still there.
    """
    return next(_faults(site, before), None)


def _faults(site: Site, before: Site | None) -> Iterator[Refusal]:
    well = (
        before is not None
        and all(_ids(before, slot) <= _ids(site, slot) for slot in _REFERRED)
        and _own_rows(before).keys() <= _own_rows(site).keys()
    )
    known = {id(piece) for piece in before.pieces} if before is not None and well else set()
    swatches = {swatch.id for swatch in site.swatches}
    bands = {band.id for band in site.bands}
    menus = {menu.id for menu in site.menus}
    looks = {look.id for look in site.looks}
    for look in site.looks:
        yield from _style_faults(look, swatches, bands, look.name)
    for default in site.roles:
        yield from _style_faults(default, swatches, bands, default.role)
    yield from _doubled_roles(site.roles)
    own_rows = _own_rows(site)
    for piece in site.pieces:
        if id(piece) in known:
            continue
        yield from _faulty_shares(piece, own_rows)
        yield from _faulty_stages(piece)
        yield from _faulty_ways(piece)
        yield from _doubled_roles(piece.roles)
        for default in piece.roles:
            if default.role in {"page", "piece", "float"}:
                yield Refusal(default.id, "role", "role of pieces")
        for node in (piece, *walk(piece)):
            if isinstance(node, Declaration):
                continue
            if isinstance(node, Styled | RoleDefault | Stage) and node.styles:
                yield from _style_faults(node, swatches, bands, piece.name)
            yield from _fault(node, {"bands": bands, "menus": menus, "looks": looks}, piece.name)
    yield from _too_deep(site, before)
    yield from _misplaced_items(site)
    yield from _waiting_for_nothing(site)
    yield from _faulty_drawers(site)
    yield from _faulty_ties(site)
    yield from _faulty_bands(site)
    yield from _doubled_path(site, before)


MOST_LEVELS = 24
"""Of a menu. A document in which nodes stand much deeper is one that no reader of JSON opens again."""
_REFERRED = ("swatches", "bands", "menus", "looks")


def _own_rows(site: Site) -> dict[str, str]:
    """Ids of the rows that share none, each with its piece's."""
    return {row.id: piece.id for piece in site.pieces for row in piece.rows if row.shares is None}


def _faulty_shares(piece: Piece, own_rows: Mapping[str, str]) -> Iterator[Refusal]:
    shared = [row for row in piece.rows if row.shares is not None]
    for row in shared:
        if own_rows.get(row.shares or "") in {None, piece.id}:
            yield Refusal(row.id, "shares", "shared row gone", {"piece": piece.name})
        if row.cells or row.styles or row.wears:
            yield Refusal(row.id, "shares", "shared row with its own")
    if len({row.shares for row in shared}) < len(shared):
        yield Refusal(piece.id, "rows", "row shown twice")


PAINTED = frozenset({"Colour", "Background", "Border", "Corners", "Shadow"})
"""Groups of the properties that a stage can change: they move nothing."""


def _faulty_stages(piece: Piece) -> Iterator[Refusal]:
    stages = piece.stages if isinstance(piece, Header) else ()
    known = {stage.id for stage in stages}
    for row in piece.rows:
        if row.stage is not None and row.stage not in known:
            yield Refusal(row.id, "stage", "stage gone", {"row": row.name, "piece": piece.name})
    for stage in stages:
        for style in stage.styles:
            if PROPERTIES[style.property].group not in PAINTED:
                yield Refusal(stage.id, style.property, "stage changes size")


def _faulty_ways(piece: Piece) -> Iterator[Refusal]:
    if not isinstance(piece, Moving):
        return
    for field, ways in (("moves", {piece.moves}), ("moves_in", {one.way for one in piece.moves_in})):
        if not ways <= set(piece.WAYS):
            yield Refusal(piece.id, field, "way of another kind")


def _ids(site: Site, slot: str) -> set[str]:
    return {node.id for node in getattr(site, slot)}


def roles_of(node: Any) -> Mapping[Part, Role]:
    """The parts of a node that can be styled each by itself, and the role of each."""
    match node:
        case BaseItem():
            return {**node.roles, "hint": "hint"}
        case Piece():
            return {"box": node.ROLE}
        case Stage():
            return {"box": "piece"}
        case Row():
            return {"box": "row", "content": "column-rule"}
        case Cell():
            return {"box": "cell"}
        case RoleDefault():
            return {"box": node.role}
        case _:
            return {}


def unseen_of(node: Any) -> Set[Part]:
    """The parts of a node that it does not show, as it is."""
    if not isinstance(node, BaseItem):
        return set()
    unsaid: set[Part] = set() if node.hint.text else {"hint"}
    return node.unseen_parts | unsaid


def _style_faults(holder: Any, swatches: set[str], bands: set[str], name: str) -> Iterator[Refusal]:
    seen: dict[tuple[str, str, str, str | None], Declaration] = {}
    roles = roles_of(holder)
    there = {"swatches": swatches, "bands": bands}
    for style in holder.styles:
        named = [one for one in references(style) if one.slot in there and not one.id.startswith(":")]
        missing = {one.slot for one in named if one.id not in there[one.slot]}
        if "swatches" in missing:
            yield Refusal(holder.id, style.property, "swatch gone", {"piece": name})
        if "bands" in missing:
            yield Refusal(holder.id, style.property, "band gone", {"piece": name})
        if roles and style.part not in roles:
            yield Refusal(holder.id, style.property, "part without styles", {"part": style.part})
        elif roles and style.state not in STATES_OF[roles[style.part]]:
            yield Refusal(holder.id, style.property, "state not here", {"state": style.state})
        role = roles.get(style.part, "")
        is_limited = not isinstance(holder, RoleDefault) or role == "ring"
        if is_limited and style.property not in LIMITED.get(role, (style.property,)):
            yield Refusal(holder.id, style.property, _TOO_MUCH.get(role, "not of the part"), {"part": style.part})
        key = (style.part, style.property, style.state, style.band)
        if key in seen:
            yield Refusal(holder.id, style.property, "declared twice")
        seen[key] = style


_TOO_MUCH: Mapping[str, RefusalKind] = {"column-rule": "more than a divider", "ring": "more than a ring"}


def _doubled_roles(roles: Iterable[RoleDefault]) -> Iterator[Refusal]:
    seen: set[str] = set()
    for default in roles:
        if default.role in seen:
            yield Refusal(default.id, "role", "role twice", {"role": default.role})
        seen.add(default.role)


_MISSING: Mapping[str, RefusalKind] = {"bands": "band gone", "menus": "menu gone", "looks": "look gone"}


def _fault(node: Any, known: Mapping[str, set[str]], piece: str) -> Iterator[Refusal]:
    for reference in references(node):
        if reference.id not in known.get(reference.slot, {reference.id}):
            yield Refusal(node.id, reference.field, _MISSING[reference.slot], {"piece": piece})
    if isinstance(node, Styled) and len(set(node.wears)) < len(node.wears):
        yield Refusal(node.id, "wears", "look worn twice")


def _too_deep(site: Site, before: Site | None) -> Iterator[Refusal]:
    known = {id(menu) for menu in before.menus} if before is not None else set()
    for menu in site.menus:
        level = () if id(menu) in known else menu.entries
        for _ in range(MOST_LEVELS):
            level = tuple(below for entry in level for below in entry.entries)
        if level:
            yield Refusal(level[0].id, "entries", "too deep", {"most": MOST_LEVELS})


def _misplaced_items(site: Site) -> Iterator[Refusal]:
    """What means something at gates alone; and at gates what is not known there."""
    for piece in site.pieces:
        if isinstance(piece, Gate) and any(one.KNOWN_BY == "the browser" for one in piece.audience.conditions):
            yield Refusal(piece.id, "audience", "known too late", {"piece": piece.name})
        for item in site.shown_items(piece):
            is_ticked = isinstance(item, Answer) and item.says == "ticked" and not isinstance(piece, ConsentQuestion)
            if is_ticked or (item.ONLY_IN and piece.kind not in item.ONLY_IN):
                yield Refusal(item.id, "kind", "means nothing there", {"piece": piece.name, "item": item.NAME})


def _waiting_for_nothing(site: Site) -> Iterator[Refusal]:
    asked = {category.id for category in site.categories}
    waiting: list[tuple[str, str, str | None, str]] = [
        *((host.id, "category", host.category, host.host) for host in site.hosts),
        *((snippet.id, "waits", snippet.waits, snippet.name) for snippet in site.snippets),
        *((item.id, "category", item.category, item.NAME) for item in items_of(site.pieces) if isinstance(item, Embed)),
    ]
    for node, field, category, who in waiting:
        if category is not None and category not in asked:
            yield Refusal(node, field, "category gone", {"who": who})


def _faulty_drawers(site: Site) -> Iterator[Refusal]:
    """A menu's drawer is one of the site's; within one, no menu has a button of its own."""
    for piece in site.pieces:
        for item in site.shown_items(piece):
            if not isinstance(item, MenuItem):
                continue
            if item.drawer is not None and site.drawer(item.drawer) is None:
                yield Refusal(item.id, "drawer", "drawer gone", {"piece": piece.name})
            if isinstance(piece, Drawer) and (item.has_button or item.drawer is not None):
                yield Refusal(item.id, "drawer_below", "button within a drawer", {"piece": piece.name})


def _faulty_ties(site: Site) -> Iterator[Refusal]:
    parents = {swatch.id: swatch.tied.parent for swatch in site.swatches if swatch.tied}
    known = {swatch.id for swatch in site.swatches}
    for swatch, parent in parents.items():
        if parent not in known:
            yield Refusal(swatch, "tied", "tie gone")
        seen = {swatch}
        while parent in parents and parent not in seen:
            seen.add(parent)
            parent = parents[parent]
        if parent in seen:
            yield Refusal(swatch, "tied", "tied to itself")


def _faulty_bands(site: Site) -> Iterator[Refusal]:
    for before, after in zip(site.bands, site.bands[1:], strict=False):
        if before.from_px == after.from_px:
            about = {"band": before.name, "from_px": after.from_px}
            yield Refusal(after.id, "from_px", "band begins there", about)
    if site.bands and site.bands[0].from_px != 0:
        yield Refusal(site.bands[0].id, "from_px", "first band begins later")


def _doubled_path(site: Site, before: Site | None) -> Iterator[Refusal]:
    for slot in ("pages", "assets"):
        nodes = getattr(site, slot)
        if before is not None and nodes is getattr(before, slot):
            continue
        previous: Page | Asset | None = None
        for node in nodes:
            if previous is not None and previous.path == node.path:
                yield Refusal(node.id, "path", "path taken", {"path": node.path})
            previous = node

"""What of one site can go over into another, what would clash there, and what is the edit that carries it?

Whoever takes a piece takes along what it needs: the swatches, bands, looks, menus, drawers, fonts and sets of rules that
it refers to. Something clashes where the other site has something of the same kind and name that is not the same; then
one decides.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterator, Mapping
from typing import Any, Literal, NamedTuple, cast, get_args

from pydantic import JsonValue

from ..kinds.pieces.base import Piece, ReachSet
from ..model.editing.edits import Add, Edit, Remove, Set, Together
from ..model.fonts import Font
from ..model.references import references, renamed
from ..model.site import Band, Menu, Site
from ..model.tree import ROOT, items_of, walk
from ..values.colours import REFERENCE
from ..values.nodes import Node, Value
from ..values.styling import Swatch

Slot = Literal["swatches", "bands", "fonts", "looks", "roles", "menus", "reach_sets", "pieces"]
SLOTS_CARRIED: tuple[Slot, ...] = get_args(Slot)
SCALE: tuple[str, ...] = (
    "face",
    "heading_face",
    "text_px",
    "text_weight",
    "ratio",
    "measure",
    "least_measure",
    "content_px",
    "gutter_px",
    "sidebar_px",
)
Decision = Literal["keep", "replace", "both"]


class CarryClash(NamedTuple):
    """Something that is there already under the same name. `node`: its id in the site that it comes from; `scale`:
    sizes and faces as one."""

    slot: str
    node: str
    name: str
    theirs: str
    ours: str
    both_possible: bool


def needed(source: Site, chosen: Collection[str]) -> set[str]:
    """The chosen nodes' ids, and those of all that they refer to."""
    by_id = {node.id: node for slot in SLOTS_CARRIED for node in getattr(source, slot)}
    found: set[str] = set()
    waiting = [node_id for node_id in chosen if node_id in by_id]
    while waiting:
        node_id = waiting.pop()
        if node_id not in found:
            found.add(node_id)
            waiting += [referred for referred in _referred(by_id[node_id], source) if referred in by_id]
    return found


def _referred(node: Any, source: Site) -> Iterator[str]:
    roles = {f":{swatch.role}": swatch.id for swatch in reversed(source.swatches) if swatch.role}
    for part in (node, *walk(node)):
        for reference in references(part):
            yield roles.get(reference.id, reference.id)


def clashes(source: Site, target: Site, chosen: Collection[str]) -> list[CarryClash]:
    """What of the chosen (`scale` for sizes and faces) would clash."""
    found = []
    source = source.unshared()
    if "scale" in chosen:
        differing = [field for field in SCALE if getattr(source, field) != getattr(target, field)]
        if differing:
            ours, theirs = (", ".join(f"{getattr(site, field)}" for field in differing) for site in (source, target))
            found.append(CarryClash("scale", "scale", "Sizes and faces", theirs, ours, False))
    taken = needed(source, chosen)
    for slot in SLOTS_CARRIED:
        for node in getattr(source, slot):
            other = _namesake(target, slot, node) if node.id in taken else None
            if other is not None and not _same(source, node, target, other):
                both = slot not in {"roles", "bands"}
                found.append(
                    CarryClash(slot, node.id, _name(node), _in_words(target, other), _in_words(source, node), both)
                )
    return found


def _name(node: Any) -> str:
    return str(getattr(node, "name", None) or node.role)


def _namesake(target: Site, slot: str, node: Any) -> Any:
    for other in getattr(target, slot):
        if getattr(other, "kind", None) != getattr(node, "kind", None):
            continue
        if _name(other).lower() == _name(node).lower() or (slot == "bands" and other.from_px == node.from_px):
            return other
    return None


def _same(source: Site, node: Value, target: Site, other: Value) -> bool:
    return _plain(source, node) == _plain(target, other)


def _plain(site: Site, node: Value) -> Any:
    """A node without ids, with what it refers to by name: equal for what looks equal."""
    names = {one.id: _name(one) for slot in SLOTS_CARRIED for one in getattr(site, slot)}
    names |= {page.id: page.path for page in site.pages}
    names |= {below.id: f"#{at}" for at, below in enumerate(walk(node))}

    def plain(value: Any, key: str = "") -> Any:
        if isinstance(value, dict):
            return {name: plain(below, name) for name, below in value.items() if name != "id"}
        if isinstance(value, list):
            return [plain(below, key) for below in value]
        if isinstance(value, str):
            return REFERENCE.sub(lambda found: f"@{names.get(found[1], found[1])}/{found[2]}", names.get(value, value))
        return value

    return plain(node.model_dump(mode="json"))


def _in_words(site: Site, node: Any) -> str:
    match node:
        case Swatch():
            return str(node.colour) if node.tied is None else "a tint"
        case Band():
            return f"{node.name}, from {node.from_px} px"
        case Menu():
            return _counted(sum(1 for _ in walk(node)), "entry", "entries")
        case ReachSet():
            return _counted(len(node.rules), "rule", "rules")
        case Piece():
            items = sum(1 for _ in items_of((node,)))
            return f"{_counted(len(node.rows), 'row', 'rows')}, {_counted(items, 'item', 'items')}"
        case Font():
            return _counted(len(node.files), "file", "files")
        case _:
            return _counted(len(node.styles), "value", "values")


def _counted(number: int, one: str, many: str) -> str:
    return f"{number} {one if number == 1 else many}"


def carried(
    source: Site,
    target: Site,
    chosen: Collection[str],
    decisions: Mapping[str, Decision],
    new_id: Callable[[str], str],
) -> Together:
    """The edit of the target. `decisions` by the source's node id; `keep` (what is there) where none is given."""
    return _Carrier(source.unshared(), target, chosen, decisions, new_id).edit()


class _Carrier:
    def __init__(
        self,
        source: Site,
        target: Site,
        chosen: Collection[str],
        decisions: Mapping[str, Decision],
        new_id: Callable[[str], str],
    ) -> None:
        self._source, self._target = source, target
        self._scale = "scale" in chosen
        self._taken = needed(source, chosen)
        self._decisions = decisions
        self._new_id = new_id
        self._ids: dict[str, str] = {}
        self._pages = {page.path: page.id for page in target.pages}
        self._source_pages = {page.id: page.path for page in source.pages}

    def edit(self) -> Together:
        edits: list[Edit] = []
        plans = [
            (slot, node) for slot in SLOTS_CARRIED for node in getattr(self._source, slot) if node.id in self._taken
        ]
        for slot, node in plans:
            other = _namesake(self._target, slot, node)
            if other is not None and self._decision(slot, node, other) != "both":
                self._ids[node.id] = other.id
            else:
                self._ids[node.id] = self._new_id(node.id.partition("-")[0])
        for slot, node in plans:
            edits += self._carried(slot, node)
        if self._scale and self._decisions.get("scale", "keep") == "replace":
            for field in SCALE:
                value = getattr(self._source, field)
                edits.append(
                    Set(node=ROOT, field=field, value=self._ids.get(value, value) if isinstance(value, str) else value)
                )
        return Together(edits=tuple(edits))

    def _decision(self, slot: str, node: Any, other: Any) -> Decision:
        if _same(self._source, node, self._target, other):
            return "keep"
        decision = self._decisions.get(node.id, "keep")
        return "keep" if decision == "both" and slot in {"roles", "bands"} else decision

    def _carried(self, slot: Slot, node: Any) -> Iterator[Edit]:
        other = _namesake(self._target, slot, node)
        decision = self._decision(slot, node, other) if other is not None else "both"
        if decision == "keep":
            if _same(self._source, node, self._target, other):
                self._ids |= {own.id: there.id for own, there in zip(walk(node), walk(other), strict=True)}
            return
        value = self._translated(node)
        if other is None or decision == "both":
            if other is not None:
                value["name"] = f"{value['name']}, from {self._source.name}"[:120]
            if slot == "swatches" and any(swatch.role == value["role"] for swatch in self._target.swatches):
                value["role"] = None
            yield Add(parent=ROOT, slot=slot, values=(value,))
        elif slot in {"swatches", "bands"}:
            for field in ("colour", "tied") if slot == "swatches" else ("name", "from_px"):
                yield Set(node=other.id, field=field, value=value[field])
        else:
            yield Remove(nodes=(other.id,))
            at = getattr(self._target, slot).index(other)
            yield Add(parent=ROOT, slot=slot, values=({**value, "id": other.id},), at=at)

    def _translated(self, node: Node) -> dict[str, JsonValue]:
        """A node as JSON: new ids below it, references to what is there, links by path."""
        made = self._with_links(renamed(node, self._other, self._own))
        return cast(dict[str, JsonValue], made)

    def _own(self, old: str) -> str:
        if old not in self._ids:
            self._ids[old] = self._new_id(old.partition("-")[0])
        return self._ids[old]

    def _other(self, slot: str, old: str) -> str | None:
        if slot == "pages":
            return self._pages.get(self._source_pages.get(old, ""), _GONE + old)
        if slot == "categories":
            return old if any(one.id == old for one in self._target.categories) else None
        return self._ids.get(old)

    def _with_links(self, value: Any, key: str = "") -> Any:
        """Links to pages that are not there lead to their addresses; what else names such a page is left out."""
        if isinstance(value, dict):
            page = str(value.get("page", ""))
            if value.get("kind") in {"page", "place"} and page.startswith(_GONE):
                path = self._source_pages.get(page.removeprefix(_GONE), "/")
                return {"kind": "address", "address": path + (f"#{value['place']}" if "place" in value else "")}
            return {name: self._with_links(below, name) for name, below in value.items()}
        if isinstance(value, list):
            parts = [self._with_links(below, key) for below in value if not str(below).startswith(_GONE)]
            return [part for part in parts if not (key in {"reach", "rules"} and part["where"]["kind"] == "address")]
        return None if isinstance(value, str) and value.startswith(_GONE) else value


_GONE = "gone-page:"

"""What of one site can go over into another, what would clash there, and what is the edit that carries it?

Whoever takes a piece takes along what it needs: the swatches, bands, looks, menus, drawers and fonts that it refers to.
Something clashes where the other site has something of the same kind and name that is not the same; then one decides.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterator, Mapping
from typing import Any, Literal, NamedTuple

from pydantic import JsonValue

from ..model.colours import REFERENCE
from ..model.edits import Add, Edit, Remove, Set, Together
from ..model.properties import references_in
from ..model.site import Site
from ..model.styling import Declaration
from ..model.tree import ROOT, walk
from ..model.values import Node, Value

Slot = Literal["swatches", "bands", "fonts", "looks", "roles", "menus", "pieces"]
SLOTS_CARRIED: tuple[Slot, ...] = ("swatches", "bands", "fonts", "looks", "roles", "menus", "pieces")
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
_REFERRING = ("drawer_below", "menu", "drawer", "pictures_from")
"""Fields that name one node of the site's own."""
Decision = Literal["keep", "replace", "both"]


class Clash(NamedTuple):
    """Something that is there already under the same name. `node`: its id in the site that it comes from; `scale`: sizes
    and faces as one."""

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
    roles = {swatch.role: swatch.id for swatch in reversed(source.swatches) if swatch.role}
    for part in (node, *walk(node)):
        if isinstance(part, Declaration):
            for reference in references_in(part.value):
                named = roles.get(reference[1:]) if reference.startswith(":") else reference  # type: ignore[call-overload]
                if named is not None:
                    yield named
            if part.property == "font-family":
                yield part.value
            if part.band is not None:
                yield part.band
        for field in ("hidden_in", "wears"):
            yield from getattr(part, field, ())
        for by_band in (*getattr(part, "columns", ()), *getattr(part, "aligned", ())):
            yield by_band.band
        for field in _REFERRING:
            value = getattr(part, field, None)
            if isinstance(value, str):
                yield value
        tied = getattr(part, "tied", None)
        if tied is not None:
            yield tied.parent


def clashes(source: Site, target: Site, chosen: Collection[str]) -> list[Clash]:
    """What of the chosen (`scale` for sizes and faces) would clash."""
    found = []
    source = source.unshared()
    if "scale" in chosen:
        differing = [field for field in SCALE if getattr(source, field) != getattr(target, field)]
        if differing:
            ours, theirs = (", ".join(f"{getattr(site, field)}" for field in differing) for site in (source, target))
            found.append(Clash("scale", "scale", "Sizes and faces", theirs, ours, False))
    taken = needed(source, chosen)
    for slot in SLOTS_CARRIED:
        for node in getattr(source, slot):
            other = _namesake(target, slot, node) if node.id in taken else None
            if other is not None and not _same(source, node, target, other):
                both = slot not in {"roles", "bands"}
                found.append(Clash(slot, node.id, _name(node), _in_words(target, other), _in_words(source, node), both))
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
    match type(node).__name__:
        case "Swatch":
            return str(node.colour) if node.tied is None else "a tint"
        case "Band":
            return f"{node.name}, from {node.from_px} px"
        case "Menu":
            return f"{sum(1 for _ in walk(node))} entries"
        case "Piece":
            return f"{len(node.rows)} rows, {sum(1 for below in walk(node) if hasattr(below, 'hidden_in'))} parts"
        case "Font":
            return f"{len(node.files)} files"
        case _:
            return f"{len(node.styles)} set"


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
        value = self._translated(node)
        if decision == "keep":
            return
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
        # Rows name the stages that they stand in, and are read before these.
        self._ids |= {stage.id: self._new_id("sg") for stage in getattr(node, "stages", ())}
        value: dict[str, JsonValue] = self._part(node.model_dump(mode="json"))
        value["id"] = self._ids[node.id]
        return value

    def _part(self, value: Any, key: str = "") -> Any:
        if isinstance(value, dict):
            if value.get("kind") in {"page", "place"} and "page" in value:
                return self._link(value)
            made = {name: self._part(below, name) for name, below in value.items()}
            if "id" in made:
                old = str(made["id"])
                made["id"] = self._ids.get(old) or self._new_id(old.partition("-")[0])
                self._ids[old] = made["id"]
            if made.get("property") == "font-family":
                made["value"] = self._ids.get(made["value"], made["value"])
            return made
        if isinstance(value, list):
            parts = [self._part(below, key) for below in value]
            return [part for part in parts if not (key == "reach" and part["where"]["kind"] == "address")]
        if isinstance(value, str) and key in {
            *_REFERRING,
            "band",
            "branch",
            "stage",
            "parent",
            "hidden_in",
            "wears",
        }:
            return self._ids.get(value, value)
        if isinstance(value, str) and key == "without":
            return self._ids.get(value) or self._pages.get(self._source_pages.get(value, ""), value)
        if isinstance(value, str) and key == "list_on":
            return self._pages.get(self._source_pages.get(value, ""))
        if isinstance(value, str) and key == "value":
            return REFERENCE.sub(self._reference, value)
        return value

    def _reference(self, found: Any) -> str:
        return f"@{self._ids.get(found[1], found[1])}" + (f"/{found[2]}%" if found[2] else "")

    def _link(self, value: dict[str, Any]) -> dict[str, Any]:
        path = self._source_pages.get(value["page"], "/")
        if path in self._pages:
            return {**value, "page": self._pages[path]}
        place = f"#{value['place']}" if "place" in value else ""
        return {"kind": "address", "address": path + place}

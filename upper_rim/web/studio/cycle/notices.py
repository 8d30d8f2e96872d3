"""How is the store's answer to an edit told? In a sentence, with what can be done about it."""

from __future__ import annotations

import json
import re
from collections.abc import Collection, Sequence
from dataclasses import dataclass
from typing import Any

from ....core.kinds.entries import Entry
from ....core.kinds.items.base import BaseItem
from ....core.kinds.moving import Stage
from ....core.kinds.pieces.base import Piece
from ....core.kinds.rows import Cell, Row
from ....core.model.editing.apply import inverse
from ....core.model.editing.edits import Edit, Set, Together, edit_adapter
from ....core.model.editing.refusal import Refusal
from ....core.model.editing.replay import GONE
from ....core.model.names import node_name
from ....core.model.site import Site
from ....core.model.tree import find, holder_of, items_of
from ....core.values.colours import REFERENCE
from ....core.values.properties import PROPERTIES
from ....core.values.styling import Declaration, Styled
from ...sites.store import Answer, Clash, NothingThere
from ..controls.control import Group
from ..controls.of_entries import entry_groups
from ..controls.of_movement import movement_groups
from ..controls.of_nodes import groups_for
from ..forms.form_error import FormFault
from ..words.languages import language_name


@dataclass(frozen=True)
class StudioNotice:
    """A sentence; where it is about a clash, both versions and the edit that would put ours in place of theirs."""

    sentence: str
    is_fault: bool = False
    node: str = ""
    field: str = ""
    theirs: str = ""
    mine: str = ""
    again: str = ""
    name: str = "value"
    """Of the form's field at fault."""
    line: int | None = None
    """Of its text, the line at fault."""
    language: str | None = None
    only_here: str = ""
    """The edit that leaves other places as they were."""
    way: tuple[str, str] | None = None
    """To what the sentence is about: words, and the id of the width band where that shows."""


def notice_of(answer: Answer | FormFault, edit: Edit | None, site: Site) -> StudioNotice | None:
    match answer:
        case Refusal():
            return _fault(FormFault(answer.node, answer.field, answer.words), site)
        case FormFault():
            return _fault(answer, site)
        case Clash():
            return _clash(answer, edit, site)
        case NothingThere():
            return StudioNotice(answer.sentence)
        case _:
            return None


def alike_notice(site: Site, alike: Sequence[tuple[BaseItem, Set]]) -> StudioNotice:
    """What was changed with an edit, since it said the same; `site`: as it was before."""
    ids = {item.id for item, _ in alike}
    before = inverse(site, Together(edits=tuple(edit for _, edit in alike)))
    said = f"Changed in {pieces_with(site, ids)}, too: it said the same there."
    return StudioNotice(said, only_here=before.model_dump_json())


def pieces_with(site: Site, items: Collection[str]) -> str:
    """The names of the pieces in which items stand."""
    return " and in ".join(
        f"“{piece.name}”" for piece in site.pieces if any(item.id in items for item in items_of((piece,)))
    )


def _fault(fault: FormFault, site: Site) -> StudioNotice:
    node, field, words, line, name = fault
    at = f"line {line}: " if line is not None else ""
    name = name or (field if field in _NAMED_FIELDS else "value")
    sentence = in_words(f"{named(site, node)}{_of_field(site, node, field)}: {at}{words}.", site)
    return StudioNotice(sentence, True, node, field, name=name, line=line)


def _clash(answer: Clash, edit: Edit | None, site: Site) -> StudioNotice:
    conflict = answer.conflict
    what = named(site, conflict.node)
    again = json.dumps(edit_adapter.dump_python(edit, mode="json")) if edit is not None else ""
    if conflict.theirs == GONE:
        return StudioNotice(
            f"{answer.other} has removed this meanwhile, so your change has no place. Undo by them brings it back.",
            True,
            mine=_shown(conflict.mine),
        )
    if conflict.mine == GONE:
        return StudioNotice(
            f"{answer.other} changed {what} while you were removing it.",
            True,
            conflict.node,
            "",
            _shown(conflict.theirs),
            "removed",
            again,
        )
    told = "" if conflict.language is None else f", {language_name(conflict.language or site.language)}"
    field = field_words(site, conflict.node, conflict.field) if conflict.field else "the place"
    return StudioNotice(
        f"{answer.other} changed {field}{told}, of {what} while you did.",
        True,
        conflict.node,
        conflict.field,
        _shown(conflict.theirs),
        _shown(conflict.mine),
        again,
        language=conflict.language,
    )


_NAMED_FIELDS = frozenset({"name", "colour", "path", "title", "source", "label", "target"})
"""Fields of forms that are called as what they set."""


def in_words(sentence: str, site: Site) -> str:
    """The sentence with the names of swatches and properties in place of how they are written."""
    names = {swatch.id: swatch.name for swatch in site.swatches}
    told = REFERENCE.sub(lambda found: names.get(found[1], found[1].removeprefix(":")), sentence)
    return _PROPERTY.sub(lambda found: PROPERTIES[found[0]].label.lower(), told)


_PROPERTY = re.compile(
    rf"(?<![\w-])(?:{'|'.join(sorted((one for one in PROPERTIES if '-' in one), key=len, reverse=True))})(?![\w-])"
)


def _shown(value: object) -> str:
    if isinstance(value, dict) and "text" in value:
        return str(value["text"])
    text = value if isinstance(value, str) else json.dumps(value, ensure_ascii=False)
    return text if len(text) <= 120 else text[:117] + "…"


def _of_field(site: Site, node: str, field: str) -> str:
    return f", {field_words(site, node, field)}" if field not in {"", "do"} else ""


def field_words(site: Site, node_id: str, field: str) -> str:
    """In the words of the tray's own label for it."""
    node = holder_of(site, node_id)
    labels: dict[str, str] = {}
    for control in (control for group in labelled(node, site) for control in group.controls):
        labels.setdefault(control.field, control.label)
    listed = PROPERTIES.get(field)
    label = labels.get(field) or (listed.label if listed else field.removesuffix("_px").replace("_", " "))
    return label.lower()


def labelled(node: Any, site: Site) -> list[Group]:
    """The tray's groups for a node, where it has some."""
    match node:
        case Piece():
            return [*groups_for(node, site), *movement_groups(node, site)]
        case Row() | Cell() | Stage():
            return groups_for(node, site)
        case Entry():
            return entry_groups(node, site)
        case _ if isinstance(node, Styled):
            return groups_for(node, site)
        case _:
            return []


def named(site: Site, node_id: str) -> str:
    spot = find(site, node_id)
    node: Any = spot.node if spot else None
    if isinstance(node, Declaration):
        return PROPERTIES[node.property].label
    name = (
        getattr(node, "name", None)
        or getattr(node, "path", None)
        or (node_name(node, site) if isinstance(node, Styled) else "")
    )
    return f"“{name}”" if name else "This change"

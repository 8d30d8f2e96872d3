"""How is the store's answer to an edit told? In a sentence, with what can be done about it."""

from __future__ import annotations

import json
from dataclasses import dataclass

from ...core.model.edits import Edit, Refusal, edit_adapter
from ...core.model.replay import GONE
from ...core.model.site import Site
from ...core.model.tree import find
from ..sites.store import Answer, Clash, NothingThere


@dataclass(frozen=True)
class Notice:
    """A sentence; where it is about a clash, both versions and the edit that would put ours in place of theirs."""

    sentence: str
    is_fault: bool = False
    node: str = ""
    field: str = ""
    theirs: str = ""
    mine: str = ""
    again: str = ""


def notice_of(answer: Answer, edit: Edit | None, site: Site) -> Notice | None:
    match answer:
        case Refusal():
            return Notice(
                f"{_named(site, answer.node)}{_of_field(answer.field)}: {answer.reason}.",
                True,
                answer.node,
                answer.field,
            )
        case Clash():
            return _clash(answer, edit, site)
        case NothingThere():
            return Notice(answer.sentence)
        case _:
            return None


def _clash(answer: Clash, edit: Edit | None, site: Site) -> Notice:
    conflict = answer.conflict
    what = _named(site, conflict.node)
    again = json.dumps(edit_adapter.dump_python(edit, mode="json")) if edit is not None else ""
    if conflict.theirs == GONE:
        return Notice(
            f"{answer.other} has removed this meanwhile, so your change has no place. Undo by them brings it back.",
            True,
            mine=_shown(conflict.mine),
        )
    if conflict.mine == GONE:
        return Notice(
            f"{answer.other} changed {what} while you were removing it.",
            True,
            conflict.node,
            "",
            _shown(conflict.theirs),
            "removed",
            again,
        )
    return Notice(
        f"{answer.other} changed {conflict.field.replace('_', ' ')} of {what} while you did.",
        True,
        conflict.node,
        conflict.field,
        _shown(conflict.theirs),
        _shown(conflict.mine),
        again,
    )


def _shown(value: object) -> str:
    if isinstance(value, dict) and "text" in value:
        return str(value["text"])
    text = value if isinstance(value, str) else json.dumps(value, ensure_ascii=False)
    return text if len(text) <= 120 else text[:117] + "…"


def _of_field(field: str) -> str:
    return f", {field.removesuffix('_px').replace('_', ' ')}" if field and field != "do" else ""


def _named(site: Site, node_id: str) -> str:
    spot = find(site, node_id)
    node = spot.node if spot else None
    name = (
        getattr(node, "name", None)
        or getattr(node, "path", None)
        or getattr(node, "property", None)
        or getattr(node, "kind", None)
    )
    return f"“{name}”" if name else "This change"

"""What do the readers of posted forms give back: an edit, or why the form means none."""

from __future__ import annotations

from typing import NamedTuple

from ....core.model.edits import Edit, Refusal


class Posted(NamedTuple):
    """The edit meant, and the ids of nodes that it makes."""

    edit: Edit
    made: tuple[str, ...] = ()


class FormError(Exception):
    def __init__(self, node: str, field: str, reason: str) -> None:
        self.refusal = Refusal(node=node, field=field, reason=reason)

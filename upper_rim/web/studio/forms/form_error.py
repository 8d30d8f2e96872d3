"""What do the readers of posted forms give back: an edit, or why the form means none."""

from __future__ import annotations

from typing import NamedTuple

from ....core.model.editing.edits import Edit
from ....core.model.editing.refusal import Refusal


class Posted(NamedTuple):
    """The edit meant, and the ids of nodes that it makes."""

    edit: Edit
    made: tuple[str, ...] = ()


class FormFault(NamedTuple):
    """What was typed is not understood: why, as the end of a sentence; in a text of several lines, in which of them.
    `name`: of the form's field, where it is not called as what it sets."""

    node: str
    field: str
    words: str
    line: int | None = None
    name: str = ""


class FormError(Exception):
    def __init__(self, node: str, field: str, words: str, line: int | None = None, name: str = "") -> None:
        self.fault: FormFault | Refusal = FormFault(node, field, words, line, name)


class NotThere(FormError):
    """What the form is about has gone meanwhile."""

    def __init__(self, node: str, field: str = "") -> None:
        self.fault = Refusal(node, field, "gone")


class NoSuchField(FormError):
    def __init__(self, node: str, field: str) -> None:
        self.fault = Refusal(node, field, "no such field", {"field_name": field})

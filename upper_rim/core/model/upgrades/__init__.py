"""How does a document of an older format become one of today's? Step by step, one module for each.

A step lifts any JSON in which nodes stand: a whole site's, an edit's. Documents that are stored are lifted by a
migration of the database, which runs the same steps; bundles when they are opened.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from . import to_2, to_3

FORMAT = 3
"""The format of documents written today."""
STEPS: dict[int, Callable[[Any], Any]] = {1: to_2.lifted, 2: to_3.lifted}
"""By the format that a step begins with; it leads to the next one."""


class UnknownFormat(ValueError):
    """The document names no format that there was so far."""


def upgraded(document: dict[str, Any]) -> dict[str, Any]:
    """A site's document in today's format. One that says nothing of its format is taken for one of the first."""
    found = document.get("format", 1)
    if not isinstance(found, int) or not 1 <= found <= FORMAT:
        raise UnknownFormat(f"its format is {found!r}; this version knows formats 1 to {FORMAT}")
    for step in range(found, FORMAT):
        document = STEPS[step](document)
    return {**document, "format": FORMAT}

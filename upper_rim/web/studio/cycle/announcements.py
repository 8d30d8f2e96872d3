"""What happened, in a sentence for those who do not see it: read out after each edit."""

from __future__ import annotations

from ....core.model.editing.edits import Add, Edit, Move, Remove, Set, parts_of_edit
from ....core.model.site import Site
from .notices import field_words, in_words, named


def announcement(edit: Edit, before: Site, after: Site) -> str:
    """Of an edit that was made. Of several the first tells."""
    for part in parts_of_edit(edit):
        match part:
            case Set():
                field = field_words(after, part.node, part.field)
                return in_words(f"Changed {named(after, part.node)}: {field}.", after)
            case Add():
                ids = [str(value["id"]) for value in part.values if isinstance(value, dict) and "id" in value]
                return in_words(f"Added {named(after, ids[0])}.", after) if ids else "Added."
            case Remove():
                return in_words(f"Removed {named(before, part.nodes[0])}.", before) if part.nodes else ""
            case Move():
                return in_words(f"Moved {named(after, part.node)}.", after)
            case _:
                return "Changed."
    return ""

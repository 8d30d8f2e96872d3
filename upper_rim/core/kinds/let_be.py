"""Something that was found and is let be: what, why, by whom, until when?"""

from __future__ import annotations

from typing import Annotated

from pydantic import Field, StringConstraints

from ..values.nodes import Node
from ..values.words import Label

Day = Annotated[str, StringConstraints(pattern=r"^\d{4}-\d{2}-\d{2}$")]
"""ISO 8601."""
_Named = Annotated[str, StringConstraints(pattern=r"^[a-z0-9-]{0,40}$")]


class LetBe(Node):
    """`about`: the node that was found fault with, empty for all of the kind; `other`, `stage`: what tells it from another
    fault of that node."""

    kind: Label = Field(description="Of the finding.")
    about: _Named = ""
    other: _Named = ""
    stage: _Named = ""
    as_it_was: Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{0,16}$")] = Field(
        default="", description="Digest of its numbers: once these change it is told again. Empty: whatever they are."
    )
    reason: Label = ""
    until: Day | None = Field(default=None, description="The last day on which it is let be.")
    by: Label = ""
    on: Day

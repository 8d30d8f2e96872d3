"""A sidebar."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .base import Moving, OnPaper


class Sidebar(Moving, OnPaper):
    """Beside the content: a complementary landmark of its own name. Where the window leaves the text less than its
    least measure, it stands before or after the content."""

    NAME = "Sidebar"
    TAG = "aside"

    kind: Literal["sidebar"] = "sidebar"
    side: Literal["start", "end"] = "start"
    width_px: Annotated[int, Field(ge=80, le=1000)] | None = Field(
        default=None, description="Width of its content; the foundations' where None."
    )
    narrow: Literal["before", "after"] = "after"

"""A header."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from ..context import PageContext
from ..markup import Attributes
from ..moving import Stage
from .base import Moving, OnPaper, Printed


class Header(Moving, OnPaper):
    """Before the content: a banner landmark."""

    NAME = "Header"
    TAG = "header"
    IN_LINES = True
    CHILDREN = ("rows", "reach", "roles", "stages", "styles")
    WAYS = ("away", "stays", "up")
    PRINTED: ClassVar[Printed] = "plain"

    kind: Literal["header"] = "header"
    over: bool = Field(default=False, description="It takes no room: the page's content begins beneath it.")
    stages: tuple[Stage, ...] = Field(default=(), description="Of those whose distance is passed, the last holds.")

    @property
    def comes_and_goes(self) -> bool:
        return True

    @property
    def is_early(self) -> bool:
        return True

    def landmark_attributes(self, page: PageContext) -> Attributes:
        return {}

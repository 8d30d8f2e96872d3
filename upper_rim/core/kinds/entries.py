"""What is an entry of a menu, and which part of a menu does something show?"""

from __future__ import annotations

from typing import Annotated, Literal, Protocol

from pydantic import Field

from ..values.addresses import PagePath
from ..values.nodes import Node, Value
from ..values.refs import PageRef
from ..values.scalars import IconName
from ..values.targets import Target, ToNothing
from ..values.words import Words


class Grown(Value):
    """Entries that come from the site's pages, one for each page below a path, and that come and go with them."""

    path: PagePath = Field(default="/", description="Below this one, which is not among them.")
    depth: Annotated[int, Field(ge=1, le=9)] = 2
    order: Literal["path", "title", "newest"] = "path"
    without: tuple[PageRef, ...] = Field(default=(), description="Pages left out, with all below them.")


class Branch(Node):
    """What holds entries: its own, then those that grow."""

    entries: tuple[Entry, ...] = ()
    grows: Grown | None = None


class Entry(Branch):
    """A menu entry and its branch. An empty label on a link to a page means: the page's title."""

    label: Words = Words()
    target: Target = ToNothing()
    second: Words = Field(default=Words(), description="A second line, where the menu is more than a row.")
    mark: Words = Field(default=Words(), description="A word beside it, such as “New”.")
    icon: IconName | None = None
    picture: PagePath | None = Field(default=None, description="Path of a picture among the site's files.")
    new_window: bool = False
    apart: bool = Field(
        default=False,
        description="In the first level of a menu it looks otherwise: as that menu's entries set apart do.",
    )


Branch.model_rebuild()


class MenuPart(Protocol):
    """A menu, or what lies below one of its entries, so many levels deep (all where None), without some entries."""

    @property
    def menu(self) -> str | None: ...
    @property
    def branch(self) -> str | None: ...
    @property
    def without(self) -> tuple[str, ...]: ...
    @property
    def levels(self) -> int | None: ...

"""The parts of a long list."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from ...values.refs import PageRef
from ...values.styling import Part, State
from ..context import PageContext
from ..markup import Attributes, Markup, element
from .base import BaseItem
from .parts import listed


class Pager(BaseItem):
    """Parts a long list in a page's own content into pages. Without script, all of it shows."""

    NAME = "Pager"
    ABOUT = "Parts a long list of a page into several"
    CALLED = ("pages",)
    ROLES = {"box": "block", "entry": "entry"}

    kind: Literal["pager"] = "pager"
    list_on: PageRef | None = Field(default=None, description="The page with the list.")
    selector: Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)] = Field(
        default="", description="Which element of that page the list is, as CSS writes it."
    )
    size: Annotated[int, Field(ge=1, le=1000)] = 10
    counts: Literal["entries", "lines", "rows"] = Field(
        default="entries", description="In what a part is counted; rows are of what stands beside each other."
    )

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        """Filled in by its script, on the page with the list; on the stage of another page, an example of it in its
        place."""
        attributes = page.attributes(self, "block", "pager", self.id)
        name = page.phrase("pages_of_list")
        if page.is_current(self.list_on) and self.selector:
            data = {
                "pager": self.selector,
                "size": str(self.size),
                "counts": self.counts,
                "name": self.id.removeprefix("it-"),
                "host": page.name(),
                "previous": page.phrase("before"),
                "next": page.phrase("after"),
            }
            told = {f"data-rim-{key}": value for key, value in data.items()}
            own: Attributes = {**attributes, "id": page.html_id(self.id), "aria-label": name, "hidden": True, **told}
            return (element("nav", own, listed(page)),)
        if not page.marks:
            return ()
        sample = ("1", "2", "3", page.phrase("after"))
        lines = (element("li", {}, element("a", {"href": "#"}, words)) for words in sample)
        return (element("nav", {**attributes, "aria-label": name}, listed(page, *lines)),)

    def named_selectors(self) -> Mapping[str, str]:
        return {"selector": self.selector} if self.selector else {}

    def built_in(self, part: Part) -> Mapping[State, Mapping[str, str]]:
        return {"current": {"font-weight": "700"}} if part == "entry" else {}

    def texts_within(self) -> tuple[Part, ...]:
        return ("entry",)

    def pages_led_to(self) -> Iterable[PageRef]:
        return (self.list_on,) if self.list_on else ()

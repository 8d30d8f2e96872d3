"""A breadcrumb trail."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal, NamedTuple

from pydantic import Field

from ...values.refs import MenuRef
from ...values.styling import Part
from ...values.words import Words
from ..context import PageContext, Speaks
from ..marks import trail_mark
from ..markup import Element, Markup, element
from .base import DiffersByPage, Landmark

SEPARATORS = {"chevron": "›", "slash": "/", "dot": "·"}


class Step(NamedTuple):
    """`href` is None for what has no link, and for the page itself."""

    words: str
    href: str | None


class Trail(DiffersByPage):
    """By which pages one comes to the page that is looked at: a breadcrumb trail."""

    NAME = "Breadcrumb trail"
    ABOUT = "Where a page stands, up to the front page"
    CALLED = ("breadcrumbs", "path")
    ROLES = {"box": "menu", "content": "entry"}

    kind: Literal["trail"] = "trail"
    words: Words = Field(default=Words(), description="What the front page is called; its title where empty.")
    menu: MenuRef | None = Field(
        default=None, description="The menu whose branches it follows; None: the pages' paths."
    )
    separator: Literal["chevron", "slash", "dot"] = "chevron"

    def landmark(self, speaks: Speaks) -> Landmark:
        return Landmark("navigation", speaks.phrase("trail"))

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        attributes = {**page.attributes(self, "menu", "trail", self.id), "aria-label": self.landmark(page).name}
        return (element("nav", attributes, trail_mark(self.id)),)

    def steps_markup(self, steps: Iterable[Step], page: PageContext) -> Element:
        """An ordered list of links, the page itself last (ARIA Authoring Practices: breadcrumb)."""
        listed = list(steps)
        lines = [self._line(step, page, at, at == len(listed) - 1) for at, step in enumerate(listed)]
        return element("ol", {"class": page.name("list"), "role": "list"}, *lines)

    def _line(self, step: Step, page: PageContext, at: int, is_last: bool) -> Element:
        sign = element("span", {"aria-hidden": "true"}, SEPARATORS[self.separator]) if at else None
        if step.href:
            return element("li", {}, sign, element("a", {"href": step.href}, step.words))
        here = {"class": page.name("head"), "aria-current": "page" if is_last else None}
        return element("li", {}, sign, element("span", here, step.words))

    def sample(self, page: PageContext) -> Element:
        """A trail with all that one can have, on no page."""
        return self.steps_markup((Step(page.site_name, "/"), Step("…", None)), page)

    def texts_within(self) -> tuple[Part, ...]:
        return ("box",)

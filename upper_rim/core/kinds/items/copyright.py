"""Whose the rights are, since when."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ...values.words import Words
from ..context import PageContext
from ..markup import Markup, element
from .base import BaseItem


class Copyright(BaseItem):
    """The sign, the years up to the present one, and whose the rights are; the site's name where empty."""

    NAME = "Copyright line"
    ABOUT = "Whose it is, with the year that it is now"
    CALLED = ("©", "(c)", "rights")
    ROLES = {"box": "text"}

    kind: Literal["copyright"] = "copyright"
    words: Words = Words()
    first_year: Annotated[int, Field(ge=1000, le=9999)] | None = None

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        holder = self.words.in_language(page.language) or page.site_name
        years = self.years(page.year)
        content: list[Markup] = ["©"]
        if years:
            content += [" ", element("span", {"dir": "ltr", "data-rim-year": str(self.first_year or 0)}, years)]
        if holder:
            content.append(f" {holder}")
        return (element("span", page.attributes(self, "text", self.id), *content),)

    def years(self, year: int | None) -> str:
        """`2019–2026`, `2026`; empty where no year is known. `year`: the present one."""
        first, last = self.first_year, year or self.first_year
        if last is None:
            return ""
        return f"{first}–{last}" if first is not None and first < last else str(last)

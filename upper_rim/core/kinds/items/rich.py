"""A text with marks."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Set
from typing import Annotated, Literal

from pydantic import Field

from ...values.nodes import Pixels
from ...values.rich import RichWords
from ...values.styling import Part
from ..context import PageContext, SheetContext
from ..markup import Markup, Raw, element
from ..rule import Rule
from .base import BaseItem, Lack, is_first, named_by


class RichText(BaseItem):
    """A text with a small set of marks. Whatever comes in is cleaned (see `core.values.rich`)."""

    NAME = "Rich text"
    ABOUT = "Paragraphs, lists, bold words and links"
    CALLED = ("paragraph", "rich text", "list")
    ROLES = {
        "box": "text",
        "link": "link",
        "list": "list",
        "bullet": "mark",
        "heading-2": "heading-2",
        "heading-3": "heading-3",
    }

    kind: Literal["rich"] = "rich"
    rich: RichWords = RichWords(text="<p>Text</p>")
    column_count: Annotated[int, Field(ge=1, le=3)] = Field(
        default=1, description="How many columns of text stand beside each other, where there is room for them."
    )
    column_px: Annotated[int, Field(ge=80, le=800)] = Field(default=200, description="The least width of each.")
    column_gap_px: Pixels = 24

    def lacks(self) -> Iterator[Lack]:
        if is_first(self, "rich"):
            yield Lack("first words", "rich")

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return named_by("Text", re.sub(r"<[^>]+>", " ", self.rich.text).strip())

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        written = Raw(in_our_classes(self.rich.in_language(page.language), page))
        return (element("div", {**page.attributes(self, "text", "rich", self.id), "dir": "auto"}, written),)

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        """A list's line, a quotation, a heading is in one column, and a heading in that of the text that it is over."""
        if self.column_count == 1:
            return
        said = {"count": str(self.column_count), "width": f"{self.column_px}px", "gap": f"{self.column_gap_px}px"}
        yield Rule(own, {**{f"column-{name}": value for name, value in said.items()}, "orphans": "1", "widows": "1"})
        yield Rule(f"{own} :is(li,blockquote)", {"break-inside": "avoid"})
        headings = ",".join(f".{sheet.key}-{name}" for name in ("heading-2", "heading-3"))
        yield Rule(f"{own} :is({headings})", {"break-inside": "avoid", "break-after": "avoid"})

    @property
    def unseen_parts(self) -> Set[Part]:
        marked = " ".join([self.rich.text, *(one.text for one in self.rich.translations)])
        return {part for part, tag in _TAG_OF.items() if tag not in marked}

    def texts_within(self) -> tuple[Part, ...]:
        unseen = self.unseen_parts
        return tuple(part for part in ("link", "heading-2", "heading-3") if part not in unseen)


_TAG_OF: dict[Part, str] = {"link": "<a ", "list": "<ul", "bullet": "<ul", "heading-2": "<h2", "heading-3": "<h3"}


_CLASSES = {"a": "anchor", "ul": "bullets", "ol": "numbers", "h2": "heading-2", "h3": "heading-3"}
_TAGS = re.compile(r"<(/?)(a|ul|ol|h2|h3)\b([^>]*)>")


def in_our_classes(html: str, page: PageContext) -> str:
    """Links, lists and headings of a cleaned text with the classes of their roles. A heading is none of the page's
    outline: it is a paragraph that looks like one, so that a piece never disturbs the headings of the content."""

    def classed(found: re.Match[str]) -> str:
        closing, name, rest = found.groups()
        tag = "p" if name in {"h2", "h3"} else name
        return f"</{tag}>" if closing else f'<{tag} class="{page.name(_CLASSES[name])}"{rest}>'

    return _TAGS.sub(classed, html)

"""What has to be known to turn a piece into boxes: the site, one language, one width band."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Any

from ..model.brands import Brands
from ..model.links import Links
from ..model.site import Site
from ..model.styling import Part
from ..model.values import Words
from ..style.pictures import Pictures
from ..style.resolve import Element, Styling
from .boxes import Box
from .estimates import Estimates
from .inline import Around, Inline
from .styles import BoxStyle, box_style
from .text import Measurer, Paragraph, Run, Type, transformed

_WHITE = re.compile(r"[ \t\n\r\f]+")


@dataclass
class Setting:
    """`posts`: titles and dates of a posts item in a language. `estimates`: how long labels will be that are still to be
    translated; None: the words that are published in their place count."""

    site: Site
    styling: Styling
    measurer: Measurer
    links: Links
    brands: Brands
    pictures: Pictures
    posts: Callable[[Any, str], Sequence[tuple[str, str]]]
    language: str
    band: str | None
    beside: bool = False
    year: int = 2026
    estimates: Estimates | None = None
    missing: set[str] = field(default_factory=set)
    estimated: set[str] = field(default_factory=set)
    _styles: dict[Element, BoxStyle] = field(default_factory=dict)

    def style(self, element: Element) -> BoxStyle:
        if element not in self._styles:
            self._styles[element] = box_style(self.styling, element, self.band)
        return self._styles[element]

    def part(self, node: str, part: Part = "box") -> BoxStyle:
        return self.style(self.styling.elements[node, part])

    def within(self, node: str, role: str) -> BoxStyle:
        """Of something in an item that has no styles of its own but the defaults for its role."""
        box = self.styling.elements[node, "box"]
        return self.style(Element("", "box", role, box.piece, box))

    def words(self, words: Words, node: str) -> str:
        """As they are published in the language; or, where they are not translated and that is to be foreseen, a
        stand-in as long as the translation will be."""
        shown = words.in_language(self.language)
        if self.estimates is not None and shown:
            foreseen = self.estimates.foreseen(words, self.language, self.site.language)
            if foreseen is not None:
                self.estimated.add(node)
                return foreseen
        return shown

    def line(self, text: str, kind: Type, *, node: str = "", part: str = "text", breaks: bool = True) -> Inline:
        """A block of text that is set alike."""
        return self.lines([Run(text, kind)], kind, node=node, part=part, breaks=breaks)

    def lines(
        self,
        runs: Sequence[Run],
        kind: Type,
        *,
        node: str = "",
        part: str = "text",
        breaks: bool = True,
        **sizes: Any,
    ) -> Inline:
        shown = [
            Run(transformed(_WHITE.sub(" ", run.text), run.type.transform, self.language), run.type) for run in runs
        ]
        paragraph = Paragraph(shown, self.language, self.measurer)
        if paragraph.missing:
            self.missing.update(paragraph.missing)
        made = Inline(
            node=node, part=part, paragraph=paragraph, type=kind, faces=self.measurer.faces, breaks=breaks, **sizes
        )  # fmt: skip
        made.settle()
        return made

    def around(self, atom: Box, kind: Type) -> Around:
        """A line that holds nothing but a box."""
        made = Around(part="line", type=kind, faces=self.measurer.faces, atom=atom)
        made.settle()
        return made

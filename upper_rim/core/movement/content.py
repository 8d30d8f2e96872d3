"""About how high is a page's own content, where nobody has measured it?

A rough answer from the markup alone: text at a usual size and leading, headings, tables, pictures with their sizes.
Page styles are not read. What is worked out with it is called an estimate.
"""

from __future__ import annotations

import re
from functools import lru_cache
from html.parser import HTMLParser
from math import ceil
from typing import NamedTuple

LINE_PX, GAP_PX, CHARACTER_PX, ROW_PX = 26.0, 16.0, 7.6, 42.0
MOST_WIDE_PX = 760.0
"""Text columns are seldom wider."""
_HEADINGS = {"h1": (44.0, 34.0), "h2": (34.0, 24.0), "h3": (28.0, 19.0)}
"""Height of a line, and margin, of headings."""
_BLOCKS = frozenset({"p", "li", "dd", "dt", "blockquote", "pre", "figcaption", "div", "section", *_HEADINGS})


def estimated_content_px(html: str, width_px: float) -> float:
    """`html`: what stands in the page between its pieces."""
    wide = max(200.0, min(MOST_WIDE_PX, width_px - 40))
    return round(sum(part.high_px(wide) for part in _parts(html)), 1)


class _Text(NamedTuple):
    """A block's text: how many characters, and the tag around it."""

    characters: int
    kind: str

    def high_px(self, wide_px: float) -> float:
        line, gap = _HEADINGS.get(self.kind, (LINE_PX, GAP_PX / 2 if self.kind == "li" else GAP_PX))
        character = CHARACTER_PX * line / LINE_PX
        return ceil(self.characters * character / wide_px) * line + gap


class _Shown(NamedTuple):
    """A picture or the like, with the size that it asks for."""

    wide: float
    high: float

    def high_px(self, wide_px: float) -> float:
        return self.high * min(1.0, wide_px / self.wide) + GAP_PX


class _TableRow(NamedTuple):
    def high_px(self, wide_px: float) -> float:
        return ROW_PX


@lru_cache(maxsize=4)
def _parts(html: str) -> tuple[_Text | _Shown | _TableRow, ...]:
    """The same content is asked about at several widths, one after the other."""
    reading = _Reading()
    reading.feed(html)
    reading.close()
    reading.ends()
    return tuple(reading.parts)


class _Reading(HTMLParser):
    def __init__(self) -> None:
        super().__init__(convert_charrefs=True)
        self.parts: list[_Text | _Shown | _TableRow] = []
        self._text, self._kind, self._silent = 0, "p", 0

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        if tag in {"script", "style", "template", "svg", "noscript"}:
            self._silent += 1
        elif tag in _BLOCKS:
            self.ends()
            self._kind = tag
        elif tag == "tr":
            self.ends()
            self.parts.append(_TableRow())
        elif tag in {"img", "video", "iframe"}:
            sizes = {name: float(value) for name, value in attrs if value and re.fullmatch(r"\d{1,5}", value)}
            wide, high = sizes.get("width", 0.0), sizes.get("height", 0.0)
            if wide and high:
                self.parts.append(_Shown(wide, high))

    def handle_endtag(self, tag: str) -> None:
        if tag in {"script", "style", "template", "svg", "noscript"}:
            self._silent = max(0, self._silent - 1)
        elif tag in _BLOCKS:
            self.ends()
        elif tag == "tr":
            self._text = 0

    def handle_data(self, data: str) -> None:
        if not self._silent:
            self._text += len(" ".join(data.split()))

    def ends(self) -> None:
        """A block: its text, in lines."""
        if self._text:
            self.parts.append(_Text(self._text, self._kind))
        self._text, self._kind = 0, "p"

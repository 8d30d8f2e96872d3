"""About how high is a page's own content, where nobody has measured it?

A rough answer from the markup alone: text at a usual size and leading, headings, tables, pictures with their sizes.
Page styles are not read. What is worked out with it is called an estimate.
"""

from __future__ import annotations

import re
from html.parser import HTMLParser
from math import ceil

LINE_PX, GAP_PX, CHARACTER_PX, ROW_PX = 26.0, 16.0, 7.6, 42.0
MOST_WIDE_PX = 760.0
"""Text columns are seldom wider."""
_HEADINGS = {"h1": (44.0, 34.0), "h2": (34.0, 24.0), "h3": (28.0, 19.0)}
"""Height of a line, and margin, of headings."""
_BLOCKS = frozenset({"p", "li", "dd", "dt", "blockquote", "pre", "figcaption", "div", "section", *_HEADINGS})


def estimated_content_px(html: str, width_px: float) -> float:
    """`html`: what stands in the page between its pieces."""
    reading = _Reading(max(200.0, min(MOST_WIDE_PX, width_px - 40)))
    reading.feed(html)
    reading.close()
    reading.ends()
    return round(reading.high, 1)


class _Reading(HTMLParser):
    def __init__(self, wide: float) -> None:
        super().__init__(convert_charrefs=True)
        self.high, self._wide, self._text, self._kind, self._silent = 0.0, wide, 0, "p", 0

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        if tag in {"script", "style", "template", "svg", "noscript"}:
            self._silent += 1
        elif tag in _BLOCKS:
            self.ends()
            self._kind = tag
        elif tag == "tr":
            self.ends()
            self.high += ROW_PX
        elif tag in {"img", "video", "iframe"}:
            sizes = {name: float(value) for name, value in attrs if value and re.fullmatch(r"\d{1,5}", value)}
            wide, high = sizes.get("width", 0.0), sizes.get("height", 0.0)
            self.high += high * min(1.0, self._wide / wide) + GAP_PX if wide and high else 0.0

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
            line, gap = _HEADINGS.get(self._kind, (LINE_PX, GAP_PX / 2 if self._kind == "li" else GAP_PX))
            character = CHARACTER_PX * line / LINE_PX
            self.high += ceil(self._text * character / self._wide) * line + gap
        self._text, self._kind = 0, "p"

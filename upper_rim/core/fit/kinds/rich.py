"""Which boxes is a text with marks made of?"""

from __future__ import annotations

from html.parser import HTMLParser
from typing import NamedTuple

from ...kinds.items.rich import RichText
from ..css.base import BaseStyle
from ..css.block import Block, Void
from ..css.boxes import Box
from ..rows.setting import Setting
from ..rows.styles import BoxStyle
from ..text.paragraph import Run
from ..text.typesetting import Type

_WRITTEN = {
    "ul": "ul.rim-bullets", "ol": "ol.rim-numbers", "li": "ul.rim-bullets > li", "h2": "p.rim-heading-2",
    "h3": "p.rim-heading-3", **{mark: f"p > {mark}" for mark in ("strong", "em", "sub", "sup")},
}  # fmt: skip
"""As `RichText` writes it."""
_BLOCKS = {"p", "li", "ul", "ol", "h2", "h3", "blockquote"}


class _Open(NamedTuple):
    """A block that is being read: its tag, its style, what it holds so far, and runs that are not in a block yet."""

    tag: str
    style: BoxStyle | None
    type: Type
    within: list[Box]
    runs: list[Run]


class _Reader(HTMLParser):
    def __init__(self, item: RichText, setting: Setting) -> None:
        super().__init__(convert_charrefs=True)
        self._node, self._setting = item.id, setting
        own = setting.part(item.id)
        self._stack = [_Open("", None, own.type, [], [])]
        self._marks: list[tuple[str, Type]] = []

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        if tag == "br":
            self._flush()
        elif tag in _BLOCKS:
            self._flush()
            style = self._style(tag)
            around = self._stack[-1].type
            self._stack.append(_Open(tag, style, style.type if style else around, [], []))
        else:
            self._marks.append((tag, self._marked(tag)))

    def handle_endtag(self, tag: str) -> None:
        if tag in _BLOCKS:
            self._flush()
            if len(self._stack) > 1:
                done = self._stack.pop()
                self._stack[-1].within.append(self._box(done))
        elif self._marks and self._marks[-1][0] == tag:
            self._marks.pop()

    def handle_data(self, data: str) -> None:
        open_block = self._stack[-1]
        if not data.strip() and not open_block.runs:
            return
        open_block.runs.append(Run(data, self._current()))

    def _current(self) -> Type:
        return self._marks[-1][1] if self._marks else self._stack[-1].type

    def _style(self, tag: str) -> BoxStyle | None:
        role = {"h2": "heading-2", "h3": "heading-3", "ul": "list", "ol": "list"}.get(tag)
        return self._setting.within(self._node, role) if role else None

    def _marked(self, tag: str) -> Type:
        current = self._current()
        match tag:
            case "strong" | "em" | "sub" | "sup":
                return self._said(tag).type(current)
            case "a":
                link = self._setting.within(self._node, "link").type
                return link._replace(weight=max(link.weight, current.weight), italic=current.italic)
            case _:
                return current

    def _flush(self) -> None:
        """Runs so far become a block of lines of their own."""
        block = self._stack[-1]
        if block.runs:
            runs = [*block.runs]
            runs[0] = runs[0]._replace(text=runs[0].text.lstrip(" \t\r\n\f"))
            runs[-1] = runs[-1]._replace(text=runs[-1].text.rstrip(" \t\r\n\f"))
            shown = [run for run in runs if run.text]
            block.runs.clear()
            if shown:
                block.within.append(self._setting.lines(shown, block.type, part="lines"))

    def _said(self, tag: str) -> BaseStyle:
        return self._setting.sheets.of(f"div.rim-rich > {_WRITTEN.get(tag, tag)}")

    def _box(self, block: _Open) -> Box:
        base, size = self._said(block.tag), block.type.size
        sizes = base.sizes(size, 0.0) if block.style is None else block.style.over(**base.sizes(size))
        return Block(part=block.tag, within=block.within, contains_margins=False, **sizes)

    def finished(self) -> list[Box]:
        self.close()
        while len(self._stack) > 1:
            self.handle_endtag(self._stack[-1].tag)
        self._flush()
        return self._stack[0].within


def rich_box(item: RichText, setting: Setting) -> Box:
    reader = _Reader(item, setting)
    reader.feed(item.rich.in_language(setting.language))
    within = reader.finished()
    own = setting.part(item.id)
    if not within:
        return Void(node=item.id, **own.over()).settle()
    within[0].margin = within[0].margin._replace(block_start=0.0)
    within[-1].margin = within[-1].margin._replace(block_end=0.0)
    for box in within:
        _settled(box)
    return Block(node=item.id, within=within, **own.over()).settle()


def _settled(box: Box) -> None:
    for kid in box.kids():
        _settled(kid)
    box.settle()

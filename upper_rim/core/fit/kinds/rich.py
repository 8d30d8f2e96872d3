"""Which boxes is a text with marks made of?"""

from __future__ import annotations

from html.parser import HTMLParser
from typing import NamedTuple

from ...kinds.items.rich import RichText
from ..css.amount import Amount, times
from ..css.block import Block, Void
from ..css.boxes import Box, Sides
from ..rows.setting import Setting
from ..rows.styles import BoxStyle
from ..text.text import Run, Type

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
            case "strong":
                return current._replace(weight=700)
            case "em":
                return current._replace(italic=True)
            case "sub" | "sup":
                return current.at_size(times(current.size, 0.75))
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

    def _box(self, block: _Open) -> Box:
        size = block.type.size
        sizes = block.style.over() if block.style else {}
        if block.tag in {"p", "h2", "h3", "blockquote"}:
            sizes = block.style.over(margin=_margins(size, 0.5)) if block.style else {"margin": _margins(size, 0.5)}
        if block.tag == "li":
            sizes = {"margin": _margins(size, 0.2)}
        elif block.tag == "ol":
            sizes = {"padding": Sides(inline_start=times(size, 1.2))}
        elif block.tag == "ul" and block.style:
            sizes = block.style.over(padding=Sides(inline_start=times(size, 1.2)))
        elif block.tag == "blockquote":
            sizes = {
                "margin": _margins(size, 0.5),
                "padding": Sides(inline_start=times(size, 1.0)),
                "border": Sides(inline_start=3.0),
            }
        return Block(part=block.tag, within=block.within, contains_margins=False, **sizes)

    def finished(self) -> list[Box]:
        self.close()
        while len(self._stack) > 1:
            self.handle_endtag(self._stack[-1].tag)
        self._flush()
        return self._stack[0].within


def _margins(size: Amount, share: float) -> Sides:
    margin = times(size, share)
    return Sides(block_start=margin, block_end=margin)


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

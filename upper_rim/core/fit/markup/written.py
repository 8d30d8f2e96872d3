"""Which elements are written in a text with marks?"""

from __future__ import annotations

from functools import lru_cache
from html.parser import HTMLParser

from ...kinds.markup import Element, Markup

_VOID = frozenset({"br"})


@lru_cache(maxsize=512)
def elements_of(html: str) -> tuple[Markup, ...]:
    """`html`: cleaned before, so that each start tag but `br` has its end tag (see `core.values.rich`)."""
    reader = _Reader()
    reader.feed(html)
    reader.close()
    return reader.finished()


class _Reader(HTMLParser):
    def __init__(self) -> None:
        super().__init__(convert_charrefs=True)
        self._open: list[tuple[str, dict[str, str | bool | None], list[Markup]]] = [("", {}, [])]

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        self._open.append((tag, dict(attrs), []))
        if tag in _VOID:
            self.handle_endtag(tag)

    def handle_endtag(self, tag: str) -> None:
        if self._open[-1][0] == tag:
            name, attributes, children = self._open.pop()
            self._open[-1][2].append(Element(name, attributes, tuple(children)))

    def handle_data(self, data: str) -> None:
        self._open[-1][2].append(data)

    def finished(self) -> tuple[Markup, ...]:
        while len(self._open) > 1:
            self.handle_endtag(self._open[-1][0])
        return tuple(self._open[0][2])

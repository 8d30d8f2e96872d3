"""What are the shapes of the pages that come in? Each once, however many pages have it."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import NamedTuple
from urllib.parse import unquote, urlsplit

from ...kinds.page_shapes import PageShape
from ...page_shape.cascade import MOST_CSS, Sheet, joined
from ...page_shape.shape import Shaped, shaped
from ..html.styling import Styling

_HOME = "https://site.invalid"
_CHARSET = re.compile(rb'@charset "([\w-]{1,40})";')
MOST_KNOWN = 2000
"""So many families are told apart; of more, each page is looked at by itself."""


class _Variant(NamedTuple):
    """The shape of pages that are styled alike, and of which the same is held by the same elements."""

    held: dict[str, bool]
    found: Shaped


class Shapes:
    """`read`: the bytes of a file at a path of the site; None where there is none. `found`: all shapes, by their ids."""

    def __init__(self, read: Callable[[str], bytes | None]) -> None:
        self._read = read
        self._texts: dict[str, str | None] = {}
        self._known: dict[tuple[object, ...], list[_Variant]] = {}
        self.found: dict[str, PageShape] = {}

    def of(self, path: str, styling: Styling) -> Shaped:
        """Of a page there."""
        base = joined(_HOME + path, styling.base)
        sheets = [
            Sheet(one.text, _path(base), one.media)
            if one.kind == "written"
            else Sheet(self._linked(joined(base, one.text)) or "", _path(joined(base, one.text)), one.media)
            for one in styling.sheets
        ]
        said = styling.attributes
        is_all = all(one.kind == "written" or self._is_here(joined(base, one.text)) for one in styling.sheets)
        seen = ((hash(one.css), one.address, one.media) for one in sheets)
        key = (is_all, tuple(said.root.items()), tuple(said.body.items()), said.is_quirky, *seen)
        if len(self._known) > MOST_KNOWN:
            self._known.clear()
        variants = self._known.setdefault(key, [])
        known = next((one for one in variants if all(styling.holds(each) == one.held[each] for each in one.held)), None)
        if known is None:
            held: dict[str, bool] = {}
            found = shaped(said, sheets, self._at, lambda one: held.setdefault(one, styling.holds(one)), is_all=is_all)
            known = _Variant(held, found)
            variants.append(known)
        shape = known.found.shape
        if shape is not None:
            self.found[shape.id] = shape
        return known.found

    def _linked(self, address: str) -> str | None:
        """Of a file of the site; what lies elsewhere is not known."""
        return self._at(_path(address)) if self._is_here(address) else None

    def _is_here(self, address: str) -> bool:
        return address.startswith(f"{_HOME}/")

    def _at(self, path: str) -> str | None:
        if path not in self._texts:
            data = self._read(path) or self._read(unquote(path))
            self._texts[path] = None if data is None or len(data) > MOST_CSS else _text(data)
        return self._texts[path]


def _path(address: str) -> str:
    try:
        return urlsplit(address).path
    except ValueError:
        return ""


def _text(data: bytes) -> str:
    """CSS Syntax 3, 3.2: by its byte order mark, else by what it says of itself, else UTF-8."""
    said = _CHARSET.match(data)
    try:
        return data.decode(said[1].decode() if said else "utf-8-sig", "replace")
    except LookupError:
        return data.decode("utf-8", "replace")

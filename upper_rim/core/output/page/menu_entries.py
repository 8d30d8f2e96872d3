"""What of a menu's entries differs from page to page: where among them the page stands?

The entries are written once for all pages in a language; where a page stands is then put in at known places.
"""

from __future__ import annotations

from itertools import accumulate
from typing import NamedTuple

from ...exchange.html.encoding import insertion
from ...kinds.context import PageContext
from ...kinds.items.base import ShowsMenu
from ...kinds.items.menu_entries import entries_markup
from ...kinds.markup import SLOT, html
from ...model.navigation.current import Standing
from .splicing import Chunk


class EntriesHtml(NamedTuple):
    """Nested lists in parts; between two of them stands a slot, for what an entry's link (`c`) or its submenu's button
    (`f`) has where a page stands at or below the entry: the slot's kind and the entry's id."""

    parts: tuple[str, ...]
    slots: tuple[tuple[str, str], ...]

    @property
    def html(self) -> str:
        """On a page that stands nowhere among them."""
        return "".join(self.parts)


class EncodedEntries:
    """The same in a document's encoding, for all of its pages."""

    def __init__(self, made: EntriesHtml, label: str) -> None:
        parts = [insertion(part, label) for part in made.parts]
        self._bytes = b"".join(parts)
        self._slots: dict[tuple[str, str], list[int]] = {}
        for slot, at in zip(made.slots, accumulate(map(len, parts)), strict=False):
            self._slots.setdefault(slot, []).append(at)
        self._here, self._above, self._first = (
            insertion(text, label) for text in (' aria-current="page"', ' aria-current="true"', " data-rim-first")
        )

    def on_page(self, standing: Standing) -> list[Chunk]:
        put = [(at, self._here) for node in standing.here for at in self._slots.get(("c", node), ())]
        put += [(at, self._above) for node in standing.above for at in self._slots.get(("c", node), ())]
        for node in (*standing.here, *standing.above):
            put += [(at, self._first) for at in self._slots.get(("f", node), ())]
        view, last = memoryview(self._bytes), 0
        chunks: list[Chunk] = []
        for at, text in sorted(put):
            chunks += [view[last:at], text]
            last = at
        return [*chunks, view[last:]]


def entries_html(item: ShowsMenu, context: PageContext) -> EntriesHtml:
    """The entries that an item shows."""
    # Split at its slots: a part, then a slot's kind and id, and so on.
    first, *rest = SLOT.split(html(entries_markup(item, context, context.entries(item))))
    return EntriesHtml((first, *rest[2::3]), tuple(zip(rest[::3], rest[1::3], strict=True)))

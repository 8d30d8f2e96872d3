"""What has a page that asks for consent in it: a table by which its script decides, and what waits held back."""

from __future__ import annotations

import json
from collections.abc import Iterable, Iterator
from functools import cached_property

from ...exchange.html.encoding import insertion
from ...exchange.html.foreign import hosts_in, waiting
from ...exchange.html.markers import marked
from ...gates.asking import asked_in_short
from ...gates.consent import shipped_table
from ...gates.waiting import asks, is_cut, items_with, needed_for
from ...kinds.items.embed import Embed
from ...kinds.items.privacy import PrivacyChoices
from ...kinds.pieces.base import Piece
from ...kinds.pieces.consent import ConsentQuestion
from ...model.site import Page, Site, Snippet
from ..naming import PARTS_PATH, VISITOR_PATH, short_hash
from ..shelf import Shelf

RECORDS = f"{PARTS_PATH}consent"
"""Where our server takes down what was answered."""


class ConsentOnPages:
    """`pieces`: the ids of those that need the script: they ask, lead back to the question, or hold something back."""

    def __init__(self, site: Site, shelf: Shelf) -> None:
        self.asks = asks(site)
        self.pieces = frozenset(piece.id for piece in site.pieces if self.asks and _is_about_it(site, piece))
        self._site = site
        self._script = shelf.consent_script.encode()
        self._needed: dict[tuple[str, ...], str] = {}
        self._code: dict[str, str] = {}

    def held_back(self, page: Page) -> Iterator[tuple[int, bytes]]:
        """What is put where in a page's bytes. What is cut out of it waits for nothing."""
        for fetch in page.splice.fetches if page.splice and self.asks else ():
            if fetch.hosts not in self._needed:
                self._needed[fetch.hosts] = needed_for(self._site, fetch.hosts)
            needed = self._needed[fetch.hosts]
            if needed:
                at = fetch.at if not page.cuts else tuple(one for one in fetch.at if not is_cut(one, page))
                yield from ((place, insertion(text, page.encoding)) for place, text in waiting(fetch.how, at, needed))

    def code(self, snippet: Snippet) -> str:
        """A snippet's, to be put into a page: as it is, or as a text that is no code before a yes."""
        if snippet.id not in self._code:
            needed = self.asks and needed_for(self._site, hosts_in(snippet.code), snippet.waits)
            text = json.dumps(snippet.code).replace("<", "\\u003c")
            held = f'<script type="application/json" data-rim-waits="{needed}">{text}</script>'
            self._code[snippet.id] = held if needed else snippet.code
        return self._code[snippet.id]

    def is_needed(self, pieces: Iterable[str], snippets: Iterable[Snippet]) -> bool:
        """Whether a page with these needs the script, whatever its own content fetches."""
        return not self.pieces.isdisjoint(pieces) or any(self.code(one) is not one.code for one in snippets)

    def head(self) -> str:
        """For the head of a page: its table, and its script."""
        table = json.dumps(self._table, separators=(",", ":")).replace("<", "\\u003c")
        deferred = f'<script src="{self._path}" charset="utf-8" defer></script>'
        return marked("consent", f'<script type="application/json" data-rim-consent>{table}</script>{deferred}')

    def files(self) -> Iterator[tuple[str, bytes]]:
        if self.asks:
            yield self._path, self._script

    @cached_property
    def _path(self) -> str:
        return f"{PARTS_PATH}{short_hash(self._script)}.js"

    @cached_property
    def _table(self) -> dict[str, object]:
        rules, table = self._site.consent, shipped_table()
        own = {one.region: one.mode for one in rules.modes}
        modes = {**{region: law.mode for region, law in table.laws.items()}, **own}
        laws: dict[str, list[str]] = {}
        for region, mode in modes.items():
            laws.setdefault(mode, []).append(region)
        honours = [region for region, law in table.laws.items() if law.honours_signal]
        return {
            "asked": asked_in_short(self._site),
            "days": rules.days,
            "of": [
                [one.id, 1 if one.is_necessary else 2 if one.is_sold else 0, *one.cookies]
                for one in self._site.categories
            ],
            "laws": {mode: " ".join(regions) for mode, regions in laws.items()},
            "else": table.elsewhere,
            **({} if rules.heeds_signal else {"signal": " ".join(honours)}),
            "visitor": VISITOR_PATH,
            "sent": RECORDS,
        }


def _is_about_it(site: Site, piece: Piece) -> bool:
    items = (isinstance(item, Embed | PrivacyChoices) for item in items_with(site, piece))
    return isinstance(piece, ConsentQuestion) or any(items)

"""The site's own tree of pages, with where each hangs in a menu, as lines of the screen."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ....core.kinds.entries import Entry
from ....core.model.navigation.hanging import Hanging, PageLine, Place
from ....core.model.navigation.links import Links

MOST_OPEN, MOST_SHOWN = 250, 300
"""With no more pages than these, all branches are shown open; no more lines than those are shown at once."""
BETWEEN = " "
"""Between the keys of opened branches in an address: none holds one."""


@dataclass(frozen=True)
class TreeLine:
    """`node`: what is chosen with it: the entry that leads there, else the page; `page` is empty for a folder. `at`:
    which of the menu's entries it is, counted through all levels. `opened`: the branches that are open once this one
    is opened or shut; None where it has none, or all are open."""

    title: str
    path: str
    page: str
    node: str
    depth: int
    places: tuple[Place, ...]
    is_chosen: bool
    findings: list[str]
    at: int | str
    left_out: bool = False
    below: int = 0
    inside: int = 0
    opened: str | None = None
    is_open: bool = True


def page_tree(
    hanging: Hanging, links: Links, findings: list[tuple[str, str]], select: str, typed: str, opened: str
) -> dict[str, Any]:
    """The tree, or the pages that have in their title or path what was typed. `opened`: keys of branches."""
    drawn = _Drawn(hanging, links, findings, select, frozenset(opened.split(BETWEEN)) - {""})
    lines, typed = hanging.lines(), typed.strip().lower()
    found = _with(typed, lines) if typed else _open_lines(lines, drawn.wanted, select)
    shown = found[:MOST_SHOWN]
    is_shut = len(lines) > MOST_OPEN and not typed
    open_branches = {line.parent for line in shown}
    elsewhere = hanging.elsewhere()
    return {
        "tree": [drawn.page_line(line, is_shut, line.key in open_branches, flat=bool(typed)) for line in shown],
        "more": len(found) - len(shown),
        "elsewhere": [drawn.entry_line(number, entry) for number, entry in elsewhere[:MOST_SHOWN]],
        "more_elsewhere": max(0, len(elsewhere) - MOST_SHOWN),
        "q": typed,
        "menu_findings": drawn.told.get(hanging.menu_id, []),
    }


class _Drawn:
    def __init__(
        self, hanging: Hanging, links: Links, findings: list[tuple[str, str]], select: str, wanted: frozenset[str]
    ) -> None:
        self._links, self._language, self._select, self.wanted = links, hanging.language, select, wanted
        self._order = {node: at for at, node in enumerate(hanging.numbers, 1)}
        self.told: dict[str, list[str]] = {}
        for node, words in findings:
            self.told.setdefault(node, []).append(words)

    def page_line(self, line: PageLine, is_shut: bool, is_open: bool, *, flat: bool) -> TreeLine:
        page = line.page
        node = line.places[0].entry if line.places else line.key
        return TreeLine(
            (page.title or page.path)
            if page
            else line.path.removeprefix(line.parent if line.parent[:1] == "/" else "/"),
            line.path if page else "",
            page.id if page else "",
            node,
            0 if flat else line.depth,
            line.places[:3],
            self._select in {line.key, *(place.entry for place in line.places)},
            [words for place in line.places for words in self.told.get(place.entry, [])],
            self._order.get(node, ""),
            bool(line.left_out_of) and not line.places,
            line.below,
            line.inside,
            BETWEEN.join(sorted(self.wanted ^ {line.key})) if is_shut and line.below else None,
            is_open,
        )

    def entry_line(self, number: str, entry: Entry) -> TreeLine:
        return TreeLine(
            self._links.label(entry, self._language) or "(no label)",
            self._links.resolve(entry.target, self._language)[0] or "",
            "",
            entry.id,
            0,
            (Place(number, entry.id, ""),),
            entry.id == self._select,
            self.told.get(entry.id, []),
            self._order[entry.id],
        )


def _with(typed: str, lines: list[PageLine]) -> list[PageLine]:
    return [one for one in lines if one.page and (typed in one.path.lower() or typed in one.page.title.lower())]


def _open_lines(lines: list[PageLine], wanted: frozenset[str], select: str) -> list[PageLine]:
    """Those whose branch is open: all of a small site; of a large one the first level, what was opened, and the way to
    what is chosen."""
    if len(lines) <= MOST_OPEN:
        return lines
    parents = {line.key: line.parent for line in lines}
    chosen = next((one.key for one in lines if select in {one.key, *(place.entry for place in one.places)}), "")
    open_branches = {"", *wanted}
    while chosen:
        chosen = parents[chosen]
        open_branches.add(chosen)
    shown: set[str] = set()
    for line in lines:
        if line.parent in open_branches and (not line.parent or line.parent in shown):
            shown.add(line.key)
    return [line for line in lines if line.key in shown]

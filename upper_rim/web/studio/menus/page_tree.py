"""The site's own tree of pages, with where each hangs in a menu, as lines of the screen."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any
from urllib.parse import urlencode

from ....core.model.navigation.hanging import Hanging, PageLine, Place
from ....core.model.navigation.links import Links

MOST_OPEN, MOST_FOUND = 250, 300
"""With no more pages than these, all branches are shown open; no more than those are found at once."""


@dataclass
class TreeLine:
    """`node`: what is chosen with it: the entry that leads there, else the page. `twist` is the address that opens or
    shuts what is below it, empty where all is open."""

    title: str
    path: str
    page: str
    node: str
    depth: int
    places: tuple[Place, ...] = ()
    is_chosen: bool = False
    grows: bool = False
    left_out: bool = False
    below: int = 0
    inside: int = 0
    twist: str = ""
    is_open: bool = True
    findings: list[str] = field(default_factory=list)
    at: int | str = ""
    """Which of the menu's entries it is, counted through all levels."""


def page_tree(
    hanging: Hanging, links: Links, findings: list[tuple[str, str]], select: str, typed: str, opened: str
) -> dict[str, Any]:
    lines = hanging.lines()
    told: dict[str, list[str]] = {}
    for node, words in findings:
        told.setdefault(node, []).append(words)
    """The tree, or the pages that have in their title or path what was typed. `opened`: ids of branches."""
    typed = typed.strip().lower()
    wanted = {part for part in opened.split(",") if part}
    if typed:
        found = [one for one in lines if typed in one.page.path.lower() or typed in one.page.title.lower()]
        shown, more = found[:MOST_FOUND], len(found) - MOST_FOUND
    else:
        shown, more = _open_lines(lines, wanted, select, hanging), 0
    twists = len(lines) > MOST_OPEN and not typed
    open_pages = {line.parent for line in shown}
    order = {node: at for at, node in enumerate(hanging.numbers, 1)}
    elsewhere = [
        TreeLine(
            links.label(entry, hanging.language) or "(no label)",
            "" if entry.target.kind == "nothing" else (links.resolve(entry.target, hanging.language)[0] or ""),
            "",
            entry.id,
            0,
            (Place(number, entry.id, ""),),
            is_chosen=entry.id == select,
            findings=told.get(entry.id, []),
            at=order[entry.id],
        )
        for number, entry in hanging.elsewhere()
    ]
    tree = []
    for line in shown:
        is_open = line.page.id in open_pages
        twist = ",".join(sorted(wanted ^ {line.page.id})) if twists and line.below else None
        node = line.places[0].entry if line.places else line.page.id
        tree.append(
            TreeLine(
                line.page.title or line.page.path,
                line.page.path,
                line.page.id,
                node,
                line.depth if not typed else 0,
                line.places[:3],
                is_chosen=bool(select) and select in {line.page.id, *(place.entry for place in line.places)},
                grows=bool(line.places and line.places[0].grows_in),
                left_out=bool(line.left_out_of),
                below=line.below,
                inside=line.inside,
                twist="?" + urlencode({"open": twist, **({"select": select} if select else {})})
                if twist is not None
                else "",
                is_open=is_open,
                findings=[words for place in line.places for words in told.get(place.entry, [])],
                at=order.get(node, ""),
            )
        )
    on_the_menu = told.get(hanging.menu_id, [])
    return {"tree": tree, "elsewhere": elsewhere, "q": typed, "more": max(more, 0), "menu_findings": on_the_menu}


def _open_lines(lines: list[PageLine], wanted: set[str], select: str, hanging: Hanging) -> list[PageLine]:
    """Those whose branch is open: all of a small site; of a large one the first level, what was opened, and the way to
    what is chosen."""
    if len(lines) <= MOST_OPEN:
        return lines
    parents = {line.page.id: line.parent for line in lines}
    chosen = next((one.page.id for one in lines if select in {one.page.id, *(place.entry for place in one.places)}), "")
    open_pages = {"", *wanted}
    while chosen:
        chosen = parents[chosen]
        open_pages.add(chosen)
    shown: set[str] = set()
    for line in lines:
        if line.parent in open_pages and (not line.parent or line.parent in shown):
            shown.add(line.page.id)
    return [line for line in lines if line.page.id in shown]

"""How do menus show themselves that are no mere rows, and how does what their buttons open come and go?"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence

from ...kinds.items.menu import MenuItem
from ...kinds.rule import Rule, any_of, inside
from ...model.site import Site, drawer_width
from ...model.tree import items_of
from ...style.selectors import selectors_in
from ..naming import named, published_name, with_site_key
from ..shelf import Shelf
from .part_selectors import outside_drawers
from .width_rules import media


def menus_of(site: Site) -> list[MenuItem]:
    return [item for item in items_of(site.pieces) if isinstance(item, MenuItem)]


def drawer_widths(site: Site) -> list[int]:
    return sorted({width for menu in menus_of(site) if (width := drawer_width(menu, site)) is not None})


def shipped_for_ways(site: Site, shelf: Shelf) -> Iterator[Rule]:
    """The shipped rules of menus that are no mere rows; from their own width on, where they are drawers below it."""
    alike: dict[tuple[str, int | None], list[str]] = {}
    for item in menus_of(site):
        has_panels = item.way == "row" and item.panels == "wide"
        way = "panels" if has_panels else {"column": "list", "columns": "columns"}.get(item.way)
        if way:
            below = drawer_width(item, site) if way != "list" else None
            alike.setdefault((way, below), []).append(published_name(site.key, item.id))
    for (way, below), menus in alike.items():
        yield from inside(media(f"(width >= {below}px)" if below else ""), _scoped(shelf.menu_rules[way], site, menus))


def shipped_for_drawers(site: Site, shelf: Shelf, width_px: int) -> Iterator[Rule]:
    """The shipped rules of menus below their width: entries below each other, in what their button opens."""
    menus = [item for item in menus_of(site) if drawer_width(item, site) == width_px]
    parts = ["list", "drawer"]
    parts += ["levels"] if any(item.submenus == "levels" for item in menus) else []
    parts += ["button"] if any(item.button_turns or item.button_words_open.text for item in menus) else []
    shipped = [rule for part in parts for rule in shelf.menu_rules[part]]
    scoped = _scoped(shipped, site, [published_name(site.key, f"below-{width_px}")])
    return inside(media("screen", f"(width < {width_px}px)"), scoped)


def _scoped(rules: Iterable[Rule], site: Site, classes: Sequence[str]) -> Iterator[Rule]:
    """Rules for menus of these classes. `&` in them is the menu; a rule without it is for what is in one."""
    scope = any_of([f".{one}" for one in classes])
    drawers = any(site.drawers_in(piece) for piece in site.pieces)

    def within(selector: str) -> str:
        whole = selector.replace("&", scope) if "&" in selector else f"{scope} {selector}"
        # Lists are what a drawer's own rows have, too.
        return with_site_key(outside_drawers(whole), site.key) if drawers and "-list" in whole else whole

    for rule in named(rules, site.key):
        yield rule._replace(selector=",".join(map(within, selectors_in(rule.selector))))


_AWAY = {"start": "-100% 0", "end": "100% 0", "top": "0 -100%", "bottom": "0 100%"}
"""By how much a drawer is moved while it is shut, in a script that runs from left to right."""
_MIRRORED = {"start": "100% 0", "end": "-100% 0"}


def coming_rules(site: Site, menus: Iterable[MenuItem]) -> Iterator[Rule]:
    """How what menus' buttons open comes and goes: of those that do it alike together."""
    alike: dict[tuple[int, int, str, bool], list[MenuItem]] = {}
    for item in menus:
        below = drawer_width(item, site)
        if item.drawer_ms and below:
            alike.setdefault((below, item.drawer_ms, item.drawer_side, item.drawer_pushes), []).append(item)
    for (below, *_), listed in alike.items():
        yield from _coming(site, listed, below)


def _coming(site: Site, menus: Sequence[MenuItem], below: int) -> Iterator[Rule]:
    """How what their buttons open slides in and out, or appears where it covers the screen; and the page beside it
    (CSS Transitions 2, 3.3: what comes from not being there)."""
    item, key = menus[0], site.key
    own = any_of([f".{key}-{menu.id}" for menu in menus])
    drawer = f"{own}>.{key}-drawer"
    opened = f"{drawer}.{key}-drawer:popover-open"
    mirrored_drawer, mirrored = f"{own}:dir(rtl)>.{key}-drawer", _MIRRORED.get(item.drawer_side)
    moved, shut, rest = ("opacity", "0", "1")
    if item.drawer_side in _AWAY:
        moved, shut, rest = ("translate", _AWAY[item.drawer_side], "0 0")
    time = f"{item.drawer_ms}ms"
    transitions = ",".join(f"{one} {time} allow-discrete" for one in ("translate", "opacity", "display", "overlay"))
    lively = (f"@media screen and (width < {below}px) and (prefers-reduced-motion:no-preference)",)
    yield Rule(f"{drawer},{drawer}::backdrop", {"transition": transitions}, lively)
    yield Rule(drawer, {moved: shut}, lively)
    yield Rule(f"{drawer}::backdrop", {"opacity": "0"}, lively)
    if mirrored:
        yield Rule(mirrored_drawer, {moved: mirrored}, lively)
    yield Rule(opened, {moved: rest}, lively)
    yield Rule(f"{opened}::backdrop", {"opacity": "1"}, lively)
    if item.drawer_pushes and mirrored:
        yield Rule(f"body:has({own})", {"transition": f"translate {time} ease-out"}, lively)
    starting = (*lively, "@starting-style")
    yield Rule(opened, {moved: shut}, starting)
    yield Rule(f"{opened}::backdrop", {"opacity": "0"}, starting)
    if mirrored:
        yield Rule(f"{mirrored_drawer}:popover-open", {moved: mirrored}, starting)

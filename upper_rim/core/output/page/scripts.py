"""Which parts of the published script does a page load, and which modules come when something on it is first used?"""

from __future__ import annotations

import json
import re
from collections.abc import Collection

from ...model.site import Site, band_widths
from ...model.tree import items_of
from ..css.sheet import late_css
from ..shelf import Shelf

NEEDED_BY = {
    "branches": r"data-rim-(?:branch|drawer)",
    "levels": r"data-rim-back",
    "drawers": r"data-rim-drawer",
    "distances": r'data-rim-(?:stages|until)="(?:[^"]*\n)?(?:=|[\d.]+[pv])',
    "moves": r"data-rim-(?:stages|until|up|yields)",
    "hints": r"data-rim-hint",
    "late": r"data-rim-late",
    "years": r"data-rim-year",
    "viewer": r"data-rim-viewer",
    "pager": r"data-rim-pager",
    "film": r"data-rim-film",
    "offers": r"data-rim-offers",
    "suggests": r"data-rim-suggests",
}
"""By part, in the order in which they run: what in a page's pieces needs it."""
PARTS_IN_ORDER = ("begin", *NEEDED_BY, "end")
_NEEDED = {part: re.compile(f" {pattern}") for part, pattern in NEEDED_BY.items()}


def parts_for(html: str) -> tuple[str, ...]:
    """The parts that the markup of a page's pieces needs, in order; none where it needs nothing."""
    needed = tuple(part for part, pattern in _NEEDED.items() if pattern.search(html))
    return ("begin", *needed, "end") if needed else ()


def script(shelf: Shelf, parts: Collection[str]) -> str:
    """One script of these parts, which share their names."""
    return f"(()=>{{{''.join(shelf.scripts[part] for part in parts)}}})();"


def late_scripts(site: Site, shelf: Shelf) -> dict[str, str]:
    """The modules that something of the site's needs once it is used, each with its CSS in it."""
    bands = band_widths(site)
    names = {name for item in items_of(site.pieces) for name in item.modules(bands)}
    return {name: late_script(site, shelf, name) for name in sorted(names)}


def late_script(site: Site, shelf: Shelf, name: str) -> str:
    return _with_css(shelf.late_scripts[name], late_css(site, shelf.late_rules.get(name, ())))


def _with_css(module: str, css: str) -> str:
    """A module that brings its CSS before it does anything else."""
    if not css:
        return module
    return (
        f"const css=new CSSStyleSheet;css.replaceSync({json.dumps(css)});document.adoptedStyleSheets.push(css);{module}"
    )

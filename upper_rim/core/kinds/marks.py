"""What stands in a piece for what differs from page to page? Pieces are written once for many pages."""

from __future__ import annotations

import re

from .context import PageContext
from .markup import Raw


def trail_mark(item_id: str) -> Raw:
    """For the trail of the page on which the piece will be."""
    return Raw(f"<!--rim-trail-{item_id}-->")


def switch_mark(item_id: str) -> Raw:
    """For the ways from the page on which the piece will be to the same in other languages."""
    return Raw(f"<!--rim-switch-{item_id}-->")


def entries_mark(item_id: str, page: PageContext) -> Raw:
    """For the entries of a menu, which differ by where the page stands among them."""
    return Raw(f"<!--rim-entries {item_id} {page.holder}-->")


MARK = re.compile(r"<!--rim-(?:(?:trail|switch)-([a-z0-9-]+)|entries ([a-z0-9-]+) ([a-z0-9-]*))-->")
"""The item of a trail, or of a switch; or a menu's item, and the piece that shares its row."""

"""Who looks at what: a visitor, and what the thing says now."""

from __future__ import annotations

import hashlib
from collections.abc import Iterator
from typing import Any

from ..conditions.audience.audience import Audience
from ..conditions.audience.not_closed import NotClosed
from ..conditions.visitor import Looking, VisitorCard
from ..kinds.pieces.base import Piece
from ..model.site import Site
from ..values.nodes import within
from ..values.words import Translatable


def looking_at(node: Any, card: VisitorCard, site: Site, languages: tuple[str, ...]) -> Looking:
    """`languages`: the site's, found once for all that is looked at."""
    return Looking(card, languages, site.zone, node.id, says(node, site) if goes_by_text(node.audience) else "")


def goes_by_text(audience: Audience) -> bool:
    """Whether it counts what the thing says now."""
    return any(isinstance(one, NotClosed) and one.until_changed for one in audience.conditions)


def says(node: Any, site: Site) -> str:
    """All that it says, in any language, in short: another one, where it says something else."""
    shown = (node, *site.shown_rows(node)) if isinstance(node, Piece) else (node,)
    return hashlib.sha256("\n".join(text for one in shown for text in _texts(one)).encode()).hexdigest()[:8]


def _texts(value: object) -> Iterator[str]:
    for one in within(value):
        if isinstance(one, Translatable):
            yield one.text
            yield from (other.text for other in one.translations)

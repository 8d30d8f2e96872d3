"""Which controls does a piece have that only its kind has? One module a kind that has some."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from .....core.model.site import Site
from ..control import Group
from . import bottom, consent, drawer, float, footer, gate, notice, sidebar

GROUPS: dict[str, Callable[[Any, Site], list[Group]]] = {
    "footer": footer.groups,
    "sidebar": sidebar.groups,
    "notice": notice.groups,
    "bottom": bottom.groups,
    "float": float.groups,
    "drawer": drawer.groups,
    "password": gate.password,
    "age": gate.age,
    "consent": consent.groups,
}
"""By the kind's name in documents; a header has none."""

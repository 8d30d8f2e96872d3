"""The sites that ship for trying out: *Ostrey Ferries* and *Quillwort Press*. All in them is made up."""

from __future__ import annotations

from .ostrey import ostrey
from .quillwort import quillwort

__all__ = ["ostrey", "quillwort"]

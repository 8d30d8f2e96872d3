"""What ships with the application and goes into published sites: faces, icons, the script, the base CSS.

The core reads no files: the shell loads a shelf (`upper_rim.shipped`) and passes it in.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ..model.brands import Brands
from ..style.faces import Face


@dataclass(frozen=True)
class Shelf:
    """`scripts`: `rim` for what most pieces share, the others by kind of item; `item_css` likewise, `hint` besides; `menu_css` by the
    way in which a menu is shown: `list`, `drawer`, `levels`, `button`, `panels`, `columns`."""

    faces: Mapping[str, Face]
    icons: Mapping[str, str]
    brands: Brands
    scripts: Mapping[str, bytes]
    notice_script: str
    pieces_css: str
    menu_css: Mapping[str, str]
    item_css: Mapping[str, str]

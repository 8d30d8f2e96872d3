"""What ships with the application and goes into published sites: faces, icons, the script, the base CSS.

The core reads no files: the shell loads a shelf (`upper_rim.shipped`) and passes it in.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ..style.faces import Face
from ..values.brands import Brands


@dataclass(frozen=True)
class Shelf:
    """`scripts`: the parts of the published script by name; `item_css` by kind of item, and `hint`; `menu_css` by the
    way in which a menu is shown: `list`, `drawer`, `levels`, `button`, `panels`, `columns`. `late_scripts`: modules that are fetched
    when a visitor first uses what needs them, and `late_css` with them."""

    faces: Mapping[str, Face]
    icons: Mapping[str, str]
    brands: Brands
    scripts: Mapping[str, str]
    late_scripts: Mapping[str, str]
    late_css: Mapping[str, str]
    notice_script: str
    pieces_css: str
    menu_css: Mapping[str, str]
    item_css: Mapping[str, str]

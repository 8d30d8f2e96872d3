"""What ships with the application and goes into published sites: faces, icons, the script, the base CSS.

The core reads no files: the shell loads a shelf (`upper_rim.shipped`) and passes it in.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property

from ..fit.css.base import BaseSheets
from ..kinds.rule import Rule
from ..style.type.faces import Face
from ..values.brands import Brands
from .shown_files import FileReaders


@dataclass(frozen=True)
class Shelf:
    """`scripts`: the parts of the published script by name. `late_scripts`: modules that are fetched when a visitor
    first uses what needs them, and `late_rules` with them. `audience_scripts`: what decides who looks, by kind of
    condition, with what comes before (`begin`) and behind them (`end`). `piece_rules` are for every piece, `menu_rules` by the way
    in which a menu is shown (`list`, `drawer`, `levels`, `button`, `panels`, `columns`), `item_rules` by kind of item,
    and `hint`. In all rules `rim` stands for the site's key. `readers`: of the files that a site brings itself."""

    faces: Mapping[str, Face]
    icons: Mapping[str, str]
    brands: Brands
    scripts: Mapping[str, str]
    late_scripts: Mapping[str, str]
    late_rules: Mapping[str, tuple[Rule, ...]]
    notice_script: str
    consent_script: str
    gates_script: str
    audience_scripts: Mapping[str, str]
    piece_rules: tuple[Rule, ...]
    menu_rules: Mapping[str, tuple[Rule, ...]]
    item_rules: Mapping[str, tuple[Rule, ...]]
    readers: FileReaders = field(default_factory=FileReaders)

    @cached_property
    def offered_faces(self) -> list[Face]:
        """Those that a site can be set in."""
        return [face for face in self.faces.values() if not face.only_script]

    @cached_property
    def sheets(self) -> BaseSheets:
        """What fit reads of these rules."""
        return BaseSheets(self.piece_rules, self.item_rules, self.menu_rules)

"""Which boxes is an item made of?"""

from __future__ import annotations

from typing import Any, NamedTuple

from ...model.site import band_widths
from ..css.boxes import Box
from ..css.flex import Flex
from ..rows.setting import Setting
from ..rows.styles import BoxStyle
from .elements import ElementBoxes


def item_box(item: Any, setting: Setting) -> Box | None:
    """None: it takes no room there."""
    if setting.band is not None and setting.band in item.hidden_in:
        return None
    box = ElementBoxes(item, setting).box()
    if box is not None and item.hint.text:
        # A hint's wrapper is a flex box around the item (its own text stands outside the flow).
        box = Flex(node=item.id, part="hinted", within=[box], is_seen=box.is_seen).settle()
    return box


class Variant(NamedTuple):
    """What may make an item's box another one in another width band: its styles, and past which of the widths it is at
    which it shows itself otherwise."""

    styles: tuple[BoxStyle, ...]
    past: tuple[bool, ...]


_OUT_OF_THE_FLOW = frozenset({"panel", "opened", "veil", "close"})


def variant_of(item: Any, setting: Setting) -> Variant:
    parts = [part for part in item.roles if part not in _OUT_OF_THE_FLOW and part not in item.unseen_parts]
    styles = [setting.part(item.id, part) for part in parts]
    changes = item.changes_at(band_widths(setting.site))
    return Variant(tuple(styles), tuple(setting.from_px >= px for px in changes))

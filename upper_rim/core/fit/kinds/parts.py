"""Which boxes do several kinds of items have in common?"""

from __future__ import annotations

from ..css.block import Block, Void
from ..css.boxes import Box, Sides
from ..css.flex import Flex
from ..rows.setting import Setting
from ..rows.styles import BoxStyle
from ..text.text import Run, Type


def labelled(words: str, kind: Type, setting: Setting, *, breaks: bool = True) -> list[Box]:
    """The anonymous flex item around a text (CSS Flexible Box 1, 4)."""
    return [setting.line(words, kind, breaks=breaks, is_anonymous=True)] if words else []


def icon_link(words: str, shown: str, icon_px: float, own: BoxStyle, node: str, setting: Setting) -> Box:
    icon = Void(part="icon", width=icon_px, height=icon_px, shrink=0.0).settle()
    within: list[Box] = [icon, setting.line(words, own.type)] if words else [icon]
    below = shown == "below"
    gap = {"beside": 8.0, "below": 2.0}.get(shown, 0.0) if words or shown != "none" else 0.0
    return Flex(
        node=node, direction="column" if below else "row", align="center", justify="center", row_gap=gap, column_gap=gap,
        within=within, **own.over(),
    ).settle()  # fmt: skip


def titled(node: str, title: str, own: BoxStyle, lines: list[Box], setting: Setting) -> Box:
    within: list[Box] = []
    if title:
        bold = own.type._replace(weight=700)
        within.append(setting.lines([Run(title, bold)], bold, part="title", margin=Sides(block_end=4.0)))
    within.append(Block(part="list", within=lines).settle())
    return Block(node=node, within=within, **own.over()).settle()

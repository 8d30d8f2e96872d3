"""Which boxes do several kinds of items have in common?"""

from __future__ import annotations

from ...kinds.items.parts import WORDS_CLASS
from ..css.block import Block, Void
from ..css.boxes import Box
from ..css.flex import Flex
from ..rows.setting import Setting
from ..rows.styles import BoxStyle
from ..text.paragraph import Run
from ..text.typesetting import Type


def labelled(words: str, kind: Type, setting: Setting, *, breaks: bool = True) -> list[Box]:
    """The anonymous flex item around a text (CSS Flexible Box 1, 4)."""
    return [setting.line(words, kind, breaks=breaks, is_anonymous=True)] if words else []


def icon_link(words: str, shown: str, icon_px: float, own: BoxStyle, node: str, setting: Setting) -> Box:
    icon = Void(part="icon", width=icon_px, height=icon_px, shrink=0.0).settle()
    within: list[Box] = [icon, setting.line(words, own.type)] if words else [icon]
    link = setting.sheets.of(f"a.rim-link.rim-{WORDS_CLASS[shown]}" if shown in WORDS_CLASS else "a.rim-link")
    return Flex(
        node=node, direction="column" if shown == "below" else "row", align="center", justify="center", **link.gaps(),
        within=within, **own.over(),
    ).settle()  # fmt: skip


def titled(node: str, title: str, own: BoxStyle, lines: list[Box], setting: Setting) -> Box:
    within: list[Box] = []
    if title:
        head = setting.sheets.of("nav.rim-menu.rim-links > div.rim-list-title")
        kind = head.type(own.type)
        within.append(setting.lines([Run(title, kind)], kind, part="title", **head.sizes(kind.size, 0.0)))
    within.append(Block(part="list", within=lines).settle())
    return Block(node=node, within=within, **own.over()).settle()

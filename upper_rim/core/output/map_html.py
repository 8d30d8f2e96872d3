"""What is the HTML of a map? A drawing made from the coordinates alone: a stand-in, which says so, and leads to a real
one by a `geo:` address (RFC 5870)."""

from __future__ import annotations

from html import escape
from math import cos, radians, sin
from typing import TYPE_CHECKING
from urllib.parse import quote

from ..model.items import MapItem
from ..model.told import place_told

if TYPE_CHECKING:
    from .item_html import Scene


def map_html(item: MapItem, scene: Scene) -> str:
    words = escape(item.words.in_language(scene.language), quote=True)
    drawing = "data:image/svg+xml," + quote(map_svg(item), safe="/=:.,'")
    geo = f"geo:{item.latitude:g},{item.longitude:g}"
    return (
        f"<div {scene.attributes(item, 'block', 'map', item.id)}>"
        f'<img src="{drawing}" alt="{words}" width="{item.width_px}" height="{item.height_px}">'
        f'<a class="{scene.name("anchor")}" href="{geo}"><bdi>{words}</bdi> <span dir="ltr">{place_told(item)}</span></a></div>'
    )


def map_svg(item: MapItem) -> str:
    """Meridians and parallels around the place, a coast that follows from where it is, and a pin in the middle."""
    wide, high = item.width_px, item.height_px
    turn = item.latitude * 0.7 + item.longitude * 1.3
    coast = " ".join(
        f"{x} {high * (0.62 + 0.16 * sin(turn + x / wide * 5) + 0.07 * cos(turn * 2.1 + x / wide * 13)):.0f}"
        for x in range(0, wide + 1, max(8, wide // 24))
    )
    lines = "".join(f"M{wide * at / 4:.0f} 0V{high}M0 {high * at / 4:.0f}H{wide}" for at in (1, 2, 3))
    step = 0.02
    across = step / max(0.1, cos(radians(item.latitude)))
    names = "".join(
        f'<text x="{wide * at / 4 + 3:.0f}" y="{high - 5}">{item.longitude + (at - 2) * across:.2f}°</text>'
        for at in (1, 3)
    )
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide}" height="{high}" viewBox="0 0 {wide} {high}"><path fill="#cfe3ea" d="M0 0h{wide}v{high}H0z"/>'
        f'<path fill="#e9e4d4" stroke="#a8a08a" d="M{coast} {wide} {high} 0 {high}z"/><path stroke="#7f98a1" stroke-opacity=".5" d="{lines}"/>'
        f'<g font-family="sans-serif" font-size="10" fill="#4a5a60">{names}</g>'
        f'<g transform="translate({wide // 2} {high // 2})"><path fill="#9c3b26" d="M0 0c-4-9-10-13-10-20a10 10 0 0 1 20 0c0 7-6 11-10 20z"/>'
        '<circle cy="-20" r="4" fill="#fff"/></g></svg>'
    )

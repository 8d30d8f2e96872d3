"""How large is a drawing (SVG) that a stranger made, and what does it look like in small?

Its size is read, not believed: nothing is drawn larger than what is looked at. Parts that make the renderer set aside
room of their own, as patterns do, are drawn behind a wall: in a child process with limits, whose end harms nobody.
"""

from __future__ import annotations

import io
import re
import subprocess
import sys
from typing import NamedTuple
from xml.etree import ElementTree

import resvg_py

LARGEST_SVG = 1_000_000
LARGEST_SIDE_PX = 1_000_000.0
CHILD_SECONDS, CHILD_BYTES = 5, 1 << 30
_REACHES_OUT = re.compile(
    rb"""href\s*+=\s*+["'](?!#)|url\(\s*+["']?+(?!#)|<!ENTITY|<foreignObject|@import""", re.IGNORECASE
)
_SETS_ROOM_ASIDE = re.compile(
    rb"<(?:[\w.-]{1,40}:)?(?:pattern|image|filter)\b|<svg\b.*<(?:[\w.-]{1,40}:)?svg\b", re.DOTALL
)
_LENGTH = re.compile(r"\s*([+]?(?:\d{1,12}\.?\d{0,12}|\.\d{1,12})(?:e[+-]?\d{1,2})?)(px|pt|pc|mm|cm|in|em|ex)?\s*")
_PX = {"px": 1.0, "pt": 96 / 72, "pc": 16.0, "mm": 96 / 25.4, "cm": 96 / 2.54, "in": 96.0, "em": 16.0, "ex": 8.0}


class Size(NamedTuple):
    """Natural width and height in px (SVG 2, 8.2: of `width` and `height`, else of `viewBox`)."""

    width: float
    height: float


def size_of(svg: bytes) -> Size | None:
    """None where it says none that can be drawn."""
    try:
        _, root = next(iter(ElementTree.iterparse(io.BytesIO(svg), events=("start",))))  # noqa: S314 - no entities: `_REACHES_OUT`
    except (ElementTree.ParseError, StopIteration, ValueError, LookupError):
        return None
    box = re.split(r"[\s,]+", root.get("viewBox", "")[:200].strip())
    of_box = [_length(part) for part in box[2:4]] if len(box) == 4 else [None, None]
    width, height = (
        _length(root.get(name, "")) or other for name, other in zip(("width", "height"), of_box, strict=True)
    )
    if not width or not height or max(width, height) > LARGEST_SIDE_PX:
        return None
    return Size(width, height)


def _length(text: str) -> float | None:
    found = _LENGTH.fullmatch(text[:80])
    return float(found[1]) * _PX[found[2] or "px"] if found else None


def rasterised(svg: bytes, longest_px: int) -> tuple[Size, bytes] | None:
    """Its natural size, and a PNG of at most `longest_px` a side; None where it needs another file or cannot be
    drawn."""
    if len(svg) > LARGEST_SVG or _REACHES_OUT.search(svg):
        return None
    size = size_of(svg)
    if size is None:
        return None
    zoom = min(1.0, longest_px / max(size))
    wide, high = (max(1, round(side * zoom)) for side in size)
    draw = _drawn_by_child if _SETS_ROOM_ASIDE.search(svg) else _drawn_here
    png = draw(svg, wide, high)
    return (size, png) if png else None


def _drawn_here(svg: bytes, wide: int, high: int) -> bytes:
    try:
        text = svg.decode("utf-8", "replace")
        return bytes(resvg_py.svg_to_bytes(svg_string=text, width=wide, height=high, skip_system_fonts=True))
    except BaseException as error:
        if isinstance(error, KeyboardInterrupt | SystemExit):
            raise
        return b""  # A fault of the renderer's own comes as a BaseException.


_CHILD = """
import resource, sys
seconds, room, wide, high = map(int, sys.argv[1:])
resource.setrlimit(resource.RLIMIT_AS, (room, room))
resource.setrlimit(resource.RLIMIT_CPU, (seconds, seconds))
import resvg_py
svg = sys.stdin.buffer.read().decode("utf-8", "replace")
sys.stdout.buffer.write(resvg_py.svg_to_bytes(svg_string=svg, width=wide, height=high, skip_system_fonts=True))
"""


def _drawn_by_child(svg: bytes, wide: int, high: int) -> bytes:
    asked = [sys.executable, "-c", _CHILD, *map(str, (CHILD_SECONDS, CHILD_BYTES, wide, high))]
    try:
        done = subprocess.run(asked, input=svg, capture_output=True, timeout=4 * CHILD_SECONDS)
    except (OSError, subprocess.TimeoutExpired):
        return b""
    return done.stdout if done.returncode == 0 else b""

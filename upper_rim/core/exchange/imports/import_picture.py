"""Is this file a picture that may be published, and what of it is kept?

A picture of dots is decoded to see that it is one. A drawing (SVG) is written anew from what a drawing needs: elements,
attributes and values that are not listed here do not come along, so nothing in it can run, load or lead anywhere.
"""

from __future__ import annotations

import io
import re
from collections import deque
from typing import NamedTuple
from xml.etree import ElementTree

from PIL import Image

from ...style.paint.drawing import LARGEST_SVG, size_of
from ...style.paint.pictures import MOST_PIXELS
from ..xml_reading import XmlFault, read_xml

LARGEST_PICTURE = 20_000_000
LONGEST_SIDE = 12_000
_ENDINGS = {"PNG": "png", "JPEG": "jpg", "WEBP": "webp", "GIF": "gif", "AVIF": "avif"}
_SVG = "http://www.w3.org/2000/svg"
_ELEMENTS = frozenset(
    [
        "svg",
        "g",
        "defs",
        "title",
        "desc",
        "path",
        "circle",
        "ellipse",
        "rect",
        "line",
        "polyline",
        "polygon",
        "text",
        "tspan",
        "linearGradient",
        "radialGradient",
        "stop",
        "clipPath",
        "mask",
        "pattern",
        "symbol",
        "use",
    ]
)
_ATTRIBUTES = frozenset(
    [
        "id",
        "class",
        "d",
        "points",
        "x",
        "y",
        "x1",
        "y1",
        "x2",
        "y2",
        "cx",
        "cy",
        "r",
        "rx",
        "ry",
        "fx",
        "fy",
        "dx",
        "dy",
        "width",
        "height",
        "viewBox",
        "preserveAspectRatio",
        "transform",
        "fill",
        "fill-rule",
        "fill-opacity",
        "stroke",
        "stroke-width",
        "stroke-linecap",
        "stroke-linejoin",
        "stroke-miterlimit",
        "stroke-dasharray",
        "stroke-dashoffset",
        "stroke-opacity",
        "opacity",
        "color",
        "offset",
        "stop-color",
        "stop-opacity",
        "gradientUnits",
        "gradientTransform",
        "spreadMethod",
        "patternUnits",
        "patternTransform",
        "clip-path",
        "clip-rule",
        "clipPathUnits",
        "mask",
        "maskUnits",
        "maskContentUnits",
        "vector-effect",
        "font-family",
        "font-size",
        "font-weight",
        "text-anchor",
        "role",
        "aria-label",
        "href",
    ]
)
_OUTSIDE = re.compile(r"url\(\s*+[\"']?+\s*+(?!#)|[<>]|\\|(?:java|vb)script|data:|expression", re.IGNORECASE)
_MOST_ELEMENTS = 20_000


class Brought(NamedTuple):
    """A picture as it is kept; `left_out`: names of what did not come along."""

    data: bytes
    ending: str
    left_out: tuple[str, ...]


class PictureFault(NamedTuple):
    reason: str


def read_brought(data: bytes) -> Brought | PictureFault:
    if len(data) > LARGEST_PICTURE:
        return PictureFault(f"it is larger than {LARGEST_PICTURE // 1_000_000} MB")
    if b"<svg" in data[:4000].lower():
        return clean_svg(data)
    try:
        with Image.open(io.BytesIO(data)) as image:
            ending = _ENDINGS.get(image.format or "")
            wide, high = image.size
            if ending is None:
                return PictureFault("only PNG, JPEG, WebP, GIF, AVIF and SVG can be shown by every browser")
            if max(wide, high) > LONGEST_SIDE or wide * high > MOST_PIXELS:
                return PictureFault(f"it is {wide} by {high} pixels; {LONGEST_SIDE} a side are the most")
            image.load()
    except (OSError, ValueError, SyntaxError, Image.DecompressionBombError, MemoryError):
        return PictureFault("it is no picture, or a broken one")
    return Brought(data, ending, ())


def read_film(data: bytes) -> Brought | PictureFault:
    """Known by its first bytes (MIME Sniffing, 6.2): what it holds is read by browsers alone."""
    if data[:4] == b"\x1a\x45\xdf\xa3" and b"webm" in data[:64]:
        return Brought(data, "webm", ())
    if data[4:8] == b"ftyp":
        return Brought(data, "mp4", ())
    return PictureFault("only MP4 and WebM can be shown by every browser")


def clean_svg(data: bytes) -> Brought | PictureFault:
    """A drawing with only what draws."""
    if len(data) > LARGEST_SVG:
        return PictureFault(f"a drawing may have {LARGEST_SVG // 1_000_000} MB at most")
    try:
        root = read_xml(data)
    except XmlFault as fault:
        return PictureFault(str(fault))
    if root.tag not in {f"{{{_SVG}}}svg", "svg"}:
        return PictureFault("it is no SVG")
    if sum(1 for _ in root.iter()) > _MOST_ELEMENTS:
        return PictureFault(f"it has more than {_MOST_ELEMENTS} elements")
    left_out: list[str] = []
    cleaned = _cleaned(root, left_out)
    assert cleaned is not None
    cleaned.set("xmlns", _SVG)
    try:
        written = ElementTree.tostring(cleaned, encoding="utf-8")
    except RecursionError:
        return PictureFault("its elements lie too deep in each other")
    size = size_of(written)
    if size is not None and max(size) > LONGEST_SIDE:
        return PictureFault(
            f"it says that it is {size.width:g} by {size.height:g} px; {LONGEST_SIDE} a side are the most"
        )
    return Brought(written, "svg", tuple(dict.fromkeys(left_out)))


def _cleaned(root: ElementTree.Element, left_out: list[str]) -> ElementTree.Element | None:
    """Element by element, parents first: a drawing may be nested deeper than Python goes."""
    made: ElementTree.Element | None = None
    waiting = deque[tuple[ElementTree.Element, ElementTree.Element | None]]([(root, None)])
    while waiting:
        element, parent = waiting.popleft()
        name = _local(element.tag)
        if name not in _ELEMENTS:
            left_out.append(name)
            continue
        copy = ElementTree.Element(name) if parent is None else ElementTree.SubElement(parent, name)
        made = copy if made is None else made
        copy.text = element.text
        if parent is not None:
            copy.tail = element.tail
        for attribute, value in element.attrib.items():
            said = _local(attribute)
            local = said != "href" or value.strip().startswith("#")
            if said not in _ATTRIBUTES or not local or _OUTSIDE.search(value):
                left_out.append(said)
            else:
                copy.set(said, value)
        waiting += [(child, copy) for child in element]
    return made


def _local(name: object) -> str:
    """A name without its namespace; comments and the like have none."""
    return name.rpartition("}")[2] if isinstance(name, str) else "comment"

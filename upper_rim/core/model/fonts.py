"""What is known of a font: the files it comes in, the weights they really have, and the measures of its glyphs."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ..values.nodes import Hash, Node, Value
from ..values.words import Name

Generic = Literal["sans-serif", "serif", "monospace"]
PerEm = Annotated[float, Field(ge=-5, le=10)]
Stretch = Annotated[float, Field(ge=50, le=200)]
FontWeight = Annotated[int, Field(ge=1, le=1000)]


class Measures(Value):
    """In shares of an em (OpenType `hhea` or `OS/2`). `widths`: mean advance of running text at some weights."""

    ascent: PerEm
    descent: PerEm
    line_gap: PerEm = 0.0
    widths: tuple[tuple[FontWeight, PerEm], ...]


class FontFile(Value):
    """One file, WOFF2, kept by hash. From `lightest` to `boldest` is a range that a variable font really has."""

    content: Hash
    size: Annotated[int, Field(ge=1)]
    lightest: FontWeight
    boldest: FontWeight
    italic: bool = False
    narrowest: Stretch = Field(default=100, description="Of its `wdth` axis, in percent; 100 where it has none.")
    widest: Stretch = 100


class Font(Node):
    """A family that a designer brought along."""

    name: Name
    generic: Generic = "sans-serif"
    files: Annotated[tuple[FontFile, ...], Field(min_length=1)]
    measures: Measures

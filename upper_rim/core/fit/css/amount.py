"""How many px is a length that was written, once the viewport's width, the font and the containing block are known?

What is relative to neither the viewport nor a containing block is a plain number from the start; the rest is read once
and worked out for each layout.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from functools import lru_cache
from typing import NamedTuple, TypeAlias, final

from ...style.lengths import Clamped, ReadLength, Shares, at_least_nothing, read_length
from .linear import Length, larger, smaller, value

ROOT_PX = 16.0
"""The root element's font size, as browsers have it until a page says otherwise."""


class Viewport(NamedTuple):
    """What is looked through, in px. Media queries have been answered before: a layout holds in one band."""

    width: Length
    height: float


@final
class Relative:
    """A length that depends on the viewport or on what 100 % is."""

    __slots__ = ("has_percent", "has_viewport", "work")

    def __init__(self, work: Callable[[Viewport, Length], Length], has_percent: bool, has_viewport: bool) -> None:
        self.work = work
        self.has_percent = has_percent
        self.has_viewport = has_viewport


Amount: TypeAlias = float | Relative


def worked_out(amount: Amount, viewport: Viewport, percent_of: Length) -> Length:
    """In px. `percent_of`: what 100 % is, in px."""
    return amount.work(viewport, percent_of) if type(amount) is Relative else amount


def amount(text: str, em: Amount, *, is_size: bool = False) -> Amount:
    """Reads a length. `em`: the font's size; `is_size`: it is never less than nothing. Raises `style.lengths.NoLength`
    for a word such as `auto`. Equal texts are read once: what moves is then the same object."""
    return _read(text, em, is_size) if isinstance(em, float) else _worked_out(text, em, is_size)


@lru_cache(maxsize=8192)
def _read(text: str, em: float, is_size: bool) -> Amount:
    return _worked_out(text, em, is_size)


def _worked_out(text: str, em: Amount, is_size: bool) -> Amount:
    read = read_length(text)
    if is_size:
        read = at_least_nothing(read)
    parts = tuple(_leaves(read))
    moving_font = type(em) is Relative
    has_viewport = any(part.vw or part.vh or (part.em and moving_font) for part in parts)
    has_percent = any(part.percent for part in parts)

    def work(viewport: Viewport, percent_of: Length) -> Length:
        return _in_px(read, viewport, percent_of, worked_out(em, viewport, 0.0))

    if has_viewport or has_percent:
        return Relative(work, has_percent, has_viewport)
    return value(_in_px(read, Viewport(0.0, 0.0), 0.0, 0.0 if type(em) is Relative else em))


def _leaves(read: ReadLength) -> Iterator[Shares]:
    if isinstance(read, Clamped):
        for part in read.parts:
            yield from _leaves(part)
    else:
        yield read


def _in_px(read: ReadLength, viewport: Viewport, percent_of: Length, em_px: Length) -> Length:
    if isinstance(read, Clamped):
        bound, wished, other = (_in_px(part, viewport, percent_of, em_px) for part in read.parts)
        if read.is_mirrored:
            return smaller(bound, larger(wished, other))
        return larger(bound, smaller(wished, other))
    return (
        read.px
        + read.rem * ROOT_PX
        + read.vh * viewport.height
        + (viewport.width * read.vw if read.vw else 0.0)
        + (percent_of * read.percent if read.percent else 0.0)
        + (em_px * read.em if read.em else 0.0)
    )


def times(one: Amount, factor: float) -> Amount:
    if type(one) is Relative:
        inner = one
        return Relative(lambda viewport, of: inner.work(viewport, of) * factor, inner.has_percent, inner.has_viewport)
    return one * factor

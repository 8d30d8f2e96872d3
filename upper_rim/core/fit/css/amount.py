"""How many px is a length that was written, once the viewport's width, the font and the containing block are known?

What is relative to neither the viewport nor a containing block is a plain number from the start; the rest is read once
and worked out for each layout.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import lru_cache
from typing import NamedTuple, TypeAlias, final

from ...style.lengths import Clamped, Shares, read_length
from .linear import Length, larger, smaller

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


def amount(text: str, em: Amount) -> Amount:
    """Reads a length. `em`: the font's size. Raises `style.lengths.NoLength` for a word such as `auto`. Equal texts are
    read once: what moves is then the same object."""
    return _read(text, em) if isinstance(em, float) else _worked_out(text, em)


@lru_cache(maxsize=8192)
def _read(text: str, em: float) -> Amount:
    return _worked_out(text, em)


def _worked_out(text: str, em: Amount) -> Amount:
    read = read_length(text)
    parts: tuple[Shares, ...] = tuple(read) if isinstance(read, Clamped) else (read,)
    moving_font = type(em) is Relative
    has_viewport = any(part.vw or part.vh or (part.em and moving_font) for part in parts)
    has_percent = any(part.percent for part in parts)
    if not has_viewport and not has_percent:
        em_px = 0.0 if type(em) is Relative else em
        plain = [part.px + part.rem * ROOT_PX + part.em * em_px for part in parts]
        return plain[0] if len(plain) == 1 else max(plain[0], min(plain[1], plain[2]))

    def work(viewport: Viewport, percent_of: Length) -> Length:
        font_px = worked_out(em, viewport, 0.0)
        made = [
            part.px
            + part.rem * ROOT_PX
            + part.vh * viewport.height
            + (viewport.width * part.vw if part.vw else 0.0)
            + (percent_of * part.percent if part.percent else 0.0)
            + (font_px * part.em if part.em else 0.0)
            for part in parts
        ]
        return made[0] if len(made) == 1 else larger(made[0], smaller(made[1], made[2]))

    return Relative(work, has_percent, has_viewport)


def times(one: Amount, factor: float) -> Amount:
    if type(one) is Relative:
        inner = one
        return Relative(lambda viewport, of: inner.work(viewport, of) * factor, inner.has_percent, inner.has_viewport)
    return one * factor

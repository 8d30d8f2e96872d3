"""How many px is a length, in a viewport of a given size? (CSS Values 4: lengths, calc(), clamp())"""

from __future__ import annotations

import re
from functools import lru_cache
from typing import NamedTuple, TypeAlias

_TOKEN = re.compile(r"clamp\(|calc\(|\(|\)|,|[+*-](?=\s)|[+-]?(?:\d+\.?\d*|\.\d+)(?:e-?\d+)?(?:px|rem|em|%|vw|vh)?")
_NUMBER = re.compile(r"([+-]?[\d.]+(?:e-?\d+)?)(px|rem|em|%|vw|vh)?")


class Room(NamedTuple):
    """What lengths are relative to, in px. `percent_px`: what 100 % is."""

    viewport_width: float
    viewport_height: float = 800.0
    em_px: float = 16.0
    percent_px: float = 0.0
    rem_px: float = 16.0


_IN_REM = re.compile(
    r"""(url\([^)]*\)|"[^"]*"|'[^']*')|(?<![\w.-])([+-]?(?:\d++(?:\.\d*+)?|\.\d++)(?:e-?\d{1,2})?)rem\b""",
    re.IGNORECASE,
)


def whatever_the_root(value: str) -> str:
    """A value with its `rem` in px: a page of others' may give its root any font size, and the pieces are as wide on all."""
    if "rem" not in value.lower():
        return value
    return _IN_REM.sub(
        lambda found: found[1] or f"{float(found[2]) * Room(0).rem_px:.4f}".rstrip("0").rstrip(".") + "px", value
    )


class NoLength(ValueError):
    """A text that is no length: `auto`, `none`, a number by itself where one is not meant."""


class Shares(NamedTuple):
    """A length as px and shares of the root's and the font's size, of 100 %, of the viewport's width and height."""

    px: float = 0.0
    rem: float = 0.0
    em: float = 0.0
    percent: float = 0.0
    vw: float = 0.0
    vh: float = 0.0

    def plus(self, other: ReadLength) -> ReadLength:
        if isinstance(other, Clamped):
            return other.plus(self)
        return Shares(*(one + two for one, two in zip(self, other, strict=True)))

    def times(self, factor: float) -> Shares:
        return Shares(*(one * factor for one in self))


class Clamped(NamedTuple):
    """`max(bound, min(wished, other))`; multiplied by less than nothing, `min(bound, max(wished, other))`. The bound
    wins over the other where they contradict each other (CSS Values 4, 10.2.1). Each may be clamped again."""

    bound: ReadLength
    wished: ReadLength
    other: ReadLength
    is_mirrored: bool = False

    def plus(self, other: ReadLength) -> Clamped:
        bound, wished, far = (part.plus(other) for part in self.parts)
        return Clamped(bound, wished, far, self.is_mirrored)

    def times(self, factor: float) -> Clamped:
        bound, wished, far = (part.times(factor) for part in self.parts)
        return Clamped(bound, wished, far, self.is_mirrored != (factor < 0))

    @property
    def parts(self) -> tuple[ReadLength, ReadLength, ReadLength]:
        return self[:3]


ReadLength: TypeAlias = Shares | Clamped


def at_least_nothing(read: ReadLength) -> ReadLength:
    """As a property has it that is never less than nothing (CSS Values 4, 10.12)."""
    return Clamped(Shares(), read, read) if isinstance(read, Clamped) else read


_UNITS = {
    None: Shares(px=1),
    "px": Shares(px=1),
    "rem": Shares(rem=1),
    "em": Shares(em=1),
    "%": Shares(percent=0.01),
    "vw": Shares(vw=0.01),
    "vh": Shares(vh=0.01),
}


_PERCENTAGE = re.compile(r"\+?(\d+)(?:\.\d*)?%|\+?(\.\d+)%")


def computed_line_height(text: str) -> str:
    """A line height as it is computed: browsers cut a percentage off to a whole one, if it is all that is said (measured:
    `tests/browser/test_styles.py`)."""
    found = _PERCENTAGE.fullmatch(text)
    return text if found is None else f"{found[1] or 0}%"


def pixels(text: str, room: Room) -> float:
    """The length in px. Raises `NoLength`."""
    return _in_px(read_length(text), room)


def _in_px(read: ReadLength, room: Room) -> float:
    if isinstance(read, Clamped):
        bound, wished, other = (_in_px(part, room) for part in read.parts)
        return min(bound, max(wished, other)) if read.is_mirrored else max(bound, min(wished, other))
    return (
        read.px
        + read.rem * room.rem_px
        + read.em * room.em_px
        + read.percent * room.percent_px
        + read.vw * room.viewport_width
        + read.vh * room.viewport_height
    )


@lru_cache(maxsize=4096)
def read_length(text: str) -> ReadLength:
    """What a text says as a length. Raises `NoLength`."""
    tokens = _TOKEN.findall(text)
    if not tokens or "".join(tokens).replace(" ", "") != text.replace(" ", ""):
        raise NoLength(text)
    tokens.reverse()
    found = _sum(tokens)
    if tokens:
        raise NoLength(text)
    return found


def _sum(tokens: list[str]) -> ReadLength:
    found = _product(tokens)
    while tokens and tokens[-1] in {"+", "-"}:
        sign = 1.0 if tokens.pop() == "+" else -1.0
        found = found.plus(_product(tokens).times(sign))
    return found


def _product(tokens: list[str]) -> ReadLength:
    found = _one(tokens)
    while tokens and tokens[-1] == "*":
        tokens.pop()
        other = _one(tokens)
        number, length = (found, other) if _is_number(found) else (other, found)
        if not isinstance(number, Shares) or not _is_number(number):
            raise NoLength("a product of two lengths")
        found = length.times(number.px)
    return found


def _is_number(read: ReadLength) -> bool:
    return isinstance(read, Shares) and not any(read[1:])


def _one(tokens: list[str]) -> ReadLength:
    token = tokens.pop() if tokens else ""
    if token in {"(", "calc("}:
        found = _sum(tokens)
        _expect(tokens, ")")
        return found
    if token == "clamp(":  # noqa: S105
        bound = _sum(tokens)
        _expect(tokens, ",")
        wished = _sum(tokens)
        _expect(tokens, ",")
        other = _sum(tokens)
        _expect(tokens, ")")
        return Clamped(bound, wished, other)
    split = _NUMBER.fullmatch(token)
    if split is None:
        raise NoLength(token)
    return _UNITS[split[2]].times(float(split[1]))


def _expect(tokens: list[str], wanted: str) -> None:
    if not tokens or tokens.pop() != wanted:
        raise NoLength(f"{wanted} is missing")

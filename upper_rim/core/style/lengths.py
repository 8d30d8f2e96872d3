"""How many px is a length, in a viewport of a given size? (CSS Values 4: lengths, calc(), clamp())"""

from __future__ import annotations

import re
from functools import lru_cache
from typing import NamedTuple

_TOKEN = re.compile(r"clamp\(|calc\(|\(|\)|,|[+*-](?=\s)|[+-]?(?:\d+\.?\d*|\.\d+)(?:e-?\d+)?(?:px|rem|em|%|vw|vh)?")
_NUMBER = re.compile(r"([+-]?[\d.]+(?:e-?\d+)?)(px|rem|em|%|vw|vh)?")


class Room(NamedTuple):
    """What lengths are relative to, in px. `percent_px`: what 100 % is."""

    viewport_width: float
    viewport_height: float = 800.0
    em_px: float = 16.0
    percent_px: float = 0.0
    rem_px: float = 16.0


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

    def plus(self, other: Shares, sign: float) -> Shares:
        return Shares(*(one + sign * two for one, two in zip(self, other, strict=True)))

    def times(self, factor: float) -> Shares:
        return Shares(*(one * factor for one in self))


class Clamped(NamedTuple):
    least: Shares
    wished: Shares
    greatest: Shares

    def times(self, factor: float) -> Clamped:
        """The order of least and greatest stays as long as the factor is not negative."""
        return Clamped(*(part.times(factor) for part in self))


_UNITS = {
    None: Shares(px=1),
    "px": Shares(px=1),
    "rem": Shares(rem=1),
    "em": Shares(em=1),
    "%": Shares(percent=0.01),
    "vw": Shares(vw=0.01),
    "vh": Shares(vh=0.01),
}


def pixels(text: str, room: Room) -> float:
    """The length in px. Raises `NoLength`."""
    read = read_length(text)
    if isinstance(read, Clamped):
        least, wished, greatest = (_in_px(part, room) for part in read)
        return max(least, min(wished, greatest))
    return _in_px(read, room)


def _in_px(shares: Shares, room: Room) -> float:
    return (
        shares.px
        + shares.rem * room.rem_px
        + shares.em * room.em_px
        + shares.percent * room.percent_px
        + shares.vw * room.viewport_width
        + shares.vh * room.viewport_height
    )


@lru_cache(maxsize=4096)
def read_length(text: str) -> Shares | Clamped:
    """What a text says as a length. Raises `NoLength`."""
    tokens = _TOKEN.findall(text)
    if not tokens or "".join(tokens).replace(" ", "") != text.replace(" ", ""):
        raise NoLength(text)
    tokens.reverse()
    found = _sum(tokens)
    if tokens:
        raise NoLength(text)
    return found


def _sum(tokens: list[str]) -> Shares | Clamped:
    found = _product(tokens)
    while tokens and tokens[-1] in {"+", "-"}:
        sign = 1.0 if tokens.pop() == "+" else -1.0
        other = _product(tokens)
        if isinstance(found, Clamped) or isinstance(other, Clamped):
            raise NoLength("a clamp() within a sum")
        found = found.plus(other, sign)
    return found


def _product(tokens: list[str]) -> Shares | Clamped:
    found = _one(tokens)
    while tokens and tokens[-1] == "*":
        tokens.pop()
        other = _one(tokens)
        number, length = (found, other) if _is_number(found) else (other, found)
        if not isinstance(number, Shares) or not _is_number(number):
            raise NoLength("a product of two lengths")
        found = length.times(number.px)
    return found


def _is_number(read: Shares | Clamped) -> bool:
    return isinstance(read, Shares) and not any(read[1:])


def _one(tokens: list[str]) -> Shares | Clamped:
    token = tokens.pop() if tokens else ""
    if token in {"(", "calc("}:
        found = _sum(tokens)
        _expect(tokens, ")")
        return found
    if token == "clamp(":  # noqa: S105
        parts = [_sum(tokens)]
        for _ in range(2):
            _expect(tokens, ",")
            parts.append(_sum(tokens))
        _expect(tokens, ")")
        plain = [part for part in parts if isinstance(part, Shares)]
        if len(plain) < 3:
            raise NoLength("a clamp() within a clamp()")
        return Clamped(*plain)
    split = _NUMBER.fullmatch(token)
    if split is None:
        raise NoLength(token)
    return _UNITS[split[2]].times(float(split[1]))


def _expect(tokens: list[str], wanted: str) -> None:
    if not tokens or tokens.pop() != wanted:
        raise NoLength(f"{wanted} is missing")

"""How many px is a length, in a viewport of a given size? (CSS Values 4: lengths, calc(), clamp())"""

from __future__ import annotations

import re
from typing import NamedTuple

_TOKEN = re.compile(
    r"\s*(clamp\(|calc\(|\(|\)|,|[+*-](?=\s)|[+-]?(?:\d+\.?\d*|\.\d+)(?:e-?\d+)?(?:px|rem|em|%|vw|vh)?)"
)


class Room(NamedTuple):
    """What lengths are relative to, in px. `percent_px`: what 100 % is."""

    viewport_width: float
    viewport_height: float = 800.0
    em_px: float = 16.0
    percent_px: float = 0.0
    rem_px: float = 16.0


class NoLength(ValueError):
    """A text that is no length: `auto`, `none`, a number by itself where one is not meant."""


def pixels(text: str, room: Room) -> float:
    """The length in px. Raises `NoLength`."""
    tokens = _TOKEN.findall(text)
    if "".join(tokens).replace(" ", "") != text.replace(" ", ""):
        raise NoLength(text)
    reader = _Reader(tokens, room)
    value = reader.sum()
    if reader.at != len(tokens) or not tokens:
        raise NoLength(text)
    return value


class _Reader:
    def __init__(self, tokens: list[str], room: Room) -> None:
        self._tokens = tokens
        self._room = room
        self.at = 0

    def sum(self) -> float:
        value = self._product()
        while self._next() in {"+", "-"}:
            sign = 1 if self._take() == "+" else -1
            value += sign * self._product()
        return value

    def _product(self) -> float:
        value = self._one()
        while self._next() == "*":
            self._take()
            value *= self._one()
        return value

    def _one(self) -> float:
        taken = self._take()
        if taken in {"calc(", "("}:
            value = self.sum()
            self._expect(")")
            return value
        if taken == "clamp(":
            least = self.sum()
            self._expect(",")
            wished = self.sum()
            self._expect(",")
            greatest = self.sum()
            self._expect(")")
            return max(least, min(wished, greatest))
        found = re.fullmatch(r"([+-]?[\d.]+(?:e-?\d+)?)(px|rem|em|%|vw|vh)?", taken)
        if found is None:
            raise NoLength(taken)
        return float(found[1]) * self._unit(found[2])

    def _unit(self, unit: str | None) -> float:
        room = self._room
        return {
            None: 1.0,
            "px": 1.0,
            "rem": room.rem_px,
            "em": room.em_px,
            "%": room.percent_px / 100,
            "vw": room.viewport_width / 100,
            "vh": room.viewport_height / 100,
        }[unit]

    def _next(self) -> str:
        return self._tokens[self.at] if self.at < len(self._tokens) else ""

    def _take(self) -> str:
        token = self._next()
        if not token:
            raise NoLength("it ends too early")
        self.at += 1
        return token

    def _expect(self, wanted: str) -> None:
        if self._take() != wanted:
            raise NoLength(f"{wanted} is missing")

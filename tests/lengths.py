"""A length as a property takes it, in any unit and form that the model allows, some way round a plausible size."""

from __future__ import annotations

from random import Random

from upper_rim.core.values.properties import PROPERTIES

_BETWEEN_PX: dict[str, tuple[float, float]] = {
    "font-size": (9, 34),
    "line-height": (10, 44),
    "letter-spacing": (-0.6, 2),
    "word-spacing": (-2, 9),
    "padding": (0, 28),
    "margin": (-10, 16),
    "border": (0, 6),
    "inline-size": (50, 320),
    "min-inline-size": (20, 200),
    "max-inline-size": (60, 420),
    "block-size": (16, 130),
    "min-block-size": (16, 90),
    "max-block-size": (20, 160),
}
_PX_OF = {"px": 1.0, "rem": 16.0, "em": 16.0, "vw": 10.0, "vh": 8.0, "%": 6.0}
"""What one of a unit comes to, roughly."""
_OF_THE_FONT = {"font-size", "line-height"}
_NO_PERCENT = {"letter-spacing", "word-spacing", "border"}


def takes_lengths(name: str) -> bool:
    return _kind(name) in _BETWEEN_PX and PROPERTIES[name].kind not in {"choice", "colour"}


def any_length(chance: Random, name: str) -> str:
    """For a property that `takes_lengths`."""
    kind = _kind(name)
    least, most = _BETWEEN_PX[kind]
    is_size = PROPERTIES[name].kind not in {"margin", "spacing"}
    if chance.random() < 0.5:
        value = _one(chance, kind, least, most)
        return value.removeprefix("-") if is_size else value
    middle = (least + most) / 2
    bounds = [_sum(chance, kind, least, middle), _sum(chance, kind, middle, most)]
    if chance.random() < 0.1:
        bounds.reverse()
    return f"clamp({bounds[0]}, {_sum(chance, kind, least, most)}, {bounds[1]})"


def _sum(chance: Random, kind: str, least: float, most: float) -> str:
    if chance.random() < 0.5:
        return _one(chance, kind, least, most)
    way, more = chance.choice([("+", (0.0, most / 2)), ("-", (0.0, most / 4))])
    return f"{_one(chance, kind, least, most)} {way} {_one(chance, kind, *more)}"


def _one(chance: Random, kind: str, least: float, most: float) -> str:
    unit = chance.choice([unit for unit in _PX_OF if unit != "%" or kind not in _NO_PERCENT])
    px = 0.16 if unit == "%" and kind in _OF_THE_FONT else _PX_OF[unit]
    return f"{chance.uniform(least, most) / px:.3f}{unit}"


def _kind(name: str) -> str:
    edge = name.partition("-")[0]
    return edge if edge in {"padding", "margin"} else "border" if name.endswith("-width") else name

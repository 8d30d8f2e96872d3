"""What was found of a part is kept as long as all that it was made from is equal."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from typing import Any, Protocol, TypeVar

Made = TypeVar("Made")


class Keeps(Protocol):
    """As `Fitter.kept`: what was made for a key, if it was made from equal things."""

    def __call__(self, key: Hashable, told: Any, make: Callable[[], Made]) -> Made: ...


def anew(key: Hashable, told: Any, make: Callable[[], Made]) -> Made:
    """Where nothing is kept."""
    return make()

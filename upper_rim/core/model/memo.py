"""What was worked out from a value that never changes, kept for that very value."""

from __future__ import annotations

from collections.abc import Callable
from threading import Lock
from typing import Generic, TypeVar

from cachetools import LRUCache

_Of = TypeVar("_Of")
_Made = TypeVar("_Made")


class Memo(Generic[_Of, _Made]):
    """Of so many values; the one asked for least lately goes. Threads may ask at the same time: two that ask for the
    same value first may both work it out."""

    def __init__(self, most: int) -> None:
        self._made: LRUCache[int, tuple[_Of, _Made]] = LRUCache(most)
        self._lock = Lock()

    def of(self, value: _Of, make: Callable[[_Of], _Made]) -> _Made:
        with self._lock:
            kept = self._made.get(id(value))
        if kept is None or kept[0] is not value:
            kept = (value, make(value))
            with self._lock:
                self._made[id(value)] = kept
        return kept[1]

    def forget(self) -> None:
        with self._lock:
            self._made.clear()

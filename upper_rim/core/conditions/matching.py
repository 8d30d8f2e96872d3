"""On all paths that are alike but for one segment, and on all that lies below them."""

from __future__ import annotations

from collections.abc import Hashable, Iterator
from typing import Annotated, ClassVar, Literal

from pydantic import AfterValidator

from ..values.addresses import PagePath
from .below import folders
from .place import Names, PageFacts, Place, Strength

ANY = "*"
"""Stands for one segment of a path, whichever it is."""


def _with_one_wildcard(path: str) -> str:
    if path.rstrip("/").split("/").count(ANY) != 1:
        raise ValueError(f"one segment of the path, and no more, is {ANY}: /harbours/{ANY}/times/")
    return path


class Matching(Place):
    """Paths with a wildcard for one segment, and all that lies below."""

    RANK: ClassVar[int] = 2
    kind: Literal["matching"] = "matching"
    path: Annotated[PagePath, AfterValidator(_with_one_wildcard)]

    @property
    def key(self) -> Hashable:
        return self.path.rstrip("/") + "/"

    @classmethod
    def keys(cls, page: PageFacts) -> Iterator[Hashable]:
        """Each folder that the page lies in, with each of its segments as any: so many as half the square of how deep
        it lies."""
        for folder in folders(page.path):
            segments = folder.strip("/").split("/") if folder != "/" else []
            for at in range(len(segments)):
                yield "/" + "/".join([*segments[:at], ANY, *segments[at + 1 :]]) + "/"

    @property
    def strength(self) -> Strength:
        return Strength(self.RANK, 2 * self.path.rstrip("/").count("/") - 1)

    def in_words(self, names: Names) -> str:
        return f"on {self.path} and below"

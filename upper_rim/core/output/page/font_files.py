"""Which font files does a published site bring, and what is in each?"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from functools import cached_property, partial

from ...languages import primary
from ...model.site import Site
from ...style.type.faces import IN_SLICES, faces_in_use
from ...style.type.fonts import cut_font, subset_font
from ..naming import PARTS_PATH
from ..shelf import Shelf


class FontFiles:
    """`read` gives the bytes of an uploaded font by its hash; without it these are left out."""

    def __init__(self, site: Site, shelf: Shelf, read: Callable[[str], bytes] | None) -> None:
        self._site, self._shelf, self._read = site, shelf, read

    def whole(self, *, in_slices: bool) -> Iterator[tuple[str, bytes]]:
        """Path and content of each, with all that the site's languages need. `in_slices`: those, too, of which only the
        letters in use are published."""
        wanted = (name for name in self._made if in_slices or not IN_SLICES.search(name))
        return ((PARTS_PATH + name, self._made[name]()) for name in wanted)

    def cut(self, asked: Mapping[str, tuple[str, str]]) -> Iterator[tuple[str, bytes]]:
        """The same of those that have some letters only: by name, of which file, and which letters."""
        return ((PARTS_PATH + name, cut_font(self._made[of](), letters)) for name, (of, letters) in asked.items())

    @cached_property
    def _made(self) -> dict[str, Callable[[], bytes]]:
        """By name, what makes each."""
        made: dict[str, Callable[[], bytes]] = {}
        for face in faces_in_use(self._site, self._shelf.faces):
            for file in face.files:
                if file.data is not None:
                    made[file.name] = partial(bytes, file.data)
                elif self._read is not None and file.content is not None:
                    made[file.name] = partial(self._subset, self._read, file.content)
        return made

    def _subset(self, read: Callable[[str], bytes], content: str) -> bytes:
        return subset_font(read(content), frozenset(self._spoken()))

    def _spoken(self) -> Iterable[str]:
        return map(primary, self._site.languages)

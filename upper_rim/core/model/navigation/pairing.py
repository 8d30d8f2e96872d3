"""Which pages may well be translations of which, by how their addresses are alike? Proposed, and decided by the designer."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from typing import Literal, NamedTuple

from ..site import Page, Site

By = Literal["path", "file name"]


class Pair(NamedTuple):
    """`page` may be `original` in another language. `by`: what is alike."""

    page: Page
    original: Page
    by: By

    @property
    def branch(self) -> str:
        """The first folder of its path, in which such pages of its language are taken together; `/` where it has none."""
        first, _, rest = self.page.path[1:].partition("/")
        return f"/{first}/" if rest or (self.page.path.endswith("/") and first) else "/"


def proposed_pairs(site: Site) -> Iterator[Pair]:
    """For pages of which nothing is said yet: one in the site's own language whose address is the same but for the
    language in it, a folder (`/de/fares/`), or a part of the file's name (`/fares.de.html`). Where several are, none."""
    originals = {page.translates for page in site.pages if page.translates}
    unpaired = [
        page
        for page in site.pages
        if page.language != site.language and not page.translates and page.id not in originals
    ]
    if not unpaired:
        return
    languages = {tag.lower() for tag in site.languages}
    taken = {(page.translates, page.language) for page in site.pages if page.translates}
    prefixes = {site.said_of(tag).below for tag in site.languages} - {"/"}
    own: dict[str, list[Page]] = {}
    for page in site.pages:
        if page.language == site.language:
            own.setdefault(_bare(page.path, languages, prefixes)[0], []).append(page)
    found: dict[tuple[str, str], list[Pair]] = {}
    for page in unpaired:
        path, by = _bare(page.path, languages, prefixes)
        listed = own.get(path, [])
        if by is not None and len(listed) == 1 and (listed[0].id, page.language) not in taken:
            found.setdefault((listed[0].id, page.language), []).append(Pair(page, listed[0], by))
    for pairs in found.values():
        if len(pairs) == 1:
            yield pairs[0]


_NAMED = re.compile(r"^(.+?)[._-]([a-z]{2,3}(?:[-_][a-z0-9]{2,8})*)(\.[a-z0-9]+)?$", re.IGNORECASE)


def _bare(path: str, languages: set[str], prefixes: Iterable[str]) -> tuple[str, By | None]:
    """The path without what says its language, and what said it."""
    below = next((one for one in prefixes if path.startswith(one)), None)
    if below is not None:
        return path[len(below) - 1 :], "path"
    *folders, name = path.split("/")
    kept = [one for one in folders if one.lower().replace("_", "-") not in languages]
    if len(kept) < len(folders):
        return "/".join([*kept, name]), "path"
    said = _NAMED.match(name)
    if said and said[2].lower().replace("_", "-") in languages:
        return "/".join([*folders, said[1] + (said[3] or "")]), "file name"
    return path, None

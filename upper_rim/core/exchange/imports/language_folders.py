"""Which folders of somebody else's site are languages? Asked where a page does not say its own.

A folder's name may be a language's tag and mean something else (`it`, `hr`): those are languages that hold the same pages as
another one does.
"""

from __future__ import annotations

import re
from collections import Counter, defaultdict
from collections.abc import Iterable, Mapping
from itertools import chain, islice

from ...languages.names import tag_of

_TAG = re.compile(r"[a-z]{2,3}(?:[-_][A-Za-z0-9]{2,8})*")
MOST = 500
"""So many folders are asked about."""
_LEAST = 2
"""So many of its pages have to be elsewhere, too; and half of them."""


def language_folders(paths: Iterable[str]) -> Mapping[str, str]:
    """Tags by the names of folders, of the addresses of a site's pages."""
    within: dict[str, set[str]] = defaultdict(set)
    for path in paths:
        folder, slash, rest = path[1:].partition("/")
        is_one = bool(slash) and _TAG.fullmatch(folder) is not None
        within[folder if is_one else ""].add(rest if is_one else path[1:])
    tags = {folder: tag for folder in islice(within, MOST) if folder and (tag := tag_of(folder)) is not None}
    times = Counter(chain(within.get("", ()), *(within[folder] for folder in tags)))
    shared = {folder: sum(times[page] > 1 for page in within[folder]) for folder in tags}
    return {folder: tag for folder, tag in tags.items() if shared[folder] >= max(_LEAST, len(within[folder]) / 2)}

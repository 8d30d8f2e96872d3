"""How are our insertions told from a page's own bytes, and taken out again?

Each stands between `<!--rim:NAME-->` and `<!--/rim-->`, written in the page's own encoding; but for what holds
something of the page's own back (`foreign`), which stands within its tags.
"""

from __future__ import annotations

import re
from functools import lru_cache

from .cursor import Cursor
from .encoding import Encoding, insertion, sniff

_NAME = "[a-z0-9-]{1,40}"
HELD, THEN = "data-rim-held", "data-rim-then-"
"""An attribute of what is held back; what stands before the name of an attribute that is."""
HELD_CODE = f'{HELD}="code" type="text/plain"'
"""In the tag of a script or a style sheet that is, before its own type."""


def marked(name: str, markup: str) -> str:
    """Markup as it is inserted. It must not hold a closing mark itself."""
    return f"<!--rim:{name}-->{markup}<!--/rim-->"


def strip(content: bytes, encoding: Encoding | None = None) -> bytes:
    """The page without any insertion; every other byte as it was."""
    return without_marked(Cursor(content), (encoding or sniff(content)).label)


def without_marked(cursor: Cursor[bytes], label: str) -> bytes:
    """The same of a page whose encoding has that label."""
    opening, closing = _patterns(label)
    content = cursor.text
    kept: list[bytes] = []
    at = 0
    while (found := cursor.search(opening, at)) is not None:
        ended = cursor.search(closing, found.end())
        if ended is None:
            break
        kept.append(content[at : found.start()])
        at = ended.end()
    whole = b"".join((*kept, content[at:])) if at else content
    is_holding = any(insertion(one, label) in whole for one in (HELD, THEN))
    return _holding(label).sub(b"", whole) if is_holding else whole


def has_stray_marks(content: bytes, encoding: Encoding) -> bool:
    """Whether half a mark is left in a stripped page, so that later insertions could not be told apart."""
    opening, closing = _patterns(encoding.label)
    lower = content.lower()
    ours = (insertion(one, encoding.label) for one in (HELD, THEN, "data-rim-waits"))
    return bool(opening.search(content) or closing.search(content)) or any(one in lower for one in ours)


def _patterns(label: str) -> tuple[re.Pattern[bytes], re.Pattern[bytes]]:
    if label not in _KEPT:

        def literal(text: str) -> bytes:
            return re.escape(insertion(text, label))

        name = b"(?:[a-z0-9-]\x00){1,40}" if label == "utf-16le" else b"(?:\x00[a-z0-9-]){1,40}"
        if not label.startswith("utf-16"):
            name = _NAME.encode()
        opening = literal("<!--rim:") + name + literal("-->")
        closing = literal("<!--/rim-->")
        _KEPT[label] = (re.compile(opening), re.compile(closing))
    return _KEPT[label]


_KEPT: dict[str, tuple[re.Pattern[bytes], re.Pattern[bytes]]] = {}


@lru_cache(maxsize=64)
def _holding(label: str) -> re.Pattern[bytes]:
    """All that `foreign` puts into a page's tags, longest first."""

    def literal(text: str) -> bytes:
        return re.escape(insertion(text, label))

    unit = {"utf-16le": rb"[a-z0-9 -]\x00", "utf-16be": rb"\x00[a-z0-9 -]"}.get(label, b"[a-z0-9 -]")
    waits = literal('data-rim-waits="') + b"(?:" + unit + b")*" + literal('"')
    code = literal(HELD_CODE)
    return re.compile(
        b"|".join(
            (
                literal(" ") + waits + literal(" ") + code,
                literal(" ") + code,
                literal("<template ") + waits + literal(f" {HELD}>"),
                literal(f"</template {HELD}>"),
                waits + literal(f" {HELD} {THEN}"),
                literal(THEN),
            )
        )
    )

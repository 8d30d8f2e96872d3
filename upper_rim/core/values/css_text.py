"""Which CSS can be read at all?"""

from __future__ import annotations

import re

_DIGITS = re.compile(r"(?<!\d)(\d{300})\d++")


def readable(css: str) -> str:
    """The same without digits beyond the three hundredth of a number: no browser counts so far, and tinycss2, which makes
    Python's own numbers of them, ends in a fault at some thousand."""
    return _DIGITS.sub(r"\1", css)

"""How is a stranger's text looked through so that its length alone bounds the work?

A scanner asks a cursor instead of the text. Each question goes from a place to what it finds, and the cursor counts the
characters between: a scanner that goes back over what it has seen shows in that number, whatever the machine.
"""

from __future__ import annotations

import re
from typing import AnyStr, Generic


class Cursor(Generic[AnyStr]):
    """A text and how many of its characters were looked at."""

    def __init__(self, text: AnyStr) -> None:
        self.text: AnyStr = text
        self.looked_at = 0

    def find(self, part: AnyStr, at: int, end: int | None = None) -> int:
        """Where the part stands next, as `str.find`."""
        last = len(self.text) if end is None else end
        found = self.text.find(part, at, last)
        self.looked_at += (found if found >= 0 else last) - at + len(part)
        return found

    def search(self, pattern: re.Pattern[AnyStr], at: int, end: int | None = None) -> re.Match[AnyStr] | None:
        """The next match. The pattern must not look far from where it begins."""
        last = len(self.text) if end is None else end
        found = pattern.search(self.text, at, last)
        self.looked_at += (found.end() if found else last) - at + 1
        return found

    def match(self, pattern: re.Pattern[AnyStr], at: int) -> re.Match[AnyStr] | None:
        """A match just here. The pattern must never go back over what it has matched."""
        found = pattern.match(self.text, at)
        self.looked_at += (found.end() if found else at) - at + 1
        return found

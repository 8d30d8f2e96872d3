"""Lines of CSV (RFC 4180) that spreadsheets open, too, and take for text."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable

_FORMULA = ("=", "+", "-", "@", "\t", "\r")


def csv_line(cells: Iterable[object]) -> str:
    """A cell that would be taken for a formula begins with an apostrophe; lists are joined with semicolons."""
    line = io.StringIO()
    csv.writer(line).writerow(_text(cell) for cell in cells)
    return line.getvalue()


def _text(cell: object) -> str:
    text = "; ".join(cell) if isinstance(cell, list) else str(cell)
    return "'" + text if text.startswith(_FORMULA) else text

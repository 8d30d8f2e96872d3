"""Lines of CSV (RFC 4180) that spreadsheets open, too, and take for text."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Iterable

_FORMULA = re.compile(r"'*[=+\-@\t\r]")


def csv_line(cells: Iterable[object]) -> str:
    """A cell that would be taken for a formula begins with an apostrophe; lists are joined with semicolons."""
    line = io.StringIO()
    csv.writer(line).writerow(_text(cell) for cell in cells)
    return line.getvalue()


def _text(cell: object) -> str:
    text = "; ".join(cell) if isinstance(cell, list) else str(cell)
    return "'" + text if _FORMULA.match(text) else text


def typed_text(cell: str) -> str:
    """What a cell said before it was written."""
    return cell[1:] if cell.startswith("'") and _FORMULA.match(cell) else cell

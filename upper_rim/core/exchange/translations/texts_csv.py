"""A site's texts in all of its languages as a table for spreadsheets (CSV, RFC 4180), and such a table read back."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterator, Sequence

from ...model.site import Site
from ...model.texts import texts_of
from ..spreadsheet import csv_line, typed_text
from .merging import LARGEST_FILE, Brought, Merged, UnreadableFile, merged

_KEY, _WHERE, _NOTE = "id", "where", "note"
MOST_LINES = 100_000


def write_texts(site: Site, languages: Sequence[str]) -> str:
    """One line a text; `languages`: those that it is to be said in, besides the site's own."""
    lines = [csv_line((_KEY, _WHERE, site.language, *languages, _NOTE))]
    for text in texts_of(site):
        said = {one.language: one.text for one in text.words.translations}
        where = " – ".join(filter(None, (text.group, text.place)))
        cells = (said.get(language, "") for language in languages)
        lines.append(csv_line((text.key, where, text.words.text, *cells, text.words.note)))
    return "".join(lines)


def read_texts(site: Site, data: bytes) -> Merged:
    """What a table means for the site. Raises `UnreadableFile`."""
    if len(data) > LARGEST_FILE:
        raise UnreadableFile(f"It is larger than {LARGEST_FILE // 1_000_000} MB.")
    try:
        text = data.decode("utf-8-sig")
    except ValueError:
        raise UnreadableFile("It is not in UTF-8: save it as “CSV UTF-8”.") from None
    first = text.partition("\n")[0]
    delimiter = max(",;\t", key=first.count)
    try:
        rows = list(csv.reader(io.StringIO(text, newline=""), delimiter=delimiter))
    except csv.Error as error:
        raise UnreadableFile(f"It is no CSV: {error}.") from None
    headings = [heading.strip() for heading in rows[0]] if rows else []
    if _KEY not in headings:
        raise UnreadableFile(f"Its first line names the columns; one of them is “{_KEY}”.")
    if len(rows) > MOST_LINES:
        raise UnreadableFile(f"It has more than {MOST_LINES:,} lines.")
    spoken = site.other_languages
    found = [language for language in spoken if language in headings]
    if not found:
        others = f": {', '.join(spoken)}" if spoken else ""
        raise UnreadableFile(f"No column is one of the site’s other languages{others}.")
    return merged(site, {language: _brought(headings, rows[1:], language, site.language) for language in found})


def _brought(headings: list[str], rows: list[list[str]], language: str, own: str) -> Iterator[Brought]:
    for number, row in enumerate(rows, 2):
        cells = {heading: typed_text(cell) for heading, cell in zip(headings, row, strict=False)}
        if not any(cell.strip() for cell in cells.values()):
            continue
        key = cells.get(_KEY, "").strip()
        said = cells.get(language, "")
        yield Brought(
            key, f"line {number}: {key[:80]}", language, cells.get(own), said or None, notes=(cells.get(_NOTE), None)
        )

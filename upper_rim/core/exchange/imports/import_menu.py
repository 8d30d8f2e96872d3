"""Which tree of entries does a text mean: an indented list, a table as CSV, the navigation of a page?

Broken lines are told by their number, and the rest goes in.
"""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from typing import NamedTuple
from urllib.parse import urljoin, urlsplit

from selectolax.lexbor import LexborHTMLParser, LexborNode

MOST_LINES = 5_000
MOST_LEVELS = 12


class LineFault(NamedTuple):
    """A line that was left out, and why. Lines count from 1."""

    line: int
    why: str


@dataclass(slots=True)
class Draft:
    """An entry as it was read: where it leads is still a text. `grows`: it is none, but says which pages grow beside the
    entries of its level."""

    line: int
    label: str
    leads_to: str = ""
    second: str = ""
    mark: str = ""
    translations: tuple[tuple[str, str], ...] = ()
    languages: tuple[str, ...] = ()
    """Those in which something is said of its label, be it nothing."""
    grows: str = ""
    below: list[Draft] = field(default_factory=list)


class Drafts(NamedTuple):
    entries: list[Draft]
    faults: list[LineFault]


GROWING = re.compile(r"\*\s*all below\s+(?P<said>/.*)", re.IGNORECASE)
_BULLET = re.compile(r"^(?:[-*+•–—]|\d+[.)])\s+")
_BETWEEN = re.compile(r"\s*(?:\t+|(?<!\S)(?:\||->|→|=>)(?!\S))\s*")
_TO_ESCAPE = re.compile(r"[\\|→>]|^(?:[-*+•–—]|\d+[.)])")
_ESCAPED = re.compile(r"\\([\\|*+\-–—•→=\d])")


def escaped(words: str) -> str:
    """Words as they stand on a line of an outline: what would be a bullet, a number or a sign between columns has a
    backslash before it. White space is single spaces."""
    words = " ".join(words.split())
    if not _TO_ESCAPE.search(words):
        return words
    words = re.sub(r"\\(?=[\\|*+\-–—•→=\d])", r"\\\\", words)
    words = re.sub(r"(?<!\S)(\||->|→|=>)(?!\S)", r"\\\1", words)
    return "\\" + words if _BULLET.match(words + " ") else words


def _unescaped(words: str) -> str:
    return _ESCAPED.sub(r"\1", words)


def read_menu(text: str) -> Drafts:
    """A table where the first line names its columns, else an indented list."""
    first = text.strip().split("\n", 1)[0]
    columns = [_column(heading.strip('" ')) for heading in re.split(r"[,;\t]", first)]
    is_table = "label" in columns and 1 < len(columns) == len(set(columns)) and " | " not in first
    return read_table(text) if is_table else read_outline(text)


def read_outline(text: str) -> Drafts:
    """One entry a line: its label, then, behind a tab, `|` or `->`, where it leads, then a second line and a mark. Deeper
    is what is indented further, by spaces or tabs; bullets and numbers before a label are left out, and a backslash
    takes their meaning from them. `* all below /guide/` says which pages grow there."""
    found = Drafts([], [])
    levels: list[tuple[int, Draft]] = []
    for number, line in enumerate(text.splitlines(), 1):
        bare = line.strip()
        if not bare:
            continue
        if number > MOST_LINES:
            found.faults.append(LineFault(number, f"only the first {MOST_LINES} lines are read"))
            break
        growing = GROWING.fullmatch(bare)
        columns = [*_BETWEEN.split(_BULLET.sub("", bare, count=1)), "", "", ""][:4]
        label, leads_to, second, mark = map(_unescaped, ["", "", "", ""] if growing else columns)
        if not label and not leads_to and not growing:
            found.faults.append(LineFault(number, "it says nothing, and leads nowhere"))
            continue
        expanded = line.expandtabs(4)
        indent = len(expanded) - len(expanded.lstrip())
        closed: tuple[int, Draft] | None = None
        while levels and levels[-1][0] >= indent:
            closed = levels.pop()
        if levels and closed is not None and closed[0] != indent:
            levels.append(closed)
            found.faults.append(
                LineFault(number, "it is indented less than the line above it, and more than that one's own")
            )
            continue
        said = growing["said"] if growing else ""
        _put(Draft(number, label, leads_to, second, mark, grows=said), indent, levels, found)
    return found


def _put(draft: Draft, indent: int, levels: list[tuple[int, Draft]], found: Drafts) -> None:
    if len(levels) >= MOST_LEVELS:
        found.faults.append(LineFault(draft.line, f"it would be on level {len(levels) + 1}; {MOST_LEVELS} are read"))
        return
    (levels[-1][1].below if levels else found.entries).append(draft)
    levels.append((indent, draft))


_COLUMNS = {
    "level": "level",
    "depth": "level",
    "label": "label",
    "text": "label",
    "title": "label",
    "name": "label",
    "leads to": "leads_to",
    "link": "leads_to",
    "path": "leads_to",
    "address": "leads_to",
    "url": "leads_to",
    "second line": "second",
    "description": "second",
    "mark": "mark",
}
_TRANSLATED = re.compile(r"(?:label|text|title)[ _:-]([a-z]{2,8}(?:-[a-z0-9]{1,8})*)", re.IGNORECASE)


def read_table(text: str) -> Drafts:
    """CSV (RFC 4180; semicolons or tabs too), with a line of headings: `label` and `leads to`, and where they are there
    `level` (from 1), `second line`, `mark`, and `label de` and the like for other languages. A row without a label
    that leads to `* all below /guide/` says which pages grow there."""
    found = Drafts([], [])
    first = text.lstrip("\ufeff").split("\n", 1)[0]
    delimiter = max(",;\t", key=first.count)
    reader = csv.reader(io.StringIO(text.lstrip("\ufeff"), newline=""), delimiter=delimiter)
    columns: list[str] = []
    open_levels: list[Draft] = []
    before = 0
    try:
        for cells in reader:
            number, before = before + 1, reader.line_num
            if not any(cell.strip() for cell in cells):
                continue
            if not columns:
                columns = [_column(cell) for cell in cells]
                if "label" not in columns:
                    found.faults.append(LineFault(number, "the first line names the columns; one of them is “label”"))
                    return found
                continue
            if number > MOST_LINES:
                found.faults.append(LineFault(number, f"only the first {MOST_LINES} lines are read"))
                break
            _row_read(dict(zip(columns, cells, strict=False)), number, open_levels, found)
    except csv.Error as error:
        found.faults.append(LineFault(reader.line_num, f"it is no CSV from here on: {error}"))
    return found


def _column(heading: str) -> str:
    name = heading.strip().lower()
    translated = _TRANSLATED.fullmatch(heading.strip())
    return _COLUMNS.get(name) or (f"label:{translated[1]}" if translated else f"other:{name}")


def _row_read(cells: dict[str, str], number: int, open_levels: list[Draft], found: Drafts) -> None:
    label, leads_to = cells.get("label", "").strip(), cells.get("leads_to", "").strip()
    level_text = cells.get("level", "").strip() or "1"
    if not label and not leads_to:
        found.faults.append(LineFault(number, "it says nothing, and leads nowhere"))
        return
    if not re.fullmatch(r"[1-9]\d?", level_text):
        found.faults.append(LineFault(number, f"“{level_text[:20]}” is no level: they are counted from 1"))
        return
    level = int(level_text)
    if level > min(len(open_levels) + 1, MOST_LEVELS):
        found.faults.append(LineFault(number, f"it is on level {level}, and no line above it is on level {level - 1}"))
        return
    languages = {name[6:]: said.strip() for name, said in cells.items() if name.startswith("label:")}
    translations = tuple((language, said) for language, said in languages.items() if said)
    second, mark = cells.get("second", "").strip(), cells.get("mark", "").strip()
    growing = None if label else GROWING.fullmatch(leads_to)
    draft = Draft(number, label, leads_to, second, mark, translations, tuple(languages))
    if growing:
        draft = Draft(number, "", grows=growing["said"])
    del open_levels[level - 1 :]
    (open_levels[-1].below if open_levels else found.entries).append(draft)
    open_levels.append(draft)


class Navigation(NamedTuple):
    """A tree of links in a page. `name`: what it calls itself; `selector`: where it stands."""

    name: str
    selector: str
    entries: list[Draft]

    @property
    def links(self) -> int:
        return sum(1 for _ in _walk(self.entries))


def _walk(drafts: Iterable[Draft]) -> Iterator[Draft]:
    for draft in drafts:
        yield draft
        yield from _walk(draft.below)


LEAST_LINKS = 3


def navigations_in(html: str, path: str) -> list[Navigation]:
    """The navigations of a page, those with most links first: what is marked as one (`nav`, `role=navigation`), then
    lists of links elsewhere. `path`: the page's own, from which relative links lead."""
    parsed = LexborHTMLParser(html)
    found: list[Navigation] = []
    taken: set[int] = set()
    for selector in ("nav, [role=navigation]", "header ul, footer ul, aside ul, ul, ol"):
        for at, node in enumerate(parsed.css(selector)):
            if any(above.mem_id in taken for above in _with_above(node)):
                continue
            entries = _drafts_below(node, path)
            if sum(1 for _ in _walk(entries)) < LEAST_LINKS or not all(one.leads_to for one in _leaves(entries)):
                continue
            taken.add(node.mem_id)
            tag = node.tag or ""
            where = f"{tag}#{node.attributes['id']}" if node.attributes.get("id") else f"{tag} {at + 1}"
            found.append(Navigation((node.attributes.get("aria-label") or "").strip(), where, entries))
    return sorted(found, key=lambda one: -one.links)


def _leaves(drafts: Iterable[Draft]) -> Iterator[Draft]:
    return (draft for draft in _walk(drafts) if not draft.below)


def _with_above(node: LexborNode) -> Iterator[LexborNode]:
    above: LexborNode | None = node
    while above is not None:
        yield above
        above = above.parent


def _drafts_below(node: LexborNode, path: str) -> list[Draft]:
    """Nested lists as nested entries; links outside of lists stand on the level of what holds them."""
    found: list[Draft] = []
    child = node.child
    while child is not None:
        if child.tag == "li":
            found += _of_list_item(child, path)
        elif child.tag == "a":
            found += [draft] if (draft := _of_link(child, path)) else []
        elif child.is_element_node and child.tag not in {"script", "style", "template", "svg", "form"}:
            found += _drafts_below(child, path)
        child = child.next
    return found


def _of_list_item(item: LexborNode, path: str) -> list[Draft]:
    inner = item.css_first("ul, ol")
    below = _drafts_below(inner, path) if inner is not None else []
    link = next((link for link in item.css("a") if inner is None or not _is_within(link, inner)), None)
    head = _of_link(link, path) if link is not None else None
    if head is None:
        said = _text_before(item, inner)
        if not said or not below:
            return below
        head = Draft(0, said)
    head.below = below
    return [head]


def _is_within(node: LexborNode, holder: LexborNode) -> bool:
    return any(above.mem_id == holder.mem_id for above in _with_above(node))


def _text_before(item: LexborNode, inner: LexborNode | None) -> str:
    parts: list[str] = []
    child = item.child
    while child is not None and (inner is None or child.mem_id != inner.mem_id):
        parts.append(child.text(deep=True))
        child = child.next
    return " ".join(" ".join(parts).split())[:400]


def _of_link(link: LexborNode, path: str) -> Draft | None:
    href = (link.attributes.get("href") or "").strip()
    said = " ".join(link.text(deep=True).split()) or (link.attributes.get("aria-label") or "").strip()
    picture = link.css_first("img[alt]")
    if not said and picture is not None:
        said = (picture.attributes.get("alt") or "").strip()
    if not said:
        return None
    if not href or href.lower().startswith(("javascript:", "data:")):
        return Draft(0, said[:400])
    if re.match(r"[a-z][a-z0-9+.-]*:", href, re.IGNORECASE):
        return Draft(0, said[:400], href)
    return Draft(0, said[:400], _on_site(href, path))


def _on_site(href: str, path: str) -> str:
    """A relative link, from the site's root on."""
    if href.startswith("#"):
        return path + href
    parts = urlsplit(urljoin(f"https://site.example{path}", href))
    if parts.netloc != "site.example":
        return f"https://{parts.netloc}{parts.path}"
    return parts.path + (f"#{parts.fragment}" if parts.fragment else "")

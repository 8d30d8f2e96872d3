"""By which styles does a page look as it does? Its sheets, and what its root and its body say of themselves."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Literal, NamedTuple

from selectolax.lexbor import LexborHTMLParser, LexborNode

from ...page_shape.cascade import Attributes

MOST_SHEETS, LONGEST_ATTRIBUTE = 100, 2000


class StyledBy(NamedTuple):
    """`text`: of a `style` element, or the address of a linked sheet, relative to `base` (HTML, 4.2.3)."""

    kind: Literal["linked", "written"]
    text: str
    media: str


class Styling(NamedTuple):
    """`holds`: whether an element, chosen by a selector, holds most of the page's text."""

    attributes: Attributes
    sheets: tuple[StyledBy, ...]
    base: str
    holds: Callable[[str], bool]


def styling(parsed: LexborHTMLParser, beginning: str) -> Styling:
    """Of a page as a browser reads it. `beginning`: of its source."""
    base = parsed.css_first("base[href]")
    return Styling(
        Attributes(_attributes(parsed.root), _attributes(parsed.body), _is_quirky(beginning)),
        tuple(_sheets(parsed)),
        (base.attributes.get("href") or "").strip() if base is not None else "",
        lambda selector: _holds(parsed, selector),
    )


_MOST = 0.7


def _holds(parsed: LexborHTMLParser, selector: str) -> bool:
    try:
        found = parsed.css_first(selector)
    except Exception:  # What it does not understand it says by one of many kinds.
        return False
    whole = parsed.body.text() if parsed.body is not None else ""
    return found is not None and len(found.text().split()) > _MOST * len(whole.split())


_DOCTYPE = re.compile(
    r"""\ufeff?(?>\s++|<!--.*?-->|<\?[^>]*+>)*+<!doctype\s++html\s*+(?:public\s*+["']([^"'>]*+)["']\s*+(["'])?)?""",
    re.IGNORECASE | re.DOTALL,
)
_WITHOUT_QUIRKS = re.compile(r"(?:-//w3c//dtd (?:xhtml|html 4\.01//|html 4\.0//))")
_WITH_BOTH = re.compile(r"-//w3c//dtd html 4\.01 (?:transitional|frameset)//")
BEGINNING = 2000


def _is_quirky(beginning: str) -> bool:
    """By its document type (HTML, 13.2.6.4.1): of those with a public identifier, XHTML and the strict ones are not, and
    HTML 4.01 where it has a system identifier as well."""
    found = _DOCTYPE.match(beginning)
    if found is None:
        return True
    public, system = found[1], found[2]
    if public is None:
        return False
    return not _WITHOUT_QUIRKS.match(public.lower()) and not (system and _WITH_BOTH.match(public.lower()))


def _attributes(node: LexborNode | None) -> dict[str, str]:
    said = node.attributes if node is not None else {}
    return {name: (value or "")[:LONGEST_ATTRIBUTE] for name, value in sorted(said.items())}


def _sheets(parsed: LexborHTMLParser) -> list[StyledBy]:
    found: list[StyledBy] = []
    for node in parsed.css("style, link[rel][href]"):
        said = {name: value or "" for name, value in node.attributes.items()}
        kind = said.get("type", "").partition(";")[0].strip().lower()
        if kind not in {"", "text/css"} or "disabled" in said or len(found) == MOST_SHEETS:
            continue
        media = " ".join(said.get("media", "").split())[:LONGEST_ATTRIBUTE]
        if node.tag == "style":
            found.append(StyledBy("written", node.text(), media))
            continue
        relations = said["rel"].lower().split()
        if "stylesheet" in relations and "alternate" not in relations:
            found.append(StyledBy("linked", said["href"].strip(), media))
    return found

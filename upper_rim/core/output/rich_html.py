"""How is a cleaned text with marks written into a piece, whose own elements carry no style but ours?"""

from __future__ import annotations

import re

_CLASSES = {"a": "anchor", "ul": "bullets", "ol": "numbers", "h2": "heading-2", "h3": "heading-3"}
_TAGS = re.compile(r"<(/?)(a|ul|ol|h2|h3)\b([^>]*)>")


def rich_html(html: str, key: str) -> str:
    """Links, lists and headings with the classes of their roles. A heading is none of the page's outline: it is a
    paragraph that looks like one, so that a piece never disturbs the headings of the content."""

    def written(found: re.Match[str]) -> str:
        closing, name, rest = found.groups()
        tag = "p" if name in {"h2", "h3"} else name
        return f"</{tag}>" if closing else f'<{tag} class="{key}-{_CLASSES[name]}"{rest}>'

    return _TAGS.sub(written, html)

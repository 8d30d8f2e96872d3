"""What HTML document is made of a page written by hand in Markdown (CommonMark with tables)?"""

from __future__ import annotations

import re
from functools import cache
from html import escape
from itertools import count, pairwise
from typing import TYPE_CHECKING

from ...languages import direction
from ...model.site import Splice
from .encoding import Encoding
from .foreign import foreign_in

if TYPE_CHECKING:
    from markdown_it import MarkdownIt
    from markdown_it.token import Token

_STYLE = (
    "body{margin:0;font:17px/1.6 system-ui,sans-serif;color:#1d2326;background:#fff}"
    "main{max-width:42em;margin:0 auto;padding:2em 20px 4em}"
    "h1,h2,h3{line-height:1.2}img{max-width:100%;height:auto}table{border-collapse:collapse}"
    "input,button{font:inherit;padding:.4em .8em}"
    "td,th{border:1px solid #ccd3d6;padding:.35em .7em;text-align:start}"
)


@cache
def _parser() -> MarkdownIt:
    from markdown_it import MarkdownIt  # only where Markdown is written: publishing needs none of it

    return MarkdownIt("commonmark", {"html": False}).enable("table")


def written_page(title: str, language: str, markdown: str) -> tuple[bytes, Splice]:
    """A whole document in UTF-8, and the places for pieces in it. Raw HTML in the text is shown as text.

    Where the text has no first-rank heading of its own, the title stands above it as one.
    """
    body = rendered(markdown)
    return document(title, language, body if "<h1>" in body else f"<h1>{escape(title)}</h1>\n{body}")


def rendered(markdown: str) -> str:
    """As HTML, to stand in a body. Headings below the first rank can be linked to."""
    parser = _parser()
    tokens = parser.parse(markdown)
    _give_ids(tokens)
    return str(parser.renderer.render(tokens, parser.options, {}))


def _give_ids(tokens: list[Token]) -> None:
    """Headings below the first rank get an id each, from their words, so that links can lead to them."""
    taken: set[str] = set()
    for opening, inline in pairwise(tokens):
        if opening.type != "heading_open" or opening.tag == "h1":
            continue
        words = re.sub(r"[^\w]+", "-", inline.content.casefold()).strip("-_") or "part"
        name = next(one for at in count(1) if (one := words if at == 1 else f"{words}-{at}") not in taken)
        taken.add(name)
        opening.attrSet("id", name)


def document(title: str, language: str, body: str, *, in_main: bool = True) -> tuple[bytes, Splice]:
    """A document of our own making around HTML that stands in its main part, and the places for pieces in it.
    `in_main`: unless a piece is that part."""
    before = f'<!DOCTYPE html>\n<html lang="{language}" dir="{direction(language)}">\n<head>\n<meta charset="utf-8">'
    head = (
        f'\n<meta name="viewport" content="width=device-width, initial-scale=1">\n<title>{escape(title)}</title>\n'
        f"<style>{_STYLE}</style>\n</head>\n<body>"
    )
    main, rest = f"\n<main>\n{body}</main>\n" if in_main else f"\n{body}", "</body>\n</html>\n"
    head_at = len(before.encode())
    body_at = head_at + len(head.encode())
    content = (before + head + main + rest).encode()
    end_at = body_at + len(main.encode())
    fetches = foreign_in(content, Encoding("utf-8", 0)) if "<img" in body else ()
    return content, Splice(head_at=head_at, body_at=body_at, end_at=end_at, wraps=True, fetches=fetches)

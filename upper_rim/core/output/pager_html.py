"""What is the HTML of a pager? Its script fills it in and puts it behind the list that it parts."""

from __future__ import annotations

from html import escape
from typing import TYPE_CHECKING

from ..languages import phrase
from ..model.items import Pager

if TYPE_CHECKING:
    from .item_html import Scene


def pager_html(item: Pager, scene: Scene) -> str:
    """Filled in by its script, on the page with the list; on the stage of another page, an example of it in its place."""
    language = scene.language
    name = escape(phrase("pages_of_list", language), quote=True)
    attributes = scene.attributes(item, "block", "pager", item.id)
    is_here = scene.current == item.list_on and bool(item.selector)
    if scene.marks and not is_here:
        sample = "".join(f'<li><a href="#">{words}</a></li>' for words in ("1", "2", "3", phrase("after", language)))
        return f'<nav {attributes} aria-label="{name}"><ul class="{scene.name("list")}" role="list">{sample}</ul></nav>'
    if not is_here:
        return ""
    said = {
        "pager": item.selector,
        "size": str(item.size),
        "counts": item.counts,
        "name": item.id.removeprefix("it-"),
        "host": scene.name(),
        "previous": phrase("before", language),
        "next": phrase("after", language),
    }
    told = "".join(f' data-rim-{key}="{escape(value, quote=True)}"' for key, value in said.items())
    return f'<nav {attributes} id="{scene.html_id(item.id)}" aria-label="{name}" hidden{told}><ul class="{scene.name("list")}" role="list"></ul></nav>'

"""Regions of a screen: each says which state of it is shown, and is sent again only where it is another.

    {% region "reach" %} … {% endregion %}
    {% region "group" forloop.counter of group place %} … {% endregion %}

The script names the regions that the screen shows as they came (`X-Rim-Shown`); what would come out the same is left
empty and marked `data-stays`, so that the swap leaves alone what stands there. What somebody typed in since is not
named. Nothing in a region may depend on the revision, or it is sent each time.

`of` names all that a region is written from: where that is equal, it is not even written. (A test writes it all the
same, and compares.)

    {% kept control request.path %} … {% endkept %}

What stands in it is written once for all that is equal, whoever asks: it says nothing of anybody, and hangs on nothing
else. (The same test compares.)
"""

from __future__ import annotations

import hashlib
from collections.abc import Hashable
from threading import Lock

from cachetools import LRUCache
from django import template
from django.http import HttpRequest
from django.template.base import FilterExpression, NodeList, Parser, Token
from django.template.context import Context
from django.utils.html import format_html
from django.utils.safestring import SafeString, mark_safe

SHOWN = "X-Rim-Shown"
"""Names and states, as `name=state`, with spaces between."""
SHAPE = "X-Rim-Shape"
"""With it a screen says how high the page on the stage is, and how high the window there."""

register = template.Library()


@register.tag("region")
def region(parser: Parser, token: Token) -> RegionNode:
    _, *words = token.split_contents()
    at = words.index("of") if "of" in words else len(words)
    names, told = words[:at], words[at + 1 :]
    if not names:
        raise template.TemplateSyntaxError('A region has a name: {% region "reach" %}.')
    nodes = parser.parse(("endregion",))
    parser.delete_first_token()
    compiled = [[parser.compile_filter(one) for one in some] for some in (names, told)]
    return RegionNode(compiled[0], compiled[1], nodes)


class RegionNode(template.Node):
    def __init__(self, names: list[FilterExpression], told: list[FilterExpression], nodelist: NodeList) -> None:
        self.names = names
        self.told = told
        self.nodelist = nodelist

    def render(self, context: Context) -> SafeString:
        name = "-".join(str(one.resolve(context)) for one in self.names)
        request: HttpRequest = context["request"]
        shown = request.headers.get(SHOWN, "").split()
        inner = ""
        if self.told:
            told = [one.resolve(context, ignore_failures=True) for one in self.told]
            state = _digest(repr([request.path, context.get("slug"), *told]))
        else:
            inner = self.written(context)
            state = _digest(inner.replace(str(context.get("csrf_token") or "\0"), ""))
        stays = f"{name}={state}" in shown
        if self.told and not stays:
            inner = self.written(context)
        return format_html(
            '<div class="region" id="region-{}" data-state="{}"{}>{}</div>',
            name,
            state,
            mark_safe(" data-stays") if stays else "",
            "" if stays else inner,
        )

    def written(self, context: Context) -> SafeString:
        return self.nodelist.render(context)


KEPT = 4096
"""So many things are kept as they were written."""


@register.tag("kept")
def kept(parser: Parser, token: Token) -> KeptNode:
    _, *told = token.split_contents()
    nodes = parser.parse(("endkept",))
    parser.delete_first_token()
    return KeptNode([parser.compile_filter(one) for one in told], nodes)


class KeptNode(template.Node):
    def __init__(self, told: list[FilterExpression], nodelist: NodeList) -> None:
        self.told = told
        self.nodelist = nodelist
        self._written: LRUCache[tuple[Hashable, ...], SafeString] = LRUCache(KEPT)
        self._lock = Lock()

    def render(self, context: Context) -> SafeString:
        told = tuple(one.resolve(context) for one in self.told)
        with self._lock:
            made = self._written.get(told)
        if made is None:
            made = self.written(context)
            with self._lock:
                self._written[told] = made
        return made

    def written(self, context: Context) -> SafeString:
        return self.nodelist.render(context)


def _digest(text: str) -> str:
    return hashlib.sha256(text.encode()).hexdigest()[:16]

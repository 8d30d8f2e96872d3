"""Regions of a screen: each says which state of it is shown, and is sent again only where it is another.

    {% region "group" forloop.counter %} … {% endregion %}

The script names the regions that the screen shows as they came (`X-Rim-Shown`); what would come out the same is left
empty and marked `data-stays`, so that the swap leaves alone what stands there. What somebody typed in since is not
named. Nothing in a region may depend on the revision, or it is sent each time.
"""

from __future__ import annotations

import hashlib

from django import template
from django.http import HttpRequest
from django.template.base import FilterExpression, NodeList, Parser, Token
from django.template.context import Context
from django.utils.html import format_html
from django.utils.safestring import SafeString, mark_safe

SHOWN = "X-Rim-Shown"
"""Names and states, as `name=state`, with spaces between."""

register = template.Library()


@register.tag("region")
def region(parser: Parser, token: Token) -> RegionNode:
    _, *names = token.split_contents()
    if not names:
        raise template.TemplateSyntaxError('A region has a name: {% region "reach" %}.')
    nodes = parser.parse(("endregion",))
    parser.delete_first_token()
    return RegionNode([parser.compile_filter(name) for name in names], nodes)


class RegionNode(template.Node):
    def __init__(self, names: list[FilterExpression], nodelist: NodeList) -> None:
        self.names = names
        self.nodelist = nodelist

    def render(self, context: Context) -> SafeString:
        name = "-".join(str(one.resolve(context)) for one in self.names)
        inner = self.nodelist.render(context)
        state = _state(inner, str(context.get("csrf_token", "")))
        request: HttpRequest = context["request"]
        stays = f"{name}={state}" in request.headers.get(SHOWN, "").split()
        return format_html(
            '<div class="region" id="region-{}" data-state="{}"{}>{}</div>',
            name,
            state,
            mark_safe(" data-stays") if stays else "",
            "" if stays else inner,
        )


def _state(html: str, token: str) -> str:
    """Two that differ only by their token are the same: each token of a session is as good as the other."""
    return hashlib.sha256((html.replace(token, "") if token else html).encode()).hexdigest()[:16]

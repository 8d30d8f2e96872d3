"""Pictures of studies, as SVG: shapes as a tree, and the one place that hands such a picture to a template."""

from __future__ import annotations

from collections.abc import Callable

from django.utils.safestring import SafeString, mark_safe

from ....core.kinds.markup import Element, Markup, element, html


def shape(tag: str, css_class: str | None, *children: Markup | None, **attributes: float | str) -> Element:
    """`text_anchor` is written `text-anchor`."""
    named = {name.replace("_", "-"): str(value) for name, value in attributes.items()}
    return element(tag, {"class": css_class, **named}, *children)


def upright(css_class: str, x: float, top: float, bottom: float, *children: Markup) -> Element:
    return shape("line", css_class, *children, x1=x, x2=x, y1=top, y2=bottom)


def title(words: str) -> Element:
    """Told where one points at the shape that holds it (SVG 2, 5.8)."""
    return element("title", {}, words)


def file_address(stage_address: str) -> Callable[[str], str]:
    """Where a picture by a path of the site's is fetched from, as one designer sees it; what is written in itself
    stays."""
    return lambda path: path if path.startswith("data:") else stage_address + path


def for_template(picture: Element) -> SafeString:
    """Safe, for the serialiser escapes every text and attribute."""
    return mark_safe(html([picture]))  # noqa: S308

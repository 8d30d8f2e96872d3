"""The options of a select, written at once: `{{ choices|options:chosen }}`. Some screens have hundreds."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from django import template
from django.utils.html import format_html_join
from django.utils.safestring import SafeString, mark_safe

register = template.Library()


@register.filter
def face_options(faces: Iterable[tuple[str, str, str]], chosen: str | None = None) -> SafeString:
    """Faces in themselves: id, name and real weights of each."""
    selected = mark_safe(" selected")
    return format_html_join(
        "\n",
        """<option value="{}" style="font-family:'sample-{}'"{}>{} <small>{}</small></option>""",
        ((face, face, selected if chosen in (face, name) else "", name, weights) for face, name, weights in faces),
    )


@register.filter
def options(choices: Iterable[tuple[str, Any]], chosen: str | None = None) -> SafeString:
    """`choices`: value and words of each; the one whose value is `chosen` is selected."""
    selected = mark_safe(" selected")
    return format_html_join(
        "\n",
        '<option value="{}"{}>{}</option>',
        ((value, selected if value == chosen else "", words) for value, words in choices),
    )

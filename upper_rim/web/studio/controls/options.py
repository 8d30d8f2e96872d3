"""What the controls of all screens are written with: options of a select at once, JSON in an attribute, the editors."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from django import template
from django.utils.html import format_html_join, json_script
from django.utils.safestring import SafeString, mark_safe

from .editors import editor_kinds

register = template.Library()


@register.simple_tag
def editor_kinds_script() -> SafeString:
    return json_script(editor_kinds(), "editor-kinds")


@register.filter
def in_single_quotes(text: str) -> SafeString:
    """For an attribute that stands between single quotes: JSON is half as long so."""
    return mark_safe(text.replace("&", "&amp;").replace("<", "&lt;").replace("'", "&#39;"))  # noqa: S308


SELECTED = mark_safe(" selected")


@register.filter
def options(choices: Iterable[tuple[str, Any]], chosen: str | None = None) -> SafeString:
    """`choices`: value and words of each; the one whose value is `chosen` is selected."""
    parts = ((value, SELECTED if value == chosen else "", words) for value, words in choices)
    return format_html_join("\n", '<option value="{}"{}>{}</option>', parts)


@register.filter
def face_options(faces: Iterable[tuple[str, str, str]], chosen: str | None = None) -> SafeString:
    """Faces in themselves: id, name and real weights of each; `chosen` by id or by name."""
    option = """<option value="{}" style="font-family:'sample-{}'"{}>{} <small>{}</small></option>"""
    parts = ((face, face, SELECTED if chosen in (face, name) else "", name, words) for face, name, words in faces)
    return format_html_join("\n", option, parts)

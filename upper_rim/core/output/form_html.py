"""What is the HTML of a form, and what do its answers have to be?

Labels stand before their fields (WCAG 2.2 3.3.2); the browser checks what it can (HTML Standard, 4.10.20), the site's
own server checks the same again.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from html import escape
from typing import TYPE_CHECKING

from ..languages import phrase
from ..model.items import FieldKind, Form, FormField

if TYPE_CHECKING:
    from .item_html import Scene

FORMS = "/_rim/forms/"
"""Where forms post to; below it, each by its id."""
TRAP = "website"
"""Name of a field that nobody sees: what fills it in is a program."""
LONGEST_ANSWER = 5000
_TYPES: dict[FieldKind, str] = {
    "text": "text",
    "mail": "email",
    "telephone": "tel",
    "number": "number",
    "date": "date",
    "tick": "checkbox",
}
_COMPLETE: dict[FieldKind, str] = {"mail": "email", "telephone": "tel"}
_SHAPES: dict[FieldKind, str] = {
    "mail": r"[^\s@<>]+@[^\s@<>]+\.[^\s@<>]+",
    "telephone": r"\+?[\d ()/.-]{4,30}",
    "number": r"-?\d+([.,]\d+)?",
    "date": r"\d{4}-[01]\d-[0-3]\d",
}


def form_html(item: Form, scene: Scene) -> str:
    name, language = scene.name, scene.language
    fields = "".join(_line(field, scene) for field in item.fields)
    trap = escape(phrase("trap", language))
    hidden = f'<input type="hidden" name="language" value="{language}">'
    return (
        f'<form {scene.attributes(item, "block", "form", item.id)} method="post" action="{FORMS}{item.id}/" aria-label="{escape(item.name, quote=True)}">{fields}{hidden}'
        f'<div class="{name("trap")}" aria-hidden="true"><label>{trap}<input name="{TRAP}" tabindex="-1" autocomplete="off"></label></div>'
        f'<button class="{name("button")}">{escape(item.button.in_language(language))}</button></form>'
    )


def _line(field: FormField, scene: Scene) -> str:
    name, language = scene.name, scene.language
    field_id = scene.html_id(field.id)
    needed = f' <span class="{name("needed")}">({escape(phrase("needed", language))})</span>' if field.required else ""
    label = (
        f'<label class="{name("label")}" for="{field_id}">{escape(field.words.in_language(language))}{needed}</label>'
    )
    common = f'class="{name("field")}" id="{field_id}" name="{field.id}"' + (" required" if field.required else "")
    placeholder = escape(field.placeholder.in_language(language), quote=True)
    if placeholder:
        common += f' placeholder="{placeholder}"'
    if field.kind == "tick":
        return f'<div class="{name("line")} {name("tick")}"{scene.mark(field.id)}><input type="checkbox" value="yes" {common}>{label}</div>'
    if field.kind == "long":
        control = f'<textarea rows="5" maxlength="{LONGEST_ANSWER}" {common}></textarea>'
    elif field.kind == "choice":
        options = "".join(f"<option>{escape(choice)}</option>" for choice in field.choices)
        control = f'<select {common}><option value="">{escape(phrase("choose", language))}</option>{options}</select>'
    else:
        pattern = f' pattern="{escape(field.pattern, quote=True)}"' if field.pattern else ""
        complete = f' autocomplete="{_COMPLETE[field.kind]}"' if field.kind in _COMPLETE else ""
        control = f'<input type="{_TYPES[field.kind]}" maxlength="{LONGEST_ANSWER}"{pattern}{complete} {common}>'
    return f'<div class="{name("line")}"{scene.mark(field.id)}>{label}{control}</div>'


def form_faults(item: Form, answers: Mapping[str, str], language: str) -> list[str]:
    """In sentences of that language, what is wrong with answers by field id; nothing where all is well. Patterns are left
    to the browser: they are written for its kind of regular expressions, and could keep a server busy."""
    faults = []
    for field in item.fields:
        answer, label = answers.get(field.id, "").strip(), field.words.in_language(language)
        if not answer:
            if field.required:
                faults.append(phrase("answer_needed", language, label))
        elif len(answer) > LONGEST_ANSWER:
            faults.append(phrase("answer_long", language, label, str(LONGEST_ANSWER)))
        elif field.kind in _SHAPES and not re.fullmatch(_SHAPES[field.kind], answer):
            faults.append(phrase("answer_shape", language, label))
        elif field.kind == "choice" and answer not in field.choices:
            faults.append(phrase("answer_choice", language, label))
    return faults

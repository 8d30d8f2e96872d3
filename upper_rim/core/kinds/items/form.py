"""A form.

Labels stand before their fields (WCAG 2.2 3.3.2); the browser checks what it can (HTML Standard, 4.10.20), the site's
own server checks the same again.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Set
from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from ...languages import phrase
from ...values.nodes import Node
from ...values.styling import Part
from ...values.words import Name, Words
from ..context import PageContext
from ..markup import Attributes, Element, Markup, element
from .base import BaseItem, Lack

FORMS = "/_rim/forms/"
"""Where forms post to; below it, each by its id."""
TRAP = "website"
"""Name of a field that nobody sees: what fills it in is a program."""
LONGEST_ANSWER = 5000

FieldKind = Literal["text", "mail", "telephone", "number", "date", "long", "choice", "tick"]
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


class FormField(Node):
    kind: FieldKind = "text"
    words: Words = Words(text="Field")
    required: bool = False
    placeholder: Words = Words()
    pattern: Annotated[str, StringConstraints(max_length=200)] = Field(
        default="", description="A regular expression that the whole answer must match (HTML Standard, `pattern`)."
    )
    choices: tuple[Name, ...] = ()

    def markup(self, page: PageContext) -> Element:
        label, control = self._label(page), self._control(page)
        if self.kind == "tick":
            return element(
                "div", {"class": f"{page.name('line')} {page.name('tick')}", **page.mark(self.id)}, control, label
            )
        return element("div", {"class": page.name("line"), **page.mark(self.id)}, label, control)

    def _label(self, page: PageContext) -> Element:
        needed = element("span", {"class": page.name("needed")}, f"({page.phrase('needed')})")
        note: tuple[Markup, ...] = (" ", needed) if self.required else ()
        attributes = {"class": page.name("label"), "for": page.html_id(self.id)}
        return element("label", attributes, page.words(self.words, self.id), *note)

    def _control(self, page: PageContext) -> Element:
        common: Attributes = {
            "class": page.name("field"),
            "id": page.html_id(self.id),
            "name": self.id,
            "required": self.required,
            "placeholder": self.placeholder.in_language(page.language) or None,
        }
        longest = str(LONGEST_ANSWER)
        match self.kind:
            case "tick":
                return element("input", {"type": "checkbox", "value": "yes", **common})
            case "long":
                return element("textarea", {"rows": "5", "maxlength": longest, **common})
            case "choice":
                none_yet = element("option", {"value": ""}, page.phrase("choose"))
                return element("select", common, none_yet, *(element("option", {}, one) for one in self.choices))
            case _:
                checked = {"pattern": self.pattern or None, "autocomplete": _COMPLETE.get(self.kind)}
                return element("input", {"type": _TYPES[self.kind], "maxlength": longest, **checked, **common})


class Form(BaseItem):
    """Fields that a visitor fills in; the answers go to the site's inbox."""

    NAME = "Form"
    ABOUT = "Fields that visitors fill in and send"
    CALLED = ("newsletter", "message", "fields")
    ROLES = {"box": "block", "label": "label", "field": "field", "button": "button"}
    CHILDREN = ("fields",)
    FILLS = True

    kind: Literal["form"] = "form"
    name: Name = "Form"
    fields: tuple[FormField, ...] = ()
    button: Words = Words(text="Send")
    thanks: Words = Words(text="Thank you. Your message has arrived.")
    own_address: Annotated[str, StringConstraints(strip_whitespace=True, pattern=r"^(https?://[^\s\"<>]+)?$")] = Field(
        default="", description="Where the form posts to in the ZIP, which has no inbox."
    )

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return f"Form: {self.name}"

    def lacks(self) -> Iterator[Lack]:
        if not self.fields:
            yield Lack("no fields", "fields")
        for field in self.fields:
            if field.words in (Words(), FormField.model_fields["words"].default):
                yield Lack("first words", "words", field.id)

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        attributes = {
            **page.attributes(self, "block", "form", self.id),
            "method": "post",
            "action": f"{FORMS}{self.id}/",
            "aria-label": self.name,
        }
        language = element("input", {"type": "hidden", "name": "language", "value": page.language})
        trap = element("input", {"name": TRAP, "tabindex": "-1", "autocomplete": "off"})
        unseen = element(
            "div",
            {"class": page.name("trap"), "aria-hidden": "true"},
            element("label", {}, page.phrase("trap"), trap),
        )
        send = element("button", {"class": page.name("button")}, self.button.in_language(page.language))
        fields = (field.markup(page) for field in self.fields)
        return (element("form", attributes, *fields, language, unseen, send),)

    @property
    def unseen_parts(self) -> Set[Part]:
        return set() if self.fields else {"label", "field"}

    def texts_within(self) -> tuple[Part, ...]:
        return ("label", "field", "button") if self.fields else ("button",)

    @property
    def has_placeholder(self) -> bool:
        return any(field.placeholder.text for field in self.fields)

    def faults(self, answers: Mapping[str, str], language: str) -> list[str]:
        """In sentences of that language, what is wrong with answers by field id; nothing where all is well. Patterns
        are left to the browser: they are written for its kind of regular expressions, and could keep a server busy."""
        faults = []
        for field in self.fields:
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

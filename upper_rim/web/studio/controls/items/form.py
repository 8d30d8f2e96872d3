"""With which controls is a form changed?"""

from __future__ import annotations

from .....core.kinds.items.form import Form, FormField
from .....core.model.site import Site
from ..control import Control, Group, order, text, words


def groups(node: Form, site: Site) -> list[Group]:
    lines = "\n".join(map(_field_line, node.fields))
    hint = "Your name* | text\nMail* | mail | you@there.example\nWhen | choice | morning, evening\nMessage | long"
    return [
        Group(
            "Fields",
            [
                Control("lines", "Fields", node.id, "fields", lines, hint=hint),
                *order(node, "fields", [one.words.text for one in node.fields]),
            ],
        ),
        Group(
            "Form",
            [
                text(node, "name", "Name"),
                *words(node, "button", "Button says", site),
                *words(node, "thanks", "Thanks", site),
            ],
        ),
        Group(
            "Where to",
            [
                Control(
                    "text",
                    "In the ZIP",
                    node.id,
                    "own_address",
                    node.own_address,
                    hint="an address of your own",
                ),
            ],
        ),
    ]


def _field_line(field: FormField) -> str:
    extra = ", ".join(field.choices) or field.placeholder.text
    return " | ".join((field.words.text + "*" * field.required, field.kind, extra, field.pattern)).rstrip(" |")

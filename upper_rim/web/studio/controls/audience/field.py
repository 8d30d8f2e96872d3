"""What of a condition about visitors is typed, and how is it read?"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from django.http import QueryDict
from pydantic import JsonValue

from .....core.conditions.audience.condition import VisitorCondition
from .....core.model.site import Site


@dataclass(frozen=True)
class Field:
    """`kind`: listed (with commas between), text, number, choice, several (of the choices), moment, hour, or yes."""

    kind: str
    name: str
    label: str
    value: Any
    choices: Sequence[tuple[str, str]] = ()
    hint: str = ""
    unit: str = ""

    def read(self, post: QueryDict) -> JsonValue:
        text = post.get(self.name, "").strip()
        match self.kind:
            case "listed":
                return [one.strip() for one in text.split(",") if one.strip()]
            case "several":
                return list(post.getlist(self.name))
            case "yes":
                return text == "true"
            case "number" | "moment" | "hour":
                return text or None
        return text


@dataclass(frozen=True)
class ConditionControls:
    """`name`: as it is offered. `begins`: what a new one is, besides its kind. `fields`: what is typed of one."""

    name: str
    begins: Callable[[Site], dict[str, JsonValue]]
    fields: Callable[[Any, Site], list[Field]]

    def read(self, condition: VisitorCondition, site: Site, post: QueryDict) -> dict[str, JsonValue]:
        return {"kind": condition.kind, **{one.name: one.read(post) for one in self.fields(condition, site)}}

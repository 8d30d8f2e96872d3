"""The order of a site's languages was a list of tags; since format 3 more is said of each."""

from __future__ import annotations

from typing import Any


def lifted(value: Any) -> Any:
    """Only the site itself had such a list, and edits that set it; they may stand in others."""
    if isinstance(value, list):
        return [lifted(one) for one in value]
    if not isinstance(value, dict):
        return value
    if value.get("field") == "language_order" and "value" in value:
        return {**value, "field": "spoken", "value": _said(value["value"])}
    fields = {name: lifted(held) for name, held in value.items()} if "edits" in value else dict(value)
    if "language_order" in fields:
        fields["spoken"] = _said(fields.pop("language_order"))
    return fields


def _said(order: Any) -> Any:
    if not isinstance(order, list) or not all(isinstance(tag, str) for tag in order):
        return order
    return [{"language": tag} for tag in dict.fromkeys(order)]

"""Notice bars said whether they are `pinned`; since format 2 they say how they move, as all moving pieces do."""

from __future__ import annotations

from typing import Any


def lifted(value: Any) -> Any:
    if isinstance(value, list):
        return [lifted(one) for one in value]
    if not isinstance(value, dict):
        return value
    fields = {name: lifted(held) for name, held in value.items()}
    if fields.get("kind") == "notice" and "pinned" in fields:
        fields.setdefault("moves", "stays" if fields["pinned"] else "away")
        del fields["pinned"]
    if fields.get("field") == "pinned" and "value" in fields:
        fields |= {"field": "moves", "value": "stays" if fields["value"] else "away"}
    return fields

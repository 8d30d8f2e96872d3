"""Names that nothing else has."""

from __future__ import annotations

import secrets


def new_id(prefix: str) -> str:
    return f"{prefix}-{secrets.token_hex(5)}"


def new_key() -> str:
    """A site's key, the beginning of its published class names."""
    return "q" + secrets.token_hex(3)

"""How are the published class names, ids and custom properties kept apart from a page's own, and where do published
parts stand?

All begin with the site's own key, drawn by chance when the site is made.
"""

from __future__ import annotations

import hashlib
import re
from collections.abc import Iterable, Iterator

from ..kinds.rule import Rule

PARTS_PATH = "/_rim/"
"""Where the published CSS, scripts, fonts and the like stand within a site."""

VISITOR_PATH = f"{PARTS_PATH}visitor.js"
"""What only a server knows of who looks. Where none answers, a file stands there by which nobody is known."""


def published_name(site_key: str, name: str = "") -> str:
    """A class, id or (behind `--`) custom property: `q7xk`, `q7xk-row`."""
    return f"{site_key}-{name}" if name else site_key


def look_class(look_id: str, position: int) -> str:
    """The class of a look that is worn at that place of the order."""
    return look_id if position == 0 else f"{look_id}_{position}"


_OURS = re.compile(r"(?<!\[data-)(?<=[.#\-])rim(?![a-z0-9_])")


def with_site_key(css: str, site_key: str) -> str:
    """Shipped CSS, which says `rim`, in the site's own names."""
    return _OURS.sub(site_key, css) if "rim" in css else css


def named(rules: Iterable[Rule], site_key: str) -> Iterator[Rule]:
    """Rules that say `rim`, in the site's own names."""
    return (rule.named(lambda text: with_site_key(text, site_key)) for rule in rules)


def short_hash(data: bytes) -> str:
    """The part of a published file's name that changes with its content."""
    return hashlib.sha256(data).hexdigest()[:12]

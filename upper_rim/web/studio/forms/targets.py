"""Where does a link lead that somebody typed, and which pages does a reach rule mean?"""

from __future__ import annotations

from typing import cast

from django.http import QueryDict
from pydantic import JsonValue

from ....core.exchange.imports.typed_links import TypedLinks
from ....core.model.site import Site
from ....core.model.tree import ROOT
from .form_error import FormError


def target_of(site: Site, text: str) -> JsonValue:
    """A link as it is typed. What it cannot be is left to the model to refuse, at its place."""
    try:
        return TypedLinks(site).target(text).model_dump(mode="json")
    except ValueError:
        return {"kind": "address", "address": text}


def where_of(site: Site, post: QueryDict) -> JsonValue:
    kind, text = post.get("where", "everywhere"), post.get("value", "").strip()
    if kind == "everywhere":
        return {"kind": "everywhere"}
    if kind == "tag":
        return {"kind": "tag", "tag": text}
    if kind == "page":
        target = cast(dict[str, JsonValue], target_of(site, text))
        if target["kind"] != "page":
            raise FormError(post.get("node", ROOT), "where", f"there is no page at {text or 'an empty path'}")
        return target
    if not text.startswith("/"):
        text = "/" + text
    return {"kind": "below", "path": text}

"""Where does a link lead that somebody typed, and which pages does a reach rule mean?"""

from __future__ import annotations

from typing import cast, get_args

from django.http import QueryDict
from pydantic import JsonValue

from ....core.conditions.matching import ANY
from ....core.conditions.of_kind import PageKind
from ....core.exchange.imports.typed_links import TypedLinks
from ....core.model.site import Site
from ....core.model.tree import ROOT
from ..words.languages import language_name
from .form_error import FormError


def target_of(site: Site, text: str) -> JsonValue:
    """A link as it is typed. What it cannot be is left to the model to refuse, at its place."""
    try:
        return TypedLinks(site).target(text).model_dump(mode="json")
    except ValueError:
        return {"kind": "address", "address": text}


def where_of(site: Site, post: QueryDict) -> JsonValue:
    """`where`: a kind of condition, or a kind of page; `value`: the path, the tag or the language that it is about."""
    kind, text = post.get("where", "everywhere"), post.get("value", "").strip()
    if kind == "everywhere":
        return {"kind": "everywhere"}
    if kind in get_args(PageKind):
        return {"kind": "page-kind", "which": kind}
    if kind == "language":
        return {"kind": "language", "language": _tag_of(site, text)}
    if kind == "tag":
        return {"kind": "tag", "tag": text}
    if kind == "page":
        target = cast(dict[str, JsonValue], target_of(site, text))
        if target["kind"] != "page":
            raise FormError(post.get("node", ROOT), "where", f"there is no page at {text or 'an empty path'}")
        return target
    if not text.startswith("/"):
        text = "/" + text
    return {"kind": "matching" if ANY in text.split("/") else "below", "path": text}


def _tag_of(site: Site, text: str) -> str:
    """A language's tag; of those of the site's pages the name will do."""
    tags = {page.language for page in site.pages}
    return next((tag for tag in tags if language_name(tag).lower() == text.lower()), text)

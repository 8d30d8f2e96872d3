"""Where does a link lead that somebody typed, and which pages does a reach rule mean?"""

from __future__ import annotations

import re
from typing import cast

from django.http import QueryDict
from pydantic import JsonValue

from ...core.model.site import Site
from ...core.model.tree import ROOT
from .unclear import Unclear


def target_of(site: Site, text: str) -> JsonValue:
    """A link as it is typed: a page's path or title, an address, a mail address, a telephone number, or nothing."""
    if not text:
        return {"kind": "nothing"}
    page = next((page for page in site.pages if text in {page.path, page.path.rstrip("/"), page.id}), None)
    page = page or next((page for page in site.pages if page.title == text), None)
    if page is not None:
        return {"kind": "page", "page": page.id}
    if re.fullmatch(r"[^\s@/:]+@[^\s@/:]+\.[^\s@/:]+", text):
        return {"kind": "address", "address": f"mailto:{text}"}
    if re.fullmatch(r"\+?[\d\s()/-]{5,24}", text):
        return {"kind": "address", "address": "tel:" + re.sub(r"[^\d+]", "", text)}
    if re.match(r"^[\w-]+(\.[\w-]+)+(/|$)", text):
        return {"kind": "address", "address": f"https://{text}"}
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
            raise Unclear(post.get("node", ROOT), "where", f"there is no page at {text or 'an empty path'}")
        return target
    if not text.startswith("/"):
        text = "/" + text
    return {"kind": "below", "path": text}

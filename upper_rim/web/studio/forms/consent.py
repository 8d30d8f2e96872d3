"""What do forms about consent mean: what may be agreed to, and what is said of other hosts?"""

from __future__ import annotations

import re
from collections.abc import Callable

from django.http import QueryDict
from pydantic import JsonValue

from ....core.exchange.html.foreign import host_of
from ....core.model.editing.edits import Add, Edit, Set
from ....core.model.site import Site
from ....core.model.tree import ROOT
from ...sites import ids
from .form_error import FormError, Posted

_ID_WORDS = re.compile(r"[^a-z0-9]+")


def _say_of_host(site: Site, post: QueryDict) -> Posted:
    """For a yes to which category what is fetched from a host waits; or that it is left."""
    host = host_of(f"//{post['host'].strip().removeprefix('https://').removeprefix('http://')}")
    if not host:
        raise FormError(ROOT, "hosts", "name a host, charts.example say")
    said = post.get("value", "")
    known = next((one for one in site.hosts if one.host == host), None)
    category: JsonValue = None if said in {"", "left"} else said
    made: Edit = (
        Set(node=known.id, field="category", value=category)
        if known
        else Add(parent=ROOT, slot="hosts", values=({"id": ids.new_id("ho"), "host": host, "category": category},))
    )
    return Posted(made)


def _add_category(site: Site, post: QueryDict) -> Posted:
    """Its id is what scripts know it by: of its name, in plain letters."""
    name = post.get("name", "").strip()
    taken = {one.id for one in site.categories}
    own = _ID_WORDS.sub("-", name.lower()).strip("-")[:30]
    own = own if re.match(r"[a-z][a-z0-9-]", own) else f"category-{own}".rstrip("-")
    if not name:
        raise FormError(ROOT, "categories", "give it a name")
    if own in taken:
        raise FormError(ROOT, "categories", f"“{name}” is there already")
    value: dict[str, JsonValue] = {"id": own, "words": {"text": name}}
    return Posted(Add(parent=ROOT, slot="categories", values=(value,)), (own,))


READERS: dict[str, Callable[[Site, QueryDict], Posted]] = {"host": _say_of_host, "category": _add_category}

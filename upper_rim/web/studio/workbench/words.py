"""Which words stand at a node on the stage, and in which field and language are they said? So that they can be written
there."""

from __future__ import annotations

from django.http import Http404, HttpRequest, HttpResponse, JsonResponse

from ....core.kinds.entries import Entry
from ....core.kinds.items.base import BaseItem
from ....core.model.navigation.links import Links
from ....core.model.site import Site
from ....core.model.tree import holder_of
from ....core.values.words import Words
from ...sites import store
from ...sites.access import site_of


def words_at(request: HttpRequest, slug: str) -> HttpResponse:
    """`text` as it is published on the page that is looked at; `language` is empty where it is the site's own. 404
    where no words are said in one field."""
    site = store.load(site_of(request.user, slug).pk).site
    path = request.GET.get("page", "")
    page = next((page for page in site.pages if page.path == path), None)
    language = page.language if page else site.language
    found = _said(site, request.GET.get("node", ""), language)
    if found is None:
        raise Http404
    field, text = found
    return JsonResponse({"field": field, "text": text, "language": "" if language == site.language else language})


def _said(site: Site, node: str, language: str) -> tuple[str, str] | None:
    holder = holder_of(site, node)
    if isinstance(holder, Entry):
        return "label", Links(site).label(holder, language)
    words = getattr(holder, "words", None) if isinstance(holder, BaseItem) else None
    return ("words", words.in_language(language)) if isinstance(words, Words) and words.text else None

"""What do forms about many pages at once mean: the language that they are in, how they are laid out?"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence

from django.http import QueryDict
from pydantic import JsonValue, ValidationError

from ....core.model.editing.edits import Add, Edit, Remove, SetEach, Together
from ....core.model.navigation.page_index import in_folder_of
from ....core.model.navigation.unsaid import likely_languages
from ....core.model.site import Page, Site
from ....core.model.tree import ROOT
from ....core.page_shape.measured import MeasuredPage, measured_shape
from .form_error import FormError, Posted


def _branch_language(site: Site, post: QueryDict) -> Posted:
    """All pages in a page's folder, and below it, are in its language."""
    page = next((page for page in site.pages if page.id == post["node"]), None)
    if page is None:
        raise FormError(post["node"], "language", "there is no such page")
    others = [(one.id, page.language) for one in in_folder_of(page, site.pages) if one.language != page.language]
    if not others:
        raise FormError(page.id, "language", "all pages there are in this language")
    return Posted(_speaking(site, others))


def _speaking(site: Site, values: Sequence[tuple[str, JsonValue]]) -> Edit:
    """Languages of pages, by hand: what their words are likely in is asked no more."""
    changed = {page for page, _ in values}
    asked = tuple((page.id, "") for page in site.pages if page.likely and page.id in changed)
    said = SetEach(field="language", values=tuple(values))
    return Together(edits=(said, SetEach(field="likely", values=asked))) if asked else said


def _likely_language(site: Site, post: QueryDict) -> Posted:
    """Pages whose words are likely in a language are in it, or are in the one that they count as."""
    language = post["language"]
    pages = likely_languages(site.pages).get(language, ())
    if not pages:
        raise FormError(ROOT, "language", "no page is asked about any more")
    takes = post["value"] == "yes"
    return Posted(_speaking(site, [(page.id, language if takes else page.language) for page in pages]))


def laid_out_alike(page: Page, pages: Sequence[Page]) -> list[Page]:
    """Those in its folder, or below it, whose own CSS tells the same."""
    return [one for one in in_folder_of(page, pages) if one.shape == page.shape and one.content]


def _take_shape(site: Site, post: QueryDict) -> Posted:
    """A page is laid out as a browser measured it; `value`: so are all that are alike in its folder."""
    page = next((page for page in site.pages if page.id == post["node"]), None)
    if page is None:
        raise FormError(post["node"], "shape", "there is no such page")
    try:
        measured = MeasuredPage.model_validate_json(post["measured"])
    except (ValidationError, RecursionError):
        raise FormError(page.id, "shape", "what was measured cannot be read: measure it again") from None
    known = next((shape for shape in site.shapes if shape.id == page.shape), None)
    shape = measured_shape(measured, known)
    pages = laid_out_alike(page, site.pages) if post.get("value") == "alike" else [page]
    if shape.id == page.shape:
        raise FormError(page.id, "shape", "it is laid out like this already")
    return Posted(Together(edits=tuple(_wearing(site, shape.model_dump(mode="json"), pages))))


def _wearing(site: Site, shape: dict[str, JsonValue], pages: Sequence[Page]) -> Iterator[Edit]:
    """Pages get a shape; those that no page has any more go."""
    if all(one.id != shape["id"] for one in site.shapes):
        yield Add(parent=ROOT, slot="shapes", values=(shape,))
    yield SetEach(field="shape", values=tuple((page.id, shape["id"]) for page in pages))
    changed = {page.id for page in pages}
    before = {page.shape for page in pages if page.shape}
    unused = before - {page.shape for page in site.pages if page.id not in changed}
    if unused:
        yield Remove(nodes=tuple(sorted(unused)))


READERS: dict[str, Callable[[Site, QueryDict], Posted]] = {
    "branch-language": _branch_language,
    "likely-language": _likely_language,
    "take-shape": _take_shape,
}

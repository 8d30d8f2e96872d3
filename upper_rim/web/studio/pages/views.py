"""The pages of a site as a tree by path, one page, bringing pages in, and lifting old bits out."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from typing import Any
from urllib.parse import quote

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from pydantic import ValidationError

from ....core.conditions.below import Below
from ....core.exchange.html.lift_proposals import proposals
from ....core.exchange.html.lifting import look_through, selector_fault
from ....core.exchange.taken_over.making import slot_of
from ....core.kinds.pieces import PIECE_KINDS
from ....core.model.navigation.page_index import folder_of, in_folder_of
from ....core.model.navigation.unsaid import likely_languages
from ....core.model.site import Lift, Site
from ....core.page_shape.measured import MeasuredPage, unlike
from ....core.reach.coverage import coverage_of
from ... import wall
from ...accounts.bodies import takes_files
from ...jobs import tasks
from ...jobs.turns import begin_work
from ...live.stage import ALONE, ARRANGEMENT
from ...sites import contents, ids, store
from ...sites.access import site_of
from ...sites.models import StoredSite, Work
from ..cycle.notices import StudioNotice
from ..cycle.screen import Opened, Redirected, screen, site_url
from ..forms.numbers import whole_number
from ..forms.pages import laid_out_alike
from ..preview.steps import steps_of
from ..preview.viewing import looking_as
from ..words.reach import by_bands
from ..words.shapes import declared_words, hold_words, shape_words, unlike_words
from .tree import OPEN_TREE_UP_TO, branch_of, found_in, part_of


@screen("studio/pages/pages.html", "pages")
def pages(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    if made and made[0].startswith("pg-"):
        raise Redirected(site_url("page", opened, made[0]))
    site = opened.site
    small, typed = len(site.pages) <= OPEN_TREE_UP_TO, request.GET.get("q", "").strip()
    tree = branch_of(site, whole=small)
    return {
        "tree": found_in(site, typed, 0) if typed else tree if small else part_of(tree, 0),
        "small": small,
        "q": typed,
        "steps": steps_of(request, opened),
        **_latest(opened.stored, Work.Kind.BRING_IN),
        "unread": [page for page in site.pages if page.remark][:50],
        "dark": Counter(page.splice.dark for page in site.pages if page.splice is not None and page.splice.dark),
        "likely": sum(map(len, likely_languages(site.pages).values())),
        "unscaled": sum(page.splice is not None and page.splice.unscaled for page in site.pages),
    }


def page_branch(request: HttpRequest, slug: str) -> HttpResponse:
    """One folder of the tree, for large sites, or what has in its title or path what was typed; from some place on."""
    site = store.load(site_of(request.user, slug).pk).site
    typed, begin = request.GET.get("q", "").strip(), whole_number(request.GET.get("begin", "")) or 0
    small = len(site.pages) <= OPEN_TREE_UP_TO
    if typed:
        branch = found_in(site, typed, begin)
    else:
        branch = branch_of(site, request.GET.get("below", "/"), whole=small)
        branch = branch if small else part_of(branch, begin)
    context = {"branch": branch, "slug": slug, "small": small, "q": typed}
    return render(request, "studio/pages/page_branch.html", context)


@screen("studio/pages/page_detail.html", "pages")
def page(request: HttpRequest, opened: Opened, page_id: str, made: tuple[str, ...]) -> dict[str, Any]:
    site = opened.site
    found = next((page for page in site.pages if page.id == page_id), None)
    if found is None:
        raise Redirected(site_url("pages", opened))
    shown: dict[tuple[tuple[str, str], ...], list[str]] = {}
    coverage, card = coverage_of(site), looking_as(request, site)
    on_it = coverage.on(found, coverage.gets(card) if card else None)
    for slot, outcomes in on_it.items():
        shown.setdefault(by_bands(outcomes, site), []).append(PIECE_KINDS[slot].NAME)
    original = next((page for page in site.pages if page.id == found.translates), None)
    shape = next((shape for shape in site.shapes if shape.id == found.shape), None)
    return {
        "page": found,
        "card": card,
        "folder": folder_of(found),
        "others_there": sum(one.language != found.language for one in in_folder_of(found, site.pages)),
        "shown": [(", ".join(slots), bands) for bands, slots in shown.items()],
        "original": original,
        "lifts": [lift for lift in site.lifts if lift.where.covers(found)],
        "shape": shape,
        # By itself, and with a piece on it: one that would be begun where it has none yet.
        "alone": f"?{ALONE}=1",
        "framed": "" if any(one.piece for listed in on_it.values() for one in listed) else f"?{ARRANGEMENT}=line",
        "shape_words": list(shape_words(shape)) if shape else [],
        "declared": declared_words(shape) if shape else [],
        "hold_words": hold_words(sum(page.shape == found.shape for page in site.pages)),
    }


def measured_page(request: HttpRequest, slug: str, page_id: str) -> HttpResponse:
    """How a page is laid out in the designer's browser, beside what its own CSS told."""
    site = store.load(site_of(request.user, slug).pk).site
    page = next((page for page in site.pages if page.id == page_id), None)
    if request.method != "POST" or page is None:
        raise Http404
    said = request.POST.get("measured", "")
    try:
        found = list(unlike(MeasuredPage.model_validate_json(said)))
    except (ValidationError, RecursionError):
        return render(request, "studio/pages/measured_page.html", {"is_unread": True}, status=422)
    context = {
        "slug": slug,
        "page": page,
        "measured": said,
        "unlike": [unlike_words(one) for one in found[:MOST_UNLIKE]],
        "more": len(found[MOST_UNLIKE:]),
        "folder": folder_of(page),
        "alike": len(laid_out_alike(page, site.pages)),
    }
    return render(request, "studio/pages/measured_page.html", context)


MOST_UNLIKE = 6


@takes_files(settings.LARGEST_UPLOAD)
def bring_in(request: HttpRequest, slug: str) -> HttpResponse:
    """Takes an upload and hands it to the background; shows how it goes."""
    stored = site_of(request.user, slug)
    if request.method != "POST":
        raise Http404
    upload = request.FILES.get("file")
    fault = _upload_fault(upload)
    if fault:
        return render(
            request,
            "studio/pages/works.html",
            {"works": stored.works.filter(kind=Work.Kind.BRING_IN)[:4], "slug": slug, "fault": fault},
        )
    assert upload is not None
    work = Work.objects.create(
        site=stored, author=request.user, kind=Work.Kind.BRING_IN, name=(upload.name or "upload")[:200], file=upload
    )
    begin_work(work, tasks.take_in)
    return _works(request, slug, Work.Kind.BRING_IN)


def _upload_fault(upload: Any) -> str:
    if upload is None:
        return "Choose a file first."
    if not upload.name.lower().endswith((".zip", ".html", ".htm", ".xml")):
        return "A ZIP of a site, a single .html page or a sitemap .xml can come in."
    if upload.size > settings.LARGEST_UPLOAD:
        return f"The file is {upload.size // 1_000_000} MB large; {settings.LARGEST_UPLOAD // 1_000_000} MB at most."
    return ""


def works(request: HttpRequest, slug: str, kind: str) -> HttpResponse:
    """The latest works of a kind, asked for again while one goes on."""
    site_of(request.user, slug)
    return _works(request, slug, kind)


def _works(request: HttpRequest, slug: str, kind: str) -> HttpResponse:
    context = _latest(site_of(request.user, slug), kind)
    response = render(request, "studio/pages/works.html", {"slug": slug, **context})
    if not context["going_on"] and request.GET.get("waiting"):
        response["HX-Trigger"] = "rim:work-done"
    return response


def _latest(stored: StoredSite, kind: str) -> dict[str, Any]:
    works = list(stored.works.filter(kind=kind)[:4])
    going_on = any(work.state in {Work.State.WAITING, Work.State.WORKING} for work in works)
    return {"works": works, "going_on": going_on, "kind": kind}


PREVIEW_PAGES = 200
LOOKED_THROUGH_PAGES, LOOKED_THROUGH_BYTES = 40, 2_000_000
"""For proposals: no more of either."""


@screen("studio/pages/lifting.html", "pages")
def lifting(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any] | HttpResponse:
    """Choosing what is lifted out, with a look at what goes, and what is lifted out already."""
    site = opened.site
    selector, below = request.GET.get("selector", "").strip(), request.GET.get("below", "/").strip() or "/"
    if request.method == "POST" and request.POST.get("lift"):
        return _begin_lifting(request, opened)
    counts: dict[str, int] = {}
    for page in site.pages:
        for lift_id in {cut.lift for cut in page.cuts}:
            counts[lift_id] = counts.get(lift_id, 0) + 1
    context: dict[str, Any] = {
        "selector": selector,
        "below": below,
        "lifts": [(lift, counts.get(lift.id, 0)) for lift in site.lifts],
        **_latest(opened.stored, Work.Kind.LIFT_OUT),
    }
    pages = [page for page in site.pages if page.content]
    if selector:
        context |= _lift_preview(site, selector, below, alone=bool(request.GET.get("alone")))
        context["alone"] = bool(request.GET.get("alone"))
        context["slot"] = slot_of(f"{request.GET.get('what', '')} {selector}")
    if pages:
        looked = next((page for page in pages if page.path == below), pages[0])
        if context.get("rows") and all(page is not looked for page, _, _ in context["rows"]):
            looked = context["rows"][0][0]
        context["looked"] = looked
        context["stage_page"] = quote(looked.path, safe="/%")
    return context


def lift_proposals(request: HttpRequest, slug: str) -> HttpResponse:
    """What seems old; asked for by itself, since it takes a moment."""
    site = store.load(site_of(request.user, slug).pk).site
    found = wall.read_or([], proposals, list(_looked_through(site)), [lift.selector for lift in site.lifts])
    return render(request, "studio/pages/lift_proposals.html", {"proposals": found, "slug": slug})


def _looked_through(site: Site) -> Iterator[bytes]:
    left = LOOKED_THROUGH_BYTES
    for page in [page for page in site.pages if page.content][:LOOKED_THROUGH_PAGES]:
        content = contents.read_content(page.content or "")
        left -= len(content)
        if left < 0:
            return
        yield content


def _begin_lifting(request: HttpRequest, opened: Opened) -> HttpResponse:
    lift = posted_lift(request, opened.site)
    if lift is None:
        return render(
            request, "studio/pages/works.html", {"fault": "This selector or path cannot be used.", "slug": opened.slug}
        )
    work = Work.objects.create(
        site=opened.stored,
        author=opened.user,
        kind=Work.Kind.LIFT_OUT,
        name=lift.selector[:200],
        details={"lift": lift.model_dump(mode="json")},
    )
    begin_work(work, tasks.lift_out)
    return _works(request, opened.slug, Work.Kind.LIFT_OUT)


def posted_lift(request: HttpRequest, site: Site) -> Lift | None:
    """What is to be lifted, and where: below a path, or on the page at that path alone; None where that cannot be."""
    path = request.POST.get("below") or "/"
    page = next((page for page in site.pages if page.path == path), None) if request.POST.get("alone") else None
    where = {"kind": "page", "page": page.id} if page else {"kind": "below", "path": path}
    try:
        lift = Lift.model_validate({"id": ids.new_id("lf"), "selector": request.POST["lift"], "where": where})
    except (ValueError, KeyError):
        return None
    return None if selector_fault(lift.selector) else lift


def _lift_preview(site: Site, selector: str, below: str, *, alone: bool) -> dict[str, Any]:
    fault = selector_fault(selector)
    if fault:
        return {"fault": StudioNotice(f"{selector}: {fault}", True)}
    try:
        lift = Lift(id="preview", selector=selector, where=Below(path=below))
    except ValueError:
        return {"fault": StudioNotice(f"{below}: a path begins with / and has no spaces", True)}
    pages = [page for page in site.pages if page.content and lift.where.covers(page)]
    if alone:
        pages = [page for page in pages if page.path == below]
    rows, faults = [], []
    for some in contents.of_pages(pages[:PREVIEW_PAGES]):
        try:
            looked = wall.read(look_through, [content for _, content in some], selector)
        except wall.Unread as unread:
            return {"fault": StudioNotice(f"These pages cannot be looked through: {unread}", True)}
        for (page, _), (lifting, sources) in zip(some, looked, strict=True):
            rows += [(page, found, source) for found, source in zip(lifting.found, sources, strict=True)]
            faults += [(page, fault) for fault in lifting.faults]
    return {"rows": rows, "faults": faults, "looked_at": min(len(pages), PREVIEW_PAGES), "page_count": len(pages)}

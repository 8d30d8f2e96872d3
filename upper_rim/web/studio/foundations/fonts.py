"""A font that a designer brings along: read, refused with a reason, or kept as one of the site's faces."""

from __future__ import annotations

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseRedirect
from django.urls import reverse

from ....core.exchange.imports.import_font import family_of, kept_file
from ....core.model.editing.edits import Add, Edit, Set
from ....core.model.tree import ROOT
from ....core.style.type.fonts import LARGEST_FONT, FontFault, read_font
from ... import wall
from ...accounts.bodies import takes_files
from ...sites import contents, ids, store
from ...sites.access import site_of
from ..cycle.announcements import announcement
from ..cycle.notices import notice_of


@takes_files(LARGEST_FONT)
def bring_font(request: HttpRequest, slug: str) -> HttpResponse:
    """A file of a family that is there already joins it; another one begins a family."""
    stored = site_of(request.user, slug)
    file = request.FILES.get("font")
    if request.method != "POST":
        raise Http404
    back = HttpResponseRedirect(reverse("type", args=[slug]))
    if file is None or file.size > LARGEST_FONT:
        messages.error(request, f"Choose a font file, {LARGEST_FONT // 1_000_000} MB at most.")
        return back
    try:
        found = wall.read(read_font, file.read())
    except wall.Unread as unread:
        found = FontFault(str(unread))
    if isinstance(found, FontFault):
        messages.error(request, f"“{file.name}” was not taken in: {found.reason}.")
        return back
    site = store.load(stored.pk).site
    kept = kept_file(found)
    contents.keep_contents({kept.content: found.data})
    family = next((font for font in site.fonts if font.name == found.family), None)
    edit: Edit
    if family is not None:
        files = [
            one
            for one in family.files
            if (one.lightest, one.boldest, one.italic) != (kept.lightest, kept.boldest, kept.italic)
        ]
        edit = Set(node=family.id, field="files", value=[one.model_dump(mode="json") for one in (*files, kept)])
    else:
        made = family_of(ids.new_id("ft"), found.family, [found])
        edit = Add(parent=ROOT, slot="fonts", values=(made.model_dump(mode="json"),))
    notice = notice_of(store.submit(stored.pk, request.user, edit, tells=announcement), edit, site)
    if notice is not None:
        messages.error(request, notice.sentence)
    else:
        weights = f"{found.lightest}" if found.lightest == found.boldest else f"{found.lightest} to {found.boldest}"
        messages.success(
            request,
            f"“{found.family}” is one of the site's faces now, weight {weights}{', italic' if found.italic else ''}.",
        )
    return back


def font_file(request: HttpRequest, slug: str, font_id: str, at: int) -> HttpResponse:
    """A file of a font that the site has, for it to be seen in the studio."""
    site = store.load(site_of(request.user, slug).pk).site
    font = next((font for font in site.fonts if font.id == font_id), None)
    if font is None or at >= len(font.files):
        raise Http404
    return HttpResponse(contents.read_content(font.files[at].content), content_type="font/woff2")

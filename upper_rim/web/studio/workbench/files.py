"""Files that a designer brings along for what shows them: a picture, a drawing for an icon, a film, a feed."""

from __future__ import annotations

import re
from collections.abc import Callable

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseRedirect

from ....core.exchange.imports.feed import FeedFault, read_brought_feed
from ....core.exchange.imports.import_pages import digest
from ....core.exchange.imports.import_picture import LARGEST_PICTURE, Brought, PictureFault, read_brought, read_film
from ....core.kinds.items.icon import IconLink
from ....core.model.editing.edits import Add, Edit, Set, Together
from ....core.model.site import Site
from ....core.model.tree import ROOT, holder_of
from ... import wall
from ...accounts.bodies import takes_files
from ...sites import contents, ids, store
from ...sites.access import site_of
from ..cycle.announcements import announcement
from ..cycle.notices import notice_of


@takes_files(LARGEST_PICTURE)
def bring_file(request: HttpRequest, slug: str) -> HttpResponse:
    """A picture, or a feed, among the site's files, shown by the node that asked for it."""
    stored = site_of(request.user, slug)
    file = request.FILES.get("file")
    if request.method != "POST":
        raise Http404
    site = store.load(stored.pk).site
    node = request.POST.get("node", "")
    shown_by = holder_of(site, node)
    back = HttpResponseRedirect(_back(request, slug))
    field = request.POST.get("field", "")
    if shown_by is None or field not in {"feed", "picture", "icon", "film"} or (field == "icon") != (node == ROOT):
        field = "picture"
    if shown_by is None or field not in type(shown_by).model_fields:
        messages.error(request, "What was to show it is not there any more.")
        return back
    if file is None or not file.name or file.size is None or file.size > LARGEST_PICTURE:
        messages.error(request, f"Choose a file, {LARGEST_PICTURE // 1_000_000} MB at most.")
        return back
    try:
        found = wall.read(_READERS.get(field, read_brought), file.read())
    except wall.Unread as unread:
        found = PictureFault(str(unread))
    if isinstance(found, PictureFault | FeedFault):
        messages.error(request, f"“{file.name}” was not taken in: {found.reason}.")
        return back
    if isinstance(shown_by, IconLink) and found.ending != "svg":
        messages.error(request, f"“{file.name}” was not taken in: an icon is a drawing (SVG).")
        return back
    content = digest(found.data)
    contents.keep_contents({content: found.data})
    known = next((asset.path for asset in site.assets if asset.content == content), None)
    path = known or _free_path(site, _FOLDERS.get(field, "pictures"), file.name, found.ending)
    edits: list[Edit] = [Set(node=node, field=field, value=path)]
    if known is None:
        asset = {"id": ids.new_id("as"), "path": path, "content": content, "size": len(found.data)}
        edits.insert(0, Add(parent=ROOT, slot="assets", values=(asset,)))
    edit = Together(edits=tuple(edits))
    notice = notice_of(store.submit(stored.pk, request.user, edit, tells=announcement), edit, site)
    if notice is not None:
        messages.error(request, notice.sentence)
    else:
        without = f" Left out of it: {', '.join(found.left_out[:8])}." if found.left_out else ""
        messages.success(request, f"“{file.name}” is among the site’s files now, as {path}.{without}")
    return back


_READERS: dict[str, Callable[[bytes], Brought | PictureFault | FeedFault]] = {
    "feed": read_brought_feed,
    "film": read_film,
}
_FOLDERS = {"feed": "feeds", "film": "films"}
"""By field; all else is a picture."""


def _back(request: HttpRequest, slug: str) -> str:
    """The workbench that the form came from; nowhere else."""
    asked = request.POST.get("back", "")
    return asked if re.fullmatch(rf"/s/{re.escape(slug)}/[\w/?=&%.+-]*", asked) else f"/s/{slug}/pieces/"


def _free_path(site: Site, folder: str, name: str, ending: str) -> str:
    stem = re.sub(r"[^a-z0-9]+", "-", name.rpartition(".")[0].lower()).strip("-")[:60] or "picture"
    taken = {asset.path for asset in site.assets} | {page.path for page in site.pages}
    paths = (f"/{folder}/{stem}{f'-{at}' if at else ''}.{ending}" for at in range(len(taken) + 1))
    return next(path for path in paths if path not in taken)

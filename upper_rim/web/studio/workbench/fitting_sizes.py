"""At which values of a handle does its row begin or cease to fit? Asked for once the handle is taken hold of."""

from __future__ import annotations

from django.http import Http404, HttpRequest, HttpResponse, JsonResponse

from ....core.fit.advice.turning import turning_points
from ....core.model.editing.edits import Edit
from ...sites import store
from ...sites.access import site_of
from ...sites.fitters import site_fitter
from ..forms.form_error import Posted
from ..forms.numbers import stage_width, whole_number
from ..forms.posting import posted_edit
from .handles import NUMBER


def fitting_sizes(request: HttpRequest, slug: str, piece_id: str) -> HttpResponse:
    """As `snaps` of the handle. The query is what the handle sends, and its `said`, `least`, `most` and `now`, with the
    stage's `width`."""
    stored = site_of(request.user, slug)
    query, width = request.GET, stage_width(request.GET)
    least, most, now = (whole_number(query.get(name, "")) for name in ("least", "most", "now"))
    if least is None or most is None or now is None or query.get("do") not in {"set", "style"}:
        raise Http404
    fitter = site_fitter(stored.pk)
    site = fitter.resolved(store.load(stored.pk).site)

    def edit_of(size: int) -> Edit | None:
        form = query.copy()
        form["value"] = query.get("said", NUMBER).replace(NUMBER, str(size))
        posted = posted_edit(site, form)
        return posted.edit if isinstance(posted, Posted) else None

    values = range(least, min(most, width) + 1)
    sizes = turning_points(fitter, site, piece_id, width, edit_of, values, now) if values else []
    return JsonResponse({"snaps": [(size, "the row just fits") for size in sizes]})

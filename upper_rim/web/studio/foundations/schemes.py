"""Grounds and looks are tried on: seen beside what is there, then kept or taken off."""

from __future__ import annotations

from typing import Any
from urllib.parse import quote

from django.http import HttpRequest

from ....core.model.editing.edits import Edit, Set
from ....core.model.names import node_name
from ....core.model.site import Site
from ....core.model.tree import holder_of
from ....core.style.paint.contrast import weak_texts
from ....core.style.schemes import COLOUR_SCHEMES, Scheme, scheme_of, worn
from ....shipped import shelf
from ...sites import ids
from ...sites.models import Trial
from ..controls.of_styles import STATE_NAMES
from ..cycle.notices import StudioNotice
from ..cycle.screen import Opened, Redirected, screen, site_url
from ..preview.trials import begin, ended, trial_of, tried_site
from ..preview.viewing import pictures_of


@screen("studio/foundations/schemes.html", "foundations")
def schemes(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    notice: StudioNotice | None = None
    asked = request.POST.get("trial", "") if request.method == "POST" else ""
    if asked in {"keep", "off"}:
        notice = ended(opened, asked)
        if notice is None:
            raise Redirected(site_url("schemes", opened))
    elif asked:
        found = _edit(opened.site, asked)
        if found is None:
            notice = StudioNotice("There is nothing of that name to be tried on.", True)
        else:
            begin(opened, *found)
    trial = trial_of(opened)
    page = request.POST.get("page") or request.GET.get("page") or next((one.path for one in opened.site.pages), "/")
    context: dict[str, Any] = {
        "room": "schemes",
        "schemes": [(scheme, _faces(scheme)) for scheme in COLOUR_SCHEMES],
        "trial": trial,
        "weak": _weak(opened.site, trial) if trial else [],
        "page_path": page,
        "stage_page": quote(page, safe="/%"),
    }
    return {**context, "notice": notice} if notice else context


def _faces(scheme: Scheme) -> str:
    faces = shelf().faces
    return " with ".join(faces[face].family for face in (scheme.face, scheme.heading_face) if face)


def _weak(site: Site, trial: Trial) -> list[str]:
    """What would be hard to read with what is tried on, in words."""
    tried = tried_site(site, trial)
    if tried is None:
        return []
    pieces = {piece.id: piece.name for piece in tried.pieces}
    return [
        f"{pieces[weak.element.piece]}, {node_name(holder_of(tried, weak.node), tried)}, {STATE_NAMES[weak.state].lower()}"
        for weak in weak_texts(tried, pictures_of(tried))
    ]


def _edit(site: Site, asked: str) -> tuple[str, Edit] | None:
    """`scheme:ID`, or `look:ID:NODE`: its name, and the edit that would be made."""
    kind, _, rest = asked.partition(":")
    if kind == "scheme":
        scheme = scheme_of(rest)
        return (scheme.name, worn(site, scheme, ids.new_id)) if scheme else None
    look_id, _, node = rest.partition(":")
    look = next((look for look in site.looks if look.id == look_id), None)
    holder: Any = holder_of(site, node) if node else None
    if kind != "look" or look is None or holder is None or not hasattr(holder, "wears"):
        return None
    wears = [*(one for one in holder.wears if one != look_id), look_id]
    return f"{look.name} on {node_name(holder, site)}", Set(node=node, field="wears", value=wears)

"""Something is tried on: seen beside what is there, then kept or taken off without a trace."""

from __future__ import annotations

from typing import Any
from urllib.parse import quote

from django.http import HttpRequest

from ...core.model.apply import apply
from ...core.model.edits import Edit, Refusal, Set, edit_adapter
from ...core.model.site import Site
from ...core.model.tree import holder_of
from ...core.style.contrast import weak_texts
from ...core.style.schemes import SCHEMES, Scheme, scheme_of, worn
from ...shipped import shelf
from ..sites import store
from ..sites.models import Trial
from ..sites.rules import rules_of
from .controls import node_name
from .notices import Notice, notice_of
from .screens import Elsewhere, Opened, screen, site_url
from .styling_controls import STATE_NAMES
from .viewing import pictures_of


@screen("studio/schemes.html", "foundations")
def schemes(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    notice: Notice | None = None
    asked = request.POST.get("trial", "") if request.method == "POST" else ""
    if asked in {"keep", "off"}:
        notice = ended(opened, asked)
        if notice is None:
            raise Elsewhere(site_url("schemes", opened))
    elif asked:
        found = _edit(opened.site, asked)
        if found is None:
            notice = Notice("There is nothing of that name to be tried on.", True)
        else:
            begin(opened, *found)
    trial = trial_of(opened)
    page = request.POST.get("page") or request.GET.get("page") or next((one.path for one in opened.site.pages), "/")
    context: dict[str, Any] = {
        "room": "schemes",
        "schemes": [(scheme, _faces(scheme)) for scheme in SCHEMES],
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


def trial_of(opened: Opened) -> Trial | None:
    """What the person who looks is trying on."""
    trial: Trial | None = _mine(opened).first()
    return trial


def _mine(opened: Opened) -> Any:
    return Trial.objects.filter(site=opened.stored, person_id=opened.user.pk)


def begin(opened: Opened, name: str, edit: Edit) -> None:
    """From now on this is what is tried on."""
    Trial.objects.update_or_create(
        site=opened.stored,
        person_id=opened.user.pk,
        defaults={"name": name, "edit": edit_adapter.dump_python(edit, mode="json")},
    )


def ended(opened: Opened, asked: str) -> Notice | None:
    """Keeps it (`keep`) or takes it off; a notice where it cannot be kept."""
    if asked == "keep":
        return _keep(opened)
    _mine(opened).delete()
    return None


def tried_site(site: Site, trial: Trial) -> Site | None:
    """The site with what is tried on; None where that cannot be any more."""
    tried = apply(site, edit_adapter.validate_python(trial.edit), rules_of(trial.site_id))
    return tried if isinstance(tried, Site) else None


def _edit(site: Site, asked: str) -> tuple[str, Edit] | None:
    """`scheme:ID`, or `look:ID:NODE`: its name, and the edit that would be made."""
    kind, _, rest = asked.partition(":")
    if kind == "scheme":
        scheme = scheme_of(rest)
        return (scheme.name, worn(site, scheme, store.new_id)) if scheme else None
    look_id, _, node = rest.partition(":")
    look = next((look for look in site.looks if look.id == look_id), None)
    holder: Any = holder_of(site, node) if node else None
    if kind != "look" or look is None or holder is None or not hasattr(holder, "wears"):
        return None
    wears = [*(one for one in holder.wears if one != look_id), look_id]
    return f"{look.name} on {node_name(holder, site)}", Set(node=node, field="wears", value=wears)


def _keep(opened: Opened) -> Notice | None:
    trial = _mine(opened).first()
    if trial is None:
        return Notice("Nothing is being tried on.")
    edit = edit_adapter.validate_python(trial.edit)
    answer = store.submit(opened.stored.pk, opened.user, edit)
    if isinstance(answer, Refusal):
        return Notice(
            f"It cannot be kept any more, for the site has changed: {answer.reason}. Take it off, and try it on anew.",
            True,
        )
    notice = notice_of(answer, edit, opened.site)
    if notice is None:
        trial.delete()
    return notice

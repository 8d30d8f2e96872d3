"""Something is tried on: seen beside what is there, then kept or taken off without a trace."""

from __future__ import annotations

from typing import Any

from ....core.model.editing.apply import apply
from ....core.model.editing.edits import Edit, edit_adapter
from ....core.model.editing.refusal import Refusal
from ....core.model.site import Site
from ...sites import store
from ...sites.models import Trial
from ...sites.rules import rules_of
from ..cycle.announcements import announcement
from ..cycle.notices import StudioNotice, notice_of
from ..cycle.screen import Opened


def trial_of(opened: Opened) -> Trial | None:
    """What the person who looks is trying on, out of what is offered."""
    trial: Trial | None = _mine(opened).filter(about={}).first()
    return trial


def taken_over_by(opened: Opened) -> Trial | None:
    """The piece that the person who looks has begun with an old part of a page, and neither kept nor taken off."""
    trial: Trial | None = _mine(opened).exclude(about={}).first()
    return trial


def _mine(opened: Opened) -> Any:
    return Trial.objects.filter(site=opened.stored, person_id=opened.user.pk)


def begin(opened: Opened, name: str, edit: Edit, about: dict[str, Any] | None = None) -> None:
    """From now on this is what is tried on."""
    Trial.objects.update_or_create(
        site=opened.stored,
        person_id=opened.user.pk,
        defaults={"name": name[:200], "edit": edit_adapter.dump_python(edit, mode="json"), "about": about or {}},
    )


def ended(opened: Opened, asked: str) -> StudioNotice | None:
    """Keeps it (`keep`) or takes it off; a notice where it cannot be kept."""
    if asked == "keep":
        return _keep(opened)
    _mine(opened).delete()
    return None


def tried_site(site: Site, trial: Trial) -> Site | None:
    """The site with what is tried on; None where that cannot be any more."""
    tried = apply(site, edit_adapter.validate_python(trial.edit), rules_of(trial.site_id))
    return tried if isinstance(tried, Site) else None


def _keep(opened: Opened) -> StudioNotice | None:
    trial = _mine(opened).first()
    if trial is None:
        return StudioNotice("Nothing is being tried on.")
    edit = edit_adapter.validate_python(trial.edit)
    answer = store.submit(opened.stored.pk, opened.user, edit, tells=announcement)
    if isinstance(answer, Refusal):
        return StudioNotice(
            f"It cannot be kept any more, for the site has changed: {answer.words}. Take it off, and try it on anew.",
            True,
        )
    notice = notice_of(answer, edit, opened.site)
    if notice is None:
        trial.delete()
    return notice

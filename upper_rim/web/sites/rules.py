"""The rules that edits of stored sites are asked for: what ships with the application, and what fit foresees."""

from __future__ import annotations

from ...core.exchange.html.lifting import selector_fault
from ...core.model.editing.edits import Edit
from ...core.model.editing.refusal import Refusal
from ...core.model.editing.rules import Rules
from ...core.model.site import Site
from ...core.movement.flicker import begun_too_early
from ...shipped import shelf
from .fitters import site_fitter


def rules_of(site_id: int) -> Rules:
    def flickers(site: Site, edit: Edit) -> Refusal | None:
        early = begun_too_early(site_fitter(site_id).as_published(), site, edit)
        return None if early is None else Refusal(early.stage, "after", "would flicker", early.about)

    shipped = shelf()
    return Rules(
        is_icon=shipped.icons.__contains__,
        is_mark=lambda name: name.removeprefix("brand-") in shipped.brands.by_slug,
        selector_fault=selector_fault,
        edit_fault=flickers,
    )

"""The rules that edits of stored sites are asked for: what ships with the application, and what fit foresees."""

from __future__ import annotations

from ...core.exchange.lifting import selector_fault
from ...core.model.edits import Edit
from ...core.model.refusal import Refusal
from ...core.model.rules import Rules
from ...core.model.site import Site
from ...core.movement.flicker import TooEarly, begun_too_early
from ...shipped import shelf
from .fitters import site_fitter


def rules_of(site_id: int) -> Rules:
    def flickers(site: Site, edit: Edit) -> Refusal | None:
        early = begun_too_early(site_fitter(site_id).as_published(), site, edit)
        return None if early is None else refusal_of(early)

    shipped = shelf()
    return Rules(
        is_icon=shipped.icons.__contains__,
        is_mark=lambda name: name.removeprefix("brand-") in shipped.brands.by_slug,
        selector_fault=selector_fault,
        edit_fault=flickers,
    )


def refusal_of(early: TooEarly) -> Refusal:
    about = {
        "after_px": early.after_px,
        "given_up_px": early.least.px,
        "at_px": early.least.at_px,
        "language": early.least.language,
        "from_px": early.would.from_px,
        "to_px": early.would.to_px,
        "gap_px": early.gap_px,
        "least_px": -(-early.least.px // 1),
    }
    return Refusal(early.stage, "after", "would flicker", about)

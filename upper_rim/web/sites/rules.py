"""The rules that edits of stored sites are asked for: what ships with the application, and what fit foresees."""

from __future__ import annotations

from ...core.exchange.lifting import selector_fault
from ...core.model.edits import Edit, Refusal
from ...core.model.rules import Rules
from ...core.model.site import Site
from ...core.movement.flicker import TooEarly, begun_too_early
from ...shipped import shelf
from .fitters import site_fitter


def rules_of(site_id: int) -> Rules:
    def flickers(site: Site, edit: Edit) -> Refusal | None:
        early = begun_too_early(site_fitter(site_id).as_published(), site, edit)
        return None if early is None else Refusal(node=early.stage, field="after", reason=early_words(early))

    shipped = shelf()
    return Rules(
        is_icon=shipped.icons.__contains__,
        is_mark=lambda name: name.removeprefix("brand-") in shipped.brands.by_slug,
        selector_fault=selector_fault,
        edit_fault=flickers,
    )


def early_words(early: TooEarly) -> str:
    """Why a stage cannot begin where it would, as the end of a sentence."""
    least = -(-early.least.px // 1)
    return (
        f"at {early.after_px} px it gives up {early.least.px:g} px of room that are still in view (from a width of "
        f"{early.least.at_px} px, in {early.least.language}). Given up, the page would move back under its own distance, "
        f"and flicker between {early.would.from_px} and {early.would.to_px} px; kept, {early.gap_px:g} px of the page’s "
        f"ground would show beneath it. From {least:g} px on neither happens"
    )

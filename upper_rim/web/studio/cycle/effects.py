"""How is it told that an edit changes nothing in view, and where it shows instead?"""

from __future__ import annotations

from django.http import QueryDict

from ....core.model.names import node_name
from ....core.model.site import Site
from ....core.style.effect import Effect, Elsewhere, SeenEffect, effect
from ....core.style.resolve import band_at
from ....core.values.properties import PROPERTIES
from ..controls.of_styles import SIDED, STATE_NAMES
from ..forms.numbers import stage_width
from .notices import StudioNotice

_CONCERNED = frozenset({"style", "wear"})


def effect_notice(before: Site, after: Site, post: QueryDict, piece_id: str) -> StudioNotice | None:
    """A sentence where an edit of looks has no effect at the width and in the state that are looked at."""
    do = post.get("do", "").partition(":")[0]
    if do not in _CONCERNED:
        return None
    band = band_at(after, stage_width(post))
    state = post.get("state", "rest")
    found = effect(
        before,
        after,
        SeenEffect(piece_id, band, state if state in STATE_NAMES else "rest"),
        _names(before, after, post),
    )  # type: ignore[arg-type]
    if found.in_view:
        return None
    return StudioNotice(_sentence(found, after, piece_id, band), way=_way(found, after, piece_id, band))


def _way(found: Effect, site: Site, piece_id: str, band: str | None) -> tuple[str, str] | None:
    """To the first band in which this piece shows it, where it does not in the one that is looked at."""
    bands = {place.band for place in found.elsewhere if place.piece == piece_id}
    there = next((one for one in site.bands if one.id in bands), None)
    return None if there is None or band in bands else (f"Show it at {there.name}", there.id)


def _names(before: Site, after: Site, post: QueryDict) -> tuple[str, ...]:
    if post["do"] == "style":
        name = post.get("property", "")
        return tuple(one for one in SIDED.get(name, (name,)) if one in PROPERTIES)
    looks = {look.id: look for look in (*before.looks, *after.looks)}
    look = looks.get(post.get("look", ""))
    return tuple({style.property for style in look.styles}) if look else ()


def _sentence(found: Effect, site: Site, piece_id: str, band: str | None) -> str:
    width = next((one.name for one in site.bands if one.id == band), "this width")
    saved = f"Saved, but nothing that is looked at changes ({width})"
    if not found.elsewhere:
        return f"{saved}: {found.off or 'what counts here says the same already'}. It shows nowhere else either."
    place = _place(found.elsewhere, site, piece_id, band)
    return f"{saved}{f': {found.off}' if found.off else ''}. It shows {place}."


def _place(places: tuple[Elsewhere, ...], site: Site, piece_id: str, band: str | None) -> str:
    """Where it shows, in as few words as tell it: bands first, then states, then other pieces."""
    here = [place for place in places if place.piece == piece_id] or list(places)
    at_rest = [place for place in here if place.state == "rest"] or here
    bands = {place.band for place in at_rest}
    names = [one.name for one in site.bands if one.id in bands]
    states = sorted({STATE_NAMES[place.state].lower() for place in here if place.state != "rest"})
    words = []
    if not any(place.piece == piece_id for place in places):
        words.append(
            "in "
            + ", ".join(
                sorted({piece.name for piece in site.pieces if any(place.piece == piece.id for place in places)})
            )
        )
    if band not in bands or len(words):
        words.append("at " + " and ".join(names) if names and len(names) < len(site.bands) else "at all widths")
    if all(place.state != "rest" for place in here):
        words.append(
            "when "
            + " or ".join(
                {
                    "current": "it is the current page",
                    "hover": "it is hovered",
                    "focus": "it has the focus",
                    "pressed": "it is pressed",
                }.get(state, state)
                for state in states
            )
        )
    spot = next(
        (
            node
            for piece in site.pieces
            for row in piece.rows
            for cell in row.cells
            for node in cell.items
            if node.id == here[0].node
        ),
        None,
    )
    if spot is not None:
        words.append(f"on {node_name(spot, site)}")
    return ", ".join(words)

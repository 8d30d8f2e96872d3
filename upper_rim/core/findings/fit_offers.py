"""How is it said what would mend a row that does not fit?"""

from __future__ import annotations

from typing import Any, NamedTuple

from ..fit.advice.remedies import Remedy
from ..kinds.rows import Row
from ..model.names import cause_name
from ..model.site import Site
from ..model.tree import holder_of


class RemedyOffer(NamedTuple):
    """A remedy in words. `key` names it in what is posted."""

    key: str
    words: str
    gain: str
    remedy: Remedy


def offer_of(remedy: Remedy, site: Site, language: str) -> RemedyOffer:
    key = f"{remedy.kind}|{remedy.node}|{remedy.value}"
    return RemedyOffer(key, _words(remedy, site, language), _gain(remedy), remedy)


def _gain(remedy: Remedy) -> str:
    parts = [] if remedy.kind in {"band", "label"} else [f"{remedy.gain_px:g} px less needed"]
    if remedy.fits_from_px is not None:
        parts.append(f"fits from {'about ' if remedy.is_rough else ''}{remedy.fits_from_px} px")
    return ", ".join(parts)


def _words(remedy: Remedy, site: Site, language: str) -> str:
    holder: Any = holder_of(site, remedy.node)
    name = cause_name(site, remedy.node, language)
    value = remedy.value
    bands = {band.id: band.name for band in site.bands}
    match remedy.kind:
        case "band" if remedy.node in bands:
            return f"{holder.name} begins at {value} px"
        case "band":
            return f"A drawer below {value} px: {name}"
        case "gap":
            return f"Gaps of {value.removesuffix('px')} px: {holder.name if isinstance(holder, Row) else name}"
        case "spacing":
            return f"No letter spacing: {name}"
        case "size":
            return f"Text of {value.removesuffix('px')} px: {name}"
        case "weight":
            return f"Weight {value}: {name}"
        case "width":
            return f"Letters {value.removesuffix('%')} % wide: {name}"
        case "words":
            return f"Only its icon: {name}"
        case "icon":
            return f"An icon in place of {name}"
        case "second line":
            return f"No second lines: {name}"
        case "move":
            row: Any = holder_of(site, value)
            return f"Into the row {row.name}: {name}"
        case "hide":
            return f"Not at {bands.get(value, value)}: {name}"
        case _:
            return f"Shorter by {remedy.gain_px:g} px: {name}"

"""At which widths does which row not fit, or hardly; and which of its texts have lines too short or too long, which of its
targets are too small?"""

from __future__ import annotations

from collections.abc import Iterator

from ....fit.advice.columns import TOO_LONG, measures
from ....fit.advice.targets import pressed_in, too_close
from ....fit.rows.sweep import RowFit
from ....kinds.rows import Row
from ....model.site import Site
from ...finding import Finding, FindingKind, SeenAt


def unfitting(fit: RowFit) -> Iterator[Finding]:
    """One for each stretch of widths, from the narrow ones on. `other` is what it comes from."""
    for stretch in fit.stretches:
        if stretch.state != "fits":
            yield Finding(
                stretch.state,
                fit.row,
                stretch.cause,
                {"from_px": stretch.from_px, "to_px": stretch.to_px},
                SeenAt(band=stretch.band),
                language=fit.language,
                is_estimate=fit.is_estimate,
            )


def ill_measured(site: Site, fit: RowFit) -> Iterator[Finding]:
    """Texts of which a line has too few or too many characters, and at which widths."""
    limits: dict[str, tuple[FindingKind, float]] = {
        "narrow": ("short lines", site.least_measure),
        "wide": ("long lines", site.measure * TOO_LONG),
    }
    for one in measures(site, fit):
        kind, limit = limits[one.state]
        about = {"limit": limit, "characters": one.characters, "from_px": one.from_px, "to_px": one.to_px}
        yield Finding(kind, one.node, "", about, language=one.language)


def too_small(row: Row, fit: RowFit) -> Iterator[Finding]:
    """Targets that are small and too close to `other`; each at one width of a band."""
    for one in too_close(fit, pressed_in(row)):
        about = {
            "width_px": one.width_px,
            "height_px": one.height_px,
            "at_px": one.at_px,
            "distance_px": one.distance_px,
        }
        yield Finding("small target", one.node, one.beside, about, SeenAt(band=one.band), language=fit.language)

"""`upper-rim check`: what is wrong, doubtful or unfinished about a site?"""

from __future__ import annotations

import argparse
import json
import sys
from typing import Any

from .. import VERSION
from ..core.exchange.bundle import Bundle
from ..core.exchange.html.outline import PageOutline, outline_of
from ..core.exchange.html.places import ids_in
from ..core.findings.finding import Finding
from ..core.findings.let_be import Sorted, sorted_out
from ..core.findings.pictures import Picturing
from ..core.findings.report import Head, report_html
from ..core.findings.sarif import as_sarif
from ..core.findings.severity import SEVERITIES, SOURCES
from ..core.findings.told import Teller
from ..core.findings.whole import Cause, LookedAt, causes, findings_of
from ..core.model.site import Page
from ..core.movement.scene import Shape
from ..core.output.fitting import estimated_shape, fitter_of
from ..core.output.page.splicing import spliced
from ..shipped import shelf
from .clock import present


def report(bundle: Bundle, chosen: argparse.Namespace) -> list[str]:
    """Prints all that is found; gives back how much of it is as bad as was asked for, or worse."""
    looked = looked_at(bundle)
    site, teller = looked.site, Teller(looked.site)
    found = sorted_out(causes(findings_of(looked)), site, present().date())
    match chosen.form:
        case "json":
            _print_json(_as_json(found, teller))
        case "sarif":
            _print_json(as_sarif(found, teller, VERSION))
        case "html":
            head = Head("A bundle", present().date().isoformat())
            sys.stdout.write(report_html(site, found, head, Picturing(looked, shelf(), _no_address)))
        case _:
            for one in found.open:
                returned = found.returned.get(one.key)
                more = " (was let be before)" if returned else ""
                print(f"{one.severity}: {teller.line(one)}{more}")
            if found.let_be:
                print(f"let be: {len(found.let_be)}")
    worst = SEVERITIES[: SEVERITIES.index(chosen.fail_on) + 1]
    counted = {its: sum(one.severity == its for one in found.open) for its in worst}
    return [", ".join(f"{count} {its}" for its, count in counted.items() if count)] if any(counted.values()) else []


def looked_at(bundle: Bundle) -> LookedAt:
    fitter = fitter_of(shelf(), bundle.read, present().year)

    def ids_of(page: Page) -> frozenset[str]:
        return ids_in(bundle.read(page.content), page.encoding) if page.content else frozenset()

    def outline(page: Page) -> PageOutline | None:
        own = spliced(bundle.read(page.content), (), page) if page.content else None
        return outline_of(own, page.encoding, page.path) if own is not None else None

    def shape_of(page: Page, viewport_px: tuple[int, int]) -> Shape:
        return estimated_shape(page, bundle.read, viewport_px[0])

    return LookedAt(fitter.resolved(bundle.site), fitter, bundle.read, ids_of, outline, shape_of, present())


def _no_address(path: str) -> str:
    """A report stands by itself: where it is opened there are no files of the site."""
    return "data:,"


def _print_json(told: Any) -> None:
    json.dump(told, sys.stdout, ensure_ascii=False, indent=1)
    print()


def _as_json(found: Sorted, teller: Teller) -> list[dict[str, Any]]:
    listed = [_told(cause, teller) for cause in found.open]
    let_be = [{**_told(cause, teller), "let_be": one.model_dump(mode="json")} for cause, one in found.let_be]
    return listed + let_be


def _told(cause: Cause, teller: Teller) -> dict[str, Any]:
    return {
        "kind": cause.kind,
        "severity": cause.severity,
        "source": SOURCES.get(cause.kind),
        "node": cause.node,
        "other": cause.other or None,
        "words": teller.line(cause),
        "places": [_place(one, teller) for one in cause.findings],
    }


def _place(one: Finding, teller: Teller) -> dict[str, Any]:
    place = one.place
    return {
        "page": teller.page(place.page) or None,
        "language": one.language or None,
        "stage": place.stage or None,
        "band": place.band,
        "viewport": "x".join(map(str, place.viewport_px)) if any(place.viewport_px) else None,
        "scroll_px": place.scroll_px or None,
        "estimate": one.is_estimate,
        "about": dict(one.about),
    }

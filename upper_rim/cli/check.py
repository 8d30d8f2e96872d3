"""`upper-rim check`: what is wrong, doubtful or unfinished about a site?"""

from __future__ import annotations

import argparse
import json
import re
import sys
from collections.abc import Callable
from typing import Any

from ..core.exchange.bundle import Bundle
from ..core.exchange.html.outline import PageOutline, outline_of
from ..core.exchange.html.places import ids_in
from ..core.findings.finding import Finding
from ..core.findings.severity import SEVERITIES, SOURCES
from ..core.findings.whole import Cause, LookedAt, causes, findings_of
from ..core.findings.words import WORDS, finding_words
from ..core.kinds.entries import Entry
from ..core.kinds.items.base import BaseItem
from ..core.languages.names import name_in
from ..core.model.navigation.links import Links
from ..core.model.site import Page, Site
from ..core.model.tree import ROOT, walk
from ..core.movement.scene import Shape
from ..core.output.fitting import estimated_shape, fitter_of
from ..core.output.page.splicing import spliced
from ..shipped import shelf
from .clock import present


def report(bundle: Bundle, chosen: argparse.Namespace) -> list[str]:
    """Prints all that is found; gives back how much of it is as bad as was asked for, or worse."""
    fitter = fitter_of(shelf(), bundle.read, present().year)
    site = fitter.resolved(bundle.site)
    paths = {page.id: page.path for page in site.pages}

    def ids_of(page: Page) -> frozenset[str]:
        return ids_in(bundle.read(page.content), page.encoding) if page.content else frozenset()

    def outline(page: Page) -> PageOutline | None:
        own = spliced(bundle.read(page.content), (), page) if page.content else None
        return outline_of(own, page.encoding, page.path) if own is not None else None

    def shape_of(page: Page, viewport_px: tuple[int, int]) -> Shape:
        return estimated_shape(page, bundle.read, viewport_px[0])

    looked = LookedAt(site, fitter, bundle.read, ids_of, outline, shape_of, present())
    found, name_of = causes(findings_of(looked)), _names(site)
    if chosen.json:
        json.dump([_told(one, name_of, paths) for one in found], sys.stdout, ensure_ascii=False, indent=1)
        print()
    else:
        for one in found:
            print(f"{one.severity}: {_words(one, name_of)}")
    worst = SEVERITIES[: SEVERITIES.index(chosen.fail_on) + 1]
    counted = {its: sum(one.severity == its for one in found) for its in worst}
    return [", ".join(f"{count} {its}" for its, count in counted.items() if count)] if any(counted.values()) else []


def _words(cause: Cause, name_of: Callable[[str], str]) -> str:
    """Of the place where it is most, and where else."""
    said = finding_words(cause.findings[0], name_of)
    if cause.node != ROOT and not re.search(r"\{(who|both)\}|“\{first\}” (and|brings)", WORDS[cause.kind]):
        said = f"{name_of(cause.node)}: {said}"
    in_languages = ", ".join(name_in(tag, "en") for tag in cause.languages)
    more = len(cause.findings) - 1
    return f"{said}{f', in {in_languages}' if in_languages else ''}{f' (and {more} more)' if more else ''}"


def _told(cause: Cause, name_of: Callable[[str], str], paths: dict[str, str]) -> dict[str, Any]:
    return {
        "kind": cause.kind,
        "severity": cause.severity,
        "source": SOURCES.get(cause.kind),
        "node": cause.node,
        "other": cause.other or None,
        "words": _words(cause, name_of),
        "places": [_place(one, paths) for one in cause.findings],
    }


def _place(one: Finding, paths: dict[str, str]) -> dict[str, Any]:
    place = one.place
    return {
        "page": paths.get(place.page),
        "language": one.language or None,
        "stage": place.stage or None,
        "band": place.band,
        "viewport": "x".join(map(str, place.viewport_px)) if any(place.viewport_px) else None,
        "scroll_px": place.scroll_px or None,
        "estimate": one.is_estimate,
        "about": dict(one.about),
    }


def _names(site: Site) -> Callable[[str], str]:
    """As nodes are called where they are worked on, by their ids."""
    links = Links(site)
    menus = {menu.id: menu.name for menu in site.menus}
    known = {ROOT: site.name}
    for node in walk(site):
        if isinstance(node, BaseItem):
            known[node.id] = node.outline_name(menus)
        elif isinstance(node, Entry):
            known[node.id] = links.label(node, site.language)
        else:
            known[node.id] = str(
                getattr(node, "name", "") or getattr(getattr(node, "words", None), "text", "") or node.id
            )
    return lambda node: known.get(node, node)

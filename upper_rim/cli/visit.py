"""`upper-rim visit`: what does a visitor meet on the way to a page: which gates, and where does each answer lead?"""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Callable
from typing import Any

from ..core.conditions.visitor import VisitorCard
from ..core.findings.checks.shown.consent import in_consent
from ..core.findings.checks.shown.gates import in_files, in_gates, in_pages
from ..core.findings.words import finding_words
from ..core.gates.asking import Met, met_on
from ..core.gates.guards import guards_of
from ..core.gates.unserved import Unserved
from ..core.gates.visit import Screen, Way, told, ways
from ..core.gates.waiting import asks, hosts_found
from ..core.model.site import Site
from ..core.model.stages import names_in
from .pages import page_meant

ENDS = {
    "page": "the page is seen",
    "refused": "nothing more is asked",
    "elsewhere": "another page is seen",
    "loop": "the same is asked again: a circle",
}


def report(site: Site, read: Callable[[str], bytes], card: VisitorCard, chosen: argparse.Namespace) -> list[str]:
    """Prints the ways; gives back a sentence for each finding."""
    guards = guards_of(site)
    if chosen.taken_away:
        card = card.replaced(region="", groups=None)
        guards = Unserved(guards.kept, card.clock) if guards else None
    page = page_meant(site, chosen.page)
    path = page.path if page else chosen.page
    names = names_in(site)
    found = list(ways(guards, card, path)) if guards else [Way((), (Screen(path),))]
    met = met_on(site, page, card) if page and asks(site) else None
    if chosen.json:
        listed = [told(way) for way in found]
        about = {"consent": _consent(met)} if met else {}
        whole = {"page": path, "card": card.name, "ways": listed, **about}
        json.dump(whole, sys.stdout, ensure_ascii=False, indent=1)
        print()
    else:
        print(f"{path} for {card.name}, {card.clock}")
        for way in found:
            _print(way, names)
        if met:
            _print_consent(_consent(met))
    said = [*in_files(site, guards, read), *in_pages(site, guards, read)]
    listed_findings = [*in_gates(site, guards), *said, *in_consent(site, hosts_found(site))]
    return [finding_words(one, lambda node: names.get(node, node)) for one in listed_findings]


def _consent(met: Met) -> dict[str, Any]:
    """As JSON."""
    why = {category: ruling.why for category, ruling in met.asking.rulings.items()}
    hosts = {"now": sorted(met.before), "no": sorted(met.after_no), "yes": sorted(met.after_yes)}
    return {"asked": met.asking.is_put, "runs": list(met.asking.agreed), "why": why, "hosts": hosts}


def _print_consent(told: dict[str, Any]) -> None:
    print("Consent is asked for." if told["asked"] else "Nobody is asked for consent.")
    for category, why in told["why"].items():
        print(f"    {category} {'runs' if category in told['runs'] else 'waits'}: {why}")
    for when, words in (("now", "asked at once"), ("no", "after a no"), ("yes", "after a yes")):
        print(f"    {words}: {', '.join(told['hosts'][when]) or 'no other host'}")


def _print(way: Way, names: dict[str, str]) -> None:
    print(f"{way.presses} press{'' if way.presses == 1 else 'es'}: {ENDS[way.ends]}")
    for (gate, said), screen in zip(way.answers, way.screens, strict=False):
        print(f"    {screen.path}: {names.get(gate, gate)} is answered {said}")
    last = way.screens[-1]
    print(
        f"    {last.path}: {f'{names.get(last.gate, last.gate)}, {last.state}' if last.gate else 'what is kept there'}"
    )

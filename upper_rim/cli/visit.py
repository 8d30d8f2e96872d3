"""`upper-rim visit`: what does a visitor meet on the way to a page: which gates, and where does each answer lead?"""

from __future__ import annotations

import argparse
import json
import sys

from ..core.conditions.visitor import VisitorCard
from ..core.findings.checks.gates import in_gates
from ..core.findings.words import finding_words
from ..core.gates.guards import guards_of
from ..core.gates.visit import Screen, Way, told, ways
from ..core.model.site import Site
from ..core.model.stages import names_in

ENDS = {
    "page": "the page is seen",
    "refused": "nothing more is asked",
    "elsewhere": "another page is seen",
    "loop": "the same is asked again: a circle",
}


def report(site: Site, card: VisitorCard, chosen: argparse.Namespace) -> list[str]:
    """Prints the ways; gives back a sentence for each finding."""
    guards = guards_of(site)
    page = next((page for page in site.pages if page.path.rstrip("/") == chosen.page.rstrip("/")), None)
    path = page.path if page else chosen.page
    names = names_in(site)
    found = list(ways(guards, card, path)) if guards else [Way((), (Screen(path),))]
    if chosen.json:
        listed = [told(way) for way in found]
        json.dump({"page": path, "card": card.name, "ways": listed}, sys.stdout, ensure_ascii=False, indent=1)
        print()
    else:
        print(f"{path} for {card.name}, {card.clock}")
        for way in found:
            _print(way, names)
    return [finding_words(one, lambda node: names.get(node, node)) for one in in_gates(site, guards)]


def _print(way: Way, names: dict[str, str]) -> None:
    print(f"{way.presses} press{'' if way.presses == 1 else 'es'}: {ENDS[way.ends]}")
    for (gate, said), screen in zip(way.answers, way.screens, strict=False):
        print(f"    {screen.path}: {names.get(gate, gate)} is answered {said}")
    last = way.screens[-1]
    print(
        f"    {last.path}: {f'{names.get(last.gate, last.gate)}, {last.state}' if last.gate else 'what is kept there'}"
    )

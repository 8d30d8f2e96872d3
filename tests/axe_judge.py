"""What does axe-core say of a generated published page, and do the findings say the same?

Sites of all makers, with holes in them (texts emptied, alternatives and targets taken away), on pages of others' making
with faults of their own.
"""

from __future__ import annotations

import random
from collections.abc import Iterator, Mapping, Sequence
from datetime import UTC, datetime
from pathlib import Path
from typing import Any, NamedTuple

from selenium import webdriver

from upper_rim.core.exchange.html.outline import outline_of
from upper_rim.core.exchange.html.places import ids_in
from upper_rim.core.exchange.imports.import_pages import ArchiveEntry, digest, read_files
from upper_rim.core.findings.finding import Finding, FindingKind
from upper_rim.core.findings.whole import LookedAt, findings_of
from upper_rim.core.kinds.pieces.age import AgeGate
from upper_rim.core.kinds.pieces.consent import ConsentQuestion
from upper_rim.core.kinds.pieces.gate import Gate
from upper_rim.core.kinds.pieces.password import PasswordGate
from upper_rim.core.model.editing.check import broken_references
from upper_rim.core.model.site import Asset, Page, Site
from upper_rim.core.model.tree import ROOT
from upper_rim.core.output.fitting import estimated_shape, fitter_of
from upper_rim.core.output.page.splicing import spliced
from upper_rim.core.values.rich import RichWords
from upper_rim.core.values.targets import ToNothing
from upper_rim.core.values.words import Words
from upper_rim.shipped import shelf

from .browser.conftest import load_faces
from .fit_judge import publish_into
from .fitted_sites import PICTURE, FittedMaker
from .moving_sites import MovingMaker
from .styled_sites import StyledMaker

AXE = (Path(__file__).parents[1] / "node_modules/axe-core/axe.min.js").read_text()
WIDTHS = (360, 1280)

WE_SAY: Mapping[str, tuple[FindingKind, ...]] = {
    "button-name": ("nameless link", "says nothing"),
    "color-contrast": ("weak text", "over a picture"),
    "document-title": ("no title",),
    "duplicate-id-aria": ("id twice",),
    "frame-title": ("nameless frame",),
    "heading-order": ("skips a level", "no first heading"),
    "html-has-lang": ("no language",),
    "image-alt": ("unseen picture", "no alternative"),
    "label": ("nameless field",),
    "landmark-no-duplicate-banner": ("two banners",),
    "landmark-no-duplicate-contentinfo": ("two footers",),
    "landmark-no-duplicate-main": ("two mains",),
    "landmark-one-main": ("no main",),
    "landmark-unique": ("same landmark", "two banners", "two footers", "two mains"),
    "link-in-text-block": ("hidden link",),
    "link-name": ("nameless link", "says nothing"),
    "meta-viewport": ("cannot grow",),
    "page-has-heading-one": ("no first heading",),
    "region": ("no main",),
    "tabindex": ("own order",),
    "target-size": ("small target",),
}
"""By axe's rule, what we call it."""

OF_PAGES_ALONE: Mapping[str, str] = {
    "list": "lists of the page's own with other elements in them",
    "meta-refresh": "pages that load themselves anew",
}
"""What axe alone says, and only of what is not ours: no piece is the better for it."""

LIE_OVER = ("collides", "clips", "overflows")
"""Where something lies over something else, axe looks at what is left of it (`target-size`) or at the wrong ground
(`color-contrast`). We say that it lies there, of its row."""

WE_ALONE: Mapping[FindingKind, str] = {
    "hidden link": "in width bands that axe was not shown",
    "id twice": "axe minds only ids that labels and descriptions name",
    "no alternative": "a picture without words counts as an ornament with axe",
    "no language": "told by the text, where a folder says another",
    "same landmark": "axe names one of several; and in width bands that it was not shown",
    "says nothing": "what says nothing is not published",
    "skips a level": "axe begins to count at the first heading that shows",
    "small target": "in languages and width bands that axe was not shown",
    "two footers": "axe minds only those that show",
    "two banners": "axe minds only those that show",
    "unseen picture": "our script that enlarges pictures names by number what has no name",
    "weak text": "on hover, with the focus, on the current page, opened, in stages and in width bands that axe was not shown",
    "over a picture": "axe leaves to whoever looks what lies over a picture",
}
"""What we alone say of what axe knows too, and why."""

_RUN = """
const done = arguments[0];
document.getAnimations().forEach((one) => one.finish?.());
axe.run(document, {resultTypes: ['violations'], iframes: false, rules: {'target-size': {enabled: true}}}).then(({violations}) => done(violations.flatMap((fault) => fault.nodes.map((one) => {
  const nodes = [];
  let part = null;
  try { part = document.querySelector(one.target.at(-1)); } catch {}
  for (let up = part; up; up = up.parentElement) if (up.dataset?.rimNode) nodes.push(up.dataset.rimNode);
  const rim = Boolean(part?.closest('.rim, [data-rim-node]'));
  return [fault.id, nodes, one.html.slice(0, 200), one.failureSummary.slice(0, 300), rim];
}))));
"""


class Said(NamedTuple):
    """By axe, of one element. `nodes`: of the site, from the element outwards; none where it is the page's own."""

    rule: str
    nodes: tuple[str, ...]
    html: str
    why: str


def site_at_random(seed: int) -> tuple[Site, dict[str, bytes]]:
    chance = random.Random(seed)
    match seed % 6:
        case 0 | 1:
            site, contents = FittedMaker(seed).site()
        case 2 | 3:
            site, contents = StyledMaker(seed).styled_site(chance.randrange(1, 3)), {}
        case 4:
            site, contents = MovingMaker(seed).site()
        case _:
            gate = chance.choice([AgeGate, PasswordGate, ConsentQuestion])
            site, contents = FittedMaker(seed, gate).site()
    data = page_at_random(chance, site.language)
    came = list(
        read_files([ArchiveEntry("index.html", lambda: data)], lambda kind: f"{kind}-of-others", site.language, (), [])
    )
    (page,) = (one.value for one in came if isinstance(one.value, Page))
    pieces = tuple(holed(piece, chance) for piece in site.pieces)
    assets = site.assets or (Asset(id="as-a", path="/logo.svg", content=digest(PICTURE), size=len(PICTURE)),)
    site = site.replaced(
        pages=(page,), pieces=pieces, assets=assets, shapes=tuple(one.shape for one in came if one.shape)
    )
    assert broken_references(site) is None
    return site, {**contents, digest(PICTURE): PICTURE, **{one.value.content or "": one.content for one in came}}


def holed(node: Any, chance: random.Random) -> Any:
    """With some of its texts, targets and alternatives gone, and of all that it holds."""
    made: dict[str, Any] = {
        slot: tuple(holed(one, chance) for one in getattr(node, slot)) for slot in getattr(node, "CHILDREN", ())
    }
    for name in type(node).model_fields:
        value = getattr(node, name)
        if chance.random() < 0.12:
            if isinstance(value, Words):
                made[name] = Words()
            elif isinstance(value, RichWords):
                made[name] = RichWords()
            elif name == "target":
                made[name] = ToNothing()
    return node.replaced(**made)


def page_at_random(chance: random.Random, language: str) -> bytes:
    """A page of others' making, with or without what it should have."""

    def some(text: str, other: str = "", share: float = 0.85) -> str:
        return text if chance.random() < share else other

    head = "".join(
        (
            '<meta charset="utf-8">',
            some(f"<title>{some('T', '', 0.9)}</title>"),
            some(
                '<meta name="viewport" content="width=device-width, initial-scale=1">',
                some('<meta name="viewport" content="width=device-width, user-scalable=no">'),
                0.8,
            ),
            some("", '<meta http-equiv="refresh" content="30">', 0.95),
        )
    )
    content = [
        some("<h1>One</h1>"),
        *(f"<h{level}>Heading</h{level}>" for level in chance.choice([(2, 3), (2,), (3,), (2, 4), (2, 3, 2), (1, 2)])),
        '<p>Some text, <a href="/">which leads somewhere</a>.</p>',
        some("", chance.choice(['<a href="/"></a>', "<button></button>", '<a href="/"><img src="/logo.svg"></a>'])),
        some('<p><img src="/logo.svg" alt="A sign"></p>', '<p><img src="/logo.svg"></p>'),
        some("", '<p id="one">One</p><p id="one">Two</p>'),
        some("", '<p tabindex="3">First</p>'),
        some("", '<label>Name <input name="a"></label>', 0.6),
        some("", '<input name="b">', 0.9),
        some("", "<table><tr><th>One</th></tr><tr><td>1</td></tr></table>", 0.8),
        some("", "<ul><div>No item</div></ul>", 0.93),
        some("", '<iframe src="about:blank"></iframe>', 0.93),
    ]
    inner = "".join(content)
    body = some(f"<main>{inner}</main>", chance.choice([inner, f"<main>{inner}</main><main>More</main>"]))
    before = some("", "<header><p>Of its own</p></header>")
    after = some("", "<footer><p>Its own, too</p></footer>")
    return f"<!DOCTYPE html><html{some(f' lang={language!r}')}><head>{head}</head><body>{before}{body}{after}</body></html>".encode()


def looked_at(site: Site, contents: Mapping[str, bytes]) -> LookedAt:
    read = contents.__getitem__
    fitter = fitter_of(shelf(), read, 2026)
    return LookedAt(
        fitter.resolved(site),
        fitter,
        read,
        lambda page: ids_in(read(page.content or ""), page.encoding),
        lambda page: outline_of(spliced(read(page.content or ""), (), page), page.encoding, page.path),
        lambda page, viewport: estimated_shape(page, read, viewport[0]),
        datetime(2026, 12, 2, 12, tzinfo=UTC),
    )


def we_say(site: Site, contents: Mapping[str, bytes]) -> list[Finding]:
    return list(findings_of(looked_at(site, contents)))


def axe_says(
    site: Site, contents: Mapping[str, bytes], driver: webdriver.Chrome, files: dict[str, bytes], port: int
) -> Iterator[Said]:
    publish_into(files, site, contents, fitter_of(shelf(), contents.__getitem__, 2026))
    driver.get(f"http://127.0.0.1:{port}/")
    load_faces(driver)
    driver.execute_script(AXE)
    known = set()
    for width in WIDTHS:
        metrics = {"width": width, "height": 800, "deviceScaleFactor": 1, "mobile": False}
        driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
        for rule, nodes, html, why, _ in driver.execute_async_script(_RUN):
            said = Said(rule, tuple(nodes), html, why)
            if said not in known:
                known.add(said)
                yield said


def is_said(said: Said, ours: Sequence[Finding]) -> bool:
    """Whether we say it, too."""
    if not said.nodes:
        return said.rule in OF_PAGES_ALONE or _is_found(said, ours, ROOT)
    if said.rule in {"target-size", "color-contrast"} and _names(ours, LIE_OVER, said.nodes):
        return True
    return _names(ours, WE_SAY.get(said.rule, ()), said.nodes) or (
        said.rule in _OF_BOTH and _is_found(said, ours, ROOT)
    )


_OF_BOTH = frozenset({"landmark-no-duplicate-banner", "landmark-no-duplicate-contentinfo", "landmark-unique"})
"""A piece beside something of the page's own."""


def _is_found(said: Said, ours: Sequence[Finding], node: str) -> bool:
    return _names(ours, WE_SAY.get(said.rule, ()), (node,))


def _names(ours: Sequence[Finding], kinds: Sequence[str], nodes: Sequence[str]) -> bool:
    return any(one.kind in kinds and not {one.node, one.other}.isdisjoint(nodes) for one in ours)


def is_seen(one: Finding, said: Sequence[Said]) -> bool:
    """Whether axe says it, too."""
    rules = {rule for rule, kinds in WE_SAY.items() if one.kind in kinds}
    return not rules or any(
        other.rule in rules
        and (one.node == ROOT or not other.nodes or not {one.node, one.other}.isdisjoint(other.nodes))
        for other in said
    )


def unlike(seed: int, driver: webdriver.Chrome, files: dict[str, bytes], port: int) -> tuple[list[Said], list[Finding]]:
    """Of a generated site: what axe alone says, and what we alone say of what axe knows, too."""
    site, contents = site_at_random(seed)
    said, ours = list(axe_says(site, contents, driver, files, port)), we_say(site, contents)
    # A gate's own page has nothing of the pages behind it.
    compared = [one for one in ours if one.node != ROOT] if isinstance(site.pieces[0], Gate) else ours
    return [one for one in said if not is_said(one, ours)], [one for one in compared if not is_seen(one, said)]

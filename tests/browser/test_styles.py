"""What the resolver answers is what the browser computes: over generated pieces, in every state and band."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path
from typing import get_args

import pytest
from selenium import webdriver

from tests.styled_sites import StyledMaker
from upper_rim.core.kinds.context import Post
from upper_rim.core.kinds.items.embed import Embed
from upper_rim.core.kinds.items.menu import MenuItem
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.rows import Row
from upper_rim.core.model.editing.check import unseen_of
from upper_rim.core.model.site import Site, drawer_width
from upper_rim.core.output.css.part_selectors import PART_SELECTORS
from upper_rim.core.output.css.sheet import sheet
from upper_rim.core.output.css.style_rules import css_name
from upper_rim.core.output.naming import with_site_key
from upper_rim.core.output.page.item_markup import on_no_page
from upper_rim.core.output.page.piece_markup import Shown, around
from upper_rim.core.output.page.site_context import pageless
from upper_rim.core.style.paint.colour import Palette
from upper_rim.core.style.resolve import SOME_OF, Resolved, StyledElement, Styling
from upper_rim.core.style.type.faces import faces_in_use, families
from upper_rim.core.values.properties import PROPERTIES
from upper_rim.core.values.styling import LOOK_PARTS, STATES_OF, Part, State
from upper_rim.demo.making import declared
from upper_rim.shipped import shelf

from .conftest import plain_chromium

SITES, PIECES = 30, 10
FORCED: dict[State, list[str]] = {"hover": ["hover"], "focus": ["focus", "focus-visible"], "pressed": ["active"]}

_COMPARE = r"""
const [expected, properties] = arguments, wrong = [];
// Sums of single precision differ in their last digits, and then a box by a 64th of a px, each of its lines, and by some where its font does, too, or what it is a share of.
const numbers = /-?[0-9]+[.][0-9]+/g;
const alike = (one, other) => {
  const [a, b] = [one, other].map((text) => (text.match(numbers) ?? []).map(Number));
  return one === other || (one.replace(numbers, '') === other.replace(numbers, '') && a.every((x, at) => Math.abs(x - b[at]) < 0.1));
};
const pieces = [...document.body.children], still = 'transition-property:none!important;';
// A drifting background's place is the one declared, and how far it has drifted.
// Of two lengths in one unit the sheet made small has the lesser alone: clamp(a, b, c) is max(a, min(b, c)).
const least = (whole, a, b, unit, c) => `max(${a}, ${Math.min(b, c)}${unit})`;
const settled = (value) => value.replace(/calc\(([^()]+) \+ 0px\)/, '$1').replace(/clamp\(([^,()]+), ([\d.]+)(px|%), ([\d.]+)\3\)/g, least).replace(/^$/, '0');
if (!document.body.dataset.still) document.querySelectorAll('header *').forEach((part) => (part.style.cssText = still));
document.body.dataset.still = true;
const held = new Map(pieces.map((piece) => [piece, []]));
for (const [selector, values] of expected) {
  const part = document.querySelector(selector);
  if (part) held.get(part.closest('header')).push([selector, part, values]);
  else wrong.push(['is not there', selector]);
}
for (const [piece, parts] of held) {
  if (!parts.length) continue;
  pieces.forEach((other) => (other.style.cssText = still + `display:${other === piece ? 'block' : 'none'}!important`));
  const before = parts.map(([, part]) => { const computed = getComputedStyle(part); return properties.map((name) => computed.getPropertyValue(name)); });
  // What is computed as it was written needs no second look.
  const asked = parts.map(([, , values], number) => properties.map((_, at) => at).filter((at) => values[at] !== null && values[at] !== before[number][at]));
  parts.forEach(([selector, part, values], number) => {
    part.style.cssText = (part === piece ? 'display:block!important;' : '') + still + asked[number].map((at) => `${properties[at]}:${values[at]}!important`).join(';');
    for (const at of asked[number]) if (!part.style.getPropertyValue(properties[at])) wrong.push(['is not understood', selector, properties[at], values[at]]);
  });
  parts.forEach(([selector, part, values], number) => {
    const computed = getComputedStyle(part);
    for (const at of asked[number]) {
      const wanted = computed.getPropertyValue(properties[at]), found = before[number][at];
      if (!alike(settled(wanted), settled(found))) wrong.push(['differs', selector, properties[at], found, wanted, values[at]]);
    }
  });
  parts.forEach(([, part]) => (part.style.cssText = still));
}
pieces.forEach((piece) => (piece.style.cssText = still + 'display:none!important'));
return wrong;
"""


_NUMBER = """
arguments[0].forEach((selector, at) => document.querySelector(selector).setAttribute('data-number', at));
return [...document.querySelectorAll('[data-number]')].map((part) => Number(part.dataset.number));
"""


@pytest.fixture(scope="module")
def chromium() -> Iterator[webdriver.Chrome]:
    driver = plain_chromium()
    yield driver
    driver.quit()


def body_of(site: Site) -> str:
    posts = (Post("A post", "/x/", "2026-11-02"),)
    context = replace(pageless(site, shelf(), "en"), marks=True, posts_of=lambda feed, below, language: posts)
    return on_no_page(around([Shown(piece, ()) for piece in site.pieces], context).before, context)


def document_of(site: Site) -> str:
    return f"<!doctype html><meta charset=utf-8><style>{sheet(site, shelf(), '')}</style><body>{body_of(site)}"


def selector_of(site: Site, element: StyledElement) -> str:
    """Of what the browser is asked about. What an entry says besides is asked for where it stands."""
    own = f'[data-rim-node="{element.node}"]'
    if element.part == "hint":
        return with_site_key(f".rim-hinted:has({own})>.rim-hint", site.key)
    part = PART_SELECTORS[element.part].replace(":is(a,.rim-head)", "a")
    around = element.parent.part if element.part in {"second-line", "badge"} and element.parent else ""
    part = {"lower": " .rim-sub", "apart": " .rim-apart"}.get(around, "") + part
    return own + with_site_key(part, site.key)


def elements_of_sheet(styling: Styling) -> Iterator[StyledElement]:
    """All elements that a script can ask about: none that is drawn by a pseudo-element."""
    for element in styling.elements.values():
        holder = styling.holders[element.node]
        is_row = element.part in {"title", "opened", "close"} and drawer_width(holder, styling.site) is None
        if element.part in unseen_of(holder) | _NOT_ASKED or element.role == "column-rule" or is_row:
            continue
        yield element
        if isinstance(holder, MenuItem) and element.part in {"second-line", "badge"}:
            for around in sorted(part for part, whole in SOME_OF.items() if whole == "content"):
                yield element._replace(parent=styling.elements[element.node, around])


_NOT_ASKED = {"bullet", "veil"}


def is_resolved(element: StyledElement, name: str, found: Resolved, holder: object) -> bool:
    """The sizes that what stands in an item has from its kind's sheet are for layout to know; so is a frame's, which its
    fields say."""
    by_sheet = element.part not in LOOK_PARTS or isinstance(holder, Embed)
    is_said = not by_sheet or found.source.layer not in {"built-in", "initial"}
    return is_said or PROPERTIES[name].group not in {"Size", "Padding", "Margin"}


def is_there(styling: Styling, element: StyledElement, width: int) -> bool:
    """What opens from a row is there where the menu is one, and a drawer where it is none."""
    if element.part not in {"panel", "opened", "close"}:
        return True
    below = drawer_width(styling.holders[element.node], styling.site)
    return (below is not None and width < below) == (element.part != "panel")


def test_every_resolved_value_is_what_the_browser_computes(chromium: webdriver.Chrome, tmp_path: Path) -> None:
    compared = 0
    faults = []
    seen: set[str] = set()
    chromium.execute_cdp_cmd("DOM.enable", {})
    chromium.execute_cdp_cmd("CSS.enable", {})
    for seed in range(SITES):
        site = StyledMaker(seed).styled_site(PIECES)
        file = tmp_path / f"{seed}.html"
        file.write_text(document_of(site))
        styling, palette = Styling(site), Palette(site)
        faces = families(site, faces_in_use(site, shelf().faces))
        chromium.get(file.as_uri())
        chromium.execute_cdp_cmd("DOM.getDocument", {"depth": 0})
        listed = [with_site_key(css_name(name), site.key) for name in PROPERTIES]
        root = chromium.execute_cdp_cmd("DOM.getDocument", {"depth": 0})["root"]["nodeId"]

        def written(name: str, value: str, faces: dict[str, str] = faces, palette: Palette = palette) -> str:
            return faces.get(value, "system-ui,sans-serif") if name == "font-family" else palette.resolved(value)

        shown = list(elements_of_sheet(styling))
        seen |= {element.part for element in shown}
        selectors = [selector_of(site, element) for element in shown]
        order = chromium.execute_script(_NUMBER, selectors)
        found = chromium.execute_cdp_cmd("DOM.querySelectorAll", {"nodeId": root, "selector": "[data-number]"})[
            "nodeIds"
        ]
        for state in ("rest", "current", "hover", "focus", "pressed"):
            elements = [element for element in shown if state in STATES_OF[element.role]]
            numbers = {at for at, element in enumerate(shown) if state in STATES_OF[element.role]}
            chromium.execute_script("document.body.style.display = 'none'")
            for number, node in zip(order, found, strict=True):
                held = FORCED.get(state, []) if number in numbers else []
                asked = {"nodeId": node, "forcedPseudoClasses": held}
                chromium.execute_cdp_cmd("CSS.forcePseudoState", asked)
            chromium.execute_script(
                "document.body.style.display = ''; document.querySelectorAll('[data-number]').forEach((part) => arguments[0].includes(Number(part.dataset.number)) ? part.setAttribute('aria-current', 'page') : part.removeAttribute('aria-current'))",
                list(numbers) if state == "current" else [],
            )
            for at, band in enumerate(site.bands):
                width = at * 420 + 400
                chromium.execute_cdp_cmd(
                    "Emulation.setDeviceMetricsOverride",
                    {"width": width, "height": 700, "deviceScaleFactor": 1, "mobile": False},
                )
                expected = [
                    (
                        selector_of(site, element),
                        [
                            written(name, found.value) if is_resolved(element, name, found, styling.holders[element.node]) else None
                            for name, found in styling.all_of(element, state, band.id).items()
                        ],
                    )
                    for element in elements
                    if is_there(styling, element, width)
                ]  # fmt: skip
                faults += [
                    [seed, state, band.id, *fault] for fault in chromium.execute_script(_COMPARE, expected, listed)
                ]
                compared += len(expected) * len(PROPERTIES)
    assert faults == [], f"{len(faults)} of {compared}: " + json.dumps(faults[:12], indent=1)
    assert SITES * PIECES >= 300 and compared > 400_000
    assert seen == set(get_args(Part)) - _NOT_ASKED


_RULES = """
return [...document.querySelectorAll(arguments[0] + ' > .qstyle-cells > .qstyle-cell')].map((cell) => {
  const line = getComputedStyle(cell, '::before');
  return line.content === 'none' ? null : ['width', 'style', 'color'].map((name) => line['border-inline-start-' + name]);
});
"""


def test_the_line_between_columns_is_what_was_resolved(chromium: webdriver.Chrome, tmp_path: Path) -> None:
    drawn = 0
    chromium.execute_cdp_cmd(
        "Emulation.setDeviceMetricsOverride", {"width": 400, "height": 700, "deviceScaleFactor": 1, "mobile": False}
    )
    for seed in range(12):
        site = StyledMaker(seed).styled_site(PIECES)
        file = tmp_path / f"{seed}.html"
        file.write_text(document_of(site))
        chromium.get(file.as_uri())
        styling, palette = Styling(site), Palette(site)
        for element in styling.elements.values():
            said = any(style.part == "content" for style in styling.holders[element.node].styles)
            if element.role != "column-rule" or not said:
                continue
            lines = chromium.execute_script(_RULES, f'[data-rim-node="{element.node}"]')
            values = styling.all_of(element, "rest", site.bands[0].id)
            width, kind, colour = (values[f"border-inline-start-{name}"].value for name in ("width", "style", "color"))
            assert lines[0] is None, "nothing before the first column"
            for line in lines[1:]:
                drawn += 1
                assert line[1] == kind and line[0] == (
                    {"medium": "3px"}.get(width, width) if kind != "none" else "0px"
                ), line
                shown = chromium.execute_script(
                    "const p = document.createElement('i'); p.style.color = arguments[0]; document.body.append(p); return getComputedStyle(p).color",
                    palette.resolved(colour),
                )
                assert colour.lower() == "currentcolor" or line[2] == shown
    assert drawn > 3


def test_a_background_that_moves_slower_stays_behind_by_its_share(chromium: webdriver.Chrome, tmp_path: Path) -> None:
    image = {
        "background-image": "linear-gradient(#12344d, #ffffff)",
        "background-position": "left top",
        "background-drift": "0.4",
    }
    row = Row(id="rw-one", styles=declared("row", image))
    site = Site(key="qdrift", name="Drift", pieces=(Header(id="pc-one", name="P", rows=(row,)),))
    file = tmp_path / "drift.html"
    file.write_text(document_of(site) + "<div style='height:6000px'></div>")
    metrics = {"width": 800, "height": 600, "deviceScaleFactor": 1, "mobile": False}
    chromium.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
    for calm, wanted in (
        ("no-preference", {0: 0, 500: 200, 1000: 400, 2000: 800, 3000: 800}),
        ("reduce", {0: 0, 1000: 0}),
    ):
        feature = {"name": "prefers-reduced-motion", "value": calm}
        chromium.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": [feature]})
        chromium.get(file.as_uri())
        for scrolled, behind in wanted.items():
            found = chromium.execute_async_script(
                "const done = arguments[1]; scrollTo(0, arguments[0]); requestAnimationFrame(() => requestAnimationFrame(() => done(getComputedStyle(document.querySelector('.qdrift-rw-one')).backgroundPositionY)))",
                scrolled,
            )
            assert float(re.findall(r"([\d.]+)px", found + "0px")[0]) == pytest.approx(behind, abs=1), (
                calm,
                scrolled,
                found,
            )
    chromium.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": []})

"""A browser that is who a card says: its languages, clock, zone, screen, pointer, preferences, and what it remembers."""

from __future__ import annotations

import json
from typing import Any
from urllib.parse import urlencode

from upper_rim.core.conditions.audience.audience import is_for_everybody
from upper_rim.core.conditions.visitor import VisitorCard, instant_of
from upper_rim.core.model.site import Page, Site
from upper_rim.core.reach.coverage import Coverage
from upper_rim.core.reach.looking import looking_at
from upper_rim.core.style.resolve import band_at

DAY_MS = 86_400_000
_MEDIA = {
    "reduced-motion": ("prefers-reduced-motion", "reduce"),
    "more-contrast": ("prefers-contrast", "more"),
    "dark": ("prefers-color-scheme", "dark"),
}


class VisitorBrowser:
    def __init__(self, driver: Any) -> None:
        self._driver = driver
        self._script: str | None = None
        self._agent = driver.execute_script("return navigator.userAgent")

    def _cdp(self, name: str, **said: Any) -> Any:
        return self._driver.execute_cdp_cmd(name, said)

    def opens(self, address: str, card: VisitorCard, key: str) -> None:
        wide, high = card.width_px, card.height_px
        self._cdp(
            "Emulation.setDeviceMetricsOverride",
            width=wide,
            height=high,
            screenWidth=wide,
            screenHeight=high,
            deviceScaleFactor=1,
            mobile=False,
        )
        self._cdp("Emulation.setTouchEmulationEnabled", enabled=card.pointer == "touch", maxTouchPoints=1)
        self._cdp("Emulation.setUserAgentOverride", userAgent=self._agent, acceptLanguage=",".join(card.languages))
        self._cdp("Emulation.setTimezoneOverride", timezoneId=card.zone)
        features = [
            {"name": name, "value": value if what in card.prefers else ""} for what, (name, value) in _MEDIA.items()
        ]
        self._cdp("Emulation.setEmulatedMedia", features=features)
        self._cdp("Emulation.setScriptExecutionDisabled", value=not card.has_script)
        if self._script is not None:
            self._cdp("Page.removeScriptToEvaluateOnNewDocument", identifier=self._script)
        now = round(instant_of(card.clock).timestamp() * 1000)
        told = {"region": card.region, "groups": None if card.groups is None else list(card.groups)}
        source = (
            f"Object.defineProperty(navigator, 'connection', {{value: {{saveData: {json.dumps('reduced-data' in card.prefers)}}}}});"
            f"Date.now = () => {now}; window.rimVisitor = {json.dumps(told)};"
            f"localStorage.setItem('{key}-who', {json.dumps(json.dumps(_kept(card, now)))});"
        )
        self._script = self._cdp("Page.addScriptToEvaluateOnNewDocument", source=source)["identifier"]
        arrives = card.came_days == 0
        query = urlencode([(one.name, one.value) for one in card.came_with]) if arrives else ""
        referrer = {"referrer": f"http://{card.came_from}/"} if arrives and card.came_from else {}
        self._cdp("Page.navigate", url=f"{address}?{query}" if query else address, **referrer)


def _kept(card: VisitorCard, now: int) -> dict[str, Any]:
    kept: dict[str, Any] = {
        "n": card.visit - 1,
        "t": now - 2 * DAY_MS,
        "s": {one.node: [0 if one.days else card.visit, now - one.days * DAY_MS] for one in card.saw},
        "c": {one.node: [now - one.days * DAY_MS, *([one.text] if one.text else [])] for one in card.shuts},
    }
    if card.came_days and (card.came_from or card.came_with):
        told = [[one.name, one.value] for one in card.came_with]
        kept["f"] = [card.came_from, told, now - card.came_days * DAY_MS, 0]
    return kept


def predicted(site: Site, page: Page, card: VisitorCard) -> set[str]:
    """Ids of the pieces, rows and items that show."""
    coverage, band = Coverage(site), band_at(site, card.width_px)
    at, found = coverage.bands.index(band), set()

    def gets(node: Any) -> bool:
        if not card.has_script:
            return is_for_everybody(node)
        return bool(node.audience.takes_in(looking_at(node, card, site, site.languages)))

    for outcomes in coverage.on(page, coverage.gets(card)).values():
        piece = outcomes[at].piece
        if piece is None:
            continue
        found.add(piece.id)
        for row in site.shown_rows(piece):
            if band in row.hidden_in or not gets(row):
                continue
            found.add(row.id)
            items = (item for cell in row.cells for item in cell.items)
            found |= {item.id for item in items if band not in item.hidden_in and gets(item)}
    return found


SHOWN = """
const ids = arguments[0], key = arguments[1];
return ids.filter((id) => [...document.querySelectorAll(`.${key}-${id}`)].some((one) => one.getClientRects().length > 0));
"""

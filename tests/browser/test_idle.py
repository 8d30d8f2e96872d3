"""What is told to have no effect has none: pictures before and after are the same, and differ where it is told nothing."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest
from selenium import webdriver

from upper_rim.core.output.css.sheet import sheet
from upper_rim.core.style.idle import NEEDS, idle
from upper_rim.core.style.resolve import Styling
from upper_rim.shipped import shelf

from .conftest import plain_chromium
from .test_contrast import shot, site_with
from .test_styles import body_of

OTHERWISE = {
    "width": "7px", "color": "#d01030", "offset": "9px", "style": "wavy", "thickness": "5px", "size": "20px 9px",
    "repeat": "no-repeat", "position": "30% 40%", "attachment": "fixed", "mode": "multiply", "drift": "0.5",
    "function": "linear",
}  # fmt: skip
"""By the last word of a property: another value than it begins with."""
PAINTED = {
    "outline-style": "dashed",
    "text-decoration-line": "underline",
    "background-image": "linear-gradient(35deg, #cc3333, #33cc88)",
}
UNSEEN_AT_REST = {"background-drift", "transition-timing-function"}
"""What shows only while something moves: of these only that nothing happens is seen."""


@pytest.fixture(scope="module")
def chromium() -> Iterator[webdriver.Chrome]:
    driver = plain_chromium()
    driver.execute_cdp_cmd(
        "Emulation.setDeviceMetricsOverride", {"width": 700, "height": 200, "deviceScaleFactor": 1, "mobile": False}
    )
    yield driver
    driver.quit()


@pytest.mark.parametrize("name", NEEDS)
def test_what_is_told_to_have_no_effect_changes_no_picture(
    chromium: webdriver.Chrome, tmp_path: Path, name: str
) -> None:
    needs, without = NEEDS[name]
    base = {"background-color": "#e9d8a6", "padding-block-start": "12px"}
    if name == "background-repeat":
        base["background-size"] = "20px 9px"
    value = OTHERWISE[name.rsplit("-", 1)[1]]
    pictures = []
    for said in (next(iter(without)), PAINTED.get(needs, "dashed")):
        if needs == "transition-duration" and said not in without:
            continue
        styling = Styling(site_with({"text": base | {needs: said}}))
        told = idle(styling, styling.elements["it-text", "box"], [name], ((), "box"), ("rest", None), None)
        assert (told is not None) == (said in without)
        pair = []
        for more in ({}, {name: value}):
            site = site_with({"text": base | {needs: said} | more})
            file = tmp_path / "page.html"
            file.write_text(
                f"<!doctype html><meta charset=utf-8><style>{sheet(site, shelf(), '')}</style><body>{body_of(site)}"
            )
            chromium.get(file.as_uri())
            pair.append(shot(chromium).tobytes())
        pictures.append(pair[0] == pair[1])
    assert pictures[0], "it changes something after all"
    assert name in UNSEEN_AT_REST or pictures[1] is False, "it would change nothing anyway"

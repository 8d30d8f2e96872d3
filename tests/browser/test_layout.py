"""Boxes of made-up trees stand where Chromium puts them."""

from __future__ import annotations

from typing import Any

import pytest

from tests.boxed import BoxMaker, in_px, laid_out, page
from upper_rim.core.fit.css.amount import Viewport

from .conftest import Browser

WIDTHS = (300, 517, 800, 1333)
_PLACES = """
const [html, widths, done] = arguments;
const frame = document.createElement('iframe');
frame.style.cssText = 'border:0;position:absolute;height:800px;width:' + widths[0] + 'px';
frame.onload = () => {
  const found = widths.map((width) => {
    frame.style.width = width + 'px';
    return Object.fromEntries([...frame.contentDocument.querySelectorAll('div')].map((one) => {
      const { x, y, width, height } = one.getBoundingClientRect();
      return [one.id, [x, y, width, height]];
    }));
  });
  frame.remove();
  done(found);
};
frame.srcdoc = html;
document.body.append(frame);
"""


@pytest.mark.parametrize("first", range(0, 200, 50))
def test_boxes_stand_where_the_browser_puts_them(measurer: Browser, first: int) -> None:
    measurer.driver.get("about:blank")
    wrong: list[Any] = []
    for seed in range(first, first + 50):
        root, html = BoxMaker(seed).tree()
        seen = measurer.driver.execute_async_script(_PLACES, page(html), list(WIDTHS))
        for width, there in zip(WIDTHS, seen, strict=True):
            for part, place in laid_out(root, Viewport(float(width), 800.0)).items():
                said = in_px(place)
                if said != pytest.approx(there[part], abs=0.2):
                    wrong.append((seed, width, part, said, there[part]))
                    break
    assert not wrong, (len(wrong), wrong[:5])


@pytest.mark.parametrize("tray", ["content", "ground", "movement"])
def test_enlarged_to_twice_its_size_the_regions_of_the_workbench_stand_below_each_other(
    browser: Browser, tray: str
) -> None:
    browser.sign_in()
    browser.resize(640, 400)
    browser.go(f"/s/ostrey/pieces/pc-main/?select=it-book&tray={tray}")
    wait_for(lambda: browser.js("return document.readyState === 'complete'"))
    regions, wide = browser.js(
        """
        const regions = [...document.querySelectorAll('[data-region]')].filter((one) => one.checkVisibility());
        const rects = regions.map((one) => [one.dataset.region, one.getBoundingClientRect()]);
        return [rects.map(([name, {left, right, top, bottom}]) => [name, left, right, top, bottom]), document.documentElement.scrollWidth];
        """
    )
    assert wide <= 640 and len(regions) >= 6
    over = [
        (one[0], other[0])
        for at, one in enumerate(regions)
        for other in regions[at + 1 :]
        if min(one[2], other[2]) - max(one[1], other[1]) > 1 and min(one[4], other[4]) - max(one[3], other[3]) > 1
    ]
    assert over == []
    # Nothing of the controls is cut: they scroll with the page.
    assert browser.js("const tray = document.querySelector('.tray'); return tray.scrollHeight <= tray.clientHeight + 1")

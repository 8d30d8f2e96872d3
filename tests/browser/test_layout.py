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

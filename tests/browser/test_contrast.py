"""The contrast computed is the contrast seen: text over grounds of every kind, compared with screenshots."""

from __future__ import annotations

import base64
import io
from collections.abc import Iterator
from functools import cache
from pathlib import Path

import pytest
from coloraide import Color
from PIL import Image
from selenium import webdriver

from upper_rim.core.kinds.items.text import TextItem
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.rows import Cell, Row, Track
from upper_rim.core.model.site import Site
from upper_rim.core.output.css.sheet import sheet
from upper_rim.core.style.paint.colour import Rgba, contrast_ratio
from upper_rim.core.style.paint.contrast import passing_shade, text_contrast
from upper_rim.core.style.paint.grounds import GroundBox
from upper_rim.core.style.paint.painting import Painter, PaintView
from upper_rim.core.style.paint.pictures import read_picture
from upper_rim.core.style.resolve import Styling
from upper_rim.core.values.properties import PROPERTIES
from upper_rim.core.values.words import Words
from upper_rim.demo.making import declared
from upper_rim.shipped import shelf

from .conftest import plain_chromium
from .test_styles import body_of

WIDTH = 800
REPEATS = PROPERTIES["background-repeat"].choices
GROUNDS: dict[str, dict[str, dict[str, str]]] = {
    "solid": {"row": {"background-color": "#12344d"}, "text": {"color": "#f4e9d0"}},
    "solid, failing": {"row": {"background-color": "#8a9290"}, "text": {"color": "#ffffff"}},
    "translucent text": {"row": {"background-color": "#12344d"}, "text": {"color": "rgb(255 255 255 / 55%)"}},
    "translucent layers": {
        "piece": {"background-color": "#e9b44c"},
        "row": {"background-color": "rgb(18 52 77 / 45%)"},
        "cell": {"background-color": "rgb(255 255 255 / 30%)"},
        "text": {"color": "#301010", "background-color": "rgb(0 120 90 / 25%)"},
    },
    "opacity": {
        "piece": {"background-color": "#204060"},
        "cell": {"opacity": "0.7", "background-color": "#ffffff"},
        "text": {"color": "#222222"},
    },
    "gradient across": {
        "row": {"background-image": "linear-gradient(90deg, #12344d, #7fb0c8 70%, #ffffff)"},
        "text": {"color": "#ffffff"},
    },
    "gradient to a corner": {
        "row": {"background-image": "linear-gradient(to bottom left, #000000, #ffcc00)"},
        "text": {"color": "#dd2211", "padding-block-start": "40px"},
    },
    "translucent gradient": {
        "row": {"background-color": "#0a5f78", "background-image": "linear-gradient(160deg, rgb(255 255 255 / 80%), transparent)"},
        "text": {"color": "#ffffff", "font-size": "30px"},
    },
    "radial gradient": {
        "row": {"background-image": "radial-gradient(circle at 30% 50%, #ffffff, #224466 60%, #000000)"},
        "text": {"color": "#e0e0e0", "padding-block-start": "30px"},
    },
    "ellipse": {
        "row": {"background-image": "radial-gradient(ellipse at right center, #ffeeaa, #884400)"},
        "text": {"color": "#331100"},
    },
    "picture, covering": {
        "row": {"background-image": 'url("/hills.png")', "background-size": "cover", "background-position": "center center"},
        "text": {"color": "#ffffff", "padding-block-start": "50px"},
    },
    "picture, tiled, with an overlay": {
        "row": {
            "background-image": 'linear-gradient(rgb(0 0 0 / 50%), rgb(0 0 0 / 50%)), url("/hills.png")',
            "background-size": "200px 120px",
        },
        "text": {"color": "#ffffff"},
    },
    "picture, contained": {
        "row": {
            "background-color": "#f0f0f0",
            "background-image": 'url("/hills.png")',
            "background-size": "contain",
            "background-repeat": "no-repeat",
            "background-position": "right bottom",
        },
        "text": {"color": "#445566", "padding-block-start": "60px"},
    },
    **{
        f"picture, {repeat}, {size}": {
            "row": {"background-image": 'url("/hills.png")', "background-repeat": repeat, "background-size": size, "background-position": "10px 5px"},
            "text": {"color": "#ffffff", "padding-block-start": "60px"},
        }
        for repeat in REPEATS
        for size in ("90px 70px", "300px auto")
    },
    **{
        f"blend: {blend}": {
            "piece": {"background-image": "linear-gradient(90deg, #3388aa, #f2d7a0)"},
            "cell": {"mix-blend-mode": blend, "background-color": "#c06030"},
            "text": {"color": "#101018"},
        }
        for blend in ("multiply", "screen", "overlay", "darken", "color-dodge", "color-burn", "hard-light", "soft-light", "difference", "exclusion", "luminosity")
    },
    "layers blend": {
        "row": {
            "background-color": "#70a0d0",
            "background-image": "linear-gradient(90deg, #ffffff, #804020)",
            "background-blend-mode": "multiply",
        },
        "text": {"color": "#ffffff"},
    },
}  # fmt: skip


@cache
def hills() -> bytes:
    """A smooth picture, 240 by 160 px."""
    image = Image.new("RGB", (240, 160))
    image.putdata([(int(40 + x * 0.8), int(90 + y), int(200 - x * 0.5)) for y in range(160) for x in range(240)])
    out = io.BytesIO()
    image.save(out, "PNG")
    return out.getvalue()


def site_with(styles: dict[str, dict[str, str]]) -> Site:
    text = TextItem(
        id="it-text",
        words=Words(text="Winter sailings from the second of November"),
        styles=declared("text", styles.get("text", {})),
    )
    cell = Cell(id="cl-one", track=Track(kind="share"), items=(text,), styles=declared("cell", styles.get("cell", {})))
    row = Row(id="rw-one", full_width=True, cells=(cell,), styles=declared("row", styles.get("row", {})))
    piece = Header(id="pc-one", name="P", rows=(row,), styles=declared("piece", styles.get("piece", {})))
    return Site(key="qground", name="Grounds", pieces=(piece,))


@pytest.fixture(scope="module")
def chromium() -> Iterator[webdriver.Chrome]:
    driver = plain_chromium()
    metrics = {"width": WIDTH, "height": 300, "deviceScaleFactor": 1, "mobile": False}
    driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
    yield driver
    driver.quit()


def shot(chromium: webdriver.Chrome) -> Image.Image:
    return Image.open(io.BytesIO(base64.b64decode(chromium.get_screenshot_as_base64()))).convert("RGB")


@pytest.mark.parametrize("name", GROUNDS)
def test_computed_contrast_is_what_a_screenshot_shows(chromium: webdriver.Chrome, tmp_path: Path, name: str) -> None:
    site = site_with(GROUNDS[name])
    (tmp_path / "hills.png").write_bytes(hills())
    css = sheet(site, shelf(), "").replace("/hills.png", (tmp_path / "hills.png").as_uri())
    file = tmp_path / "page.html"
    file.write_text(f"<!doctype html><meta charset=utf-8><style>{css}</style><body>{body_of(site)}")
    chromium.get(file.as_uri())
    boxes = {
        node: GroundBox(*chromium.execute_script(
            "const b = document.querySelector(arguments[0]).getBoundingClientRect(); return [b.left, b.top, b.width, b.height]",
            f'[data-rim-node="{node}"]',
        ))
        for node in ("pc-one", "rw-one", "cl-one", "it-text")
    }  # fmt: skip
    text = boxes["it-text"]
    chromium.execute_script(
        "document.querySelector('[data-rim-node=it-text]').style.setProperty('-webkit-text-fill-color', 'transparent', 'important')"
    )
    ground = shot(chromium)
    chromium.execute_script(
        "const block = document.createElement('span'); block.style.cssText = 'display:block!important;position:absolute!important;inset:0!important;background:currentColor!important';"
        "const text = document.querySelector('[data-rim-node=it-text]'); text.style.setProperty('position', 'relative', 'important'); text.append(block)"
    )
    written = shot(chromium)
    inner = (round(text.left), round(text.top), round(text.left + text.width), round(text.top + text.height))
    pairs = set(zip(written.crop(inner).get_flattened_data(), ground.crop(inner).get_flattened_data(), strict=True))
    measured = min(contrast_ratio(rgba(one), rgba(other)) for one, other in pairs)
    styling = Styling(site)
    painter = Painter(styling, lambda path: read_picture(hills()) if path == "/hills.png" else None)
    view = PaintView(viewport_width=WIDTH, boxes=boxes, text=text)
    computed = text_contrast(painter, styling.elements["it-text", "box"], view)
    assert computed.ratio == pytest.approx(measured, abs=0.1)
    assert 1 <= measured < 21


def rgba(channels: tuple[int, ...]) -> Rgba:
    red, green, blue = (channel / 255 for channel in channels)
    return Rgba(red, green, blue)


def test_the_nearest_passing_shade_passes_and_keeps_the_hue() -> None:
    for name, styles in GROUNDS.items():
        site = site_with(styles)
        styling = Styling(site)
        painter = Painter(styling, lambda path: read_picture(hills()))
        element, view = styling.elements["it-text", "box"], PaintView(viewport_width=WIDTH)
        shade = passing_shade(painter, element, view)
        if shade is None:
            continue
        mended = site_with({**styles, "text": {**styles["text"], "color": shade}})
        styling = Styling(mended)
        painter = Painter(styling, lambda path: read_picture(hills()))
        again = text_contrast(painter, styling.elements["it-text", "box"], view)
        assert again.passes, name
        before, after = Color(styles["text"]["color"]).convert("oklch"), Color(shade).convert("oklch")
        if before["chroma"] > 0.03 and after["chroma"] > 0.03:
            assert abs((before["hue"] - after["hue"] + 180) % 360 - 180) < 6, name
